"""Facts of the trade that the calculations must agree with; common practice, no source, unless said."""

import pytest

from jolly_trellis.core.mechanics.folded_cushion import sheet_size_m
from jolly_trellis.core.netting import passes
from tests.ordinary import nettings, varieties


def test_twice_the_mouth_makes_two_layers() -> None:
    """A 20 cm mouth takes about 40 cm of netting; gap and tucks add the rest."""
    _, long = sheet_size_m(
        mouth_width_m=0.2, mouth_depth_m=0.2, layers=2, layer_gap_m=0.04, squeeze=0.06, tuck_m=0.0134
    )
    assert 0.40 < long < 0.52


@pytest.mark.parametrize("key", ["quince-branch", "beech-branch", "blossom-branch"])
def test_wide_cells_pass_branches_and_13_mm_cells_do_not_pass_thick_ones(key: str) -> None:
    branch = varieties()[key].stem_diameter_m
    assert passes(nettings()["coated-50-10"].aperture_m, branch)
    assert not passes(nettings()["coated-13-07"].aperture_m, branch * 1.4)


def test_hydrangea_drinks_several_times_what_a_rose_does() -> None:
    assert varieties()["hydrangea"].uptake_ml_h >= 4 * varieties()["rose"].uptake_ml_h


def test_a_stiff_spike_keeps_ten_to_twelve_hours_without_water() -> None:
    assert 10 <= varieties()["liatris"].dry_hold_h <= 12
