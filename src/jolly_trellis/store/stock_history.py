"""Changes of the stores: things as they stood before and after each, to go back and forth; what is deleted.

A thing is remembered as the rows it had, table by table, so that whatever columns a thing gains are remembered too.
Counts are remembered as a difference: rolls that a cut took meanwhile stay taken.
"""

import json
import sqlite3
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from jolly_trellis.catalog.about import STORES
from jolly_trellis.catalog.rows import HeldKind, StoreKind
from jolly_trellis.store.connection import transaction

KEPT_STEPS = 500
Kind = HeldKind  # and "remnant", "homecoming"
Touched = tuple[Kind, str]
Rows = dict[str, list[dict[str, Any]]]
_TABLES: dict[Kind, dict[str, str]] = {
    **{kind: {kind: "key", **about.side} for kind, about in STORES.items()},
    "mechanic": {},
    "remnant": {"remnant": "id"},
    "homecoming": {"homecoming": "event_id"},
}


class Moved(Exception):
    """The stores are not as they were left: the step cannot be undone or redone; the message says why."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Place:
    """Where the stores stand in their history, and what undo and redo would do, in words."""

    step: int
    undo: str | None
    redo: str | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Deleted:
    """A thing that was taken out of the stores; `deleted_at` is UTC, ISO 8601."""

    kind: StoreKind
    key: str
    name: str
    deleted_at: str


def place(conn: sqlite3.Connection) -> Place:
    """Where the stores stand."""
    step = int(conn.execute("SELECT step FROM stock_revision").fetchone()[0])
    return Place(step=step, undo=_label(conn, step), redo=_label(conn, step + 1))


@contextmanager
def change(conn: sqlite3.Connection, label: str, touched: Iterable[Touched]) -> Iterator[None]:
    """One change in the stores, in one transaction, remembered as a step; one that changes nothing is none."""
    things = tuple(dict.fromkeys(touched))
    with transaction(conn):
        before = {thing: _rows(conn, *thing) for thing in things}
        yield
        _remember(conn, label, before, {thing: _rows(conn, *thing) for thing in things})


def note_new(conn: sqlite3.Connection, label: str, thing: Touched) -> None:
    """Remember, inside a transaction, what came into the stores under a number they gave it themselves."""
    _remember(conn, label, {thing: {table: [] for table in _all_tables(thing[0])}}, {thing: _rows(conn, *thing)})


def travel(conn: sqlite3.Connection, *, back: bool) -> bool:
    """Go one step back or forth; tells whether there was one. Raises Moved."""
    with transaction(conn):
        step = place(conn).step + (0 if back else 1)
        row = conn.execute("SELECT changes FROM stock_history WHERE step = :step", {"step": step}).fetchone()
        if row is None:
            return False
        for each in json.loads(row["changes"]):
            now, then = (each["after"], each["before"]) if back else (each["before"], each["after"])
            _replace(conn, each["kind"], each["key"], now, then)
        conn.execute("UPDATE stock_revision SET step = :step", {"step": step - 1 if back else step})
    return True


def delete(conn: sqlite3.Connection, kind: StoreKind, key: str, name: str) -> None:
    """Take a thing out, kept so that it can be brought back; inside a transaction."""
    rows = json.dumps(_rows(conn, kind, key), separators=(",", ":"), ensure_ascii=False)
    at = datetime.now(UTC).isoformat(timespec="seconds")
    _clear(conn, kind, key)
    conn.execute(
        "INSERT INTO deleted_thing (kind, key, name, deleted_at, rows) VALUES (:kind, :key, :name, :at, :rows)",
        {"kind": kind, "key": key, "name": name, "at": at, "rows": rows},
    )


def bring_back(conn: sqlite3.Connection, kind: StoreKind, key: str) -> None:
    """Bring a deleted thing back as it was, over what has its key meanwhile; inside a transaction."""
    row = conn.execute(
        "SELECT rows FROM deleted_thing WHERE kind = :kind AND key = :key", {"kind": kind, "key": key}
    ).fetchone()
    _clear(conn, kind, key)
    _insert(conn, kind, json.loads(row["rows"]))


def deleted(conn: sqlite3.Connection) -> tuple[Deleted, ...]:
    """What was deleted, the latest first."""
    rows = conn.execute("SELECT kind, key, name, deleted_at FROM deleted_thing ORDER BY deleted_at DESC, name")
    return tuple(Deleted(**row) for row in rows)


def _label(conn: sqlite3.Connection, step: int) -> str | None:
    row = conn.execute("SELECT label FROM stock_history WHERE step = :step", {"step": step}).fetchone()
    return None if row is None else str(row["label"])


def _remember(conn: sqlite3.Connection, label: str, before: dict[Touched, Rows], after: dict[Touched, Rows]) -> None:
    changes = [
        {"kind": kind, "key": key, "before": before[kind, key], "after": after[kind, key]}
        for kind, key in before
        if before[kind, key] != after[kind, key]
    ]
    if not changes:
        return
    step = place(conn).step + 1
    conn.execute(
        "DELETE FROM stock_history WHERE step >= :step OR step <= :old", {"step": step, "old": step - KEPT_STEPS}
    )
    text = json.dumps(changes, separators=(",", ":"), ensure_ascii=False)
    conn.execute(
        "INSERT INTO stock_history VALUES (:step, :label, :text)", {"step": step, "label": label, "text": text}
    )
    conn.execute("UPDATE stock_revision SET step = :step", {"step": step})


def _all_tables(kind: Kind) -> tuple[str, ...]:
    return (*_TABLES[kind], *(() if kind in ("remnant", "homecoming") else ("holding", "deleted_thing")))


def _rows(conn: sqlite3.Connection, kind: Kind, key: str) -> Rows:
    """The rows of a thing by table; table and column names come from this file only."""
    found: Rows = {}
    for table in _all_tables(kind):
        where, bound = _where(table, kind, key)
        found[table] = [dict(row) for row in conn.execute(f"SELECT * FROM {table} WHERE {where}", bound)]
    return found


def _where(table: str, kind: Kind, key: str) -> tuple[str, dict[str, str]]:
    if table in ("holding", "deleted_thing"):
        return "kind = :kind AND key = :key", {"kind": kind, "key": key}
    return f"{_TABLES[kind][table]} = :key", {"key": key}


def _replace(conn: sqlite3.Connection, kind: Kind, key: str, now: Rows, then: Rows) -> None:
    """Put a thing back as it stood; its count by the difference, for cuts take rolls and are no change of it."""
    standing = _rows(conn, kind, key)
    if kind == "remnant" and (standing != now or not _cut_is_there(conn, then)):
        raise Moved("Something was cut from this remnant, or its cut taken back, since. Take that back first.")
    by = _count(then) - _count(now)
    _clear(conn, kind, key)
    _insert(conn, kind, then)
    if kind in ("remnant", "homecoming"):
        return
    count = max(_count(standing) + by, 0)
    if then["holding"] or count:
        conn.execute(
            "INSERT INTO holding (kind, key, on_hand, retired) VALUES (:kind, :key, :count, :retired) "
            "ON CONFLICT (kind, key) DO UPDATE SET on_hand = excluded.on_hand",
            {
                "kind": kind,
                "key": key,
                "count": count,
                "retired": then["holding"][0]["retired"] if then["holding"] else 0,
            },
        )


def _count(rows: Rows) -> int:
    held = rows.get("holding", [])
    return int(held[0]["on_hand"]) if held else 0


def _cut_is_there(conn: sqlite3.Connection, rows: Rows) -> bool:
    made_by = [row["made_by"] for row in rows["remnant"] if row["made_by"] is not None]
    known = "SELECT EXISTS (SELECT 1 FROM cut WHERE id = :id)"
    return all(conn.execute(known, {"id": cut}).fetchone()[0] for cut in made_by)


def _clear(conn: sqlite3.Connection, kind: Kind, key: str) -> None:
    for table in reversed(_all_tables(kind)):
        where, bound = _where(table, kind, key)
        conn.execute(f"DELETE FROM {table} WHERE {where}", bound)


def _insert(conn: sqlite3.Connection, kind: Kind, rows: Rows) -> None:
    """Put rows back; a column that is there no longer is left out, one that was added since takes its default."""
    for table in _all_tables(kind):
        columns = {row["name"] for row in conn.execute(f"PRAGMA table_info({table})")}
        for row in rows.get(table, []):
            names = [name for name in row if name in columns]
            slots = ", ".join(f":{name}" for name in names)
            conn.execute(f"INSERT INTO {table} ({', '.join(names)}) VALUES ({slots})", row)
