"""Seats, once dealt, are part of the piece: small changes move figures a little, great ones deal again."""

from dataclasses import replace

import numpy as np
import pytest

from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks import hold, hold_swing
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.judging.report import with_seats
from jolly_trellis.core.plan.piece import Envelope, Mechanic, Piece
from jolly_trellis.core.plan.standing import Standing, standing
from tests.ordinary import beside, conditions, piece, recipe, stems, vessels


def seated(each: Piece) -> Standing:
    return standing(with_seats(each, evaluate(each, conditions(), with_fixes=False)))


def sway_use(each: Piece) -> float:
    found = hold.judge(build(each, conditions())).findings
    return next(one.utilisation for one in found if one.check == "sway")


def cells(each: Piece) -> np.ndarray:
    placed = build(each, conditions()).placement
    return placed.cells_m[placed.seat_cell]


@pytest.mark.parametrize("number", [12, 34, 60, 90])
def test_a_piece_with_its_seats_is_the_piece_it_was_dealt_for(number: int) -> None:
    fresh = stems(piece(), number)
    one, other = (evaluate(each, conditions(), with_fixes=False) for each in (fresh, seated(fresh)))
    assert one == other


@pytest.mark.parametrize(("number", "most"), [(12, 0.03), (25, 0.03), (34, 0.03), (40, 0.05)])
def test_four_millimetres_of_height_or_width_move_the_sway_little(number: int, most: float) -> None:
    kept = seated(stems(piece(), number))
    was = sway_use(kept)
    for field in ("height_m", "width_m", "depth_m"):
        for step in (-0.004, 0.004):
            size = replace(kept.envelope, **{field: getattr(kept.envelope, field) + step})
            assert sway_use(replace(kept, envelope=size)) == pytest.approx(was, abs=most), (field, step)


def test_a_mouth_four_millimetres_wider_leaves_every_stem_in_its_cell() -> None:
    kept = seated(stems(piece(), 34))
    points = tuple(
        replace(each, width_m=each.width_m + 0.004, depth_m=each.depth_m + 0.004) for each in kept.vessel.profile
    )
    wider = replace(kept, vessel=replace(kept.vessel, profile=points))
    assert cells(wider) == pytest.approx(cells(kept))


def test_the_water_moves_no_stem() -> None:
    kept = seated(stems(piece(), 34))
    assert cells(replace(kept, water_level_m=0.06)) == pytest.approx(cells(kept))


def test_another_layer_leaves_the_seats_and_tape_moves_only_who_sits_under_it() -> None:
    kept = seated(stems(piece(), 34))
    more = replace(kept, mechanic=replace(kept.mechanic, layers=3))
    assert cells(more) == pytest.approx(cells(kept))
    taped = replace(kept, mechanic=replace(kept.mechanic, tape_strips=1))
    moved = np.abs(cells(taped) - cells(kept)).max(axis=1) > 1e-9
    under = np.abs(cells(kept)[:, 1]) <= kept.mechanic.tape_width_m / 2
    assert 0 < moved.sum() < len(moved)
    assert (moved == under).all()


@pytest.mark.parametrize(
    "change",
    [
        lambda p: replace(p, recipe=(*p.recipe, *recipe(tulip=(3, "focal")))),
        lambda p: replace(p, envelope=replace(p.envelope, form="mound")),
        lambda p: replace(p, envelope=replace(p.envelope, height_m=p.envelope.height_m * 1.3)),
        lambda p: replace(p, arrangement="clusters"),
        lambda p: replace(p, mechanic=replace(p.mechanic, netting="coated-19-08")),
        lambda p: replace(p, mechanic=Mechanic(kind="tape_grid")),
    ],
)
def test_what_changes_the_work_itself_deals_again(change) -> None:  # type: ignore[no-untyped-def]
    changed = change(seated(stems(piece(), 34)))
    fresh = evaluate(replace(changed, dealt=None), conditions(), with_fixes=False)
    found = evaluate(changed, conditions(), with_fixes=False)
    assert found == fresh
    assert found.dealt != changed.dealt


def test_seats_of_another_recipe_or_of_another_number_are_no_seats() -> None:
    kept = seated(stems(piece(), 34))
    assert kept.dealt is not None
    short = replace(kept, dealt=replace(kept.dealt, seats=kept.dealt.seats[:5]))
    foreign = replace(kept, dealt=replace(kept.dealt, made_for="another"))
    fresh = evaluate(stems(piece(), 34), conditions(), with_fixes=False)
    for each in (short, foreign):
        assert evaluate(each, conditions(), with_fixes=False) == fresh


def test_the_seats_of_a_second_vessel_stay_too() -> None:
    both = seated(replace(piece(), companions=(beside(tied=True),)))
    assert both.dealt is not None
    assert both.companions[0].dealt is not None
    assert len(both.companions[0].dealt.seats) == 13


def test_stems_cut_to_the_water_end_two_centimetres_under_it_and_stand_on_nothing() -> None:
    tall = replace(
        stems(piece(), 34),
        vessel=vessels()["cylinder-15"],
        envelope=Envelope(height_m=0.55, width_m=0.45, depth_m=0.45),
        water_level_m=0.22,
    )
    short = replace(tall, feet="to the water")
    placed = build(short, conditions()).placement
    assert placed.end_height_m.min() == pytest.approx(0.20)
    assert placed.hangs.sum() > 20
    assert not (placed.floor_holds & placed.hangs).any()
    swings = [hold_swing.stems_play(build(each, conditions())).tan_swing for each in (short, tall)]
    assert (swings[0] >= swings[1] - 1e-12).all()
    assert (swings[0] > swings[1] + 1e-6).any()


def test_one_level_more_with_old_levels_kept_never_lets_a_stem_swing_farther() -> None:
    """Law: seats, lock and stagger alike. A level is put half way between the two of a cushion."""
    made = build(stems(piece(), 40), conditions())
    placed = made.placement
    between = placed.level_drops_m[1] / 2
    drops = np.array([0.0, between, placed.level_drops_m[1]])
    crosses = placed.found.drop_m[:, None] >= drops - 1e-9
    more = replace(
        made,
        placement=replace(
            placed,
            level_drops_m=drops,
            level_apertures_m=np.full(3, placed.level_apertures_m[0]),
            found=replace(placed.found, crosses=crosses),
        ),
    )
    two, three = hold_swing.stems_play(made), hold_swing.stems_play(more)
    assert (three.tan_swing <= two.tan_swing + 1e-12).all()
    assert (three.unheld <= two.unheld).all()
