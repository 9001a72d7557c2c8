"""Shades of a variety: which stem gets which, by hand; what each place says of them; what is refused."""

import math
from dataclasses import replace
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.needs.bunches import buy_stems, shades_in_words
from jolly_trellis.core.event.needs.needed import StemNeed
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.plan.recipe import RecipeLine, Shade, Shading
from jolly_trellis.core.stems.shades import check_shades, colours_at, shade_counts
from jolly_trellis.core.units import render
from tests.events import one_bowl
from tests.ordinary import conditions, piece, varieties

PINKS = tuple(
    Shade(name=name, colour=colour, count=number)
    for name, colour, number in (
        ("blush", "#f0d3cd", 4),
        ("pale pink", "#f1cfd6", 6),
        ("pink", "#e39bb0", 8),
        ("dusty pink", "#c99aa0", 6),
        ("hot pink", "#d63a7e", 6),
    )
)
TULIPS = RecipeLine(variety="tulip", count=30, role="filler", shades=PINKS)
TULIP = varieties()["tulip"]
A, B, OWN = "#aaaaaa", "#bbbbbb", TULIP.colour


def line(*counts: int, of: int, shading: Shading = "mixed") -> RecipeLine:
    shades = tuple(Shade(name=f"s{at}", colour=(A, B)[at], count=n) for at, n in enumerate(counts))
    return RecipeLine(variety="tulip", count=of, role="filler", shades=shades, shading=shading)


def test_shades_lie_as_they_are_asked_to() -> None:
    """Eight stems on a circle, from the right round: a run goes from left to right, clusters lie side by side."""
    x, y = [3.0, 2.0, 0.1, -2.0, -3.0, -2.0, -0.1, 2.0], [0.1, 2.0, 3.0, 2.0, -0.1, -2.0, -3.0, -2.0]
    along = colours_at(line(4, 4, of=8, shading="along"), TULIP, x, y)
    assert along == [B, B, B, A, A, A, A, B]
    clusters = colours_at(line(4, 4, of=8, shading="clusters"), TULIP, x, y)
    assert clusters == [B, B, B, B, A, A, A, A]
    far = colours_at(line(4, 4, of=8, shading="far side"), TULIP, x, y)
    assert far[:4] == far[4:]
    assert sorted(far) == [A] * 4 + [B] * 4
    mixed = colours_at(line(4, 4, of=8), TULIP, x, y)
    round_it = [mixed[at] for at in sorted(range(8), key=lambda each: math.atan2(y[each], x[each]))]
    assert round_it in ([A, B] * 4, [B, A] * 4)


def test_what_has_no_shade_has_the_colour_of_its_variety() -> None:
    x = [float(each) for each in range(10)]
    found = colours_at(line(3, of=10, shading="along"), TULIP, x, x)
    assert found == [A] * 3 + [OWN] * 7
    assert colours_at(line(of=10), TULIP, x, x) == [OWN] * 10
    clumps = colours_at(line(6, 6, of=12, shading="along"), TULIP, [0.0, 1.0, 2.0], [0.0] * 3, [6, 3, 3])
    assert clumps == [A, B, B]


@given(st.lists(st.integers(1, 30), min_size=1, max_size=2), st.integers(0, 20), st.sampled_from(["mixed", "along"]))
def test_as_many_stems_have_a_shade_as_it_has(counts: list[int], plain: int, shading: Shading) -> None:
    total = sum(counts) + plain
    x = [(7 * each) % 11 / 3 - 1.5 for each in range(total)]
    found = colours_at(line(*counts, of=total, shading=shading), TULIP, x, x[::-1])
    for colour, number in zip((A, B), counts, strict=False):
        assert abs(found.count(colour) - number) <= 1
    assert abs(found.count(OWN) - plain) <= 1


def test_five_shades_of_one_tulip_are_drawn_pulled_made_and_bought_apart() -> None:
    plan = replace(piece(), recipe=(TULIPS,), quantity=2)
    drawn = evaluate(plan, conditions(), with_fixes=False).stems
    assert {each.colour: sum(other.colour == each.colour for other in drawn) for each in drawn} == {
        each.colour: each.count for each in PINKS
    }
    report = making_of(plan, conditions(), with_fixes=False)
    assert sorted(each.colour for each in report.steps) == sorted(each.colour for each in drawn)
    (pulled,) = report.pull
    assert pulled.shades == tuple((each.name, each.count) for each in PINKS)
    size = TULIP.bunch_size
    assert pulled.bunches == sum(-(-2 * each.count // size) for each in PINKS)
    work = one_bowl(2).pieces[0]
    (need,) = needs_of(replace(one_bowl(2), pieces=(replace(work, piece=plan),))).stems
    assert need.shades == tuple((each.name, 2 * each.count) for each in PINKS)


def test_each_shade_is_bought_in_bunches_of_its_own_and_the_stores_have_the_own_colour() -> None:
    """12 white of 10 are 2 bunches, 5 blush 1, 8 of its own with 3 here 1; 4 bunches at 6.00, no single stems sold."""
    known = {"tulip": replace(TULIP, bunch_size=10, bunch_price=6.0, stem_price=None)}
    needs = [
        StemNeed(piece_id=1, piece="a", variety="tulip", count=17, shades=(("white", 12), ("blush", 5))),
        StemNeed(piece_id=2, piece="b", variety="tulip", count=8),
    ]
    (bought,) = buy_stems(needs, known, waste=0.0, here={"tulip": 3})
    assert (bought.bunches, bought.singles, bought.cost, bought.in_recipes) == (4, 0, Decimal("24.00"), 25)
    assert (bought.here, bought.left_over, bought.with_waste) == (3, 18, 25)
    assert [(each.shade, each.bunches, each.cost) for each in bought.shades] == [
        ("white", 2, Decimal("12.00")),
        ("blush", 1, Decimal("6.00")),
        ("", 1, Decimal("6.00")),
    ]
    assert shades_in_words(bought) == "white 2 bunches, blush 1 bunch, its own colour 1 bunch"
    (again,) = buy_stems([replace(needs[0], shades=(("White", 12), ("white", 5)))], known, waste=0.0, here={})
    assert [(each.shade, each.with_waste) for each in again.shades] == [("White", 17)]
    unpriced = {"tulip": replace(known["tulip"], bunch_price=None)}
    assert buy_stems(needs, unpriced, waste=0.0, here={})[0].cost is None
    (singles,) = buy_stems(needs[:1], {"tulip": replace(known["tulip"], stem_price=0.7)}, waste=0.0, here={})
    assert shades_in_words(singles) == "white 1 bunch and 2 stems, blush 5 stems"
    assert singles.singles_cost == Decimal("4.9")


def test_shades_that_are_more_than_the_line_or_there_twice_are_refused_in_a_sentence() -> None:
    assert shade_counts(replace(TULIPS, count=33)) == {each.name: each.count for each in PINKS} | {"": 3}
    assert "" not in shade_counts(TULIPS)
    with pytest.raises(InvalidMeasure) as told:
        check_shades(replace(TULIPS, count=29), "recipe.2")
    assert told.value.path == "recipe.2.shades"
    assert render(told.value.message, "metric") == "Its shades are 30 stems, and the line has 29."
    with pytest.raises(InvalidMeasure, match="is there twice"):
        check_shades(replace(TULIPS, shades=(PINKS[0], replace(PINKS[1], name=" Blush"))), "recipe.0")
    with pytest.raises(InvalidMeasure):
        evaluate(replace(piece(), recipe=(replace(TULIPS, count=29),)), conditions(), with_fixes=False)
