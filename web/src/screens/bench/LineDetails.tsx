import type { HandPlaced, Piece, Problem, RecipeLine, Report } from "../../api/types";
import { stemsOf } from "../../drawing/stems";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useUsual } from "../../ui/useTrade";
import { worded } from "../../units/worded";
import { Shades } from "./Shades";
import { TubeFields } from "./TubeFields";

type Props = {
  name: string;
  line: RecipeLine;
  index: number;
  piece: Piece;
  report: Report | null;
  problem: Problem | null;
  onLine: (line: RecipeLine) => void;
  onCommit: (piece: Piece, label: string) => void;
};

const WATER = [
  ["vessel", "the vessel"],
  ["tube", "a stem tube each"],
  ["wrap", "a wet wrap"],
  ["cup", "a spike cup"],
  ["none", "nothing"],
] as const;
const FEET = [
  ["", "as the piece"],
  ["on the floor", "on the floor"],
  ["to the water", "just under the water"],
] as const;
const GOES_IN = [
  ["with the piece", "with the piece"],
  ["on site", "on site"],
  ["after the move", "after the move"],
  ["last", "last, before guests"],
] as const;
const PART = [
  ["stems", "whole stems"],
  ["shoots", "its side shoots"],
] as const;

/** The rest of one recipe line: clumps, what it drinks from, when it goes in, and stems of it placed by hand. */
export function LineDetails({ name, line, index, piece, report, problem, onLine, onCommit }: Props) {
  const usual = useUsual();
  const tube = line.tube ?? usual?.tube;
  const hands = piece.hand_placed.filter((each) => each.variety === line.variety);
  const putHand = (at: HandPlaced, next: Partial<HandPlaced>) =>
    onCommit(
      { ...piece, hand_placed: piece.hand_placed.map((each) => (each === at ? { ...each, ...next } : each)) },
      "Place a stem by hand",
    );
  const addHand = () => {
    if (!report) return;
    const stem = stemsOf(report.stems).find((each) => each.variety === line.variety && !each.held);
    if (!stem) return;
    const { variety, tip_x_m, tip_y_m, tip_z_m } = stem;
    const hand_placed = [...piece.hand_placed, { variety, tip_x_m, tip_y_m, tip_z_m }];
    onCommit({ ...piece, hand_placed }, "Place a stem by hand");
  };
  return (
    <section
      aria-label={`More of ${name}`}
      className="mt-2 grid grid-cols-6 gap-2 rounded border border-line p-2 max-lg:grid-cols-2"
    >
      <h3 className="col-span-6 m-0 text-md max-lg:col-span-2">{name}</h3>
      <QuantityField
        label="Pushed in, stems at once"
        kind="count"
        value={line.clump}
        path={`recipe.${index}.clump`}
        problem={problem}
        onCommit={(clump) => clump !== null && onLine({ ...line, clump })}
      />
      <Choice
        label="Which part of it"
        value={line.shoot ? "shoots" : "stems"}
        options={PART}
        onCommit={(part) => onLine({ ...line, shoot: part === "shoots" })}
      />
      <Choice
        label="Drinks from"
        value={line.water}
        options={WATER}
        onCommit={(water) => onLine({ ...line, water })}
      />
      <Choice
        label="Goes in"
        value={line.goes_in}
        options={GOES_IN}
        onCommit={(goes_in) =>
          onLine({ ...line, goes_in, goes_in_n: goes_in === "with the piece" ? null : line.goes_in_n })
        }
      />
      {line.goes_in !== "with the piece" && (
        <QuantityField
          label="So many of them"
          kind="count"
          optional
          placeholder={worded("all {n}", { n: line.count })}
          value={line.goes_in_n}
          path={`recipe.${index}.goes_in_n`}
          problem={problem}
          onCommit={(goes_in_n) => onLine({ ...line, goes_in_n })}
        />
      )}
      {line.water === "tube" && tube && (
        <TubeFields
          tube={tube}
          path={`recipe.${index}.tube`}
          onTube={(next) => onLine({ ...line, tube: next })}
        />
      )}
      {line.water === "vessel" && (
        <Choice
          label="Its feet"
          value={line.feet ?? ""}
          options={FEET}
          onCommit={(feet) => onLine({ ...line, feet: feet || null })}
        />
      )}
      {line.water === "cup" && (
        <>
          <QuantityField
            label="A cup holds"
            kind="volume"
            optional
            placeholder="as is usual"
            value={line.cup_ml === null ? null : line.cup_ml / 1000}
            path={`recipe.${index}.cup_ml`}
            problem={problem}
            onCommit={(litres) =>
              onLine({ ...line, cup_ml: litres === null ? null : Math.round(litres * 1000) })
            }
          />
          <QuantityField
            label="Its rod"
            kind="length"
            optional
            placeholder="worked out"
            value={line.rod_m}
            path={`recipe.${index}.rod_m`}
            problem={problem}
            onCommit={(rod_m) => onLine({ ...line, rod_m })}
          />
        </>
      )}
      {line.water === "wrap" && (
        <QuantityField
          label="Water in the wrap"
          kind="volume"
          optional
          placeholder="as is usual"
          value={line.wrap_ml === null ? null : line.wrap_ml / 1000}
          path={`recipe.${index}.wrap_ml`}
          problem={problem}
          onCommit={(litres) => onLine({ ...line, wrap_ml: litres === null ? null : litres * 1000 })}
        />
      )}
      <Shades
        name={name}
        line={line}
        path={`recipe.${index}.shades`}
        problem={problem}
        onLine={onLine}
        className="col-span-6 max-lg:col-span-2"
      />
      <div className="col-span-6 max-lg:col-span-2">
        {hands.map((hand) => (
          <div key={`${hand.tip_x_m}-${hand.tip_y_m}-${hand.tip_z_m}`} className="mb-1 flex items-end gap-2">
            {(["tip_x_m", "tip_y_m", "tip_z_m"] as const).map((field) => (
              <QuantityField
                key={field}
                label={
                  field === "tip_x_m"
                    ? "Tip to the right"
                    : field === "tip_y_m"
                      ? "Tip to the back"
                      : "Tip, high"
                }
                kind="length"
                value={hand[field]}
                onCommit={(value) => value !== null && putHand(hand, { [field]: value })}
                className="w-28"
              />
            ))}
            <Button
              onClick={() =>
                onCommit(
                  { ...piece, hand_placed: piece.hand_placed.filter((each) => each !== hand) },
                  "Let a stem go",
                )
              }
            >
              Let it go
            </Button>
          </div>
        ))}
        <Button onClick={addHand}>Place one by hand</Button>
      </div>
    </section>
  );
}
