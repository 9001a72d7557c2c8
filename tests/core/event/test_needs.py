"""What an event needs: every part of every piece as the supply it is cut or taken from, times its quantity."""

from collections import Counter
from dataclasses import replace

import pytest

from jolly_trellis.core.books.needs import FromFrogs, FromNetting, FromSupply
from jolly_trellis.core.event.job import Made, PieceWork
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.mechanics.pin_frog import FROG_USES
from jolly_trellis.core.plan.piece import Mechanic, MechanicKind, Piece
from jolly_trellis.core.rigging.lines import LineSpec, supply_of
from tests.events import demo_made, one_bowl, supplies
from tests.ordinary import IN_VESSEL, conditions, piece

# What is made of what is at hand, or of another part: nothing of the stores.
FROM_NOTHING = {
    "square frame",
    "riser block",
    "packing ring, wide",
    "low twig ring, outside",
    "rim twig ring, outside",
}


def report_of(plan: Piece) -> Report:
    return evaluate(plan, conditions(), with_fixes=False)


def made(plan: Piece) -> Made:
    return Made(pieces=(PieceWork(id=1, piece=plan, report=evaluate(plan, conditions(), with_fixes=False)),))


def of_kind(kind: MechanicKind) -> Piece:
    frog = "pin-75" if kind in ("pin_frog", "frog_with_wire") else None
    frog = {"cage_frog": "cage-80", "loop_frog": "loop-70", "holed_frog": "holed-70", "cup_frog": "cup-80"}.get(
        kind, frog
    )
    return replace(piece(), mechanic=Mechanic(kind=kind, netting="coated-25-09", frog=frog), quantity=2)


@pytest.mark.parametrize("kind", [each for each in IN_VESSEL if each != "cross_stick_roll"])
def test_every_part_of_every_mechanic_is_needed_or_is_made_of_what_is_at_hand(kind: MechanicKind) -> None:
    work = made(of_kind(kind))
    report = work.pieces[0].report
    assert report is not None
    found = needs_of(work)
    for part in (*report.mechanic.parts, *report.extras):
        match part.taken:
            case FromSupply(supply=key):
                assert key in supplies(), part.name
                assert key in {each.supply for each in found.lengths} | {each.supply for each in found.supplies}
            case FromNetting(name=name):
                assert name in {each.name for each in found.sheets}, part.name
            case FromFrogs(frog=key):
                assert key in {each.frog for each in found.frogs}, part.name
            case None:
                assert part.name in FROM_NOTHING
    assert len(found.sheets) == len(report.mechanic.flat)
    assert all(each.quantity == 2 for each in found.sheets)


def test_a_part_under_any_name_is_needed_by_what_it_is_taken_from() -> None:
    """Nothing is known by its English name: renamed, a part reaches the needs all the same."""
    work = made(of_kind("moss_sandwich"))
    report = work.pieces[0].report
    assert report is not None
    renamed = tuple(replace(each, name=f"part {nth}") for nth, each in enumerate(report.mechanic.parts))
    other = replace(report, mechanic=replace(report.mechanic, parts=renamed))
    again = needs_of(Made(pieces=(replace(work.pieces[0], report=other),)))
    assert again.supplies == needs_of(work).supplies
    assert [each.supply for each in again.lengths] == [each.supply for each in needs_of(work).lengths]
    assert again.sheets == needs_of(work).sheets


