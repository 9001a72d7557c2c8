/** Stems come as columns; here they are one by one. */
import type { Row, Stems } from "../api/types";

const KNOWN = new WeakMap<object, readonly unknown[]>();

/** The rows of columns; the same columns always give the same rows. */
export function stemsOf<C extends Stems>(columns: C): readonly Row<C>[] {
  const known = KNOWN.get(columns);
  if (known) return known as readonly Row<C>[];
  const names = Object.keys(columns) as (keyof C & string)[];
  const rows = columns.colour.map((_, at) => {
    const row: Record<string, unknown> = {};
    for (const name of names) row[name] = (columns[name] as readonly unknown[])[at];
    return row as Row<C>;
  });
  KNOWN.set(columns, rows);
  return rows;
}
