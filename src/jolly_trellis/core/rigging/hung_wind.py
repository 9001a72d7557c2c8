"""Wind on hung work outdoors: how hard and how far it is pushed aside, and what lines and points bear then."""

import math
from dataclasses import dataclass

from jolly_trellis.core.books.figures import Shown
from jolly_trellis.core.checks.stand_wind import BEAUFORT_TOP, design_speed_m_s, wind_force_n
from jolly_trellis.core.checks.verdicts import Finding, finding
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.quantities import angle, phrase, pull
from jolly_trellis.core.rigging.drops import highest_stand_m, longest_drop_m
from jolly_trellis.core.rigging.lines import working_limit_n
from jolly_trellis.core.rigging.rig import Rig, RigLine
from jolly_trellis.core.rigging.states import LineState


@dataclass(frozen=True, slots=True, kw_only=True)
class HungWind:
    """Wind on work that hangs free outdoors: the push, N, on an outline of `area_m2`; how far it swings out of the
    vertical, rad, and to the side, m; `times` how much harder every line is pulled than at rest.
    """

    beaufort: int
    area_m2: float
    push_n: float
    swing_rad: float
    aside_m: float
    times: float


def outline_side_m2(rig: Rig, thick_m: float) -> float:
    """What of the finished work the wind meets from its broad side, m². Source: geometry."""
    armature = rig.armature
    if rig.is_run:
        return armature.length_m * thick_m
    long = armature.diameter_m if armature.kind == "ring" else max(armature.length_m, armature.width_m)
    deep = longest_drop_m(rig) + highest_stand_m(rig) + 2 * armature.projection_m
    return (long + 2 * armature.projection_m) * deep


def wind_on(rig: Rig, *, typical_kg: float, thick_m: float, longest_line_m: float) -> HungWind | None:
    """Wind on a rig; None indoors, and for work that is mounted on something or lies.

    It hangs as a pendulum: tan of its swing = push over weight as planned, the pull along its lines 1/cos of it.

    Args:
        typical_kg: finished mass, > 0. thick_m: finished, across a run. longest_line_m: of its lines, ≥ 0.
    Source: statics of a pendulum in a steady wind; the gust, solidity and drag as for pieces that stand.
    """
    if not rig.outdoors or rig.mount is not None or rig.lies:
        return None
    area = outline_side_m2(rig, thick_m)
    push = wind_force_n(design_speed_m_s(rig.comes_down_above), area)
    swing = math.atan2(push, typical_kg * GRAVITY_M_S2)
    return HungWind(
        beaufort=rig.comes_down_above,
        area_m2=area,
        push_n=push,
        swing_rad=swing,
        aside_m=longest_line_m * math.sin(swing),
        times=1 / math.cos(swing),
    )


def wind_findings(rig: Rig, wind: HungWind, lines: tuple[LineState, ...]) -> list[Finding]:
    """The line that bears most in the wind, against what it may carry whole."""
    if not lines:
        return []
    limits = [min(working_limit_n(line.spec, over_people=rig.over_people), *_marked(line)) for line in rig.lines]
    uses = [state.tension_n * wind.times / limit for state, limit in zip(lines, limits, strict=True)]
    worst = max(range(len(uses)), key=uses.__getitem__)
    value, limit = pull(lines[worst].tension_n * wind.times), pull(limits[worst])
    reason = phrase(
        "Wind at the top of Beaufort {force} pushes it with {push}, {swing} out of the vertical: {line} bears {v}; it "
        "may carry {limit}.",
        force=wind.beaufort,
        push=pull(wind.push_n),
        swing=angle(wind.swing_rad),
        line=lines[worst].name,
        v=value,
        limit=limit,
    )
    return [finding(check="wind", case="heavy", value=value, limit=limit, sense="at most", reason=reason)]


def _marked(line: RigLine) -> list[float]:
    return [math.inf, *(each.wll_n for each in line.hardware if each.wll_n is not None)]


def figures(wind: HungWind | None) -> list[Shown]:
    """The wind it is planned for, for the screen."""
    return [] if wind is None else [BEAUFORT_TOP[wind.beaufort]]
