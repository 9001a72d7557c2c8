import { X } from "lucide-react";
import type { HangPoint } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { withoutPoint, withPoint } from "./edits";
import type { RigTabProps } from "./types";

const KINDS: readonly (readonly [HangPoint["kind"], string])[] = [
  ["beam loop", "loop round a beam"],
  ["clamp", "clamp"],
  ["eye", "eye"],
  ["wall screw", "wall screw"],
  ["frame member", "frame"],
  ["adhesive hook", "adhesive hook"],
  ["suction hook", "suction hook"],
  ["handle", "handle"],
  ["truss", "truss"],
];
const PLACES = [
  ["x_m", "Right"],
  ["y_m", "Back"],
  ["z_m", "Up"],
] as const;

/** The survey of the place, as far as this piece hangs on it: where each point is, what it may carry, who states it. */
export function PointsTab({ rig, problem, chosen, onChoose, onCommit }: RigTabProps) {
  const put = (index: number, next: Partial<HangPoint>, label: string) =>
    onCommit(
      { ...rig, points: rig.points.map((each, at) => (at === index ? { ...each, ...next } : each)) },
      label,
    );
  return (
    <div className="p-2">
      <ul className="m-0 list-none space-y-1 p-0">
        {rig.points.map((point, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a point is known by its place
            key={index}
            onFocusCapture={() => onChoose(`point-${index}`)}
            className={`grid grid-cols-[1.15fr_1fr_0.85fr_0.8fr_0.8fr_0.8fr_1.3fr_1.15fr_40px] items-end gap-1 max-lg:grid-cols-3 ${chosen === `point-${index}` ? "bg-sheet" : ""}`}
          >
            <TextField
              label="Name"
              hideLabel={index > 0}
              value={point.name}
              path={`points.${index}.name`}
              problem={problem}
              onCommit={(name) => put(index, { name }, "Rename a hang point")}
            />
            <Choice
              label="Kind"
              hideLabel={index > 0}
              value={point.kind}
              options={KINDS}
              onCommit={(kind) => put(index, { kind }, `Change ${point.name}`)}
            />
            {PLACES.map(([axis, words]) => (
              <QuantityField
                key={axis}
                label={words}
                hideLabel={index > 0}
                kind="length"
                value={point[axis]}
                path={axis === "x_m" ? `points.${index}` : `points.${index}.${axis}`}
                problem={problem}
                onCommit={(value) => value !== null && put(index, { [axis]: value }, `Move ${point.name}`)}
              />
            ))}
            <QuantityField
              label="May carry"
              hideLabel={index > 0}
              kind="force"
              optional
              placeholder="not rated"
              value={point.rating_n}
              path={`points.${index}.rating_n`}
              problem={problem}
              onCommit={(rating_n) => put(index, { rating_n }, `Rate ${point.name}`)}
            />
            <TextField
              label="Stated by"
              hideLabel={index > 0}
              placeholder="nobody yet"
              value={point.stated_by ?? ""}
              path={`points.${index}.stated_by`}
              problem={problem}
              onCommit={(by) => put(index, { stated_by: by.trim() || null }, `Who rates ${point.name}`)}
            />
            <TextField
              label="On"
              hideLabel={index > 0}
              placeholder="date"
              value={point.stated_on ?? ""}
              path={`points.${index}.stated_on`}
              problem={problem}
              onCommit={(on) => put(index, { stated_on: on.trim() || null }, `When ${point.name} was rated`)}
            />
            <Button
              look="quiet"
              title={`Remove ${point.name} and its lines`}
              onClick={() => onCommit(withoutPoint(rig, index), `Remove ${point.name}`)}
            >
              <X size={16} aria-hidden="true" />
              <span className="sr-only">Remove {point.name} and its lines</span>
            </Button>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex items-center gap-3">
        <Button onClick={() => onCommit(withPoint(rig), "Add a hang point")}>
          Add a hang point with its line
        </Button>
        <span className="text-[14px] text-soft">
          Ratings are working loads straight down, as the owner or a competent person states them.
        </span>
      </div>
    </div>
  );
}
