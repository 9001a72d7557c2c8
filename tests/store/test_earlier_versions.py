"""A database of every earlier version: it opens, loses nothing, and one whose opening was cut off is opened again."""

import lzma
import shutil
import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest

from jolly_trellis.services import planning, rigging
from jolly_trellis.services.opening import COPIES, DATABASE_NAME, open_studio
from jolly_trellis.store import connection, migrating, proven, rewriting, stock, ticks

EARLIER = sorted((Path(__file__).parent / "earlier").glob("*.xz"), key=lambda each: int(each.name[8:-10]))


def laid_out(folder: Path, kept: Path) -> Path:
    """A studio's folder with a database of an earlier version in it."""
    path = folder / DATABASE_NAME
    path.write_bytes(lzma.decompress(kept.read_bytes()))
    return path


def rows(conn: sqlite3.Connection, sql: str) -> list[tuple[object, ...]]:
    return [tuple(row) for row in conn.execute(sql)]


def test_there_is_one_of_every_earlier_version() -> None:
    assert [each.name for each in EARLIER] == [
        f"version_{number}.sqlite.xz" for number in range(1, len(connection._migrations()))
    ]


@pytest.mark.parametrize("kept", EARLIER, ids=lambda each: each.name[:9])
def test_it_opens_and_loses_nothing(kept: Path, tmp_path: Path) -> None:
    """Each was made by the program of its time: some steps taken, the last two undone, a hung piece renamed."""
    path = laid_out(tmp_path, kept)
    with closing(sqlite3.connect(path)) as before:
        name, revision, step = before.execute("SELECT name, revision, step FROM event").fetchone()
        names = [
            each[0]
            for table in ("piece", "rig", "part")
            if before.execute("SELECT 1 FROM sqlite_master WHERE name = ?", (table,)).fetchone()
            for each in rows(before, f"SELECT design ->> 'name' FROM {table} ORDER BY position")
        ]
        whole = before.execute("SELECT 1 FROM sqlite_master WHERE name = 'history'").fetchone()
        kept_in = "history WHERE step > 0" if whole else "change WHERE step IS NOT NULL"
        steps = [str(each[0]) for each in rows(before, f"SELECT label FROM {kept_in} ORDER BY step")]
        varieties = rows(before, "SELECT key, mass_kg FROM variety ORDER BY key")
    with closing(open_studio(tmp_path)) as conn:
        state = planning.state(conn, 1)
        assert (state.event.name, state.event.revision, state.event.step) == (name, revision, step)
        assert [each.part.name for each in state.plan.parts] == names
        assert set(varieties) <= set(rows(conn, "SELECT key, mass_kg FROM variety"))
        _there_and_back(conn, state, steps)
    copy = tmp_path / COPIES / f"before-update-{kept.name[8:-10]}.sqlite"
    with closing(sqlite3.connect(copy)) as old:
        assert old.execute("SELECT revision FROM event").fetchone()[0] == revision


def _there_and_back(conn: sqlite3.Connection, state: planning.EventState, steps: list[str]) -> None:
    """Every step can be undone, by its name, and done again; the plan is the same afterwards."""
    begun, walked = state.plan, []
    while state.redo is not None:
        state = planning.redo(conn, 1, base_revision=state.event.revision)
    last = state.plan
    while state.undo is not None:
        walked.append(state.undo)
        state = planning.undo(conn, 1, base_revision=state.event.revision)
    assert walked[::-1] == steps
    first = state.plan
    assert first != begun
    for _ in steps:
        state = planning.redo(conn, 1, base_revision=state.event.revision)
    assert state.plan == last
    assert (state.redo, len(walked)) == (None, len(steps))


def schema(conn: sqlite3.Connection) -> list[tuple[object, ...]]:
    """Every table, index and trigger."""
    return rows(conn, "SELECT type, name, sql FROM sqlite_master WHERE name NOT LIKE 'sqlite_%' ORDER BY type, name")


@pytest.mark.parametrize("kept", EARLIER, ids=lambda each: each.name[:9])
def test_it_ends_as_a_new_one_begins(kept: Path, tmp_path: Path) -> None:
    fresh, old = tmp_path / "fresh", tmp_path / "old"
    old.mkdir()
    laid_out(old, kept)
    with closing(open_studio(fresh)) as new, closing(open_studio(old)) as conn:
        assert schema(conn) == schema(new)


