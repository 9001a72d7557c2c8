"""The day: the run sheet, worked out in the background; remedies, tasks set by hand, water rounds, the calendar."""

import sqlite3
from datetime import datetime
from typing import Annotated

from fastapi import APIRouter, Request
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, Field

from jolly_trellis.api.deps import Connection, DayDone, Number, wait_for
from jolly_trellis.api.models import BasedOn, Moment
from jolly_trellis.core.event.day.day import Day
from jolly_trellis.core.event.job import CrewMember
from jolly_trellis.core.event.sheet.puzzle import NOBODY
from jolly_trellis.core.event.tasks.water_rounds import WaterRounds
from jolly_trellis.exchange.calendar import read_times
from jolly_trellis.services import day as days
from jolly_trellis.services import event_work, planning
from jolly_trellis.store.calendars import installation
from jolly_trellis.store.plan import Brief

router = APIRouter(prefix="/api/events/{event_id}", tags=["day"])


class ApplyRemedy(BasedOn):
    key: Annotated[str, Field(min_length=1, max_length=200)]


class SetTask(BasedOn):
    """A task and when it starts, local; None lets it go again."""

    task: Annotated[str, Field(min_length=1, max_length=120, pattern=r"^[A-Za-z0-9:-]+$")]
    starts_at: Moment | None


class ReadCalendar(BasedOn):
    text: Annotated[str, Field(min_length=1, max_length=900_000)]


class DayOut(BaseModel):
    """The day as it stands: the best sheet so far, whether a better one is looked for, water, and the brief.

    `parts` are the names of the event's parts by their numbers.
    """

    revision: int
    undo: str | None
    redo: str | None
    brief: Brief
    parts: dict[int, str]
    crew: list[CrewMember]
    day: Day | None
    running: bool
    water: WaterRounds


class CalendarRead(BaseModel):
    """What a calendar changed: tasks moved by name, entries that are no task."""

    moved: list[str]
    unknown: list[str]
    day: DayOut


@router.get("/day")
async def get_day(
    event_id: Number, request: Request, conn: Connection, wait_s: Annotated[float, Field(ge=0, le=60)] = 0.0
) -> DayOut:
    """The day; begun where it was not worked out yet for the event as it stands. `wait_s`: how long for its end."""
    await wait_for(request, lambda waiting: days.begin(waiting, event_id), wait_s)
    await wait_for(request, lambda waiting: days.begin_others(waiting, event_id), wait_s)
    return await run_in_threadpool(_day_out, event_id, conn)


def _day_out(event_id: int, conn: sqlite3.Connection) -> DayOut:
    state = days.state(conn, event_id)
    event = planning.state(conn, event_id)
    return DayOut(
        revision=event.event.revision,
        undo=event.undo,
        redo=event.redo,
        brief=event.plan.brief,
        parts={each.id: each.part.name for each in event.plan.parts},
        crew=list(event.plan.brief.crew) or [NOBODY],
        day=state.day,
        running=state.running,
        water=event_work.water_of(event_work.work_of(conn, event_id)),
    )


@router.post("/day/stop")
def stop_day(event_id: Number, conn: Connection) -> DayOut:
    """End the search; the best so far is kept."""
    days.stop(conn, event_id)
    return _day_out(event_id, conn)


@router.post("/day/remedy", dependencies=[DayDone])
def apply_remedy(event_id: Number, body: ApplyRemedy, conn: Connection) -> DayOut:
    days.apply_remedy(conn, event_id, body.key, base_revision=body.base_revision)
    return _day_out(event_id, conn)


@router.put("/day/lock")
def set_task(event_id: Number, body: SetTask, conn: Connection) -> DayOut:
    """Set a task to a time by hand, the rest moves round it; or let it go."""
    days.lock(conn, event_id, body.task, body.starts_at, base_revision=body.base_revision)
    return _day_out(event_id, conn)


@router.post("/day/calendar")
async def read_calendar(event_id: Number, body: ReadCalendar, request: Request, conn: Connection) -> CalendarRead:
    """Take changed times of a calendar that was saved from here as tasks set by hand."""
    times = await run_in_threadpool(lambda: read_times(body.text, event_id, installation(conn)))
    await wait_for(request, lambda waiting: days.begin(waiting, event_id))
    return await run_in_threadpool(_calendar_read, event_id, times, body.base_revision, conn)


def _calendar_read(
    event_id: int, times: dict[str, datetime], base_revision: int, conn: sqlite3.Connection
) -> CalendarRead:
    _, moved, unknown = days.read_times(conn, event_id, times, base_revision=base_revision)
    return CalendarRead(moved=list(moved), unknown=list(unknown), day=_day_out(event_id, conn))
