import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, Refused } from "../../api/client";
import type { MaterialPlan, RollOut } from "../../api/types";
import { Button } from "../../ui/Button";
import { EventFrame } from "../../ui/EventFrame";
import { useSettings } from "../../ui/settings";
import { useRefusal } from "../../ui/useRefusal";
import { longText, render, textOf } from "../../units/text";
import { worded } from "../../units/worded";
import { CutOrder } from "./CutOrder";
import { LengthList } from "./LengthList";
import { Narrower } from "./Narrower";
import { RollDrawing } from "./RollDrawing";
import { TurningField } from "./TurningField";

const SECONDS = 10;

/** The roll: every cut of the event, drawn on the rolls; planned while one watches, marked as cut, printed. */
export function RollScreen() {
  const eventId = Number(useParams().eventId);
  const client = useQueryClient();
  const { system } = useSettings();
  const { problem, attempt } = useRefusal();
  const [chosen, setChosen] = useState<string | null>(null);
  const [lit, setLit] = useState<number | null>(null);
  const event = useQuery({ queryKey: ["event", eventId], queryFn: () => api.event(eventId) });
  const roll = useQuery({
    queryKey: ["roll", eventId],
    queryFn: () => api.roll(eventId),
    refetchInterval: (query) => (query.state.data?.running ? 400 : false),
  });
  const now = roll.data;
  const act = async (does: () => Promise<RollOut>) => {
    const next = await attempt(does);
    if (next) client.setQueryData(["roll", eventId], next);
    await client.invalidateQueries({ queryKey: ["event", eventId] });
    await client.invalidateQueries({ queryKey: ["stock"] });
    await client.invalidateQueries({ queryKey: ["remnants"] });
  };
  const refused = roll.error instanceof Refused ? roll.error.problem : problem;
  const materials = now?.plan?.materials ?? [];
  const shown = materials.find((each) => idOf(each) === chosen) ?? materials[0];
  const place = shown ? materials.indexOf(shown) : -1;
  const isCut = (plan: MaterialPlan) =>
    now?.cut.some((row) => row.material === plan.material && row.key === plan.key && row.nth === plan.nth);
  const cut = shown && isCut(shown);
  return (
    <EventFrame eventId={eventId} name={event.data?.brief.name ?? ""} title="Roll" problem={refused}>
      <main className="flex min-h-0 flex-1 max-md:flex-col max-md:overflow-y-auto print:block">
        <section
          aria-label="Materials"
          className="no-print flex w-75 flex-none flex-col border-r border-line max-md:w-full"
        >
          <div className="flex flex-wrap items-center gap-2 border-b border-line p-3">
            <Button
              look={now?.plan && now.fresh ? "plain" : "solid"}
              disabled={!now || now.running}
              onClick={() => void act(() => api.startCuts(eventId, SECONDS))}
            >
              {now?.plan ? "Plan the cuts again" : "Plan the cuts"}
            </Button>
            {now?.running && <Button onClick={() => void act(() => api.stopCuts(eventId))}>Stop</Button>}
            <a
              className="link-action"
              href={`/api/events/${eventId}/cuts.pdf?system=${system}&paper=${system === "inch" ? "Letter" : "A4"}`}
            >
              Print as PDF
            </a>
          </div>
          {event.data && (
            <TurningField event={event.data} onSaved={() => void act(() => api.roll(eventId))} />
          )}
          <p role="status" className="m-0 border-b border-line px-3 py-2 text-md text-soft">
            {words(now)}
          </p>
          {now?.running && (
            <progress className="w-full flex-none" max={1} value={now.plan?.done ?? 0} aria-label="How far" />
          )}
          <ul className="m-0 min-h-0 flex-1 list-none overflow-y-auto p-0 max-md:max-h-72">
            {materials.map((each) => {
              const done = isCut(each);
              return (
                <li key={idOf(each)}>
                  <button
                    type="button"
                    aria-pressed={each === shown}
                    onClick={() => setChosen(idOf(each))}
                    className={`block min-h-11 w-full border-0 border-b border-line px-3 py-2 text-left ${
                      each === shown ? "bg-sheet" : "bg-transparent"
                    }`}
                  >
                    <span className="block leading-tight">
                      {each.name}
                      {each.nth > 1 && <span className="text-soft"> · added since it was cut</span>}
                    </span>
                    <span className="block text-sm text-soft">
                      {done ? "✓ cut · " : ""}
                      {takes(each)}
                      {each.missing.length > 0 && (
                        <strong className="text-berry"> ✕ {each.missing.length} cannot be cut</strong>
                      )}
                    </span>
                  </button>
                </li>
              );
            })}
          </ul>
        </section>
        <section className="min-h-0 min-w-0 flex-1 overflow-y-auto p-4 print:overflow-visible">
          {!now && <p role="status">Unrolling…</p>}
          {now && !now.plan && (
            <p className="max-w-xl">
              Nothing is planned yet. Press “Plan the cuts”: all netting, lines, sticks, ribbon and tape of
              the event are laid on what the stores have, remnants first, then on rolls to buy.
            </p>
          )}
          {now?.plan && materials.length === 0 && now.plan.left_out.length === 0 && (
            <p>Nothing in this event is cut from a roll, spool or stick.</p>
          )}
          {now?.plan?.left_out.map((each) => (
            <p key={render(each, system)} className="mt-0 mb-2 text-berry">
              ✕ {render(each, system)}
            </p>
          ))}
          {shown && (
            <>
              <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
                <h2 className="m-0 text-2xl">{shown.name}</h2>
                <span>{takes(shown)}</span>
                {shown.material === "netting" && (
                  <span>
                    {Math.round((1 - shown.waste - shown.kept) * 100)} % in pieces
                    {shown.kept > 0.005 && `, ${Math.round(shown.kept * 100)} % worth keeping`}
                    <span className="text-soft">
                      , {Math.round(shown.waste * 100)} % cut off: beside or behind a piece, and under 10
                      cells
                    </span>
                  </span>
                )}
                <Button
                  className="no-print ml-auto"
                  disabled={!now?.fresh || now.running}
                  onClick={() =>
                    void act(() => api.markCut(eventId, shown.material, shown.key, shown.nth, !cut))
                  }
                >
                  {cut ? "Not cut after all" : "Mark as cut"}
                </Button>
              </div>
              {cut && (
                <p className="mt-1 mb-0 text-leaf">
                  ✓ Cut: what it took has left the stores, what is worth keeping is in them.
                </p>
              )}
              {shown.missing.map((each) => (
                <p key={render(each, system)} className="mt-1 mb-0 text-berry">
                  ✕ {render(each, system)}
                </p>
              ))}
              {shown.material === "netting" ? (
                <RollDrawing plan={shown} lit={lit} onLight={setLit} />
              ) : (
                <LengthList plan={shown} />
              )}
              <CutOrder plan={shown} steps={now?.steps[place] ?? []} lit={lit} onLight={setLit} />
              <Kept plan={shown} />
              {shown.material === "netting" && !cut && event.data && now?.fresh && !now.running && (
                <Narrower
                  event={event.data}
                  netting={shown.key}
                  onTaken={() => void act(() => api.startCuts(eventId, SECONDS))}
                />
              )}
            </>
          )}
        </section>
      </main>
    </EventFrame>
  );
}

