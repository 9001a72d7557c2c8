import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, Refused } from "../../api/client";
import type { EventOut, Problem, Rest, Rig, SavedRig } from "../../api/types";
import { type Conflict, unreached, useWriteLine } from "../../ui/useWriteLine";

/** What is tried while a hand drags: the rig as it would be, and where that hangs. */
type Trial = { readonly rig: Rig; readonly rest: Rest | null };

/** One hung piece: what is kept, what is being tried, and what the core says of it. A commit is one undo step. */
export function useRigDesk(eventId: number, rigId: number) {
  const client = useQueryClient();
  const stored = useQuery({ queryKey: ["event", eventId], queryFn: () => api.event(eventId) });
  const [trial, setTrial] = useState<Trial | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const wanted = useRef<Rig | null>(null);
  const asking = useRef(false);
  /** Counts what the hand has begun or given up: the answer to an earlier question is dropped. */
  const asked = useRef(0);
  const { write, saving } = useWriteLine();
  const event = stored.data ?? null;
  const kept = event?.rigs.find((each) => each.id === rigId) ?? null;

  /** What is still being fetched was judged before the last write: it is dropped, so that it never comes last. */
  const show = async (next: EventOut) => {
    await client.cancelQueries({ queryKey: ["event", eventId] });
    client.setQueryData(["event", eventId], next);
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
      const number = asked.current;
      wanted.current = null;
      try {
        const rest = await api.settleRig(eventId, next);
        if (number !== asked.current) continue;
        setTrial((now) => now && { ...now, rest });
        setProblem(null);
      } catch (reason) {
        if (!(reason instanceof Refused)) throw reason;
        if (number === asked.current) setProblem(reason.problem);
      }
    }
    asking.current = false;
  };

  const commit = (rig: Rig, label: string, base?: number): Promise<void> => {
    wanted.current = null;
    asked.current += 1;
    setConflict(null);
    setTrial((now) => ({ rig, rest: now?.rest ?? null }));
    return write(async (last) => {
      const now = await current();
      try {
        const answer = await api.putRig(eventId, rigId, base ?? now?.revision ?? 0, rig, label);
        if (now) await show(withSaved(now, answer));
        if (!last()) return;
        setProblem(null);
        setTrial((tried) => (tried?.rig === rig ? null : tried));
      } catch (reason) {
        if (!(reason instanceof Refused)) throw reason;
        if (unreached(reason)) {
          // What was typed stays on the screen and is tried again.
          setProblem(reason.problem);
          throw reason;
        }
        if (!last()) return;
        setTrial(null);
        const { problem } = reason;
        if (problem.code !== "stale") {
          setProblem(problem);
          return;
        }
        const again = () => void commit(rig, label, problem.revision);
        setConflict({ problem, words: "Keep mine over it", again });
      }
    }, "whole");
  };

  const travel = (way: "undo" | "redo", base?: number): Promise<void> => {
    asked.current += 1;
    setTrial(null);
    setConflict(null);
    return write(async () => {
      const now = await current();
      try {
        await show(await api[way](eventId, base ?? now?.revision ?? 0));
        setProblem(null);
      } catch (reason) {
        if (!(reason instanceof Refused)) throw reason;
        const { problem } = reason;
        if (problem.code !== "stale") {
          setProblem(problem);
          return;
        }
        const again = () => void travel(way, problem.revision);
        setConflict({ problem, words: way === "undo" ? "Undo all the same" : "Redo all the same", again });
      }
    }, "once");
  };

  const takeTheirs = async () => {
    setTrial(null);
    setProblem(null);
    setConflict(null);
    await client.invalidateQueries({ queryKey: ["event", eventId] });
  };

  return {
    event,
    rig: trial?.rig ?? kept?.rig ?? null,
    rest: trial?.rest ?? kept?.report?.rest ?? null,
    report: kept?.report ?? null,
    /** What is shown is not judged yet. */
    trying: trial !== null,
    problem: problem ?? kept?.problem ?? (stored.error instanceof Refused ? stored.error.problem : null),
    conflict,
    saving,
    preview: (rig: Rig) => void preview(rig),
    commit: (rig: Rig, label: string) => void commit(rig, label),
    cancel: () => {
      wanted.current = null;
      asked.current += 1;
      setTrial(null);
      setProblem(null);
    },
    undo: () => void travel("undo"),
    redo: () => void travel("redo"),
    takeTheirs: () => void takeTheirs(),
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
