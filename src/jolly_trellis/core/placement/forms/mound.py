"""The low mound: a full cushion with a flat top and round shoulders."""

import numpy as np

from jolly_trellis.core.geometry import Array
from jolly_trellis.core.placement.form import FormRule, declare
from jolly_trellis.core.placement.forms import dome

_POWER = 3.0


def scale(directions_: Array) -> Array:
    """Stretch from an ellipsoid to a superellipsoid of power 3: the shoulders fill out. Source: geometry."""
    size = (np.abs(directions_) ** _POWER).sum(axis=1) ** (1 / _POWER)
    return np.asarray(np.repeat(1.0 / size[:, None], 3, axis=1))


RULE = declare(
    FormRule(
        kind="mound",
        place=40,
        name="low mound",
        said=("mound", "low mound"),
        directions=dome.directions,
        scale=scale,
    )
)
