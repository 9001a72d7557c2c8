"""The plan of a hung piece as it is stored: hang points, lines, and the armature that hangs on them."""

from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.piece import RecipeLine
from jolly_trellis.core.rigging.lines import LineSpec

HangKind = Literal[
    "beam loop",
    "clamp",
    "eye",
    "wall screw",
    "frame member",
    "adhesive hook",
    "suction hook",
    "handle",
    "truss",
]
ArmatureKind = Literal["snake", "tube", "panel", "ring"]
Stiffness = Literal["loose", "twig-stiffened", "cored"]


@dataclass(frozen=True, slots=True, kw_only=True)
class HangPoint:
    """A place of the building that lines are fixed to: where, m from the middle of the floor, right, back and up.

    `rating_n` is its working rating straight down, `stated_by` who stated it and `stated_on` when (a date); None is
    not known.
    """

    name: str
    kind: HangKind
    x_m: float
    y_m: float
    z_m: float
    rating_n: float | None = None
    stated_by: str | None = None
    stated_on: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Attachment:
    """A place of the armature that lines lead to, as drawn: right, back and up, m.

    `along_m` is how far along a snake or tube it lies, from its first end; where one of a run is None, the whole
    length is shared out over the attachments in their order, as far as they are apart.
    """

    x_m: float
    y_m: float
    z_m: float
    along_m: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class RigLine:
    """A line from a hang point to an attachment, each by its place in the lists; cut to reach as drawn."""

    point: int
    attachment: int
    spec: LineSpec


@dataclass(frozen=True, slots=True, kw_only=True)
class Armature:
    """What hangs: a snake or tube along its attachments, or a stiff panel or ring.

    `length_m` is the finished length along a snake or tube; `diameter_m` its thickness, or a ring's; a panel is
    `length_m` × `width_m`. `fuller_first` is how much more the first end carries than the last, 1 for even. Its
    netting is a key of the stores, `turns` how often the strip goes round.
    """

    kind: ArmatureKind
    length_m: float
    diameter_m: float = 0.11
    width_m: float = 0.0
    turns: float = 1.6
    netting: str | None = None
    stiffness: Stiffness = "twig-stiffened"
    fuller_first: float = 1.0
    stem_cut_m: float = 0.25


@dataclass(frozen=True, slots=True, kw_only=True)
class Rig:
    """One hung piece. `over_people` tells that anybody can be under it or touch it; `walkway` that people pass below.

    `extra_kg` is what else hangs on it, such as lamps. `bond` is the second bond to a hang point of its own, None
    where nobody has planned one.
    """

    name: str
    points: tuple[HangPoint, ...]
    attachments: tuple[Attachment, ...]
    lines: tuple[RigLine, ...]
    armature: Armature
    recipe: tuple[RecipeLine, ...] = ()
    over_people: bool = True
    walkway: bool = False
    extra_kg: float = 0.0
    bond: LineSpec | None = None
