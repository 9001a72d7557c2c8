"""How far a stem can swing: what holds it, the play that leaves, and how stems crowd and lock one another."""

from dataclasses import dataclass
from itertools import combinations

import numpy as np

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.geometry import Array, Flags
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.vessels import Vessel, inside_size_m
from jolly_trellis.core.placement.place import Placement
from jolly_trellis.core.placement.trace import SUPPORT_SPACING
from jolly_trellis.core.plan_shapes import ray_to_outline_m

STAGGER_TWO = measure("Play left with two wire levels (leaves and bent cells take up the rest)", "ratio", 0.5)
STAGGER_THREE = measure("Play left with three wire levels", "ratio", 0.4)
STAGGER_MORE = measure("Play left with four or more wire levels", "ratio", 0.35)
STAGGER_ONE = measure("Play left with one wire level", "ratio", 1.0)
LOCK_MOST = measure("Most that crossing stems lock one another", "ratio", 0.6)
CROWD_CELLS = measure("Stems crowd one another at a lower level within, in cells", "ratio", 2.0)
SWAY_BASE = rule("Sway a head may have, whatever its height", "length", 0.03)
SWAY_SHARE = rule("Sway a head may have on top, share of visible length", "ratio", 0.10)


@dataclass(frozen=True, slots=True, kw_only=True)
class Play:
    """How each stem is held, one row each. `unheld` has no two supports far enough apart; no swing is given."""

    tan_swing: Array
    sway_m: Array
    sway_limit_m: Array
    support_drop_m: Array
    unheld: Flags


def play_m(aperture_m: float | Array, stem_diameter_m: Array, other_diameters_m: Array) -> Array:
    """Play of a stem in its cell: max(0, a − d − Σ others in that cell)/2, metres.

    Source: geometry.
    """
    return np.maximum(0.0, aperture_m - stem_diameter_m - other_diameters_m) / 2


def crowding_lock(total_diameter_m: float | Array, inside_diameter_m: float) -> Array:
    """How far stems that cross a level lock one another: min(0.6, Σd/(4·D)).

    Args:
        total_diameter_m: sum of the diameters of stems crossing the level, m.
        inside_diameter_m: inside diameter of the vessel there, m, > 0.
    Source: estimate.
    """
    return np.minimum(LOCK_MOST.value, total_diameter_m / (4 * inside_diameter_m))


def tan_swing(
    play_top_m: Array, play_low_m: Array, *, stagger: Array, lock: float | Array, lean_rad: Array, layer_gap_m: Array
) -> Array:
    """Tangent of the angle a stem can swing through.

    (c1 + c2)·stagger·(1 − lock)·cos θ / gap, between its uppermost and lowest support.

    Args:
        play_top_m, play_low_m: play at the two supports, m; frog, wall and a floor that holds have none.
        stagger: share of the play that is left, 0.35-1.
        lock: from `crowding_lock`.
        lean_rad: lean from the vertical.
        layer_gap_m: vertical distance between the two supports, m, > 0.
    Source: geometry; stagger and lock are estimates.
    """
    return (play_top_m + play_low_m) * stagger * (1 - lock) * np.cos(lean_rad) / layer_gap_m


def stems_play(build: Build, among: Flags | None = None) -> Play:
    """Follow every stem's supports and work out how far its head can sway.

    Supports from the top down: the rim a stem leans on, each level it crosses, its foot where the wall, the floor or
    pins hold it, or where it is left once it has slid over the floor on to the wall. A stem swings no farther than the
    pair of supports lets it that lets it least.

    Args:
        among: the rows that are in already, while the piece is being made; only they crowd and lock. Shape (rows,), or
            (steps, rows) for every step at once, as the answer then is. None is all.
    """
    vessel, pitch = build.piece.vessel, build.mechanic.seating.pitch_m
    if among is None:
        return play_of(vessel, build.placement, pitch)
    return _stems_play(vessel, build.placement, pitch, among)


@remembered
def play_of(vessel: Vessel, placement: Placement, pitch_m: float) -> Play:
    """The play of all stems of a placement, once they are all in."""
    return _stems_play(vessel, placement, pitch_m, None)


