"""A run sheet checked against every window, wait, lane, skill, shift and rest, written apart from the scheduler."""

from collections import defaultdict
from datetime import date, datetime, time, timedelta
from itertools import pairwise

from jolly_trellis.core.books.time import Task
from jolly_trellis.core.event.job import Job
from jolly_trellis.core.event.sheet.schedule import Timed

Found = set[tuple[str, str]]


def problems_of(timed: tuple[Timed, ...], tasks: tuple[Task, ...], job: Job) -> Found:
    """Everything a sheet breaks: what kind of thing, at which task or for whom."""
    at = {each.task.key: each for each in timed}
    found: Found = set() if set(at) == {each.key for each in tasks} else {("tasks", "one is missing or made up")}
    crew = [each.name for each in job.crew] or ["you"]
    for task in tasks:
        mine = at[task.key]
        begin, end = mine.starts_at.timestamp(), mine.ends_at.timestamp()
        if end - begin != 60 * max(task.minutes, 5):
            found.add(("minutes", task.key))
        if len(set(mine.crew)) != min(task.hands, len(crew)) and len(mine.crew) != task.hands:
            found.add(("number", task.key))
        if any(each >= len(crew) for each in mine.crew):
            found.add(("hands", task.key))
        if task.at is not None and not 0 <= task.at.timestamp() - begin < 300:
            found.add(("fixed", task.key))
        if task.soonest is not None and begin < task.soonest.timestamp():
            found.add(("access" if task.stage in ("drive", "install", "fill") else "early", task.key))
        if task.latest is not None and end > task.latest.timestamp():
            found.add(("late", task.key))
        spans = [(opens.timestamp(), closes.timestamp()) for opens, closes in task.windows]
        if not spans and task.where == "workshop":
            spans = [_hours(mine.starts_at, job, late=task.stage == "return")]
        if spans and not any(opens <= begin and end <= closes for opens, closes in spans):
            found.add(("shut", task.key))
        for wait in task.after:
            if begin < at[wait.task].ends_at.timestamp() + 60 * wait.minutes:
                found.add(("order", task.key))
        able = [set(job.crew[each].skills) for each in mine.crew if each < len(job.crew)]
        if task.skills and able and len(able) == len(mine.crew) and not any(set(task.skills) <= each for each in able):
            found.add(("skill", task.key))
    return found | _of_people(timed, job, crew)


def _hours(start: datetime, job: Job, *, late: bool) -> tuple[float, float]:
    opens = datetime.combine(start.date(), job.hours.opens, tzinfo=job.zone)
    shuts = max(job.hours.closes, time(23)) if late else job.hours.closes
    closes = datetime.combine(start.date(), shuts, tzinfo=job.zone)
    return opens.timestamp(), closes.timestamp()


def _of_people(timed: tuple[Timed, ...], job: Job, crew: list[str]) -> Found:
    """Two things at once; a day too long, too much work, no break, too little rest; outside one's hours."""
    found: Found = set()
    for place, name in enumerate(crew):
        mine = sorted((each for each in timed if place in each.crew), key=lambda each: each.starts_at.timestamp())
        for one, other in pairwise(mine):
            if other.starts_at.timestamp() < one.ends_at.timestamp():
                found.add(("at once", other.task.key))
        for one, other in pairwise(mine):
            apart = other.starts_at.timestamp() - one.ends_at.timestamp()
            moves = _stands_after(one) != _stands_before(other)
            if moves and apart < 3600 * (job.travel_h or 0.0):
                found.add(("place", other.task.key))
        days: dict[date, list[tuple[float, float]]] = defaultdict(list)
        for each in mine:
            span = (each.starts_at.timestamp(), each.ends_at.timestamp())
            days[(each.starts_at - timedelta(hours=4)).date()].append(span)
            if job.crew and not _inside(each, place, job):
                found.add(("shift", each.task.key))
        for spans in list(days.values()):
            found |= {(kind, name) for kind in _day(spans)}
        for day, spans in list(days.items()):
            after = days.get(day + timedelta(days=1))
            if after and after[0][0] - max(end for _, end in spans) < 11 * 3600:
                found.add(("rest", name))
    return found


def _stands_before(each: Timed) -> str:
    """Where somebody must be to begin it: the way back begins at the place."""
    if each.task.where == "road":
        return "place" if each.task.name == "Drive back" else "here"
    return "place" if each.task.where == "venue" else "here"


def _stands_after(each: Timed) -> str:
    """Where it leaves somebody: the way there ends at the place."""
    if each.task.where == "road":
        return "here" if each.task.name == "Drive back" else "place"
    return _stands_before(each)


def _day(spans: list[tuple[float, float]]) -> set[str]:
    kinds = set()
    if sum(end - start for start, end in spans) > 10 * 3600:
        kinds.add("work")
    if max(end for _, end in spans) - spans[0][0] > 12 * 3600:
        kinds.add("span")
    run = spans[0][1] - spans[0][0]
    for (_, before), (start, end) in pairwise(spans):
        run = (0.0 if start - before >= 1800 else run) + end - start
        if run > 6 * 3600:
            kinds.add("break")
    return kinds


def _inside(each: Timed, place: int, job: Job) -> bool:
    member = job.crew[place]
    if member.comes is None or member.goes is None:
        return True
    for back in (0, 1):
        day = each.starts_at.date() - timedelta(days=back)
        comes = datetime.fromisoformat(f"{day}T{member.comes}").replace(tzinfo=job.zone)
        goes = datetime.fromisoformat(f"{day}T{member.goes}").replace(tzinfo=job.zone)
        goes = goes if goes > comes else goes + timedelta(days=1)
        if comes <= each.starts_at and each.ends_at <= goes:
            return True
    return False
