"""The plan of a piece as it is stored, and the conditions it is judged under."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated, ClassVar, Literal, Self

from jolly_trellis.core.choices import FORMS, MECHANICS
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.passage import Passage
from jolly_trellis.core.plan.recipe import Feet, HandPlaced, RecipeLine
from jolly_trellis.core.plan.setting import Setting, TopUp, Transport
from jolly_trellis.core.plan.wish import Wish
from jolly_trellis.core.ranges import Many, Range, Text

Form = Annotated[str, FORMS]
Arrangement = Literal["even", "clusters", "gradient", "far_side"]
SpillHold = Literal["hook", "vessel"]
Look = Literal["mechanic", "rim", "underside"]
CoverKind = Literal["moss", "cloth", "ribbon", "leaf"]
CoverOn = Literal["rim", "packing", "outside", "cups"]
Back = Literal["bare", "leaves", "disc"]
MechanicKind = Annotated[str, MECHANICS]
Sort = Literal["standing", "bouquet", "worn"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Envelope:
    """What was asked for: total height from the surface, overall width and front-to-back depth.

    Stems grow from `points` places of the mouth; None as the form has it.
    """

    height_m: Annotated[float, Range("length", 0, 5, above=True)]
    width_m: Annotated[float, Range("length", 0, 5, above=True)]
    depth_m: Annotated[float, Range("length", 0, 5, above=True)]
    form: Form = "dome"
    points: Annotated[int | None, Range("count", 1, 24)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Mechanic:
    """What holds the stems, as chosen; how it is sized is worked out from its kind.

    None leaves a quantity to be worked out: the layer gap from the depth, the tuck from the cell, the tape strips
    from the net moment. `netting` and `frog` are keys of the stores; kinds that use neither ignore them.
    `cell_m` is the spacing of a tape grid or of a strung ring. `own_m` is across a ring or the side of a frame of
    one's own, `own_wires` how many wires it has each way, `own_wire_m` how thick they are. A star lattice has
    `vine_rounds` of vine round its rim, None as usual, and `berries` worked in.
    """

    kind: MechanicKind = "folded_cushion"
    netting: Annotated[str | None, Text(60, least=1)] = None
    frog: Annotated[str | None, Text(60, least=1)] = None
    layers: Annotated[int, Range("count", 1, 4)] = 2
    layer_gap_m: Annotated[float | None, Range("length", 0, 2, above=True)] = None
    squeeze: Annotated[float, Range("ratio", 0, 0.15)] = 0.06
    tuck_m: Annotated[float | None, Range("length", 0, 0.1)] = None
    tape_strips: Annotated[int | None, Range("count", 0, 6)] = None
    tape_width_m: Annotated[float, Range("length", 0.003, 0.05)] = 0.006
    putty: bool | None = None
    cell_m: Annotated[float | None, Range("length", 0.008, 0.1)] = None
    cup_ml: Annotated[float, Range("ratio", 5, 1000)] = 60.0
    own_m: Annotated[float | None, Range("length", 0.02, 5)] = None
    own_wires: Annotated[int | None, Range("count", 1, 120)] = None
    own_wire_m: Annotated[float | None, Range("length", 0.0005, 0.006)] = None
    vine_rounds: Annotated[int | None, Range("count", 0, 12)] = None
    berries: Annotated[int, Range("count", 0, 60)] = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Cover:
    """What is laid over something so that it is not seen: what, over what, and how wide, m, None as usual."""

    kind: CoverKind
    on: CoverOn
    width_m: Annotated[float | None, Range("length", 0.005, 1)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Support:
    """What a raised bowl stands on: a stand, or a tall cylinder that may hold water as ballast.

    `top_width_m` is the outside of its rim or plate, `opening_m` the hole in it (0: solid), `ridge` whether it
    locates the bowl, `putty` whether a ring of putty bonds the joint. Foot and mass may be unknown (None). `key` is
    the stand of the stores that it is, empty for one of a plan's own.
    """

    name: Annotated[str, Text(120, least=1)]
    height_m: Annotated[float, Range("length", 0, 3, above=True)]
    top_width_m: Annotated[float, Range("length", 0, 5, above=True)]
    opening_m: Annotated[float, Range("length", 0, 2)] = 0.0
    foot_width_m: Annotated[float | None, Range("length", 0, 5, above=True)] = None
    mass_kg: Annotated[float | None, Range("mass", 0, 200, above=True)] = None
    column_width_m: Annotated[float, Range("length", 0, 5, above=True)] = 0.12
    water_l: Annotated[float, Range("volume", 0, 200)] = 0.0
    clear: bool = False
    ridge: bool = False
    putty: bool = False
    key: Annotated[str, Text(60)] = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Insert:
    """The larger vessel that the piece's own vessel sits in, and how far its rim drops below the outer rim."""

    outer: Vessel
    drop_m: Annotated[float, Range("length", 0, 1)] = 0.01


