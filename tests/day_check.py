"""A run sheet checked against every window, follower, lane and opening hour, written apart from the scheduler."""

from datetime import datetime, timedelta
from itertools import pairwise

from jolly_trellis.core.event.job import Job
from jolly_trellis.core.event.schedule import Timed
from jolly_trellis.core.event.task import Task


def problems_of(timed: tuple[Timed, ...], tasks: tuple[Task, ...], job: Job, *, let_off: frozenset[str]) -> list[str]:
    """Everything a sheet breaks; `let_off` are tasks whose own bounds leave no room for them."""
    at = {each.task.key: each for each in timed}
    found = [] if set(at) == {each.key for each in tasks} else ["a task is missing or made up"]
    for task in tasks:
        mine = at[task.key]
        begin, end = mine.starts_at.timestamp(), mine.ends_at.timestamp()
        if end - begin != 60 * task.minutes:
            found.append(f"{task.key} does not take its minutes")
        if len(set(mine.crew)) != min(task.hands, max(len(job.crew), 1)):
            found.append(f"{task.key} has not its hands")
        if task.at is not None:
            if not 0 <= task.at.timestamp() - begin < 300:
                found.append(f"{task.key} is not at its fixed time")
            continue
        if task.key not in let_off:
            if task.soonest is not None and begin < task.soonest.timestamp():
                found.append(f"{task.key} starts too soon")
            if task.latest is not None and end > task.latest.timestamp():
                found.append(f"{task.key} ends too late")
        if task.where == "workshop" and task.stage != "return" and not _open(mine.starts_at, mine.ends_at, job):
            found.append(f"{task.key} is done when the workshop is shut")
        for key in task.after:
            rest = at[key].task.rest_min if task.stage in ("green", "flower", "tubes") else 0
            if key in at and begin < at[key].ends_at.timestamp() + 60 * rest:
                found.append(f"{task.key} starts before {key} is done and has rested")
    return found + _doubled(timed)


def _open(start: datetime, end: datetime, job: Job) -> bool:
    opens = datetime.combine(start.date(), job.hours.opens, tzinfo=job.zone)
    closes = datetime.combine(start.date(), job.hours.closes, tzinfo=job.zone)
    return opens <= start and end <= closes + timedelta(0)


def _doubled(timed: tuple[Timed, ...]) -> list[str]:
    """People who are asked to do two things at once."""
    found = []
    for person in {one for each in timed for one in each.crew}:
        mine = sorted(
            (each.starts_at.timestamp(), each.ends_at.timestamp(), each.task.key)
            for each in timed
            if person in each.crew
        )
        for (_, end, key), (start, _, other) in pairwise(mine):
            if start < end:
                found.append(f"{person} does {key} and {other} at once")
    return found
