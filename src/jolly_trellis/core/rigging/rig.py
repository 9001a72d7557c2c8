"""The plan of hung, mounted and leaning work as it is stored: hang points, lines, armature, what it is mounted on."""

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
    "sprinkler pipe",
    "gas pipe",
    "electrical conduit",
    "lamp",
    "ceiling grid",
    "fire door",
    "baluster",
    "unknown pipe",
]
ArmatureKind = Literal["snake", "tube", "wrapped frame", "sleeve", "spill", "runner", "panel", "ring"]
RUNS: tuple[ArmatureKind, ...] = ("snake", "tube", "wrapped frame", "sleeve", "spill", "runner")
Stiffness = Literal["loose", "twig-stiffened", "cored"]
Below = Literal["walkway", "table", "beside", "nobody"]
DropCurve = Literal["even", "dome", "bowl", "slope"]
MountKind = Literal["frame", "wall", "column", "stand"]
Outline = Literal["hoop", "arch", "rail"]
HazardKind = Literal["sprinkler", "detector", "open flame", "flame in glass", "LED candle", "exit sign"]


@dataclass(frozen=True, slots=True, kw_only=True)
class HangPoint:
    """A place of the building that lines are fixed to: where, m from the middle of the floor, right, back and up.

    `rating_n` is its working rating straight down, `pull_out_n` that of a wall screw straight out of the wall,
    `stated_by` who stated it and `stated_on` when (a date); None is not known. `made_for` says what a handle was made
    for. `surveyed` names the point of the place's survey it is: its kind and ratings are then the survey's.
    """

    name: str
    kind: HangKind
    x_m: float
    y_m: float
    z_m: float
    rating_n: float | None = None
    pull_out_n: float | None = None
    stated_by: str | None = None
    stated_on: str | None = None
    made_for: str | None = None
    surveyed: str | None = None


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
    """A line to an attachment, by its place in the list, cut to reach as drawn.

    It leads from a hang point (`point`), or from another attachment (`tied_to`); one of them is None.
    """

    attachment: int
    spec: LineSpec
    point: int | None = None
    tied_to: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Bond:
    """The second bond: its own line, with so much slack, to a hang point of its own (None: not chosen yet)."""

    spec: LineSpec
    point: int | None = None
    slack_m: float = 0.05


@dataclass(frozen=True, slots=True, kw_only=True)
class Drop:
    """Stems hung under a panel or ring, from the shortest to the longest, m: how long each is by where it hangs."""

    shortest_m: float
    longest_m: float
    curve: DropCurve = "dome"


@dataclass(frozen=True, slots=True, kw_only=True)
class Armature:
    """What is hung or mounted: a run along its attachments, or a stiff panel or ring.

    `length_m` is the armature's own length along a run; `diameter_m` its own thickness, or a ring's diameter; a panel
    is `length_m` × `width_m`. The flowers stand `projection_m` off it all round, so the finished work is that much
    larger on every side. `density` is how full even stations along it are, against one another; empty is even. Its
    netting is a key of the stores, `turns` how often the strip goes round, `sections` in how many parts it is carried.
    `core_kg` is a stone or other dense core in the foot of a sleeve. `carrier` is a cord
    that runs through it and bears the pull along it. `drop` gives hung stems their lengths; without it
    every stem is cut to `stem_cut_m`.
    """

    kind: ArmatureKind
    length_m: float
    diameter_m: float = 0.11
    width_m: float = 0.0
    projection_m: float = 0.10
    turns: float = 1.6
    sections: int = 1
    netting: str | None = None
    stiffness: Stiffness = "twig-stiffened"
    density: tuple[float, ...] = ()
    stem_cut_m: float = 0.25
    core_kg: float = 0.0
    carrier: LineSpec | None = None
    drop: Drop | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Mount:
    """What work is mounted on: a free-standing frame or stand, a wall, a column of the building.

    `width_m` × `height_m` is the frame's outline, the stand's or column's diameter and height. A frame or stand stands
    on `foot_width_m` × `foot_depth_m` and weighs `mass_kg`, with `ballast_kg` on each of its four feet; outdoors it is
    struck above Beaufort `comes_down_above`. `tied_to` says what fixed thing it is guyed or tied to. On a wall,
    `arm_m` is how far the middle of the work stands out, `bears_below_m` how far under a screw it leans on the wall.
    """

    kind: MountKind
    outline: Outline = "hoop"
    x_m: float = 0.0
    width_m: float = 0.0
    height_m: float = 0.0
    foot_width_m: float = 0.0
    foot_depth_m: float = 0.0
    mass_kg: float | None = None
    ballast_kg: float = 0.0
    outdoors: bool = False
    comes_down_above: int = 5
    tied_to: str | None = None
    arm_m: float = 0.0
    bears_below_m: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Hazard:
    """Something near that must be kept clear, and where it is: right, back and up, m."""

    kind: HazardKind
    x_m: float
    y_m: float
    z_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Rig:
    """One hung or mounted piece.

    `below` says who can be under it or beside it. `extra_kg` is what else hangs on it, such as lamps. `bond` is the
    second bond, None where nobody has planned one. `proof_kg` is the proof load somebody has chosen, None for the
    usual one. Lines are left slack by `levelling_m` until it hangs level. `dried` tells that something dried is in it.
    """

    name: str
    points: tuple[HangPoint, ...]
    attachments: tuple[Attachment, ...]
    lines: tuple[RigLine, ...]
    armature: Armature
    recipe: tuple[RecipeLine, ...] = ()
    below: Below = "table"
    extra_kg: float = 0.0
    bond: Bond | None = None
    mount: Mount | None = None
    hazards: tuple[Hazard, ...] = ()
    proof_kg: float | None = None
    levelling_m: float = 0.03
    dried: bool = False

    @property
    def over_people(self) -> bool:
        """Whether anybody can be under it or touch it."""
        return self.below != "nobody"

    @property
    def is_run(self) -> bool:
        """Whether its armature is long and thin, not a stiff panel or ring."""
        return self.armature.kind in RUNS

    @property
    def is_tied(self) -> bool:
        """Whether it is a run tied all along to a frame, stand or column, so that it cannot come down in one lump."""
        return self.is_run and self.mount is not None and self.mount.kind != "wall"

    @property
    def lies(self) -> bool:
        """Whether it lies along a table and hangs from nothing."""
        return self.armature.kind == "runner"
