"""The day: the run sheet, what cannot be done as it stands with the smallest remedy, and the life of each variety."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import UTC, datetime, time, timedelta
from typing import Literal

from jolly_trellis.core.checks.drink_own import LARGER_TUBE
from jolly_trellis.core.event.job import CrewMember, Hours, Job, Lock, Made, recipe_of
from jolly_trellis.core.event.lives import Life, lives_of, soonest_use
from jolly_trellis.core.event.schedule import Progress, Solved, Timed, solve
from jolly_trellis.core.event.task import Task, back
from jolly_trellis.core.event.tasks import tasks_of
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.piece import RecipeLine, StemTube
from jolly_trellis.core.quantities import Phrase, joined, phrase
from jolly_trellis.core.units import duration_text

DEEP_TUBE = StemTube(stem_in_m=0.08)
MOST_MORE_HANDS = 3
MOST_EARLIER_H = 4
RemedyKind = Literal["hands", "hours", "tubes", "on site", "unlock"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """The smallest change that mends a conflict: more hands, a workshop open earlier, tubes for a variety, a
    variety put in on site, or a lock let go. Only the fields of its kind are set.
    """

    key: str
    kind: RemedyKind
    say: Phrase
    hands: int = 0
    opens: str = ""
    piece_id: int | None = None
    variety: str = ""
    tube: StemTube | None = None
    task: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Conflict:
    """What cannot be done as it stands: the tasks it shows at, in words, what would mend it, and what was tried."""

    tasks: tuple[str, ...]
    say: Phrase
    remedies: tuple[Remedy, ...]
    tried: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Day:
    """The day of an event. `missing` are facts it lacks; without the filling there are no tasks at all.

    `weight_unknown` names pieces that one person is taken to place, as nobody knows how heavy they are.
    """

    timed: tuple[Timed, ...]
    conflicts: tuple[Conflict, ...]
    lives: tuple[Life, ...]
    missing: tuple[str, ...]
    extra_hands: int = 0
    weight_unknown: tuple[str, ...] = ()


def day_of(
    job: Job,
    made: Made,
    varieties: Mapping[str, Variety],
    *,
    tell: Callable[[Day], None] | None = None,
    stop: Callable[[], bool] | None = None,
) -> Day:
    """Work out the day.

    Args:
        tell: called with each better sheet; stop: ends the search with the best so far.
    Source: tasks as `tasks_of`, times as `solve`; a remedy is offered only where it was tried and works.
    """
    known = dict(varieties)
    tasks = tasks_of(job, made, known)
    missing = _missing(job)
    narrow = _too_narrow(tasks)

    def telling(found: Solved) -> None:
        if tell is not None:
            lives = tuple(lives_of(job, made, known, found.timed))
            tell(Day(timed=found.timed, conflicts=(), lives=lives, missing=missing, extra_hands=found.extra_hands))

    progress = Progress(tell=telling, stop=stop or (lambda: False))
    solved = solve(tasks, job, relaxed=narrow, progress=progress)
    conflicts = [_life_conflict(task, job, made, known) for task in tasks if task.key in narrow]
    if solved is None:
        by_life = narrow | frozenset(task.key for task in tasks if task.variety is not None)
        everything = frozenset(task.key for task in tasks)
        solved = solve(tasks, job, relaxed=by_life, progress=progress) or solve(
            tasks, job, relaxed=everything, progress=progress
        )
        if solved is None and job.locks:
            broken = _unmet(job, made, known, progress)
            solved, tasks = broken.solved, broken.tasks
            conflicts += broken.conflicts
        else:
            conflicts.append(_crowded(tasks, job, made, known, narrow, solved))
    timed = () if solved is None else solved.timed
    return Day(
        timed=timed,
        conflicts=tuple(conflicts),
        lives=tuple(lives_of(job, made, known, timed)),
        missing=missing,
        extra_hands=0 if solved is None else solved.extra_hands,
        weight_unknown=tuple(
            each.piece.name
            for each in made.pieces
            if not each.piece.carried and (each.report is None or each.report.balance is None)
        ),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class _Unmet:
    """The day with the times that can be kept of those set by hand, and each that cannot."""

    solved: Solved | None
    tasks: tuple[Task, ...]
    conflicts: tuple[Conflict, ...]


def _unmet(job: Job, made: Made, varieties: dict[str, Variety], progress: Progress) -> _Unmet:
    """Times set by hand that cannot all be met: as many are kept as go, one after the other; the rest are named."""

    def relaxed(locks: tuple[Lock, ...], *, only_feasible: bool) -> tuple[tuple[Task, ...], Solved | None]:
        tasks = tasks_of(replace(job, locks=locks), made, varieties)
        everything = frozenset(task.key for task in tasks)
        found = solve(tasks, job, relaxed=everything, only_feasible=only_feasible, progress=progress)
        return tasks, found

    kept: tuple[Lock, ...] = ()
    for lock in job.locks:
        if relaxed((*kept, lock), only_feasible=True)[1] is not None:
            kept = (*kept, lock)
    tasks = tasks_of(replace(job, locks=kept), made, varieties)
    solved = solve(tasks, job, relaxed=_too_narrow(tasks), progress=progress)
    if solved is None:
        tasks, solved = relaxed(kept, only_feasible=False)
    stands = {} if solved is None else {each.task.key: each for each in solved.timed}
    return _Unmet(
        solved=solved,
        tasks=tasks,
        conflicts=tuple(_unmet_lock(lock, stands.get(lock.task)) for lock in job.locks if lock not in kept),
    )


def _unmet_lock(lock: Lock, stands: Timed | None) -> Conflict:
    name = lock.task if stands is None else stands.task.name
    asked = lock.starts_at.replace("T", ", ")
    remedy = Remedy(
        key=f"unlock-{lock.task}",
        kind="unlock",
        say=phrase("Let “{name}” go from its time.", name=name),
        task=lock.task,
    )
    say = phrase("“{name}” was set by hand to {asked}, which cannot be met.", name=name, asked=asked)
    if stands is not None:
        say = joined((say, phrase("Here it starts at {at}.", at=f"{stands.starts_at:%Y-%m-%d, %H:%M}")))
    return Conflict(tasks=(lock.task,), say=say, remedies=(remedy,))


def on_site(made: Made, variety: str) -> Made:
    """Everything made, with a variety put in on site wherever it does not drink from a vessel."""

    def changed(recipe: tuple[RecipeLine, ...]) -> tuple[RecipeLine, ...]:
        return put_on_site(recipe, variety)

    return Made(
        pieces=tuple(
            replace(each, piece=replace(each.piece, recipe=changed(each.piece.recipe))) for each in made.pieces
        ),
        rigs=tuple(replace(each, rig=replace(each.rig, recipe=changed(each.rig.recipe))) for each in made.rigs),
    )


def put_on_site(recipe: tuple[RecipeLine, ...], variety: str) -> tuple[RecipeLine, ...]:
    """A recipe with a variety put in on site where it does not drink from the vessel."""
    return tuple(
        replace(line, on_site=True) if line.variety == variety and line.water != "vessel" else line for line in recipe
    )


def _missing(job: Job) -> tuple[str, ...]:
    facts = (
        (job.filled_at is None, "when the water goes in"),
        (job.ends_at is None, "when the event ends"),
        (job.travel_h is None, "how long the drive takes"),
        (job.access_at is None, "when the place opens to the crew"),
        (not job.crew, "who works (one pair of hands is taken)"),
        (job.air is None, "the air of the place"),
        (job.workshop is None, "the air of the workshop"),
    )
    return tuple(words for absent, words in facts if absent)


def _too_narrow(tasks: tuple[Task, ...]) -> frozenset[str]:
    """Tasks whose own bounds leave no room for them, whatever the crew."""
    return frozenset(
        task.key
        for task in tasks
        if task.at is None
        and task.soonest is not None
        and task.latest is not None
        and task.soonest.timestamp() + 60 * task.minutes > task.latest.timestamp()
    )


def _life_conflict(task: Task, job: Job, made: Made, varieties: dict[str, Variety]) -> Conflict:
    """A task that its own bounds leave no room for: a flower that does not last, or a place that opens too late."""
    remedies: list[Remedy] = []
    tried: tuple[str, ...] = ()
    work = next((each for each in made.works if each.id == task.piece_id), None)
    if work is not None and task.variety is not None:
        variety = varieties[task.variety]
        line = next(each for each in recipe_of(work) if each.variety == task.variety and each.water != "vessel")
        tube = _tube_that_lasts(line, variety, job, task)
        tried = ("a tube", "a larger tube")
        if tube is not None:
            remedies.append(_tubes(work.id, variety, tube))
    bounds = ""
    if task.soonest is not None and task.latest is not None:
        bounds = f": not before {task.soonest:%H:%M}, done by {task.latest:%H:%M}"
    why = f" ({task.why})" if task.why else ""
    say = phrase("{task}{bounds}{why}.", task=task.name, bounds=bounds, why=why)
    return Conflict(tasks=(task.key,), say=say, remedies=tuple(remedies), tried=tried)


def _tubes(piece_id: int, variety: Variety, tube: StemTube) -> Remedy:
    large = "a larger tube" if tube == LARGER_TUBE else "a tube"
    return Remedy(
        key=f"tubes-{piece_id}-{variety.key}",
        kind="tubes",
        say=phrase("Give each {variety} {large}, with the stem deep in it.", variety=variety.name, large=large),
        piece_id=piece_id,
        variety=variety.key,
        tube=tube,
    )


def _tube_that_lasts(line: RecipeLine, variety: Variety, job: Job, task: Task) -> StemTube | None:
    """The smaller of two tubes in which a stem placed by the task's end lasts; None where neither does."""
    if task.latest is None:
        return None
    starts = back(task.latest, task.minutes / 60)
    for tube in (DEEP_TUBE, LARGER_TUBE):
        soonest = soonest_use(job, replace(line, water="tube", tube=tube), variety)
        if soonest is not None and soonest <= starts:
            return tube
    return None


