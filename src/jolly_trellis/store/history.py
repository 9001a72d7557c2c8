"""The history of an event's plan: steps to go back and forth over, and the plan each revision saw."""

import sqlite3

from jolly_trellis.store import codec
from jolly_trellis.store.plan import Plan

KEPT_STEPS = 500
KEPT_REVISIONS = 500


def step_plan(conn: sqlite3.Connection, event_id: int, step: int) -> Plan | None:
    """The plan after a step, or None."""
    row = conn.execute(
        "SELECT plan FROM history WHERE event_id = :id AND step = :step", {"id": event_id, "step": step}
    ).fetchone()
    return None if row is None else codec.loads(row["plan"], Plan)


def step_label(conn: sqlite3.Connection, event_id: int, step: int) -> str | None:
    """What a step did, in words, or None."""
    row = conn.execute(
        "SELECT label FROM history WHERE event_id = :id AND step = :step", {"id": event_id, "step": step}
    ).fetchone()
    return None if row is None else str(row["label"])


def add_step(conn: sqlite3.Connection, event_id: int, step: int, label: str, plan: Plan) -> None:
    """Record a step; whatever had been undone after it is forgotten, as are steps older than 500."""
    conn.execute("DELETE FROM history WHERE event_id = :id AND step >= :step", {"id": event_id, "step": step})
    conn.execute(
        "INSERT INTO history VALUES (:id, :step, :label, :plan)",
        {"id": event_id, "step": step, "label": label, "plan": codec.dumps(plan)},
    )
    conn.execute(
        "DELETE FROM history WHERE event_id = :id AND step < :oldest",
        {"id": event_id, "oldest": step - KEPT_STEPS},
    )


def add_revision(conn: sqlite3.Connection, event_id: int, revision: int, plan: Plan) -> None:
    """Record what a revision saw; revisions older than 500 are forgotten."""
    conn.execute(
        "INSERT INTO revision VALUES (:id, :revision, :plan)",
        {"id": event_id, "revision": revision, "plan": codec.dumps(plan)},
    )
    conn.execute(
        "DELETE FROM revision WHERE event_id = :id AND revision < :oldest",
        {"id": event_id, "oldest": revision - KEPT_REVISIONS},
    )


def revision_plan(conn: sqlite3.Connection, event_id: int, revision: int) -> Plan | None:
    """The plan that a revision saw, or None where it is too old."""
    row = conn.execute(
        "SELECT plan FROM revision WHERE event_id = :id AND revision = :revision",
        {"id": event_id, "revision": revision},
    ).fetchone()
    return None if row is None else codec.loads(row["plan"], Plan)
