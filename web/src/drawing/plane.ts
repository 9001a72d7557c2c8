/** From which side hung work is seen, and where a place of the room lies on the sheet then. */
import type { Point } from "./scene";

export type Plane = "front" | "plan";
export type Place = readonly [number, number, number];

/** A place of the room on the sheet. */
export function onSheet([x, y, z]: Place, plane: Plane): Point {
  return plane === "front" ? [x, z] : [x, y];
}
