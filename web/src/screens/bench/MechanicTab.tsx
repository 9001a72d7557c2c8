import type { Edit, Mechanic, Piece, Problem, Report, Stock } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { useMechanics } from "../../ui/useTrade";
import { textOf } from "../../units/text";
import { worded } from "../../units/worded";

type Props = {
  piece: Piece;
  report: Report | null;
  stock: Stock;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
  onEdit: (edit: Edit) => void;
};

const LAYERS = [
  ["1", "1 layer"],
  ["2", "2 layers"],
  ["3", "3 layers"],
  ["4", "4 layers"],
] as const;
const STRIPS = [
  ["auto", "as few as hold"],
  ...["0", "1", "2", "3", "4", "5", "6"].map((each) => [each, each === "0" ? "none" : each] as const),
] as const;
const PUTTY = [
  ["auto", "where it is needed"],
  ["yes", "stuck down"],
  ["no", "not stuck"],
] as const;

type Chosen = Extract<Edit, { kind: "choose mechanic" }>["mechanic"];

/** What holds the stems: the kind of mechanic and what it is made of; the rest is worked out. */
export function MechanicTab({ piece, report, stock, problem, onCommit, onEdit }: Props) {
  const { mechanic } = piece;
  const { system } = useSettings();
  const every = useMechanics();
  const put = (next: Partial<Mechanic>, label = "Change the mechanic") =>
    onCommit({ ...piece, mechanic: { ...mechanic, ...next } }, label);
  const kinds = every.filter((each) => each.of === piece.kind);
  const about = kinds.find((each) => each.kind === mechanic.kind);
  const usable = <T,>(kind: "netting" | "frog", all: Readonly<Record<string, T>>) =>
    Object.entries(all).filter(([key]) => !stock.holdings[kind]?.[key]?.retired);
  const nettings = usable("netting", stock.nettings).map(([key, each]) => [key, each.name] as const);
  const frogs = usable("frog", stock.frogs)
    .filter(([, each]) => each.kind === about?.frog)
    .map(([key, each]) => [key, each.name] as const);
  const made = report?.mechanic;
  const reads = (field: keyof Mechanic) => about?.reads.includes(field) ?? false;
  return (
    <div className="grid grid-cols-4 content-start gap-3 p-3 max-lg:grid-cols-2">
      <Choice
        label="Mechanic"
        value={mechanic.kind}
        options={kinds.map((each) => [each.kind, each.name] as const)}
        onCommit={(kind) => onEdit({ kind: "choose mechanic", mechanic: kind as Chosen })}
        className="col-span-2"
      />
      {about?.netting && (
        <Choice
          label="Netting"
          value={mechanic.netting ?? ""}
          options={mechanic.netting ? nettings : [["", "choose one…"], ...nettings]}
          onCommit={(netting) => netting && put({ netting }, "Change the netting")}
          className="col-span-2"
        />
      )}
      {about?.frog && (
        <Choice
          label="Frog"
          value={mechanic.frog ?? ""}
          options={mechanic.frog ? frogs : [["", "choose one…"], ...frogs]}
          onCommit={(frog) => frog && put({ frog }, "Change the frog")}
          className="col-span-2"
        />
      )}
      {reads("layers") && (
        <Choice
          label="Folded to"
          value={String(mechanic.layers)}
          options={LAYERS}
          onCommit={(layers) => put({ layers: Number(layers), layer_gap_m: null })}
        />
      )}
      {reads("layer_gap_m") && (
        <QuantityField
          label="Layer gap (empty: worked out)"
          kind="length"
          optional
          placeholder="worked out"
          value={mechanic.layer_gap_m}
          path="mechanic.layer_gap_m"
          problem={problem}
          cellM={report?.cell_pitch_m}
          onCommit={(layer_gap_m) => put({ layer_gap_m })}
        />
      )}
      {about?.netting && (
        <>
          <QuantityField
            label="Hold-back of the rim"
            kind="percent"
            value={mechanic.squeeze}
            path="mechanic.squeeze"
            problem={problem}
            onCommit={(squeeze) => squeeze !== null && put({ squeeze })}
          />
          <QuantityField
            label="Edge tucked in (empty: half a cell)"
            kind="length"
            optional
            placeholder="half a cell"
            value={mechanic.tuck_m}
            path="mechanic.tuck_m"
            problem={problem}
            cellM={report?.cell_pitch_m}
            onCommit={(tuck_m) => put({ tuck_m })}
          />
        </>
      )}
      {reads("cell_m") && (
        <QuantityField
          label="Spacing (empty: usual)"
          kind="length"
          optional
          placeholder="usual"
          value={mechanic.cell_m}
          path="mechanic.cell_m"
          problem={problem}
          onCommit={(cell_m) => put({ cell_m })}
        />
      )}
      {reads("own_m") && (
        <>
          <QuantityField
            label="Your own, across (empty: worked out)"
            kind="length"
            optional
            placeholder="worked out"
            value={mechanic.own_m}
            path="mechanic.own_m"
            problem={problem}
            onCommit={(own_m) => put({ own_m })}
          />
          <QuantityField
            label="Wires each way"
            kind="count"
            optional
            placeholder="by the spacing"
            value={mechanic.own_wires}
            path="mechanic.own_wires"
            problem={problem}
            onCommit={(own_wires) => put({ own_wires })}
          />
          <QuantityField
            label="Wire, thick"
            kind="length"
            optional
            placeholder="usual"
            value={mechanic.own_wire_m}
            path="mechanic.own_wire_m"
            problem={problem}
            onCommit={(own_wire_m) => put({ own_wire_m })}
          />
        </>
      )}
      {reads("vine_rounds") && (
        <>
          <QuantityField
            label="Vine, times round"
            kind="count"
            optional
            placeholder="usual"
            value={mechanic.vine_rounds}
            path="mechanic.vine_rounds"
            problem={problem}
            onCommit={(vine_rounds) => put({ vine_rounds })}
          />
          <QuantityField
            label="Sprigs of berries"
            kind="count"
            value={mechanic.berries}
            path="mechanic.berries"
            problem={problem}
            onCommit={(berries) => berries !== null && put({ berries })}
          />
        </>
      )}
      {reads("tape_strips") && (
        <Choice
          label="Its grid"
          value={mechanic.tape_strips === 0 ? "string" : "tape"}
          options={[
            ["tape", "of tape"],
            ["string", "of string"],
          ]}
          onCommit={(of) => put({ tape_strips: of === "string" ? 0 : null })}
        />
      )}
      {reads("cup_ml") && (
        <QuantityField
          label="A cup holds"
          kind="volume"
          value={mechanic.cup_ml / 1000}
          path="mechanic.cup_ml"
          problem={problem}
          onCommit={(litres) => litres !== null && put({ cup_ml: Math.round(litres * 1000) })}
        />
      )}
      {about?.tapes && (
        <Choice
          label="Tape strips"
          value={mechanic.tape_strips === null ? "auto" : String(mechanic.tape_strips)}
          options={STRIPS}
          onCommit={(strips) => put({ tape_strips: strips === "auto" ? null : Number(strips) })}
        />
      )}
      {(about?.tapes || reads("cell_m")) && (
        <QuantityField
          label="Tape width"
          kind="length"
          value={mechanic.tape_width_m}
          path="mechanic.tape_width_m"
          problem={problem}
          onCommit={(tape_width_m) => tape_width_m !== null && put({ tape_width_m })}
        />
      )}
      {(about?.frog || about?.netting) && (
        <Choice
          label="Putty"
          value={mechanic.putty === null ? "auto" : mechanic.putty ? "yes" : "no"}
          options={PUTTY}
          onCommit={(putty) => put({ putty: putty === "auto" ? null : putty === "yes" })}
        />
      )}
      {made && (
        <p className="col-span-4 m-0 text-md text-soft max-lg:col-span-2">
          {worded("{name}: seats {n} such {n|stem|stems}, held by {by};", {
            name: made.name,
            n: made.capacity,
            by: made.seated_by,
          })}{" "}
          {textOf({ kind: "mass", value: made.mass_kg }, system)}
          {made.price === null ? "" : `, costs ${made.price.toFixed(2)}`}
          {worded(", {min} min to make, used {n} {n|time|times}", {
            min: Math.round(made.minutes),
            n: made.uses,
          })}
          {made.compostable ? ", compostable" : ""}
          {made.single_use_plastic ? ", takes single-use plastic" : ""}
          {made.lifts_off ? ", lifts off" : ""}
          {worded(". It holds stems at {n} {n|level|levels}, displaces", { n: made.levels.length })}{" "}
          {textOf({ kind: "volume", value: made.displaced_volume_l }, system)} of water
          {made.absorbed_l > 0
            ? `, soaks up ${textOf({ kind: "volume", value: made.absorbed_l }, system)}`
            : ""}
          , takes {textOf({ kind: "moment", value: made.seat_moment_n_m }, system)} before it moves
          {made.tape_share_of_mouth > 0
            ? `; tape covers ${Math.round(made.tape_share_of_mouth * 100)} % of the mouth`
            : ""}
          .
        </p>
      )}
    </div>
  );
}
