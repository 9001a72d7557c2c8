import { Fragment } from "react";
import type { Missing } from "../api/types";
import { render } from "../units/text";
import { type TabOf, useOpenFact } from "./MissingFacts";
import { useSettings } from "./settings";

type Props = { facts: readonly Missing[]; tabOf?: TabOf };

/** Facts within a sentence, one after the other; each leads to its field. */
export function FactLinks({ facts, tabOf }: Props) {
  const open = useOpenFact(tabOf);
  const { system } = useSettings();
  return facts.map((fact, at) => (
    <Fragment key={`${fact.of} ${fact.path} ${fact.say.text}`}>
      {at > 0 && "; "}
      <button
        type="button"
        data-fact={fact.key}
        className="inline min-h-11 border-0 bg-transparent p-0 underline decoration-line underline-offset-4 hover:decoration-ink"
        onClick={() => open(fact)}
      >
        {render(fact.say, system)}
      </button>
    </Fragment>
  ));
}
