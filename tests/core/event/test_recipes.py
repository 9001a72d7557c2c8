"""Recipe tools: another size, side shoots, tall and low, lasting against fresh."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.needs.needed import StemNeed
from jolly_trellis.core.event.recipes.recipes import lasting, scale_factor, scaled, side_shoots, tall_and_low
from jolly_trellis.core.plan.recipe import RecipeLine
from tests.ordinary import recipe, varieties


def test_twice_the_length_takes_twice_the_stems_twice_the_diameter_four_times() -> None:
    assert scale_factor("length", 1.0, 2.0) == pytest.approx(2.0)
    assert scale_factor("area", 0.5, 1.0) == pytest.approx(2.0)
    assert scale_factor("diameter", 0.2, 0.4) == pytest.approx(4.0)


@pytest.mark.parametrize(("was", "now", "path"), [(0.2, 0.0, "now_m"), (0.0, 0.2, "was_m"), (0.2, -1.0, "now_m")])
def test_a_recipe_scaled_by_zero_is_refused_beside_its_place(was: float, now: float, path: str) -> None:
    with pytest.raises(InvalidMeasure) as refused:
        scale_factor("diameter", was, now)
    assert refused.value.path == path


@given(st.lists(st.integers(1, 60), min_size=1, max_size=8), st.floats(0.2, 4.0))
def test_a_scaled_recipe_keeps_its_varieties_and_its_total(counts: list[int], factor: float) -> None:
    lines = tuple(RecipeLine(variety=f"v{index}", count=each, role="filler") for index, each in enumerate(counts))
    found = scaled(lines, factor)
    assert [each.variety for each in found] == [each.variety for each in lines]
    assert all(each.count >= 1 for each in found)
    wanted = max(round(sum(each.count * factor for each in lines)), len(lines))
    assert wanted <= sum(each.count for each in found) <= wanted + len(lines)


def test_scaling_by_one_changes_nothing_and_an_empty_recipe_stays_empty() -> None:
    assert scaled(recipe(), 1.0) == recipe()
    assert scaled((), 3.0) == ()


def test_more_stems_than_a_piece_takes_are_refused() -> None:
    with pytest.raises(InvalidMeasure, match="make two pieces"):
        scaled((RecipeLine(variety="rose", count=300, role="focal"),), 2.0)


def test_side_shoots_are_counted_over_the_event_most_first() -> None:
    needs = (
        StemNeed(piece_id=1, piece="a", variety="spray-rose", count=10),
        StemNeed(piece_id=2, piece="b", variety="spray-rose", count=5),
        StemNeed(piece_id=2, piece="b", variety="rose", count=9),
        StemNeed(piece_id=2, piece="b", variety="waxflower", count=20),
    )
    found = side_shoots(needs, varieties())
    assert [(each.variety, each.shoots) for each in found] == [("waxflower", 60), ("spray-rose", 30)]


@pytest.mark.parametrize(
    ("stands", "van", "hands", "minutes", "tall", "why"),
    [
        (20, 20, 8, 600, 12, "every table"),
        (5, 20, 8, 600, 5, "stands"),
        (20, 4, 8, 600, 4, "van"),
        (20, 20, 2, 45, 3, "hands"),
        (20, 20, 1, 600, 0, "hands"),
    ],
)
def test_tall_pieces_are_what_the_scarcest_allows(
    stands: int, van: int, hands: int, minutes: float, tall: int, why: str
) -> None:
    mix = tall_and_low(
        tables=12, stands=stands, places_in_van=van, hands=hands, minutes_each=15, minutes_there_are=minutes
    )
    assert (mix.tall, mix.low) == (tall, 12 - tall)
    assert why in mix.limited_by


def test_lasting_work_by_hand() -> None:
    """Fresh 30 + 4 + 16 = 50 a week is 50 × 30.4375 ÷ 7 a month; lasting 30 × 2 × 1.1 + 4 + 16 × 1.1 = 87.60 once."""
    found = lasting(stems=40, fresh_stems_cost=Decimal(30), other_cost=Decimal(4), labour=Decimal(16), months=12)
    assert found.fresh_each == Decimal("50.00")
    assert found.fresh_a_month == Decimal("217.41")
    assert found.lasting_once == Decimal("87.60")
    assert found.lasting_a_month == Decimal("7.30")
    assert found.pays_from_month == Decimal("0.4")
    assert found.stems == 44
    assert found.inspections == 4


def test_lasting_work_that_never_pays_says_so() -> None:
    found = lasting(stems=1, fresh_stems_cost=Decimal(0), other_cost=Decimal(0), labour=Decimal(0), months=3)
    assert found.pays_from_month is None


@pytest.mark.parametrize(("minutes_each", "tall"), [(5e-324, 12), (30.0, 12), (30.01, 11), (60.0, 6)])
def test_however_little_time_one_takes_no_more_are_placed_than_there_are_tables(
    minutes_each: float, tall: int
) -> None:
    """Two pairs of hands in three hours place twelve at half an hour each, six at an hour."""
    mix = tall_and_low(
        tables=12, stands=20, places_in_van=20, hands=4, minutes_each=minutes_each, minutes_there_are=180.0
    )
    assert (mix.tall, mix.low) == (tall, 12 - tall)
