"""Cut plans of events, what was marked as cut, and the remnants in the stores: SQL text and functions."""

import sqlite3
from dataclasses import dataclass

from jolly_trellis.core.event.cutting.roll import CutPlan
from jolly_trellis.core.event.cutting.roll_problems import Material, MaterialPlan, Remnant
from jolly_trellis.store import codec

_GET = "SELECT design, made_for FROM cut_plan WHERE event_id = :event"
_PUT = """
INSERT INTO cut_plan (event_id, design, made_for, computed_by) VALUES (:event, :design, :made_for, :version)
ON CONFLICT (event_id) DO UPDATE SET design = excluded.design, made_for = excluded.made_for,
    computed_by = excluded.computed_by
"""
_REMNANTS = """
SELECT id, key, width_m, length_m FROM remnant WHERE material = :material AND used_by IS NULL ORDER BY id
"""
_ADD_REMNANT = """
INSERT INTO remnant (material, key, width_m, length_m, made_by) VALUES (:material, :key, :width, :length, :cut)
"""


@dataclass(frozen=True, slots=True, kw_only=True)
class CutRow:
    """A material of an event that was cut, for the how-manieth time, and how many rolls or packs it took."""

    id: int
    material: Material
    key: str
    nth: int
    rolls: int


def get_plan(conn: sqlite3.Connection, event_id: int) -> tuple[CutPlan, str] | None:
    """The cut plan of an event and what it was made for, or None."""
    row = conn.execute(_GET, {"event": event_id}).fetchone()
    return None if row is None else (codec.loads(row["design"], CutPlan), row["made_for"])


def put_plan(conn: sqlite3.Connection, event_id: int, plan: CutPlan, *, made_for: str, version: str) -> None:
    """Keep the cut plan of an event, over the one before."""
    values = {"event": event_id, "design": codec.dumps(plan), "made_for": made_for, "version": version}
    conn.execute(_PUT, values)


def remnants(conn: sqlite3.Connection, material: Material) -> tuple[Remnant, ...]:
    """Every remnant of a kind that nothing was cut from yet, the oldest first."""
    rows = conn.execute(_REMNANTS, {"material": material})
    return tuple(
        Remnant(id=row["id"], key=row["key"], width_m=row["width_m"], length_m=row["length_m"]) for row in rows
    )


def add_remnant(
    conn: sqlite3.Connection, material: Material, key: str, width_m: float, length_m: float, cut: int | None
) -> int:
    """Put a remnant into the stores; `cut` is the cut that left it, None for one counted in by hand; its number."""
    values = {"material": material, "key": key, "width": width_m, "length": length_m, "cut": cut}
    return int(conn.execute(_ADD_REMNANT, values).lastrowid or 0)


def remove_remnant(conn: sqlite3.Connection, remnant: int) -> bool:
    """Take a remnant out of the stores; tells whether it was there."""
    return conn.execute("DELETE FROM remnant WHERE id = :id AND used_by IS NULL", {"id": remnant}).rowcount > 0


def cuts(conn: sqlite3.Connection, event_id: int) -> tuple[CutRow, ...]:
    """What of an event was marked as cut."""
    sql = "SELECT id, material, key, nth, rolls FROM cut WHERE event_id = :event ORDER BY id"
    return tuple(CutRow(**row) for row in conn.execute(sql, {"event": event_id}))


def add_cut(conn: sqlite3.Connection, event_id: int, plan: MaterialPlan, rolls: int) -> int:
    """Mark a material as cut: remnants it takes are used, what is worth keeping goes into the stores; its number."""
    cursor = conn.execute(
        "INSERT INTO cut (event_id, material, key, nth, rolls) VALUES (:event, :material, :key, :nth, :rolls)",
        {"event": event_id, "material": plan.material, "key": plan.key, "nth": plan.nth, "rolls": rolls},
    )
    cut = int(cursor.lastrowid or 0)
    for stock in plan.stocks:
        if stock.remnant is not None:
            conn.execute("UPDATE remnant SET used_by = :cut WHERE id = :id", {"cut": cut, "id": stock.remnant})
        for width, long in stock.keep:
            add_remnant(conn, plan.material, plan.key, width, long, cut)
    return cut


def take_back(conn: sqlite3.Connection, cut: int) -> bool:
    """Undo a cut: its remnants leave the stores, those it took return. False where one of them is used since."""
    used = "SELECT EXISTS (SELECT 1 FROM remnant WHERE made_by = :cut AND used_by IS NOT NULL)"
    if conn.execute(used, {"cut": cut}).fetchone()[0]:
        return False
    conn.execute("DELETE FROM remnant WHERE made_by = :cut", {"cut": cut})
    conn.execute("UPDATE remnant SET used_by = NULL WHERE used_by = :cut", {"cut": cut})
    conn.execute("DELETE FROM cut WHERE id = :cut", {"cut": cut})
    return True
