/** How a drawing is seen: the rules of the core's `drawing/project.py`, here so that a piece turns under the hand. */
import type { Outline, Picture, Stem, Stems } from "../api/types";
import { ofHead } from "./heads";
import {
  asDeep,
  type Eye,
  eyeOf,
  type Flat,
  flatten,
  type Kit,
  NOTHING,
  type Place,
  SAME,
  type Seen,
  type Spot,
  see,
  type View,
} from "./seeing";
import { stemsOf } from "./stems";

type Primitive = Picture["primitives"][number];
type Turned = Extract<Primitive, { kind: "turned" }>;
type Ring = Turned["rings"][number];
type Put = { readonly layer: number; readonly depth: number; readonly flat: Flat };

/** What of a picture is drawn. */
type Drawn = Pick<Picture, "primitives" | "rims_m" | "deep_m"> & { readonly hung?: Stems };

const LAYER = { place: 0, stems: 6, heads: 8, marks: 9 } as const;
const STRAIGHT_DOWN = (85 * Math.PI) / 180;
const STEP = 3;
const BARK = 0.2;
const BARK_STARTS = [0.1, 0.4, 0.7] as const;
/** What a piece stands on or before is seen through where it would hide it. */
const SEEN_THROUGH: ReadonlySet<string> = new Set(["wall", "ledge"]);

/** A picture and the stems that stand in it as they are seen, from back to front. */
export function project(picture: Drawn, stems: readonly Stem[], view: View, kit: Kit): Flat[] {
  const eye = eyeOf(view);
  const aspects = aspectsOf(view);
  const every: Put[] = [];
  const from = `${view.turn_rad} ${view.raised_rad} ${view.cut}`;
  for (const each of picture.primitives) {
    if (each.seen.length > 0 && !each.seen.some((aspect) => aspects.has(aspect))) continue;
    const { layer } = each;
    const seen = () =>
      ofPrimitive(each, eye, view, kit).map(([depth, flat]): Put => ({ layer, depth, flat }));
    every.push(...lastSeen(each, kit, from, seen));
  }
  for (const [name, several] of [
    ["", stems],
    ["hung-", picture.hung ? stemsOf(picture.hung) : []],
  ] as const) {
    several.forEach((stem, index) => {
      const key = `${from} ${name}${index} ${picture.rims_m[stem.vessel]} ${picture.deep_m}`;
      every.push(...lastSeen(stem, kit, key, () => ofStem(name, index, stem, picture, eye, view, kit)));
    });
  }
  const before = ({ depth, flat }: Put) => (flat.ink === "wall" ? depth < 0 : view.raised_rad < 0);
  const rank = (each: Put) => {
    if (view.cut) return each.layer;
    if (each.layer === LAYER.place) return before(each) ? 1 : -1;
    return each.layer === LAYER.marks ? 2 : 0;
  };
  const through = (each: Put) =>
    !view.cut && each.layer === LAYER.place && SEEN_THROUGH.has(each.flat.ink) && before(each);
  return every
    .toSorted((a, b) => rank(a) - rank(b) || asDeep(b.depth) - asDeep(a.depth))
    .map((each) => (through(each) ? { ...each.flat, part: "edge" as const } : each.flat));
}

/** How many views of a thing are remembered. */
const MOST_VIEWS = 4;
const SEEN = new WeakMap<object, { readonly kit: Kit; readonly by: Map<string, readonly Put[]> }>();

/** A thing seen as it was seen just before gives the very same flats, which need not be drawn again. */
function lastSeen(thing: object, kit: Kit, from: string, see: () => readonly Put[]): readonly Put[] {
  let known = SEEN.get(thing);
  if (known?.kit !== kit) {
    known = { kit, by: new Map() };
    SEEN.set(thing, known);
  }
  let found = known.by.get(from);
  if (!found) {
    found = see();
    if (known.by.size >= MOST_VIEWS) known.by.clear();
    known.by.set(from, found);
  }
  return found;
}

