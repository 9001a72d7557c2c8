import { describe, expect, test } from "vitest";
import type { Picture, Piece, Vessel } from "../../web/src/api/types";
import { halfWidthAt, rimHeight } from "../../web/src/drawing/look";
import { lookOf } from "../../web/src/drawing/rig";
import { scaleBarM } from "../../web/src/drawing/scene";
import { setByHandle, withDepth, withMouth } from "../../web/src/screens/bench/handles";

const point = (height_m: number, width_m: number, depth_m = width_m) => ({ height_m, width_m, depth_m });
const BOWL = {
  base_m: 0.008,
  profile: [point(0, 0.1, 0.06), point(0.04, 0.18, 0.1), point(0.1, 0.2, 0.12)],
} as unknown as Vessel;
const SHARED = {
  vessel: BOWL,
  water_level_m: 0.09,
  envelope: { height_m: 0.3, width_m: 0.4, depth_m: 0.25, form: "dome" },
  mechanic: { kind: "folded_cushion", layer_gap_m: null },
  insert: null,
};
const PIECE = {
  ...SHARED,
  kind: "standing",
  companions: [{ vessel: BOWL, x_m: 0.3, y_m: 0.1 }],
  counterweight: { mass_kg: 1, away_m: 0.1, azimuth_rad: Math.PI },
} as unknown as Piece;
const BOUQUET = { ...SHARED, kind: "bouquet", dome_m: null, hand_length_m: null } as unknown as Piece;

describe("a vessel drawn", () => {
  const rings = [
    [0, 0.05],
    [0.04, 0.09],
    [0.1, 0.1],
  ].map(([z, half]) => ({ at: [0, 0, z], half_width_m: half, half_depth_m: half }));
  const picture = { primitives: [{ kind: "turned", id: "vessel-inside", rings }] } as unknown as Picture;

  test.each([
    [0, 0.05],
    [0.02, 0.07],
    [0.04, 0.09],
    [0.07, 0.095],
    [0.1, 0.1],
    [0.5, 0.1],
    [-1, 0.05],
  ])("at %d m it is half of %d m wide", (height, half) => {
    expect(halfWidthAt(picture, height)).toBeCloseTo(half, 9);
  });

  test("its rim is its base and its inside", () => expect(rimHeight(BOWL)).toBeCloseTo(0.108, 9));
});

describe("a handle set", () => {
  test("sets one quantity and leaves the rest as it is", () => {
    expect(setByHandle(PIECE, "envelope-width", 0.5).envelope).toEqual({ ...PIECE.envelope, width_m: 0.5 });
    expect(setByHandle(PIECE, "envelope-height", 0.5).envelope.height_m).toBe(0.5);
    expect(setByHandle(PIECE, "envelope-depth", 0.5).envelope.depth_m).toBe(0.5);
    expect(setByHandle(PIECE, "water", 0.05).water_level_m).toBe(0.05);
    expect(setByHandle(PIECE, "layer-gap", 0.05).mechanic.layer_gap_m).toBe(0.05);
    expect(setByHandle(PIECE, "dome", 0.1)).toBe(PIECE);
    expect(setByHandle(BOUQUET, "dome", 0.1)).toEqual({ ...BOUQUET, dome_m: 0.1 });
    expect(setByHandle(BOUQUET, "hand", 0.12)).toEqual({ ...BOUQUET, hand_length_m: 0.12 });
    expect(setByHandle(PIECE, "nothing of the kind", 1)).toBe(PIECE);
  });

  test("on the rim widens the mouth alone, in its proportion", () => {
    const wide = withMouth(BOWL, 0.3);
    expect(wide.profile.at(-1)).toMatchObject({ height_m: 0.1, width_m: 0.3 });
    expect(wide.profile.at(-1)?.depth_m).toBeCloseTo(0.18, 9);
    expect(wide.profile.slice(0, 2)).toEqual(BOWL.profile.slice(0, 2));
  });

  test("on the depth stretches what was measured, and water stays in", () => {
    const low = withDepth(PIECE, 0.05);
    expect(low.vessel.profile.map((each) => each.height_m)).toEqual([0, 0.02, 0.05]);
    expect(low.water_level_m).toBe(0.05);
    expect(withDepth(PIECE, 0.2).water_level_m).toBe(0.09);
  });
});

describe("primitives", () => {
  test.each([
    [0.3, "metric", 0.05],
    [4, "metric", 1],
    [0.01, "metric", 0.01],
    [0.3, "inch", 0.0508],
  ] as const)("the scale bar of %d m in %s is %d m", (wide, system, bar) => {
    expect(scaleBarM(wide, system)).toBeCloseTo(bar, 9);
  });

  test("a line looks as its use is", () => {
    expect([0.1, 0.79, 0.8, 1, 1.01].map((use) => lookOf(use, 0.8))).toEqual([
      "holds",
      "holds",
      "tight",
      "tight",
      "fails",
    ]);
  });
});
