"""The plan of a bouquet or posy: bound at one point and held in the hand."""

from dataclasses import dataclass
from typing import Annotated, Literal

from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.ranges import Range


@dataclass(frozen=True, slots=True, kw_only=True)
class Bouquet(Bound):
    """A piece that is held in the hand; its vessel is the vase it waits in, its envelope that vase with it in it.

    `hand_length_m` is the stems below the binding; None is worked out. With `spiral` stems cross at the binding on an
    armature too.
    """

    kind: Literal["bouquet"] = "bouquet"
    hand_length_m: Annotated[float | None, Range("length", 0, 0.8, above=True)] = None
    spiral: bool = False
