"""What lines may carry: worked cases, tables, factors, and what is refused."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.rigging.lines import (
    LineSpec,
    breaking_n,
    design_factor,
    efficiency,
    pounds_test_n,
    stiffness_n,
    working_limit_n,
)

TWENTY = LineSpec(kind="monofilament", stated_n=pounds_test_n(20))


def test_twenty_pound_monofilament_over_people_carries_five_newtons() -> None:
    """Worked from the formula: 20 lbf, knot 0.6: 5.34 N over people, 10.68 N where nobody can be."""
    assert working_limit_n(TWENTY, over_people=True) == pytest.approx(5.34, abs=0.005)
    assert working_limit_n(TWENTY, over_people=False) == pytest.approx(10.68, abs=0.005)
    assert working_limit_n(TWENTY, over_people=True, one_gone=True) == pytest.approx(10.68, abs=0.005)


@pytest.mark.parametrize(("size_mm", "pounds"), [(2.5, 18), (3.6, 40), (4.8, 50), (7.6, 120)])
def test_cable_ties_by_trade_size(size_mm: float, pounds: float) -> None:
    """Trade sizes: common practice; values from memory."""
    tie = LineSpec(kind="cable tie", size_m=size_mm / 1000)
    assert breaking_n(tie) == pytest.approx(pounds_test_n(pounds), rel=0.01)
    assert breaking_n(LineSpec(kind="cable tie", size_m=0.0048, stated_n=300.0)) == 300.0


@pytest.mark.parametrize(
    ("spec", "kept"),
    [
        (TWENTY, 0.6),
        (LineSpec(kind="monofilament", stated_n=90, wet=True), 0.6 * 0.85),
        (LineSpec(kind="braid", stated_n=90), 0.5),
        (LineSpec(kind="polyester cord", size_m=0.003), 0.5),
        (LineSpec(kind="steel rope", size_m=0.0015, fitting="ferrule"), 0.9),
        (LineSpec(kind="steel rope", size_m=0.0015, fitting="grip", over_edge=True), 0.8 * 0.7),
        (LineSpec(kind="cable tie", size_m=0.0048), 1.0),
    ],
)
def test_what_ends_wet_and_edges_leave(spec: LineSpec, kept: float) -> None:
    """From memory and common practice, as each constant says."""
    assert efficiency(spec) == pytest.approx(kept)


def test_stainless_is_weaker_than_galvanized() -> None:
    plain, stainless = (LineSpec(kind="steel rope", size_m=0.002, stainless=each) for each in (False, True))
    assert breaking_n(stainless) == pytest.approx(0.88 * breaking_n(plain))


@given(st.booleans(), st.booleans())
def test_people_and_whole_lines_ask_for_more(people: bool, gone: bool) -> None:
    assert design_factor(over_people=people, one_gone=gone) == (10 if people else 5) * (0.5 if gone else 1)


def test_a_line_of_unknown_strength_is_asked_for() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        breaking_n(LineSpec(kind="monofilament"))
    assert caught.value.path == "spec.stated_n"
    with pytest.raises(InvalidMeasure) as caught:
        breaking_n(LineSpec(kind="steel rope", size_m=0.0012))
    assert caught.value.path == "spec.size_m"


def test_stiffer_kinds_are_stiffer() -> None:
    steel = LineSpec(kind="steel rope", size_m=0.0015)
    assert stiffness_n(steel) == 70_000
    assert stiffness_n(TWENTY) == pytest.approx(4.5 * breaking_n(TWENTY))
