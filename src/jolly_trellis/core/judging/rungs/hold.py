"""Hold: whether stems stay where they are put: seats, depth, play, and the mechanic in its vessel."""

from jolly_trellis.core.checks import hold, hold_bound, hold_fixes, worn
from jolly_trellis.core.judging.rung import declare

HOLD = declare(
    "hold",
    place=10,
    asks="Whether stems stay where they are put: seats, depth, play, and the mechanic in its vessel.",
    standing=(hold.judge, hold_fixes.candidates),
    bouquet=(hold_bound.judge, hold_bound.candidates),
    worn=(worn.judge_hold, worn.no_candidates),
)
