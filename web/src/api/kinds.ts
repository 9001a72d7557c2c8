import type { Bouquet, Companion, Counterweight, Piece, Spill, Worn } from "./types";

type Beside = {
  readonly companions: readonly Companion[];
  readonly spill: Spill | null;
  readonly counterweight: Counterweight | null;
};
const NOTHING: Beside = { companions: [], spill: null, counterweight: null };

/** Whether a piece is bound at one point: held in the hand, or worn. */
export function isCarried(piece: Piece): piece is Bouquet | Worn {
  return piece.kind === "bouquet" || piece.kind === "worn";
}

/** What stands beside a piece and hangs from it; one that is carried has nothing there. */
export function besideOf(piece: Piece): Beside {
  return piece.kind === "standing" ? piece : NOTHING;
}
