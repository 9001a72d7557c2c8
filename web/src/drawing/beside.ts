import { besideOf } from "../api/kinds";
/** What belongs to a composition beside its own vessel: the ledge, other vessels, a tied weight, a spill. */
import type { Piece, Report } from "../api/types";
import { ellipse, type Point, type Primitive } from "./scene";
import type { View } from "./turned";

const SLAB_M = 0.07;

/** A ledge from the front, a slab under the surface; from the side, with its edge, its wall and what tips over it. */
export function ledgeShapes(piece: Piece, report: Report | null, view: View, half: number): Primitive[] {
  const { ledge } = piece.setting;
  if (piece.setting.where !== "ledge" || !ledge) return [];
  const deep = Math.min(SLAB_M, ledge.height_m);
  if (view === "front" || !report?.ledge) {
    const wide = half * 1.25;
    const slab = rectangle(-wide, -deep, wide, 0);
    return [{ kind: "path", id: "ledge", tone: "tone-ledge", points: slab, closed: true }];
  }
  const { front_m: front, back_m: back, axis_m: axis } = report.ledge;
  const round = Math.min(ledge.edge_radius_m, deep);
  const edge: Point[] =
    round > 0
      ? Array.from({ length: 7 }, (_, index): Point => {
          const turn = (index / 6) * (Math.PI / 2);
          return [front + round - round * Math.sin(turn), -round + round * Math.cos(turn)];
        })
      : [[front, 0]];
  const shapes: Primitive[] = [
    {
      kind: "path",
      id: "ledge",
      tone: "tone-ledge",
      points: [[back, 0], ...edge, [front, -deep], [back, -deep]],
      closed: true,
    },
    {
      kind: "path",
      id: "ledge-axis",
      tone: "tone-axis",
      points: [
        [axis, 0],
        [axis - 0.012, -0.022],
        [axis + 0.012, -0.022],
      ],
      closed: true,
    },
  ];
  if (ledge.wall) {
    const top = Math.max(piece.envelope.height_m, 0.2);
    const wall = rectangle(back, -deep, back + 0.015, top);
    shapes.push({ kind: "path", id: "ledge-wall", tone: "tone-ledge", points: wall, closed: true });
  }
  return shapes;
}

/** The strip of netting over the edge, with its flowers as it hangs. */
export function spillShapes(piece: Piece, report: Report | null, view: View): Primitive[] {
  const { spill } = besideOf(piece);
  if (!spill || piece.setting.where !== "ledge") return [];
  const side = view === "side";
  const edge = side ? (report?.ledge?.front_m ?? -0.1) : 0;
  const reach = spill.cut_length_m * 0.45;
  const half = side ? 0.02 : spill.width_m / 2;
  const middle = side ? edge - half : 0;
  const strip = rectangle(middle - half, -spill.drop_m, middle + half, 0.004);
  const stems = spill.recipe.reduce((sum, line) => sum + line.count, 0);
  const drawn = Math.min(stems, 26);
  const leaves = Array.from({ length: drawn }, (_, index): Primitive => {
    const down = ((index + 0.5) / Math.max(drawn, 1)) * spill.drop_m;
    const way = side ? -1 : index % 2 === 0 ? -1 : 1;
    const from: Point = [middle + (side ? -half : way * half * 0.4), -down];
    return {
      kind: "path",
      id: `spill-stem-${index}`,
      tone: "tone-stem",
      points: [from, [from[0] + way * reach * (0.7 + 0.3 * ((index * 7) % 3)), from[1] - reach * 0.7]],
      widthM: 0.005,
      opacity: 0.75,
    };
  });
  return [
    { kind: "path", id: "spill", tone: "tone-spill", points: strip, closed: true },
    ...leaves,
    {
      kind: "circle",
      id: "spill-hook",
      tone: spill.held_by === "hook" ? "tone-hook" : "tone-seat",
      at: [side ? edge + 0.03 : 0, 0.012],
      r: 0.008,
    },
  ];
}

/** A weight beside the vessel: a block, tied on by a line or merely standing there. */
export function weightShapes(piece: Piece): Primitive[] {
  const weight = besideOf(piece).counterweight;
  if (!weight) return [];
  const size = Math.cbrt(weight.mass_kg / 2400);
  const x = weight.away_m * Math.sin(weight.azimuth_rad);
  const shapes: Primitive[] = [
    {
      kind: "path",
      id: "weight",
      tone: "tone-stone",
      points: rectangle(x - size / 2, 0, x + size / 2, size),
      closed: true,
    },
  ];
  if (weight.tied) {
    shapes.push({
      kind: "path",
      id: "weight-tie",
      tone: "tone-tie",
      points: [
        [x, size / 2],
        [0, piece.vessel.base_m + 0.02],
      ],
    });
  }
  return shapes;
}

/** A bouquet's binding: a band of tape round the handle. */
export function bindingShapes(report: Report | null): Primitive[] {
  const bouquet = report?.bouquet;
  if (!bouquet || bouquet.handle_m <= 0) return [];
  const half = bouquet.handle_m / 2 + 0.002;
  const band = rectangle(-half, bouquet.binding_m - 0.02, half, bouquet.binding_m + 0.02);
  const under: Primitive = {
    kind: "path",
    id: "bouquet-under",
    tone: "tone-water-low",
    points: ellipse(0, bouquet.under_m, half * 2.2, 0.004, 0, 20),
    closed: true,
  };
  return [under, { kind: "path", id: "binding", tone: "tone-binding", points: band, closed: true }];
}

function rectangle(left: number, bottom: number, right: number, top: number): Point[] {
  return [
    [left, bottom],
    [right, bottom],
    [right, top],
    [left, top],
  ];
}
