import { useSyncExternalStore } from "react";

/** Where the tour of the demo job is; null where nobody takes it. Kept while the window is open. */
export type Tour = { readonly eventId: number; readonly step: number };

const KEY = "tour";
const listeners = new Set<() => void>();

function read(): string | null {
  try {
    return sessionStorage.getItem(KEY);
  } catch {
    return null;
  }
}

/** Go to a step of the tour, or leave it. */
export function setTour(tour: Tour | null): void {
  try {
    if (tour) sessionStorage.setItem(KEY, `${tour.eventId} ${tour.step}`);
    else sessionStorage.removeItem(KEY);
  } catch {
    // A browser that keeps nothing has no tour.
  }
  for (const told of listeners) told();
}

export function useTour(): Tour | null {
  const kept = useSyncExternalStore((told) => {
    listeners.add(told);
    return () => listeners.delete(told);
  }, read);
  return kept ? toured(kept) : null;
}

/** What another program or an older one left there is no tour. */
function toured(kept: string): Tour | null {
  const [eventId, step] = kept.split(" ").map(Number);
  return Number.isInteger(eventId) && Number.isInteger(step)
    ? { eventId: eventId ?? 0, step: step ?? 0 }
    : null;
}
