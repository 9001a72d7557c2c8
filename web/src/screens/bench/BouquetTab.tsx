import type { Bouquet, Piece, Problem, Report } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { textOf } from "../../units/text";

type Props = {
  piece: Bouquet;
  report: Report | null;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
};

const BACKS: readonly (readonly [Bouquet["back"], string])[] = [
  ["bare", "as it comes"],
  ["leaves", "leaves laid flat"],
  ["disc", "a covered disc"],
];
const SPIRAL = [
  ["no", "side by side"],
  ["yes", "crossed, a spiral"],
] as const;
const COLLAR = [
  ["no", "no collar"],
  ["yes", "a collar of leaves"],
] as const;

/** What a bouquet needs beside its flowers: the hand, the hours out of water, the cooler, collar, bow and streamers. */
export function BouquetTab({ piece, report, problem, onCommit }: Props) {
  const { system } = useSettings();
  const put = (next: Partial<Bouquet>) => onCommit({ ...piece, ...next }, "Change the bouquet");
  const made = report?.bouquet;
  const long = (value: number) => textOf({ kind: "length", value }, system);
  const field = (label: string, key: "dome_m" | "hand_length_m", value: number | undefined) => (
    <QuantityField
      label={label}
      kind="length"
      optional
      placeholder={value === undefined ? "worked out" : `worked out: ${long(value)}`}
      value={piece[key]}
      path={key}
      problem={problem}
      onCommit={(next) => put({ [key]: next })}
    />
  );
  return (
    <div className="grid grid-cols-5 content-start gap-3 p-3 max-lg:grid-cols-2">
      {field("Stems below the binding", "hand_length_m", made?.hand_m)}
      {field("Rise of the dome", "dome_m", made?.dome_m)}
      <QuantityField
        label="Carried out of water"
        kind="duration"
        optional
        placeholder="not known"
        value={piece.carried_h}
        path="carried_h"
        problem={problem}
        onCommit={(carried_h) => put({ carried_h })}
      />
      <QuantityField
        label="Days in the cooler before"
        kind="count"
        value={piece.cooler_days}
        path="cooler_days"
        problem={problem}
        onCommit={(cooler_days) => cooler_days !== null && put({ cooler_days })}
      />
      <Choice
        label="Underside"
        value={piece.collar ? "yes" : "no"}
        options={COLLAR}
        onCommit={(collar) => put({ collar: collar === "yes" })}
      />
      <Choice
        label="Against the body"
        value={piece.back}
        options={BACKS}
        onCommit={(back) => put({ back })}
      />
      {report && report.mechanic.levels.length > 1 && (
        <Choice
          label="Stems at the binding"
          value={piece.spiral ? "yes" : "no"}
          options={SPIRAL}
          onCommit={(spiral) => put({ spiral: spiral === "yes" })}
        />
      )}
      <QuantityField
        label="Loops of the bow"
        kind="count"
        value={piece.bow_loops}
        path="bow_loops"
        problem={problem}
        onCommit={(bow_loops) => bow_loops !== null && put({ bow_loops })}
      />
      <QuantityField
        label="Each loop"
        kind="length"
        value={piece.bow_loop_m}
        path="bow_loop_m"
        problem={problem}
        onCommit={(bow_loop_m) => bow_loop_m !== null && put({ bow_loop_m })}
      />
      <QuantityField
        label="Streamers"
        kind="count"
        value={piece.streamers}
        path="streamers"
        problem={problem}
        onCommit={(streamers) => streamers !== null && put({ streamers })}
      />
      <QuantityField
        label="Each streamer"
        kind="length"
        value={piece.streamer_m}
        path="streamer_m"
        problem={problem}
        onCommit={(streamer_m) => streamer_m !== null && put({ streamer_m })}
      />
      {made && (
        <p className="col-span-5 m-0 text-md max-lg:col-span-2">
          In the hand <strong>{textOf({ kind: "mass", value: made.carried_kg }, system)}</strong>, handle{" "}
          <strong>{long(made.handle_m)}</strong> across, <strong>{long(made.overall_m)}</strong> from cut ends
          to top; bound <strong>{long(made.neck_m)}</strong> under the flowers,{" "}
          <strong>{long(made.hand_m)}</strong> of stem below.
        </p>
      )}
    </div>
  );
}
