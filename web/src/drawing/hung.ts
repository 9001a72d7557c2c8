/** What covers hung work: its flowers along a run, over a panel or ring, and those that hang under it. */
import type { Rig, Variety } from "../api/types";
import { onSheet, type Place, type Plane } from "./plane";
import { isRun } from "./rig";
import type { Point, Primitive } from "./scene";

const HEADS = 220;
const GOLDEN = Math.PI * (3 - Math.sqrt(5));

type Stock = Readonly<Record<string, Variety>>;

/** The armature where it hangs, with its flowers: fuller where it carries more. */
export function armatureLayer(rig: Rig, at: readonly Place[], varieties: Stock, plane: Plane): Primitive[] {
  if (at.length < 2) return [];
  const { armature } = rig;
  if (isRun(rig)) {
    const most = Math.max(...armature.density, 1);
    const body = at.slice(1).map((place, index): Primitive => {
      const fuller = fullness(armature.density, (index + 0.5) / (at.length - 1));
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

/** How full it is at a share 0-1 of the way along, against its other places. */
export function fullness(density: readonly number[], share: number): number {
  if (density.length === 0) return 1;
  const place = Math.min(Math.max(share * density.length - 0.5, 0), density.length - 1);
  const from = density[Math.floor(place)] ?? 1;
  const to = density[Math.ceil(place)] ?? from;
  return from + (to - from) * (place - Math.floor(place));
}

/** Shares of the way along at which so many stems stand, closer where it is fuller. */
function sharesAlong(density: readonly number[], count: number): number[] {
  const steps = 200;
  const sums = [0];
  for (let step = 0; step < steps; step += 1) {
    sums.push((sums[step] ?? 0) + fullness(density, (step + 0.5) / steps));
  }
  const whole = sums[steps] ?? 1;
  let step = 0;
  return Array.from({ length: count }, (_, index) => {
    const wanted = ((index + 0.5) / count) * whole;
    while (step < steps - 1 && (sums[step + 1] ?? 0) < wanted) step += 1;
    const before = sums[step] ?? 0;
    return (step + (wanted - before) / Math.max((sums[step + 1] ?? 0) - before, 1e-9)) / steps;
  });
}

function headsAlong(rig: Rig, at: readonly Place[], varieties: Stock, plane: Plane): Primitive[] {
  const stems = stemsOf(rig, varieties);
  const shares = sharesAlong(rig.armature.density, stems.length);
  const off = (rig.armature.diameter_m + rig.armature.projection_m) / 2;
  return stems.map(({ colour, r }, index): Primitive => {
    const share = shares[index] ?? 0;
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
    const along: Point = [to[0] - from[0], plane === "front" ? to[2] - from[2] : to[1] - from[1]];
    const long = Math.hypot(...along) || 1;
    const aside = Math.sin(index * GOLDEN) * off;
    return {
      kind: "circle",
      id: `head-${index}`,
      tone: "tone-head",
      at: [x - (along[1] / long) * aside, y + (along[0] / long) * aside],
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
  const towards = (node: number): Place => {
    const one = at[node] ?? middle;
    const other = ring ? one : (at[(node + 1) % at.length] ?? middle);
    return [
      (one[0] + other[0]) / 2 - middle[0],
      (one[1] + other[1]) / 2 - middle[1],
      (one[2] + other[2]) / 2 - middle[2],
    ];
  };
  const u = towards(ring ? 0 : 1);
  const v = towards(ring ? quarter : 2);
  const drop = rig.armature.drop;
  return stems.flatMap(({ colour, r }, index): Primitive[] => {
    const out = (index + 0.5) / stems.length;
    const long = drop
      ? drop.shortest_m + (drop.longest_m - drop.shortest_m) * (drop.curve === "dome" ? 1 - out : out)
      : rig.armature.stem_cut_m;
    const far = Math.sqrt((index + 0.5) / stems.length) * (ring ? 0.97 : 0.95);
    const [a, b] = [far * Math.cos(index * GOLDEN), far * Math.sin(index * GOLDEN)];
    const top: Place = [
      middle[0] + a * u[0] + b * v[0],
      middle[1] + a * u[1] + b * v[1],
      middle[2] + a * u[2] + b * v[2],
    ];
    const low: Place = [top[0], top[1], top[2] - long];
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
