"""A fixed piece of work that every figure of speed is told beside, so that two machines, or two hours, compare.

Half of it is plain Python (objects, floats, a dictionary), half is numpy on a handful of numbers, as the core's work
is. It never changes: a figure over this loop's time is the same on a quick machine and a slow one.
"""

import statistics
import time
from dataclasses import dataclass

import numpy as np

_RUNS = 7


@dataclass(frozen=True, slots=True)
class _Thing:
    mass: float
    x: float
    y: float


def _python() -> float:
    things = [_Thing(mass=0.01 * at, x=0.5 * at, y=0.25 * at) for at in range(6000)]
    by_key: dict[int, float] = {}
    for at, each in enumerate(things):
        key = at % 97
        by_key[key] = by_key.get(key, 0.0) + each.mass * (each.x - each.y)
    return sum(by_key.values())


def _numpy() -> float:
    at = np.linspace(0.0, 1.0, 24)
    total = 0.0
    for turn in range(700):
        shifted = np.hypot(at - turn / 700, at[::-1])
        total += float(np.where(shifted > 0.5, shifted, 0.0).sum() + shifted.argmin())
    return total


def loop_ms() -> float:
    """Milliseconds of the loop as the machine is now: the median of a few."""
    times = []
    for _ in range(_RUNS):
        begun = time.perf_counter()
        _python()
        _numpy()
        times.append(1000 * (time.perf_counter() - begun))
    return statistics.median(times)
