import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import type { CostOut, EventChange, EventOut } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";

type Props = {
  event: EventOut;
  cost: CostOut;
  /** Sends a write from the revision that this window knows. */
  onAct: (does: (id: number, revision: number) => Promise<EventChange>, words: string) => void;
};

/** What the client accepted, today's plan held against it, what is paid; and what would reach a target. */
export function PriceStanding({ event, cost, onAct }: Props) {
  const { held, payment } = cost.standing;
  const { currency } = cost.cost;
  return (
    <section aria-label="With the client" className="mt-4 grid grid-cols-2 gap-6 max-lg:grid-cols-1">
      <div>
        <h2 className="m-0 text-xl">With the client</h2>
        {!held && <p className="mt-1 mb-2 text-soft">Nothing is accepted yet: the price follows the plan.</p>}
        {held && (
          <>
            <p className="mt-1 mb-1">
              Accepted on {held.accepted_on}:{" "}
              <strong>
                {held.currency} {held.then}
              </strong>
              {held.now !== null && (
                <>
                  . The plan asks {held.currency} {held.now} now,{" "}
                  {Number(held.more) === 0 ? (
                    <span className="text-leaf">✓ the same</span>
                  ) : Number(held.more) > 0 ? (
                    <strong className="text-berry">▲ {held.more} more</strong>
                  ) : (
                    <strong className="text-leaf">▼ {String(held.more).replace("-", "")} less</strong>
                  )}
                </>
              )}
            </p>
            {held.moved.length > 0 && (
              <ul className="m-0 mb-2 list-none p-0" aria-label="What has moved since">
                {held.moved.map((each) => (
                  <li key={each.name} className="flex gap-3 border-t border-line py-0.5">
                    <span className="flex-1">{each.name}</span>
                    <span className="text-soft">{each.then ?? "was not in it"}</span>
                    <span>{each.now ?? (each.then ? "not in it now" : "cannot say")}</span>
                  </li>
                ))}
              </ul>
            )}
          </>
        )}
        <p className="m-0">
          {payment.deposit !== null && Number(payment.deposit) > 0 && (
            <>
              Deposit {currency} {payment.deposit},{" "}
              {Number(payment.deposit_due) > 0 ? (
                <span className="text-berry">
                  {currency} {payment.deposit_due} still due
                </span>
              ) : (
                <span className="text-leaf">✓ paid</span>
              )}
              .{" "}
            </>
          )}
          {payment.due !== null &&
            Number(payment.paid) > 0 &&
            `In all still due: ${currency} ${payment.due}.`}
        </p>
        <p className="no-print mt-2 mb-0 flex flex-wrap gap-2">
          <Button
            look={held ? "plain" : "solid"}
            onClick={() => onAct(api.acceptPrice, "Keep this price all the same")}
          >
            {held ? "The client accepts today’s price" : "The client accepts it"}
          </Button>
          {held && (
            <Button onClick={() => onAct(api.letPriceGo, "Let it go all the same")}>
              Let the accepted price go
            </Button>
          )}
        </p>
      </div>
      <Target event={event} cost={cost} onAct={onAct} />
    </section>
  );
}

/** Changes that would bring the price down to what the client would pay, each tried on the whole event. */
function Target({ event, cost, onAct }: Props) {
  const client = useQueryClient();
  const { system } = useSettings();
  const [asked, setAsked] = useState(false);
  const target = event.brief.costing.target;
  const above = target !== null && cost.cost.asked !== null && Number(cost.cost.asked) > Number(target);
  const key = ["target", event.id, event.revision];
  const found = useQuery({
    queryKey: key,
    queryFn: () => api.target(event.id),
    enabled: asked && above,
    refetchInterval: (query) => (query.state.data?.running ? 700 : false),
  });
  const tried = found.data?.reached?.tried ?? [];
  return (
    <div>
      <h2 className="m-0 text-xl">To reach a price</h2>
      {target === null && (
        <p className="mt-1 mb-0 text-soft">
          Type above what the client would pay; what would reach it is tried.
        </p>
      )}
      {target !== null && !above && (
        <p className="mt-1 mb-0 text-leaf">
          ✓ {cost.cost.asked === null ? "There is no price yet." : "The price is within it."}
        </p>
      )}
      {above && !asked && (
        <p className="mt-1 mb-0">
          <Button onClick={() => setAsked(true)}>Try what would reach it</Button>
        </p>
      )}
      {above && asked && (!found.data || found.data.running) && (
        <p role="status" className="mt-1 mb-0 text-soft">
          Trying… <progress max={1} value={found.data?.reached?.done ?? 0} aria-label="How far" />
        </p>
      )}
      {above && found.data && !found.data.running && tried.length === 0 && (
        <p className="mt-1 mb-0 text-soft">Nothing that was tried brings it down.</p>
      )}
      <ul className="m-0 list-none p-0" aria-label="What was tried">
        {above &&
          tried.map((each) => (
            <li key={each.key} className="flex flex-wrap items-center gap-2 border-t border-line py-1">
              <span className="flex-1">
                {render(each.say, system)}: {each.asked}, {each.less} less
                {each.reaches && <strong className="text-leaf"> ✓ reaches it</strong>}
                {each.worse.length > 0 && (
                  <span className="text-berry"> ✕ {each.worse.slice(0, 2).join("; ")}</span>
                )}
              </span>
              <Button
                onClick={() => {
                  onAct((id, revision) => api.reachTarget(id, revision, each.key), "Do it all the same");
                  void client.invalidateQueries({ queryKey: key });
                }}
              >
                Do it
              </Button>
            </li>
          ))}
      </ul>
    </div>
  );
}
