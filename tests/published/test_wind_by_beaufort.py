"""Beaufort scale: upper limits of its forces in m/s, as meteorological services publish them; q = ½·ρ·v²."""

import pytest

from jolly_trellis.core.checks.stand_wind import BEAUFORT_TOP, GUST, design_speed_m_s, wind_force_n, wind_pressure_pa
from jolly_trellis.core.errors import InvalidMeasure

UPPER_LIMITS = {2: 3.3, 3: 5.4, 4: 7.9, 5: 10.7, 6: 13.8, 7: 17.1}


@pytest.mark.parametrize(("force", "speed"), UPPER_LIMITS.items())
def test_the_tops_of_the_forces(force: int, speed: float) -> None:
    assert BEAUFORT_TOP[force].value == speed
    assert design_speed_m_s(force) == pytest.approx(speed * GUST.value)


@pytest.mark.parametrize(("force", "speed"), UPPER_LIMITS.items())
def test_the_scale_follows_its_defining_power_law(force: int, speed: float) -> None:
    """v = 0.836·B^1.5 m/s at the middle of a force; the top lies half a force higher (published definition)."""
    assert 0.836 * (force + 0.5) ** 1.5 == pytest.approx(speed, rel=0.03)


def test_pressure_and_force_of_a_fresh_breeze_worked_by_hand() -> None:
    assert wind_pressure_pa(7.9) == pytest.approx(38.26, abs=0.005)
    assert wind_force_n(7.9, 0.6 * 0.9) == pytest.approx(17.35, abs=0.005)


@pytest.mark.parametrize("force", [0, 1, 8, 12])
def test_other_forces_cannot_be_planned_for(force: int) -> None:
    with pytest.raises(InvalidMeasure):
        design_speed_m_s(force)
