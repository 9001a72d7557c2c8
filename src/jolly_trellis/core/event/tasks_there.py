"""Everything from the drive on: hang in rig order, place, fill, on site, top up, strike, return."""

from collections.abc import Iterator
from datetime import datetime, timedelta

from jolly_trellis.core.event.gates import gate_of
from jolly_trellis.core.event.job import Job, Made, RigWork, Work, name_of, quantity_of, recipe_of
from jolly_trellis.core.event.lives import lasts_words, soonest_use
from jolly_trellis.core.event.task import (
    FILL_MIN,
    HEAVY_KG,
    LINE_MIN,
    LOAD_MIN,
    PLACE_MIN,
    PROOF_MIN,
    RIG_MIN,
    STRIKE_MIN,
    STRIKE_RIG_MIN,
    TOP_UP_MIN,
    UNLOAD_MIN,
    Task,
    back,
    floored,
    is_green,
    later,
    numbered,
    parts_of,
    slots,
)
from jolly_trellis.core.making.steps import MINUTES_PER_STEM
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.piece import RecipeLine


def at_the_place(job: Job, made: Made, varieties: dict[str, Variety], start: datetime) -> Iterator[Task]:
    """Drive, install in rig order, fill, what goes in on site, top up, strike, back."""
    number = sum(each.piece.quantity for each in made.pieces) + len(made.rigs)
    loads = tuple(f"load-{nth + 1}" for nth in range(len(parts_of(number * LOAD_MIN.value))))
    if not number:
        return
    drive = round((job.travel_h or 0.0) * 60)
    arrive = loads
    if drive:
        yield Task(key="drive", stage="drive", name="Drive there", where="road", minutes=drive, after=loads)
        arrive = ("drive",)
    guests = job.starts_at or start
    before, over_tables = arrive, list(arrive)
    for rig in in_rig_order(made.rigs):
        hung = rig.rig.mount is None and not rig.rig.lies
        lines = len(rig.rig.lines)
        minutes = RIG_MIN.value + LINE_MIN.value * lines + (PROOF_MIN.value if hung and rig.rig.over_people else 0.0)
        yield Task(
            key=f"install-{rig.id}",
            stage="install",
            name=f"Hang and prove: {rig.rig.name}" if hung else f"Set up: {rig.rig.name}",
            where="venue",
            minutes=slots(minutes),
            hands=min(2, max(1, len(job.crew))),
            soonest=job.access_at,
            latest=guests,
            after=before if hung else arrive,
            piece_id=rig.id,
            why="hung work goes up before what stands under it" if hung else "",
            gate=gate_of(rig),
        )
        before = (f"install-{rig.id}",) if hung else before
        if hung and rig.rig.below == "table":
            over_tables.append(f"install-{rig.id}")
    placed = []
    for work in made.pieces:
        if work.piece.carried:
            continue
        kg = work.report.balance.mass_kg if work.report is not None and work.report.balance is not None else 0.0
        key = f"install-{work.id}"
        placed.append(key)
        yield Task(
            key=key,
            stage="install",
            name=f"Place: {work.piece.name}",
            where="venue",
            minutes=slots(PLACE_MIN.value * work.piece.quantity),
            hands=min(2 if kg >= HEAVY_KG.value else 1, max(1, len(job.crew))),
            soonest=job.access_at,
            latest=start,
            after=tuple(over_tables),
            piece_id=work.id,
            gate=gate_of(work),
        )
    if placed:
        number = sum(each.piece.quantity for each in made.pieces if not each.piece.carried)
        yield Task(
            key="fill",
            stage="fill",
            name="Fill with display water, look at every piece from all sides",
            where="venue",
            minutes=slots(FILL_MIN.value * number),
            soonest=job.access_at,
            latest=start + timedelta(minutes=slots(FILL_MIN.value * number)),
            after=tuple(placed),
            why="the display counts from its filling",
        )
    yield from _on_site(job, made, varieties, guests, tuple(placed) or arrive)
    yield from _top_ups(made, start)
    yield from _after(job, made, drive)


