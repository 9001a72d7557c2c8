/** Facts that are missing, and where each is typed: its tab under the drawing, and the field by its label. */

import type { Where } from "../../ui/MissingFacts";

/** In the order of the work: the vessel, the stems, where it stands and how it goes there, the room and the day. */
const FIELDS: readonly (readonly [RegExp, Where])[] = [
  [/weight of the empty vessel/, { tab: "vessel", label: "Weight, empty" }],
  [/weight of the support/, { tab: "vessel", label: "Its weight, empty" }],
  [/weight of the urn/, { tab: "vessel", label: "Urn" }],
  [/width of the (?:vessel's foot|bowl's foot|foot)/, { tab: "vessel", label: "Foot, across" }],
  [/width of the support's foot/, { tab: "vessel", label: "Its foot, across" }],
  [/width of the urn's foot/, { tab: "vessel", label: "Urn" }],
  [/recipe/, { tab: "stems", label: "Add a variety" }],
  [/bare table/, { tab: "place", label: "Bare table all round" }],
  [/where people (?:look|sit)/, { tab: "place", label: "Who looks" }],
  [/how the piece travels/, { tab: "place", label: "Travels" }],
  [/walls of its box/, { tab: "place", label: "Box wall, high" }],
  [/hours it is carried/, { tab: "bouquet", label: "Carried out of water" }],
  [/spill's hook is rated/, { tab: "beside", label: "Hook is rated" }],
  [/stated the hook's rating/, { tab: "beside", label: "Stated by" }],
  [/workshop's temperature/, { tab: "", label: "Workshop, temperature", screen: "brief" }],
  [/van's temperature/, { tab: "", label: "Van, temperature", screen: "brief" }],
  [/temperature and humidity/, { tab: "room", label: "Room temperature" }],
  [/vessel is filled/, { tab: "room", label: "Water goes in" }],
  [/event ends/, { tab: "room", label: "Event ends" }],
];

/** Tubes have no field on the screen until their line is opened: the line is gone to. */
const CAPS = /^whether the caps of the (.+)'s tubes seal/;

/** What is missing of another vessel is typed where that one is, under its name. */
const BESIDE: Where = { tab: "beside", label: "" };

/** Where a missing fact is typed; null where that is in no single field. */
export function whereOf(fact: string, beside: readonly string[]): Where | null {
  if (isBeside(fact, beside)) return BESIDE;
  const tubes = CAPS.exec(fact)?.[1];
  if (tubes) return { tab: "stems", label: `How many ${tubes}` };
  return FIELDS.find(([words]) => words.test(fact))?.[1] ?? null;
}

function isBeside(fact: string, beside: readonly string[]): boolean {
  return beside.some((name) => fact.endsWith(` (${name})`));
}

/** Facts once each, in the order of the work. */
export function inOrder(facts: readonly string[], beside: readonly string[]): string[] {
  const place = (fact: string) => {
    if (isBeside(fact, beside)) return FIELDS.length;
    const found = FIELDS.findIndex(([words]) => words.test(fact));
    return found < 0 ? FIELDS.length : found;
  };
  const ordered = [...new Set(facts)].toSorted((a, b) => place(a) - place(b));
  // two checks may miss one field: it is asked for once
  return ordered.filter(
    (fact, at) => at === 0 || place(fact) === FIELDS.length || place(fact) !== place(ordered[at - 1] ?? ""),
  );
}
