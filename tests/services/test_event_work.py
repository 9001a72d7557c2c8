"""The roll and the day as a person works with them: kept, marked, taken back, locked; long work begun and stopped."""

import sqlite3
import time
from dataclasses import replace

import pytest

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.job import CrewMember
from jolly_trellis.core.plan.standing import standing
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.units import render
from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services import day as days
from jolly_trellis.services import event_work, gate, long_work, planning, reserving, rolling, settling
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import cuts, stock
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.stock import Holding
from tests.day_done import day_done


@pytest.fixture
def demo(studio: sqlite3.Connection) -> sqlite3.Connection:
    load_demo(studio)
    return studio


def planned(conn: sqlite3.Connection) -> None:
    rolling.start(conn, 1, seconds=1.0)
    for _ in range(600):
        if not rolling.state(conn, 1).running:
            return
        time.sleep(0.05)
    raise AssertionError("the search did not end")


def on_hand(conn: sqlite3.Connection, key: str) -> int:
    return stock.holdings(conn)["netting"][key].on_hand


def test_a_cut_plan_is_kept_and_is_of_the_event_until_that_changes(demo: sqlite3.Connection) -> None:
    assert rolling.state(demo, 1).plan is None
    planned(demo)
    kept = rolling.state(demo, 1)
    assert kept.fresh
    assert kept.plan is not None
    piece, _ = planning.piece_of(demo, 1, 1)
    planning.put_part(demo, 1, 1, replace(piece, quantity=13), base_revision=1, label="One more")
    assert not rolling.state(demo, 1).fresh


def test_marking_as_cut_moves_rolls_and_remnants_and_taking_it_back_leaves_the_stores_as_before(
    demo: sqlite3.Connection,
) -> None:
    planned(demo)
    before = on_hand(demo, "coated-25-09"), cuts.remnants(demo, "netting")
    rolling.mark_cut(demo, 1, "netting", "coated-25-09")
    after = on_hand(demo, "coated-25-09"), cuts.remnants(demo, "netting")
    assert after[0] == before[0] - 1
    assert len(after[1]) > len(before[1])
    assert rolling.state(demo, 1).fresh
    with pytest.raises(InvalidMeasure, match="cut already"):
        rolling.mark_cut(demo, 1, "netting", "coated-25-09")
    rolling.unmark_cut(demo, 1, "netting", "coated-25-09")
    assert (on_hand(demo, "coated-25-09"), cuts.remnants(demo, "netting")) == before


def test_a_plan_of_an_earlier_state_is_not_marked_as_cut(demo: sqlite3.Connection) -> None:
    planned(demo)
    piece, _ = planning.piece_of(demo, 1, 1)
    planning.put_part(demo, 1, 1, replace(piece, quantity=13), base_revision=1, label="One more")
    with pytest.raises(InvalidMeasure, match="earlier state"):
        rolling.mark_cut(demo, 1, "netting", "coated-25-09")


def test_a_remnant_of_one_event_is_cut_by_the_next_and_then_cannot_be_taken_back(demo: sqlite3.Connection) -> None:
    planned(demo)
    rolling.mark_cut(demo, 1, "netting", "coated-25-09")
    # One small bowl, which any remnant of the first event takes: no search has to be lucky for it.
    piece, brief = planning.piece_of(demo, 1, 1)
    bowl = stock.vessels(demo)["low-bowl-15"]
    small = replace(standing(piece), name="tasting bowl", vessel=bowl, quantity=1, dealt=None)
    copy = planning.new_event(demo, replace(brief, name="Tasting", locks=()), (small,)).event.id
    rolling.start(demo, copy, seconds=1.0)
    while rolling.state(demo, copy).running:
        time.sleep(0.05)
    rolling.mark_cut(demo, copy, "netting", "coated-25-09")
    with pytest.raises(InvalidMeasure, match="cut from its remnants since"):
        rolling.unmark_cut(demo, 1, "netting", "coated-25-09")
    rolling.unmark_cut(demo, copy, "netting", "coated-25-09")
    rolling.unmark_cut(demo, 1, "netting", "coated-25-09")


