"""What every route takes: a connection for each request, the number of an event or piece, the day once it is done."""

import asyncio
import sqlite3
import time
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path
from typing import Annotated

from fastapi import Depends, Request
from fastapi import Path as PathParameter
from fastapi.concurrency import run_in_threadpool

from jolly_trellis.core.event.day import Day
from jolly_trellis.services import day as days
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.opening import DATABASE_NAME
from jolly_trellis.store.connection import open_database

_LONGEST_DAY_S = 120.0
_LOOK_EVERY_S = 0.05


def _connection(request: Request) -> Iterator[sqlite3.Connection]:
    folder: Path = request.app.state.folder
    conn = open_database(folder / DATABASE_NAME)
    try:
        yield conn
    finally:
        conn.close()


Number = Annotated[int, PathParameter(ge=1, le=2**53)]
Connection = Annotated[sqlite3.Connection, Depends(_connection)]


async def wait_for_day(request: Request, event_id: int, seconds: float) -> None:
    """Wait for the day of an event to be worked out, so long at most, without keeping others from being answered.

    Raises: NotFound, CoreError.
    """

    def begin() -> Running[Day]:
        folder: Path = request.app.state.folder
        with closing(open_database(folder / DATABASE_NAME)) as conn:
            return days.begin(conn, event_id)

    running = await run_in_threadpool(begin)
    until = time.monotonic() + seconds
    while not running.done and time.monotonic() < until and not await request.is_disconnected():
        await asyncio.sleep(_LOOK_EVERY_S)


async def _day_done(request: Request, event_id: Number) -> None:
    await wait_for_day(request, event_id, _LONGEST_DAY_S)


DayDone = Depends(_day_done)
