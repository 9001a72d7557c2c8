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
  const money = (field: "rate_per_h" | "per_km" | "per_day" | "delivery" | "target", label: string) => (
    <QuantityField
      label={label}
      kind="ratio"
      optional
      placeholder="not known"
      value={costing[field] === null ? null : Number(costing[field])}
      path={`costing.${field}`}
      problem={problem}
      onCommit={(amount) => void put({ [field]: amount === null ? null : amount.toFixed(2) })}
    />
  );
  const share = (field: "margin" | "waste" | "breakage" | "overheads" | "tax" | "deposit", label: string) => (
    <QuantityField
      label={label}
      kind="percent"
      value={costing[field]}
      path={`costing.${field}`}
      problem={problem}
      onCommit={(part) => part !== null && void put({ [field]: part })}
    />
  );
  return (
    <div className="mb-4 grid max-w-5xl grid-cols-5 gap-3 max-md:grid-cols-2">
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
      {money("rate_per_h", "An hour of work")}
      {share("margin", "Margin, of the price")}
      {share("waste", "Stems bought beyond")}
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
      {share("breakage", "Breakage, of goods")}
      {share("overheads", "Overheads, of costs")}
      {share("tax", "Tax, of the price")}
      <QuantityField
        label="Kilometres in all"
        kind="ratio"
        optional
        placeholder="not known"
        value={costing.km}
        path="costing.km"
        problem={problem}
        onCommit={(km) => void put({ km })}
      />
      {money("per_km", "A kilometre costs")}
      <QuantityField
        label="Days of the vehicle"
        kind="count"
        value={costing.vehicle_days}
        path="costing.vehicle_days"
        problem={problem}
        onCommit={(days) => days !== null && void put({ vehicle_days: Math.round(days) })}
      />
      {money("per_day", "The vehicle a day")}
      {money("delivery", "Delivery by others")}
      {money("target", "The client would pay, tax in")}
      {share("deposit", "Deposit, of what is asked")}
      <QuantityField
        label="Paid so far"
        kind="ratio"
        value={Number(costing.paid)}
        path="costing.paid"
        problem={problem}
        onCommit={(paid) => paid !== null && void put({ paid: paid.toFixed(2) })}
      />
      <label className="flex min-h-11 items-center gap-2 self-end">
        <input
          type="checkbox"
          className="h-5 w-5 accent-leaf"
          checked={costing.waits}
          onChange={(event) => void put({ waits: event.target.checked })}
        />
        Nothing is bought before the deposit
      </label>
    </div>
  );
}
