"""What a sheet asks for beside hands and hours: buckets, the cool room, seats; each with whether there is enough."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.event.day.buckets import Peak, buckets_of
from jolly_trellis.core.event.job import Job
from jolly_trellis.core.event.needs.bunches import StemBuy
from jolly_trellis.core.event.sheet.schedule import Timed
from jolly_trellis.core.event.tasks.tasks_there import on_their_own
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.quantities import Phrase, phrase

NoteState = Literal["holds", "fails", "cannot say", "said"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Note:
    """One thing to know of a day: whether it holds, fails, cannot be said, or is only said."""

    state: NoteState
    say: Phrase


def notes_of(
    job: Job, bought: Iterable[StemBuy], varieties: Mapping[str, Variety], timed: tuple[Timed, ...]
) -> tuple[Note, ...]:
    """What a sheet asks of the workshop and the vehicle."""
    stands = buckets_of(bought, varieties, timed)
    found = [
        *_held(job, stands.all, job.buckets, "buckets stand in the workshop"),
        *_held(job, stands.cool, job.cool_buckets, "buckets stand in the cool room"),
    ]
    if own := on_their_own(job):
        found.append(Note(state="said", say=_comes(job, own)))
    return tuple(found)


def _held(job: Job, peak: Peak, has: int | None, what: str) -> Iterator[Note]:
    if peak.at is None:
        return
    at = f"{peak.at.astimezone(job.zone):%a %d %b, %H:%M}"
    if has is None:
        yield Note(
            state="cannot say",
            say=phrase(
                "{n} {what} at most, from {at}; the brief does not say how many there can be.",
                n=peak.most,
                what=what,
                at=at,
            ),
        )
    elif has < peak.most:
        yield Note(
            state="fails",
            say=phrase(
                "{n} {what} at most, from {at}: {over} more than there can be.",
                n=peak.most,
                what=what,
                at=at,
                over=peak.most - has,
            ),
        )
    else:
        yield Note(
            state="holds",
            say=phrase("{n} {what} at most, from {at}, of {has}.", n=peak.most, what=what, at=at, has=has),
        )


def _comes(job: Job, names: tuple[str, ...]) -> Phrase:
    named = ", ".join(names)
    if job.seats is not None and len(job.crew) > job.seats:
        words = "No seat in the van, or not there when it leaves: {names}. They find their own way."
    elif len(names) > 1:
        words = "{names} do not go with the van, and find their own way."
    else:
        words = "{names} does not go with the van, and finds a way alone."
    return phrase(words, names=named)
