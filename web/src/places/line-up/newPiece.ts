import type {
  Bouquet,
  Making,
  Mechanic,
  MechanicKind,
  Piece,
  Practice,
  Setting,
  Vessel,
} from "../../api/types";
import { rimHeight } from "../../drawing/vessel";

const ON_A_TABLE: Setting = {
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
  ledge: null,
  air: null,
  moves_to: null,
};
export const AS_USUAL: Making = { order: [], propped: false, water_last: false, gates_passed: [] };
export const IN_THE_HAND: Bouquet = {
  dome_m: null,
  hand_length_m: null,
  carried_h: null,
  cooler_days: 0,
  collar: false,
  bow_loops: 0,
  bow_loop_m: 0.12,
  streamers: 0,
  streamer_m: 0.5,
};

const halfCentimetres = (value: number) => Math.round(value * 200) / 200;

export function mechanicOf(kind: MechanicKind, netting: string | null): Mechanic {
  return {
    kind,
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
  };
}

/** A piece to begin with: the vessel, an ordinary dome over it, two layers of coated netting, no stems yet. */
export function pieceFor(vessel: Vessel, netting: string, fill: Practice["fill"]): Piece {
  const top = vessel.profile.at(-1);
  const mouth = Math.max(top?.width_m ?? 0.2, 0.08);
  const depth = top?.height_m ?? 0.1;
  return {
    name: vessel.name,
    vessel,
    envelope: {
      height_m: halfCentimetres(rimHeight(vessel) + Math.max(0.12, mouth * 0.9)),
      width_m: halfCentimetres(mouth * 1.8),
      depth_m: halfCentimetres(Math.max(top?.depth_m ?? mouth, 0.08) * 1.8),
      form: "dome",
    },
    mechanic: mechanicOf("folded_cushion", netting),
    water_level_m: Math.max(
      halfCentimetres(fill === "full" ? depth - 0.01 : depth * (fill === "half" ? 0.5 : 0.8)),
      0.005,
    ),
    recipe: [],
    setting: ON_A_TABLE,
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
    moss_m: null,
    must_lift_off: false,
    companions: [],
    spill: null,
    counterweight: null,
    bouquet: null,
    making: AS_USUAL,
    feet: "on the floor",
    dealt: null,
    look: [],
  };
}

/** The piece as a bouquet: bound in the hand, its vessel the vase it waits in, a dome of a usual size over it. */
export function bouquetFor(vase: Vessel, netting: string, kind: MechanicKind, name: string): Piece {
  const width = kind === "hand_spiral" ? 0.2 : 0.3;
  const piece = pieceFor(vase, netting, "worked out");
  return {
    ...piece,
    name,
    envelope: {
      height_m: halfCentimetres(Math.max(rimHeight(vase), vase.base_m + 0.1) + width * 0.3 + 0.08),
      width_m: width,
      depth_m: width,
      form: "dome",
    },
    mechanic: mechanicOf(kind, netting),
    bouquet: IN_THE_HAND,
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
