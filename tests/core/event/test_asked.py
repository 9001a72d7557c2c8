"""What a day asks for beside hands and hours: buckets, seats, a crew in two, people of two events, waiting water."""

from collections.abc import Iterable
from dataclasses import replace
from datetime import timedelta

import pytest

from jolly_trellis.core.books.time import Stage, Task, TimeBook, Where
from jolly_trellis.core.event.day.asked_twice import Asked, asked_twice
from jolly_trellis.core.event.day.buckets import buckets_of
from jolly_trellis.core.event.day.day import day_of
from jolly_trellis.core.event.day.notes import Note, notes_of
from jolly_trellis.core.event.day.remedies import split
from jolly_trellis.core.event.day.standing import standing_notes
from jolly_trellis.core.event.job import CrewMember, Hours, Job, Made
from jolly_trellis.core.event.needs.bunches import StemBuy
from jolly_trellis.core.event.sheet.enough import lack_of
from jolly_trellis.core.event.sheet.schedule import Timed, schedule
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.tasks_there import on_their_own, riders_of
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.units import render
from tests.events import at, demo_made, job
from tests.ordinary import conditions, varieties


def tasks(asked: Job | None = None, made: Made | None = None) -> dict[str, Task]:
    return time_book(asked or job(), made or demo_made(), varieties()).by_key()


def timed(key: str, stage: Stage, starts: str, ends: str, *, crew: tuple[int, ...] = (0,), of: str = "rose") -> Timed:
    """A task of a sheet that was made by hand."""
    task = Task(key=key, stage=stage, name=key, where="workshop", minutes=60, varieties=(of,))
    return Timed(task=task, starts_at=at(starts), ends_at=at(ends), crew=crew, locked=False)


def buy(variety: str, stems: int) -> StemBuy:
    return StemBuy(
        variety=variety,
        name=variety,
        colour="",
        in_recipes=stems,
        with_waste=stems,
        here=0,
        bunch_size=10,
        bunches=stems // 10,
        singles=stems % 10,
        cost=None,
        left_over=0,
    )


def open_roses() -> dict[str, Variety]:
    """The varieties, with roses that come open."""
    known = dict(varieties())
    return {**known, "rose": replace(known["rose"], opening_days=0.0)}


SHEET = (
    timed("a:condition:1", "condition", "2027-05-13T10:00", "2027-05-13T11:00", of="rose"),
    timed("1:flower:1", "flower", "2027-05-14T15:00", "2027-05-14T16:00", of="rose"),
    timed("2:flower:1", "flower", "2027-05-15T08:00", "2027-05-15T09:00", of="rose"),
    timed("b:condition:1", "condition", "2027-05-14T09:00", "2027-05-14T10:00", of="ruscus"),
    timed("1:green:1", "green", "2027-05-14T13:00", "2027-05-14T14:00", of="ruscus"),
    timed("c:condition:1", "condition", "2027-05-14T16:00", "2027-05-14T17:00", of="scabious"),
    timed("3:flower:1", "flower", "2027-05-15T10:00", "2027-05-15T11:00", of="scabious"),
)


def test_buckets_stand_from_conditioning_to_the_last_stem_put_in() -> None:
    """51 roses want three buckets, 26 ruscus two, 25 scabious one: by hand."""
    known = open_roses()
    rose_drinks = known["rose"].conditioning_h
    found = buckets_of([buy("rose", 51), buy("ruscus", 26), buy("scabious", 25)], known, SHEET)
    assert (found.all.most, found.all.at) == (5, at("2027-05-14T09:00"))
    assert found.cool.most == (3 if 11 + rose_drinks < 39 else 0)
    assert buckets_of([buy("rose", 51)], known, SHEET).all.most == 3
    assert buckets_of([buy("rose", 0)], known, SHEET).all.most == 0
    assert buckets_of([buy("rose", 51)], known, SHEET[1:]).all.at is None
    gone = buckets_of([buy("rose", 25), buy("scabious", 25)], known, (*SHEET[:2], *SHEET[5:]))
    assert gone.all.most == 1


