"""What kinds of pieces there are; adding one is a row here."""

from collections.abc import Mapping
from typing import TYPE_CHECKING, TypeGuard, Union

from jolly_trellis.core.plan.bouquet import Bouquet
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.standing import Standing

PIECES: Mapping[str, type[Piece]] = {"standing": Standing, "bouquet": Bouquet}

if TYPE_CHECKING:
    AnyPiece = Piece
else:
    # What reads and writes JSON is told of every kind there is.
    AnyPiece = Union[tuple(PIECES.values())]  # noqa: UP007


def stands(piece: Piece) -> TypeGuard[Standing]:
    """Whether it is a piece that stands where it is shown."""
    return isinstance(piece, Standing)


def is_carried(piece: Piece) -> TypeGuard[Bouquet]:
    """Whether it is bound at one point, and carried or worn."""
    return isinstance(piece, Bouquet)
