"""The roll: needs of an event as cut plans in whole cells, with what is lost, kept, and what cannot be cut."""

import math
from collections.abc import Iterator
from dataclasses import replace

import pytest

from jolly_trellis.core.event.cutting.cutting import Placed
from jolly_trellis.core.event.cutting.roll import (
    KEPT_CELLS,
    KEPT_LENGTH,
    CutPlan,
    cut_plan,
    cut_steps_of,
    keeping_cut,
    still_to_cut,
)
from jolly_trellis.core.event.cutting.roll_problems import MaterialPlan, Remnant, left_out_of
from jolly_trellis.core.event.job import Made
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.materials.netting import pitch_across_m, pitch_along_m
from jolly_trellis.core.units import render
from tests.cutting_check import guillotine
from tests.events import demo_made, larder, one_bowl
from tests.ordinary import nettings


def material(plan: CutPlan, key: str) -> MaterialPlan:
    return next(each for each in plan.materials if each.key == key)


def whole_plan() -> CutPlan:
    return cut_plan(needs_of(demo_made()), larder(), seconds=2.0)


def real_widths(plan: MaterialPlan) -> Iterator[tuple[float, float, Placed]]:
    """Every piece of netting: the width it really has between its cuts, m; what was asked; the piece.

    Cuts lie a quarter of a cell beside a twist; the sides of the roll are where they are. Written apart from the plan.
    """
    net = nettings()[plan.key]
    cell_m = pitch_across_m(net)
    for stock in plan.stocks:
        start = 0
        for end in stock.strips:
            inside = [each for each in stock.pieces if start <= each.y < end]
            start = end
            last = max(each.x + each.across for each in inside)
            to_the_side = last + 1 > (stock.width_m - cell_m / 4) / (cell_m / 2)
            for piece in inside:
                near = 0.0 if piece.x == 0 else (piece.x / 2 + 0.25) * cell_m
                far = piece.x + piece.across
                until = stock.width_m if far == last and to_the_side else (far / 2 + 0.25) * cell_m
                item = plan.items[piece.item]
                yield until - near, item.length_m if piece.turned else item.width_m, piece


def test_every_sheet_has_its_size_within_what_still_works() -> None:
    """Half a cell narrower at most; a cell and a half wider at most, as a cut lies up to a quarter past the cell."""
    for plan in whole_plan().materials:
        if plan.material == "netting":
            net, seen = nettings()[plan.key], 0
            for wide, asked, piece in real_widths(plan):
                seen += 1
                assert wide >= asked - pitch_across_m(net) / 2 - 1e-6, (plan.name, piece)
                assert wide <= asked + 1.75 * pitch_across_m(net) + 1e-6, (plan.name, piece)
                item = plan.items[piece.item]
                long = item.width_m if piece.turned else item.length_m
                assert piece.along * pitch_along_m(net) >= long - 1e-6
            assert seen == sum(len(stock.pieces) for stock in plan.stocks) > 0


def test_every_material_of_the_demo_can_be_cut_from_edge_to_edge() -> None:
    for plan in whole_plan().materials:
        for stock in plan.stocks:
            boxes = [(each.x, each.y, each.across, each.along) for each in stock.pieces]
            assert guillotine(boxes, 0), plan.name
            for index, (x, y, wide, long) in enumerate(boxes):
                for u, v, wide2, long2 in boxes[index + 1 :]:
                    assert x + wide <= u or u + wide2 <= x or y + long <= v or v + long2 <= y
            if plan.material == "netting":
                assert all(
                    piece.along >= 1 and y + long <= stock.strips[-1]
                    for piece, (_, y, _, long) in zip(stock.pieces, boxes, strict=True)
                )


def sheets_cut(width_m: float, length_m: float, quantity: int, key: str, *, turn: bool = True) -> MaterialPlan:
    """A number of sheets of one size, cut from rolls of one netting."""
    needs = needs_of(one_bowl())
    sheet = replace(needs.sheets[0].sheet, width_m=width_m, length_m=length_m)
    one = replace(needs.sheets[0], sheet=sheet, netting=key, quantity=quantity, may_turn=turn)
    return material(cut_plan(replace(needs, sheets=(one,), lengths=()), larder(), seconds=1.0), key)


