/** Flower heads as honest simple shapes by head form, coloured by variety. */
import type { PlacedStem } from "../api/types";
import type { Point, Primitive } from "./scene";

type Frame = { readonly tip: Point; readonly along: Point; readonly id: string; readonly opacity: number };

/** The shapes of one head; `along` is the unit direction of the stem in the drawing. */
export function headShapes(stem: PlacedStem, { tip, along, id, opacity }: Frame): Primitive[] {
  const r = stem.head_radius_m;
  const [ax, ay] = along;
  const turn = Math.atan2(ay, ax);
  const paint = (tint: number) =>
    tint === 0 ? stem.colour : `color-mix(in oklab, ${stem.colour} ${100 - tint}%, var(--sheet))`;
  const path = (name: string, points: Point[]): Primitive => ({
    kind: "path",
    id: `${id}-${name}`,
    tone: "tone-head",
    points,
    closed: true,
    fill: paint(0),
    opacity,
  });
  const oval = (
    name: string,
    x: number,
    y: number,
    rx: number,
    ry: number,
    angle = 0,
    tint = 0,
  ): Primitive => ({
    kind: "ellipse",
    id: `${id}-${name}`,
    tone: "tone-head",
    at: [x, y],
    rx,
    ry,
    turn: angle,
    fill: paint(tint),
    opacity,
  });
  const back = (distance: number, side = 0): Point => [
    tip[0] - ax * distance - ay * side,
    tip[1] - ay * distance + ax * side,
  ];
  switch (stem.form) {
    case "disc":
      return [
        oval("petals", tip[0], tip[1], r * 0.55, r, turn),
        oval("eye", tip[0], tip[1], r * 0.22, r * 0.4, turn, 45),
      ];
    case "ball":
      return [
        oval("outer", tip[0], tip[1], r, r),
        oval("inner", tip[0], tip[1], r * 0.6, r * 0.6, 0, 22),
        oval("heart", tip[0], tip[1], r * 0.25, r * 0.25, 0, 45),
      ];
    case "spray":
      return [0, 1, 2, 3, 4].map((index) => {
        const angle = turn + ((index - 2) * Math.PI) / 4.2;
        const reach = r * (index % 2 ? 0.55 : 0.75);
        const size = r * (index % 2 ? 0.26 : 0.32);
        const at = back(r * 0.4);
        const [x, y] = [at[0] + Math.cos(angle) * reach, at[1] + Math.sin(angle) * reach];
        return oval(`floret${index}`, x, y, size, size, 0, index * 7);
      });
    case "spike":
    case "plume": {
      const long = stem.head_height_m;
      const rough = stem.form === "plume" ? 1.25 : 1;
      const sides = [0, 0.08, 0.2, 0.4, 0.6, 0.8, 0.94, 1];
      const width = (share: number) =>
        r * rough * 0.85 * Math.sqrt(share) * (share > 0.9 ? 0.7 : 1) + r * 0.06;
      return [
        path("spike", [
          ...sides.map((share) => back(long * share, width(share))),
          ...sides.toReversed().map((share) => back(long * share, -width(share))),
        ]),
      ];
    }
    case "tassel":
      return [
        path("tassel", [
          back(0),
          [tip[0] + r, tip[1] - stem.head_height_m * 0.5],
          [tip[0], tip[1] - stem.head_height_m],
          [tip[0] - r * 0.4, tip[1] - stem.head_height_m * 0.4],
        ]),
      ];
    default:
      return [0, 1, 2].map((index) => {
        const side = index === 0 ? 0 : index === 1 ? 1 : -1;
        const root = back(stem.head_height_m * (index === 0 ? 0.28 : 0.32));
        const angle = turn + side * 0.75;
        const long = Math.min(r * 0.95, stem.head_height_m * 0.4);
        const middle: Point = [
          root[0] + (Math.cos(angle) * long) / 2,
          root[1] + (Math.sin(angle) * long) / 2,
        ];
        return oval(`leaf${index}`, middle[0], middle[1], long / 2, long * 0.2, angle, index * 10);
      });
  }
}
