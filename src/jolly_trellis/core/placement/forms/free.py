"""The free form: what hands have placed stays; the rest fills round it as in a dome, from several points."""

from jolly_trellis.core.placement.form import SEVERAL_POINTS, FormRule, declare
from jolly_trellis.core.placement.forms import dome

RULE = declare(
    FormRule(
        kind="free",
        place=80,
        name="free",
        said=("free",),
        directions=dome.directions,
        scale=dome.whole,
        growing_points=SEVERAL_POINTS,
    )
)
