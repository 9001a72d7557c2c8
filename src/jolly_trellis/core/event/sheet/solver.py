"""A sheet bettered by constraint programming, from the one that the list gave; soft wherever life is soft.

On which day a task is done the lists have tried out; here it is moved within that day, and from hand to hand.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from ortools.sat.python import cp_model

from jolly_trellis.core.event.searching import Value, search
from jolly_trellis.core.event.sheet.breaches import EXTRA_HAND, WEIGHTS, Placed, badness_of, early_kind, freshness
from jolly_trellis.core.event.sheet.people import (
    BREAK_BEFORE,
    BREAK_LEAST,
    REST_LEAST,
    SLOT_MIN,
    SPAN_MOST,
    WORK_MOST,
    in_slots,
)
from jolly_trellis.core.event.sheet.puzzle import AFTER, Puzzle, Slotted

_HURT = 10_000
_ROUND = 12 * 60 // SLOT_MIN
_LONGEST_S = 30.0


def better(
    puzzle: Puzzle,
    first: Placed,
    *,
    effort: float,
    tell: Callable[[Placed], None],
    stop: Callable[[], bool],
) -> Placed:
    """The best sheet found from a first one; never a worse one.

    Args:
        effort: how long to search, in deterministic time, so that the same plan gives the same sheet.
        tell: given each better sheet; stop: ends the search.
    Source: OR-Tools CP-SAT, one worker, a fixed seed; sheets are compared by `badness_of`.
    """
    model = _Model(puzzle, first)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 7
    solver.parameters.max_deterministic_time = effort
    solver.parameters.max_time_in_seconds = _LONGEST_S
    best = [(badness_of(puzzle, first), first)]

    def told(value: Value) -> bool:
        placed = model.placed(value)
        cost = badness_of(puzzle, placed)
        if cost < best[-1][0]:
            best.append((cost, placed))
            tell(placed)
        return stop()

    if search(solver, model.model, told, stop):
        placed = model.placed(solver.value)
        if (cost := badness_of(puzzle, placed)) < best[-1][0]:
            best.append((cost, placed))
    return best[-1][1]


@dataclass(slots=True)
class _Days:
    """First start, last end and work of one person on one working day."""

    first: cp_model.IntVar
    last: cp_model.IntVar
    works: cp_model.BoolVarT


class _Model:
    """The programme: starts, who is there, what is broken, and what that costs."""

    def __init__(self, puzzle: Puzzle, first: Placed) -> None:
        self.puzzle, self.first = puzzle, first
        self.model = cp_model.CpModel()
        self.cost: list[cp_model.LinearExprT] = []
        self.starts = [self._start(index, task) for index, task in enumerate(puzzle.tasks)]
        self.there = [[self.model.new_bool_var("") for _ in first.people] for _ in puzzle.tasks]
        for index, task in enumerate(puzzle.tasks):
            self._bounded(index, task)
            self._followed(index, task)
            self._manned(index, task)
        self._hints()
        self._no_two_at_once()
        self._days()
        self.model.minimize(sum(self.cost))

    def placed(self, value: Value) -> Placed:
        """A solution as a sheet."""
        people = self.puzzle.people(more=len(self.first.people) - len(self.puzzle.people(more=0)))
        starts = [int(value(each)) for each in self.starts]
        crews = [tuple(place for place, here in enumerate(own) if value(here)) for own in self.there]
        for task, start, crew in zip(self.puzzle.tasks, starts, crews, strict=True):
            for each in crew:
                people[each].take(self.puzzle.day(start), start, start + task.size, task.begins_there, task.ends_there)
        return Placed(starts=starts, crews=crews, people=people)

    def _start(self, index: int, task: Slotted) -> cp_model.IntVar:
        now = self.first.starts[index]
        if task.fixed is not None or (task.task.stage in AFTER and not self._before_the_day(task, now)):
            return self.model.new_int_var(now, now, "")
        day = self.puzzle.day(now)
        dawns = (*self.puzzle.dawns, self.puzzle.horizon)
        least, most = max(0, dawns[day]), min(self.puzzle.horizon - task.size, dawns[day + 1] - 1)
        spans = [[least, most]]
        if task.windows and task.allows(now):
            spans = [
                [max(a, least), min(b - task.size, most)]
                for a, b in task.windows
                if min(b - task.size, most) >= max(a, least)
            ]
        return self.model.new_int_var_from_domain(cp_model.Domain.from_intervals(spans), "")

    def _before_the_day(self, task: Slotted, start: int) -> bool:
        """Whether it is the way back from building on a day before, which moves with what it follows."""
        filled = self.puzzle.job.filled_at
        return filled is not None and task.task.where == "road" and start < self.puzzle.slot(filled)

    def _over(self, amount: cp_model.LinearExprT, most: int, weight: int) -> None:
        """What an amount is over nothing, at a price."""
        over = self.model.new_int_var(0, most, "")
        self.model.add(over >= amount)
        self.cost.append(_HURT * weight * over)

    def _bounded(self, index: int, task: Slotted) -> None:
        start, horizon = self.starts[index], self.puzzle.horizon
        if task.soonest > 0:
            self._over(task.soonest - start, horizon, WEIGHTS[early_kind(task)])
        if task.latest < horizon:
            self._over(start + task.size - task.latest, horizon, WEIGHTS["late"])
        weight = (
            freshness(self.puzzle, task, 1)
            if task.task.stage in AFTER
            else -(freshness(self.puzzle, task, 0) - freshness(self.puzzle, task, 1))
        )
        self.cost.append(weight * start)

    def _followed(self, index: int, task: Slotted) -> None:
        for before, wait in task.follows:
            kept = self.first.starts[index] - self.first.starts[before] - self.puzzle.tasks[before].size
            apart = self.starts[index] - self.starts[before] - self.puzzle.tasks[before].size
            self.model.add(apart >= min(wait, kept))

    def _manned(self, index: int, task: Slotted) -> None:
        own, now = self.there[index], self.first.crews[index]
        self.model.add(sum(own) == len(now))
        if task.task.people is not None or task.task.stage in AFTER:
            for place, here in enumerate(own):
                self.model.add(here == (place in now))
            return
        for place, here in enumerate(own):
            if place not in now and not task.may_be(place, self.first.people[place]):
                self.model.add(here == 0)
        wanted = frozenset(task.task.skills)
        able = [here for here, each in zip(own, self.first.people, strict=True) if wanted <= each.skills]
        if wanted and any(wanted <= self.first.people[each].skills for each in now):
            self.model.add_bool_or(able)
        for here, each in zip(own, self.first.people, strict=True):
            if not each.paid:
                self.cost.append(_HURT * WEIGHTS["hands"] * task.size * here)

    def _hints(self) -> None:
        for index, start in enumerate(self.first.starts):
            self.model.add_hint(self.starts[index], start)
            for place, here in enumerate(self.there[index]):
                self.model.add_hint(here, place in self.first.crews[index])

    def _no_two_at_once(self) -> None:
        for place, person in enumerate(self.first.people):
            spans = [
                self.model.new_optional_fixed_size_interval_var(
                    self.starts[index], task.size, self.there[index][place], ""
                )
                for index, task in enumerate(self.puzzle.tasks)
            ]
            self.model.add_no_overlap(spans)
            if not person.paid:
                asked = self.model.new_bool_var("")
                for index in range(len(self.puzzle.tasks)):
                    self.model.add_implication(self.there[index][place], asked)
                self.cost.append(_HURT * WEIGHTS["hands"] * round(EXTRA_HAND.value / SLOT_MIN) * asked)

    def _days(self) -> None:
        """What people may be asked, day by day."""
        on = [self.puzzle.day(start) for start in self.first.starts]
        for place, person in enumerate(self.first.people):
            if not person.paid:
                continue
            kept: dict[int, _Days] = {}
            for day, dawn in enumerate(self.puzzle.dawns):
                mine = [
                    (index, task, self.there[index][place])
                    for index, task in enumerate(self.puzzle.tasks)
                    if on[index] == day
                ]
                if mine:
                    kept[day] = self._day(dawn, mine, person.shift[day] if person.shift else None)
            for day, own in kept.items():
                if day - 1 in kept:
                    before = kept[day - 1]
                    rest = in_slots(REST_LEAST.value)
                    lacks = self.model.new_int_var(0, rest, "")
                    self.model.add(lacks >= rest - (own.first - before.last)).only_enforce_if(own.works, before.works)
                    self.cost.append(_HURT * WEIGHTS["rest"] * lacks)

    def _day(
        self, dawn: int, mine: Sequence[tuple[int, Slotted, cp_model.BoolVarT]], shift: tuple[int, int] | None
    ) -> _Days:
        last_slot = dawn + 2 * _ROUND + 24 * 60 // SLOT_MIN
        own = _Days(
            self.model.new_int_var(dawn, last_slot, ""),
            self.model.new_int_var(dawn, last_slot, ""),
            self.model.new_bool_var(""),
        )
        self.model.add(own.last >= own.first)
        for index, task, here in mine:
            start = self.starts[index]
            self.model.add(own.first <= start).only_enforce_if(here)
            self.model.add(own.last >= start + task.size).only_enforce_if(here)
            self.model.add_implication(here, own.works)
            if shift is not None:
                outside = self.model.new_int_var(0, task.size, "")
                self.model.add(outside >= shift[0] - start).only_enforce_if(here)
                self.model.add(outside >= start + task.size - shift[1]).only_enforce_if(here)
                self.cost.append(_HURT * WEIGHTS["shift"] * outside)
        work = sum(task.size * here for _, task, here in mine)
        self._over(work - in_slots(WORK_MOST.value), self.puzzle.horizon, WEIGHTS["work"])
        self._over(own.last - own.first - in_slots(SPAN_MOST.value), self.puzzle.horizon, WEIGHTS["span"])
        self._rested(own, mine, work)
        self._away(dawn, last_slot, mine)
        return own

    def _away(self, dawn: int, last_slot: int, mine: Sequence[tuple[int, Slotted, cp_model.BoolVarT]]) -> None:
        """Who is at the place of the event is nowhere else from before the way there until after the way back."""
        there = [each for each in mine if each[1].begins_there or each[1].ends_there]
        here = [each for each in mine if not (each[1].begins_there or each[1].ends_there)]
        travel = self.puzzle.travel
        if not there or not here or travel == 0:
            return
        goes, long = self.model.new_int_var(dawn - travel, last_slot, ""), self.model.new_int_var(0, last_slot, "")
        comes, away = self.model.new_int_var(dawn - travel, last_slot + travel, ""), self.model.new_bool_var("")
        for index, task, present in there:
            way_to, way_from = travel if task.begins_there else 0, travel if task.ends_there else 0
            self.model.add(goes <= self.starts[index] - way_to).only_enforce_if(present)
            self.model.add(comes >= self.starts[index] + task.size + way_from).only_enforce_if(present)
            self.model.add_implication(present, away)
        spans = [self.model.new_optional_interval_var(goes, long, comes, away, "")]
        spans += [
            self.model.new_optional_fixed_size_interval_var(self.starts[index], task.size, present, "")
            for index, task, present in here
        ]
        self.model.add_no_overlap(spans)

    def _rested(
        self, own: _Days, mine: Sequence[tuple[int, Slotted, cp_model.BoolVarT]], work: cp_model.LinearExprT
    ) -> None:
        """A break before six hours of work, where there is more of it."""
        most, least = in_slots(BREAK_BEFORE.value), round(BREAK_LEAST.value / SLOT_MIN)
        if sum(task.size for _, task, _ in mine) <= most:
            return
        long, missing = self.model.new_bool_var(""), self.model.new_bool_var("")
        self.model.add(work <= most).only_enforce_if(~long)
        taken = self.model.new_bool_var("")
        self.model.add_bool_or(~long, taken, missing)
        self.cost.append(_HURT * WEIGHTS["break"] * most * missing)
        begins = self.model.new_int_var(0, self.puzzle.horizon, "")
        self.model.add(begins >= own.first).only_enforce_if(taken)
        self.model.add(begins <= own.first + most).only_enforce_if(taken)
        self.model.add(begins + least <= own.last).only_enforce_if(taken)
        pause = self.model.new_optional_fixed_size_interval_var(begins, least, taken, "")
        self.model.add_no_overlap(
            [
                pause,
                *(
                    self.model.new_optional_fixed_size_interval_var(self.starts[index], task.size, here, "")
                    for index, task, here in mine
                ),
            ]
        )
