"""NIOSH publication 94-110, Applications Manual for the Revised NIOSH Lifting Equation: its multipliers and limits."""

import pytest

from jolly_trellis.core.checks.lift import LOAD_CONSTANT, recommended_mass_kg
from jolly_trellis.core.errors import InvalidMeasure


def test_the_load_constant_is_23_kg_under_ideal_conditions() -> None:
    ideal = recommended_mass_kg(reach_m=0.25, height_m=0.75, travel_m=0.25, coupling=1.0)
    assert ideal == pytest.approx(23.0 * (0.82 + 0.045 / 0.25))
    assert LOAD_CONSTANT.value == 23.0


@pytest.mark.parametrize(
    ("reach", "height", "travel", "twist", "limit"),
    [(0.40, 0.75, 0.50, 0.0, 13.08), (0.45, 0.30, 0.90, 30.0, 8.69)],
)
def test_worked_lifts(reach: float, height: float, travel: float, twist: float, limit: float) -> None:
    found = recommended_mass_kg(reach_m=reach, height_m=height, travel_m=travel, twist_deg=twist, coupling=1.0)
    assert found == pytest.approx(limit, abs=0.005)


@pytest.mark.parametrize(
    ("reach_cm", "multiplier"),
    [(25, 1.00), (28, 0.89), (30, 0.83), (40, 0.63), (50, 0.50), (60, 0.42), (63, 0.40)],
)
def test_horizontal_multipliers_of_table_1(reach_cm: int, multiplier: float) -> None:
    def limit(cm: float) -> float:
        return recommended_mass_kg(reach_m=cm / 100, height_m=0.75, travel_m=0.2, coupling=1.0)

    assert limit(reach_cm) / limit(25) == pytest.approx(multiplier, abs=0.006)


@pytest.mark.parametrize(
    ("height_cm", "multiplier"), [(0, 0.78), (30, 0.87), (50, 0.93), (75, 1.00), (100, 0.93), (150, 0.78), (175, 0.70)]
)
def test_vertical_multipliers_of_table_2(height_cm: int, multiplier: float) -> None:
    def limit(cm: float) -> float:
        return recommended_mass_kg(reach_m=0.25, height_m=cm / 100, travel_m=0.2, coupling=1.0)

    assert limit(height_cm) / limit(75) == pytest.approx(multiplier, abs=0.006)


@pytest.mark.parametrize(("travel_cm", "multiplier"), [(25, 1.00), (40, 0.93), (55, 0.90), (100, 0.87), (175, 0.85)])
def test_distance_multipliers_of_table_3(travel_cm: int, multiplier: float) -> None:
    def limit(cm: float) -> float:
        return recommended_mass_kg(reach_m=0.25, height_m=0.75, travel_m=cm / 100, coupling=1.0)

    assert limit(travel_cm) / limit(20) == pytest.approx(multiplier, abs=0.006)


@pytest.mark.parametrize(("twist", "multiplier"), [(0, 1.00), (30, 0.90), (45, 0.86), (90, 0.71), (135, 0.57)])
def test_asymmetric_multipliers_of_table_4(twist: int, multiplier: float) -> None:
    def limit(degrees: float) -> float:
        return recommended_mass_kg(reach_m=0.3, height_m=0.75, travel_m=0.3, twist_deg=degrees, coupling=1.0)

    assert limit(twist) / limit(0) == pytest.approx(multiplier, abs=0.006)


@pytest.mark.parametrize(("reach", "height"), [(0.64, 0.75), (0.3, 1.80), (0.3, -0.1)])
def test_lifts_the_equation_does_not_cover_are_refused(reach: float, height: float) -> None:
    with pytest.raises(InvalidMeasure):
        recommended_mass_kg(reach_m=reach, height_m=height, travel_m=0.3, coupling=1.0)
