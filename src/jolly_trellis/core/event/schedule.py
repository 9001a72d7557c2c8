"""The run sheet: every task given a time and hands, as late as it may be, by constraint programming.

Time is counted in slots of five minutes of elapsed time, so that a clock change at night adds or loses no hour.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta

from ortools.sat.python import cp_model

from jolly_trellis.core.event.job import Hours, Job
from jolly_trellis.core.event.searching import Value, search
from jolly_trellis.core.event.task import MADE_WITHIN, Stage, Task

SLOT_MIN = 5
_SEARCH = 0.25
_EXTRA = 3
_AFTER_H = 24
_LATE_WEIGHT: dict[Stage, int] = {"flower": 6, "tubes": 6, "green": 3, "on site": 6, "fill": 6, "collect": 4}
_AFTER: tuple[Stage, ...] = ("strike", "return")


@dataclass(frozen=True, slots=True, kw_only=True)
class Timed:
    """A task with its time and who does it, by their place in the crew; `early_min` is how far it breaks its bound."""

    task: Task
    starts_at: datetime
    ends_at: datetime
    crew: tuple[int, ...]
    locked: bool
    early_min: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Solved:
    """Times for every task; `extra_hands` is how many were needed beyond the crew, 0 in one that keeps every bound."""

    timed: tuple[Timed, ...]
    extra_hands: int


@dataclass(frozen=True, slots=True)
class _Clock:
    """Slots since a beginning."""

    begins: datetime

    def slot(self, at: datetime, *, up: bool) -> int:
        minutes = (at.astimezone(UTC) - self.begins).total_seconds() / 60
        return int(-(-minutes // SLOT_MIN)) if up else int(minutes // SLOT_MIN)

    def time(self, slot: int, job: Job) -> datetime:
        return (self.begins + timedelta(minutes=slot * SLOT_MIN)).astimezone(job.zone)


@dataclass(slots=True)
class Progress:
    """Where a search for a day stands: it calls `tell` with each better sheet, and ends early when `stop` says so."""

    tell: Callable[[Solved], None] = field(default=lambda _: None)
    stop: Callable[[], bool] = field(default=lambda: False)


def solve(
    tasks: tuple[Task, ...],
    job: Job,
    *,
    relaxed: frozenset[str] = frozenset(),
    only_feasible: bool = False,
    progress: Progress | None = None,
) -> Solved | None:
    """Give every task its time.

    Args:
        tasks: as `tasks_of` makes them; with at least one there is a `filled_at`.
        relaxed: tasks that may break their bounds, as little as can be, to show what is wrong. With every task
            relaxed, more hands may be taken too.
        only_feasible: any times that keep the bounds, found fast.
        progress: told each better sheet; may end the search, which keeps the best.
    Returns: None where no times keep every bound, or none were found in time.
    Source: OR-Tools CP-SAT; one worker and a fixed seed, so that the same plan gives the same sheet. Then every task
    is pushed as late as its followers and its hands allow.
    """
    if job.filled_at is None or not tasks:
        return Solved(timed=(), extra_hands=0)
    made = _model(tasks, job, relaxed)
    if not only_feasible:
        made.model.minimize(sum(made.cost))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 7
    solver.parameters.max_deterministic_time = _SEARCH
    solver.parameters.max_time_in_seconds = 30.0

    def tell(value: Value) -> bool:
        if progress is None:
            return False
        progress.tell(_sheet(made, tasks, job, value))
        return progress.stop()

    if not search(solver, made.model, tell, progress.stop if progress is not None else lambda: False):
        return None
    return _sheet(made, tasks, job, solver.value)


@dataclass(slots=True)
class _Model:
    """The programme: starts and sizes by task, who is there, what is let go of, and the cost."""

    model: cp_model.CpModel
    clock: _Clock
    paid: int
    spans: dict[str, tuple[cp_model.IntVar, int]]
    presence: dict[str, list[cp_model.IntVar]]
    slack: dict[str, cp_model.IntVar]
    cost: list[cp_model.LinearExprT]
    domains: dict[str, cp_model.Domain]


def _model(tasks: tuple[Task, ...], job: Job, relaxed: frozenset[str]) -> _Model:
    filled = job.filled_at
    if filled is None:
        raise ValueError("a day without a filling has no tasks")
    clock = _Clock(_midnight(job, filled - timedelta(hours=MADE_WITHIN.value)))
    last = max([filled, *(each for each in (job.ends_at, job.clear_by) if each is not None)])
    horizon = clock.slot(last, up=True) + _AFTER_H * 60 // SLOT_MIN
    model = cp_model.CpModel()
    paid = max(1, len(job.crew))
    all_relaxed = len(relaxed) == len(tasks)
    people = paid + (_EXTRA if all_relaxed else 0)
    made = _Model(model, clock, paid, {}, {}, {}, [], {})
    intervals: list[list[cp_model.IntervalVar]] = [[] for _ in range(people)]
    for task in tasks:
        size = task.minutes // SLOT_MIN
        domain = _domain(task, job, clock, size, horizon)
        start = model.new_int_var_from_domain(domain, task.key)
        made.spans[task.key] = (start, size)
        made.domains[task.key] = domain
        _bound(made, task, relaxed=task.key in relaxed)
        there = [model.new_bool_var("") for _ in range(people)]
        model.add(sum(there) == min(task.hands, people))
        made.presence[task.key] = there
        for person, here in enumerate(there):
            intervals[person].append(model.new_optional_fixed_size_interval_var(start, size, here, ""))
            if person >= paid:
                made.cost.append(2000 * here)
        if not all_relaxed:
            weight = _LATE_WEIGHT.get(task.stage, 1)
            made.cost.append(weight * start if task.stage in _AFTER else weight * (horizon - start))
    for own in intervals:
        model.add_no_overlap(own)
    known = {task.key: task for task in tasks}
    for task in tasks:
        for key in task.after:
            if key in known:
                start, size = made.spans[key]
                model.add(made.spans[task.key][0] >= start + size + _rest(known[key], task))
    return made


def _sheet(made: _Model, tasks: tuple[Task, ...], job: Job, value: Callable[[cp_model.IntVar], int]) -> Solved:
    """A solution as a sheet, each task pushed as late as it goes."""
    starts = {task.key: int(value(made.spans[task.key][0])) for task in tasks}
    crews = {
        task.key: tuple(person for person, here in enumerate(made.presence[task.key]) if value(here)) for task in tasks
    }
    slack = {key: int(value(variable)) for key, variable in made.slack.items()}
    _push_late(made, tasks, starts, crews)
    timed = []
    for task in tasks:
        early = _broken_slots(made, task, starts[task.key]) if slack.get(task.key) else 0
        timed.append(
            Timed(
                task=task,
                starts_at=made.clock.time(starts[task.key], job),
                ends_at=made.clock.time(starts[task.key] + task.minutes // SLOT_MIN, job),
                crew=crews[task.key],
                locked=task.at is not None and task.stage != "top up",
                early_min=early * SLOT_MIN,
            )
        )
    extra = max((sum(person >= made.paid for person in each) for each in crews.values()), default=0)
    return Solved(timed=tuple(sorted(timed, key=lambda each: (each.starts_at, each.task.key))), extra_hands=extra)


def _push_late(
    made: _Model, tasks: tuple[Task, ...], starts: dict[str, int], crews: dict[str, tuple[int, ...]]
) -> None:
    """Move every task before the strike as late as its bound, its followers and its people's next task allow."""
    followers: dict[str, list[Task]] = {}
    for task in tasks:
        for key in task.after:
            followers.setdefault(key, []).append(task)
    for task in sorted(tasks, key=lambda each: -starts[each.key]):
        if task.at is not None or task.stage in _AFTER or task.key in made.slack:
            continue
        size, now = task.minutes // SLOT_MIN, starts[task.key]
        limits = [starts[each.key] - _rest(task, each) - size for each in followers.get(task.key, [])]
        if task.latest is not None:
            limits.append(made.clock.slot(task.latest, up=False) - size)
        mine = set(crews[task.key])
        limits += [
            starts[other] - size
            for other, crew in crews.items()
            if other != task.key and starts[other] >= now + size and mine & set(crew)
        ]
        if not limits:
            continue
        latest = min(limits)
        while latest > now and not made.domains[task.key].contains(latest):
            latest -= 1
        starts[task.key] = max(latest, now)


