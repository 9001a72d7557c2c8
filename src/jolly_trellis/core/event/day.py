"""The day: the run sheet, what cannot be done as it stands with the smallest remedy, and the life of each variety."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import UTC, datetime, time, timedelta
from typing import Literal

from jolly_trellis.core.air import draw_factor
from jolly_trellis.core.checks.drink_own import LARGER_TUBE
from jolly_trellis.core.event.job import CrewMember, Hours, Job, Made, recipe_of
from jolly_trellis.core.event.schedule import Progress, Solved, Timed, solve
from jolly_trellis.core.event.task import Task, hours_of_tube
from jolly_trellis.core.event.tasks import tasks_of
from jolly_trellis.core.piece import RecipeLine, StemTube
from jolly_trellis.core.quantities import Phrase, phrase
from jolly_trellis.core.stems import Variety
from jolly_trellis.core.units import duration_text

DEEP_TUBE = StemTube(stem_in_m=0.08)
RemedyKind = Literal["hands", "hours", "tubes", "unlock"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """The smallest change that mends a conflict: more hands, a workshop open earlier, tubes for a variety, or a lock
    let go. Only the fields of its kind are set.
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
    """What cannot be done as it stands: the tasks it shows at, in words, and what would mend it."""

    tasks: tuple[str, ...]
    say: Phrase
    remedies: tuple[Remedy, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Life:
    """One variety in one kind of water: when it begins to drink, is first used, how long it lasts and must last.

    `lasts_until` None: it drinks from a vessel, which Drink judges, or the air is not known.
    """

    variety: str
    name: str
    colour: str
    water: str
    drinks_from: datetime | None
    used_from: datetime
    lasts_until: datetime | None
    needed_until: datetime | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Day:
    """The day of an event. `missing` are facts it lacks; without the filling there are no tasks at all."""

    timed: tuple[Timed, ...]
    conflicts: tuple[Conflict, ...]
    lives: tuple[Life, ...]
    missing: tuple[str, ...]
    extra_hands: int = 0


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
            lives = tuple(_lives(job, made, known, found.timed))
            tell(Day(timed=found.timed, conflicts=(), lives=lives, missing=missing, extra_hands=found.extra_hands))

    progress = Progress(tell=telling, stop=stop or (lambda: False))
    solved = solve(tasks, job, relaxed=narrow, progress=progress)
    conflicts = [_life_conflict(task, job, made, known) for task in tasks if task.key in narrow]
    if solved is None:
        solved = solve(tasks, job, relaxed=frozenset(task.key for task in tasks), progress=progress)
        conflicts.append(_crowded(tasks, job, made, known, narrow, solved))
    timed = () if solved is None else solved.timed
    return Day(
        timed=timed,
        conflicts=tuple(conflicts),
        lives=tuple(_lives(job, made, known, timed)),
        missing=missing,
        extra_hands=0 if solved is None else solved.extra_hands,
    )


def _missing(job: Job) -> tuple[str, ...]:
    facts = (
        (job.filled_at is None, "when the water goes in"),
        (job.ends_at is None, "when the event ends"),
        (job.travel_h is None, "how long the drive takes"),
        (job.access_at is None, "when the place opens to the crew"),
        (not job.crew, "who works (one pair of hands is taken)"),
        (job.air is None, "the air of the place"),
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
    if task.variety is not None and task.latest is not None and task.piece_id is not None:
        work = next(each for each in made.works if each.id == task.piece_id)
        variety = varieties[task.variety]
        lines = recipe_of(work)
        line = next(each for each in lines if each.variety == task.variety and each.on_site)
        tube = _tube_that_lasts(line, variety, job, task)
        if tube is not None:
            large = "a larger tube" if tube == LARGER_TUBE else "a tube"
            remedies.append(
                Remedy(
                    key=f"tubes-{task.piece_id}-{variety.key}",
                    kind="tubes",
                    say=phrase(f"Give each {variety.name} {large}, with the stem deep in it."),
                    piece_id=task.piece_id,
                    variety=variety.key,
                    tube=tube,
                )
            )
    bounds = ""
    if task.soonest is not None and task.latest is not None:
        bounds = f": not before {task.soonest:%H:%M}, done by {task.latest:%H:%M}"
    why = f" ({task.why})" if task.why else ""
    return Conflict(tasks=(task.key,), say=phrase(f"{task.name}{bounds}{why}."), remedies=tuple(remedies))


def _tube_that_lasts(line: RecipeLine, variety: Variety, job: Job, task: Task) -> StemTube | None:
    if job.air is None or job.ends_at is None or task.latest is None:
        return None
    needed = (job.ends_at.timestamp() - task.latest.timestamp()) / 3600 + task.minutes / 60
    for tube in (DEEP_TUBE, LARGER_TUBE):
        tubed = replace(line, water="tube", tube=tube)
        if hours_of_tube(tubed, variety, draw_factor(job.air)) >= needed:
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
    named = ", ".join(f"{each.task.name} ({duration_text(each.early_min / 60)})" for each in worst[:3])
    more = f" and {len(worst) - 3} more" if len(worst) > 3 else ""
    extra = "" if solved is None or not solved.extra_hands else f" {solved.extra_hands} more hands would be needed."
    said = f"There is more to do than the hands and hours allow: {named}{more} out of bounds." if named else (
        "There is more to do than the hands and hours allow."
    )  # fmt: skip
    return Conflict(
        tasks=tuple(each.task.key for each in worst),
        say=phrase(said + extra),
        remedies=tuple(_remedies(job, made, varieties, narrow)),
    )


def _remedies(job: Job, made: Made, varieties: dict[str, Variety], narrow: frozenset[str]) -> Iterator[Remedy]:
    """Changes that were tried and work, the smallest of each kind: a lock let go, more hands, an earlier start."""

    def works(other: Job) -> bool:
        tasks = tasks_of(other, made, varieties)
        return solve(tasks, other, relaxed=narrow, only_feasible=True) is not None

    for lock in job.locks:
        if works(replace(job, locks=tuple(each for each in job.locks if each != lock))):
            yield Remedy(
                key=f"unlock-{lock.task}",
                kind="unlock",
                say=phrase(f"Let “{lock.task}” go from its time."),
                task=lock.task,
            )
    crew = job.crew or (CrewMember(name="you"),)
    for more in (1, 2, 3):
        extra = tuple(CrewMember(name=f"extra {nth + 1}") for nth in range(more))
        if works(replace(job, crew=crew + extra)):
            words = "One more pair of hands." if more == 1 else f"{more} more pairs of hands."
            yield Remedy(key=f"hands-{more}", kind="hands", say=phrase(words), hands=more)
            break
    opens = datetime.combine(datetime(2000, 1, 1, tzinfo=UTC), job.hours.opens)
    for hours in (1, 2, 3, 4):
        if opens.hour - hours < 4:
            break
        earlier = (opens - timedelta(hours=hours)).time()
        if works(replace(job, hours=Hours(opens=time(earlier.hour, earlier.minute), closes=job.hours.closes))):
            words = f"Start {hours} h earlier on every day, at {earlier:%H:%M}."
            yield Remedy(key=f"hours-{hours}", kind="hours", say=phrase(words), opens=f"{earlier:%H:%M}")
            break


def _lives(job: Job, made: Made, varieties: dict[str, Variety], timed: tuple[Timed, ...]) -> Iterator[Life]:
    """The life of every variety by the water it has, from its bucket to the end."""
    conditioned = [each for each in timed if each.task.stage == "condition"]
    drinks_from = min((each.starts_at for each in conditioned), default=None)
    seen: set[tuple[str, str, bool]] = set()
    for work in made.works:
        for line in recipe_of(work):
            variety = varieties.get(line.variety)
            key = (line.variety, line.water, line.on_site)
            if variety is None or key in seen:
                continue
            used = _used_from(line, made, varieties, timed)
            if used is None:
                continue
            seen.add(key)
            yield Life(
                variety=variety.key,
                name=variety.name,
                colour=variety.colour,
                water=line.water,
                drinks_from=drinks_from,
                used_from=used,
                lasts_until=_lasts_until(job, line, variety, used),
                needed_until=job.ends_at,
            )


def _used_from(
    line: RecipeLine, made: Made, varieties: dict[str, Variety], timed: tuple[Timed, ...]
) -> datetime | None:
    """When the first stem like this one goes in anywhere."""
    holding = {
        work.id
        for work in made.works
        for each in recipe_of(work)
        if (each.variety, each.water, each.on_site) == (line.variety, line.water, line.on_site)
    }
    green = varieties[line.variety].form == "leaf"
    stage = "on site" if line.on_site else "green" if green else "flower"
    times = [
        each.starts_at
        for each in timed
        if each.task.stage == stage
        and each.task.piece_id in holding
        and (stage != "on site" or each.task.variety in (None, line.variety))
    ]
    return min(times, default=None)


def _lasts_until(job: Job, line: RecipeLine, variety: Variety, used: datetime) -> datetime | None:
    if job.air is None or line.water not in ("none", "tube"):
        return None
    factor = draw_factor(job.air)
    hours = variety.dry_hold_h / factor if line.water == "none" else hours_of_tube(line, variety, factor)
    return (used.astimezone(UTC) + timedelta(hours=hours)).astimezone(used.tzinfo)
