import { Ellipsis, Plus, X } from "lucide-react";
import { type ReactNode, useId } from "react";
import type { Problem, RecipeLine, Role, Stock } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";

type Props = {
  recipe: readonly RecipeLine[];
  /** Dotted path of the recipe, as problems name it. */
  path: string;
  stock: Stock;
  problem: Problem | null;
  onCommit: (recipe: RecipeLine[], label: string) => void;
  /** The line whose details are open, where there are any. */
  open?: number | null;
  onOpen?: (line: number | null) => void;
  className?: string;
  /** What more is asked of each line, in its own row. */
  more?: (line: RecipeLine, onLine: (line: RecipeLine) => void) => ReactNode;
};

const ROLES: readonly (readonly [Role, string])[] = [
  ["margin", "margin"],
  ["base", "base"],
  ["focal", "focal"],
  ["line", "line"],
  ["filler", "filler"],
  ["airy", "airy"],
];

/** A recipe as rows: how many of which variety in which role. A name that is not in the stores is answered with the nearest. */
export function RecipeRows({ recipe, path, stock, problem, onCommit, open, onOpen, className, more }: Props) {
  const names = useId();
  const nameOf = (key: string) => stock.varieties[key]?.name ?? key;
  const keyOf = (typed: string) => {
    const wanted = typed.trim().toLowerCase();
    const found = Object.values(stock.varieties).find(
      (each) => each.name.toLowerCase() === wanted || each.key === wanted,
    );
    return found?.key ?? wanted.slice(0, 60);
  };
  const put = (index: number, line: RecipeLine, label: string) =>
    onCommit(
      recipe.map((each, at) => (at === index ? line : each)),
      label,
    );
  const add = () => {
    const taken = new Set(recipe.map((line) => line.variety));
    const role: Role = recipe.length === 0 ? "margin" : "filler";
    const used = Object.keys(stock.varieties).filter((key) => !stock.holdings.variety?.[key]?.retired);
    const keys = ["ruscus", "ranunculus", "spray-rose", "carnation", ...used];
    const variety = keys.find((key) => !taken.has(key) && stock.varieties[key]);
    if (!variety) return;
    onCommit([...recipe, lineOf(variety, role)], `Add ${nameOf(variety)}`);
  };
  return (
    <>
      <datalist id={names}>
        {Object.values(stock.varieties).map((each) => (
          <option key={each.key} value={each.name} />
        ))}
      </datalist>
      <ul
        className={`m-0 grid list-none gap-x-6 gap-y-2 p-0 ${className ?? "grid-cols-2 max-lg:grid-cols-1"}`}
      >
        {recipe.map((line, index) => (
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
              path={`${path}.${index}.count`}
              problem={problem}
              onCommit={(count) =>
                count !== null && put(index, { ...line, count }, `Change ${nameOf(line.variety)}`)
              }
              className="w-14 flex-none"
            />
            <TextField
              label="Variety"
              hideLabel
              list={names}
              value={nameOf(line.variety)}
              path={`${path}.${index}.variety`}
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
            {more?.(line, (next) => put(index, next, `Change ${nameOf(line.variety)}`))}
            {onOpen && (
              <Button
                look="quiet"
                className="w-11 flex-none px-0"
                aria-expanded={open === index}
                onClick={() => onOpen(open === index ? null : index)}
              >
                <Ellipsis size={18} aria-hidden="true" />
                <span className="sr-only">More of {nameOf(line.variety)}</span>
              </Button>
            )}
            <Button
              look="quiet"
              className="w-11 flex-none px-0"
              onClick={() =>
                onCommit(
                  recipe.filter((_, at) => at !== index),
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
    </>
  );
}

function lineOf(variety: string, role: Role): RecipeLine {
  return { variety, count: 5, role, clump: 1, water: "vessel", tube: null, wrap_ml: null, on_site: false };
}
