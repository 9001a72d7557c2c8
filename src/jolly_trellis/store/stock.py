"""The stores: vessels, nettings, frogs, varieties and supplies the studio has, how many, and which it has retired."""

import json
import sqlite3
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any, get_args

from jolly_trellis.catalog.about import STORES
from jolly_trellis.catalog.rows import HeldKind, StoreKind
from jolly_trellis.core.materials.finished import FinishedArmature
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.stands import Stand
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.materials.supplies import Supply
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.field_table import FieldOf
from jolly_trellis.store import codec

# A column for each field of the thing but its key; parts of it have tables of their own.
_PARTS = ("profile",)
_FIELDS: Mapping[StoreKind, Mapping[str, FieldOf]] = {
    kind: {name: each for name, each in about.fields.items() if name not in ("key", *_PARTS)}
    for kind, about in STORES.items()
}
_PROFILE = "SELECT * FROM vessel_profile ORDER BY vessel_key, rowid"
_PUT_PROFILE = "INSERT INTO vessel_profile VALUES (:vessel_key, :height_m, :width_m, :depth_m, :corner)"
_PUT_HOLDING = """
    INSERT INTO holding (kind, key, on_hand, retired, lasts, used, resale)
    VALUES (:kind, :key, :on_hand, :retired, :lasts, :used, :resale)
    ON CONFLICT (kind, key) DO UPDATE SET on_hand = excluded.on_hand, retired = excluded.retired,
        lasts = excluded.lasts, used = excluded.used, resale = excluded.resale
"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Holding:
    """How many of a thing the studio has, and whether it has retired it.

    `lasts` is how often one is used, None as the figures say; `used` how many uses all of them together have had;
    `resale` what one is sold for when it is done with, None nothing.
    """

    on_hand: int = 0
    retired: bool = False
    lasts: int | None = None
    used: int = 0
    resale: float | None = None


def currency(conn: sqlite3.Connection) -> str:
    """The currency that prices of the stores are in."""
    return str(conn.execute("SELECT value FROM studio WHERE key = 'currency'").fetchone()[0])


def put_currency(conn: sqlite3.Connection, value: str) -> None:
    """Say which currency the prices of the stores are in."""
    conn.execute("UPDATE studio SET value = :value WHERE key = 'currency'", {"value": value})


def revision(conn: sqlite3.Connection) -> int:
    """Counts up with every change to varieties, nettings, frogs, supplies or holdings."""
    return int(conn.execute("SELECT revision FROM stock_revision").fetchone()[0])


def things(conn: sqlite3.Connection, kind: StoreKind) -> dict[str, Any]:
    """Everything of one kind by key, in the order of the stores."""
    about = STORES[kind]
    rows = conn.execute(f"SELECT * FROM {about.kind} ORDER BY position, key")
    parts = _profiles(conn) if "profile" in about.fields else {}
    return {row["key"]: about.thing(key=row["key"], **parts.get(row["key"], {}), **_values(kind, row)) for row in rows}


def put(conn: sqlite3.Connection, kind: StoreKind, key: str, thing: Any) -> None:
    """Put a thing into the stores, over the one of that key where there is one."""
    _put(conn, kind, key, thing)
    if "profile" in STORES[kind].fields:
        conn.execute("DELETE FROM vessel_profile WHERE vessel_key = :key", {"key": key})
        conn.executemany(_PUT_PROFILE, [{"vessel_key": key, **codec.to_plain(each)} for each in thing.profile])


def remove(conn: sqlite3.Connection, kind: StoreKind, key: str) -> None:
    """Take a thing out, with its count."""
    conn.execute(f"DELETE FROM {STORES[kind].kind} WHERE key = :key", {"key": key})
    conn.execute("DELETE FROM holding WHERE kind = :kind AND key = :key", {"kind": kind, "key": key})


def _profiles(conn: sqlite3.Connection) -> dict[str, dict[str, Any]]:
    points: dict[str, list[ProfilePoint]] = {}
    for row in conn.execute(_PROFILE):
        point = ProfilePoint(
            height_m=row["height_m"], width_m=row["width_m"], depth_m=row["depth_m"], corner=bool(row["corner"])
        )
        points.setdefault(row["vessel_key"], []).append(point)
    return {key: {"profile": tuple(each)} for key, each in points.items()}


def vessels(conn: sqlite3.Connection) -> dict[str, Vessel]:
    """Every vessel by key, in the order of the stores."""
    return things(conn, "vessel")


def stands(conn: sqlite3.Connection) -> dict[str, Stand]:
    """Every stand by key, in the order of the stores."""
    return things(conn, "stand")


def nettings(conn: sqlite3.Connection) -> dict[str, Netting]:
    """Every netting by key, in the order of the stores."""
    return things(conn, "netting")


def frogs(conn: sqlite3.Connection) -> dict[str, Frog]:
    """Every frog by key, in the order of the stores."""
    return things(conn, "frog")


def varieties(conn: sqlite3.Connection) -> dict[str, Variety]:
    """Every variety by key, in the order of the stores."""
    return things(conn, "variety")


def supplies(conn: sqlite3.Connection) -> dict[str, Supply]:
    """Every supply by key, in the order of the stores."""
    return things(conn, "supply")


def armatures(conn: sqlite3.Connection) -> dict[str, FinishedArmature]:
    """Every finished armature by key, in the order of the stores."""
    return things(conn, "armature")


def holdings(conn: sqlite3.Connection) -> dict[HeldKind, dict[str, Holding]]:
    """What the studio has of each thing by kind and key; a thing never counted is not in it."""
    found: dict[HeldKind, dict[str, Holding]] = {kind: {} for kind in get_args(HeldKind)}
    for row in conn.execute("SELECT * FROM holding"):
        found[row["kind"]][row["key"]] = Holding(
            on_hand=row["on_hand"],
            retired=bool(row["retired"]),
            lasts=row["lasts"],
            used=row["used"],
            resale=row["resale"],
        )
    return found


def put_holding(conn: sqlite3.Connection, kind: HeldKind, key: str, holding: Holding) -> None:
    """Say how many the studio has of a thing, whether it is retired, how it wears and what it is sold for."""
    values = {**codec.to_plain(holding), "retired": int(holding.retired)}
    conn.execute(_PUT_HOLDING, {"kind": kind, "key": key, **values})


def fill_if_empty(conn: sqlite3.Connection, catalogue: Callable[[StoreKind], Iterable[tuple[str, Any]]]) -> None:
    """Lay the catalogue into every part of the stores that is empty and from which nothing was deleted."""
    for kind in STORES:
        if _never_filled(conn, kind):
            for key, thing in catalogue(kind):
                put(conn, kind, key, thing)


def _never_filled(conn: sqlite3.Connection, kind: StoreKind) -> bool:
    known = f"SELECT EXISTS (SELECT 1 FROM {kind}) OR EXISTS (SELECT 1 FROM deleted_thing WHERE kind = :kind)"
    return not conn.execute(known, {"kind": kind}).fetchone()[0]


def _put(conn: sqlite3.Connection, kind: StoreKind, key: str, thing: object) -> None:
    """Insert or update one row; table and column names come from the thing's own fields, values are bound."""
    columns = _FIELDS[kind]
    names, slots = ", ".join(columns), ", ".join(f":{name}" for name in columns)
    updates = ", ".join(f"{name} = excluded.{name}" for name in columns)
    conn.execute(
        f"INSERT INTO {kind} (key, position, {names}) "
        f"VALUES (:key, (SELECT coalesce(max(position), 0) + 1 FROM {kind}), {slots}) "
        f"ON CONFLICT (key) DO UPDATE SET {updates}",
        {"key": key, **{name: _stored(getattr(thing, name)) for name in columns}},
    )


def _stored(value: object) -> object:
    """A field's value as a column has it: a flag as 0 or 1, what has parts as JSON."""
    if isinstance(value, bool):
        return int(value)
    return value if value is None or isinstance(value, (str, int, float)) else codec.dumps(value)


def _values(kind: StoreKind, row: sqlite3.Row) -> dict[str, Any]:
    return {name: _read(row[name], field) for name, field in _FIELDS[kind].items()}


def _read(stored: Any, field: FieldOf) -> Any:
    if field.many:
        return tuple(json.loads(stored))
    if field.kind is bool:
        return bool(stored)
    return stored if stored is None or field.kind in (str, int, float) else codec.loads(stored, field.kind)
