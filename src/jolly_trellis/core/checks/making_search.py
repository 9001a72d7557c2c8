"""Seeking a making order: one that keeps the piece on its feet after every stem."""

from dataclasses import dataclass

import numpy as np

from jolly_trellis.core.checks.making_order import Order, Work, seat_use, use_of, use_while_making, walk
from jolly_trellis.core.geometry import Array

_EXACT_UP_TO = 8
_EXACT_WIDTH = 70
_WIDTH = 6
_WIDTH_ACROSS = 3
# Cost of taking a stem one phase too early, against a use of 1: phases are crossed where it helps, not for nothing.
_JUMP = 0.03
_M, _X, _Y, _Z, _OUT, _IN = range(6)

# A set of stems in the search: worst use so far, cost, the set as bits, the order, running sums and pulls.
_State = tuple[float, float, int, tuple[int, ...], Array, Array]


@dataclass(frozen=True, slots=True, kw_only=True)
class Found:
    """An order and the worst use met on the way; `crossed` tells that phases had to be crossed."""

    order: Order
    worst: float
    crossed: bool


def find_order(work: Work) -> Found:
    """An order that keeps every margin above its limit, if the search finds one; else the one that comes nearest.

    First within the phases of the trade, then across them where that fails. A beam search over sets of stems: what
    stands depends on which stems are in, not on how they came there, so each set is kept once, by the best way to it.
    Up to eight stems it keeps every set, and is exact; beyond that it measures by the nearest side instead of 72 rays.
    No order mends a piece that falls bare or finished, so then none is sought across the phases.
    """
    if len(work) == 0:
        return Found(order=work.usual, worst=float(walk(work, work.usual).use.max()), crossed=False)
    ends = walk(work, work.usual).use[[0, -1]]
    within = _search(work, across=False)
    if within.worst <= 1.0 or (len(work) > _EXACT_UP_TO and float(ends.max()) > 1.0):
        return within
    across = _search(work, across=True)
    return across if across.worst < within.worst - 1e-9 else within


def _search(work: Work, *, across: bool) -> Found:
    count = len(work)
    start = np.stack([each.start for each in work.bodies])
    no_pull = np.zeros(work.pulls_kg_m.shape[1:])
    measure = use_of if count <= _EXACT_UP_TO else quick_use_of
    first = float(measure(work, start[None], no_pull[None])[0])
    beam: list[_State] = [(first, 0.0, 0, (), start, no_pull)]
    width = _EXACT_WIDTH if count <= _EXACT_UP_TO else _WIDTH_ACROSS if across else _WIDTH
    for _ in range(count):
        parents, rows, ahead = [], [], []
        for index, (_, _, taken, *_) in enumerate(beam):
            open_rows = [row for row in range(count) if not taken >> row & 1]
            lowest = min(work.phase[row] for row in open_rows)
            allowed = open_rows if across else [row for row in open_rows if work.phase[row] == lowest]
            parents += [index] * len(allowed)
            rows += allowed
            ahead += [int(work.phase[row] - lowest) for row in allowed]
        sums = np.stack([beam[index][4] for index in parents]) + work.adds[rows]
        pulls = np.stack([beam[index][5] for index in parents]) + work.pulls_kg_m[rows]
        uses = measure(work, sums, pulls)
        best: dict[int, tuple[float, float, int]] = {}
        for place, (parent, row, use) in enumerate(zip(parents, rows, uses.tolist(), strict=True)):
            worst, cost, taken, *_ = beam[parent]
            key = taken | 1 << row
            scored = (max(worst, use), cost + use + _JUMP * ahead[place], place)
            rank = (max(scored[0], 1.0), scored[1])
            if key not in best or rank < (max(best[key][0], 1.0), best[key][1]):
                best[key] = scored
        ranked = sorted(best.items(), key=lambda each: (max(each[1][0], 1.0), each[1][1]))[:width]
        beam = [
            (worst, cost, key, (*beam[parents[place]][3], rows[place]), sums[place], pulls[place])
            for key, (worst, cost, place) in ranked
        ]
    order = np.array(beam[0][3], dtype=np.intp)
    return Found(order=order, worst=float(walk(work, order).use.max()), crossed=across)


def quick_use_of(work: Work, sums: Array, pulls: Array) -> Array:
    """`use_of` by the distance to the nearest side of each footing: near enough to search by."""
    angle, held = np.full(len(sums), np.pi / 2), np.full(len(sums), np.inf)
    for index, body in enumerate(work.bodies):
        sum_ = sums[:, index]
        mass = np.maximum(sum_[..., _M], 1e-9)
        edge = body.footing.nearest_m(sum_[..., _X] / mass, sum_[..., _Y] / mass, but_front=body.on_ledge)
        up = sum_[..., _Z] / mass - body.lift_m + float(body.turning_kg_m.max()) / mass
        angle = np.minimum(angle, np.arctan2(edge, np.maximum(up, 1e-3)).min(axis=1))
        if body.on_ledge:
            ratio = np.where(sum_[..., _OUT] > 1e-9, sum_[..., _IN] / np.maximum(sum_[..., _OUT], 1e-9), np.inf)
            held = np.minimum(held, ratio.min(axis=1))
    return use_while_making(angle, held, seat_use(work, pulls))
