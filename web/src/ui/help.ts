/** Keys and marks of each screen, for the sheet that `?` opens. */

export type Row = readonly [string, string];
export type Help = { readonly title: string; readonly keys: readonly Row[]; readonly marks: readonly Row[] };

const EVERYWHERE: readonly Row[] = [
  ["?", "this sheet"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo, over the whole plan"],
  ["Tab, Shift Tab", "to the next field, and back"],
  ["↑ ↓ in a number", "a step more or less; with Shift four"],
  ["Enter", "takes over what is typed"],
  ["Esc", "leaves what is begun: typing, dragging, a sheet"],
];
const STATES: readonly Row[] = [
  ["✓ holds", "within its limits, with something to spare"],
  ["△ tight", "within its limits, with little to spare"],
  ["✕ fails", "past a limit"],
  ["– not needed", "nothing of the kind is asked"],
  ["◌ cannot say", "a fact is missing"],
];
const USE: Row = ["0.42 and the bar", "0.42 of what it can bear; the upright mark is 1, all of it"];

const SCREENS: readonly (readonly [RegExp, Help])[] = [
  [
    /\/pieces\//,
    {
      title: "The bench",
      keys: [
        ["← → on the ring", "turn the piece by 15°; Home turns it to the front"],
        ["arrows on a grip", "a step wider, higher, deeper; Page Up and Down four steps"],
        ["Enter in Say it", "hears the words and shows what they would change"],
        ...EVERYWHERE,
      ],
      marks: [
        USE,
        ...STATES,
        ["white grips", "drag them: mouth, depth, size wanted, water"],
        ["dotted line", "the size wanted"],
        ["blue line", "the water; the thin one its lowest level"],
        ["berry hatching", "what shows of wire, tape, rim or underside"],
        ["black dot", "the balance point"],
      ],
    },
  ],
  [
    /\/rigs\//,
    {
      title: "The rig",
      keys: [
        ["S", "cuts the line that is chosen, and shows what happens; Esc puts it back"],
        ["arrows on a grip", "move the chosen point or place"],
        ["← → on the ring", "turn it by 15°"],
        ...EVERYWHERE,
      ],
      marks: [
        [
          "0.39 · 57.5 N",
          "the share of its limit that a line uses in its worst case, and what it bears as hung",
        ],
        ["dashed line", "the second bond: slack until the others go"],
        ["berry line", "past its limit"],
        ["marigold line", "tight"],
        ...STATES,
      ],
    },
  ],
  [
    /\/day/,
    {
      title: "The day",
      keys: [["← → on a task", "earlier and later by five minutes"], ...EVERYWHERE],
      marks: [["a lane", "one person's day"], ...STATES],
    },
  ],
  [/\/stores|\/figures/, { title: "The stores", keys: EVERYWHERE, marks: [] }],
  [
    /./,
    {
      title: "The line-up",
      keys: EVERYWHERE,
      marks: [
        ...STATES,
        ["not cleared", "it hangs over people, and something of it fails or cannot be said"],
      ],
    },
  ],
];

/** What the sheet says of a screen. */
export function helpOf(path: string): Help {
  const found = SCREENS.find(([screen]) => screen.test(path)) ?? SCREENS.at(-1);
  return found?.[1] ?? { title: "Keys", keys: EVERYWHERE, marks: [] };
}
