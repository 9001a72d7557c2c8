import { useCallback, useState } from "react";
import { Refused } from "../api/client";
import type { Problem } from "../api/types";
import { type Again, againOf, type Conflict, type Kind, unreached, useWriteLine } from "./useWriteLine";

/** Sends a write: over the newest state that this window knows, or once more with what was chosen in a conflict. */
type Does = (again: Again | null, last: () => boolean) => Promise<void>;

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
      again: Again | null = null,
    ): Promise<void> => {
      setConflict(null);
      return write(async (last) => {
        try {
          await does(again, last);
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
          setConflict({
            problem,
            words,
            again: (mine, theirs) => void send(does, kind, words, againOf(problem, mine, theirs)),
          });
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
