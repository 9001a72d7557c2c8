"""What things are unless somebody says: common practice, no source."""

import math
from dataclasses import dataclass

from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.finished import FinishedArmature
from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.piece import Spill, Support
from jolly_trellis.core.plan.recipe import StemTube
from jolly_trellis.core.plan.setting import Ledge, People, Transport
from jolly_trellis.core.rigging.lines import LINES, LineSpec
from jolly_trellis.core.rigging.rig import Bond, Hazard, Mount
from jolly_trellis.core.rigging.survey import SurveyPoint


def usual_line(kind: str) -> LineSpec:
    """A line of a kind as it is unless somebody says."""
    about = LINES[kind]
    return LineSpec(kind=kind, size_m=about.usual_m, stated_n=about.usual_n)


@dataclass(frozen=True, slots=True, kw_only=True)
class Brush:
    """What one stroke does to how full an armature is: so many stations along it, so many times fuller at its middle,
    less so for as many stations to each side as it reaches, and never more than `most` times fuller or thinner.
    """

    stations: int = 24
    thicker: float = 1.12
    reach: float = 2.5
    most: float = 8.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Draught:
    """How fast air moves where something stands, m/s, in words."""

    speed_m_s: float
    words: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Usual:
    """What each thing is when it is first chosen.

    Work hangs on the `hanger`, and is tied with the `tie` where it has to stay; the `bond` leads to no point yet. The
    `vessel` is one nobody has measured, a `counterweight_kg` is kilograms. Tubes of hung work lie level, their caps
    sealed. `outside` is the air of a piece that stands in its own, `draughts` how air moves, in words. `surveyed` is
    the first point of a survey, each one after it as far to the right as it is itself. Cords are offered in these
    thicknesses. `finished` is an armature counted in by hand. `premium` is the share of a budget for premium stems,
    `stems` how many of a variety come in where nobody has said.
    """

    hanger: LineSpec
    tie: LineSpec
    bond: Bond
    mount: Mount
    hazard: Hazard
    tube: StemTube
    hung_tube: StemTube
    spill: Spill
    cylinder: Support
    stand: Support
    ledge: Ledge
    road: Transport
    people: People
    vessel: Vessel
    counterweight_kg: float
    brush: Brush
    outside: Air
    draughts: tuple[Draught, ...]
    surveyed: SurveyPoint
    cords_m: tuple[float, ...]
    finished: FinishedArmature
    premium: float
    stems: int


USUAL = Usual(
    hanger=usual_line("steel rope"),
    tie=LineSpec(kind="polyester cord", size_m=0.002),
    bond=Bond(spec=LineSpec(kind="steel rope", size_m=0.003, fitting="ferrule")),
    mount=Mount(kind="frame"),
    hazard=Hazard(kind="sprinkler", x_m=0.0, y_m=0.0, z_m=3.4),
    tube=StemTube(),
    hung_tube=StemTube(tilt_rad=math.pi / 2, cap_seals=True),
    spill=Spill(drop_m=0.5),
    cylinder=Support(
        name="tall cylinder", height_m=0.5, top_width_m=0.15, opening_m=0.14, column_width_m=0.15, clear=True
    ),
    stand=Support(name="stand", height_m=0.6, top_width_m=0.16, column_width_m=0.03),
    ledge=Ledge(depth_m=0.3, height_m=1.2),
    road=Transport(),
    people=People(),
    vessel=Vessel(
        name="New vessel",
        plan_shape="round",
        profile=(
            ProfilePoint(height_m=0.0, width_m=0.12, depth_m=0.12),
            ProfilePoint(height_m=0.1, width_m=0.2, depth_m=0.2),
        ),
    ),
    counterweight_kg=0.5,
    brush=Brush(),
    outside=Air(temperature_c=20.0, relative_humidity=0.6, speed_m_s=0.1, sun=False),
    draughts=(
        Draught(speed_m_s=0.1, words="still"),
        Draught(speed_m_s=0.3, words="people passing"),
        Draught(speed_m_s=0.5, words="an open door"),
        Draught(speed_m_s=1.5, words="a breeze"),
        Draught(speed_m_s=4.0, words="wind"),
    ),
    surveyed=SurveyPoint(name="point 1", kind="beam loop", x_m=1.0, y_m=0.0, z_m=3.6),
    cords_m=(0.002, 0.003, 0.004),
    finished=FinishedArmature(key="new", name="Finished armature", made_as="tube", width_m=0.5, length_m=1.0),
    premium=0.4,
    stems=5,
)
