/** What a new hung or mounted piece starts as. Its points are unrated: nothing is said of it before somebody states it. */
import type { Armature, Attachment, HangPoint, LineSpec, Mount, Rig } from "../../api/types";
import { lineTo, UNRATED } from "./edits";

export const STEEL: LineSpec = {
  kind: "steel rope",
  size_m: 0.0015,
  stated_n: null,
  fitting: null,
  stainless: false,
  wet: false,
  over_edge: false,
};
export const CORD: LineSpec = { ...STEEL, kind: "polyester cord", size_m: 0.002 };
export const TIE: LineSpec = { ...STEEL, kind: "cable tie", size_m: 0.0048 };
export const NO_MOUNT: Mount = {
  kind: "frame",
  outline: "hoop",
  x_m: 0,
  width_m: 0,
  height_m: 0,
  foot_width_m: 0,
  foot_depth_m: 0,
  foot_material: null,
  surface: null,
  mass_kg: null,
  ballast_kg: 0,
  outdoors: false,
  comes_down_above: 5,
  tied_to: null,
  arm_m: 0,
  bears_below_m: 0,
};
const BEAM_M = 3.6;
const LOW_M = 2.6;
const LONGER = 1.05;

export const TEMPLATES = [
  ["empty", "Nothing yet: I draw it"],
  ["snake", "A snake hung from points"],
  ["tube", "A tube hung from points"],
  ["panel", "A flat panel"],
  ["ring", "A ring or round panel"],
  ["hoop", "A hoop on a standing frame"],
  ["swag", "A swag on a wall"],
  ["column", "A crawl up a column"],
  ["spill", "A spill hooked over an edge"],
  ["runner", "A runner along a table"],
] as const;
export type Template = (typeof TEMPLATES)[number][0];

const NAMES: Record<Template, string> = {
  empty: "Hung piece",
  snake: "Hung run",
  tube: "Hung tube",
  panel: "Hung panel",
  ring: "Hung ring",
  hoop: "Hoop",
  swag: "Wall swag",
  column: "Column crawl",
  spill: "Spill",
  runner: "Runner",
};

type Spot = readonly [number, number, number];

/** A new piece of a kind. */
export function rigFor(kind: Template, netting: string): Rig {
  const plain: Rig = {
    name: NAMES[kind],
    points: [],
    attachments: [],
    lines: [],
    armature: armatureOf("snake", netting, 3),
    recipe: [],
    below: "table",
    extra_kg: 0,
    bond: null,
    mount: null,
    hazards: [],
    proof_kg: null,
    levelling_m: 0.03,
    dried: false,
  };
  switch (kind) {
    case "empty":
      return plain;
    case "snake":
    case "tube":
      return hung(
        plain,
        armatureOf(kind, netting, 3 * LONGER),
        [-1.5, 0, 1.5].map((x): Spot => [x, 0, LOW_M]),
      );
    case "panel": {
      const corners: Spot[] = [
        [-0.5, -0.5, LOW_M],
        [0.5, -0.5, LOW_M],
        [0.5, 0.5, LOW_M],
        [-0.5, 0.5, LOW_M],
      ];
      return hung(plain, { ...armatureOf(kind, netting, 1.1), width_m: 1.1, diameter_m: 0.05 }, corners);
    }
    case "ring": {
      const held: Spot[] = [
        [0, 0.4, LOW_M],
        [-0.35, -0.2, LOW_M],
        [0.35, -0.2, LOW_M],
      ];
      return hung(plain, { ...armatureOf(kind, netting, 0.9), diameter_m: 0.9 }, held);
    }
    case "hoop":
      return hoop(plain, netting);
    case "column":
      return column(plain, netting);
    case "swag":
      return swag(plain, netting);
    case "spill": {
      const held: Spot[] = [[0, 0, 1.1]];
      const rig = hung({ ...plain, below: "beside" }, armatureOf("spill", netting, 0.8), held, 1.15);
      return { ...rig, points: rig.points.map((each) => ({ ...each, kind: "eye", name: "ledge hook" })) };
    }
    case "runner": {
      const along = [-1, 1].map((x): Attachment => ({ x_m: x, y_m: 0, z_m: 0.75, along_m: null }));
      const armature = { ...armatureOf("runner", netting, 2), sections: 2 };
      return { ...plain, below: "beside", attachments: along, armature };
    }
  }
}

