"""The free form: what hands have placed stays; the rest fills round it as in a dome, from several points."""

from jolly_trellis.core.placement import dome
from jolly_trellis.core.placement.form import SEVERAL_POINTS, FormRule

RULE = FormRule(directions=dome.directions, scale=dome.whole, growing_points=SEVERAL_POINTS)
