import type { Problem } from "../api/types";
import type { Conflict } from "../ui/useWriteLine";

/** What is tried of a part: how it would be, and what was told of that, null until it is. */
export type Trial<P, T> = { readonly part: P; readonly told: T | null };

/** A desk beside what is kept: what is tried, what was refused, and the number of the question that still counts. */
export type Desk<P, T> = {
  readonly trial: Trial<P, T> | null;
  readonly problem: Problem | null;
  readonly conflict: Conflict | null;
  readonly question: number;
};

export type Action<P, T> =
  /** A hand tries something; it is not saved. */
  | { readonly type: "try"; readonly part: P }
  /** An answer to a question; one that nobody asks any more is dropped. */
  | { readonly type: "told"; readonly question: number; readonly told: T }
  | { readonly type: "untold"; readonly question: number; readonly problem: Problem }
  /** A write goes out: of the part, or (null) of something whose outcome only the program knows. */
  | { readonly type: "write"; readonly part: P | null }
  /** A write is kept; `part` as it was sent, so that what is tried meanwhile stays. */
  | { readonly type: "kept"; readonly part: P | null }
  | { readonly type: "refused"; readonly problem: Problem }
  /** A write did not reach the program: what was typed stays. */
  | { readonly type: "unreached"; readonly problem: Problem }
  | { readonly type: "stale"; readonly conflict: Conflict }
  /** Back to what is kept: Esc, undo and redo, or the other window's state taken. */
  | { readonly type: "drop" };

/** A desk at which nothing is tried. */
export function bare<P, T>(): Desk<P, T> {
  return { trial: null, problem: null, conflict: null, question: 0 };
}

export function reduce<P, T>(desk: Desk<P, T>, action: Action<P, T>): Desk<P, T> {
  switch (action.type) {
    case "try":
      return { ...desk, trial: { part: action.part, told: desk.trial?.told ?? null } };
    case "told":
      if (action.question !== desk.question || !desk.trial) return desk;
      return { ...desk, trial: { ...desk.trial, told: action.told }, problem: null };
    case "untold":
      return action.question === desk.question ? { ...desk, problem: action.problem } : desk;
    case "write": {
      const trial = action.part === null ? desk.trial : { part: action.part, told: desk.trial?.told ?? null };
      return { ...desk, trial, conflict: null, question: desk.question + 1 };
    }
    case "kept":
      return {
        ...desk,
        trial: action.part !== null && desk.trial?.part !== action.part ? desk.trial : null,
        problem: null,
        conflict: null,
      };
    case "refused":
      return { ...desk, trial: null, problem: action.problem };
    case "unreached":
      return { ...desk, problem: action.problem };
    case "stale": {
      // what both changed stays as it was typed, until somebody has chosen
      const asks = (action.conflict.problem.both?.length ?? 0) > 0;
      return { ...desk, trial: asks ? desk.trial : null, problem: null, conflict: action.conflict };
    }
    case "drop":
      return { trial: null, problem: null, conflict: null, question: desk.question + 1 };
  }
}
