import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { useParams } from "react-router";
import { api, Refused } from "../../api/client";
import type { EventChange, ListsOut, Ticking, Ticks } from "../../api/types";
import { piecesOf } from "../../desk/change";
import { useEvent } from "../../desk/useEvent";
import { EventFrame } from "../../ui/EventFrame";
import { useSettings } from "../../ui/settings";
import { TabBar } from "../../ui/TabBar";
import { useAddress } from "../../ui/useAddress";
import type { Again } from "../../ui/useWriteLine";
import { useWrites } from "../../ui/useWrites";
import { render } from "../../units/text";
import { ComingHome } from "./ComingHome";
import { DaysBefore } from "./DaysBefore";
import { HireRows } from "./HireRows";
import { LastingCare } from "./LastingCare";
import { Offers } from "./Offers";
import { OrdersList } from "./OrdersList";
import { PackingList } from "./PackingList";
import { PullLists } from "./PullLists";
import { ShoppingList } from "./ShoppingList";
import { Shortfalls } from "./Shortfalls";
import { StemLedger } from "./StemLedger";

const TABS = [
  ["shopping", "Shopping"],
  ["orders", "Orders"],
  ["packing", "Taking along"],
  ["home", "Coming home"],
  ["days", "Days before"],
  ["pull", "Pull lists"],
  ["stems", "By variety"],
] as const;

const KEYS = TABS.map(([key]) => key);

