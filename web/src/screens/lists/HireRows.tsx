import { Plus, X } from "lucide-react";
import type { Brief, EventOut } from "../../api/types";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { BriefState } from "../line-up/BriefState";
import { useBrief } from "../line-up/useBrief";

type Hire = Brief["hires"][number];

/** What is hired for the event: from whom, from which day to which, what one costs, what was asked for damage. */
export function HireRows({
  event,
  names,
  onSaved,
}: {
  event: EventOut;
  /** What pieces stand in and on, to choose from. */
  names: readonly string[];
  onSaved: () => void;
}) {
  const desk = useBrief(event, onSaved);
  const { put, problem } = desk;
  const { hires, filled_at } = desk.shown.brief;
  const set = (index: number, next: Partial<Hire>) =>
    void put((kept) => ({
      hires: kept.hires.map((each, at) => (at === index ? { ...each, ...next } : each)),
    }));
  const day = (filled_at ?? "").slice(0, 10) || new Date().toISOString().slice(0, 10);
  const add = () =>
    void put((kept) => ({
      hires: [
        ...kept.hires,
        {
          name: names[0] ?? "Urn",
          number: 1,
          lender: "Hire shop",
          comes: day,
          goes_back: day,
          each: null,
          damage: "0",
          thing: "",
          lender_key: "",
        },
      ],
    }));
  const amount = (value: string | null) => (value === null ? null : Number(value));
  return (
    <section aria-label="Hired" className="mb-4">
      <h2 className="m-0 text-xl">Hired</h2>
      <BriefState desk={desk} />
      {hires.length === 0 && (
        <p className="mt-0 mb-1 text-soft">Nothing is hired: what the stores lack is on the list to buy.</p>
      )}
      <datalist id="hired-names">
        {names.map((each) => (
          <option key={each} value={each} />
        ))}
      </datalist>
      <ul className="m-0 grid list-none gap-2 p-0">
        {hires.map((each, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
            key={index}
            className="grid grid-cols-[64px_minmax(0,1fr)_minmax(0,1fr)_150px_150px_96px_96px_44px] items-end gap-2 border-t border-line py-1 max-lg:grid-cols-2"
          >
            <QuantityField
              label="How many"
              kind="count"
              value={each.number}
              path={`hires.${index}.number`}
              problem={problem}
              onCommit={(number) => number !== null && set(index, { number: Math.round(number) })}
            />
            <TextField
              label="What, as pieces call it"
              list="hired-names"
              value={each.name}
              path={`hires.${index}.name`}
              problem={problem}
              onCommit={(name) => set(index, { name, thing: "" })}
            />
            <TextField
              label="From whom"
              value={each.lender}
              path={`hires.${index}.lender`}
              problem={problem}
              onCommit={(lender) => set(index, { lender })}
            />
            <TextField
              label="Comes"
              type="date"
              value={each.comes}
              path={`hires.${index}.comes`}
              problem={problem}
              onCommit={(comes) => comes && set(index, { comes })}
            />
            <TextField
              label="Goes back"
              type="date"
              value={each.goes_back}
              path={`hires.${index}.goes_back`}
              problem={problem}
              onCommit={(goes_back) => goes_back && set(index, { goes_back })}
            />
            <QuantityField
              label="Hire of one"
              kind="ratio"
              optional
              placeholder="not known"
              value={amount(each.each)}
              path={`hires.${index}.each`}
              problem={problem}
              onCommit={(one) => set(index, { each: one === null ? null : one.toFixed(2) })}
            />
            <QuantityField
              label="For damage"
              kind="ratio"
              value={Number(each.damage)}
              path={`hires.${index}.damage`}
              problem={problem}
              onCommit={(damage) => damage !== null && set(index, { damage: damage.toFixed(2) })}
            />
            <Button
              look="quiet"
              aria-label={`Take the hire of ${each.name} off`}
              onClick={() => void put((kept) => ({ hires: kept.hires.filter((_, at) => at !== index) }))}
            >
              <X size={16} aria-hidden="true" />
            </Button>
          </li>
        ))}
      </ul>
      <Button className="no-print mt-2" onClick={add}>
        <Plus size={16} aria-hidden="true" /> Hire something
      </Button>
    </section>
  );
}
