import { useCallback, useReducer, useRef } from "react";
import { api, Refused } from "../api/client";
import type { Edit, EventChange, PartOut, Problem, Rests } from "../api/types";
import { type Again, againOf, asksWhose, unreached, useWriteLine } from "../ui/useWriteLine";
import { type Action, bare, type Desk, reduce } from "./state";
import { useEvent } from "./useEvent";

/** A hand sees a drawing that lags by more than this. */
const LATE_MS = 100;

/**
 * One part at its desk, of whatever kind: what is kept, what is being tried, and what the core says of that.
 * Previews ask one question at a time and skip to the newest; a commit is one request and one undo step.
 */
export function useDesk<O extends PartOut, T>(
  eventId: number,
  partId: number,
  is: (part: PartOut) => part is O,
  /** What is asked while a hand drags. */
  ask: (eventId: number, part: O["part"]) => Promise<T>,
) {
  type P = O["part"];
  const { event, error, readAt, current, lay, reload } = useEvent(eventId);
  const { write, saving } = useWriteLine();
  /** Kept beside the screen, so that what is sent between two drawings of it rests on the newest. */
  const state = useRef<Desk<P, T>>(bare());
  const [, draw] = useReducer((count: number) => count + 1, 0);
  const late = useRef(0);
  const send = useCallback((action: Action<P, T>) => {
    clearTimeout(late.current);
    state.current = reduce(state.current, action);
    draw();
  }, []);
  /** What is tried is drawn with what is told of it, in one go; by itself only where the answer is slow to come. */
  const tried = useCallback((part: P) => {
    began.current ??= known.current;
    state.current = reduce(state.current, { type: "try", part });
    clearTimeout(late.current);
    late.current = window.setTimeout(draw, LATE_MS);
  }, []);
  const wanted = useRef<P | null>(null);
  /** What this window began from, until nothing is tried any more: what it sends is told from that. */
  const began = useRef<P | null>(null);
  const asking = useRef(false);
  /** The edit that is pointed at: what another would make of the part is not shown any more. */
  const seeing = useRef<symbol | null>(null);
  const kept = event?.parts.filter(is).find((each) => each.id === partId) ?? null;
  const known = useRef<P | null>(null);
  known.current = (kept?.part as P | undefined) ?? null;

  const show = useCallback(
    async (part: P) => {
      tried(part);
      wanted.current = part;
      if (asking.current) return;
      asking.current = true;
      while (wanted.current) {
        const next = wanted.current;
        const { question } = state.current;
        wanted.current = null;
        try {
          send({ type: "told", question, told: await ask(eventId, next) });
        } catch (reason) {
          send({ type: "untold", question, problem: problemOf(reason) });
        }
      }
      asking.current = false;
    },
    [ask, eventId, send, tried],
  );

  const preview = useCallback(
    (part: P) => {
      seeing.current = null;
      return show(part);
    },
    [show],
  );

  /** Sends a write over the newest state this window knows; where another was faster, both ways out are offered. */
  const put = useCallback(
    (
      does: (revision: number, rests: Rests<P>) => Promise<EventChange>,
      { part, words, again = null }: { part: P | null; words: string; again?: Again | null },
    ): Promise<void> => {
      seeing.current = null;
      wanted.current = null;
      if (part) began.current ??= known.current;
      send({ type: "write", part });
      return write(
        async (last) => {
          const seen = (await current())?.revision ?? 0;
          const revision = part ? seen : (again?.revision ?? seen);
          const was = bareOf(began.current);
          try {
            await lay(await does(revision, { was, chosen: again?.chosen ?? null }), part ? null : again);
            if (part) began.current = part;
            if (last()) {
              send({ type: "kept", part });
              if (state.current.trial === null) began.current = null;
            }
          } catch (reason) {
            const problem = problemOf(reason);
            if (unreached(reason)) {
              send({ type: "unreached", problem });
              throw reason;
            }
            if (!last()) return;
            if (problem.code !== "stale") {
              began.current = null;
              send({ type: "refused", problem });
              return;
            }
            if (!asksWhose(reason)) began.current = null;
            const retry = (mine: readonly string[], theirs: readonly string[]) =>
              void put(does, { part, words, again: againOf(problem, mine, theirs) });
            send({ type: "stale", conflict: { problem, words, again: retry } });
          }
        },
        part === null ? "once" : "whole",
      );
    },
    [current, lay, send, write],
  );

  const commit = useCallback(
    (part: P, label: string) =>
      put((revision, rests) => api.putPart(eventId, partId, revision, part, label, rests), {
        part,
        words: "Keep mine over it",
      }),
    [eventId, partId, put],
  );
  const fix = useCallback(
    (verb: string, key: string) =>
      put((revision) => api.applyFix(eventId, partId, revision, verb, key), {
        part: null,
        words: "Do it all the same",
      }),
    [eventId, partId, put],
  );
  /** Shows what an edit would make of the part, until `cancel`; nothing else is tried meanwhile. */
  const see = useCallback(
    async (what: Edit) => {
      if (state.current.trial) return;
      const mine = Symbol();
      seeing.current = mine;
      const seen = (await current())?.revision ?? 0;
      const { part } = await api.seeEdit(eventId, partId, seen, what);
      if (seeing.current === mine && !state.current.trial) void show(part as P);
    },
    [current, eventId, partId, show],
  );
  const travel = useCallback(
    (way: "undo" | "redo") => {
      wanted.current = null;
      began.current = null;
      send({ type: "drop" });
      const words = way === "undo" ? "Undo all the same" : "Redo all the same";
      return put((revision) => api[way](eventId, revision), { part: null, words });
    },
    [eventId, put, send],
  );
  const cancel = useCallback(() => {
    seeing.current = null;
    wanted.current = null;
    began.current = null;
    send({ type: "drop" });
  }, [send]);
  /** Shows no edit any more; what somebody has typed meanwhile stays. */
  const unsee = useCallback(() => {
    if (seeing.current) cancel();
  }, [cancel]);
  const edit = useCallback(
    (what: Edit) => {
      unsee();
      return put((revision) => api.editPart(eventId, partId, revision, what), {
        part: null,
        words: "Do it all the same",
      });
    },
    [unsee, eventId, partId, put],
  );
  const takeTheirs = useCallback(() => {
    cancel();
    void reload();
  }, [cancel, reload]);

  const desk = state.current;
  const part: P | null = desk.trial?.part ?? (kept?.part as P | undefined) ?? null;
  return {
    event,
    kept,
    readAt,
    part,
    /** The part that presses are made on: what one that is pointed at would make is shown on the drawing alone. */
    own: seeing.current ? ((kept?.part as P | undefined) ?? null) : part,
    /** What was told of the part that is tried; null while nothing is tried, or nothing is told yet. */
    told: desk.trial?.told ?? null,
    /** What is shown is not saved and judged yet. */
    trying: desk.trial !== null,
    problem: desk.problem ?? kept?.problem ?? (error instanceof Refused ? error.problem : null),
    conflict: desk.conflict,
    saving: desk.conflict && desk.trial ? ("asked" as const) : saving,
    preview,
    commit,
    fix,
    edit,
    see,
    unsee,
    cancel,
    undo: () => void travel("undo"),
    redo: () => void travel("redo"),
    takeTheirs,
    reload,
  };
}

function problemOf(reason: unknown): Problem {
  if (reason instanceof Refused) return reason.problem;
  throw reason;
}

/** A part without its seats as they were dealt: they follow from the rest. */
function bareOf<P>(part: P | null): P | null {
  return part && "dealt" in (part as object) ? { ...part, dealt: null } : part;
}