def test_flowers_wait_in_the_cool_room_once_they_have_drunk_and_buds_and_greens_do_not() -> None:
    known = open_roses()
    slow = {**known, "rose": replace(known["rose"], conditioning_h=30.0)}
    drunk = buckets_of([buy("rose", 25)], known, SHEET).cool.at
    assert drunk == at("2027-05-13T11:00") + timedelta(hours=known["rose"].conditioning_h)
    assert buckets_of([buy("rose", 25)], slow, SHEET).cool.at is None
    bud = {**known, "rose": replace(known["rose"], opening_days=2.0)}
    assert buckets_of([buy("rose", 25)], bud, SHEET).cool.most == 0
    assert buckets_of([buy("ruscus", 25)], known, SHEET).cool.most == 0


def test_too_few_buckets_fail_enough_hold_and_nobody_having_said_is_said() -> None:
    def states(asked: Job) -> list[str]:
        return [each.state for each in notes_of(asked, [buy("rose", 51)], open_roses(), SHEET)]

    assert states(job()) == ["cannot say", "cannot say"]
    assert states(replace(job(), buckets=3, cool_buckets=2)) == ["holds", "fails"]
    assert states(replace(job(), buckets=2, cool_buckets=3)) == ["fails", "holds"]
    said = notes_of(replace(job(), buckets=1), [buy("rose", 51)], open_roses(), SHEET)[0]
    assert (
        render(said.say, "metric")
        == "3 buckets stand in the workshop at most, from Thu 13 May, 10:00: 2 more than there can be."
    )
    assert notes_of(job(), [], varieties(), SHEET) == ()


def test_who_goes_with_the_van() -> None:
    crew = (
        CrewMember(name="Wren", skills=("knots",)),
        CrewMember(name="Alder", skills=("drives",)),
        CrewMember(name="Sorrel", skills=(), comes="15:00"),
        CrewMember(name="Rush", skills=("drives",), does="strike"),
    )
    asked = replace(job(), crew=crew)
    assert riders_of(asked) == (0, 1)
    assert on_their_own(asked) == ("Sorrel", "Rush")
    assert riders_of(replace(asked, seats=1)) == (1,)
    assert on_their_own(replace(asked, travel_h=None)) == ()
    assert riders_of(replace(asked, crew=())) == (0,)
    assert riders_of(replace(asked, crew=crew[3:])) == (0,)
    assert riders_of(replace(asked, crew=crew[2:3])) == (0,)
    found = notes_of(replace(asked, seats=1), [], varieties(), ())
    assert "No seat in the van" in render(found[0].say, "metric")
    assert "Wren, Sorrel, Rush" in render(found[0].say, "metric")


def test_who_builds_on_a_day_before_can_do_it() -> None:
    """One drives, one of those who go up ladders ties knots as well; the first in the crew who do."""
    crew = (
        CrewMember(name="Wren", skills=()),
        CrewMember(name="Alder", skills=("drives",)),
        CrewMember(name="Sorrel", skills=("ladders",)),
        CrewMember(name="Rush", skills=("ladders", "knots")),
    )
    asked = replace(job(), crew=crew, builds_from=at("2027-05-14T08:00"), builds_to=at("2027-05-14T19:00"))
    found = tasks(asked)
    assert found["van-early:drive:1"].people == (1, 3)
    short = replace(asked, builds_to=at("2027-05-14T11:30"))
    assert found["van-early:drive:1"].minutes < 3 * 60
    assert tasks(short)["van-early:drive:1"].people == (0, 1, 2, 3)


def test_a_crew_in_two_has_a_driver_in_each() -> None:
    drives, not_so = CrewMember(name="a", skills=("drives",)), CrewMember(name="b", skills=())
    crew = (drives, not_so, replace(drives, name="c"), replace(not_so, name="d"))
    parts = split(crew)
    assert {each.name: each.does for each in parts} == {
        "a": "setting up",
        "b": "strike",
        "c": "strike",
        "d": "setting up",
    }
    assert split(parts) == parts
    assert split(crew[:2]) == crew[:2]
    asked = replace(job(), crew=parts)
    sheet = schedule(tuple(tasks(asked).values()), asked, effort=0.05)
    early = {
        place
        for each in sheet.timed
        if each.task.stage in ("drive", "install", "fill", "on site")
        for place in each.crew
    }
    late = {place for each in sheet.timed if each.task.stage in ("strike", "return") for place in each.crew}
    assert early & set(range(4)) == {0, 3}
    assert late & set(range(4)) <= {1, 2}


