"""The days before: when each variety is bought, warmed to open, cut and conditioned, and placed."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime

from jolly_trellis.core.event.job import Job, Made
from jolly_trellis.core.event.needs.bunches import StemBuy, buy_stems
from jolly_trellis.core.event.needs.needed import StemNeed
from jolly_trellis.core.event.sheet.task import back
from jolly_trellis.core.event.tasks.purchases import opening_of, purchases_of, supplier_of, used_from
from jolly_trellis.core.making.pull_list import FOLD_WITHIN
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.quantities import Phrase, Quantity, duration, phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class VarietyDays:
    """The days of one variety: when it is bought, drinks from, opens, is placed; what is done to it, in words.

    `supplier` is who is asked for it, "" where nobody is named; `opening_days` is how long its bud takes at the
    workshop's temperature, None where that is not known and it must
    open. Dates are None without the event's times.
    """

    variety: str
    name: str
    colour: str
    count: int
    supplier: str
    opening_days: float | None
    buy_on: date | None
    drinks_by: datetime | None
    place_from: datetime | None
    notes: tuple[Phrase, ...]


def days_before(
    job: Job,
    made: Made,
    stems: tuple[StemNeed, ...],
    varieties: Mapping[str, Variety],
    bought: tuple[StemBuy, ...] | None = None,
) -> tuple[VarietyDays, ...]:
    """Buying, opening and placing days of every variety of an event, the first to buy first.

    They are those of the book of time: a variety is bought on the day of its purchase.

    Args:
        bought: how the stems are bought; None: all of them, nothing being here.
    """
    if bought is None:
        bought = buy_stems(stems, varieties, waste=job.costing.waste, here={})
    days = {key: purchase.day for purchase in purchases_of(job, made, bought, varieties) for key in purchase.varieties}
    suppliers = {key: supplier_of(job, key, varieties[key].kind).name for key in days} if job.suppliers else {}
    counts: dict[str, int] = {}
    for each in stems:
        counts[each.variety] = counts.get(each.variety, 0) + each.count
    rows = [
        _row(job, made, varieties[key], count, days, suppliers.get(key, ""))
        for key, count in counts.items()
        if key in varieties and not varieties[key].lasting
    ]
    return tuple(sorted(rows, key=lambda row: (row.buy_on or date.max, row.name)))


def _row(
    job: Job, made: Made, variety: Variety, count: int, days: Mapping[str, date | None], supplier: str
) -> VarietyDays:
    opening = opening_of(job, variety)
    place = used_from(job, made, variety)
    return VarietyDays(
        variety=variety.key,
        name=variety.name,
        colour=variety.colour,
        count=count,
        supplier=supplier,
        opening_days=opening,
        buy_on=None if opening is None else days.get(variety.key),
        drinks_by=None if place is None else back(place, variety.conditioning_h),
        place_from=place,
        notes=tuple(_notes(job, variety, opening, bought=variety.key in days)),
    )


def _notes(job: Job, variety: Variety, opening: float | None, *, bought: bool) -> list[Phrase]:
    """What is done to it, and what is not known. Source: common practice, no source."""
    notes = [phrase("drinks {h} before it is used", h=duration(variety.conditioning_h))]
    if not bought:
        notes.append(phrase("here already"))
    if opening is None:
        notes.append(phrase("cannot say when to buy it: give the workshop's temperature"))
    elif opening > 0 and job.workshop is not None:
        notes.append(
            phrase(
                "opens in {opening} days at {t}",
                t=Quantity(kind="temperature", value=job.workshop.temperature_c),
                opening=f"{opening:.1f}",
            )
        )
    if variety.bulb:
        notes.append(phrase("grows on: place it as late as possible, and a little low"))
    if variety.dip:
        notes.append(phrase("dip or sear the cut end when it is conditioned"))
    if variety.stiffness == "woody":
        notes.append(phrase("split the woody ends"))
    if variety.fold:
        shown = _shown_h(job)
        if shown is None or shown <= FOLD_WITHIN.value:
            notes.append(phrase("petals may be folded back, only shortly before it is shown"))
        else:
            notes.append(phrase("do not fold petals back: shown {h}", h=duration(shown)))
    return notes


def _shown_h(job: Job) -> float | None:
    if job.filled_at is None or job.ends_at is None:
        return None
    return (job.ends_at.timestamp() - job.filled_at.timestamp()) / 3600
