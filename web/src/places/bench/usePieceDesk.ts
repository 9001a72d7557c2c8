import { useCallback, useEffect, useRef, useState } from "react";
import { api, Refused } from "../../api/client";
import type { EventOut, Piece, Problem, Report, SavedPiece } from "../../api/types";

export type Conflict = { readonly mine: Piece; readonly label: string; readonly problem: Problem };
type Desk = {
  readonly event: EventOut | null;
  readonly piece: Piece | null;
  readonly report: Report | null;
  readonly problem: Problem | null;
  readonly conflict: Conflict | null;
  readonly saving: boolean;
};

const EMPTY: Desk = { event: null, piece: null, report: null, problem: null, conflict: null, saving: false };

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
  const saved = useRef<{ piece: Piece; report: Report; revision: number } | null>(null);
  const wanted = useRef<Piece | null>(null);
  const asking = useRef(false);
  const writes = useRef<Promise<unknown>>(Promise.resolve());
  /** How many writes have gone out; the answer of an earlier one never comes over what a later one shows. */
  const sent = useRef(0);

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
      const found = event.pieces.find((each) => each.id === pieceId);
      if (found?.report)
        saved.current = { piece: found.piece, report: found.report, revision: event.revision };
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
      await writes.current;
      show(await api.event(eventId));
    } catch (reason) {
      setDesk((now) => ({ ...now, problem: problemOf(reason) }));
    }
  }, [eventId, show]);

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
        const asked = wanted.current;
        wanted.current = null;
        try {
          const report = await api.evaluate(eventId, asked, false);
          setDesk((now) => (now.piece === null || now.saving ? now : { ...now, report, problem: null }));
        } catch (reason) {
          const problem = problemOf(reason);
          setDesk((now) => ({ ...now, problem }));
        }
      }
      asking.current = false;
    },
    [eventId],
  );

  /** What was written is kept; it is shown only where no later write has gone out meanwhile, which rests on it. */
  const accept = useCallback((answer: SavedPiece, last: boolean) => {
    saved.current = { piece: answer.piece, report: answer.report, revision: answer.revision };
    setDesk((now) => ({
      ...now,
      event: now.event && { ...now.event, revision: answer.revision, undo: answer.undo, redo: answer.redo },
      ...(last ? { piece: answer.piece, report: answer.report, saving: false } : {}),
      problem: null,
      conflict: null,
    }));
  }, []);

  /** Back to what is saved, with the sentence that says why the change was not taken. */
  const refuse = useCallback((reason: unknown, mine: Piece | null, label: string) => {
    const problem = problemOf(reason);
    const kept = saved.current;
    setDesk((now) => ({
      ...now,
      piece: kept?.piece ?? now.piece,
      report: kept?.report ?? now.report,
      problem: problem.code === "stale" ? null : problem,
      conflict: problem.code === "stale" && mine ? { mine, label, problem } : now.conflict,
      saving: false,
    }));
  }, []);

  const write = useCallback(
    (act: (revision: number) => Promise<SavedPiece>, mine: Piece | null, label: string) => {
      wanted.current = null;
      sent.current += 1;
      const number = sent.current;
      setDesk((now) => ({ ...now, saving: true, ...(mine ? { piece: mine } : {}) }));
      const next = writes.current.then(async () => {
        try {
          const answer = await act(saved.current?.revision ?? 0);
          accept(answer, number === sent.current);
        } catch (reason) {
          refuse(reason, mine, label);
        }
      });
      writes.current = next;
      return next;
    },
    [accept, refuse],
  );

  const commit = useCallback(
    (piece: Piece, label: string) =>
      write((revision) => api.putPiece(eventId, pieceId, revision, piece, label), piece, label),
    [eventId, pieceId, write],
  );
  const fix = useCallback(
    (verb: string, key: string) =>
      write((revision) => api.applyFix(eventId, pieceId, revision, verb, key), null, "fix"),
    [eventId, pieceId, write],
  );
  const cancel = useCallback(() => {
    wanted.current = null;
    const kept = saved.current;
    setDesk((now) => ({
      ...now,
      piece: kept?.piece ?? now.piece,
      report: kept?.report ?? now.report,
      problem: null,
    }));
  }, []);
  const travel = useCallback(
    async (way: "undo" | "redo") => {
      try {
        show(await api[way](eventId, saved.current?.revision ?? 0));
      } catch (reason) {
        const problem = problemOf(reason);
        await load();
        setDesk((now) => ({ ...now, problem }));
      }
    },
    [eventId, load, show],
  );
  const keepMine = useCallback(() => {
    const { conflict } = desk;
    if (!conflict) return;
    if (saved.current) saved.current = { ...saved.current, revision: conflict.problem.revision ?? 0 };
    void commit(conflict.mine, conflict.label);
  }, [commit, desk]);

  return {
    ...desk,
    preview,
    commit,
    fix,
    cancel,
    undo: () => travel("undo"),
    redo: () => travel("redo"),
    keepMine,
    takeTheirs: load,
    reload: load,
  };
}

export type PieceDesk = ReturnType<typeof usePieceDesk>;
