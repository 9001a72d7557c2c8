/** The handles of the bench: each is a quantity of the piece, where it sits on the drawing, and how it is set. */
import { isCarried } from "../../api/kinds";
import type { HandPlaced, Piece, PlacedStem, Report, Vessel } from "../../api/types";
import { halfWidthAt, raisedOf, rimHeight } from "../../drawing/look";
import { aspectsOf } from "../../drawing/project";
import type { Handle } from "../../drawing/scene";
import type { View } from "../../drawing/seeing";

const MOST_M = 2.5;

function topPoint(vessel: Vessel) {
  return vessel.profile.at(-1) ?? { height_m: 0, width_m: 0, depth_m: 0 };
}

/** `gapped` tells a mechanic whose gap between layers is a choice. */
function sectionHandles(piece: Piece, report: Report | null, gapped: boolean): Handle[] {
  const { vessel, envelope } = piece;
  const up = raisedOf(piece, report);
  const rim = up + rimHeight(vessel);
  const floor = up + vessel.base_m;
  const top = topPoint(vessel);
  const gap = report?.mechanic.layer_gap_m ?? 0;
  const level = gapped ? report?.mechanic.levels[1] : undefined;
  const handles: Handle[] = [
    handle("envelope-height", "Height of the flowers", [0, envelope.height_m], "y", 1, envelope.height_m),
    handle("envelope-width", "Width of the flowers", [envelope.width_m / 2, rim], "x", 2, envelope.width_m),
    handle("rim", "Inside width of the mouth", [-top.width_m / 2 - vessel.wall_m, rim], "x", -2, top.width_m),
    handle("depth", "Inside depth of the vessel", [-top.width_m * 0.25, rim], "y", 1, top.height_m),
    {
      ...handle(
        "water",
        "Water level",
        [halfWidthAt(report?.picture, floor + piece.water_level_m), floor + piece.water_level_m],
        "y",
        1,
        piece.water_level_m,
      ),
      min: 0,
      max: top.height_m,
    },
  ];
  const bouquet = report?.bouquet;
  if (bouquet) {
    const side = bouquet.handle_m / 2 + 0.012;
    handles.push(
      handle("hand", "Stems below the binding", [-side, bouquet.end_m], "y", -1, bouquet.hand_m),
      handle(
        "dome",
        "Rise of the dome",
        [-envelope.width_m * 0.36, bouquet.under_m],
        "y",
        -1,
        bouquet.dome_m,
      ),
    );
  }
  if (level) {
    const x = -halfWidthAt(report?.picture, floor + level.height_m) * 0.55;
    handles.push(handle("layer-gap", "Gap between layers", [x, floor + level.height_m], "y", -1, gap));
  }
  return handles;
}

/** The handles that a view has: all of them from the front, what lies front to back from the side and from above. */
export function handlesOf(
  view: View,
  piece: Piece,
  report: Report | null,
  gapped: boolean,
  stem: PlacedStem | undefined,
): Handle[] {
  const aspects = aspectsOf(view);
  const facing = Math.cos(view.turn_rad) > 0;
  const ofStem = stemHandles(stem);
  const sizes = (found: Handle[]) =>
    piece.kind === "worn"
      ? found.filter((each) => each.id === "envelope-width" || each.id === "envelope-depth")
      : found;
  if (aspects.has("front") && facing)
    return [...sizes(sectionHandles(piece, report, gapped)), ...ofStem.section];
  if (aspects.has("side") && Math.sin(view.turn_rad) > 0)
    return [...sizes(sideHandles(piece, report)), ...ofStem.side];
  if (aspects.has("above") && Math.abs(view.turn_rad) < 1e-6)
    return [...sizes(planHandles(piece, report)), ...ofStem.plan];
  return [];
}

/** How far the envelope goes to the front and to the back: half its depth each, unless its form leans. */
function reaches(piece: Piece, report: Report | null): Record<"front" | "back", number> {
  const along = (report?.envelope_side ?? []).map(([y]) => y);
  const half = piece.envelope.depth_m / 2;
  return {
    front: Math.max(along.length ? -Math.min(...along) : half, 0.02),
    back: Math.max(along.length ? Math.max(...along) : half, 0.02),
  };
}

/** The handles seen from the right side: height, front-to-back depth and water; the vessel's own are set from the front. */
function sideHandles(piece: Piece, report: Report | null): Handle[] {
  const { envelope } = piece;
  const front = sectionHandles(piece, report, false);
  const reach = reaches(piece, report).front;
  const rim = raisedOf(piece, report) + rimHeight(piece.vessel);
  return [
    ...front.filter((each) => each.id === "envelope-height" || each.id === "water"),
    handle(
      "envelope-depth",
      "Front-to-back depth of the flowers",
      [-reach, rim],
      "x",
      -envelope.depth_m / reach,
      envelope.depth_m,
    ),
  ];
}

/** Handles of the stem that is picked: side to side and height in the section, front to back in the plan. */
function stemHandles(stem: PlacedStem | undefined): Record<"section" | "side" | "plan", Handle[]> {
  if (!stem) return { section: [], side: [], plan: [] };
  const { tip_x_m: x, tip_y_m: y, tip_z_m: z } = stem;
  const wide = (
    id: string,
    label: string,
    at: readonly [number, number],
    axis: "x" | "y",
    value: number,
    min: number,
  ): Handle => ({
    id,
    label,
    at,
    axis,
    gain: 1,
    value,
    min,
    max: MOST_M,
  });
  return {
    section: [
      wide("stem-x", `${stem.name}, side to side`, [x + 0.035, z], "x", x, -MOST_M),
      wide("stem-z", `${stem.name}, height`, [x, z + 0.035], "y", z, 0.01),
    ],
    side: [
      wide("stem-y", `${stem.name}, front to back`, [y + 0.035, z], "x", y, -MOST_M),
      wide("stem-z", `${stem.name}, height`, [y, z + 0.035], "y", z, 0.01),
    ],
    plan: [wide("stem-y", `${stem.name}, front to back`, [x, y + 0.03], "y", y, -MOST_M)],
  };
}