function armatureOf(kind: Armature["kind"], netting: string, length_m: number): Armature {
  return {
    kind,
    length_m: Math.round(length_m * 1000) / 1000,
    diameter_m: 0.11,
    width_m: 0,
    projection_m: 0.1,
    turns: 1.6,
    sections: 1,
    netting,
    stiffness: kind === "sleeve" ? "cored" : "twig-stiffened",
    density: [],
    stem_cut_m: 0.25,
    core_kg: 0,
    carrier: null,
    drop: null,
  };
}

function hung(rig: Rig, armature: Armature, places: readonly Spot[], beam = BEAM_M): Rig {
  const points = places.map(([x, y], index) => pointOf(`point ${index + 1}`, "beam loop", [x, y, beam]));
  return held(rig, armature, places, points, () => STEEL);
}

function pointOf(name: string, kind: HangPoint["kind"], [x_m, y_m, z_m]: Spot): HangPoint {
  return { ...UNRATED, name, kind, x_m, y_m, z_m };
}

function held(
  rig: Rig,
  armature: Armature,
  places: readonly Spot[],
  points: readonly HangPoint[],
  spec: (index: number) => LineSpec,
): Rig {
  return {
    ...rig,
    armature,
    points,
    attachments: places.map(([x_m, y_m, z_m]) => ({ x_m, y_m, z_m, along_m: null })),
    lines: places.map((_, index) => lineTo(index, index, spec(index))),
  };
}

/** Tied all along, the ends twice; every second tie of cord, which stays when a cable tie goes. */
function tied(
  rig: Rig,
  armature: Armature,
  places: readonly Spot[],
  kind: HangPoint["kind"],
  word: string,
): Rig {
  const last = places.length - 1;
  const points = places.map(([x, y, z], index) => pointOf(`${word} ${index + 1}`, kind, [x, y, z + 0.03]));
  const made = held(rig, armature, places, points, (index) =>
    index % 2 === 0 || index === last ? CORD : TIE,
  );
  return { ...made, lines: [...made.lines, lineTo(0, 0, TIE), lineTo(last, last, TIE)] };
}

function hoop(plain: Rig, netting: string): Rig {
  const [radius, middle, ties, open] = [0.6, 1.35, 14, Math.PI / 9];
  const places = Array.from({ length: ties }, (_, index): Spot => {
    const turn = -Math.PI / 2 + open + ((2 * Math.PI - 2 * open) * index) / (ties - 1);
    return [round(radius * Math.cos(turn)), 0, round(middle + radius * Math.sin(turn))];
  });
  const armature = {
    ...armatureOf("wrapped frame", netting, radius * (2 * Math.PI - 2 * open) * 1.005),
    turns: 1.3,
  };
  const rig = tied({ ...plain, below: "beside" }, armature, places, "frame member", "hoop");
  const mount: Mount = {
    ...NO_MOUNT,
    width_m: 1.2,
    height_m: 1.95,
    foot_width_m: 1.1,
    foot_depth_m: 0.6,
    outdoors: true,
    comes_down_above: 4,
  };
  return { ...rig, mount };
}

function column(plain: Rig, netting: string): Rig {
  const places = Array.from({ length: 8 }, (_, index): Spot => [0.15, 0, round(0.5 + 0.25 * index)]);
  const rig = tied(
    { ...plain, below: "beside" },
    armatureOf("sleeve", netting, 1.8),
    places,
    "clamp",
    "band",
  );
  return { ...rig, mount: { ...NO_MOUNT, kind: "column", width_m: 0.3, height_m: 3.2 } };
}

function swag(plain: Rig, netting: string): Rig {
  const places: Spot[] = [
    [-0.9, 0, 2.48],
    [-0.45, 0, 2.36],
    [0, 0, 2.32],
    [0.45, 0, 2.36],
    [0.9, 0, 2.48],
  ];
  const points = places.map(([x], index) => pointOf(`screw ${index + 1}`, "wall screw", [x, 0, 2.62]));
  const rig = held(
    { ...plain, below: "beside" },
    armatureOf("tube", netting, 2),
    places,
    points,
    () => STEEL,
  );
  return { ...rig, mount: { ...NO_MOUNT, kind: "wall" } };
}

function round(value: number): number {
  return Math.round(value * 1000) / 1000;
}
