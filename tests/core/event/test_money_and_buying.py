"""Money to the cent, and stems bought the cheapest way: checked by trying every way by hand."""

from decimal import Decimal
from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.money import money, price_at_margin, shared_out, to_cent
from jolly_trellis.core.event.needs.bunches import buy_stems, cheapest, stems_with_waste
from jolly_trellis.core.event.needs.needed import StemNeed
from tests.ordinary import varieties


def test_a_price_is_the_price_that_was_typed() -> None:
    """0.1 + 0.2 in binary is not 0.3; in money it is."""
    assert money(0.1) + money(0.2) == Decimal("0.30")
    assert to_cent(Decimal("2.005")) == Decimal("2.01")


def test_a_margin_is_a_share_of_the_price() -> None:
    """Definition: of a price of 100 at 35 %, 65 is cost."""
    assert price_at_margin(Decimal("65.00"), 0.35) == Decimal("100.00")
    assert price_at_margin(Decimal("10.00"), 0.0) == Decimal("10.00")


@given(st.integers(0, 1_000_000), st.lists(st.integers(1, 500), min_size=1, max_size=20))
def test_shares_add_up_to_the_cent_and_none_is_a_cent_off(cents: int, weights: list[int]) -> None:
    amount = Decimal(cents) / 100
    shares = shared_out(amount, [float(each) for each in weights])
    assert sum(shares) == amount
    for share, weight in zip(shares, weights, strict=True):
        assert abs(share - amount * weight / sum(weights)) < Decimal("0.01")


def test_ten_percent_more_is_up_to_a_whole_stem() -> None:
    assert [stems_with_waste(each, 0.1) for each in (10, 11, 0)] == [11, 13, 0]
    assert stems_with_waste(10, 0.0) == 10


@given(st.integers(1, 120), st.integers(1, 25), st.integers(50, 4000), st.integers(10, 400))
def test_the_cheapest_way_is_the_cheapest_of_all_ways(count: int, size: int, bunch: int, stem: int) -> None:
    prices = Decimal(bunch) / 100, Decimal(stem) / 100
    bunches, singles, cost = cheapest(count, size, *prices)
    assert bunches * size + singles >= count
    assert cost == bunches * prices[0] + singles * prices[1]
    every = (
        full * prices[0] + single * prices[1]
        for full, single in product(range(count // size + 2), range(count + 1))
        if full * size + single >= count
    )
    assert cost == min(every)


def test_without_a_price_bunches_are_bought_and_the_cost_is_not_known() -> None:
    assert cheapest(25, 10, None, None) == (3, 0, None)
    assert cheapest(25, 10, None, Decimal("0.50")) == (0, 25, Decimal("12.50"))
    assert cheapest(0, 10, Decimal("5"), None) == (0, 0, Decimal("0.00"))


def test_a_bunch_of_zero_is_refused() -> None:
    with pytest.raises(InvalidMeasure, match="A bunch of no stems"):
        cheapest(10, 0, Decimal("5"), None)


def test_a_variety_is_bought_once_for_the_whole_event_less_what_is_here() -> None:
    needs = [StemNeed(piece_id=each, piece=str(each), variety="rose", count=15) for each in (1, 2)]
    (bought,) = buy_stems(needs, varieties(), waste=0.1, here={"rose": 10})
    assert bought.in_recipes == 30
    assert bought.with_waste == 33
    assert bought.here == 10
    assert bought.bunches * bought.bunch_size + bought.singles >= 23
    assert bought.left_over == bought.bunches * bought.bunch_size + bought.singles + 10 - 30
