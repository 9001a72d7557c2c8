"""What is ordered from whom: an order for each supplier and day, made of the shopping list, and what came in of it."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from jolly_trellis.core.event.buying.shopping import Group, Shopping
from jolly_trellis.core.event.money import NOTHING
from jolly_trellis.core.event.needs.bunches import ShadeBuy
from jolly_trellis.core.quantities import Phrase, phrase, worded

SELLERS: Mapping[Group, str] = {
    "market": "Market, other than stems",
    "sundries": "Floristry sundries",
    "hardware": "Hardware and netting",
    "rigging": "Rigging",
    "frogs": "Frogs",
    "vessels": "Vessels and stands",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class OrderLine:
    """One line of an order: what, how many of which pack, and what all of them cost; None no price is known."""

    key: str
    name: str
    number: int
    pack: Phrase
    cost: Decimal | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Order:
    """One order: from whom, for which day (None: before the event), its lines, and their sum, None not known."""

    supplier: str
    day: date | None
    lines: tuple[OrderLine, ...]
    cost: Decimal | None


def orders_of(shopping: Shopping) -> tuple[Order, ...]:
    """Every order of an event: stems by supplier and day, then what else is bought, by who sells it, then hires."""
    found = [_order(trip.supplier, trip.day, list(_stems(shopping, trip.varieties))) for trip in shopping.trips]
    for group, seller in SELLERS.items():
        lines = [
            OrderLine(key=f"{group}-{each.key}", name=each.name, number=each.packs, pack=each.pack, cost=each.price)
            for each in shopping.buys
            if each.group == group and each.packs
        ]
        found.append(_order(seller, None, lines))
    for hire in shopping.buys:
        if hire.group == "hired":
            lines = [OrderLine(key=hire.key, name=hire.name, number=hire.packs, pack=hire.pack, cost=hire.price)]
            found.append(_order(worded("Hire: {thing}", thing=hire.name), None, lines))
    return tuple(each for each in found if each.lines)


def _order(supplier: str, day: date | None, lines: list[OrderLine]) -> Order:
    costs = [each.cost for each in lines]
    known = [each for each in costs if each is not None]
    cost = sum(known, NOTHING) if len(known) == len(costs) else None
    return Order(supplier=supplier, day=day, lines=tuple(lines), cost=cost)


def _stems(shopping: Shopping, varieties: tuple[str, ...]) -> Iterator[OrderLine]:
    by_key = {each.variety: each for each in shopping.stems}
    for key in varieties:
        stem = by_key[key]
        if stem.gathered:
            continue
        for each in stem.shades or (stem,):
            shade = each.shade if isinstance(each, ShadeBuy) else ""
            own, name = (f"{key}-{shade}", f"{stem.name}, {shade}") if shade else (key, stem.name)
            if each.bunches:
                pack = phrase("bunch of {n}", n=stem.bunch_size)
                singles = each.singles_cost
                cost = None if each.cost is None or singles is None else each.cost - singles
                yield OrderLine(key=f"bunches-{own}", name=name, number=each.bunches, pack=pack, cost=cost)
            if each.singles:
                pack, cost = phrase("stem"), each.singles_cost
                yield OrderLine(key=f"stems-{own}", name=name, number=each.singles, pack=pack, cost=cost)


@dataclass(frozen=True, slots=True, kw_only=True)
class CameIn:
    """What of one line came in: how many, and how: right, short, late, wrong or poor."""

    number: float
    state: str


def not_as_ordered(orders: tuple[Order, ...], came: Mapping[str, CameIn]) -> Iterator[Phrase]:
    """What came in otherwise than it was ordered, in words; what has not come in yet is nothing."""
    for order in orders:
        for line in order.lines:
            there = came.get(line.key)
            if there is None or (there.state in ("", "right") and there.number >= line.number):
                continue
            short = max(line.number - there.number, 0)
            if short:
                words = "{name}: {number} of {ordered} came, {short} short."
                yield phrase(
                    words, name=line.name, number=f"{there.number:g}", ordered=line.number, short=f"{short:g}"
                )
            else:
                words = "{name} from {supplier}: {state}."
                yield phrase(words, name=line.name, supplier=order.supplier, state=there.state)
