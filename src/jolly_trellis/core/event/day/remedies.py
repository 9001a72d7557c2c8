"""Changes that help a day: each tried with the solver that makes the sheet, and offered with what is left after it."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import time
from typing import Literal

from jolly_trellis.core.checks.drink_own import LARGER_TUBE
from jolly_trellis.core.event.job import CREW_MOST, CrewMember, Hours, Job, Lock, Made
from jolly_trellis.core.event.needs.bunches import StemBuy
from jolly_trellis.core.event.sheet.breaches import Breach
from jolly_trellis.core.event.sheet.people import DAY_BEGINS_H
from jolly_trellis.core.event.sheet.puzzle import NOBODY
from jolly_trellis.core.event.sheet.schedule import Progress, RunSheet, schedule
from jolly_trellis.core.event.tasks.old_keys import key_now
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine, StemTube
from jolly_trellis.core.quantities import Phrase, duration, phrase, worded

MOST_MORE_HANDS = 8
MOST_EARLIER_H = 4
TRIAL = 0.025
_LOCKS_TRIED = 6
RemedyKind = Literal["hands", "hours", "tubes", "on site", "unlock", "greens", "split"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """A change that helps: more hands, a workshop open earlier, tubes for a variety, a variety put in at the place, a
    task let go from its time, greens a day sooner, a crew in two. Only the fields of its kind are set. `after` says
    what is left then; `mends` whether that is nothing.
    """

    key: str
    kind: RemedyKind
    say: Phrase
    after: Phrase
    mends: bool
    hands: int = 0
    opens: str = ""
    piece_id: int | None = None
    variety: str = ""
    tube: StemTube | None = None
    task: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Trial:
    """What a change is tried on: the event, its sheet as it stands, and the sheet that lists alone give it.

    A change is tried by lists first, which take a twentieth of the time, against `quick`; what helps there is tried
    with the solver, against `sheet`, and offered only where it helps there too.
    """

    job: Job
    made: Made
    varieties: Mapping[str, Variety]
    bought: tuple[StemBuy, ...] | None
    sheet: RunSheet
    quick: RunSheet
    stop: Callable[[], bool]

    def sheet_with(self, job: Job | None = None, made: Made | None = None, *, solve: bool = True) -> RunSheet:
        """The sheet of the event with a change."""
        job, made = job or self.job, made or self.made
        tasks = time_book(job, made, self.varieties, self.bought).tasks
        return schedule(tasks, job, effort=TRIAL, solve=solve, progress=Progress(stop=self.stop))

    def helped(self, job: Job | None = None, made: Made | None = None) -> RunSheet | None:
        """The sheet of the event with a change that helps; None for one that does not."""
        if not _better(self.sheet_with(job, made, solve=False), self.quick) or self.stop():
            return None
        sheet = self.sheet_with(job, made)
        return sheet if _better(sheet, self.sheet) else None


def remedies_of(breaches: list[Breach], trial: Trial) -> tuple[tuple[Remedy, ...], tuple[str, ...]]:
    """What was tried and helps, the smallest of each kind; and what was tried, in words."""
    short = _short(breaches, trial)
    found = []
    for kind in (
        _unlocked(trial),
        _on_site(short, trial),
        _split(trial),
        _greens(trial),
        _more_hands(trial),
        _earlier(trial),
    ):
        if trial.stop():
            break
        found += list(kind)
    tried = (
        *(["each task set by hand let go"] if trial.job.locks else []),
        *(worded("{variety} put in at the place", variety=trial.varieties[key].name) for key in short),
        *(["splitting the crew"] if split(trial.job.crew) != trial.job.crew else []),
        *([] if trial.job.greens_sooner else ["greens a day sooner"]),
        worded("up to {n} more pairs of hands", n=hands_most(trial.job)),
        worded("starting up to {n} h earlier", n=MOST_EARLIER_H),
    )
    return tuple(found), tried


def tubes_remedy(piece_id: int, variety: Variety, tube: StemTube, trial: Trial) -> Remedy:
    """A variety of one part in tubes that last."""
    large = "a larger tube" if tube == LARGER_TUBE else "a tube"

    def tubed(recipe: tuple[RecipeLine, ...]) -> tuple[RecipeLine, ...]:
        return in_tubes(recipe, variety.key, tube)

    sheet = trial.sheet_with(made=with_recipes(trial.made, tubed, only=piece_id))
    after, mends = left(sheet)
    return Remedy(
        key=f"tubes-{piece_id}-{variety.key}",
        kind="tubes",
        say=phrase("Give each {variety} {large}, with the stem deep in it.", variety=variety.name, large=large),
        after=after,
        mends=mends,
        piece_id=piece_id,
        variety=variety.key,
        tube=tube,
    )


def unlock_remedy(lock: Lock, name: str, trial: Trial) -> Remedy:
    """A task let go from a time that is not kept anyhow; that always works."""
    after, mends = left(trial.sheet)
    return Remedy(
        key=f"unlock-{lock.task}",
        kind="unlock",
        say=phrase("Let “{name}” go from its time.", name=name),
        after=after,
        mends=mends,
        task=lock.task,
    )


def left(sheet: RunSheet) -> tuple[Phrase, bool]:
    """What a sheet breaks, in short, and whether that is nothing."""
    if not sheet.breaches:
        return phrase("Then all is within its bounds."), True
    worst = max(sheet.breaches, key=lambda each: each.minutes)
    words = "Then {n} things are out of bounds, the most by {by}."
    if len(sheet.breaches) == 1:
        words = "Then one thing is out of bounds, by {by}."
    return phrase(words, n=len(sheet.breaches), by=duration(worst.minutes / 60)), False


def in_tubes(recipe: tuple[RecipeLine, ...], variety: str, tube: StemTube | None) -> tuple[RecipeLine, ...]:
    """A recipe with a variety in tubes, where it had none or another."""
    return tuple(
        replace(line, water="tube", tube=tube) if line.variety == variety and line.water in ("none", "tube") else line
        for line in recipe
    )


def put_on_site(recipe: tuple[RecipeLine, ...], variety: str) -> tuple[RecipeLine, ...]:
    """A recipe with a variety put in at the place where it does not drink from the vessel."""
    return tuple(
        replace(line, goes_in="on site", goes_in_n=None)
        if line.variety == variety and line.water != "vessel"
        else line
        for line in recipe
    )


def with_recipes(
    made: Made, change: Callable[[tuple[RecipeLine, ...]], tuple[RecipeLine, ...]], *, only: int | None = None
) -> Made:
    """Everything made with other recipes, those of one part alone where it is named."""
    return Made(
        pieces=tuple(
            replace(each, piece=replace(each.piece, recipe=change(each.piece.recipe)))
            if only in (None, each.id)
            else each
            for each in made.pieces
        ),
        rigs=tuple(
            replace(each, rig=replace(each.rig, recipe=change(each.rig.recipe))) if only in (None, each.id) else each
            for each in made.rigs
        ),
    )


def _short(breaches: list[Breach], trial: Trial) -> tuple[str, ...]:
    """Varieties that do not last where they are put in now."""
    tasks = {each.task.key: each.task for each in trial.sheet.timed}
    named = (
        tasks[each.tasks[0]].variety
        for each in breaches
        if each.kind == "early" and tasks[each.tasks[0]].stage != "on site"
    )
    return tuple(dict.fromkeys(each for each in named if each))


def _better(sheet: RunSheet, than: RunSheet) -> bool:
    return sheet.cost < than.cost and len(sheet.breaches) < len(than.breaches)


def _unlocked(trial: Trial) -> Iterator[Remedy]:
    names = {each.task.key: each.task.name for each in trial.sheet.timed}
    for lock in trial.job.locks[:_LOCKS_TRIED]:
        locks = tuple(each for each in trial.job.locks if each != lock)
        if (sheet := trial.helped(replace(trial.job, locks=locks))) is not None:
            after, mends = left(sheet)
            yield Remedy(
                key=f"unlock-{lock.task}",
                kind="unlock",
                say=phrase("Let “{task}” go from its time.", task=names.get(key_now(lock.task), lock.task)),
                after=after,
                mends=mends,
                task=lock.task,
            )


def _on_site(short: tuple[str, ...], trial: Trial) -> Iterator[Remedy]:
    for key in short:

        def there(recipe: tuple[RecipeLine, ...], key: str = key) -> tuple[RecipeLine, ...]:
            return put_on_site(recipe, key)

        if (sheet := trial.helped(made=with_recipes(trial.made, there))) is not None:
            after, mends = left(sheet)
            yield Remedy(
                key=f"on-site-{key}",
                kind="on site",
                say=phrase(
                    "Put the {key} in at the place, wherever it has no vessel to drink from.",
                    key=trial.varieties[key].name,
                ),
                after=after,
                mends=mends,
                variety=key,
            )


def _more_hands(trial: Trial) -> Iterator[Remedy]:
    """The fewest more that leave as little out of bounds as the most of them would."""
    crew = trial.job.crew or (NOBODY,)

    def with_more(more: int) -> Job:
        extra = tuple(CrewMember(name=worded("one more {n}", n=nth + 1)) for nth in range(more))
        return replace(trial.job, crew=crew + extra)

    for more, sheet in _least(hands_most(trial.job), with_more, trial):
        after, mends = left(sheet)
        words = "One more pair of hands." if more == 1 else "{n} more pairs of hands."
        yield Remedy(
            key=f"hands-{more}", kind="hands", say=phrase(words, n=more), after=after, mends=mends, hands=more
        )


def _earlier(trial: Trial) -> Iterator[Remedy]:
    """The least earlier opening of the workshop that leaves as little out of bounds as the earliest would."""
    opens = trial.job.hours.opens

    def clock(hours: int) -> time:
        return time(opens.hour - hours, opens.minute)

    def at(hours: int) -> Job:
        return replace(trial.job, hours=Hours(opens=clock(hours), closes=trial.job.hours.closes))

    for hours, sheet in _least(min(MOST_EARLIER_H, opens.hour - DAY_BEGINS_H), at, trial):
        after, mends = left(sheet)
        words = f"{clock(hours):%H:%M}"
        yield Remedy(
            key=f"hours-{hours}",
            kind="hours",
            say=phrase("Start {hours} h earlier on every day, at {at}.", hours=hours, at=words),
            after=after,
            mends=mends,
            opens=words,
        )


def _least(most: int, job_at: Callable[[int], Job], trial: Trial) -> Iterator[tuple[int, RunSheet]]:
    """The least of 1 to `most` that leaves as few things out of bounds as the most does, where that helps at all.

    Lists halve the way there; the solver, which finds what they do not, goes on down from where they end.
    """
    if most < 1 or trial.stop():
        return
    low, high, found = 1, most, trial.sheet_with(job_at(most), solve=False)
    if not _better(found, trial.quick):
        return
    aim = len(found.breaches)
    while low < high and not trial.stop():
        middle = (low + high) // 2
        sheet = trial.sheet_with(job_at(middle), solve=False)
        if len(sheet.breaches) <= aim and _better(sheet, trial.quick):
            high = middle
        else:
            low = middle + 1
    best = None
    for number in range(high, 0, -1):
        sheet = trial.sheet_with(job_at(number))
        if not _better(sheet, trial.sheet) or (best is not None and len(sheet.breaches) > len(best[1].breaches)):
            break
        best = number, sheet
        if trial.stop():
            break
    if best is not None:
        yield best


def hands_most(job: Job) -> int:
    """How many more pairs of hands are tried at most: a crew has its limit."""
    return min(MOST_MORE_HANDS, CREW_MOST - max(1, len(job.crew)))


def _greens(trial: Trial) -> Iterator[Remedy]:
    """Greens in a day sooner than is usual."""
    if trial.job.greens_sooner:
        return
    if (sheet := trial.helped(replace(trial.job, greens_sooner=True))) is not None:
        after, mends = left(sheet)
        yield Remedy(
            key="greens", kind="greens", say=phrase("Put the greens in a day sooner."), after=after, mends=mends
        )


def _split(trial: Trial) -> Iterator[Remedy]:
    """One half of the crew sets up, the other does the strike."""
    crew = split(trial.job.crew)
    if crew == trial.job.crew:
        return
    if (sheet := trial.helped(replace(trial.job, crew=crew))) is not None:
        after, mends = left(sheet)
        named = tuple(each.name for each in crew if each.does == "strike")
        yield Remedy(
            key="split",
            kind="split",
            say=phrase("Split the crew: {names} for the strike alone, the others until then.", names=", ".join(named)),
            after=after,
            mends=mends,
        )


def split(crew: tuple[CrewMember, ...]) -> tuple[CrewMember, ...]:
    """A crew in two, each with somebody who drives; the same crew where that does not go, or is done already."""
    if any(each.does != "all of it" for each in crew):
        return crew
    drivers = [each for each in crew if "drives" in each.skills]
    others = [each for each in crew if "drives" not in each.skills]
    if len(drivers) < 2:
        return crew
    late = {id(each) for each in (*drivers[len(drivers) - len(drivers) // 2 :], *others[: len(others) // 2])}
    return tuple(replace(each, does="strike" if id(each) in late else "setting up") for each in crew)
