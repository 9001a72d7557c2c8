import { useNavigate, useParams, useSearchParams } from "react-router";
import type { Missing } from "../api/types";
import { render } from "../units/text";
import { openField } from "./openField";
import { useSettings } from "./settings";

/** Under which tab of this screen a field is, by how its path begins; null where it is on another screen. */
export type TabOf = (fact: Missing) => string | null;

type Props = {
  facts: readonly Missing[];
  tabOf: TabOf;
  /** Tabs in the order of the work; those of other screens come last. */
  order: readonly string[];
};

/** All that has to be known before a verdict can be given; each leads to its field. */
export function MissingFacts({ facts, tabOf, order }: Props) {
  const open = useOpenFact(tabOf);
  const { system } = useSettings();
  if (facts.length === 0) return null;
  return (
    <section
      aria-label="Not known yet"
      className="no-print mb-2 rounded border border-line bg-sheet px-3 py-2"
    >
      <h2 className="m-0 text-md">Not known yet</h2>
      <ol className="m-0 list-none p-0">
        {inOrder(facts, tabOf, order).map((fact) => (
          <li key={fact.of + fact.path} className="border-b border-line/60 last:border-0">
            <button
              type="button"
              data-fact={fact.key}
              className="min-h-11 w-full border-0 bg-transparent p-0 text-left underline decoration-line underline-offset-4 hover:decoration-ink"
              onClick={() => open(fact)}
            >
              {render(fact.say, system)}
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** Goes to where a fact is typed: a tab of this screen, or another screen of the event. */
export function useOpenFact(tabOf: TabOf = () => null): (fact: Missing) => void {
  const [, setQuery] = useSearchParams();
  const { eventId } = useParams();
  const go = useNavigate();
  return (fact) => {
    const tab = tabOf(fact);
    if (tab !== null) setQuery(tab ? { tab } : {}, { replace: true });
    else void go(addressOf(fact, eventId ?? ""));
    openField(fact.path);
  };
}

/** The screen on which a fact is typed that is no part's own. */
export function addressOf({ of, path }: Missing, eventId: string): string {
  const event = `/events/${eventId}`;
  if (of === "stores") return `/stores?part=${path.split(".")[0]}`;
  if (of === "survey") return `${event}/survey`;
  if (of === "cost") return `${event}/cost`;
  return of === "hires" ? `${event}/lists?list=hires` : event;
}

/** Facts once each, in the order of the work: two checks may miss one field, which is asked for once. */
export function inOrder(facts: readonly Missing[], tabOf: TabOf, order: readonly string[]): Missing[] {
  const rank = (fact: Missing) => {
    const at = order.indexOf(tabOf(fact) ?? "");
    return at < 0 ? order.length : at;
  };
  const once = facts.filter(
    (fact, at) => facts.findIndex(({ of, path }) => of === fact.of && path === fact.path) === at,
  );
  return once.toSorted((one, other) => rank(one) - rank(other));
}
