import { Plus } from "lucide-react";
import type {
  Companion,
  Counterweight,
  Edit,
  Piece,
  Problem,
  Report,
  Spill,
  Standing,
  Stock,
} from "../../api/types";
import { EditButton } from "../../desk/Editing";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { TextField } from "../../ui/TextField";
import { useUsual } from "../../ui/useTrade";
import { cutLengthText, textOf } from "../../units/text";
import { RecipeRows } from "./RecipeRows";

type Props = {
  piece: Standing;
  report: Report | null;
  stock: Stock;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
  onEdit: (edit: Edit) => void;
};

const TIED = [
  ["yes", "tied to the vessel"],
  ["no", "merely stands there"],
] as const;
const TO_BASE = [
  ["no", "stands by itself"],
  ["yes", "tied to one base"],
] as const;
const HELD = [
  ["hook", "a hook of its own"],
  ["vessel", "the vessel"],
] as const;
const SIDES = [
  [String(Math.PI), "behind"],
  ["0", "in front"],
  [String(Math.PI / 2), "to the right"],
  [String(1.5 * Math.PI), "to the left"],
] as const;

/** What stands or hangs beside the piece's own vessel: a weight, other vessels, a spill over the ledge's edge. */
export function BesideTab({ piece, report, stock, problem, onCommit, onEdit }: Props) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)] gap-6 p-3 max-lg:grid-cols-1">
      <div className="space-y-3">
        <Weight piece={piece} problem={problem} onCommit={onCommit} />
        <SpillFields piece={piece} report={report} stock={stock} problem={problem} onCommit={onCommit} />
      </div>
      <Companions piece={piece} stock={stock} problem={problem} onCommit={onCommit} onEdit={onEdit} />
    </div>
  );
}

function Weight({ piece, problem, onCommit }: Pick<Props, "piece" | "problem" | "onCommit">) {
  const weight = piece.counterweight;
  const put = (next: Partial<Counterweight>) =>
    weight && onCommit({ ...piece, counterweight: { ...weight, ...next } }, "Change the counterweight");
  if (!weight) {
    return (
      <EditButton what={{ kind: "add counterweight" }}>
        <Plus size={18} aria-hidden="true" /> Add a counterweight
      </EditButton>
    );
  }
  return (
    <section aria-label="Counterweight" className="grid grid-cols-4 items-end gap-2">
      <QuantityField
        label="Counterweight"
        kind="mass"
        value={weight.mass_kg}
        path="counterweight.mass_kg"
        problem={problem}
        onCommit={(mass_kg) => mass_kg !== null && put({ mass_kg })}
      />
      <QuantityField
        label="From its middle"
        kind="length"
        value={weight.away_m}
        path="counterweight.away_m"
        problem={problem}
        onCommit={(away_m) => away_m !== null && put({ away_m })}
      />
      <Choice
        label="Where"
        value={nearestSide(weight.azimuth_rad)}
        options={SIDES}
        onCommit={(azimuth) => put({ azimuth_rad: Number(azimuth) })}
      />
      <Choice
        label="How"
        value={weight.tied ? "yes" : "no"}
        options={TIED}
        onCommit={(tied) => put({ tied: tied === "yes" })}
      />
      {!weight.tied && (
        <p className="col-span-3 m-0 text-sm text-berry">A weight that merely stands there holds nothing.</p>
      )}
      <Button
        look="quiet"
        onClick={() => onCommit({ ...piece, counterweight: null }, "Take the counterweight away")}
      >
        Take away
      </Button>
    </section>
  );
}

function nearestSide(azimuth: number): (typeof SIDES)[number][0] {
  const away = (key: string) => Math.abs(Math.sin((Number(key) - azimuth) / 2));
  return SIDES.toSorted(([a], [b]) => away(a) - away(b))[0]?.[0] ?? SIDES[0][0];
}

function SpillFields({ piece, report, stock, problem, onCommit }: Omit<Props, "onEdit">) {
  const { spill } = piece;
  const usual = useUsual();
  const { system } = useSettings();
  const put = (next: Partial<Spill>, label = "Change the spill") =>
    usual && onCommit({ ...piece, spill: { ...(spill ?? usual.spill), ...next } }, label);
  if (!spill) {
    return (
      <div>
        <Button onClick={() => put({}, "Hang a spill")} disabled={piece.setting.where !== "ledge"}>
          <Plus size={18} aria-hidden="true" /> Hang a spill over the edge
        </Button>
        {piece.setting.where !== "ledge" && (
          <p className="mt-1 mb-0 text-sm text-soft">
            A spill hangs from a ledge: stand the piece on one under Place and road.
          </p>
        )}
      </div>
    );
  }
  const nettings = Object.entries(stock.nettings).map(([key, each]) => [key, each.name] as const);
  const made = report?.spill;
  return (
    <section aria-label="Spill" className="grid grid-cols-3 items-end gap-2">
      <QuantityField
        label="Spill hangs"
        kind="length"
        value={spill.drop_m}
        path="spill.drop_m"
        problem={problem}
        onCommit={(drop_m) => drop_m !== null && put({ drop_m })}
      />
      <QuantityField
        label="Flat width"
        kind="length"
        value={spill.width_m}
        path="spill.width_m"
        problem={problem}
        onCommit={(width_m) => width_m !== null && put({ width_m })}
      />
      <QuantityField
        label="Stems cut to"
        kind="length"
        value={spill.cut_length_m}
        path="spill.cut_length_m"
        problem={problem}
        onCommit={(cut_length_m) => cut_length_m !== null && put({ cut_length_m })}
      />
      <Choice
        label="Netting"
        value={spill.netting ?? piece.mechanic.netting ?? ""}
        options={nettings}
        onCommit={(netting) => put({ netting })}
      />
      <Choice label="Held by" value={spill.held_by} options={HELD} onCommit={(held_by) => put({ held_by })} />
      {spill.held_by === "hook" && (
        <>
          <QuantityField
            label="Hook is rated"
            kind="force"
            optional
            placeholder="not known"
            value={spill.hook_n}
            path="spill.hook_n"
            problem={problem}
            onCommit={(hook_n) => put({ hook_n })}
          />
          <TextField
            label="Stated by"
            value={spill.hook_stated_by ?? ""}
            placeholder="nobody yet"
            path="spill.hook_stated_by"
            problem={problem}
            onCommit={(by) => put({ hook_stated_by: by.trim() || null })}
          />
        </>
      )}
      {made && (
        <p className="col-span-3 m-0 text-sm text-soft">
          Cut {cutLengthText(made.sheet.width_m, system)} × {cutLengthText(made.sheet.length_m, system)} (
          {made.sheet.cells_across} cells × {made.sheet.rows_along} rows); it weighs{" "}
          {textOf({ kind: "mass", value: made.hanging_kg }, system)} finished.
        </p>
      )}
      <div className="col-span-3">
        <RecipeRows
          recipe={spill.recipe}
          path="spill.recipe"
          stock={stock}
          problem={problem}
          onCommit={(recipe, label) => put({ recipe }, label)}
          className="grid-cols-1"
        />
        <Button look="quiet" onClick={() => onCommit({ ...piece, spill: null }, "Take the spill off")}>
          Take the spill off
        </Button>
      </div>
    </section>
  );
}

