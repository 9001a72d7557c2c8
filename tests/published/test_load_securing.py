"""EN 12195-1, load securing on road vehicles: 0.8 g forward, 0.5 g sideways and rearward."""

import pytest

from jolly_trellis.core.books.water import slop_m
from jolly_trellis.core.checks.travel import BRAKING, CORNERING, box_wall_m


def test_the_accelerations_of_the_standard() -> None:
    assert BRAKING.value == 0.8
    assert CORNERING.value == 0.5
    assert "EN 12195-1" in BRAKING.provenance.source


@pytest.mark.parametrize(("accel", "wall"), [(0.3, 0.06), (0.5, 0.18), (0.8, 0.2475)])
def test_box_walls_worked_from_the_formula(accel: float, wall: float) -> None:
    found = box_wall_m(vessel_height_m=0.12, centre_m=0.36, wall_gap_m=0.09, accel_ratio=accel)
    assert found == pytest.approx(wall)


def test_a_low_vessel_still_needs_a_third_of_its_height() -> None:
    assert box_wall_m(vessel_height_m=0.3, centre_m=0.1, wall_gap_m=0.1, accel_ratio=0.8) == pytest.approx(0.1)


@pytest.mark.parametrize(("accel", "climb_cm"), [(0.3, 3.3), (0.5, 5.5), (0.8, 8.8)])
def test_water_climbs_with_the_acceleration(accel: float, climb_cm: float) -> None:
    """A level surface in an accelerated frame tilts by a/g: hydrostatics."""
    assert 100 * slop_m(accel, 0.11) == pytest.approx(climb_cm)
