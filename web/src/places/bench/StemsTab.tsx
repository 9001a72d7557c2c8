import { Ellipsis, Plus, X } from "lucide-react";
import { useState } from "react";
import type { Piece, Problem, RecipeLine, Report, Role, Stock } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { LineDetails } from "./LineDetails";

type Props = {
  piece: Piece;
  report: Report | null;
  stock: Stock;
  problem: Problem | null;
  onCommit: (piece: Piece, label: string) => void;
};

const ROLES: readonly (readonly [Role, string])[] = [
  ["margin", "margin"],
  ["base", "base"],
  ["focal", "focal"],
  ["line", "line"],
  ["filler", "filler"],
  ["airy", "airy"],
];

const FORMS = [
  ["dome", "all-round dome"],
  ["fan", "fan, front-facing"],
  ["sweep", "lopsided sweep"],
  ["mound", "low mound"],
  ["horizontal", "horizontal"],
  ["garden", "garden, several points"],
  ["free", "free"],
] as const;
const ARRANGEMENTS = [
  ["even", "mixed evenly"],
  ["clusters", "in clusters"],
  ["gradient", "a gradient"],
  ["far_side", "repeated on the far side"],
] as const;

/** The recipe: varieties, counts, roles. A name that is not in the stores is answered with the nearest. */
export function StemsTab({ piece, report, stock, problem, onCommit }: Props) {
  const [open, setOpen] = useState<number | null>(null);
  const nameOf = (key: string) => stock.varieties[key]?.name ?? key;
  const keyOf = (typed: string) => {
    const wanted = typed.trim().toLowerCase();
    const found = Object.values(stock.varieties).find(
      (each) => each.name.toLowerCase() === wanted || each.key === wanted,
    );
    return found?.key ?? wanted.slice(0, 60);
  };
  const put = (index: number, line: RecipeLine, label: string) =>
    onCommit({ ...piece, recipe: piece.recipe.map((each, at) => (at === index ? line : each)) }, label);
  const add = () => {
    const taken = new Set(piece.recipe.map((line) => line.variety));
    const role: Role = piece.recipe.length === 0 ? "margin" : "filler";
    const used = Object.keys(stock.varieties).filter((key) => !stock.holdings.variety?.[key]?.retired);
    const keys = ["ruscus", "ranunculus", "spray-rose", "carnation", ...used];
    const variety = keys.find((key) => !taken.has(key) && stock.varieties[key]);
    if (!variety) return;
    const line: RecipeLine = {
      variety,
      count: 5,
      role,
      clump: 1,
      water: "vessel",
      tube: null,
      wrap_ml: null,
      on_site: false,
    };
    onCommit({ ...piece, recipe: [...piece.recipe, line] }, `Add ${nameOf(variety)}`);
  };
  return (
    <div className="p-3">
      <datalist id="variety-names">
        {Object.values(stock.varieties).map((each) => (
          <option key={each.key} value={each.name} />
        ))}
      </datalist>
      {piece.recipe.length === 0 && (
        <p className="mt-0 mb-2">No stems yet. Start with the margins: they fix the envelope.</p>
      )}
      <div className="mb-2 grid grid-cols-4 gap-2 max-lg:grid-cols-2">
        <Choice
          label="Form"
          value={piece.envelope.form}
          options={FORMS}
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
        <p className="col-span-2 m-0 self-end pb-2 text-[15px] text-soft">
          {piece.hand_placed.length === 0
            ? "Press a flower on the drawing to place it by hand."
            : `${piece.hand_placed.length} placed by hand; the rest fills round them.`}
        </p>
      </div>
      <ul className="m-0 grid list-none grid-cols-2 gap-x-6 gap-y-2 p-0 max-lg:grid-cols-1">
        {piece.recipe.map((line, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a recipe may name one variety twice; its place is its name
          <li key={`${index}-${line.variety}`} className="flex items-center gap-1.5">
            <span
              aria-hidden="true"
              className="h-5 w-5 flex-none rounded-full border border-ink/40"
              style={{ background: stock.varieties[line.variety]?.colour }}
            />
            <QuantityField
              label={`How many ${nameOf(line.variety)}`}
              hideLabel
              kind="count"
              value={line.count}
              path={`recipe.${index}.count`}
              problem={problem}
              onCommit={(count) =>
                count !== null && put(index, { ...line, count }, `Change ${nameOf(line.variety)}`)
              }
              className="w-14 flex-none"
            />
            <TextField
              label="Variety"
              hideLabel
              list="variety-names"
              value={nameOf(line.variety)}
              path={`recipe.${index}.variety`}
              problem={problem}
              onCommit={(typed) => put(index, { ...line, variety: keyOf(typed) }, "Change a variety")}
              className="min-w-0 flex-1"
            />
            <Choice
              label={`Role of ${nameOf(line.variety)}`}
              hideLabel
              value={line.role}
              options={ROLES}
              onCommit={(role) => put(index, { ...line, role }, `Change the role of ${nameOf(line.variety)}`)}
              className="w-[92px] flex-none"
            />
            <Button
              look="quiet"
              className="w-11 flex-none px-0"
              aria-expanded={open === index}
              onClick={() => setOpen(open === index ? null : index)}
            >
              <Ellipsis size={18} aria-hidden="true" />
              <span className="sr-only">More of {nameOf(line.variety)}</span>
            </Button>
            <Button
              look="quiet"
              className="w-11 flex-none px-0"
              onClick={() =>
                onCommit(
                  { ...piece, recipe: piece.recipe.filter((_, at) => at !== index) },
                  `Take out ${nameOf(line.variety)}`,
                )
              }
            >
              <X size={18} aria-hidden="true" />
              <span className="sr-only">Take out {nameOf(line.variety)}</span>
            </Button>
          </li>
        ))}
      </ul>
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
      <Button className="mt-2" onClick={add}>
        <Plus size={18} aria-hidden="true" /> Add a variety
      </Button>
    </div>
  );
}
