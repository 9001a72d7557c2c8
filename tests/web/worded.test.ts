import { expect, test } from "vitest";
import { worded } from "../../web/src/units/worded";

test.each([
  [0, "0 stems"],
  [1, "1 stem"],
  [2, "2 stems"],
])("a plural takes the form of its number: %d", (n, said) => {
  expect(worded("{n} {n|stem|stems}", { n })).toBe(said);
});

test("names go in as they are, whatever is in them", () => {
  expect(worded("{name}: {n} left", { name: "urn {n} $&", n: 3 })).toBe("urn {n} $&: 3 left");
});

test("a slot that nothing fills stays, so that one sees it", () => {
  expect(worded("{gone} of {n}", { n: 2 })).toBe("{gone} of 2");
});