/** The piece with the picked stem's tip moved along one axis and kept there by hand. */
export function setStem(piece: Piece, stem: PlacedStem, id: string, value: number): Piece {
  const before: HandPlaced = {
    variety: stem.variety,
    tip_x_m: stem.tip_x_m,
    tip_y_m: stem.tip_y_m,
    tip_z_m: stem.tip_z_m,
  };
  const field = id === "stem-x" ? "tip_x_m" : id === "stem-y" ? "tip_y_m" : "tip_z_m";
  const after = { ...before, [field]: value };
  const at = stem.held ? nearestHand(piece, before) : -1;
  const hand_placed =
    at < 0
      ? [...piece.hand_placed, after]
      : piece.hand_placed.map((each, index) => (index === at ? after : each));
  return { ...piece, hand_placed };
}

function nearestHand(piece: Piece, to: HandPlaced): number {
  const away = piece.hand_placed.map((each) =>
    each.variety === to.variety
      ? Math.hypot(each.tip_x_m - to.tip_x_m, each.tip_y_m - to.tip_y_m, each.tip_z_m - to.tip_z_m)
      : Number.POSITIVE_INFINITY,
  );
  const least = Math.min(...away);
  return Number.isFinite(least) ? away.indexOf(least) : -1;
}

function planHandles(piece: Piece, report: Report | null): Handle[] {
  const { envelope } = piece;
  const reach = reaches(piece, report).back;
  return [
    handle(
      "envelope-depth",
      "Front-to-back depth of the flowers",
      [0, reach],
      "y",
      envelope.depth_m / reach,
      envelope.depth_m,
    ),
  ];
}

function handle(
  id: string,
  label: string,
  at: readonly [number, number],
  axis: "x" | "y",
  gain: number,
  value: number,
): Handle {
  return { id, label, at, axis, gain, value, min: 0.005, max: MOST_M };
}

/** The path of the quantity a handle sets, as problems name it. */
export const HANDLE_PATHS: Readonly<Record<string, string>> = {
  "envelope-height": "envelope.height_m",
  "envelope-width": "envelope.width_m",
  "envelope-depth": "envelope.depth_m",
  rim: "vessel.profile",
  depth: "vessel.profile",
  water: "water_level_m",
  "layer-gap": "mechanic.layer_gap_m",
  hand: "hand_length_m",
  dome: "dome_m",
  "stem-x": "hand_placed",
  "stem-y": "hand_placed",
  "stem-z": "hand_placed",
};

export const HANDLE_ACTS: Readonly<Record<string, string>> = {
  "envelope-height": "Change the height",
  "envelope-width": "Change the width",
  "envelope-depth": "Change the depth of the flowers",
  rim: "Change the mouth",
  depth: "Change the vessel's depth",
  water: "Change the water level",
  "layer-gap": "Change the layer gap",
  hand: "Cut the handle",
  dome: "Change the dome",
  "stem-x": "Place a stem by hand",
  "stem-y": "Place a stem by hand",
  "stem-z": "Place a stem by hand",
};

/** The piece with one quantity set. */
export function setByHandle(piece: Piece, id: string, value: number): Piece {
  switch (id) {
    case "envelope-height":
      return { ...piece, envelope: { ...piece.envelope, height_m: value } };
    case "envelope-width":
      return { ...piece, envelope: { ...piece.envelope, width_m: value } };
    case "envelope-depth":
      return { ...piece, envelope: { ...piece.envelope, depth_m: value } };
    case "water":
      return { ...piece, water_level_m: value };
    case "layer-gap":
      return { ...piece, mechanic: { ...piece.mechanic, layer_gap_m: value } };
    case "hand":
      return piece.kind === "bouquet" ? { ...piece, hand_length_m: value } : piece;
    case "dome":
      return isCarried(piece) ? { ...piece, dome_m: value } : piece;
    case "rim":
      return { ...piece, vessel: withMouth(piece.vessel, value) };
    case "depth":
      return withDepth(piece, value);
    default:
      return piece;
  }
}

/** The vessel with another mouth; an unequal mouth keeps its proportion, a round one stays round. */
export function withMouth(vessel: Vessel, widthM: number): Vessel {
  const profile = vessel.profile.map((point, index) => {
    if (index < vessel.profile.length - 1) return point;
    const depthM = (point.depth_m * widthM) / point.width_m;
    return { ...point, width_m: widthM, depth_m: depthM };
  });
  return { ...vessel, profile };
}

/** The piece with a vessel of another depth; water stays in it, and measured heights stretch with it. */
export function withDepth(piece: Piece, depthM: number): Piece {
  const before = topPoint(piece.vessel).height_m;
  const stretch = depthM / before;
  const profile = piece.vessel.profile.map((point) => ({
    ...point,
    height_m: Math.round(point.height_m * stretch * 1e5) / 1e5,
  }));
  const top = profile.at(-1)?.height_m ?? depthM;
  return {
    ...piece,
    vessel: { ...piece.vessel, profile },
    water_level_m: Math.min(piece.water_level_m, top),
  };
}
