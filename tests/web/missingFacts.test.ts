import { describe, expect, test } from "vitest";
import type { Missing } from "../../web/src/api/types";
import { ORDER, tabOf } from "../../web/src/screens/bench/tabOf";
import { tabOf as ofRig } from "../../web/src/screens/rig/tabOf";
import { addressOf, inOrder } from "../../web/src/ui/MissingFacts";

function fact(path: string, of: Missing["of"] = "part", key = path): Missing {
  return { key, of, path, say: { text: key, quantities: {} } };
}

describe("facts that are missing", () => {
  test("stand in the order of the work, and one field is asked for once", () => {
    const facts = [
      fact("ends_at", "event"),
      fact("transport", "part", "carried-by"),
      fact("recipe"),
      fact("transport", "part", "travels"),
      fact("vessel.mass_kg"),
      fact("vessel.mass_kg"),
    ];
    const keys = inOrder(facts, tabOf, ORDER).map(({ key }) => key);
    expect(keys).toEqual(["vessel.mass_kg", "recipe", "carried-by", "ends_at"]);
  });

  test("have their tab by how their path begins, or another screen", () => {
    expect(tabOf(fact("insert.outer.mass_kg"))).toBe("vessel");
    expect(tabOf(fact("companions.1.vessel.mass_kg"))).toBe("beside");
    expect(tabOf(fact("spill.recipe.0.tube.cap_seals"))).toBe("beside");
    expect(tabOf(fact("filled_at", "event"))).toBe("room");
    expect(tabOf(fact("workshop.temperature_c", "event"))).toBeNull();
    expect(ofRig(fact("points.3.rating_n"))).toBe("points");
    expect(ofRig(fact("beams.truss A.rating_n", "survey"))).toBeNull();
  });

  test.each([
    [fact("workshop.temperature_c", "event"), "/events/7"],
    [fact("beams.ridge.rating_n", "survey"), "/events/7/survey"],
    [fact("costing.rate_per_h", "cost"), "/events/7/cost"],
    [fact("hires.2.each", "hires"), "/events/7/lists?list=hires"],
    [fact("netting.coated-25-09.price", "stores"), "/stores?part=netting"],
    [fact("parts", "line-up"), "/events/7"],
  ])("of no part are typed on their own screens", (missing, address) => {
    expect(addressOf(missing, "7")).toBe(address);
  });
});
