/** What holds the stems, drawn in section as what it is: wire, pins, openings, rings, fills, grids, blocks, cups. */
import type { MechanicKind, Piece, Report } from "../api/types";
import { ellipse, type Point, type Primitive } from "./scene";
import { halfWidthAt } from "./vessel";

type Layer = "under" | "over";
const WIRE = new Set<MechanicKind>([
  "folded_cushion",
  "corner_pillow",
  "stacked_pair",
  "moss_sandwich",
  "cross_stick_roll",
  "three_layer_roll",
  "string_ball",
  "frog_with_wire",
]);
const FOLDED = new Set<MechanicKind>(["folded_cushion", "three_layer_roll", "corner_pillow"]);

/** Shapes of the mechanic that lie behind the stems, or over them. */
export function mechanicShapes(piece: Piece, report: Report, up: number, layer: Layer): Primitive[] {
  const { kind } = report.mechanic;
  const floor = up + piece.vessel.base_m;
  if (layer === "under") {
    if (kind === "moss_sandwich") return moss(piece, report, floor);
    if (kind === "fibre_pouch" || kind === "mineral_block") return block(report, floor, kind);
    if (kind === "wood_shavings") return shavings(piece, report, floor);
    if (kind === "branch_tangle") return tangle(piece, floor);
    return [];
  }
  const shapes = WIRE.has(kind) ? wire(piece, report, floor) : [];
  if (report.mechanic.frog_radius_m > 0) shapes.push(...frog(report, floor, kind));
  if (kind === "twig_rings") shapes.push(...twigs(piece, report, floor));
  if (kind === "tape_grid" || kind === "wood_shavings" || kind === "strung_ring")
    shapes.push(...grid(piece, report, floor));
  if (kind === "lattice_pad" || kind === "lattice_disc") shapes.push(...lattice(piece, report, floor));
  if (kind === "cross_stick_roll") shapes.push(stick(piece, floor));
  if (kind === "raised_cups") shapes.push(...cups(report, floor));
  return shapes;
}

function wire(piece: Piece, report: Report, floor: number): Primitive[] {
  const { vessel } = piece;
  const { kind, levels } = report.mechanic;
  const shapes: Primitive[] = [];
  levels.forEach((level, index) => {
    const half = halfWidthAt(vessel, level.height_m);
    const z = floor + level.height_m;
    const cells = Math.max(2, Math.round((2 * half) / (report.cell_pitch_m / 2)));
    const points = Array.from({ length: cells + 1 }, (_, cell): Point => {
      const x = -half + (2 * half * cell) / cells;
      return [x, z + (cell % 2 ? 0.0025 : -0.0025)];
    });
    shapes.push({ kind: "path", id: `wire-${index}`, tone: "tone-wire", points });
    const next = levels[index + 1];
    if (next && FOLDED.has(kind)) {
      const side = index % 2 ? -1 : 1;
      const low = halfWidthAt(vessel, next.height_m);
      shapes.push({
        kind: "path",
        id: `fold-${index}`,
        tone: "tone-wire",
        points: [
          [side * half, z],
          [side * ((half + low) / 2), floor + (level.height_m + next.height_m) / 2],
          [side * low, floor + next.height_m],
        ],
      });
    }
  });
  return shapes;
}

function frog(report: Report, floor: number, kind: MechanicKind): Primitive[] {
  const { frog_radius_m: r, levels, grip } = report.mechanic;
  const height = grip?.height_m ?? levels[0]?.height_m ?? 0.02;
  const base = Math.min(0.008, height * 0.4);
  const shapes: Primitive[] = [
    {
      kind: "path",
      id: "frog-base",
      tone: "tone-iron",
      points: [
        [-r, floor],
        [r, floor],
        [r, floor + base],
        [-r, floor + base],
      ],
      closed: true,
    },
  ];
  const uprights = Math.max(5, Math.round((2 * r) / (grip ? 0.004 : 0.014)));
  for (let index = 0; index <= uprights; index++) {
    const x = -r * 0.94 + (2 * r * 0.94 * index) / uprights;
    shapes.push({
      kind: "path",
      id: `frog-pin-${index}`,
      tone: "tone-wire",
      points: [
        [x, floor + base],
        [x, floor + height],
      ],
    });
  }
  if (!grip && kind !== "loop_frog") {
    shapes.push({
      kind: "path",
      id: "frog-top",
      tone: "tone-wire",
      points: [
        [-r, floor + height],
        [r, floor + height],
      ],
    });
  }
  return shapes;
}

function twigs(piece: Piece, report: Report, floor: number): Primitive[] {
  return report.mechanic.levels.flatMap((level, index) => {
    const half = halfWidthAt(piece.vessel, level.height_m) * (index === 0 ? 1.05 : 0.97);
    const z = floor + level.height_m;
    return [0, 1, 2].map(
      (turn): Primitive => ({
        kind: "path",
        id: `twig-${index}-${turn}`,
        tone: "tone-twig",
        points: Array.from({ length: 25 }, (_, step): Point => {
          const x = -half + (2 * half * step) / 24;
          return [x, z + 0.005 * Math.sin(step * 0.9 + turn * 2.1) + (turn - 1) * 0.003];
        }),
      }),
    );
  });
}

