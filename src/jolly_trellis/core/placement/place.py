"""The placer: gives each stem a seat, a direction, a length and a cut end. The same recipe always lands alike."""

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from jolly_trellis.core import netting as nets
from jolly_trellis.core.geometry import GOLDEN_ANGLE_RAD, Array, Flags, half_ellipsoid_surface_m2, plan_share
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.piece import Envelope
from jolly_trellis.core.placement import dome
from jolly_trellis.core.placement.seats import cell_centres_m, under_tape
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
GROWING_POINT_SHARE = constant("Depth of the growing point under the rim, share of inside depth", "ratio", 1.0)
CROWDED_CELL = 0.3
UPRIGHT_SLOPE = 0.05
FLATTEST_SLOPE = 3.7
SHALLOW_END = 3.0
_COARSE, _FINE = 12, 48


@dataclass(frozen=True, slots=True, kw_only=True)
class Placement:
    """Placed stems, one row each, metres in the vessel's frame (z from the surface it stands on).

    `seat_cell` is the netting cell of the seat; `over_capacity` tells a stem whose cell was already full;
    `floor_holds` one whose foot stays on the floor; `cells_m` are the cell centres of the mouth.
    """

    stems: StemSet
    seat_x_m: Array
    seat_y_m: Array
    seat_cell: Indices
    tip_m: Array
    head_z_m: Array
    lean_rad: Array
    visible_m: Array
    found: Trace
    level_drops_m: Array
    floor_holds: Flags
    over_capacity: Flags
    cells_m: Array
    cell_aperture_m: float

    @property
    def cut_length_m(self) -> Array:
        """Length of each stem as cut, metres."""
        return self.visible_m + self.found.embedded_m


def place(
    stems: StemSet,
    *,
    vessel: Vessel,
    envelope: Envelope,
    mechanic: SizedMechanic,
    pitch_m: float,
    tape_width_m: float,
) -> Placement:
    """Place every stem of a recipe.

    Tips are spread over the form; each stem takes the free cell nearest the line from its tip to the growing
    point that gives it two supports; its cut end is where the floor or the wall stops it.

    Args:
        stems: the recipe laid out in order.
        vessel, envelope, mechanic: what it is placed in.
        pitch_m: cell pitch of the netting, m.
        tape_width_m: width of the mechanic's tape strips, m.
    """
    cells = cell_centres_m(vessel, pitch_m)
    lost = under_tape(cells, strips=mechanic.tape_strips, tape_width_m=tape_width_m)
    aperture = mechanic.levels[0].aperture_m
    level_drops = np.array([vessel.inside_depth_m - level.height_m for level in mechanic.levels])
    tips = _tips(stems, envelope, vessel.rim_m)
    cost = _seat_cost(stems, tips, cells, vessel, level_drops)
    seat_cell, rank, over = _take_seats(stems, cost, lost, aperture)
    shift = np.where(rank > 0, aperture / 4, 0.0)
    seat_x = cells[seat_cell, 0] + shift * np.cos(rank * GOLDEN_ANGLE_RAD)
    seat_y = cells[seat_cell, 1] + shift * np.sin(rank * GOLDEN_ANGLE_RAD)
    tips, lean, visible = _limit_droop(stems, tips, seat_x, seat_y, vessel.rim_m)
    rise = np.maximum(tips[:, 2] - vessel.rim_m, 1e-3)
    found = trace(
        bore_of(vessel, _FINE),
        seat_x_m=seat_x,
        seat_y_m=seat_y,
        run_x=(tips[:, 0] - seat_x) / rise,
        run_y=(tips[:, 1] - seat_y) / rise,
        stem_radius_m=stems.diameter_m / 2,
        level_drops_m=level_drops,
    )
    droop = _droop(stems, visible, lean)
    return Placement(
        stems=stems,
        seat_x_m=seat_x,
        seat_y_m=seat_y,
        seat_cell=seat_cell,
        tip_m=tips,
        head_z_m=tips[:, 2] - droop,
        lean_rad=lean,
        visible_m=visible,
        found=found,
        level_drops_m=level_drops,
        floor_holds=_floor_holds(stems, found, lean, visible, level_drops, floor_friction(vessel)),
        over_capacity=over,
        cells_m=cells,
        cell_aperture_m=aperture,
    )


