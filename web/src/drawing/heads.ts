/** Heads in their places, from the templates of the core. */
import type { Head, Stem } from "../api/types";
import {
  asDeep,
  type Eye,
  type Flat,
  type Kit,
  NOTHING,
  type Place,
  SAME,
  type Seen,
  type Spot,
  see,
} from "./seeing";

/** Of petals and leaves: no line at all where they are small. */
const OUTLINE_M = 0.001;

/** A head's tip and its three directions as they are seen: what lies at (u, v, w) of its template is tip + u·across + … */
type Frame = { readonly tip: Seen; readonly across: Seen; readonly over: Seen; readonly along: Seen };
type Item = {
  readonly kind: "ball" | "blade";
  readonly index: number;
  readonly pale: number;
  readonly depth: number;
};

/** A head in its place: what is farther off first, like things that follow one another as one. */
export function ofHead(
  id: string,
  stem: Stem,
  rim: Place,
  tip: Place,
  eye: Eye,
  far: number,
  kit: Kit,
): Flat[] {
  const head = kit.heads[stem.form];
  if (!head) return [];
  const frame = frameOf(head, stem, rim, tip, eye);
  const back = (points: readonly Place[]) => {
    let sum = 0;
    for (const at of points) sum += deep(at, frame);
    return sum / points.length;
  };
  const items: Item[] = [
    ...head.blades.map(({ edge, pale }, index): Item => ({ kind: "blade", index, pale, depth: back(edge) })),
    ...head.balls.map(({ at, pale }, index): Item => ({ kind: "ball", index, pale, depth: back([at]) })),
  ].toSorted((a, b) => asDeep(b.depth) - asDeep(a.depth));
  const found: Flat[] = [];
  let group: Item[] = [];
  const close = () => {
    const [one] = group;
    if (!one) return;
    const name = `${id}-${found.length}`;
    const drawn = { ...NOTHING, width_m: OUTLINE_M, colour: stem.colour, pale: one.pale, far };
    if (one.kind === "ball") {
      const dots = group.flatMap(({ index }): Seen[] => {
        const ball = head.balls[index];
        if (!ball) return [];
        const [x, y] = put(ball.at, frame);
        return [[x, y, ball.r * stem.head_radius_m]];
      });
      found.push({ ...drawn, id: name, ink: "head", dots });
    } else {
      const run = (points: readonly Place[]) => points.map((at) => put(at, frame));
      const blades = group.flatMap(({ index }) => head.blades[index] ?? []);
      found.push({
        ...drawn,
        id: name,
        ink: "head",
        runs: blades.map(({ edge }) => run(edge)),
        closed: true,
      });
      const ribs = blades.filter(({ rib }) => rib.length > 0).map(({ rib }) => run(rib));
      if (ribs.length > 0) {
        found.push({
          ...drawn,
          colour: "",
          pale: 0,
          id: `${name}-rib`,
          ink: "rib",
          part: "edge",
          runs: ribs,
        });
      }
    }
    group = [];
  };
  for (const item of items) {
    const [one] = group;
    if (one && (one.kind !== item.kind || one.pale !== item.pale)) close();
    group.push(item);
  }
  close();
  return found;
}

/** The tip, and the template's three directions at their sizes; a long head ends where its stem comes out. */
function frameOf(head: Head, stem: Stem, rim: Place, tip: Place, eye: Eye): Frame {
  const way = tip.map((to, axis) => to - (rim[axis] ?? 0));
  const size = Math.hypot(...way);
  const upright = head.hangs || size <= SAME;
  const [ax = 0, ay = 0, az = 1] = upright ? [0, 0, 1] : way.map((each) => each / size);
  const level = Math.hypot(ax, ay);
  const [ux, uy] = level > SAME ? [-ay / level, ax / level] : [1, 0];
  const r = stem.head_radius_m;
  const long = head.long ? Math.min(stem.head_height_m, Math.max(size, r)) : r;
  return {
    tip: see(eye, tip),
    across: see(eye, [r * ux, r * uy, 0]),
    over: see(eye, [-r * az * uy, r * az * ux, r * (ax * uy - ay * ux)]),
    along: see(eye, [long * ax, long * ay, long * az]),
  };
}

/** Where a place of the template lies on the sheet. */
function put(at: Place, { tip, across, over, along }: Frame): Spot {
  const [u = 0, v = 0, w = 0] = at;
  return [
    tip[0] + u * across[0] + v * over[0] + w * along[0],
    tip[1] + u * across[1] + v * over[1] + w * along[1],
  ];
}

/** How far back a place of the template is. */
function deep(at: Place, { tip, across, over, along }: Frame): number {
  const [u = 0, v = 0, w = 0] = at;
  return tip[2] + u * across[2] + v * over[2] + w * along[2];
}
