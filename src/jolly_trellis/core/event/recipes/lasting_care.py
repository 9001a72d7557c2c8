"""Work that stays for weeks and months: how far it settles, and on which days it is looked over."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, timedelta

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.event.job import Job, Made, PieceWork, name_of, recipe_of
from jolly_trellis.core.event.recipes.recipes import INSPECTED_EVERY
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.quantities import Phrase, length, phrase

SETTLES = rule("Dried, preserved and artificial work settles, of its height", "ratio", 0.05)
FIRST_LOOK = rule("Lasting work is looked over first after, days", "count", 7)
_DAYS_IN_MONTH = 30.4375
_MOST_DAYS = 12


@dataclass(frozen=True, slots=True, kw_only=True)
class LastingCare:
    """One piece in which all keeps: what is done to it in words, the days it is looked over, the first first."""

    part: int
    piece: str
    say: tuple[Phrase, ...]
    days: tuple[date, ...]


def lasting_care(job: Job, made: Made, varieties: Mapping[str, Variety]) -> tuple[LastingCare, ...]:
    """Care of every part that is dried, preserved or artificial through and through.

    Source: common practice, no source; how far it settles and how soon it is looked over first are estimates.
    """
    days = _days(job)
    found = []
    for work in made.works:
        lines = [varieties.get(line.variety) for line in recipe_of(work)]
        if not lines or not all(each is not None and each.lasting for each in lines):
            continue
        say = [
            phrase("No water; out of the sun, which bleaches it; away from damp."),
            phrase("Dust it with a soft brush or cool air when it is looked over, and try every fixing."),
        ]
        if isinstance(work, PieceWork) and not work.piece.carried:
            high = work.piece.envelope.height_m
            words = "It settles by about {less}: make it {high} high to stand at {after}."
            after = length(high * (1 - SETTLES.value))
            say.insert(0, phrase(words, less=length(high * SETTLES.value), high=length(high), after=after))
        found.append(LastingCare(part=work.id, piece=name_of(work), say=tuple(say), days=days))
    return tuple(found)


def _days(job: Job) -> tuple[date, ...]:
    """A week after it is set up, then every few months until it comes down; none where it goes home that day."""
    begins, ends = job.filled_at or job.starts_at, job.clear_by or job.ends_at
    if begins is None or ends is None:
        return ()
    day, last = begins.astimezone(job.zone).date(), ends.astimezone(job.zone).date()
    found = [day + timedelta(days=round(FIRST_LOOK.value))]
    step = timedelta(days=round(INSPECTED_EVERY.value * _DAYS_IN_MONTH))
    while len(found) < _MOST_DAYS:
        found.append(day + step * len(found))
    return tuple(each for each in sorted(set(found)) if each < last)
