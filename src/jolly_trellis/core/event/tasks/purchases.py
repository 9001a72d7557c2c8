"""Purchases: stems of one supplier and day that rest alike, worked back from when they are used."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, timedelta

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.event.job import WEEKDAYS, Job, Made, RigWork, Supplier, Work
from jolly_trellis.core.event.needs.bunches import StemBuy
from jolly_trellis.core.event.putting import puts_of
from jolly_trellis.core.event.sheet.task import COLLECT_MIN, FLOWER_WITHIN, LONGEST_MIN, back, green_within_h
from jolly_trellis.core.materials.stems import Kind, Variety
from jolly_trellis.core.provenance import COMMON_PRACTICE, FROM_MEMORY

OPENING_Q10 = measure("Buds open faster per 10 °C warmer, times", "ratio", 2.5, FROM_MEMORY)
AT_C = rule("Temperature that days to open are given for", "temperature", 20.0)
BULB_WITHIN = rule("What grows on is placed at most before the display", "duration", 4.0, COMMON_PRACTICE)
GREENS_KEEP = measure("Greens keep in a bucket, longer than they must, days", "ratio", 3.0, COMMON_PRACTICE)
FLOWERS_KEEP = measure("Flowers keep in a cool room, longer than they must, days", "ratio", 1.0, COMMON_PRACTICE)
DRY_MOST = measure("Stems that are fetched are conditioned within", "duration", 4.0, COMMON_PRACTICE)
_HEDGE = Supplier(name="Foraged", opens="05:00", closes="22:00", days=WEEKDAYS)
GATHERED_FROM: Mapping[Kind, Supplier] = {"foraged": _HEDGE, "own garden": replace(_HEDGE, name="Own garden")}
ANY_SUPPLIER = Supplier(name="Flower market", opens="00:00", closes="23:59", days=WEEKDAYS)
_FARTHEST_DAYS = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class Purchase:
    """Stems of one supplier and day that rest alike: how many are bought, of what, and how long they drink and open.

    `day` and `ahead`, its days before the display, are None without the event's times.
    """

    supplier: Supplier
    day: date | None
    ahead: int | None
    rest_min: int
    varieties: tuple[str, ...]
    stems: int

    @property
    def trip(self) -> str:
        """The place part of the keys of its tasks: its supplier and how many days before it is fetched."""
        return f"{self.supplier.id}-{'x' if self.ahead is None else self.ahead}"

    @property
    def place(self) -> str:
        """The place part of the keys of its conditioning: its trip, and how long it rests."""
        return f"{self.trip}-{self.rest_min}"


def days_to_open(variety: Variety, temperature_c: float) -> float:
    """Days a bud takes to open at a temperature: days at 20 °C × Q10^((20 − T)/10).

    Args:
        temperature_c: of the workshop, 2 to 35.
    Valid for: the range in which buds open at all; outside it the nearest end counts.
    Source: Q10 from memory; days at 20 °C are the variety's own.
    """
    kept = min(max(temperature_c, 2.0), 35.0)
    return float(variety.opening_days * OPENING_Q10.value ** ((AT_C.value - kept) / 10))


def opening_of(job: Job, variety: Variety) -> float | None:
    """Days a variety takes to open in the workshop; None where it must open and nobody knows how warm that is."""
    if variety.opening_days == 0:
        return 0.0
    return None if job.workshop is None else days_to_open(variety, job.workshop.temperature_c)


def used_from(job: Job, made: Made, variety: Variety) -> datetime | None:
    """The soonest that a variety may be in the work, or leave with the van; None without the event's times."""
    if job.filled_at is None:
        return None
    within_h = green_within_h(job) if variety.form == "leaf" else FLOWER_WITHIN.value
    if variety.bulb:
        within_h = BULB_WITHIN.value
    found = []
    for work in made.works:
        for put in puts_of(work, {variety.key: variety}):
            if put.line.variety == variety.key:
                here = back(job.filled_at, within_h + cooled_h(work))
                found.append((leaves_at(job) or job.filled_at) if put.there else here)
    return min(found, default=back(job.filled_at, within_h))


def cooled_h(work: Work) -> float:
    """Hours that a part waits finished in a cool room before the event."""
    cooled = None if isinstance(work, RigWork) else work.piece.passage.cooled
    return 0.0 if cooled is None else 24 * cooled.days


