"""Acts become tasks, and whatever a verdict counts on is packed, bought and poured."""

from dataclasses import replace
from datetime import timedelta

import pytest

from jolly_trellis.core.books.time import Task
from jolly_trellis.core.event.buying.packing import packing
from jolly_trellis.core.event.buying.shared_needs import cans_for
from jolly_trellis.core.event.job import Made, PieceWork
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.putting import puts_of
from jolly_trellis.core.event.tasks.purchases import used_from
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.water_rounds import first_fill, water_rounds
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.passage import Cooled, Handover, Passage
from jolly_trellis.core.plan.piece import Counterweight, Insert, Piece, Support
from jolly_trellis.core.plan.setting import Transport
from tests.events import all_needs, at, job, larder
from tests.ordinary import bouquet, conditions, on_ledge, piece, recipe, varieties, vessels

BOXED = Transport(box_wall_m=0.2, water_level_m=0.05)
COLUMN = Support(
    name="column",
    height_m=0.6,
    top_width_m=0.16,
    opening_m=0.12,
    foot_width_m=0.16,
    mass_kg=2.5,
    column_width_m=0.16,
    water_l=6.0,
    putty=True,
)


def made_of(plan: Piece, quantity: int = 1) -> Made:
    plan = replace(plan, quantity=quantity)
    return Made(pieces=(PieceWork(id=1, piece=plan, report=evaluate(plan, conditions(), with_fixes=False)),), rigs=())


def tasks(plan: Piece, quantity: int = 1) -> dict[str, Task]:
    return {each.key: each for each in time_book(job(), made_of(plan, quantity), varieties()).tasks}


def test_one_made_where_it_stands_is_greened_and_flowered_there_between_placing_and_filling() -> None:
    found = tasks(replace(piece(), transport=BOXED, passage=Passage(made="its place")))
    green, flower = found["1:green:1"], found["1:flower:1"]
    assert {green.where, flower.where} == {"venue"}
    assert [each.task for each in green.after] == ["1:install:1"]
    assert "1:green:1" in {each.task for each in flower.after}
    assert "1:flower:1" in {each.task for each in found["place:fill:1"].after}
    assert green.soonest is not None
    assert green.soonest >= at("2027-05-15T08:00")
    assert found["1:mechanics:1"].where == "workshop"
    loads = [each for each in found.values() if each.stage == "load"]
    conditioned = {key for key, each in found.items() if each.stage == "condition"}
    assert conditioned <= {wait.task for each in loads for wait in each.after}
    workshop = tasks(replace(piece(), transport=BOXED))
    assert {workshop["1:green:1"].where, workshop["1:flower:1"].where} == {"workshop"}


def test_what_is_cooled_is_finished_so_many_days_before_and_carried_into_the_cold() -> None:
    """Two days before half past twelve on Saturday: by then on Thursday, flowers from Wednesday on."""
    plain = tasks(replace(bouquet(), transport=BOXED))
    found = tasks(replace(bouquet(), transport=BOXED, passage=Passage(cooled=Cooled(days=2.0))))
    cool = found["1:cool:1"]
    assert cool.latest == found["1:flower:1"].latest == at("2027-05-13T12:30")
    assert found["1:flower:1"].soonest == at("2027-05-12T12:30")
    assert plain["1:flower:1"].soonest == at("2027-05-14T12:30")
    assert "1:flower:1" in {each.task for each in cool.after}
    assert "1:cool:1" in {wait.task for each in found.values() if each.stage == "load" for wait in each.after}
    assert "1:cool:1" not in plain
    cold = made_of(replace(bouquet(), passage=Passage(cooled=Cooled(days=2.0))))
    named = varieties()[next(each.variety for each in bouquet().recipe if varieties()[each.variety].form != "leaf")]
    usual, earlier = (used_from(job(), each, named) for each in (made_of(bouquet()), cold))
    assert usual is not None
    assert earlier == usual - timedelta(days=2)


def test_a_bouquet_is_handed_to_somebody_by_an_hour() -> None:
    over = Handover(to="the bride", where="the mill room", at="2027-05-15T14:30")
    found = tasks(replace(bouquet(), passage=Passage(handover=over)))["1:hand-over:1"]
    assert found.name.startswith("Hand over to the bride, the mill room: ")
    assert found.latest == at("2027-05-15T14:30")
    unsaid = tasks(replace(bouquet(), passage=Passage(handover=replace(over, at=None, where=""))))["1:hand-over:1"]
    assert unsaid.latest == job().starts_at
    assert "1:hand-over:1" not in tasks(bouquet())
    posy = replace(bouquet(), passage=Passage(handover=replace(over, at="half past two")))
    unread = Made(pieces=(PieceWork(id=1, piece=posy, report=None),), rigs=())
    late = {each.key: each.latest for each in time_book(job(), unread, varieties()).tasks}
    assert late["1:hand-over:1"] == job().starts_at


def test_joint_and_weight_are_done_where_it_stands_before_any_water() -> None:
    raised = replace(
        piece(), support=COLUMN, envelope=replace(piece().envelope, height_m=1.0), transport=Transport(box_wall_m=0.2)
    )
    weighted = replace(on_ledge(), counterweight=Counterweight(mass_kg=0.6, away_m=0.14, azimuth_rad=3.14))
    bond, weigh = tasks(raised)["1:bond:1"], tasks(weighted)["1:weigh:1"]
    assert [each.task for each in bond.after] == [each.task for each in weigh.after] == ["1:install:1"]
    assert "1:bond:1" in {each.task for each in tasks(raised)["place:fill:1"].after}
    assert "1:weigh:1" in {each.task for each in tasks(weighted)["place:fill:1"].after}
    assert weigh.name.startswith("Tie on its weight")
    loose = replace(weighted, counterweight=replace(weighted.counterweight, tied=False))  # type: ignore[type-var]
    assert tasks(loose)["1:weigh:1"].name.startswith("Lay its weight")