def _on_site(
    job: Job, made: Made, varieties: dict[str, Variety], guests: datetime, after: tuple[str, ...]
) -> Iterator[Task]:
    """What goes in only where the piece is shown: greens, then by variety what does not drink, the rest together."""
    for work in made.works:
        own = f"install-{work.id}"
        follows = (own,) if own in after or isinstance(work, RigWork) else after
        lines = [line for line in recipe_of(work) if line.on_site and line.variety in varieties]
        alone = [line for line in lines if soonest_use(job, line, varieties[line.variety]) is not None]
        groups = [([line], f"-{line.variety}") for line in alone]
        groups += [([line for line in lines if line not in alone], "")]
        groups.sort(key=lambda group: not any(is_green(line, varieties) for line in group[0]))
        for group, ending in groups:
            if not group:
                continue
            keys = []
            for task in _into(job, work, varieties, guests, (group, ending, follows)):
                keys.append(task.key)
                yield task
            if any(is_green(line, varieties) for line in group):
                follows = (*follows, *keys)


def _into(
    job: Job,
    work: Work,
    varieties: dict[str, Variety],
    guests: datetime,
    group: tuple[list[RecipeLine], str, tuple[str, ...]],
) -> Iterator[Task]:
    """The tasks of one group of stems that go into a piece on site."""
    lines, ending, follows = group
    stems = sum(line.count for line in lines) * quantity_of(work)
    parts = parts_of(stems * MINUTES_PER_STEM.value)
    variety = varieties[lines[0].variety] if ending else None
    soonest, why = job.access_at, "thirsty flowers go in last"
    if variety is not None:
        least = soonest_use(job, lines[0], variety)
        soonest = soonest if least is None else later(soonest, least)
        why = lasts_words(job, lines[0], variety)
    for nth, minutes in enumerate(parts):
        what = variety.name if variety is not None else "stems"
        yield Task(
            key=f"on-site-{work.id}{ending}" + (f"-{nth + 1}" if len(parts) > 1 else ""),
            stage="on site",
            name=numbered(f"On site: {stems} {what} into {name_of(work)}", nth, len(parts)),
            where="venue",
            minutes=minutes,
            soonest=soonest,
            latest=guests,
            after=follows,
            piece_id=work.id,
            variety=variety.key if variety is not None else None,
            why=why,
        )


def _top_ups(made: Made, start: datetime) -> Iterator[Task]:
    """One task for each planned top-up; its time is fixed."""
    for work in made.pieces:
        every = [*work.piece.top_ups, *(each for beside in work.piece.companions for each in beside.top_ups)]
        for nth, each in enumerate(sorted(every, key=lambda one: one.after_h)):
            yield Task(
                key=f"top-up-{work.id}-{nth + 1}",
                stage="top up",
                name=f"Top up: {work.piece.name}",
                where="venue",
                minutes=slots(TOP_UP_MIN.value * work.piece.quantity),
                at=floored(back(start, -each.after_h)),
                piece_id=work.id,
                why="before the first stem runs dry",
            )


def _after(job: Job, made: Made, drive: int) -> Iterator[Task]:
    """Strike and return."""
    pieces = sum(each.piece.quantity for each in made.pieces if not each.piece.carried)
    minutes = pieces * STRIKE_MIN.value + len(made.rigs) * STRIKE_RIG_MIN.value
    if job.ends_at is None or minutes == 0:
        return
    parts = parts_of(minutes)
    keys = tuple(f"strike-{nth + 1}" for nth in range(len(parts)))
    for nth, (key, part) in enumerate(zip(keys, parts, strict=True)):
        yield Task(
            key=key,
            stage="strike",
            name=numbered("Strike, sort and pack", nth, len(parts)),
            where="venue",
            minutes=part,
            hands=1,
            soonest=job.ends_at,
            latest=job.clear_by,
            why="after the guests have gone",
        )
    back = keys
    if drive:
        yield Task(key="drive-back", stage="return", name="Drive back", where="road", minutes=drive, after=keys)
        back = ("drive-back",)
    yield Task(
        key="unload",
        stage="return",
        name="Unload, store what returns",
        where="workshop",
        minutes=round(UNLOAD_MIN.value),
        after=back,
    )


def in_rig_order(rigs: tuple[RigWork, ...]) -> tuple[RigWork, ...]:
    """Hung work in the order it goes up: the highest first, mounted work after it, what lies on a table last."""
    return tuple(sorted(rigs, key=lambda each: (each.rig.lies, each.rig.mount is not None, -_height_m(each), each.id)))


def _height_m(rig: RigWork) -> float:
    return max((each.z_m for each in rig.rig.points), default=0.0)
