"""Things that return, wanted by events near one another: against counting every day, and days worked by hand."""

from collections.abc import Iterator
from dataclasses import replace
from datetime import date, timedelta
from random import Random

import pytest

from jolly_trellis.core.event.needs.needs import ThingIn
from jolly_trellis.core.event.returning.reservations import (
    Claim,
    Shortfall,
    Thing,
    away,
    claims_of,
    shortfalls,
    wanted_of,
)
from tests.events import at, demo_made, job, one_bowl

FIRST = date(2027, 5, 1)


def claim(event_id: int, since: int, until: int, number: int, name: str = "low bowl") -> Claim:
    first, last = (FIRST + timedelta(days=each) for each in (since, until))
    return Claim(
        event_id=event_id,
        event=f"event {event_id}",
        kind="vessel",
        thing=name,
        name=name,
        number=number,
        since=first,
        until=last,
    )


def by_day(found: Shortfall) -> Iterator[date]:
    day = found.since
    while day <= found.until:
        yield day
        day += timedelta(days=1)


def test_two_events_that_want_more_than_there_is_are_both_named() -> None:
    (found,) = shortfalls([claim(1, 0, 3, 12), claim(2, 2, 5, 12), claim(3, 9, 9, 14)], {("vessel", "low bowl"): 14})
    assert (found.since, found.until) == (FIRST + timedelta(days=2), FIRST + timedelta(days=3))
    assert (found.wanted, found.here) == (24, 14)
    assert [(each.event_id, each.event, each.number) for each in found.by] == [(1, "event 1", 12), (2, "event 2", 12)]


def test_one_after_the_other_and_one_alone_are_no_shortfall_between_events() -> None:
    assert list(shortfalls([claim(1, 0, 3, 12), claim(2, 4, 5, 12)], {("vessel", "low bowl"): 14})) == []
    assert list(shortfalls([claim(1, 0, 3, 20)], {("vessel", "low bowl"): 14})) == []
    assert list(shortfalls([claim(1, 0, 3, 7), claim(2, 0, 3, 7)], {("vessel", "low bowl"): 14})) == []
    (none_here,) = shortfalls([claim(1, 0, 0, 1), claim(2, 0, 0, 1)], {})
    assert (none_here.wanted, none_here.here, none_here.since) == (2, 0, none_here.until)


@pytest.mark.parametrize("seed", range(40))
def test_any_calendar_against_counting_every_day(seed: int) -> None:
    chance = Random(seed)
    names = ["low bowl", "urn"]
    claims = []
    for event_id in range(1, chance.randint(2, 14)):
        since = chance.randint(0, 25)
        claims.append(claim(event_id, since, since + chance.randint(0, 5), chance.randint(1, 9), chance.choice(names)))
    here: dict[Thing, int] = {("vessel", "low bowl"): chance.randint(0, 14), ("vessel", "urn"): 3}
    found = list(shortfalls(claims, here))
    short: dict[tuple[str, date], int] = {}
    for name in names:
        for offset in range(40):
            day = FIRST + timedelta(days=offset)
            now = [each for each in claims if each.name == name and each.since <= day <= each.until]
            if len(now) > 1 and sum(each.number for each in now) > here["vessel", name]:
                short[name, day] = sum(each.number for each in now)
    assert {(each.name, day) for each in found for day in by_day(each)} == set(short)
    for each in found:
        days = [short[each.name, day] for day in by_day(each)]
        assert (each.wanted, each.here) == (max(days), here["vessel", each.name])
        assert sum(part.number for part in each.by) == each.wanted
        assert (each.name, each.since - timedelta(days=1)) not in short
        assert (each.name, each.until + timedelta(days=1)) not in short


def test_things_are_away_from_the_drive_to_the_day_they_are_clean_again() -> None:
    """The place opens at 8 on the 15th, 45 min off; all is gone by 2 on the 16th, clean on the 17th."""
    asked = replace(job(), clear_by=at("2027-05-16T02:00"))
    assert away(asked) == (date(2027, 5, 15), date(2027, 5, 17))
    assert away(replace(asked, travel_h=9.0)) == (date(2027, 5, 14), date(2027, 5, 17))
    assert away(replace(asked, clear_by=at("2027-05-15T23:30"))) == (date(2027, 5, 15), date(2027, 5, 17))
    assert away(replace(asked, clear_by=at("2027-05-15T23:00"))) == (date(2027, 5, 15), date(2027, 5, 16))
    assert away(replace(asked, access_at=None, filled_at=None)) is None


def test_an_event_claims_every_vessel_stand_and_insert_of_its_pieces() -> None:
    pieces = [each.piece for each in demo_made().pieces]
    wanted = {(each.kind, each.thing): number for each, number in wanted_of(pieces).items()}
    low = one_bowl().pieces[0].piece
    kept = ThingIn(kind="vessel", thing="vessel:low-bowl-20", name=low.vessel.name)
    assert wanted_of([low]) == {kept: 3}
    own = replace(low, vessel=replace(low.vessel, key=""))
    assert wanted_of([low, own, own]) == {kept: 3, replace(kept, thing=f"~{low.vessel.name}"): 6}
    raised = next(each for each in pieces if each.support is not None)
    assert raised.support is not None
    assert wanted["stand", f"stand:{raised.support.key}"] >= raised.quantity
    claims = claims_of(7, "supper", job(), pieces)
    assert {(each.kind, each.thing): each.number for each in claims} == wanted
    assert {(each.event_id, each.event) for each in claims} == {(7, "supper")}
    assert claims_of(7, "supper", replace(job(), access_at=None, filled_at=None), pieces) == ()
