"""The book of time of an event, made from its plans, those tasks that are set by hand at their time."""

from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime

from jolly_trellis.core.books.time import Task, TimeBook
from jolly_trellis.core.event.job import Job, Made
from jolly_trellis.core.event.needs.bunches import StemBuy, buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.tasks.old_keys import key_now
from jolly_trellis.core.event.tasks.purchases import purchases_of
from jolly_trellis.core.event.tasks.tasks_before import Before, before_the_drive
from jolly_trellis.core.event.tasks.tasks_there import at_the_place
from jolly_trellis.core.materials.stems import Variety


def time_book(
    job: Job, made: Made, varieties: Mapping[str, Variety], bought: tuple[StemBuy, ...] | None = None
) -> TimeBook:
    """Every task of an event. Where a time is not known its bound is left out.

    Args:
        bought: how the stems are bought; None: all of them, nothing being here.
    """
    if bought is None:
        bought = buy_stems(needs_of(made).stems, varieties, waste=job.costing.waste, here={})
    before = Before(
        job=job,
        made=made,
        varieties=varieties,
        purchases=purchases_of(job, made, bought, varieties),
        start=job.filled_at,
    )
    found = list(before_the_drive(before))
    found += at_the_place(before, tuple(each for each in found if each.stage == "load"))
    at = {key_now(each.task): _time(job, each.starts_at) for each in job.locks}
    known = {each.key for each in found}
    return TimeBook(tasks=tuple(_set(_kept(each, known), at) for each in found))


def _kept(task: Task, known: set[str]) -> Task:
    """A task that waits only for what there is."""
    return replace(task, after=tuple(each for each in task.after if each.task in known))


def _set(task: Task, at: Mapping[str, datetime]) -> Task:
    return replace(task, at=at[task.key]) if task.key in at and task.stage != "top up" else task


def _time(job: Job, text: str) -> datetime:
    return datetime.fromisoformat(text).replace(tzinfo=job.zone)
