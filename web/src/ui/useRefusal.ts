import { useCallback, useState } from "react";
import { Refused } from "../api/client";
import type { Problem } from "../api/types";

/** Runs what may be refused, and keeps the sentence of the last refusal until something goes well. */
export function useRefusal() {
  const [problem, setProblem] = useState<Problem | null>(null);
  const attempt = useCallback(async <T>(work: () => Promise<T>): Promise<T | null> => {
    try {
      const done = await work();
      setProblem(null);
      return done;
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setProblem(reason.problem);
      return null;
    }
  }, []);
  return { problem, setProblem, attempt };
}
