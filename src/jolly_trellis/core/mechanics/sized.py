"""What every mechanic returns, the same for all: seats, levels with their play, seat in the vessel, parts, cost."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.books.memory import by_itself
from jolly_trellis.core.books.needs import Taken
from jolly_trellis.core.materials.netting import NettingSheet
from jolly_trellis.core.plan.piece import MechanicKind
from jolly_trellis.core.quantities import Phrase, Quantity

WornOn = Literal["lapel", "wrist", "head"]
SeatPattern = Literal["hexagonal", "square", "cups"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Level:
    """One level at which stems are held: height above the inside floor, and clear width of its holes, metres.

    An aperture of 0 grips a stem with no play, as a pierced block or pins do.
    """

    height_m: float
    aperture_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Seating:
    """Where stems can go in: spacing and clear width of the seats, their height above the inside floor.

    `half_width_m` and `half_depth_m` bound the region of a frog or ring; None is the whole mouth. `each` is how many
    stems one seat takes where that is fixed; None lets the cell's size decide.
    """

    pattern: SeatPattern
    pitch_m: float
    aperture_m: float
    height_m: float
    half_width_m: float | None = None
    half_depth_m: float | None = None
    each: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Grip:
    """Pins on the floor: the radius they cover, metres, and the moment one soft or woody stem may put on them, N·m."""

    radius_m: float
    height_m: float
    soft_n_m: float
    woody_n_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Fold:
    """A line across the flat sheet: distance from its end, metres, and what is done there."""

    at_m: float
    kind: str


@dataclass(frozen=True, slots=True, kw_only=True)
class FlatSheet:
    """A sheet of netting to cut, flat: its size, fold lines across its length, and the edge tucked in.

    `diagonal_folds` tells a square whose corners go to the middle.
    """

    name: str
    sheet: NettingSheet
    folds: tuple[Fold, ...] = ()
    tuck_m: float = 0.0
    diagonal_folds: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """Something to cut or take: its name, how many, its sizes, and what all of it weighs as it is put in, kg.

    `taken` is what of the stores it is taken from, None where that is nothing. `made_of` names the part that it is
    made of and weighed with, as rings are of their twigs.
    """

    name: str
    quantity: int
    sizes: tuple[Quantity, ...] = ()
    mass_kg: float
    taken: Taken | None = None
    made_of: str = ""


def weight_kg(parts: Iterable[Part]) -> float:
    """What some parts weigh together, kg: whatever is listed weighs. Source: sum."""
    return sum(each.mass_kg for each in parts)


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One thing to do, in order; `caution` is shown with it."""

    kind: str
    say: Phrase
    caution: str = ""


@by_itself
@dataclass(frozen=True, slots=True, kw_only=True)
class SizedMechanic:
    """A mechanic sized to its vessel.

    `levels` run from the top down. `rigid` lattices have holes that line up; their play is not taken up.
    `seat_moment_n_m` is what it can take in its vessel before it rocks; `seated_by` says what holds it there.
    `seat_arm_m` is how far from the middle the stems' own weight still helps to hold it, 0 where it does not.
    `displaced_volume_l` is its material under water when full, `absorbed_l` the water it soaks up,
    `deliverable_share` how much of that stems can drink. `slop_factor` scales how water slops in the van: 1.3 open,
    1.0 under wire, 0.7 with moss. `strength_n` is the push one point bears, None where it is no netting. `mossed` has
    moss over its water; in one that `crosses` a bouquet's stems lie across one another at the binding.
    One that is `anchored` has its outermost stems first, to hold it down; one that is `worn` is wired and taped.
    """

    kind: MechanicKind
    name: str
    seating: Seating
    levels: tuple[Level, ...]
    layer_gap_m: float = 0.0
    rigid: bool = False
    grip: Grip | None = None
    frog_mass_kg: float = 0.0
    frog_radius_m: float = 0.0
    flat: tuple[FlatSheet, ...] = ()
    parts: tuple[Part, ...] = ()
    tape_strips: int = 0
    tape_strip_length_m: float = 0.0
    tape_share_of_mouth: float = 0.0
    putty_ring_m: float = 0.0
    putty_kg: float = 0.0
    seat_moment_n_m: float
    seated_by: str = "its spring"
    strength_n: float | None = None
    capacity: int
    displaced_volume_l: float
    absorbed_l: float = 0.0
    deliverable_share: float = 0.0
    mass_kg: float
    price: float | None
    minutes: float
    uses: int
    compostable: bool = False
    single_use_plastic: bool = False
    lifts_off: bool = False
    loose: bool = False
    shows: bool = True
    slop_factor: float = 1.0
    own_water_l: float = 0.0
    own_cups: int = 0
    seat_arm_m: float = 0.0
    mossed: bool = False
    crosses: bool = False
    anchored: bool = False
    worn: WornOn | None = None
    steps: tuple[Step, ...] = ()

    @property
    def netting_free(self) -> bool:
        """Whether a frog alone holds the stems, with no netting sprung in over it."""
        return self.frog_radius_m > 0 and not self.flat

    @property
    def sheet(self) -> NettingSheet | None:
        """The first sheet to cut, None where there is none."""
        return self.flat[0].sheet if self.flat else None
