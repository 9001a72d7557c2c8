"""Bouquets: the formulas of handle, dome and tape; what the hand, the vase and the eye ask; steps and making."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks import hold_bound, lift_hand
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.judging.choose import choose
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.mechanics import bouquet as formulas
from jolly_trellis.core.plan.passage import Cooled, Passage
from jolly_trellis.core.plan.piece import MechanicKind, Piece
from tests.ordinary import BOUND, ON_BOUQUETS, bound, bouquet, conditions, piece, recipe


def verdict(each: Piece, verb: str) -> Verdict:
    return next(v for v in evaluate(each, conditions()).verdicts if v.verb == verb)


@pytest.mark.parametrize(
    ("diameters", "fill", "handle_mm"),
    [
        ([6.0] * 30, 0.80, 36.7),
        ([5.0] * 12 + [8.0] * 8 + [4.0] * 10, 0.80, 34.9),
        ([6.0] * 25, 0.80, 33.5),
        ([6.0] * 25, 0.70, 35.9),
    ],
)
def test_the_handle_of_so_many_stems(diameters: list[float], fill: float, handle_mm: float) -> None:
    """Worked from equal areas."""
    handle = formulas.handle_diameter_m(np.array(diameters) / 1000, fill)
    assert 1000 * handle == pytest.approx(handle_mm, abs=0.05)


@given(st.integers(1, 80), st.floats(0.02, 0.12), st.floats(0.6, 0.9))
def test_heads_that_fill_a_dome_are_no_more_than_its_area_takes(heads: int, diameter: float, fill: float) -> None:
    area = heads * math.pi / 4 * diameter**2 / fill
    assert formulas.heads_on_dome(area, diameter, fill) in (heads - 1, heads)
    assert formulas.heads_on_dome(area * 1.001, diameter, fill) >= heads


def test_spacing_of_closely_packed_heads_is_their_size() -> None:
    """Source: hexagonal packing of circles fills π/√12 of a plane (published)."""
    diameter, heads = 0.06, 40
    area = heads * math.pi / 4 * diameter**2 / (math.pi / math.sqrt(12))
    assert formulas.head_spacing_m(area, heads) == pytest.approx(diameter)
    assert formulas.head_spacing_m(area, 0) == 0.0


@pytest.mark.parametrize(("radius", "rise", "arc"), [(0.1, 0.1, math.pi * 0.1), (0.1, 1e-6, 0.2)])
def test_the_arc_over_a_dome(radius: float, rise: float, arc: float) -> None:
    assert formulas.dome_arc_m(radius, rise) == pytest.approx(arc, rel=1e-6)


def test_the_cap_of_a_half_ball_is_half_its_surface() -> None:
    assert formulas.cap_area_m2(0.1, 0.1, 0.1) == pytest.approx(2 * math.pi * 0.01)


def test_tape_and_ribbon() -> None:
    assert formulas.tape_length_m(0.035, 0.05, 0.025, 0.5) == pytest.approx(math.pi * 0.035 * 4)
    assert formulas.bow_length_m(4, 0.12) == pytest.approx(0.96 + 0.15)
    assert formulas.bow_length_m(0, 0.12) == 0.0


def test_string_binds_what_the_tape_covers() -> None:
    """By hand: four turns round a handle of 35 mm, and 30 cm for loop and knot."""
    assert formulas.binding_length_m(0.035) == pytest.approx(4 * math.pi * 0.035 + 0.30)
    made = build(bouquet("hand_spiral"), conditions())
    string = next(each for each in made.mechanic.parts if each.name == "string of the binding")
    handle = formulas.handle_of(made.placement.stems, crossing=True)
    assert string.sizes[0].value == pytest.approx(formulas.binding_length_m(handle))
    assert string.mass_kg == pytest.approx(string.sizes[0].value * 0.0015)


def test_wires_of_a_star_lattice_come_in_pairs() -> None:
    assert formulas.star_wires(0.21, 0.018) % 2 == 0
    assert formulas.star_wire_length_m(0.2, 0.08, 0.12) == pytest.approx(0.3 * 1.15)


def test_the_angle_of_the_outermost_stems() -> None:
    assert math.degrees(formulas.spiral_angle_rad(0.15, 0.15)) == pytest.approx(45)


@pytest.mark.parametrize("kind", BOUND)
def test_what_is_bound_is_worked_out_whole(kind: MechanicKind) -> None:
    report = evaluate(bound(kind), conditions())
    assert [v.verb for v in report.verdicts] == ["hold", "stand", "drink", "travel", "hang", "hide", "see", "lift"]
    assert {v.verb: v.state for v in report.verdicts}["see"] == "not needed"
    assert report.mechanic.kind == kind
    kinds = [step.kind for step in report.steps]
    first, last = ("wire", "box") if kind not in ON_BOUQUETS else ("place", "fill")
    assert kinds.index(first) < kinds.index("bind") < kinds.index(last)


@pytest.mark.parametrize("kind", ON_BOUQUETS)
def test_every_stem_passes_the_binding_and_ends_in_the_vase(kind: MechanicKind) -> None:
    each = bouquet(kind)
    made = build(each, conditions())
    handle = formulas.handle_of(made.placement.stems, kind == "hand_spiral")
    at_binding = np.hypot(made.placement.seat_x_m, made.placement.seat_y_m)
    assert (at_binding <= handle / 2 + 1e-9).all()
    assert (made.placement.end_height_m >= -1e-9).all()
    ends = np.hypot(made.placement.found.end_x_m, made.placement.found.end_y_m)
    assert (ends <= each.vessel.profile[0].width_m / 2).all()


def test_stems_of_a_spiral_end_across_from_their_heads() -> None:
    made = build(bouquet("hand_spiral"), conditions())
    tip, found = made.placement.tip_m, made.placement.found
    outer = np.hypot(tip[:, 0], tip[:, 1]) > 0.08
    across = tip[:, 0] * found.end_x_m + tip[:, 1] * found.end_y_m
    assert (across[outer] < 0).all()


def test_the_hand_has_ten_to_fourteen_centimetres_worked_out_from_the_vase() -> None:
    each = bouquet()
    for depth, hand in ((0.08, 0.10), (0.12, 0.12), (0.20, 0.14)):
        top = replace(each.vessel.profile[-1], height_m=depth)
        vase = replace(each.vessel, profile=(each.vessel.profile[0], top))
        shape = formulas.bouquet_shape(replace(each, vessel=vase, envelope=replace(each.envelope, height_m=0.5)))
        assert shape.hand_m == pytest.approx(hand)
        assert shape.binding_m >= vase.rim_m - 1e-9


def test_flowers_too_low_for_their_dome_are_refused() -> None:
    low = replace(bouquet(), envelope=replace(bouquet().envelope, height_m=bouquet().vessel.rim_m + 0.06))
    with pytest.raises(InvalidMeasure) as caught:
        build(low, conditions())
    assert caught.value.path == "envelope.height_m"


@pytest.mark.parametrize(
    "each",
    [
        replace(piece(), mechanic=bouquet().mechanic),
        replace(bouquet(), mechanic=piece().mechanic),
        replace(bouquet(), mechanic=bound("corsage").mechanic),
        replace(bound("corsage"), mechanic=bouquet().mechanic),
    ],
)
def test_mechanics_of_the_kinds_of_pieces_are_not_mixed_up(each: Piece) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        build(each, conditions())
    assert caught.value.path == "mechanic.kind"


def test_only_what_bouquets_are_made_on_is_compared_for_one() -> None:
    assert {each.kind for each in choose(bouquet(), conditions(), on_hand=None)} == set(ON_BOUQUETS)
    worn = choose(bound("corsage"), conditions(), on_hand=None)
    assert {each.kind for each in worn} == set(BOUND) - set(ON_BOUQUETS)


def test_too_many_heads_crush_and_a_wider_dome_mends_it() -> None:
    crowded = replace(bouquet(), recipe=recipe(ruscus=(6, "base"), garden_rose=(16, "focal")))
    found = verdict(crowded, "hold")
    assert found.state == "fails"
    assert found.governing is not None
    assert found.governing.check == "heads"
    wider = [fix for fix in found.fixes if fix.key.startswith("wider")]
    assert wider
    assert hold_bound.heads_fill(build(wider[0].piece, conditions())) <= 0.85


def test_hours_in_the_hand_decide_and_a_wet_wrap_mends_them() -> None:
    long = replace(bouquet(), carried_h=6.0)
    found = verdict(long, "drink")
    assert found.state == "fails"
    assert {fix.key.partition("-")[0] for fix in found.fixes} >= {"wrap"}
    unknown = replace(bouquet(), carried_h=None)
    assert verdict(unknown, "drink").state == "cannot say"


def test_three_days_in_the_cooler_are_too_many() -> None:
    late = replace(bouquet(), passage=Passage(cooled=Cooled(days=3.0)))
    assert verdict(late, "drink").state == "fails"


def test_an_underside_that_shows_is_covered_by_a_collar() -> None:
    bare = replace(bouquet("hand_spiral"), recipe=recipe(ruscus=(3, "base"), garden_rose=(7, "focal")))
    found = verdict(bare, "hide")
    assert found.state == "fails"
    assert any("collar" in fix.key for fix in found.fixes)


def test_the_back_of_a_one_sided_bouquet_is_looked_at() -> None:
    flat = replace(bouquet(), envelope=replace(bouquet().envelope, form="fan"))
    assert "back" in {f.check for f in verdict(flat, "hide").findings}


def test_the_moment_at_the_wrist() -> None:
    """Worked from statics: 1.4 kg, 18 cm over mid-grip, 30°: 1.236 N·m."""
    assert lift_hand.wrist_moment_n_m(1.4, 0.18, 0.0, math.radians(30)) == pytest.approx(1.236, abs=0.0005)
    assert lift_hand.wrist_moment_n_m(1.0, 0.0, 0.02, 0.0) == pytest.approx(0.02 * GRAVITY_M_S2)


def test_lift_is_about_the_hand_and_counts_the_water_carried() -> None:
    checks = {f.check for f in verdict(bouquet(), "lift").findings}
    assert checks == {"mass", "wrist", "grip", "thin", "hand"}
    wet = replace(bouquet(), recipe=tuple(replace(line, water="wrap", wrap_ml=40) for line in bouquet().recipe))
    dry, heavy = (lift_hand.carried(build(each, conditions()), "typical")[0] for each in (bouquet(), wet))
    assert heavy == pytest.approx(dry + 25 * (0.040 + 0.006))


def test_a_handle_too_short_for_a_hand_fails() -> None:
    short = replace(bouquet(), hand_length_m=0.06)
    assert verdict(short, "lift").state == "fails"


def test_making_a_bouquet_follows_the_wrist_and_ends_at_lift() -> None:
    report = making_of(bouquet(), conditions())
    assert report.margin == "wrist moment"
    wrist = next(f for f in verdict(bouquet(), "lift").findings if f.check == "wrist" and f.case == "heavy")
    assert report.curve[-1] == pytest.approx(wrist.value.value, rel=0.02)
    assert {step.lay for step in report.steps} == {"through the armature"}
    spiral = making_of(bouquet("hand_spiral"), conditions())
    assert {step.lay for step in spiral.steps} == {"in front, foot to the left", "behind, foot to the right"}
    assert "bound" in {gate.key for gate in report.gates}


def test_stand_is_about_its_vase_and_not_about_its_making() -> None:
    assert "making" not in {f.check for f in verdict(bouquet(), "stand").findings}


def test_bow_and_streamers_are_cut() -> None:
    tied = replace(bouquet(), bow_loops=4, streamers=6)
    parts = {part.name: part.quantity for part in evaluate(tied, conditions(), with_fixes=False).mechanic.parts}
    assert parts["streamer"] == 6
    assert parts["ribbon for the bow"] == 1


def test_a_bouquet_with_no_stems_asks_for_them() -> None:
    bare = replace(bouquet(), recipe=())
    assert verdict(bare, "hold").state == "cannot say"
    assert making_of(bare, conditions()).say.text.startswith("The recipe is empty")


def test_the_square_for_a_dome_goes_over_its_longer_side() -> None:
    round_ = bouquet("wire_dome")
    round_ = replace(round_, dome_m=0.15)
    flat = replace(round_, envelope=replace(round_.envelope, depth_m=0.6 * round_.envelope.width_m))
    square, same = (
        next(part for part in build(each, conditions()).mechanic.parts if part.name.startswith("square for the dome"))
        for each in (round_, flat)
    )
    assert square.sizes == same.sizes


def test_a_bouquet_says_how_many_more_stems_its_armature_takes() -> None:
    made = build(bouquet("wire_dome"), conditions())
    stems = int(made.placement.stems.stems_in_row.sum())
    assert made.placement.room == made.mechanic.capacity - stems > 0


def test_a_disc_behind_a_bouquet_weighs_by_its_face() -> None:
    """By hand: three quarters of its lesser width across, of card of 0.6 kg/m²."""
    plan = bouquet("hand_spiral")
    made = build(replace(plan, back="disc"), conditions()).mechanic
    disc = next(each for each in made.parts if each.name == "disc of covered card")
    across = 0.75 * min(plan.envelope.width_m, plan.envelope.depth_m)
    assert disc.sizes[0].value == pytest.approx(across)
    assert disc.mass_kg == pytest.approx(math.pi / 4 * across**2 * 0.6)
