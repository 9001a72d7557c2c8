"""A sheet while it is made: tasks and people in slots of five minutes of elapsed time.

Elapsed time, so that a clock change at night adds or loses no hour.
"""

import math
from bisect import bisect_right
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta

from jolly_trellis.core.books.time import SKILLS, Stage, Task
from jolly_trellis.core.event.job import CrewMember, Job, Part
from jolly_trellis.core.event.sheet.people import DAY_BEGINS_H, SLOT_MIN, Interval, Person
from jolly_trellis.core.event.sheet.task import BACK_EARLY, MADE_WITHIN, THERE_EARLY
from jolly_trellis.core.quantities import worded

AFTER: tuple[Stage, ...] = ("strike", "return")
SETTING_UP: tuple[Stage, ...] = ("drive", "install", "fill", "on site")
NOT_THEIRS: Mapping[Part, frozenset[Stage]] = {"setting up": frozenset(AFTER), "strike": frozenset(SETTING_UP)}
NOBODY = CrewMember(name="you")
MORE_HANDS = 3
UNLOADS_TO = time(23)
_AFTER_H = 24


@dataclass(frozen=True, slots=True, kw_only=True)
class Slotted:
    """A task in slots: how many it takes, from when to when it may lie, the spans it may only lie in, what it follows.

    `follows` has a task's place and the slots to wait after it; `fixed` is a start that is set.
    """

    task: Task
    size: int
    soonest: int
    latest: int
    windows: tuple[Interval, ...]
    follows: tuple[tuple[int, int], ...]
    fixed: int | None

    @property
    def begins_there(self) -> bool:
        """Whether it begins at the place of the event: all that is done there, and the way back."""
        return self.task.where == "venue" or (self.task.where == "road" and self.task.stage == "return")

    @property
    def ends_there(self) -> bool:
        """Whether it ends at the place of the event: all that is done there, and the way there."""
        return self.task.where == "venue" or (self.task.where == "road" and self.task.stage != "return")

    def may_be(self, place: int, person: Person) -> bool:
        """Whether somebody's hands may be chosen for it: it is their part of the work, or they are not of the crew."""
        if not person.paid:
            return True
        among = self.task.among
        return self.task.stage not in person.shuns and (among is None or place in among)

    def allows(self, start: int) -> bool:
        """Whether it may start then by its windows."""
        return not self.windows or any(a <= start and start + self.size <= b for a, b in self.windows)


