"""Shopping and packing: what is bought and from whom, what goes along, water and jugs, and the emergency kit."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date
from decimal import Decimal
from typing import Literal

from jolly_trellis.core.event.buying.packing import Pack, packing
from jolly_trellis.core.event.buying.seasons import out_of_season
from jolly_trellis.core.event.cutting.roll import CutPlan
from jolly_trellis.core.event.cutting.roll_problems import Larder, MaterialPlan
from jolly_trellis.core.event.job import Job, Made
from jolly_trellis.core.event.keys import line_key
from jolly_trellis.core.event.money import money
from jolly_trellis.core.event.needs.bunches import StemBuy, buy_stems
from jolly_trellis.core.event.needs.hires import hire_cost, hired
from jolly_trellis.core.event.needs.needed import Needs
from jolly_trellis.core.event.needs.shelves import Shelves
from jolly_trellis.core.event.tasks.purchases import purchases_of
from jolly_trellis.core.event.tasks.water_rounds import WaterRounds
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.materials.supplies import Supply
from jolly_trellis.core.quantities import Phrase, Quantity, count, length, mass, phrase

Group = Literal["market", "sundries", "hardware", "rigging", "frogs", "vessels", "hired", "finished"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Buy:
    """One line to buy: from whom, what, how much is needed with spares, what is here, packs to buy, their price.

    `price` is None where no price is known. `pack` says what one pack is; of what is hired it says from whom
    and for how long. `here` is what the stores have of it, or what is hired, `hired` how many of those.
    """

    group: Group
    key: str
    name: str
    needed: Quantity
    here: Quantity
    packs: int
    pack: Phrase
    price: Decimal | None
    notes: tuple[Phrase, ...] = ()
    hired: int = 0


KEEPS = "Dried, preserved and artificial"
ONE = phrase("one")
LOOK_OVER = phrase("worn: look them over")


@dataclass(frozen=True, slots=True, kw_only=True)
class Trip:
    """Stems that are fetched from one supplier on one day: which varieties, and what they cost; None a price is not
    known. `day` is None without the event's times.
    """

    supplier: str
    day: date | None
    varieties: tuple[str, ...]
    cost: Decimal | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Shopping:
    """Everything to buy and to pack. `trips` are the days and suppliers that stems are fetched from, the first first;
    what is here already is in none. `cost` adds up what has a price, `unpriced` names what has none.

    `left_out` says what the event needs and is in no line, and why; `questions` what is to be asked before buying.
    """

    stems: tuple[StemBuy, ...]
    trips: tuple[Trip, ...]
    buys: tuple[Buy, ...]
    packs: tuple[Pack, ...]
    cost: Decimal
    unpriced: tuple[str, ...]
    water_l: float
    left_out: tuple[Phrase, ...]
    questions: tuple[Phrase, ...] = ()


def shopping(
    job: Job,
    made: Made,
    needs: Needs,
    cuts: CutPlan,
    larder: Larder,
    shelves: Shelves,
    varieties: Mapping[str, Variety],
    water: WaterRounds,
    cut: Sequence[MaterialPlan] = (),
) -> Shopping:
    """Gather what an event buys and packs; what the stores have is taken off.

    Args:
        cut: the plans by which materials were cut already: what they took was bought then.

    Source: sums of what each piece needs; spares as each supply says; kit and tools are common practice.
    """
    stems = buy_stems(needs.stems, varieties, waste=job.costing.waste, here=shelves.stems_here)
    buys = [*_netting(cuts, cut, larder), *_supplies(job, needs, cuts, cut, larder)]
    buys += [*_frogs(needs, shelves), *_things(job, needs, shelves), *_hired(job), *_finished(needs, shelves)]
    to_buy = [each for each in buys if each.packs]
    priced = [each.price for each in to_buy if each.price is not None]
    priced += [each.cost for each in stems if each.cost is not None]
    unpriced = [each.name for each in to_buy if each.price is None] + [
        each.name for each in stems if each.cost is None
    ]
    return Shopping(
        stems=stems,
        trips=tuple(_trips(job, made, stems, varieties)),
        buys=tuple(buys),
        packs=packing(job, made, needs, stems, larder, varieties, water),
        cost=sum(priced, Decimal("0.00")),
        unpriced=tuple(unpriced),
        water_l=water.total_l,
        left_out=(*cuts.left_out, *_unknown(needs, varieties)),
        questions=tuple(out_of_season(job, needs.stems, varieties)),
    )


def _trips(job: Job, made: Made, stems: tuple[StemBuy, ...], varieties: Mapping[str, Variety]) -> Iterator[Trip]:
    """Purchases of the book of time, one trip for each supplier and day; what keeps is ordered once, for no day."""
    costs = {each.variety: each.cost for each in stems}
    trips: dict[tuple[str, date | None], list[str]] = {}
    for purchase in purchases_of(job, made, stems, varieties):
        trips.setdefault((purchase.supplier.name, purchase.day), []).extend(purchase.varieties)
    keeping = sorted(each.variety for each in stems if each.keeps and each.bunches + each.singles)
    if keeping:
        trips[KEEPS, None] = keeping
    for (supplier, day), keys in trips.items():
        own = [costs[key] for key in keys]
        known = [each for each in own if each is not None]
        cost = sum(known, Decimal("0.00")) if len(known) == len(own) else None
        yield Trip(supplier=supplier, day=day, varieties=tuple(sorted(keys)), cost=cost)


def _unknown(needs: Needs, varieties: Mapping[str, Variety]) -> Iterator[Phrase]:
    for key in dict.fromkeys(each.variety for each in needs.stems if each.variety not in varieties):
        number = sum(each.count for each in needs.stems if each.variety == key)
        yield phrase(
            "{number} × {key}: the stores do not know this variety. Add it to the stores.", number=number, key=key
        )


def _open(cuts: CutPlan, cut: Sequence[MaterialPlan]) -> Iterator[MaterialPlan]:
    """The plans of what is still to be cut."""
    done = {(each.material, each.key, each.nth) for each in cut}
    yield from (each for each in cuts.materials if (each.material, each.key, each.nth) not in done)


def _netting(cuts: CutPlan, cut: Sequence[MaterialPlan], larder: Larder) -> Iterator[Buy]:
    still = {each.key: each for each in _open(cuts, cut) if each.material == "netting"}
    for key in dict.fromkeys(each.key for each in cuts.materials if each.material == "netting"):
        net, plan = larder.nettings[key], still.get(key)
        done = [each for each in cut if (each.material, each.key) == ("netting", key)]
        before = sum(stock.used_m for each in done for stock in each.stocks)
        used = 0.0 if plan is None else sum(each.used_m for each in plan.stocks)
        bought = 0.0 if plan is None else sum(each.used_m for each in plan.stocks if each.source == "to buy")
        packs = 0 if plan is None else plan.to_buy
        notes: list[Phrase] = []
        if before:
            notes.append(phrase("cut already") if plan is None else phrase("{m} cut already", m=length(before)))
        lacks = () if plan is None else plan.missing
        notes += [phrase("{what} cannot be cut", what=each.text.split(":")[0]) for each in lacks]
        price = None if net.price is None else packs * money(net.price)
        yield Buy(
            group="hardware",
            key=key,
            name=net.name,
            needed=length(before + used),
            here=length(before + used - bought),
            packs=packs,
            pack=phrase("roll of {long}, {wide} wide", long=length(net.roll_length_m), wide=length(net.roll_width_m)),
            price=price if packs else Decimal("0.00"),
            notes=tuple(notes),
        )


def _supplies(job: Job, needs: Needs, cuts: CutPlan, cut: Sequence[MaterialPlan], larder: Larder) -> Iterator[Buy]:
    """Every supply with its spare, less what is here; cut ones by the cut plan, less what is cut already."""
    amounts: dict[str, float] = {}
    for each in needs.supplies:
        amounts[each.supply] = amounts.get(each.supply, 0.0) + each.amount
    for need in needs.lengths:
        amounts[need.supply] = amounts.get(need.supply, 0.0) + need.length_m * need.quantity
    done: dict[str, float] = {}
    for plan in cut:
        if plan.material == "supply":
            metres = sum(item.length_m * item.quantity for item in plan.items)
            done[plan.key] = done.get(plan.key, 0.0) + metres
    bought = {plan.key: plan.to_buy for plan in _open(cuts, cut) if plan.material == "supply"}
    for key, whole in amounts.items():
        supply, before = larder.supplies.get(key), done.get(key, 0.0)
        if supply is None:
            yield Buy(
                group="sundries",
                key=key,
                name=key,
                needed=count(whole),
                here=count(0),
                packs=1,
                pack=phrase("not in the stores"),
                price=None,
                notes=(phrase("add it to the stores with its pack and price"),),
            )
            continue
        packs_here = larder.packs.get(key, 0)
        if key == "bucket" and job.buckets is not None:
            packs_here = job.buckets
        left = max(whole - before, 0.0)
        line = _supply(supply, left, bought.get(key, 0), packs_here, larder)
        if key == "bucket":
            line = replace(line, notes=(phrase("when all stems stand at once"),))
        if before:
            noted = phrase("cut already") if left < 1e-9 else phrase("some of it cut already")
            needed = length(before + line.needed.value)
            line = replace(line, needed=needed, here=length(before + line.here.value), notes=(noted,))
        yield line


def _supply(supply: Supply, amount: float, cut: int, packs_here: int, larder: Larder) -> Buy:
    with_spare = amount * (1 + supply.spare)
    stick = supply.stick_m or 1.0
    holds = supply.pack * stick if supply.measured_by == "stick" else supply.pack
    rest = sum(each.length_m for each in larder.supply_remnants if each.key == supply.key)
    here = packs_here * holds + rest
    packs = math.ceil(max(with_spare - here, 0.0) / holds - 1e-9)
    if supply.measured_by == "stick":
        packs = max(packs, math.ceil(cut * (1 + supply.spare) / supply.pack - 1e-9))
    elif supply.measured_by == "length":
        packs = max(packs, cut)
    price = None if supply.price is None else packs * money(supply.price)
    return Buy(
        group=supply.supplier,
        key=supply.key,
        name=supply.name,
        needed=_amount(supply, with_spare),
        here=_amount(supply, min(here, with_spare)),
        packs=packs,
        pack=_pack_words(supply),
        price=price,
        notes=(phrase("with {n} % spare", n=round(supply.spare * 100)),) if supply.spare else (),
    )


def _amount(supply: Supply, value: float) -> Quantity:
    match supply.measured_by:
        case "piece":
            return count(math.ceil(value - 1e-9))
        case "mass":
            return mass(value)
        case _:
            return length(value)


def _pack_words(supply: Supply) -> Phrase:
    match supply.measured_by:
        case "piece":
            return ONE if supply.pack == 1 else phrase("pack of {n}", n=f"{supply.pack:g}")
        case "mass":
            return phrase("pack of {m}", m=mass(supply.pack))
        case "stick":
            each = length(supply.stick_m or 0.0)
            if supply.pack > 1:
                return phrase("bundle of {n}, each {long}", n=f"{supply.pack:g}", long=each)
            return phrase("{long}", long=each)
        case "length":
            return phrase("spool of {long}", long=length(supply.pack))


def _frogs(needs: Needs, shelves: Shelves) -> Iterator[Buy]:
    wanted: dict[str, int] = {}
    for each in needs.frogs:
        wanted[each.frog] = wanted.get(each.frog, 0) + each.quantity
    for key, number in wanted.items():
        frog = shelves.frogs.get(key)
        here = shelves.frogs_here.get(key, 0)
        packs = max(number - here, 0)
        price = None if frog is None or frog.price is None else packs * money(frog.price)
        yield Buy(
            group="frogs",
            key=key,
            name=frog.name if frog is not None else key,
            needed=count(number),
            here=count(min(here, number)),
            packs=packs,
            pack=ONE,
            price=price,
        )


def _things(job: Job, needs: Needs, shelves: Shelves) -> Iterator[Buy]:
    """Vessels and stands: what the stores have none of, and nobody has hired, is bought."""
    wanted: dict[tuple[str, str], int] = {}
    names: dict[tuple[str, str], str] = {}
    for each in needs.things:
        if each.kind != "armature":
            wanted[each.kind, each.thing] = wanted.get((each.kind, each.thing), 0) + each.quantity
            names.setdefault((each.kind, each.thing), each.name)
    by_hire = hired(job.hires)
    for (kind, thing), number in wanted.items():
        kept = (shelves.vessels if kind == "vessel" else shelves.stands).get(thing)
        here = 0 if kept is None else kept.here
        from_others = min(by_hire.get(thing, 0), number)
        by_hire[thing] = by_hire.get(thing, 0) - from_others
        short = max(number - from_others - here, 0)
        price = None if kept is None or kept.price is None else short * kept.price
        notes = [phrase("{n} hired", n=from_others)] if 0 < from_others < number else []
        notes += [phrase("hire, buy, or count into the stores")] if short else []
        notes += [LOOK_OVER] if kept is not None and kept.worn else []
        yield Buy(
            group="vessels",
            key=line_key(kind, thing),
            name=names[kind, thing],
            needed=count(number),
            here=count(min(here, number - from_others) + from_others),
            packs=short,
            pack=ONE,
            price=price if short else Decimal("0.00"),
            notes=tuple(notes),
            hired=from_others,
        )


def _hired(job: Job) -> Iterator[Buy]:
    for place, each in enumerate(job.hires):
        comes, back = date.fromisoformat(each.comes), date.fromisoformat(each.goes_back)
        yield Buy(
            group="hired",
            key=f"hire-{place + 1}",
            name=each.name,
            needed=count(each.number),
            here=count(0),
            packs=each.number,
            pack=phrase(
                "from {lender}, {comes} to {back}", lender=each.lender, comes=f"{comes:%d %b}", back=f"{back:%d %b}"
            ),
            price=hire_cost(each),
        )


def _finished(needs: Needs, shelves: Shelves) -> Iterator[Buy]:
    """Finished armatures that are used again; as many as are not here are to be made anew."""
    wanted: dict[str, int] = {}
    for each in needs.things:
        if each.kind == "armature":
            wanted[each.thing] = wanted.get(each.thing, 0) + each.quantity
    for key, number in wanted.items():
        armature, kept = shelves.armatures.get(key), shelves.armatures_kept.get(key)
        here = 0 if kept is None else kept.here
        notes = [phrase("{n} {n|is|are} not here: make them anew", n=number - here)] if here < number else []
        notes += [LOOK_OVER] if kept is not None and kept.worn else []
        yield Buy(
            group="finished",
            key=key,
            name=key if armature is None else armature.name,
            needed=count(number),
            here=count(min(here, number)),
            packs=0,
            pack=ONE,
            price=Decimal("0.00"),
            notes=tuple(notes),
        )
