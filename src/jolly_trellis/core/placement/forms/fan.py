"""The fan: front-facing, stems spread left, up and right, with a nearly flat back."""

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.placement.form import FormRule, declare
from jolly_trellis.core.placement.forms import dome

BACK_SHARE = rule("How far a fan leans back, share of its depth", "ratio", 0.15, most=1.0)
_SIDES = ((-1.0, 0.0, 0.1), (1.0, 0.0, 0.1), (0.0, 0.0, 1.0), (-0.7, 0.0, 0.71), (0.7, 0.0, 0.71), (0.0, -0.9, 0.2))


def directions(role: Role, number: int, turn_rad: float) -> Array:
    """Directions of the dome folded to the front; margins go left, right, up, then between, then forward."""
    spread = dome.directions("filler" if role == "margin" else role, number, turn_rad)
    back = spread[:, 1] > BACK_SHARE.value
    spread[back, 1] = -spread[back, 1]
    if role == "margin":
        for row, side in enumerate(_SIDES[:number]):
            spread[row] = side
    return np.asarray(spread / np.linalg.norm(spread, axis=1)[:, None])


RULE = declare(
    FormRule(
        kind="fan",
        place=20,
        name="fan, front-facing",
        said=("fan", "front-facing", "front facing"),
        directions=directions,
        scale=dome.whole,
        front_facing=True,
        back=BACK_SHARE,
    )
)
