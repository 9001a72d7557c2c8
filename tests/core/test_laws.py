"""Laws that whole plans obey, whatever the figures: more of what helps never harms, and sizes scale as they must."""

import math
import re
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks.balance import balance_of
from jolly_trellis.core.checks.stand import tip_angles_rad
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.vessels import Vessel, shell_centre_m, volume_below_l
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan_shapes import SHAPES, PlanShape
from jolly_trellis.core.provenance import PROVENANCE_KINDS
from jolly_trellis.core.units import render
from tests.generated import examples
from tests.ordinary import conditions, piece, recipe, stems, vessels

FEW = examples(15)


def report(plan: Piece, asked: Conditions | None = None) -> Report:
    return evaluate(plan, asked or conditions(), with_fixes=False)


def verdict(plan: Piece, verb: str, asked: Conditions | None = None) -> Verdict:
    return next(each for each in report(plan, asked).verdicts if each.verb == verb)


def worst(plan: Piece, verb: str, check: str) -> float:
    return max(each.utilisation for each in verdict(plan, verb).findings if each.check == check)


@st.composite
def bowls(draw: st.DrawFn) -> Vessel:
    """Vessels as they are turned, blown and thrown: any plan, wider or narrower upwards, thick or thin."""
    shape: PlanShape = draw(st.sampled_from(list(SHAPES)))
    foot, mouth = draw(st.floats(0.10, 0.25)), draw(st.floats(0.14, 0.30))
    deep = draw(st.floats(0.06, 0.14))
    slender = draw(st.floats(0.6, 1.0)) if shape in ("oval", "rectangular") else 1.0
    wall = draw(st.floats(0.003, 0.008))
    points = tuple(ProfilePoint(height_m=h, width_m=w, depth_m=slender * w) for h, w in ((0.0, foot), (deep, mouth)))
    return Vessel(
        name="any bowl",
        plan_shape=shape,
        profile=points,
        foot_width_m=foot,
        foot_depth_m=slender * foot,
        mass_kg=draw(st.floats(0.5, 3.0)),
        wall_m=wall,
        base_m=wall,
    )


def filled(vessel: Vessel, share: float) -> Piece:
    return replace(piece(), vessel=vessel, water_level_m=round(share * vessel.inside_depth_m, 4))


@FEW
@given(bowls(), st.floats(0.5, 0.8))
def test_a_plan_that_can_be_made_is_answered_in_full(vessel: Vessel, share: float) -> None:
    """Every verdict is given once, every state agrees with its figure, and every sentence is whole in both units."""
    done = report(filled(vessel, share))
    assert len({each.verb for each in done.verdicts}) == len(done.verdicts) == 8
    for each in done.verdicts:
        if each.state in ("holds", "tight", "fails"):
            assert each.utilisation is not None
            assert (each.utilisation > 1.0 + 1e-9) == (each.state == "fails")
        for said in (render(each.reason, "metric"), render(each.reason, "inch")):
            assert said
            assert not re.search(r"[{}]|\bnan\b|\binf\b", said), said
    assert sum(each.count for each in done.cut_list) == sum(line.count for line in piece().recipe)


@FEW
@given(bowls(), st.floats(0.5, 0.75))
def test_every_stem_reaches_water_and_stays_inside_the_vessel(vessel: Vessel, share: float) -> None:
    made = build(filled(vessel, share), conditions())
    placed = made.placement
    reach = (placed.seat_x_m / (vessel.mouth_width_m / 2)) ** 2 + (placed.seat_y_m / (vessel.mouth_depth_m / 2)) ** 2
    limit = 1.0 if vessel.plan_shape in ("round", "oval") else 2.0
    assert (reach <= limit + 1e-6).all()
    assert (placed.cut_length_m > 0).all()


@FEW
@given(bowls(), st.floats(0.1, 1.5))
def test_stone_on_the_floor_never_makes_it_easier_to_tilt(vessel: Vessel, ballast: float) -> None:
    plain = filled(vessel, 0.6)
    weighted = replace(plain, ballast_kg=round(ballast, 2))
    assert worst(weighted, "stand", "tilt") <= worst(plain, "stand", "tilt") + 1e-6