def test_what_is_not_marked_is_not_taken_back_and_what_is_not_planned_is_not_marked(demo: sqlite3.Connection) -> None:
    with pytest.raises(NotFound):
        rolling.unmark_cut(demo, 1, "netting", "coated-25-09")
    with pytest.raises(NotFound):
        rolling.mark_cut(demo, 1, "netting", "coated-25-09")


def test_a_remnant_is_counted_in_and_out_by_hand(demo: sqlite3.Connection) -> None:
    rolling.add_remnant(demo, "netting", "coated-25-09", width_m=0.3, length_m=0.6)
    (left,) = cuts.remnants(demo, "netting")
    assert (left.width_m, left.length_m) == (0.3, 0.6)
    rolling.remove_remnant(demo, left.id)
    assert cuts.remnants(demo, "netting") == ()
    with pytest.raises(NotFound):
        rolling.remove_remnant(demo, left.id)
    with pytest.raises(InvalidMeasure, match="has a width"):
        rolling.add_remnant(demo, "netting", "coated-25-09", width_m=0.0, length_m=0.6)
    with pytest.raises(NotFound):
        rolling.add_remnant(demo, "supply", "moonbeam", width_m=0.0, length_m=0.6)


def test_a_day_is_worked_out_once_for_one_state_of_the_event(demo: sqlite3.Connection) -> None:
    first = day_done(demo)[1]
    assert day_done(demo)[1] is first
    brief = planning.brief_of(demo, 1)
    planning.put_brief(demo, 1, replace(brief, crew=(*brief.crew, CrewMember(name="Thrift"))), base_revision=1)
    assert day_done(demo)[1] is not first


def test_a_task_is_locked_let_go_and_undone_with_the_plan(demo: sqlite3.Connection) -> None:
    state = days.lock(demo, 1, "1:mechanics:1", "2027-05-13T09:00", base_revision=1)
    locked = next(each for each in day_done(demo)[1].timed if each.task.key == "1:mechanics:1")
    assert f"{locked.starts_at:%d %H:%M}" == "13 09:00"
    planning.undo(demo, 1, base_revision=state.event.revision)
    assert planning.brief_of(demo, 1).locks == ()
    with pytest.raises(NotFound):
        days.lock(demo, 1, "no-such-task", "2027-05-13T09:00", base_revision=9)
    with pytest.raises(InvalidMeasure, match="no date and time"):
        days.lock(demo, 1, "1:mechanics:1", "soon", base_revision=9)


def test_times_read_back_become_locks_and_strangers_are_named(demo: sqlite3.Connection) -> None:
    work, day = day_done(demo)
    task = next(each for each in day.timed if each.task.stage == "mechanics")
    earlier = task.starts_at.replace(hour=8, minute=0)
    _, moved, unknown = days.read_times(
        demo, 1, {task.task.key: earlier, "not-ours": earlier}, base_revision=work.revision
    )
    assert moved == (task.task.name,)
    assert unknown == ("not-ours",)
    assert [each.task for each in planning.brief_of(demo, 1).locks] == [task.task.key]


def test_a_copy_keeps_pieces_and_crew_and_leaves_times_and_locks_open(demo: sqlite3.Connection) -> None:
    days.lock(demo, 1, "1:mechanics:1", "2027-05-13T09:00", base_revision=1)
    copy, plan = planning.copy_event(demo, 1).plan, planning.state(demo, 1).plan
    assert copy.pieces == plan.pieces
    assert copy.rigs == plan.rigs
    assert copy.brief.crew == plan.brief.crew
    times = (copy.brief.filled_at, copy.brief.builds_from, copy.brief.builds_to)
    assert (plan.brief.builds_from, times) == ("2027-05-14T10:00", (None, None, None))
    assert copy.brief.locks == ()


