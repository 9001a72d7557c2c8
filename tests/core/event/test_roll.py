"""The roll: needs of an event as cut plans in whole cells, with what is lost, kept, and what cannot be cut."""

from dataclasses import replace

import pytest

from jolly_trellis.core.event.cutting import Cutting, Item, Sheet, Used
from jolly_trellis.core.event.job import Made
from jolly_trellis.core.event.needs import needs_of
from jolly_trellis.core.event.roll import KEPT_LENGTH, CutPlan, acts_of, cut_plan, keeping_cut
from jolly_trellis.core.event.roll_problems import MaterialPlan, Remnant, left_out_of
from jolly_trellis.core.materials.netting import pitch_across_m, pitch_along_m, whole_cells
from jolly_trellis.core.units import render
from tests.cutting_check import problems_of
from tests.events import demo_made, larder, one_bowl
from tests.ordinary import nettings


def material(plan: CutPlan, key: str) -> MaterialPlan:
    return next(each for each in plan.materials if each.key == key)


def whole_plan() -> CutPlan:
    return cut_plan(needs_of(demo_made()), larder(), seconds=2.0)


def test_every_material_of_the_demo_can_be_cut_as_it_is_drawn() -> None:
    for plan in whole_plan().materials:
        items = tuple(
            Item(
                key=each.key,
                across=next((piece.across for piece in pieces), 1),
                along=next((piece.along for piece in pieces), 1),
                count=len(pieces),
            )
            for each in plan.items
            if (pieces := [p for stock in plan.stocks for p in stock.pieces if p.item == each.key and not p.turned])
        )
        straight = [
            replace(stock, pieces=tuple(piece for piece in stock.pieces if not piece.turned)) for stock in plan.stocks
        ]
        across = {at: 100_000 if plan.cell_m == 0 else int(s.width_m / plan.cell_m + 1e-9) or 100_000
                  for at, s in enumerate(plan.stocks)}  # fmt: skip
        sheets = tuple(Sheet(key=at, across=wide, along=10_000_000, count=1) for at, wide in across.items())
        used = tuple(
            Used(sheet=at, nth=0, rows=10_000_000, strips=stock.strips, placed=stock.pieces)
            for at, stock in enumerate(straight)
        )
        again = Cutting(used=used, unplaced=(), area_used=0, area_needed=0, bound=0)
        assert problems_of(again, items, sheets, plan.lost) == [], plan.name


def test_a_sheet_is_cut_in_whole_cells_that_give_its_size() -> None:
    plan = material(cut_plan(needs_of(one_bowl()), larder(), seconds=1.0), "coated-25-09")
    net = nettings()["coated-25-09"]
    assert plan.cell_m == pytest.approx(pitch_across_m(net))
    item = plan.items[0]
    for piece in (each for stock in plan.stocks for each in stock.pieces):
        wide, long = (item.length_m, item.width_m) if piece.turned else (item.width_m, item.length_m)
        assert piece.across == whole_cells(wide, pitch_across_m(net))
        assert piece.along == whole_cells(long, pitch_along_m(net))
        assert piece.across * plan.cell_m >= wide - 1e-9


def test_a_remnant_that_fits_is_used_before_a_roll() -> None:
    left = Remnant(id=7, key="coated-25-09", width_m=0.3, length_m=2.0)
    plan = material(
        cut_plan(needs_of(one_bowl()), replace(larder(), netting_remnants=(left,)), seconds=1.0), "coated-25-09"
    )
    assert [stock.source for stock in plan.stocks] == ["remnant"]
    assert plan.stocks[0].remnant == 7
    assert plan.to_buy == 0


def test_what_is_wider_than_any_roll_says_so_and_what_would_be_right() -> None:
    plan = material(whole_plan(), "galvanized-50-10")
    said = [render(each, "metric") for each in plan.missing]
    assert any("wide, and the widest roll is 100 cm. Sew it from two widths" in each for each in said)


