"""The placer of what is bound: heads on its dome, stems straight through one binding point into the handle."""

import numpy as np

from jolly_trellis.core.geometry import GOLDEN_ANGLE_RAD, Array
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.mechanics import sizing
from jolly_trellis.core.mechanics.bouquet import ARMATURE_SHARE, handle_of
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.mechanics.worn import LEGS, WIRED_STEM
from jolly_trellis.core.placement.aim import aim_tips
from jolly_trellis.core.placement.choosing import Indices
from jolly_trellis.core.placement.place import Placement
from jolly_trellis.core.placement.seats import seat_centres_m
from jolly_trellis.core.placement.trace import Trace
from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.stems.stem_set import StemSet

WALL_ROOM_M = 0.004


def bind(piece: Bound, stems: StemSet, netting: Netting | None) -> tuple[SizedMechanic, Placement]:
    """What is bound, put together: what it is bound on, and where its stems go.

    Heads are spread over the dome; each stem runs straight from its head to its place in the handle and on, crossing
    to the other side in a spiral, straight down beside the others on an armature.

    Raises:
        InvalidMeasure: the flowers end too low, or the mechanic is one of another kind of piece.
    """
    handful = sizing.handful_of(piece, stems, netting)
    shape, mechanic = handful.shape, sizing.bind(handful)
    vase, envelope = piece.vessel, piece.envelope
    tips, held = aim_tips(
        stems,
        envelope,
        from_m=shape.under_m,
        mouth_m=(ARMATURE_SHARE.value * envelope.width_m, ARMATURE_SHARE.value * envelope.depth_m),
        arrangement=piece.arrangement,
        hand_placed=piece.hand_placed,
    )
    if mechanic.worn == "head":
        tips = _on_a_ring(len(stems), envelope.width_m / 2, shape.under_m)
    crossing = mechanic.crosses
    seat = tips[:, :2].copy() if mechanic.worn == "head" else _in_handle(tips, handle_of(stems, crossing) / 2)
    rise = np.maximum(tips[:, 2] - shape.binding_m, 1e-3)
    run = (tips[:, :2] - seat) / rise[:, None]
    slant = np.sqrt(1 + (run**2).sum(axis=1))
    end = seat - run * shape.hand_m if crossing else seat
    if crossing:
        most = max(min(vase.profile[0].width_m, vase.profile[0].depth_m) / 2 - WALL_ROOM_M, 0.01)
        end = end * np.minimum(1.0, most / np.maximum(np.linalg.norm(end, axis=1), 1e-9))[:, None]
    drop = np.full(len(stems), 0.0 if mechanic.worn == "head" else shape.hand_m)
    seat_height = shape.binding_m - vase.base_m
    if mechanic.worn == "head":
        seat_height = shape.under_m - LEGS["crown"].value - vase.base_m
    cells = _cells(piece, mechanic)
    visible, embedded = rise * slant, drop * (slant if crossing else np.ones(len(stems)))
    if mechanic.worn:
        visible, embedded = np.full(len(stems), WIRED_STEM.value), np.zeros(len(stems))
    number = np.cumsum(stems.stems_in_row) if len(stems) else np.zeros(0)
    placement = Placement(
        stems=stems,
        seat_x_m=seat[:, 0],
        seat_y_m=seat[:, 1],
        seat_height_m=seat_height,
        seat_cell=_nearest(cells, tips * ARMATURE_SHARE.value),
        tip_m=tips,
        head_z_m=tips[:, 2].copy(),
        lean_rad=np.arctan(np.linalg.norm(run, axis=1)),
        visible_m=visible,
        found=Trace(
            embedded_m=embedded,
            drop_m=drop,
            slant=slant,
            end_x_m=end[:, 0],
            end_y_m=end[:, 1],
            at_wall=np.zeros(len(stems), dtype=np.bool_),
            wall_holds=np.zeros(len(stems), dtype=np.bool_),
            crosses=np.ones((len(stems), len(mechanic.levels)), dtype=np.bool_),
        ),
        level_drops_m=np.array([max(seat_height - level.height_m, 0.0) for level in mechanic.levels]),
        level_apertures_m=np.array([level.aperture_m for level in mechanic.levels]),
        floor_holds=np.ones(len(stems), dtype=np.bool_),
        gripped=np.zeros(len(stems), dtype=np.bool_),
        on_rim=np.zeros(len(stems), dtype=np.bool_),
        over_capacity=np.asarray(number > mechanic.capacity),
        held=held,
        cells_m=cells,
        cell_aperture_m=mechanic.levels[0].aperture_m,
        rigid=True,
        hangs=np.zeros(len(stems), dtype=np.bool_),
        wanted_m=visible + embedded,
        rod_m=np.zeros(len(stems)),
        room=max(mechanic.capacity - int(stems.stems_in_row.sum()), 0),
    )
    return mechanic, placement


def _on_a_ring(count: int, radius_m: float, height_m: float) -> Array:
    """Heads of a crown, evenly round its base wire, shape (n, 3), m."""
    turns = 2 * np.pi * np.arange(count) / max(count, 1)
    return np.stack([radius_m * np.cos(turns), radius_m * np.sin(turns), np.full(count, height_m)], axis=1)


def _in_handle(tips: Array, radius_m: float) -> Array:
    """Places of stems in the handle, shape (n, 2): evenly packed, each on the side its head is on."""
    count = len(tips)
    if count == 0:
        return np.zeros((0, 2))
    index = np.arange(count)
    places = (
        radius_m
        * 0.9
        * np.sqrt((index + 0.5) / count)[:, None]
        * np.stack([np.cos(index * GOLDEN_ANGLE_RAD), np.sin(index * GOLDEN_ANGLE_RAD)], axis=1)
    )
    outward = np.argsort(np.hypot(tips[:, 0], tips[:, 1]), kind="stable")
    chosen = np.zeros((count, 2))
    free = list(range(count))
    for row in outward.tolist():
        ring = free[: max(1, count // 6)]
        best = max(ring, key=lambda place: float(places[place] @ tips[row, :2]))
        free.remove(best)
        chosen[row] = places[best]
    return chosen


def _cells(piece: Bound, mechanic: SizedMechanic) -> Array:
    """Middles of the armature's cells seen from above, shape (cells, 2); one in the middle for a hand spiral."""
    if mechanic.seating.pattern == "cups":
        return np.zeros((1, 2))
    return seat_centres_m(piece.vessel, mechanic.seating, 0)


def _nearest(cells: Array, tips: Array) -> Indices:
    away = (tips[:, None, 0] - cells[None, :, 0]) ** 2 + (tips[:, None, 1] - cells[None, :, 1]) ** 2
    return np.asarray(away.argmin(axis=1), dtype=np.intp) if len(tips) else np.zeros(0, dtype=np.intp)
