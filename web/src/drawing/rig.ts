/** Words and places on the drawing of hung work: which lines hold, and where what is said of them may stand. */
import type { Rig, RigLine } from "../api/types";
import type { Bounds } from "./scene";
import type { Flat } from "./seeing";

export type Place = readonly [number, number, number];
export type LineLook = "holds" | "tight" | "fails" | "cut";

const BEHIND_M = 0.25;
/** Shares of a line, from its upper end, at which its words may stand. */
const SHARES = [0.3, 0.55, 0.8, 0.15] as const;
const CLOSE = /^(?:run|rim|attachment|point|line|bond|hung)/;
const LINE = /^line-(\d+)$/;

/** How a line is drawn for its share of what it may carry; from which share on it is tight the program says. */
export function lookOf(use: number, tightFrom = 1): LineLook {
  if (use > 1) return "fails";
  return use >= tightFrom ? "tight" : "holds";
}

/** Lines in the ink of how they hold. */
export function inked(flats: readonly Flat[], looks: readonly LineLook[], chosen: string): Flat[] {
  return flats.map((flat) => {
    const line = LINE.exec(flat.id);
    if (line) return { ...flat, ink: `line ${looks[Number(line[1])] ?? "holds"}` };
    if (flat.id !== chosen) return flat;
    return { ...flat, dots: flat.dots.map(([x, y, r]) => [x, y, 1.7 * r] as const) };
  });
}

/** Whether an armature is long and thin, not a stiff panel or ring. */
export function isRun(rig: Rig): boolean {
  return rig.armature.kind !== "panel" && rig.armature.kind !== "ring";
}

/** Whether it is tied all along to a frame, stand or column. */
export function isTied(rig: Rig): boolean {
  return isRun(rig) && rig.mount !== null && rig.mount.kind !== "wall";
}

/** What of a drawing is the work and what holds it, to be looked at closely. */
export function closeUp(flats: readonly Flat[]): readonly Flat[] {
  return flats.filter(({ id }) => CLOSE.test(id));
}

/** A little more room all round. */
export function roomier({ xMin, xMax, yMin, yMax }: Bounds, byM: number): Bounds {
  return { xMin: xMin - byM, xMax: xMax + byM, yMin: yMin - byM, yMax: yMax + byM };
}

/** Where a line starts: at its hang point, or at another place of the armature. */
function startOf(rig: Rig, line: RigLine, attachments: readonly Place[]): Place | null {
  if (line.tied_to !== null) return attachments[line.tied_to] ?? null;
  const point = rig.points[line.point ?? -1];
  return point ? [point.x_m, point.y_m, point.z_m] : null;
}

/** Where the words of every line may go, the best first: along it from its upper end, or beside a tie. */
export function lineLabels(rig: Rig, attachments: readonly Place[]): (readonly Place[])[] {
  if (isTied(rig)) return tieLabels(rig).map((at) => [at]);
  return rig.lines.map((line) => {
    const from = startOf(rig, line, attachments);
    const held = attachments[line.attachment];
    if (!from || !held) return [];
    return SHARES.map(
      (share): Place => [
        from[0] + (held[0] - from[0]) * share,
        from[1] + (held[1] - from[1]) * share,
        from[2] + (held[2] - from[2]) * share,
      ],
    );
  });
}

/** Where the use of every tie is written: beside it, away from the middle of them all. */
function tieLabels(rig: Rig): Place[] {
  const middle = rig.points.reduce<Place>(
    ([x, y, z], each) => [
      x + each.x_m / rig.points.length,
      y + each.y_m / rig.points.length,
      z + each.z_m / rig.points.length,
    ],
    [0, 0, 0],
  );
  return rig.lines.map((line) => {
    const point = rig.points[line.point ?? -1];
    if (!point) return middle;
    const [dx, dz] = [point.x_m - middle[0], point.z_m - middle[2]];
    const upright = Math.abs(dx) < BEHIND_M && rig.mount?.kind !== "frame";
    const long = upright ? 1 : Math.hypot(dx, dz) || 1;
    const off = rig.armature.diameter_m / 2 + rig.armature.projection_m + 0.08;
    return upright
      ? [point.x_m + off + 0.04, point.y_m, point.z_m]
      : [point.x_m + (dx / long) * off, point.y_m, point.z_m + (dz / long) * off];
  });
}

/** Attachments where they hang, or as drawn where nothing is worked out. */
export function attachmentPlaces(rig: Rig, held: readonly Place[] | undefined): readonly Place[] {
  return held && held.length === rig.attachments.length
    ? held
    : rig.attachments.map((each): Place => [each.x_m, each.y_m, each.z_m]);
}
