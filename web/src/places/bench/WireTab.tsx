import type { Piece, Problem, Report, Stock } from "../../api/types";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";

type Props = {
  piece: Piece;
  report: Report | null;
  stock: Stock;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
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
const SURFACES = [
  ["cloth", "cloth"],
  ["wood", "bare wood"],
] as const;
const FEET = [
  ["glazed", "glazed"],
  ["glass", "glass"],
  ["felt", "felt pads"],
  ["rubber", "rubber pads"],
] as const;

/** The mechanic and what the vessel stands on. */
export function WireTab({ piece, report, stock, problem, onCommit }: Props) {
  const { mechanic, setting } = piece;
  const put = (next: Partial<Piece["mechanic"]>, label = "Change the wire") =>
    onCommit({ ...piece, mechanic: { ...mechanic, ...next } }, label);
  const stand = (next: Partial<Piece["setting"]>) =>
    onCommit({ ...piece, setting: { ...setting, ...next } }, "Change the setting");
  const nettings = Object.values(stock.nettings).map((each) => [each.key, each.name] as const);
  return (
    <div className="grid grid-cols-4 content-start gap-3 p-3 max-lg:grid-cols-2">
      <Choice
        label="Netting"
        value={mechanic.netting}
        options={nettings}
        onCommit={(netting) => put({ netting })}
        className="col-span-2"
      />
      <Choice
        label="Folded to"
        value={String(mechanic.layers)}
        options={LAYERS}
        onCommit={(layers) => put({ layers: Number(layers), layer_gap_m: null })}
      />
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
      <QuantityField
        label="Squeeze"
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
      <Choice
        label="Tape strips"
        value={mechanic.tape_strips === null ? "auto" : String(mechanic.tape_strips)}
        options={STRIPS}
        onCommit={(strips) => put({ tape_strips: strips === "auto" ? null : Number(strips) })}
      />
      <QuantityField
        label="Tape width"
        kind="length"
        value={mechanic.tape_width_m}
        path="mechanic.tape_width_m"
        problem={problem}
        onCommit={(tape_width_m) => tape_width_m !== null && put({ tape_width_m })}
      />
      <QuantityField
        label="Stone in the vessel"
        kind="mass"
        value={piece.ballast_kg}
        path="ballast_kg"
        problem={problem}
        onCommit={(ballast_kg) =>
          ballast_kg !== null && onCommit({ ...piece, ballast_kg }, "Change the ballast")
        }
      />
      <Choice
        label="Stands on"
        value={setting.surface}
        options={SURFACES}
        onCommit={(surface) => stand({ surface })}
      />
      <Choice
        label="Foot"
        value={setting.foot_material}
        options={FEET}
        onCommit={(foot_material) => stand({ foot_material })}
      />
      <QuantityField
        label="Bare table all round"
        kind="length"
        optional
        placeholder="not known"
        value={setting.free_table_m}
        path="setting.free_table_m"
        problem={problem}
        onCommit={(free_table_m) => stand({ free_table_m })}
      />
    </div>
  );
}
