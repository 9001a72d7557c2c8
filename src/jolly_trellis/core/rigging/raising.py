"""Raising hung work in stages: two lines first, then the rest, who holds what, and the zone that is kept clear."""

from dataclasses import dataclass, replace

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.rigging.layout import lay_out
from jolly_trellis.core.rigging.lines import working_limit_n
from jolly_trellis.core.rigging.loads import Load
from jolly_trellis.core.rigging.network import solve
from jolly_trellis.core.rigging.resting import line_tensions
from jolly_trellis.core.rigging.rig import Rig

CLEAR_ROUND = rule("Kept clear round hung work while it is raised", "length", 2.0, COMMON_PRACTICE)
AT_ONCE = rule("Lines hauled at once", "count", 2, COMMON_PRACTICE)


@dataclass(frozen=True, slots=True, kw_only=True)
class Stage:
    """One stage of raising: the lines made fast in it, all that hold then, the greatest pull of those and what its
    line may carry, N (None where no rest is found on them: it must be borne from below till the next); how many haul.
    """

    lines: tuple[int, ...]
    held_by: tuple[int, ...]
    pull_n: float | None
    limit_n: float | None
    hands: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Raising:
    """How a piece is raised: its stages, and the floor kept clear under it, m."""

    stages: tuple[Stage, ...]
    clear_width_m: float
    clear_depth_m: float


def raising_of(rig: Rig, load: Load, at_m: tuple[tuple[float, float, float], ...]) -> Raising | None:
    """How hung work goes up: the two lines farthest apart first, then two by two from outside inwards.

    One hauls at each line of a stage, one more watches and calls. None for what is tied, lies, or has one line only.

    Args:
        load: what lines are judged by. at_m: the armature's nodes at rest.
    Source: common practice; the pulls are solved with the lines of each stage only.
    """
    if rig.is_tied or rig.lies or len(rig.lines) < 2 or not at_m:
        return None
    order = _outside_in(rig)
    step = round(AT_ONCE.value)
    stages = []
    for begin in range(0, len(order), step):
        these, held = tuple(order[begin : begin + step]), tuple(sorted(order[: begin + step]))
        pulled = _pull(rig, load, held)
        stages.append(
            Stage(
                lines=these,
                held_by=held,
                pull_n=None if pulled is None else pulled[0],
                limit_n=None if pulled is None else pulled[1],
                hands=len(these) + 1,
            )
        )
    at = np.array(at_m)
    wide, deep = (float(np.ptp(at[:, axis])) + 2 * CLEAR_ROUND.value for axis in (0, 1))
    return Raising(stages=tuple(stages), clear_width_m=wide, clear_depth_m=deep)


def _outside_in(rig: Rig) -> list[int]:
    """Lines by turns from the two ends of the work inwards."""
    middle = sum(each.x_m for each in rig.attachments) / max(len(rig.attachments), 1)
    across = sorted(range(len(rig.lines)), key=lambda at: (rig.attachments[rig.lines[at].attachment].x_m, at))
    left = [at for at in across if rig.attachments[rig.lines[at].attachment].x_m < middle]
    right = [at for at in reversed(across) if at not in left]
    order: list[int] = []
    while left or right:
        order += [left.pop(0)] if left else []
        order += [right.pop(0)] if right else []
    return order


def _pull(rig: Rig, load: Load, held: tuple[int, ...]) -> tuple[float, float] | None:
    """The hardest pulled line for what it may carry, with these lines only: its tension and limit, N."""
    partly = replace(rig, lines=tuple(rig.lines[at] for at in held))
    try:
        made = lay_out(partly, load, as_if=None)
        tensions = line_tensions(made, solve(made.net, count_modes=False))
    except CoreError:
        return None
    limits = np.array([working_limit_n(line.spec, over_people=False) for line in partly.lines])
    worst = int(np.argmax(tensions / limits))
    return float(tensions[worst]), float(limits[worst])
