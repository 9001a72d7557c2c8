import type { Verdict } from "../api/types";

export type State = Verdict["state"];

export const STATE_COLOUR: Record<State, string> = {
  holds: "text-leaf",
  tight: "text-marigold",
  fails: "text-berry",
  "not needed": "text-soft",
  "cannot say": "text-soft",
};

/** Severity for "worst first": fails, then cannot say, then tight, then holds. */
export const SEVERITY: Record<State, number> = {
  fails: 4,
  "cannot say": 2,
  tight: 3,
  holds: 1,
  "not needed": 0,
};

/** A state as a shape: a knot that is tied, half tied, cut, absent or unknown. */
export function StateMark({ state, size = 18 }: { state: State; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" aria-hidden="true" className={STATE_COLOUR[state]}>
      {state === "holds" && (
        <path
          d="M3 10.5 8 15.5 17 5"
          fill="none"
          stroke="currentColor"
          strokeWidth="3"
          strokeLinecap="round"
        />
      )}
      {state === "tight" && (
        <path
          d="M10 2.5 18 17.5H2Z"
          fill="none"
          stroke="currentColor"
          strokeWidth="2.4"
          strokeLinejoin="round"
        />
      )}
      {state === "fails" && (
        <path
          d="M4 4 16 16M16 4 4 16"
          fill="none"
          stroke="currentColor"
          strokeWidth="3.2"
          strokeLinecap="round"
        />
      )}
      {state === "not needed" && <path d="M4 10h12" stroke="currentColor" strokeWidth="2.4" />}
      {state === "cannot say" && (
        <circle
          cx="10"
          cy="10"
          r="7"
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
          strokeDasharray="3.2 2.6"
        />
      )}
    </svg>
  );
}
