"""What kinds of pieces there are; adding one is a row here."""

from collections.abc import Mapping
from typing import TYPE_CHECKING, TypeGuard, Union

from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.plan.bouquet import Bouquet
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.plan.worn import Worn

PIECES: Mapping[str, type[Piece]] = {"standing": Standing, "bouquet": Bouquet, "worn": Worn}

if TYPE_CHECKING:
    AnyPiece = Piece
else:
    # What reads and writes JSON is told of every kind there is.
    AnyPiece = Union[tuple(PIECES.values())]  # noqa: UP007


def stands(piece: Piece) -> TypeGuard[Standing]:
    """Whether it is a piece that stands where it is shown."""
    return isinstance(piece, Standing)


def is_carried(piece: Piece) -> TypeGuard[Bound]:
    """Whether it is bound at one point: held in the hand, or worn."""
    return isinstance(piece, Bound)


def is_held(piece: Piece) -> TypeGuard[Bouquet]:
    """Whether it is held in the hand."""
    return isinstance(piece, Bouquet)


def is_worn(piece: Piece) -> TypeGuard[Worn]:
    """Whether it is worn."""
    return isinstance(piece, Worn)
