import { describe, expect, test } from "vitest";
import type { Rig } from "../../web/src/api/types";
import { whereOf } from "../../web/src/screens/rig/missing";

const RIG = { points: [{ name: "beam 1" }, { name: "beam 10" }] } as unknown as Rig;

describe("a fact that is missing of hung work leads to its field", () => {
  test.each([
    ["what beam 10 may carry, and who states it", "points", "May carry", '[data-point="1"]'],
    [
      "what beam 1 may carry, where the second bond leads, and who states it",
      "points",
      "May carry",
      '[data-point="0"]',
    ],
    [
      "what beam 1 may carry when pulled 31° off straight down",
      "points",
      "beam 1: rated off plumb up to",
      undefined,
    ],
    ["what beam 10 bears straight out of the wall", "points", "beam 10 straight out of the wall", undefined],
    ["what beam 1 was made for", "points", "What beam 1 was made for", undefined],
    [
      "how far the work stands out from the wall that beam 1 is in",
      "mount",
      "Its middle stands out",
      undefined,
    ],
    ["which hang point of its own the second bond leads to", "lines", "Leads to", undefined],
    ["whether the caps of the rose's tubes seal when leaned over", "flowers", "Water of rose", undefined],
    ["how far across the column is, as bands and ties go round it", "mount", "Across", undefined],
    ["what the stand weighs", "mount", "It weighs", undefined],
    ["how wide and deep the frame stands", "mount", "Feet, wide", undefined],
    [
      "what fixed thing the frame is guyed or tied to, as people can be under or beside it",
      "mount",
      "Guyed or tied to",
      undefined,
    ],
  ])("%s", (fact, tab, label, within) => {
    expect(whereOf(fact, RIG)).toEqual({ tab, label, ...(within && { within }) });
  });

  test("of a beam leads to the survey of the place", () => {
    const where = whereOf("what ridge may carry in all, who states it and when", RIG);
    expect(where).toEqual({ tab: "", label: "May carry in all", screen: "survey" });
  });

  test("that nobody knows a field for is said all the same", () => {
    expect(whereOf("the phase of the moon", RIG)).toBeNull();
  });
});
