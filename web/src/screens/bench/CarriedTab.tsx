import type { Bouquet, Piece, Problem, Report, Worn } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { textOf } from "../../units/text";

type Props = {
  piece: Bouquet | Worn;
  report: Report | null;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
};

type Common = Omit<Worn, "kind">;
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

/** What is held in the hand, or worn, needs beside its flowers: the hand, the hours out of water, the cooler, collar, bow and streamers. */
export function CarriedTab({ piece, report, problem, onCommit }: Props) {
  const { system } = useSettings();
  const held = piece.kind === "bouquet" ? piece : null;
  const label = held ? "Change the bouquet" : "Change what is worn";
  const put = (next: Partial<Common>) => onCommit({ ...piece, ...next }, label);
  const putHeld = (next: Partial<Bouquet>) => held && onCommit({ ...held, ...next }, label);
  const made = report?.bouquet;
  const long = (value: number) => textOf({ kind: "length", value }, system);
  const workedOut = (value: number | undefined) =>
    value === undefined ? "worked out" : `worked out: ${long(value)}`;
  return (
    <div className="grid grid-cols-5 content-start gap-3 p-3 max-lg:grid-cols-2">
      {held && (
        <QuantityField
          label="Stems below the binding"
          kind="length"
          optional
          placeholder={workedOut(made?.hand_m)}
          value={held.hand_length_m}
          path="hand_length_m"
          problem={problem}
          onCommit={(hand_length_m) => putHeld({ hand_length_m })}
        />
      )}
      <QuantityField
        label="Rise of the dome"
        kind="length"
        optional
        placeholder={workedOut(made?.dome_m)}
        value={piece.dome_m}
        path="dome_m"
        problem={problem}
        onCommit={(dome_m) => put({ dome_m })}
      />
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
      {held && report && report.mechanic.levels.length > 1 && (
        <Choice
          label="Stems at the binding"
          value={held.spiral ? "yes" : "no"}
          options={SPIRAL}
          onCommit={(spiral) => putHeld({ spiral: spiral === "yes" })}
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
      {held && made && (
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
