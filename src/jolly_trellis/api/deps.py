"""What every route takes: a connection for each request, the number of an event or piece, long work once done."""

import asyncio
import re
import sqlite3
import threading
import time
from collections.abc import AsyncIterator, Callable
from typing import Annotated, Any, TypeVar

import anyio
import anyio.to_thread
from fastapi import Depends, Query, Request
from fastapi import Path as PathParameter

from jolly_trellis.core.books.figures import FigureBook
from jolly_trellis.core.wanted import wanted_while
from jolly_trellis.services import day as days
from jolly_trellis.services import event_work, figures
from jolly_trellis.services.long_work import Running
from jolly_trellis.store.connection import Connections

T = TypeVar("T")
LONGEST_S = 20.0  # what is best so far is told then
_A_NUMBER = re.compile(r"\d{1,15}$", re.ASCII)
_LOOK_EVERY_S = 0.05
# Gathering an event is work itself: many who ask for the same do it one after the other, beside the workers.
_beginners = anyio.CapacityLimiter(2)


async def _connection(request: Request) -> AsyncIterator[sqlite3.Connection]:
    """Lend a request a connection, and open the book of figures that it reckons by: its event's, else the studio's."""
    connections: Connections = request.app.state.connections
    number = str(request.path_params.get("event_id", ""))

    def begun() -> tuple[sqlite3.Connection, FigureBook]:
        conn = connections.take()
        try:
            return conn, figures.of_event(conn, int(number)) if _A_NUMBER.match(number) else figures.current(conn)
        except BaseException:
            connections.give_back(conn)
            raise

    conn, book = await anyio.to_thread.run_sync(begun)
    try:
        with book.open():
            yield conn
    finally:
        connections.give_back(conn)


Number = Annotated[int, PathParameter(ge=1, le=2**53)]
BaseRevision = Annotated[int, Query(ge=0, le=2**53, description="What the write is based on, exactly.")]
Connection = Annotated[sqlite3.Connection, Depends(_connection)]
Lent = Depends(_connection)


async def wait_for(
    request: Request, begin: Callable[[sqlite3.Connection], Running[Any] | None], seconds: float | None = None
) -> None:
    """Wait for work in the background, so long at most, without keeping others from being answered.

    Args:
        begin: begins the work, or joins it; None where there is nothing to wait for.
        seconds: None for as long as anybody waits for long work.
    Raises: whatever `begin` does.
    """

    def begun() -> Running[Any] | None:
        connections: Connections = request.app.state.connections
        with connections.lent() as conn:
            return begin(conn)

    running = await anyio.to_thread.run_sync(begun, limiter=_beginners)
    until = time.monotonic() + (LONGEST_S if seconds is None else seconds)
    while (
        running is not None and not running.done and time.monotonic() < until and not await request.is_disconnected()
    ):
        await asyncio.sleep(_LOOK_EVERY_S)


async def while_wanted(request: Request, work: Callable[[], T]) -> T:
    """What some work gives, in a worker; where the one who asked is gone it is ended.

    Raises: NobodyWaits: it was. Whatever the work raises.
    """
    gone = threading.Event()

    def acting() -> T:
        with wanted_while(lambda: not gone.is_set()):
            return work()

    doing = asyncio.ensure_future(anyio.to_thread.run_sync(acting))
    try:
        while not (await asyncio.wait((doing,), timeout=_LOOK_EVERY_S))[0]:
            if await request.is_disconnected():
                gone.set()
        return doing.result()
    finally:
        gone.set()


async def _day_done(request: Request, event_id: Number) -> None:
    await wait_for(request, lambda conn: days.begin(conn, event_id))


async def _cuts_done(request: Request, event_id: Number) -> None:
    await wait_for(request, lambda conn: event_work.begin_quick_cuts(conn, event_work.work_of(conn, event_id)))


DayDone = Depends(_day_done)
CutsDone = Depends(_cuts_done)
