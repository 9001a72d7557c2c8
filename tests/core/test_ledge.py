"""Ledges: worked cases, what holds and what does not, edges, compositions, a piece moved to a table, spills."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.building import spills
from jolly_trellis.core.building.build import build
from jolly_trellis.core.building.footing import Footing, Outline, ledge_edge_m
from jolly_trellis.core.checks import balance, hang, stand_ledge
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.errors import InvalidMeasure, UnknownName
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.plan.piece import Counterweight, Piece, Spill
from jolly_trellis.core.plan.setting import Setting
from tests.ordinary import beside, conditions, lacks, nettings, on_ledge, piece, recipe

SPILL = Spill(drop_m=0.6, recipe=recipe(ruscus=(8, "base"), gypsophila=(6, "filler")))


def verdict(each: Piece, verb: str = "stand") -> Verdict:
    return next(v for v in evaluate(each, conditions(), with_fixes=False).verdicts if v.verb == verb)


def checks(each: Piece) -> set[str]:
    return {found.check for found in verdict(each).findings}


OUT_AND_IN = np.array([1.6, 0.8, 1.5]), np.array([-0.14, -0.05, 0.09])


def test_the_ledge_that_falls() -> None:
    """Worked from moments: foot flush with the edge, out 2.589 N·m, in 1.324 N·m; 1.631 kg 16 cm behind mends it."""
    outward, inward = stand_ledge.moments_n_m(*OUT_AND_IN, 0.0)
    assert (outward, inward) == pytest.approx((2.589, 1.324), abs=0.0005)
    assert stand_ledge.holding_ratio(outward, inward) < 1
    assert stand_ledge.counterweight_kg(outward, inward, 0.16, 1.5) == pytest.approx(1.631, abs=0.0005)


def test_the_ledge_that_stands_but_not_by_enough() -> None:
    """Worked from moments: ratio 1.343; 0.131 kg 16 cm behind brings it to 1.5."""
    outward, inward = stand_ledge.moments_n_m(np.array([0.9, 1.1, 2.0]), np.array([-0.10, -0.04, 0.09]), 0.0)
    assert stand_ledge.holding_ratio(outward, inward) == pytest.approx(1.343, abs=0.0005)
    assert stand_ledge.counterweight_kg(outward, inward, 0.16, 1.5) == pytest.approx(0.131, abs=0.0005)


def test_a_foot_set_back_tips_over_its_own_front() -> None:
    """Worked from moments: the first ledge with the foot 3 cm back asks 3.185 kg 13 cm behind the axis."""
    outward, inward = stand_ledge.moments_n_m(*OUT_AND_IN, 0.03)
    assert stand_ledge.counterweight_kg(outward, inward, 0.13, 1.5) == pytest.approx(3.185, abs=0.0005)


@given(st.floats(0.1, 4), st.floats(0.1, 4), st.floats(0.02, 0.5), st.floats(1.0, 2.0))
def test_the_counterweight_brings_the_ratio_to_its_factor(out: float, held: float, arm: float, factor: float) -> None:
    kg = stand_ledge.counterweight_kg(out, held, arm, factor)
    ratio = stand_ledge.holding_ratio(out, held + kg * GRAVITY_M_S2 * arm)
    assert ratio == pytest.approx(min(max(factor, held / out), 9.99))


def test_nothing_leaning_out_reads_over_nine() -> None:
    assert stand_ledge.holding_ratio(0.0, 1.0) == 9.99


def test_a_ledge_piece_answers_for_ratio_brush_and_sliding() -> None:
    assert {"ledge", "brush", "slide", "making", "tilt"} <= checks(on_ledge())
    assert "push" not in checks(on_ledge())


def test_each_fix_of_a_failing_ledge_piece_holds_when_applied() -> None:
    failing = next(v for v in evaluate(on_ledge(), conditions()).verdicts if v.verb == "stand")
    assert failing.state == "fails"
    assert failing.fixes
    for fix in failing.fixes:
        assert verdict(fix.piece).state in ("holds", "tight")


def test_a_weight_that_merely_stands_behind_holds_nothing() -> None:
    weight = Counterweight(mass_kg=2.0, away_m=0.1)
    findings = {
        tied: next(
            found
            for found in verdict(replace(on_ledge(), counterweight=replace(weight, tied=tied))).findings
            if found.check == "ledge" and found.case == "heavy"
        )
        for tied in (True, False)
    }
    bare = next(f for f in verdict(on_ledge()).findings if f.check == "ledge" and f.case == "heavy")
    assert findings[False].value.value == pytest.approx(bare.value.value)
    assert findings[True].value.value > bare.value.value


def test_vessels_are_summed_only_where_they_are_tied() -> None:
    masses = {}
    for tied in (True, False):
        made = build(replace(on_ledge(), companions=(beside(tied=tied),)), conditions())
        masses[tied] = balance.balance_of(made, "typical").mass_kg
    alone = balance.balance_of(build(on_ledge(), conditions()), "typical").mass_kg
    assert masses[False] == pytest.approx(alone)
    assert masses[True] > alone + 0.5


def test_an_untied_companion_is_judged_by_itself_and_named() -> None:
    texts = [f.reason.text for f in verdict(replace(piece(), companions=(beside(tied=False),))).findings]
    assert any(text.startswith("Second bowl:") for text in texts)


def test_a_companions_other_verdicts_are_its_own() -> None:
    thirsty = replace(beside(tied=True), water_level_m=0.01)
    drink = verdict(replace(piece(), companions=(thirsty,)), "drink")
    assert drink.state == "fails"
    assert drink.reason.text.startswith("Second bowl:")
    mended = [
        fix
        for each in evaluate(replace(piece(), companions=(thirsty,)), conditions()).verdicts
        if each.verb == "drink"
        for fix in each.fixes
    ]
    assert mended
    assert all(verdict(fix.piece, "drink").state in ("holds", "tight") for fix in mended)


def test_a_fault_of_a_companion_is_marked_on_it() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        build(replace(piece(), companions=(replace(beside(tied=True), water_level_m=3.0),)), conditions())
    assert caught.value.path == "companions.0.water_level_m"


def test_the_axis_is_the_foot_or_the_edge_whichever_is_nearer_the_wall() -> None:
    foot = Outline(plan_shape="round", x_m=0.0, y_m=0.0, width_m=0.12, depth_m=0.12)
    assert Footing(feet=(foot,), front_m=-0.10).axis_m == pytest.approx(-0.06)
    assert Footing(feet=(foot,), front_m=-0.02).axis_m == pytest.approx(-0.02)
    assert ledge_edge_m(on_ledge(set_back_m=0.03)) == pytest.approx(-0.11 / 2 - 0.03)
    assert ledge_edge_m(on_ledge(edge_radius_m=0.02)) == pytest.approx(-0.11 / 2 + 0.02)
    assert ledge_edge_m(piece()) is None


def test_a_footing_of_several_feet_is_their_hull() -> None:
    feet = tuple(Outline(plan_shape="square", x_m=x, y_m=0.0, width_m=0.1, depth_m=0.1) for x in (-0.2, 0.2))
    rays = np.array([0.0, 1.0, 0.0, -1.0]), np.array([-1.0, 0.0, 1.0, 0.0])
    zero = np.zeros(4)
    assert Footing(feet=feet).edge_m(zero, zero, *rays).tolist() == pytest.approx([0.05, 0.25, 0.05, 0.25])
    cut = Footing(feet=feet, front_m=-0.01)
    assert cut.edge_m(zero, zero, *rays).tolist() == pytest.approx([0.01, 0.25, 0.05, 0.25])
    outside = Footing(feet=feet).edge_m(zero, zero - 0.08, *rays)
    assert (outside < 0).all()


def test_a_ledge_narrower_than_the_foot_is_refused() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        build(on_ledge(depth_m=0.10), conditions())
    assert caught.value.path == "setting.ledge.depth_m"
    assert caught.value.limit.quantities["needed"].value == pytest.approx(0.11)


def test_a_ledge_nobody_measured_is_asked_for() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        build(replace(piece(), setting=Setting(where="ledge")), conditions())
    assert caught.value.path == "setting.ledge"


def test_a_ledge_piece_moved_to_a_table_is_judged_in_both_places() -> None:
    moved = replace(on_ledge(), setting=replace(on_ledge().setting, moves_to="table"))
    texts = [found.reason.text for found in verdict(moved).findings]
    assert any(text.startswith("Moved to the table:") for text in texts)
    assert sum(found.check == "ledge" for found in verdict(moved).findings) == 3
    unknown = replace(moved, setting=replace(moved.setting, free_table_m=None))
    assert "how much bare table there is round the foot" in lacks(verdict(unknown))


def test_what_may_stand_behind_decides_where_the_weight_goes() -> None:
    assert stand_ledge.weight_place_m(on_ledge()) is not None
    ledge = on_ledge().setting.ledge
    assert ledge is not None
    greens = replace(on_ledge(), setting=replace(on_ledge().setting, ledge=replace(ledge, behind="greens")))
    assert stand_ledge.weight_place_m(greens) is None
    keys = {each.key.partition("-")[0] for each in stand_ledge.candidates(build(greens, conditions()), least_kg=1.0)}
    assert "counterweight" not in keys
    assert "inside" in keys
    assert stand_ledge.weight_place_m(on_ledge(depth_m=0.12)) is None


def test_a_spill_is_sized_as_a_strip_with_its_tail() -> None:
    sized = spills.size(replace(on_ledge(), spill=SPILL), conditions())
    assert sized is not None
    assert sized.sheet.length_m == pytest.approx(0.6 + 0.45)
    assert sized.stems == 14
    assert sized.hanging_heavy_kg > sized.hanging_kg


@pytest.mark.parametrize(("width", "cells"), [(0.15, 5), (0.027, 1), (0.02, 0)])
def test_netting_bears_eight_newtons_for_each_whole_cell(width: float, cells: int) -> None:
    """Estimate, no source."""
    assert spills.chain_strength_n(nettings()["coated-25-09"], width) == pytest.approx(8.0 * cells)


def test_a_spill_on_its_own_hook_pulls_nothing_and_on_the_vessel_all_its_weight() -> None:
    hooked = replace(on_ledge(), spill=SPILL)
    tied = replace(hooked, spill=replace(SPILL, held_by="vessel"))
    made = build(tied, conditions())
    assert made.spill is not None
    assert spills.pull_n(hooked, made.spill, heavy=False) == 0.0
    pull = spills.pull_n(tied, made.spill, heavy=False)
    assert pull == pytest.approx(made.spill.hanging_kg * GRAVITY_M_S2)
    ratios = [
        next(f.value.value for f in verdict(each).findings if f.check == "ledge" and f.case == "typical")
        for each in (hooked, tied)
    ]
    assert ratios[1] < ratios[0]


def test_a_hook_nobody_has_rated_is_no_pass() -> None:
    unrated = verdict(replace(on_ledge(), spill=SPILL), "hang")
    assert unrated.state == "cannot say"
    rated = replace(SPILL, hook_n=60.0, hook_stated_by="the warden")
    assert verdict(replace(on_ledge(), spill=rated), "hang").state == "holds"
    weak = replace(rated, hook_n=3.0)
    assert verdict(replace(on_ledge(), spill=weak), "hang").state == "fails"


def test_what_hangs_counts_with_contingency_and_handling() -> None:
    assert hang.design_load_n(1.0) == pytest.approx(GRAVITY_M_S2 * 1.1 * 1.25)


@pytest.mark.parametrize(
    ("each", "path"),
    [
        (replace(piece(), spill=SPILL), "spill"),
        (replace(on_ledge(), spill=replace(SPILL, drop_m=1.5)), "spill.drop_m"),
        (replace(on_ledge(), spill=replace(SPILL, width_m=0.02)), "spill.width_m"),
    ],
)
def test_a_spill_that_cannot_hang_is_refused(each: Piece, path: str) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        build(each, conditions())
    assert caught.value.path == path


def test_a_spill_of_unknown_netting_is_refused() -> None:
    with pytest.raises(UnknownName) as caught:
        build(replace(on_ledge(), spill=replace(SPILL, netting="gauze")), conditions())
    assert caught.value.path == "spill.netting"


def test_stems_of_a_spill_are_dry_unless_they_have_tubes() -> None:
    roses = replace(SPILL, recipe=recipe(rose=(3, "focal")))
    small = replace(on_ledge().envelope, height_m=0.45, width_m=0.5, depth_m=0.5)
    hung = replace(on_ledge(), spill=roses, envelope=small)
    drink = next(v for v in evaluate(hung, conditions()).verdicts if v.verb == "drink")
    assert drink.state == "fails"
    assert any(fix.key.startswith("spill") for fix in drink.fixes)


def test_a_forward_form_reaches_over_the_front_and_little_behind() -> None:
    made = build(on_ledge(), conditions())
    y = made.placement.tip_m[:, 1]
    assert -y.min() > 2.5 * y.max()


def test_a_piece_is_stood_farther_back_by_what_is_said_as_far_as_the_ledge_goes() -> None:
    """A ledge 30 cm deep, a foot of 11 cm 2 cm back from its edge: 17 cm are left behind it."""
    piece_ = on_ledge(set_back_m=0.02)
    tried = {each.key: each for each in stand_ledge.candidates(build(piece_, conditions()), least_kg=0.5)}
    for key, back in (("back-2", 0.04), ("back-4", 0.06), ("back-8", 0.10)):
        moved = tried[key].piece.setting.ledge
        assert moved is not None
        assert moved.set_back_m == pytest.approx(back)
    narrow = on_ledge(depth_m=0.15, set_back_m=0.02)
    keys = {each.key for each in stand_ledge.candidates(build(narrow, conditions()), least_kg=0.5)}
    assert "back-2" in keys
    assert "back-4" not in keys


def test_greens_behind_lean_back_over_the_ledge_at_a_share_of_the_height_over_the_rim() -> None:
    made = build(on_ledge(), conditions())
    greens = next(each for each in stand_ledge.candidates(made, least_kg=0.5) if len(each.piece.hand_placed) > 0)
    tip = greens.piece.hand_placed[-1]
    above = made.piece.envelope.height_m - made.rim_z_m
    assert tip.tip_z_m == pytest.approx(made.rim_z_m + stand_ledge.REAR_RISE.value * above, abs=0.011)
    assert tip.tip_y_m > 0
