import type { Companion, Counterweight, Piece, Spill } from "./types";

type Beside = {
  readonly companions: readonly Companion[];
  readonly spill: Spill | null;
  readonly counterweight: Counterweight | null;
};
const NOTHING: Beside = { companions: [], spill: null, counterweight: null };

/** What stands beside a piece and hangs from it; one that is carried has nothing there. */
export function besideOf(piece: Piece): Beside {
  return piece.kind === "standing" ? piece : NOTHING;
}
