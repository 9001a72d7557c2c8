"""The plan of hung, mounted and leaning work as it is stored: hang points, lines, armature, what it is mounted on."""

from dataclasses import dataclass, field, replace
from typing import Annotated, Literal, Self, get_args

from jolly_trellis.core.plan.passage import Passage
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.setting import FootMaterial, Surface
from jolly_trellis.core.ranges import Many, Range, Text
from jolly_trellis.core.rigging.hang_points import HangKind
from jolly_trellis.core.rigging.lines import LineSpec

ArmatureKind = Literal["snake", "tube", "wrapped frame", "sleeve", "spill", "runner", "panel", "ring"]
RUNS: tuple[ArmatureKind, ...] = ("snake", "tube", "wrapped frame", "sleeve", "spill", "runner")
Stiffness = Literal["loose", "twig-stiffened", "cored"]
Below = Literal["walkway", "table", "beside", "nobody"]
DropCurve = Literal["even", "dome", "bowl", "slope"]
MountKind = Literal["frame", "wall", "column", "stand"]
Outline = Literal["hoop", "arch", "rail"]
Tested = Literal["maker", "trial"]
HardwareKind = Literal["shackle", "sling", "eye bolt", "carabiner", "swivel", "turnbuckle"]
HARDWARE_KINDS: tuple[HardwareKind, ...] = get_args(HardwareKind)
HazardKind = Literal["sprinkler", "detector", "open flame", "flame in glass", "LED candle", "exit sign"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Statement:
    """What somebody stated of a hang point, and the place and kind it was said of; fields as in HangPoint."""

    kind: HangKind
    x_m: Annotated[float, Range("length", -60, 60)]
    y_m: Annotated[float, Range("length", -60, 60)]
    z_m: Annotated[float, Range("length", 0, 60)]
    rating_n: Annotated[float | None, Range("force", 0, 1000000)] = None
    pull_out_n: Annotated[float | None, Range("force", 0, 1000000)] = None
    rated_within_rad: Annotated[float | None, Range("angle", 0, 1.5708)] = None
    stated_by: Annotated[str | None, Text(120, least=1)] = None
    stated_on: Annotated[str | None, Text(20, least=1)] = None
    made_for: Annotated[str | None, Text(120, least=1)] = None
    surveyed: Annotated[str | None, Text(120, least=1)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class HangPoint:
    """A place of the building that lines are fixed to: where, m from the middle of the floor, right, back and up.

    `rating_n` is its working rating straight down, or as far off that as `rated_within_rad` (None: the usual 15°),
    `pull_out_n` that of a wall screw straight out of the wall,
    `stated_by` who stated it and `stated_on` when (a date); None is not known. `made_for` says what a handle was made
    for. `surveyed` is the key of the point of the place's survey it is: its kind and ratings are then the survey's.
    `beam` is the key of the beam or truss it is on. `elsewhere` is what was stated of it before it was moved: to be
    read, and counted nowhere.
    """

    name: Annotated[str, Text(120, least=1)]
    kind: HangKind
    x_m: Annotated[float, Range("length", -60, 60)]
    y_m: Annotated[float, Range("length", -60, 60)]
    z_m: Annotated[float, Range("length", 0, 60)]
    rating_n: Annotated[float | None, Range("force", 0, 1000000)] = None
    pull_out_n: Annotated[float | None, Range("force", 0, 1000000)] = None
    rated_within_rad: Annotated[float | None, Range("angle", 0, 1.5708)] = None
    stated_by: Annotated[str | None, Text(120, least=1)] = None
    stated_on: Annotated[str | None, Text(20, least=1)] = None
    made_for: Annotated[str | None, Text(120, least=1)] = None
    surveyed: Annotated[str | None, Text(120, least=1)] = None
    beam: Annotated[str | None, Text(120, least=1)] = None
    elsewhere: Statement | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Attachment:
    """A place of the armature that lines lead to, as drawn: right, back and up, m.

    `along_m` is how far along a snake or tube it lies, from its first end; where one of a run is None, the whole
    length is shared out over the attachments in their order, as far as they are apart.
    """

    x_m: Annotated[float, Range("length", -60, 60)]
    y_m: Annotated[float, Range("length", -60, 60)]
    z_m: Annotated[float, Range("length", 0, 60)]
    along_m: Annotated[float | None, Range("length", 0, 200)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Hardware:
    """A piece of hardware in a line's path, and the working load marked on it, N; None where nobody has read it."""

    kind: HardwareKind
    wll_n: Annotated[float | None, Range("force", 0, 1000000, above=True)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class RigLine:
    """A line to an attachment, by its place in the list, cut to reach as drawn.

    It leads from a hang point (`point`), or from another attachment (`tied_to`); one of them is None. `hardware` is
    what lies in its path between the two: the weakest of all decides.
    """

    attachment: Annotated[int, Range("count", 0, 400)]
    spec: LineSpec
    point: Annotated[int | None, Range("count", 0, 400)] = None
    tied_to: Annotated[int | None, Range("count", 0, 400)] = None
    hardware: Annotated[tuple[Hardware, ...], Many(8)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Bond:
    """The second bond: its own line, with so much slack, to a hang point of its own (None: not chosen yet)."""

    spec: LineSpec
    point: Annotated[int | None, Range("count", 0, 400)] = None
    slack_m: Annotated[float, Range("length", 0, 5)] = 0.05


@dataclass(frozen=True, slots=True, kw_only=True)
class Drop:
    """Stems hung under a panel or ring, from the shortest to the longest, m: how long each is by where it hangs."""

    shortest_m: Annotated[float, Range("length", 0, 5, above=True)]
    longest_m: Annotated[float, Range("length", 0, 5, above=True)]
    curve: DropCurve = "dome"


@dataclass(frozen=True, slots=True, kw_only=True)
class Armature:
    """What is hung or mounted: a run along its attachments, or a stiff panel or ring.

    `length_m` is the armature's own length along a run; `diameter_m` its own thickness, or a ring's diameter; a panel
    is `length_m` × `width_m`. The flowers stand `projection_m` off it all round, so the finished work is that much
    larger on every side. `density` is how full even stations along it are, against one another; empty is even. Its
    netting is a key of the stores, `turns` how often the strip goes round. A run is carried in `sections` even parts,
    or with `joints_m` in parts that meet so far along it. `pegs` are dry twigs pushed through it, None as usual.
    `core_kg` is a stone or other dense core in the foot of a sleeve. `carrier` is a cord through it that bears the
    pull along it. `drop` gives hung stems their lengths; without it every stem is cut to `stem_cut_m`. A hook is
    bent of at least `hook_wire_m` of wire, `hook_gauge_m` thick; None is worked out.
    """

    kind: ArmatureKind
    length_m: Annotated[float, Range("length", 0, 100, above=True)]
    diameter_m: Annotated[float, Range("length", 0, 5, above=True)] = 0.11
    width_m: Annotated[float, Range("length", 0, 10)] = 0.0
    projection_m: Annotated[float, Range("length", 0, 2)] = 0.10
    turns: Annotated[float, Range("ratio", 1, 6)] = 1.6
    sections: Annotated[int, Range("count", 1, 40)] = 1
    joints_m: Annotated[tuple[Annotated[float, Range("length", 0, 100)], ...], Many(40)] = ()
    pegs: Annotated[int | None, Range("count", 0, 400)] = None
    netting: Annotated[str | None, Text(60, least=1)] = None
    stiffness: Stiffness = "twig-stiffened"
    density: Annotated[tuple[Annotated[float, Range("ratio", 0.05, 20)], ...], Many(60)] = ()
    stem_cut_m: Annotated[float, Range("length", 0.03, 2)] = 0.25
    core_kg: Annotated[float, Range("mass", 0, 200)] = 0.0
    carrier: LineSpec | None = None
    drop: Drop | None = None
    hook_wire_m: Annotated[float | None, Range("length", 0.04, 2)] = None
    hook_gauge_m: Annotated[float | None, Range("length", 0.0003, 0.003)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Mount:
    """What work is mounted on: a free-standing frame or stand, a wall, a column of the building.

    `width_m` × `height_m` is the frame's outline, the stand's or column's diameter and height. A frame or stand stands
    on `foot_width_m` × `foot_depth_m`, its feet of `foot_material` on `surface` (None is not known), and weighs
    `mass_kg`, with `ballast_kg` on each of its four feet; outdoors it is struck above Beaufort `comes_down_above`.
    `tied_to` says what fixed thing it is guyed or tied to. On a wall, `arm_m` is how far the middle of the work stands
    out, `bears_below_m` how far under a screw it leans on the wall.

    A frame or stand of one's own may carry `load_kg`: as its maker says, or as a trial has hung on it for ten minutes
    with nobody under it; `load_by` and `load_on` say who states that and when, `signed_by` which competent person
    signs for it over people.
    """

    kind: MountKind
    outline: Outline = "hoop"
    x_m: Annotated[float, Range("length", -60, 60)] = 0.0
    width_m: Annotated[float, Range("length", 0, 30)] = 0.0
    height_m: Annotated[float, Range("length", 0, 60)] = 0.0
    foot_width_m: Annotated[float, Range("length", 0, 20)] = 0.0
    foot_depth_m: Annotated[float, Range("length", 0, 20)] = 0.0
    foot_material: FootMaterial | None = None
    surface: Surface | None = None
    mass_kg: Annotated[float | None, Range("mass", 0, 5000, above=True)] = None
    ballast_kg: Annotated[float, Range("mass", 0, 2000)] = 0.0
    outdoors: bool = False
    comes_down_above: Annotated[int, Range("count", 2, 7)] = 5
    tied_to: Annotated[str | None, Text(120, least=1)] = None
    arm_m: Annotated[float, Range("length", 0, 3)] = 0.0
    bears_below_m: Annotated[float, Range("length", 0, 10)] = 0.0
    load_kg: Annotated[float | None, Range("mass", 0, 20000, above=True)] = None
    load_from: Tested = "maker"
    load_by: Annotated[str | None, Text(120, least=1)] = None
    load_on: Annotated[str | None, Text(20, least=1)] = None
    signed_by: Annotated[str | None, Text(120, least=1)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Hazard:
    """Something near that must be kept clear, and where it is: right, back and up, m."""

    kind: HazardKind
    x_m: Annotated[float, Range("length", -60, 60)]
    y_m: Annotated[float, Range("length", -60, 60)]
    z_m: Annotated[float, Range("length", 0, 60)]


@dataclass(frozen=True, slots=True, kw_only=True)
class BeamLoad:
    """A beam or truss as the survey has it: what it may carry in all, N (None: nobody has stated it), and what other
    work pulls it with on the same day, N, by name; `unknown` are those that could not be worked out.
    """

    key: Annotated[str, Text(60, least=1)]
    name: Annotated[str, Text(120, least=1)]
    rating_n: Annotated[float | None, Range("force", 0, 10000000)] = None
    others_n: Annotated[float, Range("force", 0, 10000000)] = 0.0
    others: Annotated[tuple[Annotated[str, Text(120)], ...], Many(700)] = ()
    unknown: Annotated[tuple[Annotated[str, Text(120)], ...], Many(700)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Rig:
    """One hung or mounted piece.

    `below` says who can be under it or beside it. `extra_kg` is what else hangs on it, such as lamps. `bond` is the
    second bond, None where nobody has planned one. `proof_kg` is the proof load somebody has chosen, None for the
    usual one. Lines are left slack by `levelling_m` until it hangs level. `dried` tells that something dried is in it.
    Outdoors it comes down above Beaufort `comes_down_above`. `beams` is what its place says of the beams its points
    are on; it is put in when it is judged there.
    """

    kind: Literal["rig"] = "rig"
    name: Annotated[str, Text(120, least=1)]
    points: Annotated[tuple[HangPoint, ...], Many(400)]
    attachments: Annotated[tuple[Attachment, ...], Many(400)]
    lines: Annotated[tuple[RigLine, ...], Many(400)]
    armature: Armature
    recipe: Annotated[tuple[RecipeLine, ...], Many(40)] = ()
    below: Below = "table"
    extra_kg: Annotated[float, Range("mass", 0, 500)] = 0.0
    bond: Bond | None = None
    mount: Mount | None = None
    hazards: Annotated[tuple[Hazard, ...], Many(60)] = ()
    proof_kg: Annotated[float | None, Range("mass", 0, 2000, above=True)] = None
    levelling_m: Annotated[float, Range("length", 0, 1)] = 0.03
    dried: bool = False
    outdoors: bool = False
    comes_down_above: Annotated[int, Range("count", 2, 7)] = 5
    beams: Annotated[tuple[BeamLoad, ...], Many(60)] = ()
    passage: Passage = field(default_factory=Passage)

    @property
    def over_people(self) -> bool:
        """Whether anybody can be under it or touch it."""
        return self.below != "nobody"

    def cut_from(self, netting: str, other: str) -> Self:
        """The rig with one netting in the place of another, where it is made of that; both by key."""
        if self.armature.netting != netting:
            return self
        return replace(self, armature=replace(self.armature, netting=other))

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
