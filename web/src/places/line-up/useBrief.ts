import { useState } from "react";
import { api, Refused } from "../../api/client";
import type { Brief, EventOut, Problem } from "../../api/types";

type Line = { newest: EventOut; writes: Promise<void> };
/** One line of writes for each event, whichever part of the screen they come from. */
const lines = new Map<number, Line>();

export type BriefDesk = ReturnType<typeof useBrief>;

/** Saving what is known of the job: one write at a time, each over what the one before it left. */
export function useBrief(event: EventOut, onSaved: (event: EventOut) => void) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const line = lines.get(event.id) ?? { newest: event, writes: Promise.resolve() };
  lines.set(event.id, line);
  if (event.revision > line.newest.revision) line.newest = event;
  const put = (change: Partial<Brief> | ((brief: Brief) => Partial<Brief>)) => {
    line.writes = line.writes.then(async () => {
      const { id, revision, brief } = line.newest;
      const next = typeof change === "function" ? change(brief) : change;
      try {
        line.newest = await api.putBrief(id, revision, { ...brief, ...next });
        setProblem(null);
        onSaved(line.newest);
      } catch (reason) {
        if (!(reason instanceof Refused)) throw reason;
        setProblem(reason.problem);
      }
    });
    return line.writes;
  };
  /** After another window has changed the event: take its state, and show that. */
  const takeOther = async () => {
    line.newest = await api.event(event.id);
    setProblem(null);
    onSaved(line.newest);
  };
  return { put, problem, takeOther };
}
