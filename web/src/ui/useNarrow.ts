import { useSyncExternalStore } from "react";

const PHONE = "screen and (max-width: 767px)";

/** Whether the window is a phone's. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    (told) => {
      const asked = window.matchMedia(PHONE);
      asked.addEventListener("change", told);
      return () => asked.removeEventListener("change", told);
    },
    () => window.matchMedia(PHONE).matches,
  );
}
