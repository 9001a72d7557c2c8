"""A sheet by a list: every task at its best place in turn, the latest start with the longest tail first.

It always gives a sheet, at once. What does not fit is placed where it hurts least.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations
from random import Random

from jolly_trellis.core.event.sheet.breaches import EXTRA_HAND, WEIGHTS, Placed, badness_of, early_kind, freshness
from jolly_trellis.core.event.sheet.people import SLOT_MIN, Person, bits_of
from jolly_trellis.core.event.sheet.puzzle import AFTER, Puzzle, Slotted, one_more

_FARTHEST = 7 * 24 * 60 // SLOT_MIN
_COARSE = 6
_SHAKEN = 5 * 60 // SLOT_MIN
_WAITS_MOST = 60 // SLOT_MIN
_BUILDS_FIRST = 0.7


def list_schedule(puzzle: Puzzle, chance: Random | None = None) -> Placed:
    """A sheet for every puzzle.

    Fixed tasks first; then from the display backward, each task whose followers have their times, as late as they let
    it; then forward from the end of the event. What is built on a day before goes as soon as the place lets it, or as
    late as the rest: whichever hurts less.

    Args:
        chance: shakes the order in which tasks are taken, to find another sheet; None takes the usual one.
    Source: serial schedule generation by latest finish times.
    """
    if not puzzle.builds:
        return _List(puzzle, chance, build_first=False).run()
    if chance is not None:
        return _List(puzzle, chance, build_first=chance.random() < _BUILDS_FIRST).run()
    both = (_List(puzzle, chance, build_first=first).run() for first in (True, False))
    return min(both, key=lambda each: badness_of(puzzle, each))


@dataclass(frozen=True, slots=True)
class _Try:
    """A place for a task: when, who, and what it costs."""

    cost: int
    start: int
    crew: tuple[int, ...]


class _List:
    """A list schedule while it is made."""

    def __init__(self, puzzle: Puzzle, chance: Random | None, *, build_first: bool) -> None:
        self.puzzle, self.build_first = puzzle, build_first
        self.shift = [0 if chance is None else chance.randint(-_SHAKEN, _SHAKEN) for _ in puzzle.tasks]
        self.people = puzzle.people()
        self.starts: dict[int, int] = {}
        self.crews: dict[int, tuple[int, ...]] = {}

    def run(self) -> Placed:
        every = range(len(self.puzzle.tasks))
        fixed = [each for each in every if self.puzzle.tasks[each].fixed is not None]
        for index in sorted(fixed, key=lambda each: (self.puzzle.tasks[each].fixed or 0, each)):
            self._put(index, self._best(index, [self.puzzle.tasks[index].fixed or 0]))
        if self.build_first:
            self._all_forward({each for each in self.puzzle.builds if each not in self.starts})
        self._all_backward({each for each in every if each not in self.starts and not self._is_after(each)})
        self._all_forward({each for each in every if each not in self.starts})
        return Placed(
            starts=[self.starts[each] for each in every],
            crews=[self.crews[each] for each in every],
            people=self.people,
        )

    def _all_backward(self, waiting: set[int]) -> None:
        """Each of some tasks as late as it goes, those that may begin latest first."""

        def rank(index: int) -> tuple[int, int, int]:
            return self._latest_start(index) + self.shift[index], self.puzzle.tasks[index].size, -index

        after = [[follower for follower, _ in each] for each in self.puzzle.followers]
        before = [[each for each, _ in task.follows] for task in self.puzzle.tasks]
        for index in _in_turn(waiting, after, before, rank):
            self._put(index, self._backward(index))

    def _all_forward(self, waiting: set[int]) -> None:
        """Each of some tasks as soon as it goes, those that may begin soonest first."""

        def rank(index: int) -> tuple[int, int]:
            return -self._earliest(index), -index

        after = [[follower for follower, _ in each] for each in self.puzzle.followers]
        before = [[each for each, _ in task.follows] for task in self.puzzle.tasks]
        for index in _in_turn(waiting, before, after, rank):
            self._put(index, self._forward(index))

    def _is_after(self, index: int) -> bool:
        return self.puzzle.tasks[index].task.stage in AFTER

    def _put(self, index: int, at: _Try) -> None:
        self.starts[index], self.crews[index] = at.start, at.crew
        size = self.puzzle.tasks[index].size
        for each in at.crew:
            day = self.puzzle.day(at.start)
            task = self.puzzle.tasks[index]
            self.people[each].take(day, at.start, at.start + size, task.begins_there, task.ends_there)

    def _latest_start(self, index: int) -> int:
        """The latest start that its own bound and the followers that have a time let it have."""
        task = self.puzzle.tasks[index]
        limits = [
            self.starts[follower] - wait for follower, wait in self.puzzle.followers[index] if follower in self.starts
        ]
        return min([task.latest, self.puzzle.horizon, *limits]) - task.size

    def _earliest(self, index: int) -> int:
        """The soonest start that what it follows, as far as that has a time, lets it have."""
        done = [
            self.starts[before] + self.puzzle.tasks[before].size + wait
            for before, wait in self.puzzle.tasks[index].follows
            if before in self.starts
        ]
        return max(done, default=0)

    def _backward(self, index: int) -> _Try:
        """As late as it goes; too soon, with more hands or beyond what people may be asked where it must be."""
        task = self.puzzle.tasks[index]
        last, least = self._latest_start(index), max(task.soonest, self._earliest(index))
        inside = range(last, least - 1, -1)
        found = self._first(index, inside)
        if found is not None:
            return found
        before = range(min(last, least - 1), max(last - _FARTHEST, self._earliest(index) - 1, -1), -1)
        tries = [self._first(index, before), self._best_of(index, [*inside[:_FARTHEST:_COARSE], *before[:1]])]
        if not inside:
            tries.append(self._best_of(index, [max(last, self._earliest(index))]))
        return min((each for each in tries if each is not None), key=lambda each: each.cost)

    def _forward(self, index: int) -> _Try:
        """As soon as it goes after what it follows."""
        task = self.puzzle.tasks[index]
        least = max(task.soonest, self._earliest(index))
        waits = task.task.where == "workshop" or task.task.people is not None or task.task.among is not None
        until = max([least + (_FARTHEST if waits else _WAITS_MOST), *(closes for _, closes in task.windows)])
        last = min(until, self._latest_start(index) + 1)
        found = self._first(index, range(least, last))
        best = self._best_of(index, [least])
        return min((each for each in (found, best) if each is not None), key=lambda each: each.cost)

    def _first(self, index: int, starts: range) -> _Try | None:
        """The first of some starts at which the crew can do it within all that may be asked of them."""
        if len(starts) == 0:
            return None
        task = self.puzzle.tasks[index]
        low, high = min(starts[0], starts[-1]), max(starts[0], starts[-1])
        can = self._can_start(task) & bits_of([(low, high + 1)])
        if task.windows:
            can &= bits_of((opens, closes - task.size + 1) for opens, closes in task.windows)
        latest = starts.step < 0
        while can:
            start = can.bit_length() - 1 if latest else (can & -can).bit_length() - 1
            can ^= 1 << start
            crew = self._crew(task, start, strict=True)
            if crew is not None:
                return _Try(self._cost(task, start, crew), start, crew)
        return None

    def _can_start(self, task: Slotted) -> int:
        """A bit for each start at which somebody of the crew is free, all of those who are named."""
        every = (1 << (self.puzzle.horizon + 1)) - 1
        if task.task.hands == 0 and task.task.people is None:
            return every
        if task.task.people is not None:
            blocked = 0
            for each in task.task.people:
                blocked |= self.people[each].blocked(task.size, task.begins_there, task.ends_there)
            return every & ~blocked
        blocked = every
        for place, person in enumerate(self.people):
            if person.paid and task.may_be(place, person):
                blocked &= person.blocked(task.size, task.begins_there, task.ends_there)
        return every & ~blocked

    def _best(self, index: int, starts: list[int]) -> _Try:
        found = self._best_of(index, starts)
        if found is None:
            raise RuntimeError("no start was given to choose from")
        return found

    def _best_of(self, index: int, starts: list[int]) -> _Try | None:
        """The start of some at which it hurts least, whoever does it."""
        task, best = self.puzzle.tasks[index], None
        for start in starts:
            strict = self._crew(task, start, strict=True)
            crew = strict if strict is not None else self._crew(task, start, strict=False)
            if crew is None:
                continue
            cost = self._cost(task, start, crew)
            if best is None or cost < best.cost:
                best = _Try(cost, start, crew)
            if strict is not None and task.allows(start) and task.soonest <= start <= task.latest - task.size:
                break
        return best

    def _cost(self, task: Slotted, start: int, crew: tuple[int, ...]) -> int:
        """What placing it there adds to how bad the sheet is."""
        end = start + task.size
        hurt = WEIGHTS[early_kind(task)] * max(0, task.soonest - start) + WEIGHTS["late"] * max(0, end - task.latest)
        hurt += 0 if task.allows(start) else WEIGHTS["shut"] * task.size
        for each in crew:
            person = self.people[each]
            if not person.paid:
                first = not person.days
                hurt += WEIGHTS["hands"] * (task.size + (round(EXTRA_HAND.value / SLOT_MIN) if first else 0))
            else:
                hurt += WEIGHTS["rest"] * person.over(self.puzzle.day(start), start, end)
        return 10_000 * hurt + freshness(self.puzzle, task, start)

    def _crew(self, task: Slotted, start: int, *, strict: bool) -> tuple[int, ...] | None:
        """Who does it then; None where nobody can. Strict: of the crew, able, and within all that may be asked."""
        end, day = start + task.size, self.puzzle.day(start)
        if task.task.people is not None:
            named = task.task.people
            free = all(self._free(self.people[each], task, start) for each in named)
            if strict and not (free and all(self.people[each].over(day, start, end) == 0 for each in named)):
                return None
            return named if free else self._stand_ins(len(named), start, end)
        hands = task.task.hands
        if hands == 0:
            return ()
        free_now = [
            place
            for place, each in enumerate(self.people)
            if (each.paid or not strict) and task.may_be(place, each) and self._free(each, task, start)
        ]
        if strict:
            hands = min(hands, sum(each.paid and task.may_be(place, each) for place, each in enumerate(self.people)))
            if hands == 0:
                return None
            if len(free_now) < hands:
                return None
        elif len(free_now) < hands:
            return (*free_now, *self._stand_ins(hands - len(free_now), start, end, free_now))
        over = {each: self.people[each].over(day, start, end) for each in free_now}
        if strict:
            free_now = [each for each in free_now if over[each] == 0]
            if len(free_now) < hands:
                return None
        free_now.sort(key=lambda each: (*self._asked_last(each), over[each], self._work(each, day), each))
        wanted = frozenset(task.task.skills)
        if not wanted:
            return tuple(sorted(free_now[:hands]))
        for crew in combinations(free_now, hands):
            if any(wanted <= self.people[each].skills for each in crew):
                return tuple(sorted(crew))
        return (
            None
            if strict and any(wanted <= each.skills for each in self.people if each.paid)
            else tuple(sorted(free_now[:hands]))
        )

    def _free(self, person: Person, task: Slotted, start: int) -> bool:
        """Whether a person has nothing else to do then, and can be where it is done."""
        return person.free(start, start + task.size, task.begins_there, task.ends_there)

    def _stand_ins(self, number: int, start: int, end: int, besides: Sequence[int] = ()) -> tuple[int, ...]:
        """So many who are not of the crew and are free then; there are always more to ask for."""
        free = [
            place
            for place, each in enumerate(self.people)
            if not each.paid and place not in besides and not each.busy & bits_of([(start, end)])
        ]
        while len(free) < number:
            free.append(len(self.people))
            self.people.append(one_more(sum(not each.paid for each in self.people)))
        return tuple(free[:number])

    def _asked_last(self, place: int) -> tuple[bool, bool]:
        """Who is not of the crew is asked last, and of those who has not been asked for anything yet."""
        person = self.people[place]
        return not person.paid, not person.paid and not person.days

    def _work(self, place: int, day: int) -> int:
        """What somebody has to do that day already."""
        return sum(end - start for start, end in self.people[place].days.get(day, ()))


def _in_turn(
    waiting: set[int], needs: list[list[int]], frees: list[list[int]], rank: Callable[[int], tuple[int, ...]]
) -> Iterator[int]:
    """Each of some tasks once what it needs of them has had its turn, of those that may the one of the highest rank.

    A rank is asked for when a task may have its turn: nothing that comes later changes it.
    """
    open_needs = {each: sum(need in waiting for need in set(needs[each])) for each in waiting}
    ready = {each: rank(each) for each in waiting if open_needs[each] == 0}
    while ready:
        index = max(ready, key=ready.__getitem__)
        del ready[index]
        yield index
        for each in set(frees[index]) & waiting:
            open_needs[each] -= 1
            if open_needs[each] == 0:
                ready[each] = rank(each)
