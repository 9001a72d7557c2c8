"""Opening, migrating, refusing what is newer, and all-or-nothing writes."""

import sqlite3
from dataclasses import replace
from pathlib import Path

import pytest

from jolly_trellis.services.opening import DATABASE_NAME, open_studio
from jolly_trellis.store import stock
from jolly_trellis.store.connection import StoreError, migrate, open_database, transaction


def test_a_new_folder_gets_a_migrated_database_with_the_catalogue(tmp_path: Path) -> None:
    conn = open_studio(tmp_path / "new" / "studio")
    assert conn.execute("PRAGMA journal_mode").fetchone()[0] == "wal"
    assert conn.execute("PRAGMA foreign_keys").fetchone()[0] == 1
    assert conn.execute("PRAGMA synchronous").fetchone()[0] == 2  # FULL: on the disk before it is said to be saved
    assert len(stock.varieties(conn)) >= 40
    conn.close()


def test_every_table_is_strict(studio: sqlite3.Connection) -> None:
    tables = studio.execute("SELECT name, strict FROM pragma_table_list WHERE type = 'table' AND schema = 'main'")
    assert all(row["strict"] for row in tables if not row["name"].startswith("sqlite_"))


def test_migrating_twice_changes_nothing(studio: sqlite3.Connection) -> None:
    assert migrate(studio) == 0


def test_a_database_newer_than_the_program_is_refused_and_left_alone(tmp_path: Path) -> None:
    conn = open_studio(tmp_path)
    conn.execute("PRAGMA user_version = 99")
    conn.close()
    with pytest.raises(StoreError, match="newer Jolly Trellis"):
        open_studio(tmp_path)
    again = open_database(tmp_path / DATABASE_NAME)
    assert again.execute("PRAGMA user_version").fetchone()[0] == 99
    again.close()


def test_a_failed_transaction_leaves_nothing_behind(studio: sqlite3.Connection) -> None:
    before = len(stock.vessels(studio))
    vessel = next(iter(stock.vessels(studio).values()))
    with pytest.raises(sqlite3.IntegrityError), transaction(studio):
        stock.put(studio, "vessel", "fresh", vessel)
        stock.put(studio, "vessel", "fresher", replace(vessel, wall_m=-1.0))
    assert len(stock.vessels(studio)) == before


def test_the_stores_give_back_what_was_put_in(studio: sqlite3.Connection) -> None:
    from tests import ordinary

    assert stock.vessels(studio) == ordinary.vessels()
    assert stock.nettings(studio) == ordinary.nettings()
    assert stock.varieties(studio) == ordinary.varieties()


def test_changes_to_the_stores_are_counted(studio: sqlite3.Connection) -> None:
    before = stock.revision(studio)
    studio.execute("UPDATE variety SET uptake_ml_h = 0.9 WHERE key = 'rose'")
    assert stock.revision(studio) == before + 1
