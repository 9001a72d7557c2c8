"""The placer: gives each stem a seat, a direction, a length and a cut end. The same recipe always lands alike."""

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from jolly_trellis.core import netting as nets
from jolly_trellis.core.geometry import GOLDEN_ANGLE_RAD, Array, Flags, half_ellipsoid_surface_m2, plan_share
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.piece import Arrangement, Envelope, HandPlaced
from jolly_trellis.core.placement.aim import FORM_RULES, aim_tips
from jolly_trellis.core.placement.form import SEVERAL_POINTS
from jolly_trellis.core.placement.seats import seat_centres_m, under_tape
from jolly_trellis.core.placement.stem_set import StemSet
from jolly_trellis.core.placement.trace import (
    SUPPORT_SPACING,
    Trace,
    bore_of,
    farthest_support_m,
    floor_friction_needed,
    trace,
)
from jolly_trellis.core.provenance import constant
from jolly_trellis.core.stems import GRAVITY_M_S2
from jolly_trellis.core.vessels import Vessel, floor_friction, inside_size_m

Indices = npt.NDArray[np.intp]

DROOP_ALLOWED = constant("Droop a leaning stem may have, share of its free length", "ratio", 0.2)
GROWING_POINT_SHARE = constant("Depth of the growing point under the seats, share of their height", "ratio", 1.0)
CROWDED_CELL = 0.3
UPRIGHT_SLOPE = 0.05
FLATTEST_SLOPE = 3.7
SHALLOW_END = 3.0
DRY_END = 30.0
_COARSE, _FINE = 12, 48
_TURNS = 7


@dataclass(frozen=True, slots=True, kw_only=True)
class Placement:
    """Placed stems, one row each, metres in the vessel's frame (z from its underside).

    `seat_height_m` is the seats' height above the inside floor. `seat_cell` is the seat taken; `over_capacity`
    tells a stem whose seat was already full; `floor_holds` one whose foot stays on the floor; `gripped` one whose
    foot is on pins; `on_rim` one that leans on the rim; `held` one a hand has placed. `cells_m` are all seats.
    """

    stems: StemSet
    seat_x_m: Array
    seat_y_m: Array
    seat_height_m: float
    seat_cell: Indices
    tip_m: Array
    head_z_m: Array
    lean_rad: Array
    visible_m: Array
    found: Trace
    level_drops_m: Array
    level_apertures_m: Array
    floor_holds: Flags
    gripped: Flags
    on_rim: Flags
    over_capacity: Flags
    held: Flags
    cells_m: Array
    cell_aperture_m: float
    rigid: bool

    @property
    def cut_length_m(self) -> Array:
        """Length of each stem as cut, metres."""
        return self.visible_m + self.found.embedded_m

    @property
    def end_height_m(self) -> Array:
        """Height of each cut end above the inside floor, metres."""
        return self.seat_height_m - self.found.drop_m


@dataclass(frozen=True, slots=True, kw_only=True)
class Layout:
    """How a piece wants its stems laid out, beside the envelope: colour, hands, and one growing point or several.

    `water_over_m` is the height over the inside floor under which a cut end is covered with water.
    """

    arrangement: Arrangement = "even"
    hand_placed: tuple[HandPlaced, ...] = ()
    several_points: bool = False
    water_over_m: float = 0.0


