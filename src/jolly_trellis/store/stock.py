"""The stores: vessels, nettings and varieties the studio has."""

import json
import sqlite3
from collections.abc import Iterable

from jolly_trellis.core.netting import Netting
from jolly_trellis.core.provenance import Provenance
from jolly_trellis.core.stems import Variety, VarietyProvenance
from jolly_trellis.core.vessels import ProfilePoint, Vessel
from jolly_trellis.store import codec

_VESSEL = "SELECT * FROM vessel ORDER BY position, key"
_PROFILE = "SELECT * FROM vessel_profile ORDER BY vessel_key, height_m"
_PUT_VESSEL = """
    INSERT INTO vessel (key, position, name, plan_shape, wall_m, base_m, foot_width_m, foot_depth_m, mass_kg,
                        material, clear)
    VALUES (:key, (SELECT coalesce(max(position), 0) + 1 FROM vessel), :name, :plan_shape, :wall_m, :base_m,
            :foot_width_m, :foot_depth_m, :mass_kg, :material, :clear)
"""
_PUT_PROFILE = "INSERT INTO vessel_profile VALUES (:vessel_key, :height_m, :width_m, :depth_m)"
_PUT_NETTING = """
    INSERT INTO netting VALUES (:key, (SELECT coalesce(max(position), 0) + 1 FROM netting), :name, :aperture_m,
                                :wire_m, :finish, :roll_width_m, :roll_length_m, :price, :counted_cells,
                                :counted_length_m, :provenance)
"""
_PUT_VARIETY = """
    INSERT INTO variety VALUES (:key, (SELECT coalesce(max(position), 0) + 1 FROM variety), :name, :colour, :form,
                                :head_diameter_m, :head_height_m, :stem_diameter_m, :mass_kg, :mass_length_m,
                                :head_fraction, :heavy_mass_kg, :stiffness, :branch, :uptake_ml_h, :dry_hold_h,
                                :thirst, :bunch_size, :sold_lengths_m, :toxic, :thorny, :provenance)
"""


def revision(conn: sqlite3.Connection) -> int:
    """Counts up with every change to varieties or nettings."""
    return int(conn.execute("SELECT revision FROM stock_revision").fetchone()[0])


def vessels(conn: sqlite3.Connection) -> dict[str, Vessel]:
    """Every vessel by key, in the order of the stores."""
    points: dict[str, list[ProfilePoint]] = {}
    for row in conn.execute(_PROFILE):
        point = ProfilePoint(height_m=row["height_m"], width_m=row["width_m"], depth_m=row["depth_m"])
        points.setdefault(row["vessel_key"], []).append(point)
    return {row["key"]: _vessel(row, tuple(points.get(row["key"], ()))) for row in conn.execute(_VESSEL)}


def add_vessel(conn: sqlite3.Connection, key: str, vessel: Vessel) -> None:
    """Put a vessel into the stores under a new key."""
    values = {
        "key": key,
        "name": vessel.name,
        "plan_shape": vessel.plan_shape,
        "wall_m": vessel.wall_m,
        "base_m": vessel.base_m,
        "foot_width_m": vessel.foot_width_m,
        "foot_depth_m": vessel.foot_depth_m,
        "mass_kg": vessel.mass_kg,
        "material": vessel.material,
        "clear": int(vessel.clear),
    }
    conn.execute(_PUT_VESSEL, values)
    conn.executemany(_PUT_PROFILE, [{"vessel_key": key, **codec.to_plain(each)} for each in vessel.profile])


def nettings(conn: sqlite3.Connection) -> dict[str, Netting]:
    """Every netting by key, in the order of the stores."""
    rows = conn.execute("SELECT * FROM netting ORDER BY position, key")
    return {row["key"]: _netting(row) for row in rows}


def add_netting(conn: sqlite3.Connection, netting: Netting) -> None:
    """Put a netting into the stores."""
    conn.execute(_PUT_NETTING, {**codec.to_plain(netting), "provenance": codec.dumps(netting.provenance)})


def varieties(conn: sqlite3.Connection) -> dict[str, Variety]:
    """Every variety by key, in the order of the stores."""
    rows = conn.execute("SELECT * FROM variety ORDER BY position, key")
    return {row["key"]: _variety(row) for row in rows}


def add_variety(conn: sqlite3.Connection, variety: Variety) -> None:
    """Put a variety into the stores."""
    plain = codec.to_plain(variety)
    plain |= {name: int(plain[name]) for name in ("branch", "toxic", "thorny")}
    plain |= {name: json.dumps(plain[name]) for name in ("sold_lengths_m", "provenance")}
    conn.execute(_PUT_VARIETY, plain)


def fill_if_empty(
    conn: sqlite3.Connection,
    *,
    vessels_: Iterable[tuple[str, Vessel]],
    nettings_: Iterable[Netting],
    varieties_: Iterable[Variety],
) -> bool:
    """Lay the catalogue into stores that have no variety yet; tells whether it did."""
    if conn.execute("SELECT EXISTS (SELECT 1 FROM variety)").fetchone()[0]:
        return False
    for key, vessel in vessels_:
        add_vessel(conn, key, vessel)
    for netting in nettings_:
        add_netting(conn, netting)
    for variety in varieties_:
        add_variety(conn, variety)
    return True


def _vessel(row: sqlite3.Row, profile: tuple[ProfilePoint, ...]) -> Vessel:
    return Vessel(
        name=row["name"],
        plan_shape=row["plan_shape"],
        profile=profile,
        wall_m=row["wall_m"],
        base_m=row["base_m"],
        foot_width_m=row["foot_width_m"],
        foot_depth_m=row["foot_depth_m"],
        mass_kg=row["mass_kg"],
        material=row["material"],
        clear=bool(row["clear"]),
    )


def _netting(row: sqlite3.Row) -> Netting:
    values = {key: row[key] for key in row.keys() if key not in ("position", "provenance")}  # noqa: SIM118
    return Netting(**values, provenance=codec.loads(row["provenance"], Provenance))


def _variety(row: sqlite3.Row) -> Variety:
    kept = ("position", "sold_lengths_m", "branch", "toxic", "thorny", "provenance")
    values = {key: row[key] for key in row.keys() if key not in kept}  # noqa: SIM118
    return Variety(
        **values,
        sold_lengths_m=tuple(json.loads(row["sold_lengths_m"])),
        branch=bool(row["branch"]),
        toxic=bool(row["toxic"]),
        thorny=bool(row["thorny"]),
        provenance=codec.loads(row["provenance"], VarietyProvenance),
    )
