"""Travel: whether it comes through the drive: tipping, sliding, splashing."""

from jolly_trellis.core.checks import travel, worn
from jolly_trellis.core.judging.rung import declare

TRAVEL = declare(
    "travel",
    place=40,
    asks="Whether it comes through the drive: tipping, sliding, splashing.",
    standing=(travel.judge, travel.candidates),
    bouquet=(travel.judge, travel.candidates),
    worn=(worn.judge_travel, worn.no_candidates),
)
