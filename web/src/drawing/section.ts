import { besideOf } from "../api/kinds";
/** The section of a piece to true scale: support, vessel wall, water, mechanic, stems to their cut ends, envelope. */
import type { Piece, PlacedStem, Report, Vessel } from "../api/types";
import { bindingShapes, ledgeShapes, spillShapes, weightShapes } from "./beside";
import { headShapes } from "./heads";
import { mechanicShapes } from "./mechanic";
import { type Bounds, ellipse, type Point, type Primitive } from "./scene";
import type { View } from "./turned";
import { halfWidthAt, rimHeight } from "./vessel";

/** Height of the underside of the piece's own vessel over the surface: the core's, or the support's until it answers. */
export function raisedOf(piece: Piece, report: Report | null): number {
  return report?.raised_m ?? piece.support?.height_m ?? 0;
}

export function sectionBounds(piece: Piece, report: Report | null, view: View = "front"): Bounds {
  const rim = raisedOf(piece, report) + rimHeight(piece.vessel);
  const outer = piece.insert?.outer.profile ?? [];
  const widest = Math.max(...[...piece.vessel.profile, ...outer].map((point) => point.width_m / 2));
  const foot = Math.max(piece.support?.foot_width_m ?? 0, piece.support?.column_width_m ?? 0) / 2;
  const middle = Math.max(widest + piece.vessel.wall_m, foot, report ? 0 : piece.envelope.width_m / 2);
  const reached = (report?.stems ?? []).flatMap((each) => [
    each.tip_x_m - each.head_radius_m * 0.6,
    each.tip_x_m + each.head_radius_m * 0.6,
  ]);
  const across = [
    ...reached,
    ...(report?.envelope_front ?? []).map(([x]) => x),
    ...besideOf(piece).companions.flatMap((each) => [
      each.x_m - each.envelope.width_m / 2,
      each.x_m + each.envelope.width_m / 2,
    ]),
    ...weightReach(piece),
    ...(view === "side" && report?.ledge ? [report.ledge.front_m, report.ledge.back_m + 0.02] : []),
    -middle,
    middle,
  ];
  const drop = piece.setting.where === "ledge" ? (besideOf(piece).spill?.drop_m ?? 0.05) : 0;
  const top = Math.max(piece.envelope.height_m, report?.outline.height_m ?? 0, rim);
  return { xMin: Math.min(...across), xMax: Math.max(...across), yMin: -drop, yMax: top };
}

function weightReach(piece: Piece): number[] {
  const weight = besideOf(piece).counterweight;
  if (!weight) return [];
  const x = weight.away_m * Math.sin(weight.azimuth_rad);
  return [x - 0.06, x + 0.06];
}

/** The widest reach to either side of the middle. */
export function halfWidth(bounds: Bounds): number {
  return Math.max(-bounds.xMin, bounds.xMax);
}

/** The whole section, back to front. */
export function buildSectionScene(piece: Piece, report: Report | null, view: View = "front"): Primitive[] {
  return [
    ...vesselLayer(piece, report, view),
    ...stemLayer(report),
    ...mechanicLayer(piece, report),
    ...headLayer(report),
    ...markLayer(piece, report),
  ];
}

/** What follows the hand at once: surface, support, vessel, water. */
export function vesselLayer(piece: Piece, report: Report | null, view: View = "front"): Primitive[] {
  const half = halfWidth(sectionBounds(piece, report));
  const up = raisedOf(piece, report);
  const onLedge = piece.setting.where === "ledge" && view === "side";
  const surface: Primitive[] = onLedge ? [] : [surfaceShape(half)];
  return [
    ...surface,
    ...ledgeShapes(piece, report, view, half),
    ...spillShapes(piece, report, view),
    ...weightShapes(piece),
    ...companionShapes(piece, report),
    ...supportShapes(piece),
    ...(piece.insert ? vesselShapes(piece.insert.outer, 0, "urn") : []),
    ...(piece.insert ? riserShapes(piece, up) : []),
    ...vesselShapes(piece.vessel, up, "vessel"),
    ...waterShapes(piece, report, up),
    ...(report ? mechanicShapes(piece, report, up, "under") : []),
  ];
}

function surfaceShape(half: number): Primitive {
  return {
    kind: "path",
    id: "surface",
    tone: "tone-surface",
    points: [
      [-half * 1.25, 0],
      [half * 1.25, 0],
    ],
  };
}

/** Every companion as a vessel of its own, moved to where it stands; its stems are among the report's. */
function companionShapes(piece: Piece, report: Report | null): Primitive[] {
  return besideOf(piece).companions.flatMap((each, index) => {
    const made = report?.companions[index];
    const alone: Piece = {
      ...piece,
      vessel: each.vessel,
      mechanic: each.mechanic,
      water_level_m: each.water_level_m,
      ballast_kg: each.ballast_kg,
      support: null,
      insert: null,
    };
    const own = report && made ? { ...report, mechanic: made.mechanic, raised_m: 0, water: NO_LEVELS } : null;
    const shapes = [
      ...vesselShapes(each.vessel, 0, "vessel"),
      ...waterShapes(alone, own, 0),
      ...(own ? mechanicShapes(alone, own, 0, "under") : []),
      ...(own ? mechanicShapes(alone, own, 0, "over") : []),
    ];
    return shapes.map((shape) => moved(shape, each.x_m, `beside-${index}-`));
  });
}

