"""Figures of a studio's own, and the editions of the book that events are pinned to: SQL text and functions."""

import json
import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass

from jolly_trellis.core.books.figures import FigureBook, OwnFigure

_OWN = "SELECT key, value, reason FROM own_figure ORDER BY key"
_PUT_OWN = """
INSERT INTO own_figure (key, value, reason) VALUES (:key, :value, :reason)
ON CONFLICT (key) DO UPDATE SET value = :value, reason = :reason
"""
_DELETE_OWN = "DELETE FROM own_figure WHERE key = :key"
_EDITION = "SELECT kept_at, book FROM figure_edition WHERE edition = :edition"
_PUT_EDITION = """
INSERT INTO figure_edition (edition, kept_at, book) VALUES (:edition, :kept_at, :book) ON CONFLICT DO NOTHING
"""
_EVENT_EDITION = "SELECT json_extract(brief, '$.figures') AS edition FROM event WHERE id = :id"


@dataclass(frozen=True, slots=True, kw_only=True)
class EditionRow:
    """An edition as it is kept: its numbers and the studio's own reasons by key, and since when."""

    kept_at: str
    values: Mapping[str, float]
    own: Mapping[str, str]


def own_figures(conn: sqlite3.Connection) -> dict[str, OwnFigure]:
    """The studio's own figures by key."""
    return {row["key"]: OwnFigure(value=row["value"], reason=row["reason"]) for row in conn.execute(_OWN)}


def put_own(conn: sqlite3.Connection, key: str, own: OwnFigure) -> None:
    """Keep a figure of the studio's own."""
    conn.execute(_PUT_OWN, {"key": key, "value": own.value, "reason": own.reason})


def delete_own(conn: sqlite3.Connection, key: str) -> bool:
    """Take a figure of the studio's own away. Returns: whether there was one."""
    return conn.execute(_DELETE_OWN, {"key": key}).rowcount > 0


def get_edition(conn: sqlite3.Connection, edition: str) -> EditionRow | None:
    """An edition of the book, or None."""
    row = conn.execute(_EDITION, {"edition": edition}).fetchone()
    if row is None:
        return None
    plain = json.loads(row["book"])
    return EditionRow(kept_at=row["kept_at"], values=plain["values"], own=plain["own"])


def put_edition(conn: sqlite3.Connection, book: FigureBook, kept_at: str) -> None:
    """Keep an edition of the book; one that is kept already stays as it is."""
    plain = {"values": dict(book.values), "own": {key: each.reason for key, each in book.own.items()}}
    conn.execute(_PUT_EDITION, {"edition": book.edition, "kept_at": kept_at, "book": json.dumps(plain)})


def edition_of_event(conn: sqlite3.Connection, event_id: int) -> str:
    """The edition that an event is pinned to; "" for none, or no such event."""
    row = conn.execute(_EVENT_EDITION, {"id": event_id}).fetchone()
    return "" if row is None else str(row["edition"] or "")
