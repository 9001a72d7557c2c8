"""Hires by their days, the price that was accepted, payment before buying, orders and what came in: worked by hand."""

from dataclasses import replace
from datetime import date
from decimal import Decimal

import pytest

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event import facts
from jolly_trellis.core.event.buying.orders import CameIn, not_as_ordered, orders_of
from jolly_trellis.core.event.buying.shopping import Shopping, shopping
from jolly_trellis.core.event.cost.cost import EventCost, cost_of
from jolly_trellis.core.event.cost.currencies import larder_unpriced, said_once, shelves_unpriced, varieties_unpriced
from jolly_trellis.core.event.cost.quotes import held_against, quote_of
from jolly_trellis.core.event.cutting.roll import cut_plan
from jolly_trellis.core.event.job import Costing, Hire, Job, Made
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.hires import hire_cost, hired, hired_on, out_of_time
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.needs.shelves import Shelves
from jolly_trellis.core.event.needs.wear import Kept, worn_out
from jolly_trellis.core.event.returning.reservations import Claim, shortfalls
from jolly_trellis.core.event.sheet.schedule import schedule
from jolly_trellis.core.event.tasks.payment import buying_gate, payment_of
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.water_rounds import water_rounds
from jolly_trellis.core.units import render
from tests.events import all_needs, demo_made, job, kept, larder, one_bowl, shelves
from tests.ordinary import conditions, lacks, varieties

D = Decimal
URN = Hire(name="urn", number=2, lender="Osterlay Hire", comes="2027-05-14", goes_back="2027-05-17", each=D("18.50"))


def costed(made: Made, around: Job) -> EventCost:
    needs = all_needs(made, around)
    bought = buy_stems(needs.stems, varieties(), waste=around.costing.waste, here={})
    return cost_of(
        made, needs, bought, larder(), shelves(), varieties(), around, time_book(around, made, varieties(), bought)
    )


def bought(made: Made, around: Job) -> Shopping:
    needs = all_needs(made, around)
    rounds = water_rounds(around, made, conditions())
    return shopping(
        around, made, needs, cut_plan(needs, larder(), seconds=0.5), larder(), shelves(), varieties(), rounds
    )


def test_a_hire_is_there_from_the_day_it_comes_to_the_day_it_goes_back() -> None:
    days = [hired_on([URN], "~urn", date(2027, 5, day)) for day in (13, 14, 17, 18)]
    assert days == [0, 2, 2, 0]
    assert hired([URN, replace(URN, number=1), replace(URN, thing="vessel:urn-24")]) == {"~urn": 3, "vessel:urn-24": 2}
    assert hired_on([URN], "~bowl", date(2027, 5, 15)) == 0
    assert hire_cost(URN) == D("37.00")
    assert hire_cost(replace(URN, damage=D("5.25"))) == D("42.25")
    assert hire_cost(replace(URN, each=None)) is None


def test_a_hire_that_comes_too_late_or_goes_back_too_soon_is_named() -> None:
    leaves, home = date(2027, 5, 14), date(2027, 5, 17)
    assert list(out_of_time([URN], (leaves, home))) == []
    assert list(out_of_time([URN], None)) == []
    late = replace(URN, comes="2027-05-15", goes_back="2027-05-16")
    said = [render(each, "metric") for each in out_of_time([late], (leaves, home))]
    assert said == [
        "urn from Osterlay Hire comes on 15 May, and the van leaves on 14 May: have it a day sooner.",
        "urn goes back to Osterlay Hire on 16 May, and is home from the event on 17 May: ask for longer.",
    ]


def test_what_is_hired_makes_up_for_what_two_events_lack_while_it_is_there() -> None:
    first, last = date(2027, 5, 14), date(2027, 5, 18)
    claims = [
        Claim(
            event_id=each,
            event=f"event {each}",
            kind="vessel",
            thing="~urn",
            name="urn",
            number=1,
            since=first,
            until=last,
        )
        for each in (1, 2)
    ]
    assert list(shortfalls(claims, {}, [replace(URN, goes_back="2027-05-18")])) == []
    (found,) = shortfalls(claims, {}, [URN])
    assert (found.since, found.until, found.wanted, found.here) == (last, last, 2, 0)
    (one,) = shortfalls(claims, {}, [replace(URN, number=1, goes_back="2027-05-18")])
    assert (one.since, one.until, one.here) == (first, last, 1)


