"""What a file about a verdict says of it: its verb, what it asks, and how each sort of piece is judged."""

from collections.abc import Mapping
from dataclasses import dataclass

from jolly_trellis.core.checks.fixing import Check, Inverse, Judge
from jolly_trellis.core.checks.verdicts import Verb
from jolly_trellis.core.plan.piece import Sort


@dataclass(frozen=True, slots=True, kw_only=True)
class Rung:
    """One verdict: where it stands among the others, what it asks, and its check by sort of piece."""

    verb: Verb
    place: int
    asks: str
    checks: Mapping[Sort, Check]


RUNGS: dict[Verb, Rung] = {}


def declare(verb: Verb, *, place: int, asks: str, whole: bool = False, **ways: tuple[Judge, Inverse]) -> Rung:
    """Make a verdict known, in its place; called once by the file that describes it.

    Args:
        whole: whether it looks at a composition of several vessels itself.
        ways: by sort of piece ("standing", "bouquet", "worn"), what judges it and what might mend it.
    """
    checks = {
        sort: Check(verb=verb, judge=judge, candidates=candidates, whole=whole)
        for sort, (judge, candidates) in ways.items()
    }
    made = Rung(verb=verb, place=place, asks=asks, checks=checks)  # type: ignore[arg-type]
    every = sorted((*RUNGS.values(), made), key=lambda each: each.place)
    RUNGS.clear()
    RUNGS.update({each.verb: each for each in every})
    return made


def checks_for(sort: Sort) -> tuple[Check, ...]:
    """Every check of a sort of piece, in order."""
    return tuple(each.checks[sort] for each in RUNGS.values())
