"""What the core raises when it cannot compute. A check that merely fails is data, not an error."""

from jolly_trellis.core.quantities import Phrase


class CoreError(Exception):
    """Something could not be computed from what was given.

    `path` names the quantity in the piece, dotted, as in JSON ("envelope.height_m"); `message` says what
    is wrong with it; `limit` says what would be right.
    """

    code = "cannot_compute"

    def __init__(self, *, path: str, message: Phrase, limit: Phrase) -> None:
        super().__init__(f"{path}: {message.text} {limit.text}")
        self.path = path
        self.message = message
        self.limit = limit


class InvalidMeasure(CoreError):
    """A measure lies outside what the formula, or the vessel, allows."""

    code = "measure"


class UnknownName(CoreError):
    """A variety or netting is named that the studio does not have."""

    code = "unknown_name"


class Unfinished(CoreError):
    """A plan that lacks a part it cannot do without, such as lines; it may be kept as it is and gone on with."""

    code = "unfinished"


class NotConverged(CoreError):
    """A bounded iteration ended before its residual was small enough."""

    code = "not_converged"


class Unstable(CoreError):
    """What was drawn has no rest position: a part hangs on nothing, or stands on its head."""

    code = "unstable"