function Kept({ plan }: { plan: MaterialPlan }) {
  const { system } = useSettings();
  const kept = plan.stocks.flatMap((stock) => stock.keep);
  if (kept.length === 0) return null;
  const size = ([wide, long]: readonly [number, number]) =>
    (wide > 0 ? `${textOf({ kind: "length", value: wide }, system)} × ` : "") +
    (long > 3 ? longText(long, system) : textOf({ kind: "length", value: long }, system));
  return (
    <p className="mt-4">
      <strong>Worth keeping:</strong> {kept.map((each) => size(each as [number, number])).join("; ")}
    </p>
  );
}

function idOf(plan: MaterialPlan): string {
  return `${plan.material}/${plan.key}/${plan.nth}`;
}

/** What a material takes, in words. */
function takes(plan: MaterialPlan): string {
  const number = plan.stocks.reduce((sum, each) => sum + each.count, 0);
  const pieces = plan.items.reduce((sum, each) => sum + each.quantity, 0);
  const words =
    plan.material === "netting"
      ? "{pieces} {pieces|piece|pieces} from {n} {n|roll|rolls}"
      : plan.sticks
        ? "{pieces} {pieces|piece|pieces} from {n} {n|stick|sticks}"
        : "{pieces} {pieces|piece|pieces} from {n} {n|spool|spools}";
  const bought = plan.to_buy > 0 ? worded(", {n} to buy", { n: plan.to_buy }) : "";
  return worded(words, { pieces, n: number }) + bought;
}

function words(now: RollOut | undefined): string {
  if (!now) return "Unrolling…";
  if (now.running) return "Looking for a better plan. Stop keeps the best so far.";
  if (!now.plan) return "Not planned yet.";
  return now.fresh
    ? "Planned for the event as it stands."
    : "The event has changed since: plan the cuts again.";
}
