/** The plan: cells and seats, heads, foot, balance point and the tip rose. Front is down. */
import type { Piece, Report } from "../api/types";
import { headShapes } from "./heads";
import { type Bounds, ellipse, type Point, type Primitive } from "./scene";
import { unit } from "./section";

export function planBounds(piece: Piece, report: Report | null): Bounds {
  const mouth = piece.vessel.profile.at(-1);
  const points = [...(report?.envelope_above ?? []), ...(report?.stems ?? []).map(tipFromAbove)];
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const halfX = Math.max(mouth?.width_m ?? 0.1, report ? 0 : piece.envelope.width_m) / 2;
  const halfY = Math.max(mouth?.depth_m ?? 0.1, report ? 0 : piece.envelope.depth_m) / 2;
  return {
    xMin: Math.min(-halfX, ...xs),
    xMax: Math.max(halfX, ...xs),
    yMin: Math.min(-halfY, ...ys),
    yMax: Math.max(halfY, ...ys),
  };
}

function tipFromAbove(stem: Report["stems"][number]): Point {
  return [stem.tip_x_m, stem.tip_y_m];
}

/** Cells, which change only when the core has answered. */
export function cellLayer(report: Report | null): Primitive[] {
  return report ? cellShapes(report) : [];
}

/** Rim, foot and tape, which follow the hand at once. */
export function rimLayer(piece: Piece, report: Report | null): Primitive[] {
  const { vessel } = piece;
  const mouth = vessel.profile.at(-1);
  const halfX = (mouth?.width_m ?? 0) / 2;
  const halfY = (mouth?.depth_m ?? 0) / 2;
  const cornered = vessel.plan_shape === "square" || vessel.plan_shape === "rectangular";
  const shape = (x: number, y: number): Point[] =>
    cornered
      ? [
          [-x, -y],
          [x, -y],
          [x, y],
          [-x, y],
        ]
      : ellipse(0, 0, x, y, 0, 64);
  const footX = report?.foot_width_m;
  const footY = report?.foot_depth_m;
  const ring = (id: string, tone: string, x: number, y: number): Primitive => ({
    kind: "path",
    id,
    tone,
    points: shape(x, y),
    closed: true,
  });
  return [
    ...(report ? tapeShapes(report, halfX) : []),
    ring("plan-rim", "tone-rim", halfX, halfY),
    ring("plan-rim-outside", "tone-rim", halfX + vessel.wall_m, halfY + vessel.wall_m),
    ...(footX && footY ? [ring("plan-foot", "tone-foot", footX / 2, footY / 2)] : []),
  ];
}

/** Heads seen from above, tip rose, seats and envelope, which change only when the core has answered. */
export function aboveLayer(report: Report | null, withHeads: boolean): Primitive[] {
  if (!report) return [];
  return [
    ...(withHeads ? headsFromAbove(report) : []),
    ...roseShapes(report),
    ...seatShapes(report),
    { kind: "path", id: "plan-envelope", tone: "tone-envelope", points: report.envelope_above, closed: true },
  ];
}

/** Hexagons round the cell centres that the core gives. */
function cellShapes(report: Report): Primitive[] {
  if (report.seat_pattern !== "hexagonal") return squareSeats(report);
  const corner = report.cell_pitch_m / Math.sqrt(3);
  return report.cells_m.map(([x, y], cell) => ({
    kind: "path",
    id: `cell-${cell}`,
    tone: "tone-cell",
    points: Array.from({ length: 6 }, (_, index): Point => {
      const angle = Math.PI / 6 + (index * Math.PI) / 3;
      return [x + corner * Math.cos(angle), y + corner * Math.sin(angle)];
    }),
    closed: true,
  }));
}

function squareSeats(report: Report): Primitive[] {
  const half =
    (report.seat_pattern === "cups" ? report.mechanic.seating.aperture_m : report.cell_pitch_m) / 2;
  return report.cells_m.map(([x, y], cell) => ({
    kind: "path",
    id: `cell-${cell}`,
    tone: "tone-cell",
    points:
      report.seat_pattern === "cups"
        ? ellipse(x, y, half, half, 0, 20)
        : [
            [x - half, y - half],
            [x + half, y - half],
            [x + half, y + half],
            [x - half, y + half],
          ],
    closed: true,
  }));
}

function tapeShapes(report: Report, halfX: number): Primitive[] {
  const strips = report.seat_pattern === "hexagonal" ? report.mechanic.tape_strips : 0;
  return Array.from({ length: strips }, (_, index) => {
    const angle = (index * Math.PI) / strips;
    const x = halfX * Math.cos(angle);
    const y = halfX * Math.sin(angle);
    return {
      kind: "path",
      id: `tape-${index}`,
      tone: "tone-tape",
      points: [
        [-x, -y],
        [x, y],
      ],
    } satisfies Primitive;
  });
}

function headsFromAbove(report: Report): Primitive[] {
  const order = report.stems
    .map((stem, index) => ({ stem, index }))
    .toSorted((a, b) => a.stem.tip_z_m - b.stem.tip_z_m);
  return order.flatMap(({ stem, index }) => {
    const tip: Point = [stem.tip_x_m, stem.tip_y_m];
    const along = unit([stem.seat_x_m, stem.seat_y_m], tip);
    // A long head that stands up is seen end on: only what leans is long from above.
    const lying = { ...stem, head_height_m: stem.head_height_m * Math.max(Math.sin(stem.lean_rad), 0.2) };
    return headShapes(lying, { tip, along, id: `above-${index}`, opacity: stem.held ? 0.9 : 0.45 });
  });
}

function seatShapes(report: Report): Primitive[] {
  return report.stems.map((stem, index) => ({
    kind: "circle",
    id: `seat-${index}`,
    tone: "tone-seat",
    at: [stem.seat_x_m, stem.seat_y_m],
    r: Math.max(stem.diameter_m / 2, 0.0022),
  }));
}

/** The tip rose: tip angle in every direction as a curve; the ring is the limit. */
function roseShapes(report: Report): Primitive[] {
  const balance = report.balance;
  const limit = report.verdicts
    .find((each) => each.verb === "stand")
    ?.findings.find((each) => each.check === "tilt");
  if (!balance || !limit) return [];
  const ring = 0.028;
  const perRad = ring / limit.limit.value;
  const angles = balance.tip_angles_rad;
  const points = angles.map((angle, index): Point => {
    const azimuth = (index / angles.length) * 2 * Math.PI;
    const r = Math.max(0, angle) * perRad;
    return [r * Math.sin(azimuth), -r * Math.cos(azimuth)];
  });
  const at: Point = [balance.x_m, balance.y_m];
  return [
    { kind: "path", id: "tip-rose", tone: "tone-rose", points, closed: true },
    { kind: "circle", id: "tip-rose-limit", tone: "tone-rose-limit", at: [0, 0], r: ring },
    { kind: "circle", id: "plan-balance", tone: "tone-balance", at, r: 0.005 },
  ];
}
