import { type RefObject, useEffect, useRef } from "react";

/** Where the work of an empty screen begins: it has the keyboard when the screen opens, unless something else has. */
export function useFirstFocus<T extends HTMLElement>(begins: boolean): RefObject<T | null> {
  const place = useRef<T>(null);
  useEffect(() => {
    // nobody who works somewhere else already is torn away
    const free = !document.activeElement || document.activeElement === document.body;
    if (begins && free) place.current?.focus({ preventScroll: true });
  }, [begins]);
  return place;
}
