import { X } from "lucide-react";
import type { Problem, SurveyBeam } from "../../api/types";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";

type Props = {
  beams: readonly SurveyBeam[];
  disabled: boolean;
  problem: Problem | null;
  onCommit: (beams: SurveyBeam[]) => void;
};

/** Beams and trusses of a place: what each may carry in all, from every piece that hangs on it on a day. */
export function Beams({ beams, disabled, problem, onCommit }: Props) {
  const put = (at: number, next: Partial<SurveyBeam>) =>
    onCommit(beams.map((each, index) => (index === at ? { ...each, ...next } : each)));
  const add = () => {
    const taken = new Set(beams.map((each) => each.name));
    let number = beams.length + 1;
    while (taken.has(`beam ${number}`)) number += 1;
    const last = beams.at(-1);
    const { stated_by, stated_on } = last ?? { stated_by: null, stated_on: null };
    onCommit([...beams, { name: `beam ${number}`, rating_n: null, stated_by, stated_on, key: "" }]);
  };
  return (
    <section aria-labelledby="beams" className="mt-6 max-w-4xl">
      <h2 id="beams" className="m-0 text-lg">
        Beams and trusses
      </h2>
      <p className="mt-0 mb-2 text-soft">
        What one may carry in all. Points say which they are on; everything that hangs there on a day is added
        up.
      </p>
      <ul className="m-0 list-none space-y-1 p-0">
        {beams.map((beam, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
            key={index}
            data-path={`beams.${beam.key}`}
            className="grid grid-cols-[1.4fr_1fr_1.6fr_1fr_44px] items-end gap-1.5 max-lg:grid-cols-2"
          >
            {(["name", "stated_by", "stated_on"] as const).map((key, at) => (
              <TextField
                key={key}
                label={["Name", "Stated by", "On"][at] ?? ""}
                hideLabel={index > 0 && "row"}
                placeholder={["", "ask who", "date"][at] ?? ""}
                value={beam[key] ?? ""}
                path={`beams.${index}.${key}`}
                problem={problem}
                onCommit={(text) => put(index, { [key]: key === "name" ? text : text.trim() || null })}
                className={key === "name" ? "order-1" : "order-3"}
              />
            ))}
            <QuantityField
              label="May carry in all"
              hideLabel={index > 0 && "row"}
              kind="force"
              optional
              placeholder="ask"
              value={beam.rating_n}
              path={`beams.${index}.rating_n`}
              problem={problem}
              onCommit={(rating_n) => put(index, { rating_n })}
              className="order-2"
            />
            <Button
              look="quiet"
              className="no-print order-4"
              title={`Remove ${beam.name}`}
              onClick={() => onCommit(beams.filter((_, at) => at !== index))}
            >
              <X size={16} aria-hidden="true" />
              <span className="sr-only">Remove {beam.name}</span>
            </Button>
          </li>
        ))}
      </ul>
      <Button data-path="beams" className="no-print mt-2" disabled={disabled} onClick={add}>
        Add a beam or truss
      </Button>
    </section>
  );
}
