import { describe, expect, inject, test } from "vitest";
import type { Picture, Stems } from "../../web/src/api/types";
import { project } from "../../web/src/drawing/project";
import type { Flat, Kit, View } from "../../web/src/drawing/seeing";
import { stemsOf } from "../../web/src/drawing/stems";

declare module "vitest" {
  interface ProvidedContext {
    readonly drawn: string;
  }
}

/** The demo as the core sees it from everywhere, where `tests/api/test_drawings_agree.py` has written it. */
const written = inject("drawn");
type Part = {
  readonly name: string;
  readonly picture: Picture;
  readonly stems: Stems | null;
  readonly seen: readonly { readonly view: View; readonly ids: string; readonly sums: readonly number[] }[];
};
const kept = (written ? JSON.parse(written) : { parts: [] }) as {
  readonly kit: Kit;
  readonly parts: readonly Part[];
};

/** The sums of `tests/api/test_drawings_agree.py`. */
function sums(flats: readonly Flat[]): number[] {
  const total = [0, 0, 0, 0, 0, 0];
  flats.forEach((flat, place) => {
    const weight = (place % 7) + 1;
    const points = flat.runs.flat();
    const add = [
      points.reduce((sum, [x]) => sum + x, 0),
      points.reduce((sum, [, y]) => sum + y, 0),
      points.reduce((sum, [x, y]) => sum + x * y, 0),
      flat.dots.reduce((sum, [x, y, r]) => sum + x + 2 * y + 3 * r, 0),
      flat.far,
      flat.width_m ?? 0,
    ];
    add.forEach((each, at) => {
      total[at] = (total[at] ?? 0) + weight * each;
    });
  });
  return total;
}

describe.runIf(written).each(kept.parts)("$name, as papers show it", ({ picture, stems, seen }) => {
  test("from every eye, at every 30°", () => {
    for (const { view, ids, sums: wanted } of seen) {
      const flats = project(picture, stems ? stemsOf(stems) : [], view, kept.kit).toSorted((a, b) =>
        a.id < b.id ? -1 : 1,
      );
      const named = flats.map(({ id, part }) => `${id} ${part}`);
      const others = new Set(ids.split("|"));
      expect(named.filter((each) => !others.has(each))).toEqual([]);
      expect(named.length).toBe(others.size);
      sums(flats).forEach((each, at) => {
        expect(each, `${JSON.stringify(view)} ${at}`).toBeCloseTo(wanted[at] ?? Number.NaN, 3);
      });
    }
  });
});

test.skipIf(written)("the whole demo is compared where the core has drawn it", () => {});