def test_one_use_costs_the_price_less_the_resale_over_its_uses_and_wear_is_named() -> None:
    urn = Kept(name="urn", here=2, price=D("46.00"), lasts=40, used=79, resale=D("6.00"))
    assert urn.use_cost() == D("1.00")
    assert replace(urn, price=None).use_cost() is None
    assert replace(urn, resale=D("90.00")).use_cost() == D("0.00")
    assert not urn.worn
    assert replace(urn, used=80).worn
    assert not replace(urn, here=0, used=80).worn
    assert list(worn_out({"urn": replace(urn, used=80), "bowl": urn}, {"urn": 1, "bowl": 1, "jug": 1})) == ["urn"]


def test_vessels_that_are_hired_are_not_worn_and_the_rest_is() -> None:
    """Three bowls at 14.00 over 40 uses: 0.35 each; two of them hired at 2.50: one of ours, and 5.00 beside."""
    around = replace(job(), costing=Costing(rate_per_h=D("26.00")))
    name = one_bowl().pieces[0].piece.vessel.name
    counted = replace(shelves(), vessels={"vessel:low-bowl-20": kept(name, 14.0)})
    made, needs = one_bowl(), needs_of(one_bowl())
    got = buy_stems(needs.stems, varieties(), waste=0.1, here={})

    def cost(own: Job, there: Shelves = counted) -> EventCost:
        book = time_book(own, made, varieties(), got)
        return cost_of(made, needs, got, larder(), there, varieties(), own, book)

    assert cost(around).pieces[0].vessels == D("1.05")
    hire = replace(URN, name=name, thing="vessel:low-bowl-20", each=D("2.50"))
    found = cost(replace(around, hires=(hire,)))
    assert found.pieces[0].vessels == D("0.35")
    assert [(each.name, each.amount) for each in found.lines] == [(f"Hire: {name}", D("5.00"))]
    unsaid = cost(replace(around, hires=(replace(hire, each=None),)))
    assert (unsaid.cost, unsaid.price) == (None, None)
    assert f"what Osterlay Hire asks for {name}" in lacks(unsaid)
    unpriced = cost(around, replace(counted, vessels={}))
    assert f"the price of {name}" in lacks(unpriced)


def test_a_price_that_was_accepted_is_held_against_the_plan_line_by_line() -> None:
    around = replace(job(), costing=Costing(rate_per_h=D("26.00"), tax=0.2, per_day=D("55.00")))
    three, four = costed(one_bowl(3), around), costed(one_bowl(4), around)
    quote = quote_of(three, date(2027, 1, 5))
    assert (quote.accepted_on, quote.asked, quote.price + quote.tax) == ("2027-01-05", three.asked, three.asked)
    assert sum(line.amount for line in quote.lines) == quote.price
    assert all(line.number * line.each == line.amount for line in quote.lines)
    same = held_against(quote, three)
    assert (same.more, same.moved) == (D("0.00"), ())
    more = held_against(quote, four)
    assert more.more == (four.asked or 0) - (three.asked or 0)
    assert more.more > 0
    assert (more.moved[0].then, more.moved[0].now) == (three.pieces[0].price, four.pieces[0].price)
    gone = held_against(quote, replace(three, pieces=(), lines=()))
    assert {each.now for each in gone.moved} == {None}
    assert held_against(quote, replace(three, currency="£")).now is None
    with pytest.raises(InvalidMeasure):
        quote_of(
            replace(three, price=None, asked=None, missing=(facts.PRICE.missing(("variety", "rose"), name="rose"),)),
            date(2027, 1, 5),
        )


