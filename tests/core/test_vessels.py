"""Vessels by measured profile: volumes, centres, levels, and what is refused."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.interpolate import PchipInterpolator

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan_shapes import PlanShape
from tests.ordinary import round_vessel

FLARED = round_vessel((0, 0.060), (0.09, 0.110))
BELLIED = round_vessel((0, 0.045), (0.03, 0.09), (0.12, 0.10), (0.14, 0.08))
CORNERED = replace(BELLIED, profile=tuple(replace(each, corner=True) for each in BELLIED.profile))
STEPPED = round_vessel((0, 0.05), (0.1, 0.05), (0.1, 0.1), (0.2, 0.1))


def box(width: float, depth: float, height: float, shape: PlanShape = "rectangular") -> Vessel:
    points = tuple(ProfilePoint(height_m=h, width_m=width, depth_m=depth) for h in (0.0, height))
    return Vessel(name="box", plan_shape=shape, profile=points)


@pytest.mark.parametrize(
    ("vessel", "level", "litres"),
    [(FLARED, 0.07, 1.4157), (FLARED, 0.09, 2.1017), (CORNERED, 0.13, 3.2832), (BELLIED, 0.13, 3.4515)],
)
def test_volume_of_turned_vessels_worked_by_hand(vessel: Vessel, level: float, litres: float) -> None:
    """Source: sums of frusta, worked from the formula; the last with the radius by scipy's PchipInterpolator."""
    assert vessels.volume_below_l(vessel, level) == pytest.approx(litres, abs=5e-5)


def test_volume_of_straight_vessels_is_area_times_height() -> None:
    assert vessels.volume_below_l(box(0.4, 0.11, 0.09), 0.05) == pytest.approx(0.4 * 0.11 * 0.05 * 1000)
    oval = vessels.volume_below_l(box(0.3, 0.2, 0.07, "oval"), 0.07)
    assert oval == pytest.approx(math.pi / 4 * 0.3 * 0.2 * 0.07 * 1000)


def test_a_cone_has_its_centre_at_three_quarters() -> None:
    cone = round_vessel((0, 1e-7), (0.12, 0.08))
    assert vessels.centroid_below_m(cone, 0.12) == pytest.approx(0.09, rel=1e-5)


def test_inside_size_is_linear_between_measures() -> None:
    assert vessels.inside_size_m(FLARED, 0.045) == pytest.approx((0.17, 0.17))
    assert vessels.inside_size_m(FLARED, 1.0) == pytest.approx((0.22, 0.22))


def test_a_curve_goes_through_what_was_measured_and_swings_nowhere_past_it() -> None:
    for point in BELLIED.profile:
        assert vessels.inside_size_m(BELLIED, point.height_m) == pytest.approx((point.width_m, point.depth_m))
    assert max(vessels.inside_size_m(BELLIED, 0.14 * share / 97)[0] for share in range(98)) <= 0.2 + 1e-12


def test_the_curve_is_the_published_one() -> None:
    """Source: Fritsch and Carlson's monotone cubic, by scipy's PchipInterpolator over half the width."""
    curve = PchipInterpolator([0, 0.03, 0.12, 0.14], [0.045, 0.09, 0.10, 0.08])
    for height in (0.007, 0.029, 0.031, 0.08, 0.121, 0.139):
        assert vessels.inside_size_m(BELLIED, height)[0] == pytest.approx(2 * float(curve(height)), rel=1e-12)


def test_a_corner_ends_one_curve_and_begins_another() -> None:
    """Straight up to the corner: two points are a line; over it the curve of the rest."""
    bent = replace(BELLIED, profile=tuple(replace(p, corner=at == 1) for at, p in enumerate(BELLIED.profile)))
    assert vessels.inside_size_m(bent, 0.015) == pytest.approx((0.135, 0.135))
    over = PchipInterpolator([0.03, 0.12, 0.14], [0.18, 0.20, 0.16])
    assert vessels.inside_size_m(bent, 0.08)[0] == pytest.approx(float(over(0.08)), rel=1e-12)


