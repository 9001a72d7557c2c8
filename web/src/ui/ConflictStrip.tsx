import { textOf } from "../units/text";
import { Button } from "./Button";
import { useSettings } from "./settings";
import type { Conflict } from "./useWriteLine";

type Props = { conflict: Conflict; onTakeTheirs: () => void /** What two windows are on. */; what?: string };

/** Two windows on one plan, survey or stores: what the other one changed, and both ways out. */
export function ConflictStrip({ conflict, onTakeTheirs, what = "the plan" }: Props) {
  const { system } = useSettings();
  const say = (path: string, value: unknown): string => {
    if (typeof value !== "number") return value === null || value === undefined ? "nothing" : String(value);
    if (path.endsWith("_m")) return textOf({ kind: "length", value }, system);
    if (path.endsWith("_kg")) return textOf({ kind: "mass", value }, system);
    return String(value);
  };
  const differences = conflict.problem.differences ?? [];
  return (
    <section
      role="alert"
      className="no-print flex flex-none flex-wrap items-center gap-3 border-b border-berry bg-sheet px-4 py-2"
    >
      <div className="min-w-0 flex-1">
        <strong className="text-berry">Changed in another window meanwhile:</strong>{" "}
        {differences.length === 0
          ? `${what}.`
          : differences
              .slice(0, 4)
              .map((each) => {
                if (each.path === "figures") return "it is planned with other figures";
                const name = each.path
                  .replace(/_(m|kg|l|h|n|rad)$/, "")
                  .replaceAll("_", " ")
                  .replaceAll(".", " ");
                return `${name}: ${say(each.path, each.was)} → ${say(each.path, each.now)}`;
              })
              .join("; ")}
        {differences.length > 4 ? ` and ${differences.length - 4} more` : ""}
      </div>
      <Button look="solid" onClick={conflict.again}>
        {conflict.words}
      </Button>
      <Button onClick={onTakeTheirs}>Take the other</Button>
    </section>
  );
}
