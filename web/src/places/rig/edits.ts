/** Changes of a rig, each a new rig: what a hand does on the drawing or in the tray. */
import type { Armature, Attachment, HangPoint, LineSpec, Rig } from "../../api/types";

export const STEEL: LineSpec = {
  kind: "steel rope",
  size_m: 0.0015,
  stated_n: null,
  fitting: "grip",
  stainless: false,
  wet: false,
  over_edge: false,
};
const BEAM_M = 3.6;
const LOW_M = 2.6;
const LONGER = 1.15;

export const ARMATURES = [
  ["snake", "A twisted snake"],
  ["tube", "A tube"],
  ["panel", "A flat panel"],
  ["ring", "A ring"],
] as const;

const RUN = [
  [-1.5, 0],
  [0, 0],
  [1.5, 0],
] as const;
/** Where a new armature is held, right and back of the middle, m. */
const HELD: Record<Armature["kind"], readonly (readonly [number, number])[]> = {
  snake: RUN,
  tube: RUN,
  panel: [
    [-0.5, -0.5],
    [0.5, -0.5],
    [0.5, 0.5],
    [-0.5, 0.5],
  ],
  ring: [
    [0, 0.4],
    [-0.35, -0.2],
    [0.35, -0.2],
  ],
};

/** A new hung piece: held by unrated points, so that nothing is said of it before somebody states what they carry. */
export function rigFor(kind: Armature["kind"], netting: string): Rig {
  const wide = kind === "snake" || kind === "tube" ? 3 : 1;
  const corners = HELD[kind];
  const run = kind === "snake" || kind === "tube";
  return {
    name: "Hung piece",
    points: corners.map(([x_m, y_m], index) => ({
      name: `point ${index + 1}`,
      kind: "beam loop",
      x_m,
      y_m,
      z_m: BEAM_M,
      rating_n: null,
      stated_by: null,
      stated_on: null,
    })),
    attachments: corners.map(([x_m, y_m]) => ({ x_m, y_m, z_m: LOW_M, along_m: null })),
    lines: corners.map((_, index) => ({ point: index, attachment: index, spec: STEEL })),
    armature: {
      kind,
      length_m: run ? wide * LONGER : 1,
      diameter_m: kind === "ring" ? 0.9 : 0.11,
      width_m: kind === "panel" ? 1 : 0,
      turns: 1.6,
      netting,
      stiffness: "twig-stiffened",
      fuller_first: 1,
      stem_cut_m: 0.25,
    },
    recipe: [],
    over_people: true,
    walkway: false,
    extra_kg: 0,
    bond: null,
  };
}

/** Another hang point in the widest gap, with a line of its own down to the armature. */
export function withPoint(rig: Rig): Rig {
  const order = rig.points.map((_, index) => index).toSorted((a, b) => xOf(rig, a) - xOf(rig, b));
  let gap: readonly [number, number] = [order[0] ?? 0, order.at(-1) ?? 0];
  let widest = -1;
  for (const [place, one] of order.entries()) {
    const other = order[place + 1];
    if (other === undefined) continue;
    const wide = xOf(rig, other) - xOf(rig, one);
    if (wide > widest) {
      widest = wide;
      gap = [one, other];
    }
  }
  const one = rig.points[gap[0]];
  const other = rig.points[gap[1]];
  if (!one || !other) return rigFor(rig.armature.kind, rig.armature.netting ?? "");
  const alone = one === other;
  const point: HangPoint = {
    ...one,
    name: freeName(rig),
    x_m: alone ? one.x_m + 0.5 : mean(one.x_m, other.x_m),
    y_m: mean(one.y_m, other.y_m),
    z_m: mean(one.z_m, other.z_m),
    rating_n: null,
    stated_by: null,
    stated_on: null,
  };
  const lows = rig.attachments.map((each) => each.z_m);
  const low = lows.reduce((sum, each) => sum + each, 0) / Math.max(lows.length, 1);
  const held: Attachment = { x_m: point.x_m, y_m: point.y_m, z_m: low, along_m: null };
  const run = rig.armature.kind === "snake" || rig.armature.kind === "tube";
  const found = run ? rig.attachments.findIndex((each) => each.x_m > held.x_m) : -1;
  const at = found < 0 ? rig.attachments.length : found;
  const spec = rig.lines[0]?.spec ?? STEEL;
  return {
    ...rig,
    points: [...rig.points, point],
    attachments: rig.attachments.toSpliced(at, 0, held).map(shared),
    lines: [
      ...rig.lines.map((each) => ({
        ...each,
        attachment: each.attachment >= at ? each.attachment + 1 : each.attachment,
      })),
      { point: rig.points.length, attachment: at, spec },
    ],
  };
}

/** Without a line; an attachment nothing leads to any more goes with it. */
export function withoutLine(rig: Rig, index: number): Rig {
  return cleared({ ...rig, lines: rig.lines.filter((_, at) => at !== index) });
}

/** Without a hang point and the lines that lead to it. */
export function withoutPoint(rig: Rig, index: number): Rig {
  return cleared({
    ...rig,
    points: rig.points.filter((_, at) => at !== index),
    lines: rig.lines
      .filter((each) => each.point !== index)
      .map((each) => ({ ...each, point: each.point > index ? each.point - 1 : each.point })),
  });
}

function cleared(rig: Rig): Rig {
  const kept = rig.attachments
    .map((_, index) => index)
    .filter((index) => rig.lines.some((line) => line.attachment === index));
  return {
    ...rig,
    attachments: kept.flatMap((index) => rig.attachments[index] ?? []),
    lines: rig.lines.map((each) => ({ ...each, attachment: kept.indexOf(each.attachment) })),
  };
}

/** With one measure of a hang point or attachment changed. */
export function moved(
  rig: Rig,
  what: "point" | "attachment",
  index: number,
  axis: "x_m" | "y_m" | "z_m",
  value: number,
): Rig {
  if (what === "point") {
    return {
      ...rig,
      points: rig.points.map((each, at) => (at === index ? { ...each, [axis]: value } : each)),
    };
  }
  const run = rig.armature.kind === "snake" || rig.armature.kind === "tube";
  return {
    ...rig,
    attachments: rig.attachments
      .map((each, at) => (at === index ? { ...each, [axis]: value } : each))
      .map((each) => (run ? shared(each) : each)),
  };
}

/** Its place along the run is shared out anew. */
function shared(each: Attachment): Attachment {
  return { ...each, along_m: null };
}

function xOf(rig: Rig, index: number): number {
  return rig.points[index]?.x_m ?? 0;
}

function mean(one: number, other: number): number {
  return Math.round(((one + other) / 2) * 1000) / 1000;
}

function freeName(rig: Rig): string {
  const taken = new Set(rig.points.map((each) => each.name));
  let number = rig.points.length + 1;
  while (taken.has(`point ${number}`)) number += 1;
  return `point ${number}`;
}
