"""What goes in only where a part is shown: there, once it is moved, or last before guests come."""

from collections.abc import Iterator, Mapping
from datetime import datetime, timedelta

from jolly_trellis.core.acts.acts import ActKind
from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.time import Task, Wait, key_of
from jolly_trellis.core.event.job import Job, Work, name_of, quantity_of
from jolly_trellis.core.event.putting import puts_of
from jolly_trellis.core.event.sheet.lives import lasts_words, soonest_use
from jolly_trellis.core.event.sheet.task import (
    is_green,
    later,
    numbered,
    parts_of,
)
from jolly_trellis.core.event.tasks.tasks_before import Before
from jolly_trellis.core.making.steps import MINUTES_PER_STEM
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import worded

LAST_SLACK = rule("What goes in last is in before guests come by", "minutes", 15)


def on_site(
    before: Before, ready: datetime | None, own: Mapping[int, tuple[Wait, ...]], otherwise: tuple[Wait, ...]
) -> Iterator[Task]:
    """What goes in only where the part is shown: there, once it is moved, or last before guests."""
    by: dict[ActKind, datetime | None] = {
        "flower there": ready,
        "flower after the move": None,
        "flower last": _last_by(before.job),
    }
    for work in before.made.works:
        for act, latest in by.items():
            follows = own.get(work.id, otherwise)
            if act == "flower after the move":
                follows = (*follows, Wait(task=key_of(work.id, "move")))
            yield from _at_act(before, work, act, latest, follows)


def _at_act(
    before: Before, work: Work, act: ActKind, latest: datetime | None, follows: tuple[Wait, ...]
) -> Iterator[Task]:
    """What goes into a part at one act: greens, then by variety what does not drink, the rest together."""
    job, known = before.job, before.varieties
    lines = [put.line for put in puts_of(work, known) if put.act == act and put.line.variety in known]
    alone = [line for line in lines if soonest_use(job, line, known[line.variety]) is not None]
    groups = [([line], line.variety) for line in alone]
    groups += [([line for line in lines if line not in alone], "")]
    groups.sort(key=lambda group: not any(is_green(line, known) for line in group[0]))
    for group, named in groups:
        if group:
            tasks = list(_into(before, work, latest, group, named, follows, act))
            yield from tasks
            if any(is_green(line, known) for line in group):
                follows = (*follows, *(Wait(task=each.key) for each in tasks))


def _last_by(job: Job) -> datetime | None:
    """When what goes in last, before guests, is in."""
    return None if job.starts_at is None else job.starts_at - timedelta(minutes=LAST_SLACK.value)


def _into(
    before: Before,
    work: Work,
    ready: datetime | None,
    lines: list[RecipeLine],
    named: str,
    follows: tuple[Wait, ...],
    act: ActKind,
) -> Iterator[Task]:
    """The tasks of one group of stems that go into a part at the place, at one act."""
    what = {"flower after the move": "moved", "flower last": "last"}.get(act, "on-site")
    job, stems = before.job, sum(line.count for line in lines) * quantity_of(work)
    parts = parts_of(stems * MINUTES_PER_STEM.value)
    variety = before.varieties[named] if named else None
    soonest, why = job.access_at, "thirsty flowers go in last"
    if variety is not None:
        least = soonest_use(job, lines[0], variety)
        soonest = soonest if least is None else later(soonest, least)
        why = lasts_words(job, lines[0], variety)
    words = "On site: {n} {n|stem|stems} into {part}" if variety is None else "On site: {n} {variety} into {part}"
    name = worded(words, n=stems, variety="" if variety is None else variety.name, part=name_of(work))
    for nth, minutes in enumerate(parts):
        yield Task(
            key=key_of(work.id, f"{what}-{named}" if named else what, nth + 1),
            stage="on site",
            name=numbered(name, nth, len(parts)),
            where="venue",
            minutes=minutes,
            soonest=soonest,
            latest=ready,
            after=follows,
            piece_id=work.id,
            variety=named or None,
            varieties=tuple(sorted({line.variety for line in lines})),
            why=why,
        )