/** The lists of an event: what to buy and from whom, what to pack, what is done on the days before, what is pulled. */
export function ListsScreen() {
  const eventId = Number(useParams().eventId);
  const { system } = useSettings();
  const client = useQueryClient();
  const [list, setList] = useAddress("list", KEYS);
  const [strange, setStrange] = useState<readonly string[]>([]);
  const { event, lay, current, reload } = useEvent(eventId);
  const { send, problem, conflict, forget } = useWrites();
  const lists = useQuery({ queryKey: ["lists", eventId], queryFn: () => api.lists(eventId) });
  const stock = useQuery({ queryKey: ["stock"], queryFn: api.stock });
  const now = lists.data;
  const refused = lists.error instanceof Refused ? lists.error.problem : problem;
  const fetchAnew = async () => {
    await client.invalidateQueries({ queryKey: ["lists", eventId] });
    await client.invalidateQueries({ queryKey: ["standing", eventId] });
    await client.invalidateQueries({ queryKey: ["stock"] });
  };
  const actBy = (does: (id: number, revision: number) => Promise<EventChange>) =>
    void send(async (again) => {
      await lay(await does(eventId, again?.revision ?? (await current())?.revision ?? 0), again);
      await fetchAnew();
    }, "once");
  const layTicks = (next: (known: Ticks) => Ticks) =>
    client.setQueryData<ListsOut>(
      ["lists", eventId],
      (known) => known && { ...known, ticks: next(known.ticks) },
    );
  /** Ticked on the screen at once; what the program has is laid over it. */
  const tick = (sent: Ticking) => {
    const known = tickOf(sent, ticksKnown());
    layTicks((known) => withTick(known, sent));
    void send(async (again, last) => {
      const ticks = await put(sent, known, again);
      if (last()) layTicks(() => ticks);
    }, "each");
  };
  const ticksKnown = () => client.getQueryData<ListsOut>(["lists", eventId])?.ticks;
  /** Over what this window knew; once more over what is there by now, with the other's where that was chosen. */
  const put = async (sent: Ticking, known: Ticking["tick"], again: Again | null) => {
    if (!again) return api.tick(eventId, { ...sent, was: known });
    const was = tickOf(sent, (await api.lists(eventId)).ticks);
    const theirs = Object.entries(was ?? {}).filter(([field]) => again.chosen.theirs.includes(field));
    const settled = sent.tick && { ...sent.tick, ...Object.fromEntries(theirs) };
    return api.tick(eventId, { ...sent, was, tick: again.chosen.theirs.includes("") ? was : settled });
  };
  /** A line as it is ticked. */
  const tickOf = ({ list, line }: Ticking, ticks: Ticks | undefined): Ticking["tick"] => {
    const found = ticks?.[list]?.find((each) => each.line === line);
    return found ? { number: found.number, state: found.state, note: found.note } : null;
  };
  /** Counted stems change what is left of them: the program says how much. */
  const count = (sent: Ticking) => {
    void send(async (again) => {
      await put(sent, tickOf(sent, ticksKnown()), again);
      await client.invalidateQueries({ queryKey: ["lists", eventId] });
    }, "each");
  };
  const names = [
    ...new Set(
      (event ? piecesOf(event) : []).flatMap(({ part }) => [
        part.vessel.name,
        ...(part.support ? [part.support.name] : []),
        ...(part.insert ? [part.insert.outer.name] : []),
      ]),
    ),
  ];
  const named = new Map((event?.parts ?? []).map((each) => [each.id, each.part.name] as const));
  const paper = system === "inch" ? "Letter" : "A4";
  return (
    <EventFrame
      eventId={eventId}
      name={now?.name ?? ""}
      title="Lists"
      problem={refused}
      conflict={conflict}
      undo={event?.undo ?? null}
      redo={event?.redo ?? null}
      onUndo={() => actBy(api.undo)}
      onRedo={() => actBy(api.redo)}
      onTakeTheirs={() => {
        forget();
        void reload().then(fetchAnew);
      }}
    >
      {!now && !refused && (
        <main className="p-4">
          <p role="status">Counting…</p>
        </main>
      )}
      {now && (
        <Tabs.Root asChild value={list} onValueChange={(next) => setList(next as (typeof KEYS)[number])}>
          <main className="flex min-h-0 flex-1 flex-col">
            <div className="no-print flex flex-none flex-wrap items-center gap-1 border-b border-line px-3">
              <TabBar label="Lists of the event" tabs={TABS} />
              <a
                className="link-action ml-auto px-2"
                href={`/api/events/${eventId}/shopping.pdf?system=${system}&paper=${paper}`}
              >
                Print as PDF
              </a>
              <a className="link-action px-2" href={`/api/events/${eventId}/shopping.csv`}>
                Save as CSV
              </a>
            </div>
            <Tabs.Content value="shopping" className="min-h-0 flex-1 overflow-y-auto p-4">
              <div className="max-w-5xl">
                <Shortfalls eventId={eventId} shortfalls={now.shortfalls} onAct={actBy} />
                {now.hires_out_of_time.map((each) => (
                  <p key={render(each, system)} className="mt-0 mb-2 text-berry">
                    ✕ {render(each, system)}
                  </p>
                ))}
                <Offers offers={now.offers} reused={event?.brief.reused ?? []} named={named} onAct={actBy} />
              </div>
              <ShoppingList shopping={now.shopping} currency={now.currency} />
              {event && (
                <div className="max-w-5xl">
                  <HireRows event={event} names={names} onSaved={() => void fetchAnew()} />
                </div>
              )}
            </Tabs.Content>
            <Tabs.Content value="orders" className="min-h-0 flex-1 overflow-y-auto p-4">
              <OrdersList
                eventId={eventId}
                orders={now.orders}
                ticks={now.ticks}
                currency={now.currency}
                paper={paper}
                onTick={tick}
                onRead={(text) =>
                  void send(async () => {
                    const { unknown, ticks } = await api.goodsIn(eventId, text);
                    client.setQueryData<ListsOut>(
                      ["lists", eventId],
                      (known) => known && { ...known, ticks },
                    );
                    setStrange(unknown);
                  }, "once")
                }
                strange={strange}
              />
            </Tabs.Content>
            <Tabs.Content value="home" className="min-h-0 flex-1 overflow-y-auto p-4">
              <ComingHome
                returns={now.returns}
                onHome={(lines) =>
                  void send(async () => {
                    await api.comeHome(eventId, lines);
                    await fetchAnew();
                  }, "once")
                }
                onTakeBack={() =>
                  void send(async () => {
                    await api.notHome(eventId);
                    await fetchAnew();
                  }, "once")
                }
              />
            </Tabs.Content>
            <Tabs.Content value="packing" className="min-h-0 flex-1 overflow-y-auto p-4">
              <PackingList shopping={now.shopping} ticks={now.ticks} onTick={tick} />
            </Tabs.Content>
            <Tabs.Content value="days" className="min-h-0 flex-1 overflow-y-auto p-4">
              <DaysBefore days={now.days} />
              <LastingCare care={now.lasting} />
            </Tabs.Content>
            <Tabs.Content value="stems" className="min-h-0 flex-1 overflow-y-auto p-4">
              <StemLedger
                eventId={eventId}
                lists={now}
                names={Object.values(stock.data?.varieties ?? {}).map((each) => each.name)}
                onCount={count}
                onAct={actBy}
              />
            </Tabs.Content>
            <Tabs.Content value="pull" className="min-h-0 flex-1 overflow-y-auto p-4">
              <PullLists lists={now} eventId={eventId} />
            </Tabs.Content>
          </main>
        </Tabs.Root>
      )}
    </EventFrame>
  );
}

/** Ticks with one more, or one less. */
function withTick(ticks: Ticks, { list, line, tick }: Ticking): Ticks {
  const others = (ticks[list] ?? []).filter((each) => each.line !== line);
  return { ...ticks, [list]: tick ? [...others, { line, ...tick }] : others };
}
