"""Facts of the trade that the calculations must agree with; common practice, no source, unless said."""

import math

import pytest

from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.netting import passes
from jolly_trellis.core.materials.stems import cut_mass_kg
from jolly_trellis.core.mechanics import corner_pillow, rolls
from jolly_trellis.core.mechanics.folded_cushion import sheet_size_m
from jolly_trellis.core.mechanics.pin_frog import putty_ring_m
from jolly_trellis.core.mechanics.tape import putty_ring_kg
from tests.ordinary import nettings, varieties


def test_twice_the_mouth_makes_two_layers() -> None:
    """A 20 cm mouth takes about 40 cm of netting; gap and tucks add the rest."""
    _, long = sheet_size_m(
        mouth_width_m=0.2, mouth_depth_m=0.2, layers=2, layer_gap_m=0.04, squeeze=0.06, tuck_m=0.0134
    )
    assert 0.40 < long < 0.52


def test_a_30_cm_sheet_makes_a_pillow_for_a_20_cm_mouth() -> None:
    assert corner_pillow.side_m(0.20, 0.05) == pytest.approx(0.297, abs=0.0005)


def test_eleven_to_twelve_cells_along_twelve_inches_of_one_inch_netting() -> None:
    one_inch = nets.Netting(
        key="n", name="n", aperture_m=0.0254, wire_m=0.0009, finish="bare", roll_width_m=0.6, roll_length_m=10
    )
    assert 0.3048 / nets.pitch_across_m(one_inch) == pytest.approx(11.2, abs=0.05)
    assert 11 <= 0.3048 / nets.pitch_across_m(one_inch) <= 12


def test_a_strip_of_55_cm_makes_one_and_a_half_turns_at_11_cm() -> None:
    assert 0.55 / (math.pi * 0.11) == pytest.approx(1.59, abs=0.005)
    assert rolls.roll_sheet_width_m(0.11, 1.5) == pytest.approx(0.518, abs=0.001)


@pytest.mark.parametrize("key", ["quince-branch", "beech-branch", "blossom-branch"])
def test_wide_cells_pass_branches_and_13_mm_cells_do_not_pass_thick_ones(key: str) -> None:
    branch = varieties()[key].stem_diameter_m
    assert passes(nettings()["coated-50-10"].aperture_m, branch)
    assert not passes(nettings()["coated-13-07"].aperture_m, branch * 1.4)


def test_hydrangea_drinks_several_times_what_a_rose_does() -> None:
    assert varieties()["hydrangea"].uptake_ml_h >= 4 * varieties()["rose"].uptake_ml_h


def test_a_stiff_spike_keeps_ten_to_twelve_hours_without_water() -> None:
    assert 10 <= varieties()["delphinium"].dry_hold_h <= 12


def test_a_45_g_rose_weighs_about_31_g_when_cut_to_28_cm() -> None:
    assert 1000 * cut_mass_kg(varieties()["rose"], 0.28) == pytest.approx(31, abs=1)


def test_a_frog_of_ten_centimetres_takes_a_ring_of_putty_a_good_thirty_long() -> None:
    ring = putty_ring_m(0.10)
    assert ring == pytest.approx(0.314, abs=0.001)
    assert 0.015 < putty_ring_kg(ring) < 0.035
