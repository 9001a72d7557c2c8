import { describe, expect, test } from "vitest";
import { inRows, laid, type Px, type Room, roomOf, type Wanted } from "../../web/src/drawing/labels";

const SHEET = { left: 0, top: 0, wide: 400, tall: 300 };

function wanted(key: string, rank: number, sizes: readonly Room[], ...at: readonly Px[]): Wanted {
  return { key, rank, sizes, places: () => at };
}

describe("labels", () => {
  test("the first free place is taken, and who has the lower rank chooses first", () => {
    const size = [{ wide: 50, tall: 20 }];
    const found = laid(
      [wanted("late", 2, size, [10, 10], [10, 60]), wanted("early", 1, size, [10, 10])],
      SHEET,
    );
    expect(found.get("early")?.at).toEqual([10, 10]);
    expect(found.get("late")?.at).toEqual([10, 60]);
  });

  test("where the long words have no room the short ones stand", () => {
    const sizes = [
      { wide: 500, tall: 20 },
      { wide: 50, tall: 20 },
    ];
    expect(laid([wanted("a", 1, sizes, [10, 10])], SHEET).get("a")).toEqual({ at: [10, 10], size: 1 });
  });

  test("nothing leaves the sheet or covers what is there already", () => {
    const size = [{ wide: 50, tall: 20 }];
    const taken = [{ left: 100, top: 100, wide: 80, tall: 40 }];
    const edges: readonly Px[] = [
      [-1, 10],
      [351, 10],
      [10, -1],
      [10, 281],
      [120, 110],
      [60, 90],
      [178, 139],
    ];
    expect(laid([wanted("a", 1, size, ...edges)], SHEET, taken).size).toBe(0);
    expect(laid([wanted("a", 1, size, ...edges, [184, 100])], SHEET, taken).size).toBe(1);
  });

  test("of 300 labels in one heap none covers another", () => {
    let seed = 7;
    const chance = () => {
      seed = (seed * 16807) % 2147483647;
      return seed / 2147483647;
    };
    const every = Array.from({ length: 300 }, (_, index) => {
      const at: Px[] = Array.from({ length: 5 }, () => [400 * chance(), 300 * chance()]);
      return wanted(`${index}`, index % 4, [roomOf("a word", "two"), roomOf("a")], ...at);
    });
    const sizes = [roomOf("a word", "two"), roomOf("a")] as const;
    const lying = [...laid(every, SHEET).values()].map(({ at, size }) => ({ at, ...sizes[size as 0 | 1] }));
    expect(lying.length).toBeGreaterThan(10);
    for (const [index, one] of lying.entries()) {
      for (const other of lying.slice(index + 1)) {
        const across =
          Math.min(one.at[0] + one.wide, other.at[0] + other.wide) - Math.max(one.at[0], other.at[0]);
        const down =
          Math.min(one.at[1] + one.tall, other.at[1] + other.tall) - Math.max(one.at[1], other.at[1]);
        expect(Math.min(across, down)).toBeLessThanOrEqual(0);
      }
    }
  });

  test.each([
    [3, 1, 600],
    [9, 2, 900],
    [60, 2, 5200],
    [60, 3, 3000],
  ] as const)("of %d names under a row of things in %d rows none covers another", (count, rows, wide) => {
    const room = { wide: 128, tall: 50 };
    const middles = Array.from({ length: count }, (_, index) => (wide * (index / count) ** 1.6) / 1.2);
    const places = inRows(middles, room, rows, 10, wide);
    for (const [index, [left, top]] of places.entries()) {
      expect(left).toBeGreaterThanOrEqual(0);
      expect(left + room.wide).toBeLessThanOrEqual(wide);
      for (const [right, under] of places.slice(index + 1)) {
        expect(Math.abs(right - left) >= room.wide || Math.abs(under - top) >= room.tall).toBe(true);
      }
    }
  });

  test("a name with room enough stands right under its thing", () => {
    expect(inRows([100, 400], { wide: 100, tall: 50 }, 2, 10, 600)).toEqual([
      [50, 10],
      [350, 10],
    ]);
  });

  test("rows of words need room for the longest of them", () => {
    expect(roomOf("abc", "abcdef").wide).toBe(roomOf("abcdef").wide);
    expect(roomOf("a", "b").tall).toBeGreaterThan(roomOf("a").tall);
  });
});
