import { useCallback, useState } from "react";
import { Refused } from "../api/client";
import type { Problem } from "../api/types";
import { type Conflict, type Kind, unreached, useWriteLine } from "./useWriteLine";

/** Sends a write: over the newest state that this window knows, or over the revision it was told of in a conflict. */
type Does = (over: number | null, last: () => boolean) => Promise<void>;

/** Writes in one line: what was refused, what is not saved yet, and both ways out where another window was first. */
export function useWrites() {
  const { write, saving } = useWriteLine();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const send = useCallback(
    (
      does: Does,
      kind: Kind = "once",
      words = "Keep mine over it",
      over: number | null = null,
    ): Promise<void> => {
      setConflict(null);
      return write(async (last) => {
        try {
          await does(over, last);
          setProblem(null);
        } catch (reason) {
          if (!(reason instanceof Refused)) throw reason;
          if (unreached(reason)) {
            setProblem(reason.problem);
            throw reason;
          }
          const { problem } = reason;
          if (problem.code !== "stale") {
            setProblem(problem);
            return;
          }
          setProblem(null);
          const again = () => void send(does, kind, words, problem.revision ?? 0);
          setConflict({ problem, words, again });
        }
      }, kind);
    },
    [write],
  );
  /** The other window's state was taken. */
  const forget = useCallback(() => {
    setProblem(null);
    setConflict(null);
  }, []);
  return { send, saving, problem, setProblem, conflict, forget };
}
