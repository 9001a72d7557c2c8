"""The day: the run sheet, what cannot be as it stands, what was tried and helps, the life of each variety."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

from jolly_trellis.core.books.time import Task, TimeBook
from jolly_trellis.core.checks.drink_own import LARGER_TUBE
from jolly_trellis.core.event import facts
from jolly_trellis.core.event.day.notes import Note, notes_of
from jolly_trellis.core.event.day.remedies import TRIAL, Remedy, Trial, remedies_of, tubes_remedy, unlock_remedy
from jolly_trellis.core.event.job import Job, Lock, Made, recipe_of
from jolly_trellis.core.event.needs.bunches import StemBuy, buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.sheet.breaches import Breach
from jolly_trellis.core.event.sheet.enough import Lack, lack_of
from jolly_trellis.core.event.sheet.lives import Life, lives_of, soonest_use
from jolly_trellis.core.event.sheet.schedule import EFFORT, Progress, RunSheet, Timed, schedule
from jolly_trellis.core.event.sheet.task import back
from jolly_trellis.core.event.tasks.old_keys import key_now
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.plan.facts import ENDS_AT
from jolly_trellis.core.plan.recipe import StemTube
from jolly_trellis.core.quantities import Phrase, duration, joined, phrase, worded

DEEP_TUBE = StemTube(stem_in_m=0.08)
_SAID = 4


@dataclass(frozen=True, slots=True, kw_only=True)
class Conflict:
    """What cannot be done as it stands: the tasks it shows at, in words, what would mend it, and what was tried."""

    tasks: tuple[str, ...]
    say: Phrase
    remedies: tuple[Remedy, ...]
    tried: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Day:
    """The day of an event. `missing` are facts it lacks; without the filling there are no times at all.

    `breaches` is all that the sheet breaks, each with by how much. `weight_unknown` names pieces that one person is
    taken to place, as nobody knows how heavy they are. `notes` say what else it asks for.
    """

    timed: tuple[Timed, ...]
    conflicts: tuple[Conflict, ...]
    lives: tuple[Life, ...]
    missing: tuple[Missing, ...]
    breaches: tuple[Breach, ...] = ()
    extra_hands: int = 0
    weight_unknown: tuple[str, ...] = ()
    notes: tuple[Note, ...] = ()


def day_of(
    job: Job,
    made: Made,
    varieties: Mapping[str, Variety],
    *,
    bought: tuple[StemBuy, ...] | None = None,
    effort: float = EFFORT,
    tell: Callable[[Day], None] | None = None,
    stop: Callable[[], bool] | None = None,
) -> Day:
    """Work out the day. There always is a sheet, once the time that the water goes in is known.

    Args:
        bought: how stems are bought; None: all of them, nothing being here. effort: of the solver, deterministic.
        tell: called with each better sheet, the list's first; stop: ends the search with the best so far.
    Source: tasks as `time_book`, times as `schedule`; a remedy is offered only where it was tried and helps.
    """
    stopping = stop or (lambda: False)
    if bought is None:
        bought = buy_stems(needs_of(made).stems, varieties, waste=job.costing.waste, here={})
    event = _Event(job=job, made=made, varieties=varieties, bought=bought)

    def telling(found: RunSheet) -> None:
        if tell is not None:
            tell(_day(found, (), event))

    progress = Progress(tell=telling, stop=stopping)
    kept, broken = _kept_locks(job, made, varieties, bought)
    now = replace(job, locks=kept)
    book = time_book(now, made, varieties, bought)
    sheet = schedule(book.tasks, now, effort=effort, progress=progress)
    narrow = too_narrow(book)
    quick = schedule(book.tasks, now, effort=TRIAL, solve=False) if sheet.breaches or broken or narrow else sheet
    trial = Trial(job=now, made=made, varieties=varieties, bought=bought, sheet=sheet, quick=quick, stop=stopping)
    stands = {each.task.key: each for each in sheet.timed}
    conflicts = [_unmet_lock(lock, stands.get(key_now(lock.task)), trial) for lock in broken]
    conflicts += [_life_conflict(task, job, made, varieties, trial) for task in book.tasks if task.key in narrow]
    crowded = [each for each in sheet.breaches if not narrow.issuperset(each.tasks)]
    if crowded:
        conflicts.append(_crowded(crowded, lack_of(book, now), trial))
    return _day(sheet, tuple(conflicts), event)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Event:
    """What a day is made of."""

    job: Job
    made: Made
    varieties: Mapping[str, Variety]
    bought: tuple[StemBuy, ...]


def _day(sheet: RunSheet, conflicts: tuple[Conflict, ...], event: _Event) -> Day:
    return Day(
        timed=sheet.timed,
        conflicts=conflicts,
        lives=tuple(lives_of(event.job, event.made, event.varieties, sheet.timed)),
        missing=_missing(event.job),
        breaches=sheet.breaches,
        extra_hands=sheet.extra_hands,
        weight_unknown=tuple(
            each.piece.name
            for each in event.made.pieces
            if not each.piece.carried and (each.report is None or each.report.balance is None)
        ),
        notes=notes_of(event.job, event.bought, event.varieties, sheet.timed),
    )


def _kept_locks(
    job: Job, made: Made, varieties: Mapping[str, Variety], bought: tuple[StemBuy, ...] | None
) -> tuple[tuple[Lock, ...], tuple[Lock, ...]]:
    """Times set by hand that can be met, and those that cannot: as many are kept as go, one after the other."""
    known = {each.key for each in time_book(replace(job, locks=()), made, varieties, bought).tasks}

    def out_of_order(locks: tuple[Lock, ...]) -> int:
        tried = replace(job, locks=locks)
        sheet = schedule(time_book(tried, made, varieties, bought).tasks, tried, effort=0)
        return sum(each.kind == "order" for each in sheet.breaches)

    def goes(locks: tuple[Lock, ...]) -> bool:
        return out_of_order(locks) <= anyhow

    there = tuple(each for each in job.locks if key_now(each.task) in known)
    anyhow = out_of_order(()) if there else 0
    if not there or goes(there):
        kept = there
    else:
        kept = ()
        for lock in there:
            if goes((*kept, lock)):
                kept = (*kept, lock)
    return kept, tuple(each for each in job.locks if each not in kept)


def _unmet_lock(lock: Lock, stands: Timed | None, trial: Trial) -> Conflict:
    """A time set by hand that is broken, with both times; or one of a task that there is no more."""
    asked = lock.starts_at.replace("T", ", ")
    name = lock.task if stands is None else stands.task.name
    if stands is None:
        say = phrase(
            "“{name}” was set by hand to {asked}, and is no task of this plan any more.", name=name, asked=asked
        )
    else:
        say = joined(
            (
                phrase("“{name}” was set by hand to {asked}, which cannot be met.", name=name, asked=asked),
                phrase("Here it starts at {at}.", at=f"{stands.starts_at:%Y-%m-%d, %H:%M}"),
            )
        )
    return Conflict(tasks=(key_now(lock.task),), say=say, remedies=(unlock_remedy(lock, name, trial),))


def _missing(job: Job) -> tuple[Missing, ...]:
    asked = (
        (job.filled_at is None, facts.FILLED),
        (job.ends_at is None, ENDS_AT),
        (job.travel_h is None, facts.DRIVE),
        (job.access_at is None, facts.ACCESS),
        (not job.crew, facts.CREW),
        (job.air is None, facts.PLACE_AIR),
        (job.workshop is None, facts.WORKSHOP_AIR),
    )
    return tuple(fact.missing() for absent, fact in asked if absent)


def too_narrow(book: TimeBook) -> frozenset[str]:
    """Tasks whose own bounds leave no room for them, whatever the crew."""
    return frozenset(
        task.key
        for task in book.tasks
        if task.at is None
        and task.soonest is not None
        and task.latest is not None
        and task.soonest.timestamp() + 60 * task.minutes > task.latest.timestamp()
    )


def _life_conflict(task: Task, job: Job, made: Made, varieties: Mapping[str, Variety], trial: Trial) -> Conflict:
    """A task that its own bounds leave no room for: a flower that does not last, or a place that opens too late."""
    found: tuple[Remedy, ...] = ()
    tried: tuple[str, ...] = ()
    work = next((each for each in made.works if each.id == task.piece_id), None)
    if work is not None and task.variety is not None:
        variety = varieties[task.variety]
        line = next(each for each in recipe_of(work) if each.variety == task.variety and each.water != "vessel")
        tried = ("a tube", "a larger tube")
        for tube in (DEEP_TUBE, LARGER_TUBE):
            soonest = soonest_use(job, replace(line, water="tube", tube=tube), variety)
            if task.latest is not None and soonest is not None and soonest <= back(task.latest, task.minutes / 60):
                found = (tubes_remedy(work.id, variety, tube, trial),)
                break
    bounds = why = ""
    if task.soonest is not None and task.latest is not None:
        words = ": not before {soonest}, done by {latest}"
        bounds = worded(words, soonest=f"{task.soonest:%H:%M}", latest=f"{task.latest:%H:%M}")
    if task.why:
        why = worded(" ({why})", why=task.why)
    say = phrase("{task}{bounds}{why}.", task=task.name, bounds=bounds, why=why)
    return Conflict(tasks=(task.key,), say=say, remedies=found, tried=tried)


def _crowded(breaches: list[Breach], lack: Lack | None, trial: Trial) -> Conflict:
    """Too much for the hands and the hours: what is broken, the worst first, and what was tried and helps."""
    more = len(breaches) - _SAID
    said = [_why(lack, stopped=trial.stop()), *(each.say for each in breaches[:_SAID])]
    if more > 0:
        said.append(phrase("And {n} more like these." if more > 1 else "And one more like these.", n=more))
    remedies, tried = remedies_of(breaches, trial)
    return Conflict(
        tasks=tuple(dict.fromkeys(key for each in breaches for key in each.tasks)),
        say=joined(said),
        remedies=remedies,
        tried=tried,
    )


def _why(lack: Lack | None, *, stopped: bool) -> Phrase:
    """Why something is out of bounds: there cannot be hands enough; or no better sheet was found, which may exist."""
    if lack is not None:
        words = (
            "There is more to do than the hands and hours allow: {work} of work from {since} to {until}, and "
            "{have} of hands."
        )
        if lack.workshop:
            words = (
                "There is more to do than the hands and hours allow: {work} of work in the workshop from {since} to "
                "{until}, and {have} of hands."
            )
        return phrase(
            words,
            since=f"{lack.since:%a %d %b, %H:%M}",
            until=f"{lack.until:%a %d %b, %H:%M}",
            work=duration(lack.work_h),
            have=duration(lack.have_h),
        )
    if stopped:
        return phrase("The search was stopped; in the best sheet so far:")
    return phrase("No sheet without this was found in the time given; there may be one.")
