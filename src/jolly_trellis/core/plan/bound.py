"""What a piece that is bound at one point and carried has, whether it is held in the hand or worn."""

from dataclasses import dataclass
from typing import Annotated, ClassVar

from jolly_trellis.core.plan.piece import Back, Piece, Sort
from jolly_trellis.core.ranges import Range


@dataclass(frozen=True, slots=True, kw_only=True)
class Bound(Piece):
    """A piece that is bound at one point and carried; its vessel is what it waits in.

    `dome_m` is the rise of the flowers over their underside; None is worked out. `carried_h` is how long it is out of
    water, None not known. `collar` tells a collar of leaves under the
    flowers, `back` what covers the side against the body.
    """

    carried: ClassVar[bool] = True
    sort: ClassVar[Sort] = "bouquet"

    dome_m: Annotated[float | None, Range("length", 0, 0.6, above=True)] = None
    carried_h: Annotated[float | None, Range("duration", 0, 48, above=True)] = None
    collar: bool = False
    back: Back = "bare"
    bow_loops: Annotated[int, Range("count", 0, 40)] = 0
    bow_loop_m: Annotated[float, Range("length", 0.02, 0.5)] = 0.12
    streamers: Annotated[int, Range("count", 0, 40)] = 0
    streamer_m: Annotated[float, Range("length", 0.05, 3)] = 0.5