const NO_LEVELS = { lowest_level_m: null, travel_level_m: null } as Report["water"];

/** A shape moved to the right, and up, under another name. */
export function moved(shape: Primitive, x: number, prefix: string, up = 0): Primitive {
  const id = prefix + shape.id;
  return shape.kind === "path"
    ? { ...shape, id, points: shape.points.map(([px, py]): Point => [px + x, py + up]) }
    : { ...shape, id, at: [shape.at[0] + x, shape.at[1] + up] };
}

/** Stems, which change only when the core has answered. */
export function stemLayer(report: Report | null): Primitive[] {
  return report ? stemShapes(report) : [];
}

export function mechanicLayer(piece: Piece, report: Report | null): Primitive[] {
  return report ? mechanicShapes(piece, report, raisedOf(piece, report), "over") : [];
}

/** Heads, which change only when the core has answered. */
export function headLayer(report: Report | null): Primitive[] {
  return report ? headsFromTheFront(report) : [];
}

/** Stones, envelope and balance point, over everything. */
export function markLayer(piece: Piece, report: Report | null): Primitive[] {
  return [
    ...stoneShapes(piece, raisedOf(piece, report)),
    ...bindingShapes(report),
    ...envelopeShapes(report),
    ...balanceShapes(report),
  ];
}

function vesselShapes(vessel: Vessel, up: number, id: string): Primitive[] {
  const { base_m: base, wall_m: wall } = vessel;
  const inner = vessel.profile.map((point): Point => [point.width_m / 2, up + base + point.height_m]);
  const outer = inner.map(([x, z]): Point => [x + wall, z]);
  const foot = (vessel.foot_width_m ?? (vessel.profile[0]?.width_m ?? 0) * 0.9) / 2;
  const right: Point[] = [[0, up], [foot, up], ...outer, ...inner.toReversed(), [0, up + base]];
  const mirror = right.toReversed().map(([x, z]): Point => [-x, z]);
  const inside: Point[] = [...inner, ...inner.toReversed().map(([x, z]): Point => [-x, z])];
  return [
    { kind: "path", id: `${id}-inside`, tone: "tone-inside", points: inside, closed: true },
    {
      kind: "path",
      id: `${id}-wall`,
      tone: vessel.clear ? "tone-glass" : "tone-clay",
      points: [...right, ...mirror],
      closed: true,
    },
  ];
}

function box(left: number, bottom: number, right: number, top: number): Point[] {
  return [
    [left, bottom],
    [right, bottom],
    [right, top],
    [left, top],
  ];
}

/** A cylinder with its water, or a stand with plate, column and foot. */
function supportShapes(piece: Piece): Primitive[] {
  const { support } = piece;
  if (!support) return [];
  const tone = support.clear ? "tone-glass" : "tone-clay";
  const column = support.column_width_m / 2;
  const top = support.top_width_m / 2;
  const foot = (support.foot_width_m ?? support.column_width_m) / 2;
  if (support.opening_m > 0) {
    const inside = Math.max(column - 0.004, 0.005);
    const area = Math.PI * inside * inside;
    const level = Math.min(support.water_l / 1000 / area, support.height_m - 0.012);
    const shapes: Primitive[] = [
      { kind: "path", id: "support", tone, points: box(-column, 0, column, support.height_m), closed: true },
      {
        kind: "path",
        id: "support-inside",
        tone: "tone-inside",
        points: box(-inside, 0.01, inside, support.height_m),
        closed: true,
      },
    ];
    if (level > 0) {
      const points = box(-inside, 0.01, inside, 0.01 + level);
      shapes.push({ kind: "path", id: "support-water", tone: "tone-water", points, closed: true });
    }
    return shapes;
  }
  const plate = Math.min(0.008, support.height_m / 4);
  const points: Point[] = [
    ...box(-foot, 0, foot, plate),
    [column, plate],
    [column, support.height_m - plate],
    [top, support.height_m - plate],
    [top, support.height_m],
    [-top, support.height_m],
    [-top, support.height_m - plate],
    [-column, support.height_m - plate],
    [-column, plate],
    [-foot, plate],
  ];
  const outline = [points[0], points[1], points[2], ...points.slice(4)].filter((each) => each !== undefined);
  return [{ kind: "path", id: "support", tone, points: outline, closed: true }];
}

