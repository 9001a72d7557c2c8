"""Searches over changed plans, in the background: begun or joined for an event as it stands."""

import sqlite3
from collections.abc import Callable
from contextlib import closing
from pathlib import Path
from typing import TypeVar

from jolly_trellis.services import bending, event_work, long_work, price_target
from jolly_trellis.services.bending import Bends
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.price_target import Reached
from jolly_trellis.store.connection import open_database

T = TypeVar("T")


def bends(conn: sqlite3.Connection, event_id: int) -> Running[Bends]:
    """What narrower sheets save. Raises NotFound, CoreError."""
    return _begun(conn, event_id, "bends", bending.search)


def reached(conn: sqlite3.Connection, event_id: int) -> Running[Reached]:
    """What would reach the target. Raises NotFound, CoreError."""
    return _begun(conn, event_id, "target", price_target.search)


def _begun(
    conn: sqlite3.Connection,
    event_id: int,
    what: str,
    search: Callable[[sqlite3.Connection, EventWork, Running[T]], T],
) -> Running[T]:
    work = event_work.work_of(conn, event_id)
    path = Path(work.kept_in)

    def go(running: Running[T]) -> T:
        with closing(open_database(path)) as own:
            return search(own, work, running)

    return long_work.start((what, work.kept_in, event_id, work.made_for), go)
