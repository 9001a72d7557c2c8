"""What must be cleared before a task may be done: hung work whose Hang fails or cannot be said."""

from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.event.job import RigWork, Work
from jolly_trellis.core.quantities import Phrase, phrase


def cleared(verdict: Verdict) -> bool:
    """Whether every overhead check holds; anything that fails or is not known is not cleared."""
    return verdict.state not in ("fails", "cannot say")


def gate_of(work: Work) -> Phrase | None:
    """Why a piece may not be hung yet, in words; None where nothing hangs, or all of it is cleared."""
    if isinstance(work, RigWork):
        if work.rig.lies:
            return None
        verdict = None if work.report is None else work.report.verdict
    elif work.report is None:
        return None if work.piece.spill is None else _gate(phrase("it could not be worked out."))
    else:
        verdict = next(each for each in work.report.verdicts if each.verb == "hang")
    if verdict is None:
        return _gate(phrase("it could not be worked out."))
    return None if cleared(verdict) else _gate(verdict.reason)


def _gate(reason: Phrase) -> Phrase:
    return phrase("Not before it is cleared: {reason}", reason=reason)