function riserShapes(piece: Piece, up: number): Primitive[] {
  const outer = piece.insert?.outer;
  if (!outer || up <= outer.base_m + 0.002) return [];
  const half = Math.min(halfWidthAt(outer, 0), halfWidthAt(piece.vessel, 0)) * 0.8;
  return [
    {
      kind: "path",
      id: "riser",
      tone: "tone-stone",
      points: box(-half, outer.base_m, half, up),
      closed: true,
    },
  ];
}

function waterShapes(piece: Piece, report: Report | null, up: number): Primitive[] {
  const { vessel, water_level_m: level } = piece;
  const under = vessel.profile.filter((point) => point.height_m < level).map((point) => point.height_m);
  const floor = up + vessel.base_m;
  const right = [...under, level].map((height): Point => [halfWidthAt(vessel, height), floor + height]);
  const line = (id: string, tone: string, height: number): Primitive => {
    const half = halfWidthAt(vessel, height);
    const z = floor + height;
    return {
      kind: "path",
      id,
      tone,
      points: [
        [-half, z],
        [half, z],
      ],
    };
  };
  const low = report?.water.lowest_level_m;
  const travel = report?.water.travel_level_m;
  return [
    {
      kind: "path",
      id: "water",
      tone: "tone-water",
      points: [...right, ...right.toReversed().map(([x, z]): Point => [-x, z])],
      closed: true,
    },
    line("water-line", "tone-water-line", level),
    ...(low != null && low < level - 0.002 ? [line("water-low", "tone-water-low", low)] : []),
    ...(travel != null && Math.abs(travel - level) > 0.002
      ? [line("water-travel", "tone-water-travel", travel)]
      : []),
  ];
}

/** Stems with their place in the report, the farthest back first. */
function backToFront(report: Report) {
  return report.stems
    .map((stem, index) => ({ stem, index, opacity: stem.tip_y_m > 0.02 ? 0.6 : 1 }))
    .toSorted((a, b) => b.stem.tip_y_m - a.stem.tip_y_m);
}

function tipOf(stem: PlacedStem): Point {
  return [stem.tip_x_m, stem.tip_z_m - stem.droop_m];
}

function stemShapes(report: Report): Primitive[] {
  return backToFront(report).map(({ stem, index, opacity }) => ({
    kind: "path",
    id: `stem-${index}`,
    tone: "tone-stem",
    points: [[stem.end_x_m, stem.end_z_m], [stem.seat_x_m, stem.seat_z_m], tipOf(stem)],
    widthM: Math.min(stem.diameter_m, 0.007) * 0.7,
    opacity: opacity * 0.85,
  }));
}

function headsFromTheFront(report: Report): Primitive[] {
  return backToFront(report).flatMap(({ stem, index, opacity }) => {
    const along = unit([stem.seat_x_m, stem.seat_z_m], tipOf(stem));
    const shapes = headShapes(stem, { tip: tipOf(stem), along, id: `head-${index}`, opacity });
    if (!stem.held) return shapes;
    const mark: Primitive = {
      kind: "circle",
      id: `head-${index}-held`,
      tone: "tone-held",
      at: tipOf(stem),
      r: 0.006,
    };
    return [...shapes, mark];
  });
}

function stoneShapes(piece: Piece, up: number): Primitive[] {
  if (piece.ballast_kg <= 0) return [];
  const half = halfWidthAt(piece.vessel, 0) * 0.85;
  const stones = Math.min(14, Math.max(3, Math.round(piece.ballast_kg / 0.05)));
  return Array.from({ length: stones }, (_, index) => {
    const x = -half + (2 * half * (index + 0.5)) / stones;
    return {
      kind: "path",
      id: `stone-${index}`,
      tone: "tone-stone",
      points: ellipse(x, up + piece.vessel.base_m + 0.006, half / stones, 0.006, 0, 14),
      closed: true,
    } satisfies Primitive;
  });
}

function envelopeShapes(report: Report | null): Primitive[] {
  if (!report) return [];
  return [{ kind: "path", id: "envelope", tone: "tone-envelope", points: report.envelope_front }];
}

function balanceShapes(report: Report | null): Primitive[] {
  if (!report?.balance) return [];
  const { x_m: x, height_m: z } = report.balance;
  const r = 0.006;
  const quarter = (from: number): Point[] => [
    [x, z],
    ...Array.from({ length: 7 }, (_, index): Point => {
      const angle = from + (index / 6) * (Math.PI / 2);
      return [x + r * Math.cos(angle), z + r * Math.sin(angle)];
    }),
  ];
  return [
    { kind: "circle", id: "balance", tone: "tone-balance", at: [x, z], r },
    { kind: "path", id: "balance-a", tone: "tone-balance-quarter", points: quarter(0), closed: true },
    { kind: "path", id: "balance-b", tone: "tone-balance-quarter", points: quarter(Math.PI), closed: true },
  ];
}

export function unit(from: Point, to: Point): Point {
  const dx = to[0] - from[0];
  const dy = to[1] - from[1];
  const size = Math.hypot(dx, dy) || 1;
  return [dx / size, dy / size];
}