export function aspectsOf(view: View): ReadonlySet<string> {
  const found = new Set([view.cut ? "cut" : "whole"]);
  if (view.raised_rad > STRAIGHT_DOWN) found.add("above");
  if (Math.abs(view.raised_rad) < SAME) {
    if (Math.abs(Math.sin(view.turn_rad)) < SAME) found.add("front");
    if (Math.abs(Math.cos(view.turn_rad)) < SAME) found.add("side");
  }
  return found;
}

function ofPrimitive(each: Primitive, eye: Eye, view: View, kit: Kit): (readonly [number, Flat])[] {
  if (each.kind === "dot") {
    const [x, y, back] = see(eye, each.at);
    return [[back, { ...NOTHING, id: each.id, ink: each.ink, dots: [[x, y, each.r_m]] }]];
  }
  if (each.kind === "turned") return view.cut ? [silhouette(each, eye, kit)] : halves(each, eye, kit);
  const seen = each.runs.map((run) => run.map((at) => see(eye, at)));
  let sum = 0;
  let count = 0;
  for (const run of seen)
    for (const [, , back] of run) {
      sum += back;
      count += 1;
    }
  const flats = seen.map((run) => run.map(flatten));
  const flat: Flat = {
    ...NOTHING,
    id: each.id,
    ink: each.ink,
    part: each.kind === "line" ? "edge" : "both",
    runs: each.kind === "solid" ? flats.map(hull) : flats,
    closed: each.closed || each.kind !== "line",
    width_m: each.width_m,
  };
  return [[sum / count, flat]];
}

function ringPoints(ring: Ring, outline: Outline): Place[] {
  const [x = 0, y = 0, z = 0] = ring.at;
  const kept = outline.length > 4 ? outline.filter((_, index) => index % STEP === 0) : outline;
  return kept.map(([u = 0, v = 0]) => [x + u * ring.half_width_m, y + v * ring.half_depth_m, z]);
}

function outlineOf(each: Turned, kit: Kit): Outline {
  return kit.outlines[each.plan_shape] ?? [];
}

/** A turned body seen level: from its widest to the left to its widest to the right, ring by ring. */
function silhouette(each: Turned, eye: Eye, kit: Kit): readonly [number, Flat] {
  const left: Spot[] = [];
  const right: Spot[] = [];
  for (const ring of each.rings) {
    const seen = ringPoints(ring, outlineOf(each, kit)).map((at) => see(eye, at));
    const xs = seen.map(([x]) => x);
    const height = seen[0]?.[1] ?? 0;
    left.push([Math.min(...xs), height]);
    right.push([Math.max(...xs), height]);
  }
  const [, , back] = see(eye, each.rings[0]?.at ?? [0, 0, 0]);
  const run = [...right, ...left.toReversed()];
  const part = each.inside ? "fill" : "both";
  return [back, { ...NOTHING, id: each.id, ink: each.ink, part, runs: [run], closed: true }];
}

type Arcs = { readonly near: readonly Spot[]; readonly far: readonly Spot[] };

