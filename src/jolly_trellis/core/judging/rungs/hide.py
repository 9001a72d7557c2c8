"""Hide: how much of wire, tape, rim and underside shows to guests, seated and standing."""

from jolly_trellis.core.checks import hide, hide_carried, worn
from jolly_trellis.core.judging.rung import declare

HIDE = declare(
    "hide",
    place=60,
    asks="How much of wire, tape, rim and underside shows to guests, seated and standing.",
    standing=(hide.judge, hide.candidates),
    bouquet=(hide_carried.judge, hide_carried.candidates),
    worn=(worn.judge_hide, worn.no_candidates),
)