function grid(piece: Piece, report: Report, floor: number): Primitive[] {
  const level = report.mechanic.levels[0]?.height_m ?? 0;
  const half = halfWidthAt(piece.vessel, level);
  const pitch = report.cell_pitch_m;
  const number = Math.floor(half / pitch);
  const z = floor + level;
  const knots: Primitive[] = [];
  for (let index = -number; index <= number; index++) {
    knots.push({ kind: "circle", id: `grid-${index}`, tone: "tone-iron", at: [index * pitch, z], r: 0.0022 });
  }
  const line: Primitive = {
    kind: "path",
    id: "grid-line",
    tone: "tone-wire",
    points: [
      [-half - 0.006, z],
      [half + 0.006, z],
    ],
  };
  const second = report.mechanic.kind === "strung_ring" ? report.mechanic.levels[1] : undefined;
  if (!second) return [line, ...knots];
  const low = halfWidthAt(piece.vessel, second.height_m);
  const lower: Primitive = {
    kind: "path",
    id: "grid-low",
    tone: "tone-wire",
    points: [
      [-low, floor + second.height_m],
      [low, floor + second.height_m],
    ],
  };
  return [line, lower, ...knots];
}

function lattice(piece: Piece, report: Report, floor: number): Primitive[] {
  const [top, low] = report.mechanic.levels;
  if (!top || !low) return [];
  const out = report.mechanic.kind === "lattice_pad" ? 0.01 : -0.003;
  const half = halfWidthAt(piece.vessel, top.height_m) + out;
  const [high, bottom] = [floor + top.height_m, floor + low.height_m];
  const inner = Math.min(half, halfWidthAt(piece.vessel, low.height_m));
  const ribs = Math.max(3, Math.round((2 * inner) / report.cell_pitch_m));
  const shapes: Primitive[] = [
    {
      kind: "path",
      id: "lattice-top",
      tone: "tone-wire",
      points: [
        [-half, high],
        [half, high],
      ],
    },
  ];
  for (let index = 0; index <= ribs; index++) {
    const x = -inner + (2 * inner * index) / ribs;
    shapes.push({
      kind: "path",
      id: `lattice-${index}`,
      tone: "tone-wire",
      points: [
        [x, high],
        [x, bottom],
      ],
    });
  }
  return report.mechanic.kind === "lattice_disc" ? [...shapes, stick(piece, floor)] : shapes;
}

function stick(piece: Piece, floor: number): Primitive {
  const top = piece.vessel.profile.at(-1);
  const half = (top?.width_m ?? 0.1) / 2 + piece.vessel.wall_m + 0.02;
  const z = floor + (top?.height_m ?? 0) + 0.003;
  return {
    kind: "path",
    id: "stick",
    tone: "tone-twig",
    points: [
      [-half, z],
      [half, z],
    ],
  };
}

function moss(piece: Piece, report: Report, floor: number): Primitive[] {
  const low = report.mechanic.levels[1]?.height_m ?? 0.02;
  const rim = piece.vessel.profile.at(-1)?.height_m ?? low;
  const top = low + Math.min(0.02, (rim - low) / 2);
  const right: Point[] = [low, top].map(
    (height): Point => [halfWidthAt(piece.vessel, height), floor + height],
  );
  return [
    {
      kind: "path",
      id: "moss",
      tone: "tone-moss",
      points: [...right, ...right.toReversed().map(([x, z]): Point => [-x, z])],
      closed: true,
    },
  ];
}

function block(report: Report, floor: number, kind: MechanicKind): Primitive[] {
  const half = report.mechanic.seating.half_width_m ?? 0.05;
  const top = floor + report.mechanic.seating.height_m + 0.02;
  return [
    {
      kind: "path",
      id: "block",
      tone: kind === "fibre_pouch" ? "tone-moss" : "tone-stone",
      points: [
        [-half, floor],
        [half, floor],
        [half, top],
        [-half, top],
      ],
      closed: true,
    },
  ];
}

function shavings(piece: Piece, report: Report, floor: number): Primitive[] {
  const rim = piece.vessel.profile.at(-1)?.height_m ?? 0.1;
  return Array.from({ length: 70 }, (_, index): Primitive => {
    const height = rim * 0.85 * (((index * 37) % 70) / 70) + 0.004;
    const half = halfWidthAt(piece.vessel, height) * 0.92;
    const x = -half + 2 * half * (((index * 53) % 70) / 70);
    const points = ellipse(x, floor + height, 0.007, 0.0022, (index * 0.8) % 3.14, 10);
    return { kind: "path", id: `shaving-${index}`, tone: "tone-shaving", points, closed: true };
  }).slice(0, report.mechanic.levels.length > 0 ? 70 : 0);
}

function tangle(piece: Piece, floor: number): Primitive[] {
  const rim = piece.vessel.profile.at(-1)?.height_m ?? 0.1;
  return Array.from({ length: 9 }, (_, index): Primitive => {
    const height = rim * (0.08 + 0.1 * index);
    const half = halfWidthAt(piece.vessel, Math.min(height, rim)) * 0.94;
    return {
      kind: "path",
      id: `tangle-${index}`,
      tone: "tone-twig",
      points: Array.from({ length: 31 }, (_step, step): Point => {
        const turn = (step / 30) * 2 * Math.PI;
        return [half * Math.cos(turn), floor + height + 0.012 * Math.sin(turn + index)];
      }),
    };
  });
}

function cups(report: Report, floor: number): Primitive[] {
  const [top, low] = report.mechanic.levels;
  if (!top || !low) return [];
  const half = top.aperture_m / 2;
  return report.cells_m.map(
    ([x], index): Primitive => ({
      kind: "path",
      id: `cup-${index}`,
      tone: "tone-glass",
      points: [
        [x - half, floor + top.height_m],
        [x - half, floor + low.height_m],
        [x + half, floor + low.height_m],
        [x + half, floor + top.height_m],
      ],
    }),
  );
}