@FEW
@given(bowls(), st.floats(1.05, 1.6))
def test_a_wider_foot_never_makes_it_easier_to_tilt(vessel: Vessel, share: float) -> None:
    depth = vessel.foot_depth_m or vessel.foot_width_m or 0.0
    wider = replace(vessel, foot_width_m=(vessel.foot_width_m or 0.0) * share, foot_depth_m=depth * share)
    made, wide = (build(filled(each, 0.6), conditions()) for each in (vessel, wider))
    angle, wide_angle = (tip_angles_rad(each, balance_of(each, "typical")) for each in (made, wide))
    assert (wide_angle >= angle - 1e-9).all()


@FEW
@given(st.floats(5.0, 35.0), st.floats(1.0, 8.0), st.floats(0.25, 0.8))
def test_warmer_and_drier_air_never_leaves_more_water(warm: float, warmer: float, humidity: float) -> None:
    airs: tuple[Air, ...] = (Air(temperature_c=warm, relative_humidity=humidity),)
    airs += (Air(temperature_c=warm + warmer, relative_humidity=humidity),)
    airs += (Air(temperature_c=warm, relative_humidity=humidity - 0.2),)
    left = []
    for air in airs:
        courses = build(piece(), replace(conditions(), air=air)).courses
        assert courses is not None
        left.append(courses[0].lowest_level_m)
    assert left[1] <= left[0] + 1e-9
    assert left[2] <= left[0] + 1e-9


@FEW
@given(st.integers(12, 60))
def test_mass_adds_up(number: int) -> None:
    """The piece weighs what its parts weigh: vessel, water by the litre, stems by the stem, netting by the area."""
    made = build(stems(piece(), number), conditions())
    parts = (piece().vessel.mass_kg or 0.0) + made.water.volume_at_l(piece().water_level_m)
    parts += float(made.rows.mass_kg.sum()) + made.mechanic.mass_kg
    assert balance_of(made, "typical").mass_kg == pytest.approx(parts, rel=1e-6)


@FEW
@given(st.floats(0.5, 2.0))
def test_a_vessel_scaled_scales_its_centre_and_its_litres(scale: float) -> None:
    """Twice as large: its centre twice as high, eight times the water."""
    small = vessels()["low-bowl-20"]
    points = tuple(
        replace(each, height_m=each.height_m * scale, width_m=each.width_m * scale, depth_m=each.depth_m * scale)
        for each in small.profile
    )
    large = replace(
        small,
        profile=points,
        foot_width_m=(small.foot_width_m or 0.0) * scale,
        foot_depth_m=None if small.foot_depth_m is None else small.foot_depth_m * scale,
        wall_m=small.wall_m * scale,
        base_m=small.base_m * scale,
    )
    assert shell_centre_m(large) == pytest.approx(scale * shell_centre_m(small), rel=1e-6)
    litres = volume_below_l(small, small.inside_depth_m)
    assert volume_below_l(large, large.inside_depth_m) == pytest.approx(scale**3 * litres, rel=1e-6)


def test_a_plan_is_worked_out_the_same_each_time() -> None:
    """The same plan gives the same drawing: nothing is drawn by lot."""
    first, second = report(piece()), report(piece())
    assert first == second


def test_turning_a_round_bowl_about_changes_no_angle() -> None:
    """With its stems the same all round, a round bowl tips alike in all directions."""
    even = replace(piece(), recipe=recipe(rose=(30, "focal")))
    angles = tip_angles_rad(made := build(even, conditions()), balance_of(made, "typical"))
    assert math.degrees(float(angles.max() - angles.min())) < 3.0


@pytest.mark.parametrize("verb", ["hold", "stand", "drink", "travel", "hide", "see", "lift"])
def test_every_figure_says_where_it_comes_from(verb: str) -> None:
    for figure in verdict(piece(), verb).figures:
        assert figure.provenance.kind in PROVENANCE_KINDS
        if figure.provenance.kind == "published":
            assert figure.provenance.source
