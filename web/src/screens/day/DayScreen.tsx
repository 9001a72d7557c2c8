import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, Refused } from "../../api/client";
import type { DayOut, EventChange } from "../../api/types";
import { Button } from "../../ui/Button";
import { EventFrame } from "../../ui/EventFrame";
import { FactLinks } from "../../ui/FactLinks";
import { FileButton } from "../../ui/FileButton";
import { useWrites } from "../../ui/useWrites";
import { worded } from "../../units/worded";
import { Conflicts } from "./Conflicts";
import { DayChart } from "./DayChart";
import { LifeRows } from "./LifeRows";
import { Notes } from "./Notes";
import { TaskList } from "./TaskList";
import { TaskPanel } from "./TaskPanel";
import { dateOf, dayWords } from "./times";
import { useBefore } from "./useBefore";
import { WaterList } from "./WaterList";

/** In place of a date: all days, one under the other. */
const EVERY = "every day";

/** The day: the run sheet with a lane for each of the crew, the life of each variety, water rounds. */
export function DayScreen() {
  const eventId = Number(useParams().eventId);
  const client = useQueryClient();
  const { send, problem, setProblem, conflict, forget } = useWrites();
  const [date, setDate] = useState<string | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const asked = useQuery({
    queryKey: ["day", eventId],
    queryFn: () => api.day(eventId),
    refetchInterval: (query) => (query.state.data?.running ? 400 : false),
  });
  const now = asked.data;
  const before = useBefore(now);
  const show = (next: DayOut | null) => {
    if (!next) return;
    client.setQueryData(["day", eventId], (kept: DayOut | undefined) =>
      next.day || !kept ? next : { ...next, day: kept.day },
    );
    void client.invalidateQueries({ queryKey: ["event", eventId] });
  };
  const revision = () => client.getQueryData<DayOut>(["day", eventId])?.revision ?? 0;
  const change = (does: (revision: number) => Promise<DayOut>) => {
    setSaid(null);
    return send(async (again) => {
      await client.cancelQueries({ queryKey: ["day", eventId] });
      show(await does(again?.revision ?? revision()));
    });
  };
  /** One step back or forth at a time, each from where the one before it left the event. */
  const goBy = (does: (id: number, revision: number) => Promise<EventChange>, words: string) =>
    void send(
      async (again) => {
        const next = await does(eventId, again?.revision ?? revision());
        client.setQueryData(["day", eventId], (kept: DayOut | undefined) =>
          kept ? { ...kept, revision: next.revision } : kept,
        );
        await client.invalidateQueries({ queryKey: ["day", eventId] });
      },
      "once",
      words,
    );
  const takeOther = async () => {
    forget();
    await client.invalidateQueries({ queryKey: ["day", eventId] });
  };
  const refused = asked.error instanceof Refused ? asked.error.problem : problem;
  const timed = now?.day?.timed ?? [];
  const dates = [...new Set(timed.map((each) => dateOf(each.starts_at)))];
  const main = now?.brief.filled_at ? dateOf(now.brief.filled_at) : dates[0];
  const shownDate = date && dates.includes(date) ? date : main && dates.includes(main) ? main : dates[0];
  const every = date === EVERY && dates.length > 1;
  const shown = every ? dates : shownDate ? [shownDate] : [];
  const task = timed.find((each) => each.task.key === picked);
  const readBack = (text: string) =>
    send(async (again) => {
      const read = await api.readCalendar(eventId, again?.revision ?? revision(), text);
      show(read.day);
      const moved =
        read.moved.length === 0
          ? "No time was changed."
          : worded("Moved: {tasks}.", { tasks: read.moved.join(", ") });
      const unknown =
        read.unknown.length > 0
          ? worded(" {n} {n|entry is|entries are} no task of this event.", { n: read.unknown.length })
          : "";
      setSaid(moved + unknown);
    });
  return (
    <EventFrame
      eventId={eventId}
      name={now?.brief.name ?? ""}
      title="Day"
      problem={refused}
      undo={now?.undo ?? null}
      redo={now?.redo ?? null}
      onUndo={() => goBy(api.undo, "Undo all the same")}
      onRedo={() => goBy(api.redo, "Redo all the same")}
      conflict={conflict}
      onTakeTheirs={() => void takeOther()}
    >
      <main className="min-h-0 flex-1 overflow-y-auto p-4 print:overflow-visible">
        <div className="no-print mb-2 flex flex-wrap items-center gap-2">
          <p role="status" className="m-0 mr-auto text-soft">
            {!now || (!now.day && now.running)
              ? "Working out the day…"
              : now.running
                ? "Looking for a better day. Stop keeps the best so far."
                : worded("{n} {n|task|tasks}, {hands} {hands|pair|pairs} of hands", {
                    n: timed.length,
                    hands: now.crew.length,
                  })}
          </p>
          {now?.running && <Button onClick={() => void change(() => api.stopDay(eventId))}>Stop</Button>}
          {timed.length > 0 && (
            <span className="flex flex-wrap items-center gap-x-1">
              <a className="link-action px-2" href={`/api/events/${eventId}/day.ics`}>
                Save as calendar
              </a>
              <span className="text-soft">of one:</span>
              {now?.crew.map(({ key, name }) => (
                <a
                  key={key}
                  className="flex min-h-11 min-w-11 items-center justify-center px-1"
                  href={`/api/events/${eventId}/day.ics?person=${encodeURIComponent(key)}`}
                  aria-label={`Save the calendar of ${name}`}
                >
                  {name}
                </a>
              ))}
            </span>
          )}
          {timed.length > 0 && (
            <FileButton
              label="A calendar file"
              accept=".ics,text/calendar"
              onText={(text) => void readBack(text)}
            >
              Read a changed calendar
            </FileButton>
          )}
          <a className="link-action px-2" href={`/api/events/${eventId}/pack.html`}>
            Venue pack
          </a>
        </div>
        {said && (
          <p role="status" className="mt-0">
            {said}
          </p>
        )}
        {now?.day && now.day.missing.length > 0 && (
          <p className="mt-0">
            The brief does not say: <FactLinks facts={now.day.missing} />.
          </p>
        )}
        {now?.day && now.day.weight_unknown.length > 0 && (
          <p className="mt-0 text-berry">
            ✕ Cannot say how heavy, so one person is taken to place it: {now.day.weight_unknown.join("; ")}.
          </p>
        )}
        {now?.day && (
          <Conflicts
            conflicts={now.day.conflicts}
            onPick={(key) => {
              setPicked(key);
              const found = timed.find((each) => each.task.key === key);
              if (found && !every) setDate(dateOf(found.starts_at));
            }}
            onApply={(key) => void change((base) => api.applyRemedy(eventId, base, key))}
          />
        )}
        {now?.day && <Notes notes={now.day.notes} />}
        {now && shownDate && (
          <>
            <div
              className="no-print mb-1 flex flex-wrap gap-1 max-md:hidden"
              role="group"
              aria-label="Which day"
            >
              {dates.length > 1 && (
                <Button look={every ? "solid" : "plain"} aria-pressed={every} onClick={() => setDate(EVERY)}>
                  Every day
                </Button>
              )}
              {dates.map((each) => (
                <Button
                  key={each}
                  look={shown.includes(each) && !every ? "solid" : "plain"}
                  aria-pressed={shown.includes(each) && !every}
                  onClick={() => setDate(each)}
                >
                  {dayWords(each)}
                </Button>
              ))}
            </div>
            <div className="grid grid-cols-[minmax(0,1fr)_270px] gap-4 max-lg:grid-cols-1 print:block">
              <div className="min-w-0 overflow-x-auto max-md:hidden">
                {shown.map((each) => (
                  <section key={each} className={every ? "mb-4" : ""}>
                    {every && <h2 className="m-0 mb-1 text-lg">{dayWords(each)}</h2>}
                    <DayChart
                      date={each}
                      timed={timed}
                      crew={now.crew.map(({ name }) => name)}
                      extra={now.day?.extra_hands ?? 0}
                      times={now.brief}
                      picked={picked}
                      onPick={setPicked}
                      onMove={(key, at) => void change((base) => api.setTask(eventId, base, key, at))}
                    />
                  </section>
                ))}
                {!every && <LifeRows date={shownDate} lives={now.day?.lives ?? []} timed={timed} />}
              </div>
              <TaskPanel
                timed={task}
                crew={now.crew.map((each) => each.name)}
                problem={problem}
                onSet={(at) => task && void change((base) => api.setTask(eventId, base, task.task.key, at))}
                onClose={() => setPicked(null)}
              />
            </div>
          </>
        )}
        <div className="mt-5 grid grid-cols-2 gap-8 max-lg:grid-cols-1">
          <TaskList
            timed={timed}
            before={before}
            crew={now?.crew.map((each) => each.name) ?? []}
            parts={now?.parts ?? {}}
            picked={picked}
            onPick={(key) => {
              setProblem(null);
              setPicked(key);
            }}
          />
          {now && <WaterList water={now.water} eventId={eventId} />}
        </div>
      </main>
    </EventFrame>
  );
}
