import { useState } from "react";
import { api } from "../../api/client";
import type { Problem, Stock, StoreAbout } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import type { FieldKind } from "../../units/field";
import type { Attempt } from "./attempt";
import { HoldingFields } from "./HoldingFields";

type Thing = Readonly<Record<string, unknown>> & { readonly name: string };
type Column = StoreAbout["views"][number]["columns"][number];
type Props = {
  about: StoreAbout;
  stock: Stock;
  retired: boolean;
  /** A part of the name of those that are shown. */
  find: string;
  problem: Problem | null;
  attempt: Attempt;
};

const FLAG = [
  ["false", "no"],
  ["true", "yes"],
] as const;
const TEXTS: readonly string[] = ["text", "words", "whole numbers"];

/** Netting, frogs or varieties, a row each; every number is a field, and every figure says where it comes from. */
export function ThingTable({ about, stock, retired, find, problem, attempt }: Props) {
  const { kind, plural, views } = about;
  const [view, setView] = useState(0);
  /** The row that was changed last: what is refused is said in it. */
  const [row, setRow] = useState("");
  const all = thingsOf(stock, plural);
  /** By which column it is sorted, and whether the largest comes first; as it is kept to begin with. */
  const [sorted, setSorted] = useState<{ by: string; down: boolean } | null>(null);
  const there = Object.entries(all).filter(
    ([key, thing]) =>
      (retired || !stock.holdings[kind]?.[key]?.retired) &&
      namesOf(thing).some((each) => each.toLowerCase().includes(find.toLowerCase())),
  );
  const shown = sorted ? there.toSorted(([, a], [, b]) => compared(a, b, sorted)) : there;
  const sortBy = (by: string) =>
    setSorted((now) => (now?.by !== by ? { by, down: false } : now.down ? null : { by, down: true }));
  const put = (key: string, thing: Thing, next: Readonly<Record<string, unknown>>) => {
    setRow(key);
    void attempt((base, chosen, known) => {
      const { key: _, ...was } = thingsOf(known, plural)[key] ?? thing;
      const changed = { ...was, ...next };
      return api.putThing(base, kind, key, changed, { was, chosen });
    });
  };
  const refused = problem && { ...problem, path: problem.path.split(".").at(-1) ?? "" };
  const columns = views[view]?.columns ?? [];
  return (
    <>
      {views.length > 1 && (
        <div role="group" aria-label="Which figures" className="no-print mb-2 flex gap-1">
          {views.map(({ words }, at) => (
            <Button
              key={words}
              aria-pressed={view === at}
              look={view === at ? "solid" : "plain"}
              onClick={() => setView(at)}
            >
              {words}
            </Button>
          ))}
        </div>
      )}
      <table className="w-full border-collapse">
        <thead>
          <tr className="text-left text-xs text-soft">
            {[{ field: "name", words: "name" }, ...columns].map(({ field, words }) => (
              <th
                key={field}
                className="p-0 font-normal"
                aria-sort={sorted?.by !== field ? "none" : sorted.down ? "descending" : "ascending"}
              >
                <button
                  type="button"
                  className="min-h-11 min-w-11 border-0 bg-transparent p-0 text-left hover:underline"
                  title={`Sort by ${words}`}
                  onClick={() => sortBy(field)}
                >
                  {words}
                  {sorted?.by === field && (sorted.down ? " ↓" : " ↑")}
                </button>
              </th>
            ))}
            <th className="font-normal">figures are</th>
            <th className="font-normal">on hand</th>
          </tr>
        </thead>
        <tbody>
          {shown.map(([key, thing]) => (
            <tr
              key={key}
              data-path={`${kind}.${key}`}
              className={`border-t border-line ${stock.holdings[kind]?.[key]?.retired ? "opacity-60" : ""}`}
            >
              <td className="py-1 pr-2">
                <TextField
                  label={`Name of ${thing.name}`}
                  hideLabel
                  value={thing.name}
                  path="name"
                  problem={row === key ? refused : null}
                  onCommit={(name) => put(key, thing, { name })}
                  className="w-56"
                />
              </td>
              {columns.map((column) => (
                <td key={column.field} className="py-1 pr-1.5">
                  {column.typed === "flag" ? (
                    <Choice
                      label={`${column.words} of ${thing.name}`}
                      hideLabel
                      value={String(thing[column.field])}
                      options={FLAG}
                      onCommit={(said) => put(key, thing, { [column.field]: said === "true" })}
                      className="w-20"
                    />
                  ) : column.typed === "choice" ? (
                    <Choice
                      label={`${column.words} of ${thing.name}`}
                      hideLabel
                      value={String(thing[column.field])}
                      options={column.choices.map((each) => [each, each] as const)}
                      onCommit={(choice) => put(key, thing, { [column.field]: choice })}
                      className="w-32"
                    />
                  ) : column.typed === "day" ? (
                    <TextField
                      label={`${column.words} of ${thing.name}`}
                      hideLabel
                      type="date"
                      value={written(thing[column.field])}
                      path={column.field}
                      problem={row === key ? refused : null}
                      onCommit={(day) => put(key, thing, { [column.field]: day })}
                      className="w-36"
                    />
                  ) : TEXTS.includes(column.typed) ? (
                    <TextField
                      label={`${column.words} of ${thing.name}`}
                      hideLabel
                      value={written(thing[column.field])}
                      path={column.field}
                      problem={row === key ? refused : null}
                      onCommit={(text) => put(key, thing, { [column.field]: readWords(column.typed, text) })}
                      className={column.field === "currency" ? "w-14" : "w-40"}
                    />
                  ) : (
                    <QuantityField
                      label={`${column.words} of ${thing.name}`}
                      hideLabel
                      kind={column.typed as FieldKind}
                      optional={column.optional}
                      value={thing[column.field] as number | null}
                      path={column.field}
                      problem={row === key ? refused : null}
                      onCommit={(value) =>
                        (value !== null || column.optional) && put(key, thing, { [column.field]: value })
                      }
                      className="w-20"
                    />
                  )}
                </td>
              ))}
              <td className="py-1 pr-2 text-sm text-soft">{provenanceOf(thing)}</td>
              <td className="py-1 [&_.on-hand]:sr-only">
                <HoldingFields kind={kind} id={key} name={thing.name} stock={stock} attempt={attempt} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {shown.length === 0 && <p className="mt-2 text-soft">Nothing here is called “{find}”.</p>}
    </>
  );
}

/** What a field of words or months is as text. */
function written(value: unknown): string {
  return Array.isArray(value) ? value.join(typeof value[0] === "number" ? " " : "; ") : String(value ?? "");
}

/** All that a thing is called. */
function namesOf(thing: Thing): readonly string[] {
  const others = Array.isArray(thing.names) ? (thing.names as string[]) : [];
  return [thing.name, ...others, ...(typeof thing.botanical === "string" ? [thing.botanical] : [])];
}

/** The value of a field of words or months, as it was typed. */
function readWords(typed: Column["typed"], text: string): unknown {
  if (typed === "text") return text.trim();
  if (typed === "words")
    return text
      .split(";")
      .map((each) => each.trim())
      .filter(Boolean);
  return text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);
}

/** Which of two comes first by a column; what is not known comes last either way. */
function compared(a: Thing, b: Thing, { by, down }: { by: string; down: boolean }): number {
  const [one, other] = [a[by], b[by]];
  if (one === null || other === null) return Number(one === null) - Number(other === null);
  const way = down ? -1 : 1;
  return typeof one === "number" && typeof other === "number"
    ? way * (one - other)
    : way * String(one).localeCompare(String(other));
}

type Provenance = { readonly kind: string; readonly source: string };

/** Where its figures come from; those of a thing that has them in groups each from somewhere. */
function provenanceOf(thing: Thing): string {
  const known = thing.provenance as Provenance | Readonly<Record<string, Provenance>>;
  const each = typeof known.kind === "string" ? [known as Provenance] : Object.values(known as object);
  return [...new Set(each.map(({ kind }) => kind))].join(", ");
}

function thingsOf(stock: Stock, plural: string): Readonly<Record<string, Thing>> {
  return (stock as unknown as Readonly<Record<string, Readonly<Record<string, Thing>>>>)[plural] ?? {};
}
