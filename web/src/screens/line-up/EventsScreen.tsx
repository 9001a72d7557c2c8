import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Navigate, useLocation, useNavigate } from "react-router";
import { api, Refused } from "../../api/client";
import type { EventSummary, Problem } from "../../api/types";
import { Button } from "../../ui/Button";
import { FileButton } from "../../ui/FileButton";
import { useSettings } from "../../ui/settings";
import { TopBar } from "../../ui/TopBar";
import { setTour } from "../../ui/tour";
import { useFirstFocus } from "../../ui/useFirstFocus";
import { useRefusal } from "../../ui/useRefusal";
import { useTitle } from "../../ui/useTitle";
import { render } from "../../units/text";
import { EventRow } from "./EventRow";
import { Everything } from "./Everything";
import { comingAndOver, dayOf } from "./when";

/** From so many events on they are sought, not only looked through. */
const MANY = 8;

/** All events, and starting one from nothing. With a single event it opens at once. */
export function EventsScreen() {
  const client = useQueryClient();
  useTitle("Events");
  const { system } = useSettings();
  const { problem, attempt } = useRefusal();
  const events = useQuery({ queryKey: ["events"], queryFn: api.events });
  const gone = useQuery({ queryKey: ["deleted events"], queryFn: api.deletedEvents });
  const work = async (does: () => Promise<unknown>) => {
    await attempt(does);
    await client.invalidateQueries({ queryKey: ["events"] });
    await client.invalidateQueries({ queryKey: ["deleted events"] });
  };
  const [sought, setSought] = useState("");
  const location = useLocation();
  const asked = location.search.includes("all");
  const only = events.data?.length === 1 && gone.data?.length === 0 ? events.data[0] : undefined;
  if (only && !asked) return <Navigate to={`/events/${only.id}`} replace />;
  const many = (events.data?.length ?? 0) > MANY;
  const { coming, over } = comingAndOver(
    (events.data ?? []).filter(
      ({ brief }) =>
        !many || `${brief.name} ${brief.place}`.toLowerCase().includes(sought.trim().toLowerCase()),
    ),
  );
  return (
    <>
      <TopBar />
      <main className="mx-auto grid max-w-3xl grid-cols-1 gap-6 p-6 max-md:p-4">
        {events.data && events.data.length > 0 && (
          <section>
            <h1 className="text-3xl">Events</h1>
            {many && (
              <input
                type="search"
                aria-label="Find an event by name or place"
                placeholder="Find by name or place"
                className="mt-2 h-11 w-full rounded border border-line bg-sheet px-2"
                value={sought}
                onChange={(event) => setSought(event.target.value)}
              />
            )}
            {coming.length + over.length === 0 && (
              <p className="mt-2">No event has that in its name or place.</p>
            )}
            <Rows
              events={coming}
              next={coming[0]?.brief && dayOf(coming[0].brief) ? coming[0].id : null}
              onDelete={(id) => void work(() => api.deleteEvent(id))}
            />
            {over.length > 0 && (
              <details className="mt-3" open={coming.length === 0 || sought !== ""}>
                <summary className="min-h-11 cursor-pointer py-2.5">Over ({over.length})</summary>
                <Rows events={over} next={null} onDelete={(id) => void work(() => api.deleteEvent(id))} />
              </details>
            )}
          </section>
        )}
        {gone.data && gone.data.length > 0 && (
          <section aria-label="Deleted events">
            <h2 className="m-0 text-xl">Deleted</h2>
            <ul className="m-0 list-none divide-y divide-line p-0">
              {gone.data.map((each) => (
                <li key={each.id} className="flex items-center gap-3">
                  <span className="flex-1">{each.name}</span>
                  <span className="text-soft">{new Date(each.deleted_at).toLocaleDateString()}</span>
                  <Button
                    aria-label={`Bring back ${each.name}`}
                    onClick={() => void work(() => api.bringBackEvent(each.id))}
                  >
                    Bring back
                  </Button>
                </li>
              ))}
            </ul>
          </section>
        )}
        {problem && (
          <p role="alert" className="m-0 text-berry">
            {render(problem.message, system)} {render(problem.limit, system)}
          </p>
        )}
        <NewEvent first={events.data?.length === 0} />
        <DemoJob />
        <FromFile />
        <Everything />
      </main>
    </>
  );
}

