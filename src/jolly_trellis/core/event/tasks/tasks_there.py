"""Everything from the drive on: hang in rig order, place, fill, on site, top up, strike, return."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import replace
from datetime import datetime, timedelta
from itertools import combinations

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.time import Skill, Task, Wait, key_of
from jolly_trellis.core.event.job import Job, Made, PieceWork, RigWork
from jolly_trellis.core.event.sheet.task import (
    BACK_EARLY,
    FILL_MIN,
    HEAVY_KG,
    LINE_MIN,
    PLACE_MIN,
    PROOF_MIN,
    RIG_MIN,
    STRIKE_MIN,
    STRIKE_RIG_MIN,
    THERE_EARLY,
    TOP_UP_MIN,
    UNLOAD_MIN,
    back,
    numbered,
    parts_of,
    slots,
)
from jolly_trellis.core.event.tasks.asked import fire_gate
from jolly_trellis.core.event.tasks.gates import gate_of
from jolly_trellis.core.event.tasks.purchases import leaves_at
from jolly_trellis.core.event.tasks.tasks_before import Before, goes_up_early, made_there
from jolly_trellis.core.event.tasks.tasks_hires import brought_back
from jolly_trellis.core.event.tasks.tasks_on_site import on_site
from jolly_trellis.core.event.tasks.tasks_set_down import handed_over, moved, steadied
from jolly_trellis.core.event.tasks.water_rounds import rounds_of
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.quantities import worded

GUEST_SLACK = rule("All is done before guests come by", "minutes", 45)
BUILD_MOST = rule("One team builds on a day before, at most", "duration", 8.0)
LADDER_FROM_M = rule("A ladder is needed from a hang point's height of", "length", 2.2)


def at_the_place(before: Before, loads: tuple[Task, ...]) -> Iterator[Task]:
    """Drive, install in rig order, fill, what goes in on site, top up, strike, back."""
    job, made = before.job, before.made
    if not made.works:
        return
    main, early = (
        tuple(Wait(task=each.key) for each in loads if each.key.startswith(trip)) for trip in ("van:", "van-early:")
    )
    drive = slots(job.travel_h * 60) if job.travel_h else 0
    there = (Wait(task=key_of("van", "drive")),) if drive else main
    there_early = (Wait(task=THERE_EARLY),) if early and drive else early
    ready = ready_by(job)
    hung: dict[int, tuple[Wait, ...]] = {}
    over_tables = list(there)
    previous: dict[bool, tuple[Wait, ...]] = {True: there_early, False: there}
    raised: dict[bool, list[Task]] = {True: [], False: []}
    for rig in in_rig_order(made.rigs):
        ahead = goes_up_early(job, rig)
        hangs = rig.rig.mount is None and not rig.rig.lies
        arrive = there_early if ahead else there
        task = _install(before, rig, ahead=ahead, after=previous[ahead] if hangs else arrive, ready=ready)
        raised[ahead].append(task)
        up = (Wait(task=task.key),)
        hung[rig.id] = (*up, *there)
        if hangs:
            previous[ahead] = up
        if hangs and rig.rig.below == "table":
            over_tables += up
    if drive:
        home = (Wait(task=BACK_EARLY),) if early else ()
        yield _driven(job, "van", drive, (*main, *home), riders_of(job))
        if early:
            riders = riders_of(job, builds=tuple(raised[True]))
            raised[True] = [replace(each, among=riders) for each in raised[True]]
            yield _driven(job, "van-early", drive, early, riders)
            yield _driven_back(job, drive, tuple(raised[True]), riders)
    yield from raised[True]
    yield from raised[False]
    placed: list[Wait] = []
    for hung_up in made.rigs:
        yield from made_there(before, hung_up, hung[hung_up.id], ready)
    for work in made.pieces:
        if work.piece.carried:
            yield from handed_over(job, work, there)
            continue
        task = _placed(job, work, tuple(over_tables), before.varieties)
        yield task
        on_it = [*steadied(job, work, Wait(task=task.key))]
        on_it += made_there(before, work, tuple(Wait(task=each.key) for each in (task, *on_it)), job.filled_at)
        yield from on_it
        hung[work.id] = tuple(Wait(task=each.key) for each in (task, *on_it))
        placed += hung[work.id]
    start = before.start
    wet = [each.piece for each in made.pieces if not each.piece.carried and each.piece.water_level_m > 0]
    if wet:
        number = sum(each.quantity for each in wet)
        minutes = slots(FILL_MIN.value * number)
        yield Task(
            key=key_of("place", "fill"),
            stage="fill",
            name="Fill to the level on show, look at every piece from all sides",
            where="venue",
            minutes=minutes,
            soonest=job.access_at,
            latest=None if start is None else start + timedelta(minutes=minutes),
            after=tuple(placed),
            why="the display counts from its filling",
        )
    yield from on_site(before, ready, hung, tuple(placed) or there)
    filled = (Wait(task=key_of("place", "fill")),)
    for work in made.pieces:
        yield from moved(job, work, filled)
    yield from _top_ups(job, made)
    yield from _after(job, made, drive)


def ready_by(job: Job) -> datetime | None:
    """When all at the place is done: so long before guests come, or else when water goes in."""
    if job.starts_at is None:
        return job.filled_at
    return job.starts_at - timedelta(minutes=GUEST_SLACK.value)


def riders_of(job: Job, *, builds: tuple[Task, ...] = ()) -> tuple[int, ...]:
    """Who goes with the van: who is there when it must leave and not for the strike alone, drivers first to its seats.

    Args:
        builds: what is built on a day before, of the way there; only so many go as that wants, who can do it.
    """
    if not job.crew:
        return (0,)
    early = bool(builds)
    leaves = _early_at(job) if early else _must_leave(job)
    clock = "" if leaves is None else f"{leaves:%H:%M}"
    setting_up = [place for place, each in enumerate(job.crew) if each.does != "strike"] or [*range(len(job.crew))]
    there = [
        place for place in setting_up if not clock or (comes := job.crew[place].comes) is None or comes <= clock
    ] or setting_up
    there.sort(key=lambda place: "drives" not in job.crew[place].skills)
    there = there[: job.seats]
    hands = min(_teams(job, builds) * max((each.hands for each in builds), default=len(there)), len(there))
    wanted = [frozenset(each.skills) for each in builds] + [frozenset({"drives"})]
    able = (
        some
        for some in combinations(there, hands)
        if all(any(each <= set(job.crew[place].skills) for place in some) for each in wanted)
    )
    return tuple(sorted(next(able, tuple(there[:hands]))))


def _teams(job: Job, builds: tuple[Task, ...]) -> int:
    """How many build beside one another on a day before, so that it is done in the time the place gives."""
    until = _built_by(job)
    if job.builds_from is None or until is None:
        return 1
    have = min((until.timestamp() - job.builds_from.timestamp()) / 60, 60 * BUILD_MOST.value)
    return max(1, math.ceil(sum(each.minutes for each in builds) / max(have, 1.0) - 1e-9))


def on_their_own(job: Job) -> tuple[str, ...]:
    """Who of the crew comes to the place without the van, by name; nobody where there is no way there."""
    if not job.travel_h:
        return ()
    riders = riders_of(job)
    return tuple(each.name for place, each in enumerate(job.crew) if place not in riders)


def _must_leave(job: Job) -> datetime | None:
    """When the van leaves at the latest, so that it is there when water on show goes in."""
    return None if job.filled_at is None else back(job.filled_at, job.travel_h or 0.0)


def _early_at(job: Job) -> datetime | None:
    """When the van leaves to build on a day before, so that it is there when the place opens for that."""
    return None if job.builds_from is None else back(job.builds_from, job.travel_h or 0.0)


def _built_by(job: Job) -> datetime | None:
    """When building before the day is done: as the place says, or so that the van is back before it leaves again."""
    leaves = leaves_at(job)
    if job.builds_to is not None or leaves is None:
        return job.builds_to
    return back(leaves, job.travel_h or 0.0)


def _driven(job: Job, trip: str, minutes: int, loads: tuple[Wait, ...], riders: tuple[int, ...]) -> Task:
    """The way there, with whoever goes along."""
    return Task(
        key=key_of(trip, "drive"),
        stage="drive",
        name="Drive there",
        where="road",
        minutes=minutes,
        hands=len(riders),
        skills=("drives",),
        people=riders,
        soonest=None if trip == "van" else _early_at(job),
        latest=job.filled_at if trip == "van" else None,
        after=loads,
    )


def _driven_back(job: Job, minutes: int, builds: tuple[Task, ...], riders: tuple[int, ...]) -> Task:
    """The way back from building on a day before."""
    built = _built_by(job)
    return Task(
        key=BACK_EARLY,
        stage="return",
        name="Drive back",
        where="road",
        minutes=minutes,
        skills=("drives",),
        hands=len(riders),
        people=riders,
        latest=None if built is None else built + timedelta(minutes=minutes),
        after=tuple(Wait(task=each.key) for each in builds),
    )


def _install(before: Before, rig: RigWork, *, ahead: bool, after: tuple[Wait, ...], ready: datetime | None) -> Task:
    """Hung or mounted work put up; hung work over people is proved."""
    job, varieties = before.job, before.varieties
    hangs = rig.rig.mount is None and not rig.rig.lies
    minutes = RIG_MIN.value + LINE_MIN.value * len(rig.rig.lines)
    minutes += PROOF_MIN.value if hangs and rig.rig.over_people else 0.0
    skills: tuple[Skill, ...] = (*(("ladders",) if _height_m(rig) > LADDER_FROM_M.value else ()), "knots")
    built = job.builds_from is not None and ahead
    return Task(
        key=key_of(rig.id, "install"),
        stage="install",
        name=worded("Hang and prove: {part}" if hangs else "Set up: {part}", part=rig.rig.name),
        where="venue",
        minutes=slots(minutes),
        hands=min(2, max(1, len(job.crew))),
        skills=skills if hangs else (),
        soonest=job.builds_from if built else job.access_at,
        latest=_built_by(job) if built else ready,
        after=after,
        piece_id=rig.id,
        why="hung work goes up before what stands under it" if hangs else "",
        gate=gate_of(rig) or fire_gate(job, rig, varieties),
    )


def _placed(job: Job, work: PieceWork, after: tuple[Wait, ...], varieties: Mapping[str, Variety]) -> Task:
    """A piece carried in and set down; two carry what is heavy."""
    kg = work.report.balance.mass_kg if work.report is not None and work.report.balance is not None else 0.0
    return Task(
        key=key_of(work.id, "install"),
        stage="install",
        name=worded("Place: {part}", part=work.piece.name),
        where="venue",
        minutes=slots(PLACE_MIN.value * work.piece.quantity),
        hands=min(2 if kg >= HEAVY_KG.value else 1, max(1, len(job.crew))),
        soonest=job.access_at,
        latest=job.filled_at,
        after=after,
        piece_id=work.id,
        gate=gate_of(work) or fire_gate(job, work, varieties),
    )


def _top_ups(job: Job, made: Made) -> Iterator[Task]:
    """One task for each water round, done by whoever tops up; its time is fixed."""
    if job.filled_at is None or job.topped_up_by is None:
        return
    names = {each.name.casefold(): place for place, each in enumerate(job.crew)}
    own = names.get(job.topped_up_by.casefold())
    for nth, each in enumerate(rounds_of(made, job.filled_at)):
        pieces = sum(pour.quantity for pour in each.pours)
        named = ", ".join(dict.fromkeys(pour.piece for pour in each.pours))
        yield Task(
            key=key_of("place", "top-up", nth + 1),
            stage="top up",
            name=worded("Top up: {parts}", parts=named),
            where="venue",
            minutes=slots(TOP_UP_MIN.value * pieces),
            hands=0 if own is None else 1,
            people=() if own is None else (own,),
            by=job.topped_up_by if own is None else "",
            at=each.at,
            piece_id=each.pours[0].piece_id if len(each.pours) == 1 else None,
            why="before the first stem runs dry",
        )


def _after(job: Job, made: Made, drive: int) -> Iterator[Task]:
    """Strike and return."""
    pieces = sum(each.piece.quantity for each in made.pieces if not each.piece.carried)
    minutes = pieces * STRIKE_MIN.value + len(made.rigs) * STRIKE_RIG_MIN.value
    if minutes == 0:
        return
    parts = parts_of(minutes)
    keys = tuple(Wait(task=key_of("place", "strike", nth + 1)) for nth in range(len(parts)))
    for nth, part in enumerate(parts):
        yield Task(
            key=keys[nth].task,
            stage="strike",
            name=numbered("Strike, sort and pack", nth, len(parts)),
            where="venue",
            minutes=part,
            skills=("ladders",) if any(_height_m(each) > LADDER_FROM_M.value for each in made.rigs) else (),
            soonest=job.ends_at,
            latest=job.clear_by,
            after=(Wait(task=key_of("place", "fill")),),
            why="after the guests have gone",
        )
    home = keys
    if drive:
        key = key_of("van", "drive-back")
        yield Task(
            key=key,
            stage="return",
            name="Drive back",
            where="road",
            minutes=drive,
            skills=("drives",),
            latest=None if job.clear_by is None else job.clear_by + timedelta(minutes=drive),
            after=keys,
            why="when the place is clear",
        )
        home = (Wait(task=key),)
    unloaded = key_of("workshop", "unload")
    yield Task(
        key=unloaded,
        stage="return",
        name="Unload, store what returns",
        where="workshop",
        minutes=slots(UNLOAD_MIN.value),
        after=home,
    )
    yield from brought_back(job, (Wait(task=unloaded),))


def in_rig_order(rigs: tuple[RigWork, ...]) -> tuple[RigWork, ...]:
    """Hung work in the order it goes up: the highest first, mounted work after it, what lies on a table last."""
    return tuple(sorted(rigs, key=lambda each: (each.rig.lies, each.rig.mount is not None, -_height_m(each), each.id)))


def _height_m(rig: RigWork) -> float:
    return max((each.z_m for each in rig.rig.points), default=0.0)
