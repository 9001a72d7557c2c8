import { useQuery } from "@tanstack/react-query";
import { api } from "../../api/client";
import type { Piece, PieceOut, Report } from "../../api/types";
import { isPiece } from "../../desk/change";
import { useDesk } from "../../desk/useDesk";

const ask = (eventId: number, piece: Piece) => api.evaluate(eventId, piece, false);

/** One piece on the bench. Fixes take longer than verdicts, so they are asked for once nothing is being tried. */
export function usePieceDesk(eventId: number, pieceId: number) {
  const desk = useDesk<PieceOut, Report>(eventId, pieceId, isPiece, ask);
  const { kept, trying, readAt } = desk;
  const mended = useQuery({
    queryKey: ["fixes", eventId, pieceId, readAt],
    queryFn: ({ signal }) => api.evaluate(eventId, kept?.part as Piece, true, signal),
    enabled: !trying && !!kept?.report,
    retry: false,
    gcTime: 0,
  });
  const report = desk.told ?? (trying ? null : mended.data) ?? kept?.report ?? null;
  return { ...desk, piece: desk.part, report };
}

export type PieceDesk = ReturnType<typeof usePieceDesk>;
