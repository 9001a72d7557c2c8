"""Sheets of jobs that nobody laid out: always one, never worse than the list's, what they break is what they say."""

from dataclasses import replace
from itertools import permutations, product
from random import Random

import pytest

from jolly_trellis.core.books.time import Skill, Task, Wait
from jolly_trellis.core.event.job import CrewMember, Job, Supplier, Weekday
from jolly_trellis.core.event.sheet.breaches import Placed, badness_of
from jolly_trellis.core.event.sheet.list_schedule import _List, list_schedule
from jolly_trellis.core.event.sheet.people import Person, excess, in_slots, limits
from jolly_trellis.core.event.sheet.puzzle import Puzzle, puzzle_of
from jolly_trellis.core.event.sheet.schedule import RunSheet, schedule
from jolly_trellis.core.event.sheet.solver import better
from jolly_trellis.core.event.tasks.tasks import time_book
from tests.day_check import problems_of
from tests.events import at, demo_made, job, one_bowl
from tests.ordinary import varieties

SKILLS: tuple[tuple[Skill, ...], ...] = ((), ("drives",), ("ladders", "knots"), ("drives", "ladders", "knots"))


def said(sheet: RunSheet) -> set[tuple[str, str]]:
    of_people = {"work", "span", "break", "rest"}
    return {(each.kind, each.person if each.kind in of_people else each.tasks[0]) for each in sheet.breaches}


def some_job(seed: int) -> Job:
    """A job of one to eight people, with hours, skills, suppliers, a road and a day before, as chance has it."""
    chance = Random(seed)
    hours = (None, None), ("07:00", "16:00"), ("13:00", "01:30"), ("06:00", None)
    crew = tuple(
        CrewMember(name=f"hand {nth}", skills=chance.choice(SKILLS), comes=comes, goes=goes)
        for nth in range(chance.randint(1, 8))
        for comes, goes in (chance.choice(hours),)
    )
    choices: list[tuple[Weekday, ...]] = [("mon", "thu"), ("tue", "wed", "fri", "sat"), ("sun",)]
    market = Supplier(name="Market", opens="04:30", closes="10:00", days=chance.choice(choices))
    return replace(
        job(),
        crew=crew,
        travel_h=chance.choice([None, 0.25, 0.75, 2.5]),
        suppliers=() if chance.random() < 0.4 else (market,),
        builds_from=at("2027-05-14T09:00") if chance.random() < 0.5 else None,
        topped_up_by=chance.choice([None, "hand 0", "the house"]),
        clear_by=chance.choice([None, at("2027-05-16T02:00")]),
    )


@pytest.mark.parametrize("seed", range(30))
def test_a_job_as_chance_has_it_has_a_sheet_and_all_that_it_breaks_is_named(seed: int) -> None:
    """Checked apart from the scheduler: order, waits, windows, hands, skills, hours, rests, places."""
    asked, chance = some_job(seed), Random(seed)
    made = demo_made() if seed % 3 == 0 else one_bowl(chance.choice([1, 3, 12, 55]))
    if seed % 3 == 0:
        made = replace(made, pieces=made.pieces[: chance.randint(1, 9)], rigs=made.rigs[: chance.randint(0, 6)])
    book = time_book(asked, made, varieties())
    first = schedule(book.tasks, asked, effort=0)
    assert {each.task.key for each in first.timed} == {each.key for each in book.tasks}
    assert problems_of(first.timed, book.tasks, asked) == said(first)
    later = schedule(book.tasks, asked, effort=0.05)
    assert problems_of(later.timed, book.tasks, asked) == said(later)
    assert later.cost <= first.cost


def small(tasks: tuple[Task, ...], people: int) -> Puzzle:
    asked = replace(job(), crew=tuple(CrewMember(name=f"hand {nth}") for nth in range(people)), travel_h=None)
    return puzzle_of(tasks, asked)


def step(key: str, minutes: int, *after: str) -> Task:
    """A task at the place, between ten and half past eleven of the day."""
    return Task(
        key=key,
        stage="install",
        name=key,
        where="venue",
        minutes=minutes,
        soonest=at("2027-05-15T10:00"),
        latest=at("2027-05-15T11:30"),
        after=tuple(Wait(task=each) for each in after),
    )


def best_by_force(puzzle: Puzzle) -> int:
    """The least badness of all orders of the tasks on all people, each task as late as it goes in its order."""
    best = None
    places = range(len(puzzle.tasks))
    for order in permutations(places):
        for crew in product(range(len(puzzle.job.crew)), repeat=len(puzzle.tasks)):
            starts: dict[int, int] = {}
            taken: dict[int, int] = {}
            for index in order:
                task = puzzle.tasks[index]
                ends = [starts[follower] - wait for follower, wait in puzzle.followers[index] if follower in starts]
                if len(ends) < len(puzzle.followers[index]):
                    break
                until = min([task.latest, taken.get(crew[index], task.latest), *ends])
                starts[index] = taken[crew[index]] = until - task.size
            else:
                people = puzzle.people(more=0)
                for index in places:
                    start = starts[index]
                    people[crew[index]].take(puzzle.day(start), start, start + puzzle.tasks[index].size, True, True)
                placed = Placed(
                    starts=[starts[each] for each in places], crews=[(crew[each],) for each in places], people=people
                )
                cost = badness_of(puzzle, placed)
                best = cost if best is None else min(best, cost)
    assert best is not None
    return best


