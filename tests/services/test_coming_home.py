"""Coming home in one act and back in one; finished armatures used again; prices accepted, targets, narrower sheets."""

import sqlite3
from dataclasses import replace
from decimal import Decimal

import pytest

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.job import Hire
from jolly_trellis.core.materials.stands import Stand
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.demo.loading import demo_plan
from jolly_trellis.services import (
    bending,
    coming_home,
    event_work,
    listing,
    planning,
    price_target,
    quoting,
    reserving,
    rolling,
    searches,
    stores,
)
from jolly_trellis.services.coming_home import Back
from jolly_trellis.services.planning import EventState, NotFound
from jolly_trellis.services.settling import to_settle
from jolly_trellis.services.trying import states_of, worse_of
from jolly_trellis.store import stock, ticks
from jolly_trellis.store.stock import Holding
from jolly_trellis.store.ticks import Tick

LOW = "low bowl, 20 cm"
LOW_KEY = "vessel:low-bowl-20"


@pytest.fixture
def supper(studio: sqlite3.Connection) -> sqlite3.Connection:
    """The demo's low bowls, its trough and its first run, and fourteen bowls in the stores."""
    plan = demo_plan()
    parts = [each.part for each in plan.parts if each.part.name in ("Long-table low bowl", "Head table trough")]
    parts.append(plan.rigs[0].part)
    planning.new_event(studio, plan.brief, tuple(parts))
    stock.put_holding(studio, "vessel", "low-bowl-20", Holding(on_hand=14))
    studio.commit()
    return studio


def everything(conn: sqlite3.Connection) -> object:
    return stock.holdings(conn), stock.armatures(conn)


def revision(conn: sqlite3.Connection, event_id: int = 1) -> int:
    return planning.state(conn, event_id).event.revision


def test_home_adds_a_use_counts_off_what_was_lost_and_keeps_what_has_its_shape(supper: sqlite3.Connection) -> None:
    before = everything(supper)
    coming_home.come_home(
        supper,
        1,
        [Back(line=LOW_KEY, back=11), Back(line="made-3", back=1, condition="bent", note="one end")],
    )
    held = stock.holdings(supper)
    assert held["vessel"]["low-bowl-20"] == Holding(on_hand=13, used=12)
    made = {each.made_as: (key, each) for key, each in stock.armatures(supper).items()}
    assert {"sheet", "snake"} <= set(made)
    key, run = made["snake"]
    assert (run.condition, run.note, run.made_for) == ("bent", "one end", demo_plan().brief.name)
    assert held["armature"][key] == Holding(on_hand=1, used=1)
    with pytest.raises(InvalidMeasure):
        coming_home.come_home(supper, 1, [])
    after = everything(supper)
    stores.travel(supper, back=True)
    assert everything(supper) == before
    assert coming_home.state(supper, 1).home is None
    stores.travel(supper, back=False)
    assert everything(supper) == after
    coming_home.take_back(supper, 1)
    held = stock.holdings(supper)
    assert held["vessel"]["low-bowl-20"] == Holding(on_hand=14)
    assert stock.armatures(supper) == {}
    with pytest.raises(NotFound):
        coming_home.take_back(supper, 1)


def test_what_cannot_come_home_is_refused_in_a_sentence(supper: sqlite3.Connection) -> None:
    before = everything(supper)
    with pytest.raises(InvalidMeasure) as told:
        coming_home.come_home(supper, 1, [Back(line=LOW_KEY, back=13)])
    assert told.value.message.text == f"13 of {LOW} cannot come back: 12 went out."
    with pytest.raises(NotFound):
        coming_home.come_home(supper, 1, [Back(line="vessel-no such", back=1)])
    assert everything(supper) == before