def _stems_play(vessel: Vessel, placement: Placement, pitch_m: float, among: Flags | None) -> Play:
    number = len(placement.stems)
    crowds = placement.stems.diameter_m if among is None else placement.stems.diameter_m * among
    supports = _supports_of(vessel, placement, pitch_m, crowds)
    wires = placement.found.crosses.sum(axis=-1)
    stagger: Array = np.select(
        [wires <= 1, wires == 2, wires == 3],
        [STAGGER_ONE.value, STAGGER_TWO.value, STAGGER_THREE.value],
        default=STAGGER_MORE.value,
    )
    lock = _lock(vessel, placement, crowds)[..., None]
    swing = np.full(number, np.inf)
    for upper, lower in combinations(supports, 2):
        gap = lower.drop_m - upper.drop_m
        swings = tan_swing(
            upper.play_m,
            lower.play_m,
            stagger=np.ones(number) if placement.rigid else stagger,
            lock=lock,
            lean_rad=placement.lean_rad,
            layer_gap_m=np.maximum(gap, 1e-6),
        ) + lower.slide_m / np.maximum(gap, 1e-6)
        far = gap * placement.found.slant >= SUPPORT_SPACING.value - 1e-9
        swing = np.where(upper.there & lower.there & far, np.minimum(swing, swings), swing)
    pinned = placement.gripped & (wires <= 1)
    unheld = np.isinf(swing) & ~placement.gripped
    swing = np.where(np.isinf(swing) | pinned, 0.0, swing)
    return Play(
        tan_swing=swing,
        sway_m=placement.visible_m * swing,
        sway_limit_m=SWAY_BASE.value + SWAY_SHARE.value * placement.visible_m,
        support_drop_m=np.max([np.where(each.there, each.drop_m, 0.0) for each in supports], axis=0),
        unheld=unheld,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class _Support:
    """One kind of support for every stem: whether it is there, how far under the seats, the play it leaves, and how
    far the foot slides before it is there, m."""

    there: Flags
    drop_m: Array
    play_m: Array
    slide_m: Array


def _supports_of(vessel: Vessel, placement: Placement, pitch_m: float, crowds: Array) -> list[_Support]:
    """All supports of all stems, from the top down."""
    found = placement.found
    none, number = np.zeros(len(placement.stems)), len(placement.stems)
    over_seat = vessel.inside_depth_m - placement.seat_height_m
    supports = [
        _Support(there=placement.on_rim, drop_m=np.full(number, -over_seat), play_m=none, slide_m=none),
    ]
    for level, (drop, aperture) in enumerate(
        zip(placement.level_drops_m.tolist(), placement.level_apertures_m.tolist(), strict=True)
    ):
        if level:
            others = _crowding_at(vessel, placement, pitch_m, drop, crowds)
        else:
            others = _others_in_cell(placement.seat_cell, crowds)
        play = play_m(aperture, placement.stems.diameter_m, others)
        there = found.crosses[:, level]
        supports.append(_Support(there=there, drop_m=np.full(number, drop), play_m=play, slide_m=none))
    slides = ~found.at_wall & ~placement.floor_holds & ~placement.hangs
    foot = found.wall_holds | (~found.at_wall & placement.floor_holds) | slides
    slide = np.where(slides, _slide_to_wall_m(vessel, placement), 0.0)
    supports.append(_Support(there=foot, drop_m=found.drop_m, play_m=none, slide_m=slide))
    return supports


def _others_in_cell(cell: np.ndarray, diameter_m: Array) -> Array:
    """Sum of the other stems' diameters in each stem's cell; a stem that is not in has none."""
    if diameter_m.ndim == 1:
        return np.bincount(cell, weights=diameter_m)[cell] - diameter_m
    of_cell = (cell[:, None] == np.arange(cell.max(initial=0) + 1)).astype(float)
    return np.asarray((diameter_m @ of_cell)[:, cell] - diameter_m)


def _crowding_at(vessel: Vessel, placement: Placement, pitch_m: float, drop_m: float, crowds: Array) -> Array:
    """Diameters of the other stems that crowd each at a lower level, where stems have crossed into other cells, m.

    As many as a cell holds where stems are as close as they are within two cells of it, the nearer counting for more,
    so that a stem that comes a little nearer crowds a little more.

    Source: a cone over two cells about the stem, of the weight of one cell; estimate.
    """
    rise = np.maximum(placement.tip_m[:, 2] - vessel.base_m - placement.seat_height_m, 1e-3)
    share = drop_m / rise
    x = placement.seat_x_m - (placement.tip_m[:, 0] - placement.seat_x_m) * share
    y = placement.seat_y_m - (placement.tip_m[:, 1] - placement.seat_y_m) * share
    away = np.hypot(x[:, None] - x, y[:, None] - y)
    pitch = max(pitch_m, 1e-6)
    reach = CROWD_CELLS.value * pitch
    weight = nets.cell_area_m2(pitch) / (np.pi * reach**2 / 3)
    near = weight * np.maximum(1.0 - away / reach, 0.0)
    np.fill_diagonal(near, 0.0)
    return np.asarray(crowds @ near)


def _lock(vessel: Vessel, placement: Placement, crowds: Array) -> Array:
    """How far the stems that cross the lowest level lock one another, one for each row of stems that are in."""
    if len(placement.stems) == 0:
        return np.zeros(crowds.shape[:-1])
    across = inside_size_m(vessel, placement.seat_height_m - float(placement.level_drops_m[-1]))
    return crowding_lock(crowds[..., placement.found.crosses[:, -1]].sum(axis=-1), min(across))


def _slide_to_wall_m(vessel: Vessel, placement: Placement) -> Array:
    """How far a foot that does not hold slides over the floor, away from the lean, before the wall stops it."""
    found = placement.found
    out_x, out_y = placement.tip_m[:, 0] - placement.seat_x_m, placement.tip_m[:, 1] - placement.seat_y_m
    flat = np.maximum(np.hypot(out_x, out_y), 1e-9)
    floor = vessel.profile[0]
    slide = ray_to_outline_m(
        vessel.plan_shape,
        found.end_x_m,
        found.end_y_m,
        -out_x / flat,
        -out_y / flat,
        floor.width_m / 2,
        floor.depth_m / 2,
    )
    return np.maximum(slide - placement.stems.diameter_m / 2, 0.0)
