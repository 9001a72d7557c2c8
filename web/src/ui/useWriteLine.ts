import { useCallback, useEffect, useRef, useState } from "react";
import { Refused } from "../api/client";
import type { Chosen, Problem } from "../api/types";

export type Kind = "once" | "each" | "whole";
/** "asked" while a person must choose between two windows' values. */
export type Saving = "saved" | "saving" | "not saved" | "asked";
/** Something changed meanwhile: what was tried, and how to do it all the same, with what was chosen field by field. */
export type Conflict = {
  readonly problem: Problem;
  readonly words: string;
  readonly again: (mine: readonly string[], theirs: readonly string[]) => void;
};
/** A write that is sent once more: over the newest revision, with what was chosen of what both changed. */
export type Again = { readonly revision: number; readonly chosen: Chosen };

/** The second try of a write that another one was before. */
export function againOf(problem: Problem, mine: readonly string[], theirs: readonly string[]): Again {
  const revision = problem.revision ?? 0;
  return { revision, chosen: { revision, mine, theirs } };
}

const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 15_000;

/** Windows ask before they are left while anything of theirs is not saved yet. */
const unsaved = new Set<object>();
window.addEventListener("beforeunload", (event) => {
  if (unsaved.size > 0) event.preventDefault();
});

/** Whether a refusal asks which of two windows' values is meant. */
export function asksWhose(reason: unknown): boolean {
  return reason instanceof Refused && (reason.problem.both?.length ?? 0) > 0;
}

export function unreached(reason: unknown): boolean {
  return reason instanceof Refused && (reason.status === 0 || reason.status >= 500);
}

/**
 * One line of writes, each after the one before it, whatever became of that. A write that does not reach the program is
 * tried again until it does, or until a later one goes out that holds its change too.
 */
export function useWriteLine() {
  const [saving, setSaving] = useState<Saving>("saved");
  const tail = useRef<Promise<void>>(Promise.resolve());
  const open = useRef(0);
  const newest = useRef(0);
  const wake = useRef<() => void>(() => {});
  const mark = useRef({});

  useEffect(() => {
    const online = () => wake.current();
    window.addEventListener("online", online);
    return () => window.removeEventListener("online", online);
  }, []);

  /**
   * Sends a write. `work` deals with its own refusals and throws only what did not reach the program.
   * One that did not is not tried again where it is asked for "once"; "each" is, in its turn; "whole" tells one that
   * holds everything on the screen: it is tried again, and stands for those before it.
   */
  const write = useCallback((work: (last: () => boolean) => Promise<void>, kind: Kind) => {
    const whole = kind === "whole";
    if (whole) newest.current += 1;
    const number = newest.current;
    const last = () => number === newest.current;
    open.current += 1;
    unsaved.add(mark.current);
    setSaving((now) => (now === "not saved" ? now : "saving"));
    wake.current();
    const run = async () => {
      for (let wait = FIRST_WAIT_MS; ; wait = Math.min(2 * wait, LONGEST_WAIT_MS)) {
        try {
          await work(last);
          break;
        } catch (reason) {
          if (!unreached(reason)) break;
          if (kind === "once" || (whole && !last())) break;
          setSaving("not saved");
          await new Promise<void>((go) => {
            const timer = setTimeout(go, wait);
            wake.current = () => {
              clearTimeout(timer);
              go();
            };
          });
          if (whole && !last()) break;
        }
      }
      open.current -= 1;
      if (open.current === 0) {
        unsaved.delete(mark.current);
        setSaving("saved");
      } else setSaving("saving");
    };
    tail.current = tail.current.then(run, run);
    return tail.current;
  }, []);

  return { write, saving, tail };
}
