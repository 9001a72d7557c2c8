import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef } from "react";
import { api } from "../../api/client";
import { laid, marksOf, type Told } from "../../api/sections";
import type { Piece, PieceOut, Report } from "../../api/types";
import { isPiece } from "../../desk/change";
import { useDesk } from "../../desk/useDesk";

/** What may wait while a hand drags; the program ends what it has begun of it. */
const WAITS = ["fixes", "looking"] as const;

/** One piece on the bench. Fixes take longer than verdicts, so they are asked for once nothing is being tried. */
export function usePieceDesk(eventId: number, pieceId: number) {
  const told = useRef<Told | null>(null);
  const ask = useCallback(async (event: number, piece: Piece): Promise<Report> => {
    const before = told.current;
    const now = laid(before, await api.evaluateChange(event, piece, marksOf(before)));
    told.current = now;
    return now.report;
  }, []);
  const desk = useDesk<PieceOut, Report>(eventId, pieceId, isPiece, ask);
  const { kept, trying, readAt } = desk;
  const mended = useQuery({
    queryKey: ["fixes", eventId, pieceId, readAt],
    queryFn: ({ signal }) => api.evaluate(eventId, kept?.part as Piece, true, signal),
    enabled: !trying && !!kept?.report,
    retry: false,
    gcTime: 0,
  });
  const queries = useQueryClient();
  useEffect(() => {
    if (trying) for (const each of WAITS) void queries.cancelQueries({ queryKey: [each] });
  }, [trying, queries]);
  const report = desk.told ?? (trying ? null : mended.data) ?? kept?.report ?? null;
  return { ...desk, piece: desk.part, report };
}

export type PieceDesk = ReturnType<typeof usePieceDesk>;
