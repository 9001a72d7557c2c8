import { useCallback } from "react";
import { useSearchParams } from "react-router";

/** One of a few that stands in the address, as `?tab=stems`; the first of them is left out of it. Back passes it over. */
export function useAddress<T extends string>(
  name: string,
  among: readonly T[],
): readonly [T, (next: T) => void] {
  const [query, setQuery] = useSearchParams();
  const asked = query.get(name);
  const first = among[0] as T;
  const now = among.find((each) => each === asked) ?? first;
  const go = useCallback(
    (next: T) =>
      setQuery(
        (before) => {
          const after = new URLSearchParams(before);
          if (next === first) after.delete(name);
          else after.set(name, next);
          return after;
        },
        { replace: true, preventScrollReset: true },
      ),
    [setQuery, name, first],
  );
  return [now, go];
}
