/** A sheet in metres before it has a scale: x right, y up. */

export type Point = readonly [number, number];

export type Bounds = {
  readonly xMin: number;
  readonly xMax: number;
  readonly yMin: number;
  readonly yMax: number;
};

/** A handle on the drawing: a real quantity at a place, moved along one axis. */
export type Handle = {
  readonly id: string;
  readonly label: string;
  readonly at: Point;
  readonly axis: "x" | "y";
  /** Change of the quantity for each metre the pointer moves along the axis. */
  readonly gain: number;
  readonly value: number;
  readonly min: number;
  readonly max: number;
};

/** A round length for a scale bar: about a fifth of the width, in whole units of one system. */
export function scaleBarM(widthM: number, system: "metric" | "inch"): number {
  const steps =
    system === "metric"
      ? [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1]
      : [1, 2, 4, 6, 12, 24, 36].map((n) => n * 0.0254);
  return steps.findLast((step) => step <= widthM / 4) ?? steps[0] ?? 0.1;
}
