import { useState } from "react";
import { api } from "../../api/client";
import type { Problem, Stock, StoreKind, Supply } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import type { FieldKind } from "../../units/field";
import type { Attempt } from "./attempt";
import { HoldingFields } from "./HoldingFields";

type Thing = Readonly<Record<string, unknown>> & { readonly name: string };
type Column = {
  readonly field: string;
  readonly words: string;
  /** A number of some kind, one text, several with semicolons between, whole numbers with spaces between, or a choice. */
  readonly kind: FieldKind | "text" | "words" | "months" | "sort" | "day";
  readonly optional?: true;
};
type Props = {
  kind: TableKind;
  stock: Stock;
  retired: boolean;
  /** A part of the name of those that are shown. */
  find: string;
  problem: Problem | null;
  attempt: Attempt;
};

type TableKind = Exclude<StoreKind, "vessel" | "armature">;

const COLUMNS: Readonly<Record<TableKind | "variety, bought" | "variety, named", readonly Column[]>> = {
  stand: [
    { field: "height_m", words: "high", kind: "length" },
    { field: "top_width_m", words: "top, across", kind: "length" },
    { field: "opening_m", words: "opening", kind: "length" },
    { field: "foot_width_m", words: "foot, across", kind: "length", optional: true },
    { field: "column_width_m", words: "column", kind: "length" },
    { field: "mass_kg", words: "weight", kind: "mass", optional: true },
    { field: "price", words: "price", kind: "ratio", optional: true },
  ],
  netting: [
    { field: "aperture_m", words: "clear width", kind: "length" },
    { field: "wire_m", words: "wire", kind: "length" },
    { field: "roll_width_m", words: "roll, wide", kind: "length" },
    { field: "roll_length_m", words: "roll, long", kind: "length" },
    { field: "counted_cells", words: "cells counted", kind: "count", optional: true },
    { field: "counted_length_m", words: "over", kind: "length", optional: true },
    { field: "price", words: "price", kind: "ratio", optional: true },
  ],
  frog: [
    { field: "width_m", words: "across", kind: "length" },
    { field: "height_m", words: "high", kind: "length" },
    { field: "mass_kg", words: "weight", kind: "mass" },
    { field: "opening_m", words: "opening", kind: "length" },
    { field: "openings", words: "openings", kind: "count" },
    { field: "price", words: "price", kind: "ratio", optional: true },
  ],
  variety: [
    { field: "head_diameter_m", words: "head", kind: "length" },
    { field: "heads", words: "heads", kind: "count" },
    { field: "stem_diameter_m", words: "stem", kind: "length" },
    { field: "mass_kg", words: "weight", kind: "mass" },
    { field: "mass_length_m", words: "weighed at", kind: "length" },
    { field: "uptake_ml_h", words: "drinks, ml/h", kind: "ratio" },
    { field: "dry_hold_h", words: "dry hold, h", kind: "ratio" },
  ],
  "variety, bought": [
    { field: "bunch_size", words: "bunch", kind: "count" },
    { field: "bunch_price", words: "price of it", kind: "ratio", optional: true },
    { field: "stem_price", words: "of a stem", kind: "ratio", optional: true },
    { field: "priced_on", words: "asked on", kind: "day" },
    { field: "currency", words: "in", kind: "text" },
    { field: "conditioning_h", words: "drinks before, h", kind: "ratio" },
    { field: "opening_days", words: "opens in, days", kind: "ratio" },
    { field: "care", words: "while it drinks", kind: "words" },
  ],
  "variety, named": [
    { field: "kind", words: "kind", kind: "sort" },
    { field: "botanical", words: "botanical name", kind: "text" },
    { field: "names", words: "other names", kind: "words" },
    { field: "season", words: "months, 1 to 12", kind: "months" },
    { field: "hazards", words: "hazards", kind: "words" },
  ],
  supply: [
    { field: "pack", words: "in a pack", kind: "ratio" },
    { field: "stick_m", words: "one is long", kind: "length", optional: true },
    { field: "price", words: "price of it", kind: "ratio", optional: true },
    { field: "spare", words: "spare", kind: "percent" },
  ],
};

const SORTS = (["fresh", "dried", "preserved", "artificial", "foraged", "own garden"] as const).map(
  (each) => [each, each] as const,
);

const VIEWS = [
  ["variety", "Sizes and water"],
  ["variety, bought", "Buying and days"],
  ["variety, named", "Kind, names, season, hazards"],
] as const;