def test_what_came_home_is_offered_used_and_worn_by_the_next_event(supper: sqlite3.Connection) -> None:
    coming_home.come_home(supper, 1, [])
    copy = planning.copy_event(supper, 1).event.id
    work = event_work.work_of(supper, copy)
    sheet = next(key for key, each in stock.armatures(supper).items() if each.made_as == "sheet")
    cut = sum(each.quantity for each in work.needs.sheets if each.piece_id == 1)
    listing.reuse(supper, copy, 1, sheet, 12, base_revision=revision(supper, copy))
    again = event_work.work_of(supper, copy)
    assert not [each for each in again.needs.sheets if each.piece_id == 1]
    assert sum(each.quantity for each in again.needs.reused) == cut
    line = next(each for each in event_work.shopping_of(supper, again).buys if each.key == sheet)
    assert (line.needed.value, line.here.value, line.notes) == (12, 12, ())
    stock.put_holding(supper, "armature", sheet, Holding(on_hand=12, used=96))
    worn = event_work.work_of(supper, copy)
    assert sum(each.quantity for each in worn.needs.sheets if each.piece_id == 1) == cut
    stock.put_holding(supper, "armature", sheet, Holding(on_hand=12, used=12))
    coming_home.come_home(supper, copy, [Back(line=f"armature-{sheet}", back=10, condition="rust")])
    assert stock.holdings(supper)["armature"][sheet] == Holding(on_hand=10, used=24)
    assert stock.armatures(supper)[sheet].condition == "rust"
    listing.reuse(supper, copy, 1, sheet, 0, base_revision=revision(supper, copy))
    assert planning.brief_of(supper, copy).reused == ()
    with pytest.raises(NotFound):
        listing.reuse(supper, copy, 1, "no-such", 1, base_revision=revision(supper, copy))
    with pytest.raises(InvalidMeasure, match="of another make, netting or size"):
        listing.reuse(supper, copy, 2, sheet, 1, base_revision=revision(supper, copy))


@pytest.mark.parametrize("since", ["", "hung up to dry"])
def test_taking_it_back_gives_back_what_was_seen_of_an_armature_but_for_what_was_said_since(
    supper: sqlite3.Connection, since: str
) -> None:
    coming_home.come_home(supper, 1, [])
    copy = planning.copy_event(supper, 1).event.id
    sheet = next(key for key, each in stock.armatures(supper).items() if each.made_as == "sheet")
    listing.reuse(supper, copy, 1, sheet, 12, base_revision=revision(supper, copy))
    before = replace(stock.armatures(supper)[sheet], note="flat", picture="a" * 64)
    stock.put(supper, "armature", before.key, before)
    back = Back(line=f"armature-{sheet}", back=11, condition="rust", note="bent at one end", picture="b" * 64)
    coming_home.come_home(supper, copy, [back])
    home = stock.armatures(supper)[sheet]
    assert (home.condition, home.note, home.picture) == ("rust", "bent at one end", "b" * 64)
    if since:
        stock.put(supper, "armature", home.key, replace(home, note=since))
    coming_home.take_back(supper, copy)
    assert stock.armatures(supper)[sheet] == replace(before, note=since or "flat")
    assert stock.holdings(supper)["armature"][sheet].on_hand == 12


def hired(conn: sqlite3.Connection, number: int) -> EventState:
    brief = planning.brief_of(conn, 1)
    hire = Hire(name=LOW, number=number, lender="Osterlay Hire", comes="2027-05-14", goes_back="2027-05-17")
    return planning.put_brief(conn, 1, replace(brief, hires=(hire,)), base_revision=revision(conn))


