"""What an event is made of: parts, each of a kind."""

from collections.abc import Mapping
from typing import Literal

from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.rigging.rig import Rig

Part = Piece | Rig
PartKind = Literal["piece", "rig"]
KINDS: Mapping[PartKind, type[Part]] = {"piece": Piece, "rig": Rig}
_KIND_OF: Mapping[type[Part], PartKind] = {each: kind for kind, each in KINDS.items()}


def kind_of(part: Part) -> PartKind:
    """The kind of a part, as it is written beside it."""
    return _KIND_OF[type(part)]
