import { describe, expect, test } from "vitest";
import { inOrder, whereOf } from "../../web/src/screens/bench/missing";

const WEIGHT = "the weight of the empty vessel";
const ROADS = [
  "how the piece travels, and who carries it",
  "how the piece travels (boxed, bare, or made on site)",
];

describe("facts that are missing", () => {
  test("stand in the order of the work, and one field is asked for once", () => {
    const facts = [
      "when the event ends",
      ROADS[0] as string,
      "the recipe (add stems)",
      ROADS[1] as string,
      WEIGHT,
    ];
    expect(inOrder([...facts, WEIGHT], [])).toEqual([
      WEIGHT,
      "the recipe (add stems)",
      ROADS[0],
      "when the event ends",
    ]);
  });

  test("of another vessel are asked for beside those of its own, and lead to that one", () => {
    const other = `${WEIGHT} (small bowl)`;
    expect(inOrder([other, WEIGHT], ["small bowl"])).toEqual([WEIGHT, other]);
    expect(whereOf(other, ["small bowl"])?.tab).toBe("beside");
    expect(whereOf(WEIGHT, ["small bowl"])).toEqual({ tab: "vessel", label: "Weight, empty" });
  });

  test("of a tube leads to its line", () => {
    const fact = "whether the caps of the rose's tubes seal when leaned over";
    expect(whereOf(fact, [])).toEqual({ tab: "stems", label: "How many rose" });
  });

  test("that nobody knows a field for are said all the same", () => {
    expect(whereOf("the phase of the moon", [])).toBeNull();
    expect(inOrder(["the phase of the moon", "the colour of the wind", WEIGHT], [])).toHaveLength(3);
  });
});