def test_two_events_want_the_same_bowls_until_enough_are_hired_or_another_is_taken(supper: sqlite3.Connection) -> None:
    brief = planning.brief_of(supper, 1)
    copy = planning.copy_event(supper, 1).event.id
    planning.put_brief(supper, copy, replace(brief, name="the other"), base_revision=revision(supper, copy))
    named = {
        event: [each.name for each in reserving.shortfalls_of(supper, event_work.work_of(supper, event))]
        for event in (1, copy)
    }
    assert named[1] == named[copy]
    assert LOW in named[1]
    hired(supper, 10)
    assert LOW not in [each.name for each in reserving.shortfalls_of(supper, event_work.work_of(supper, copy))]
    hired(supper, 1)
    assert reserving.instead_of(supper, 1, LOW_KEY) == ()
    stores.copy(supper, "vessel", "low-bowl-20")
    stock.put_holding(supper, "vessel", "low-bowl-20-cm-copy", Holding(on_hand=12))
    (other,) = (each for each in reserving.instead_of(supper, 1, LOW_KEY) if each.vessel == "low-bowl-20-cm-copy")
    assert (other.free, other.worse) == (12, ())
    reserving.take_instead(supper, 1, LOW_KEY, other.vessel, base_revision=revision(supper))
    piece, _ = planning.piece_of(supper, 1, 1)
    assert piece.vessel.name == f"{LOW}, copy"
    assert LOW not in [each.name for each in reserving.shortfalls_of(supper, event_work.work_of(supper, 1))]
    with pytest.raises(NotFound):
        reserving.instead_of(supper, 1, "no such bowl")


def test_a_price_is_accepted_held_and_let_go_and_is_undone_with_the_plan(supper: sqlite3.Connection) -> None:
    quoting.accept(supper, 1, base_revision=revision(supper))
    work = event_work.work_of(supper, 1)
    assert work.job.quote is not None
    assert work.job.quote.asked == event_work.cost_of_event(work).asked
    piece, _ = planning.piece_of(supper, 1, 1)
    planning.put_part(supper, 1, 1, replace(piece, quantity=14), base_revision=revision(supper), label="More")
    work = event_work.work_of(supper, 1)
    said = [each.say.text for each in to_settle(supper, work, event_work.cost_of_event(work)) if each.screen == "cost"]
    assert any("more than the client accepted" in each for each in said)
    quoting.let_go(supper, 1, base_revision=revision(supper))
    assert planning.brief_of(supper, 1).quote is None
    planning.undo(supper, 1, base_revision=revision(supper))
    assert planning.brief_of(supper, 1).quote == work.job.quote
    assert planning.brief_of(supper, planning.copy_event(supper, 1).event.id).quote is None


def test_what_would_reach_a_target_is_tried_and_done(supper: sqlite3.Connection) -> None:
    brief = planning.brief_of(supper, 1)
    asked = event_work.cost_of_event(event_work.work_of(supper, 1)).asked
    assert asked is not None
    aim = replace(brief.costing, target=asked - Decimal(60))
    planning.put_brief(supper, 1, replace(brief, costing=aim), base_revision=revision(supper))
    running = searches.reached(supper, 1)
    running.wait(60)
    assert running.best is not None
    assert running.best.tried
    for each in running.best.tried:
        assert each.asked + each.less == running.best.asked == asked
        assert each.reaches == (each.asked <= running.best.target)
    first = running.best.tried[0]
    assert first.reaches
    price_target.apply(supper, 1, first.key, base_revision=revision(supper))
    assert event_work.cost_of_event(event_work.work_of(supper, 1)).asked == first.asked
    with pytest.raises(NotFound):
        price_target.apply(supper, 1, "no-such", base_revision=revision(supper))


def test_a_target_of_nothing_is_refused(supper: sqlite3.Connection) -> None:
    running = searches.reached(supper, 1)
    running.wait(30)
    assert isinstance(running.problem, InvalidMeasure)


def test_what_a_narrower_sheet_saves_is_what_the_roll_takes_less(supper: sqlite3.Connection) -> None:
    running = searches.bends(supper, 1)
    running.wait(60)
    assert running.best is not None
    assert running.best.done == 1.0
    nettings = event_work.work_of(supper, 1).larder.nettings
    for each in running.best.found:
        assert each.saves_m >= 0.1 or (each.saves or 0) > 0
        assert each.netting in nettings
    with pytest.raises(NotFound):
        bending.apply(supper, 1, "narrower-99", base_revision=revision(supper))