def test_what_is_kept_is_long_enough_and_the_rest_of_a_roll_is_kept_whole() -> None:
    for plan in whole_plan().materials:
        for stock in plan.stocks:
            assert all(long >= KEPT_LENGTH.value for _, long in stock.keep)
            if not plan.sticks and stock.length_m - stock.used_m >= KEPT_LENGTH.value:
                rest = stock.length_m - stock.used_m
                assert any(wide == stock.width_m and long == pytest.approx(rest) for wide, long in stock.keep)


def test_waste_is_what_becomes_no_piece_and_never_under_its_bound() -> None:
    for plan in whole_plan().materials:
        assert -1e-9 <= plan.waste < 1
        if plan.bound_waste is not None:
            assert plan.bound_waste <= plan.waste + 1e-9


def test_the_order_of_cuts_names_every_strip_and_every_piece() -> None:
    plan = material(whole_plan(), "coated-25-09")
    acts = [render(each.say, "metric") for each in acts_of(plan)]
    assert sum(each.startswith("Across at") for each in acts) == sum(len(stock.strips) for stock in plan.stocks)
    for item in plan.items:
        assert any(item.label in each for each in acts), item.label


def test_progress_is_told_and_a_stop_still_plans_every_material() -> None:
    told: list[CutPlan] = []
    plan = cut_plan(needs_of(demo_made()), larder(), seconds=5.0, tell=told.append, stop=lambda: True)
    assert told
    assert {each.key for each in plan.materials} == {each.key for each in whole_plan().materials}
    assert all(0 <= each.done <= 1 for each in told)


def test_lengths_of_a_spool_add_up_to_what_is_used() -> None:
    plan = material(whole_plan(), "ribbon")
    needed = sum(each.length_m * each.quantity for each in plan.items)
    assert sum(stock.used_m for stock in plan.stocks) == pytest.approx(needed, abs=0.005 * 20)


def test_an_event_with_nothing_to_cut_has_an_empty_plan() -> None:
    empty = needs_of(replace(one_bowl(), pieces=()))
    assert cut_plan(empty, larder(), seconds=0.5).materials == ()


def test_netting_that_the_stores_do_not_have_is_named_and_not_passed_over() -> None:
    found = cut_plan(needs_of(one_bowl()), replace(larder(), nettings={}), seconds=0.5)
    assert not [each for each in found.materials if each.material == "netting"]
    said = [render(each, "metric") for each in found.left_out]
    assert any("coated-25-09" in each and one_bowl().pieces[0].piece.name in each for each in said), said


def test_what_is_not_cut_by_the_metre_is_named_and_not_passed_over() -> None:
    needs = needs_of(demo_made())
    by_count = {key: replace(each, measured_by="piece") for key, each in larder().supplies.items()}
    found = cut_plan(needs, replace(larder(), supplies=by_count), seconds=0.5)
    said = " ".join(render(each, "metric") for each in found.left_out)
    assert needs.lengths
    assert all(each.supply in said for each in needs.lengths)


def test_a_piece_that_could_not_be_worked_out_is_named_in_the_plan() -> None:
    work = one_bowl().pieces[0]
    plan = cut_plan(needs_of(Made(pieces=(replace(work, report=None),))), larder(), seconds=0.5)
    assert plan.materials == ()
    assert [work.piece.name in render(each, "metric") for each in plan.left_out] == [True]


def test_nothing_is_left_out_of_the_demo() -> None:
    known = Made(pieces=demo_made().pieces)
    assert left_out_of(needs_of(known), larder()) == ()


def test_what_was_cut_stays_in_the_plan_though_nothing_needs_it_now() -> None:
    was = cut_plan(needs_of(one_bowl()), larder(), seconds=0.5)
    found = keeping_cut(cut_plan(needs_of(Made()), larder()), was.materials)
    assert found.materials == was.materials
    assert len(found.left_out) == len(was.materials)
    assert keeping_cut(was, was.materials) == was