/** A turned body as what is seen of its near and its far side, and of its ends. */
function halves(each: Turned, eye: Eye, kit: Kit): (readonly [number, Flat])[] {
  const outline = outlineOf(each, kit);
  const arcs = each.rings.map((ring) => arcsOf(ring, outline, eye));
  const [first, last] = [arcs[0], arcs.at(-1)];
  const [low, high] = [each.rings[0], each.rings.at(-1)];
  if (!first || !last || !low || !high) return [];
  const near: Spot[][] = [];
  const far: Spot[][] = [];
  const way = each.inside ? -1 : 1;
  arcs.slice(1).forEach((over, place) => {
    const [under, from, to] = [arcs[place], each.rings[place], each.rings[place + 1]];
    if (!under || !from || !to) return;
    const up = ((to.at[2] ?? 0) - (from.at[2] ?? 0)) * eye.cosUp;
    const wider = to.half_width_m - from.half_width_m + to.half_depth_m - from.half_depth_m;
    const out = (wider / 2) * eye.sinUp;
    if (way * (up - out) > SAME) near.push([...under.near, ...over.near.toReversed()]);
    if (way * (-up - out) > SAME) far.push([...under.far, ...over.far.toReversed()]);
  });
  const reach = Math.max(...each.rings.map((ring) => Math.max(ring.half_width_m, ring.half_depth_m)));
  const [, , middle] = see(eye, [low.at[0] ?? 0, low.at[1] ?? 0, 0]);
  const lowZ = low.at[2] ?? 0;
  const highZ = high.at[2] ?? 0;
  const behind = middle + reach * eye.cosUp - lowZ * eye.sinUp;
  const before = middle - reach * eye.cosUp - lowZ * eye.sinUp;
  const flat = (name: string, ink: string, part: Flat["part"], runs: readonly (readonly Spot[])[]): Flat => ({
    ...NOTHING,
    id: `${each.id}-${name}`,
    ink,
    part,
    runs,
    closed: part !== "edge",
  });
  if (each.inside) {
    const floor = eye.sinUp > SAME ? [[...first.near, ...first.far.toReversed()]] : [];
    return [
      [behind, flat("far", each.ink, "fill", [...floor, ...near, ...far])],
      [behind, flat("rim", "edge", "edge", [last.far, last.near])],
    ];
  }
  const found: (readonly [number, Flat])[] = [];
  if (far.length > 0) found.push([behind, flat("far", each.ink, "fill", far)]);
  if (near.length > 0) {
    const sides = [0, -1].map((end) => arcs.map((arc): Spot => arc.near.at(end) ?? [0, 0]));
    found.push([before, flat("near", each.ink, "fill", near)]);
    found.push([before, flat("edge", "edge", "edge", [...sides, first.near, last.near])]);
  }
  const top = eye.sinUp > SAME;
  if ((top && !each.open) || eye.sinUp < -SAME) {
    const end = top ? last : first;
    const depth = middle - (top ? highZ : lowZ) * eye.sinUp;
    found.push([depth, flat("end", each.ink, "both", [[...end.near, ...end.far.toReversed()]])]);
  }
  return found;
}

/** The near and the far half of a ring, both from left to right. */
function arcsOf(ring: Ring, outline: Outline, eye: Eye): Arcs {
  const seen = ringPoints(ring, outline).map((at) => see(eye, at));
  const count = seen.length;
  let [left, right] = [0, 0];
  seen.forEach((each, at) => {
    const [x, , back] = each;
    const [leftX, , leftBack] = seen[left] ?? each;
    const [rightX, , rightBack] = seen[right] ?? each;
    const tie = 5e-10;
    if (x < leftX - tie || (Math.abs(x - leftX) <= tie && back < leftBack - tie)) left = at;
    if (x > rightX + tie || (Math.abs(x - rightX) <= tie && back < rightBack - tie)) right = at;
  });
  const ways = [1, -1].map((step) => {
    const way = [left];
    for (let at = left; at !== right; ) {
      at = (at + step + count) % count;
      way.push(at);
    }
    return way;
  });
  const depth = (way: readonly number[]) =>
    way.reduce((sum, at) => sum + (seen[at]?.[2] ?? 0), 0) / way.length;
  const [near = [], far = []] = ways.toSorted((a, b) => depth(a) - depth(b));
  const points = (way: readonly number[]) => way.map((at): Spot => flatten(seen[at] ?? [0, 0, 0]));
  return { near: points(near), far: points(far) };
}

