"""What `evaluate` gives back: the piece as drawn, as cut, and as judged."""

from dataclasses import dataclass

from jolly_trellis.core.acts.passed import Passed
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.drawing.picture import NOTHING_DRAWN, Picture, Stems
from jolly_trellis.core.making.steps import CutGroup, Notice
from jolly_trellis.core.materials.netting import NettingSheet
from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.mechanics.sized import Part, SeatPattern, SizedMechanic, Step
from jolly_trellis.core.plan.piece import Dealt, Piece


@dataclass(frozen=True, slots=True, kw_only=True)
class PlacedStems(Stems):
    """Stems or clumps where they stand, as they are cut and as they are judged, in columns.

    `stems` is how many are in a clump, `rod_m` the rod under a spike cup.
    """

    variety: tuple[str, ...] = ()
    name: tuple[str, ...] = ()
    role: tuple[Role, ...] = ()
    stems: tuple[int, ...] = ()
    lean_rad: tuple[float, ...] = ()
    cut_length_m: tuple[float, ...] = ()
    sway_m: tuple[float, ...] = ()
    sway_limit_m: tuple[float, ...] = ()
    over_capacity: tuple[bool, ...] = ()
    rod_m: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Outline:
    """What the placed stems really reach: metres, z from the surface; and how full it is."""

    height_m: float
    width_m: float
    depth_m: float
    widest_at_m: float
    fullness: float
    colliding_pairs: int


@dataclass(frozen=True, slots=True, kw_only=True)
class WaterReport:
    """Water of the piece: three levels above the inside floor, litres at the level on show and at the rim, the course
    in the heavy case.

    `bench_level_m` is filled to before any stem goes in; `travel_level_m` is what careful driving keeps in;
    `carried_l` goes apart. The last three are None where travel was not worked out. `poured_l` is poured where it is
    shown, L: all of it where it comes dry.
    """

    bench_level_m: float | None
    travel_level_m: float | None
    carried_l: float | None
    on_show_l: float
    poured_l: float
    full_l: float
    area_m2: float
    first_dry_h: float | None
    lowest_level_m: float | None
    course_hours: tuple[float, ...]
    course_levels_m: tuple[float, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class BalanceReport:
    """Balance in the typical case: the centre of mass and the tip angle towards each azimuth from the front."""

    mass_kg: float
    x_m: float
    y_m: float
    height_m: float
    tip_angles_rad: tuple[float, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class CompanionReport:
    """Another vessel of the composition as worked out: where it stands, its rim, its parts, its litres on show and
    those of them that are poured there, its seats.
    """

    name: str
    x_m: float
    y_m: float
    rim_m: float
    mechanic: SizedMechanic
    cells_m: tuple[tuple[float, float], ...]
    extras: tuple[Part, ...]
    cut_list: tuple[CutGroup, ...]
    steps: tuple[Step, ...]
    on_show_l: float
    poured_l: float
    dealt: Dealt | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class LedgeReport:
    """Where a ledge lies in the frame of the piece's own vessel: y of its front edge, of its back, of the axis, m."""

    front_m: float
    back_m: float
    axis_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class BouquetReport:
    """A bouquet's measures over the surface its vase stands on, metres, its handle, and what is in the hand, kg."""

    end_m: float
    binding_m: float
    under_m: float
    hand_m: float
    neck_m: float
    dome_m: float
    handle_m: float
    carried_kg: float
    overall_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SpillReport:
    """A spill as worked out: the flat sheet as a part, what hangs, what its netting bears; kg and newtons."""

    part: Part
    sheet: NettingSheet
    netting: str
    hanging_kg: float
    hanging_heavy_kg: float
    strength_n: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Report:
    """Everything worked out for one piece, metres above the surface it stands on.

    `raised_m` is the underside of its own vessel; `cells_m` are the middles of the seats stems can take;
    `envelope_front`, `envelope_side` (y, z) and `envelope_above` outline what was asked for; `extras` are parts
    beside the mechanic; `fixes_tried` tells whether fixes were looked for; `dealt` are the seats taken, to be kept;
    `picture` is what it looks like but for its stems, `acts` what is done to it from the workshop to the end.
    """

    raised_m: float
    rim_m: float
    foot_width_m: float | None
    foot_depth_m: float | None
    mechanic: SizedMechanic
    stems: PlacedStems
    cell_pitch_m: float
    cells_m: tuple[tuple[float, float], ...]
    seat_pattern: SeatPattern
    envelope_front: tuple[tuple[float, float], ...]
    envelope_side: tuple[tuple[float, float], ...]
    envelope_above: tuple[tuple[float, float], ...]
    extras: tuple[Part, ...]
    price: float | None
    minutes: float
    outline: Outline
    water: WaterReport
    balance: BalanceReport | None
    cut_list: tuple[CutGroup, ...]
    steps: tuple[Step, ...]
    notices: tuple[Notice, ...]
    verdicts: tuple[Verdict, ...]
    fixes_tried: bool
    companions: tuple[CompanionReport, ...] = ()
    spill: SpillReport | None = None
    ledge: LedgeReport | None = None
    bouquet: BouquetReport | None = None
    dealt: Dealt | None = None
    picture: Picture = NOTHING_DRAWN
    acts: tuple[Passed, ...] = ()

    @property
    def vessels_l(self) -> tuple[tuple[str, float], ...]:
        """(name, litres on show) of its own vessel, which has no name here, and of every companion's."""
        return (("", self.water.on_show_l), *((each.name, each.on_show_l) for each in self.companions))

    @property
    def poured_l(self) -> tuple[tuple[str, float], ...]:
        """(name, litres poured where it is shown) of its own vessel, which has no name, and its companions'."""
        return (("", self.water.poured_l), *((each.name, each.poured_l) for each in self.companions))


def with_seats(piece: Piece, report: Report) -> Piece:
    """The piece with the seats that its report found kept in it, its companions' too; a bouquet keeps none."""
    return piece.with_seats(report.dealt, [each.dealt for each in report.companions])
