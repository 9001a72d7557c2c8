"""The garden: stems from several growing points, heights uneven as things grow."""

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.placement.form import SEVERAL_POINTS, FormRule, declare
from jolly_trellis.core.placement.forms import dome

UNEVEN = rule("How uneven a garden's heights are", "ratio", 0.22)


def scale(directions_: Array) -> Array:
    """Stretch of height with azimuth in three waves, between 0.78 and 1."""
    azimuth = np.arctan2(directions_[:, 0], -directions_[:, 1])
    stretch = np.ones_like(directions_)
    stretch[:, 2] = 1.0 - UNEVEN.value * (0.5 - 0.5 * np.cos(3 * azimuth + 0.7))
    return stretch


RULE = declare(
    FormRule(
        kind="garden",
        place=60,
        name="garden, several points",
        said=("garden",),
        directions=dome.directions,
        scale=scale,
        growing_points=SEVERAL_POINTS,
    )
)
