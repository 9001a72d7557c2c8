"""Calendars of an event, of all or of one person: what is new, what has changed since, what is called off."""

import sqlite3
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from jolly_trellis.core.event.day.day import Day
from jolly_trellis.core.event.job import CrewMember, Job
from jolly_trellis.core.event.sheet.puzzle import NOBODY
from jolly_trellis.core.event.sheet.schedule import Timed
from jolly_trellis.core.event.tasks.entries import Entry, KeptEntry
from jolly_trellis.core.units import render
from jolly_trellis.services import day as days
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import calendars
from jolly_trellis.store.connection import transaction

EVERYBODY = ""


def told(
    conn: sqlite3.Connection, event_id: int, person: str = EVERYBODY, now: datetime | None = None
) -> tuple[Job, str, tuple[KeptEntry, ...]]:
    """The run sheet as a calendar is told it, and kept as told.

    What has changed since it was told last has one more SEQUENCE and a new stamp; a task that is no more, or is
    somebody else's now, is told once more as called off.

    Args:
        person: the `id` of one of the crew; "" for the calendar of all. now: when it is told.
    Returns: the job, the name of the event, the entries in the order of the day.
    Raises: NotFound: no such person, or event; CoreError.
    """
    work, day = days.sheet_of(conn, event_id)
    crew = work.job.crew or (NOBODY,)
    if person not in (EVERYBODY, *(each.id for each in crew)):
        raise NotFound(f"person {person}")
    stamp = (now or datetime.now(UTC)).replace(microsecond=0)
    found = list(_entries(day, crew, person))
    entries = _told_now(found, calendars.entries(conn, event_id, person), stamp)
    if entries.changed:
        with transaction(conn):
            entries = _told_now(found, calendars.entries(conn, event_id, person), stamp)
            for each in entries.changed:
                calendars.put_entry(conn, event_id, person, each)
    return work.job, work.plan.brief.name, entries.every


@dataclass(frozen=True, slots=True, kw_only=True)
class _ToldNow:
    """Entries as they are told now, and those of them that are not kept so yet."""

    every: tuple[KeptEntry, ...]
    changed: tuple[KeptEntry, ...]


def _told_now(found: list[Entry], known: dict[str, KeptEntry], stamp: datetime) -> _ToldNow:
    kept = [_next(each, known.get(each.task), stamp) for each in found]
    there = {entry.task for entry in found}
    gone = [
        each if each.cancelled else replace(each, sequence=each.sequence + 1, stamped_at=stamp, cancelled=True)
        for key, each in known.items()
        if key not in there
    ]
    every = (*kept, *gone)
    return _ToldNow(every=every, changed=tuple(each for each in every if known.get(each.entry.task) != each))


def _next(entry: Entry, before: KeptEntry | None, stamp: datetime) -> KeptEntry:
    if before is None:
        return KeptEntry(entry=entry, sequence=0, stamped_at=stamp, cancelled=False)
    if before.entry == entry and not before.cancelled:
        return before
    return KeptEntry(entry=entry, sequence=before.sequence + 1, stamped_at=stamp, cancelled=False)


def _entries(day: Day, crew: Sequence[CrewMember], person: str) -> Iterator[Entry]:
    names = [each.name for each in crew]
    for timed in day.timed:
        if person in (EVERYBODY, *(crew[each].id for each in timed.crew if each < len(crew))):
            yield _entry(timed, timed.who(names))


def _entry(timed: Timed, who: tuple[str, ...]) -> Entry:
    task = timed.task
    said = [
        "" if task.gate is None else render(task.gate, "metric"),
        f"Who: {', '.join(who)}." if who else "",
        f"{task.why[:1].upper()}{task.why[1:]}." if task.why else "",
    ]
    return Entry(
        task=task.key,
        starts_at=timed.starts_at.isoformat(),
        ends_at=timed.ends_at.isoformat(),
        summary=task.name if task.gate is None else f"NOT CLEARED: {task.name}",
        location=task.where,
        description=" ".join(each for each in said if each),
    )
