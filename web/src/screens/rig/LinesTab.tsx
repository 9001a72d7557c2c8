import { X } from "lucide-react";
import type { RigLine } from "../../api/types";
import { EditButton } from "../../desk/Editing";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useUsual } from "../../ui/useTrade";
import { worded } from "../../units/worded";
import { Flag } from "./Flag";
import { HardwareFields } from "./HardwareFields";
import { SpecFields } from "./SpecFields";
import type { RigTabProps } from "./types";

/** Every line: from where to where, of what, how it is made off; the second bond; levelling and proof. */
export function LinesTab({ rig, problem, chosen, onChoose, onCommit, onEdit }: RigTabProps) {
  const usual = useUsual();
  const spec = rig.lines.at(-1)?.spec ?? usual?.hanger;
  const put = (index: number, next: Partial<RigLine>, label: string) =>
    onCommit(
      { ...rig, lines: rig.lines.map((each, at) => (at === index ? { ...each, ...next } : each)) },
      label,
    );
  const places = rig.attachments.map(
    (_, index) => [String(index), worded("place {n}", { n: index + 1 })] as const,
  );
  const starts = [
    ...rig.points.map((each, index) => [`point-${index}`, each.name] as const),
    ...rig.attachments.map((_, index) => [`place-${index}`, worded("place {n}", { n: index + 1 })] as const),
  ];
  const lead = (index: number, from: string) => {
    const [what, at] = from.split("-");
    const ends =
      what === "point" ? { point: Number(at), tied_to: null } : { point: null, tied_to: Number(at) };
    put(index, ends, "Lead a line from elsewhere");
  };
  return (
    <div className="p-2">
      {rig.lines.length === 0 && <p className="mt-0 mb-2">No line yet: nothing holds the armature.</p>}
      <ul className="m-0 list-none space-y-1 p-0">
        {rig.lines.map((line, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place
            key={index}
            onFocusCapture={() => onChoose(`line-${index}`)}
            className={`grid grid-cols-[1.2fr_0.9fr_3.6fr_44px] items-end gap-1 max-lg:grid-cols-2 max-lg:border-t max-lg:border-line max-lg:py-2 ${chosen === `line-${index}` ? "bg-sheet" : ""}`}
          >
            <Choice
              label="From"
              hideLabel={index > 0 && "row"}
              value={line.tied_to === null ? `point-${line.point}` : `place-${line.tied_to}`}
              options={starts}
              onCommit={(from) => lead(index, from)}
            />
            <Choice
              label="To"
              hideLabel={index > 0 && "row"}
              value={String(line.attachment)}
              options={places}
              onCommit={(place) => put(index, { attachment: Number(place) }, "Lead a line elsewhere")}
            />
            <SpecFields
              spec={line.spec}
              path={`lines.${index}.spec`}
              bare={index > 0}
              problem={problem}
              onCommit={(spec) => put(index, { spec }, "Change a line")}
            />
            <EditButton look="quiet" title="Remove the line" what={{ kind: "remove line", line: index }}>
              <X size={16} aria-hidden="true" />
              <span className="sr-only">Remove line {index + 1}</span>
            </EditButton>
            <HardwareFields
              line={index}
              hardware={line.hardware}
              problem={problem}
              onCommit={(hardware, label) => put(index, { hardware }, label)}
            />
          </li>
        ))}
      </ul>
      <div className="mt-2 flex items-end gap-3">
        <EditButton
          disabled={!spec || rig.points.length === 0 || rig.attachments.length === 0}
          what={{ kind: "add line" }}
        >
          Add a line
        </EditButton>
        <Button
          disabled={rig.lines.length === 0}
          onClick={() => {
            const spec = rig.lines[0]?.spec;
            if (spec)
              onCommit(
                { ...rig, lines: rig.lines.map((each) => ({ ...each, spec })) },
                "All lines like the first",
              );
          }}
        >
          All like the first
        </Button>
        <QuantityField
          label="Let out for levelling"
          kind="length"
          className="w-36"
          value={rig.levelling_m}
          path="levelling_m"
          problem={problem}
          onCommit={(levelling_m) =>
            levelling_m !== null && onCommit({ ...rig, levelling_m }, "Change the levelling range")
          }
        />
        <QuantityField
          label="Proof load"
          kind="mass"
          className="w-36"
          optional
          placeholder="the usual"
          value={rig.proof_kg}
          path="proof_kg"
          problem={problem}
          onCommit={(proof_kg) => onCommit({ ...rig, proof_kg }, "Change the proof load")}
        />
      </div>
      <BondFields rig={rig} problem={problem} onCommit={onCommit} onEdit={onEdit} />
    </div>
  );
}

function BondFields({
  rig,
  problem,
  onCommit,
  onEdit,
}: Pick<RigTabProps, "rig" | "problem" | "onCommit" | "onEdit">) {
  const { bond } = rig;
  const usual = useUsual();
  const used = new Set(rig.lines.map((each) => each.point));
  const plan = (planned: boolean) =>
    onCommit(
      {
        ...rig,
        bond: planned ? (usual?.bond ?? null) : null,
      },
      planned ? "Plan a second bond" : "Leave the second bond out",
    );
  return (
    <section className="mt-3 border-t border-line pt-2" aria-label="Second bond">
      <Flag
        checked={bond !== null}
        path="bond"
        words="A second bond: its own steel line, nearly tight, to a point of its own"
        onCommit={plan}
      />
      {bond && (
        <div className="grid grid-cols-[1.6fr_0.8fr_3.6fr] items-end gap-1 max-lg:grid-cols-1">
          <Choice
            label="Leads to"
            path="bond.point"
            value={bond.point === null ? "" : String(bond.point)}
            options={[
              ["", "no point yet"],
              ...rig.points.map((each, index): readonly [string, string] => [
                String(index),
                used.has(index) ? `${each.name} (holds a line too)` : each.name,
              ]),
              ["new", "a new point of its own"],
            ]}
            onCommit={(at) => {
              if (at === "new") onEdit({ kind: "bond point" });
              else
                onCommit(
                  { ...rig, bond: { ...bond, point: at === "" ? null : Number(at) } },
                  "Lead the second bond elsewhere",
                );
            }}
          />
          <QuantityField
            label="Slack"
            kind="length"
            value={bond.slack_m}
            path="bond.slack_m"
            problem={problem}
            onCommit={(slack_m) =>
              slack_m !== null && onCommit({ ...rig, bond: { ...bond, slack_m } }, "Change the bond's slack")
            }
          />
          <SpecFields
            spec={bond.spec}
            path="bond.spec"
            bare={false}
            problem={problem}
            onCommit={(spec) => onCommit({ ...rig, bond: { ...bond, spec } }, "Change the second bond")}
          />
        </div>
      )}
    </section>
  );
}
