import { describe, expect, test } from "vitest";
import type { Rig } from "../../web/src/api/types";
import { type Interaction, interact, movedTo } from "../../web/src/drawing/interaction";
import type { Handle } from "../../web/src/drawing/scene";
import { moved, painted } from "../../web/src/screens/rig/edits";

const point = (name: string, x_m: number) =>
  ({ name, kind: "eye", x_m, y_m: 0, z_m: 4 }) as Rig["points"][number];
const place = (x_m: number) => ({ x_m, y_m: 0, z_m: 3, along_m: null });
const BRUSH = { stations: 24, thicker: 1.12, reach: 2.5, most: 8 };

const PANEL = {
  points: [point("a", 0), point("b", 2)],
  attachments: [place(0), place(2)],
  lines: [],
  bond: null,
  armature: { kind: "panel", length_m: 2 },
} as unknown as Rig;

describe("a change of a rig", () => {
  test("moves one measure of one thing", () => {
    expect(moved(PANEL, "point", 1, "z_m", 5).points.map((each) => each.z_m)).toEqual([4, 5]);
    expect(moved(PANEL, "attachment", 0, "x_m", -1).attachments.map((each) => each.x_m)).toEqual([-1, 2]);
  });

  test("paints fuller where the brush is, less so beside it, within bounds", () => {
    const once = painted(BRUSH, [], 0.5, true);
    expect(once).toHaveLength(24);
    expect(Math.max(...once)).toBeCloseTo(1.12 ** 0.8, 2);
    expect(once[0]).toBe(1);
    let many = once;
    for (let stroke = 0; stroke < 60; stroke += 1) many = painted(BRUSH, many, 0.5, false);
    expect(Math.min(...many)).toBeCloseTo(1 / 8, 3);
  });
});

describe("a dragged handle", () => {
  const handle = { value: 0.1, min: 0.05, max: 0.3, gain: 2 } as unknown as Handle;
  const pressed = interact({ phase: "idle" }, { type: "press", handle, px: 100, pxPerM: 1000 });

  test("moves only beyond the slack, by the whole way and its gain, to the millimetre", () => {
    expect(interact(pressed, { type: "move", px: 101 })).toBe(pressed);
    const once = interact(pressed, { type: "move", px: 110.4 });
    const twice = interact(once, { type: "move", px: 120.4 });
    expect((once as { value: number }).value).toBeCloseTo(0.121, 6);
    expect((twice as { value: number }).value).toBeCloseTo(0.141, 6);
  });

  test("has its grip under the pointer, wherever its quantity is measured from", () => {
    const across = { at: [0.2, 0.3], axis: "x", gain: 2, value: 0.1 } as unknown as Handle;
    expect(movedTo(across, 0.14)).toEqual([expect.closeTo(0.22, 9), 0.3]);
    expect(movedTo({ ...across, axis: "y", gain: -1 }, 0.14)).toEqual([0.2, expect.closeTo(0.26, 9)]);
  });

  test("stays within its bounds, and is let go", () => {
    const far = interact(pressed, { type: "move", px: 900 });
    expect((far as { value: number }).value).toBe(0.3);
    expect((interact(far, { type: "move", px: -900 }) as { value: number }).value).toBe(0.05);
    expect(interact(far, { type: "end" })).toEqual({ phase: "idle" } satisfies Interaction);
  });

  test("does nothing while it is not held", () => {
    expect(interact({ phase: "idle" }, { type: "move", px: 5 })).toEqual({ phase: "idle" });
  });
});