@dataclass(frozen=True, slots=True, kw_only=True)
class Puzzle:
    """All tasks and what is known of the people, for one sheet.

    `dawns` are the beginnings of the working days, `travel` slots of the way to the place of the event, `builds` what
    is done there on a day before, with the way there and back.
    """

    job: Job
    begins: datetime
    horizon: int
    travel: int
    dawns: tuple[int, ...]
    tasks: tuple[Slotted, ...]
    followers: tuple[tuple[tuple[int, int], ...], ...]
    builds: tuple[int, ...]

    def day(self, slot: int) -> int:
        """The working day a slot belongs to."""
        return max(bisect_right(self.dawns, slot) - 1, 0)

    def time(self, slot: int) -> datetime:
        """A slot as a local time."""
        return (self.begins + timedelta(minutes=slot * SLOT_MIN)).astimezone(self.job.zone)

    def slot(self, at: datetime, *, up: bool = False) -> int:
        """A time as a slot, down or up."""
        minutes = (at.astimezone(UTC) - self.begins).total_seconds() / 60
        return int(-(-minutes // SLOT_MIN)) if up else int(minutes // SLOT_MIN)

    def people(self, *, more: int = MORE_HANDS) -> list[Person]:
        """The crew with nothing to do yet, and so many who are not of it."""
        crew = self.job.crew or (NOBODY,)
        own = [
            Person(
                name=each.name,
                skills=frozenset(each.skills),
                shift=self._shift(each),
                shuns=NOT_THEIRS.get(each.does, frozenset()),
                travel=self.travel,
            )
            for each in crew
        ]
        return own + [one_more(nth) for nth in range(more)]

    def _shift(self, member: CrewMember) -> tuple[Interval, ...] | None:
        if member.comes is None and member.goes is None:
            return None
        found = []
        for dawn, ends in zip(self.dawns, (*self.dawns[1:], self.horizon), strict=True):
            day = self.time(dawn).date()
            comes = dawn if member.comes is None else self.slot(_at(self.job, day, member.comes), up=True)
            goes = ends if member.goes is None else self.slot(_at(self.job, day, member.goes))
            if goes <= comes and member.goes is not None:
                goes = self.slot(_at(self.job, day + timedelta(days=1), member.goes))
            found.append((comes, goes))
        return tuple(found)


def one_more(nth: int) -> Person:
    """Somebody who is not of the crew, and can do everything."""
    return Person(name=worded("one more {n}", n=nth + 1), skills=frozenset(SKILLS), shift=None, paid=False)


def puzzle_of(tasks: tuple[Task, ...], job: Job) -> Puzzle:
    """The tasks of an event in slots. Raises ValueError: it has no time that the water goes in."""
    filled = job.filled_at
    if filled is None:
        raise ValueError("a day without a filling has no sheet")
    times = [
        each for task in tasks for each in (task.soonest, task.at, *(window[0] for window in task.windows)) if each
    ]
    first = min([filled - timedelta(hours=MADE_WITHIN.value), *times], key=lambda each: each.timestamp())
    ends = [job.ends_at, job.clear_by, *(window[1] for task in tasks for window in task.windows)]
    last = max([filled, *(each for each in ends if each is not None)])
    begins = _dawn(job, first.astimezone(job.zone).date() - timedelta(days=1))
    travel = math.ceil((job.travel_h or 0.0) * 60 / SLOT_MIN - 1e-9)
    blank = Puzzle(job=job, begins=begins, horizon=0, travel=travel, dawns=(), tasks=(), followers=(), builds=())
    horizon = blank.slot(last, up=True) + _AFTER_H * 60 // SLOT_MIN
    dawns = tuple(_dawns(blank, horizon))
    place = {task.key: index for index, task in enumerate(tasks)}
    hours = tuple(_workshop(blank, dawns, filled))
    late = tuple(_unloads(blank, dawns))
    slotted = tuple(_slotted(blank, task, place, horizon, hours, late) for task in tasks)
    followers: list[list[tuple[int, int]]] = [[] for _ in tasks]
    for index, each in enumerate(slotted):
        for before, wait in each.follows:
            followers[before].append((index, wait))
    return Puzzle(
        job=job,
        begins=begins,
        horizon=horizon,
        travel=travel,
        dawns=dawns,
        tasks=slotted,
        followers=tuple(tuple(each) for each in followers),
        builds=tuple(_builds(tasks)),
    )


def _builds(tasks: tuple[Task, ...]) -> Iterator[int]:
    """What is done at the place on a day before: the ways of the early van, and what lies between them."""
    back = next((each for each in tasks if each.key == BACK_EARLY), None)
    between = frozenset() if back is None else frozenset(wait.task for wait in back.after)
    for index, each in enumerate(tasks):
        if each.key in between or each.key in (THERE_EARLY, BACK_EARLY):
            yield index


def _slotted(
    puzzle: Puzzle,
    task: Task,
    place: Mapping[str, int],
    horizon: int,
    hours: tuple[Interval, ...],
    late: tuple[Interval, ...],
) -> Slotted:
    windows = tuple((puzzle.slot(opens, up=True), puzzle.slot(closes)) for opens, closes in task.windows)
    if not windows and task.where == "workshop":
        windows = late if task.stage in AFTER else hours
    return Slotted(
        task=task,
        size=max(1, task.minutes // SLOT_MIN),
        soonest=0 if task.soonest is None else puzzle.slot(task.soonest, up=True),
        latest=horizon if task.latest is None else puzzle.slot(task.latest),
        windows=windows,
        follows=tuple((place[each.task], -(-each.minutes // SLOT_MIN)) for each in task.after if each.task in place),
        fixed=None if task.at is None else puzzle.slot(task.at),
    )


def _workshop(puzzle: Puzzle, dawns: tuple[int, ...], until: datetime) -> Iterator[Interval]:
    """The workshop's hours of every day up to the display, in slots."""
    for dawn in dawns:
        day = puzzle.time(dawn).date()
        opens, closes = (
            datetime.combine(day, clock, tzinfo=puzzle.job.zone)
            for clock in (puzzle.job.hours.opens, puzzle.job.hours.closes)
        )
        if opens <= until:
            yield puzzle.slot(opens, up=True), puzzle.slot(closes)


def _unloads(puzzle: Puzzle, dawns: tuple[int, ...]) -> Iterator[Interval]:
    """When a van is unloaded: from the workshop's opening till late, or on the next day."""
    for dawn in dawns:
        day = puzzle.time(dawn).date()
        opens = datetime.combine(day, puzzle.job.hours.opens, tzinfo=puzzle.job.zone)
        closes = datetime.combine(day, max(puzzle.job.hours.closes, UNLOADS_TO), tzinfo=puzzle.job.zone)
        yield puzzle.slot(opens, up=True), puzzle.slot(closes)


def _dawns(puzzle: Puzzle, horizon: int) -> Iterator[int]:
    day = puzzle.begins.astimezone(puzzle.job.zone).date()
    while (slot := puzzle.slot(_dawn(puzzle.job, day), up=True)) < horizon:
        yield slot
        day += timedelta(days=1)


def _dawn(job: Job, day: date) -> datetime:
    return datetime.combine(day, time(DAY_BEGINS_H), tzinfo=job.zone).astimezone(UTC)


def _at(job: Job, day: date, clock: str) -> datetime:
    return datetime.combine(day, time.fromisoformat(clock), tzinfo=job.zone)
