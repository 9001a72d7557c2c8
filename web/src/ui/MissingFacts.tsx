import { useNavigate, useParams, useSearchParams } from "react-router";
import { openField } from "./openField";

/** Where a fact is typed: its tab, or another screen of the event; its field by the label, and inside what, where more
 *  have that label. */
export type Where = {
  readonly tab: string;
  readonly label: string;
  readonly within?: string;
  readonly screen?: "brief" | "survey";
};

type Props = { facts: readonly string[]; whereOf: (fact: string) => Where | null };

/** All that has to be known before a verdict can be given; each leads to its field. */
export function MissingFacts({ facts, whereOf }: Props) {
  const [, setQuery] = useSearchParams();
  const { eventId } = useParams();
  const go = useNavigate();
  if (facts.length === 0) return null;
  const open = ({ tab, label, within, screen }: Where) => {
    if (screen) void go(`/events/${eventId}${screen === "survey" ? "/survey" : ""}`);
    else setQuery(tab ? { tab } : {}, { replace: true });
    if (label) openField(label, within);
  };
  return (
    <section
      aria-label="Not known yet"
      className="no-print mb-2 rounded border border-line bg-sheet px-3 py-2"
    >
      <h2 className="m-0 text-md">Not known yet</h2>
      <ol className="m-0 list-none p-0">
        {facts.map((fact) => {
          const where = whereOf(fact);
          return (
            <li key={fact} className="border-b border-line/60 last:border-0">
              {where ? (
                <button
                  type="button"
                  className="min-h-11 w-full border-0 bg-transparent p-0 text-left underline decoration-line underline-offset-4 hover:decoration-ink"
                  onClick={() => open(where)}
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