def test_two_sizes_at_one_height_are_a_step() -> None:
    """π/4·0.1²·0.1 + π/4·0.2²·0.1 = 0.7854 + 3.1416 L; centre (0.7854·0.05 + 3.1416·0.15)/3.9270 = 13.0 cm.

    Its shell: wall π·0.1·0.1, ring π/4·(0.2² - 0.1²), wall π·0.2·0.1 at 5, 10 and 15 cm over the base of 6 mm.
    """
    vessels.check_vessel(STEPPED)
    assert vessels.volume_below_l(STEPPED, 0.2) == pytest.approx(3.9270, abs=5e-5)
    assert vessels.centroid_below_m(STEPPED, 0.2) == pytest.approx(0.13, abs=1e-9)
    assert vessels.inside_size_m(STEPPED, 0.1)[0] == pytest.approx(0.1)
    assert vessels.inside_size_m(STEPPED, 0.1 + 1e-9)[0] == pytest.approx(0.2)
    areas = (math.pi * 0.01, math.pi / 4 * 0.03, math.pi * 0.02)
    base = math.pi / 4 * 0.01 * STEPPED.base_m
    wall = STEPPED.wall_m
    first = sum(area * wall * (STEPPED.base_m + up) for area, up in zip(areas, (0.05, 0.1, 0.15), strict=True))
    whole = sum(areas) * wall + base
    assert vessels.shell_centre_m(STEPPED) == pytest.approx((first + base * STEPPED.base_m / 2) / whole, rel=2e-3)


@pytest.mark.parametrize(
    ("profile", "wrong"),
    [
        (((0, 0.05), (0, 0.06), (0.1, 0.06)), "Two sizes are given at {h}."),
        (((0, 0.05), (0.1, 0.05), (0.1, 0.06)), "Two sizes are given at {h}."),
        (((0, 0.05), (0.05, 0.05), (0.05, 0.06), (0.05, 0.07), (0.1, 0.07)), "Three sizes are given at {h}."),
        (((0, 0.05), (0.05, 0.05), (0.04, 0.06), (0.1, 0.07)), "The profile folds back at {h}."),
    ],
)
def test_a_step_lies_between_floor_and_rim_and_has_two_sizes(
    profile: tuple[tuple[float, float], ...], wrong: str
) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        vessels.check_vessel(round_vessel(*profile))
    assert caught.value.message.text == wrong


@given(st.floats(min_value=0.0, max_value=1.0))
def test_a_volume_finds_its_level_again(share: float) -> None:
    level = share * BELLIED.inside_depth_m
    assert vessels.level_for_volume_m(BELLIED, vessels.volume_below_l(BELLIED, level)) == pytest.approx(
        level, abs=2e-6
    )


def test_more_than_it_holds_is_refused() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        vessels.level_for_volume_m(FLARED, 2.2)
    assert "2.10 litres" in caught.value.limit.text


@pytest.mark.parametrize("level", [-0.001, 0.0902, math.nan])
def test_a_level_outside_the_vessel_is_refused(level: float) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        vessels.volume_below_l(FLARED, level)
    assert caught.value.path == "water_level_m"


def profile(*points: tuple[float, float, float]) -> tuple[ProfilePoint, ...]:
    return tuple(ProfilePoint(height_m=h, width_m=w, depth_m=d) for h, w, d in points)


@pytest.mark.parametrize(
    ("points", "path"),
    [
        (profile((0, 0.1, 0.1)), "vessel.profile"),
        (profile((0.01, 0.1, 0.1), (0.1, 0.1, 0.1)), "vessel.profile.0.height_m"),
        (profile((0, 0.1, 0.1), (0.1, 0.2, 0.2), (0.08, 0.2, 0.2)), "vessel.profile.2.height_m"),
        (profile((0, 0.1, 0.1), (0.1, 0.0, 0.0)), "vessel.profile.1.width_m"),
        (profile((0, 0.1, 0.1), (0.1, math.nan, 0.2)), "vessel.profile.1.width_m"),
        (profile((0, 0.1, 0.1), (0.1, 0.2, 0.1)), "vessel.profile.1.depth_m"),
    ],
)
def test_a_profile_that_is_no_vessel_is_refused_at_its_measure(points: tuple[ProfilePoint, ...], path: str) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        vessels.check_vessel(replace(FLARED, profile=points))
    assert caught.value.path == path
    assert caught.value.limit.text


def test_the_shell_of_a_straight_pot_balances_between_base_and_middle() -> None:
    """A thin cylinder of height H and radius R with an equal base: centre at H²/(2H + R) above the base."""
    pot = replace(round_vessel((0, 0.1), (0.2, 0.1)), wall_m=0.001, base_m=0.001)
    assert vessels.shell_centre_m(pot) == pytest.approx(0.2**2 / (2 * 0.2 + 0.1), abs=0.001)


def test_girths() -> None:
    assert vessels.mouth_girth_m(FLARED) == pytest.approx(math.pi * 0.22)
    assert vessels.mouth_girth_m(box(0.4, 0.11, 0.09)) == pytest.approx(1.02)


def test_a_stem_end_slips_more_on_glass() -> None:
    assert vessels.floor_friction(replace(FLARED, material="glass")) == 0.2
    assert vessels.floor_friction(FLARED) == 0.35