def test_greens_a_day_sooner_may_be_placed_a_day_sooner() -> None:
    usual, sooner = tasks(), tasks(replace(job(), greens_sooner=True))
    key = next(key for key, each in usual.items() if each.stage == "green")
    before, now = usual[key].soonest, sooner[key].soonest
    assert before is not None
    assert now is not None
    assert (before - now).total_seconds() == 24 * 3600
    assert sooner[key].why == "greens keep 72 h in the work"
    flower = next(key for key, each in usual.items() if each.stage == "flower")
    assert usual[flower].soonest == sooner[flower].soonest


def work(
    key: str, soonest: str, latest: str | None, minutes: int, *, where: Where = "workshop", hands: int = 1
) -> Task:
    return Task(
        key=key,
        stage="green" if where == "workshop" else "install",
        name=key,
        where=where,
        minutes=minutes,
        hands=hands,
        soonest=at(soonest),
        latest=None if latest is None else at(latest),
    )


def test_hours_that_cannot_be_enough_are_proved_and_others_are_not() -> None:
    """The workshop is open from 8 to 19; the van is loaded by 11:45 on the 15th: 11 + 3.75 h, by hand."""
    load = work("load", "2027-05-14T08:00", "2027-05-15T11:45", 15)
    alone = replace(job(), crew=job().crew[:1], hours=Hours())

    def lack(*own: Task, asked: Job = alone) -> object:
        return lack_of(TimeBook(tasks=(load, *own)), asked)

    assert lack(work("a", "2027-05-14T08:00", None, 13 * 60), work("b", "2027-05-14T09:00", None, 30)) is None
    found = lack_of(
        TimeBook(tasks=(load, *(work(str(nth), "2027-05-14T08:00", None, 120) for nth in range(8)))), alone
    )
    assert found is not None
    assert (found.workshop, found.since, found.until) == (True, at("2027-05-14T08:00"), at("2027-05-15T11:45"))
    assert found.work_h == pytest.approx(16.25)
    assert found.have_h == pytest.approx(10 + 3.75)
    two = replace(alone, crew=job().crew[:2])
    assert (
        lack_of(TimeBook(tasks=(load, *(work(str(nth), "2027-05-14T08:00", None, 120) for nth in range(8)))), two)
        is None
    )
    there = [work(str(nth), "2027-05-15T08:00", "2027-05-15T12:00", 90, where="venue", hands=2) for nth in range(3)]
    found = lack_of(TimeBook(tasks=tuple(there)), two)
    assert found is not None
    assert (found.workshop, found.work_h, found.have_h) == (False, 9.0, 8.0)
    narrow = work("narrow", "2027-05-15T08:00", "2027-05-15T08:30", 600, where="venue")
    assert lack_of(TimeBook(tasks=(narrow,)), alone) is None
    assert lack_of(TimeBook(tasks=tuple(there)), replace(two, filled_at=None)) is None


def asked(event: str, crew: tuple[str, ...], *timed_tasks: Timed) -> Asked:
    return Asked(event=event, crew=tuple(CrewMember(name=each) for each in crew), timed=timed_tasks)


def said(notes: Iterable[Note]) -> list[str]:
    return [render(each.say, "metric") for each in notes]


def test_a_person_whom_two_events_ask_for_at_once_is_named_on_both() -> None:
    here = asked(
        "Supper",
        ("Wren", "Alder"),
        timed("place", "install", "2027-05-15T10:00", "2027-05-15T11:00", crew=(0, 1)),
        timed("fill", "fill", "2027-05-15T12:00", "2027-05-15T13:00", crew=(0,)),
    )
    there = asked(
        "Lunch",
        ("ALDER", "wren"),
        timed("hang", "install", "2027-05-15T10:30", "2027-05-15T11:30", crew=(1,)),
        timed("strike", "strike", "2027-05-15T12:15", "2027-05-15T12:45", crew=(1,)),
    )
    mine, other = (said(asked_twice(one, [two], job().zone)) for one, two in ((here, there), (there, here)))
    assert mine == [
        "Wren is asked for by “Lunch” as well, 1 h at the same time: first on Sat 15 May, 10:30, “place” here and "
        "“hang” there."
    ]
    assert other == [
        mine[0]
        .replace("Lunch", "Supper")
        .replace("Wren", "wren")
        .replace("“place” here and “hang”", "“hang” here and “place”")
    ]