def fullness(placement: Placement, envelope: Envelope, rim_m: float) -> float:
    """Flower heads' area over the envelope's surface: under 0.35 airy, to 0.9 usual, above 1.1 crushed (estimates)."""
    heads = float(np.sum(np.pi * placement.stems.flower * placement.stems.head_radius_m**2))
    surface = half_ellipsoid_surface_m2(envelope.width_m / 2, envelope.depth_m / 2, envelope.height_m - rim_m)
    return heads / surface


def colliding_pairs(placement: Placement) -> int:
    """Pairs of heads whose centres are nearer than 60 % of their two radii together; foliage gives way."""
    heads = placement.tip_m.copy()
    heads[:, 2] = placement.head_z_m
    apart = np.linalg.norm(heads[:, None] - heads[None], axis=2)
    radius = placement.stems.head_radius_m * placement.stems.flower
    reach = 0.6 * (radius[:, None] + radius[None]) * (radius[:, None] * radius[None] > 0)
    return int(np.triu(apart < reach, k=1).sum())


def _tips(stems: StemSet, envelope: Envelope, rim_m: float) -> Array:
    """Tips of all rows: each line spread evenly by itself, then moved to the nearest free even place."""
    wanted, reach = [], []
    for place_, (line, _, _, rows) in enumerate(stems.lines):
        wanted.append(dome.directions(line.role, rows, turn_rad=place_ * 1.1))
        low, high = dome.REACH[line.role]
        reach.append(low + (high - low) * ((np.arange(rows) * 0.618034) % 1.0))
    if not wanted:
        return np.zeros((0, 3))
    aimed = np.concatenate(wanted)
    free = dome.directions("filler", len(aimed), turn_rad=0.0)
    nearness = aimed @ free.T
    for row in range(len(aimed)):
        best = int(nearness[row].argmax())
        nearness[:, best] = -2.0
        if stems.role_of(row) not in ("margin", "base"):
            aimed[row] = free[best]
    return dome.tips_m(
        envelope,
        rim_m=rim_m,
        directions_=aimed,
        reach=np.concatenate(reach),
        head_radius_m=stems.head_radius_m,
    )


def _seat_cost(stems: StemSet, tips: Array, cells: Array, vessel: Vessel, level_drops: Array) -> Array:
    """Cost of every cell for every stem, shape (stems, cells): far from its line, flat, or badly held."""
    rise = np.maximum(tips[:, 2] - vessel.rim_m, 1e-3)[:, None]
    run_x, run_y = (tips[:, :1] - cells[:, 0]) / rise, (tips[:, 1:2] - cells[:, 1]) / rise
    slope = np.sqrt(run_x * run_x + run_y * run_y)
    growing = GROWING_POINT_SHARE.value * vessel.inside_depth_m
    natural = tips[:, :2] * (growing / (rise + growing))
    mouth = min(vessel.mouth_width_m, vessel.mouth_depth_m) / 2
    out = np.linalg.norm(natural, axis=1)
    natural = natural * np.minimum(1.0, 0.85 * mouth / np.maximum(out, 1e-9))[:, None]
    off_x, off_y = natural[:, :1] - cells[:, 0], natural[:, 1:2] - cells[:, 1]
    badly_held = ~_crosses_second_wire(vessel, cells, run_x, run_y, slope, stems.diameter_m, level_drops)
    held, shallow = _held_otherwise(badly_held, cells, run_x, run_y, slope, stems.diameter_m, vessel, level_drops)
    too_flat = np.maximum(slope - FLATTEST_SLOPE, 0.0)
    badly = 100.0 * (badly_held & ~held) + 10.0 * too_flat + SHALLOW_END * shallow
    return (off_x * off_x + off_y * off_y) / mouth**2 + badly


