"""The lines that a price is made of: stems, one use of what returns, mechanics, and what is used up."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from jolly_trellis.core.event import facts
from jolly_trellis.core.event.cutting.roll_problems import Larder
from jolly_trellis.core.event.job import Costing
from jolly_trellis.core.event.money import money, share, to_cent
from jolly_trellis.core.event.needs.needed import LengthNeed, Needs, SheetNeed
from jolly_trellis.core.event.needs.shelves import Shelves
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.materials.supplies import Supply
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.quantities import Phrase, Quantity, count, length, mass, phrase

Kind = Literal["stems", "mechanics", "vessels", "consumables", "labour"]


@dataclass(frozen=True, slots=True, kw_only=True)
class CostPart:
    """One line that a number is made of: of which kind, what, how it comes about, what it comes to."""

    kind: Kind
    name: str
    of: Phrase
    amount: Decimal


@dataclass(frozen=True, slots=True, kw_only=True)
class Stores:
    """What prices are taken from: what is cut, what is counted, varieties, and how the event reckons."""

    larder: Larder
    shelves: Shelves
    varieties: Mapping[str, Variety]
    costing: Costing


def stem_parts(needs: Needs, own: Mapping[str, Decimal | None], names: Mapping[str, str]) -> Iterator[CostPart]:
    """What the stems of each variety come to; one with no price is in no line.

    Args:
        own: the share of each variety, None without a price. names: of the varieties.
    """
    for key, cents in own.items():
        if cents is not None:
            number = sum(each.count for each in needs.stems if each.variety == key)
            of = phrase("{n} {n|stem|stems}, and the share of what is bought beyond", n=number)
            yield CostPart(kind="stems", name=names[key], of=of, amount=cents)


def vessel_parts(needs: Needs, shelves: Shelves, left: dict[str, int]) -> Iterator[CostPart | Missing]:
    """One use of each vessel and stand of a piece, or the price that is missing.

    Args:
        left: how many of each are hired and not used for a piece yet; hired ones are taken first.
    """
    for need in needs.things:
        if need.kind == "armature":
            continue
        by_hire = min(left.get(need.thing, 0), need.quantity)
        if by_hire:
            left[need.thing] -= by_hire
        number = need.quantity - by_hire
        if not number:
            continue
        kept = (shelves.vessels if need.kind == "vessel" else shelves.stands).get(need.thing)
        one = None if kept is None else kept.use_cost()
        if kept is None or one is None:
            at = need.name if kept is None else kept.key
            yield facts.PRICE.missing((need.kind, at), name=need.name)
            continue
        each = to_cent(one)
        of = phrase(
            "{n} at {each}, {price} over {uses} uses", n=number, each=f"{each}", price=f"{kept.price}", uses=kept.lasts
        )
        yield CostPart(kind="vessels", name=need.name, of=of, amount=each * number)


def _uses(costing: Costing, lasts: int) -> int:
    return lasts if costing.uses is None or lasts == 1 else costing.uses


def goods(needs: Needs, stores: Stores) -> tuple[list[CostPart], list[Missing]]:
    """Netting, frogs and whatever lasts, price ÷ uses; what is used up, spares in; and what has no price."""
    found: list[CostPart] = []
    missing: list[Missing] = []
    for need in _all_sheets(needs):
        net = stores.larder.nettings.get(need.netting)
        if net is None or net.price is None:
            name = net.name if net is not None else need.netting
            missing.append(facts.PRICE.missing(("netting", need.netting), name=name))
            continue
        metres = need.sheet.width_m * need.sheet.length_m * need.quantity / net.roll_width_m
        uses = _uses(stores.costing, need.uses)
        amount = to_cent(money(net.price) * share(metres / net.roll_length_m) / uses)
        words = "{l} of a roll of {roll} at {price}, used {uses} {uses|time|times}"
        of = phrase(words, l=length(metres), roll=length(net.roll_length_m), price=f"{money(net.price)}", uses=uses)
        found.append(CostPart(kind="mechanics", name=f"{need.name}, {net.name}", of=of, amount=amount))
    for frog_need in needs.frogs:
        frog = stores.shelves.frogs.get(frog_need.frog)
        if frog is None or frog.price is None:
            name = frog.name if frog is not None else frog_need.frog
            missing.append(facts.PRICE.missing(("frog", frog_need.frog), name=name))
            continue
        uses, number = _uses(stores.costing, frog_need.uses), frog_need.quantity
        each = to_cent(money(frog.price) / uses)
        of = phrase(
            "{n} at {each}, {price} over {uses} uses",
            n=number,
            each=f"{each}",
            price=f"{money(frog.price)}",
            uses=uses,
        )
        found.append(CostPart(kind="mechanics", name=frog.name, of=of, amount=each * number))
    for (key, lasts), amount_of in _supply_amounts(needs).items():
        supply = stores.larder.supplies.get(key)
        if supply is None or supply.price is None:
            name = supply.name if supply is not None else key
            missing.append(facts.PRICE.missing(("supply", key), name=name))
            continue
        uses = _uses(stores.costing, lasts)
        found.append(_supply_part(supply, amount_of, uses, lasts))
    return found, missing


def _all_sheets(needs: Needs) -> Iterator[SheetNeed]:
    """Sheets that are cut; those from finished armatures too, while each use is paid for as it comes."""
    yield from needs.sheets
    yield from (each for each in needs.reused if isinstance(each, SheetNeed) and each.uses > 1)


def _supply_part(supply: Supply, amount: float, uses: int, lasts: int) -> CostPart:
    holds = supply.pack * (supply.stick_m or 1.0) if supply.measured_by == "stick" else supply.pack
    taken = amount if lasts > 1 else amount * (1 + supply.spare)
    cost = to_cent(money(supply.price or 0.0) * Decimal(str(taken)) / Decimal(str(holds)) / uses)
    words = "{amount} of {holds} at {price}"
    if lasts > 1:
        words = "{amount} of {holds} at {price}, used {uses} {uses|time|times}"
    of = phrase(
        words,
        amount=_as_sold(supply, taken),
        holds=_as_sold(supply, holds),
        price=f"{money(supply.price or 0.0)}",
        uses=uses,
    )
    return CostPart(kind="mechanics" if lasts > 1 else "consumables", name=supply.name, of=of, amount=cost)


def _as_sold(supply: Supply, amount: float) -> Quantity:
    """So much of a supply, as it is measured."""
    if supply.measured_by == "piece":
        return count(round(amount, 2))
    return mass(amount) if supply.measured_by == "mass" else length(amount)


def _supply_amounts(needs: Needs) -> dict[tuple[str, int], float]:
    """How much of each supply is taken, apart for each number of uses."""
    amounts: dict[tuple[str, int], float] = {}

    def add(supply: str, uses: int, amount: float) -> None:
        amounts[supply, uses] = amounts.get((supply, uses), 0.0) + amount

    for need in needs.supplies:
        add(need.supply, need.uses, need.amount)
    reused = (each for each in needs.reused if isinstance(each, LengthNeed) and each.uses > 1)
    for each in (*needs.lengths, *reused):
        add(each.supply, each.uses, each.length_m * each.quantity)
    return amounts
