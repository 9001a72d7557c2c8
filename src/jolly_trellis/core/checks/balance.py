"""Balance: mass and centre of everything that stands together, and how far it is to the edge of its footing."""

from dataclasses import dataclass

import numpy as np

from jolly_trellis.core.acts.stances import EVERY
from jolly_trellis.core.books.bodies import Case, State, centre_of, on_show, standing_together, together
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.building.footing import Footing, Outline, ledge_edge_m
from jolly_trellis.core.geometry import Array, azimuth_rays
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.plan.passage import GoesIn
from jolly_trellis.core.plan_shapes import PlanShape
from jolly_trellis.core.quantities import worded

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
    key = ("edge", balance.x_m, balance.y_m)
    found = build.memo.get(key)
    if found is None:
        ray_x, ray_y = azimuth_rays(DIRECTIONS)
        x, y = np.full(DIRECTIONS, balance.x_m), np.full(DIRECTIONS, balance.y_m)
        found = build.memo[key] = footing_of(build).edge_m(x, y, ray_x, ray_y)
    return found


def balance_of(build: Build, case: Case) -> Balance:
    """Composite mass and centre of everything that stands together in one load case."""
    key = ("balance", case)
    found = build.memo.get(key)
    if found is None:
        found = build.memo[key] = _balance_of(build, case)
    return found


def _balance_of(build: Build, case: Case) -> Balance:
    centre = centre_of(together(build, case))
    turning = np.array([turning_kg_m(each, on_show(each, case)) for each, _, _ in standing_together(build)]).sum(
        axis=0
    )
    return Balance(
        mass_kg=centre.mass_kg,
        x_m=centre.x_m,
        y_m=centre.y_m,
        height_m=centre.height_m,
        water_rise_x_m=float(turning[0]) / centre.mass_kg,
        water_rise_y_m=float(turning[1]) / centre.mass_kg,
    )


def turning_kg_m(build: Build, state: State) -> tuple[float, float]:
    """Mass of a vessel's water times how far it raises its centre in a tilt, about both axes, kg·m."""
    level = state.level_m
    water_l = build.water.volume_at_l(level)
    turning = vessels.surface_second_moment_m4(build.piece.vessel, level)
    return water_l * water_rise_m(turning[0], water_l), water_l * water_rise_m(turning[1], water_l)


def compass(index: int) -> str:
    """One of the 72 azimuths in words, from "to the front" round by the right in eighths."""
    names = (
        "to the front",
        "to the front right",
        "to the right",
        "to the back right",
        "to the back",
        "to the back left",
        "to the left",
        "to the front left",
    )
    return worded(names[round(index / DIRECTIONS * 8) % 8])


def outline_top_m(build: Build, stems: frozenset[GoesIn] = EVERY) -> float:
    """Top of the flowers that are in it above the surface, metres; of the rim where none is."""
    there = build.placement.stems.present(stems)
    tops = build.placement.head_z_m[there] + build.placement.stems.round_reach_m[there]
    return build.raised_m + float(tops.max(initial=build.piece.vessel.rim_m))
