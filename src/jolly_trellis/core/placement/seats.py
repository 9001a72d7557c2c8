"""The seats a mechanic offers in its vessel: cells, pins, openings or cups, less those under tape."""

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.geometry import GOLDEN_ANGLE_RAD, Array
from jolly_trellis.core.materials.netting import ROW_SHARE
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics.sized import Seating
from jolly_trellis.core.plan_shapes import PlanShape, plan_share

CUT_CELL_SHARE = rule("Outer part of the mouth where the rim cuts the cells", "ratio", 0.07)
STEM_ROOM = rule("Least room between a seat's middle and the wall", "length", 0.006)


def seat_centres_m(vessel: Vessel, seating: Seating, count: int) -> Array:
    """Middles of the seats a mechanic offers, shape (seats, 2), metres, one of them in the middle.

    Hexagonal rows run side to side, √3/2·pitch apart, each shifted by half a cell; a square grid has no shift; cups
    are spread evenly over the mouth, as many as asked. A region smaller than the mouth, as a frog's, bounds them.
    Cells within the last 7 % of the mouth, at least 6 mm, are cut through by the rim and offer no seat.

    Args:
        vessel: a checked vessel.
        seating: pattern, pitch and region.
        count: of cups; other patterns fill their region.
    """
    half_width = seating.half_width_m or vessel.mouth_width_m / 2
    half_depth = seating.half_depth_m or vessel.mouth_depth_m / 2
    if seating.pattern == "cups":
        return _spiral(count, half_width * 0.8, half_depth * 0.8)
    row_share = ROW_SHARE if seating.pattern == "hexagonal" else 1.0
    shift = 0.5 if seating.pattern == "hexagonal" else 0.0
    pitch = seating.pitch_m
    columns, rows = int(half_width / pitch) + 1, int(half_depth / (row_share * pitch)) + 1
    row, column = np.meshgrid(np.arange(-rows, rows + 1), np.arange(-columns, columns + 1), indexing="ij")
    x = np.asarray((column + (row % 2) * shift) * pitch, dtype=np.float64)
    y = np.asarray(row * row_share * pitch, dtype=np.float64)
    bounded = seating.half_width_m is not None
    inner = [np.asarray(each if bounded else each - _edge_m(each)) for each in (half_width, half_depth)]
    shape: PlanShape = "round" if bounded and seating.half_width_m == seating.half_depth_m else vessel.plan_shape
    keep = plan_share(shape, x, y, inner[0], inner[1]) <= 1.0
    centres = np.stack([x[keep], y[keep]], axis=1)
    return centres if len(centres) else np.zeros((1, 2))


def _spiral(count: int, half_width_m: float, half_depth_m: float) -> Array:
    """So many places spread evenly over an ellipse: equal areas, the golden angle between neighbours."""
    index = np.arange(max(count, 1))
    share = np.sqrt((index + 0.5) / len(index)) if len(index) > 1 else np.zeros(1)
    turn = index * GOLDEN_ANGLE_RAD
    return np.stack([half_width_m * share * np.cos(turn), half_depth_m * share * np.sin(turn)], axis=1)


def _edge_m(half_size_m: float) -> float:
    edge = max(CUT_CELL_SHARE.value * half_size_m, STEM_ROOM.value)
    return min(edge, half_size_m * 0.9)


def under_tape(centres_m: Array, *, strips: int, tape_width_m: float) -> Array:
    """Cells a tape strip covers, 1 or 0; strips cross the middle, evenly turned, the first side to side.

    A cell is lost where its centre lies under the strip.
    """
    lost = np.zeros(len(centres_m))
    for index in range(strips):
        turn = np.pi * index / strips
        away = np.abs(centres_m[:, 1] * np.cos(turn) - centres_m[:, 0] * np.sin(turn))
        lost = np.maximum(lost, (away <= tape_width_m / 2 + 1e-9).astype(np.float64))
    return lost
