"""The price that a client accepted, kept as it stood, and today's plan held against it."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.cost.cost import EventCost
from jolly_trellis.core.event.job import Quote, QuoteLine
from jolly_trellis.core.event.money import NOTHING
from jolly_trellis.core.missing import listed
from jolly_trellis.core.quantities import phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class Moved:
    """One line that is asked otherwise than it was accepted; None where it was not in it, or is not any more."""

    name: str
    then: Decimal | None
    now: Decimal | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Held:
    """Today's plan against what was accepted: what was asked, what would be asked now, by how much that is more.

    `now` and `more` are None while today's price is not known. `moved` are the lines that differ.
    """

    accepted_on: str
    currency: str
    then: Decimal
    now: Decimal | None
    more: Decimal | None
    moved: tuple[Moved, ...]


def quote_of(cost: EventCost, today: date) -> Quote:
    """Today's price as a quote that was accepted.

    Raises: InvalidMeasure: something in it has no price, so that nobody could accept it.
    """
    if cost.price is None or cost.tax is None or cost.asked is None:
        raise InvalidMeasure(
            path="quote",
            message=phrase("There is no price to accept yet: {missing}.", missing=listed(cost.missing[:3])),
            limit=phrase("Settle what is not known first."),
        )
    lines = [
        QuoteLine(name=each.name, number=each.quantity, each=each.price_each or NOTHING, amount=each.price or NOTHING)
        for each in cost.pieces
    ]
    lines += [QuoteLine(name=each.name, number=1, each=each.price, amount=each.price) for each in cost.lines]
    return Quote(
        accepted_on=today.isoformat(),
        currency=cost.currency,
        lines=tuple(lines),
        price=cost.price,
        tax=cost.tax,
        asked=cost.asked,
    )


def held_against(quote: Quote, cost: EventCost) -> Held:
    """Today's plan held against a quote, line by line by name. Source: subtraction."""
    now = None if quote.currency != cost.currency else cost.asked
    return Held(
        accepted_on=quote.accepted_on,
        currency=quote.currency,
        then=quote.asked,
        now=now,
        more=None if now is None else now - quote.asked,
        moved=tuple(_moved(quote, cost)),
    )


def _moved(quote: Quote, cost: EventCost) -> Iterator[Moved]:
    then: dict[str, Decimal] = {}
    for line in quote.lines:
        then[line.name] = then.get(line.name, NOTHING) + line.amount
    now: dict[str, Decimal | None] = {}
    for name, amount in [
        *((each.name, each.price) for each in cost.pieces),
        *((each.name, each.price) for each in cost.lines),
    ]:
        before = now.get(name, NOTHING)
        now[name] = None if before is None or amount is None else before + amount
    for name in dict.fromkeys([*then, *now]):
        if name not in then or name not in now or then[name] != now[name]:
            yield Moved(name=name, then=then.get(name), now=now.get(name))
