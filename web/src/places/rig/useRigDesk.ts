import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, Refused } from "../../api/client";
import type { EventOut, Problem, Rest, Rig, SavedRig } from "../../api/types";

/** What is tried while a hand drags: the rig as it would be, and where that hangs. */
type Trial = { readonly rig: Rig; readonly rest: Rest | null };

/** One hung piece: what is kept, what is being tried, and what the core says of it. A commit is one undo step. */
export function useRigDesk(eventId: number, rigId: number) {
  const client = useQueryClient();
  const asked = useQuery({ queryKey: ["event", eventId], queryFn: () => api.event(eventId) });
  const [trial, setTrial] = useState<Trial | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [saving, setSaving] = useState(false);
  const wanted = useRef<Rig | null>(null);
  const asking = useRef(false);
  const writes = useRef<Promise<unknown>>(Promise.resolve());
  const event = asked.data ?? null;
  const kept = event?.rigs.find((each) => each.id === rigId) ?? null;

  /** What is still being fetched was judged before the last write: it is dropped, so that it never comes last. */
  const show = async (next: EventOut) => {
    await client.cancelQueries({ queryKey: ["event", eventId] });
    client.setQueryData(["event", eventId], next);
  };
  const refuse = (reason: unknown) => {
    if (!(reason instanceof Refused)) throw reason;
    setProblem(reason.problem);
    setTrial(null);
    if (reason.problem.code === "stale") void client.invalidateQueries({ queryKey: ["event", eventId] });
  };

  /** The event as it stands now, whatever is still being fetched. */
  const current = async (): Promise<EventOut | undefined> => {
    await client.cancelQueries({ queryKey: ["event", eventId] });
    return client.getQueryData<EventOut>(["event", eventId]);
  };

  const preview = async (rig: Rig) => {
    setTrial((now) => ({ rig, rest: now?.rest ?? null }));
    wanted.current = rig;
    if (asking.current) return;
    asking.current = true;
    while (wanted.current) {
      const next = wanted.current;
      wanted.current = null;
      try {
        const rest = await api.settleRig(eventId, next);
        setTrial((now) => now && { ...now, rest });
        setProblem(null);
      } catch (reason) {
        if (!(reason instanceof Refused)) throw reason;
        setProblem(reason.problem);
      }
    }
    asking.current = false;
  };

  const commit = (rig: Rig, label: string) => {
    wanted.current = null;
    setTrial((now) => ({ rig, rest: now?.rest ?? null }));
    setSaving(true);
    const next = writes.current.then(async () => {
      const now = await current();
      try {
        const saved = await api.putRig(eventId, rigId, now?.revision ?? 0, rig, label);
        if (now) await show(withSaved(now, saved));
        setProblem(null);
        setTrial((tried) => (tried?.rig === rig ? null : tried));
      } catch (reason) {
        refuse(reason);
      }
      setSaving(false);
    });
    writes.current = next;
    return next;
  };

  const travel = (way: "undo" | "redo") => {
    setTrial(null);
    const next = writes.current.then(async () => {
      const now = await current();
      try {
        await show(await api[way](eventId, now?.revision ?? 0));
        setProblem(null);
      } catch (reason) {
        refuse(reason);
      }
    });
    writes.current = next;
    return next;
  };

  return {
    event,
    rig: trial?.rig ?? kept?.rig ?? null,
    rest: trial?.rest ?? kept?.report?.rest ?? null,
    report: kept?.report ?? null,
    /** What is shown is not judged yet. */
    trying: trial !== null,
    problem: problem ?? kept?.problem ?? (asked.error instanceof Refused ? asked.error.problem : null),
    saving,
    preview: (rig: Rig) => void preview(rig),
    commit: (rig: Rig, label: string) => void commit(rig, label),
    cancel: () => {
      wanted.current = null;
      setTrial(null);
      setProblem(null);
    },
    undo: () => void travel("undo"),
    redo: () => void travel("redo"),
  };
}

export type RigDesk = ReturnType<typeof useRigDesk>;

function withSaved(event: EventOut, saved: SavedRig): EventOut {
  const { id, rig, report, problem, revision, undo, redo } = saved;
  return {
    ...event,
    revision,
    undo,
    redo,
    rigs: event.rigs.map((each) => (each.id === id ? { id, rig, report, problem } : each)),
  };
}
