"""What an event is made of: parts, each of a kind."""

from collections.abc import Mapping
from typing import TYPE_CHECKING, TypeGuard, Union

from jolly_trellis.core.plan.kinds import PIECES
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.rigging.rig import Rig

Part = Piece | Rig
KINDS: Mapping[str, type[Part]] = {**PIECES, "rig": Rig}

if TYPE_CHECKING:
    AnyPart = Part
else:
    # What reads and writes JSON is told of every kind there is.
    AnyPart = Union[tuple(KINDS.values())]  # noqa: UP007


def hangs(part: Part) -> TypeGuard[Rig]:
    """Whether it hangs, lies or is mounted."""
    return isinstance(part, Rig)


def in_vessels(part: Part) -> TypeGuard[Piece]:
    """Whether its stems stand in a vessel, or wait in one."""
    return isinstance(part, Piece)
