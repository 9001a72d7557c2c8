import type { RecipeLine } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";

const WATER = [
  ["none", "no water"],
  ["tube", "a tube each"],
  ["wrap", "wet wrap a bundle"],
] as const;

type Props = { name: string; line: RecipeLine; onLine: (line: RecipeLine) => void };

/** Of stems with no vessel: what they drink from, and how many go in as one bundle. */
export function HungLine({ name, line, onLine }: Props) {
  const water = line.water === "vessel" ? "none" : line.water;
  return (
    <>
      <Choice
        label={`Water of ${name}`}
        hideLabel
        value={water}
        options={WATER}
        onCommit={(next) => onLine({ ...line, water: next })}
        className="w-37.5 flex-none"
      />
      <span className="flex-none text-sm text-soft">bundles of</span>
      <QuantityField
        label={`Bundles of ${name}`}
        hideLabel
        kind="count"
        value={line.clump}
        onCommit={(clump) => clump !== null && onLine({ ...line, clump })}
        className="w-14 flex-none"
      />
    </>
  );
}
