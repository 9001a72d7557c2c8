"""Recipe tools: a proven recipe at another size, side shoots, tall and low, lasting work against fresh."""

import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.money import to_cent
from jolly_trellis.core.event.needs.needed import StemNeed
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import Phrase, length, phrase
from jolly_trellis.core.stems.shades import with_count

ScaleBy = Literal["length", "area", "diameter", "count"]
MOST_STEMS = 400
FRESH_DAYS = rule("Fresh work is renewed every, days", "count", 7, COMMON_PRACTICE)
LASTING_MONTHS = measure("Dried and preserved work lasts, months", "count", 18)
DRIED_PRICE = measure("A dried or preserved stem against a fresh one, price", "ratio", 2.0)
SETTLING = rule("Lasting work settles: stems added so that it still looks full", "ratio", 0.1, COMMON_PRACTICE)
INSPECTED_EVERY = rule("Lasting work that hangs is inspected every, months", "count", 3, COMMON_PRACTICE)
DAYS_IN_MONTH = Decimal("30.4375")


@dataclass(frozen=True, slots=True, kw_only=True)
class SideShoots:
    """Side shoots that a variety yields over an event, and how many of them are planned as stems."""

    variety: str
    name: str
    stems: int
    shoots: int
    planned: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Mix:
    """Tall pieces and low ones for so many tables, and what keeps the tall ones from being more."""

    tall: int
    low: int
    limited_by: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Lasting:
    """Lasting work against fresh: stems with what settles, cost of each, cost a month, the month it pays from (None:
    not within its life), and how often it is inspected.
    """

    stems: int
    fresh_each: Decimal
    fresh_a_month: Decimal
    lasting_once: Decimal
    lasting_a_month: Decimal
    pays_from_month: Decimal | None
    months: int
    inspections: int


def scale_factor(by: ScaleBy, was_m: float, now_m: float) -> float:
    """How many times the stems: in proportion to a length, an area or a number, to the square of a diameter.

    Args:
        by: what the two sizes are; areas are in m².
        was_m, now_m: sizes of the proven and of the new piece, > 0.
    Raises: InvalidMeasure: a size of nothing.
    Source: stems cover a length or an area evenly.
    """
    for field, value in (("was_m", was_m), ("now_m", now_m)):
        if not value > 0:
            raise InvalidMeasure(
                path=field,
                message=phrase("A recipe cannot be scaled by {v}.", v=length(value)),
                limit=phrase("Give a size of more than nothing."),
            )
    return (now_m / was_m) ** 2 if by == "diameter" else now_m / was_m


def scaled(recipe: tuple[RecipeLine, ...], factor: float) -> tuple[RecipeLine, ...]:
    """A recipe times a factor: whole stems, none of its varieties lost, the total kept by the largest remainders.

    Raises: InvalidMeasure: more stems of one line than a piece takes.
    """
    if not recipe:
        return ()
    exact = [line.count * factor for line in recipe]
    counts = [max(1, math.floor(each + 1e-9)) for each in exact]
    odd = max(round(sum(exact)), len(recipe)) - sum(counts)
    order = sorted(range(len(exact)), key=lambda index: (counts[index] - exact[index], index))
    for index in order[: max(odd, 0)]:
        counts[index] += 1
    if max(counts) > MOST_STEMS:
        raise InvalidMeasure(
            path="now_m",
            message=phrase("That makes {max} stems of one variety.", max=max(counts)),
            limit=phrase("A piece takes {most_stems} of one; make two pieces of it.", most_stems=MOST_STEMS),
        )
    return tuple(with_count(line, count) for line, count in zip(recipe, counts, strict=True))


