import type { Mount } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { useUsual } from "../../ui/useTrade";
import { Flag } from "./Flag";
import type { RigTabProps } from "./types";

const KINDS: readonly (readonly [Mount["kind"] | "", string])[] = [
  ["", "nothing: it hangs"],
  ["frame", "a free-standing frame"],
  ["stand", "a free-standing stand"],
  ["wall", "a wall"],
  ["column", "a column of the building"],
];
const OUTLINES: readonly (readonly [Mount["outline"], string])[] = [
  ["hoop", "hoop"],
  ["arch", "arch"],
  ["rail", "rail"],
];
const FEET: readonly (readonly [NonNullable<Mount["foot_material"]> | "", string])[] = [
  ["", "not known"],
  ["rubber", "rubber pads"],
  ["felt", "felt"],
  ["glazed", "smooth, glazed"],
  ["glass", "bare metal or glass"],
];
const SURFACES: readonly (readonly [NonNullable<Mount["surface"]> | "", string])[] = [
  ["", "not known"],
  ["wood", "wood"],
  ["stone", "stone or paving"],
  ["cloth", "carpet or cloth"],
];
type Length = "x_m" | "width_m" | "height_m" | "foot_width_m" | "foot_depth_m" | "arm_m" | "bears_below_m";
type Weight = "mass_kg" | "ballast_kg" | "load_kg";
const TESTED: readonly (readonly [Mount["load_from"], string])[] = [
  ["maker", "its maker"],
  ["trial", "a trial, ten minutes"],
];

/** What it is mounted on: a frame's feet, weight and ballast in wind; a wall and how far the work stands out from it. */
export function MountTab({ rig, problem, onCommit }: RigTabProps) {
  const { mount } = rig;
  const usual = useUsual();
  const put = (next: Partial<Mount>) =>
    usual &&
    onCommit({ ...rig, mount: { ...usual.mount, ...mount, ...next } }, "Change what it is mounted on");
  const stands = mount?.kind === "frame" || mount?.kind === "stand";
  const length = (label: string, key: Length) => (
    <QuantityField
      label={label}
      kind="length"
      value={mount?.[key] ?? null}
      path={`mount.${key}`}
      problem={problem}
      onCommit={(value) => value !== null && put({ [key]: value })}
    />
  );
  const weight = (label: string, key: Weight, optional: boolean) => (
    <QuantityField
      label={label}
      kind="mass"
      optional={optional}
      placeholder={key === "load_kg" ? "ask, or try it" : "not weighed"}
      value={mount?.[key] ?? null}
      path={`mount.${key}`}
      problem={problem}
      onCommit={(value) => (value !== null || optional) && put({ [key]: value })}
    />
  );
  const words = (label: string, key: "load_by" | "load_on" | "signed_by", placeholder: string) => (
    <TextField
      label={label}
      placeholder={placeholder}
      value={mount?.[key] ?? ""}
      path={`mount.${key}`}
      problem={problem}
      onCommit={(text) => put({ [key]: text.trim() || null })}
    />
  );
  return (
    <div className="grid grid-cols-6 content-start gap-x-3 gap-y-2 p-3 max-lg:grid-cols-2">
      <Choice
        label="Mounted on"
        path="mount"
        value={mount?.kind ?? ""}
        options={KINDS}
        onCommit={(kind) =>
          kind ? put({ kind }) : onCommit({ ...rig, mount: null }, "It hangs, mounted on nothing")
        }
      />
      {mount?.kind === "frame" && (
        <Choice
          label="Shape"
          value={mount.outline}
          options={OUTLINES}
          onCommit={(outline) => put({ outline })}
        />
      )}
      {mount && mount.kind !== "wall" && (
        <>
          {length(mount.kind === "frame" ? "Frame, wide" : "Across", "width_m")}
          {length("High", "height_m")}
          {length("Its middle, right", "x_m")}
        </>
      )}
      {stands && (
        <>
          {length("Feet, wide", "foot_width_m")}
          {length("Feet, deep", "foot_depth_m")}
          <Choice
            label="Its feet"
            path="mount.foot_material"
            value={mount?.foot_material ?? ""}
            options={FEET}
            onCommit={(feet) => put({ foot_material: feet || null })}
          />
          <Choice
            label="stand on"
            path="mount.surface"
            value={mount?.surface ?? ""}
            options={SURFACES}
            onCommit={(surface) => put({ surface: surface || null })}
          />
          {weight("It weighs", "mass_kg", true)}
          {weight("Ballast, each foot", "ballast_kg", false)}
          <TextField
            label="Guyed or tied to"
            placeholder="nothing yet"
            value={mount?.tied_to ?? ""}
            path="mount.tied_to"
            problem={problem}
            onCommit={(to) => put({ tied_to: to.trim() || null })}
          />
          {weight("It may carry", "load_kg", true)}
          <Choice
            label="as shown by"
            value={mount?.load_from ?? "maker"}
            options={TESTED}
            onCommit={(load_from) => put({ load_from })}
          />
          {words("Stated by", "load_by", "who")}
          {words("On", "load_on", "date")}
          {rig.below !== "nobody" && words("Signed for by", "signed_by", "a competent person")}
          <Flag
            checked={mount?.outdoors ?? false}
            words="outdoors, in wind"
            onCommit={(outdoors) => put({ outdoors })}
          />
          {mount?.outdoors && (
            <Choice
              label="Comes down above"
              value={String(mount.comes_down_above)}
              options={[2, 3, 4, 5, 6, 7].map((each) => [String(each), `Beaufort ${each}`] as const)}
              onCommit={(force) => put({ comes_down_above: Number(force) })}
            />
          )}
        </>
      )}
      {mount?.kind === "wall" && (
        <>
          {length("Its middle stands out", "arm_m")}
          {length("Leans on it, under a screw", "bears_below_m")}
        </>
      )}
      {!mount && (
        <>
          <Flag
            checked={rig.outdoors}
            words="it hangs outdoors, in wind"
            onCommit={(outdoors) => onCommit({ ...rig, outdoors }, "Change whether it hangs outdoors")}
          />
          {rig.outdoors && (
            <Choice
              label="Comes down above"
              value={String(rig.comes_down_above)}
              options={[2, 3, 4, 5, 6, 7].map((each) => [String(each), `Beaufort ${each}`] as const)}
              onCommit={(force) =>
                onCommit({ ...rig, comes_down_above: Number(force) }, "Change when it comes down")
              }
            />
          )}
        </>
      )}
      <p className="col-span-full m-0 text-sm text-soft">
        {mount?.kind === "wall"
          ? "The farther it stands out, the harder a screw is pulled out of the wall. The owner says what screws hold there."
          : stands
            ? "A frame with people by it is guyed or tied to something fixed, whatever its ballast. A trial hangs half as much again as is counted on it for ten minutes, with nobody under it."
            : mount?.kind === "column"
              ? "Bands round a column are hang points: the owner says what may go round it."
              : "Hung work needs nothing here."}
      </p>
    </div>
  );
}
