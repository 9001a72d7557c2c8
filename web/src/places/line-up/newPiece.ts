import type { Piece, Practice, Vessel } from "../../api/types";
import { rimHeight } from "../../drawing/vessel";

/** A piece to begin with: the vessel, an ordinary dome over it, two layers of coated netting, no stems yet. */
export function pieceFor(vessel: Vessel, netting: string, fill: Practice["fill"]): Piece {
  const top = vessel.profile.at(-1);
  const mouth = Math.max(top?.width_m ?? 0.2, 0.08);
  const depth = top?.height_m ?? 0.1;
  const halfCentimetres = (value: number) => Math.round(value * 200) / 200;
  return {
    name: vessel.name,
    vessel,
    envelope: {
      height_m: halfCentimetres(rimHeight(vessel) + Math.max(0.12, mouth * 0.9)),
      width_m: halfCentimetres(mouth * 1.8),
      depth_m: halfCentimetres(Math.max(top?.depth_m ?? mouth, 0.08) * 1.8),
      form: "dome",
    },
    mechanic: {
      kind: "folded_cushion",
      netting,
      frog: null,
      layers: 2,
      layer_gap_m: null,
      squeeze: 0.06,
      tuck_m: null,
      tape_strips: null,
      tape_width_m: 0.006,
      putty: null,
      cell_m: null,
      cup_ml: 60,
    },
    water_level_m: Math.max(
      halfCentimetres(fill === "full" ? depth - 0.01 : depth * (fill === "half" ? 0.5 : 0.8)),
      0.005,
    ),
    recipe: [],
    setting: {
      where: "table",
      surface: "cloth",
      foot_material: "glazed",
      free_table_m: 0.3,
      outdoors: false,
      comes_down_above: 5,
      people: {
        seated: true,
        both_sides: true,
        seat_distance_m: 0.55,
        table_height_m: 0.75,
        standing: true,
        standing_distance_m: 1.2,
        a_little_may_show: false,
      },
    },
    ballast_kg: 0,
    top_ups: [],
    quantity: 1,
    arrangement: "even",
    hand_placed: [],
    transport: null,
    support: null,
    insert: null,
    lining: false,
    wrap_height_m: 0,
    must_lift_off: false,
  };
}

/** A bowl nobody has measured yet, for entering one by tape; foot and weight are not known. */
export const UNMEASURED: Vessel = {
  name: "New bowl",
  plan_shape: "round",
  profile: [
    { height_m: 0, width_m: 0.12, depth_m: 0.12 },
    { height_m: 0.1, width_m: 0.2, depth_m: 0.2 },
  ],
  wall_m: 0.005,
  base_m: 0.006,
  foot_width_m: null,
  foot_depth_m: null,
  mass_kg: null,
  material: "glazed",
  clear: false,
  provenance: "measured",
};
