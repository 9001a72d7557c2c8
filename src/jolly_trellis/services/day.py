"""The day as a person works with it: worked out, stopped, remedies applied, tasks set by hand, times read in."""

import sqlite3
from collections.abc import Iterator
from contextlib import closing, suppress
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

from jolly_trellis.core.errors import CoreError, Unfinished
from jolly_trellis.core.event.day.asked_twice import Asked, asked_twice
from jolly_trellis.core.event.day.day import Day, day_of
from jolly_trellis.core.event.day.notes import Note
from jolly_trellis.core.event.day.remedies import Remedy, in_tubes, put_on_site, split
from jolly_trellis.core.event.day.standing import standing_notes
from jolly_trellis.core.event.job import CrewMember, Lock
from jolly_trellis.core.event.sheet.puzzle import NOBODY
from jolly_trellis.core.event.sheet.schedule import Timed, schedule
from jolly_trellis.core.event.tasks.old_keys import key_now
from jolly_trellis.core.quantities import phrase
from jolly_trellis.services import event_work, long_work, planning
from jolly_trellis.services.conditions import check_brief, job_of
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.planning import EventState, NotFound
from jolly_trellis.store.connection import open_database
from jolly_trellis.store.events import get_brief, list_events
from jolly_trellis.store.plan import Brief

_EXTRA_NAME = "one more"
_NEAR = timedelta(days=7)
_FIRST_SHEET_S = 10.0


@dataclass(frozen=True, slots=True, kw_only=True)
class DayState:
    """Where the day of an event stands: the best sheet so far, None at first; whether a better one is looked for.

    Its notes name whom other events ask for as well, once those were looked at.
    """

    day: Day | None
    running: bool


def begin(conn: sqlite3.Connection, event_id: int) -> Running[Day]:
    """The work on the day of an event, begun where there is none yet of the event as it stands.

    Raises: NotFound, CoreError.
    """
    return _running(event_work.work_of(conn, event_id))


def begin_others(conn: sqlite3.Connection, event_id: int) -> Running[Any]:
    """The look at other events that ask for the same people, begun where it is not yet. Raises NotFound, CoreError."""
    return _others(conn, event_work.work_of(conn, event_id))


def state(conn: sqlite3.Connection, event_id: int) -> DayState:
    """The day of an event; begun where it was not worked out yet for the event as it stands.

    Raises: NotFound, CoreError.
    """
    work = event_work.work_of(conn, event_id)
    running = _running(work)
    if running.problem is not None:
        raise running.problem
    day, others = running.best, _others(conn, work)
    if day is not None and others.best is not None:
        day = replace(day, notes=(*day.notes, *_asked_by_others(work, day, others.best)))
    return DayState(day=day, running=not (running.done and others.done))


@dataclass(frozen=True, slots=True, kw_only=True)
class _Other:
    """Another event that asks for some of the same people: its list sheet, and what a better one would be found by."""

    asked: Asked
    made_for: str


def _others(conn: sqlite3.Connection, work: EventWork) -> Running[tuple[_Other, ...]]:
    """The list sheets of other events near this one that ask for some of its people, worked out beside everything."""
    path = Path(work.kept_in)
    crew = {each.id for each in work.job.crew}

    def go(running: Running[tuple[_Other, ...]]) -> tuple[_Other, ...]:
        found = []
        if work.job.filled_at is None or not crew:
            return ()
        with closing(open_database(path)) as own:
            for row in list_events(own):
                brief = get_brief(own, row.id)
                if running.stopping:
                    break
                if brief is None or row.id == work.event_id or not _near(brief, work.job.filled_at, crew):
                    continue
                with suppress(CoreError, NotFound):
                    found.append(_other(event_work.work_of(own, row.id)))
        return tuple(found)

    return long_work.start(("others", work.event_id, event_work.mark_of_all(conn), work.made_for), go)


def _near(brief: Brief, filled_at: datetime, crew: set[str]) -> bool:
    """Whether an event is within a week of another and asks for some of its people."""
    if not crew & {each.id for each in brief.crew}:
        return False
    try:
        filled = job_of(brief).filled_at
    except CoreError:
        return False
    return filled is not None and abs(filled - filled_at) <= _NEAR


def _other(work: EventWork) -> _Other:
    sheet = schedule(event_work.book_of(work).tasks, work.job, effort=0)
    return _Other(asked=_asked(work, sheet.timed), made_for=work.made_for)


def _asked(work: EventWork, timed: tuple[Timed, ...]) -> Asked:
    return Asked(event=work.plan.brief.name, crew=work.job.crew, timed=timed)


def _asked_by_others(work: EventWork, day: Day, others: tuple[_Other, ...]) -> Iterator[Note]:
    """Who of the crew is asked for by others too, by the sheets that are shown of them."""
    theirs = []
    for each in others:
        better = long_work.find(("day", each.made_for))
        shown = each.asked
        if better is not None and isinstance(better.best, Day):
            shown = replace(shown, timed=better.best.timed)
        theirs.append(shown)
    yield from asked_twice(_asked(work, day.timed), theirs, work.job.zone)


