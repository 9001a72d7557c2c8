"""The history of an event's plan: what each revision changed, and which of those are steps to go back and forth over.

A row holds the difference that was made. Going back is taking that of the step one stands at from the plan as it is:
the plan that is kept is the one full state there is.
"""

import json
import sqlite3
from dataclasses import dataclass
from typing import Any

from jolly_trellis.store.plan_changes import Changes

KEPT = 500


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """What one revision changed. `label` says it in words; `step` is None for one that only went back or forth."""

    step: int | None
    label: str
    changes: Changes


def add(conn: sqlite3.Connection, event_id: int, revision: int, change: Change) -> None:
    """Record a revision.

    A new step forgets what had been undone after it; steps and revisions beyond 500 are forgotten.
    """
    if change.step is not None:
        conn.execute(
            "UPDATE change SET step = NULL WHERE event_id = :id AND step >= :step",
            {"id": event_id, "step": change.step},
        )
        conn.execute(
            "UPDATE change SET step = NULL WHERE event_id = :id AND step < :oldest",
            {"id": event_id, "oldest": change.step - KEPT},
        )
    text = json.dumps(change.changes, allow_nan=False, separators=(",", ":"), ensure_ascii=False)
    conn.execute(
        """
        INSERT INTO change (event_id, id, revision, step, label, changes)
        SELECT :event, coalesce(max(id), 0) + 1, :revision, :step, :label, :changes
        FROM change WHERE event_id = :event
        """,
        {"event": event_id, "revision": revision, "step": change.step, "label": change.label, "changes": text},
    )
    conn.execute(
        "DELETE FROM change WHERE event_id = :id AND step IS NULL AND coalesce(revision, 0) < :oldest",
        {"id": event_id, "oldest": revision - KEPT},
    )


def step(conn: sqlite3.Connection, event_id: int, number: int) -> Change | None:
    """The step that led to a place in the history, or None."""
    row = conn.execute(
        "SELECT * FROM change WHERE event_id = :id AND step = :step", {"id": event_id, "step": number}
    ).fetchone()
    return None if row is None else _change(row)


def label(conn: sqlite3.Connection, event_id: int, number: int) -> str | None:
    """What the step that led to a place did, in words, or None."""
    row = conn.execute(
        "SELECT label FROM change WHERE event_id = :id AND step = :step", {"id": event_id, "step": number}
    ).fetchone()
    return None if row is None else str(row["label"])


def since(conn: sqlite3.Connection, event_id: int, revision: int) -> tuple[Change, ...] | None:
    """What was changed after a revision, the latest first; None where that is not known any more."""
    newest = conn.execute("SELECT max(revision) FROM change WHERE event_id = :id", {"id": event_id}).fetchone()[0]
    known = conn.execute(
        "SELECT 1 FROM change WHERE event_id = :id AND revision = :revision", {"id": event_id, "revision": revision}
    ).fetchone()
    if known is None or newest is None or revision < newest - KEPT:
        return None
    rows = conn.execute(
        "SELECT * FROM change WHERE event_id = :id AND revision > :revision ORDER BY id DESC",
        {"id": event_id, "revision": revision},
    )
    return tuple(_change(row) for row in rows)


def _change(row: sqlite3.Row) -> Change:
    found: dict[str, Any] = json.loads(row["changes"])
    return Change(step=row["step"], label=row["label"], changes=found)
