"""Whether there can be hands enough for a time at all: work that must lie in it against the hours of the crew."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta

from jolly_trellis.core.books.time import Task, TimeBook
from jolly_trellis.core.event.job import Job
from jolly_trellis.core.event.sheet.people import DAY_BEGINS_H, WORK_MOST
from jolly_trellis.core.event.sheet.puzzle import AFTER


@dataclass(frozen=True, slots=True, kw_only=True)
class Lack:
    """Work from one time to another, h of all hands, and how many hours of them there are; in the workshop alone?"""

    since: datetime
    until: datetime
    work_h: float
    have_h: float
    workshop: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class _Bound:
    """A task's work between the soonest it begins and the latest it ends."""

    soonest: datetime
    latest: datetime
    work_h: float


def lack_of(book: TimeBook, job: Job) -> Lack | None:
    """Where most hours are lacking, whatever the order of the work; None where nothing proves that any are.

    What may not begin before a time and must be done by another lies between the two, so it cannot be more than the
    crew has hours then: those of the workshop for what is done there, any hours of a day for all of it.

    Source: the energy argument of scheduling, with days of `WORK_MOST`.
    """
    if job.filled_at is None:
        return None
    tasks = [each for each in book.tasks if each.stage not in AFTER]
    here = [each for each in tasks if each.where == "workshop"]
    loaded = max((each.latest for each in here if each.latest is not None), default=job.filled_at)
    workshop = list(_bounds(here, loaded))
    every = [*workshop, *_bounds([each for each in tasks if each.where != "workshop"], None)]
    found = [*_lacks(job, workshop, workshop=True), *_lacks(job, every, workshop=False)]
    return max(found, key=lambda each: each.work_h - each.have_h, default=None)


def _bounds(tasks: Iterable[Task], otherwise: datetime | None) -> Iterator[_Bound]:
    for each in tasks:
        latest = each.latest or otherwise
        if each.soonest is None or latest is None:
            continue
        if each.soonest.timestamp() + 60 * each.minutes <= latest.timestamp():
            yield _Bound(soonest=each.soonest, latest=latest, work_h=each.person_minutes / 60)


def _lacks(job: Job, bounds: list[_Bound], *, workshop: bool) -> Iterator[Lack]:
    for since in {each.soonest for each in bounds}:
        for until in {each.latest for each in bounds if each.latest > since}:
            work = sum(each.work_h for each in bounds if each.soonest >= since and each.latest <= until)
            have = max(1, len(job.crew)) * _hours(job, since, until, workshop=workshop)
            if work > have:
                yield Lack(since=since, until=until, work_h=work, have_h=have, workshop=workshop)


def _hours(job: Job, since: datetime, until: datetime, *, workshop: bool) -> float:
    """Hours that one person may work between two times."""
    day, total = since.astimezone(job.zone).date() - timedelta(days=1), 0.0
    while day <= until.astimezone(job.zone).date():
        if workshop:
            opens, closes = _at(job, day, job.hours.opens), _at(job, day, job.hours.closes)
        else:
            opens, closes = (_at(job, day + timedelta(days=nth), time(DAY_BEGINS_H)) for nth in (0, 1))
        open_for = min(closes, until.astimezone(UTC)) - max(opens, since.astimezone(UTC))
        total += min(max(open_for.total_seconds() / 3600, 0.0), WORK_MOST.value)
        day += timedelta(days=1)
    return total


def _at(job: Job, day: date, clock: time) -> datetime:
    return datetime.combine(day, clock, tzinfo=job.zone).astimezone(UTC)
