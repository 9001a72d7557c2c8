import { describe, expect, test } from "vitest";
import type { Rig } from "../../web/src/api/types";
import { type Interaction, interact, movedTo } from "../../web/src/drawing/interaction";
import type { Handle } from "../../web/src/drawing/scene";
import {
  freeName,
  lineTo,
  moved,
  painted,
  withEveryPlaceHeld,
  withOwnPoint,
  withoutLine,
  withoutPlace,
  withoutPoint,
  withPath,
  withPoint,
} from "../../web/src/screens/rig/edits";

const SPEC = { kind: "steel rope", size_m: 0.002 } as unknown as Rig["lines"][number]["spec"];
const point = (name: string, x_m: number) =>
  ({ name, kind: "eye", x_m, y_m: 0, z_m: 4 }) as Rig["points"][number];
const place = (x_m: number) => ({ x_m, y_m: 0, z_m: 3, along_m: null });

/** Two places under two points, a line each, and a bond to the second. */
const rig = (kind: "snake" | "panel"): Rig =>
  ({
    points: [point("a", 0), point("b", 2)],
    attachments: [place(0), place(2)],
    lines: [lineTo(0, 0, SPEC), lineTo(1, 1, SPEC)],
    bond: { spec: SPEC, point: 1, slack_m: 0.05 },
    armature: { kind, length_m: 2 },
  }) as unknown as Rig;

/** Everything a line or a bond names is there. */
function sound(each: Rig): void {
  for (const line of each.lines) {
    expect(each.attachments[line.attachment]).toBeDefined();
    if (line.point !== null) expect(each.points[line.point]).toBeDefined();
    if (line.tied_to !== null) expect(each.attachments[line.tied_to]).toBeDefined();
  }
  if (each.bond?.point != null) expect(each.points[each.bond.point]).toBeDefined();
}

describe("a change of a rig", () => {
  test.each(["snake", "panel"] as const)("leaves every line of a %s leading somewhere", (kind) => {
    const changed = [
      withPoint(rig(kind), SPEC),
      withOwnPoint(rig(kind)),
      withoutLine(rig(kind), 0),
      withoutPoint(rig(kind), 0),
      withoutPoint(rig(kind), 1),
      withoutPlace(rig(kind), 0),
      withPath(rig(kind), [
        [0, 0, 3],
        [3, 4, 3],
      ]),
    ];
    for (const each of changed) sound(each);
  });

  test("hangs a new point in the widest gap, and its place between those beside it", () => {
    const wide = withPoint(rig("snake"), SPEC);
    expect(wide.points[2]?.x_m).toBe(1);
    expect(wide.attachments.map((each) => each.x_m)).toEqual([0, 1, 2]);
    expect(wide.lines.map((each) => [each.point, each.attachment])).toEqual([
      [0, 0],
      [1, 2],
      [2, 1],
    ]);
  });

  test("keeps a place of a run that nothing holds any more, and drops one of a panel", () => {
    expect(withoutLine(rig("snake"), 0).attachments).toHaveLength(2);
    expect(withoutLine(rig("panel"), 0).attachments).toHaveLength(1);
  });

  test("lets go of the bond's point with it, and keeps the bond on its own when another goes", () => {
    expect(withoutPoint(rig("snake"), 1).bond?.point).toBeNull();
    expect(withoutPoint(rig("snake"), 0).bond?.point).toBe(0);
  });

  test("draws a path of its places in order, a twentieth longer than it is, and keeps the bond's point", () => {
    const drawn = withPath(rig("snake"), [
      [0, 0, 3],
      [3, 4, 3],
    ]);
    expect(drawn.armature.length_m).toBeCloseTo(5.25, 6);
    expect(drawn.lines).toEqual([]);
    expect(drawn.points.map((each) => each.name)).toEqual(["b"]);
  });

  test("holds every place that nothing holds: over it, or where it is tied", () => {
    const bare = { ...rig("snake"), lines: [] };
    expect(
      withEveryPlaceHeld(bare, SPEC, false)
        .points.slice(2)
        .map((each) => each.z_m),
    ).toEqual([4, 4]);
    expect(
      withEveryPlaceHeld(bare, SPEC, true)
        .points.slice(2)
        .map((each) => each.z_m),
    ).toEqual([3.03, 3.03]);
    expect(withEveryPlaceHeld(rig("snake"), SPEC, false)).toEqual(rig("snake"));
  });

  test("moves one measure of one thing", () => {
    expect(moved(rig("panel"), "point", 1, "z_m", 5).points.map((each) => each.z_m)).toEqual([4, 5]);
    expect(moved(rig("panel"), "attachment", 0, "x_m", -1).attachments.map((each) => each.x_m)).toEqual([
      -1, 2,
    ]);
  });

  test("gives a point a name that is free", () => {
    const named = { ...rig("snake"), points: [point("point 3", 0), point("b", 1)] };
    expect(freeName(named)).toBe("point 4");
  });

  test("paints fuller where the brush is, less so beside it, within bounds", () => {
    const once = painted([], 0.5, true);
    expect(once).toHaveLength(24);
    expect(Math.max(...once)).toBeCloseTo(1.12 ** 0.8, 2);
    expect(once[0]).toBe(1);
    let many = once;
    for (let stroke = 0; stroke < 60; stroke += 1) many = painted(many, 0.5, false);
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