def test_a_piece_that_moves_is_moved_and_gets_its_later_stems_after_that_and_its_last_before_guests() -> None:
    plan = replace(on_ledge(), recipe=recipe(rose=(10, "focal"), ruscus=(6, "base"), waxflower=(5, "filler")))
    plan = replace(plan, setting=replace(plan.setting, moves_to="table"))
    lines = plan.recipe
    plan = replace(
        plan,
        recipe=(replace(lines[0], goes_in="after the move", goes_in_n=4), lines[1], replace(lines[2], goes_in="last")),
    )
    found = tasks(plan)
    moved = found["1:move:1"]
    assert (moved.soonest, moved.latest) == (job().starts_at, job().ends_at)
    later = next(each for key, each in found.items() if key.startswith("1:moved"))
    assert "1:move:1" in {each.task for each in later.after}
    last = next(each for key, each in found.items() if key.startswith("1:last"))
    guests = job().starts_at
    assert guests is not None
    assert last.latest == guests - timedelta(minutes=15)
    puts = {(each.act, each.line.variety): each.line.count for each in puts_of(made_of(plan).pieces[0], varieties())}
    assert puts == {
        ("flower", "rose"): 6,
        ("flower after the move", "rose"): 4,
        ("green", "ruscus"): 6,
        ("flower last", "waxflower"): 5,
    }


def packs(made: Made) -> dict[str, tuple[str, int]]:
    needs = all_needs(made)
    stems = buy_stems(needs_of(made).stems, varieties(), waste=0.1, here={})
    around = replace(conditions(), filled_at=job().filled_at, ends_at=job().ends_at)
    listed = packing(job(), made, needs, stems, larder(), varieties(), water_rounds(job(), made, around))
    return {each.key: (each.name, each.number) for each in listed}


def test_a_weight_that_it_counts_on_is_bought_and_packed() -> None:
    weighted = replace(on_ledge(), counterweight=Counterweight(mass_kg=0.6, away_m=0.14, azimuth_rad=3.14))
    made = made_of(weighted, quantity=3)
    stone = [each for each in needs_of(made).supplies if each.supply == "stone"]
    assert [each.amount for each in stone] == pytest.approx([1.8])
    assert packs(made)["weight-1"] == ("weight", 3)
    assert "weight-1" not in packs(made_of(on_ledge()))


def test_what_raises_and_centres_a_bowl_in_its_urn_is_on_the_list() -> None:
    inner, urn = vessels()["insert-bowl-20"], vessels()["urn-24"]
    tall = replace(piece().envelope, height_m=0.6)
    held = replace(piece(), vessel=inner, insert=Insert(outer=urn, drop_m=0.01), envelope=tall, water_level_m=0.05)
    wanted = {each.supply for each in needs_of(made_of(held)).supplies}
    assert {"riser-block", "moss"} <= wanted
    assert "riser-block" not in {each.supply for each in needs_of(made_of(piece())).supplies}


def test_cans_hold_what_is_poured_there_and_a_tenth_to_spare() -> None:
    """0.05 m of water comes in the bowl; the column's six litres do not."""
    made = made_of(replace(piece(), transport=BOXED))
    report = made.pieces[0].report
    assert report is not None
    comes = report.water.on_show_l - report.water.poured_l
    assert 0 < comes < report.water.on_show_l
    assert [each.each_l for each in first_fill(made)] == pytest.approx([report.water.poured_l])
    there = made_of(replace(piece(), passage=Passage(made="its place"), transport=BOXED))
    assert [each.each_l for each in first_fill(there)] == pytest.approx([report.water.on_show_l])
    raised = replace(piece(), support=COLUMN, envelope=replace(piece().envelope, height_m=1.0), transport=BOXED)
    poured = {each.vessel: each.each_l for each in first_fill(made_of(raised))}
    assert poured["column"] == 6.0
    assert [cans_for(litres) for litres in (0.1, 9.0, 9.1, 18.1, 19.0)] == [1, 1, 2, 2, 3]


def test_ten_of_a_piece_take_ten_times_as_long_to_bond_weigh_move_and_hand_over() -> None:
    """Three, two, four and two minutes each."""
    raised = replace(piece(), support=COLUMN, envelope=replace(piece().envelope, height_m=1.0), transport=BOXED)
    weighted = replace(on_ledge(), counterweight=Counterweight(mass_kg=0.6, away_m=0.14, azimuth_rad=3.14))
    moved = replace(weighted, setting=replace(weighted.setting, moves_to="table"))
    given = replace(bouquet(), passage=Passage(handover=Handover(to="ten of them")))
    assert tasks(raised, 10)["1:bond:1"].minutes == 30
    assert tasks(moved, 10)["1:weigh:1"].minutes == 20
    assert tasks(moved, 10)["1:move:1"].minutes == 40
    assert tasks(given, 10)["1:hand-over:1"].minutes == 20


def test_greens_that_go_in_a_day_before_its_flowers_may_begin_a_day_sooner_and_are_waited_for() -> None:
    plain = tasks(replace(piece(), transport=BOXED))
    found = tasks(replace(piece(), transport=BOXED, passage=Passage(greened_h=24.0)))
    waits = {each.task: each.minutes for each in found["1:flower:1"].after}
    assert waits["1:green:1"] == 24 * 60
    assert {each.task: each.minutes for each in plain["1:flower:1"].after}["1:green:1"] == 0
    sooner, usual = found["1:green:1"].soonest, plain["1:green:1"].soonest
    assert usual is not None
    assert sooner == usual - timedelta(days=1)