def test_nothing_is_fetched_before_the_deposit_is_in_where_the_studio_waits_for_it() -> None:
    costing = Costing(rate_per_h=D("26.00"), per_day=D("55.00"), deposit=0.4, waits=True)
    around = replace(job(), costing=costing)
    assert render(buying_gate(around) or "", "metric") == "Not before the client has accepted a price."  # type: ignore[arg-type]
    quote = replace(quote_of(costed(one_bowl(), around), date(2027, 1, 5)), asked=D("1000.00"))
    due = payment_of(replace(around, quote=quote), None)
    assert (due.deposit, due.paid, due.deposit_due, due.due) == (D("400.00"), D("0.00"), D("400.00"), D("1000.00"))
    half = replace(around, quote=quote, costing=replace(costing, paid=D("150.00")))
    assert render(buying_gate(half) or "", "metric") == (  # type: ignore[arg-type]
        "Not before the deposit is paid: 250.00 of 400.00 € is still due."
    )
    fetched = [each for each in time_book(half, one_bowl(), varieties()).tasks if each.stage == "collect"]
    assert fetched
    assert all(each.gate is not None for each in fetched)
    paid = replace(half, costing=replace(costing, paid=D("400.00")))
    assert buying_gate(paid) is None
    assert buying_gate(replace(half, costing=replace(half.costing, waits=False))) is None
    assert payment_of(paid, None).due == D("600.00")
    assert payment_of(replace(paid, quote=None), D("500.00")).deposit == D("200.00")
    assert payment_of(replace(paid, quote=None), None).deposit is None


def test_bands_are_what_fewer_and_more_stems_would_be_asked() -> None:
    """100.00 of stems more or less at 30 % margin: a fifth less is 20/0.7, a quarter more 25/0.7, whole, and on top
    of it a tenth for breakage, a fifth of overheads and a quarter of tax.
    """
    plain = Costing(rate_per_h=D("26.00"), per_day=D("55.00"))
    for costing, on_top in (
        (plain, D(1)),
        (replace(plain, breakage=0.1, overheads=0.2, tax=0.25), D("1.1") * D("1.2") * D("1.25")),
    ):
        found = costed(one_bowl(), replace(job(), costing=costing))
        less, same, more = found.bands
        assert [each.stems for each in found.bands] == [0.8, 1.0, 1.25]
        asked, stems = found.asked or D(0), found.stems * on_top / D("0.7")
        assert abs(less.asked - (asked - stems * D("0.2"))) <= 1
        assert abs(same.asked - asked) <= D("0.5")
        assert abs(more.asked - (asked + stems * D("0.25"))) <= 1


def test_what_the_whole_event_needs_without_a_price_is_named_and_nothing_is_asked() -> None:
    made, around = one_bowl(), job()
    needs, stores = all_needs(made), larder()
    bare = replace(stores, supplies={key: each for key, each in stores.supplies.items() if key != "bucket"})
    got = buy_stems(needs.stems, varieties(), waste=around.costing.waste, here={})
    book = time_book(around, made, varieties(), got)
    found = cost_of(made, needs, got, bare, shelves(), varieties(), around, book)
    assert (lacks(found), found.price) == (("the price of bucket",), None)


def test_every_line_to_buy_is_in_one_order_and_orders_add_up() -> None:
    found = bought(demo_made(), replace(job(), hires=(URN,)))
    orders = orders_of(found)
    keys = [line.key for order in orders for line in order.lines]
    assert len(keys) == len(set(keys))
    others = {f"{each.group}-{each.key}" for each in found.buys if each.packs and each.group != "hired"}
    stems = {each.variety for each in found.stems if each.bunches + each.singles}
    assert {each for each in keys if not each.startswith(("bunches-", "stems-", "hire-"))} == others
    assert {each.split("-", 1)[1] for each in keys if each.startswith(("bunches-", "stems-"))} == stems
    for order in orders:
        assert order.cost == sum((line.cost or D(0) for line in order.lines), D(0))
    assert sum((order.cost or D(0) for order in orders), D(0)) == found.cost


