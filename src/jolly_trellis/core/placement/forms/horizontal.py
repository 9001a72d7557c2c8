"""The horizontal: long and low, reaching to both sides."""

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.placement.form import FormRule, declare
from jolly_trellis.core.placement.forms import dome

DRAWN_OUT = rule("How far a horizontal draws directions to its sides", "ratio", 0.55)


def directions(role: Role, number: int, turn_rad: float) -> Array:
    """Directions of the dome drawn out to both sides; margins go left, right, front, back, then
    up, and base all round.
    """
    spread = dome.directions(role, number, turn_rad)
    if role == "base":
        return spread
    if role == "margin":
        spread = spread[np.argsort(-np.abs(spread[:, 0]), kind="stable")]
    spread[:, 1] *= DRAWN_OUT.value
    spread[:, 0] *= 1.0 + (1.0 - DRAWN_OUT.value)
    return np.asarray(spread / np.linalg.norm(spread, axis=1)[:, None])


RULE = declare(
    FormRule(
        kind="horizontal",
        place=50,
        name="horizontal",
        said=("horizontal",),
        directions=directions,
        scale=dome.whole,
        lengthwise=True,
    )
)
