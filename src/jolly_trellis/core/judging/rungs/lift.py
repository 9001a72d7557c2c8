"""Lift: whether one or two people may lift it as it is carried."""

from jolly_trellis.core.checks import lift, lift_hand, worn
from jolly_trellis.core.judging.rung import declare

LIFT = declare(
    "lift",
    place=80,
    asks="Whether one or two people may lift it as it is carried.",
    standing=(lift.judge, lift.candidates),
    bouquet=(lift_hand.judge, lift_hand.candidates),
    worn=(worn.judge_lift, worn.no_candidates),
)
