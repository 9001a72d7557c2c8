import { useEffect } from "react";

const PROGRAM = "Jolly Trellis";

/** The name of the screen in the window's title: the nearest first, as "Low bowl · Slipway lunch · Jolly Trellis". */
export function useTitle(...names: readonly (string | null | undefined)[]): void {
  const title = [...names.filter(Boolean), PROGRAM].join(" · ");
  useEffect(() => {
    document.title = title;
  }, [title]);
}
