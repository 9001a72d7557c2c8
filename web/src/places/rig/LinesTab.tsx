import { X } from "lucide-react";
import type { LineSpec, RigLine } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { STEEL, withoutLine } from "./edits";
import type { RigTabProps } from "./types";

const KINDS: readonly (readonly [LineSpec["kind"], string])[] = [
  ["steel rope", "steel rope"],
  ["monofilament", "monofilament"],
  ["braid", "braid"],
  ["polyester cord", "polyester cord"],
  ["cable tie", "cable tie"],
];
const FITTINGS: readonly (readonly [LineSpec["fitting"], string])[] = [
  ["knot", "knotted"],
  ["ferrule", "ferrule"],
  ["grip", "grip"],
];
const EDGES = [
  ["no", "runs free"],
  ["yes", "over an edge"],
] as const;
/** What a kind is unless it is said: steel and cord go by their size, thin line by its packet. */
const USUAL: Record<LineSpec["kind"], Partial<LineSpec>> = {
  "steel rope": { size_m: 0.0015, stated_n: null, fitting: "grip" },
  monofilament: { size_m: null, stated_n: 89, fitting: "knot" },
  braid: { size_m: null, stated_n: 200, fitting: "knot" },
  "polyester cord": { size_m: 0.003, stated_n: null, fitting: "knot" },
  "cable tie": { size_m: 0.0048, stated_n: null, fitting: "knot" },
};

/** Every line: from where to where, of what, how it is made off; the second bond. */
export function LinesTab({ rig, problem, chosen, onChoose, onCommit }: RigTabProps) {
  const put = (index: number, next: Partial<RigLine>, label: string) =>
    onCommit(
      { ...rig, lines: rig.lines.map((each, at) => (at === index ? { ...each, ...next } : each)) },
      label,
    );
  const points = rig.points.map((each, index) => [String(index), each.name] as const);
  const places = rig.attachments.map((_, index) => [String(index), `place ${index + 1}`] as const);
  return (
    <div className="p-2">
      <ul className="m-0 list-none space-y-1 p-0">
        {rig.lines.map((line, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place
            key={index}
            onFocusCapture={() => onChoose(`line-${index}`)}
            className={`grid grid-cols-[1.2fr_0.9fr_3.6fr_44px] items-end gap-1 max-lg:grid-cols-2 ${chosen === `line-${index}` ? "bg-sheet" : ""}`}
          >
            <Choice
              label="From"
              hideLabel={index > 0}
              value={String(line.point)}
              options={points}
              onCommit={(point) => put(index, { point: Number(point) }, "Lead a line from another point")}
            />
            <Choice
              label="To"
              hideLabel={index > 0}
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
            <Button
              look="quiet"
              title="Remove the line"
              onClick={() => onCommit(withoutLine(rig, index), "Remove a line")}
            >
              <X size={16} aria-hidden="true" />
              <span className="sr-only">Remove line {index + 1}</span>
            </Button>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex items-end gap-3">
        <Button
          disabled={rig.points.length === 0 || rig.attachments.length === 0}
          onClick={() =>
            onCommit(
              {
                ...rig,
                lines: [
                  ...rig.lines,
                  { point: rig.points.length - 1, attachment: 0, spec: rig.lines[0]?.spec ?? STEEL },
                ],
              },
              "Add a line",
            )
          }
        >
          Add a line
        </Button>
        <Button
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
      </div>
      <section className="mt-3 border-t border-line pt-2">
        <label className="flex min-h-[44px] items-center gap-2">
          <input
            type="checkbox"
            className="h-5 w-5 accent-leaf"
            checked={rig.bond !== null}
            onChange={(each) =>
              onCommit(
                { ...rig, bond: each.target.checked ? { ...STEEL, fitting: "ferrule" } : null },
                each.target.checked ? "Plan a second bond" : "Leave the second bond out",
              )
            }
          />
          A second bond: its own steel line, slack, to a point of its own
        </label>
        {rig.bond && (
          <SpecFields
            spec={rig.bond}
            path="bond"
            bare={false}
            problem={problem}
            onCommit={(bond) => onCommit({ ...rig, bond }, "Change the second bond")}
          />
        )}
      </section>
    </div>
  );
}

type SpecProps = {
  spec: LineSpec;
  path: string;
  /** Without its labels, under a row that has them. */
  bare: boolean;
  problem: RigTabProps["problem"];
  onCommit: (spec: LineSpec) => void;
};

function SpecFields({ spec, path, bare, problem, onCommit }: SpecProps) {
  const thin = spec.kind === "monofilament" || spec.kind === "braid";
  return (
    <div className="grid grid-cols-5 items-end gap-1">
      <Choice
        label="Line"
        hideLabel={bare}
        value={spec.kind}
        options={KINDS}
        onCommit={(kind) => onCommit({ ...spec, kind, ...USUAL[kind] })}
      />
      <QuantityField
        label="Thick"
        hideLabel={bare}
        kind="length"
        optional
        placeholder={thin ? "by its packet" : "not known"}
        value={spec.size_m}
        path={`${path}.size_m`}
        problem={problem}
        onCommit={(size_m) => onCommit({ ...spec, size_m })}
      />
      <QuantityField
        label="Packet says"
        hideLabel={bare}
        kind="force"
        optional
        placeholder={thin ? "needed" : "by its size"}
        value={spec.stated_n}
        path={`${path}.stated_n`}
        problem={problem}
        onCommit={(stated_n) => onCommit({ ...spec, stated_n })}
      />
      <Choice
        label="Made off"
        hideLabel={bare}
        value={spec.fitting}
        options={FITTINGS}
        onCommit={(fitting) => onCommit({ ...spec, fitting })}
      />
      <Choice
        label="On its way"
        hideLabel={bare}
        value={spec.over_edge ? "yes" : "no"}
        options={EDGES}
        onCommit={(edge) => onCommit({ ...spec, over_edge: edge === "yes" })}
      />
    </div>
  );
}
