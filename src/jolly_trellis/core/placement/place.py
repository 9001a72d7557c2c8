"""The placer: gives each stem a seat, a direction, a length and a cut end. The same recipe always lands alike."""

from dataclasses import dataclass, fields, replace
from typing import Any

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.geometry import GOLDEN_ANGLE_RAD, Array, Flags, half_ellipsoid_surface_m2
from jolly_trellis.core.materials.vessels import Vessel, floor_friction
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.placement.aim import aim_tips
from jolly_trellis.core.placement.choosing import (
    Indices,
    nearest_cells,
    nearest_seat,
    room_left,
    seat_cost,
    take_seats,
)
from jolly_trellis.core.placement.form import SEVERAL_POINTS, growing_points
from jolly_trellis.core.placement.form_table import FORM_RULES
from jolly_trellis.core.placement.seats import seat_centres_m, under_tape
from jolly_trellis.core.placement.trace import (
    Trace,
    bore_of,
    cut_short,
    floor_friction_needed,
    pressed_in,
    trace,
)
from jolly_trellis.core.placement.turning import droop_m, limit_droop, pass_the_rim, reach_down
from jolly_trellis.core.plan.piece import Arrangement, Envelope
from jolly_trellis.core.plan.recipe import HandPlaced
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.stems.stem_set import StemSet