def test_a_roll_of_the_same_netting_in_another_width_is_offered_where_it_costs_less(
    supper: sqlite3.Connection,
) -> None:
    run = planning.state(supper, 1).plan.rigs[0]
    now = run.part.armature.netting or ""
    cheap = replace(stock.nettings(supper)[now], key="ready", name="ready width", roll_width_m=0.9, price=0.5)
    stock.put(supper, "netting", cheap.key, cheap)
    running = searches.bends(supper, 1)
    running.wait(60)
    assert running.best is not None
    found = {each.key: each for each in running.best.found}
    ready = found[f"roll-{now}-ready"]
    assert ready.worse == ()
    assert ready.saves is not None
    assert ready.saves > 0
    bending.apply(supper, 1, ready.key, base_revision=revision(supper))
    work = event_work.work_of(supper, 1)
    assert not [each for each in work.needs.sheets if each.netting == now]
    assert any(each.netting == "ready" and each.piece_id == run.id for each in work.needs.sheets)


def test_states_that_are_worse_are_named_and_only_those(supper: sqlite3.Connection) -> None:
    now = states_of(event_work.work_of(supper, 1))
    assert list(worse_of(now, now)) == []
    key = next(iter(now))
    assert list(worse_of({**now, key: "tight"}, {**now, key: "fails"})) == [f"{key[1]}: {key[2]} fails (tight now)"]
    assert list(worse_of({**now, key: "fails"}, {**now, key: "tight"})) == []
    assert list(worse_of({**now, key: "not needed"}, {**now, key: "holds"})) == []
    assert list(worse_of({**now, key: "cannot say"}, {**now, key: "fails"})) != []


def test_a_list_is_ticked_and_what_came_is_read_from_an_orders_table(supper: sqlite3.Connection) -> None:
    ticked = Tick(line="piece-1", number=12)
    listing.tick(supper, 1, "out", "piece-1", ticked, None)
    assert [each.line for each in ticks.ticks(supper, 1, "out")] == ["piece-1"]
    listing.tick(supper, 1, "out", "piece-1", None, ticked)
    assert ticks.ticks(supper, 1, "out") == ()
    text = "key,number,came,state\nhardware-felt-pad,3,2,\nsundries-box,2,,late\nno-such,1,1,\nmarket-moss,1,,\n"
    assert listing.came_in(supper, 1, text) == ("no-such",)
    came = {each.line: (each.number, each.state) for each in ticks.ticks(supper, 1, "goods in")}
    assert came["hardware-felt-pad"] == (2, "short")
    assert "market-moss" not in came
    with pytest.raises(NotFound):
        listing.tick(supper, 9, "out", "x", Tick(line="x", number=1), None)


def test_a_stand_is_added_copied_counted_and_deleted_like_anything_of_the_stores(studio: sqlite3.Connection) -> None:
    key = stores.add(studio, "stand", Stand(key="new", name="Tall stand", height_m=0.7, top_width_m=0.2))
    assert stock.stands(studio)[key].name == "Tall stand"
    copy = stores.copy(studio, "stand", key)
    stores.delete(studio, "stand", copy)
    assert copy not in stock.stands(studio)
    stores.bring_back(studio, "stand", copy)
    assert copy in stock.stands(studio)
    with pytest.raises(InvalidMeasure):
        stores.put(studio, "stand", key, replace(stock.stands(studio)[key], height_m=0.0))
    with pytest.raises(InvalidMeasure) as told:
        stores.put(studio, "stand", key, replace(stock.stands(studio)[key], price=0.0))
    assert told.value.path == "price"
    with pytest.raises(InvalidMeasure) as told:
        rolling.add_remnant(studio, "netting", "coated-25-09", width_m=0.05, length_m=2.0)
    assert told.value.path == "width_m"
    with pytest.raises(InvalidMeasure):
        stores.put_currency(studio, "  ")
    stores.put_currency(studio, " £ ")
    assert stock.currency(studio) == "£"


def test_a_part_that_is_no_piece_has_no_vessel_to_take_another_for(supper: sqlite3.Connection) -> None:
    plan = planning.state(supper, 1).plan
    assert [each.id for each in plan.parts if not isinstance(each.part, Piece)] == [3]
