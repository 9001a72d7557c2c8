import { describe, expect, test } from "vitest";
import { laid, marksOf } from "../../web/src/api/sections";
import type { Changed } from "../../web/src/api/types";

const first: Changed = {
  marks: {
    raised_m: "a1",
    "verdicts/hold": "b1",
    "verdicts/stand": "c1",
    "picture.rims_m": "d1",
    "picture.primitives/vessel": "e1",
    "picture.primitives/seat": "f1",
    "picture.primitives/vessel~2": "g1",
  },
  sections: {
    raised_m: 0.1,
    "verdicts/hold": [{ verb: "hold" }],
    "verdicts/stand": [{ verb: "stand" }],
    "picture.rims_m": [0.2],
    "picture.primitives/vessel": [{ id: "vessel" }],
    "picture.primitives/seat": [{ id: "seat-0" }, { id: "seat-1" }],
    "picture.primitives/vessel~2": [{ id: "vessel-2" }],
  },
};
const ids = (report: ReturnType<typeof laid>["report"]) => report.picture.primitives.map(({ id }) => id);

describe("a report in sections", () => {
  test("is laid together in the order that is told", () => {
    const told = laid(null, first);
    expect(told.report.raised_m).toBe(0.1);
    expect(told.report.verdicts.map(({ verb }) => verb)).toEqual(["hold", "stand"]);
    expect(told.report.picture.rims_m).toEqual([0.2]);
    expect(ids(told.report)).toEqual(["vessel", "seat-0", "seat-1", "vessel-2"]);
    expect(marksOf(told)).toEqual(first.marks);
    expect(marksOf(null)).toEqual({});
  });

  test("keeps what is not sent, the very same thing", () => {
    const before = laid(null, first);
    const after = laid(before, {
      marks: { ...first.marks, "verdicts/stand": "c2" },
      sections: { "verdicts/stand": [{ verb: "stand", state: "fails" }] },
    });
    expect(after.report.verdicts[0]).toBe(before.report.verdicts[0]);
    expect(after.report.verdicts[1]?.state).toBe("fails");
    expect(after.report.picture).toBe(before.report.picture);
    const drawn = laid(after, {
      marks: { ...first.marks, "verdicts/stand": "c2", "picture.primitives/seat": "f2" },
      sections: { "picture.primitives/seat": [{ id: "seat-9" }] },
    });
    expect(ids(drawn.report)).toEqual(["vessel", "seat-9", "vessel-2"]);
    expect(drawn.report.picture.primitives[0]).toBe(before.report.picture.primitives[0]);
    expect(drawn.report.verdicts).toBe(after.report.verdicts);
  });

  test("loses what is told of no more, and takes nothing on trust", () => {
    const before = laid(null, first);
    const { "picture.primitives/vessel~2": _, ...marks } = first.marks;
    expect(ids(laid(before, { marks, sections: {} }).report)).toEqual(["vessel", "seat-0", "seat-1"]);
    expect(() => laid(null, { marks: { raised_m: "a1" }, sections: {} })).toThrow("raised_m");
  });
});
