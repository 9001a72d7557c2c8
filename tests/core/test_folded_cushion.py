"""The folded cushion: sheet, folds, seat."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics import fit, folded_cushion, tape
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.plan.piece import Mechanic
from tests.ordinary import nettings, vessels

BOWL = vessels()["low-bowl-20"]
NETTING = nettings()["coated-25-09"]


def fitted(choice: Mechanic, *, vessel: Vessel = BOWL, tape_strips: int = 0) -> Fit:
    return Fit(choice=choice, vessel=vessel, netting=NETTING, frog=None, tape_strips=tape_strips)


def test_two_layers_for_a_20_cm_mouth() -> None:
    """Worked from the formula: 0.235 × 0.485 m."""
    size = folded_cushion.sheet_size_m(
        mouth_width_m=0.2, mouth_depth_m=0.2, layers=2, layer_gap_m=0.04, squeeze=0.05, tuck_m=0.0125
    )
    assert size == pytest.approx((0.235, 0.485))


@pytest.mark.parametrize("layers", [1, 2, 3, 4])
def test_without_gap_and_tuck_the_sheet_is_as_many_mouths_long_as_it_has_layers(layers: int) -> None:
    """The rule "twice the mouth" for two layers: common practice, no source."""
    width, long = folded_cushion.sheet_size_m(
        mouth_width_m=0.2, mouth_depth_m=0.2, layers=layers, layer_gap_m=0, squeeze=0.05, tuck_m=0
    )
    assert long / width == pytest.approx(layers)


def test_a_trough_is_folded_along_its_longer_side() -> None:
    width, long = folded_cushion.sheet_size_m(
        mouth_width_m=0.4, mouth_depth_m=0.11, layers=2, layer_gap_m=0.04, squeeze=0.05, tuck_m=0.01
    )
    assert width == pytest.approx(0.11 * 1.05 + 0.02)
    assert long == pytest.approx(2 * 0.4 * 1.05 + 0.04 + 0.02)


@given(st.integers(1, 4), st.floats(0.06, 0.5), st.floats(0.01, 0.08))
def test_fold_lines_end_where_the_sheet_ends(layers: int, mouth: float, gap: float) -> None:
    gap = gap if layers > 1 else 0.0
    measures = {"layers": layers, "layer_gap_m": gap, "squeeze": 0.06, "tuck_m": 0.0134}
    folds = folded_cushion.fold_lines(mouth_m=mouth, **measures)  # type: ignore[arg-type]
    _, long = folded_cushion.sheet_size_m(mouth_width_m=mouth, mouth_depth_m=mouth, **measures)  # type: ignore[arg-type]
    assert folds[-1].at_m == pytest.approx(long - 0.0134)
    assert len(folds) == 2 * layers
    assert [fold.at_m for fold in folds] == sorted(fold.at_m for fold in folds)


def test_the_gap_leaves_room_under_the_lowest_layer() -> None:
    assert fit.default_layer_gap_m(0.095, 2) == 0.04
    assert fit.default_layer_gap_m(0.05, 2) == pytest.approx(0.03)
    assert fit.default_layer_gap_m(0.095, 4) == pytest.approx(0.025)
    assert fit.default_layer_gap_m(0.095, 1) == 0.0


def test_squeeze_holds_by_friction() -> None:
    """μ·F·D/2 with 4 N per metre and per cent: 0.3 · (4 · 6 · π · 0.2) · 0.1 N·m."""
    held = fit.seat_moment_n_m(mouth_girth_m=math.pi * 0.2, mouth_size_m=0.2, squeeze=0.06, wire_m=0.0009, rough=False)
    assert held == pytest.approx(0.3 * 24 * math.pi * 0.2 * 0.1)


@pytest.mark.parametrize(("wire", "share"), [(0.0007, 0.5), (0.0008, 1.0), (0.0009, 1.0), (0.0010, 1.5)])
def test_thin_wire_springs_less(wire: float, share: float) -> None:
    def held(wire_m: float) -> float:
        return fit.seat_moment_n_m(mouth_girth_m=0.6, mouth_size_m=0.2, squeeze=0.05, wire_m=wire_m, rough=False)

    assert held(wire) / held(0.0009) == pytest.approx(share)


def test_tape_of_6_mm_holds_6_n_at_each_end() -> None:
    assert tape.tape_moment_n_m(strips=2, tape_width_m=0.006, mouth_size_m=0.2) == pytest.approx(2.4)


def test_a_sized_cushion_names_its_parts_and_levels() -> None:
    made = folded_cushion.size(fitted(Mechanic(netting=NETTING.key, layers=3), tape_strips=2))
    assert [round(level.height_m, 4) for level in made.levels] == [0.095, 0.0575, 0.02]
    assert [part.name for part in made.parts] == ["sheet, 25 mm, coated, 0.9 mm wire", "tape strip"]
    assert made.tape_strip_length_m == pytest.approx(0.2 + 2 * (0.006 + 0.025))
    assert 0 < made.tape_share_of_mouth < 0.1
    assert made.sheet is not None
    netting = 19.0 * made.sheet.width_m * made.sheet.length_m / 5.0
    assert made.price == pytest.approx(netting + 2 * 0.262 * 0.12)


def test_layers_that_do_not_fit_are_refused_with_the_gap_that_does() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        folded_cushion.size(fitted(Mechanic(netting="n", layers=3, layer_gap_m=0.06)))
    assert caught.value.path == "mechanic.layer_gap_m"
    assert caught.value.limit.quantities["room"].value == pytest.approx(0.045)


def test_a_mouth_narrower_than_one_cell_is_refused() -> None:
    narrow = replace(BOWL, profile=tuple(replace(each, width_m=0.02, depth_m=0.02) for each in BOWL.profile))
    with pytest.raises(InvalidMeasure) as caught:
        folded_cushion.size(fitted(Mechanic(netting="n"), vessel=narrow))
    assert caught.value.path == "mechanic.netting"
