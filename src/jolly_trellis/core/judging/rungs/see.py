"""See: whether people at the table see one another past it."""

from jolly_trellis.core.checks import see
from jolly_trellis.core.judging.rung import declare

SEE = declare(
    "see",
    place=70,
    asks="Whether people at the table see one another past it.",
    standing=(see.judge, see.candidates),
    bouquet=(see.judge_carried, see.candidates),
    worn=(see.judge_carried, see.candidates),
)
