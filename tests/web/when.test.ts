import { describe, expect, test } from "vitest";
import type { Brief } from "../../web/src/api/types";
import { comingAndOver, dayOf, daysTo } from "../../web/src/screens/line-up/when";

const NOW = new Date(2027, 4, 12, 23, 30);
const brief = (starts_at: string | null, ends_at: string | null = null, filled_at: string | null = null) =>
  ({ starts_at, ends_at, filled_at }) as Brief;

describe("when an event is", () => {
  test("is told by when guests come, or else by when water goes in", () => {
    expect(dayOf(brief("2027-05-14T18:00", null, "2027-05-13T12:00"))).toBe("2027-05-14");
    expect(dayOf(brief(null, null, "2027-05-13T12:00"))).toBe("2027-05-13");
    expect(dayOf(brief(null))).toBeNull();
  });

  test("is counted in days of the calendar, not in hours", () => {
    expect(daysTo(brief("2027-05-13T00:10"), NOW)).toBe(1);
    expect(daysTo(brief("2027-05-12T18:00"), NOW)).toBe(0);
    expect(daysTo(brief("2027-05-11T18:00", "2027-05-12T02:00"), NOW)).toBe(0);
    expect(daysTo(brief("2027-05-10T18:00", "2027-05-11T02:00"), NOW)).toBe(-1);
    expect(daysTo(brief(null), NOW)).toBeNull();
  });

  test("puts the nearest first, those without a day last, and what is over apart, the last first", () => {
    const events = ["2027-06-01T10:00", null, "2027-05-13T10:00", "2027-01-01T10:00", "2027-04-01T10:00"].map(
      (at, id) => ({ id, brief: brief(at) }),
    );
    const { coming, over } = comingAndOver(events, NOW);
    expect(coming.map((each) => each.id)).toEqual([2, 0, 1]);
    expect(over.map((each) => each.id)).toEqual([4, 3]);
  });
});
