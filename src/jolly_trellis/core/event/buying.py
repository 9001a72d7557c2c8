"""Buying stems: by the bunch, by the stem, or bunches and a few single stems, whichever costs least."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from decimal import Decimal

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.money import NOTHING, money, to_cent
from jolly_trellis.core.event.needs import StemNeed
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.quantities import phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class StemBuy:
    """How one variety is bought: stems in the recipes, with waste, here already; bunches and single stems; the cost.

    `cost` is of what is bought, `here_cost` of what is here and used, at what a stem of it costs; None where no price
    is known; `singles_cost` is what of `cost` the single stems are; `left_over` is what is bought beyond the recipes.
    """

    variety: str
    name: str
    colour: str
    in_recipes: int
    with_waste: int
    here: int
    bunch_size: int
    bunches: int
    singles: int
    cost: Decimal | None
    left_over: int
    here_cost: Decimal | None = NOTHING
    singles_cost: Decimal | None = NOTHING

    @property
    def stems(self) -> int:
        """Stems that are conditioned: bought, and here and used."""
        return self.bunches * self.bunch_size + self.singles + self.here

    @property
    def full_cost(self) -> Decimal | None:
        """What all of it costs, bought or here; None where no price is known."""
        return None if self.cost is None or self.here_cost is None else self.cost + self.here_cost


def stems_with_waste(count: int, waste: float) -> int:
    """Stems to have for a recipe: count × (1 + waste), up to a whole stem. Source: definition."""
    return math.ceil(count * (1 + waste) - 1e-9)


def cheapest(
    count: int, bunch_size: int, bunch: Decimal | None, stem: Decimal | None
) -> tuple[int, int, Decimal | None]:
    """(bunches, single stems, cost) that give so many stems at least cost; bunches alone where nothing is priced.

    Args:
        count: stems to buy, ≥ 0.
        bunch_size: stems in a bunch, ≥ 1.
        bunch, stem: prices; None where it is not sold so, or the price is not known.
    Raises: InvalidMeasure: a bunch of no stems.
    Source: all numbers of bunches are tried.
    """
    if bunch_size < 1:
        raise InvalidMeasure(
            path="bunch_size",
            message=phrase("A bunch of no stems cannot be bought."),
            limit=phrase("Give how many stems a bunch has, 1 at least."),
        )
    if count == 0:
        return 0, 0, NOTHING
    most = math.ceil(count / bunch_size)
    if bunch is None and stem is None:
        return most, 0, None
    ways: list[tuple[Decimal, int, int]] = []
    for bunches in range(most + 1) if bunch is not None else (0,):
        singles = max(count - bunches * bunch_size, 0)
        if singles and stem is None:
            continue
        cost = bunches * (bunch or NOTHING) + singles * (stem or NOTHING)
        ways.append((cost, singles, bunches))
    cost, singles, bunches = min(ways)
    return bunches, singles, cost


def buy_stems(
    stems: Iterable[StemNeed], varieties: Mapping[str, Variety], *, waste: float, here: Mapping[str, int]
) -> tuple[StemBuy, ...]:
    """Buy every variety of an event together, by name; what the stores have is not bought again.

    A variety that is not in `varieties` is in no line; shopping names it.

    Args:
        waste: share bought beyond the recipes, ≥ 0.
        here: stems in the stores by variety.
    """
    counts: dict[str, int] = {}
    for each in stems:
        counts[each.variety] = counts.get(each.variety, 0) + each.count
    rows = []
    for key, count in counts.items():
        variety = varieties.get(key)
        if variety is None:
            continue
        wanted = stems_with_waste(count, waste)
        to_buy = max(wanted - here.get(key, 0), 0)
        bunch = None if variety.bunch_price is None else money(variety.bunch_price)
        stem = None if variety.stem_price is None else money(variety.stem_price)
        bunches, singles, cost = cheapest(to_buy, variety.bunch_size, bunch, stem)
        bought = bunches * variety.bunch_size + singles
        used_here = min(here.get(key, 0), wanted)
        a_stem = bunch / variety.bunch_size if bunch is not None else stem
        rows.append(
            StemBuy(
                variety=key,
                name=variety.name,
                colour=variety.colour,
                in_recipes=count,
                with_waste=wanted,
                here=used_here,
                bunch_size=variety.bunch_size,
                bunches=bunches,
                singles=singles,
                cost=cost,
                singles_cost=None if stem is None and singles else singles * (stem or NOTHING),
                here_cost=NOTHING if used_here == 0 else None if a_stem is None else to_cent(a_stem * used_here),
                left_over=max(bought + here.get(key, 0) - count, 0) if to_buy else here.get(key, 0) - count,
            )
        )
    return tuple(sorted(rows, key=lambda row: row.name))
