"""What an event needs: every part of every piece as the supply it is cut or taken from, times its quantity."""

from collections import Counter
from dataclasses import replace

import pytest

from jolly_trellis.core.evaluate import evaluate
from jolly_trellis.core.event.job import Made, PieceWork
from jolly_trellis.core.event.needs import READY_MADE, SUPPLY_OF, line_supply, needs_of
from jolly_trellis.core.mechanics.pin_frog import FROG_USES
from jolly_trellis.core.piece import Mechanic, MechanicKind, Piece
from jolly_trellis.core.rigging.lines import LineSpec
from tests.events import demo_made, one_bowl, supplies
from tests.ordinary import IN_VESSEL, conditions, piece

NO_SUPPLY = {
    "riser block",
    "packing ring, wide",
    "netting round the outside",
    "low twig ring, outside",
    "rim twig ring, outside",
}


def made(plan: Piece) -> Made:
    return Made(pieces=(PieceWork(id=1, piece=plan, report=evaluate(plan, conditions(), with_fixes=False)),))


def of_kind(kind: MechanicKind) -> Piece:
    frog = "pin-75" if kind in ("pin_frog", "frog_with_wire") else None
    frog = {"cage_frog": "cage-80", "loop_frog": "loop-70", "holed_frog": "holed-70", "cup_frog": "cup-80"}.get(
        kind, frog
    )
    return replace(piece(), mechanic=Mechanic(kind=kind, netting="coated-25-09", frog=frog), quantity=2)


@pytest.mark.parametrize("kind", [each for each in IN_VESSEL if each != "cross_stick_roll"])
def test_every_part_of_every_mechanic_is_needed_as_a_supply_or_is_known_to_be_none(kind: MechanicKind) -> None:
    work = made(of_kind(kind))
    report = work.pieces[0].report
    assert report is not None
    found = needs_of(work)
    supplied = {each.supply for each in found.lengths} | {each.supply for each in found.supplies}
    for part in (*report.mechanic.parts, *report.extras):
        known = SUPPLY_OF.get(part.name)
        if known is not None:
            assert known[0] in supplied or known[0] == "tape-6", part.name
        else:
            frog_or_sheet = part.name in NO_SUPPLY or "netting" in part.name or "frog" in part.name or part.sizes
            assert frog_or_sheet, part.name
    assert len(found.sheets) == len(report.mechanic.flat)
    assert all(each.quantity == 2 for each in found.sheets)


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
    assert line_supply(spec) == key
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


def test_ready_made_mechanics_are_supplies_of_the_stores() -> None:
    assert set(READY_MADE.values()) <= supplies().keys()


def test_turning_is_let_or_left_and_never_let_for_runs() -> None:
    let, left = needs_of(demo_made()), needs_of(demo_made(), turning=False)
    assert any(each.may_turn for each in let.sheets)
    assert not any(each.may_turn for each in left.sheets)
    assert replace(let, sheets=()) == replace(left, sheets=())
