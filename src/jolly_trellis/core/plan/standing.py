"""The plan of a piece that stands: one vessel or a composition of several, and what hangs from it."""

from dataclasses import dataclass
from typing import Annotated, Literal

from jolly_trellis.core.plan.piece import Companion, Counterweight, Dealt, Feet, Piece, Spill
from jolly_trellis.core.ranges import Many


@dataclass(frozen=True, slots=True, kw_only=True)
class Standing(Piece):
    """A piece that stands where it is shown; with `companions` it is a composition of several vessels.

    `feet` tells whether stems are cut to stand on the floor, or to end just under the water on show. `dealt` keeps
    the seats; None deals them afresh.
    """

    kind: Literal["standing"] = "standing"
    companions: Annotated[tuple[Companion, ...], Many(4)] = ()
    spill: Spill | None = None
    counterweight: Counterweight | None = None
    feet: Feet = "on the floor"
    dealt: Dealt | None = None


def standing(piece: Piece) -> Standing:
    """A piece that is known to stand, because something hangs from it or stands beside it. Raises TypeError."""
    if not isinstance(piece, Standing):
        raise TypeError(f"a {piece.kind} does not stand")
    return piece
