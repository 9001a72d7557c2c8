/** A hung piece as primitives, from the front (x right, z up) or from above (x right, y to the back). */
import type { Rest, Rig, RigReport, Variety } from "../api/types";
import type { Bounds, Point, Primitive } from "./scene";

export type Plane = "front" | "plan";
export type Place = readonly [number, number, number];
export type LineLook = "holds" | "tight" | "fails" | "cut";

const TIGHT = 0.85;
const HEADS = 220;
const GOLDEN = Math.PI * (3 - Math.sqrt(5));
const PERSON_M = 1.7;
const WALKWAY_M = 2.2;
const BEHIND_M = 0.25;

/** A place of the room on the sheet. */
export function onSheet([x, y, z]: Place, plane: Plane): Point {
  return plane === "front" ? [x, z] : [x, y];
}

/** How a line is drawn for its share of what it may carry. */
export function lookOf(use: number): LineLook {
  if (use > 1) return "fails";
  return use > TIGHT ? "tight" : "holds";
}

/** Where the words of every line go: its middle from the front, or lower where another line hides behind it. */
export function lineLabels(rig: Rig, attachments: readonly Place[]): Point[] {
  const taken: Point[] = [];
  return rig.lines.map((line) => {
    const point = rig.points[line.point];
    const held = attachments[line.attachment];
    if (!point || !held) return [0, 0];
    const at = (share: number): Point => [
      point.x_m + (held[0] - point.x_m) * share,
      point.z_m + (held[2] - point.z_m) * share,
    ];
    const middle = at(0.3);
    const behind = taken.filter(([x]) => Math.abs(x - middle[0]) < BEHIND_M).length;
    taken.push(middle);
    return at(0.3 + 0.42 * (behind % 2));
  });
}

/** Hang points by where they are seen from the front: those behind one another are one place with several names. */
export function pointPlaces(rig: Rig): { readonly at: Point; readonly points: readonly number[] }[] {
  const places: { at: Point; points: number[] }[] = [];
  rig.points.forEach(({ x_m, z_m }, index) => {
    const found = places.find(
      ({ at: [x, z] }) => Math.abs(x - x_m) < BEHIND_M && Math.abs(z - z_m) < BEHIND_M,
    );
    if (found) found.points.push(index);
    else places.push({ at: [x_m, z_m], points: [index] });
  });
  return places;
}

/** Room for everything, with the floor in it from the front. */
export function rigBounds(rig: Rig, report: RigReport | null, plane: Plane): Bounds {
  const places: Place[] = [
    ...rig.points.map((each): Place => [each.x_m, each.y_m, each.z_m]),
    ...rig.attachments.map((each): Place => [each.x_m, each.y_m, each.z_m]),
    ...(report?.rest.at_m ?? []),
  ];
  const sheet = places.map((each) => onSheet(each, plane));
  const xs = sheet.map(([x]) => x);
  const ys = sheet.map(([, y]) => y);
  const [xMin, xMax] = [Math.min(-0.5, ...xs) - 0.35, Math.max(0.5, ...xs) + 0.35];
  if (plane === "front") return { xMin: xMin - 0.6, xMax, yMin: -0.05, yMax: Math.max(2, ...ys) + 0.1 };
  return { xMin: xMin - 0.6, xMax, yMin: Math.min(-0.3, ...ys) - 0.15, yMax: Math.max(0.3, ...ys) + 0.15 };
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
  if (rig.walkway) {
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
    const point = rig.points[line.point];
    const drawn = rig.attachments[line.attachment];
    if (!point || !drawn) return [];
    const look = looks[index] ?? "holds";
    const meets: Place =
      look === "cut" ? [drawn.x_m, drawn.y_m, drawn.z_m] : (attachments[line.attachment] ?? [0, 0, 0]);
    return [
      {
        kind: "path",
        id: `line-${index}`,
        tone: `tone-line-${look}`,
        points: [onSheet([point.x_m, point.y_m, point.z_m], plane), onSheet(meets, plane)],
      },
    ];
  });
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

type Stock = Readonly<Record<string, Variety>>;

/** The armature where it hangs, with its flowers: fuller where it carries more. */
export function armatureLayer(rig: Rig, at: readonly Place[], varieties: Stock, plane: Plane): Primitive[] {
  if (at.length < 2) return [];
  const { armature } = rig;
  if (armature.kind === "snake" || armature.kind === "tube") {
    const body = at.slice(1).map((place, index): Primitive => {
      const share = (index + 0.5) / (at.length - 1);
      const fuller = armature.fuller_first + (1 - armature.fuller_first) * share;
      const most = Math.max(armature.fuller_first, 1);
      return {
        kind: "path",
        id: `run-${index}`,
        tone: "tone-run",
        points: [onSheet(at[index] ?? place, plane), onSheet(place, plane)],
        widthM: armature.diameter_m,
        opacity: 0.2 + (0.45 * fuller) / most,
      };
    });
    return [...body, ...headsAlong(rig, at, varieties, plane)];
  }
  const rim: Primitive = {
    kind: "path",
    id: "rim",
    tone: "tone-panel",
    points: at.map((each) => onSheet(each, plane)),
    closed: true,
  };
  return [...headsUnder(rig, at, varieties, plane), rim];
}

