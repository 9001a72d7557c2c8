import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useParams } from "react-router";
import { api, Refused } from "../../api/client";
import { EventFrame } from "../../ui/EventFrame";
import { useSettings } from "../../ui/settings";
import { TabBar } from "../../ui/TabBar";
import { DaysBefore } from "./DaysBefore";
import { PackingList } from "./PackingList";
import { PullLists } from "./PullLists";
import { ShoppingList } from "./ShoppingList";

const TABS = [
  ["shopping", "Shopping"],
  ["packing", "Packing"],
  ["days", "Days before"],
  ["pull", "Pull lists"],
] as const;

/** The lists of an event: what to buy and from whom, what to pack, what is done on the days before, what is pulled. */
export function ListsPlace() {
  const eventId = Number(useParams().eventId);
  const { system } = useSettings();
  const lists = useQuery({ queryKey: ["lists", eventId], queryFn: () => api.lists(eventId) });
  const now = lists.data;
  const refused = lists.error instanceof Refused ? lists.error.problem : null;
  const paper = system === "inch" ? "Letter" : "A4";
  return (
    <EventFrame eventId={eventId} name={now?.name ?? ""} title="Lists" problem={refused}>
      {!now && !refused && (
        <main className="p-4">
          <p role="status">Counting…</p>
        </main>
      )}
      {now && (
        <Tabs.Root asChild defaultValue="shopping">
          <main className="flex min-h-0 flex-1 flex-col">
            <div className="no-print flex flex-none flex-wrap items-center gap-1 border-b border-line px-3">
              <TabBar label="Lists of the event" tabs={TABS} />
              <a
                className="link-act ml-auto px-2"
                href={`/api/events/${eventId}/shopping.pdf?system=${system}&paper=${paper}`}
              >
                Print as PDF
              </a>
              <a className="link-act px-2" href={`/api/events/${eventId}/shopping.csv`}>
                Save as CSV
              </a>
            </div>
            <Tabs.Content value="shopping" className="min-h-0 flex-1 overflow-y-auto p-4">
              <ShoppingList shortfalls={now.shortfalls} shopping={now.shopping} currency={now.currency} />
            </Tabs.Content>
            <Tabs.Content value="packing" className="min-h-0 flex-1 overflow-y-auto p-4">
              <PackingList shopping={now.shopping} />
            </Tabs.Content>
            <Tabs.Content value="days" className="min-h-0 flex-1 overflow-y-auto p-4">
              <DaysBefore days={now.days} />
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
