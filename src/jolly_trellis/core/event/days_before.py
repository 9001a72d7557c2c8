"""The days before: when each variety is bought, warmed to open, cut and conditioned, and placed."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.event.job import Job
from jolly_trellis.core.event.needs import StemNeed
from jolly_trellis.core.event.task import FLOWER_WITHIN, GREEN_WITHIN
from jolly_trellis.core.making.pull_list import FOLD_WITHIN
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.provenance import FROM_MEMORY
from jolly_trellis.core.quantities import Phrase, Quantity, duration, phrase

OPENING_Q10 = measure("Buds open faster per 10 °C warmer, times", "ratio", 2.5, FROM_MEMORY)
AT_C = rule("Temperature that days to open are given for", "temperature", 20.0)
PLACED_BEFORE = rule("Flowers are placed before the display by", "duration", 20.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class VarietyDays:
    """The days of one variety: when it is bought, drinks from, opens, is placed; what is done to it, in words.

    `opening_days` is how long its bud takes at the workshop's temperature, None where that is not known and it must
    open. Dates are None without the event's times.
    """

    variety: str
    name: str
    colour: str
    count: int
    opening_days: float | None
    buy_on: date | None
    drinks_by: datetime | None
    place_from: datetime | None
    notes: tuple[Phrase, ...]


def days_to_open(variety: Variety, temperature_c: float) -> float:
    """Days a bud takes to open at a temperature: days at 20 °C × Q10^((20 − T)/10).

    Args:
        temperature_c: of the workshop, 2 to 35.
    Valid for: the range in which buds open at all; outside it the nearest end counts.
    Source: Q10 from memory; days at 20 °C are the variety's own.
    """
    kept = min(max(temperature_c, 2.0), 35.0)
    return float(variety.opening_days * OPENING_Q10.value ** ((AT_C.value - kept) / 10))


def days_before(job: Job, stems: tuple[StemNeed, ...], varieties: Mapping[str, Variety]) -> tuple[VarietyDays, ...]:
    """Buying, opening and placing days of every variety of an event, the first to buy first.

    Source: drinking and opening times of the varieties; greens 48 h and flowers 24 h before are common practice.
    """
    counts: dict[str, int] = {}
    for each in stems:
        counts[each.variety] = counts.get(each.variety, 0) + each.count
    rows = [_row(job, varieties[key], count) for key, count in counts.items() if key in varieties]
    return tuple(sorted(rows, key=lambda row: (row.buy_on or date.max, row.name)))


def _row(job: Job, variety: Variety, count: int) -> VarietyDays:
    opening = 0.0 if variety.opening_days == 0 else None
    if opening is None and job.workshop is not None:
        opening = days_to_open(variety, job.workshop.temperature_c)
    place = drinks = None
    buy = None
    if job.filled_at is not None:
        within = GREEN_WITHIN.value if variety.form == "leaf" else min(FLOWER_WITHIN.value, PLACED_BEFORE.value)
        place = _back(job.filled_at, 4.0 if variety.bulb else within)
        drinks = _back(place, variety.conditioning_h)
        if opening is not None:
            buy = _back(drinks, 24 * math.ceil(opening - 1e-9)).date()
    return VarietyDays(
        variety=variety.key,
        name=variety.name,
        colour=variety.colour,
        count=count,
        opening_days=opening,
        buy_on=buy,
        drinks_by=drinks,
        place_from=place,
        notes=tuple(_notes(job, variety, opening)),
    )


def _notes(job: Job, variety: Variety, opening: float | None) -> list[Phrase]:
    """What is done to it, and what is not known. Source: common practice, no source."""
    notes = [phrase("drinks {h} before it is used", h=duration(variety.conditioning_h))]
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


def _back(at: datetime, hours: float) -> datetime:
    return (at.astimezone(UTC) - timedelta(hours=hours)).astimezone(at.tzinfo)
