"""Hold: play, sway, crowding, load, seat."""

import math
from dataclasses import replace

import numpy as np
import pytest

from jolly_trellis.core.building.build import build, demand_n_m
from jolly_trellis.core.checks import hold, hold_swing
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from tests.ordinary import conditions, piece, recipe, stems


def one(value: float) -> np.ndarray:
    return np.array([value])


def verdict_of(each: Piece, verb: str = "hold") -> Verdict:
    return next(v for v in evaluate(each, conditions()).verdicts if v.verb == verb)


@pytest.mark.parametrize(("aperture", "swing_deg", "sway"), [(0.025, 18.43, 0.0833), (0.013, 7.59, 0.0333)])
def test_two_flat_levels_60_mm_apart(aperture: float, swing_deg: float, sway: float) -> None:
    """Worked from the formula: stem 5 mm, stagger 1, no crowding; head 25 cm up."""
    play = hold_swing.play_m(aperture, one(0.005), one(0.0))
    swing = hold_swing.tan_swing(play, play, stagger=one(1.0), lock=0.0, lean_rad=one(0.0), layer_gap_m=one(0.06))
    assert math.degrees(math.atan(swing[0])) == pytest.approx(swing_deg, abs=0.005)
    assert 0.25 * swing[0] == pytest.approx(sway, abs=5e-5)


def test_a_two_layer_cushion_with_thirty_stems() -> None:
    """Worked from the formula: 25 mm cells, stems 5 mm, gap 40 mm, over a 120 mm level: lock 0.3125, tan 0.172."""
    lock = hold_swing.crowding_lock(30 * 0.005, 0.12)
    play = hold_swing.play_m(0.025, one(0.005), one(0.0))
    swing = hold_swing.tan_swing(play, play, stagger=one(0.5), lock=lock, lean_rad=one(0.0), layer_gap_m=one(0.04))
    assert lock == 0.3125
    assert swing[0] == pytest.approx(0.172, abs=0.0005)


def test_crowding_locks_no_more_than_six_tenths() -> None:
    assert hold_swing.crowding_lock(10.0, 0.12) == 0.6


def test_neighbours_in_a_cell_take_up_its_play() -> None:
    assert hold_swing.play_m(0.025, one(0.007), one(0.008))[0] == pytest.approx(0.005)
    assert hold_swing.play_m(0.025, one(0.02), one(0.02))[0] == 0.0


def test_load_on_the_netting_is_moments_about_the_lower_support() -> None:
    load = hold.netting_load_n(one(0.04), one(0.2), one(math.radians(45)), one(0.04))
    assert load[0] == pytest.approx(0.04 * 9.80665 * 0.2 * 0.5 / 0.04)


@pytest.mark.parametrize("number", [25, 30, 36, 40])
def test_ordinary_work_holds_as_ordinary_work_does(number: int) -> None:
    """A 20 cm bowl, 25 to 40 mixed stems, two layers of 25 mm: sways at 0.4 to 0.85 of what is allowed."""
    verdict = verdict_of(stems(piece(), number))
    assert verdict.state in ("holds", "tight")
    sway = next(each for each in verdict.findings if each.check == "sway")
    assert 0.4 <= sway.utilisation <= 0.85


def test_a_dozen_stems_in_one_wide_layer_do_not_hold() -> None:
    wide = replace(piece().mechanic, netting="coated-50-10", layers=1)
    verdict = verdict_of(stems(replace(piece(), mechanic=wide), 12))
    assert verdict.state == "fails"


def test_every_fix_offered_holds_when_it_is_made() -> None:
    wide = replace(piece().mechanic, netting="coated-50-10", layers=1)
    failing = stems(replace(piece(), mechanic=wide), 12)
    fixes = verdict_of(failing).fixes
    assert fixes
    for fix in fixes:
        after = verdict_of(fix.piece)
        assert after.state == fix.state_after
        assert after.utilisation == pytest.approx(fix.utilisation_after)
        assert after.state in ("holds", "tight")


def test_more_layers_sway_less() -> None:
    sways = []
    for layers in (2, 3, 4):
        mechanic = replace(piece().mechanic, layers=layers, layer_gap_m=None)
        found = verdict_of(replace(piece(), mechanic=mechanic)).findings
        sways.append(next(each.utilisation for each in found if each.check == "sway"))
    assert sways[0] > sways[1] > sways[2] - 0.05


def test_stems_beyond_the_cells_fail_and_are_named() -> None:
    crowded = replace(piece(), recipe=recipe(stock=(90, "filler")))
    verdict = verdict_of(crowded)
    crowding = next(each for each in verdict.findings if each.check == "crowding")
    assert verdict.state == "fails"
    assert "stock" in crowding.reason.text


def test_a_branch_too_thick_for_the_mesh_is_told_the_cell_it_needs() -> None:
    fine = replace(piece().mechanic, netting="coated-13-07")
    verdict = verdict_of(replace(piece(), mechanic=fine, recipe=recipe(quince_branch=(5, "line"))))
    # 10 mm quince passes a 13 mm cell; a hyacinth of 13 mm does not
    assert not any(each.check == "mesh" for each in verdict.findings)
    verdict = verdict_of(replace(piece(), mechanic=fine, recipe=recipe(hyacinth=(5, "line"))))
    mesh = next(each for each in verdict.findings if each.check == "mesh")
    assert mesh.limit.value == pytest.approx(1.1 * 0.013)
    assert mesh.utilisation > 1


def test_no_recipe_cannot_be_judged() -> None:
    verdict = verdict_of(replace(piece(), recipe=()))
    assert verdict.state == "cannot say"
    assert "recipe" in verdict.reason.text


def test_taking_out_one_side_rocks_the_cushion_and_tape_is_sized_for_it() -> None:
    even = build(piece(), conditions())
    assert demand_n_m(even.mechanic, piece(), even.placement) < even.mechanic.seat_moment_n_m
    assert even.mechanic.tape_strips == 0
    loose = replace(piece().mechanic, squeeze=0.0)
    heavy = RecipeLine(variety="hydrangea", count=3, role="focal")
    one_sided = build(replace(piece(), mechanic=loose, recipe=(heavy,)), conditions())
    assert one_sided.mechanic.tape_strips >= 1
    seat = next(each for each in hold.judge(one_sided).findings if each.check == "seat")
    assert seat.utilisation <= 1
