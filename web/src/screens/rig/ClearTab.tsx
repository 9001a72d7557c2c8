import { X } from "lucide-react";
import type { Hazard, Rig } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useUsual } from "../../ui/useTrade";
import { Flag } from "./Flag";
import { AXES } from "./kinds";
import type { RigTabProps } from "./types";

const BELOW: readonly (readonly [Rig["below"], string])[] = [
  ["walkway", "people walk under it"],
  ["table", "people sit at a table under it"],
  ["beside", "people come beside it, none under it"],
  ["nobody", "nobody can be under it or touch it"],
];
const KINDS: readonly (readonly [Hazard["kind"], string])[] = [
  ["sprinkler", "sprinkler head"],
  ["detector", "smoke or heat detector"],
  ["open flame", "open flame"],
  ["flame in glass", "flame in taller glass"],
  ["LED candle", "LED candle"],
  ["exit sign", "exit sign"],
];

/** Who can be under it, and what near it must be kept clear. */
export function ClearTab({ rig, problem, onCommit }: RigTabProps) {
  const usual = useUsual();
  const put = (hazards: readonly Hazard[], label: string) => onCommit({ ...rig, hazards }, label);
  return (
    <div className="p-3">
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <Choice
          label="Under it"
          className="w-80"
          value={rig.below}
          options={BELOW}
          onCommit={(below) => onCommit({ ...rig, below }, "Change who is under it")}
        />
        <Flag
          checked={rig.dried}
          words="something dried is in it"
          onCommit={(dried) => onCommit({ ...rig, dried }, "Change what is dried")}
        />
      </div>
      {rig.hazards.length === 0 && (
        <p className="mt-0 mb-2 text-soft">
          No sprinkler, detector, flame or exit sign is marked near it. Mark each: it is judged as it hangs.
        </p>
      )}
      <ul className="m-0 list-none space-y-1 p-0">
        {rig.hazards.map((hazard, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
            key={index}
            className="grid max-w-3xl grid-cols-[1.6fr_1fr_1fr_1fr_40px] items-end gap-1"
          >
            <Choice
              label="What"
              hideLabel={index > 0}
              value={hazard.kind}
              options={KINDS}
              onCommit={(kind) =>
                put(
                  rig.hazards.map((each, at) => (at === index ? { ...each, kind } : each)),
                  "Change what is near it",
                )
              }
            />
            {AXES.map(([axis, words]) => (
              <QuantityField
                key={axis}
                label={words}
                hideLabel={index > 0}
                kind="length"
                value={hazard[axis]}
                path={`hazards.${index}.${axis}`}
                problem={problem}
                onCommit={(value) =>
                  value !== null &&
                  put(
                    rig.hazards.map((each, at) => (at === index ? { ...each, [axis]: value } : each)),
                    "Move what is near it",
                  )
                }
              />
            ))}
            <Button
              look="quiet"
              title={`Remove the ${hazard.kind}`}
              onClick={() =>
                put(
                  rig.hazards.filter((_, at) => at !== index),
                  "Nothing there to keep clear of",
                )
              }
            >
              <X size={16} aria-hidden="true" />
              <span className="sr-only">Remove the {hazard.kind}</span>
            </Button>
          </li>
        ))}
      </ul>
      <Button
        className="mt-2"
        onClick={() => usual && put([...rig.hazards, usual.hazard], "Mark what is near it")}
      >
        Mark something near it
      </Button>
    </div>
  );
}