/** The outline of a convex body's corners. */
function hull(points: readonly Spot[]): readonly Spot[] {
  const every = points.toSorted((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (of: readonly Spot[]) => {
    const kept: Spot[] = [];
    for (const at of of) {
      for (;;) {
        const [a, b] = [kept.at(-2), kept.at(-1)];
        if (!a || !b || (b[0] - a[0]) * (at[1] - a[1]) - (b[1] - a[1]) * (at[0] - a[0]) > 0) break;
        kept.pop();
      }
      kept.push(at);
    }
    return kept.slice(0, -1);
  };
  return [...half(every), ...half(every.toReversed())];
}

function ofStem(
  name: string,
  index: number,
  stem: Stem,
  picture: Drawn,
  eye: Eye,
  view: View,
  kit: Kit,
): Put[] {
  const end = [stem.end_x_m, stem.end_y_m, stem.end_z_m];
  const seat = [stem.seat_x_m, stem.seat_y_m, stem.seat_z_m];
  const tip = [stem.tip_x_m, stem.tip_y_m, stem.tip_z_m - stem.droop_m];
  const rim = atRim(seat, tip, picture.rims_m[stem.vessel] ?? 0);
  const [low, held, over, top] = [end, seat, rim, tip].map((at) => see(eye, at)) as [Seen, Seen, Seen, Seen];
  const depth = top[2];
  const far = Math.min(Math.max((depth + picture.deep_m) / (2 * picture.deep_m), 0), 1);
  const drawn = (id: string, ...points: Seen[]): Flat => ({
    ...NOTHING,
    id,
    ink: stem.branch ? "bark" : "stem",
    part: "edge",
    runs: [points.map(flatten)],
    width_m: Math.min(stem.diameter_m, 0.007) * 0.7,
    far,
  });
  const layer = LAYER.stems;
  const found: Put[] = view.cut
    ? [{ layer, depth, flat: drawn(`${name}stem-${index}`, low, held, over, top) }]
    : [
        {
          layer,
          depth: (low[2] + held[2] + over[2]) / 3,
          flat: drawn(`${name}stem-${index}-low`, low, held, over),
        },
        { layer, depth: 0.25 * over[2] + 0.75 * depth, flat: drawn(`${name}stem-${index}`, over, top) },
      ];
  const behind = found.at(-1)?.depth ?? depth;
  const flat = (id: string, ink: string, runs: Flat["runs"], width_m: number | null): Flat => ({
    ...NOTHING,
    id,
    ink,
    part: "edge",
    runs,
    width_m,
    far,
  });
  if (stem.branch) {
    const bark = flat(`${name}stem-${index}-bark`, "bark line", barkOf([low, held, over, top]), null);
    found.push({ layer, depth: behind, flat: bark });
  }
  if (stem.tube_length_m > 0) {
    const long = Math.hypot(...end.map((from, axis) => (tip[axis] ?? 0) - from));
    const filled = between(low, top, Math.min(stem.tube_length_m / Math.max(long, SAME), 1));
    const tube = flat(`${name}tube-${index}`, "tube", [[low, filled].map(flatten)], stem.tube_width_m);
    found.push({ layer, depth: low[2], flat: tube });
  }
  const nearest = depth - stem.head_radius_m;
  for (const flat of ofHead(`${name}head-${index}`, stem, rim, tip, eye, far, kit)) {
    found.push({ layer: LAYER.heads, depth: nearest, flat });
  }
  if (stem.held) {
    const flat: Flat = {
      ...NOTHING,
      id: `${name}head-${index}-held`,
      ink: "held",
      dots: [[top[0], top[1], 0.006]],
    };
    found.push({ layer: LAYER.marks, depth: nearest, flat });
  }
  return found;
}

/** Short lines along what is seen of a branch, three on each of its reaches. */
function barkOf(seen: readonly Seen[]): Flat["runs"] {
  return seen.slice(1).flatMap((high, at) => {
    const low = seen[at] ?? high;
    return BARK_STARTS.map((start) =>
      [between(low, high, start), between(low, high, start + BARK)].map(flatten),
    );
  });
}

function between(low: Seen, high: Seen, share: number): Seen {
  const [x, y, back] = low;
  return [x + share * (high[0] - x), y + share * (high[1] - y), back + share * (high[2] - back)];
}

/** Where a stem comes out over the rim; its seat where it never does. */
function atRim(seat: Place, tip: Place, rim: number): Place {
  const [, , low = 0] = seat;
  const [, , high = 0] = tip;
  if (!(low < rim && rim < high)) return seat;
  const share = (rim - low) / (high - low);
  return seat.map((from, axis) => from + share * ((tip[axis] ?? 0) - from));
}
