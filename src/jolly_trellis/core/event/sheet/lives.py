"""How long each flower lasts on what water it has: in the workshop's air until the place opens, then the place's."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from jolly_trellis.core.acts.acts import ActKind
from jolly_trellis.core.event.job import Job, Made
from jolly_trellis.core.event.putting import STAGE_OF, Put, puts_of
from jolly_trellis.core.event.sheet.schedule import Timed
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import worded
from jolly_trellis.core.stems.dry_life import DRY_AT, lasts_h, reaches_back_h, reserve_of
from jolly_trellis.core.units import duration_text


@dataclass(frozen=True, slots=True, kw_only=True)
class Life:
    """One variety in one kind of water: when it begins to drink, is first used, how long it lasts and must last.

    `lasts_until` None: it drinks from a vessel, which Drink judges, or the air is not known.
    """

    variety: str
    name: str
    colour: str
    water: str
    drinks_from: datetime | None
    used_from: datetime
    lasts_until: datetime | None
    needed_until: datetime | None


def soonest_use(job: Job, line: RecipeLine, variety: Variety) -> datetime | None:
    """The soonest that a stem may go in so that it lasts to the end; None where it drinks, or that is not known.

    Source: `dry_life.reaches_back_h`, in the workshop's air and then the place's.
    """
    reserve = reserve_of(line, variety)
    if reserve is None or job.ends_at is None or job.air is None:
        return None
    arrives = job.access_at or job.filled_at
    there = _hours(arrives, job.ends_at) if arrives is not None else 0.0
    before = job.workshop or job.air
    stretches = [(there, job.air), (0.0, before)] if arrives is not None else [(0.0, job.air)]
    return _moved(job.ends_at, -reaches_back_h(reserve, stretches))


def lasts_until(job: Job, line: RecipeLine, variety: Variety, used: datetime) -> datetime | None:
    """Until when a stem lasts that goes in at a time; None where it drinks from a vessel or the air is not known.

    Source: as `soonest_use`.
    """
    reserve = reserve_of(line, variety)
    if reserve is None or job.air is None:
        return None
    arrives = job.access_at or job.filled_at
    there = [(0.0, job.air)]
    if arrives is None or used >= arrives:
        return _moved(used, lasts_h(reserve, there))
    return _moved(used, lasts_h(reserve, [(_hours(used, arrives), job.workshop or job.air), *there]))


def lasts_words(job: Job, line: RecipeLine, variety: Variety) -> str:
    """How long it lasts in the air of the place, in words; at 22 °C and 50 % where that is not known."""
    reserve = reserve_of(line, variety)
    hours = 0.0 if reserve is None else lasts_h(reserve, [(0.0, job.air or DRY_AT)])
    words = {
        "tube": "{variety} lasts {h} in its tube",
        "wrap": "{variety} lasts {h} in its wrap",
        "cup": "{variety} lasts {h} in its spike cup",
    }.get(line.water, "{variety} lasts {h} with no water")
    return worded(words, variety=variety.name, h=duration_text(hours))


def _hours(start: datetime, end: datetime) -> float:
    return (end.timestamp() - start.timestamp()) / 3600


def _moved(at: datetime, hours: float) -> datetime:
    return (at.astimezone(UTC) + timedelta(hours=hours)).astimezone(at.tzinfo)


def lives_of(job: Job, made: Made, varieties: Mapping[str, Variety], timed: tuple[Timed, ...]) -> Iterator[Life]:
    """The life of every variety by the water it has, from its bucket to the end."""
    seen: set[tuple[str, str, ActKind]] = set()
    for work in made.works:
        for put in puts_of(work, varieties):
            line = put.line
            variety = varieties.get(line.variety)
            key = (line.variety, line.water, put.act)
            if variety is None or key in seen:
                continue
            used = _used_from(put, made, varieties, timed)
            if used is None:
                continue
            seen.add(key)
            yield Life(
                variety=variety.key,
                name=variety.name,
                colour=variety.colour,
                water=line.water,
                drinks_from=min(
                    (
                        each.starts_at
                        for each in timed
                        if each.task.stage == "condition" and line.variety in each.task.varieties
                    ),
                    default=None,
                ),
                used_from=used,
                lasts_until=lasts_until(job, line, variety, used),
                needed_until=job.ends_at,
            )


def _used_from(put: Put, made: Made, varieties: Mapping[str, Variety], timed: tuple[Timed, ...]) -> datetime | None:
    """When the first stem like this one goes in anywhere."""
    holding = {
        work.id
        for work in made.works
        for each in puts_of(work, varieties)
        if (each.line.variety, each.line.water, each.act) == (put.line.variety, put.line.water, put.act)
    }
    stage = STAGE_OF[put.act]
    times = [
        each.starts_at
        for each in timed
        if each.task.stage == stage and each.task.piece_id in holding and put.line.variety in each.task.varieties
    ]
    return min(times, default=None)
