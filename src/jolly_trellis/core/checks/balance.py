"""Balance: mass and centre of everything that stands together, and how far it is to the edge of its footing."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from jolly_trellis.core import vessels
from jolly_trellis.core.build import Build, Rows
from jolly_trellis.core.extras import OUTSIDE
from jolly_trellis.core.footing import Footing, Outline, ledge_edge_m
from jolly_trellis.core.geometry import Array, azimuth_rays
from jolly_trellis.core.netting import COATING_FACTOR_HEAVY
from jolly_trellis.core.piece import Support
from jolly_trellis.core.provenance import constant
from jolly_trellis.core.verdicts import Case
from jolly_trellis.core.vessels import PlanShape

Body = tuple[float, float, float, float]
WEIGHT_CENTRE = constant("Centre of a counterweight over the surface", "length", 0.03)
STAND_CENTRE = constant("Centre of a stand with a heavier foot, share of its height", "ratio", 0.35)
DIRECTIONS = 72


@dataclass(frozen=True, slots=True, kw_only=True)
class Balance:
    """A piece's weight in one case: mass, centre (x, y, height), and how far the water raises it in a tilt."""

    mass_kg: float
    x_m: float
    y_m: float
    height_m: float
    water_rise_x_m: float
    water_rise_y_m: float


def water_rise_m(surface_second_moment_m4: float, volume_l: float) -> float:
    """How far free water raises its centre in a tilt: I/V, metres; R²/(4·depth) in a straight round vessel.

    Args:
        surface_second_moment_m4: of the water surface, m⁴.
        volume_l: litres of water; 0 gives 0.
    Valid for: small tilts, while the floor stays covered and the water below the rim.
    Source: metacentric radius BM = I/V, any text on hydrostatics.
    """
    return 1000 * surface_second_moment_m4 / volume_l if volume_l > 1e-6 else 0.0


def standing_foot_m(build: Build) -> tuple[PlanShape, float | None, float | None]:
    """What touches the surface: plan shape, width and depth of the support's, the urn's or the vessel's foot, m."""
    piece = build.piece
    if piece.support is not None:
        return "round", piece.support.foot_width_m, piece.support.foot_width_m
    vessel = piece.insert.outer if piece.insert is not None else piece.vessel
    return vessel.plan_shape, vessel.foot_width_m, vessel.foot_depth_m or vessel.foot_width_m


def footing_of(build: Build) -> Footing:
    """What bears everything that is tied together: the feet, cut off by a ledge's edge where there is one."""
    feet = []
    for each, x, y in standing_together(build):
        shape, width, depth = standing_foot_m(each)
        feet.append(Outline(plan_shape=shape, x_m=x, y_m=y, width_m=width or 0.0, depth_m=depth or 0.0))
    return Footing(feet=tuple(feet), front_m=ledge_edge_m(build.piece))


def foot_edge_m(build: Build, balance: Balance) -> Array:
    """Distance along each of 72 azimuths from below the centre of mass to the footing's edge, metres."""
    ray_x, ray_y = azimuth_rays(DIRECTIONS)
    x, y = np.full(DIRECTIONS, balance.x_m), np.full(DIRECTIONS, balance.y_m)
    return footing_of(build).edge_m(x, y, ray_x, ray_y)


def standing_together(build: Build) -> tuple[tuple[Build, float, float], ...]:
    """The piece's own vessel and every companion tied to it, each with its middle from the own one's, metres."""
    tied = [
        (made, each.x_m, each.y_m)
        for made, each in zip(build.companions, build.piece.companions, strict=True)
        if each.tied
    ]
    return ((build, 0.0, 0.0), *tied)


def bodies_of(build: Build, case: Case) -> list[Body]:
    """Every part of everything that stands together, in one load case; the stems of each vessel as one body."""
    bodies = [*own_bodies_of(build, case), *tied_weights(build)]
    for made, x, y in standing_together(build)[1:]:
        bodies += [(kg, px + x, py + y, height) for kg, px, py, height in own_bodies_of(made, case)]
    return bodies


def tied_weights(build: Build) -> list[Body]:
    """The counterweight, where it is tied on; one that merely stands there holds nothing."""
    weight = build.piece.counterweight
    if weight is None or not weight.tied:
        return []
    x, y = weight.away_m * math.sin(weight.azimuth_rad), -weight.away_m * math.cos(weight.azimuth_rad)
    return [(weight.mass_kg, x, y, WEIGHT_CENTRE.value)]


def rows_in(build: Build, case: Case) -> Rows:
    """The rows of stems in a load case, with what they carry."""
    return build.rows if case == "typical" else build.heavy_rows


def own_bodies_of(build: Build, case: Case) -> list[Body]:
    """Every part that stands on the piece's own foot in one load case, its stems as one body."""
    bodies = fixed_bodies_of(build, case)
    rows = rows_in(build, case)
    total = float(rows.mass_kg.sum())
    if total > 0:
        centre = (rows.mass_kg[:, None] * rows.centre_m).sum(axis=0) / total
        bodies.append((total, float(centre[0]), float(centre[1]), build.raised_m + float(centre[2])))
    return bodies


