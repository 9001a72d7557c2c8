"""What a file about a verdict says of it: its verb, what it asks, and how each sort of piece is judged."""

from collections.abc import Mapping
from dataclasses import dataclass

from jolly_trellis.core.checks.fixing import Check, Inverse, Judge
from jolly_trellis.core.checks.verdicts import Verb
from jolly_trellis.core.plan.piece import Judged


@dataclass(frozen=True, slots=True, kw_only=True)
class Rung:
    """One verdict: where it stands among the others, what it asks, and its check by how a piece is judged."""

    verb: Verb
    place: int
    asks: str
    checks: Mapping[Judged, Check]


RUNGS: dict[Verb, Rung] = {}


def declare(verb: Verb, *, place: int, asks: str, whole: bool = False, **ways: tuple[Judge, Inverse]) -> Rung:
    """Make a verdict known, in its place; called once by the file that describes it.

    Args:
        whole: whether it looks at a composition of several vessels itself.
        ways: by how a piece is judged ("standing", "bouquet", "worn"), what judges it and what might mend it.
    """
    checks = {
        judged: Check(verb=verb, judge=judge, candidates=candidates, whole=whole)
        for judged, (judge, candidates) in ways.items()
    }
    made = Rung(verb=verb, place=place, asks=asks, checks=checks)  # type: ignore[arg-type]
    every = sorted((*RUNGS.values(), made), key=lambda each: each.place)
    RUNGS.clear()
    RUNGS.update({each.verb: each for each in every})
    return made


def checks_for(judged: Judged) -> tuple[Check, ...]:
    """Every check of a piece that is judged so, in order."""
    return tuple(each.checks[judged] for each in RUNGS.values())
