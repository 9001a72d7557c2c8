"""What is taken of a piece of work: the time of each run, as multiples of a fixed loop taken beside it."""

import statistics
import time
from collections.abc import Callable

from tools.calibration import loop_ms

# The loop on the machine on which the aims were set, in its quicker hours.
LOOP_WHEN_SET_MS = 14.3


def spread(times_ms: list[float], aim_ms: float) -> dict[str, float]:
    """Median, 95th percentile and what is aimed at, each also as a multiple of the calibration loop taken beside it.

    The aim is met where the percentile is no more loops than the aim was when it was set.
    """
    ordered, loop = sorted(times_ms), loop_ms()
    high = ordered[min(len(ordered) - 1, int(0.95 * len(ordered)))]
    return {
        "median_ms": round(statistics.median(ordered), 2),
        "p95_ms": round(high, 2),
        "aim_ms": aim_ms,
        "p95_over_aim": round(high / aim_ms, 2),
        "loop_ms": round(loop, 2),
        "median_loops": round(statistics.median(ordered) / loop, 3),
        "p95_loops": round(high / loop, 3),
        "aim_loops": round(aim_ms / LOOP_WHEN_SET_MS, 3),
        "met": float(high / loop <= aim_ms / LOOP_WHEN_SET_MS),
        "runs": len(ordered),
    }


def timed(work: Callable[[], object], runs: int) -> list[float]:
    """Milliseconds of each run, after a tenth as many, at least ten, that warm up."""
    for _ in range(max(10, runs // 10)):
        work()
    times = []
    for _ in range(runs):
        begun = time.perf_counter()
        work()
        times.append(1000 * (time.perf_counter() - begun))
    return times


def once(work: Callable[[], object]) -> float:
    """Seconds that something takes the first time."""
    begun = time.perf_counter()
    work()
    return time.perf_counter() - begun
