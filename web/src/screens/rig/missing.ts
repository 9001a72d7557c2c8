import type { Rig } from "../../api/types";
import type { Where } from "../../ui/MissingFacts";

/** Facts about the rig as a whole, and the field of each. */
const FIELDS: readonly (readonly [RegExp, Where])[] = [
  [/its own steel line to its own hang point/, { tab: "lines", label: "A second bond" }],
  [/second bond leads to/, { tab: "lines", label: "Leads to" }],
  [/may carry in all/, { tab: "", label: "May carry in all", screen: "survey" }],
  [/keeps at its ends/, { tab: "lines", label: "Its ends" }],
  [/stands out from the wall/, { tab: "mount", label: "Its middle stands out" }],
  [/guyed/, { tab: "mount", label: "Guyed or tied to" }],
  [/'s feet are of/, { tab: "mount", label: "Its feet" }],
  [/wide and deep the (?:frame|stand)/, { tab: "mount", label: "Feet, wide" }],
  [/what the (?:frame|stand) may carry: as/, { tab: "mount", label: "It may carry" }],
  [/who states what the (?:frame|stand) may carry/, { tab: "mount", label: "Stated by" }],
  [/how far across the frame is/, { tab: "mount", label: "Frame, wide" }],
  [/how far across the (?:stand|column) is/, { tab: "mount", label: "Across" }],
  [/competent person signs/, { tab: "mount", label: "Signed for by" }],
  [/is marked with/, { tab: "lines", label: "marked with" }],
  [/what the (?:frame|stand) weighs/, { tab: "mount", label: "It weighs" }],
];

/** Where a missing fact of hung work is typed; null where that is on another page. */
export function whereOf(fact: string, rig: Rig): Where | null {
  const index = rig.points.findIndex(
    ({ name }) => fact.startsWith(`what ${name} `) || fact.endsWith(` ${name} is in`),
  );
  const point = rig.points[index];
  if (point && fact.startsWith(`what ${point.name} `)) {
    const within = `[data-point="${index}"]`;
    if (/ off (?:its wall|straight down)$/.test(fact))
      return { tab: "points", label: `${point.name}: rated off plumb up to` };
    if (fact.endsWith(" out of the wall"))
      return { tab: "points", label: `${point.name} straight out of the wall` };
    if (fact.endsWith(" was made for")) return { tab: "points", label: `What ${point.name} was made for` };
    if (/ may carry\b/.test(fact)) return { tab: "points", label: "May carry", within };
  }
  const tubes = /^whether the caps of the (.+)'s tubes seal/.exec(fact)?.[1];
  if (tubes) return { tab: "flowers", label: `Water of ${tubes}` };
  return FIELDS.find(([words]) => words.test(fact))?.[1] ?? null;
}
