"""Which seat each stem takes: the nearest to its line that holds it twice, reaches water and has room."""

from collections.abc import Callable

import numpy as np
import numpy.typing as npt

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.geometry import Array, Flags
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.placement.trace import SUPPORT_SPACING, bore_of, cut_short, farthest_support_m, trace
from jolly_trellis.core.plan_shapes import ray_to_outline_m
from jolly_trellis.core.stems.stem_set import StemSet

Indices = npt.NDArray[np.intp]

GROWING_POINT_SHARE = rule("Depth of the growing point under the seats, share of their height", "ratio", 1.0, most=1.0)
SLIDING = rule("Price of a foot that slides as far as it is deep, against a seat half a mouth off", "ratio", 0.5)
CROWDED_CELL = 0.3
UPRIGHT_SLOPE = 0.05
FLATTEST_SLOPE = 3.7
DRY_END = 30.0
COARSE = 12


def nearest_seat(tips: Array, cells: Array) -> Array:
    """Cost of every seat for every stem where each is on its own: the distance seen from above."""
    return np.asarray(((tips[:, None, :2] * 0.5 - cells[None]) ** 2).sum(axis=2))


def seat_cost(
    diameter_m: Array,
    longest_m: Array,
    tips: Array,
    cells: Array,
    vessel: Vessel,
    level_drops: Array,
    seat_height: float,
    points: tuple[tuple[float, float], ...],
    feet_under_m: float,
) -> Array:
    """Cost of every seat for some stems, shape (stems, seats): far from its line, flat, dry, sliding, or badly held.

    Args:
        diameter_m, longest_m, tips: of each of these stems, m.
        feet_under_m: height over the inside floor that cut ends must reach down to, m.

    It does not depend on how many levels of wire there are, so that another level leaves the stems where they are.
    """
    seat_z = vessel.base_m + seat_height
    rise = np.maximum(tips[:, 2] - seat_z, 1e-3)[:, None]
    run_x, run_y = (tips[:, :1] - cells[:, 0]) / rise, (tips[:, 1:2] - cells[:, 1]) / rise
    slope = np.sqrt(run_x * run_x + run_y * run_y)
    natural = _natural_seats(tips, rise, vessel, seat_height, points)
    mouth = min(vessel.mouth_width_m, vessel.mouth_depth_m) / 2
    off_x, off_y = natural[:, :1] - cells[:, 0], natural[:, 1:2] - cells[:, 1]
    inside = longest_m[:, None] / np.sqrt(1.0 + slope * slope) - rise
    drop, supported, slide = _supports(
        cells, run_x, run_y, slope, diameter_m, vessel, level_drops, seat_height, inside
    )
    too_flat = np.maximum(slope - FLATTEST_SLOPE, 0.0)
    dry = seat_height - drop > feet_under_m + 1e-9
    badly = 100.0 * ~supported + 10.0 * too_flat + DRY_END * dry + SLIDING.value * np.minimum(slide, 1.0) ** 2
    return (off_x * off_x + off_y * off_y) / mouth**2 + badly


def _supports(
    cells: Array,
    run_x: Array,
    run_y: Array,
    slope: Array,
    diameter: Array,
    vessel: Vessel,
    level_drops: Array,
    seat_height: float,
    inside_m: Array,
) -> tuple[Array, Flags, Array]:
    """How far under the seats each stem ends from each seat, whether anything but the seat supports it, and how far
    its foot slides over the floor before the wall stops it, for each metre between.

    Args:
        inside_m: how deep each stem goes at the most, as long as it is sold, m.
    """
    whole = trace(
        bore_of(vessel, COARSE, seat_height),
        seat_x_m=cells[:, 0],
        seat_y_m=cells[:, 1],
        run_x=run_x,
        run_y=run_y,
        stem_radius_m=diameter[:, None] / 2,
        level_drops_m=level_drops,
    )
    found, short = cut_short(whole, inside_m, cells[:, 0], cells[:, 1], run_x, run_y, level_drops)
    far = farthest_support_m(found, level_drops_m=level_drops, floor_holds=~short)
    floor = vessel.profile[0]
    flat = np.maximum(slope, 1e-9)
    slide = ray_to_outline_m(
        vessel.plan_shape,
        np.broadcast_to(found.end_x_m, slope.shape),
        np.broadcast_to(found.end_y_m, slope.shape),
        -run_x / flat,
        -run_y / flat,
        floor.width_m / 2,
        floor.depth_m / 2,
    )
    slides = ~found.at_wall & ~short & (slope >= UPRIGHT_SLOPE)
    return found.drop_m, far >= SUPPORT_SPACING.value, np.where(slides, np.maximum(slide, 0.0) / seat_height, 0.0)


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


