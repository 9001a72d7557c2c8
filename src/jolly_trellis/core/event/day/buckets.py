"""How many buckets stand with stems in them at a time, and how many of them in the cool room."""

import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime

from jolly_trellis.core.books.time import Stage
from jolly_trellis.core.checks.travel import BUCKET_STEMS
from jolly_trellis.core.event.needs.bunches import StemBuy
from jolly_trellis.core.event.sheet.schedule import Timed
from jolly_trellis.core.event.sheet.task import back
from jolly_trellis.core.materials.stems import Variety

_TAKEN_IN: tuple[Stage, ...] = ("green", "flower", "tubes", "on site")


@dataclass(frozen=True, slots=True, kw_only=True)
class Peak:
    """The most buckets that stand at one time, and from when; none before anything is conditioned."""

    most: int
    at: datetime | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Buckets:
    """The most buckets in use, and the most of them that wait in the cool room."""

    all: Peak
    cool: Peak


@dataclass(frozen=True, slots=True, kw_only=True)
class _Stands:
    number: int
    since: datetime
    until: datetime


def buckets_of(bought: Iterable[StemBuy], varieties: Mapping[str, Variety], timed: tuple[Timed, ...]) -> Buckets:
    """Buckets by a sheet: a variety's stand from its conditioning until the last of it is put in; stems that are here
    already stand from the beginning.

    Flowers wait in the cool room from when they have drunk until the first is put in; greens and buds that must open
    do not.

    Source: stems to a bucket are common practice, no source.
    """
    every: list[_Stands] = []
    cool: list[_Stands] = []
    for buy in bought:
        key, count = buy.variety, buy.bunches * buy.bunch_size + buy.singles
        own = [each for each in timed if key in each.task.varieties]
        begins = [each for each in own if each.task.stage == "condition"]
        uses = [each for each in own if each.task.stage in _TAKEN_IN]
        variety = varieties.get(key)
        if variety is not None and variety.lasting:
            continue
        if buy.here > 0 and uses:
            every.append(
                _Stands(
                    number=math.ceil(buy.here / BUCKET_STEMS.value - 1e-9),
                    since=min(each.starts_at for each in timed),
                    until=max(each.ends_at for each in uses),
                )
            )
        if count <= 0 or variety is None or not begins or not uses:
            continue
        number = math.ceil(count / BUCKET_STEMS.value - 1e-9)
        every.append(
            _Stands(
                number=number,
                since=min(each.starts_at for each in begins),
                until=max(each.ends_at for each in uses),
            )
        )
        drunk = back(max(each.ends_at for each in begins), -variety.conditioning_h)
        first = min(each.starts_at for each in uses)
        if variety.form != "leaf" and variety.opening_days == 0 and first > drunk:
            cool.append(_Stands(number=number, since=drunk, until=first))
    return Buckets(all=_peak(every), cool=_peak(cool))


def _peak(stands: list[_Stands]) -> Peak:
    """The most that stand at once; those that go make room for those that come at the same time."""
    most, at, now = 0, None, 0
    for when, by in sorted(_changes(stands), key=lambda each: (each[0].timestamp(), each[1])):
        now += by
        if now > most:
            most, at = now, when
    return Peak(most=most, at=at)


def _changes(stands: list[_Stands]) -> Iterator[tuple[datetime, int]]:
    for each in stands:
        yield each.since, each.number
        yield each.until, -each.number
