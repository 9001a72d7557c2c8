"""What is hired fetched from its lender on the day it comes, and brought back on the day it goes."""

from collections.abc import Iterator
from datetime import date, datetime

from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.books.time import Stage, Task, Wait, key_of
from jolly_trellis.core.event.job import Hire, Job, PieceWork, Work
from jolly_trellis.core.event.keys import slug
from jolly_trellis.core.event.needs.needs import things_in
from jolly_trellis.core.event.sheet.task import slots
from jolly_trellis.core.quantities import worded

HIRE_TRIP_MIN = measure("Time to fetch or bring back what is hired, one way to one lender", "minutes", 45)
_FARTHEST_DAYS = 60


def fetched_hires(job: Job) -> Iterator[Task]:
    """One way to each lender on each day that something of theirs comes."""
    for key, (day, hires) in _trips(job, comes=True).items():
        yield _trip(
            job, key, "hire", worded("Fetch what is hired from {lenders}", lenders=_lenders(hires)), day, hires
        )


def brought_back(job: Job, home: tuple[Wait, ...]) -> Iterator[Task]:
    """One way to each lender on each day that something of theirs goes back, when it is home."""
    for key, (day, hires) in _trips(job, comes=False).items():
        yield _trip(job, key, "return", worded("Bring back to {lenders}", lenders=_lenders(hires)), day, hires, home)


def waits_for_hires(job: Job, work: Work | None = None) -> tuple[Wait, ...]:
    """What a part, or with None the van, waits for: what it stands in or is made with, fetched where it is hired."""
    own: set[str] | None = None
    if work is not None:
        own = {each.thing for each in things_in(work.piece)} if isinstance(work, PieceWork) else set()
    return tuple(
        Wait(task=key)
        for key, (_, hires) in _trips(job, comes=True).items()
        if own is None or any(each.of in own for each in hires)
    )


def _trips(job: Job, *, comes: bool) -> dict[str, tuple[str, list[Hire]]]:
    """The day of each way and what is hired on it, by the key of its task, the first day first."""
    found: dict[str, tuple[str, list[Hire]]] = {}
    for each in sorted(job.hires, key=lambda hire: hire.comes if comes else hire.goes_back):
        day, what = (each.comes, "hire") if comes else (each.goes_back, "bring-back")
        key = key_of(f"{each.lender_key or slug(each.lender)}-{day}", what)
        found.setdefault(key, (day, []))[1].append(each)
    return found


def _lenders(hires: list[Hire]) -> str:
    return " and ".join(dict.fromkeys(each.lender for each in hires))


def _trip(
    job: Job, key: str, stage: Stage, verb: str, day: str, hires: list[Hire], after: tuple[Wait, ...] = ()
) -> Task:
    return Task(
        key=key,
        stage=stage,
        name=f"{verb}: {', '.join(f'{each.number} {each.name}' for each in hires)}",
        where="supplier",
        minutes=slots(HIRE_TRIP_MIN.value),
        skills=("drives",),
        windows=tuple(_on(job, date.fromisoformat(day))),
        after=after,
        why="on the day agreed with the lender, in the workshop's hours",
    )


def _on(job: Job, day: date) -> Iterator[tuple[datetime, datetime]]:
    """The workshop's hours of a day; none for one so far from the event that its sheet does not reach it."""
    if job.filled_at is None or abs((job.filled_at.date() - day).days) > _FARTHEST_DAYS:
        return
    yield (
        datetime.combine(day, job.hours.opens, tzinfo=job.zone),
        datetime.combine(day, job.hours.closes, tzinfo=job.zone),
    )
