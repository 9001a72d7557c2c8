/** The section of a vessel piece to true scale: vessel wall, water, wire, stems to their cut ends, envelope. */
import type { Piece, PlacedStem, Report, Vessel } from "../api/types";
import { headShapes } from "./heads";
import { type Bounds, ellipse, type Point, type Primitive } from "./scene";

/** Half the inside width at a height above the inside floor, for drawing. */
export function halfWidthAt(vessel: Vessel, heightM: number): number {
  const points = vessel.profile;
  let low = points[0];
  for (const high of points) {
    if (low && heightM <= high.height_m) {
      const rise = high.height_m - low.height_m;
      const share = rise > 0 ? Math.max(0, heightM - low.height_m) / rise : 0;
      return (low.width_m + share * (high.width_m - low.width_m)) / 2;
    }
    low = high;
  }
  return (low?.width_m ?? 0) / 2;
}

export function rimHeight(vessel: Vessel): number {
  return vessel.base_m + (vessel.profile.at(-1)?.height_m ?? 0);
}

export function sectionBounds(piece: Piece, report: Report | null): Bounds {
  const rim = rimHeight(piece.vessel);
  const mouth = (piece.vessel.profile.at(-1)?.width_m ?? 0.1) / 2 + piece.vessel.wall_m;
  const widest = Math.max(...piece.vessel.profile.map((point) => point.width_m / 2));
  const half = Math.max(piece.envelope.width_m / 2, (report?.outline.width_m ?? 0) / 2, mouth, widest);
  const top = Math.max(piece.envelope.height_m, report?.outline.height_m ?? 0, rim);
  return { xMin: -half, xMax: half, yMin: 0, yMax: top };
}

export function buildSectionScene(piece: Piece, report: Report | null): Primitive[] {
  const half = sectionBounds(piece, report).xMax;
  return [
    {
      kind: "path",
      id: "surface",
      tone: "tone-surface",
      points: [
        [-half * 1.25, 0],
        [half * 1.25, 0],
      ],
    },
    ...vesselShapes(piece.vessel),
    ...waterShapes(piece, report),
    ...(report ? [...stemShapes(report), ...wireShapes(piece, report), ...headsFromTheFront(report)] : []),
    ...stoneShapes(piece),
    ...envelopeShapes(piece),
    ...balanceShapes(report),
  ];
}

function vesselShapes(vessel: Vessel): Primitive[] {
  const { base_m: base, wall_m: wall } = vessel;
  const inner = vessel.profile.map((point): Point => [point.width_m / 2, base + point.height_m]);
  const outer = inner.map(([x, z]): Point => [x + wall, z]);
  const foot = (vessel.foot_width_m ?? (vessel.profile[0]?.width_m ?? 0) * 0.9) / 2;
  const right: Point[] = [[0, 0], [foot, 0], ...outer, ...inner.toReversed(), [0, base]];
  const mirror = right.toReversed().map(([x, z]): Point => [-x, z]);
  const inside: Point[] = [...inner, ...inner.toReversed().map(([x, z]): Point => [-x, z])];
  return [
    { kind: "path", id: "vessel-inside", tone: "tone-inside", points: inside, closed: true },
    {
      kind: "path",
      id: "vessel-wall",
      tone: vessel.clear ? "tone-glass" : "tone-clay",
      points: [...right, ...mirror],
      closed: true,
    },
  ];
}

function waterShapes(piece: Piece, report: Report | null): Primitive[] {
  const { vessel, water_level_m: level } = piece;
  const under = vessel.profile.filter((point) => point.height_m < level).map((point) => point.height_m);
  const heights = [...under, level];
  const right = heights.map((height): Point => [halfWidthAt(vessel, height), vessel.base_m + height]);
  const line = (id: string, tone: string, height: number): Primitive => {
    const half = halfWidthAt(vessel, height);
    const z = vessel.base_m + height;
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
  ];
}

function wireShapes(piece: Piece, report: Report): Primitive[] {
  const { vessel } = piece;
  const levels = report.mechanic.levels;
  const pitch = report.cell_pitch_m;
  const shapes: Primitive[] = [];
  levels.forEach((level, index) => {
    const half = halfWidthAt(vessel, level.height_m);
    const z = vessel.base_m + level.height_m;
    const cells = Math.max(2, Math.round((2 * half) / (pitch / 2)));
    const points = Array.from({ length: cells + 1 }, (_, cell): Point => {
      const x = -half + (2 * half * cell) / cells;
      return [x, z + (cell % 2 ? 0.0025 : -0.0025)];
    });
    shapes.push({ kind: "path", id: `wire-${index}`, tone: "tone-wire", points });
    const next = levels[index + 1];
    if (next) {
      const side = index % 2 ? -1 : 1;
      const low = halfWidthAt(vessel, next.height_m);
      shapes.push({
        kind: "path",
        id: `fold-${index}`,
        tone: "tone-wire",
        points: [
          [side * half, z],
          [side * ((half + low) / 2), vessel.base_m + (level.height_m + next.height_m) / 2],
          [side * low, vessel.base_m + next.height_m],
        ],
      });
    }
  });
  return shapes;
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
    return headShapes(stem, { tip: tipOf(stem), along, id: `head-${index}`, opacity });
  });
}

function stoneShapes(piece: Piece): Primitive[] {
  if (piece.ballast_kg <= 0) return [];
  const half = halfWidthAt(piece.vessel, 0) * 0.85;
  const stones = Math.min(14, Math.max(3, Math.round(piece.ballast_kg / 0.05)));
  return Array.from({ length: stones }, (_, index) => {
    const x = -half + (2 * half * (index + 0.5)) / stones;
    return {
      kind: "path",
      id: `stone-${index}`,
      tone: "tone-stone",
      points: ellipse(x, piece.vessel.base_m + 0.006, half / stones, 0.006, 0, 14),
      closed: true,
    } satisfies Primitive;
  });
}

function envelopeShapes(piece: Piece): Primitive[] {
  const rim = rimHeight(piece.vessel);
  const { width_m: width, height_m: height } = piece.envelope;
  const points = Array.from({ length: 33 }, (_, index): Point => {
    const angle = (index / 32) * Math.PI;
    return [(Math.cos(angle) * width) / 2, rim + Math.sin(angle) * (height - rim)];
  });
  return [{ kind: "path", id: "envelope", tone: "tone-envelope", points }];
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
