"""Dry lives and draws that came with the program take their new values in studios that never changed them."""

import sqlite3
from pathlib import Path

import pytest

import jolly_trellis.store as store_package

SCRIPT = Path(store_package.__file__).parent / "migrations" / "0008_dry_lives_and_draws.sql"


def variety(conn: sqlite3.Connection, key: str) -> tuple[float, float, str, str]:
    row = conn.execute(
        "SELECT dry_hold_h, uptake_ml_h, json_extract(provenance, '$.dry_hold.kind'), "
        "json_extract(provenance, '$.uptake.kind') FROM variety WHERE key = ?",
        (key,),
    ).fetchone()
    return tuple(row)


def as_it_was(conn: sqlite3.Connection, key: str, dry: float, uptake: float, kind: str) -> None:
    conn.execute(
        "UPDATE variety SET dry_hold_h = ?, uptake_ml_h = ?, "
        "provenance = json_set(provenance, '$.dry_hold.kind', ?, '$.uptake.kind', ?) WHERE key = ?",
        (dry, uptake, kind, kind, key),
    )


def test_what_nobody_changed_is_renewed_and_a_studios_own_stays(studio: sqlite3.Connection) -> None:
    as_it_was(studio, "rose", 4.0, 0.7, "estimate")
    as_it_was(studio, "tulip", 5.0, 0.5, "measured")
    as_it_was(studio, "peony", 5.5, 1.0, "estimate")
    studio.executescript(SCRIPT.read_text(encoding="utf-8"))
    assert variety(studio, "rose") == (6.0, 1.0, "common practice", "from memory")
    assert variety(studio, "tulip") == (5.0, 0.5, "measured", "measured")
    dry, uptake, kind, _ = variety(studio, "peony")
    assert (dry, kind) == (5.5, "estimate")
    assert uptake == pytest.approx(1.2)
