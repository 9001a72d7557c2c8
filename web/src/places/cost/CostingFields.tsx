import type { Costing, EventOut } from "../../api/types";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { BriefState } from "../line-up/BriefState";
import { useBrief } from "../line-up/useBrief";

/** What money is reckoned by. */
export function CostingFields({ event, onSaved }: { event: EventOut; onSaved: () => void }) {
  const desk = useBrief(event, onSaved);
  const { put: save, problem } = desk;
  const { costing } = desk.shown.brief;
  const put = (next: Partial<Costing>) => save((kept) => ({ costing: { ...kept.costing, ...next } }));
  return (
    <div className="mb-4 grid max-w-4xl grid-cols-5 gap-3 max-md:grid-cols-2">
      <div className="col-span-full empty:hidden">
        <BriefState desk={desk} />
      </div>
      <TextField
        label="Currency"
        value={costing.currency}
        path="costing.currency"
        problem={problem}
        onCommit={(currency) => void put({ currency: currency.trim() })}
      />
      <QuantityField
        label="An hour of work"
        kind="ratio"
        optional
        placeholder="not known"
        value={costing.rate_per_h === null ? null : Number(costing.rate_per_h)}
        path="costing.rate_per_h"
        problem={problem}
        onCommit={(rate) => void put({ rate_per_h: rate === null ? null : rate.toFixed(2) })}
      />
      <QuantityField
        label="Margin, of the price"
        kind="percent"
        value={costing.margin}
        path="costing.margin"
        problem={problem}
        onCommit={(margin) => margin !== null && void put({ margin })}
      />
      <QuantityField
        label="Stems bought beyond"
        kind="percent"
        value={costing.waste}
        path="costing.waste"
        problem={problem}
        onCommit={(waste) => waste !== null && void put({ waste })}
      />
      <QuantityField
        label="Mechanics are used"
        kind="count"
        optional
        placeholder="as each lasts"
        value={costing.uses}
        path="costing.uses"
        problem={problem}
        onCommit={(uses) => void put({ uses: uses === null ? null : Math.round(uses) })}
      />
    </div>
  );
}
