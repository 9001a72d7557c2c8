import { useState } from "react";
import { api, Refused } from "../../api/client";
import type { Armature, Problem } from "../../api/types";
import { isRun } from "../../drawing/rig";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { useUsual } from "../../ui/useTrade";
import { textOf } from "../../units/text";
import { worded } from "../../units/worded";
import type { RigTabProps } from "./types";

const KINDS: readonly (readonly [Armature["kind"], string])[] = [
  ["snake", "netting twisted to a rope"],
  ["tube", "tube"],
  ["wrapped frame", "tube wrapped on a frame"],
  ["sleeve", "sleeve with a core"],
  ["spill", "spill"],
  ["runner", "runner on a table"],
  ["panel", "flat panel"],
  ["ring", "ring or round panel"],
];
const STIFFNESS: readonly (readonly [Armature["stiffness"], string])[] = [
  ["loose", "loose, hangs as a chain"],
  ["twig-stiffened", "stiffened with twigs"],
  ["cored", "a core runs through"],
];
const CURVES = [
  ["", "all of one length"],
  ["dome", "longest in the middle"],
  ["bowl", "longest at the rim"],
  ["slope", "longer to the right"],
  ["even", "mixed"],
] as const;

/** What hangs: its kind, armature size and finished size, netting, stiffness, how full it is and how long stems hang. */
export function ArmatureTab(props: RigTabProps) {
  const { eventId, rig, stock, problem, tool, onTool, onCommit } = props;
  const { armature } = rig;
  const { system } = useSettings();
  const usual = useUsual();
  const [unsized, setUnsized] = useState<Problem | null>(null);
  const put = (next: Partial<Armature>, label = "Change the armature") =>
    onCommit({ ...rig, armature: { ...armature, ...next } }, label);
  const run = isRun(rig);
  const off = props.report?.projection_m ?? armature.projection_m;
  // Where every line says how it goes in, that decides how far the flowers stand off.
  const worked = run && rig.recipe.length > 0 && rig.recipe.every((line) => line.goes !== null);
  const ring = armature.kind === "ring";
  const size = (
    label: string,
    key: "length_m" | "diameter_m" | "width_m" | "stem_cut_m" | "projection_m",
  ) => (
    <QuantityField
      label={label}
      kind="length"
      value={armature[key]}
      path={`armature.${key}`}
      problem={problem}
      onCommit={(value) => value !== null && put({ [key]: value })}
    />
  );
  const finished = async (wanted: { length_m?: number; width_m?: number; thick_m?: number }) => {
    try {
      const sized = await api.rigFinished(eventId, rig, wanted);
      setUnsized(null);
      onCommit({ ...rig, armature: sized }, "Size it for a finished size");
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setUnsized({ ...reason.problem, path: `finished.${Object.keys(wanted)[0]}` });
    }
  };
  const finishedField = (label: string, key: "length_m" | "width_m" | "thick_m", own: number) => (
    <QuantityField
      label={label}
      kind="length"
      value={own + 2 * off}
      path={`finished.${key}`}
      problem={unsized}
      onCommit={(value) => value !== null && void finished({ [key]: value })}
    />
  );
  return (
    <div className="grid grid-cols-6 content-start gap-x-3 gap-y-2 p-3 max-lg:grid-cols-2">
      <Choice label="Kind" value={armature.kind} options={KINDS} onCommit={(kind) => put({ kind })} />
      <Choice
        label="Netting"
        value={armature.netting ?? ""}
        options={[
          ["", "not chosen"],
          ...Object.values(stock.nettings).map((each) => [each.key, each.name] as [string, string]),
        ]}
        onCommit={(key) => put({ netting: key || null })}
      />
      {!ring && size(run ? "Armature, along it" : "Armature, wide", "length_m")}
      {armature.kind === "panel"
        ? size("Armature, deep", "width_m")
        : size(run ? "Armature, thick" : "Armature, across", "diameter_m")}
      {worked ? (
        <p className="m-0 self-end pb-2 text-sm text-soft">
          Flowers stand off it by {textOf({ kind: "length", value: off }, system)}, as they go in.
        </p>
      ) : (
        size("Flowers stand off it", "projection_m")
      )}
      {armature.kind === "panel" ? (
        <>
          {finishedField("Finished, wide", "length_m", armature.length_m)}
          {finishedField("Finished, deep", "width_m", armature.width_m)}
        </>
      ) : (
        <>
          {run && finishedField("Finished, long", "length_m", armature.length_m)}
          {finishedField(run ? "Finished, thick" : "Finished, across", "thick_m", armature.diameter_m)}
        </>
      )}
      {run && (
        <>
          <QuantityField
            label="Turns of the strip"
            kind="ratio"
            value={armature.turns}
            path="armature.turns"
            problem={problem}
            onCommit={(turns) => turns !== null && put({ turns })}
          />
          <QuantityField
            label="Carried in sections"
            kind="count"
            value={armature.sections}
            path="armature.sections"
            problem={problem}
            onCommit={(sections) => sections !== null && put({ sections, joints_m: [] })}
          />
          <Joints
            armature={armature}
            problem={problem}
            onCommit={(joints_m) => put({ joints_m }, "Move a joint")}
          />
          {armature.kind !== "wrapped frame" && armature.stiffness === "twig-stiffened" && (
            <QuantityField
              label="Dry twigs through it"
              kind="count"
              optional
              placeholder="as usual"
              value={armature.pegs}
              path="armature.pegs"
              problem={problem}
              onCommit={(pegs) => put({ pegs })}
            />
          )}
          <Choice
            label="Stiffness"
            value={armature.stiffness}
            options={STIFFNESS}
            onCommit={(stiffness) => put({ stiffness })}
          />
          <Choice
            label="Cord through it"
            path="armature.carrier.fitting"
            value={armature.carrier ? String(armature.carrier.size_m) : ""}
            options={[
              ["", "none"],
              ...(usual?.cords_m ?? []).map(
                (each) => [String(each), `cord, ${textOf({ kind: "length", value: each }, system)}`] as const,
              ),
            ]}
            onCommit={(mm) =>
              put({
                carrier: mm && usual ? { ...usual.tie, size_m: Number(mm) } : null,
              })
            }
          />
        </>
      )}
      {armature.kind === "sleeve" && (
        <QuantityField
          label="Core in its foot"
          kind="mass"
          value={armature.core_kg}
          path="armature.core_kg"
          problem={problem}
          onCommit={(core_kg) => core_kg !== null && put({ core_kg })}
        />
      )}
      {!run && (
        <Choice
          label="Hung stems are"
          value={armature.drop?.curve ?? ""}
          options={CURVES}
          onCommit={(curve) =>
            put({
              drop: curve
                ? {
                    shortest_m: armature.drop?.shortest_m ?? armature.stem_cut_m / 2,
                    longest_m: armature.drop?.longest_m ?? armature.stem_cut_m,
                    curve,
                  }
                : null,
            })
          }
        />
      )}
      {armature.drop === null && size(run ? "Stems cut to" : "Stems hang down", "stem_cut_m")}
      {armature.drop !== null &&
        (["shortest_m", "longest_m"] as const).map((key) => (
          <QuantityField
            key={key}
            label={key === "shortest_m" ? "The shortest" : "The longest"}
            kind="length"
            value={armature.drop?.[key] ?? null}
            path={`armature.drop.${key}`}
            problem={problem}
            onCommit={(value) =>
              value !== null && armature.drop && put({ drop: { ...armature.drop, [key]: value } })
            }
          />
        ))}
      {rig.recipe.some(
        (line) => line.goes === "hung" || (line.goes === null && armature.drop !== null && !run),
      ) && (
        <>
          <QuantityField
            label="Wire of a hook, at least"
            kind="length"
            optional
            placeholder="worked out"
            value={armature.hook_wire_m}
            path="armature.hook_wire_m"
            problem={problem}
            onCommit={(hook_wire_m) => put({ hook_wire_m })}
          />
          <QuantityField
            label="thick"
            kind="length"
            optional
            placeholder="worked out"
            value={armature.hook_gauge_m}
            path="armature.hook_gauge_m"
            problem={problem}
            onCommit={(hook_gauge_m) => put({ hook_gauge_m })}
          />
        </>
      )}
      <QuantityField
        label="What else hangs on it"
        kind="mass"
        value={rig.extra_kg}
        path="extra_kg"
        problem={problem}
        onCommit={(extra_kg) => extra_kg !== null && onCommit({ ...rig, extra_kg }, "Change what else hangs")}
      />
      <div className="col-span-full flex flex-wrap items-center gap-3">
        {(["fuller", "thinner"] as const).map((brush) => (
          <Button
            key={brush}
            look={tool === brush ? "solid" : "plain"}
            aria-pressed={tool === brush}
            onClick={() => onTool(tool === brush ? "hand" : brush)}
          >
            Paint it {brush}
          </Button>
        ))}
        <Button disabled={armature.density.length === 0} onClick={() => put({ density: [] }, "Even again")}>
          Even again
        </Button>
        <span className="text-sm text-soft">
          {tool === "fuller" || tool === "thinner"
            ? `Stroke along it on the front view where it is to be ${tool}. Esc puts the brush down.`
            : "Where it is fuller it is heavier: lines and points follow."}
        </span>
      </div>
    </div>
  );
}

type JointsProps = {
  armature: Armature;
  problem: Problem | null;
  onCommit: (joints_m: number[]) => void;
};

/** Where the sections of a run meet: evenly, until one of the joints is moved. */
function Joints({ armature, problem, onCommit }: JointsProps) {
  const parts = armature.joints_m.length ? armature.joints_m.length + 1 : armature.sections;
  const joints = armature.joints_m.length
    ? armature.joints_m
    : Array.from({ length: parts - 1 }, (_, at) => (armature.length_m * (at + 1)) / parts);
  return joints.map((joint, index) => (
    <QuantityField
      // biome-ignore lint/suspicious/noArrayIndexKey: a joint is known by its place
      key={index}
      label={worded("Joint {n}, along it", { n: index + 1 })}
      kind="length"
      value={joint}
      path={`armature.joints_m.${index}`}
      problem={problem}
      onCommit={(value) =>
        value !== null && onCommit(joints.map((each, at) => (at === index ? value : each)))
      }
    />
  ));
}