function Companions({ piece, stock, problem, onCommit, onEdit }: Omit<Props, "report">) {
  const put = (index: number, next: Partial<Companion>, label = "Change a companion") =>
    onCommit(
      {
        ...piece,
        companions: piece.companions.map((each, at) => (at === index ? { ...each, ...next } : each)),
      },
      label,
    );
  const kept = Object.entries(stock.vessels).filter(([key]) => !stock.holdings.vessel?.[key]?.retired);
  const vessels = [["", "Add a vessel beside it…"], ...kept.map(([key, each]) => [key, each.name])] as [
    string,
    string,
  ][];
  const add = (vessel: string) => {
    if (vessel) onEdit({ kind: "add companion", vessel });
  };
  return (
    <section aria-label="Other vessels" className="space-y-3">
      {piece.companions.map((each, index) => (
        <div
          // biome-ignore lint/suspicious/noArrayIndexKey: two companions may be the same vessel; the place is the name
          key={index}
          className="grid grid-cols-4 items-end gap-2 border-b border-line pb-3"
        >
          <TextField
            label="Other vessel"
            value={each.name}
            path={`companions.${index}.name`}
            problem={problem}
            onCommit={(name) => put(index, { name })}
            className="col-span-2"
          />
          <Choice
            label="Stands"
            value={each.tied ? "yes" : "no"}
            options={TO_BASE}
            onCommit={(tied) => put(index, { tied: tied === "yes" })}
          />
          <Button
            look="quiet"
            onClick={() =>
              onCommit(
                { ...piece, companions: piece.companions.filter((_, at) => at !== index) },
                `Take ${each.name} away`,
              )
            }
          >
            Take away
          </Button>
          {(
            [
              ["x_m", "To the right"],
              ["y_m", "To the back"],
              ["water_level_m", "Water"],
            ] as const
          ).map(([field, label]) => (
            <QuantityField
              key={field}
              label={label}
              kind="length"
              value={each[field]}
              path={`companions.${index}.${field}`}
              problem={problem}
              onCommit={(value) => value !== null && put(index, { [field]: value })}
            />
          ))}
          <QuantityField
            label="Flowers high"
            kind="length"
            value={each.envelope.height_m}
            path={`companions.${index}.envelope.height_m`}
            problem={problem}
            onCommit={(height_m) =>
              height_m !== null && put(index, { envelope: { ...each.envelope, height_m } })
            }
          />
          <QuantityField
            label="Flowers wide"
            kind="length"
            value={each.envelope.width_m}
            path={`companions.${index}.envelope.width_m`}
            problem={problem}
            onCommit={(width_m) =>
              width_m !== null && put(index, { envelope: { ...each.envelope, width_m, depth_m: width_m } })
            }
          />
          <QuantityField
            label="It weighs, empty"
            kind="mass"
            optional
            placeholder="not weighed"
            value={each.vessel.mass_kg}
            path={`companions.${index}.vessel.mass_kg`}
            problem={problem}
            onCommit={(mass_kg) => put(index, { vessel: { ...each.vessel, mass_kg } })}
          />
          <QuantityField
            label="Its foot, across"
            kind="length"
            optional
            placeholder="not measured"
            value={each.vessel.foot_width_m}
            path={`companions.${index}.vessel.foot_width_m`}
            problem={problem}
            onCommit={(foot_width_m) => put(index, { vessel: { ...each.vessel, foot_width_m } })}
          />
          <div className="col-span-4">
            <RecipeRows
              recipe={each.recipe}
              path={`companions.${index}.recipe`}
              stock={stock}
              problem={problem}
              onCommit={(recipe, label) => put(index, { recipe }, label)}
              className="grid-cols-1"
            />
          </div>
        </div>
      ))}
      {piece.companions.length < 4 && (
        <Choice label="Several vessels as one composition" value="" options={vessels} onCommit={add} />
      )}
    </section>
  );
}
