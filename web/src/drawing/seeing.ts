/** How a place is seen, and what lies on the sheet then. */
import type { Head, Outline } from "../api/types";

export type Spot = readonly [number, number];
export type Place = readonly number[];
export type Seen = readonly [number, number, number];

/** From where a piece is seen: turned to the right round it from the front, raised over the level, radians. */
export type View = { readonly turn_rad: number; readonly raised_rad: number; readonly cut: boolean };

/** A thing as it lies on the sheet, metres, x right and y up: runs of points, and round dots (x, y, radius). */
export type Flat = {
  readonly id: string;
  readonly ink: string;
  readonly part: "both" | "fill" | "edge";
  readonly runs: readonly (readonly Spot[])[];
  readonly dots: readonly Seen[];
  readonly closed: boolean;
  readonly width_m: number | null;
  readonly colour: string;
  readonly pale: number;
  readonly far: number;
};

/** What heads and outlines look like, as the program describes them. */
export type Kit = {
  readonly heads: Readonly<Record<string, Head>>;
  readonly outlines: Readonly<Record<string, Outline>>;
};

export type Eye = {
  readonly cosTurn: number;
  readonly sinTurn: number;
  readonly cosUp: number;
  readonly sinUp: number;
};
export const SAME = 1e-6;

/** A depth to the micrometre: two things as deep keep their order. */
export function asDeep(depth: number): number {
  return Math.round(depth * 1e6);
}

export const NOTHING: Omit<Flat, "id" | "ink"> = {
  part: "both",
  runs: [],
  dots: [],
  closed: false,
  width_m: null,
  colour: "",
  pale: 0,
  far: 0,
};

/** A dot with nothing else said of it. */
export const DOT = NOTHING;

/** Where a place of the piece's room lies on the sheet. */
export function seenAt(view: View, at: Place): Spot {
  return flatten(see(eyeOf(view), at));
}

export function eyeOf(view: View): Eye {
  return {
    cosTurn: Math.cos(view.turn_rad),
    sinTurn: Math.sin(view.turn_rad),
    cosUp: Math.cos(view.raised_rad),
    sinUp: Math.sin(view.raised_rad),
  };
}

export function see(eye: Eye, at: Place): Seen {
  const [x = 0, y = 0, z = 0] = at;
  const across = x * eye.cosTurn + y * eye.sinTurn;
  const back = y * eye.cosTurn - x * eye.sinTurn;
  return [across, z * eye.cosUp + back * eye.sinUp, back * eye.cosUp - z * eye.sinUp];
}

export function flatten([x, y]: Seen): Spot {
  return [x, y];
}