def test_twelve_bowl_sheets_lie_side_by_side_on_a_roll_of_half_a_metre() -> None:
    """23.9 × 49.1 cm: two and two, the cut a quarter past the ninth twist, 24.8 and 25.2 cm wide. Worked by hand."""
    plan = sheets_cut(0.239, 0.491, 12, "coated-25-09", turn=False)
    rows = math.ceil(0.491 / pitch_along_m(nettings()["coated-25-09"]))
    assert [stock.strips for stock in plan.stocks] == [tuple(rows * nth for nth in range(1, 7))]
    assert {round(wide, 3) for wide, _, _ in real_widths(plan)} == {0.248, 0.252}
    assert plan.stocks[0].used_m == pytest.approx(2.95, abs=0.13)
    said = [render(each.say, "metric") for each in cut_steps_of(plan)]
    assert f"Count {rows} rows from the fresh edge, 51.1 cm, and cut across: 2 × sheet, low bowl." in said
    assert "Along that strip a quarter past twist 9, 24.8 cm from its side." in said


@pytest.mark.parametrize(
    ("width_m", "key", "beside"),
    [
        (0.471, "coated-25-09", 1),
        (1.004, "galvanized-50-10", 1),
        (0.30, "galvanized-25-09", 2),
        (1.05, "galvanized-50-10", 0),
    ],
    ids=["nearly the roll", "a little over the roll", "half the roll", "a cell over the roll"],
)
def test_what_goes_out_of_the_width_of_a_roll(width_m: float, key: str, beside: int) -> None:
    plan = sheets_cut(width_m, 2.0, 4, key, turn=False)
    if beside == 0:
        assert plan.missing
    else:
        assert not plan.missing
        strips = sum(len(stock.strips) for stock in plan.stocks)
        assert strips in {4 // beside, 4}
        if beside == 2:
            assert all(
                x_m >= width_m - 0.5 * pitch_across_m(nettings()[key]) - 1e-6 for x_m, _, _ in real_widths(plan)
            )


def test_little_of_the_demos_coated_netting_is_cut_off_and_not_kept() -> None:
    plan = material(whole_plan(), "coated-25-09")
    assert plan.waste <= 0.15
    assert 0 <= plan.kept < 1


def test_what_is_trimmed_is_in_the_order_of_cuts() -> None:
    """A narrow sheet behind a wide one, both in one column: what is more than a cell is trimmed off."""
    needs = needs_of(one_bowl())
    wide, narrow = (
        replace(
            needs.sheets[0],
            name=name,
            sheet=replace(needs.sheets[0].sheet, width_m=w, length_m=0.5),
            quantity=1,
            may_turn=False,
        )
        for name, w in (("wide", 0.45), ("narrow", 0.40))
    )
    plan = material(cut_plan(replace(needs, sheets=(wide, narrow), lengths=()), larder(), seconds=1.0), "coated-25-09")
    acts = [render(each.say, "metric") for each in cut_steps_of(plan)]
    assert sum(each.startswith("Count") for each in acts) == len(plan.stocks[0].strips)
    kept = {round(wide_m, 2) for wide_m, _ in plan.stocks[0].keep}
    assert kept == {0.5}


def test_a_remnant_that_fits_is_used_before_a_roll() -> None:
    left = Remnant(id=7, key="coated-25-09", width_m=0.3, length_m=2.0)
    plan = material(
        cut_plan(needs_of(one_bowl()), replace(larder(), netting_remnants=(left,)), seconds=1.0), "coated-25-09"
    )
    assert [stock.source for stock in plan.stocks] == ["remnant"]
    assert plan.stocks[0].remnant == 7
    assert plan.to_buy == 0


def test_what_is_wider_than_any_roll_says_so_and_what_would_be_right() -> None:
    plan = sheets_cut(1.05, 1.29, 1, "galvanized-50-10", turn=False)
    said = [render(each, "metric") for each in plan.missing]
    assert any("wide, and the widest roll is 100 cm. Sew it from two widths" in each for each in said)


def test_what_is_kept_is_long_enough_and_the_rest_of_a_roll_is_kept_whole() -> None:
    for plan in whole_plan().materials:
        for stock in plan.stocks:
            least = KEPT_CELLS.value * plan.row_m if plan.material == "netting" else KEPT_LENGTH.value
            assert all(long >= least - 1e-9 for _, long in stock.keep)
            if plan.material == "netting":
                assert all(wide >= KEPT_CELLS.value * plan.per_cell * plan.cell_m - 1e-9 for wide, _ in stock.keep)
            if not plan.sticks and stock.length_m - stock.used_m >= least:
                rest = stock.length_m - stock.used_m
                assert any(wide == stock.width_m and long == pytest.approx(rest) for wide, long in stock.keep)


def test_waste_is_what_becomes_no_piece_and_never_under_its_bound() -> None:
    for plan in whole_plan().materials:
        assert 0 <= plan.waste <= plan.waste + plan.kept < 1
        if plan.bound_waste is not None:
            assert plan.bound_waste <= plan.waste + plan.kept + 1e-9


def test_the_order_of_cuts_names_every_strip_and_every_piece() -> None:
    plan = material(whole_plan(), "coated-25-09")
    acts = [render(each.say, "metric") for each in cut_steps_of(plan)]
    assert sum(each.startswith("Count ") for each in acts) == sum(len(stock.strips) for stock in plan.stocks)
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
    nothing = still_to_cut(needs_of(Made()), was.materials, larder())
    assert (nothing.needs.sheets, nothing.needs.lengths) == ((), ())
    assert len(nothing.spare) == sum(len(each.items) for each in was.materials)


def test_what_is_added_after_the_cut_is_cut_for_itself() -> None:
    """Twelve bowls are cut; fourteen are wanted: two more, from what was left first; ten: two are spare."""
    twelve, fourteen, ten = (needs_of(one_bowl(number)) for number in (12, 14, 10))
    was = cut_plan(twelve, larder(), seconds=0.5)
    rest = still_to_cut(fourteen, was.materials, larder())
    assert [each.quantity for each in rest.needs.sheets] == [2 * each.quantity // 12 for each in twelve.sheets]
    assert rest.spare == ()
    kept = [keep for each in was.materials[0].stocks for keep in each.keep]
    left = Remnant(id=7, key=was.materials[0].key, width_m=max(kept)[0], length_m=max(kept)[1])
    plan = keeping_cut(cut_plan(rest.needs, replace(larder(), netting_remnants=(left,)), seconds=0.5), was.materials)
    assert [(each.key, each.nth) for each in plan.materials] == [(was.materials[0].key, 1), (was.materials[0].key, 2)]
    assert [each.source for each in plan.materials[1].stocks] == ["remnant"]
    less = still_to_cut(ten, was.materials, larder())
    assert less.needs.sheets == ()
    assert [render(each, "metric")[:3] for each in less.spare] == ["2 ×"]
    wider = replace(
        fourteen, sheets=tuple(replace(each, sheet=replace(each.sheet, width_m=0.3)) for each in fourteen.sheets)
    )
    assert [each.quantity for each in still_to_cut(wider, was.materials, larder()).needs.sheets] == [14]
    moved = replace(twelve, sheets=tuple(replace(each, piece_id=9) for each in twelve.sheets))
    assert still_to_cut(moved, was.materials, larder()).needs.sheets == ()


def test_what_fits_nothing_is_said_once() -> None:
    plan = sheets_cut(0.2, 30.0, 3, "coated-25-09")
    said = [render(each, "metric") for each in plan.missing]
    assert len(said) == 1
    assert said[0].startswith("3 × sheet, low bowl: 30 m long") or "3000 cm long" in said[0]


def test_a_plan_kept_with_a_cell_lost_at_each_cut_has_no_trims_of_it() -> None:
    """As plans were kept before: whole cells, two sheets of nine beside one another with a cell between, two rows."""
    new = sheets_cut(0.239, 0.491, 4, "coated-25-09", turn=False)
    placed = tuple(Placed(item=0, x=x, y=y, across=8, along=22, turned=False) for y in (0, 23) for x in (0, 9))
    kept = replace(new.stocks[0], strips=(23, 45), pieces=placed)
    old = replace(new, cell_m=2 * new.cell_m, per_cell=1, beside_m=0.0, lost=1, stocks=(kept,))
    acts = [render(each.say, "metric") for each in cut_steps_of(old)]
    assert not [each for each in acts if each.startswith(("Trim", "The part"))]
    assert [each for each in acts if each.startswith("Along that strip after cell 9")]
