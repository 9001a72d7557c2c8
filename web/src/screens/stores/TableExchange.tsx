import { useState } from "react";
import { api, Refused } from "../../api/client";
import type { ImportOut, Problem, StoreKind } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";
import { worded } from "../../units/worded";
import type { Attempt } from "./attempt";

type Props = { kind: StoreKind; words: string; revision: () => number; attempt: Attempt };

/** A part of the stores as a table, out and in; coming in, it is looked through before anything is written. */
export function TableExchange({ kind, words, revision, attempt }: Props) {
  const { system } = useSettings();
  const [text, setText] = useState<string | null>(null);
  const [found, setFound] = useState<ImportOut | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const look = async (table: string) => {
    try {
      setFound(await api.importTable(revision(), kind, table, true));
      setProblem(null);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setProblem(reason.problem);
      setFound(null);
    }
  };
  const write = (table: string) =>
    attempt(async (base) => {
      setFound(await api.importTable(base, kind, table, false));
      setText(null);
    });
  return (
    <section className="no-print mt-5 border-t border-line pt-3" aria-label={`${words} as a table`}>
      <h2 className="m-0 mb-1 text-lead">{words} as a table</h2>
      <div className="flex flex-wrap items-center gap-3">
        <a
          href={`/api/tables/${kind}.csv`}
          className="flex min-h-11 items-center rounded border border-line bg-sheet px-3 text-ink no-underline hover:border-ink"
        >
          Save as CSV
        </a>
        <label className="flex items-center gap-2">
          Read a CSV:
          <input
            type="file"
            className="min-h-11 py-2"
            accept=".csv,text/csv"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (!file) return;
              void file.text().then((table) => {
                setText(table);
                void look(table);
              });
              event.target.value = "";
            }}
          />
        </label>
      </div>
      {problem && (
        <p role="alert" className="mt-2 mb-0 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)} Nothing was changed.
        </p>
      )}
      {found && (
        <div role="status" className="mt-2">
          <p className="m-0">
            {found.written ? "Written: " : "It would write: "}
            {worded(
              "{added} new, {changed} changed; {unchanged} {unchanged|is as it was|are as they were}; {refused} {refused|row|rows} refused.",
              {
                added: found.added.length,
                changed: found.changed.length,
                unchanged: found.unchanged,
                refused: found.refused.length,
              },
            )}
          </p>
          {found.refused.length > 0 && (
            <ul className="mt-1 mb-0 max-h-48 list-disc overflow-y-auto pl-5 text-berry">
              {found.refused.map((row) => (
                <li key={`${row.line}-${row.column}`}>
                  Line {row.line}
                  {row.column ? `, ${row.column}` : ""}: {row.why}
                </li>
              ))}
            </ul>
          )}
          {!found.written && text !== null && found.added.length + found.changed.length > 0 && (
            <Button look="solid" className="mt-2" onClick={() => void write(text)}>
              Write {found.added.length + found.changed.length} rows
            </Button>
          )}
        </div>
      )}
    </section>
  );
}
