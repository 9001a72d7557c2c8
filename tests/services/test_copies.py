"""Copies of everything: saved while in use, put back whole, refused when they are none; what they replace is kept."""

import sqlite3
from collections.abc import Iterator
from contextlib import closing
from dataclasses import replace
from datetime import datetime, timedelta
from pathlib import Path

import pytest

from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services import copies, planning, rigging, stores
from jolly_trellis.services.gate import Based, Stale
from jolly_trellis.services.opening import COPIES, DATABASE_NAME, hold, open_studio
from jolly_trellis.store import connection, events, stock
from jolly_trellis.store.connection import StoreError
from jolly_trellis.store.stock import Holding


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    place = tmp_path / "studio"
    with closing(open_studio(place)) as conn:
        load_demo(conn)
    return place


@pytest.fixture
def open_one(folder: Path) -> Iterator[sqlite3.Connection]:
    with closing(open_studio(folder)) as conn:
        yield conn


def rename(conn: sqlite3.Connection, name: str, base: int | None = None) -> int:
    """Name piece 1 anew; the revision after that."""
    now = planning.state(conn, 1)
    piece = replace(now.plan.by_id()[1], name=name)
    base = now.event.revision if base is None else base
    return planning.put_part(conn, 1, 1, piece, base_revision=base, label="Rename").event.revision


def test_what_was_saved_comes_back_whole_and_what_it_replaces_is_kept(
    folder: Path, open_one: sqlite3.Connection, tmp_path: Path
) -> None:
    saved = planning.state(open_one, 1).plan
    copies.save(folder, tmp_path / "june.sqlite")
    rename(open_one, "Changed")
    stores.count(open_one, "vessel", "cube-14", Holding(on_hand=99))
    planning.delete_event(open_one, 1)
    replaced = copies.restore(folder, tmp_path / "june.sqlite")
    assert planning.state(open_one, 1).plan == saved
    assert stock.holdings(open_one)["vessel"]["cube-14"] == Holding(on_hand=2)
    assert replaced is not None
    assert [each.name for each in copies.kept(folder) if each.replaced] == [replaced.name]
    copies.restore(folder, replaced)
    assert events.list_events(open_one) == ()
    planning.bring_back_event(open_one, 1)
    assert planning.state(open_one, 1).plan.by_id()[1].name == "Changed"
    assert stock.holdings(open_one)["vessel"]["cube-14"] == Holding(on_hand=99)


def test_a_window_that_was_open_over_what_was_replaced_writes_over_nothing(
    folder: Path, open_one: sqlite3.Connection, tmp_path: Path
) -> None:
    copies.save(folder, tmp_path / "copy.sqlite")
    base = rename(open_one, "In an open window")
    survey_row = rigging.survey_of(open_one, 1)[1]
    shelf_before = stock.revision(open_one)
    copies.restore(folder, tmp_path / "copy.sqlite")
    with pytest.raises(Stale):
        rename(open_one, "Again", base)
    with pytest.raises(Stale):
        planning.put_brief(open_one, 1, planning.brief_of(open_one, 1), base_revision=base)
    with pytest.raises(Stale):
        rigging.put_survey(open_one, 1, survey_row.survey, Based(revision=survey_row.revision))
    assert stock.revision(open_one) > shelf_before
    assert rename(open_one, "Now") > base


def test_a_copy_of_an_older_program_is_brought_up_to_date(folder: Path, tmp_path: Path) -> None:
    old = tmp_path / "old.sqlite"
    with closing(sqlite3.connect(old)) as conn:
        for number, sql in connection._migrations()[:6]:
            conn.executescript(f"{sql}; PRAGMA user_version = {number};")
        conn.execute(
            "INSERT INTO supply VALUES ('stem-tube', 1, 'stem tube', 'piece', 100, NULL, 16, 0.1, 'sundries', '{}')"
        )
        conn.execute("INSERT INTO event (name, brief) VALUES ('Of old', '{\"name\":\"Of old\"}')")
        conn.commit()
    copies.restore(folder, old)
    with closing(open_studio(folder)) as conn:
        assert conn.execute("SELECT key FROM supply ORDER BY position").fetchall()[1][0] == "stem-tube-20"
        assert [each.name for each in events.list_events(conn)] == ["Of old"]
        assert len(stock.varieties(conn)) > 90


