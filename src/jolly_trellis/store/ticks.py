"""What is ticked on the lists of an event: SQL text and functions."""

import sqlite3
from dataclasses import dataclass
from typing import Literal

TickedList = Literal["out", "home", "goods in", "prepared", "placed", "lost"]
GoodsState = Literal["", "right", "short", "late", "wrong", "poor"]
_PUT = """
INSERT INTO tick (event_id, list, line, number, state, note) VALUES (:event, :list, :line, :number, :state, :note)
ON CONFLICT (event_id, list, line) DO UPDATE SET number = excluded.number, state = excluded.state, note = excluded.note
"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Tick:
    """One line that was ticked: how many of it, how goods came in, and a note."""

    line: str
    number: float
    state: GoodsState = ""
    note: str = ""


def ticks(conn: sqlite3.Connection, event_id: int, of: TickedList) -> tuple[Tick, ...]:
    """What of one list of an event is ticked."""
    rows = conn.execute(
        "SELECT line, number, state, note FROM tick WHERE event_id = :event AND list = :list ORDER BY line",
        {"event": event_id, "list": of},
    )
    return tuple(Tick(**row) for row in rows)


def put_tick(conn: sqlite3.Connection, event_id: int, of: TickedList, tick: Tick) -> None:
    """Tick a line, over what it had."""
    values = {"line": tick.line, "number": tick.number, "state": tick.state, "note": tick.note}
    conn.execute(_PUT, {"event": event_id, "list": of, **values})


def clear_tick(conn: sqlite3.Connection, event_id: int, of: TickedList, line: str) -> None:
    """Take a tick away."""
    sql = "DELETE FROM tick WHERE event_id = :event AND list = :list AND line = :line"
    conn.execute(sql, {"event": event_id, "list": of, "line": line})
