"""Cut plans and remnants in the database, and the migration that brought them to studios that had work already."""

import sqlite3
from pathlib import Path

from jolly_trellis.core.event.cutting.roll import cut_plan
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.services.opening import open_studio
from jolly_trellis.store import connection, cuts, stock
from jolly_trellis.store.connection import migrate, open_database, transaction
from tests.events import larder, one_bowl

VARIETY: dict[str, object] = {
    "position": 1,
    "colour": "#aabbcc",
    "form": "disc",
    "head_diameter_m": 0.06,
    "head_height_m": 0.05,
    "stem_diameter_m": 0.006,
    "mass_kg": 0.04,
    "mass_length_m": 0.6,
    "head_fraction": 0.4,
    "stiffness": "medium",
    "branch": 0,
    "uptake_ml_h": 0.7,
    "dry_hold_h": 4,
    "thirst": "usual",
    "bunch_size": 10,
    "sold_lengths_m": "[0.5]",
    "toxic": 0,
    "thorny": 0,
}


def event(conn: sqlite3.Connection) -> int:
    cursor = conn.execute("INSERT INTO event (name, brief) VALUES ('Slipway lunch', '{}')")
    return int(cursor.lastrowid or 0)


def test_a_cut_plan_is_read_back_as_it_was_and_the_next_takes_its_place(studio: sqlite3.Connection) -> None:
    number = event(studio)
    plan = cut_plan(needs_of(one_bowl()), larder(), seconds=0.5)
    assert cuts.get_plan(studio, number) is None
    cuts.put_plan(studio, number, plan, made_for="a", version="1")
    assert cuts.get_plan(studio, number) == (plan, "a")
    cuts.put_plan(studio, number, plan, made_for="b", version="1")
    assert cuts.get_plan(studio, number) == (plan, "b")


def test_remnants_outlive_the_event_that_left_them(studio: sqlite3.Connection) -> None:
    number = event(studio)
    plan = next(
        each for each in cut_plan(needs_of(one_bowl()), larder(), seconds=0.5).materials if each.material == "netting"
    )
    with transaction(studio):
        cuts.add_cut(studio, number, plan, rolls=1)
    left = cuts.remnants(studio, "netting")
    assert len(left) == sum(len(each.keep) for each in plan.stocks)
    studio.execute("DELETE FROM event WHERE id = :id", {"id": number})
    assert cuts.remnants(studio, "netting") == left


def test_a_studio_of_before_keeps_its_counts_and_gets_prices_days_and_supplies(tmp_path: Path) -> None:
    """A database as the fifth migration left it, with a counted vessel and a variety of its own."""
    path = tmp_path / "jolly-trellis.sqlite"
    conn = open_database(path)
    for number, sql in connection._migrations()[:5]:
        with transaction(conn):
            for statement in connection._statements(sql):
                conn.execute(statement)
            conn.execute(f"PRAGMA user_version = {number:d}")
    conn.execute("INSERT INTO holding VALUES ('vessel', 'low-bowl-20', 14, 0)")
    for key in ("rose", "own-rose"):
        row = VARIETY | {"key": key, "name": key, "provenance": _provenance()}
        names, slots = ", ".join(row), ", ".join(f":{name}" for name in row)
        conn.execute(f"INSERT INTO variety ({names}) VALUES ({slots})", row)
    assert migrate(conn) == len(connection._migrations()) - 5
    conn.close()
    again = open_studio(tmp_path)
    assert stock.holdings(again)["vessel"]["low-bowl-20"].on_hand == 14
    known = stock.varieties(again)
    assert known["rose"].bunch_price == 26.0
    assert known["rose"].provenance.price.kind == "estimate"
    assert known["own-rose"].bunch_price is None
    assert known["own-rose"].conditioning_h == 6.0
    assert stock.supplies(again)["stem-tube"].pack == 100
    again.close()


def _provenance() -> str:
    part = '{"kind": "measured", "source": ""}'
    return "{" + ", ".join(f'"{each}": {part}' for each in ("size", "mass", "uptake", "dry_hold", "hazard")) + "}"
