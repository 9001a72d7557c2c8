"""The forward form: stems leaning out over the front edge of what the vessel stands on, little behind."""

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.placement.form import FormRule, declare
from jolly_trellis.core.placement.forms import dome

FRONT_REACH = rule("Reach of a forward form to the front, share of half its depth", "ratio", 1.6)
BACK_REACH = rule("Reach of a forward form to the back, share of half its depth", "ratio", 0.4)


def scale(directions_: Array) -> Array:
    """Stretch front to back: the two reaches together make the whole depth."""
    stretch = np.ones_like(directions_)
    stretch[:, 1] = np.where(directions_[:, 1] < 0, FRONT_REACH.value, BACK_REACH.value)
    return stretch


RULE = declare(
    FormRule(
        kind="forward",
        place=70,
        name="leaning forward",
        said=("forward", "leaning forward"),
        directions=dome.directions,
        scale=scale,
        front_facing=True,
    )
)
