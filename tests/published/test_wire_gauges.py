"""Wire gauges: American (ASTM B258) and imperial standard (BS 3737); a gauge without its standard is ambiguous."""

import pytest

from jolly_trellis.core.units import american_gauge_m, parse_length


@pytest.mark.parametrize(
    ("gauge", "millimetres"), [(10, 2.5882), (16, 1.2908), (18, 1.0237), (20, 0.8118), (22, 0.6438), (24, 0.5106)]
)
def test_american_gauge(gauge: int, millimetres: float) -> None:
    assert 1000 * american_gauge_m(gauge) == pytest.approx(millimetres, abs=0.0001)
    assert parse_length(f"{gauge} awg") == pytest.approx(millimetres / 1000, abs=1e-7)


@pytest.mark.parametrize(("gauge", "millimetres"), [(16, 1.626), (18, 1.219), (20, 0.914), (22, 0.711), (24, 0.559)])
def test_imperial_standard_gauge(gauge: int, millimetres: float) -> None:
    assert parse_length(f"{gauge} swg") == pytest.approx(millimetres / 1000)


@pytest.mark.parametrize("text", ["18 gauge", "18 ga", "17.5 swg", "18g"])
def test_a_gauge_without_its_standard_is_not_read(text: str) -> None:
    assert parse_length(text) is None
