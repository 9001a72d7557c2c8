/** Changes of a rig, each a new rig: what a hand does on the drawing or in the tray. */
import type { Attachment, HangPoint, LineSpec, Rig, RigLine, SurveyPoint } from "../../api/types";
import { isRun } from "../../drawing/rig";

export const UNRATED = {
  rating_n: null,
  pull_out_n: null,
  rated_within_rad: null,
  stated_by: null,
  stated_on: null,
  made_for: null,
  surveyed: null,
  beam: null,
  elsewhere: null,
} as const;
const HANG_M = 0.9;

export function lineTo(point: number, attachment: number, spec: LineSpec): RigLine {
  return { point, attachment, spec, tied_to: null, hardware: [] };
}

/** Another hang point in the widest gap, with a line of its own down to the armature. */
export function withPoint(rig: Rig, spec: LineSpec): Rig {
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
  if (!one || !other) {
    const place = rig.attachments[0] ?? { x_m: 0, y_m: 0, z_m: 2.6 };
    return pointAt(rig, [place.x_m, place.y_m, place.z_m + HANG_M], spec);
  }
  const x = one === other ? one.x_m + 0.5 : mean(one.x_m, other.x_m);
  return pointAt(rig, [x, mean(one.y_m, other.y_m), mean(one.z_m, other.z_m)], spec, one);
}

function pointAt(
  rig: Rig,
  [x_m, y_m, z_m]: readonly [number, number, number],
  spec: LineSpec,
  like?: HangPoint,
): Rig {
  const point: HangPoint = {
    ...UNRATED,
    kind: like?.kind ?? "beam loop",
    name: freeName(rig),
    x_m,
    y_m,
    z_m,
  };
  return withLineDown(rig, point, rig.lines[0]?.spec ?? spec);
}

/** A point of the place's survey, with a line of its own down to the armature. */
export function withSurveyed(rig: Rig, from: SurveyPoint, spec: LineSpec): Rig {
  return withLineDown(rig, { name: from.name, ...surveyedAt(from) }, spec);
}

/** A point is where the survey has it, and has no rating but the survey's. */
export function surveyedAt({ name, kind, x_m, y_m, z_m }: SurveyPoint): Omit<HangPoint, "name"> {
  return { ...UNRATED, kind, x_m, y_m, z_m, surveyed: name };
}

function withLineDown(rig: Rig, point: HangPoint, spec: LineSpec): Rig {
  const lows = rig.attachments.map((each) => each.z_m);
  const low = lows.length
    ? lows.reduce((sum, each) => sum + each, 0) / lows.length
    : Math.max(point.z_m - HANG_M, 0.1);
  const held: Attachment = { x_m: point.x_m, y_m: point.y_m, z_m: low, along_m: null };
  const found = isRun(rig) ? rig.attachments.findIndex((each) => each.x_m > held.x_m) : -1;
  const at = found < 0 ? rig.attachments.length : found;
  const after = (index: number) => (index >= at ? index + 1 : index);
  return {
    ...rig,
    points: [...rig.points, point],
    attachments: rig.attachments.toSpliced(at, 0, held).map(shared),
    lines: [
      ...rig.lines.map((each) => ({
        ...each,
        attachment: after(each.attachment),
        tied_to: each.tied_to === null ? null : after(each.tied_to),
      })),
      lineTo(rig.points.length, at, spec),
    ],
  };
}

/** A hang point without a line: for the second bond. */
export function withOwnPoint(rig: Rig): Rig {
  const high = Math.max(...rig.points.map((each) => each.z_m), 2.6);
  const x_m = mean(...(rig.points.map((each) => each.x_m) as [number]));
  const y_m = mean(...(rig.points.map((each) => each.y_m) as [number])) + 0.15;
  const point: HangPoint = { ...UNRATED, name: "bond point", kind: "beam loop", x_m, y_m, z_m: high };
  return { ...rig, points: [...rig.points, point] };
}

/** A path drawn or typed anew: its places in order; what led to the old ones is gone. */
export function withPath(rig: Rig, path: readonly (readonly [number, number, number])[]): Rig {
  const length = path.reduce((sum, place, index) => {
    const before = path[index - 1];
    return before ? sum + Math.hypot(...place.map((each, axis) => each - (before[axis] ?? 0))) : sum;
  }, 0);
  return {
    ...rig,
    attachments: path.map(([x_m, y_m, z_m]) => ({ x_m, y_m, z_m, along_m: null })),
    lines: [],
    points: rig.points.filter((_, index) => index === rig.bond?.point),
    bond: rig.bond && { ...rig.bond, point: rig.bond.point === null ? null : 0 },
    armature: {
      ...rig.armature,
      length_m: Math.max(Math.ceil(length * 1.05 * 100) / 100, 0.1),
    },
  };
}

