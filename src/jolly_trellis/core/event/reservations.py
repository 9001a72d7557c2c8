"""What returns is in one place at a time: which event has it from when to when, and when there is too little of it."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from datetime import date, timedelta

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.event.job import Job
from jolly_trellis.core.event.lots import leaves_at
from jolly_trellis.core.event.task import back
from jolly_trellis.core.plan.piece import Piece

CLEANING_DAYS = rule("What comes back is cleaned before it goes out again, days", "count", 1)


@dataclass(frozen=True, slots=True, kw_only=True)
class Claim:
    """So many of one thing that an event has, from the day it leaves to the last day it is cleaned, both in it."""

    event_id: int
    event: str
    name: str
    number: int
    since: date
    until: date


@dataclass(frozen=True, slots=True, kw_only=True)
class Share:
    """How many of a thing one event wants."""

    event_id: int
    event: str
    number: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Shortfall:
    """Days in a row on which events together want more of a thing than there is: how many on the worst of them, how
    many there are, and who wants them then.
    """

    name: str
    since: date
    until: date
    wanted: int
    here: int
    by: tuple[Share, ...]


def vessels_wanted(pieces: Iterable[Piece]) -> dict[str, int]:
    """Vessels and stands by their name, as many as pieces stand in and on."""
    wanted: dict[str, int] = {}
    for piece in pieces:
        names = [piece.vessel.name, *(each.vessel.name for each in piece.companions)]
        if piece.support is not None:
            names.append(piece.support.name)
        if piece.insert is not None:
            names.append(piece.insert.outer.name)
        for name in names:
            wanted[name] = wanted.get(name, 0) + piece.quantity
    return wanted


def away(job: Job) -> tuple[date, date] | None:
    """From the day that things leave to the last day of their cleaning; None where nobody knows when the event is."""
    leaves = leaves_at(job)
    ends = job.clear_by or job.ends_at or job.filled_at
    if leaves is None or ends is None:
        return None
    home = back(ends, -(job.travel_h or 0.0)).astimezone(job.zone).date()
    return leaves.astimezone(job.zone).date(), home + timedelta(days=round(CLEANING_DAYS.value))


def claims_of(event_id: int, event: str, job: Job, pieces: Iterable[Piece]) -> tuple[Claim, ...]:
    """What an event has of vessels and stands; nothing where nobody knows when it is."""
    span = away(job)
    if span is None:
        return ()
    return tuple(
        Claim(event_id=event_id, event=event, name=name, number=number, since=span[0], until=span[1])
        for name, number in vessels_wanted(pieces).items()
    )


def shortfalls(claims: Iterable[Claim], here: Mapping[str, int]) -> Iterator[Shortfall]:
    """Where two events or more want more of a thing than there is, thing by thing, the first days first.

    Args:
        here: how many there are by name; a name that is not in it: none.
    Source: a sweep over the days on which a claim begins or has ended.
    """
    by_name: dict[str, list[Claim]] = {}
    for each in claims:
        by_name.setdefault(each.name, []).append(each)
    for name, own in sorted(by_name.items()):
        has = here.get(name, 0)
        days = sorted({each.since for each in own} | {each.until + timedelta(days=1) for each in own})
        run: list[tuple[date, date, list[Claim]]] = []
        for day, following in zip(days, [*days[1:], date.max], strict=True):
            now = [each for each in own if each.since <= day <= each.until]
            if len(now) > 1 and sum(each.number for each in now) > has:
                run.append((day, following - timedelta(days=1), now))
                continue
            if run:
                yield _worst(name, has, run)
            run = []


def _worst(name: str, has: int, run: list[tuple[date, date, list[Claim]]]) -> Shortfall:
    _, _, claims = max(run, key=lambda each: sum(claim.number for claim in each[2]))
    return Shortfall(
        name=name,
        since=run[0][0],
        until=run[-1][1],
        wanted=sum(each.number for each in claims),
        here=has,
        by=tuple(Share(event_id=each.event_id, event=each.event, number=each.number) for each in claims),
    )