def _crosses_second_wire(
    vessel: Vessel,
    cells: Array,
    run_x: Array,
    run_y: Array,
    slope: Array,
    diameter: Array,
    level_drops: Array,
) -> Flags:
    """Which stems, from which seats, still are inside the vessel at the second level, far enough down."""
    if len(level_drops) < 2:
        return np.zeros(slope.shape, dtype=np.bool_)
    drop = float(level_drops[1])
    width, depth = inside_size_m(vessel, vessel.inside_depth_m - drop)
    share = plan_share(
        vessel.plan_shape,
        cells[:, 0] - run_x * drop,
        cells[:, 1] - run_y * drop,
        width / 2 - diameter[:, None] / 2,
        depth / 2 - diameter[:, None] / 2,
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
) -> tuple[Flags, Array]:
    """Of the pairs asked for, those that the wall, the floor or a farther level holds.

    Also how shallow their cut ends stay: 0 at the floor, 1 at the rim, where water cannot be kept over them.
    """
    held, shallow = np.zeros(asked.shape, dtype=np.bool_), np.zeros(asked.shape)
    row, cell = np.nonzero(asked)
    if len(row) == 0:
        return held, shallow
    found = trace(
        bore_of(vessel, _COARSE),
        seat_x_m=cells[cell, 0],
        seat_y_m=cells[cell, 1],
        run_x=run_x[row, cell],
        run_y=run_y[row, cell],
        stem_radius_m=diameter[row] / 2,
        level_drops_m=level_drops,
    )
    far = farthest_support_m(found, level_drops_m=level_drops, floor_holds=slope[row, cell] < UPRIGHT_SLOPE)
    held[row, cell] = far >= SUPPORT_SPACING.value
    shallow[row, cell] = 1.0 - found.drop_m / vessel.inside_depth_m
    return held, shallow


def _take_seats(stems: StemSet, cost: Array, lost: Array, aperture: float) -> tuple[Indices, Indices, Flags]:
    """Give the rows their cells in order: the cheapest that still has room, else the least crowded."""
    share = np.array([1.0 / nets.cell_capacity(aperture, d) for d in stems.diameter_m.tolist()])
    used = lost.copy()
    held = np.zeros(len(used), dtype=np.intp)
    cell, rank = np.zeros(len(stems), dtype=np.intp), np.zeros(len(stems), dtype=np.intp)
    over = np.zeros(len(stems), dtype=np.bool_)
    for row in range(len(stems)):
        room = used + share[row] <= 1.0 + 1e-9
        if room.any():
            best = int(np.where(room, cost[row] + CROWDED_CELL * used, np.inf).argmin())
        else:
            over[row] = True
            best = int((cost[row] + 10 * used).argmin())
        cell[row], rank[row] = best, held[best]
        used[best] += share[row]
        held[best] += 1
    return cell, rank, over


def _droop(stems: StemSet, visible: Array, lean: Array) -> Array:
    """`stems.droop_m` for every row."""
    return stems.head_mass_kg * GRAVITY_M_S2 * visible**3 * np.sin(lean) / (3 * stems.stiffness_n_m2)


def _limit_droop(
    stems: StemSet, tips: Array, seat_x: Array, seat_y: Array, rim_m: float
) -> tuple[Array, Array, Array]:
    """Turn up stems too soft for their lean; returns tips, lean and visible length."""
    dx, dy, dz = tips[:, 0] - seat_x, tips[:, 1] - seat_y, np.maximum(tips[:, 2] - rim_m, 1e-3)
    flat = np.sqrt(dx * dx + dy * dy)
    visible = np.sqrt(flat * flat + dz * dz)
    lean = np.arctan2(flat, dz)
    sag_flat = _droop(stems, visible, np.full(len(stems), math.pi / 2))
    most_sine = np.minimum(1.0, DROOP_ALLOWED.value * visible / np.maximum(sag_flat, 1e-9))
    lean = np.minimum(lean, np.arcsin(most_sine))
    scale = visible * np.sin(lean) / np.maximum(flat, 1e-9)
    turned = np.stack([seat_x + dx * scale, seat_y + dy * scale, rim_m + visible * np.cos(lean)], axis=1)
    return turned, lean, visible


def _floor_holds(
    stems: StemSet, found: Trace, lean: Array, visible: Array, level_drops: Array, friction: float
) -> Flags:
    """Which feet stay where they stand on the floor."""
    cut = visible + found.embedded_m
    lowest_wire = np.where(found.crosses, level_drops, 0.0).max(axis=-1)
    to_wire = np.maximum(found.drop_m - lowest_wire, 1e-4) * found.slant
    needed = floor_friction_needed(lean, stems.centre_from_foot_m(cut) / to_wire)
    return ~found.at_wall & (needed <= friction)
