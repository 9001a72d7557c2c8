"""What is done to a part at the place beside placing and flowering it: bonded, weighed down, moved, handed over."""

from collections.abc import Iterator
from datetime import datetime

from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.books.time import Task, Wait, key_of
from jolly_trellis.core.event.job import Job, PieceWork, Work
from jolly_trellis.core.event.putting import acts_of_work
from jolly_trellis.core.event.sheet.task import PLACE_MIN, slots
from jolly_trellis.core.quantities import worded

BOND_MIN = measure("Time to bond a bowl to its support with putty", "minutes", 3.0)
WEIGH_MIN = measure("Time to lay or tie a weight on", "minutes", 2.0)
HAND_OVER_MIN = measure("Time to hand one piece over", "minutes", 2.0)


def steadied(job: Job, work: PieceWork, placed: Wait) -> Iterator[Task]:
    """The joint to its support, dry, before any water; the weight it counts on. Both before hands leave it."""
    piece, kinds = work.piece, _kinds(work)
    steps = []
    if piece.support is not None and piece.support.putty:
        why = "putty holds on what is clean and dry"
        steps.append(("bond", "Bond to its support: {part}", BOND_MIN.value, why))
    if "lay the weight" in kinds and piece.counterweight is not None:
        words = "Tie on its weight: {part}" if piece.counterweight.tied else "Lay its weight: {part}"
        steps.append(("weigh", words, WEIGH_MIN.value, "it counts on its weight from here on"))
    follows = placed
    for what, words, minutes, why in steps:
        task = Task(
            key=key_of(work.id, what),
            stage="install",
            name=worded(words, part=piece.name),
            where="venue",
            minutes=slots(minutes * piece.quantity),
            soonest=job.access_at,
            latest=job.filled_at,
            after=(follows,),
            piece_id=work.id,
            why=why,
        )
        follows = Wait(task=task.key)
        yield task


def moved(job: Job, work: PieceWork, after: tuple[Wait, ...]) -> Iterator[Task]:
    """A piece that is taken elsewhere while the event lasts."""
    if "move" in _kinds(work):
        yield Task(
            key=key_of(work.id, "move"),
            stage="install",
            name=worded("Move to the {where}: {part}", where=work.piece.setting.moves_to or "", part=work.piece.name),
            where="venue",
            minutes=slots(PLACE_MIN.value * work.piece.quantity),
            soonest=job.starts_at,
            latest=job.ends_at,
            after=after,
            piece_id=work.id,
            why="it is shown in two places",
        )


def handed_over(job: Job, work: Work, after: tuple[Wait, ...]) -> Iterator[Task]:
    """What somebody is given before the event: to whom, where, by when; it is in water until then."""
    if not isinstance(work, PieceWork) or work.piece.passage.handover is None:
        return
    piece, over = work.piece, work.piece.passage.handover
    minutes = slots(HAND_OVER_MIN.value * piece.quantity)
    by = handed_by(job, work)
    words = "Hand over to {to}, {where}: {part}" if over.where else "Hand over to {to}: {part}"
    yield Task(
        key=key_of(work.id, "hand-over"),
        stage="install",
        name=worded(words, to=over.to, where=over.where, part=piece.name),
        where="venue",
        minutes=minutes,
        soonest=job.access_at,
        latest=by,
        after=after,
        piece_id=work.id,
        why=worded("{to} has it by {at}", to=over.to, at=f"{by:%H:%M}") if by is not None else "",
    )


def handed_by(job: Job, work: PieceWork) -> datetime | None:
    """When a piece is handed over at the latest: as somebody said, else as the guests come; None not known."""
    over = work.piece.passage.handover
    at = None if over is None else over.local()
    return job.starts_at if at is None else at.replace(tzinfo=job.zone)


def _kinds(work: Work) -> frozenset[str]:
    return frozenset(act.kind for act in acts_of_work(work, {}))
