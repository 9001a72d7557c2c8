/** Pure primitives in metres: what a drawing is made of before it has a scale. x right, y up. */

export type Point = readonly [number, number];

export type Primitive =
  | {
      readonly kind: "path";
      readonly id: string;
      readonly tone: string;
      readonly points: readonly Point[];
      readonly closed?: boolean;
      /** Stroke width in metres; without it the tone's hairline is used. */
      readonly widthM?: number;
      readonly fill?: string;
      readonly opacity?: number;
    }
  | {
      readonly kind: "circle";
      readonly id: string;
      readonly tone: string;
      readonly at: Point;
      readonly r: number;
      readonly fill?: string;
      readonly opacity?: number;
    }
  | {
      readonly kind: "ellipse";
      readonly id: string;
      readonly tone: string;
      readonly at: Point;
      readonly rx: number;
      readonly ry: number;
      /** Turn of the rx axis from x, radians. */
      readonly turn: number;
      readonly fill?: string;
      readonly opacity?: number;
    };

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

/** Points of an ellipse, closed. */
export function ellipse(cx: number, cy: number, rx: number, ry: number, turn = 0, steps = 36): Point[] {
  const cos = Math.cos(turn);
  const sin = Math.sin(turn);
  return Array.from({ length: steps }, (_, index) => {
    const angle = (index / steps) * 2 * Math.PI;
    const x = rx * Math.cos(angle);
    const y = ry * Math.sin(angle);
    return [cx + x * cos - y * sin, cy + x * sin + y * cos] as const;
  });
}

/** A round length for a scale bar: about a fifth of the width, in whole units of one system. */
export function scaleBarM(widthM: number, system: "metric" | "inch"): number {
  const steps =
    system === "metric"
      ? [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1]
      : [1, 2, 4, 6, 12, 24, 36].map((n) => n * 0.0254);
  return steps.findLast((step) => step <= widthM / 4) ?? steps[0] ?? 0.1;
}
