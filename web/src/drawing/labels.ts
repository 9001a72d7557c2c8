/** Words on a drawing that never lie over one another. */

/** A place on the sheet, px from its left and its top. */
export type Px = readonly [number, number];
export type Box = {
  readonly left: number;
  readonly top: number;
  readonly wide: number;
  readonly tall: number;
};

export type Room = { readonly wide: number; readonly tall: number };
/** Words that want a place: the first of their places that is free, at the first of their sizes that has one. */
export type Wanted = {
  readonly key: string;
  /** The lowest is placed first. */
  readonly rank: number;
  readonly sizes: readonly Room[];
  readonly places: (room: Room) => readonly Px[];
};
export type Laid = { readonly at: Px; readonly size: number };

const LETTER_PX = 7.3;
export const ROW_PX = 24;
const APART_PX = 2;

/** How much room rows of words take, px. */
export function roomOf(...rows: readonly string[]): Room {
  return {
    wide: Math.max(0, ...rows.map((row) => row.length)) * LETTER_PX + 10,
    tall: Math.max(rows.length, 1) * ROW_PX + 2,
  };
}

/** Where each of them lies, by its key; who finds no free place inside the sheet is left out. */
export function laid(wanted: readonly Wanted[], sheet: Box, taken: readonly Box[] = []): Map<string, Laid> {
  const lying: Box[] = [...taken];
  const found = new Map<string, Laid>();
  for (const each of wanted.toSorted((a, b) => a.rank - b.rank)) {
    for (const [size, room] of each.sizes.entries()) {
      const free = each.places(room).find(([left, top]) => {
        const box = { left, top, ...room };
        return inside(box, sheet) && !lying.some((other) => meets(box, other));
      });
      if (!free) continue;
      lying.push({ left: free[0], top: free[1], ...room });
      found.set(each.key, { at: free, size });
      break;
    }
  }
  return found;
}

/**
 * Names under a row of things, each as near under its middle as there is room: in one row where all fit into it, else by
 * turns in so many rows. Px of the left and the top of each, in the order of the middles, which go to the right.
 */
export function inRows(
  middles: readonly number[],
  room: Room,
  rows: number,
  top: number,
  wide: number,
): readonly Px[] {
  const used = middles.length * (room.wide + APART_PX) <= wide ? 1 : rows;
  const found = middles.map((): Px => [0, top]);
  for (let row = 0; row < used; row += 1) {
    const here = middles.flatMap((_, index) => (index % used === row ? [index] : []));
    const lefts = here.map((index) => (middles[index] ?? 0) - room.wide / 2);
    const most = wide - room.wide;
    spread(lefts, 0, most, room.wide + APART_PX).forEach((left, place) => {
      found[here[place] ?? 0] = [left, top + row * (room.tall + APART_PX)];
    });
  }
  return found;
}

/** Places from left to right moved so far as they must be to stand so far apart between two ends. */
function spread(lefts: readonly number[], least: number, most: number, apart: number): number[] {
  const places = [...lefts];
  places.forEach((left, index) => {
    const before = places[index - 1];
    places[index] = Math.max(left, before === undefined ? least : before + apart);
  });
  for (let index = places.length - 1; index >= 0; index -= 1) {
    const after = places[index + 1];
    places[index] = Math.min(places[index] ?? 0, after === undefined ? most : after - apart);
  }
  return places;
}

function inside(box: Box, sheet: Box): boolean {
  return (
    box.left >= sheet.left &&
    box.top >= sheet.top &&
    box.left + box.wide <= sheet.left + sheet.wide &&
    box.top + box.tall <= sheet.top + sheet.tall
  );
}

function meets(one: Box, other: Box): boolean {
  return (
    one.left < other.left + other.wide + APART_PX &&
    other.left < one.left + one.wide + APART_PX &&
    one.top < other.top + other.tall + APART_PX &&
    other.top < one.top + one.tall + APART_PX
  );
}