def test_how_much_a_part_takes_is_its_length_its_number_or_its_mass() -> None:
    """By hand, two pieces of each: a lining of 47 cm is 4 leaves of 15 cm; wide tape is cut from the wide roll."""
    lined = replace(of_kind("folded_cushion"), lining=True)
    leaves = next(each for each in needs_of(made(lined)).supplies if each.supply == "large-leaf")
    strip = next(each for each in report_of(lined).extras if each.name == "leaf lining strip")
    assert leaves.amount == 2 * -(-strip.sizes[0].value // 0.15)
    ball = needs_of(made(of_kind("string_ball")))
    string = next(each for each in report_of(of_kind("string_ball")).mechanic.parts if each.name == "string")
    assert next(each.amount for each in ball.supplies if each.supply == "string") == 2 * string.sizes[0].value
    stones = needs_of(made(replace(of_kind("folded_cushion"), ballast_kg=0.4)))
    assert next(each.amount for each in stones.supplies if each.supply == "stone") == 0.8
    taped = replace(of_kind("folded_cushion"), mechanic=replace(of_kind("folded_cushion").mechanic, tape_strips=2))
    for width, key in ((0.006, "tape-6"), (0.009, "tape-6"), (0.012, "tape-12")):
        wide = replace(taped, mechanic=replace(taped.mechanic, tape_width_m=width))
        found = [(each.supply, each.quantity) for each in needs_of(made(wide)).lengths if each.name == "tape strip"]
        assert found == [(key, 4)]


def test_netting_round_the_outside_is_a_sheet_of_its_own_and_in_the_headline() -> None:
    wrapped = replace(of_kind("folded_cushion"), wrap_height_m=0.06)
    sheets = needs_of(made(wrapped)).sheets
    outside = next(each for each in sheets if each.name == "netting round the outside")
    assert (outside.netting, outside.sheet.width_m, outside.quantity) == ("coated-25-09", 0.06, 2)
    assert outside.uses == report_of(wrapped).mechanic.uses


def test_stems_are_the_recipes_times_the_quantity() -> None:
    found = Counter[str]()
    for each in needs_of(one_bowl(3)).stems:
        found[each.variety] += each.count
    for line in piece().recipe:
        assert found[line.variety] >= 3 * line.count


def test_frogs_last_as_long_as_frogs_do_whatever_lies_over_them() -> None:
    frogs = needs_of(demo_made()).frogs
    assert {each.frog: each.quantity for each in frogs} == {"pin-100": 1, "cup-80": 9}
    assert all(each.uses == round(FROG_USES.value) for each in frogs)


@pytest.mark.parametrize(
    ("spec", "key"),
    [
        (LineSpec(kind="steel rope", size_m=0.0015), "steel-rope-15"),
        (LineSpec(kind="polyester cord", size_m=0.003), "cord-30"),
        (LineSpec(kind="cable tie", size_m=0.0048), "cable-tie-48"),
        (LineSpec(kind="monofilament", stated_n=90.0), "monofilament"),
        (LineSpec(kind="braid", stated_n=200.0), "braid"),
    ],
)
def test_a_line_is_cut_from_the_supply_of_its_kind_and_size(spec: LineSpec, key: str) -> None:
    assert supply_of(spec) == key
    assert key in supplies()


def test_sections_of_a_run_are_sheets_of_their_own() -> None:
    run = next(each for each in demo_made().rigs if each.rig.name == "Run over the long table")
    assert run.report is not None
    found = [each for each in needs_of(demo_made()).sheets if each.piece_id == run.id]
    sized = run.report.take_off.sized
    assert sum(each.quantity for each in found) == sized.sections
    assert found[0].sheet.length_m * sized.sections == pytest.approx(sized.sheet.length_m, rel=0.02)
    assert not found[0].may_turn


def test_what_could_not_be_worked_out_is_named_and_its_stems_still_count() -> None:
    work = one_bowl()
    broken = replace(work, pieces=(replace(work.pieces[0], report=None),))
    found = needs_of(broken)
    assert found.not_worked_out == (work.pieces[0].piece.name,)
    assert found.sheets == ()
    assert found.stems == needs_of(work).stems


@pytest.mark.parametrize(
    ("kind", "key"),
    [
        ("lattice_pad", "lattice-pad"),
        ("lattice_disc", "lattice-pad"),
        ("fibre_pouch", "fibre-block"),
        ("mineral_block", "mineral-block"),
    ],
)
def test_a_ready_made_mechanic_is_bought_whole_and_lasts_as_often_as_it_does(kind: MechanicKind, key: str) -> None:
    work = made(of_kind(kind))
    bought = next(each for each in needs_of(work).supplies if each.supply == key)
    assert bought.amount == 2
    assert bought.uses == report_of(of_kind(kind)).mechanic.uses


def test_turning_is_let_or_left_and_never_let_for_runs() -> None:
    let, left = needs_of(demo_made()), needs_of(demo_made(), turning=False)
    assert any(each.may_turn for each in let.sheets)
    assert not any(each.may_turn for each in left.sheets)
    assert replace(let, sheets=()) == replace(left, sheets=())
