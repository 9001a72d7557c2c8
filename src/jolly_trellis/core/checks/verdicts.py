"""Verdicts: what a check found, how near the limit it is, and what would mend it."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.books.bodies import Case
from jolly_trellis.core.books.figures import Figure, Shown, shown
from jolly_trellis.core.missing import Missing, listed
from jolly_trellis.core.plan.kinds import AnyPiece
from jolly_trellis.core.quantities import Phrase, Quantity, phrase

Verb = Literal["hold", "stand", "drink", "travel", "hang", "hide", "see", "lift"]
State = Literal["holds", "tight", "fails", "not needed", "cannot say"]
Sense = Literal["at most", "at least"]

TIGHT_FROM = 0.8
UTILISATION_SHOWN_TO = 9.99
_OVER = 10.0


def utilisation(*, value: float, limit: float, sense: Sense) -> float:
    """Demand over capacity; 1.0 is the limit.

    Args:
        value: the quantity found, in the unit of `limit`.
        limit: the limit, > 0.
        sense: "at most" gives value/limit, "at least" gives limit/value.
    Returns:
        Utilisation, 0 or more, capped at 10; a value of zero or less against an at-least limit gives 10,
        which reads "over 9.99".
    Raises:
        ValueError: the limit is not positive.
    Source: definition.
    """
    if not limit > 0:
        raise ValueError("a limit is positive")
    if sense == "at most":
        return min(max(value, 0.0) / limit, _OVER)
    return _OVER if value <= 0 else min(limit / value, _OVER)


def state_of(used: float, tight_from: float = TIGHT_FROM) -> State:
    """The word for a utilisation: holds, tight from 0.8 (or from where its check says), fails above 1."""
    if used > 1.0:
        return "fails"
    return "tight" if used >= tight_from else "holds"


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """One limit of one check in one load case; `tight_from` is the utilisation from which it is tight."""

    check: str
    case: Case
    value: Quantity
    limit: Quantity
    sense: Sense
    utilisation: float
    reason: Phrase
    tight_from: float = TIGHT_FROM

    @property
    def state(self) -> State:
        """Its own word."""
        return state_of(self.utilisation, self.tight_from)


def finding(
    *,
    check: str,
    case: Case,
    value: Quantity,
    limit: Quantity,
    sense: Sense,
    reason: Phrase,
    tight_from: float = TIGHT_FROM,
) -> Finding:
    """A finding with its utilisation worked out from value, limit and sense."""
    used = utilisation(value=value.value, limit=limit.value, sense=sense)
    return Finding(
        check=check,
        case=case,
        value=value,
        limit=limit,
        sense=sense,
        utilisation=used,
        reason=reason,
        tight_from=tight_from,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Worse:
    """Another verdict that an act makes worse: its state before and after."""

    verb: Verb
    before: State
    after: State


@dataclass(frozen=True, slots=True, kw_only=True)
class Fix:
    """One act, or two together, tried on the piece and judged again by every verdict: `piece` is the piece after it.

    `worse` are other verdicts that it makes worse.
    """

    key: str
    say: Phrase
    piece: AnyPiece
    state_after: State
    utilisation_after: float
    worse: tuple[Worse, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Verdict:
    """The answer of one check: its state, the finding that governs, the rest, and the fixes.

    `tried` is what was tried and did not mend it, where nothing did; one act of each kind.
    """

    verb: Verb
    state: State
    reason: Phrase
    governing: Finding | None = None
    findings: tuple[Finding, ...] = ()
    missing: tuple[Missing, ...] = ()
    figures: tuple[Figure, ...] = ()
    fixes: tuple[Fix, ...] = ()
    tried: tuple[Phrase, ...] = ()

    @property
    def utilisation(self) -> float | None:
        """Utilisation of the governing finding; none where nothing could be said."""
        return None if self.governing is None else self.governing.utilisation


def conclude(
    verb: Verb,
    findings: Sequence[Finding],
    *,
    missing: Sequence[Missing] = (),
    figures: Sequence[Shown] = (),
    not_needed: Phrase | None = None,
) -> Verdict:
    """The verdict of a check: the worst of its findings.

    A limit that is certainly broken fails even where another fact is missing; a missing fact otherwise gives
    "cannot say", never a pass.
    """
    worst = max(findings, key=_badness, default=None)
    if missing and (worst is None or worst.utilisation <= 1.0):
        reason = phrase("Cannot say until this is known: {missing}.", missing=listed(missing))
        state: State = "cannot say"
        worst = None
    elif worst is not None:
        reason, state = worst.reason, worst.state
    elif not_needed is not None:
        reason, state = not_needed, "not needed"
    else:
        raise ValueError("a check gives at least one finding, a missing fact, or why it is not needed")
    return Verdict(
        verb=verb,
        state=state,
        reason=reason,
        governing=worst,
        findings=tuple(findings),
        missing=tuple(missing),
        figures=shown(figures),
    )


def _badness(found: Finding) -> tuple[int, float]:
    return ("holds", "tight", "fails").index(found.state), found.utilisation
