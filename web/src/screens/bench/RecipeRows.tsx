import { Ellipsis, Plus, X } from "lucide-react";
import { type ReactNode, useId, useState } from "react";
import type { Problem, RecipeLine, Role, Stock, Variety } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { useUsual } from "../../ui/useTrade";

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
    if (found) return found.key;
    // another name of just one variety is that variety; one that two have is asked about
    const called = Object.values(stock.varieties).filter(
      (each) =>
        each.botanical.toLowerCase() === wanted || each.names.some((name) => name.toLowerCase() === wanted),
    );
    return called.length === 1 && called[0] ? called[0].key : wanted.slice(0, 60);
  };
  const put = (index: number, line: RecipeLine, label: string) =>
    onCommit(
      recipe.map((each, at) => (at === index ? line : each)),
      label,
    );
  return (
    <>
      <datalist id={names}>
        {Object.values(stock.varieties).map((each) => (
          <option key={each.key} value={each.name}>
            {[...each.names, each.botanical].filter(Boolean).join(", ")}
          </option>
        ))}
      </datalist>
      <ul
        className={`m-0 grid list-none gap-x-6 gap-y-2 p-0 ${className ?? "grid-cols-2 max-lg:grid-cols-1"}`}
      >
        {recipe.map((line, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a recipe may name one variety twice; its place is its name
            key={`${index}-${line.variety}`}
            data-path={`${path}.${index}`}
            className="flex flex-wrap items-center gap-1.5 max-md:border-b max-md:border-line/60 max-md:pb-2"
          >
            <span
              aria-hidden="true"
              className="h-5 w-5 flex-none rounded-full border border-ink/40"
              style={{ background: swatch(line, stock.varieties[line.variety]?.colour) }}
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
              className="min-w-27.5 flex-1"
            />
            <Choice
              label={`Role of ${nameOf(line.variety)}`}
              hideLabel
              value={line.role}
              options={ROLES}
              onCommit={(role) => put(index, { ...line, role }, `Change the role of ${nameOf(line.variety)}`)}
              className="w-23 flex-none"
            />
            {more?.(line, (next) => put(index, next, `Change ${nameOf(line.variety)}`))}
            {onOpen && (
              <Button
                look="quiet"
                className="w-11 flex-none px-0"
                data-unfolds
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
      <NewLine
        path={path}
        first={recipe.length === 0}
        names={names}
        stock={stock}
        onAdd={(line) => onCommit([...recipe, line], `Add ${nameOf(line.variety)}`)}
      />
    </>
  );
}

type NewProps = {
  path: string;
  first: boolean;
  names: string;
  stock: Stock;
  onAdd: (line: RecipeLine) => void;
};

/** A line to come: written once it is named, as "12 ranunculus"; nothing is guessed. */
function NewLine({ path, first, names, stock, onAdd }: NewProps) {
  const usual = useUsual();
  const [text, setText] = useState("");
  const [role, setRole] = useState<Role>(first ? "margin" : "filler");
  const [said, setSaid] = useState<string | null>(null);
  const id = useId();
  const add = () => {
    const typed = /^(\d{1,3})?\s*[x×]?\s*(.*)$/u.exec(text.trim());
    const wanted = (typed?.[2] ?? "").toLowerCase();
    const count = Number(typed?.[1] ?? usual?.stems);
    const named = Object.values(stock.varieties).filter((each) => isMeant(each, wanted));
    const exact = named.find((each) => each.name.toLowerCase() === wanted || each.key === wanted);
    const one = exact ?? (named.length === 1 ? named[0] : undefined);
    if (!wanted) setSaid("Type how many of what, such as 12 ranunculus.");
    else if (count < 1 || count > 400) setSaid("Take from 1 to 400 stems of a variety.");
    else if (!one && named.length > 1)
      setSaid(
        `Which of them: ${named
          .slice(0, 5)
          .map(({ name }) => name)
          .join(", ")}?`,
      );
    else if (!one) setSaid(`No variety in the stores is called “${wanted}”. Pick one of the list.`);
    else {
      onAdd({
        variety: one.key,
        count,
        role,
        clump: 1,
        water: "vessel",
        tube: null,
        wrap_ml: null,
        goes_in: "with the piece",
        goes_in_n: null,
        shades: [],
        shading: "mixed",
        shoot: false,
        goes: null,
        out_rad: null,
        drop_m: null,
        cut_m: null,
        cup_ml: null,
        rod_m: null,
        feet: null,
      });
      setText("");
      setSaid(null);
    }
  };
  return (
    <form
      className="no-print relative mt-2 flex max-w-130 flex-wrap items-end gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <div className="min-w-42.5 flex-1">
        <label htmlFor={id} className="block text-xs text-soft">
          Add a variety
        </label>
        <input
          id={id}
          data-path={path}
          list={names}
          autoComplete="off"
          placeholder="12 ranunculus"
          className={`h-11 w-full rounded border bg-sheet px-2 ${said ? "border-berry" : "border-line"}`}
          aria-invalid={said !== null}
          aria-describedby={said ? `${id}-said` : undefined}
          data-typing={text !== ""}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== "Escape") return;
            setText("");
            setSaid(null);
          }}
        />
      </div>
      <Choice label="As" value={role} options={ROLES} onCommit={setRole} className="w-23 flex-none" />
      <Button type="submit">
        <Plus size={18} aria-hidden="true" /> Add
      </Button>
      {said && (
        <p id={`${id}-said`} role="alert" className="m-0 basis-full text-sm text-berry">
          {said}
        </p>
      )}
    </form>
  );
}

/** Whether a variety may be what was typed: by its name, a part of it, or its plural. */
function isMeant(variety: Variety, wanted: string): boolean {
  const name = variety.name.toLowerCase();
  const single = wanted.replace(/(?<=.{3})(?:es|s)$/, "");
  return wanted !== "" && (variety.key === wanted || name.includes(wanted) || name.includes(single));
}

/** The colours of a line beside one another, as wide as they are many. */
function swatch(line: RecipeLine, own: string | undefined): string | undefined {
  if (line.shades.length === 0) return own;
  let from = 0;
  const stops = line.shades.map(({ colour, count }) => {
    const start = from;
    from += (100 * count) / Math.max(line.count, 1);
    return `${colour} ${start}% ${from}%`;
  });
  return `linear-gradient(90deg, ${[...stops, `${own ?? "transparent"} ${from}% 100%`].join(", ")})`;
}
