"""Hexagonal netting: cells, mass, whole cells."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.netting import Netting


def galvanized(aperture_mm: float, wire_mm: float) -> Netting:
    return Netting(
        key="n",
        name="n",
        aperture_m=aperture_mm / 1000,
        wire_m=wire_mm / 1000,
        finish="galvanized",
        roll_width_m=0.5,
        roll_length_m=10,
    )


@pytest.mark.parametrize(("aperture", "wire", "mass"), [(25, 0.9, 0.5593), (50, 1.0, 0.3453)])
def test_mass_per_area(aperture: float, wire: float, mass: float) -> None:
    """Source: worked from the geometry of the net."""
    assert nets.mass_per_area_kg_m2(galvanized(aperture, wire)) == pytest.approx(mass, abs=5e-5)


def test_a_25_mm_cell_has_5_4_square_centimetres() -> None:
    assert nets.cell_area_m2(0.025) == pytest.approx(5.413e-4, abs=5e-8)


def test_cells_counted_along_a_foot_of_inch_netting() -> None:
    """Common practice, no source: 11 to 12 along a 12 in edge."""
    assert 0.305 / nets.pitch_across_m(galvanized(25.4, 0.9)) == pytest.approx(11.2, abs=0.05)


def test_pitch_differs_across_and_along() -> None:
    assert nets.pitch_across_m(galvanized(25, 0.9)) == pytest.approx(0.0268, abs=5e-5)
    assert nets.pitch_along_m(galvanized(25, 0.9)) == pytest.approx(0.0232, abs=5e-5)


def test_a_sheet_is_given_in_length_and_in_whole_cells_rounded_up() -> None:
    cut = nets.sheet(galvanized(25, 0.9), width_m=0.235, length_m=0.485)
    assert (cut.cells_across, cut.rows_along) == (9, 21)
    assert cut.mass_kg == pytest.approx(0.235 * 0.485 * 0.5593, rel=1e-4)


def test_counted_cells_override_the_label() -> None:
    counted = replace(galvanized(25, 0.9), counted_cells=11, counted_length_m=0.305)
    assert nets.pitch_across_m(counted) == pytest.approx(0.305 / 11)
    assert nets.aperture_m(counted) == pytest.approx(0.305 / 11 - 0.0018)


@pytest.mark.parametrize(("cells", "length"), [(11, None), (None, 0.3), (0, 0.3), (11, -0.3), (400, 0.3)])
def test_a_count_that_makes_no_net_is_refused(cells: int | None, length: float | None) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        nets.pitch_across_m(replace(galvanized(25, 0.9), counted_cells=cells, counted_length_m=length))
    assert caught.value.path == "counted_cells"


def test_coating_weighs_a_tenth_more_and_another_in_the_heavy_case() -> None:
    bare, coated = galvanized(25, 0.9), replace(galvanized(25, 0.9), finish="coated")
    assert nets.mass_per_area_kg_m2(coated) / nets.mass_per_area_kg_m2(bare) == pytest.approx(1.1)
    assert nets.mass_per_area_kg_m2(coated, heavy=True) / nets.mass_per_area_kg_m2(bare) == pytest.approx(1.21)


@pytest.mark.parametrize(("stem_mm", "stems"), [(5, 7), (7, 3), (3, 20), (40, 1)])
def test_how_many_stems_a_25_mm_cell_takes(stem_mm: float, stems: int) -> None:
    assert nets.cell_capacity(0.025, stem_mm / 1000) == stems


def test_a_stem_passes_a_cell_a_tenth_wider_than_itself() -> None:
    assert nets.passes(0.0111, 0.01)
    assert not nets.passes(0.0109, 0.01)


@given(st.floats(min_value=0.001, max_value=3), st.floats(min_value=0.01, max_value=0.06))
def test_whole_cells_always_cover_the_length(length_m: float, pitch_m: float) -> None:
    cells = nets.whole_cells(length_m, pitch_m)
    assert cells * pitch_m >= length_m - pitch_m * 1e-5
    assert (cells - 1) * pitch_m < length_m