def test_what_was_cut_is_not_bought_again_by_a_second_plan(demo: sqlite3.Connection) -> None:
    planned(demo)
    work = event_work.work_of(demo, 1)
    first = event_work.shopping_of(demo, work)
    rolling.mark_cut(demo, 1, "netting", "galvanized-25-09")
    again = event_work.shopping_of(demo, event_work.work_of(demo, 1))
    packs = [next(each.packs for each in found.buys if each.key == "galvanized-25-09") for found in (first, again)]
    assert packs == [1, 0]


def test_every_material_marked_as_cut_and_taken_back_leaves_the_stores_as_before(demo: sqlite3.Connection) -> None:
    planned(demo)
    plan = rolling.state(demo, 1).plan
    assert plan is not None
    before = (stock.holdings(demo), cuts.remnants(demo, "netting"), cuts.remnants(demo, "supply"))
    for each in plan.materials:
        rolling.mark_cut(demo, 1, each.material, each.key)
    kept = [(each.material, *size) for each in plan.materials for stock_ in each.stocks for size in stock_.keep]
    netting = sorted((each.width_m, each.length_m) for each in cuts.remnants(demo, "netting"))
    assert netting == sorted((wide, long) for material, wide, long in kept if material == "netting")
    for each in reversed(plan.materials):
        rolling.unmark_cut(demo, 1, each.material, each.key)
    after = stock.holdings(demo)
    for kind, rows in before[0].items():
        assert {key: row.on_hand for key, row in rows.items() if row.on_hand} == {
            key: row.on_hand for key, row in after[kind].items() if row.on_hand
        }
    assert (cuts.remnants(demo, "netting"), cuts.remnants(demo, "supply")) == before[1:]


def test_what_was_cut_stays_as_it_was_cut_and_what_is_added_since_is_cut_again(demo: sqlite3.Connection) -> None:
    planned(demo)
    rolling.mark_cut(demo, 1, "netting", "coated-25-09")
    was = event_work.materials_cut(demo, 1)
    planned(demo)
    unchanged = rolling.state(demo, 1).plan
    assert unchanged is not None
    assert [each.nth for each in unchanged.materials if each.key == "coated-25-09"] == [1]
    piece, _ = planning.piece_of(demo, 1, 1)
    planning.put_part(demo, 1, 1, replace(piece, quantity=piece.quantity + 1), base_revision=1, label="One more")
    planned(demo)
    plan = rolling.state(demo, 1).plan
    assert plan is not None
    assert event_work.materials_cut(demo, 1) == was
    more = [each for each in plan.materials if (each.key, each.nth) == ("coated-25-09", 2)]
    assert [sum(item.quantity for item in each.items) for each in more] == [1]
    rolling.mark_cut(demo, 1, "netting", "coated-25-09", 2)
    with pytest.raises(InvalidMeasure):
        rolling.unmark_cut(demo, 1, "netting", "coated-25-09", 1)
    line = next(
        each for each in event_work.shopping_of(demo, event_work.work_of(demo, 1)).buys if each.key == "coated-25-09"
    )
    assert (line.packs, [render(each, "metric") for each in line.notes]) == (0, ["cut already"])
    rolling.unmark_cut(demo, 1, "netting", "coated-25-09", 2)
    rolling.unmark_cut(demo, 1, "netting", "coated-25-09", 1)
    planned(demo)
    again = rolling.state(demo, 1).plan
    assert again is not None
    assert [each.nth for each in again.materials if each.key == "coated-25-09"] == [1]


def test_a_cut_taken_back_after_a_change_leaves_the_plan_of_an_earlier_state(demo: sqlite3.Connection) -> None:
    planned(demo)
    rolling.mark_cut(demo, 1, "netting", "coated-25-09")
    piece, _ = planning.piece_of(demo, 1, 1)
    planning.put_part(demo, 1, 1, replace(piece, quantity=piece.quantity + 1), base_revision=1, label="One more")
    rolling.unmark_cut(demo, 1, "netting", "coated-25-09")
    assert not rolling.state(demo, 1).fresh


