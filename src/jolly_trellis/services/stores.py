"""The stores as people keep them: take in, copy, count, retire, tables in and out."""

import re
import sqlite3
import unicodedata
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from jolly_trellis.catalog.columns import HeldKind, Refused, rows_of, write_table
from jolly_trellis.catalog.rows import StoreKind
from jolly_trellis.core import ranges
from jolly_trellis.core.netting import pitch_across_m
from jolly_trellis.core.piece import MECHANIC_KINDS
from jolly_trellis.core.ranges import Key
from jolly_trellis.core.vessels import Vessel, check_vessel
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import stock
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.stock import Holding


@dataclass(frozen=True, slots=True, kw_only=True)
class Imported:
    """What a table changes: keys new and changed, how many are unchanged, rows refused; and whether it is written."""

    added: tuple[str, ...]
    changed: tuple[str, ...]
    unchanged: int
    refused: tuple[Refused, ...]
    written: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Keyed:
    """What a thing of the stores is kept under."""

    key: Key


def things(conn: sqlite3.Connection, kind: StoreKind) -> dict[str, Any]:
    """Everything of one kind by key."""
    readers: dict[StoreKind, Callable[[sqlite3.Connection], dict[str, Any]]] = {
        "vessel": stock.vessels,
        "netting": stock.nettings,
        "frog": stock.frogs,
        "variety": stock.varieties,
        "supply": stock.supplies,
    }
    return readers[kind](conn)


def add_vessel(conn: sqlite3.Connection, vessel: Vessel) -> str:
    """Keep a vessel under a key made of its name; the key. Raises CoreError."""
    ranges.check(vessel)
    check_vessel(vessel)
    with transaction(conn):
        key = free_key(vessel.name, set(stock.vessels(conn)))
        _put(conn, "vessel", key, vessel)
        stock.put_holding(conn, "vessel", key, Holding(on_hand=1))
    return key


def put(conn: sqlite3.Connection, kind: StoreKind, key: str, thing: Any) -> None:
    """Keep a thing under its key. Raises CoreError: it is no vessel or no net, or no key."""
    ranges.check(Keyed(key=key))
    ranges.check(thing)
    if kind == "vessel":
        check_vessel(thing)
    if kind == "netting":
        pitch_across_m(thing)
    with transaction(conn):
        _put(conn, kind, key, thing)


def copy(conn: sqlite3.Connection, kind: StoreKind, key: str) -> str:
    """Copy a thing under a new key and name; the new key. Raises NotFound."""
    known = things(conn, kind)
    if key not in known:
        raise NotFound(f"{kind} {key}")
    thing = replace(known[key], name=f"{known[key].name}, copy")
    with transaction(conn):
        new = free_key(thing.name, set(known))
        if kind != "vessel":
            thing = replace(thing, key=new)
        _put(conn, kind, new, thing)
    return new


def count(conn: sqlite3.Connection, kind: HeldKind, key: str, holding: Holding) -> None:
    """Say how many there are, retire or bring back. Raises NotFound."""
    known = set(MECHANIC_KINDS) if kind == "mechanic" else set(things(conn, kind))
    if key not in known:
        raise NotFound(f"{kind} {key}")
    with transaction(conn):
        stock.put_holding(conn, kind, key, holding)


def export_table(conn: sqlite3.Connection, kind: StoreKind) -> str:
    """Everything of one kind as CSV."""
    return write_table(kind, things(conn, kind))


def import_table(conn: sqlite3.Connection, kind: StoreKind, text: str, *, dry_run: bool) -> Imported:
    """Read a CSV into the stores, or only say what it would change; rows that cannot be read are left out and named.

    Raises: BadTable: the text is no such table at all.
    """
    known = things(conn, kind)
    added: list[str] = []
    changed: list[str] = []
    refused: list[Refused] = []
    taken: dict[str, Any] = {}
    unchanged = 0
    for line, found, refusal in rows_of(kind, text):
        if refusal is not None:
            refused.append(refusal)
            continue
        key, thing = found
        if key in taken:
            refused.append(Refused(line=line, column="key", why=f"“{key}” stands in the table twice. Keep one."))
            continue
        taken[key] = thing
        if key not in known:
            added.append(key)
        elif known[key] != thing:
            changed.append(key)
        else:
            unchanged += 1
    if not dry_run:
        with transaction(conn):
            for key in (*added, *changed):
                _put(conn, kind, key, taken[key])
    return Imported(
        added=tuple(added),
        changed=tuple(changed),
        unchanged=unchanged,
        refused=tuple(refused),
        written=not dry_run,
    )


def free_key(name: str, taken: set[str]) -> str:
    """A key made of a name: plain letters, digits and dashes, numbered where it is taken."""
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    stem = re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[:50] or "thing"
    key, number = stem, 2
    while key in taken:
        key, number = f"{stem}-{number}", number + 1
    return key


def _put(conn: sqlite3.Connection, kind: StoreKind, key: str, thing: Any) -> None:
    match kind:
        case "vessel":
            stock.put_vessel(conn, key, thing)
        case "netting":
            stock.put_netting(conn, thing)
        case "frog":
            stock.put_frog(conn, thing)
        case "variety":
            stock.put_variety(conn, thing)
        case "supply":
            stock.put_supply(conn, thing)
