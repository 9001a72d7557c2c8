"""The seats a mouth offers: the centres of its netting cells, less those under tape."""

import numpy as np

from jolly_trellis.core.geometry import Array, plan_share
from jolly_trellis.core.netting import ROW_SHARE
from jolly_trellis.core.provenance import constant
from jolly_trellis.core.vessels import Vessel

CUT_CELL_SHARE = constant("Outer part of the mouth where the rim cuts the cells", "ratio", 0.07)
STEM_ROOM = constant("Least room between a seat's middle and the wall", "length", 0.006)


def cell_centres_m(vessel: Vessel, pitch_m: float) -> Array:
    """Centres of the cells inside the mouth, one at the middle, shape (cells, 2), metres.

    Rows run side to side, `√3/2·pitch` apart, each shifted by half a cell (regular hexagonal net). Cells
    within the last 7 % of the mouth, at least 6 mm, are cut through by the rim and offer no seat.
    """
    half_width, half_depth = vessel.mouth_width_m / 2, vessel.mouth_depth_m / 2
    columns, rows = int(half_width / pitch_m) + 1, int(half_depth / (ROW_SHARE * pitch_m)) + 1
    row, column = np.meshgrid(np.arange(-rows, rows + 1), np.arange(-columns, columns + 1), indexing="ij")
    x = np.asarray((column + (row % 2) / 2) * pitch_m, dtype=np.float64)
    y = np.asarray(row * ROW_SHARE * pitch_m, dtype=np.float64)
    inner = [np.asarray(each - _edge_m(each)) for each in (half_width, half_depth)]
    keep = plan_share(vessel.plan_shape, x, y, inner[0], inner[1]) <= 1.0
    centres = np.stack([x[keep], y[keep]], axis=1)
    return centres if len(centres) else np.zeros((1, 2))


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
