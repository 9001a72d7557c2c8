import type { Brief } from "../../api/types";

const DAY_MS = 86_400_000;

/** The day an event is on, "2027-05-14": when guests come, or water goes in. */
export function dayOf(brief: Brief): string | null {
  return (brief.starts_at ?? brief.filled_at)?.slice(0, 10) ?? null;
}

/** Whole days from today to an event, by the calendar at this screen; under 0 once it is over, null without a day. */
export function daysTo(brief: Brief, now: Date = new Date()): number | null {
  const [first, last] = [dayOf(brief), brief.ends_at?.slice(0, 10) ?? dayOf(brief)];
  if (!first || !last) return null;
  const today = Date.UTC(now.getFullYear(), now.getMonth(), now.getDate());
  const to = Math.round((Date.parse(`${first}T00:00Z`) - today) / DAY_MS);
  const left = Math.round((Date.parse(`${last}T00:00Z`) - today) / DAY_MS);
  return left < 0 ? left : Math.max(to, 0);
}

/** Events that are still to come, the nearest first and those without a day last; and those that are over, the last first. */
export function comingAndOver<T extends { readonly brief: Brief }>(
  events: readonly T[],
  now: Date = new Date(),
): { readonly coming: readonly T[]; readonly over: readonly T[] } {
  const off = (each: T) => daysTo(each.brief, now) ?? Number.MAX_SAFE_INTEGER;
  return {
    coming: events.filter((each) => off(each) >= 0).toSorted((a, b) => off(a) - off(b)),
    over: events.filter((each) => off(each) < 0).toSorted((a, b) => off(b) - off(a)),
  };
}
