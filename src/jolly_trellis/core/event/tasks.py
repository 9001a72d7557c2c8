"""The tasks of an event, made from its plans, those set by hand at their time."""

from dataclasses import replace
from datetime import datetime

from jolly_trellis.core.event.job import Job, Made
from jolly_trellis.core.event.task import Task
from jolly_trellis.core.event.tasks_before import before_the_drive
from jolly_trellis.core.event.tasks_there import at_the_place
from jolly_trellis.core.materials.stems import Variety


def tasks_of(job: Job, made: Made, varieties: dict[str, Variety]) -> tuple[Task, ...]:
    """Every task of an event. Where a time is not known its bound is left out; without `filled_at` none."""
    if job.filled_at is None:
        return ()
    start = job.filled_at
    found = list(before_the_drive(job, made, varieties, start))
    found += at_the_place(job, made, varieties, start)
    locks = {each.task: each.starts_at for each in job.locks}
    return tuple(
        replace(task, at=datetime.fromisoformat(locks[task.key]).replace(tzinfo=job.zone))
        if task.key in locks
        else task
        for task in found
    )