def leaves_at(job: Job) -> datetime | None:
    """When the van leaves at the soonest, so that it is there when the place opens; None where that is not known."""
    arrives = job.access_at or job.filled_at
    return None if arrives is None else back(arrives, job.travel_h or 0.0)


def purchases_of(
    job: Job, made: Made, bought: Iterable[StemBuy], varieties: Mapping[str, Variety]
) -> tuple[Purchase, ...]:
    """Every stem that is bought by the day or gathered, in purchases; the first to fetch first. What keeps is in none.

    A variety is fetched on its supplier's last open day that leaves it time to be conditioned, to drink and to open;
    what keeps so long is fetched with what must come earlier, to save a way.

    Source: drinking and opening times of the varieties; how long things keep is common practice, no source.
    """
    stems = {each.variety: each.bunches * each.bunch_size + each.singles for each in bought}
    wanted = [
        varieties[key] for key, count in stems.items() if count > 0 and key in varieties and not varieties[key].lasting
    ]
    days = {each.key: _last_day(job, made, each) for each in wanted}
    trips: dict[Supplier, list[date]] = {}
    for variety in sorted(wanted, key=lambda each: (days[each.key] or date.max, each.key)):
        day, own = days[variety.key], trips.setdefault(supplier_of(job, variety.key, variety.kind), [])
        if day is None:
            continue
        keeps = GREENS_KEEP.value if variety.form == "leaf" else 0.0 if variety.bulb else FLOWERS_KEEP.value
        days[variety.key] = next((each for each in own if each <= day <= each + timedelta(days=keeps)), day)
        if days[variety.key] == day and day not in own:
            own.append(day)
    groups: dict[tuple[Supplier, date | None, int], list[str]] = {}
    for variety in wanted:
        rest = math.ceil(60 * _rest_h(job, variety) - 1e-9)
        groups.setdefault((supplier_of(job, variety.key, variety.kind), days[variety.key], rest), []).append(
            variety.key
        )
    purchases = [
        Purchase(
            supplier=supplier,
            day=day,
            ahead=None if day is None or job.filled_at is None else (job.filled_at.date() - day).days,
            rest_min=rest,
            varieties=tuple(sorted(keys)),
            stems=sum(stems[key] for key in keys),
        )
        for (supplier, day, rest), keys in groups.items()
    ]
    return tuple(sorted(purchases, key=lambda each: (each.day or date.max, each.trip, -each.rest_min)))


def supplier_of(job: Job, variety: str, kind: Kind = "fresh") -> Supplier:
    """Who is asked for a variety: who sells it, nobody for what is gathered, else the first who sells nothing in
    particular, else a market.
    """
    own = next((each for each in job.suppliers if variety in each.sells), None)
    if own is None and kind in GATHERED_FROM:
        return GATHERED_FROM[kind]
    return own or next((each for each in job.suppliers if not each.sells), ANY_SUPPLIER)


def open_window(job: Job, supplier: Supplier, day: date) -> tuple[datetime, datetime] | None:
    """From when to when a supplier is open on a day; None where it is closed."""
    if WEEKDAYS[day.weekday()] not in supplier.days:
        return None
    opens, closes = (
        datetime.fromisoformat(f"{day.isoformat()}T{clock}").replace(tzinfo=job.zone)
        for clock in (supplier.opens, supplier.closes)
    )
    return opens, closes


def _rest_h(job: Job, variety: Variety) -> float:
    """Hours from conditioned to used: drinking, or opening where that takes longer."""
    return max(variety.conditioning_h, 24 * math.ceil((opening_of(job, variety) or 0.0) - 1e-9))


def _last_day(job: Job, made: Made, variety: Variety) -> date | None:
    """The last day on which a variety can be fetched in time; None without the event's times."""
    used = used_from(job, made, variety)
    if used is None:
        return None
    before = back(used, _rest_h(job, variety) + (COLLECT_MIN.value + LONGEST_MIN.value) / 60)
    supplier = supplier_of(job, variety.key, variety.kind)
    last = before.astimezone(job.zone).date()
    for earlier in range(_FARTHEST_DAYS):
        day = last - timedelta(days=earlier)
        window = open_window(job, supplier, day)
        opens = datetime.combine(day, job.hours.opens, tzinfo=job.zone)
        if window is not None and max(window[0], opens).astimezone(UTC) <= before.astimezone(UTC):
            return day
    return last