/** Netting, frogs or varieties, a row each; every number is a field, and every figure says where it comes from. */
export function ThingTable({ kind, stock, retired, find, problem, attempt }: Props) {
  const [view, setView] = useState<(typeof VIEWS)[number][0]>("variety");
  /** The row that was changed last: what is refused is said in it. */
  const [row, setRow] = useState("");
  const all = thingsOf(stock, kind);
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
      const { key: _, ...was } = thingsOf(known, kind)[key] ?? thing;
      const changed = { ...was, ...next, ...measured(kind, thing, next) };
      return api.putThing(base, kind, key, changed, { was, chosen });
    });
  };
  const refused = problem && { ...problem, path: problem.path.split(".").at(-1) ?? "" };
  const columns = COLUMNS[kind === "variety" ? view : kind];
  return (
    <>
      {kind === "variety" && (
        <div role="group" aria-label="Which figures" className="no-print mb-2 flex gap-1">
          {VIEWS.map(([each, words]) => (
            <Button
              key={each}
              aria-pressed={view === each}
              look={view === each ? "solid" : "plain"}
              onClick={() => setView(each)}
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
                  {column.kind === "sort" ? (
                    <Choice
                      label={`${column.words} of ${thing.name}`}
                      hideLabel
                      value={String(thing[column.field])}
                      options={SORTS}
                      onCommit={(sort) => put(key, thing, { [column.field]: sort, ...ofItsKind(sort) })}
                      className="w-32"
                    />
                  ) : column.kind === "day" ? (
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
                  ) : column.kind === "text" || column.kind === "words" || column.kind === "months" ? (
                    <TextField
                      label={`${column.words} of ${thing.name}`}
                      hideLabel
                      value={written(thing[column.field])}
                      path={column.field}
                      problem={row === key ? refused : null}
                      onCommit={(text) => put(key, thing, { [column.field]: readWords(column.kind, text) })}
                      className={column.field === "currency" ? "w-14" : "w-40"}
                    />
                  ) : (
                    <QuantityField
                      label={`${column.words} of ${thing.name}`}
                      hideLabel
                      kind={column.kind}
                      optional={column.optional === true}
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
              <td className="py-1 pr-2 text-sm text-soft">
                {kind === "supply" ? `${PACKS[(thing as unknown as Supply).measured_by]}; ` : ""}
                {provenanceOf(kind, thing)}
              </td>
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

/** What goes with a kind: what keeps drinks nothing, what is gathered has no price. */
function ofItsKind(sort: string): object {
  if (["dried", "preserved", "artificial"].includes(sort))
    return { uptake_ml_h: 0, conditioning_h: 0, opening_days: 0 };
  return ["foraged", "own garden"].includes(sort) ? { bunch_price: null, stem_price: null } : {};
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
function readWords(kind: Column["kind"], text: string): unknown {
  if (kind === "text") return text.trim();
  if (kind === "words")
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

/** What a pack counts. */
const PACKS: Readonly<Record<Supply["measured_by"], string>> = {
  piece: "pieces",
  length: "metres of a spool",
  stick: "sticks",
  mass: "kilograms",
};

type Provenance = { readonly kind: string; readonly source: string };
type Groups = Readonly<
  Record<"size" | "mass" | "uptake" | "dry_hold" | "hazard" | "price" | "opening", Provenance>
>;

function provenanceOf(kind: StoreKind, thing: Thing): string {
  if (kind !== "variety") return (thing.provenance as Provenance).kind;
  const groups = thing.provenance as Groups;
  return [...new Set(Object.values(groups).map((each) => each.kind))].join(", ");
}

const GROUP: Readonly<Record<string, keyof Groups>> = {
  hazards: "hazard",
  head_diameter_m: "size",
  stem_diameter_m: "size",
  mass_kg: "mass",
  mass_length_m: "mass",
  uptake_ml_h: "uptake",
  dry_hold_h: "dry_hold",
  bunch_price: "price",
  stem_price: "price",
  conditioning_h: "opening",
  opening_days: "opening",
};
const MEASURED: Provenance = { kind: "measured", source: "entered by you" };

/** A number typed here is the studio's own: its group of figures is measured from then on. */
function measured(kind: StoreKind, thing: Thing, next: Readonly<Record<string, unknown>>): object {
  const field = Object.keys(next)[0] ?? "";
  if (field === "name" || field === "price" || field === "bunch_size") return {};
  if (kind !== "variety") return { provenance: MEASURED };
  const group = GROUP[field];
  return group ? { provenance: { ...(thing.provenance as Groups), [group]: MEASURED } } : {};
}

function thingsOf(stock: Stock, kind: Props["kind"]): Readonly<Record<string, Thing>> {
  const all = {
    netting: stock.nettings,
    frog: stock.frogs,
    variety: stock.varieties,
    supply: stock.supplies,
    stand: stock.stands,
  };
  return all[kind] as unknown as Readonly<Record<string, Thing>>;
}
