"""Kinds of hang points and fixings: what each is called, and what is asked of it; what nothing may ever hang from."""

from dataclasses import dataclass
from typing import Annotated

from jolly_trellis.core.choices import HANG_KINDS

HangKind = Annotated[str, HANG_KINDS]


@dataclass(frozen=True, slots=True, kw_only=True)
class AboutPoint:
    """One kind of hang point.

    `never` says why nothing hangs from it; empty where something may. One that is `stuck` on is never over people, and
    counts with half its label elsewhere; one `in_wall` is rated out of the wall as well; one that is a `part` of
    something has to be made for a load.
    """

    kind: HangKind
    name: str
    never: str = ""
    stuck: bool = False
    in_wall: bool = False
    part: bool = False


POINTS: dict[HangKind, AboutPoint] = {}


def declare(*points: AboutPoint) -> None:
    """Make kinds of hang points known, in order."""
    POINTS.update({each.kind: each for each in points})
    HANG_KINDS.know(list(POINTS))


declare(
    AboutPoint(kind="beam loop", name="loop round a beam"),
    AboutPoint(kind="clamp", name="clamp"),
    AboutPoint(kind="eye", name="eye"),
    AboutPoint(kind="wall screw", name="wall screw", in_wall=True),
    AboutPoint(kind="frame member", name="frame"),
    AboutPoint(kind="adhesive hook", name="adhesive hook", stuck=True),
    AboutPoint(kind="suction hook", name="suction hook", stuck=True),
    AboutPoint(kind="handle", name="handle", part=True),
    AboutPoint(kind="truss", name="truss"),
    AboutPoint(
        kind="sprinkler pipe",
        name="sprinkler pipe",
        never="Nothing hangs from a sprinkler pipe or head: it must stay free to work, and may flood it.",
    ),
    AboutPoint(kind="gas pipe", name="gas pipe", never="Nothing hangs from a gas pipe: a joint that is pulled leaks."),
    AboutPoint(
        kind="electrical conduit",
        name="conduit",
        never="Nothing hangs from electrical conduit: it bears its cables only, and they are live.",
    ),
    AboutPoint(kind="lamp", name="lamp", never="Nothing hangs from a lamp: it bears itself only, and grows hot."),
    AboutPoint(
        kind="ceiling grid",
        name="ceiling grid",
        never="Nothing hangs from a ceiling grid: it bears its tiles only.",
    ),
    AboutPoint(
        kind="fire door",
        name="fire door",
        never="Nothing hangs from a fire door or its closer: it must shut by itself.",
    ),
    AboutPoint(
        kind="baluster",
        name="baluster",
        never="Nothing hangs from a baluster: it is not made to be pulled outwards.",
    ),
    AboutPoint(
        kind="unknown pipe",
        name="unknown pipe",
        never="Nothing hangs from a pipe that nobody knows: it may be gas, or a sprinkler's.",
    ),
)
