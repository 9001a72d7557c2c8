"""What an event costs: sums to the cent, by hand for one piece, and never a price where something is not known."""

from dataclasses import replace
from decimal import Decimal

import pytest

from jolly_trellis.core.event.cost.cost import EventCost, cost_of, minutes_of, rate_of
from jolly_trellis.core.event.job import Costing, CrewMember, Made
from jolly_trellis.core.event.money import money, to_cent
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.units import render
from tests.events import demo_made, job, larder, one_bowl, shelves
from tests.ordinary import lacks, nettings, varieties

COSTING = Costing(rate_per_h=Decimal("26.00"), margin=0.35)


def cost(made: Made, costing: Costing = COSTING, known: object = None) -> EventCost:
    stems = known if isinstance(known, dict) else varieties()
    needs = needs_of(made)
    bought = buy_stems(needs.stems, stems, waste=costing.waste, here={})
    around = replace(job(), costing=costing)
    book = time_book(around, made, stems, bought)
    return cost_of(made, needs, bought, larder(), shelves(), stems, around, book)


def test_the_event_is_the_sum_of_its_pieces_to_the_cent() -> None:
    found = cost(demo_made())
    for field in ("stems", "mechanics", "vessels", "consumables", "labour", "breakage", "cost", "price"):
        assert getattr(found, field) == sum(getattr(each, field) for each in found.pieces), field
    for each in found.pieces:
        assert each.cost == each.stems + each.mechanics + each.vessels + each.consumables + (each.labour or 0)
        assert sum(part.amount for part in each.parts) == each.cost
        assert each.margin == (each.price or 0) - each.cost
        assert each.price == (each.price_each or 0) * each.quantity


FULL = replace(
    COSTING,
    km=96.0,
    per_km=Decimal("0.45"),
    vehicle_days=2,
    per_day=Decimal("55.00"),
    delivery=Decimal("40.00"),
    breakage=0.02,
    overheads=0.125,
    tax=0.2,
)


def test_every_line_of_a_price_by_hand() -> None:
    """Decimal, line by line: breakage of goods, overheads of all, margin on it, a whole number of each, tax on top."""
    plain, found = cost(demo_made()), cost(demo_made(), FULL)
    for before, each in zip(plain.pieces, found.pieces, strict=True):
        goods = before.stems + before.mechanics + before.vessels + before.consumables
        assert each.breakage == to_cent(goods * Decimal("0.02"))
        assert each.overheads == to_cent((goods + each.breakage + (before.labour or 0)) * Decimal("0.125"))
        assert each.cost == each.known == goods + (before.labour or 0) + each.breakage + each.overheads
        assert each.price_each == to_cent(to_cent(each.cost / Decimal("0.65")) / each.quantity)
    assert [(line.amount, line.overheads, line.cost, line.price) for line in found.lines] == [
        (Decimal("43.20"), Decimal("5.40"), Decimal("48.60"), Decimal("74.77")),
        (Decimal("110.00"), Decimal("13.75"), Decimal("123.75"), Decimal("190.38")),
        (Decimal("40.00"), Decimal("5.00"), Decimal("45.00"), Decimal("69.23")),
    ]
    assert found.cost == found.known == sum((each.cost or 0 for each in found.pieces), Decimal("217.35"))
    assert found.price == sum((each.price or 0 for each in found.pieces), Decimal("334.38"))
    assert found.tax == to_cent(found.price * Decimal("0.2"))
    assert found.asked == found.price + found.tax
    assert found.overheads == sum((each.overheads for each in found.pieces), Decimal("24.15"))
    assert found.unsaid == ()


def test_one_day_of_the_vehicle_is_a_day() -> None:
    said = [
        render(line.of, "metric")
        for days in (1, 2)
        for line in cost(one_bowl(), replace(FULL, vehicle_days=days)).lines
    ]
    assert said[1::3] == ["1 day at 55.00", "2 days at 55.00"]


def test_what_nobody_has_said_the_cost_of_is_named() -> None:
    assert cost(demo_made()).unsaid == ("the vehicle",)
    assert cost(demo_made(), replace(FULL, km=None)).unsaid == ("how many kilometres the vehicle goes",)
    assert [line.name for line in cost(demo_made(), replace(FULL, km=None, delivery=None)).lines] == [
        "Vehicle, by the day"
    ]
    assert cost(demo_made(), replace(FULL, vehicle_days=0, per_km=None, delivery=None)).lines == ()


def test_stems_that_are_here_cost_what_a_stem_of_them_costs() -> None:
    """Ten roses of a bunch of 20 at 18.00 are 9.00, and are in the price as if they were bought."""
    known = {**varieties(), "rose": replace(varieties()["rose"], bunch_size=20, bunch_price=18.0, stem_price=1.2)}
    needs = needs_of(one_bowl())
    bought = buy_stems(needs.stems, known, waste=0.0, here={"rose": 10})
    (rose,) = (each for each in bought if each.variety == "rose")
    assert (rose.here, rose.here_cost) == (10, Decimal("9.00"))
    assert rose.full_cost == (rose.cost or 0) + Decimal("9.00")
    dear = {**known, "rose": replace(known["rose"], bunch_price=None, stem_price=None)}
    (unpriced,) = (
        each for each in buy_stems(needs.stems, dear, waste=0.0, here={"rose": 500}) if each.variety == "rose"
    )
    assert (unpriced.cost, unpriced.here_cost, unpriced.full_cost) == (Decimal("0.00"), None, None)


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
    assert any(each.startswith("the price of ") for each in lacks(found))
    assert found.known > 0


def test_without_an_hourly_rate_nothing_is_asked() -> None:
    found = cost(one_bowl(), Costing())
    assert found.labour is None
    assert found.price is None
    assert "what an hour of work costs" in lacks(found)


def test_a_piece_that_cannot_be_worked_out_has_no_price() -> None:
    made = one_bowl()
    broken = replace(made, pieces=(replace(made.pieces[0], report=None),))
    assert cost(broken).price is None


def test_the_demo_has_a_price_for_everything() -> None:
    assert lacks(cost(demo_made(), job().costing)) == ()


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
