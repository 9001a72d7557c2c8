"""Where a stem goes inside the vessel: from its seat inwards to the floor or the wall, and what holds it."""

from dataclasses import dataclass, replace

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.geometry import Array, Flags
from jolly_trellis.core.materials.profiles import curve_of
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan_shapes import plan_share

SUPPORT_SPACING = rule("Least distance between a stem's supports", "length", 0.02)


@dataclass(frozen=True, slots=True, kw_only=True)
class Trace:
    """Stems followed inwards; every array has the shape of the stems, `crosses` one axis more (levels).

    `embedded_m` runs along the stem from its seat to its cut end; `drop_m` is the same measured vertically and
    `slant` the length along the stem for each metre of drop;
    `at_wall` tells a cut end that meets the wall before the floor; `wall_holds` that the wall is on the side
    gravity presses the foot to.
    """

    embedded_m: Array
    drop_m: Array
    slant: Array
    end_x_m: Array
    end_y_m: Array
    at_wall: Flags
    wall_holds: Flags
    crosses: Flags


@dataclass(frozen=True, slots=True, kw_only=True)
class Bore:
    """The inside of a vessel sampled from the seats down, for following many stems at once."""

    vessel: Vessel
    drops_m: Array
    half_widths_m: Array
    half_depths_m: Array


def bore_of(vessel: Vessel, samples: int, from_height_m: float) -> Bore:
    """Sample a vessel's inside at `samples` + 1 heights, from the height of the seats (above the floor) down."""
    drops = np.linspace(0.0, from_height_m, samples + 1)
    widths, depths = curve_of(vessel.profile).sizes_m(from_height_m - drops)
    return Bore(
        vessel=vessel,
        drops_m=drops,
        half_widths_m=widths / 2,
        half_depths_m=depths / 2,
    )


def trace(
    bore: Bore,
    *,
    seat_x_m: Array,
    seat_y_m: Array,
    run_x: Array,
    run_y: Array,
    stem_radius_m: Array,
    level_drops_m: Array,
) -> Trace:
    """Follow stems from their seats down to the floor or the wall.

    Args:
        bore: the sampled vessel.
        seat_x_m, seat_y_m: seats on their plane, m.
        run_x, run_y: how far the stem moves outwards for each metre it rises (lean direction × tan lean).
        stem_radius_m: m; the axis stays this far from the wall.
        level_drops_m: depth of each level under the seats, shape (levels,).
    Returns: a `Trace`; the wall is met by linear interpolation between samples.
    Source: geometry; a leaning stem's weight turns it about the netting and presses its foot away from the
        lean, so only a wall on that side holds it.
    """
    column = (slice(None),) + (None,) * np.broadcast(seat_x_m, run_x).ndim
    drops = bore.drops_m[column]
    share = plan_share(
        bore.vessel.plan_shape,
        seat_x_m - run_x * drops,
        seat_y_m - run_y * drops,
        np.maximum(bore.half_widths_m[column] - stem_radius_m, 1e-4),
        np.maximum(bore.half_depths_m[column] - stem_radius_m, 1e-4),
    )
    outside = share[1:] > 1.0
    at_wall = np.asarray(outside.any(axis=0))
    first = outside.argmax(axis=0)
    before = np.take_along_axis(share, first[None], axis=0)[0]
    after = np.take_along_axis(share, first[None] + 1, axis=0)[0]
    part = np.clip((1.0 - before) / np.where(after == before, 1.0, after - before), 0.0, 1.0)
    step = bore.drops_m[1]
    drop = np.where(at_wall, (first + part) * step, bore.drops_m[-1])
    end_x, end_y = seat_x_m - run_x * drop, seat_y_m - run_y * drop
    slant = np.sqrt(1.0 + run_x * run_x + run_y * run_y)
    return Trace(
        embedded_m=drop * slant,
        drop_m=drop,
        slant=slant,
        end_x_m=end_x,
        end_y_m=end_y,
        at_wall=at_wall,
        wall_holds=at_wall & (end_x * run_x + end_y * run_y < 0),
        crosses=drop[..., None] >= level_drops_m - 1e-9,
    )


def pressed_in(found: Trace, *, seat_x_m: Array, seat_y_m: Array, run_x: Array, run_y: Array, depth_m: float) -> Trace:
    """The same stems stopped a little under their seats, as pins stop them.

    Args:
        found: followed to floor or wall.
        seat_x_m, seat_y_m, run_x, run_y: as for `trace`.
        depth_m: how far pins let a stem in, vertically, m, > 0.
    Source: geometry.
    """
    drop = np.minimum(found.drop_m, depth_m)
    stopped = found.at_wall & (found.drop_m <= depth_m)
    return replace(
        found,
        embedded_m=drop * found.slant,
        drop_m=drop,
        end_x_m=seat_x_m - run_x * drop,
        end_y_m=seat_y_m - run_y * drop,
        at_wall=stopped,
        wall_holds=found.wall_holds & stopped,
    )


def cut_short(
    found: Trace,
    drop_m: Array | float,
    seat_x_m: Array,
    seat_y_m: Array,
    run_x: Array,
    run_y: Array,
    level_drops_m: Array,
) -> tuple[Trace, Flags]:
    """The same stems cut off a given depth under their seats, and which of them that leaves short of floor and wall.

    Args:
        found: followed to floor or wall. drop_m: vertically, m, one for all or a row each. level_drops_m: of each
        level; those that a stem still crosses count.
    Source: geometry.
    """
    drop = np.minimum(found.drop_m, np.maximum(drop_m, 1e-3))
    short = found.drop_m > drop + 1e-9
    cut = replace(
        found,
        embedded_m=drop * found.slant,
        drop_m=drop,
        end_x_m=seat_x_m - run_x * drop,
        end_y_m=seat_y_m - run_y * drop,
        at_wall=found.at_wall & ~short,
        wall_holds=found.wall_holds & ~short,
        crosses=drop[..., None] >= level_drops_m - 1e-9,
    )
    return cut, short


def floor_friction_needed(lean_rad: Array, foot_ratio: Array) -> Array:
    """Friction a leaning stem's foot needs to stay where it stands on the floor.

    k·sin θ·cos θ/(1 − k·sin² θ), with k the distance from the foot to the centre of mass over the distance
    from the foot to the lowest netting level, both along the stem.

    Args:
        lean_rad: lean from the vertical, 0 to π/2.
        foot_ratio: k, > 0.
    Returns: the friction needed; infinite where k·sin² θ ≥ 1, when no friction holds it.
    Source: moments and forces on a rigid stem with a smooth netting contact (worked from statics).
    """
    sine, cosine = np.sin(lean_rad), np.cos(lean_rad)
    left = 1.0 - foot_ratio * sine * sine
    needed = foot_ratio * sine * cosine / np.where(left > 0, left, 1.0)
    return np.where(left > 0, needed, np.inf)


def farthest_support_m(found: Trace, *, level_drops_m: Array, floor_holds: Flags) -> Array:
    """Distance along the stem from its seat to its farthest support, metres; 0 where it has no second one."""
    lowest_wire = np.where(found.crosses, level_drops_m, 0.0).max(axis=-1)
    at_foot = found.wall_holds | (~found.at_wall & floor_holds)
    return np.where(at_foot, found.embedded_m, lowest_wire * found.slant)
