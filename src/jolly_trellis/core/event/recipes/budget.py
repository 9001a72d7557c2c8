"""A budget for the stems of one piece, split between premium stems and the rest: counts that reach a fullness."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.money import NOTHING, money, share, to_cent
from jolly_trellis.core.making.steps import FULLNESS_AIRY, FULLNESS_FULL
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import Phrase, phrase
from jolly_trellis.core.stems.shades import with_count

_NEAR = 0.05
_MOST = 400


@dataclass(frozen=True, slots=True, kw_only=True)
class Split:
    """A proposal: the recipe, what its stems cost, the share of that for premium stems, how full it is; what there is
    to say of it.
    """

    recipe: tuple[RecipeLine, ...]
    spent: Decimal
    premium_share: float
    fullness: float
    say: tuple[Phrase, ...]


def stem_price(variety: Variety) -> Decimal | None:
    """What one stem costs: a bunch's share, else a single one; nothing where nobody sells it; None not known."""
    if variety.gathered:
        return NOTHING
    if variety.bunch_price is not None:
        return money(variety.bunch_price) / variety.bunch_size
    return None if variety.stem_price is None else money(variety.stem_price)


def split_budget(
    recipe: Sequence[RecipeLine],
    varieties: Mapping[str, Variety],
    *,
    budget: Decimal,
    premium: float,
    surface_m2: float,
) -> Split:
    """Counts for the lines of a recipe: premium stems, those that are focal, for their share of the budget, largest
    heads first; then the rest, in the proportions the recipe has; no more flowers than make it full.

    Args:
        varieties: those of the recipe, by key. budget: for the stems of one piece, > 0. premium: share, 0 to 1.
        surface_m2: of the size that is wanted, as `place.fullness` has it.
    Raises: InvalidMeasure: there is nothing to split, or nothing to split it between, or a price is not known.
    Source: common practice, no source; fullness by heads' area over surface.
    """
    _check(recipe, varieties, budget)
    prices = [stem_price(varieties[line.variety]) or NOTHING for line in recipe]
    heads = [_head_m2(varieties[line.variety]) for line in recipe]
    dear = [index for index, line in enumerate(recipe) if line.role == "focal"]
    rest = [index for index in range(len(recipe)) if index not in dear]
    counts = [0] * len(recipe)
    room = FULLNESS_FULL.value * surface_m2
    for group, purse in ((dear, budget * share(premium)), (rest, budget)):
        spent = NOTHING if group is dear else _cost(counts, prices)
        order = sorted(group, key=lambda index: (-heads[index], index))
        while True:
            fits = [
                index
                for index in order
                if spent + prices[index] <= purse
                and counts[index] < _MOST
                and (heads[index] == 0 or _area(counts, heads) + heads[index] <= room)
                and (prices[index] > 0 or counts[index] < recipe[index].count)
                and (heads[index] > 0 or not _is_full(counts, heads, room) or _behind(index, counts, heads, recipe))
            ]
            if not fits:
                break
            index = min(fits, key=lambda each: (counts[each] / recipe[each].count, order.index(each)))
            counts[index] += 1
            spent += prices[index]
    whole, own = _cost(counts, prices), sum((counts[index] * prices[index] for index in dear), NOTHING)
    of_premium = float(own / whole) if whole else 0.0
    fullness = _area(counts, heads) / surface_m2
    lines = [with_count(line, counts[index]) for index, line in enumerate(recipe) if counts[index]]
    return Split(
        recipe=tuple(lines),
        spent=to_cent(whole),
        premium_share=of_premium,
        fullness=fullness,
        say=tuple(_said(recipe, varieties, counts, budget - whole, of_premium, premium, fullness, bool(dear))),
    )


def _check(recipe: Sequence[RecipeLine], varieties: Mapping[str, Variety], budget: Decimal) -> None:
    if budget <= 0:
        raise InvalidMeasure(
            path="budget",
            message=phrase("A budget of nothing buys no stems."),
            limit=phrase("Type what the stems of one piece may cost, such as 40."),
        )
    if not recipe:
        raise InvalidMeasure(
            path="budget",
            message=phrase("There are no varieties to split it between."),
            limit=phrase("Name them in the recipe first, with any counts."),
        )
    for line in recipe:
        variety = varieties[line.variety]
        if stem_price(variety) is None:
            raise InvalidMeasure(
                path="budget",
                message=phrase("No price is known for {name}.", name=variety.name),
                limit=phrase("Give its price in the stores."),
            )


def _head_m2(variety: Variety) -> float:
    return 0.0 if variety.form == "leaf" else math.pi * (variety.head_diameter_m / 2) ** 2 * variety.heads


def _cost(counts: Sequence[int], prices: Sequence[Decimal]) -> Decimal:
    return sum((count * price for count, price in zip(counts, prices, strict=True)), NOTHING)


def _area(counts: Sequence[int], heads: Sequence[float]) -> float:
    return sum(count * head for count, head in zip(counts, heads, strict=True))


def _is_full(counts: Sequence[int], heads: Sequence[float], room: float) -> bool:
    least = min((each for each in heads if each > 0), default=math.inf)
    return math.isfinite(least) and _area(counts, heads) + least > room


def _behind(index: int, counts: Sequence[int], heads: Sequence[float], recipe: Sequence[RecipeLine]) -> bool:
    """Whether greens are behind the flowers by the proportions of the recipe."""
    most = max((counts[at] / recipe[at].count for at in range(len(recipe)) if heads[at] > 0), default=math.inf)
    return counts[index] / recipe[index].count < most


def _said(
    recipe: Sequence[RecipeLine],
    varieties: Mapping[str, Variety],
    counts: Sequence[int],
    unspent: Decimal,
    of_premium: float,
    premium: float,
    fullness: float,
    has_premium: bool,
) -> list[Phrase]:
    found = []
    out = [varieties[line.variety].name for index, line in enumerate(recipe) if not counts[index]]
    if out:
        found.append(phrase("Not one of these fits into the budget: {names}.", names=", ".join(out)))
    if not has_premium:
        found.append(phrase("No line is focal: all of it goes to the rest."))
    elif abs(of_premium - premium) > _NEAR and fullness < FULLNESS_FULL.value - _NEAR:
        words = "Premium stems take {own} of it, {asked} was asked: whole stems come no nearer."
        found.append(phrase(words, own=f"{of_premium:.0%}", asked=f"{premium:.0%}"))
    if fullness < FULLNESS_AIRY.value:
        words = (
            "It is airy: heads fill {full} of the size wanted, {usual} is usual from. A smaller piece, or more money."
        )
        found.append(phrase(words, full=f"{fullness:.0%}", usual=f"{FULLNESS_AIRY.value:.0%}"))
    elif unspent > 0 and fullness > FULLNESS_FULL.value - _NEAR:
        found.append(phrase("It is full: {left} of the budget is left over.", left=f"{to_cent(unspent)}"))
    return found
