"""How much of something lies left and right, front and back of a middle."""

from dataclasses import dataclass

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.geometry import Array

MIDDLE = rule("A stem this near the middle counts to both sides", "length", 0.005)


@dataclass(frozen=True, slots=True, kw_only=True)
class Sides:
    """Shares of one whole, 0-1: left and right make one, front and back make one."""

    left: float
    right: float
    front: float
    back: float


def sides_of(weight: Array, at_m: Array, middle_m: tuple[float, float] = (0.0, 0.0)) -> Sides:
    """Shares of a weight left and right, front and back of a middle; what lies at it counts half to both.

    Args:
        weight: of each part, ≥ 0, any unit, shape (n,). at_m: where each is, to the right and back, shape (n, 2 or 3).
        middle_m: to the right and back.
    Source: counts by side.
    """
    total = max(float(weight.sum()), 1e-12)

    def below(axis: int) -> float:
        value = at_m[:, axis] - middle_m[axis]
        share = np.where(np.abs(value) <= MIDDLE.value, 0.5, (value < 0).astype(np.float64))
        return float((weight * share).sum()) / total

    left, front = below(0), below(1)
    return Sides(left=left, right=1.0 - left, front=front, back=1.0 - front)
