"""The run sheet: a list gives it at once, the solver betters it; what it breaks is named."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from random import Random

from jolly_trellis.core.books.time import Task
from jolly_trellis.core.event.job import Job
from jolly_trellis.core.event.sheet.breaches import Breach, Placed, badness_of, breaches_of
from jolly_trellis.core.event.sheet.list_schedule import list_schedule
from jolly_trellis.core.event.sheet.people import SLOT_MIN
from jolly_trellis.core.event.sheet.puzzle import Puzzle, puzzle_of

EFFORT = 0.3
# Lists in other orders for an effort of 1, and the most that the solver takes of it: what it finds at all it finds by
# then (24 jobs of 12 to 105 tasks, up to fifteen times as long), while more lists go on finding.
_LISTS = 160
_SOLVED = 0.02


@dataclass(frozen=True, slots=True, kw_only=True)
class Timed:
    """A task with its time and its people, by their place in the crew; `out_min` is how far it is out of bounds."""

    task: Task
    starts_at: datetime
    ends_at: datetime
    crew: tuple[int, ...]
    locked: bool
    out_min: int = 0

    def who(self, crew: Sequence[str]) -> tuple[str, ...]:
        """Who does it by name: of the crew, somebody more, or of the house."""
        named = tuple(crew[each] if each < len(crew) else "somebody more" for each in self.crew)
        return (*named, self.task.by) if self.task.by else named


@dataclass(frozen=True, slots=True, kw_only=True)
class RunSheet:
    """Times for every task, what they break, and how bad that is; `extra_hands` is how many are asked for beside."""

    timed: tuple[Timed, ...]
    breaches: tuple[Breach, ...]
    extra_hands: int
    cost: int


@dataclass(slots=True)
class Progress:
    """Where a search for a day stands: it calls `tell` with each better sheet, and ends early when `stop` says so."""

    tell: Callable[[RunSheet], None] = field(default=lambda _: None)
    stop: Callable[[], bool] = field(default=lambda: False)


def schedule(
    tasks: tuple[Task, ...],
    job: Job,
    *,
    effort: float = EFFORT,
    solve: bool = True,
    progress: Progress | None = None,
) -> RunSheet:
    """Give every task its time; there always is a sheet.

    Args:
        tasks: as the book of time has them; without an end of the event its strike has no time.
        effort: how long is searched, deterministic: lists in other orders, then the solver; 0 is the list alone.
        solve: whether the solver betters what the lists give.
        progress: told the list's sheet at once, then each better one; may end the search.
    Source: `list_schedule`, then `solver.better`.
    """
    if job.filled_at is None or not tasks:
        return RunSheet(timed=(), breaches=(), extra_hands=0, cost=0)
    if job.ends_at is None:
        tasks = _before_the_end(tasks)
    puzzle, progress = puzzle_of(tasks, job), progress or Progress()
    placed = list_schedule(puzzle)
    progress.tell(_sheet(puzzle, placed))
    placed = _shaken(puzzle, placed, round(effort * _LISTS), progress)
    if solve and effort > 0 and not progress.stop():
        # OR-Tools takes a second to load: nobody waits for that who asks for no search
        from jolly_trellis.core.event.sheet.solver import better

        placed = better(
            puzzle,
            placed,
            effort=min(effort, _SOLVED),
            tell=lambda found: progress.tell(_sheet(puzzle, found)),
            stop=progress.stop,
        )
    return _sheet(puzzle, placed)


def _before_the_end(tasks: tuple[Task, ...]) -> tuple[Task, ...]:
    """Tasks but the strike and what follows it: nobody can say when those are without an end of the event."""
    left_out: set[str] = set()
    for each in tasks:
        if each.stage == "strike" or any(wait.task in left_out for wait in each.after):
            left_out.add(each.key)
    return tuple(each for each in tasks if each.key not in left_out)


def _shaken(puzzle: Puzzle, first: Placed, times: int, progress: Progress) -> Placed:
    """The best of so many lists that take the tasks in another order."""
    best, cost = first, badness_of(puzzle, first)
    for seed in range(times):
        if progress.stop():
            break
        other = list_schedule(puzzle, Random(seed))
        if (now := badness_of(puzzle, other)) < cost:
            best, cost = other, now
            progress.tell(_sheet(puzzle, other))
    return best


def _sheet(puzzle: Puzzle, placed: Placed) -> RunSheet:
    timed = []
    for task, start, crew in zip(puzzle.tasks, placed.starts, placed.crews, strict=True):
        out = max(task.soonest - start, start + task.size - task.latest, 0)
        timed.append(
            Timed(
                task=task.task,
                starts_at=puzzle.time(start),
                ends_at=puzzle.time(start + task.size),
                crew=crew,
                locked=task.fixed is not None and task.task.stage != "top up",
                out_min=out * SLOT_MIN,
            )
        )
    extra = {each for crew in placed.crews for each in crew if not placed.people[each].paid}
    return RunSheet(
        timed=tuple(sorted(timed, key=lambda each: (each.starts_at, each.task.key))),
        breaches=breaches_of(puzzle, placed),
        extra_hands=len(extra),
        cost=badness_of(puzzle, placed),
    )
