"""Events and their parts: the plan as it stands, and its revisions."""

import json
import sqlite3
from dataclasses import dataclass
from functools import lru_cache

from jolly_trellis.core.event.parts import Part
from jolly_trellis.store import codec, plan_changes
from jolly_trellis.store.plan import MOST_PARTS, Brief, Plan, Planned
from jolly_trellis.store.plan_changes import Changes

_MOST_READ = 4 * MOST_PARTS
_MOST_BRIEFS = 1000


@dataclass(frozen=True, slots=True, kw_only=True)
class EventRow:
    """One event: where its counters stand. `step` is the place in its history."""

    id: int
    name: str
    revision: int
    brief_revision: int
    step: int
    next_part: int


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


def revisions(conn: sqlite3.Connection) -> tuple[str, str]:
    """How all events stand, and all surveys: another text for every change of one, none for another reason."""
    own = "SELECT coalesce(group_concat(id || ':' || revision || ':' || (deleted_at IS NULL)), '') FROM event"
    places = "SELECT coalesce(group_concat(place_key || ':' || revision), '') FROM survey"
    return str(conn.execute(own).fetchone()[0]), str(conn.execute(places).fetchone()[0])


def places(conn: sqlite3.Connection) -> tuple[tuple[str, str], ...]:
    """Key and name of every place that events name, of the newest first, and every key that a survey is kept under."""
    rows = conn.execute(
        """
        SELECT brief ->> 'place_key' AS key, brief ->> 'place' AS name, id FROM event WHERE key <> ''
        UNION ALL SELECT place_key, '', 0 FROM survey
        ORDER BY id DESC
        """
    )
    return tuple((str(row["key"]), str(row["name"])) for row in rows)


def get_brief(conn: sqlite3.Connection, event_id: int) -> Brief | None:
    """The brief of an event as it stands, or None where there is none or it is deleted."""
    row = conn.execute("SELECT brief FROM event WHERE id = :id AND deleted_at IS NULL", {"id": event_id}).fetchone()
    return None if row is None else _read_brief(row["brief"])


def get_plan(conn: sqlite3.Connection, event_id: int) -> Plan:
    """The whole plan of an event as it stands."""
    brief = conn.execute("SELECT brief FROM event WHERE id = :id", {"id": event_id}).fetchone()[0]
    rows = conn.execute("SELECT id, design FROM part WHERE event_id = :id ORDER BY position", {"id": event_id})
    parts = tuple(Planned(id=row["id"], part=_read(row["design"])) for row in rows)
    return Plan(brief=_read_brief(brief), parts=parts)


def get_part(conn: sqlite3.Connection, event_id: int, part_id: int) -> Part | None:
    """One part of an event as it stands, or None."""
    row = conn.execute(
        "SELECT design FROM part WHERE event_id = :event AND id = :id", {"event": event_id, "id": part_id}
    ).fetchone()
    return None if row is None else _read(row["design"])


def part_revisions(conn: sqlite3.Connection, event_id: int) -> dict[int, int]:
    """The revision at which each part last changed."""
    rows = conn.execute("SELECT id, revision FROM part WHERE event_id = :id", {"id": event_id})
    return {row["id"]: row["revision"] for row in rows}


def put_plan(
    conn: sqlite3.Connection, event: EventRow, plan: Plan, changes: Changes, *, revision: int, step: int, version: str
) -> None:
    """Write what of a plan has changed, under a new revision."""
    _put_parts(conn, event.id, plan, changes, revision=revision, version=version)
    conn.execute(
        """
        UPDATE event SET name = :name, brief = :brief, revision = :revision, step = :step,
            brief_revision = CASE WHEN :changed THEN :revision ELSE brief_revision END,
            next_part = max(next_part, :next)
        WHERE id = :id
        """,
        {
            "id": event.id,
            "name": plan.brief.name,
            "brief": codec.dumps(plan.brief),
            "revision": revision,
            "step": step,
            "changed": int(plan_changes.BRIEF in changes),
            "next": max((each.id for each in plan.parts), default=0) + 1,
        },
    )


def _put_parts(
    conn: sqlite3.Connection, event_id: int, plan: Plan, changes: Changes, *, revision: int, version: str
) -> None:
    for position, each in enumerate(plan.parts):
        place = {"event": event_id, "id": each.id, "position": position}
        if plan_changes.touching(each.id) in changes:
            conn.execute(
                """
                INSERT INTO part (event_id, id, position, design, computed_by, revision)
                VALUES (:event, :id, :position, :design, :version, :revision)
                ON CONFLICT (event_id, id) DO UPDATE SET position = excluded.position, design = excluded.design,
                    computed_by = excluded.computed_by, revision = excluded.revision
                """,
                {**place, "design": codec.dumps(each.part), "version": version, "revision": revision},
            )
        elif plan_changes.ORDER in changes:
            conn.execute("UPDATE part SET position = :position WHERE event_id = :event AND id = :id", place)
    if plan_changes.ORDER in changes:
        kept = [each.id for each in plan.parts]
        conn.execute(
            "DELETE FROM part WHERE event_id = :event AND id NOT IN (SELECT value FROM json_each(:kept))",
            {"event": event_id, "kept": json.dumps(kept)},
        )


@lru_cache(maxsize=_MOST_BRIEFS)
def _read_brief(text: str) -> Brief:
    """A brief from its JSON; frozen, so that one reading serves all who ask."""
    return codec.loads(text, Brief)


@lru_cache(maxsize=_MOST_READ)
def _read(design: str) -> Part:
    """A part from its JSON; frozen, so that one reading serves all who ask."""
    return codec.part_from(json.loads(design))


def _event(row: sqlite3.Row) -> EventRow:
    return EventRow(
        id=row["id"],
        name=row["name"],
        revision=row["revision"],
        brief_revision=row["brief_revision"],
        step=row["step"],
        next_part=row["next_part"],
    )
