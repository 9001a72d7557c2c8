import { useSearchParams } from "react-router";
import type { Report } from "../../api/types";
import { openField } from "../../ui/openField";
import { inOrder, whereOf } from "./missing";

/** All that has to be known before every verdict can be given, in the order of the work; each leads to its field. */
export function MissingFacts({ report }: { report: Report }) {
  const [, setQuery] = useSearchParams();
  const beside = report.companions.map((each) => each.name);
  const facts = inOrder(
    report.verdicts.flatMap((each) => each.missing),
    beside,
  );
  if (facts.length === 0) return null;
  const open = (tab: string, label: string) => {
    setQuery(tab === "cut" ? {} : { tab }, { replace: true });
    if (label) openField(label);
  };
  return (
    <section
      aria-label="Not known yet"
      className="no-print mb-2 rounded border border-line bg-sheet px-3 py-2"
    >
      <h2 className="m-0 text-md">Not known yet</h2>
      <ol className="m-0 list-none p-0">
        {facts.map((fact) => {
          const where = whereOf(fact, beside);
          return (
            <li key={fact} className="border-b border-line/60 last:border-0">
              {where ? (
                <button
                  type="button"
                  className="min-h-11 w-full border-0 bg-transparent p-0 text-left underline decoration-line underline-offset-4 hover:decoration-ink"
                  onClick={() => open(where.tab, where.label)}
                >
                  {fact}
                </button>
              ) : (
                <span className="flex min-h-11 items-center">{fact}</span>
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
