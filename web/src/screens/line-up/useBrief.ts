import { useEffect, useRef, useState } from "react";
import { api } from "../../api/client";
import type { Brief, EventOut } from "../../api/types";
import { useEvent } from "../../desk/useEvent";
import { asksWhose, unreached } from "../../ui/useWriteLine";
import { useWrites } from "../../ui/useWrites";

type Known = Pick<EventOut, "id" | "revision" | "brief">;
type Line = { newest: Known; writes: Promise<void> };
type Change = Partial<Brief> | ((brief: Brief) => Partial<Brief>);
/** One line of writes for each event, whichever part of the screen they come from. */
const lines = new Map<number, Line>();

export type BriefDesk = ReturnType<typeof useBrief>;

/** Saving what is known of the job: one write at a time, each over what the one before it left. */
export function useBrief(event: EventOut, onSaved: () => void = () => undefined) {
  const { lay, reload } = useEvent(event.id);
  const { send, saving, problem, conflict, forget } = useWrites();
  /** What was set and is not saved yet: it stays on the screen. */
  const [pending, setPending] = useState<Partial<Brief>>({});
  /** The revision with which all of that is saved: it stays until the event that is shown has come so far. */
  const [until, setUntil] = useState<number | null>(null);
  const open = useRef(0);
  const line = lines.get(event.id) ?? { newest: event, writes: Promise.resolve() };
  lines.set(event.id, line);
  if (event.revision > line.newest.revision) line.newest = event;

  useEffect(() => {
    if (until === null || event.revision < until) return;
    setPending({});
    setUntil(null);
  }, [event.revision, until]);

  const put = (change: Change): Promise<void> => {
    const next = (brief: Brief) => (typeof change === "function" ? change(brief) : change);
    setPending((now) => ({ ...now, ...next({ ...event.brief, ...now }) }));
    setUntil(null);
    open.current += 1;
    const close = (revision: number) => {
      open.current -= 1;
      if (open.current === 0) setUntil(revision);
    };
    let began: Brief | null = null;
    return send(async (again) => {
      const run = line.writes.then(async () => {
        const { id, revision, brief } = line.newest;
        began ??= brief;
        const rests = { was: began, chosen: again?.chosen ?? null };
        const change = await api.putBrief(id, revision, { ...began, ...next(began) }, rests);
        line.newest = change;
        await lay(change);
      });
      line.writes = run.catch(() => undefined);
      try {
        await run;
      } catch (reason) {
        if (!unreached(reason) && !asksWhose(reason)) close(0);
        throw reason;
      }
      onSaved();
      close(line.newest.revision);
    }, "each");
  };
  /** After another window has changed the event: take its state, and show that. */
  const takeOther = async () => {
    line.newest = await api.event(event.id);
    setPending({});
    forget();
    await reload();
    onSaved();
  };
  const shown = { ...event, brief: { ...event.brief, ...pending } };
  return { put, shown, saving, problem, conflict, takeOther };
}
