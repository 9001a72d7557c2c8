"""What an event costs: sums to the cent, by hand for one piece, and never a price where something is not known."""

from dataclasses import replace
from decimal import Decimal

import pytest

from jolly_trellis.core.event.buying import buy_stems
from jolly_trellis.core.event.cost import EventCost, cost_of, minutes_of, rate_of
from jolly_trellis.core.event.job import Costing, CrewMember, Made
from jolly_trellis.core.event.money import money, to_cent
from jolly_trellis.core.event.needs import needs_of
from jolly_trellis.core.event.tasks import time_book
from tests.events import demo_made, job, larder, one_bowl
from tests.ordinary import frogs, nettings, varieties

COSTING = Costing(rate_per_h=Decimal("26.00"), margin=0.35)


def cost(made: Made, costing: Costing = COSTING, known: object = None) -> EventCost:
    stems = known if isinstance(known, dict) else varieties()
    needs = needs_of(made)
    bought = buy_stems(needs.stems, stems, waste=costing.waste, here={})
    around = replace(job(), costing=costing)
    book = time_book(around, made, stems, bought)
    return cost_of(made, needs, bought, larder(), frogs(), stems, around, book)


def test_the_event_is_the_sum_of_its_pieces_to_the_cent() -> None:
    found = cost(demo_made())
    for field in ("stems", "mechanics", "consumables", "labour", "cost", "price"):
        assert getattr(found, field) == sum(getattr(each, field) for each in found.pieces), field
    for each in found.pieces:
        assert each.cost == each.stems + each.mechanics + each.consumables + (each.labour or 0)


def test_stems_cost_what_was_bought_whoever_uses_them() -> None:
    needs = needs_of(demo_made())
    bought = buy_stems(needs.stems, varieties(), waste=COSTING.waste, here={})
    assert cost(demo_made()).stems == sum((each.cost or Decimal(0) for each in bought), Decimal(0))


def test_one_bowl_by_hand() -> None:
    made = one_bowl(1)
    (row,) = cost(made).pieces
    (sheet,) = needs_of(made).sheets
    net = nettings()[sheet.netting]
    area = Decimal(str(sheet.sheet.width_m * sheet.sheet.length_m / (net.roll_width_m * net.roll_length_m)))
    assert row.mechanics == to_cent(money(net.price or 0) * area / sheet.uses)
    assert row.labour == to_cent(Decimal("26.00") * minutes_of(made, time_book(job(), made, varieties()))[1] / 60)
    assert row.price == to_cent((row.cost or Decimal(0)) / Decimal("0.65"))


def test_mechanics_cost_less_the_oftener_they_are_used() -> None:
    once, often = (cost(one_bowl(), replace(COSTING, uses=uses)).mechanics for uses in (1, 20))
    assert once == pytest.approx(20 * often, abs=Decimal("0.11"))


def test_a_price_that_is_not_known_is_named_and_nothing_is_asked() -> None:
    unpriced = {key: replace(each, bunch_price=None, stem_price=None) for key, each in varieties().items()}
    found = cost(one_bowl(), COSTING, unpriced)
    assert found.cost is None
    assert found.price is None
    assert any(each.startswith("the price of ") for each in found.missing)
    assert found.known > 0


def test_without_an_hourly_rate_nothing_is_asked() -> None:
    found = cost(one_bowl(), Costing())
    assert found.labour is None
    assert found.price is None
    assert "what an hour of work costs" in found.missing


def test_a_piece_that_cannot_be_worked_out_has_no_price() -> None:
    made = one_bowl()
    broken = replace(made, pieces=(replace(made.pieces[0], report=None),))
    assert cost(broken).price is None


def test_the_demo_has_a_price_for_everything() -> None:
    assert cost(demo_made(), job().costing).missing == ()


def test_labour_is_every_minute_of_the_book_at_the_mean_rate_of_who_works() -> None:
    book = time_book(job(), demo_made(), varieties())
    found = cost(demo_made())
    assert found.minutes == book.person_minutes()
    exact = Decimal("26.00") * book.person_minutes() / 60
    assert found.labour is not None
    assert abs(found.labour - exact) <= Decimal("0.01") * len(found.pieces)


def test_an_hour_is_the_mean_of_own_rates_and_not_known_where_one_is_not() -> None:
    dear = CrewMember(name="Wren", rate_per_h=Decimal("40.00"))
    assert rate_of(replace(job(), crew=(dear, CrewMember(name="Alder")))) == Decimal("33")
    nobody = replace(job(), costing=Costing())
    assert rate_of(replace(nobody, crew=(dear,))) == Decimal("40.00")
    assert rate_of(replace(nobody, crew=(dear, CrewMember(name="Alder")))) is None
    assert rate_of(replace(nobody, crew=())) is None
    assert rate_of(replace(job(), crew=())) == Decimal("26.00")