type RowsProps = { events: readonly EventSummary[]; next: number | null; onDelete: (id: number) => void };

function Rows({ events, next, onDelete }: RowsProps) {
  return (
    <ul className="mt-2 list-none divide-y divide-line p-0">
      {events.map((each) => (
        <EventRow key={each.id} event={each} next={each.id === next} onDelete={() => onDelete(each.id)} />
      ))}
    </ul>
  );
}

/** A whole job to look at, with a tour; it is put away like any other event. */
function DemoJob() {
  const go = useNavigate();
  const [busy, setBusy] = useState(false);
  const begin = async (tour: boolean) => {
    setBusy(true);
    try {
      const { id } = await api.beginDemo();
      if (tour) setTour({ eventId: id, step: 0 });
      void go(`/events/${id}`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <section className="rounded border border-line bg-sheet p-4">
      <h2 className="m-0 text-2xl">A job to look at</h2>
      <p className="mt-1 mb-3 text-soft">
        A supper in a museum of ropes: bowls, an urn, a ledge, bouquets, work over people. It is an event of
        its own; delete it when you have seen it.
      </p>
      <div className="flex flex-wrap gap-2">
        <Button disabled={busy} onClick={() => void begin(true)}>
          Look round, with a tour of two minutes
        </Button>
        <Button look="quiet" disabled={busy} onClick={() => void begin(false)}>
          Only lay it out
        </Button>
      </div>
    </section>
  );
}

/** An event from a file that was saved here or elsewhere; a damaged or newer one says which part. */
function FromFile() {
  const { system } = useSettings();
  const { problem, attempt } = useRefusal();
  const go = useNavigate();
  const read = async (text: string) => {
    const found = await attempt(() => api.readEventFile(text));
    if (found) void go(`/events/${found.event.id}`);
  };
  return (
    <section className="rounded border border-line bg-sheet p-4">
      <h2 className="m-0 text-2xl">From a file</h2>
      <p className="mt-1 mb-3 text-soft">
        A whole event that was saved as a file, with its survey of the place.
      </p>
      <FileButton label="An event file" accept=".json,application/json" onText={(text) => void read(text)}>
        Choose an event file
      </FileButton>
      {problem && (
        <p role="alert" className="mt-2 mb-0 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
    </section>
  );
}

function NewEvent({ first }: { first: boolean }) {
  const [name, setName] = useState("");
  const field = useFirstFocus<HTMLInputElement>(first);
  const [problem, setProblem] = useState<Problem | null>(null);
  const { system } = useSettings();
  const go = useNavigate();
  const start = async () => {
    try {
      const time_zone = Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";
      const event = await api.newEvent({ name: name.trim(), time_zone });
      void go(`/events/${event.id}`);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setProblem(reason.problem);
    }
  };
  return (
    <form
      className="rounded border border-line bg-sheet p-4"
      onSubmit={(event) => {
        event.preventDefault();
        void start();
      }}
    >
      <h2 className="m-0 text-2xl">{first ? "Begin with the event" : "Another event"}</h2>
      <p className="mt-1 mb-3 text-soft">
        One job: a date, a place, a list of pieces. Only its name is needed now.
      </p>
      <label className="block text-xs text-soft" htmlFor="new-event">
        Name of the event
      </label>
      <div className="flex gap-2">
        <input
          ref={field}
          id="new-event"
          className="h-11 min-w-0 flex-1 rounded border border-line bg-paper px-2"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" look="solid">
          Start the event
        </Button>
      </div>
      {problem && (
        <p role="alert" className="mt-2 mb-0 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
    </form>
  );
}
