import { useState } from "react";
import { api } from "../../api/client";
import type { EventChange, Instead, Shortfall } from "../../api/types";
import { Button } from "../../ui/Button";
import { useRefusal } from "../../ui/useRefusal";
import { worded } from "../../units/worded";
import { dayWords } from "../day/times";

type Props = {
  eventId: number;
  shortfalls: readonly Shortfall[];
  onAct: (does: (id: number, revision: number) => Promise<EventChange>) => void;
};

/** What several events want on the same days, named on each, and other vessels that were tried in its place. */
export function Shortfalls({ eventId, shortfalls, onAct }: Props) {
  if (shortfalls.length === 0) return null;
  return (
    <section aria-label="Wanted twice" className="mb-4 border border-berry bg-sheet p-3">
      <h2 className="m-0 text-lg text-berry">✕ Wanted by more than one event</h2>
      <ul className="m-0 list-none p-0">
        {shortfalls.map((each) => (
          <li key={`${each.kind} ${each.thing} ${each.since}`} className="py-0.5">
            <strong>{each.said || each.name}</strong>: {each.wanted} from {dayWords(each.since)} to{" "}
            {dayWords(each.until)}, and there are {each.here}:{" "}
            {each.by
              .map((share) => worded("{n} for “{event}”", { n: share.number, event: share.event }))
              .join(", ")}
            . Hire or buy {each.wanted - each.here}, move one of them to another day, or choose another for
            one of them.
            {each.kind === "vessel" && <Others eventId={eventId} thing={each.thing} onAct={onAct} />}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Others({ eventId, thing, onAct }: { eventId: number; thing: string; onAct: Props["onAct"] }) {
  const [found, setFound] = useState<readonly Instead[] | null>(null);
  const [trying, setTrying] = useState(false);
  const { attempt } = useRefusal();
  const look = async () => {
    setTrying(true);
    setFound((await attempt(() => api.instead(eventId, thing))) ?? null);
    setTrying(false);
  };
  return (
    <div className="no-print mt-1">
      {!found && (
        <Button disabled={trying} onClick={() => void look()}>
          {trying ? "Trying…" : "Try other vessels that are free"}
        </Button>
      )}
      {found?.length === 0 && (
        <p className="m-0 text-soft">
          No other vessel of about this size is free then, as many as are wanted.
        </p>
      )}
      <ul className="m-0 list-none p-0">
        {found?.map((each) => (
          <li key={each.vessel} className="flex flex-wrap items-center gap-2 py-0.5">
            <span>
              {each.name}, {each.free} free:{" "}
              {each.worse.length === 0 ? (
                <span className="text-leaf">✓ every verdict stays</span>
              ) : (
                <span className="text-berry">✕ {each.worse.slice(0, 3).join("; ")}</span>
              )}
            </span>
            <Button
              onClick={() => onAct((id, revision) => api.takeInstead(id, revision, thing, each.vessel))}
            >
              Take it
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
