/** From where a piece is looked at, what then is on the sheet, and flat things moved about. */
import type { Glance, Looking, Picture, Piece, Report, Vessel } from "../api/types";
import type { Bounds } from "./scene";
import { DOT, type Flat, type Spot, seenAt, type View } from "./seeing";

export type EyeKind = Picture["eyes"][number]["kind"];
const PLACE = /^(?:surface|ledge)/;
const FULL = 2 * Math.PI;
/** The ring that turns a piece, and the surface drawn under it, go so much farther out than the piece. */
export const TURNTABLE = 1.13;

/** One step of the turn by key or button. */
export const TURN_STEP_RAD = Math.PI / 12;

/** A turn kept between 0 and once round, to the degree. */
export function turned(rad: number): number {
  const degrees = Math.round((rad * 180) / Math.PI);
  return ((((degrees % 360) + 360) % 360) * Math.PI) / 180;
}

/** The view of an eye that has gone round a piece to the right. */
export function viewOf(picture: Picture, eye: EyeKind, turnRad: number): View {
  const found = picture.eyes.find((each) => each.kind === eye);
  return { turn_rad: turnRad, raised_rad: found?.raised_rad ?? 0, cut: eye === "cut open" };
}

/** In words where a turned eye stands. */
export function sideWords(turnRad: number): string {
  const eighth = Math.round((turned(turnRad) / FULL) * 8) % 8;
  return (
    [
      "the front",
      "front right",
      "the right",
      "back right",
      "the back",
      "back left",
      "the left",
      "front left",
    ][eighth] ?? "the front"
  );
}

/** Room for what is drawn; seen from outside, room to turn in. */
export function boundsFor(picture: Picture, flats: readonly Flat[], view: View): Bounds {
  if (view.cut) return boundsOf(flats.filter(({ id }) => !PLACE.test(id)));
  const { reach_m, low_m: low, top_m: top } = picture;
  const reach = reach_m * TURNTABLE;
  const [up, over] = [Math.cos(view.raised_rad), Math.abs(Math.sin(view.raised_rad))];
  const out = reach * over;
  return { xMin: -reach, xMax: reach, yMin: low * up - out, yMax: top * up + out };
}

export function boundsOf(flats: readonly Flat[]): Bounds {
  let [xMin, xMax, yMin, yMax] = [
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  const take = (x: number, y: number, r: number) => {
    xMin = Math.min(xMin, x - r);
    xMax = Math.max(xMax, x + r);
    yMin = Math.min(yMin, y - r);
    yMax = Math.max(yMax, y + r);
  };
  for (const { runs, dots } of flats) {
    for (const run of runs) for (const [x, y] of run) take(x, y, 0);
    for (const [x, y, r] of dots) take(x, y, r);
  }
  return Number.isFinite(xMin) ? { xMin, xMax, yMin, yMax } : { xMin: -0.2, xMax: 0.2, yMin: 0, yMax: 0.3 };
}

/** A flat thing moved on the sheet, under another name. */
export function movedFlat(flat: Flat, x: number, y: number, prefix: string): Flat {
  return {
    ...flat,
    id: prefix + flat.id,
    runs: flat.runs.map((run) => run.map(([px, py]): Spot => [px + x, py + y])),
    dots: flat.dots.map(([px, py, r]) => [px + x, py + y, r] as const),
  };
}

/** A flat thing tipped over about a place on the sheet. */
export function tipped(flat: Flat, about: Spot, rad: number): Flat {
  const [cos, sin] = [Math.cos(rad), Math.sin(rad)];
  const tip = (x: number, y: number): Spot => {
    const [dx, dy] = [x - about[0], y - about[1]];
    return [about[0] + dx * cos - dy * sin, about[1] + dx * sin + dy * cos];
  };
  return {
    ...flat,
    runs: flat.runs.map((run) => run.map(([x, y]) => tip(x, y))),
    dots: flat.dots.map(([x, y, r]) => [...tip(x, y), r] as const),
  };
}

/** Height of the underside of the piece's own vessel over the surface: the core's, or the support's until it answers. */
export function raisedOf(piece: Piece, report: Report | null): number {
  return report?.raised_m ?? piece.support?.height_m ?? 0;
}

/** Height of the rim over the underside of a vessel. */
export function rimHeight(vessel: Vessel): number {
  return vessel.base_m + (vessel.profile.at(-1)?.height_m ?? 0);
}

/** Half the inside width of the piece's own vessel at a height over the surface, off its drawing. */
export function halfWidthAt(picture: Picture | undefined, heightM: number): number {
  return insideAt(picture, heightM)?.width_m ?? 0.05;
}

/** Half the inside width and depth there. */
export function insideAt(
  picture: Picture | undefined,
  heightM: number,
): { readonly width_m: number; readonly depth_m: number } | null {
  const inside = picture?.primitives.find((each) => each.id === "vessel-inside");
  if (inside?.kind !== "turned") return null;
  const rings = inside.rings;
  let low = rings[0];
  for (const high of rings) {
    const [under = 0, over = 0] = [low?.at[2], high.at[2]];
    if (low && heightM <= over) {
      const share = over > under ? Math.max(0, heightM - under) / (over - under) : 0;
      return {
        width_m: low.half_width_m + share * (high.half_width_m - low.half_width_m),
        depth_m: low.half_depth_m + share * (high.half_depth_m - low.half_depth_m),
      };
    }
    low = high;
  }
  return low ? { width_m: low.half_width_m, depth_m: low.half_depth_m } : null;
}

/** What an eye sees from the side it has been turned to: the glance of the nearest side. */
export function glanceOf(looking: Looking | undefined, eye: EyeKind, turnRad: number): Glance | undefined {
  const off = (each: Glance) => Math.abs(Math.cos((each.turn_rad - turnRad) / 2));
  return looking?.glances
    .filter((each) => each.eye === eye)
    .reduce<Glance | undefined>((best, each) => (best && off(best) >= off(each) ? best : each), undefined);
}

const HATCH_M = 0.0045;
const LEAST_TENTHS = 1;

/** Hatching over what shows: three strokes at each place of it that is seen, fainter where little is. */
export function hatched(looking: Looking | undefined, glance: Glance | undefined, view: View): Flat[] {
  if (!looking || !glance) return [];
  const places = looking.to_hide.flatMap(({ points }) => points);
  return places.flatMap((at, index): Flat[] => {
    const tenths = Number(glance.seen[index] ?? 0);
    if (tenths < LEAST_TENTHS) return [];
    const [x, y] = seenAt(view, at);
    const runs = [-1, 0, 1].map((step): Spot[] => {
      const off = step * HATCH_M * 0.8;
      return [
        [x - HATCH_M + off, y - HATCH_M],
        [x + HATCH_M + off, y + HATCH_M],
      ];
    });
    return [{ ...DOT, id: `shows-${index}`, ink: "shows", part: "edge", runs, far: 1 - tenths / 9 }];
  });
}