def take_seats(
    stems: StemSet,
    cost_of: Callable[[Indices], Array],
    lost: Array,
    aperture: float,
    each: int | None,
    kept: Indices | None = None,
) -> tuple[Indices, Indices, Flags]:
    """Give the rows their seats in order: the one kept, the cheapest that still has room, else the least crowded.

    Args:
        cost_of: gives the cost of every seat for some rows. lost: what is taken of every seat before, 0-1.
        aperture: of a cell, m. each: stems a seat takes, None where its aperture says. kept: seats of an earlier deal,
        -1 for none; rows that can stay do so before the others choose.
    Returns: seat of every row, how many were in it before, and whether it was full.
    """
    if each is None:
        share = [1.0 / nets.cell_capacity(aperture, d) for d in stems.diameter_m.tolist()]
    else:
        share = [1.0 / each] * len(stems)
    used = lost.copy()
    taken = np.zeros(len(used), dtype=np.intp)
    cell, rank = np.zeros(len(stems), dtype=np.intp), np.zeros(len(stems), dtype=np.intp)
    over = np.zeros(len(stems), dtype=np.bool_)

    def seat(row: int, best: int) -> None:
        cell[row], rank[row] = best, taken[best]
        used[best] += share[row]
        taken[best] += 1

    moved = []
    for row, stays in enumerate([] if kept is None else kept.tolist()):
        room = used <= 1.0 + 1e-9 - share[row]
        if stays >= 0 and (room[stays] or not room.any()):
            over[row] = not room[stays]
            seat(row, stays)
        else:
            moved.append(row)
    rows = np.arange(len(stems)) if kept is None else np.array(moved, dtype=np.intp)
    for row, cost in zip(rows.tolist(), cost_of(rows) if len(rows) else (), strict=True):
        room = used <= 1.0 + 1e-9 - share[row]
        over[row] = not room.any()
        price = cost + 10 * used if over[row] else np.where(room, cost + CROWDED_CELL * used, np.inf)
        seat(row, int(price.argmin()))
    return cell, rank, over


def room_left(
    stems: StemSet, seat_cell: Indices, lost: Array, aperture: float, each: int | None, diameter_m: float
) -> int:
    """How many more stems of one diameter find a seat beside those placed.

    Args:
        seat_cell: seats taken, a row each. lost: what is taken of every seat before, 0-1. aperture: of a cell, m.
        each: stems a seat takes, None where its aperture says. diameter_m: of the stems asked about.
    """
    share = [1.0 / (each or nets.cell_capacity(aperture, d)) for d in stems.diameter_m.tolist()]
    used = lost + np.bincount(seat_cell, weights=share, minlength=len(lost))
    return int(np.floor(np.maximum(1.0 - used, 0.0) * (each or nets.cell_capacity(aperture, diameter_m)) + 1e-9).sum())


def nearest_cells(kept_m: Array | None, cells_m: Array, held: Flags, reach_m: float) -> Indices | None:
    """The cell in which each kept seat lies, -1 where none is near or a hand has placed the stem.

    Args:
        kept_m: kept seats, shape (rows, 2), m; None where all are to be dealt. reach_m: how far a cell may be off.
    """
    if kept_m is None:
        return None
    away = ((kept_m[:, None] - cells_m[None]) ** 2).sum(axis=2)
    near = away.argmin(axis=1)
    lost = held | (away[np.arange(len(near)), near] > reach_m**2)
    return np.where(lost, -1, near)
