"""How long pieces stand before their water on show by the run sheet, where that is longer than Drink reckons with."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime

from jolly_trellis.core.books.time import Stage
from jolly_trellis.core.checks.verdicts import Finding
from jolly_trellis.core.event.day.notes import Note
from jolly_trellis.core.event.job import Made, PieceWork
from jolly_trellis.core.event.sheet.schedule import Timed
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.quantities import duration, phrase

_ON_THE_BENCH: tuple[Stage, ...] = ("mechanics", "green", "flower", "tubes")


@dataclass(frozen=True, slots=True, kw_only=True)
class _Stood:
    """When a piece is finished and when it is loaded."""

    finished_at: datetime
    loaded_at: datetime


def standing_notes(made: Made, conditions: Conditions, timed: tuple[Timed, ...]) -> Iterator[Note]:
    """Pieces that run dry because their sheet has them stand longer than Drink reckons with.

    Drink supposes that a piece is finished when the workshop closes before it is loaded. Where the sheet finishes or
    loads it sooner, Drink is asked again with the sheet's own times, and what fails then and did not is named.

    Source: the verdict Drink itself, finding `waits`.
    """
    for work in made.pieces:
        stood = _stood(work, timed)
        if stood is None or work.report is None or not _longer(stood, conditions):
            continue
        before = _waits(work.report)
        if before is None or before.state == "fails":
            continue
        times = replace(conditions, finished_at=stood.finished_at, loaded_at=stood.loaded_at)
        after = _waits(evaluate(work.piece, times, with_fixes=False))
        if after is not None and after.state == "fails":
            until = (conditions.filled_at or stood.loaded_at).timestamp()
            yield Note(
                state="fails",
                say=phrase(
                    "{piece} is finished on {at}, {stands} before its water. {reason}",
                    piece=work.piece.name,
                    at=f"{stood.finished_at:%a %d %b, %H:%M}",
                    stands=duration((until - stood.finished_at.timestamp()) / 3600),
                    reason=after.reason,
                ),
            )


def _stood(work: PieceWork, timed: tuple[Timed, ...]) -> _Stood | None:
    """When a sheet finishes a piece and loads it; None where it is not made in the workshop."""
    own = [each for each in timed if each.task.piece_id == work.id and each.task.where == "workshop"]
    made = [each.ends_at for each in own if each.task.stage in _ON_THE_BENCH]
    loaded = [each.starts_at for each in timed if each.task.key.startswith("van:load:")]
    if not made or not loaded:
        return None
    return _Stood(finished_at=max(made), loaded_at=max(*made, min(loaded)))


def _longer(stood: _Stood, conditions: Conditions) -> bool:
    """Whether it stands longer than is reckoned with, on the bench or on the road."""
    finished, loaded = conditions.finished_at, conditions.loaded_at
    if finished is None or loaded is None:
        return False
    return stood.finished_at.timestamp() < finished.timestamp() or stood.loaded_at.timestamp() < loaded.timestamp()


def _waits(report: Report) -> Finding | None:
    """The worst of what Drink says of the time before the display."""
    every = (each for verdict in report.verdicts for each in (verdict.governing, *verdict.findings))
    return max(
        (each for each in every if each is not None and each.check == "waits"),
        key=lambda each: each.utilisation,
        default=None,
    )