def sheet_of(conn: sqlite3.Connection, event_id: int) -> tuple[EventWork, Day]:
    """An event and its day, as far as it is worked out; nothing but its first sheet is waited for.

    Raises: NotFound; CoreError: the brief cannot be, or there is no sheet yet.
    """
    work = event_work.work_of(conn, event_id)
    running = _running(work)
    running.wait_for_first(_FIRST_SHEET_S)
    if running.problem is not None:
        raise running.problem
    if running.best is None:
        raise Unfinished(
            path="",
            message=phrase("The day is still being worked out."),
            limit=phrase("Ask again in a moment."),
        )
    return work, running.best


def stop(conn: sqlite3.Connection, event_id: int) -> None:
    """End the search for a better sheet; the best so far stays. Raises NotFound, CoreError."""
    work = event_work.work_of(conn, event_id)
    running = _running(work)
    _others(conn, work).stop()
    running.stop()
    running.wait(10.0)


def apply_remedy(conn: sqlite3.Connection, event_id: int, key: str, *, base_revision: int) -> EventState:
    """Make the change that a conflict offers. Raises NotFound: it offers it no longer; Stale."""
    _, day = sheet_of(conn, event_id)
    found = next((each for conflict in day.conflicts for each in conflict.remedies if each.key == key), None)
    if found is None:
        raise NotFound(f"remedy {key}")
    if found.kind == "tubes":
        return _with_tubes(conn, event_id, found, base_revision)
    if found.kind == "on site":
        variety = found.variety
        return planning.put_recipes(
            conn,
            event_id,
            lambda recipe: put_on_site(recipe, variety),
            base_revision=base_revision,
            label=f"{variety.replace('-', ' ').capitalize()} on site",
        )
    brief = planning.brief_of(conn, event_id)
    return planning.put_brief(conn, event_id, _mended(brief, found), base_revision=base_revision)


def lock(conn: sqlite3.Connection, event_id: int, task: str, at: str | None, *, base_revision: int) -> EventState:
    """Set a task to a time by hand, or let it go again (None), which always works.

    Raises: NotFound: no such task; InvalidMeasure: no time, or one the clocks skip; Stale.
    """
    brief = planning.brief_of(conn, event_id)
    if at is not None:
        work = event_work.work_of(conn, event_id)
        if task not in event_work.book_of(work).by_key():
            raise NotFound(f"task {task}")
    elif all(key_now(each.task) != key_now(task) for each in brief.locks):
        raise NotFound(f"task {task}")
    others = tuple(each for each in brief.locks if key_now(each.task) != key_now(task))
    locks = others if at is None else (*others, Lock(task=task, starts_at=at))
    changed = replace(brief, locks=locks)
    check_brief(changed)
    return planning.put_brief(conn, event_id, changed, base_revision=base_revision)


def read_times(
    conn: sqlite3.Connection, event_id: int, times: dict[str, datetime], *, base_revision: int
) -> tuple[EventState, tuple[str, ...], tuple[str, ...]]:
    """Take changed times of a calendar in as locks.

    Args:
        times: start by task key, aware.
    Returns: the event; names of tasks that were moved; keys that are no task of it.
    Raises: NotFound, Stale, InvalidMeasure.
    """
    work, day = sheet_of(conn, event_id)
    known = {each.task.key: each for each in day.timed}
    moved = {
        key: at.astimezone(work.job.zone)
        for key, at in times.items()
        if key in known and at.timestamp() != known[key].starts_at.timestamp()
    }
    brief = work.plan.brief
    locks = {key_now(each.task): each for each in brief.locks}
    for key, at in moved.items():
        locks[key] = Lock(task=key, starts_at=at.strftime("%Y-%m-%dT%H:%M"))
    changed = replace(brief, locks=tuple(locks.values()))
    check_brief(changed)
    state_now = planning.put_brief(conn, event_id, changed, base_revision=base_revision)
    return state_now, tuple(known[key].task.name for key in moved), tuple(key for key in times if key not in known)


def _running(work: EventWork) -> Running[Day]:
    def go(running: Running[Day]) -> Day:
        day = day_of(
            work.job,
            work.made,
            work.conditions.varieties,
            bought=event_work.bought_of(work),
            tell=running.tell,
            stop=lambda: running.stopping,
        )
        return replace(day, notes=(*day.notes, *standing_notes(work.made, work.conditions, day.timed)))

    return long_work.start(("day", work.made_for), go)


def _mended(brief: Brief, remedy: Remedy) -> Brief:
    match remedy.kind:
        case "hands":
            crew = brief.crew or (NOBODY,)
            more = tuple(CrewMember(name=f"{_EXTRA_NAME} {nth + 1}") for nth in range(remedy.hands))
            return replace(brief, crew=crew + more)
        case "greens":
            return replace(brief, greens_sooner=True)
        case "split":
            return replace(brief, crew=split(brief.crew))
        case "hours":
            return replace(brief, opens=remedy.opens)
        case _:
            return replace(brief, locks=tuple(each for each in brief.locks if each.task != remedy.task))


def _with_tubes(conn: sqlite3.Connection, event_id: int, remedy: Remedy, base_revision: int) -> EventState:
    """The variety of one part in tubes. Raises NotFound, Stale."""
    number = remedy.piece_id or 0
    part, _ = planning.part_of(conn, event_id, number)
    label = f"Tubes for {remedy.variety}"

    changed = replace(part, recipe=in_tubes(part.recipe, remedy.variety, remedy.tube))
    return planning.put_part(conn, event_id, number, changed, base_revision=base_revision, label=label)
