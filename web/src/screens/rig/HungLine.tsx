import type { RecipeLine, Rig } from "../../api/types";
import { isRun } from "../../drawing/rig";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useUsual } from "../../ui/useTrade";

const WATER = [
  ["none", "no water"],
  ["tube", "a tube each"],
  ["wrap", "wet wrap a bundle"],
] as const;

type Props = { rig: Rig; name: string; line: RecipeLine; onLine: (line: RecipeLine) => void };

/** Of stems with no vessel: how they go in, what they drink from, and how many go in as one bundle. */
export function HungLine({ rig, name, line, onLine }: Props) {
  const usual = useUsual();
  const water = line.water === "vessel" ? "none" : line.water;
  const goes = [
    ["", "in, as usual"],
    ["woven", "woven along"],
    ["pushed in", isRun(rig) ? "standing out" : "upright on it"],
    ["hung", "on hooks"],
  ] as const;
  const go = (next: "" | "woven" | "pushed in" | "hung") =>
    onLine({
      ...line,
      goes: next || null,
      // A run has no curve of drops: what hangs from it hangs as far as its stems are long, until somebody says.
      drop_m: next === "hung" ? (line.drop_m ?? (isRun(rig) ? rig.armature.stem_cut_m : null)) : null,
    });
  return (
    <>
      <Choice
        label={`How ${name} goes in`}
        hideLabel
        value={line.goes ?? ""}
        options={goes}
        onCommit={go}
        className="w-36 flex-none"
      />
      <Choice
        label={`Water of ${name}`}
        hideLabel
        value={water}
        options={WATER}
        onCommit={(next) =>
          onLine({
            ...line,
            water: next,
            tube: next === "tube" ? (line.tube ?? usual?.hung_tube ?? null) : line.tube,
          })
        }
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
