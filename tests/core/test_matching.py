"""A plan against its picture: one scale from two marks, heads by variety, colours as far apart as published."""

from dataclasses import replace

import pytest

from jolly_trellis.core.checks.matching import apart, match
from jolly_trellis.core.plan.recipe import Shade
from jolly_trellis.core.plan.wish import HeadMark, Wish
from jolly_trellis.core.say.words import COLOURS
from jolly_trellis.core.units import render
from tests.ordinary import piece, recipe, varieties

ROSE = varieties()["rose"].colour
WISH = Wish(picture="k", width_px=800, height_px=1000, foot_y=0.9, top_y=0.2, apart_m=0.35)
PLAN = replace(
    piece(),
    envelope=replace(piece().envelope, height_m=0.35, width_m=0.40, depth_m=0.40),
    recipe=recipe(rose=(3, "focal"), ruscus=(5, "base")),
)


def head(x: float, y: float = 0.5, colour: str = ROSE, variety: str = "") -> HeadMark:
    return HeadMark(x=x, y=y, colour=colour, variety=variety)


def said(wish: Wish) -> list[str]:
    return [render(each, "metric") for each in match(PLAN, wish, varieties(), COLOURS).say]


def test_two_marks_give_its_size() -> None:
    """700 points are 35 cm: half a millimetre each; heads from 0.1 to 0.9 of 800 points spread 32 cm."""
    found = match(PLAN, replace(WISH, heads=(head(0.1), head(0.9))), varieties(), COLOURS)
    assert found.metres_to_px == pytest.approx(0.0005)
    assert found.height_m == pytest.approx(0.35)
    assert found.spread_m == pytest.approx(0.32)
    assert match(PLAN, WISH, varieties(), COLOURS).spread_m is None
    slanted = replace(WISH, top_x=0.5 + 0.7 * 1000 / 800)
    assert match(PLAN, slanted, varieties(), COLOURS).height_m == pytest.approx(0.35 / 2**0.5)
    nowhere = match(PLAN, replace(WISH, top_y=0.9), varieties(), COLOURS)
    assert (nowhere.metres_to_px, nowhere.height_m, nowhere.spread_m) == (0.0, 0.0, None)
    assert "two places" in render(nowhere.say[0], "metric")


def test_what_differs_is_said_and_what_does_not_is_not() -> None:
    assert said(WISH) == []
    assert said(replace(WISH, apart_m=0.5)) == ["It stands 50 cm high in the picture, 35 cm in the plan."]
    assert said(replace(WISH, apart_m=0.38)) == []
    wide = replace(WISH, heads=(head(0.0), head(1.0)))
    assert said(wide) == []
    less = replace(WISH, heads=(head(0.125), head(0.875)))
    assert said(less) == ["Its marked heads spread 30 cm from middle to middle, the plan is 40 cm wide."]
    narrow = replace(WISH, heads=(head(0.4), head(0.6)))
    assert said(narrow) == ["Its marked heads spread 8 cm from middle to middle, the plan is 40 cm wide."]


def test_heads_are_held_against_the_stems_of_the_plan() -> None:
    roses = tuple(head(at / 3, variety="rose") for at in range(4))
    assert said(replace(WISH, heads=roses)) == ["rose: 4 heads are marked on one side, the plan has 3 all round."]
    tulip = (head(0.0, variety="tulip"), head(1.0))
    assert said(replace(WISH, heads=tulip)) == [
        "tulip: 1 head is marked on one side, the plan has 0 all round.",
        "rose: 3 in the plan, none marked.",
    ]


def test_a_colour_that_nothing_in_the_plan_comes_near_is_named() -> None:
    blue = (head(0.0, colour="#5a77b8"), head(1.0, colour="#5570b0"))
    assert said(replace(WISH, heads=blue)) == ["2 marked heads are blue, and nothing in the plan comes near it."]
    shaded = replace(PLAN, recipe=(replace(PLAN.recipe[0], shades=(Shade(name="b", colour="#5a77b8", count=1),)),))
    assert match(shaded, replace(WISH, heads=blue), varieties(), COLOURS).say == ()


@pytest.mark.parametrize(
    ("one", "other", "difference"),
    [
        ("#ffffff", "#000000", 100.0),
        ("#ff0000", "#00ff00", 170.57),
        ("#0000ff", "#000000", 137.65),
        ("#010101", "#000000", 0.27),
    ],
)
def test_colours_differ_as_published(one: str, other: str, difference: float) -> None:
    """CIELAB of sRGB white, red, green and blue under D65 (IEC 61966-2-1, ISO/CIE 11664-4; widely tabulated)."""
    assert apart(one, other) == pytest.approx(difference, abs=0.05)
    assert apart(one, one) == 0
