import type { Armature } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { ARMATURES } from "./edits";
import type { RigTabProps } from "./types";

const STIFFNESS: readonly (readonly [Armature["stiffness"], string])[] = [
  ["loose", "loose, hangs as a chain"],
  ["twig-stiffened", "stiffened with twigs"],
  ["cored", "a core runs through"],
];

/** What hangs: its kind, finished size, netting, stiffness, which end is fuller, and what is under it. */
export function ArmatureTab({ rig, stock, problem, onCommit }: RigTabProps) {
  const { armature } = rig;
  const put = (next: Partial<Armature>) =>
    onCommit({ ...rig, armature: { ...armature, ...next } }, "Change the armature");
  const run = armature.kind === "snake" || armature.kind === "tube";
  const size = (label: string, key: "length_m" | "diameter_m" | "width_m" | "stem_cut_m") => (
    <QuantityField
      label={label}
      kind="length"
      value={armature[key]}
      path={`armature.${key}`}
      problem={problem}
      onCommit={(value) => value !== null && put({ [key]: value })}
    />
  );
  const number = (label: string, key: "turns" | "fuller_first") => (
    <QuantityField
      label={label}
      kind="ratio"
      value={armature[key]}
      path={`armature.${key}`}
      problem={problem}
      onCommit={(value) => value !== null && put({ [key]: value })}
    />
  );
  const flag = (key: "over_people" | "walkway", words: string) => (
    <label className="flex min-h-[44px] items-center gap-2">
      <input
        type="checkbox"
        className="h-5 w-5 flex-none accent-leaf"
        checked={rig[key]}
        onChange={(each) => onCommit({ ...rig, [key]: each.target.checked }, "Change what is under it")}
      />
      {words}
    </label>
  );
  return (
    <div className="grid grid-cols-5 content-start gap-3 p-3 max-lg:grid-cols-2">
      <Choice label="Kind" value={armature.kind} options={ARMATURES} onCommit={(kind) => put({ kind })} />
      {armature.kind !== "ring" && size(run ? "Finished length along it" : "Wide", "length_m")}
      {armature.kind === "panel" ? size("Deep", "width_m") : size(run ? "Thick" : "Across", "diameter_m")}
      <Choice
        label="Netting"
        value={armature.netting ?? ""}
        options={[
          ["", "not chosen"],
          ...Object.values(stock.nettings).map((each) => [each.key, each.name] as [string, string]),
        ]}
        onCommit={(key) => put({ netting: key || null })}
      />
      {run && number("Turns of the strip", "turns")}
      {run && (
        <Choice
          label="Stiffness"
          value={armature.stiffness}
          options={STIFFNESS}
          onCommit={(stiffness) => put({ stiffness })}
        />
      )}
      {size(run ? "Stems cut to" : "Stems hang down", "stem_cut_m")}
      {number("Fuller at the first end, times", "fuller_first")}
      <QuantityField
        label="Whatever else hangs on it"
        kind="mass"
        value={rig.extra_kg}
        path="extra_kg"
        problem={problem}
        onCommit={(extra_kg) => extra_kg !== null && onCommit({ ...rig, extra_kg }, "Change what else hangs")}
      />
      <div className="col-span-2">
        {flag("over_people", "Somebody can be under it or touch it")}
        {flag("walkway", "People walk under it")}
      </div>
    </div>
  );
}