def side_shoots(
    stems: tuple[StemNeed, ...], varieties: Mapping[str, Variety], shoots: tuple[StemNeed, ...] = ()
) -> tuple[SideShoots, ...]:
    """Side shoots to cut and save from what is bought anyway, most first: they fill the rim low down.

    Args:
        shoots: those that are planned as stems.
    Source: side shoots a stem as each variety says.
    """
    planned: dict[str, int] = {}
    for each in shoots:
        planned[each.variety] = planned.get(each.variety, 0) + each.count
    counts: dict[str, int] = {}
    for each in stems:
        counts[each.variety] = counts.get(each.variety, 0) + each.count
    found = [
        SideShoots(
            variety=key,
            name=varieties[key].name,
            stems=counts.get(key, 0),
            shoots=counts.get(key, 0) * varieties[key].side_shoots,
            planned=planned.get(key, 0),
        )
        for key in dict.fromkeys((*counts, *planned))
        if key in varieties and (varieties[key].side_shoots or key in planned)
    ]
    return tuple(sorted(found, key=lambda each: (-each.shoots, each.name)))


def too_few_shoots(found: Iterable[SideShoots]) -> Iterator[Phrase]:
    """Side shoots that are planned and that no stem of the event gives, in words."""
    for each in found:
        if each.planned > each.shoots:
            yield phrase(
                "{name}: {planned} side {planned|shoot|shoots} {planned|is|are} planned, its {stems} "
                "{stems|stem gives|stems give} {shoots}. Plan fewer, or buy more stems.",
                name=each.name,
                planned=each.planned,
                stems=each.stems,
                shoots=each.shoots,
            )


def tall_and_low(
    *, tables: int, stands: int, places_in_van: int, hands: int, minutes_each: float, minutes_there_are: float
) -> Mix:
    """How many tables get a tall piece: no more than stands, room in the van, and what the hands place in time.

    Args:
        tables: to be dressed, ≥ 0. stands: to put tall pieces on. places_in_van: for tall pieces, standing.
        hands: that place them, in pairs. minutes_each: to place one, by two. minutes_there_are: between access and
            guests.
    Source: two hands place a tall piece (common practice).
    """
    pairs = hands // 2
    # No more is asked of the hands than there are tables, however little time one takes.
    enough = minutes_each * tables <= pairs * minutes_there_are
    by_hands = tables if enough else int(pairs * minutes_there_are // minutes_each)
    limits = [
        (tables, "every table has one"),
        (stands, "the stands there are"),
        (places_in_van, "the van's standing room"),
        (by_hands, "hands and the time between access and guests"),
    ]
    tall, why = min(limits, key=lambda each: each[0])
    return Mix(tall=tall, low=max(tables - tall, 0), limited_by=why)


def lasting(
    *, stems: int, fresh_stems_cost: Decimal, other_cost: Decimal, labour: Decimal, months: int | None = None
) -> Lasting:
    """A piece of dried and preserved stems against one of fresh stems that is renewed.

    Args:
        stems: of the piece. fresh_stems_cost: of its fresh stems. other_cost: of mechanics and consumables.
        labour: of making it once.
        months: how long it stands; None the usual life of lasting work.
    Source: how long each keeps and the price of dried stems are shown with the figures of the method.
    """
    life = round(LASTING_MONTHS.value) if months is None else months
    fresh = fresh_stems_cost + other_cost + labour
    a_month = to_cent(fresh * DAYS_IN_MONTH / Decimal(str(FRESH_DAYS.value)))
    more = Decimal(str(1 + SETTLING.value))
    once = to_cent(fresh_stems_cost * Decimal(str(DRIED_PRICE.value)) * more + other_cost + labour * more)
    per_month = to_cent(once / life)
    pays = None
    if a_month > 0 and once <= a_month * life:
        pays = (once / a_month).quantize(Decimal("0.1"))
    return Lasting(
        stems=math.ceil(stems * (1 + SETTLING.value) - 1e-9),
        fresh_each=to_cent(fresh),
        fresh_a_month=a_month,
        lasting_once=once,
        lasting_a_month=per_month,
        pays_from_month=pays,
        months=life,
        inspections=life // round(INSPECTED_EVERY.value),
    )
