"""What returns is in one place at a time: which event has it from when to when, and when there is too little of it."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.event.job import Hire, Job, Reused
from jolly_trellis.core.event.needs.hires import hired_on
from jolly_trellis.core.event.needs.needed import ThingKind
from jolly_trellis.core.event.needs.needs import ThingIn, things_in
from jolly_trellis.core.event.sheet.task import back
from jolly_trellis.core.event.tasks.purchases import leaves_at
from jolly_trellis.core.plan.piece import Piece

Thing = tuple[ThingKind, str]
CLEANING_DAYS = rule("What comes back is cleaned before it goes out again, days", "count", 1)


@dataclass(frozen=True, slots=True, kw_only=True)
class Claim:
    """So many of one thing that an event has, from the day it leaves to the last day it is cleaned, both in it.

    `thing` tells it from all others (`ThingIn`), `name` is what people call it.
    """

    event_id: int
    event: str
    kind: ThingKind
    thing: str
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
    many there are, with what is hired, and who wants them then. `said` is what people call it, empty: its name.
    """

    kind: ThingKind
    thing: str
    name: str
    since: date
    until: date
    wanted: int
    here: int
    by: tuple[Share, ...]
    said: str = ""


def wanted_of(pieces: Iterable[Piece], reused: Iterable[Reused] = ()) -> dict[ThingIn, int]:
    """Vessels, stands, frogs and finished armatures, as many as pieces stand in and on and are made with."""
    found: dict[Thing, tuple[ThingIn, int]] = {}

    def add(thing: ThingIn, number: int) -> None:
        first, before = found.get((thing.kind, thing.thing), (thing, 0))
        found[thing.kind, thing.thing] = first, before + number

    for piece in pieces:
        for thing in things_in(piece):
            add(thing, piece.quantity)
    for each in reused:
        add(ThingIn(kind="armature", thing=each.armature, name=each.armature), each.number)
    return dict(found.values())


def away(job: Job) -> tuple[date, date] | None:
    """From the day that things leave to the last day of their cleaning; None where nobody knows when the event is."""
    leaves = leaves_at(job)
    ends = job.clear_by or job.ends_at or job.filled_at
    if leaves is None or ends is None:
        return None
    home = back(ends, -(job.travel_h or 0.0)).astimezone(job.zone).date()
    return leaves.astimezone(job.zone).date(), home + timedelta(days=round(CLEANING_DAYS.value))


def claims_of(event_id: int, event: str, job: Job, pieces: Iterable[Piece]) -> tuple[Claim, ...]:
    """What an event has of things that return; nothing where nobody knows when it is."""
    span = away(job)
    if span is None:
        return ()
    return tuple(
        Claim(
            event_id=event_id,
            event=event,
            kind=each.kind,
            thing=each.thing,
            name=each.name,
            number=number,
            since=span[0],
            until=span[1],
        )
        for each, number in wanted_of(pieces, job.reused).items()
    )


def shortfalls(claims: Iterable[Claim], here: Mapping[Thing, int], hires: Sequence[Hire] = ()) -> Iterator[Shortfall]:
    """Where two events or more want more of a thing than there is, thing by thing, the first days first.

    Args:
        here: how many there are of each; a thing that is not in it: none. hires: what is hired for any of the events;
        it is there from the day it comes to the day it goes back.
    Source: a sweep over the days on which a claim or a hire begins or has ended.
    """
    by_thing: dict[Thing, list[Claim]] = {}
    for each in claims:
        by_thing.setdefault((each.kind, each.thing), []).append(each)
    for thing, own in sorted(by_thing.items()):
        lent = [each for each in hires if each.of == thing[1]]
        edges = {each.since for each in own} | {each.until + timedelta(days=1) for each in own}
        edges |= {date.fromisoformat(each.comes) for each in lent}
        edges |= {date.fromisoformat(each.goes_back) + timedelta(days=1) for each in lent}
        days = sorted(edges)
        run: list[_Stretch] = []
        for day, following in zip(days, [*days[1:], date.max], strict=True):
            now = [each for each in own if each.since <= day <= each.until]
            there = here.get(thing, 0) + hired_on(lent, thing[1], day)
            if len(now) > 1 and sum(each.number for each in now) > there:
                run.append(_Stretch(since=day, until=following - timedelta(days=1), here=there, claims=tuple(now)))
                continue
            if run:
                yield _worst(thing, run)
            run = []


@dataclass(frozen=True, slots=True, kw_only=True)
class _Stretch:
    """Days in a row on which nothing changes."""

    since: date
    until: date
    here: int
    claims: tuple[Claim, ...]

    @property
    def short(self) -> int:
        return sum(each.number for each in self.claims) - self.here


def _worst(thing: Thing, run: list[_Stretch]) -> Shortfall:
    worst = max(run, key=lambda each: each.short)
    return Shortfall(
        kind=thing[0],
        thing=thing[1],
        name=worst.claims[0].name,
        since=run[0].since,
        until=run[-1].until,
        wanted=sum(each.number for each in worst.claims),
        here=worst.here,
        by=tuple(Share(event_id=each.event_id, event=each.event, number=each.number) for each in worst.claims),
    )
