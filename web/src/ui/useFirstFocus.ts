import { type RefObject, useEffect, useRef } from "react";

/** Where the work of an empty place begins: it has the keyboard when the place opens. */
export function useFirstFocus<T extends HTMLElement>(begins: boolean): RefObject<T | null> {
  const place = useRef<T>(null);
  useEffect(() => {
    if (begins) place.current?.focus({ preventScroll: true });
  }, [begins]);
  return place;
}
