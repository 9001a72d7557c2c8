import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import type { Problem, Stock } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { longText, textOf } from "../../units/text";
import type { Attempt } from "./attempt";

type Props = {
  material: "netting" | "supply";
  stock: Stock;
  problem: Problem | null;
  attempt: Attempt;
};

/** What is left of rolls, spools and sticks: written back when a roll is marked as cut, or counted in by hand. */
export function RemnantList({ material, stock, problem, attempt }: Props) {
  const { system } = useSettings();
  const asked = useQuery({ queryKey: ["remnants"], queryFn: api.remnants });
  const things = material === "netting" ? Object.values(stock.nettings) : Object.values(stock.supplies);
  const [key, setKey] = useState(things[0]?.key ?? "");
  const [wide, setWide] = useState<number | null>(null);
  const [long, setLong] = useState<number | null>(null);
  const found = asked.data?.[material] ?? [];
  const names = new Map(things.map((each) => [each.key, each.name]));
  const say = (value: number) =>
    value > 3 ? longText(value, system) : textOf({ kind: "length", value }, system);
  return (
    <section className="mt-6 max-w-3xl" aria-label="Remnants">
      <h2 className="m-0 text-xl">Remnants</h2>
      <p className="mt-0 mb-2 text-soft">
        Used before a whole roll is. A roll that is marked as cut leaves its remnants here.
      </p>
      {found.length === 0 && <p className="my-1">None yet.</p>}
      <ul className="m-0 list-none p-0">
        {found.map((each) => (
          <li key={each.id} className="flex items-center gap-3 border-t border-line">
            <span className="flex-1">{names.get(each.key) ?? each.key}</span>
            <span>
              {each.width_m > 0 ? `${say(each.width_m)} × ` : ""}
              {say(each.length_m)}
            </span>
            <Button
              look="quiet"
              aria-label={`Take out ${names.get(each.key) ?? each.key}, ${say(each.length_m)}`}
              onClick={() => void attempt((base) => api.removeRemnant(base, each.id))}
            >
              Take out
            </Button>
          </li>
        ))}
      </ul>
      <div className="no-print mt-2 flex flex-wrap items-end gap-2">
        <Choice
          label="Count one in, of"
          value={key}
          options={things.map((each) => [each.key, each.name] as const)}
          onCommit={setKey}
          className="w-64"
        />
        {material === "netting" && (
          <QuantityField
            label="Wide"
            kind="length"
            value={wide}
            path="width_m"
            problem={problem}
            onCommit={setWide}
            className="w-28"
          />
        )}
        <QuantityField
          label="Long"
          kind="length"
          value={long}
          path="length_m"
          problem={problem}
          onCommit={setLong}
          className="w-28"
        />
        <Button
          onClick={() =>
            void attempt((base) =>
              api.addRemnant(base, {
                material,
                key,
                width_m: material === "netting" ? (wide ?? 0) : 0,
                length_m: long ?? 0,
              }),
            )
          }
        >
          Count it in
        </Button>
      </div>
    </section>
  );
}
