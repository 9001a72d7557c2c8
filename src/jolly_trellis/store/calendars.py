"""What calendars were told: SQL text and functions."""

import sqlite3
from datetime import datetime

from jolly_trellis.core.event.tasks.entries import Entry, KeptEntry
from jolly_trellis.store import codec

_INSTALLATION = "SELECT id FROM installation"
_ENTRIES = """
SELECT task, content, sequence, stamped_at, cancelled FROM calendar_entry
WHERE event_id = :event AND person = :person ORDER BY task
"""
_PUT = """
INSERT INTO calendar_entry (event_id, person, task, content, sequence, stamped_at, cancelled)
VALUES (:event, :person, :task, :content, :sequence, :stamped_at, :cancelled)
ON CONFLICT (event_id, person, task) DO UPDATE SET content = excluded.content, sequence = excluded.sequence,
    stamped_at = excluded.stamped_at, cancelled = excluded.cancelled
"""


def installation(conn: sqlite3.Connection) -> str:
    """What tells this studio's entries from those of any other: 32 hexadecimal digits, kept for good."""
    return str(conn.execute(_INSTALLATION).fetchone()["id"])


def entries(conn: sqlite3.Connection, event_id: int, person: str) -> dict[str, KeptEntry]:
    """What the calendar of a person was told of an event, by task; "" is the calendar of all."""
    rows = conn.execute(_ENTRIES, {"event": event_id, "person": person})
    return {
        row["task"]: KeptEntry(
            entry=codec.loads(row["content"], Entry),
            sequence=row["sequence"],
            stamped_at=datetime.fromisoformat(row["stamped_at"]),
            cancelled=bool(row["cancelled"]),
        )
        for row in rows
    }


def put_entry(conn: sqlite3.Connection, event_id: int, person: str, kept: KeptEntry) -> None:
    """Keep what a calendar is told now."""
    values = {
        "event": event_id,
        "person": person,
        "task": kept.entry.task,
        "content": codec.dumps(kept.entry),
        "sequence": kept.sequence,
        "stamped_at": kept.stamped_at.isoformat(),
        "cancelled": int(kept.cancelled),
    }
    conn.execute(_PUT, values)
