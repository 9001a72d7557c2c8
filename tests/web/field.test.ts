import { describe, expect, test } from "vitest";
import { askFor, type FieldKind, readField, showField, stepOf, stepped } from "../../web/src/units/field";
import type { UnitSystem } from "../../web/src/units/parse";

const SYSTEMS: readonly UnitSystem[] = ["metric", "inch"];
/** The smallest and the largest that a field of each kind holds, in the program's own units. */
const RANGES: Readonly<Record<FieldKind, readonly [number, number]>> = {
  length: [0, 60],
  mass: [0, 200],
  volume: [0, 80],
  temperature: [-20, 45],
  percent: [0, 1],
  count: [0, 500],
  angle: [0, 6.2],
  ratio: [0, 6],
  force: [0, 20000],
  duration: [0, 300],
};

/** Values of a range, near nothing and large ones alike, the same in every run. */
function values([low, high]: readonly [number, number], whole: boolean): number[] {
  let seed = 11;
  const chance = () => {
    seed = (seed * 16807) % 2147483647;
    return seed / 2147483647;
  };
  const every = Array.from({ length: 400 }, (_, index) => low + (high - low) * chance() ** (1 + (index % 5)));
  return [low, high, ...every].map((each) => (whole ? Math.round(each) : each));
}

describe.each(Object.entries(RANGES) as [FieldKind, readonly [number, number]][])("%s", (kind, range) => {
  test.each(SYSTEMS)("what is shown in %s can be typed back without change", (system) => {
    for (const value of values(range, kind === "count")) {
      const shown = showField(kind, value, system);
      const read = readField(kind, shown, system, shown);
      expect(read, shown).not.toBeNull();
      expect(showField(kind, read, system)).toBe(shown);
    }
  });

  test.each(SYSTEMS)(
    "what is kept in one system is what was typed in it, seen from the other: %s",
    (system) => {
      const other = system === "metric" ? "inch" : "metric";
      for (const value of values(range, kind === "count").slice(0, 100)) {
        const typed = readField(kind, showField(kind, value, system), system, "") ?? Number.NaN;
        const shown = showField(kind, typed, other);
        expect(readField(kind, shown, other, shown), shown).not.toBeNull();
        expect(showField(kind, typed, system)).toBe(showField(kind, value, system));
      }
    },
  );

  test("an arrow changes what is shown, and never passes nothing", () => {
    for (const system of SYSTEMS) {
      for (const value of values(range, kind === "count").slice(0, 100)) {
        const up = stepped(kind, value, 1, system);
        expect(up).toBeGreaterThan(value);
        expect(showField(kind, up, system)).not.toBe(showField(kind, value, system));
        if (value > 0) expect(stepped(kind, value, -1, system)).toBeGreaterThanOrEqual(0);
      }
    }
  });
});

describe("what florists write", () => {
  test.each([
    ["length", "5 3/16 in", "inch", "5 3/16 in"],
    ["length", "5 3/16", "inch", "5 3/16 in"],
    ["length", "12.34 cm", "metric", "12.34 cm"],
    ["length", "0.9 mm", "inch", "0.035 in"],
    ["length", "18 swg", "metric", "1.22 mm"],
    ["mass", "2 lb 4 oz", "inch", "2.25 lb"],
    ["mass", "1234 g", "metric", "1.234 kg"],
    ["mass", "3.5 g", "metric", "3.5 g"],
    ["volume", "2 litres", "inch", "67.6 fl oz"],
    ["percent", "12.5", "metric", "12.5 %"],
    ["duration", "2h30", "metric", "2 h 30 min"],
  ] as const)("%s %s in %s is shown as %s", (kind, text, system, shown) => {
    const read = readField(kind, text, system, "");
    expect(showField(kind, read, system)).toBe(shown);
  });

  test.each([
    ["count", "12.5", "Type a whole number, such as 12."],
    ["length", "a hand", "Type a length, such as 36 cm, 14 1/4 in or 12 cells."],
    ["mass", "1,200 g", "Is that 1200 or 1.200? Type it without the comma."],
  ] as const)("%s %s cannot be read, and the sentence says what would be", (kind, text, said) => {
    expect(readField(kind, text, "metric", "")).toBeNull();
    expect(askFor(kind, text)).toBe(said);
  });

  test.each([
    ["length", 0.01, "metric", 0.001],
    ["length", 0.02, "metric", 0.005],
    ["length", 0.0127, "inch", 0.0254 / 16],
    ["length", 0.254, "inch", 0.0254 / 4],
  ] as const)("an arrow moves a %s of %d in %s by %d", (kind, value, system, step) => {
    expect(stepOf(kind, value, system)).toBeCloseTo(step, 9);
  });
});
