"""What came home from an event: SQL text and functions."""

import sqlite3
from collections.abc import Iterable
from dataclasses import dataclass

from jolly_trellis.store import codec


@dataclass(frozen=True, slots=True, kw_only=True)
class Looked:
    """What was seen of a thing: its condition, a note, the key of its picture."""

    condition: str
    note: str
    picture: str


@dataclass(frozen=True, slots=True, kw_only=True)
class HomeLine:
    """One line as it came home: its key in the list, the thing it is in the stores, how many went and came back.

    `was` and `became` are what was seen of a finished armature before it went and when it came back; None for others.
    """

    line: str
    kind: str
    thing: str
    went: int
    back: int
    added: int
    condition: str
    note: str
    was: Looked | None = None
    became: Looked | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Homecoming:
    """What came home from an event, and when, UTC, ISO 8601."""

    at: str
    lines: tuple[HomeLine, ...]


def get_homecoming(conn: sqlite3.Connection, event_id: int) -> Homecoming | None:
    """What came home from an event, None while nothing has."""
    row = conn.execute("SELECT at, lines FROM homecoming WHERE event_id = :event", {"event": event_id}).fetchone()
    if row is None:
        return None
    return Homecoming(at=row["at"], lines=codec.loads(row["lines"], tuple[HomeLine, ...]))


def put_homecoming(conn: sqlite3.Connection, event_id: int, at: str, lines: Iterable[HomeLine]) -> None:
    """Note what came home from an event."""
    text = codec.dumps(tuple(lines))
    conn.execute(
        "INSERT INTO homecoming (event_id, at, lines) VALUES (:event, :at, :lines)",
        {"event": event_id, "at": at, "lines": text},
    )


def clear_homecoming(conn: sqlite3.Connection, event_id: int) -> None:
    """Take it back."""
    conn.execute("DELETE FROM homecoming WHERE event_id = :event", {"event": event_id})