def bad(kind: str, folder: Path, place: Path) -> Path:
    path = place / f"{kind}.sqlite"
    match kind:
        case "missing":
            return path
        case "nothing in it":
            path.write_bytes(b"")
        case "text":
            path.write_text("dear florist " * 400)
        case "another program's":
            with closing(sqlite3.connect(path)) as conn:
                conn.execute("CREATE TABLE orders (id INTEGER)")
        case "newer":
            copies.save(folder, path)
            with closing(sqlite3.connect(path)) as conn:
                conn.execute("PRAGMA user_version = 99")
        case "cut short":
            copies.save(folder, path)
            path.write_bytes(path.read_bytes()[:40_000])
        case "scribbled on":
            copies.save(folder, path)
            text = bytearray(path.read_bytes())
            text[9000:60_000] = b"\x17" * 51_000
            path.write_bytes(bytes(text))
    return path


@pytest.mark.parametrize(
    ("kind", "words"),
    [
        ("missing", "no file"),
        ("nothing in it", "empty"),
        ("text", "no data of Jolly Trellis"),
        ("another program's", "another program"),
        ("newer", "newer Jolly Trellis"),
        ("cut short", "damaged"),
        ("scribbled on", "damaged"),
    ],
)
def test_what_is_no_copy_is_refused_and_nothing_is_changed(
    kind: str, words: str, folder: Path, open_one: sqlite3.Connection, tmp_path: Path
) -> None:
    before = planning.state(open_one, 1)
    with pytest.raises(StoreError, match=words):
        copies.restore(folder, bad(kind, folder, tmp_path))
    assert planning.state(open_one, 1) == before
    assert copies.kept(folder) == ()
    assert not [each for each in folder.rglob("*") if each.name.endswith(".part") or "fresh" in each.name]


def test_a_damaged_studio_is_mended_by_a_copy_and_set_aside(folder: Path, tmp_path: Path) -> None:
    copies.save(folder, tmp_path / "good.sqlite")
    (folder / DATABASE_NAME).write_bytes(b"not any more " * 1000)
    with pytest.raises(StoreError, match=r"damaged.*trellis restore"):
        open_studio(folder)
    with pytest.raises(StoreError, match="Nothing was saved"):
        copies.save(folder, tmp_path / "bad.sqlite")
    aside = copies.restore(folder, tmp_path / "good.sqlite")
    assert aside is not None
    assert aside.read_bytes().startswith(b"not any more")
    with closing(open_studio(folder)) as conn:
        assert len(events.list_events(conn)) == 1


def test_a_copy_is_put_into_a_folder_that_has_none(folder: Path, tmp_path: Path) -> None:
    copies.save(folder, tmp_path / "moving.sqlite")
    assert copies.restore(tmp_path / "elsewhere", tmp_path / "moving.sqlite") is None
    with closing(open_studio(tmp_path / "elsewhere")) as conn:
        assert len(events.list_events(conn)) == 1


def test_a_copy_never_writes_over_a_file(folder: Path, tmp_path: Path) -> None:
    there = tmp_path / "mine.txt"
    there.write_text("keep me")
    with pytest.raises(StoreError, match="is there already"):
        copies.save(folder, there)
    assert there.read_text() == "keep me"
    with pytest.raises(StoreError, match="Nothing was saved"):
        copies.save(folder, tmp_path / "no such folder" / "copy.sqlite")
    with pytest.raises(StoreError, match="no data"):
        copies.save(tmp_path / "nowhere", tmp_path / "copy.sqlite")


def test_a_copy_a_day_and_the_seven_newest_stay(folder: Path) -> None:
    first = datetime(2027, 5, 1, 8)
    for day in range(10):
        copies.daily(folder, first + timedelta(days=day))
        copies.daily(folder, first + timedelta(days=day, hours=3))
    names = sorted(each.name for each in copies.kept(folder))
    assert names == [f"2027-05-{day:02}.sqlite" for day in range(4, 11)]
    assert copies.path_of(folder, "2027-05-04.sqlite") == folder / COPIES / "2027-05-04.sqlite"
    assert copies.path_of(folder, "../jolly-trellis.sqlite") is None


def test_one_program_at_a_time_has_a_folder(folder: Path) -> None:
    with closing(hold(folder)), pytest.raises(StoreError, match="running on"):
        hold(folder)
    hold(folder).close()