def _broken_slots(made: _Model, task: Task, start: int) -> int:
    """How many slots a task breaks its bounds by."""
    size, broken = task.minutes // SLOT_MIN, 0
    if task.soonest is not None:
        broken = max(broken, made.clock.slot(task.soonest, up=True) - start)
    if task.latest is not None:
        broken = max(broken, start + size - made.clock.slot(task.latest, up=False))
    return broken


def _rest(before: Task, task: Task) -> int:
    """Slots that must pass: stems that drink may be greened and flowered only after; a mechanic waits for nothing."""
    return -(-before.rest_min // SLOT_MIN) if task.stage in ("green", "flower", "tubes") else 0


def _bound(made: _Model, task: Task, *, relaxed: bool) -> None:
    """Keep a task within its bounds; a relaxed one may break them at a cost. A fixed task keeps its time."""
    start, size = made.spans[task.key]
    if task.at is not None:
        made.model.add(start == made.clock.slot(task.at, up=False))
        return
    early: cp_model.LinearExprT = 0
    if relaxed:
        early = made.slack[task.key] = made.model.new_int_var(0, 24 * 60 // SLOT_MIN, "")
        made.cost.append(500 * early)
    if task.soonest is not None:
        made.model.add(start >= made.clock.slot(task.soonest, up=True) - early)
    if task.latest is not None:
        made.model.add(start + size <= made.clock.slot(task.latest, up=False) + early)


def _domain(task: Task, job: Job, clock: _Clock, size: int, horizon: int) -> cp_model.Domain:
    """When a task may start: in the workshop's hours on the days before, any time once the day has come."""
    everything = cp_model.Domain(0, horizon - size)
    if task.at is not None or task.where != "workshop" or task.stage in _AFTER or job.filled_at is None:
        return everything
    open_slots = []
    for opens, closes in _days(job, clock, job.hours, job.filled_at):
        if closes - size >= opens:
            open_slots.append([opens, closes - size])
    return cp_model.Domain.from_intervals(open_slots) if open_slots else everything


def _days(job: Job, clock: _Clock, hours: Hours, until: datetime) -> Iterable[tuple[int, int]]:
    """The workshop's hours of every day up to the display, in slots; on the day itself until the display."""
    day = clock.begins.astimezone(job.zone).date()
    while day <= until.date():
        opens = datetime.combine(day, hours.opens, tzinfo=job.zone)
        closes = datetime.combine(day, hours.closes, tzinfo=job.zone)
        yield clock.slot(opens, up=True), clock.slot(min(closes, until) if day == until.date() else closes, up=False)
        day += timedelta(days=1)


def _midnight(job: Job, at: datetime) -> datetime:
    return at.astimezone(job.zone).replace(hour=0, minute=0, second=0, microsecond=0).astimezone(UTC)
