import { Plus, X } from "lucide-react";
import type { Piece, Problem, RecipeLine, Role, Stock } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";

type Props = {
  piece: Piece;
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

/** The recipe: varieties, counts, roles. A name that is not in the stores is answered with the nearest. */
export function StemsTab({ piece, stock, problem, onCommit }: Props) {
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
    const keys = ["ruscus", "ranunculus", "spray-rose", "carnation", ...Object.keys(stock.varieties)];
    const variety = keys.find((key) => !taken.has(key) && stock.varieties[key]);
    if (!variety) return;
    const line: RecipeLine = { variety, count: 5, role, clump: 1 };
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
      <Button className="mt-2" onClick={add}>
        <Plus size={18} aria-hidden="true" /> Add a variety
      </Button>
    </div>
  );
}
