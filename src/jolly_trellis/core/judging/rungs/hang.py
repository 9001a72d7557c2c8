"""Hang: whether what hangs is borne, with one line gone too, and who says what a point may carry."""

from jolly_trellis.core.checks import hang
from jolly_trellis.core.judging.rung import declare

HANG = declare(
    "hang",
    place=50,
    asks="Whether what hangs is borne, with one line gone too, and who says what a point may carry.",
    whole=True,
    standing=(hang.judge, hang.candidates),
    bouquet=(hang.judge, hang.candidates),
    worn=(hang.judge, hang.candidates),
)
