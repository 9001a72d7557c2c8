"""Trying out fixes: each candidate is built and judged again by every verdict, and offered only where it helps."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.checks.verdicts import Fix, State, Verb, Verdict, Worse
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.quantities import Phrase, joined

_MENDED: tuple[State, ...] = ("holds", "tight", "not needed")
_BADNESS: dict[State, int] = {"not needed": 0, "holds": 0, "tight": 1, "cannot say": 2, "fails": 3}
# Where no act mends by itself, so many of those that come nearest are each tried with a second one.
_NEAREST = 3
_SECOND_ACTS = 14


@dataclass(frozen=True, slots=True, kw_only=True)
class Candidate:
    """A change worth trying: the piece after it, and what to tell the florist to do."""

    key: str
    say: Phrase
    piece: Piece


Judge = Callable[[Build], Verdict]
Inverse = Callable[[Build, Verdict], list[Candidate]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Check:
    """How one verb is judged, and what might mend it. `whole` tells one that looks at a composition itself."""

    verb: Verb
    judge: Judge
    candidates: Inverse
    whole: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Outcome:
    """A candidate that could be built, and what its check says of it then."""

    candidate: Candidate
    build: Build
    verdict: Verdict

    @property
    def used(self) -> float:
        """Utilisation after it; 0 where nothing governs any more."""
        return self.verdict.utilisation or 0.0

    def fix(self) -> Fix:
        """It as a fix, not yet judged by the other verdicts."""
        return Fix(
            key=self.candidate.key,
            say=self.candidate.say,
            piece=self.candidate.piece,
            state_after=self.verdict.state,
            utilisation_after=self.used,
        )


def outcomes(candidates: Iterable[Candidate], before: Build, judge: Judge) -> Iterator[Outcome]:
    """Build and judge candidates again; one that cannot be built is dropped: it is no fix.

    Of a family of ever larger changes (keys alike up to the last dash) none is tried after the first that holds.
    """
    held: set[str] = set()
    for each in candidates:
        family = family_of(each)
        if family in held:
            continue
        try:
            made = build(each.piece, before.conditions)
            verdict = judge(made)
        except CoreError:
            continue
        if verdict.state == "holds":
            held.add(family)
        yield Outcome(candidate=each, build=made, verdict=verdict)


def mending(tried: Iterable[Outcome]) -> tuple[Outcome, ...]:
    """Those that no longer fail: of each family the smallest that is tight and the smallest that holds."""
    found: list[Outcome] = []
    offered: set[tuple[str, State]] = set()
    for each in tried:
        key = (family_of(each.candidate), each.verdict.state)
        if each.verdict.state in _MENDED and key not in offered:
            offered.add(key)
            found.append(each)
    return tuple(found)


def proven(candidates: Iterable[Candidate], before: Build, judge: Judge) -> tuple[Fix, ...]:
    """Candidates that mend one check, as fixes; what they do to the others is not asked."""
    return tuple(each.fix() for each in mending(outcomes(candidates, before, judge)))


def two_changes(
    tried: Sequence[Outcome],
    verdict: Verdict,
    before: Build,
    check: Check,
) -> tuple[Outcome, ...]:
    """Two acts together, where none of those tried mends: each of the nearest with whatever mends what it leaves."""
    better = [
        each for each in tried if each.verdict.state == "fails" and each.used < (verdict.utilisation or 0.0) - 1e-6
    ]
    nearest = sorted(better, key=lambda each: each.used)
    found: list[Outcome] = []
    for first in one_of_each_family(nearest)[:_NEAREST]:
        seconds = [
            Candidate(
                key=f"{first.candidate.key}+{each.key}",
                say=joined((first.candidate.say, each.say)),
                piece=each.piece,
            )
            for each in check.candidates(first.build, first.verdict)[:_SECOND_ACTS]
            if family_of(each) != family_of(first.candidate)
        ]
        found += mending(outcomes(seconds, before, check.judge))[:1]
    return tuple(found)


def one_of_each_family(tried: Iterable[Outcome]) -> list[Outcome]:
    """The first of every family, in their order."""
    return list({family_of(each.candidate): each for each in reversed(list(tried))}.values())[::-1]


def judged_by_all(
    mends: Iterable[Outcome], before: Sequence[Verdict], checks: Sequence[Check], verb: Verb
) -> tuple[Fix, ...]:
    """Fixes with what each makes worse among the other verdicts; those that make nothing worse first."""
    was = {each.verb: each.state for each in before}
    others = [each for each in checks if each.verb != verb]
    fixes = []
    for each in mends:
        states = {other.verb: other.judge(each.build).state for other in others}
        worse = tuple(
            Worse(verb=other, before=was[other], after=state)
            for other, state in states.items()
            if _BADNESS[state] > _BADNESS[was[other]]
        )
        fixes.append(replace(each.fix(), worse=worse))
    return tuple(sorted(fixes, key=lambda fix: max((_BADNESS[each.after] for each in fix.worse), default=0)))


def family_of(candidate: Candidate) -> str:
    """What a candidate is one of: its key up to the last dash."""
    return candidate.key.rpartition("-")[0] or candidate.key