def test_what_came_in_otherwise_than_ordered_is_said_and_the_rest_is_nothing() -> None:
    orders = orders_of(bought(one_bowl(), job()))
    first = orders[0].lines[0]
    assert list(not_as_ordered(orders, {})) == []
    assert list(not_as_ordered(orders, {first.key: CameIn(number=first.number, state="right")})) == []
    short = not_as_ordered(orders, {first.key: CameIn(number=first.number - 1, state="short")})
    assert [render(each, "metric") for each in short] == [
        f"{first.name}: {first.number - 1} of {first.number} came, 1 short."
    ]
    late = not_as_ordered(orders, {first.key: CameIn(number=first.number, state="late")})
    assert [render(each, "metric") for each in late] == [f"{first.name} from {orders[0].supplier}: late."]


def test_prices_in_another_currency_make_no_number_and_are_named_once() -> None:
    around = replace(job(), costing=Costing(currency="£", rate_per_h=D("26.00"), per_day=D("55.00")))
    known, made = varieties_unpriced(varieties()), one_bowl()
    needs = all_needs(made, around)
    got = buy_stems(needs.stems, known, waste=0.1, here={})
    book = time_book(around, made, known, got)
    plain = cost_of(made, needs, got, larder_unpriced(larder()), shelves_unpriced(shelves()), known, around, book)
    found = said_once(plain, "€")
    assert lacks(found) == ("the prices of the stores in £: they are in €",)
    assert lacks(found.pieces[0]) == lacks(found)
    assert (found.cost, found.price, found.stems) == (None, None, D("0.00"))
    assert found.known >= (found.pieces[0].labour or 0) > 0


def test_what_is_hired_is_fetched_before_it_is_used_and_brought_back_when_it_is_home() -> None:
    """A trip for each lender and day; what stands in a hired vessel waits for it, and so does the van."""
    made = demo_made()
    vessel = made.pieces[0].piece.vessel.name
    own = replace(URN, name=vessel, thing="vessel:low-bowl-20", number=3)
    around = replace(
        job(), hires=(own, replace(own, name="lantern", thing=""), replace(own, lender="Östeŕlay  hire", each=None))
    )
    book = {each.key: each for each in time_book(around, made, varieties()).tasks}
    fetch, bring = book["osterlay-hire-2027-05-14:hire:1"], book["osterlay-hire-2027-05-17:bring-back:1"]
    assert fetch.name == (
        f"Fetch what is hired from Osterlay Hire and Östeŕlay  hire: 3 {vessel}, 3 lantern, 3 {vessel}"
    )
    assert (fetch.stage, fetch.minutes, fetch.skills) == ("hire", 45, ("drives",))
    assert [(f"{opens:%d %H:%M}", f"{closes:%d %H:%M}") for opens, closes in fetch.windows] == [
        (f"14 {around.hours.opens:%H:%M}", f"14 {around.hours.closes:%H:%M}")
    ]
    assert [each.task for each in bring.after] == ["workshop:unload:1"]
    assert {f"{each:%d}" for window in bring.windows for each in window} == {"17"}
    waiting = {each.key for each in book.values() if fetch.key in {wait.task for wait in each.after}}
    stands_in_it = {each.id for each in made.pieces if each.piece.vessel.name == vessel}
    assert {f"{each}:mechanics:1" for each in stands_in_it} <= waiting
    assert {each for each in waiting if ":mechanics:" in each and int(each.split(":")[0]) not in stands_in_it} == set()
    assert {each.key for each in book.values() if each.stage == "load"} <= waiting
    far = replace(around, hires=(replace(own, comes="2026-05-14"),))
    (without_a_day,) = (each for each in time_book(far, made, varieties()).tasks if each.stage == "hire")
    assert without_a_day.windows == ()
    for day, bound in (("2027-03-16", 1), ("2027-03-15", 0)):  # 60 and 61 days before
        early = replace(around, hires=(replace(own, comes=day),))
        (each,) = (each for each in time_book(early, made, varieties()).tasks if each.stage == "hire")
        assert len(each.windows) == bound
    sheet = schedule(tuple(book.values()), around, effort=0)
    times = {each.task.key: each for each in sheet.timed}
    assert times[fetch.key].ends_at <= min(times[key].starts_at for key in waiting)
    assert f"{times[bring.key].starts_at:%Y-%m-%d}" == "2027-05-17"
