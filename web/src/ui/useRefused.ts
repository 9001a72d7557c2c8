import { useState } from "react";
import type { Problem } from "../api/types";

/** What was refused of a field, until the good value stands in it again: `takenBack` says that it does. */
export function useRefused(path: string | undefined, problem: Problem | null | undefined) {
  const [answered, setAnswered] = useState<Problem["message"] | null>(null);
  const mine = problem && path !== undefined && problem.path === path && problem.message !== answered;
  return {
    refused: mine ? problem : null,
    takenBack: () => setAnswered(problem?.message ?? null),
  };
}
