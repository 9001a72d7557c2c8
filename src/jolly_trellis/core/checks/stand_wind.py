"""Stand in wind: the gust at the Beaufort force above which the piece is taken down."""

from dataclasses import replace

import numpy as np

from jolly_trellis.core.books.bodies import Case
from jolly_trellis.core.books.figures import Constant, Shown, measure, rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.balance import Balance
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, finding
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.provenance import Provenance
from jolly_trellis.core.quantities import count, force, moment, phrase, worded

BEAUFORT = Provenance(kind="published", source="Beaufort scale as used by meteorological services, upper limits")
BEAUFORT_TOP = {
    force_: rule(worded("Wind at the top of Beaufort {force}", force=force_), "speed", speed, BEAUFORT)
    for force_, speed in ((2, 3.3), (3, 5.4), (4, 7.9), (5, 10.7), (6, 13.8), (7, 17.1))
}
AIR_HALF_DENSITY = measure(
    "Half the density of air", "density", 0.613, Provenance(kind="published", source="air at 15 °C, sea level")
)
GUST = measure("Gust at 2 m against the ten-minute mean at 10 m", "ratio", 1.2)
SOLIDITY = measure("Solid share of flowers in wind", "ratio", 0.7)
DRAG = measure("Drag of flowers", "ratio", 1.2)
OVERTURNING = rule("Overturning factor in wind", "ratio", 1.5, cautious="up")
SIDE_FILL = rule("Side of flowers in the wind, share of their width times height", "ratio", 0.785, most=1.0)
SIDE_CENTRE = rule("Middle of the wind on flowers, share of their height over the rim", "ratio", 0.45, most=1.0)


def wind_pressure_pa(speed_m_s: float) -> float:
    """Dynamic pressure of wind: 0.613·v², Pa.

    Args:
        speed_m_s: ≥ 0.
    Source: ½·ρ·v² with air at 15 °C (published).
    """
    return AIR_HALF_DENSITY.value * speed_m_s**2


def wind_force_n(speed_m_s: float, side_area_m2: float) -> float:
    """Wind on flowers: pressure × outline side area × 0.7 solidity × 1.2 drag, N.

    Source: drag equation; solidity and drag are estimates.
    """
    return wind_pressure_pa(speed_m_s) * side_area_m2 * SOLIDITY.value * DRAG.value


def design_speed_m_s(beaufort: int) -> float:
    """Gust to plan for at the top of a Beaufort force, m/s.

    Raises: InvalidMeasure: a force outside 2-7.
    """
    top = BEAUFORT_TOP.get(beaufort)
    if top is None:
        raise InvalidMeasure(
            path="setting.comes_down_above",
            message=phrase("Beaufort {beaufort} is outside what can be planned for.", beaufort=beaufort),
            limit=phrase("Name a force from 2 to 7 above which the piece comes down."),
        )
    return top.value * GUST.value


def ballast_needed_kg(*, wind_moment_n_m: float, weight_n: float, edge_m: float, ballast_edge_m: float) -> float:
    """Ballast against wind: (1.5·M_w − W·e)/(g·e_b), kg, 0 or more. Source: moments about the edge."""
    short = OVERTURNING.value * wind_moment_n_m - weight_n * edge_m
    return max(0.0, short / (GRAVITY_M_S2 * ballast_edge_m))


def judge_wind(build: Build, case: Case, balance: Balance, edges_m: Array, friction: Constant) -> list[Finding]:
    """Overturning and sliding in the wind at which the piece comes down; nothing indoors."""
    setting = build.piece.setting
    if not setting.outdoors:
        return []
    area, height = side_m2(build)
    push = wind_force_n(design_speed_m_s(setting.comes_down_above), area)
    weight = balance.mass_kg * GRAVITY_M_S2
    holds = moment(weight * float(np.min(edges_m)))
    needs = moment(max(OVERTURNING.value * push * height, 1e-6))
    words = "with heavy stems" if case == "heavy" else "dry" if case == "low" else "as planned"
    number = count(setting.comes_down_above)
    slide_has = force(friction.value * weight)
    slide_needs = force(max(OVERTURNING.value * push, 1e-6))
    return [
        finding(
            check="wind, tipping",
            case=case,
            value=holds,
            limit=needs,
            sense="at least",
            reason=phrase(
                "At Beaufort {b}, {words}, wind of {push} asks {needs} with a margin; it has {holds}.",
                b=number,
                push=force(push),
                needs=needs,
                holds=holds,
                words=words,
            ),
        ),
        finding(
            check="wind, sliding",
            case=case,
            value=slide_has,
            limit=slide_needs,
            sense="at least",
            reason=phrase(
                "At Beaufort {b}, {words}, wind asks a grip of {needs}; the foot has {has}.",
                b=number,
                needs=slide_needs,
                has=slide_has,
                words=words,
            ),
        ),
    ]


def side_m2(build: Build) -> tuple[float, float]:
    """Side area of outline and vessel, m², and the height of its centroid above the surface, m."""
    placement, vessel = build.placement, build.piece.vessel
    rim = build.rim_z_m
    parts = [(rim * (vessel.mouth_width_m + 2 * vessel.wall_m), rim / 2)]
    if len(placement.stems):
        reach = placement.stems.head_radius_m
        top = build.raised_m + float((placement.head_z_m + reach).max())
        across = np.hypot(placement.tip_m[:, 0], placement.tip_m[:, 1]) + reach
        above = max(top - rim, 0.0)
        parts.append((SIDE_FILL.value * 2 * float(across.max()) * above, rim + SIDE_CENTRE.value * above))
    area = sum(each for each, _ in parts)
    return area, sum(each * height for each, height in parts) / area


def candidates(piece: Piece) -> list[Candidate]:
    """Take it down in a lighter wind."""
    tried = []
    for lower in range(piece.setting.comes_down_above - 1, 1, -1):
        calmer = replace(piece, setting=replace(piece.setting, comes_down_above=lower))
        say = phrase("Take it down above Beaufort {b}.", b=count(lower))
        tried.append(Candidate(key=f"down-{lower}", say=say, piece=calmer))
    return tried


def figures(build: Build) -> list[Shown]:
    """Wind figures for the screen, none indoors."""
    setting = build.piece.setting
    if not setting.outdoors or setting.comes_down_above not in BEAUFORT_TOP:
        return []
    return [BEAUFORT_TOP[setting.comes_down_above], GUST, SOLIDITY, DRAG, OVERTURNING]
