"""Events and their pieces: the plan as it stands, its revisions and its history."""

import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, TypeVar

from jolly_trellis.core.piece import Piece
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.store import codec
from jolly_trellis.store.plan import Brief, Plan, PlannedPiece, PlannedRig

Part = Literal["piece", "rig"]
T = TypeVar("T")


@dataclass(frozen=True, slots=True, kw_only=True)
class EventRow:
    """One event: where its counters stand. `step` is the place in its history."""

    id: int
    name: str
    revision: int
    brief_revision: int
    step: int
    next_piece: int


def list_events(conn: sqlite3.Connection) -> tuple[EventRow, ...]:
    """Every event that is not deleted, the newest first."""
    rows = conn.execute("SELECT * FROM event WHERE deleted_at IS NULL ORDER BY id DESC")
    return tuple(_event(row) for row in rows)


def list_deleted(conn: sqlite3.Connection) -> tuple[tuple[EventRow, str], ...]:
    """Every deleted event with when that was, in UTC, the latest first."""
    rows = conn.execute("SELECT * FROM event WHERE deleted_at IS NOT NULL ORDER BY deleted_at DESC, id DESC")
    return tuple((_event(row), str(row["deleted_at"])) for row in rows)


def set_deleted(conn: sqlite3.Connection, event_id: int, at: str | None) -> bool:
    """Delete an event, or bring it back (None); tells whether it was there to be."""
    sql = "UPDATE event SET deleted_at = :at WHERE id = :id AND (deleted_at IS NULL) = (:at IS NOT NULL)"
    return conn.execute(sql, {"id": event_id, "at": at}).rowcount > 0


def get_event(conn: sqlite3.Connection, event_id: int) -> EventRow | None:
    """One event, or None where there is none or it is deleted."""
    row = conn.execute("SELECT * FROM event WHERE id = :id AND deleted_at IS NULL", {"id": event_id}).fetchone()
    return None if row is None else _event(row)


def add_event(conn: sqlite3.Connection, brief: Brief) -> int:
    """A new event with no pieces; returns its id."""
    cursor = conn.execute(
        "INSERT INTO event (name, brief) VALUES (:name, :brief)",
        {"name": brief.name, "brief": codec.dumps(brief)},
    )
    return int(cursor.lastrowid or 0)


def get_brief(conn: sqlite3.Connection, event_id: int) -> Brief | None:
    """The brief of an event as it stands, or None where there is none or it is deleted."""
    row = conn.execute("SELECT brief FROM event WHERE id = :id AND deleted_at IS NULL", {"id": event_id}).fetchone()
    return None if row is None else codec.loads(row["brief"], Brief)


def get_plan(conn: sqlite3.Connection, event_id: int) -> Plan:
    """The whole plan of an event as it stands."""
    brief = conn.execute("SELECT brief FROM event WHERE id = :id", {"id": event_id}).fetchone()[0]
    pieces = tuple(PlannedPiece(id=each, piece=piece) for each, piece in _parts(conn, "piece", event_id, Piece))
    rigs = tuple(PlannedRig(id=each, rig=rig) for each, rig in _parts(conn, "rig", event_id, Rig))
    return Plan(brief=codec.loads(brief, Brief), pieces=pieces, rigs=rigs)


def part_revisions(conn: sqlite3.Connection, event_id: int) -> dict[int, int]:
    """The revision at which each piece and each rig last changed."""
    rows = conn.execute(
        "SELECT id, revision FROM piece WHERE event_id = :id "
        "UNION ALL SELECT id, revision FROM rig WHERE event_id = :id",
        {"id": event_id},
    )
    return {row["id"]: row["revision"] for row in rows}


def put_plan(
    conn: sqlite3.Connection, event: EventRow, before: Plan, after: Plan, *, revision: int, step: int, version: str
) -> None:
    """Write a plan over the one before it; only what differs takes the new revision."""
    kept = part_revisions(conn, event.id)
    numbers = (event.id, revision, version)
    _put_parts(conn, "piece", numbers, before.by_id(), after.by_id(), kept)
    _put_parts(conn, "rig", numbers, before.rigs_by_id(), after.rigs_by_id(), kept)
    conn.execute(
        """
        UPDATE event SET name = :name, brief = :brief, revision = :revision, step = :step,
            brief_revision = CASE WHEN :changed THEN :revision ELSE brief_revision END,
            next_piece = max(next_piece, :next)
        WHERE id = :id
        """,
        {
            "id": event.id,
            "name": after.brief.name,
            "brief": codec.dumps(after.brief),
            "revision": revision,
            "step": step,
            "changed": int(before.brief != after.brief),
            "next": max((*after.by_id(), *after.rigs_by_id()), default=0) + 1,
        },
    )


def _parts(conn: sqlite3.Connection, table: Part, event_id: int, kind: type[T]) -> list[tuple[int, T]]:
    """(number, thing) of every piece or rig of an event, in order; the table's name comes from this file only."""
    rows = conn.execute(f"SELECT id, design FROM {table} WHERE event_id = :id ORDER BY position", {"id": event_id})
    return [(row["id"], codec.loads(row["design"], kind)) for row in rows]


def _put_parts(
    conn: sqlite3.Connection,
    table: Part,
    numbers: tuple[int, int, str],
    old: Mapping[int, object],
    new: Mapping[int, object],
    kept: Mapping[int, int],
) -> None:
    """Write the pieces or rigs of a plan, in order; only what differs takes the new revision."""
    event_id, revision, version = numbers
    for part in old.keys() - new.keys():
        conn.execute(f"DELETE FROM {table} WHERE event_id = :event AND id = :id", {"event": event_id, "id": part})
    for position, (part, thing) in enumerate(new.items()):
        changed = old.get(part) != thing
        conn.execute(
            f"""
            INSERT INTO {table} (event_id, id, position, design, computed_by, revision)
            VALUES (:event, :id, :position, :design, :version, :revision)
            ON CONFLICT (event_id, id) DO UPDATE SET position = excluded.position, design = excluded.design,
                computed_by = excluded.computed_by, revision = excluded.revision
            """,
            {
                "event": event_id,
                "id": part,
                "position": position,
                "design": codec.dumps(thing),
                "version": version,
                "revision": revision if changed else kept.get(part, revision),
            },
        )


def _event(row: sqlite3.Row) -> EventRow:
    return EventRow(
        id=row["id"],
        name=row["name"],
        revision=row["revision"],
        brief_revision=row["brief_revision"],
        step=row["step"],
        next_piece=row["next_piece"],
    )