@dataclass(frozen=True, slots=True, kw_only=True)
class Counterweight:
    """A weight beside the vessel: how far from its middle, towards which azimuth (0 front, π back), tied to it or not.

    One that merely stands there holds nothing.
    """

    mass_kg: Annotated[float, Range("mass", 0, 100, above=True)]
    away_m: Annotated[float, Range("length", 0, 2)]
    azimuth_rad: Annotated[float, Range("angle", 0, 6.2832)] = math.pi
    tied: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class Seat:
    """Where a row of stems sits on the plane of the seats, right and back of the vessel's middle, m."""

    x_m: Annotated[float, Range("length", -3, 3)]
    y_m: Annotated[float, Range("length", -3, 3)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Dealt:
    """Seats as they were dealt, a row each, and what they were dealt for: `made_for` tells recipe, form and mechanic.

    Sizes are of the mouth and of the envelope, whose height counts from the surface, as they were then, m.
    """

    seats: Annotated[tuple[Seat, ...], Many(400)]
    made_for: Annotated[str, Text(16, least=1)]
    mouth_width_m: Annotated[float, Range("length", 0, 5, above=True)]
    mouth_depth_m: Annotated[float, Range("length", 0, 5, above=True)]
    height_m: Annotated[float, Range("length", 0, 10, above=True)]
    width_m: Annotated[float, Range("length", 0, 10, above=True)]
    depth_m: Annotated[float, Range("length", 0, 10, above=True)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Companion:
    """Another vessel of the same composition, beside the piece's own: its middle from that one's, right and back, m.

    `tied` tells one fixed to the same base, so that the two stand or fall together.
    """

    name: Annotated[str, Text(120, least=1)]
    vessel: Vessel
    envelope: Envelope
    mechanic: Mechanic
    water_level_m: Annotated[float, Range("length", 0, 5)]
    x_m: Annotated[float, Range("length", -3, 3)]
    y_m: Annotated[float, Range("length", -3, 3)]
    recipe: Annotated[tuple[RecipeLine, ...], Many(40)] = ()
    ballast_kg: Annotated[float, Range("mass", 0, 50)] = 0.0
    top_ups: Annotated[tuple[TopUp, ...], Many(24)] = ()
    tied: bool = False
    feet: Feet = "on the floor"
    dealt: Dealt | None = None
    look: Annotated[tuple[Look, ...], Many(3)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Spill:
    """A strip of netting set with flowers that hangs free over a ledge's edge.

    `drop_m` hangs below the edge, `width_m` is its flat width. A hook of its own carries it, or the vessel does.
    `hook_n` is the hook's working rating and `hook_stated_by` who stated it; None is not known. Its stems are cut to
    `cut_length_m`.
    """

    drop_m: Annotated[float, Range("length", 0, 4, above=True)]
    width_m: Annotated[float, Range("length", 0.03, 2)] = 0.15
    netting: Annotated[str | None, Text(60, least=1)] = None
    held_by: SpillHold = "hook"
    hook_n: Annotated[float | None, Range("force", 0, 20000, above=True)] = None
    hook_stated_by: Annotated[str | None, Text(80, least=1)] = None
    recipe: Annotated[tuple[RecipeLine, ...], Many(40)] = ()
    cut_length_m: Annotated[float, Range("length", 0.05, 1.5)] = 0.2


@dataclass(frozen=True, slots=True, kw_only=True)
class StemRef:
    """One stem or clump of a recipe: which vessel (0 the piece's own), which line, and which of that line's."""

    line: Annotated[int, Range("count", 0, 40)]
    nth: Annotated[int, Range("count", 0, 400)]
    vessel: Annotated[int, Range("count", 0, 8)] = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Making:
    """How the piece is made: the order by hand (empty: the usual one), a prop until the last stem, gates passed.

    `water_last` tells one that is made dry and filled when all stems are in.
    """

    order: Annotated[tuple[StemRef, ...], Many(1200)] = ()
    propped: bool = False
    water_last: bool = False
    gates_passed: Annotated[tuple[Annotated[str, Text(60, least=1)], ...], Many(20)] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """What every made thing of stems has: vessel, envelope, mechanic, water, recipe, setting. Each kind adds its own.

    `water_level_m` is above the inside floor; `ballast_kg` is stone, pebbles or sand laid on that floor; `lining` a
    strip of leaf inside clear glass; `wrap_height_m` netting wrapped round the outside, 0 for none; `moss_m` how far
    moss is nestled all round it, up to its rim, None as usual: round a cup frog and nothing else. `passage` is what
    becomes of it from the workshop to the end. `look` are parts of
    the mechanic that are meant to be seen, `covers` what is laid over others, `wish` a picture that it is to look
    like. A kind that is `carried` has its vessel only to wait in; its `sort` says what it is made and judged by. What
    a kind does not have, a reader finds none of.
    """

    carried: ClassVar[bool] = False
    sort: ClassVar[Sort] = "standing"

    kind: str
    name: Annotated[str, Text(120, least=1)]
    vessel: Vessel
    envelope: Envelope
    mechanic: Mechanic
    water_level_m: Annotated[float, Range("length", 0, 5)]
    recipe: Annotated[tuple[RecipeLine, ...], Many(40)] = ()
    setting: Setting = field(default_factory=Setting)
    ballast_kg: Annotated[float, Range("mass", 0, 50)] = 0.0
    top_ups: Annotated[tuple[TopUp, ...], Many(24)] = ()
    quantity: Annotated[int, Range("count", 1, 500)] = 1
    arrangement: Arrangement = "even"
    hand_placed: Annotated[tuple[HandPlaced, ...], Many(100)] = ()
    transport: Transport | None = None
    passage: Passage = field(default_factory=Passage)
    support: Support | None = None
    insert: Insert | None = None
    lining: bool = False
    wrap_height_m: Annotated[float, Range("length", 0, 3)] = 0.0
    moss_m: Annotated[float | None, Range("length", 0, 0.5)] = None
    must_lift_off: bool = False
    making: Making = field(default_factory=Making)
    look: Annotated[tuple[Look, ...], Many(3)] = ()
    wish: Wish | None = None
    covers: Annotated[tuple[Cover, ...], Many(8)] = ()

    @property
    def companions(self) -> tuple[Companion, ...]:
        """Other vessels of the same composition."""
        return ()

    @property
    def spill(self) -> Spill | None:
        """What hangs free from it."""
        return None

    @property
    def counterweight(self) -> Counterweight | None:
        """A weight beside it."""
        return None

    @property
    def feet(self) -> Feet:
        """Where the cut ends of its stems are."""
        return "on the floor"

    @property
    def dealt(self) -> Dealt | None:
        """Its seats as they were dealt."""
        return None

    @property
    def carried_h(self) -> float | None:
        """How long it is carried out of water; None not known, or not carried."""
        return None

    @property
    def collar(self) -> bool:
        """Whether a collar of leaves lies under its flowers."""
        return False

    def vessels(self) -> tuple[Vessel, ...]:
        """Every vessel of it, its own first, that it is set into last."""
        outer = () if self.insert is None else (self.insert.outer,)
        return (self.vessel, *(each.vessel for each in self.companions), *outer)

    def with_vessels(self, change: Callable[[Vessel], Vessel]) -> Self:
        """The piece with every vessel of it changed."""
        insert = None if self.insert is None else replace(self.insert, outer=change(self.insert.outer))
        return replace(self, vessel=change(self.vessel), insert=insert)

    def with_recipes(self, change: Callable[[tuple[RecipeLine, ...]], tuple[RecipeLine, ...]]) -> Self:
        """The piece with every recipe of it changed."""
        return replace(self, recipe=change(self.recipe))

    def with_mechanics(self, change: Callable[[Mechanic], Mechanic]) -> Self:
        """The piece with every mechanic of it changed."""
        return replace(self, mechanic=change(self.mechanic))

    def cut_from(self, netting: str, other: str) -> Self:
        """The piece with one netting in the place of another, wherever it has that; both by key."""
        return self.with_mechanics(lambda each: replace(each, netting=other) if each.netting == netting else each)

    def with_levels(self, change: Callable[[tuple[RecipeLine, ...], float, Vessel], float]) -> Self:
        """The piece with the water on show of every vessel as its recipe, its level and the vessel have it."""
        return replace(self, water_level_m=change(self.recipe, self.water_level_m, self.vessel))

    def with_seats(self, dealt: Dealt | None, beside: Sequence[Dealt | None]) -> Self:
        """The piece with its seats, and those of its companions, kept in it; as it is where a kind keeps none."""
        return self

    def dealt_afresh(self) -> Self:
        """The piece with no seats of its own kept, so that they are dealt anew."""
        return self

    def without_spill(self) -> Self:
        """The piece with nothing hanging from it."""
        return self
