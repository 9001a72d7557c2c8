import { useState } from "react";
import { api, Refused } from "../../api/client";
import type { EventOut, Lasting, PieceOut } from "../../api/types";
import { Button } from "../../ui/Button";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";

type Props = { event: EventOut; chosen: PieceOut; currency: string };

/** Dried and preserved work against fresh work that is renewed. */
export function LastingTool({ event, chosen, currency }: Props) {
  const { system } = useSettings();
  const [months, setMonths] = useState<number | null>(null);
  const [found, setFound] = useState<Lasting | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const ask = async () => {
    try {
      setFound(await api.lasting(event.id, chosen.id, months));
      setRefused(null);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setFound(null);
      setRefused(`${render(reason.problem.message, system)} ${render(reason.problem.limit, system)}`);
    }
  };
  return (
    <section className="space-y-2">
      <h3 className="m-0 text-lg">Lasting instead of fresh</h3>
      <p className="m-0 text-soft">One “{chosen.part.name}” in dried and preserved stems, with no water.</p>
      <div className="flex items-end gap-2">
        <QuantityField
          label="It stands, months"
          kind="count"
          optional
          placeholder="its usual life"
          value={months}
          onCommit={(value) => setMonths(value === null ? null : Math.round(value))}
          className="w-36"
        />
        <Button onClick={() => void ask()}>Compare</Button>
      </div>
      {refused && (
        <p role="alert" className="m-0 text-berry">
          {refused}
        </p>
      )}
      {found && (
        <dl aria-label="Lasting against fresh" className="m-0 grid grid-cols-[1fr_auto] gap-x-3">
          <dt>fresh, made once</dt>
          <dd className="m-0 text-right">
            {currency} {found.fresh_each}
          </dd>
          <dt>fresh, renewed weekly, a month</dt>
          <dd className="m-0 text-right">
            {currency} {found.fresh_a_month}
          </dd>
          <dt>lasting, once ({found.stems} stems, some for settling)</dt>
          <dd className="m-0 text-right">
            {currency} {found.lasting_once}
          </dd>
          <dt>lasting, a month over {found.months} months</dt>
          <dd className="m-0 text-right">
            {currency} {found.lasting_a_month}
          </dd>
          <dt className="col-span-2 mt-1">
            {found.pays_from_month
              ? `It pays from month ${found.pays_from_month} on.`
              : "It does not pay within its life."}{" "}
            Look it over {found.inspections} times: dust, fading, every fixing.
          </dt>
        </dl>
      )}
    </section>
  );
}
