"""What every route takes: a connection for each request, the number of an event or piece, long work once done."""

import asyncio
import re
import sqlite3
import time
from collections.abc import AsyncIterator, Callable, Iterator
from contextlib import closing
from pathlib import Path
from typing import Annotated, Any

import anyio
import anyio.to_thread
from fastapi import Depends, Request
from fastapi import Path as PathParameter

from jolly_trellis.services import day as days
from jolly_trellis.services import event_work, figures
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.opening import DATABASE_NAME
from jolly_trellis.store.connection import open_database

_LONGEST_S = 120.0
_A_NUMBER = re.compile(r"\d{1,15}$", re.ASCII)
_LOOK_EVERY_S = 0.05
# Gathering an event is work itself: many who ask for the same do it one after the other, beside the workers.
_beginners = anyio.CapacityLimiter(2)


def _connection(request: Request) -> Iterator[sqlite3.Connection]:
    folder: Path = request.app.state.folder
    conn = open_database(folder / DATABASE_NAME)
    try:
        yield conn
    finally:
        conn.close()


Number = Annotated[int, PathParameter(ge=1, le=2**53)]
Connection = Annotated[sqlite3.Connection, Depends(_connection)]


async def _read_figures(request: Request) -> AsyncIterator[None]:
    """Open the book of figures that a request reckons by: the one its event was planned with, else the studio's."""
    folder: Path = request.app.state.folder
    number = str(request.path_params.get("event_id", ""))
    with closing(open_database(folder / DATABASE_NAME)) as conn:
        book = figures.of_event(conn, int(number)) if _A_NUMBER.match(number) else figures.current(conn)
    with book.open():
        yield


ReadFigures = Depends(_read_figures)


async def wait_for(
    request: Request, begin: Callable[[sqlite3.Connection], Running[Any] | None], seconds: float = _LONGEST_S
) -> None:
    """Wait for work in the background, so long at most, without keeping others from being answered.

    Args:
        begin: begins the work, or joins it; None where there is nothing to wait for.
    Raises: whatever `begin` does.
    """

    def begun() -> Running[Any] | None:
        folder: Path = request.app.state.folder
        with closing(open_database(folder / DATABASE_NAME)) as conn:
            return begin(conn)

    running = await anyio.to_thread.run_sync(begun, limiter=_beginners)
    until = time.monotonic() + seconds
    while (
        running is not None and not running.done and time.monotonic() < until and not await request.is_disconnected()
    ):
        await asyncio.sleep(_LOOK_EVERY_S)


async def _day_done(request: Request, event_id: Number) -> None:
    await wait_for(request, lambda conn: days.begin(conn, event_id))


async def _cuts_done(request: Request, event_id: Number) -> None:
    await wait_for(request, lambda conn: event_work.begin_quick_cuts(conn, event_work.work_of(conn, event_id)))


DayDone = Depends(_day_done)
CutsDone = Depends(_cuts_done)
