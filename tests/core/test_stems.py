"""Cut stems: mass, centre of mass, droop, clumps."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.materials import stems
from tests.ordinary import varieties


def test_a_45_g_rose_sold_at_60_cm_weighs_about_31_g_at_28_cm() -> None:
    """Common practice, no source; the catalogue's rose."""
    rose = varieties()["rose"]
    assert stems.cut_mass_kg(rose, 0.60) == pytest.approx(0.045)
    assert stems.cut_mass_kg(rose, 0.28) == pytest.approx(0.031, abs=0.0005)


def test_a_bare_stick_balances_at_half_and_a_branch_lower() -> None:
    stick = replace(varieties()["rose"], head_fraction=0.0)
    assert stems.centre_from_foot_m(stick, 0.4) == pytest.approx(0.2)
    assert stems.centre_from_foot_m(replace(stick, branch=True), 0.4) == pytest.approx(0.18)


@given(st.sampled_from(sorted(varieties())), st.floats(min_value=0.05, max_value=1.2))
def test_the_centre_lies_within_the_stem_and_mass_grows_with_length(key: str, length_m: float) -> None:
    variety = varieties()[key]
    assert 0.4 * length_m < stems.centre_from_foot_m(variety, length_m) <= length_m
    assert stems.cut_mass_kg(variety, length_m) > stems.head_mass_kg(variety)


def test_droop_is_the_end_loaded_cantilever() -> None:
    """Source: m·g·L³/(3·EI) for a level cantilever, any mechanics text."""
    tulip = replace(varieties()["tulip"], mass_kg=0.020, head_fraction=1.0)
    level = stems.droop_m(tulip, 0.2, math.pi / 2)
    assert level == pytest.approx(0.020 * 9.80665 * 0.2**3 / (3 * 0.02))
    assert stems.droop_m(tulip, 0.2, 0.0) == 0.0


def test_a_clump_counts_as_one_thicker_stem() -> None:
    assert stems.clump_diameter_m(0.005, 1) == 0.005
    assert stems.clump_diameter_m(0.003, 5) == pytest.approx(0.003 * math.sqrt(5) / math.sqrt(0.8))


def test_heavy_stems_use_their_own_figure_where_there_is_one_and_foliage_is_wet() -> None:
    assert stems.heavy_factor(varieties()["rose"]) == 1.3
    assert stems.heavy_factor(varieties()["peony"]) == pytest.approx(110 / 75)
    assert stems.heavy_factor(varieties()["ruscus"]) == pytest.approx(1.3 * 1.1)
