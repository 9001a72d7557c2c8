"""More strips worth trying: whole plans filled piece by piece, each no more often than it is wanted.

Column generation prices pieces singly and may leave out a strip that only whole numbers need. Here a strip begins with
one of the longest pieces left and is filled column by column with the best stack of what is left; the worth of a piece
is its area, a little shaken, so that every round comes to another plan.

Source: sequential filling with shaken values, as common in cutting and packing; estimates by trial.
"""

import random
import time

import numpy as np

from jolly_trellis.core.event.cutting.cut_strips import Ways, stacks_of, unstack, ways_of
from jolly_trellis.core.event.cutting.cutting import Column, Item, Progress, Strip

_ROUNDS = 60
_SHAKE = 0.25
_AMONG = 3


def filled_strips(
    items: tuple[Item, ...], across: int, longest: int, kerf: int, *, until: float, progress: Progress
) -> list[Strip]:
    """Strips of so many whole plans as there is time for, the first without shaking.

    Args:
        items, across, longest, kerf: as in `strips_for`.
        until: when to end, by the monotonic clock.
    """
    ways = ways_of(items, across, longest, kerf)
    area = np.array([float((item.across + kerf) * (item.along + kerf)) for item in items])
    drawn = random.Random(1)
    found: dict[Strip, None] = {}
    for nth in range(_ROUNDS):
        if nth and (time.monotonic() > until or progress.stop()):
            break
        shaken = [drawn.uniform(1 - _SHAKE, 1 + _SHAKE) if nth else 1.0 for _ in items]
        worth = area * np.array(shaken)
        left = [item.count for item in items]
        while any(left):
            strip = _strip(items, ways, left, worth, across + kerf, drawn if nth else None)
            found[strip] = None
            for item, number in enumerate(strip.counts(len(items))):
                left[item] -= number
    return list(found)


def _strip(
    items: tuple[Item, ...], ways: Ways, left: list[int], worth: np.ndarray, width: int, drawn: random.Random | None
) -> Strip:
    """A strip as long as one of the longest pieces left, filled from its side."""
    open_ways = sorted((way for way in ways if left[way[0]]), key=lambda way: -min(way[2], way[1]))
    seed = open_ways[drawn.randrange(min(_AMONG, len(open_ways))) if drawn else 0]
    best: Strip | None = None
    best_fill = -1.0
    for way in {way[3]: way for way in ways if way[0] == seed[0]}.values():
        strip, fill = _filled(items, ways, list(left), worth, width, way)
        if fill > best_fill:
            best, best_fill = strip, fill
    if best is None:
        raise ValueError("a piece that lies no way on this stock")
    return best


def _filled(
    items: tuple[Item, ...],
    ways: Ways,
    left: list[int],
    worth: np.ndarray,
    width: int,
    seed: tuple[int, int, int, bool],
) -> tuple[Strip, float]:
    """The strip that begins with one piece, and the worth of what is in it for each row and cell."""
    index, wide, long, turned = seed
    left[index] -= 1
    columns = [Column(wide, ((index, turned),))]
    room, value = width - wide, float(worth[index])
    while room > 0:
        narrow = [way for way in ways if way[1] <= room and way[2] <= long and left[way[0]]]
        if not narrow:
            break
        counted = tuple(
            Item(key=item.key, across=item.across, along=item.along, count=max(count, 0), turned=item.turned)
            for item, count in zip(items, left, strict=True)
        )
        options = stacks_of(counted, narrow, long, worth)
        wide, _, choices = max(options, key=lambda option: float(option[1][long]) / option[0])
        pieces = []
        for piece, lies_turned in unstack(choices, narrow, long):
            if left[piece] > 0:  # a piece that may lie both ways can be in a stack once too often
                left[piece] -= 1
                pieces.append((piece, lies_turned))
        if not pieces:
            break
        columns.append(Column(wide, tuple(pieces)))
        room, value = room - wide, value + sum(float(worth[piece]) for piece, _ in pieces)
    ordered = tuple(sorted(columns, key=lambda each: (-each.across, each.pieces)))
    return Strip(long, ordered), value / (long * width)
