import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, Navigate, useLocation, useNavigate } from "react-router";
import { api, Refused } from "../../api/client";
import type { Problem } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { TopBar } from "../../ui/TopBar";
import { render } from "../../units/text";
import { ORDINARY } from "./PracticeFields";

/** All events, and starting one from nothing. With a single event it opens at once. */
export function EventsPlace() {
  const events = useQuery({ queryKey: ["events"], queryFn: api.events });
  const location = useLocation();
  const asked = location.search.includes("all");
  const only = events.data?.length === 1 ? events.data[0] : undefined;
  if (only && !asked) return <Navigate to={`/events/${only.id}`} replace />;
  return (
    <>
      <TopBar />
      <main className="mx-auto grid max-w-3xl gap-6 p-6">
        {events.data && events.data.length > 0 && (
          <section>
            <h1 className="text-3xl">Events</h1>
            <ul className="mt-2 list-none divide-y divide-line p-0">
              {events.data.map((each) => (
                <li key={each.id}>
                  <Link to={`/events/${each.id}`} className="flex min-h-[52px] items-center text-lg">
                    {each.name}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
        <NewEvent first={events.data?.length === 0} />
      </main>
    </>
  );
}

function NewEvent({ first }: { first: boolean }) {
  const [name, setName] = useState("");
  const [problem, setProblem] = useState<Problem | null>(null);
  const { system } = useSettings();
  const go = useNavigate();
  const start = async () => {
    try {
      const time_zone = Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";
      const event = await api.newEvent({
        name: name.trim(),
        place: "",
        time_zone,
        filled_at: null,
        ends_at: null,
        air: null,
        topped_up_by: null,
        practice: ORDINARY,
      });
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
      <label className="block text-[13px] text-soft" htmlFor="new-event">
        Name of the event
      </label>
      <div className="flex gap-2">
        <input
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
