"""Buying stems: by the bunch, by the stem, or bunches and a few single stems, whichever costs least."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from decimal import Decimal

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.money import NOTHING, money, to_cent
from jolly_trellis.core.event.needs.needed import StemNeed
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.quantities import phrase, worded


@dataclass(frozen=True, slots=True, kw_only=True)
class ShadeBuy:
    """How one shade of a variety is bought: an empty name is the variety's own colour. Costs None: no price known."""

    shade: str
    with_waste: int
    bunches: int
    singles: int
    cost: Decimal | None
    singles_cost: Decimal | None


@dataclass(frozen=True, slots=True, kw_only=True)
class StemBuy:
    """How one variety is bought: stems in the recipes, with waste, here already; bunches and single stems; the cost.

    `cost` is of what is bought, `here_cost` of what is here and used, at what a stem of it costs; None where no price
    is known; `singles_cost` is what of `cost` the single stems are; `left_over` is what is bought beyond the recipes.
    Shades are bought apart, in bunches of their own: `shades` has them all, empty where the variety has none; what the
    stores have is taken to be of its own colour. What `keeps` is bought when it suits, what is `gathered` nowhere.
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
    shades: tuple[ShadeBuy, ...] = ()
    keeps: bool = False
    gathered: bool = False

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
    counts: dict[str, dict[str, int]] = {}
    names: dict[str, str] = {}
    for each in stems:
        own = counts.setdefault(each.variety, {})
        for shade, number in each.shades or (("", each.count),):
            key = names.setdefault(shade.casefold(), shade)
            own[key] = own.get(key, 0) + number
    rows = []
    for key, shades in counts.items():
        variety = varieties.get(key)
        if variety is None:
            continue
        bunch = None if variety.bunch_price is None else money(variety.bunch_price)
        stem = None if variety.stem_price is None else money(variety.stem_price)
        used_here = min(here.get(key, 0), stems_with_waste(shades.get("", 0), waste))
        apart = tuple(
            _shade(shade, number, used_here if shade == "" else 0, variety, (bunch, stem), waste)
            for shade, number in shades.items()
        )
        count, wanted = sum(shades.values()), sum(each.with_waste for each in apart)
        bunches, singles = (sum(getattr(each, name) for each in apart) for name in ("bunches", "singles"))
        a_stem = bunch / variety.bunch_size if bunch is not None else stem
        a_stem = NOTHING if variety.gathered else a_stem
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
                cost=_sum(each.cost for each in apart),
                singles_cost=_sum(each.singles_cost for each in apart),
                here_cost=NOTHING if used_here == 0 else None if a_stem is None else to_cent(a_stem * used_here),
                left_over=max(bunches * variety.bunch_size + singles + here.get(key, 0) - count, 0),
                shades=apart if set(shades) != {""} else (),
                keeps=variety.lasting,
                gathered=variety.gathered,
            )
        )
    return tuple(sorted(rows, key=lambda row: row.name))


def _shade(
    shade: str,
    number: int,
    here: int,
    variety: Variety,
    prices: tuple[Decimal | None, Decimal | None],
    waste: float,
) -> ShadeBuy:
    bunch, stem = prices
    wanted = stems_with_waste(number, waste)
    if variety.gathered:
        left = max(wanted - here, 0)
        return ShadeBuy(shade=shade, with_waste=wanted, bunches=0, singles=left, cost=NOTHING, singles_cost=NOTHING)
    bunches, singles, cost = cheapest(max(wanted - here, 0), variety.bunch_size, bunch, stem)
    return ShadeBuy(
        shade=shade,
        with_waste=wanted,
        bunches=bunches,
        singles=singles,
        cost=cost,
        singles_cost=None if stem is None and singles else singles * (stem or NOTHING),
    )


def _sum(amounts: Iterable[Decimal | None]) -> Decimal | None:
    """A sum; None where one of it is not known."""
    total = NOTHING
    for each in amounts:
        if each is None:
            return None
        total += each
    return total


def shades_in_words(stem: StemBuy) -> str:
    """What is bought of each shade: "white 2 bunches, blush 1 bunch and 4 stems"."""
    found = []
    for each in stem.shades:
        words = "{shade} nothing"
        if each.bunches and each.singles:
            words = "{shade} {bunches} {bunches|bunch|bunches} and {stems} {stems|stem|stems}"
        elif each.bunches:
            words = "{shade} {bunches} {bunches|bunch|bunches}"
        elif each.singles:
            words = "{shade} {stems} {stems|stem|stems}"
        shade = each.shade or worded("its own colour")
        found.append(worded(words, shade=shade, bunches=each.bunches, stems=each.singles))
    return ", ".join(found)
