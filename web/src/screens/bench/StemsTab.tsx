import { useState } from "react";
import { isCarried } from "../../api/kinds";
import type { Piece, Problem, RecipeLine, Report, Stock } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useForms } from "../../ui/useTrade";
import { worded } from "../../units/worded";
import { ProvenRecipes } from "../ProvenRecipes";
import { LineDetails } from "./LineDetails";
import { RecipeRows } from "./RecipeRows";

type Props = {
  piece: Piece;
  report: Report | null;
  stock: Stock;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
};

const ARRANGEMENTS = [
  ["even", "mixed evenly"],
  ["clusters", "in clusters"],
  ["gradient", "a gradient"],
  ["far_side", "repeated on the far side"],
] as const;

const FEET = [
  ["on the floor", "on the floor"],
  ["to the water", "just under the water"],
] as const;

/** The recipe: varieties, counts, roles. A name that is not in the stores is answered with the nearest. */
export function StemsTab({ piece, report, stock, problem, onCommit }: Props) {
  const [open, setOpen] = useState<number | null>(null);
  const forms = useForms();
  const nameOf = (key: string) => stock.varieties[key]?.name ?? key;
  const put = (index: number, line: RecipeLine, label: string) =>
    onCommit({ ...piece, recipe: piece.recipe.map((each, at) => (at === index ? line : each)) }, label);
  return (
    <div className="p-3">
      {piece.recipe.length === 0 && (
        <p className="mt-0 mb-2">No stems yet. Start with the margins: they fix the envelope.</p>
      )}
      <div className="mb-2 grid grid-cols-4 gap-2 max-lg:grid-cols-2">
        <Choice
          label="Form"
          value={piece.envelope.form}
          options={forms}
          onCommit={(form) =>
            onCommit({ ...piece, envelope: { ...piece.envelope, form } }, "Change the form")
          }
        />
        <Choice
          label="Colour"
          value={piece.arrangement}
          options={ARRANGEMENTS}
          onCommit={(arrangement) => onCommit({ ...piece, arrangement }, "Change the colour")}
        />
        {piece.kind === "standing" && (
          <Choice
            label="Feet"
            value={piece.feet}
            options={FEET}
            onCommit={(feet) => onCommit({ ...piece, feet }, "Change where stems end")}
          />
        )}
        <QuantityField
          label="Growing points"
          kind="count"
          optional
          placeholder="as the form has it"
          value={piece.envelope.points}
          path="envelope.points"
          problem={problem}
          onCommit={(points) =>
            onCommit({ ...piece, envelope: { ...piece.envelope, points } }, "Change the growing points")
          }
        />
        {piece.kind === "standing" && piece.dealt && (
          <Button
            className="self-end"
            onClick={() => onCommit({ ...piece, dealt: null }, "Deal the seats again")}
          >
            Deal the seats again
          </Button>
        )}
        <p className="col-span-4 m-0 text-md text-soft max-lg:col-span-2">
          {piece.hand_placed.length === 0
            ? "Press a flower on the drawing to place it by hand."
            : worded("{n} placed by hand; the rest fills round {n|it|them}.", {
                n: piece.hand_placed.length,
              })}
        </p>
      </div>
      <RecipeRows
        recipe={piece.recipe}
        path="recipe"
        stock={stock}
        problem={problem}
        onCommit={(recipe, label) => onCommit({ ...piece, recipe }, label)}
        open={open}
        onOpen={setOpen}
      />
      {open !== null && piece.recipe[open] && (
        <LineDetails
          name={nameOf(piece.recipe[open].variety)}
          line={piece.recipe[open]}
          index={open}
          piece={piece}
          report={report}
          problem={problem}
          onLine={(line) => put(open, line, `Change ${nameOf(line.variety)}`)}
          onCommit={onCommit}
        />
      )}
      <ProvenRecipes
        recipe={piece.recipe}
        sizes={sizesOf(piece)}
        by={isCarried(piece) ? "diameter" : "length"}
        onTake={(recipe, label) => onCommit({ ...piece, recipe }, label)}
      />
    </div>
  );
}

/** What a recipe goes by: the mouth of a vessel, or how wide a bouquet is. */
function sizesOf(piece: Piece): { length: number; diameter: number; area: number; count: number } {
  const mouth = piece.vessel.profile.at(-1);
  const carried = isCarried(piece);
  const [wide, deep] = carried
    ? [piece.envelope.width_m, piece.envelope.depth_m]
    : [mouth?.width_m ?? 0, mouth?.depth_m ?? 0];
  return { length: Math.max(wide, deep), diameter: wide, area: wide * deep, count: 1 };
}