def test_a_day_too_long_by_two_events_together_is_named_and_one_that_is_too_long_alone_is_not() -> None:
    long = timed("make", "flower", "2027-05-15T08:00", "2027-05-15T14:00")
    late = timed("strike", "strike", "2027-05-16T01:00", "2027-05-16T03:59")
    later = timed("strike", "strike", "2027-05-15T15:00", "2027-05-15T20:30")
    zone = job().zone
    found = said(asked_twice(asked("a", ("Wren",), long), [asked("b", ("Wren",), later)], zone))
    assert found == [
        "Wren works 11 h 30 min on Sat 15 May, with “b” as well: 1 h 30 min more than the longest day allows."
    ]
    assert said(asked_twice(asked("a", ("Wren",), long), [asked("b", ("Wren",), late)], zone)) == []
    both = asked("b", ("Wren",), later, late)
    assert "14 h 29 min" in said(asked_twice(asked("a", ("Wren",), long), [both], zone))[0]
    endless = asked("b", ("Wren",), timed("make", "flower", "2027-05-15T14:00", "2027-05-16T01:00"))
    assert said(asked_twice(asked("a", ("Wren",), long), [endless], zone)) == []
    assert said(asked_twice(asked("a", ("Wren",), long), [asked("b", ("Rush",), later)], zone)) == []


def test_a_piece_that_stands_longer_by_its_sheet_than_drink_reckons_is_asked_again() -> None:
    """Finished ten days ahead it runs dry before its water; finished when Drink supposes it, nothing is said."""
    trough = next(each for each in demo_made().pieces if each.piece.name == "Head table trough")
    known = replace(
        conditions(),
        finished_at=at("2027-05-14T19:00"),
        loaded_at=at("2027-05-15T11:00"),
        workshop=Air(temperature_c=18.0, relative_humidity=0.6),
    )
    made = Made(pieces=(replace(trough, report=evaluate(trough.piece, known, with_fixes=False)),))
    work_id = trough.id

    def sheet(finished: str, loaded: str) -> tuple[Timed, ...]:
        flower = timed(f"{work_id}:flower:1", "flower", finished[:-5] + "06:00", finished)
        return (
            replace(flower, task=replace(flower.task, piece_id=work_id)),
            timed("van:load:1", "load", loaded, loaded),
        )

    assert list(standing_notes(made, known, sheet("2027-05-14T19:00", "2027-05-15T11:00"))) == []
    assert list(standing_notes(made, known, sheet("2027-05-15T08:00", "2027-05-15T11:00"))) == []
    found = list(standing_notes(made, known, sheet("2027-05-05T19:00", "2027-05-15T11:00")))
    assert [each.state for each in found] == ["fails"]
    assert "is finished on Wed 05 May, 19:00" in render(found[0].say, "metric")
    assert list(standing_notes(made, known, ())) == []


def test_a_day_says_what_it_asks_for() -> None:
    found = day_of(replace(job(), buckets=4000, cool_buckets=0), demo_made(), varieties(), effort=0)
    assert [each.state for each in found.notes][:2] == ["holds", "fails"]


def test_stems_that_are_here_stand_in_buckets_from_the_beginning() -> None:
    """26 ruscus here are two buckets from Thursday on, beside the three of the roses that are bought."""
    here = replace(buy("ruscus", 0), here=26)
    found = buckets_of([buy("rose", 51), here], open_roses(), SHEET)
    assert (found.all.most, found.all.at) == (5, at("2027-05-13T10:00"))
    assert buckets_of([here], open_roses(), SHEET[:2]).all.most == 0
