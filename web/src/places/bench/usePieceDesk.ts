import { useCallback, useEffect, useRef, useState } from "react";
import { api, Refused } from "../../api/client";
import type { EventOut, Piece, Problem, Report, SavedPiece } from "../../api/types";
import { type Conflict, unreached, useWriteLine } from "../../ui/useWriteLine";

type Desk = {
  readonly event: EventOut | null;
  readonly piece: Piece | null;
  readonly report: Report | null;
  readonly problem: Problem | null;
  readonly conflict: Conflict | null;
};
type Kept = {
  readonly piece: Piece;
  readonly report: Report | null;
  readonly problem: Problem | null;
  readonly revision: number;
};

const EMPTY: Desk = { event: null, piece: null, report: null, problem: null, conflict: null };

function problemOf(reason: unknown): Problem {
  if (reason instanceof Refused) return reason.problem;
  throw reason;
}

/**
 * One piece on the bench: what is saved, what is being tried, and what the core says of it.
 * Previews ask one question at a time and skip to the newest; a commit is one request and one undo step.
 */
export function usePieceDesk(eventId: number, pieceId: number) {
  const [desk, setDesk] = useState<Desk>(EMPTY);
  const saved = useRef<Kept | null>(null);
  const wanted = useRef<Piece | null>(null);
  const asking = useRef(false);
  /** Counts what the hand has begun or given up: the answer to an earlier question is dropped. */
  const asked = useRef(0);
  const { write, saving, tail } = useWriteLine();

  /** Fixes take longer than verdicts, so they are asked for once the piece is on the bench. */
  const tryFixes = useCallback(
    async (piece: Piece) => {
      try {
        const report = await api.evaluate(eventId, piece, true);
        if (saved.current?.piece !== piece) return;
        saved.current = { ...saved.current, report };
        setDesk((now) => (now.piece === piece ? { ...now, report } : now));
      } catch {
        // The verdicts stand without their fixes; whatever is wrong is said at the next change.
      }
    },
    [eventId],
  );

  const show = useCallback(
    (event: EventOut) => {
      asked.current += 1;
      const found = event.pieces.find((each) => each.id === pieceId);
      saved.current = found
        ? { piece: found.piece, report: found.report, problem: found.problem, revision: event.revision }
        : null;
      setDesk({
        ...EMPTY,
        event,
        piece: found?.piece ?? null,
        report: found?.report ?? null,
        problem: found?.problem ?? null,
      });
      if (found?.report && !found.report.fixes_tried) void tryFixes(found.piece);
    },
    [pieceId, tryFixes],
  );

  const load = useCallback(async () => {
    try {
      // A write under way was judged before whatever is being looked for now: its answer must not come last.
      await tail.current;
      show(await api.event(eventId));
    } catch (reason) {
      setDesk((now) => ({ ...now, problem: problemOf(reason) }));
    }
  }, [eventId, show, tail]);

  useEffect(() => {
    void load();
  }, [load]);

  const preview = useCallback(
    async (piece: Piece) => {
      setDesk((now) => ({ ...now, piece }));
      wanted.current = piece;
      if (asking.current) return;
      asking.current = true;
      while (wanted.current) {
        const question = wanted.current;
        const number = asked.current;
        wanted.current = null;
        try {
          const report = await api.evaluate(eventId, question, false);
          if (number === asked.current) setDesk((now) => ({ ...now, report, problem: null }));
        } catch (reason) {
          const problem = problemOf(reason);
          if (number === asked.current) setDesk((now) => ({ ...now, problem }));
        }
      }
      asking.current = false;
    },
    [eventId],
  );

  /** What was written is kept; it is shown only where no later write has gone out meanwhile, which rests on it. */
  const accept = useCallback((answer: SavedPiece, last: boolean) => {
    const { piece, report, problem, revision, undo, redo } = answer;
    saved.current = { piece, report, problem, revision };
    setDesk((now) => ({
      ...now,
      event: now.event && { ...now.event, revision, undo, redo },
      ...(last ? { piece, report, problem, conflict: null } : {}),
    }));
  }, []);

  /** Back to what is saved, with the sentence that says why the change was not taken. */
  const refuse = useCallback((problem: Problem | null) => {
    const kept = saved.current;
    setDesk((now) => ({
      ...now,
      piece: kept?.piece ?? now.piece,
      report: kept?.report ?? now.report,
      problem,
    }));
  }, []);

  /** Sends a change of the piece; where another window was faster, both ways out are offered. */
  const send = useCallback(
    (act: (revision: number) => Promise<SavedPiece>, mine: Piece | null, words: string) => {
      wanted.current = null;
      asked.current += 1;
      setDesk((now) => ({ ...now, conflict: null, ...(mine ? { piece: mine } : {}) }));
      return write(
        async (last) => {
          try {
            accept(await act(saved.current?.revision ?? 0), last());
          } catch (reason) {
            const problem = problemOf(reason);
            if (unreached(reason)) {
              // What was typed stays on the screen and is tried again; a press that is not is said.
              setDesk((now) => ({ ...now, problem }));
              throw reason;
            }
            if (!last()) return;
            refuse(problem.code === "stale" ? (saved.current?.problem ?? null) : problem);
            if (problem.code !== "stale") return;
            const again = () => {
              if (saved.current) saved.current = { ...saved.current, revision: problem.revision ?? 0 };
              void send(act, mine, words);
            };
            setDesk((now) => ({ ...now, conflict: { problem, words, again } }));
          }
        },
        mine === null ? "once" : "whole",
      );
    },
    [accept, refuse, write],
  );

  const commit = useCallback(
    (piece: Piece, label: string) =>
      send((revision) => api.putPiece(eventId, pieceId, revision, piece, label), piece, "Keep mine over it"),
    [eventId, pieceId, send],
  );
  const fix = useCallback(
    (verb: string, key: string) =>
      send((revision) => api.applyFix(eventId, pieceId, revision, verb, key), null, "Do it all the same"),
    [eventId, pieceId, send],
  );
  const cancel = useCallback(() => {
    wanted.current = null;
    asked.current += 1;
    const kept = saved.current;
    setDesk((now) => ({
      ...now,
      piece: kept?.piece ?? now.piece,
      report: kept?.report ?? now.report,
      problem: kept?.problem ?? null,
    }));
  }, []);
  const travel = useCallback(
    (way: "undo" | "redo", base?: number): Promise<void> =>
      write(async () => {
        try {
          show(await api[way](eventId, base ?? saved.current?.revision ?? desk.event?.revision ?? 0));
        } catch (reason) {
          const problem = problemOf(reason);
          if (problem.code !== "stale") {
            setDesk((now) => ({ ...now, problem }));
            return;
          }
          const again = () => void travel(way, problem.revision);
          const words = way === "undo" ? "Undo all the same" : "Redo all the same";
          setDesk((now) => ({ ...now, conflict: { problem, words, again } }));
        }
      }, "once"),
    [desk.event?.revision, eventId, show, write],
  );

  return {
    ...desk,
    saving,
    preview,
    commit,
    fix,
    cancel,
    undo: () => void travel("undo"),
    redo: () => void travel("redo"),
    takeTheirs: () => void load(),
    reload: load,
  };
}

export type PieceDesk = ReturnType<typeof usePieceDesk>;
