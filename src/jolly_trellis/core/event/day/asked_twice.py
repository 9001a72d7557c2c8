"""People whom two events ask for at the same time, or for more of one day than anybody may be asked."""

from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from zoneinfo import ZoneInfo

from jolly_trellis.core.event.day.notes import Note
from jolly_trellis.core.event.job import CrewMember
from jolly_trellis.core.event.sheet.people import DAY_BEGINS_H, WORK_MOST
from jolly_trellis.core.event.sheet.schedule import Timed
from jolly_trellis.core.quantities import duration, phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class Asked:
    """One event as it asks for people: its name, its crew, its sheet."""

    event: str
    crew: tuple[CrewMember, ...]
    timed: tuple[Timed, ...]

    def of(self, person: CrewMember) -> list[Timed]:
        """What a person does in it, in order."""
        places = {place for place, each in enumerate(self.crew) if each.id == person.id}
        return [each for each in self.timed if places & set(each.crew)]


def asked_twice(mine: Asked, others: Sequence[Asked], zone: ZoneInfo) -> Iterator[Note]:
    """Every person of an event whom others ask for as well, with what cannot be.

    Two things at one time are named first; where there are none, a day that is too long by both together.

    Args:
        zone: of the place, in which days and times are said.
    """
    for person in {each.id: each for each in reversed(mine.crew)}.values():
        own, name = mine.of(person), person.name
        for other in others:
            theirs = other.of(person)
            if not theirs:
                continue
            both = [(a, b, minutes) for a in own for b in theirs if (minutes := _together_min(a, b)) > 0]
            if both:
                first = min(both, key=lambda each: max(each[0].starts_at, each[1].starts_at).timestamp())
                yield _at_once(name, other.event, first[0], first[1], sum(each[2] for each in both), zone)
            else:
                yield from _too_long(name, other.event, own, theirs, zone)


def _together_min(one: Timed, other: Timed) -> float:
    """Minutes that two tasks share."""
    start = max(one.starts_at.timestamp(), other.starts_at.timestamp())
    return (min(one.ends_at.timestamp(), other.ends_at.timestamp()) - start) / 60


def _at_once(name: str, event: str, one: Timed, other: Timed, minutes: float, zone: ZoneInfo) -> Note:
    at = max(one.starts_at, other.starts_at, key=lambda each: each.timestamp()).astimezone(zone)
    return Note(
        state="fails",
        say=phrase(
            "{name} is asked for by “{event}” as well, {by} at the same time: first on {at}, “{one}” here and "
            "“{other}” there.",
            name=name,
            event=event,
            by=duration(minutes / 60),
            at=f"{at:%a %d %b, %H:%M}",
            one=one.task.name,
            other=other.task.name,
        ),
    )


def _too_long(name: str, event: str, own: list[Timed], theirs: list[Timed], zone: ZoneInfo) -> Iterator[Note]:
    """The first day that is too long by both events together, and is not by one of them alone."""
    mine, other = _work_h(own, zone), _work_h(theirs, zone)
    for day in sorted(set(mine) & set(other)):
        if mine[day] + other[day] > WORK_MOST.value >= max(mine[day], other[day]):
            yield Note(
                state="fails",
                say=phrase(
                    "{name} works {hours} on {day}, with “{event}” as well: {over} more than the longest day allows.",
                    name=name,
                    hours=duration(mine[day] + other[day]),
                    day=f"{day:%a %d %b}",
                    event=event,
                    over=duration(mine[day] + other[day] - WORK_MOST.value),
                ),
            )
            return


def _work_h(timed: list[Timed], zone: ZoneInfo) -> dict[date, float]:
    """Hours of work by working day."""
    found: dict[date, float] = defaultdict(float)
    for each in timed:
        day = (each.starts_at.astimezone(zone) - timedelta(hours=DAY_BEGINS_H)).date()
        found[day] += (each.ends_at.timestamp() - each.starts_at.timestamp()) / 3600
    return found
