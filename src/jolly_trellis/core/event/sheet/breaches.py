"""What a sheet breaks and by how much, each named; one reckoning for the list, the solver, remedies and tests."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise
from typing import Literal

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.time import Stage, Task
from jolly_trellis.core.event.sheet.people import SLOT_MIN, Person, excess
from jolly_trellis.core.event.sheet.puzzle import AFTER, SETTING_UP, Puzzle, Slotted
from jolly_trellis.core.quantities import Phrase, duration, phrase

BreachKind = Literal[
    "order", "place", "access", "shut", "early", "late", "hands", "skill", "shift", "work", "span", "break", "rest"
]

# What a slot of each weighs when sheets are compared; how fresh flowers are comes after all of it.
WEIGHTS: Mapping[BreachKind, int] = {
    "order": 400,
    "place": 100,
    "access": 80,
    "shut": 60,
    "skill": 60,
    "late": 40,
    "hands": 30,
    "early": 20,
    "rest": 12,
    "shift": 12,
    "work": 8,
    "span": 8,
    "break": 6,
}
EXTRA_HAND = rule("Asking for one more is as bad as minutes of theirs", "minutes", 1440)
FRESH_WEIGHT: Mapping[Stage, int] = {"flower": 6, "tubes": 6, "green": 3, "on site": 6, "fill": 6, "collect": 4}
_HURT = 10_000
_OF_DAYS: tuple[BreachKind, ...] = ("work", "span", "break")


@dataclass(frozen=True, slots=True, kw_only=True)
class Breach:
    """One thing that a sheet breaks: how much, at which task or for whom, and in words."""

    kind: BreachKind
    minutes: int
    tasks: tuple[str, ...]
    person: str
    say: Phrase


@dataclass(slots=True)
class Placed:
    """Times and people for the tasks of a puzzle, by their place; `people` know what they do."""

    starts: list[int]
    crews: list[tuple[int, ...]]
    people: list[Person]


def badness_of(puzzle: Puzzle, placed: Placed) -> int:
    """How bad a sheet is: what it breaks, weighed; then how early work is done that should be late.

    Source: weights are ours; a lower number is a better sheet.
    """
    hurt = sum(WEIGHTS[kind] * slots for kind, slots, _, _ in _counted(puzzle, placed))
    hurt += WEIGHTS["hands"] * round(EXTRA_HAND.value / SLOT_MIN) * len(_extra(placed))
    return _HURT * hurt + sum(
        freshness(puzzle, task, start) for task, start in zip(puzzle.tasks, placed.starts, strict=True)
    )


def early_kind(task: Slotted) -> BreachKind:
    """What it is to begin sooner than it may: the place is not open, or flowers are in it for too long."""
    return "access" if task.task.stage in SETTING_UP and task.task.stage != "on site" else "early"


def freshness(puzzle: Puzzle, task: Slotted, start: int) -> int:
    """How far a task lies from when it is best done: late before the guests, soon after them."""
    weight = FRESH_WEIGHT.get(task.task.stage, 1)
    return weight * (start if task.task.stage in AFTER else puzzle.horizon - start)


def breaches_of(puzzle: Puzzle, placed: Placed) -> tuple[Breach, ...]:
    """Everything that a sheet breaks, the worst first."""
    found = [
        Breach(
            kind=kind,
            minutes=slots * SLOT_MIN,
            tasks=tasks,
            person=person,
            say=_say(puzzle, kind, slots, tasks, person),
        )
        for kind, slots, tasks, person in _counted(puzzle, placed)
        if slots > 0
    ]
    return tuple(sorted(found, key=lambda each: (-WEIGHTS[each.kind] * each.minutes, each.tasks, each.person)))


def _counted(puzzle: Puzzle, placed: Placed) -> Iterator[tuple[BreachKind, int, tuple[str, ...], str]]:
    """Each breach as its kind, slots, tasks and person."""
    for index, task in enumerate(puzzle.tasks):
        start, crew = placed.starts[index], placed.crews[index]
        key = (task.task.key,)
        for before, wait in task.follows:
            gap = placed.starts[before] + puzzle.tasks[before].size + wait - start
            if gap > 0:
                yield "order", gap, (task.task.key, puzzle.tasks[before].task.key), ""
        if start < task.soonest:
            yield early_kind(task), task.soonest - start, key, ""
        if start + task.size > task.latest:
            yield "late", start + task.size - task.latest, key, ""
        if not task.allows(start):
            yield "shut", task.size, key, ""
        wanted = set(task.task.skills)
        if wanted and crew and not any(wanted <= placed.people[each].skills for each in crew):
            yield "skill", task.size, key, ""
        for each in crew:
            person = placed.people[each]
            if not person.paid:
                yield "hands", task.size, key, person.name
            elif outside := person.outside(start, start + task.size):
                yield "shift", outside, key, person.name
    yield from _elsewhere(puzzle, placed)
    for person in placed.people:
        if not person.paid:
            continue
        for day in sorted(person.days):
            on = _keys_on(puzzle, placed, person, day)
            for kind, slots in zip(_OF_DAYS, excess(person.days, day, person.limits)[:3], strict=True):
                if slots:
                    yield kind, slots, on, person.name
            if day - 1 in person.days:
                alone = {day - 1: person.days[day - 1], day: person.days[day]}
                if lacks := excess(alone, day, person.limits)[3]:
                    yield "rest", lacks, on, person.name


def _elsewhere(puzzle: Puzzle, placed: Placed) -> Iterator[tuple[BreachKind, int, tuple[str, ...], str]]:
    """People who would have to be in two places within less than the way between them."""
    for place, person in enumerate(placed.people):
        if not person.paid or puzzle.travel == 0:
            continue
        mine = sorted(
            (start, task)
            for task, start, crew in zip(range(len(puzzle.tasks)), placed.starts, placed.crews, strict=True)
            if place in crew
        )
        for (before, one), (start, other) in pairwise(mine):
            gap = start - before - puzzle.tasks[one].size
            if puzzle.tasks[one].ends_there is not puzzle.tasks[other].begins_there and gap < puzzle.travel:
                yield "place", puzzle.travel - gap, (puzzle.tasks[other].task.key,), person.name


def _keys_on(puzzle: Puzzle, placed: Placed, person: Person, day: int) -> tuple[str, ...]:
    place = placed.people.index(person)
    return tuple(
        task.task.key
        for task, start, crew in zip(puzzle.tasks, placed.starts, placed.crews, strict=True)
        if place in crew and puzzle.day(start) == day
    )


def _extra(placed: Placed) -> frozenset[int]:
    return frozenset(each for crew in placed.crews for each in crew if not placed.people[each].paid)


def _say(puzzle: Puzzle, kind: BreachKind, slots: int, keys: tuple[str, ...], person: str) -> Phrase:
    tasks = {each.task.key: each.task for each in puzzle.tasks}
    task = tasks[keys[0]]
    by = duration(slots * SLOT_MIN / 60)
    words: dict[BreachKind, str] = {
        "order": "“{task}” begins {by} before “{other}” is done and has rested.",
        "place": "{person} has {by} too little to come to “{task}”.",
        "shut": "“{task}” lies outside the hours that its place is open.",
        "skill": "Nobody who does “{task}” {can}.",
        "late": "“{task}” ends {by} late: it is to be done by {at}.",
        "access": "“{task}” begins {by} before the place lets anybody in, at {at}.",
        "early": "“{task}” begins {by} too soon, before {at}.",
        "hands": "“{task}” wants somebody more for {by}.",
        "shift": "“{task}” lies {by} outside the hours of {person}.",
        "work": "{person} works {by} more than the longest day allows.",
        "span": "{person} is at work {by} longer from first to last than the longest day allows.",
        "break": "{person} works {by} too long without a break.",
        "rest": "{person} has {by} too little rest before the day.",
    }
    bound = task.latest if kind == "late" else task.soonest
    return phrase(
        words[kind],
        task=task.name,
        other=tasks[keys[-1]].name,
        by=by,
        person=person,
        at="" if bound is None else _clock(puzzle, bound),
        can=_can(task),
    )


def _clock(puzzle: Puzzle, at: datetime) -> str:
    return f"{at.astimezone(puzzle.job.zone):%d %b, %H:%M}"


def _can(task: Task) -> str:
    words = {"drives": "drives", "ladders": "goes up ladders", "knots": "ties and proves lines"}
    return " and ".join(words[each] for each in task.skills)
