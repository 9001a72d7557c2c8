"""Prices in another currency than the event's: no number is made of them, and that is said once."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace

from jolly_trellis.core.event import facts
from jolly_trellis.core.event.cost.cost import EventCost, PieceCost
from jolly_trellis.core.event.cutting.roll_problems import Larder
from jolly_trellis.core.event.needs.shelves import Shelves
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.missing import Missing, once
from jolly_trellis.core.quantities import Phrase, phrase


def larder_unpriced(larder: Larder) -> Larder:
    """What there is to cut from, with no price."""
    return replace(
        larder,
        nettings={key: replace(each, price=None) for key, each in larder.nettings.items()},
        supplies={key: replace(each, price=None) for key, each in larder.supplies.items()},
    )


def shelves_unpriced(shelves: Shelves) -> Shelves:
    """What is counted, with no price."""
    return replace(
        shelves,
        frogs={key: replace(each, price=None) for key, each in shelves.frogs.items()},
        vessels={key: replace(each, price=None) for key, each in shelves.vessels.items()},
        stands={key: replace(each, price=None) for key, each in shelves.stands.items()},
    )


def varieties_unpriced(varieties: Mapping[str, Variety]) -> dict[str, Variety]:
    """Varieties with no price."""
    return {key: replace(each, bunch_price=None, stem_price=None) for key, each in varieties.items()}


def priced_in(varieties: Mapping[str, Variety], currency: str) -> dict[str, Variety]:
    """Varieties with their prices, but of those that are in another currency than this."""
    return {
        key: replace(each, bunch_price=None, stem_price=None) if each.currency not in ("", currency) else each
        for key, each in varieties.items()
    }


def asked_in(varieties: Iterable[Variety], currency: str) -> Iterator[Phrase]:
    """What is to be asked of varieties whose price is in another currency than the event's, by name."""
    for each in sorted(varieties, key=lambda variety: variety.name):
        if each.currency not in ("", currency) and (each.bunch_price or each.stem_price):
            yield phrase(
                "{name}: its price is in {own}, the event is in {currency}. What does it cost in {currency}?",
                name=each.name,
                own=each.currency,
                currency=currency,
            )


def said_once(cost: EventCost, prices_in: str) -> EventCost:
    """A cost in which the prices of the stores could not be used: one sentence in place of the name of each thing.

    Args:
        prices_in: the currency that prices of the stores are in.
    """

    def short(missing: Iterable[Missing]) -> tuple[Missing, ...]:
        all_of_them = facts.PRICES_IN.missing(asked=cost.currency, kept=prices_in)
        return once(all_of_them if each.key == facts.PRICE.key else each for each in missing)

    def piece(row: PieceCost) -> PieceCost:
        return replace(row, missing=short(row.missing))

    return replace(cost, pieces=tuple(piece(each) for each in cost.pieces), missing=short(cost.missing))