@pytest.mark.parametrize(
    ("tasks", "people"),
    [
        ((step("a", 30), step("b", 20), step("c", 25)), 1),
        ((step("a", 45), step("b", 45), step("c", 45)), 2),
        ((step("a", 30), step("b", 35, "a"), step("c", 60), step("d", 20, "c")), 2),
        ((step("a", 60), step("b", 60), step("c", 60)), 1),
    ],
    ids=["one after the other", "three on two", "two chains", "more than goes in"],
)
def test_small_jobs_are_as_good_as_trying_everything(tasks: tuple[Task, ...], people: int) -> None:
    """Against brute force over every order and every person."""
    puzzle = small(tasks, people)
    first = list_schedule(puzzle)
    found = better(puzzle, first, effort=1.0, tell=lambda _: None, stop=lambda: False)
    assert badness_of(puzzle, found) <= best_by_force(puzzle)
    assert badness_of(puzzle, found) <= badness_of(puzzle, first)


def test_what_may_be_asked_of_a_person_by_hand() -> None:
    """Ten hours of work in twelve, a break before six hours, eleven hours of rest; in slots of five minutes."""
    long_day = {0: [(0, in_slots(7)), (in_slots(7.5), in_slots(13))]}
    work, span, unbroken, rest = excess(long_day, 0, limits())
    assert work == in_slots(12.5 - 10)
    assert span == in_slots(13 - 12)
    assert unbroken == in_slots(7 - 6)
    assert rest == 0
    late = {0: [(0, in_slots(16))], 1: [(in_slots(24), in_slots(25))]}
    assert excess(late, 1, limits())[3] == in_slots(11 - 8)
    assert excess(late, 0, limits())[3] == in_slots(11 - 8)
    gap = {0: [(0, in_slots(4)), (in_slots(4.4), in_slots(8))]}
    assert excess(gap, 0, limits())[2] > 0
    assert excess({0: [(0, in_slots(4)), (in_slots(4.5), in_slots(8))]}, 0, limits())[2] == 0
    assert excess({}, 3, limits()) == (0, 0, 0, 0)


def test_hours_of_a_person_and_the_way_between_two_places() -> None:
    person = Person(name="Wren", skills=frozenset(), shift=((100, 200), (388, 488)), travel=9)
    assert person.outside(120, 180) == 0
    assert person.outside(90, 110) == 10
    assert person.outside(210, 220) == 10
    person.take(0, 120, 130, True, True)
    assert not person.free(125, 140, True, True)
    assert person.free(130, 140, True, True)
    assert not person.free(130, 140, False, False)
    assert person.free(139, 150, False, False)
    assert not person.free(105, 112, False, False)
    assert person.free(105, 111, False, False)
    back, there = (True, False), (False, True)
    assert person.free(130, 139, *back)
    assert not person.free(130, 139, *there)
    assert person.free(111, 120, *there)
    assert not person.free(111, 120, *back)
    for begins, ends in ((True, True), (False, False), back, there):
        blocked = person.blocked(9, begins, ends)
        assert all(person.free(at, at + 9, begins, ends) is not bool(blocked >> at & 1) for at in range(90, 160))
    assert person.over(0, 130, 140) == 0
    assert person.over(0, 205, 215) == 10


def test_a_puzzle_knows_the_way_and_begins_the_day_before_the_first_task() -> None:
    """Mechanics may be made 96 h before 12:30 on the 15th: the 11th; so it begins at 4 in the morning of the 10th."""
    puzzle = puzzle_of(time_book(job(), one_bowl(), varieties()).tasks, job())
    assert (puzzle.travel, puzzle.time(0)) == (9, at("2027-05-10T04:00"))
    assert puzzle_of((puzzle.tasks[0].task,), replace(job(), travel_h=None)).travel == 0


def test_placing_a_task_costs_what_it_adds_to_the_sheet() -> None:
    """Two hours too soon, an hour late, beyond its windows, with somebody more: each as `badness_of` weighs it."""
    alone = replace(job(), crew=(CrewMember(name="Wren"),))
    task = Task(
        key="1:green:1",
        stage="green",
        name="Green",
        where="workshop",
        minutes=60,
        soonest=at("2027-05-14T12:00"),
        latest=at("2027-05-14T14:00"),
    )
    puzzle = puzzle_of((task,), alone)
    (slotted,) = puzzle.tasks
    for clock in ("10:00", "12:30", "14:00", "18:30", "23:00"):
        for crew in ((0,), (1,)):
            start = puzzle.slot(at(f"2027-05-14T{clock}"))
            listed = _List(puzzle, None, build_first=False)
            cost = listed._cost(slotted, start, crew)
            people = puzzle.people()
            people[crew[0]].take(puzzle.day(start), start, start + slotted.size, False, False)
            assert cost == badness_of(puzzle, Placed(starts=[start], crews=[crew], people=people)), (clock, crew)


def test_stems_of_a_market_that_opens_when_the_workshop_shuts_are_conditioned_on_the_next_day() -> None:
    night = Supplier(name="Night market", opens="21:00", closes="23:30", days=("mon", "tue", "wed", "thu", "fri"))
    tasks = time_book(replace(job(), suppliers=(night,)), one_bowl(), varieties()).tasks
    for task in tasks:
        if task.stage == "condition":
            fetched = next(each for each in tasks if each.key == task.after[0].task)
            (opens, _), (begins, closes) = fetched.windows[0], task.windows[0]
            assert (begins.date() - opens.date()).days == 1
            assert (begins.hour, closes.hour) == (job().hours.opens.hour, job().hours.closes.hour)