def place(
    stems: StemSet,
    *,
    vessel: Vessel,
    envelope: Envelope,
    mechanic: SizedMechanic,
    tape_width_m: float,
    layout: Layout,
) -> Placement:
    """Place every stem of a recipe.

    Tips are spread over the form; each stem takes the free seat nearest the line from its tip to the growing
    point that gives it two supports; its cut end is where the floor or the wall stops it.

    Args:
        stems: the recipe laid out in order.
        vessel, envelope, mechanic: what it is placed in; the envelope's height is from the vessel's underside.
        tape_width_m: width of the mechanic's tape strips, m.
        layout: colour arrangement, hand-placed stems, growing points.
    """
    seating = mechanic.seating
    seat_height, rim = seating.height_m, vessel.rim_m
    seat_z = vessel.base_m + seat_height
    cells = seat_centres_m(vessel, seating, mechanic.own_cups)
    strips = mechanic.tape_strips if seating.pattern == "hexagonal" else 0
    lost = under_tape(cells, strips=strips, tape_width_m=tape_width_m)
    level_drops = np.array([max(seat_height - level.height_m, 0.0) for level in mechanic.levels])
    tips, held = aim_tips(
        stems,
        envelope,
        from_m=rim,
        mouth_m=(vessel.mouth_width_m, vessel.mouth_depth_m),
        arrangement=layout.arrangement,
        hand_placed=layout.hand_placed,
    )
    points = SEVERAL_POINTS if layout.several_points else FORM_RULES[envelope.form].growing_points
    if mechanic.own_cups:
        cost = _nearest_seat(tips, cells)
    else:
        cost = _seat_cost(stems, tips, cells, vessel, level_drops, seat_height, points, layout.water_over_m)
    seat_cell, rank, over = _take_seats(stems, cost, lost, seating.aperture_m, seating.each)
    shift = np.where(rank > 0, seating.aperture_m / 4, 0.0)
    seat_x = cells[seat_cell, 0] + shift * np.cos(rank * GOLDEN_ANGLE_RAD)
    seat_y = cells[seat_cell, 1] + shift * np.sin(rank * GOLDEN_ANGLE_RAD)
    tips, lean, visible = _limit_droop(stems, tips, seat_x, seat_y, seat_z, held)
    tips, lean, visible, on_rim = _pass_the_rim(vessel, stems, tips, seat_x, seat_y, seat_z, lean, visible)
    free = ~held & stems.from_vessel
    if layout.water_over_m > 0 and not mechanic.own_cups and not mechanic.netting_free:
        tips, lean = _reach_water(
            vessel, stems, tips, seat_x, seat_y, seat_height, lean, visible, free, layout.water_over_m
        )
    rise = np.maximum(tips[:, 2] - seat_z, 1e-3)
    run_x, run_y = (tips[:, 0] - seat_x) / rise, (tips[:, 1] - seat_y) / rise
    if mechanic.own_cups:
        found = _in_cups(seat_x, seat_y, run_x, run_y, mechanic.layer_gap_m, len(level_drops))
    else:
        found = trace(
            bore_of(vessel, _FINE, seat_height),
            seat_x_m=seat_x,
            seat_y_m=seat_y,
            run_x=run_x,
            run_y=run_y,
            stem_radius_m=stems.diameter_m / 2,
            level_drops_m=level_drops,
        )
    gripped = np.zeros(len(stems), dtype=np.bool_)
    if mechanic.grip is not None:
        gripped = ~found.at_wall & (np.hypot(found.end_x_m, found.end_y_m) <= mechanic.grip.radius_m)
    holds = _floor_holds(stems, found, lean, visible, level_drops, floor_friction(vessel))
    return Placement(
        stems=stems,
        seat_x_m=seat_x,
        seat_y_m=seat_y,
        seat_height_m=seat_height,
        seat_cell=seat_cell,
        tip_m=tips,
        head_z_m=tips[:, 2] - _droop(stems, visible, lean),
        lean_rad=lean,
        visible_m=visible,
        found=found,
        level_drops_m=level_drops,
        level_apertures_m=np.array([level.aperture_m for level in mechanic.levels]),
        floor_holds=holds | gripped,
        gripped=gripped,
        on_rim=on_rim,
        over_capacity=over,
        held=held,
        cells_m=cells,
        cell_aperture_m=mechanic.levels[0].aperture_m,
        rigid=mechanic.rigid,
    )


def fullness(placement: Placement, envelope: Envelope, rim_m: float) -> float:
    """Flower heads' area over the envelope's surface: under 0.35 airy, to 0.9 usual, above 1.1 crushed (estimates)."""
    heads = float(np.sum(np.pi * placement.stems.flower * placement.stems.head_radius_m**2))
    above = max(envelope.height_m - rim_m, 0.01)
    surface = half_ellipsoid_surface_m2(envelope.width_m / 2, envelope.depth_m / 2, above)
    return heads / surface


