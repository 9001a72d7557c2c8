"""What each piece and the event cost, and what to ask, in decimal money to the cent."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from typing import get_args

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.time import TimeBook
from jolly_trellis.core.event import facts
from jolly_trellis.core.event.cost.cost_parts import CostPart, Kind, Stores, goods, stem_parts, vessel_parts
from jolly_trellis.core.event.cutting.roll_problems import Larder
from jolly_trellis.core.event.job import Costing, Job, Made, Work, name_of, quantity_of, recipe_of
from jolly_trellis.core.event.money import NOTHING, price_at_margin, share, shared_out, to_cent
from jolly_trellis.core.event.needs.bunches import StemBuy
from jolly_trellis.core.event.needs.hires import hire_cost, hired
from jolly_trellis.core.event.needs.needed import FOR_ALL, Needs
from jolly_trellis.core.event.needs.needs import by_part
from jolly_trellis.core.event.needs.shelves import Shelves
from jolly_trellis.core.event.needs.wear import stem_uses
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.missing import Missing, once
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import Phrase, phrase, worded

LEANER = rule("A leaner price band has of the stems", "ratio", 0.8, COMMON_PRACTICE)
RICHER = rule("A richer price band has of the stems", "ratio", 1.25, COMMON_PRACTICE)

NEEDS_NOTHING = Needs(sheets=(), lengths=(), supplies=(), frogs=(), stems=(), not_worked_out=())


@dataclass(frozen=True, slots=True, kw_only=True)
class PieceCost:
    """What one piece of the line-up costs, all of its quantity: by kind, in all, what to ask; and what is not known.

    `cost`, `price` and `margin`, what is kept of the price, are None while something is not known; `known` adds up
    what is. `price` is `price_each` times the quantity. `minutes` are of all hands: making, and its share of fetching,
    loading, driving, filling, striking. `parts` are the lines that each kind is the sum of.
    """

    piece_id: int
    name: str
    quantity: int
    stems: Decimal
    mechanics: Decimal
    vessels: Decimal
    consumables: Decimal
    minutes: int
    labour: Decimal | None
    breakage: Decimal
    overheads: Decimal
    known: Decimal
    cost: Decimal | None
    price: Decimal | None
    price_each: Decimal | None
    margin: Decimal | None
    missing: tuple[Missing, ...]
    parts: tuple[CostPart, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class CostLine:
    """What the job costs beside its pieces: what, how it comes about, its overheads, what it comes to, what to ask."""

    name: str
    of: Phrase
    amount: Decimal
    overheads: Decimal
    cost: Decimal
    price: Decimal


@dataclass(frozen=True, slots=True, kw_only=True)
class Band:
    """What would be asked, tax in, to the whole unit, with so much of the stems."""

    stems: float
    asked: Decimal


@dataclass(frozen=True, slots=True, kw_only=True)
class EventCost:
    """What an event costs: each piece, what is beside them, and the sums.

    `cost`, `price` and `asked` are None while something is not known; `known` adds up what is. `price` is without tax,
    `asked` with it. `unsaid` names what nobody has said the cost of and is in no sum: all are at the least then.
    `bands` are what fewer and more stems would come to.
    """

    currency: str
    pieces: tuple[PieceCost, ...]
    lines: tuple[CostLine, ...]
    stems: Decimal
    mechanics: Decimal
    vessels: Decimal
    consumables: Decimal
    labour: Decimal | None
    breakage: Decimal
    overheads: Decimal
    minutes: int
    known: Decimal
    cost: Decimal | None
    price: Decimal | None
    tax: Decimal | None
    asked: Decimal | None
    missing: tuple[Missing, ...]
    unsaid: tuple[str, ...]
    bands: tuple[Band, ...] = ()


def cost_of(
    made: Made,
    needs: Needs,
    bought: tuple[StemBuy, ...],
    larder: Larder,
    shelves: Shelves,
    varieties: Mapping[str, Variety],
    job: Job,
    book: TimeBook,
) -> EventCost:
    """Reckon an event up.

    Stems: what each variety costs, bought for the whole event or here, shared out over the pieces by their stems, to
    the cent. Mechanics: price ÷ uses. Vessels and stands: price less resale ÷ uses, those that are hired beside the
    pieces. Consumables: by what is used of them, spares in. Labour: every minute of the book of time, fetching,
    driving, hanging and striking too, at the mean rate of who works. Breakage is a share of the goods, overheads of
    all that; the vehicle, hires, what is for the whole event and what others take to deliver are beside the pieces.
    What is asked for a piece is rounded for one of it, so that the line is as many times that.

    Args:
        job: the job, with its costing, hires and crew. book: its tasks.

    Source: sums; prices of the stores.
    """
    costing = job.costing
    stems = _stems(needs, bought, varieties, shelves)
    minutes, rate = minutes_of(made, book), rate_of(job)
    stores = Stores(larder=larder, shelves=shelves, varieties=varieties, costing=costing)
    left = hired(job.hires)
    rows, parts = [], by_part(needs)
    for work in made.works:
        own = parts.get(work.id, NEEDS_NOTHING)
        vessels = list(vessel_parts(own, shelves, left))
        rows.append(_piece(work, own, stems.get(work.id, {}), vessels, stores, minutes[work.id], rate))
    sums, lacking = _beside(parts.get(FOR_ALL, NEEDS_NOTHING), job, stores)
    lines = tuple(_line(costing, *each) for each in sums)
    beside = sum((each.cost for each in lines), NOTHING)
    costs = [*(each.cost for each in rows), beside, *([None] if lacking else [])]
    price = _all([*(each.price for each in rows), *(each.price for each in lines), *([None] if lacking else [])])
    tax = None if price is None else to_cent(price * share(costing.tax))
    missing = once([*(each for row in rows for each in row.missing), *lacking])
    asked = None if price is None or tax is None else price + tax
    stems_cost = sum((each.stems for each in rows), NOTHING)
    return EventCost(
        currency=costing.currency,
        pieces=tuple(rows),
        lines=lines,
        stems=stems_cost,
        mechanics=sum((each.mechanics for each in rows), NOTHING),
        vessels=sum((each.vessels for each in rows), NOTHING),
        consumables=sum((each.consumables for each in rows), NOTHING),
        labour=_all([each.labour for each in rows]),
        breakage=sum((each.breakage for each in rows), NOTHING),
        overheads=sum([*(each.overheads for each in rows), *(each.overheads for each in lines)], NOTHING),
        minutes=sum(each.minutes for each in rows),
        known=sum((each.known for each in rows), NOTHING) + beside,
        cost=_all(costs),
        price=price,
        tax=tax,
        asked=asked,
        missing=missing,
        unsaid=tuple(_unsaid(job)) if rows else (),
        bands=() if asked is None or not stems_cost else tuple(_bands(asked, stems_cost, costing)),
    )


def _bands(asked: Decimal, stems: Decimal, costing: Costing) -> Iterator[Band]:
    """What fewer and more stems would be asked, everything on top of them in, to the whole unit."""
    on_top = (1 + share(costing.breakage)) * (1 + share(costing.overheads)) * (1 + share(costing.tax))
    for factor in (LEANER.value, 1.0, RICHER.value):
        more = price_at_margin(to_cent(stems * share(factor - 1) * on_top), costing.margin)
        yield Band(stems=factor, asked=(asked + more).quantize(Decimal(1), ROUND_HALF_UP))


_Sum = tuple[str, Phrase, Decimal]


def _line(costing: Costing, name: str, of: Phrase, amount: Decimal) -> CostLine:
    overheads = to_cent(amount * share(costing.overheads))
    cost = amount + overheads
    price = price_at_margin(cost, costing.margin)
    return CostLine(name=name, of=of, amount=amount, overheads=overheads, cost=cost, price=price)


def _beside(needs: Needs, job: Job, stores: Stores) -> tuple[list[_Sum], list[Missing]]:
    """What the job costs beside its pieces: the vehicle, delivery, hires, what is for the whole event.

    Args:
        needs: those of the whole event only.
    """
    found = list(_ways(job.costing))
    missing: list[Missing] = []
    for at, hire in enumerate(job.hires):
        cost = hire_cost(hire)
        if cost is None:
            missing.append(facts.HIRE_PRICE.missing((at,), lender=hire.lender, name=hire.name))
            continue
        of = phrase("{n} at {each}, {lender}", n=hire.number, each=f"{hire.each}", lender=hire.lender)
        if hire.damage:
            words = "{n} at {each}, {damage} for damage, {lender}"
            of = phrase(words, n=hire.number, each=f"{hire.each}", damage=f"{hire.damage}", lender=hire.lender)
        found.append((worded("Hire: {thing}", thing=hire.name), of, cost))
    parts, lacking = goods(needs, stores)
    if parts:
        names = ", ".join(dict.fromkeys(part.name for part in parts))
        whole = sum((part.amount for part in parts), NOTHING)
        found.append(("For the whole event", phrase("{names}", names=names), whole))
    return found, missing + lacking


def _ways(costing: Costing) -> Iterator[_Sum]:
    """The vehicle by its way and by its days, and what others take to deliver."""
    if costing.km is not None and costing.per_km is not None:
        way = phrase("{km} km at {per_km}", km=f"{costing.km:g}", per_km=f"{costing.per_km}")
        yield "Vehicle, by its way", way, to_cent(costing.per_km * Decimal(str(costing.km)))
    if costing.per_day is not None and costing.vehicle_days:
        days = phrase("{n} {n|day|days} at {per_day}", n=costing.vehicle_days, per_day=f"{costing.per_day}")
        yield "Vehicle, by the day", days, to_cent(costing.per_day * costing.vehicle_days)
    if costing.delivery is not None:
        yield "Delivery by others", phrase("as agreed"), to_cent(costing.delivery)


def _unsaid(job: Job) -> Iterator[str]:
    """What an event has, and nobody has said the cost of."""
    costing = job.costing
    if job.travel_h and costing.per_km is None and costing.per_day is None:
        yield "the vehicle"
    elif costing.per_km is not None and costing.km is None:
        yield "how many kilometres the vehicle goes"


def _all(amounts: list[Decimal | None]) -> Decimal | None:
    known = [each for each in amounts if each is not None]
    return sum(known, NOTHING) if len(known) == len(amounts) else None


def _stems(
    needs: Needs, bought: tuple[StemBuy, ...], varieties: Mapping[str, Variety], shelves: Shelves
) -> dict[int, dict[str, Decimal | None]]:
    """What the stems of each variety cost each piece, by its number, what keeps for one use of it; None where the
    variety has no price.
    """
    counts: dict[str, dict[int, int]] = {}
    for need in needs.stems:
        own = counts.setdefault(need.variety, {})
        own[need.piece_id] = own.get(need.piece_id, 0) + need.count
    shares: dict[int, dict[str, Decimal | None]] = {}
    for buy in bought:
        pieces = counts.get(buy.variety, {})
        cents: list[Decimal | None] = [None] * len(pieces)
        if buy.full_cost is not None:
            uses = stem_uses(varieties[buy.variety], shelves.stems_last.get(buy.variety))
            cents = list(shared_out(to_cent(buy.full_cost / uses), list(pieces.values())))
        for piece, part in zip(pieces, cents, strict=True):
            shares.setdefault(piece, {})[buy.variety] = part
    return shares


def _piece(
    work: Work,
    needs: Needs,
    own: dict[str, Decimal | None],
    vessels: list[CostPart | Missing],
    stores: Stores,
    minutes: int,
    rate_per_h: Decimal | None,
) -> PieceCost:
    names = {key: stores.varieties[key].name for key in own}
    missing = [facts.PRICE.missing(("variety", key), name=names[key]) for key, cents in own.items() if cents is None]
    missing += [each for each in vessels if isinstance(each, Missing)]
    of_goods, lacking = goods(needs, stores)
    parts = [
        *stem_parts(needs, own, names),
        *of_goods,
        *(each for each in vessels if isinstance(each, CostPart)),
    ]
    missing += lacking
    labour = None if rate_per_h is None else to_cent(rate_per_h * minutes / 60)
    if labour is None:
        missing.append(facts.HOUR_PRICE.missing())
    else:
        of = phrase("{n} min at {rate} an hour", n=minutes, rate=f"{to_cent(rate_per_h or NOTHING)}")
        parts.append(CostPart(kind="labour", name="work", of=of, amount=labour))
    if work.report is None:
        missing.append(facts.NOT_WORKED_OUT.missing(name=name_of(work)))
    by_kind = {kind: sum((each.amount for each in parts if each.kind == kind), NOTHING) for kind in get_args(Kind)}
    material = sum((amount for kind, amount in by_kind.items() if kind != "labour"), NOTHING)
    costing = stores.costing
    breakage = to_cent(material * share(costing.breakage))
    overheads = to_cent((material + breakage + (labour or NOTHING)) * share(costing.overheads))
    known = material + breakage + overheads + (labour or NOTHING)
    cost = known if not missing else None
    quantity = quantity_of(work)
    each = None if cost is None else to_cent(price_at_margin(cost, costing.margin) / quantity)
    price = None if each is None else each * quantity
    return PieceCost(
        piece_id=work.id,
        name=name_of(work),
        quantity=quantity,
        stems=by_kind["stems"],
        mechanics=by_kind["mechanics"],
        vessels=by_kind["vessels"],
        consumables=by_kind["consumables"],
        minutes=minutes,
        labour=labour,
        breakage=breakage,
        overheads=overheads,
        known=known,
        cost=cost,
        price=price,
        price_each=each,
        margin=None if price is None or cost is None else price - cost,
        missing=once(missing),
        parts=tuple(parts),
    )


def minutes_of(made: Made, book: TimeBook) -> dict[int, int]:
    """Minutes of all hands for each part by its number: its own tasks, and its share of what is done for all.

    Fetching and conditioning are shared out by stems; loading, driving, filling, striking by how many there are.

    Source: the book of time; shares by largest remainder, so that they add up to the book's minutes.
    """
    own = {work.id: book.person_minutes(piece_id=work.id) for work in made.works}
    stems = {work.id: sum(each.count for each in recipe_of(work)) * quantity_of(work) for work in made.works}
    pieces = {work.id: quantity_of(work) for work in made.works}
    for_all = [each for each in book.tasks if each.piece_id is None]
    by_stems = sum(each.person_minutes for each in for_all if each.stage in ("collect", "condition"))
    by_pieces = sum(each.person_minutes for each in for_all) - by_stems
    for minutes, weights in ((by_stems, stems), (by_pieces, pieces)):
        for key, part in _shares(minutes, weights).items():
            own[key] += part
    return own


def rate_of(job: Job) -> Decimal | None:
    """What an hour of work costs: the mean of who works, each at their own rate or the event's; None not known."""
    rates = [job.costing.rate_per_h if each.rate_per_h is None else each.rate_per_h for each in job.crew]
    known = [each for each in rates or [job.costing.rate_per_h] if each is not None]
    if len(known) < max(len(rates), 1):
        return None
    return sum(known, NOTHING) / len(known)


def _shares(whole: int, weights: Mapping[int, int]) -> dict[int, int]:
    """A whole number shared out by weights, by largest remainder."""
    total = sum(weights.values())
    if total == 0:
        return {}
    shares = {key: whole * weight // total for key, weight in weights.items()}
    rest = whole - sum(shares.values())
    for key in sorted(weights, key=lambda each: (-(whole * weights[each] % total), each))[:rest]:
        shares[key] += 1
    return shares
