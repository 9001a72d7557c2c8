"""Stand: whether it stays upright: tilted, nudged, in wind, and at every step while it is made."""

from jolly_trellis.core.checks import stand, worn
from jolly_trellis.core.judging.rung import declare

STAND = declare(
    "stand",
    place=20,
    asks="Whether it stays upright: tilted, nudged, in wind, and at every step while it is made.",
    whole=True,
    standing=(stand.judge, stand.candidates),
    bouquet=(stand.judge, stand.candidates),
    worn=(worn.judge_stand, worn.no_candidates),
)