def test_supplies_that_a_migration_gained_after_it_was_used_are_there_but_for_one_that_was_deleted(
    tmp_path: Path,
) -> None:
    path = laid_out(tmp_path, EARLIER[14])
    late = ("shackle", "swivel", "stem-wire-04", "pin")
    with closing(sqlite3.connect(path)) as conn:
        for key in late:
            conn.execute("DELETE FROM supply WHERE key = ?", (key,))
        conn.execute("INSERT INTO deleted_thing VALUES ('supply', 'pin', 'lapel pin', '2027-01-01T10:00', '{}')")
        conn.commit()
    with closing(open_studio(tmp_path)) as conn:
        there = {each[0] for each in rows(conn, "SELECT key FROM supply")}
        assert {"shackle", "swivel", "stem-wire-04"} <= there
        assert "pin" not in there
        assert conn.execute("SELECT count(*), count(DISTINCT position) FROM supply").fetchone()[0:2] == (
            len(there),
            len(there),
        )


class Killed(BaseException):
    """The process ends here."""


@pytest.mark.parametrize("kept", EARLIER[7:9], ids=lambda each: each.name[:9])
def test_one_whose_opening_was_cut_off_is_opened_again(
    kept: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = laid_out(tmp_path, kept)

    def killed(before: str, after: str) -> str:
        raise Killed

    with monkeypatch.context() as patched:
        patched.setattr(migrating, "_plan_change", killed)
        with pytest.raises(connection.StoreError):
            open_studio(tmp_path)
    with closing(sqlite3.connect(path)) as conn:
        assert conn.execute("SELECT count(*) FROM history").fetchone()[0] > 3
    with closing(open_studio(tmp_path)) as conn:
        assert planning.state(conn, 1).undo is not None


def test_an_update_that_cannot_keep_a_copy_first_is_not_begun(tmp_path: Path) -> None:
    path = laid_out(tmp_path, EARLIER[-1])
    before = path.read_bytes()
    (tmp_path / COPIES).write_text("in the way")
    with pytest.raises(connection.StoreError, match="copies"):
        open_studio(tmp_path)
    assert path.read_bytes() == before
    (tmp_path / COPIES).unlink()
    shutil.copy(path, tmp_path / "again.sqlite")
    open_studio(tmp_path).close()


def test_things_that_were_joined_by_name_have_the_keys_of_the_stores_also_in_the_history(tmp_path: Path) -> None:
    """In it a bowl was taken for another and back again, one is hired, and a stand is ticked as out."""
    laid_out(tmp_path, EARLIER[16])
    with closing(open_studio(tmp_path)) as conn:
        state = planning.state(conn, 1)
        keys = set()
        for _ in range(10):
            bowl = state.plan.pieces[0].part.vessel
            assert stock.vessels(conn)[bowl.key].name == bowl.name
            keys.add(bowl.key)
            if state.undo is None:
                break
            state = planning.undo(conn, 1, base_revision=state.event.revision)
        assert keys == {"low-bowl-20", "low-bowl-26"}
        while state.redo is not None:
            state = planning.redo(conn, 1, base_revision=state.event.revision)
        pieces = [each.part for each in state.plan.pieces]
        assert {each.support.key for each in pieces if each.support is not None} == {"cylinder-stand-50"}
        assert {each.insert.outer.key for each in pieces if each.insert is not None} == {"urn-24"}
        assert [each.of for each in state.plan.brief.hires] == ["vessel:low-bowl-20"]
        (tick,) = ticks.ticks(conn, 1, "out")
        assert tick.line == "stand:cylinder-stand-50"


def test_what_is_worn_is_a_kind_and_points_are_told_by_key_also_in_the_history(tmp_path: Path) -> None:
    """In it a posy was wired as a corsage, bound again, wired as a buttonhole, then renamed, which was undone."""
    laid_out(tmp_path, EARLIER[17])
    with closing(open_studio(tmp_path)) as conn:
        state = planning.state(conn, 1)
        seen = []
        while state.redo is not None:
            state = planning.redo(conn, 1, base_revision=state.event.revision)
        while True:
            posy = state.plan.by_id()[9]
            seen.append((posy.kind, getattr(posy, "hand_length_m", None), posy.name))
            if state.undo is None:
                break
            state = planning.undo(conn, 1, base_revision=state.event.revision)
        kinds = [(kind, hand) for kind, hand, _ in seen]
        assert list(dict.fromkeys(kinds)) == [("worn", None), ("bouquet", 0.06), ("bouquet", 0.13), ("bouquet", None)]
        assert [name for _, _, name in seen][:3] == [
            "Witness's buttonhole",
            "Witness's buttonhole",
            "Attendants' posy",
        ]
        place, row = rigging.survey_of(conn, 1)
        assert place == "osterlay-ropewalk-museum-long-gallery"
        assert {each.beam for each in row.survey.points} == {None, "tie-beam"}
        while state.redo is not None:
            state = planning.redo(conn, 1, base_revision=state.event.revision)
        rig = state.plan.rigs[0]
        there = rigging.in_place(conn, rigging.Where(event=1, brief=state.plan.brief, part=rig.id), rig.part)
        assert {each.rating_n for each in there.points} <= {each.rating_n for each in row.survey.points}
        assert [(each.key, each.name, each.rating_n) for each in there.beams] == [("tie-beam", "tie beam", 2500.0)]


def test_two_surveyed_places_of_which_one_is_called_as_the_other_s_key_are_both_there(tmp_path: Path) -> None:
    path = laid_out(tmp_path, EARLIER[17])
    with closing(sqlite3.connect(path)) as before:
        for name in ("Barn", "barn", "BARN 2"):
            before.execute("INSERT INTO survey (place, design, revision) VALUES (?, '{}', 3)", (name,))
        before.commit()
    with closing(open_studio(tmp_path)) as conn:
        kept = {str(key): revision for key, revision in rows(conn, "SELECT place_key, revision FROM survey")}
        assert {key: each for key, each in kept.items() if key.startswith("barn")} == {
            "barn": 3,
            "barn-2": 3,
            "barn-2-2": 3,
        }


def test_where_a_part_is_made_and_when_its_stems_go_in_are_its_passage_also_in_the_history(tmp_path: Path) -> None:
    """Made there, stems on site, two days in the cooler and then a day and a half: undone one by one."""
    laid_out(tmp_path, EARLIER[18])
    with closing(open_studio(tmp_path)) as conn:
        state = planning.state(conn, 1)
        told: list[Any] = []
        while state.redo is not None:
            state = planning.redo(conn, 1, base_revision=state.event.revision)
        while state.undo is not None:
            parts = state.plan.pieces
            lines = sum(line.going_in("on site") == line.count for each in parts for line in each.part.recipe)
            cooled = [each.part.passage.cooled.days for each in parts if each.part.passage.cooled is not None]
            made = [each.part.passage.made for each in parts].count("its place")
            told.append((state.undo, made, lines, cooled))
            state = planning.undo(conn, 1, base_revision=state.event.revision)
        proven_there = [line.goes_in for each in proven.recipes(conn) for line in each.proven.recipe]
    assert [each[0] for each in told[-8:]] == [
        "All on site",
        "In the workshop again",
        "Rename",
        "A day and a half",
        "None",
        "Two days in the cooler",
        "On site",
        "Make it where it stands",
    ]
    first = told[-1]
    made, lines, cooled = first[1], first[2], first[3]
    by_label: dict[str, Any] = {label: rest for label, *rest in told}
    assert by_label["On site"] == [made, lines + 1, cooled]
    assert by_label["Two days in the cooler"][:2] == by_label["None"][:2] == [made, lines + 1]
    days = [sorted(by_label[label][2]) for label in ("Two days in the cooler", "None", "A day and a half")]
    assert [2.0 in days[0], 2.0 in days[1], 1.5 in days[2]] == [True, False, True]
    assert by_label["In the workshop again"][0] == made - 1
    assert by_label["All on site"][1] > lines + 1
    assert proven_there[0] == "on site"
    assert set(proven_there[1:]) == {"with the piece"}


def test_names_that_make_one_key_stay_two() -> None:
    places = rewriting.Places()
    assert [places.of("point", "Hall", name) for name in ("beam 1", "beam-1", "beam 1")] == [
        "beam-1",
        "beam-1-2",
        "beam-1",
    ]
    assert places.of("point", "Barn", "beam-1") == "beam-1"
    assert [places.key(name) for name in ("Hall", "hall!", " Hall ", "")] == ["hall", "hall-2", "hall", ""]


def test_a_plan_s_own_thing_has_no_key() -> None:
    known = {"vessel": {"bowl": "bowl-1"}, "stand": {}}
    document: Any = {"vessel": {"name": "jug", "plan_shape": "round", "profile": []}, "text": {"name": "bowl"}}
    migrating.things_keyed(document, known)
    assert document["vessel"]["key"] == ""
    assert "key" not in document["text"]