def test_long_work_is_joined_stopped_and_begun_again() -> None:
    def slowly(running: Running[int]) -> int:
        best = 0
        while not running.stopping and best < 400:
            best += 1
            running.tell(best)
            time.sleep(0.005)
        return best

    key = ("test", time.monotonic())
    first = long_work.start(key, slowly)
    assert long_work.start(key, slowly) is first
    assert long_work.find(key) is first
    first.stop()
    first.wait(5.0)
    assert first.done
    assert first.best is not None
    assert 0 < first.best < 400
    long_work.forget(key)
    assert long_work.find(key) is None


def test_long_work_that_cannot_be_done_says_why() -> None:
    def refused(_: Running[int]) -> int:
        raise InvalidMeasure(path="x", message=phrase("It cannot be."), limit=phrase("Nothing would be right."))

    running = long_work.start(("refused", time.monotonic()), refused)
    running.wait(5.0)
    assert isinstance(running.problem, InvalidMeasure)


def test_a_variety_is_put_in_on_site_everywhere_in_one_step(demo: sqlite3.Connection) -> None:
    plan = planning.state(demo, 1).plan
    changed = planning.put_recipes(
        demo,
        1,
        lambda recipe: tuple(replace(line, goes_in="with the piece") for line in recipe),
        base_revision=1,
        label="Nothing on site",
    )
    assert not any(line.going_in("on site") for rig in changed.plan.rigs for line in rig.part.recipe)
    with pytest.raises(gate.Stale):
        planning.put_recipes(demo, 1, lambda recipe: recipe, base_revision=1, label="Late")
    assert planning.undo(demo, 1, base_revision=changed.event.revision).plan == plan


def test_sticks_of_an_opened_bundle_that_were_not_used_stay_in_the_stores(demo: sqlite3.Connection) -> None:
    with transaction(demo):
        stock.put_holding(demo, "supply", "stick", Holding(on_hand=1))
    planned(demo)
    rolling.mark_cut(demo, 1, "supply", "stick")
    left = [each.length_m for each in cuts.remnants(demo, "supply") if each.key == "stick"]
    assert left.count(0.9) == 24
    assert len(left) == 25
    assert stock.holdings(demo)["supply"]["stick"].on_hand == 0
    rolling.unmark_cut(demo, 1, "supply", "stick")
    assert cuts.remnants(demo, "supply") == ()
    assert stock.holdings(demo)["supply"]["stick"].on_hand == 1


def test_two_events_on_one_day_that_want_the_same_bowls_both_say_so(demo: sqlite3.Connection) -> None:
    first = planning.state(demo, 1)
    copy = planning.copy_event(demo, 1)
    times = {field: getattr(first.plan.brief, field) for field in ("access_at", "filled_at", "ends_at", "clear_by")}
    assert reserving.shortfalls_of(demo, event_work.work_of(demo, copy.event.id)) == ()
    assert reserving.shortfalls_of(demo, event_work.work_of(demo, 1)) == ()
    planning.put_brief(demo, copy.event.id, replace(copy.plan.brief, **times), base_revision=copy.event.revision)
    mine, other = (reserving.shortfalls_of(demo, event_work.work_of(demo, each)) for each in (1, copy.event.id))
    bowl = first.plan.pieces[0].part.vessel.name
    for found in (mine, other):
        (short,) = (each for each in found if each.name == bowl)
        assert short.wanted == 24
        assert {(each.event_id, each.number) for each in short.by} == {(1, 12), (copy.event.id, 12)}
    work = event_work.work_of(demo, 1)
    assert any(each.screen == "lists" for each in settling.to_settle(demo, work, event_work.cost_of_event(work)))
