"""The lopsided sweep: high on the left, falling to a long low reach on the right."""

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.placement.form import FormRule, declare
from jolly_trellis.core.placement.forms import dome

LOW_SIDE = rule("Height of a sweep's low side, share of its height", "ratio", 0.45, most=1.0)
SHORT_SIDE = rule("Reach of a sweep's high side, share of its half width", "ratio", 0.7)


def scale(directions_: Array) -> Array:
    """Stretch: full height left of the middle, down to 0.45 at the far right; 0.7 of the reach on the left."""
    x = directions_[:, 0]
    fall = np.clip((x + 0.2) / 1.2, 0.0, 1.0)
    stretch = np.ones_like(directions_)
    stretch[:, 0] = np.where(x < 0, SHORT_SIDE.value, 1.0)
    stretch[:, 2] = 1.0 - (1.0 - LOW_SIDE.value) * fall
    return stretch


RULE = declare(
    FormRule(
        kind="sweep",
        place=30,
        name="lopsided sweep",
        said=("lopsided", "sweep", "asymmetric"),
        directions=dome.directions,
        scale=scale,
    )
)
