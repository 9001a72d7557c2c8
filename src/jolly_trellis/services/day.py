"""The day as a person works with it: worked out, stopped, remedies applied, tasks set by hand, times read in."""

import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.asked_twice import Asked, asked_twice
from jolly_trellis.core.event.day import Day, day_of
from jolly_trellis.core.event.job import CrewMember, Lock
from jolly_trellis.core.event.notes import Note
from jolly_trellis.core.event.old_keys import key_now
from jolly_trellis.core.event.remedies import Remedy, in_tubes, put_on_site, split
from jolly_trellis.core.event.sheet import NOBODY
from jolly_trellis.core.event.standing import standing_notes
from jolly_trellis.services import event_work, long_work, planning
from jolly_trellis.services.conditions import check_brief, job_of
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.planning import EventState, NotFound
from jolly_trellis.store.events import get_brief, list_events
from jolly_trellis.store.plan import Brief

_EXTRA_NAME = "one more"
_NEAR = timedelta(days=7)
_FIRST_SHEET_S = 2.0


@dataclass(frozen=True, slots=True, kw_only=True)
class DayState:
    """Where the day of an event stands: the best sheet so far, None at first; whether a better one is looked for.

    Its notes name whom other events ask for as well, once no better sheet is looked for.
    """

    day: Day | None
    running: bool


def begin(conn: sqlite3.Connection, event_id: int) -> Running[Day]:
    """The work on the day of an event, begun where there is none yet of the event as it stands.

    Raises: NotFound, CoreError.
    """
    return _running(event_work.work_of(conn, event_id))


def state(conn: sqlite3.Connection, event_id: int) -> DayState:
    """The day of an event; begun where it was not worked out yet for the event as it stands.

    Raises: NotFound, CoreError.
    """
    work = event_work.work_of(conn, event_id)
    running = _running(work)
    if running.problem is not None:
        raise running.problem
    day = running.best
    if running.done and day is not None:
        day = replace(day, notes=(*day.notes, *_asked_by_others(conn, work, day)))
    return DayState(day=day, running=not running.done)


def _asked_by_others(conn: sqlite3.Connection, work: EventWork, day: Day) -> Iterator[Note]:
    """Who of the crew is asked for by other events near this one, by their sheets as they stand now."""
    crew = {each.name.casefold() for each in work.job.crew}
    if not crew or work.job.filled_at is None:
        return
    others = []
    for row in list_events(conn):
        brief = get_brief(conn, row.id)
        if brief is None or row.id == work.event_id or not crew & {each.name.casefold() for each in brief.crew}:
            continue
        try:
            filled = job_of(brief).filled_at
            if filled is None or abs(filled - work.job.filled_at) > _NEAR:
                continue
            running = begin(conn, row.id)
        except CoreError:
            continue
        running.wait_for_first(_FIRST_SHEET_S)
        if running.best is not None:
            named = tuple(each.name for each in brief.crew)
            others.append(Asked(event=brief.name, crew=named, timed=running.best.timed))
    mine = Asked(event=work.plan.brief.name, crew=tuple(each.name for each in work.job.crew), timed=day.timed)
    yield from asked_twice(mine, others, work.job.zone)


def finished(conn: sqlite3.Connection, event_id: int) -> tuple[EventWork, Day]:
    """An event and its day, worked out to the end. Raises NotFound, CoreError."""
    work = event_work.work_of(conn, event_id)
    running = _running(work)
    running.wait(120.0)
    if running.problem is not None:
        raise running.problem
    return work, running.best or Day(timed=(), conflicts=(), lives=(), missing=())


def stop(conn: sqlite3.Connection, event_id: int) -> None:
    """End the search for a better sheet; the best so far stays. Raises NotFound, CoreError."""
    running = _running(event_work.work_of(conn, event_id))
    running.stop()
    running.wait(10.0)


def apply_remedy(conn: sqlite3.Connection, event_id: int, key: str, *, base_revision: int) -> EventState:
    """Make the change that a conflict offers. Raises NotFound: it offers it no longer; Stale."""
    _, day = finished(conn, event_id)
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
    work, day = finished(conn, event_id)
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
