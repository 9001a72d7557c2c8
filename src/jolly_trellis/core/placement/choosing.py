"""Which seat each stem takes: the nearest to its line that holds it twice, reaches water and has room."""

import numpy as np
import numpy.typing as npt

from jolly_trellis.core import netting as nets
from jolly_trellis.core.geometry import Array, Flags, plan_share
from jolly_trellis.core.placement.stem_set import StemSet
from jolly_trellis.core.placement.trace import SUPPORT_SPACING, bore_of, farthest_support_m, trace
from jolly_trellis.core.provenance import constant
from jolly_trellis.core.vessels import Vessel, inside_size_m

Indices = npt.NDArray[np.intp]

GROWING_POINT_SHARE = constant("Depth of the growing point under the seats, share of their height", "ratio", 1.0)
CROWDED_CELL = 0.3
UPRIGHT_SLOPE = 0.05
FLATTEST_SLOPE = 3.7
SHALLOW_END = 3.0
DRY_END = 30.0
COARSE = 12


def nearest_seat(tips: Array, cells: Array) -> Array:
    """Cost of every seat for every stem where each is on its own: the distance seen from above."""
    return np.asarray(((tips[:, None, :2] * 0.5 - cells[None]) ** 2).sum(axis=2))


def seat_cost(
    stems: StemSet,
    tips: Array,
    cells: Array,
    vessel: Vessel,
    level_drops: Array,
    seat_height: float,
    points: tuple[tuple[float, float], ...],
    water_over_m: float,
) -> Array:
    """Cost of every seat for every stem, shape (stems, seats): far from its line, flat, dry, or badly held."""
    seat_z = vessel.base_m + seat_height
    rise = np.maximum(tips[:, 2] - seat_z, 1e-3)[:, None]
    run_x, run_y = (tips[:, :1] - cells[:, 0]) / rise, (tips[:, 1:2] - cells[:, 1]) / rise
    slope = np.sqrt(run_x * run_x + run_y * run_y)
    natural = _natural_seats(tips, rise, vessel, seat_height, points)
    mouth = min(vessel.mouth_width_m, vessel.mouth_depth_m) / 2
    off_x, off_y = natural[:, :1] - cells[:, 0], natural[:, 1:2] - cells[:, 1]
    badly_held = ~_crosses_second_wire(vessel, cells, run_x, run_y, slope, stems.diameter_m, level_drops, seat_height)
    if len(level_drops) > 1 and seat_height - float(level_drops[1]) > water_over_m:
        badly_held[:] = True
    held, shallow = _held_otherwise(
        badly_held, cells, run_x, run_y, slope, stems.diameter_m, vessel, level_drops, seat_height
    )
    too_flat = np.maximum(slope - FLATTEST_SLOPE, 0.0)
    dry = shallow * seat_height > water_over_m
    badly = 100.0 * (badly_held & ~held) + 10.0 * too_flat + SHALLOW_END * shallow + DRY_END * dry
    return (off_x * off_x + off_y * off_y) / mouth**2 + badly


def _natural_seats(
    tips: Array, rise: Array, vessel: Vessel, seat_height: float, points: tuple[tuple[float, float], ...]
) -> Array:
    """Where the line from each tip to its nearest growing point passes the seats, kept within the mouth."""
    half = np.array([vessel.mouth_width_m / 2, vessel.mouth_depth_m / 2])
    growing = max(GROWING_POINT_SHARE.value * seat_height, 1e-3)
    roots = np.array(points) * half
    nearest = ((tips[:, None, :2] - roots[None]) ** 2).sum(axis=2).argmin(axis=1)
    root = roots[nearest]
    natural = root + (tips[:, :2] - root) * (growing / (rise + growing))
    out = np.sqrt(((natural / half) ** 2).sum(axis=1))
    return np.asarray(natural * np.minimum(1.0, 0.85 / np.maximum(out, 1e-9))[:, None])


def _crosses_second_wire(
    vessel: Vessel,
    cells: Array,
    run_x: Array,
    run_y: Array,
    slope: Array,
    diameter: Array,
    level_drops: Array,
    seat_height: float,
) -> Flags:
    """Which stems, from which seats, still are inside the vessel at the second level, far enough down."""
    if len(level_drops) < 2:
        return np.zeros(slope.shape, dtype=np.bool_)
    drop = float(level_drops[1])
    width, depth = inside_size_m(vessel, seat_height - drop)
    share = plan_share(
        vessel.plan_shape,
        cells[:, 0] - run_x * drop,
        cells[:, 1] - run_y * drop,
        np.maximum(width / 2 - diameter[:, None] / 2, 1e-4),
        np.maximum(depth / 2 - diameter[:, None] / 2, 1e-4),
    )
    return (share <= 1.0) & (drop * np.sqrt(1.0 + slope * slope) >= SUPPORT_SPACING.value)


def _held_otherwise(
    asked: Flags,
    cells: Array,
    run_x: Array,
    run_y: Array,
    slope: Array,
    diameter: Array,
    vessel: Vessel,
    level_drops: Array,
    seat_height: float,
) -> tuple[Flags, Array]:
    """Of the pairs asked for, those that the wall, the floor or a farther level holds.

    Also how shallow their cut ends stay: 0 at the floor, 1 at the seats, where water cannot be kept over them.
    """
    held, shallow = np.zeros(asked.shape, dtype=np.bool_), np.zeros(asked.shape)
    row, cell = np.nonzero(asked)
    if len(row) == 0:
        return held, shallow
    found = trace(
        bore_of(vessel, COARSE, seat_height),
        seat_x_m=cells[cell, 0],
        seat_y_m=cells[cell, 1],
        run_x=run_x[row, cell],
        run_y=run_y[row, cell],
        stem_radius_m=diameter[row] / 2,
        level_drops_m=level_drops,
    )
    far = farthest_support_m(found, level_drops_m=level_drops, floor_holds=slope[row, cell] < UPRIGHT_SLOPE)
    held[row, cell] = far >= SUPPORT_SPACING.value
    shallow[row, cell] = 1.0 - found.drop_m / seat_height
    return held, shallow


def take_seats(
    stems: StemSet, cost: Array, lost: Array, aperture: float, each: int | None
) -> tuple[Indices, Indices, Flags]:
    """Give the rows their seats in order: the cheapest that still has room, else the least crowded."""
    if each is None:
        share = [1.0 / nets.cell_capacity(aperture, d) for d in stems.diameter_m.tolist()]
    else:
        share = [1.0 / each] * len(stems)
    used = lost.copy()
    taken = np.zeros(len(used), dtype=np.intp)
    cell, rank = np.zeros(len(stems), dtype=np.intp), np.zeros(len(stems), dtype=np.intp)
    over = np.zeros(len(stems), dtype=np.bool_)
    for row in range(len(stems)):
        price = cost[row] + CROWDED_CELL * used
        price[used > 1.0 + 1e-9 - share[row]] += 1e6
        best = int(price.argmin())
        if price[best] >= 1e6:
            over[row] = True
            best = int((cost[row] + 10 * used).argmin())
        cell[row], rank[row] = best, taken[best]
        used[best] += share[row]
        taken[best] += 1
    return cell, rank, over
