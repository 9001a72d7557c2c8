import { useState } from "react";
import { api, Refused } from "../../api/client";
import type { EventOut, PieceOut, Problem, Split } from "../../api/types";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { useUsual } from "../../ui/useTrade";
import { render } from "../../units/text";

type Props = {
  event: EventOut;
  chosen: PieceOut;
  currency: string;
  nameOf: (variety: string) => string;
  onSaved: () => void;
};

/** What a budget for the stems of one piece buys, a share of it for premium stems: a proposal. */
export function BudgetTool({ event, chosen, currency, nameOf, onSaved }: Props) {
  const { system } = useSettings();
  const [budget, setBudget] = useState<number | null>(null);
  const [set, setPremium] = useState<number | null>(null);
  const usual = useUsual();
  const premium = set ?? usual?.premium ?? 0;
  const [found, setFound] = useState<Split | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
      setProblem(null);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setFound(null);
      setProblem(reason.problem);
    }
  };
  const asked = (budget ?? 0).toFixed(2);
  return (
    <section className="space-y-2">
      <h3 className="m-0 text-lg">A budget for its stems</h3>
      <p className="m-0 text-soft">
        For one “{chosen.part.name}”. Premium are its focal stems; largest heads come first.
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <QuantityField
          label={`Stems may cost, ${currency}`}
          kind="ratio"
          optional
          value={budget}
          path="budget"
          problem={problem}
          onCommit={(value) => {
            setBudget(value);
            setFound(null);
          }}
          className="w-36"
        />
        <QuantityField
          label="For premium stems"
          kind="percent"
          value={premium}
          path="premium"
          problem={problem}
          onCommit={(value) => {
            if (value === null) return;
            setPremium(Math.min(1, Math.max(0, value)));
            setFound(null);
          }}
          className="w-32"
        />
        <Button
          onClick={() =>
            void attempt(async () => setFound(await api.split(event.id, chosen.id, asked, premium)))
          }
        >
          Propose
        </Button>
      </div>
      {found && (
        <section aria-label="What the budget buys">
          <ul className="m-0 list-none p-0">
            {found.recipe.map((line, nth) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a recipe may name one variety twice
              <li key={nth} className="flex gap-2 border-t border-line py-0.5">
                <span className="w-10 flex-none text-right">{line.count}</span>
                <span>{nameOf(line.variety)}</span>
                <span className="text-soft">{line.role}</span>
              </li>
            ))}
          </ul>
          <p className="mt-1 mb-0">
            {currency} {found.spent}, {Math.round(found.premium_share * 100)} % of it premium;{" "}
            {Math.round(found.fullness * 100)} % full.
          </p>
          {found.say.map((each) => (
            <p key={each.text} className="m-0 text-berry">
              {render(each, system)}
            </p>
          ))}
          <Button
            look="solid"
            className="mt-2"
            onClick={() =>
              void attempt(async () => {
                await api.keepSplit(event.id, chosen.id, asked, premium, event.revision);
                setFound(null);
                onSaved();
              })
            }
          >
            Take this recipe
          </Button>
        </section>
      )}
    </section>
  );
}