/** Every place that nothing holds gets a hang point over it, so high, with a line; tied work is tied where it is. */
export function withEveryPlaceHeld(rig: Rig, spec: LineSpec, tied: boolean): Rig {
  const high = Math.max(
    ...rig.points.map((each) => each.z_m),
    ...rig.attachments.map((each) => each.z_m + HANG_M),
  );
  let next = rig;
  for (const [index, place] of rig.attachments.entries()) {
    if (rig.lines.some((line) => line.attachment === index || line.tied_to === index)) continue;
    const point: HangPoint = {
      ...UNRATED,
      name: freeName(next),
      kind: tied ? "frame member" : "beam loop",
      x_m: place.x_m,
      y_m: place.y_m,
      z_m: tied ? place.z_m + 0.03 : high,
    };
    next = {
      ...next,
      points: [...next.points, point],
      lines: [...next.lines, lineTo(next.points.length, index, spec)],
    };
  }
  return next;
}

/** Without a line; an attachment nothing leads to any more goes with it. */
export function withoutLine(rig: Rig, index: number): Rig {
  return cleared({ ...rig, lines: rig.lines.filter((_, at) => at !== index) });
}

/** Without a hang point and the lines that lead to it. */
export function withoutPoint(rig: Rig, index: number): Rig {
  const after = (point: number | null) => (point !== null && point > index ? point - 1 : point);
  return cleared({
    ...rig,
    points: rig.points.filter((_, at) => at !== index),
    bond: rig.bond && { ...rig.bond, point: rig.bond.point === index ? null : after(rig.bond.point) },
    lines: rig.lines
      .filter((each) => each.point !== index)
      .map((each) => ({ ...each, point: after(each.point) })),
  });
}

/** Without a place of the armature and the lines that lead to it. */
export function withoutPlace(rig: Rig, index: number): Rig {
  const after = (place: number) => (place > index ? place - 1 : place);
  return {
    ...rig,
    attachments: rig.attachments.filter((_, at) => at !== index).map(shared),
    lines: rig.lines
      .filter((each) => each.attachment !== index && each.tied_to !== index)
      .map((each) => ({
        ...each,
        attachment: after(each.attachment),
        tied_to: each.tied_to === null ? null : after(each.tied_to),
      })),
  };
}

function cleared(rig: Rig): Rig {
  if (isRun(rig)) return rig;
  const kept = rig.attachments
    .map((_, index) => index)
    .filter((index) => rig.lines.some((line) => line.attachment === index || line.tied_to === index));
  return {
    ...rig,
    attachments: kept.flatMap((index) => rig.attachments[index] ?? []),
    lines: rig.lines.map((each) => ({
      ...each,
      attachment: kept.indexOf(each.attachment),
      tied_to: each.tied_to === null ? null : kept.indexOf(each.tied_to),
    })),
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
  return {
    ...rig,
    attachments: rig.attachments
      .map((each, at) => (at === index ? { ...each, [axis]: value } : each))
      .map((each) => (isRun(rig) ? shared(each) : each)),
  };
}

const STATIONS = 24;
const THICKER = 1.12;
const MOST = 8;

/** A stroke of the brush at a share 0-1 of the way along: fuller or thinner there, less so beside it. */
export function painted(density: readonly number[], share: number, fuller: boolean): number[] {
  const now = density.length === STATIONS ? density : evened(density);
  return now.map((each, index) => {
    const far = Math.abs((index + 0.5) / STATIONS - share) * STATIONS;
    const by = THICKER ** Math.max(0, 1 - far / 2.5);
    const next = fuller ? each * by : each / by;
    return Math.round(Math.min(Math.max(next, 1 / MOST), MOST) * 1000) / 1000;
  });
}

function evened(density: readonly number[]): number[] {
  return Array.from({ length: STATIONS }, (_, index) => {
    const at = Math.min(Math.floor(((index + 0.5) / STATIONS) * density.length), density.length - 1);
    return density[at] ?? 1;
  });
}

/** Its place along the run is shared out anew. */
function shared(each: Attachment): Attachment {
  return { ...each, along_m: null };
}

function xOf(rig: Rig, index: number): number {
  return rig.points[index]?.x_m ?? 0;
}

function mean(...values: number[]): number {
  if (values.length === 0) return 0;
  return Math.round((values.reduce((sum, each) => sum + each, 0) / values.length) * 1000) / 1000;
}

export function freeName(rig: Rig): string {
  const taken = new Set(rig.points.map((each) => each.name));
  let number = rig.points.length + 1;
  while (taken.has(`point ${number}`)) number += 1;
  return `point ${number}`;
}
