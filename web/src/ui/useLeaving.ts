import { useEffect, useRef } from "react";

/** Does once more, when the screen is left, what leaving the field would have done; null where nothing is typed. */
export function useLeaving(commit: (() => void) | null): void {
  const last = useRef(commit);
  last.current = commit;
  useEffect(() => () => last.current?.(), []);
}
