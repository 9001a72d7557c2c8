"""Vessel outlines from drawings and tape-measure tables; hostile files; the measured fill."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.vessels import volume_below_l
from jolly_trellis.exchange.vessel_outline import check_fill, read_svg, read_table
from tests.ordinary import round_vessel

SVG = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">{}</svg>'


def drawn(path: str, *, depth: float = 0.1, half: bool = True) -> list[tuple[float, float]]:
    points = read_svg(SVG.format(f'<path d="{path}"/>'), inside_depth_m=depth, half=half)
    return [(each.height_m, each.width_m) for each in points]


def test_a_straight_cylinder_drawn_as_half() -> None:
    points = drawn("M 50 100 L 70 100 L 70 0", depth=0.2)
    assert points[0][0] == 0.0
    assert points[-1][0] == pytest.approx(0.2)
    assert [size for _, size in points] == pytest.approx([0.08] * 9, abs=0.001)


def test_a_flared_bowl_drawn_on_both_sides_is_scaled_to_its_depth() -> None:
    points = drawn("M 10 0 L 30 50 L 70 50 L 90 0", depth=0.1, half=False)
    assert points[0][1] == pytest.approx(0.08, rel=0.06)
    assert points[-1][1] == pytest.approx(0.16, rel=0.06)


def test_a_curve_is_followed() -> None:
    points = drawn("M 0 100 C 60 100 60 0 40 0", depth=0.1)
    widths = [size for _, size in points]
    assert max(widths) > widths[-1]


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("not a drawing", "no SVG"),
        (SVG.format("<circle r='3'/>"), "no path"),
        (SVG.format("<script>alert(1)</script><path d='M0 0L1 1'/>"), "script"),
        (SVG.format("<path onload='x()' d='M0 0L1 1'/>"), "outside itself"),
        (SVG.format("<a href='http://elsewhere.example/x'><path d='M0 0L1 1'/></a>"), "outside itself"),
        (SVG.format("<image href='file:///etc/passwd'/><path d='M0 0L1 1'/>"), "image"),
        (SVG.format("<foreignObject/><path d='M0 0L1 1'/>"), "foreignobject"),
        (SVG.format("<path d='M0 0 L10 0'/>"), "flat"),
        (SVG.format("<path d='nonsense'/>"), "cannot be read|flat|no path"),
        ("<svg>" + "x" * 500_000 + "</svg>", "larger than"),
    ],
)
def test_files_that_are_no_outline_or_would_do_harm_are_refused_in_words(text: str, words: str) -> None:
    with pytest.raises(InvalidMeasure, match=words):
        read_svg(text, inside_depth_m=0.1, half=True)


BILLION_LAUGHS = """<?xml version="1.0"?><!DOCTYPE lolz [<!ENTITY lol "lol">
<!ENTITY lol2 "&lol;&lol;&lol;&lol;&lol;&lol;&lol;&lol;&lol;&lol;">
<!ENTITY lol3 "&lol2;&lol2;&lol2;&lol2;&lol2;&lol2;&lol2;&lol2;&lol2;&lol2;">]>
<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L1 1"/><text>&lol3;</text></svg>"""
OUTSIDE = """<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>
<svg xmlns="http://www.w3.org/2000/svg"><text>&x;</text></svg>"""


@pytest.mark.parametrize("text", [BILLION_LAUGHS, OUTSIDE])
def test_entities_are_not_opened(text: str) -> None:
    with pytest.raises(InvalidMeasure, match="entities"):
        read_svg(text, inside_depth_m=0.1, half=True)


@pytest.mark.parametrize(
    ("text", "second"),
    [
        ("0 12\n9.5 20", (0.095, 0.20)),
        ("0, 12\n9.5, 20", (0.095, 0.20)),
        ("# floor first\n0;12\n\n9.5;20", (0.095, 0.20)),
        ("0 in  4 3/4 in\n3 1/2 in  8 1/4 in", (0.0889, 0.20955)),
        ("\ufeff0\t120 mm\n95 mm\t200 mm", (0.095, 0.20)),
    ],
)
def test_tables_as_people_write_them(text: str, second: tuple[float, float]) -> None:
    points = read_table(text, system="metric")
    assert (points[1].height_m, points[1].width_m) == pytest.approx(second)
    assert points[0].height_m == 0.0


@pytest.mark.parametrize(
    "text", ["", "0 12", "wide and tall\n0 12", "0 12 14\n9 20", "\n".join("1 2" for _ in range(80))]
)
def test_a_table_that_is_none_says_which_line(text: str) -> None:
    with pytest.raises(InvalidMeasure):
        read_table(text, system="metric")


def test_a_fill_that_agrees_is_said_to() -> None:
    vessel = round_vessel((0, 0.060), (0.09, 0.110))
    check = check_fill(vessel, 2.1)
    assert check.agrees
    assert check.mended.profile[1].width_m == pytest.approx(0.22, rel=0.01)


@given(st.floats(0.5, 8.0))
def test_the_mended_vessel_holds_what_was_poured(poured: float) -> None:
    vessel = round_vessel((0, 0.060), (0.05, 0.09), (0.09, 0.110))
    check = check_fill(vessel, poured)
    assert volume_below_l(check.mended, check.mended.inside_depth_m) == pytest.approx(poured, rel=2e-3)
    holds = math.isclose(check.holds_l, poured, rel_tol=0.05)
    assert check.agrees == (abs(poured / check.holds_l - 1) <= 0.05) or holds
