/** A hung piece as primitives, from the front (x right, z up) or from above (x right, y to the back). */
import type { Rest, Rig, RigLine, RigReport } from "../api/types";
import { mountCorners } from "./mounted";
import { onSheet, type Place, type Plane } from "./plane";
import type { Bounds, Point, Primitive } from "./scene";

export type LineLook = "holds" | "tight" | "fails" | "cut";

const TIGHT = 0.85;
const PERSON_M = 1.7;
const WALKWAY_M = 2.2;
const BEHIND_M = 0.25;
/** Room that the name of a hang point takes, px. */
const NAME_PX = [58, 16] as const;

/** How a line is drawn for its share of what it may carry. */
export function lookOf(use: number): LineLook {
  if (use > 1) return "fails";
  return use > TIGHT ? "tight" : "holds";
}

/** Whether an armature is long and thin, not a stiff panel or ring. */
export function isRun(rig: Rig): boolean {
  return rig.armature.kind !== "panel" && rig.armature.kind !== "ring";
}

/** Whether it is tied all along to a frame, stand or column. */
export function isTied(rig: Rig): boolean {
  return isRun(rig) && rig.mount !== null && rig.mount.kind !== "wall";
}

/** Where a line starts: at its hang point, or at another place of the armature. */
function startOf(rig: Rig, line: RigLine, attachments: readonly Place[]): Place | null {
  if (line.tied_to !== null) return attachments[line.tied_to] ?? null;
  const point = rig.points[line.point ?? -1];
  return point ? [point.x_m, point.y_m, point.z_m] : null;
}

/** Where the words of every line go: its middle from the front, or lower where another line hides behind it. */
export function lineLabels(rig: Rig, attachments: readonly Place[]): Point[] {
  const taken: Point[] = [];
  if (isTied(rig)) return tieLabels(rig);
  return rig.lines.map((line) => {
    const from = startOf(rig, line, attachments);
    const held = attachments[line.attachment];
    if (!from || !held) return [0, 0];
    const at = (share: number): Point => [
      from[0] + (held[0] - from[0]) * share,
      from[2] + (held[2] - from[2]) * share,
    ];
    const middle = at(0.3);
    const behind = taken.filter(([x]) => Math.abs(x - middle[0]) < BEHIND_M).length;
    taken.push(middle);
    return at(0.3 + 0.42 * (behind % 2));
  });
}

/** Where the use of every tie is written: beside it, away from the middle of them all. */
function tieLabels(rig: Rig): Point[] {
  const middle = rig.points.reduce<Point>(
    ([x, z], each) => [x + each.x_m / rig.points.length, z + each.z_m / rig.points.length],
    [0, 0],
  );
  return rig.lines.map((line) => {
    const point = rig.points[line.point ?? -1];
    if (!point) return middle;
    const [dx, dz] = [point.x_m - middle[0], point.z_m - middle[1]];
    const upright = Math.abs(dx) < BEHIND_M && rig.mount?.kind !== "frame";
    const long = upright ? 1 : Math.hypot(dx, dz) || 1;
    const off = rig.armature.diameter_m / 2 + rig.armature.projection_m + 0.08;
    return upright
      ? [point.x_m + off + 0.04, point.z_m]
      : [point.x_m + (dx / long) * off, point.z_m + (dz / long) * off];
  });
}

/** Hang points by where they are seen from the front: those whose names would cover one another share one place. */
export function pointPlaces(
  rig: Rig,
  project: (at: Point) => readonly [number, number],
): { readonly at: Point; readonly points: readonly number[] }[] {
  const places: { at: Point; points: number[] }[] = [];
  const order = rig.points.map((_, index) => index).toSorted((a, b) => xOf(rig, a) - xOf(rig, b));
  for (const index of order) {
    const point = rig.points[index];
    if (!point) continue;
    const [x, y] = project([point.x_m, point.z_m]);
    const found = places.find(({ at }) => {
      const [left, top] = project(at);
      return Math.abs(left - x) < NAME_PX[0] && Math.abs(top - y) < NAME_PX[1];
    });
    if (found) found.points.push(index);
    else places.push({ at: [point.x_m, point.z_m], points: [index] });
  }
  return places;
}

function xOf(rig: Rig, index: number): number {
  return rig.points[index]?.x_m ?? 0;
}

/** Room for everything, with the floor in it from the front; close, only for the work and what holds it. */
export function rigBounds(rig: Rig, report: RigReport | null, plane: Plane, close = false): Bounds {
  const places: Place[] = [
    ...rig.points.map((each): Place => [each.x_m, each.y_m, each.z_m]),
    ...rig.attachments.map((each): Place => [each.x_m, each.y_m, each.z_m]),
    ...(report?.rest.at_m ?? []),
    ...(close ? [] : rig.hazards.map((each): Place => [each.x_m, each.y_m, each.z_m])),
    ...(close ? [] : mountCorners(rig.mount)),
  ];
  const sheet = places.map((each) => onSheet(each, plane));
  const xs = sheet.map(([x]) => x);
  const ys = sheet.map(([, y]) => y);
  if (close && sheet.length > 0) {
    const low = plane === "front" ? hangsDown(rig) : 0.2;
    return {
      xMin: Math.min(...xs) - 0.25,
      xMax: Math.max(...xs) + 0.25,
      yMin: Math.min(...ys) - low,
      yMax: Math.max(...ys) + (plane === "front" ? 0.1 : 0.2),
    };
  }
  const [xMin, xMax] = [Math.min(-0.5, ...xs) - 0.35, Math.max(0.5, ...xs) + 0.35];
  if (plane === "front") return { xMin: xMin - 0.6, xMax, yMin: -0.05, yMax: Math.max(2, ...ys) + 0.1 };
  return { xMin: xMin - 0.6, xMax, yMin: Math.min(-0.3, ...ys) - 0.15, yMax: Math.max(0.3, ...ys) + 0.15 };
}