def fixed_bodies_of(build: Build, case: Case) -> list[Body]:
    """Every part of a piece but its stems: (mass, x, y, height above the surface) in one load case."""
    piece, vessel = build.piece, build.piece.vessel
    level = case_level_m(build, case)
    base = build.raised_m
    heavy = case != "typical"
    levels = build.mechanic.levels
    hold_height = base + vessel.base_m + sum(each.height_m for each in levels) / len(levels)
    absorbed = build.mechanic.absorbed_l if build.mechanic.flat else 0.0
    wire, coating = build.mechanic.mass_kg, 1.0
    if heavy and build.netting is not None and build.netting.finish == "coated":
        coating = COATING_FACTOR_HEAVY.value
        wire += sum(each.sheet.mass_kg for each in build.mechanic.flat) * (coating - 1.0)
    bodies = [
        (vessel.mass_kg or 0.0, 0.0, 0.0, base + vessels.shell_centre_m(vessel)),
        (build.water.volume_at_l(level), 0.0, 0.0, base + vessel.base_m + build.water.centre_at_m(level)),
        (wire + absorbed, 0.0, 0.0, hold_height),
        (own_water_l(build, case), 0.0, 0.0, hold_height),
    ]
    for extra in build.extras:
        if extra.height_m is not None:
            kg = extra.part.mass_kg * (coating if extra.part.name == OUTSIDE else 1.0)
            bodies.append((kg, 0.0, 0.0, extra.height_m))
    if piece.insert is not None:
        outer = piece.insert.outer
        bodies.append((outer.mass_kg or 0.0, 0.0, 0.0, vessels.shell_centre_m(outer)))
    if piece.support is not None:
        support = piece.support
        bodies.append((support.mass_kg or 0.0, 0.0, 0.0, support_centre_m(support)))
        bodies.append((support.water_l, 0.0, 0.0, support_water_height_m(support) / 2 + 0.01))
    return bodies


def own_water_l(build: Build, case: Case) -> float:
    """Water in cups of the mechanic's own, litres: full, or as much as is left of it in the low case."""
    mechanic = build.mechanic
    if not mechanic.own_cups:
        return 0.0
    if case != "low":
        return mechanic.own_water_l
    full = build.piece.water_level_m
    return mechanic.own_water_l * case_level_m(build, "low") / full if full > 0 else 0.0


def support_centre_m(support: Support) -> float:
    """Height of a bare support's centre of mass: half of a cylinder, 0.35 of a stand with a heavier foot, metres.

    Source: geometry for the cylinder; the share of a stand is an estimate.
    """
    return support.height_m * (0.5 if support.opening_m > 0 else STAND_CENTRE.value)


def support_water_height_m(support: Support) -> float:
    """Height that ballast water reaches in a support, metres, at most its height. Source: V/(π·d²/4)."""
    if support.water_l <= 0:
        return 0.0
    inside = math.pi / 4 * support.column_width_m**2
    return min(support.water_l / 1000 / inside, support.height_m)


def balance_of(build: Build, case: Case) -> Balance:
    """Composite mass and centre of everything that stands together in one load case."""
    bodies = bodies_of(build, case)
    total = sum(each[0] for each in bodies)
    turning = np.array([turning_kg_m(each, case) for each, _, _ in standing_together(build)]).sum(axis=0)
    return Balance(
        mass_kg=total,
        x_m=sum(each[0] * each[1] for each in bodies) / total,
        y_m=sum(each[0] * each[2] for each in bodies) / total,
        height_m=sum(each[0] * each[3] for each in bodies) / total,
        water_rise_x_m=float(turning[0]) / total,
        water_rise_y_m=float(turning[1]) / total,
    )


def turning_kg_m(build: Build, case: Case) -> tuple[float, float]:
    """Mass of a vessel's water times how far it raises its centre in a tilt, about both axes, kg·m."""
    level = case_level_m(build, case)
    water_l = build.water.volume_at_l(level)
    turning = vessels.surface_second_moment_m4(build.piece.vessel, level)
    return water_l * water_rise_m(turning[0], water_l), water_l * water_rise_m(turning[1], water_l)


def centre_of(bodies: Sequence[Body]) -> tuple[float, float, float, float]:
    """Mass and centre (x, y, height) of some bodies; zeros where there is none. Source: first moments."""
    total = sum(each[0] for each in bodies)
    if total <= 0:
        return 0.0, 0.0, 0.0, 0.0
    x, y, height = (sum(each[0] * each[axis] for each in bodies) / total for axis in (1, 2, 3))
    return total, x, y, height


def compass(index: int) -> str:
    """One of the 72 azimuths in words, from "to the front" round by the right in eighths."""
    names = ("front", "front right", "right", "back right", "back", "back left", "left", "front left")
    return f"to the {names[round(index / DIRECTIONS * 8) % 8]}"


def case_level_m(build: Build, case: Case) -> float:
    """Water level of a load case, metres above the inside floor.

    The low case takes the lowest level before a top-up, or dry where nobody is named to top up.
    """
    if case != "low":
        return build.piece.water_level_m
    if build.conditions.topped_up_by is None:
        return 0.0
    return 0.0 if build.courses is None else build.courses[1].lowest_level_m


def outline_top_m(build: Build) -> float:
    """Top of the flowers above the surface, metres."""
    tops = build.placement.head_z_m + build.placement.stems.round_reach_m
    return build.raised_m + float(tops.max(initial=build.piece.vessel.rim_m))
