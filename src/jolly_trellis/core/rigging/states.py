"""How a line and a hang point stand, once the rig is solved; what a hang point may carry."""

from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.provenance import FROM_MEMORY
from jolly_trellis.core.quantities import worded
from jolly_trellis.core.rigging.hang_points import POINTS
from jolly_trellis.core.rigging.rig import HangPoint, Rig, RigLine

HALF_LABEL = rule("Adhesive and suction hooks carry, of their label", "ratio", 0.5, FROM_MEMORY, cautious="down")
StateName = Literal["bare", "one face done", "finished"]
LineCase = Literal["whole", "uneven", "one gone"]


@dataclass(frozen=True, slots=True, kw_only=True)
class LineState:
    """One line as it is judged: its worst tension in each case with what it may carry then, and its settled angle.

    `governs` is the case nearest its limit; `use` tension over limit in it; `angle_rad` to the horizontal. `weakest`
    is what in its path carries least: empty for the line itself, else the kind of hardware. `pieces` is how many ties
    or straps are joined for it, None for what is cut to `cut_length_m`.
    """

    name: str
    tension_n: float
    design_n: float
    limit_n: float
    breaking_n: float
    use: float
    governs: LineCase
    angle_rad: float
    cut_length_m: float
    weakest: str = ""
    pieces: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class PointState:
    """One hang point: the greatest pull on it in any case, N, and its share of the rating.

    `off_rad` is the most that any pull lies off the direction it is rated for; `pulls_n` is the pull in every case as
    right, back and up, N.
    """

    name: str
    pull_n: float
    off_rad: float
    use: float | None
    pulls_n: tuple[tuple[float, float, float], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class HangState:
    """How it hangs while it is made: bare, with one face or half of it done, finished; N, m and rad."""

    name: StateName
    load_n: float
    lowest_m: float
    tilt_rad: float


def rating_of(point: HangPoint) -> float | None:
    """What a hang point may carry: what was stated of it; half the label of a hook that sticks. None where unknown."""
    if point.rating_n is None or not point.stated_by:
        return None
    return point.rating_n * (HALF_LABEL.value if POINTS[point.kind].stuck else 1.0)


def name_of(rig: Rig, line: RigLine) -> str:
    """A line in words: from which point to which place of the armature, or between two places."""
    if line.tied_to is not None:
        return worded("the line between places {one} and {other}", one=line.tied_to + 1, other=line.attachment + 1)
    return worded("{point}'s line to place {place}", point=rig.points[line.point or 0].name, place=line.attachment + 1)