/** How far the flowers reach below the armature, m. */
function hangsDown({ armature }: Rig): number {
  if (armature.kind === "panel" || armature.kind === "ring")
    return (armature.drop?.longest_m ?? armature.stem_cut_m) + 0.05;
  return armature.diameter_m / 2 + armature.projection_m + 0.05;
}

/** Floor, a person for measure, the clearance wanted over a walkway. */
export function roomLayer(rig: Rig, bounds: Bounds): Primitive[] {
  const wide: [number, number] = [bounds.xMin - 20, bounds.xMax + 20];
  const layer: Primitive[] = [
    {
      kind: "path",
      id: "floor",
      tone: "tone-surface",
      points: [
        [wide[0], 0],
        [wide[1], 0],
      ],
    },
    ...person(bounds.xMin + 0.3),
  ];
  if (rig.below === "walkway") {
    layer.push({
      kind: "path",
      id: "walkway",
      tone: "tone-foot",
      points: [
        [wide[0], WALKWAY_M],
        [wide[1], WALKWAY_M],
      ],
    });
  }
  return layer;
}

function person(x: number): Primitive[] {
  const tall = PERSON_M;
  const half: Point[] = [
    [0.05, 0],
    [0.12, 0.02],
    [0.12, 0.8],
    [0.2, 0.85],
    [0.22, 1.32],
    [0.14, 1.44],
    [0.05, 1.46],
  ];
  const outline: Point[] = [
    ...half.map(([dx, z]): Point => [x + dx, z]),
    ...half.toReversed().map(([dx, z]): Point => [x - dx, z]),
  ];
  return [
    { kind: "path", id: "person", tone: "tone-person", points: outline, closed: true },
    {
      kind: "ellipse",
      id: "person-head",
      tone: "tone-person",
      at: [x, tall - 0.12],
      rx: 0.085,
      ry: 0.12,
      turn: 0,
    },
  ];
}

/** Lines as they hang, each by how much it uses; lines that are cut as they were drawn. */
export function lineLayer(
  rig: Rig,
  attachments: readonly Place[],
  looks: readonly LineLook[],
  plane: Plane,
): Primitive[] {
  return rig.lines.flatMap((line, index): Primitive[] => {
    const from = startOf(rig, line, attachments);
    const drawn = rig.attachments[line.attachment];
    if (!from || !drawn) return [];
    const look = looks[index] ?? "holds";
    const meets: Place =
      look === "cut" ? [drawn.x_m, drawn.y_m, drawn.z_m] : (attachments[line.attachment] ?? [0, 0, 0]);
    return [
      {
        kind: "path",
        id: `line-${index}`,
        tone: `tone-line-${look}`,
        points: [onSheet(from, plane), onSheet(meets, plane)],
      },
    ];
  });
}

/** The second bond, slack from its own point to the nearest place of the armature. */
export function bondLayer(rig: Rig, attachments: readonly Place[], plane: Plane): Primitive[] {
  const point = rig.points[rig.bond?.point ?? -1];
  if (!rig.bond || !point) return [];
  const from: Place = [point.x_m, point.y_m, point.z_m];
  const meets = attachments.reduce<Place | null>(
    (near, each) => (near && distance(near, from) <= distance(each, from) ? near : each),
    null,
  );
  if (!meets) return [];
  const bow: Place = [
    (from[0] + meets[0]) / 2 + rig.bond.slack_m,
    (from[1] + meets[1]) / 2,
    (from[2] + meets[2]) / 2,
  ];
  return [
    {
      kind: "path",
      id: "bond",
      tone: "tone-bond",
      points: [from, bow, meets].map((each) => onSheet(each, plane)),
    },
  ];
}

function distance(one: Place, other: Place): number {
  return Math.hypot(one[0] - other[0], one[1] - other[1], one[2] - other[2]);
}

/** Hang points as rings, attachments as dots; whatever is chosen is larger. */
export function pointLayer(
  rig: Rig,
  attachments: readonly Place[],
  plane: Plane,
  unitM: number,
  chosen: string,
): Primitive[] {
  const dot = (id: string, tone: string, at: Point): Primitive => ({
    kind: "circle",
    id,
    tone,
    at,
    r: unitM * (chosen === id ? 1.7 : 1),
  });
  return [
    ...rig.attachments.map((each, index) =>
      dot(
        `attachment-${index}`,
        "tone-attachment",
        onSheet(attachments[index] ?? [each.x_m, each.y_m, each.z_m], plane),
      ),
    ),
    ...rig.points.map((each, index) =>
      dot(`point-${index}`, "tone-hang-point", onSheet([each.x_m, each.y_m, each.z_m], plane)),
    ),
  ];
}

/** Attachments where they hang, or as drawn where nothing is worked out. */
export function attachmentPlaces(rig: Rig, rest: Rest | null): readonly Place[] {
  return rest && rest.attachments_m.length === rig.attachments.length
    ? rest.attachments_m
    : rig.attachments.map((each): Place => [each.x_m, each.y_m, each.z_m]);
}
