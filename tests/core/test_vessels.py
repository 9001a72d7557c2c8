"""Vessels by measured profile: volumes, centres, levels, and what is refused."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.vessels import ProfilePoint, Vessel
from jolly_trellis.core.plan_shapes import PlanShape
from tests.ordinary import round_vessel

FLARED = round_vessel((0, 0.060), (0.09, 0.110))
BELLIED = round_vessel((0, 0.045), (0.03, 0.09), (0.12, 0.10), (0.14, 0.08))


def box(width: float, depth: float, height: float, shape: PlanShape = "rectangular") -> Vessel:
    points = tuple(ProfilePoint(height_m=h, width_m=width, depth_m=depth) for h in (0.0, height))
    return Vessel(name="box", plan_shape=shape, profile=points)


@pytest.mark.parametrize(
    ("vessel", "level", "litres"), [(FLARED, 0.07, 1.4157), (FLARED, 0.09, 2.1017), (BELLIED, 0.13, 3.2832)]
)
def test_volume_of_turned_vessels_worked_by_hand(vessel: Vessel, level: float, litres: float) -> None:
    """Source: sums of frusta, worked from the formula."""
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
