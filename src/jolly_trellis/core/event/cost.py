"""What each piece and the event cost, and what to ask, in decimal money to the cent."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from decimal import Decimal

from jolly_trellis.core.books.time import TimeBook
from jolly_trellis.core.event.buying import StemBuy
from jolly_trellis.core.event.job import Costing, Job, Made, Work, name_of, quantity_of, recipe_of
from jolly_trellis.core.event.money import NOTHING, money, price_at_margin, share, shared_out, to_cent
from jolly_trellis.core.event.needs import Needs
from jolly_trellis.core.event.roll_problems import Larder
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.quantities import Phrase, phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class PieceCost:
    """What one piece of the line-up costs, all of its quantity: by kind, in all, what to ask; and what is not known.

    `cost` and `price` are None while something is not known; `known` adds up what is. `price` is `price_each` times
    the quantity. `minutes` are of all hands: making, and its share of fetching, loading, driving, filling, striking.
    """

    piece_id: int
    name: str
    quantity: int
    stems: Decimal
    mechanics: Decimal
    consumables: Decimal
    minutes: int
    labour: Decimal | None
    breakage: Decimal
    overheads: Decimal
    known: Decimal
    cost: Decimal | None
    price: Decimal | None
    price_each: Decimal | None
    missing: tuple[str, ...]


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
class EventCost:
    """What an event costs: each piece, what is beside them, and the sums.

    `cost`, `price` and `asked` are None while a piece has something that is not known. `price` is without tax, `asked`
    with it. `unsaid` names what nobody has said the cost of and is in no sum: all are at the least then.
    """

    currency: str
    pieces: tuple[PieceCost, ...]
    lines: tuple[CostLine, ...]
    stems: Decimal
    mechanics: Decimal
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
    missing: tuple[str, ...]
    unsaid: tuple[str, ...]


def cost_of(
    made: Made,
    needs: Needs,
    bought: tuple[StemBuy, ...],
    larder: Larder,
    frogs: Mapping[str, Frog],
    varieties: Mapping[str, Variety],
    job: Job,
    book: TimeBook,
) -> EventCost:
    """Reckon an event up.

    Stems: what each variety costs, bought for the whole event or here, shared out over the pieces by their stems, to
    the cent. Mechanics: price ÷ uses. Consumables: by what is used of them, spares in. Labour: every minute of the
    book of time, fetching, driving, hanging and striking too, at the mean rate of who works. Breakage is a share of
    the goods, overheads of all that; the vehicle and what others take to deliver are beside the pieces. What is asked
    for a piece is rounded for one of it, so that the line is as many times that.

    Args:
        job: the job, with its costing and crew. book: its tasks.

    Source: sums; prices of the stores.
    """
    costing, stems = job.costing, _stems(needs, bought)
    minutes, rate = minutes_of(made, book), rate_of(job)
    rows = []
    for work in made.works:
        row = _piece(work, needs, stems, larder, frogs, varieties, costing, minutes[work.id], rate)
        rows.append(row)
    lines = tuple(_lines(costing))
    beside = sum((each.cost for each in lines), NOTHING)
    costs = [*(each.cost for each in rows), beside]
    price = _all([*(each.price for each in rows), *(each.price for each in lines)])
    tax = None if price is None else to_cent(price * share(costing.tax))
    missing = tuple(dict.fromkeys(words for row in rows for words in row.missing))
    labours = [each.labour for each in rows]
    return EventCost(
        currency=costing.currency,
        pieces=tuple(rows),
        lines=lines,
        stems=sum((each.stems for each in rows), NOTHING),
        mechanics=sum((each.mechanics for each in rows), NOTHING),
        consumables=sum((each.consumables for each in rows), NOTHING),
        labour=_all(labours),
        breakage=sum((each.breakage for each in rows), NOTHING),
        overheads=sum([*(each.overheads for each in rows), *(each.overheads for each in lines)], NOTHING),
        minutes=sum(each.minutes for each in rows),
        known=sum((each.known for each in rows), NOTHING) + beside,
        cost=_all(costs),
        price=price,
        tax=tax,
        asked=None if price is None or tax is None else price + tax,
        missing=missing,
        unsaid=tuple(_unsaid(job)) if rows else (),
    )


def _lines(costing: Costing) -> Iterator[CostLine]:
    """The vehicle by its way and by its days, and what others take to deliver."""
    sums: list[tuple[str, Phrase, Decimal]] = []
    if costing.km is not None and costing.per_km is not None:
        way = phrase("{km} km at {per_km}", km=f"{costing.km:g}", per_km=f"{costing.per_km}")
        sums.append(("Vehicle, by its way", way, to_cent(costing.per_km * Decimal(str(costing.km)))))
    if costing.per_day is not None and costing.vehicle_days:
        days = phrase("{n} {n|day|days} at {per_day}", n=costing.vehicle_days, per_day=f"{costing.per_day}")
        sums.append(("Vehicle, by the day", days, to_cent(costing.per_day * costing.vehicle_days)))
    if costing.delivery is not None:
        sums.append(("Delivery by others", phrase("as agreed"), to_cent(costing.delivery)))
    for name, of, amount in sums:
        overheads = to_cent(amount * share(costing.overheads))
        cost = amount + overheads
        yield CostLine(
            name=name,
            of=of,
            amount=amount,
            overheads=overheads,
            cost=cost,
            price=price_at_margin(cost, costing.margin),
        )


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


def _stems(needs: Needs, bought: tuple[StemBuy, ...]) -> dict[tuple[int, str], Decimal | None]:
    """What the stems of each variety cost each piece; None where the variety has no price."""
    shares: dict[tuple[int, str], Decimal | None] = {}
    for buy in bought:
        counts: dict[int, int] = {}
        for need in needs.stems:
            if need.variety == buy.variety:
                counts[need.piece_id] = counts.get(need.piece_id, 0) + need.count
        if buy.full_cost is None:
            shares |= {(piece, buy.variety): None for piece in counts}
            continue
        for piece, part in zip(counts, shared_out(buy.full_cost, list(counts.values())), strict=True):
            shares[piece, buy.variety] = part
    return shares


def _piece(
    work: Work,
    needs: Needs,
    stems: dict[tuple[int, str], Decimal | None],
    larder: Larder,
    frogs: Mapping[str, Frog],
    varieties: Mapping[str, Variety],
    costing: Costing,
    minutes: int,
    rate_per_h: Decimal | None,
) -> PieceCost:
    own = {variety: cents for (piece, variety), cents in stems.items() if piece == work.id}
    missing = [f"the price of {varieties[key].name}" for key, cents in own.items() if cents is None]
    stems_cost = sum((cents for cents in own.values() if cents is not None), NOTHING)
    mechanics, lacking = _mechanics(work, needs, larder, frogs, costing)
    consumables, lacking_too = _consumables(work, needs, larder)
    missing += [*lacking, *lacking_too]
    labour = None if rate_per_h is None else to_cent(rate_per_h * minutes / 60)
    if labour is None:
        missing.append("what an hour of work costs")
    if work.report is None:
        missing.append(f"how “{name_of(work)}” is made: it could not be worked out")
    goods = stems_cost + mechanics + consumables
    breakage = to_cent(goods * share(costing.breakage))
    overheads = to_cent((goods + breakage + (labour or NOTHING)) * share(costing.overheads))
    known = goods + breakage + overheads + (labour or NOTHING)
    cost = known if not missing else None
    quantity = quantity_of(work)
    each = None if cost is None else to_cent(price_at_margin(cost, costing.margin) / quantity)
    return PieceCost(
        piece_id=work.id,
        name=name_of(work),
        quantity=quantity,
        stems=stems_cost,
        mechanics=mechanics,
        consumables=consumables,
        minutes=minutes,
        labour=labour,
        breakage=breakage,
        overheads=overheads,
        known=known,
        cost=cost,
        price=None if each is None else each * quantity,
        price_each=each,
        missing=tuple(dict.fromkeys(missing)),
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


def _uses(costing: Costing, lasts: int) -> int:
    return lasts if costing.uses is None or lasts == 1 else costing.uses


def _mechanics(
    work: Work, needs: Needs, larder: Larder, frogs: Mapping[str, Frog], costing: Costing
) -> tuple[Decimal, list[str]]:
    """Netting, frogs and whatever lasts more than once: price ÷ uses."""
    total, missing = NOTHING, []
    for need in needs.sheets:
        if need.piece_id != work.id:
            continue
        net = larder.nettings.get(need.netting)
        if net is None or net.price is None:
            missing.append(f"the price of {net.name if net is not None else need.netting}")
            continue
        of_roll = need.sheet.width_m * need.sheet.length_m * need.quantity / (net.roll_width_m * net.roll_length_m)
        total += to_cent(money(net.price) * share(of_roll) / _uses(costing, need.uses))
    for frog_need in needs.frogs:
        if frog_need.piece_id != work.id:
            continue
        frog = frogs.get(frog_need.frog)
        if frog is None or frog.price is None:
            missing.append(f"the price of {frog.name if frog is not None else frog_need.frog}")
            continue
        total += to_cent(money(frog.price) * frog_need.quantity / _uses(costing, frog_need.uses))
    for key, amount, uses in _supply_amounts(work, needs):
        if uses > 1:
            cost, lacking = _supply_cost(key, amount, larder, spare=False)
            total += to_cent(cost / _uses(costing, uses))
            missing += lacking
    return total, missing


def _consumables(work: Work, needs: Needs, larder: Larder) -> tuple[Decimal, list[str]]:
    """What is used up, spares in."""
    total, missing = NOTHING, []
    for key, amount, uses in _supply_amounts(work, needs):
        if uses == 1:
            cost, lacking = _supply_cost(key, amount, larder, spare=True)
            total += to_cent(cost)
            missing += lacking
    return total, missing


def _supply_amounts(work: Work, needs: Needs) -> list[tuple[str, float, int]]:
    """(supply, amount, uses) of a piece, each supply once for each number of uses."""
    amounts: dict[tuple[str, int], float] = {}
    for each in needs.supplies:
        if each.piece_id == work.id:
            amounts[each.supply, each.uses] = amounts.get((each.supply, each.uses), 0.0) + each.amount
    for need in needs.lengths:
        if need.piece_id == work.id:
            key = (need.supply, need.uses)
            amounts[key] = amounts.get(key, 0.0) + need.length_m * need.quantity
    return [(key, amount, uses) for (key, uses), amount in amounts.items()]


def _supply_cost(key: str, amount: float, larder: Larder, *, spare: bool) -> tuple[Decimal, list[str]]:
    supply = larder.supplies.get(key)
    if supply is None or supply.price is None:
        return NOTHING, [f"the price of {supply.name if supply is not None else key}"]
    holds = supply.pack * (supply.stick_m or 1.0) if supply.measured_by == "stick" else supply.pack
    with_spare = amount * (1 + (supply.spare if spare else 0.0))
    return money(supply.price) * Decimal(str(with_spare)) / Decimal(str(holds)), []
