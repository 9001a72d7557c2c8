"""The stores: vessels, nettings, frogs, varieties and supplies the studio has, how many, and which it has retired."""

import json
import sqlite3
from collections.abc import Iterable
from dataclasses import dataclass
from typing import get_args

from jolly_trellis.catalog.columns import HeldKind
from jolly_trellis.catalog.rows import StoreKind
from jolly_trellis.core.frogs import Frog
from jolly_trellis.core.netting import Netting
from jolly_trellis.core.provenance import Provenance
from jolly_trellis.core.stems import Variety, VarietyProvenance
from jolly_trellis.core.supplies import Supply
from jolly_trellis.core.vessels import ProfilePoint, Vessel
from jolly_trellis.store import codec

_VESSEL = "SELECT * FROM vessel ORDER BY position, key"
_PROFILE = "SELECT * FROM vessel_profile ORDER BY vessel_key, height_m"
_COLUMNS: dict[StoreKind, tuple[str, ...]] = {
    "vessel": (
        "name",
        "plan_shape",
        "wall_m",
        "base_m",
        "foot_width_m",
        "foot_depth_m",
        "mass_kg",
        "material",
        "clear",
        "provenance",
    ),
    "netting": (
        "name",
        "aperture_m",
        "wire_m",
        "finish",
        "roll_width_m",
        "roll_length_m",
        "price",
        "counted_cells",
        "counted_length_m",
        "provenance",
    ),
    "frog": (
        "name",
        "kind",
        "width_m",
        "height_m",
        "mass_kg",
        "opening_m",
        "openings",
        "volume_l",
        "price",
        "provenance",
    ),
    "variety": (
        "name",
        "colour",
        "form",
        "head_diameter_m",
        "head_height_m",
        "stem_diameter_m",
        "mass_kg",
        "mass_length_m",
        "head_fraction",
        "heavy_mass_kg",
        "stiffness",
        "branch",
        "uptake_ml_h",
        "dry_hold_h",
        "thirst",
        "bunch_size",
        "sold_lengths_m",
        "toxic",
        "thorny",
        "bulb",
        "forked",
        "dip",
        "fold",
        "side_shoots",
        "bunch_price",
        "stem_price",
        "conditioning_h",
        "opening_days",
        "provenance",
    ),
    "supply": ("name", "measured_by", "pack", "stick_m", "price", "spare", "supplier", "provenance"),
}
_FLAGS = ("branch", "toxic", "thorny", "bulb", "forked", "dip", "fold")
_PUT_PROFILE = "INSERT INTO vessel_profile VALUES (:vessel_key, :height_m, :width_m, :depth_m)"
_PUT_HOLDING = """
    INSERT INTO holding (kind, key, on_hand, retired) VALUES (:kind, :key, :on_hand, :retired)
    ON CONFLICT (kind, key) DO UPDATE SET on_hand = excluded.on_hand, retired = excluded.retired
"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Holding:
    """How many of a thing the studio has, and whether it has retired it."""

    on_hand: int = 0
    retired: bool = False


def revision(conn: sqlite3.Connection) -> int:
    """Counts up with every change to varieties, nettings, frogs, supplies or holdings."""
    return int(conn.execute("SELECT revision FROM stock_revision").fetchone()[0])


def vessels(conn: sqlite3.Connection) -> dict[str, Vessel]:
    """Every vessel by key, in the order of the stores."""
    points: dict[str, list[ProfilePoint]] = {}
    for row in conn.execute(_PROFILE):
        point = ProfilePoint(height_m=row["height_m"], width_m=row["width_m"], depth_m=row["depth_m"])
        points.setdefault(row["vessel_key"], []).append(point)
    return {row["key"]: _vessel(row, tuple(points.get(row["key"], ()))) for row in conn.execute(_VESSEL)}


def put_vessel(conn: sqlite3.Connection, key: str, vessel: Vessel) -> None:
    """Put a vessel into the stores, over the one of that key where there is one."""
    plain = codec.to_plain(vessel)
    plain["clear"] = int(vessel.clear)
    _put(conn, "vessel", key, plain)
    conn.execute("DELETE FROM vessel_profile WHERE vessel_key = :key", {"key": key})
    conn.executemany(_PUT_PROFILE, [{"vessel_key": key, **codec.to_plain(each)} for each in vessel.profile])


def nettings(conn: sqlite3.Connection) -> dict[str, Netting]:
    """Every netting by key, in the order of the stores."""
    rows = conn.execute("SELECT * FROM netting ORDER BY position, key")
    return {row["key"]: _netting(row) for row in rows}


def put_netting(conn: sqlite3.Connection, netting: Netting) -> None:
    """Put a netting into the stores, over the one of its key."""
    _put(conn, "netting", netting.key, codec.to_plain(netting) | {"provenance": codec.dumps(netting.provenance)})


def frogs(conn: sqlite3.Connection) -> dict[str, Frog]:
    """Every frog by key, in the order of the stores."""
    rows = conn.execute("SELECT * FROM frog ORDER BY position, key")
    return {row["key"]: _frog(row) for row in rows}


def put_frog(conn: sqlite3.Connection, frog: Frog) -> None:
    """Put a frog into the stores, over the one of its key."""
    _put(conn, "frog", frog.key, codec.to_plain(frog) | {"provenance": codec.dumps(frog.provenance)})


def varieties(conn: sqlite3.Connection) -> dict[str, Variety]:
    """Every variety by key, in the order of the stores."""
    rows = conn.execute("SELECT * FROM variety ORDER BY position, key")
    return {row["key"]: _variety(row) for row in rows}


def put_variety(conn: sqlite3.Connection, variety: Variety) -> None:
    """Put a variety into the stores, over the one of its key."""
    plain = codec.to_plain(variety)
    plain |= {name: int(plain[name]) for name in _FLAGS}
    plain |= {name: json.dumps(plain[name]) for name in ("sold_lengths_m", "provenance")}
    _put(conn, "variety", variety.key, plain)


def supplies(conn: sqlite3.Connection) -> dict[str, Supply]:
    """Every supply by key, in the order of the stores."""
    rows = conn.execute("SELECT * FROM supply ORDER BY position, key")
    return {row["key"]: _supply(row) for row in rows}


def put_supply(conn: sqlite3.Connection, supply: Supply) -> None:
    """Put a supply into the stores, over the one of its key."""
    _put(conn, "supply", supply.key, codec.to_plain(supply) | {"provenance": codec.dumps(supply.provenance)})


def holdings(conn: sqlite3.Connection) -> dict[HeldKind, dict[str, Holding]]:
    """What the studio has of each thing by kind and key; a thing never counted is not in it."""
    found: dict[HeldKind, dict[str, Holding]] = {kind: {} for kind in get_args(HeldKind)}
    for row in conn.execute("SELECT * FROM holding"):
        found[row["kind"]][row["key"]] = Holding(on_hand=row["on_hand"], retired=bool(row["retired"]))
    return found


def put_holding(conn: sqlite3.Connection, kind: HeldKind, key: str, holding: Holding) -> None:
    """Say how many the studio has of a thing, and whether it is retired."""
    conn.execute(_PUT_HOLDING, {"kind": kind, "key": key, "on_hand": holding.on_hand, "retired": int(holding.retired)})


def fill_if_empty(
    conn: sqlite3.Connection,
    *,
    vessels_: Iterable[tuple[str, Vessel]],
    nettings_: Iterable[Netting],
    frogs_: Iterable[Frog],
    varieties_: Iterable[Variety],
    supplies_: Iterable[Supply],
) -> None:
    """Lay the catalogue into every part of the stores that is empty and from which nothing was deleted."""
    if _never_filled(conn, "vessel"):
        for key, vessel in vessels_:
            put_vessel(conn, key, vessel)
    if _never_filled(conn, "netting"):
        for netting in nettings_:
            put_netting(conn, netting)
    if _never_filled(conn, "frog"):
        for frog in frogs_:
            put_frog(conn, frog)
    if _never_filled(conn, "variety"):
        for variety in varieties_:
            put_variety(conn, variety)
    if _never_filled(conn, "supply"):
        for supply in supplies_:
            put_supply(conn, supply)


def _never_filled(conn: sqlite3.Connection, kind: StoreKind) -> bool:
    known = f"SELECT EXISTS (SELECT 1 FROM {kind}) OR EXISTS (SELECT 1 FROM deleted_thing WHERE kind = :kind)"
    return not conn.execute(known, {"kind": kind}).fetchone()[0]


def _put(conn: sqlite3.Connection, kind: StoreKind, key: str, plain: dict[str, object]) -> None:
    """Insert or update one row; table and column names come from this file only, values are bound."""
    columns = _COLUMNS[kind]
    names, slots = ", ".join(columns), ", ".join(f":{name}" for name in columns)
    updates = ", ".join(f"{name} = excluded.{name}" for name in columns)
    conn.execute(
        f"INSERT INTO {kind} (key, position, {names}) "
        f"VALUES (:key, (SELECT coalesce(max(position), 0) + 1 FROM {kind}), {slots}) "
        f"ON CONFLICT (key) DO UPDATE SET {updates}",
        {"key": key, **{name: plain[name] for name in columns}},
    )


def _vessel(row: sqlite3.Row, profile: tuple[ProfilePoint, ...]) -> Vessel:
    values = {name: row[name] for name in _COLUMNS["vessel"]} | {"clear": bool(row["clear"])}
    return Vessel(profile=profile, **values)


def _netting(row: sqlite3.Row) -> Netting:
    values = {name: row[name] for name in _COLUMNS["netting"]}
    return Netting(key=row["key"], **values | {"provenance": codec.loads(row["provenance"], Provenance)})


def _frog(row: sqlite3.Row) -> Frog:
    values = {name: row[name] for name in _COLUMNS["frog"]}
    return Frog(key=row["key"], **values | {"provenance": codec.loads(row["provenance"], Provenance)})


def _supply(row: sqlite3.Row) -> Supply:
    values = {name: row[name] for name in _COLUMNS["supply"]}
    return Supply(key=row["key"], **values | {"provenance": codec.loads(row["provenance"], Provenance)})


def _variety(row: sqlite3.Row) -> Variety:
    values = {name: row[name] for name in _COLUMNS["variety"]}
    values |= {name: bool(row[name]) for name in _FLAGS}
    values["sold_lengths_m"] = tuple(json.loads(row["sold_lengths_m"]))
    values["provenance"] = codec.loads(row["provenance"], VarietyProvenance)
    return Variety(key=row["key"], **values)
