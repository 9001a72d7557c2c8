"""What an event is made of: parts, each of a kind; adding a kind is a row here."""

from collections.abc import Mapping
from typing import TYPE_CHECKING, Union

from jolly_trellis.core.plan.bouquet import Bouquet
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.rigging.rig import Rig

Part = Piece | Rig
KINDS: Mapping[str, type[Part]] = {"standing": Standing, "bouquet": Bouquet, "rig": Rig}

if TYPE_CHECKING:
    AnyPiece = Piece
    AnyPart = Part
else:
    # What reads and writes JSON is told of every kind there is.
    AnyPiece = Union[tuple(each for each in KINDS.values() if issubclass(each, Piece))]  # noqa: UP007
    AnyPart = Union[tuple(KINDS.values())]  # noqa: UP007
