"""Saving, stale writes, undo and redo across restarts."""

import sqlite3
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from pathlib import Path

import pytest
from cattrs.errors import ClassValidationError

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.services import planning
from jolly_trellis.services.gate import Stale
from jolly_trellis.services.opening import DATABASE_NAME, open_studio
from jolly_trellis.services.planning import NotFound, NothingToDo
from jolly_trellis.store import codec
from jolly_trellis.store.connection import open_database
from jolly_trellis.store.plan import MOST_PARTS, Brief, Plan, Planned
from tests.ordinary import piece

BRIEF = Brief(name="Quay lunch", time_zone="Europe/London")


def begun(conn: sqlite3.Connection) -> planning.EventState:
    return planning.new_event(conn, BRIEF, (piece(),))


def save(
    conn: sqlite3.Connection, state: planning.EventState, level: float, base: int | None = None
) -> planning.EventState:
    changed = replace(state.plan.pieces[0].part, water_level_m=level)
    base = state.event.revision if base is None else base
    return planning.put_part(conn, state.event.id, 1, changed, base_revision=base, label=f"Water to {level}")


def level_of(state: planning.EventState) -> float:
    return state.plan.pieces[0].part.water_level_m


def test_undo_and_redo_walk_the_steps_and_say_what_they_do(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    assert (state.undo, state.redo) == (None, None)
    state = save(studio, save(studio, state, 0.07), 0.06)
    assert state.undo == "Water to 0.06"
    state = planning.undo(studio, 1, base_revision=state.event.revision)
    assert (level_of(state), state.undo, state.redo) == (0.07, "Water to 0.07", "Water to 0.06")
    state = planning.undo(studio, 1, base_revision=state.event.revision)
    assert level_of(state) == piece().water_level_m
    state = planning.redo(studio, 1, base_revision=state.event.revision)
    assert level_of(state) == 0.07


def test_history_outlives_a_restart(tmp_path: Path) -> None:
    conn = open_studio(tmp_path)
    save(conn, begun(conn), 0.07)
    conn.close()
    conn = open_studio(tmp_path)
    state = planning.state(conn, 1)
    assert (level_of(state), state.undo) == (0.07, "Water to 0.07")
    state = planning.undo(conn, 1, base_revision=state.event.revision)
    assert level_of(state) == piece().water_level_m
    conn.close()


def test_a_new_change_after_undo_forgets_what_was_undone(studio: sqlite3.Connection) -> None:
    state = save(studio, begun(studio), 0.07)
    state = planning.undo(studio, 1, base_revision=state.event.revision)
    state = save(studio, state, 0.05)
    assert state.redo is None
    with pytest.raises(NothingToDo):
        planning.redo(studio, 1, base_revision=state.event.revision)


def test_a_stale_write_is_refused_with_what_changed_and_saves_nothing(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    save(studio, state, 0.07)
    with pytest.raises(Stale) as caught:
        save(studio, state, 0.05)
    assert caught.value.revision == 2
    differences = {each.path: (each.was, each.now) for each in caught.value.differences}
    assert differences == {"water_level_m": (0.083, 0.07)}
    assert level_of(planning.state(studio, 1)) == 0.07


def test_a_write_based_on_the_newest_revision_goes_over_the_other(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    newest = save(studio, state, 0.07).event.revision
    assert level_of(save(studio, state, 0.05, base=newest)) == 0.05


def test_two_windows_on_different_pieces_do_not_disturb_one_another(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    second, _ = planning.add_part(studio, 1, replace(piece(), name="second"), base_revision=1)
    save(studio, state, 0.07)
    changed = replace(second.plan.pieces[1].part, quantity=3)
    state = planning.put_part(studio, 1, 2, changed, base_revision=second.event.revision, label="Three")
    assert [each.part.quantity for each in state.plan.pieces] == [1, 3]
    assert level_of(state) == 0.07


def test_undo_in_a_window_that_is_behind_is_refused(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    save(studio, state, 0.07)
    with pytest.raises(Stale):
        planning.undo(studio, 1, base_revision=state.event.revision)


def test_a_removed_piece_comes_back_with_its_number(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    state = planning.remove_part(studio, 1, 1, base_revision=state.event.revision)
    assert state.plan.pieces == ()
    state = planning.undo(studio, 1, base_revision=state.event.revision)
    assert [each.id for each in state.plan.pieces] == [1]
    state, _ = planning.add_part(studio, 1, piece(), base_revision=state.event.revision)
    assert [each.id for each in state.plan.pieces] == [1, 2]


def test_a_change_that_changes_nothing_is_no_step(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    again = save(studio, state, piece().water_level_m)
    assert (again.event.revision, again.undo) == (state.event.revision, None)


def test_the_brief_is_saved_and_undone_too(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    state = planning.put_brief(studio, 1, replace(BRIEF, name="Quay supper"), base_revision=state.event.revision)
    assert state.plan.brief.name == "Quay supper"
    state = planning.undo(studio, 1, base_revision=state.event.revision)
    assert state.plan.brief.name == "Quay lunch"


def test_what_is_not_there_is_not_found(studio: sqlite3.Connection) -> None:
    begun(studio)
    with pytest.raises(NotFound):
        planning.state(studio, 7)
    with pytest.raises(NotFound):
        planning.remove_part(studio, 1, 7, base_revision=1)
    with pytest.raises(NotFound):
        planning.put_part(studio, 1, 7, piece(), base_revision=1, label="x")


def test_a_write_based_on_a_revision_that_is_not_there_yet_is_refused_and_changes_nothing(
    studio: sqlite3.Connection,
) -> None:
    state = begun(studio)
    ahead = state.event.revision + 5
    acts = (
        lambda: planning.put_part(studio, 1, 1, piece(), base_revision=ahead, label="x"),
        lambda: planning.add_part(studio, 1, piece(), base_revision=ahead),
        lambda: planning.put_brief(studio, 1, BRIEF, base_revision=ahead),
        lambda: planning.remove_part(studio, 1, 1, base_revision=ahead),
        lambda: planning.undo(studio, 1, base_revision=ahead),
    )
    for act in acts:
        with pytest.raises(Stale) as caught:
            act()
        assert caught.value.revision == state.event.revision
    assert planning.state(studio, 1) == state


def test_parallel_adds_are_all_kept_under_numbers_of_their_own(tmp_path: Path) -> None:
    """Twenty-four at once, each on a connection of its own."""
    conn = open_studio(tmp_path)
    begun(conn)
    conn.close()

    def add(nth: int) -> int:
        own = open_database(tmp_path / DATABASE_NAME)
        try:
            return planning.add_part(own, 1, replace(piece(), name=f"bowl {nth}"), base_revision=1)[1]
        finally:
            own.close()

    with ThreadPoolExecutor(8) as pool:
        numbers = list(pool.map(add, range(24)))
    conn = open_database(tmp_path / DATABASE_NAME)
    kept = planning.state(conn, 1).plan.by_id()
    conn.close()
    assert sorted(numbers) == list(range(2, 26))
    assert [kept[number].name for number in numbers] == [f"bowl {nth}" for nth in range(24)]


def test_an_event_takes_no_more_pieces_than_its_file_does(studio: sqlite3.Connection) -> None:
    many = Plan(brief=BRIEF, parts=tuple(Planned(id=each, part=piece()) for each in range(1, MOST_PARTS + 1)))
    event = planning.begin(studio, many)
    with pytest.raises(InvalidMeasure) as caught:
        planning.add_part(studio, event.id, piece(), base_revision=1)
    assert "700" in caught.value.limit.text


def test_a_plan_survives_its_json_exactly(studio: sqlite3.Connection) -> None:
    plan = begun(studio).plan
    assert codec.loads(codec.dumps(plan), Plan) == plan


def test_json_with_unknown_fields_or_not_a_number_is_refused() -> None:
    plain = codec.to_plain(BRIEF) | {"surprise": 1}
    with pytest.raises(ClassValidationError):
        codec.from_plain(plain, Brief)
    with pytest.raises(ValueError, match="not JSON compliant"):
        codec.dumps(replace(piece(), water_level_m=float("nan")))


def test_five_hundred_edits_leave_small_data_and_every_one_can_be_undone(tmp_path: Path) -> None:
    conn = open_studio(tmp_path)
    state = begun(conn)
    for nth in range(500):
        state = save(conn, state, 0.05 + nth / 20_000)
    conn.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    assert (tmp_path / DATABASE_NAME).stat().st_size < 1_500_000
    for _ in range(500):
        state = planning.undo(conn, 1, base_revision=state.event.revision)
    assert (level_of(state), state.undo) == (piece().water_level_m, None)
    for _ in range(500):
        state = planning.redo(conn, 1, base_revision=state.event.revision)
    assert (level_of(state), state.redo) == (0.05 + 499 / 20_000, None)
    conn.close()


def test_steps_beyond_five_hundred_are_forgotten_the_oldest_first(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    for nth in range(505):
        state = save(studio, state, 0.05 + nth / 20_000)
    undone = 0
    while state.undo is not None:
        state = planning.undo(studio, 1, base_revision=state.event.revision)
        undone += 1
    assert undone == 501
    assert level_of(state) == 0.05 + 3 / 20_000


def test_a_window_far_behind_is_told_that_something_changed_though_not_what(studio: sqlite3.Connection) -> None:
    state = begun(studio)
    later = state
    for nth in range(510):
        later = save(studio, later, 0.05 + nth / 20_000)
    with pytest.raises(Stale) as caught:
        save(studio, state, 0.04)
    assert (caught.value.differences, caught.value.revision) == ((), later.event.revision)
