import { describe, expect, test } from "vitest";
import type { Picture, Stems } from "../../web/src/api/types";
import {
  boundsFor,
  boundsOf,
  movedFlat,
  sideWords,
  tipped,
  turned,
  viewOf,
} from "../../web/src/drawing/look";
import { project } from "../../web/src/drawing/project";
import { DOT, type Flat, type Kit, seenAt, type View } from "../../web/src/drawing/seeing";
import { stemsOf } from "../../web/src/drawing/stems";

import drawn from "../drawn.json";

type Case = {
  readonly picture: Picture;
  readonly stems: Stems;
  readonly seen: readonly {
    readonly view: View;
    readonly flats: readonly (readonly (string | number | boolean)[])[];
  }[];
};
const KEPT = drawn as unknown as {
  readonly kit: Kit;
  readonly pieces: Readonly<Record<string, Case>>;
};

/** What tells a flat thing from another, as `tests/drawn.py` writes it. */
function summary(flat: Flat): (string | number | boolean)[] {
  const points = flat.runs.flat();
  const sum = (of: (x: number, y: number, place: number) => number) =>
    points.reduce((total, [x, y], place) => total + of(x, y, place), 0);
  const dots = [0, 1, 2].map((axis) => flat.dots.reduce((total, dot) => total + (dot[axis] ?? 0), 0));
  return [
    flat.id,
    flat.ink,
    flat.part,
    flat.closed,
    flat.colour,
    flat.runs.length,
    points.length,
    flat.dots.length,
    sum((x) => x),
    sum((_, y) => y),
    sum((x, _, place) => place * x),
    sum((x, y) => x * y),
    ...dots,
    flat.width_m ?? 0,
    flat.pale,
    flat.far,
  ];
}

describe.each(Object.entries(KEPT.pieces))("%s, as papers show it", (_, { picture, stems, seen }) => {
  test.each(seen.map(({ view, flats }) => [view, flats] as const))("seen %o", (view, flats) => {
    const found = project(picture, stemsOf(stems), view, KEPT.kit).map(summary);
    expect(found.map(([id]) => id)).toEqual(flats.map(([id]) => id));
    found.forEach((each, index) => {
      const wanted = flats[index] ?? [];
      each.forEach((value, place) => {
        if (typeof value === "number")
          expect(value, `${each[0]} ${place}`).toBeCloseTo(Number(wanted[place]), 2);
        else expect(value).toBe(wanted[place]);
      });
    });
  });
});

describe("looking", () => {
  const { picture, stems } = KEPT.pieces.raised as Case;

  test("a turn goes once round, by whole degrees", () => {
    expect(turned(-Math.PI / 2)).toBeCloseTo(1.5 * Math.PI, 9);
    expect(turned(4.5 * Math.PI)).toBeCloseTo(Math.PI / 2, 9);
    expect(turned(0.01)).toBeCloseTo(Math.PI / 180, 9);
  });

  test.each([
    [0, "the front"],
    [Math.PI / 4, "front right"],
    [Math.PI / 2, "the right"],
    [Math.PI, "the back"],
    [-Math.PI / 2, "the left"],
    [6.2, "the front"],
  ] as const)("%d is %s", (rad, words) => expect(sideWords(rad)).toBe(words));

  test("an eye has its height, and a piece cut open is seen level", () => {
    expect(viewOf(picture, "cut open", 1)).toEqual({ turn_rad: 1, raised_rad: 0, cut: true });
    expect(viewOf(picture, "from above", 0).raised_rad).toBeCloseTo(Math.PI / 2, 5);
    expect(viewOf(picture, "low", 0)).toEqual({ turn_rad: 0, raised_rad: 0, cut: false });
  });

  test("there is room to turn in, whatever the turn", () => {
    const rooms = [0, 1, 2].map((turn) => boundsFor(picture, [], viewOf(picture, "standing", turn)));
    expect(rooms[1]).toEqual(rooms[0]);
    expect(rooms[0]?.xMax).toBeCloseTo(picture.reach_m * 1.13, 9);
  });

  test("cut open, what it stands on takes no room", () => {
    const view = viewOf(picture, "cut open", 0);
    const flats = project(picture, stemsOf(stems), view, KEPT.kit);
    const room = boundsFor(picture, flats, view);
    expect(room.xMax).toBeLessThan(boundsOf(flats).xMax);
    expect(boundsOf([])).toEqual({ xMin: -0.2, xMax: 0.2, yMin: 0, yMax: 0.3 });
  });

  test("a flat thing is moved, and tipped over", () => {
    const flat: Flat = { ...DOT, id: "a", ink: "seat", runs: [[[1, 0]]], dots: [[2, 0, 0.5]] };
    expect(movedFlat(flat, 1, 2, "p-")).toMatchObject({ id: "p-a", runs: [[[2, 2]]], dots: [[3, 2, 0.5]] });
    const over = tipped(flat, [0, 0], Math.PI / 2);
    expect(over.runs[0]?.[0]?.[0]).toBeCloseTo(0, 9);
    expect(over.runs[0]?.[0]?.[1]).toBeCloseTo(1, 9);
    expect(over.dots[0]?.[1]).toBeCloseTo(2, 9);
  });

  test("a place is seen where the picture shows it", () => {
    const [x, y] = seenAt({ turn_rad: Math.PI / 2, raised_rad: 0, cut: false }, [1, 2, 3]);
    expect([x, y].map((each) => Math.round(each * 1e9) / 1e9)).toEqual([2, 3]);
  });
});