/** One stem after the other so that varieties mix, at most so many: what share of them is drawn is the same for all. */
function stemsOf(rig: Rig, varieties: Stock): readonly { readonly colour: string; readonly r: number }[] {
  const total = rig.recipe.reduce((sum, line) => sum + line.count, 0);
  const share = Math.min(1, HEADS / Math.max(total, 1));
  return rig.recipe
    .flatMap((line) => {
      const variety = varieties[line.variety];
      const number = Math.round(line.count * share);
      return Array.from({ length: number }, (_, index) => ({
        colour: variety?.colour ?? "#8a9a6b",
        r: (variety?.head_diameter_m ?? 0.03) / 2,
        at: (index + 0.5) / number,
      }));
    })
    .toSorted((a, b) => a.at - b.at);
}

function headsAlong(rig: Rig, at: readonly Place[], varieties: Stock, plane: Plane): Primitive[] {
  const stems = stemsOf(rig, varieties);
  const first = rig.armature.fuller_first;
  return stems.map(({ colour, r }, index): Primitive => {
    const even = (index + 0.5) / stems.length;
    // The share of the way along at which so much of an evenly changing density lies before it.
    const a = (1 - first) / 2;
    const whole = first + a;
    const share =
      Math.abs(a) < 1e-6 ? even : (-first + Math.sqrt(first * first + 4 * a * even * whole)) / (2 * a);
    const place = share * (at.length - 1);
    const from = at[Math.floor(place)] ?? [0, 0, 0];
    const to = at[Math.min(Math.floor(place) + 1, at.length - 1)] ?? from;
    const part = place - Math.floor(place);
    const [x, y] = onSheet(
      [
        from[0] + (to[0] - from[0]) * part,
        from[1] + (to[1] - from[1]) * part,
        from[2] + (to[2] - from[2]) * part,
      ],
      plane,
    );
    const aside = Math.sin(index * GOLDEN) * (rig.armature.diameter_m / 2 + r * 0.6);
    return {
      kind: "circle",
      id: `head-${index}`,
      tone: "tone-head",
      at: [x, y + aside],
      r,
      fill: colour,
      opacity: 0.92,
    };
  });
}

function headsUnder(rig: Rig, at: readonly Place[], varieties: Stock, plane: Plane): Primitive[] {
  const stems = stemsOf(rig, varieties);
  const middle = at.reduce<[number, number, number]>(
    (sum, each) => [sum[0] + each[0] / at.length, sum[1] + each[1] / at.length, sum[2] + each[2] / at.length],
    [0, 0, 0],
  );
  const quarter = at.length / 4;
  const ring = rig.armature.kind === "ring";
  const out = (node: number): Place => {
    const one = at[node] ?? middle;
    const other = ring ? one : (at[(node + 1) % at.length] ?? middle);
    return [
      (one[0] + other[0]) / 2 - middle[0],
      (one[1] + other[1]) / 2 - middle[1],
      (one[2] + other[2]) / 2 - middle[2],
    ];
  };
  const u = out(ring ? 0 : 1);
  const v = out(ring ? quarter : 2);
  return stems.flatMap(({ colour, r }, index): Primitive[] => {
    const far = Math.sqrt((index + 0.5) / stems.length) * (ring ? 0.97 : 0.95);
    const [a, b] = [far * Math.cos(index * GOLDEN), far * Math.sin(index * GOLDEN)];
    const top: Place = [
      middle[0] + a * u[0] + b * v[0],
      middle[1] + a * u[1] + b * v[1],
      middle[2] + a * u[2] + b * v[2],
    ];
    const low: Place = [top[0], top[1], top[2] - rig.armature.stem_cut_m];
    const head: Primitive = {
      kind: "circle",
      id: `head-${index}`,
      tone: "tone-head",
      at: onSheet(low, plane),
      r,
      fill: colour,
      opacity: 0.92,
    };
    if (plane === "plan") return [head];
    return [
      {
        kind: "path",
        id: `hung-${index}`,
        tone: "tone-stem",
        points: [onSheet(top, plane), onSheet(low, plane)],
        widthM: 0.004,
      },
      head,
    ];
  });
}

/** Attachments where they hang, or as drawn where nothing is worked out. */
export function attachmentPlaces(rig: Rig, rest: Rest | null): readonly Place[] {
  return rest && rest.attachments_m.length === rig.attachments.length
    ? rest.attachments_m
    : rig.attachments.map((each): Place => [each.x_m, each.y_m, each.z_m]);
}
