"""A day that is worked out to its end before anybody asks what it says."""

import sqlite3

from jolly_trellis.core.event.day.day import Day
from jolly_trellis.services import day as days
from jolly_trellis.services.event_work import EventWork


def day_done(conn: sqlite3.Connection, event_id: int = 1) -> tuple[EventWork, Day]:
    """The event and its day, with its remedies."""
    days.begin(conn, event_id).wait(300.0)
    return days.sheet_of(conn, event_id)