PIN_DEPTH = rule("Depth a stem is pressed onto pins", "length", 0.012, COMMON_PRACTICE)
_FINE = 48


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Placement:
    """Placed stems, one row each, metres in the vessel's frame (z from its underside).

    `seat_height_m` is the seats' height above the inside floor. `seat_cell` is the seat taken; `over_capacity`
    tells a stem whose seat was already full; `floor_holds` one whose foot stays on the floor; `hangs` one that ends
    short of floor and wall, cut to the water or sold no longer; `gripped` one whose foot is on pins; `on_rim` one that
    leans on the rim; `held` one a hand has placed. `wanted_m` is how long each would be cut if it were sold so long.
    `cells_m` are all seats; `room` is how many more stems of the recipe's mean thickness find one. `rod_m` is the rod
    of the spike cup that a row stands in, 0 for none.
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
    hangs: Flags
    wanted_m: Array
    gripped: Flags
    on_rim: Flags
    over_capacity: Flags
    held: Flags
    cells_m: Array
    cell_aperture_m: float
    rigid: bool
    room: int
    rod_m: Array

    @property
    def takes(self) -> int:
        """Stems that find a seat: those that did, and as many more as there is room for."""
        return int(self.stems.stems_in_row[~self.over_capacity].sum()) + self.room

    @property
    def cut_length_m(self) -> Array:
        """Length of each stem as cut, metres: to its foot, or to the rod of its cup."""
        return self.visible_m + self.found.embedded_m - self.rod_m

    @property
    def centre_from_foot_m(self) -> Array:
        """Distance from the foot, of the stem or of its cup's rod, to the stem's centre of mass, metres."""
        return self.stems.centre_from_foot_m(self.cut_length_m) + self.rod_m

    @property
    def end_height_m(self) -> Array:
        """Height of each cut end above the inside floor, metres."""
        return self.seat_height_m - self.found.drop_m


@dataclass(frozen=True, slots=True, kw_only=True)
class Layout:
    """How a piece wants its stems laid out, beside the envelope: colour, hands, and one growing point or several.

    `feet_under_m` is the height over the inside floor that cut ends must reach down to; `water_feet_m` the one that
    stems cut to the water end at, which all are with `to_water`, unless their line says otherwise. Stems grow from
    `points` places, None as the form has it. `kept_m` are seats of an earlier deal.
    """

    arrangement: Arrangement = "even"
    hand_placed: tuple[HandPlaced, ...] = ()
    several_points: bool = False
    feet_under_m: float = 0.0
    water_feet_m: float = 0.0
    to_water: bool = False
    points: int | None = None
    kept_m: Array | None = None


def place(
    stems: StemSet,
    *,
    vessel: Vessel,
    envelope: Envelope,
    mechanic: SizedMechanic,
    tape_width_m: float,
    layout: Layout,
) -> Placement:
    """Place every stem of a recipe; what was placed just so before is remembered. Arguments as for `_place`."""
    if not _to_water(stems, layout).any():
        layout = replace(layout, water_feet_m=0.0)  # where the water stands is nothing to them
    parts = tuple(getattr(layout, each.name) for each in fields(layout))
    return _place(stems, vessel, envelope, mechanic, tape_width_m, parts)


@remembered
def _place(
    stems: StemSet,
    vessel: Vessel,
    envelope: Envelope,
    mechanic: SizedMechanic,
    tape_width_m: float,
    parts: tuple[Any, ...],
) -> Placement:
    """Place every stem of a recipe.

    Tips are spread over the form; each stem takes the free seat nearest the line from its tip to the growing
    point that gives it two supports; its cut end is where the floor or the wall stops it.

    Args:
        stems: the recipe laid out in order.
        vessel, envelope, mechanic: what it is placed in; the envelope's height is from the vessel's underside.
        tape_width_m: width of the mechanic's tape strips, m.
        parts: of the layout: colour arrangement, hand-placed stems, growing points, how deep feet reach.
    """
    layout = Layout(**dict(zip((each.name for each in fields(Layout)), parts, strict=True)))
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
    if layout.points is not None:
        points = growing_points(layout.points)

    def cost_of(rows: Indices) -> Array:
        if mechanic.own_cups:
            return nearest_seat(tips[rows], cells)
        return seat_cost(
            stems.diameter_m[rows],
            stems.reach_m[rows],
            tips[rows],
            cells,
            vessel,
            level_drops,
            seat_height,
            points,
            layout.feet_under_m,
        )

    kept = nearest_cells(layout.kept_m, cells, held, seating.pitch_m / 2)
    seat_cell, rank, over = take_seats(stems, cost_of, lost, seating.aperture_m, seating.each, kept)
    shift = np.where(rank > 0, seating.aperture_m / 4, 0.0)
    seat_x = cells[seat_cell, 0] + shift * np.cos(rank * GOLDEN_ANGLE_RAD)
    seat_y = cells[seat_cell, 1] + shift * np.sin(rank * GOLDEN_ANGLE_RAD)
    tips, lean, visible = limit_droop(stems, tips, seat_x, seat_y, seat_z, held)
    tips, lean, visible, on_rim = pass_the_rim(vessel, stems, tips, seat_x, seat_y, seat_z, lean, visible)
    free = ~held & stems.from_vessel
    if layout.feet_under_m > 0 and not mechanic.own_cups and not mechanic.netting_free:
        tips, lean = reach_down(
            vessel, stems, tips, seat_x, seat_y, seat_height, lean, visible, free, layout.feet_under_m
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
    if mechanic.grip is not None and mechanic.netting_free:
        found = pressed_in(found, seat_x_m=seat_x, seat_y_m=seat_y, run_x=run_x, run_y=run_y, depth_m=PIN_DEPTH.value)
        gripped = ~found.at_wall
    elif mechanic.grip is not None:
        gripped = ~found.at_wall & (np.hypot(found.end_x_m, found.end_y_m) <= mechanic.grip.radius_m)
    hangs = np.zeros(len(stems), dtype=np.bool_)
    if not mechanic.own_cups and mechanic.grip is None:
        to_water = _to_water(stems, layout)
        if to_water.any():
            most = np.where(to_water, seat_height - layout.water_feet_m, seat_height)
            found, hangs = cut_short(found, most, seat_x, seat_y, run_x, run_y, level_drops)
            hangs = hangs & to_water
    wanted = visible + found.embedded_m
    rods = stems.rods_m(wanted)
    if not mechanic.own_cups and mechanic.grip is None:
        reaches = (stems.longest_m + rods - visible) / found.slant
        found, unsold = cut_short(found, reaches, seat_x, seat_y, run_x, run_y, level_drops)
        hangs = hangs | unsold
    holds = ~hangs & _floor_holds(stems, found, lean, visible, level_drops, floor_friction(vessel), rods)
    return Placement(
        stems=stems,
        seat_x_m=seat_x,
        seat_y_m=seat_y,
        seat_height_m=seat_height,
        seat_cell=seat_cell,
        tip_m=tips,
        head_z_m=tips[:, 2] - droop_m(stems, visible, lean),
        lean_rad=lean,
        visible_m=visible,
        found=found,
        level_drops_m=level_drops,
        level_apertures_m=np.array([level.aperture_m for level in mechanic.levels]),
        floor_holds=holds | gripped,
        hangs=hangs,
        wanted_m=wanted,
        gripped=gripped,
        on_rim=on_rim,
        over_capacity=over,
        held=held,
        cells_m=cells,
        cell_aperture_m=mechanic.levels[0].aperture_m,
        rigid=mechanic.rigid,
        rod_m=rods,
        room=room_left(stems, seat_cell, lost, seating.aperture_m, seating.each, stems.mean_diameter_m),
    )


def _to_water(stems: StemSet, layout: Layout) -> Flags:
    """Rows that are cut to the water: as their line says, else as the piece does."""
    usual = "to the water" if layout.to_water else "on the floor"
    feet = [(stems.lines[at][0].feet or usual) == "to the water" for at in stems.line_index]
    return np.array(feet, dtype=np.bool_)


@remembered
def fullness(placement: Placement, envelope: Envelope, rim_m: float) -> float:
    """Flower heads' area over the envelope's surface: under 0.35 airy, to 0.9 usual, above 1.1 crushed (estimates)."""
    heads = float(np.sum(np.pi * placement.stems.flower * placement.stems.head_radius_m**2))
    return heads / surface_m2(envelope, rim_m)


def surface_m2(envelope: Envelope, rim_m: float) -> float:
    """The surface of the size that is wanted over a rim: half an ellipsoid, m²."""
    above = max(envelope.height_m - rim_m, 0.01)
    return half_ellipsoid_surface_m2(envelope.width_m / 2, envelope.depth_m / 2, above)


@remembered
def colliding_pairs(placement: Placement) -> int:
    """Pairs of heads whose centres are nearer than 60 % of their two radii together; foliage gives way."""
    heads = placement.tip_m.copy()
    heads[:, 2] = placement.head_z_m
    apart = np.linalg.norm(heads[:, None] - heads[None], axis=2)
    radius = placement.stems.head_radius_m * placement.stems.flower
    reach = 0.6 * (radius[:, None] + radius[None]) * (radius[:, None] * radius[None] > 0)
    return int(np.triu(apart < reach, k=1).sum())


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
    stems: StemSet, found: Trace, lean: Array, visible: Array, level_drops: Array, friction: float, rods: Array
) -> Flags:
    """Which feet stay where they stand on the floor."""
    cut = visible + found.embedded_m - rods
    lowest_wire = np.where(found.crosses, level_drops, 0.0).max(axis=-1)
    to_wire = np.maximum(found.drop_m - lowest_wire, 1e-4) * found.slant
    needed = floor_friction_needed(lean, (stems.centre_from_foot_m(cut) + rods) / to_wire)
    return ~found.at_wall & (needed <= friction)
