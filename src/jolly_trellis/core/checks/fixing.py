"""Trying out fixes: each candidate is built and judged again, and offered only where it helps enough."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from jolly_trellis.core.build import Build, build
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.piece import Piece
from jolly_trellis.core.quantities import Phrase
from jolly_trellis.core.verdicts import Fix, Verdict


@dataclass(frozen=True, slots=True, kw_only=True)
class Candidate:
    """A change worth trying: the piece after it, and what to tell the florist to do."""

    key: str
    say: Phrase
    piece: Piece


def proven(candidates: Iterable[Candidate], before: Build, judge: Callable[[Build], Verdict]) -> tuple[Fix, ...]:
    """Build and judge every candidate again; keep those that no longer fail, best first.

    A candidate that cannot be built is dropped: it is no fix. Of a family of ever larger changes (keys alike
    up to the last dash) the smallest that is tight and the smallest that holds are kept.
    """
    fixes: list[Fix] = []
    offered: set[tuple[str, str]] = set()
    for each in candidates:
        family = each.key.rpartition("-")[0] or each.key
        if (family, "holds") in offered:
            continue
        try:
            verdict = judge(build(each.piece, before.conditions))
        except CoreError:
            continue
        if verdict.state not in ("holds", "tight", "not needed"):
            continue
        if (family, verdict.state) in offered:
            continue
        offered.add((family, verdict.state))
        fixes.append(
            Fix(
                key=each.key,
                say=each.say,
                piece=each.piece,
                state_after=verdict.state,
                utilisation_after=verdict.utilisation or 0.0,
            )
        )
    return tuple(fixes)