def colliding_pairs(placement: Placement) -> int:
    """Pairs of heads whose centres are nearer than 60 % of their two radii together; foliage gives way."""
    heads = placement.tip_m.copy()
    heads[:, 2] = placement.head_z_m
    apart = np.linalg.norm(heads[:, None] - heads[None], axis=2)
    radius = placement.stems.head_radius_m * placement.stems.flower
    reach = 0.6 * (radius[:, None] + radius[None]) * (radius[:, None] * radius[None] > 0)
    return int(np.triu(apart < reach, k=1).sum())


def _nearest_seat(tips: Array, cells: Array) -> Array:
    """Cost of every seat for every stem where each is on its own: the distance seen from above."""
    return np.asarray(((tips[:, None, :2] * 0.5 - cells[None]) ** 2).sum(axis=2))


def _seat_cost(
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
        bore_of(vessel, _COARSE, seat_height),
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


def _take_seats(
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


def _droop(stems: StemSet, visible: Array, lean: Array) -> Array:
    """`stems.droop_m` for every row."""
    return stems.head_mass_kg * GRAVITY_M_S2 * visible**3 * np.sin(lean) / (3 * stems.stiffness_n_m2)


def _limit_droop(
    stems: StemSet, tips: Array, seat_x: Array, seat_y: Array, seat_z: float, held: Flags
) -> tuple[Array, Array, Array]:
    """Turn up stems too soft for their lean, but not those a hand has placed; tips, lean and visible length."""
    dx, dy, dz = tips[:, 0] - seat_x, tips[:, 1] - seat_y, np.maximum(tips[:, 2] - seat_z, 1e-3)
    flat = np.sqrt(dx * dx + dy * dy)
    visible = np.sqrt(flat * flat + dz * dz)
    lean = np.arctan2(flat, dz)
    sag_flat = _droop(stems, visible, np.full(len(stems), math.pi / 2))
    most_sine = np.minimum(1.0, DROOP_ALLOWED.value * visible / np.maximum(sag_flat, 1e-9))
    lean = np.where(held, lean, np.minimum(lean, np.arcsin(most_sine)))
    scale = visible * np.sin(lean) / np.maximum(flat, 1e-9)
    turned = np.stack([seat_x + dx * scale, seat_y + dy * scale, seat_z + visible * np.cos(lean)], axis=1)
    return turned, lean, visible


def _pass_the_rim(
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


def _reach_water(
    vessel: Vessel,
    stems: StemSet,
    tips: Array,
    seat_x: Array,
    seat_y: Array,
    seat_height: float,
    lean: Array,
    visible: Array,
    free: Flags,
    water_over_m: float,
) -> tuple[Array, Array]:
    """Turn up stems so flat that the wall stops their cut end above the water, as a hand would; tips and lean."""
    seat_z = vessel.base_m + seat_height
    bore = bore_of(vessel, _COARSE, seat_height)
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
        return np.asarray(seat_height - found.drop_m > water_over_m)

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


def _in_cups(seat_x: Array, seat_y: Array, run_x: Array, run_y: Array, deep: float, levels: int) -> Trace:
    """Stems in cups of their own: down to the cup's floor, held by its lip and its wall."""
    slant = np.sqrt(1.0 + run_x * run_x + run_y * run_y)
    count = len(seat_x)
    return Trace(
        embedded_m=np.full(count, deep),
        drop_m=np.full(count, deep),
        slant=slant,
        end_x_m=seat_x,
        end_y_m=seat_y,
        at_wall=np.zeros(count, dtype=np.bool_),
        wall_holds=np.ones(count, dtype=np.bool_),
        crosses=np.ones((count, levels), dtype=np.bool_),
    )


def _floor_holds(
    stems: StemSet, found: Trace, lean: Array, visible: Array, level_drops: Array, friction: float
) -> Flags:
    """Which feet stay where they stand on the floor."""
    cut = visible + found.embedded_m
    lowest_wire = np.where(found.crosses, level_drops, 0.0).max(axis=-1)
    to_wire = np.maximum(found.drop_m - lowest_wire, 1e-4) * found.slant
    needed = floor_friction_needed(lean, stems.centre_from_foot_m(cut) / to_wire)
    return ~found.at_wall & (needed <= friction)
