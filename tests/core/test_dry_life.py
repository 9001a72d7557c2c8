"""How long stems last without a vessel: by hand, and what must be so of any air."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.books.waiting import Stage, first_dry
from jolly_trellis.core.materials.air import Air, draw_factor
from jolly_trellis.core.placement.water_table import water_table
from jolly_trellis.core.stems.dry_life import DRY_AT, Reserve, dry_rate, lasts_h, reaches_back_h
from tests.ordinary import round_vessel, varieties


def air(temperature_c: float, humidity: float) -> Air:
    return Air(temperature_c=temperature_c, relative_humidity=humidity)


DRY = Reserve(water_ml=0.0, draw_ml_h=1.0, dry_h=11.0)


@pytest.mark.parametrize(
    ("temperature", "humidity", "hours"),
    [(22.0, 0.50, 11.0), (24.0, 0.42, 8.4), (16.0, 0.60, 20.0), (30.0, 0.40, 5.7)],
)
def test_a_delphinium_hung_dry(temperature: float, humidity: float, hours: float) -> None:
    """11 h at 22 °C and 50 % (common practice), in proportion to how dry the air is."""
    assert varieties()["delphinium"].dry_hold_h == 11.0
    assert lasts_h(DRY, [(0.0, air(temperature, humidity))]) == pytest.approx(hours, abs=0.05)


def test_dry_hours_add_up_over_places() -> None:
    """Gypsophila two days before: 48 h at 16 °C, 60 % use 26.4 h, 12 h at 24 °C, 42 % use 15.7 more of its 48."""
    before, there = air(16, 0.6), air(24, 0.42)
    assert 48 * dry_rate(before) == pytest.approx(26.4, abs=0.05)
    assert 12 * dry_rate(there) == pytest.approx(15.7, abs=0.05)
    gypsophila = Reserve(water_ml=0.0, draw_ml_h=0.4, dry_h=varieties()["gypsophila"].dry_hold_h)
    left = (48 - 48 * dry_rate(before)) / dry_rate(there)
    assert lasts_h(gypsophila, [(48.0, before), (12.0, there)]) == pytest.approx(48 + left)
    assert left > 12


def test_a_tube_is_drunk_first_and_then_the_stem_is_dry() -> None:
    """By hand: 6 ml at 1 ml/h and factor 1 last 6 h; then 4 h dry at the reference."""
    reserve = Reserve(water_ml=6.0, draw_ml_h=1.0, dry_h=4.0)
    wet = air(20, 0.6)
    assert draw_factor(wet) == 1.0
    assert lasts_h(reserve, [(6.0, wet), (0.0, DRY_AT)]) == pytest.approx(10.0)
    assert lasts_h(reserve, [(3.0, wet), (0.0, DRY_AT)]) == pytest.approx(3 + 3 / draw_factor(DRY_AT) + 4)
    assert lasts_h(reserve, [(6.0, wet), (0.0, DRY_AT)], thirst=2.0) == pytest.approx(
        3 + 3 * dry_rate(wet) / 1 + 0, abs=4
    )


def test_the_air_dries_between_a_fifth_and_four_times_as_fast() -> None:
    assert dry_rate(air(5, 0.98)) == 0.2
    assert dry_rate(air(45, 0.1)) == 4.0
    assert dry_rate(DRY_AT) == pytest.approx(1.0)


@given(
    st.floats(0, 20), st.floats(0.1, 4), st.floats(0.5, 48), st.floats(0, 30), st.floats(8, 30), st.floats(0.3, 0.8)
)
def test_what_begins_at_its_soonest_is_used_up_at_the_end(
    water: float, draw: float, dry: float, hours: float, temperature: float, humidity: float
) -> None:
    reserve = Reserve(water_ml=water, draw_ml_h=draw, dry_h=dry)
    there, before = air(temperature, humidity), air(16, 0.6)
    back = reaches_back_h(reserve, [(hours, there), (0.0, before)])
    forward = lasts_h(reserve, [(back - hours, before), (0.0, there)] if back > hours else [(0.0, there)])
    assert forward == pytest.approx(back, rel=1e-6)


def test_a_bowl_at_its_travelling_level_overnight() -> None:
    """By hand: 2.6 cm (0.37 L) in the bowl (0, 6 cm) (9 cm, 11 cm), 30 stems of 0.8 ml/h, 16 °C and 60 %, nothing
    evaporating: ends at 1.0 cm are dry after 13.2 h.
    """
    import numpy as np

    table = water_table(round_vessel((0.0, 0.060), (0.09, 0.110)), placement=None, mechanic=None, ballast_kg=0.0)
    assert table.volume_at_l(0.026) == pytest.approx(0.37, abs=0.005)
    bench = Stage(place="bench", hours=15.0, level_m=0.026, air=air(16, 0.6))
    road = replace(bench, place="road", hours=2.5)
    ends, draws = np.full(30, 0.01), np.full(30, 0.8)
    found = first_dry(table, (bench, road), end_levels_m=ends, draws_ml_h=draws, cover=0.0)
    assert found.after_h == pytest.approx(13.2, abs=0.05)
    assert found.row == 0
    full = replace(bench, level_m=0.07)
    again = first_dry(table, (full, road), end_levels_m=ends, draws_ml_h=draws, cover=0.0)
    assert again.after_h is None
    early = first_dry(table, (full, replace(road, level_m=0.005)), end_levels_m=ends, draws_ml_h=draws, cover=0.0)
    assert early.after_h == pytest.approx(15.0)
    assert math.isfinite(early.after_h or math.inf)