def _crowded(
    tasks: tuple[Task, ...],
    job: Job,
    made: Made,
    varieties: dict[str, Variety],
    narrow: frozenset[str],
    solved: Solved | None,
) -> Conflict:
    """Too much for the hands and the hours: what breaks its bounds, and the smallest change that mends it."""
    broken = (
        [] if solved is None else [each for each in solved.timed if each.early_min and each.task.key not in narrow]
    )
    worst = sorted(broken, key=lambda each: -each.early_min)
    short = dict.fromkeys(each.task.variety for each in worst if each.task.variety and each.task.stage != "on site")
    named = ", ".join(f"{each.task.name} ({duration_text(each.early_min / 60)})" for each in worst[:3])
    more = f" and {len(worst) - 3} more" if len(worst) > 3 else ""
    whys = list(dict.fromkeys(each.task.why for each in worst if each.task.variety))
    said = [phrase("There is more to do than the hands and hours allow.")]
    if named:
        words = "There is more to do than the hands and hours allow: {tasks}{more} out of bounds."
        said = [phrase(words, tasks=named, more=more)]
    if whys:
        said.append(phrase("Not everything lasts to the end: {whys}.", whys="; ".join(whys[:3])))
    if solved is not None and solved.extra_hands:
        words = "One more pair of hands would be needed."
        if solved.extra_hands > 1:
            words = "{n} more pairs of hands would be needed."
        said.append(phrase(words, n=solved.extra_hands))
    return Conflict(
        tasks=tuple(each.task.key for each in worst),
        say=joined(said),
        remedies=tuple(_remedies(job, made, varieties, narrow, tuple(short))),
        tried=(
            *(["each task set by hand let go"] if job.locks else []),
            *(f"{varieties[key].name} put in on site" for key in short),
            f"up to {MOST_MORE_HANDS} more pairs of hands",
            f"starting up to {MOST_EARLIER_H} h earlier",
        ),
    )


