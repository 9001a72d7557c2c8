"""Turning stems up: too soft for their lean, caught by the rim, or too flat for their cut end to reach down."""

import math

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.geometry import Array, Flags
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.placement.choosing import COARSE, Indices
from jolly_trellis.core.placement.trace import bore_of, trace
from jolly_trellis.core.plan_shapes import plan_share
from jolly_trellis.core.stems.stem_set import StemSet

DROOP_ALLOWED = rule("Droop a leaning stem may have, share of its free length", "ratio", 0.2)
_TURNS = 7


def droop_m(stems: StemSet, visible: Array, lean: Array) -> Array:
    """`stems.droop_m` for every row."""
    return stems.head_mass_kg * GRAVITY_M_S2 * visible**3 * np.sin(lean) / (3 * stems.stiffness_n_m2)


def limit_droop(
    stems: StemSet, tips: Array, seat_x: Array, seat_y: Array, seat_z: float, held: Flags
) -> tuple[Array, Array, Array]:
    """Turn up stems too soft for their lean, but not those a hand has placed; tips, lean and visible length."""
    dx, dy, dz = tips[:, 0] - seat_x, tips[:, 1] - seat_y, np.maximum(tips[:, 2] - seat_z, 1e-3)
    flat = np.sqrt(dx * dx + dy * dy)
    visible = np.sqrt(flat * flat + dz * dz)
    lean = np.arctan2(flat, dz)
    sag_flat = droop_m(stems, visible, np.full(len(stems), math.pi / 2))
    most_sine = np.minimum(1.0, DROOP_ALLOWED.value * visible / np.maximum(sag_flat, 1e-9))
    lean = np.where(held, lean, np.minimum(lean, np.arcsin(most_sine)))
    scale = visible * np.sin(lean) / np.maximum(flat, 1e-9)
    turned = np.stack([seat_x + dx * scale, seat_y + dy * scale, seat_z + visible * np.cos(lean)], axis=1)
    return turned, lean, visible


def pass_the_rim(
    vessel: Vessel,
    stems: StemSet,
    tips: Array,
    seat_x: Array,
    seat_y: Array,
    seat_z: float,
    lean: Array,
    visible: Array,
) -> tuple[Array, Array, Array, Flags]:
    """Turn up stems seated under the rim so that they leave through the mouth; which of them then lean on it."""
    up = vessel.rim_m - seat_z
    on_rim = np.zeros(len(stems), dtype=np.bool_)
    if up <= 1e-6 or len(stems) == 0:
        return tips, lean, visible, on_rim
    rise = np.maximum(tips[:, 2] - seat_z, 1e-3)
    run_x, run_y = (tips[:, 0] - seat_x) / rise, (tips[:, 1] - seat_y) / rise
    half_width = np.maximum(vessel.mouth_width_m / 2 - stems.diameter_m / 2, 1e-4)
    half_depth = np.maximum(vessel.mouth_depth_m / 2 - stems.diameter_m / 2, 1e-4)
    share = plan_share(vessel.plan_shape, seat_x + run_x * up, seat_y + run_y * up, half_width, half_depth)
    on_rim = np.asarray(share > 1.0)
    low, high = np.zeros(len(stems)), np.ones(len(stems))
    for _ in range(18):
        middle = (low + high) / 2
        inside = (
            plan_share(
                vessel.plan_shape, seat_x + middle * run_x * up, seat_y + middle * run_y * up, half_width, half_depth
            )
            <= 1.0
        )
        low, high = np.where(inside, middle, low), np.where(inside, high, middle)
    factor = np.where(on_rim, low, 1.0)
    run_x, run_y = run_x * factor, run_y * factor
    slant = np.sqrt(1.0 + run_x**2 + run_y**2)
    high_z = visible / slant
    turned = np.stack([seat_x + run_x * high_z, seat_y + run_y * high_z, seat_z + high_z], axis=1)
    lean = np.arctan2(np.hypot(run_x, run_y), 1.0)
    return np.where(on_rim[:, None], turned, tips), lean, visible, on_rim


def reach_down(
    vessel: Vessel,
    stems: StemSet,
    tips: Array,
    seat_x: Array,
    seat_y: Array,
    seat_height: float,
    lean: Array,
    visible: Array,
    free: Flags,
    feet_under_m: float,
) -> tuple[Array, Array]:
    """Turn up stems so flat that the wall stops their cut end too high, as a hand would; tips and lean.

    Args:
        feet_under_m: height over the inside floor that cut ends must reach down to, m.
    """
    seat_z = vessel.base_m + seat_height
    bore = bore_of(vessel, COARSE, seat_height)
    rise = np.maximum(tips[:, 2] - seat_z, 1e-3)
    run_x, run_y = (tips[:, 0] - seat_x) / rise, (tips[:, 1] - seat_y) / rise

    def dry(rows: Indices, factor: Array) -> Flags:
        found = trace(
            bore,
            seat_x_m=seat_x[rows],
            seat_y_m=seat_y[rows],
            run_x=run_x[rows] * factor,
            run_y=run_y[rows] * factor,
            stem_radius_m=stems.diameter_m[rows] / 2,
            level_drops_m=np.zeros(1),
        )
        return np.asarray(seat_height - found.drop_m > feet_under_m)

    rows = np.flatnonzero(free)
    rows = rows[dry(rows, np.ones(len(rows)))]
    if len(rows) == 0:
        return tips, lean
    low, high = np.zeros(len(rows)), np.ones(len(rows))
    for _ in range(_TURNS):
        middle = (low + high) / 2
        still = dry(rows, middle)
        low, high = np.where(still, low, middle), np.where(still, middle, high)
    across, back = run_x[rows] * low, run_y[rows] * low
    up = visible[rows] / np.sqrt(1.0 + across**2 + back**2)
    tips, lean = tips.copy(), lean.copy()
    tips[rows] = np.stack([seat_x[rows] + across * up, seat_y[rows] + back * up, seat_z + up], axis=1)
    lean[rows] = np.arctan2(np.hypot(across, back), 1.0)
    return tips, lean
