import { describe, expect, test } from "vitest";
import type { EventChange, EventOut, PartOut } from "../../web/src/api/types";
import { piecesOf, placeOf, rigsOf, withChange } from "../../web/src/desk/change";

const part = (id: number, kind: "standing" | "bouquet" | "rig", name: string) =>
  ({ id, part: { kind, name }, report: null, problem: null }) as unknown as PartOut;
const head = (revision: number) =>
  ({
    id: 1,
    revision,
    brief: { name: "Tea" },
    undo: null,
    redo: null,
    newest_figures: true,
  }) as unknown as EventOut;
const event: EventOut = {
  ...head(4),
  parts: [part(1, "standing", "bowl"), part(2, "rig", "ring"), part(3, "bouquet", "urn")],
};
const change = (revision: number, order: number[], ...parts: PartOut[]): EventChange => ({
  ...head(revision),
  order,
  added: null,
  parts,
});
const names = (found: EventOut) => found.parts.map((each) => each.part.name);

describe("an answer laid over an event", () => {
  test("changes what it names, and keeps the very same others", () => {
    const found = withChange(event, change(5, [1, 2, 3], part(3, "standing", "tall urn")));
    expect(names(found)).toEqual(["bowl", "ring", "tall urn"]);
    expect(found.parts[0]).toBe(event.parts[0]);
    expect(found.revision).toBe(5);
  });

  test("adds, takes out and puts in order", () => {
    const found = withChange(event, change(5, [3, 4, 1], part(4, "rig", "swag")));
    expect(names(found)).toEqual(["urn", "swag", "bowl"]);
  });

  test("is nothing where a newer state is known already", () => {
    expect(withChange(event, change(3, [1]))).toBe(event);
  });

  test("carries neither its order nor what it added into the event", () => {
    expect(Object.keys(withChange(event, change(5, [1]))).toSorted()).toEqual(Object.keys(event).toSorted());
  });
});

test("parts are told apart by their kind, and each has its place", () => {
  expect(piecesOf(event).map((each) => each.id)).toEqual([1, 3]);
  expect(rigsOf(event).map((each) => each.id)).toEqual([2]);
  expect(event.parts.map(placeOf)).toEqual(["pieces/1", "rigs/2", "pieces/3"]);
});