def _remedies(
    job: Job, made: Made, varieties: dict[str, Variety], narrow: frozenset[str], short: tuple[str, ...]
) -> Iterator[Remedy]:
    """Changes that were tried and work, the smallest of each kind: a lock let go, a variety on site, hands, hours."""

    def works(other: Job, others: Made = made) -> bool:
        tasks = tasks_of(other, others, varieties)
        let_off = narrow | _too_narrow(tasks) if others is made else narrow
        return solve(tasks, other, relaxed=let_off, only_feasible=True) is not None

    for lock in job.locks:
        if works(replace(job, locks=tuple(each for each in job.locks if each != lock))):
            yield Remedy(
                key=f"unlock-{lock.task}",
                kind="unlock",
                say=phrase("Let “{task}” go from its time.", task=lock.task),
                task=lock.task,
            )
    for key in short:
        if works(job, on_site(made, key)):
            say = phrase("Put the {key} in on site, wherever it has no vessel to drink from.", key=varieties[key].name)
            yield Remedy(key=f"on-site-{key}", kind="on site", say=say, variety=key)
    crew = job.crew or (CrewMember(name="you"),)
    for more in range(1, MOST_MORE_HANDS + 1):
        extra = tuple(CrewMember(name=f"extra {nth + 1}") for nth in range(more))
        if works(replace(job, crew=crew + extra)):
            words = "One more pair of hands." if more == 1 else "{n} more pairs of hands."
            yield Remedy(key=f"hands-{more}", kind="hands", say=phrase(words, n=more), hands=more)
            break
    opens = datetime.combine(datetime(2000, 1, 1, tzinfo=UTC), job.hours.opens)
    for hours in range(1, MOST_EARLIER_H + 1):
        if opens.hour - hours < 4:
            break
        earlier = (opens - timedelta(hours=hours)).time()
        if works(replace(job, hours=Hours(opens=time(earlier.hour, earlier.minute), closes=job.hours.closes))):
            words = "Start {hours} h earlier on every day, at {at}."
            say = phrase(words, hours=hours, at=f"{earlier:%H:%M}")
            yield Remedy(key=f"hours-{hours}", kind="hours", say=say, opens=f"{earlier:%H:%M}")
            break
