"""The tasks of an event, made from its plans: what, how long, how many hands, where, between which times."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from typing import Literal

from jolly_trellis.core.air import draw_factor
from jolly_trellis.core.event.job import Job, Made, PieceWork, RigWork, Work, name_of, quantity_of, recipe_of
from jolly_trellis.core.making import MINUTES_PER_STEM
from jolly_trellis.core.piece import RecipeLine, StemTube, WaterSource
from jolly_trellis.core.provenance import COMMON_PRACTICE, constant
from jolly_trellis.core.stems import Variety
from jolly_trellis.core.tubes import hours_of_water, usable_ml
from jolly_trellis.core.units import duration_text

COLLECT_MIN = constant("Fetching the flowers, min", "count", 60)
CONDITION_MIN = constant("Minutes to condition a stem", "ratio", 0.3)
TUBE_MIN = constant("Minutes to fill and put on a tube", "ratio", 0.5)
LOAD_MIN = constant("Minutes to pack and load one piece", "ratio", 3.0)
PLACE_MIN = constant("Minutes to carry in and place one piece", "ratio", 4.0)
FILL_MIN = constant("Minutes to fill one piece with display water", "ratio", 1.5)
TOP_UP_MIN = constant("Minutes to top up one piece", "ratio", 2.0)
RIG_MIN = constant("Minutes to hang or mount a piece, beside its lines", "ratio", 20.0)
LINE_MIN = constant("Minutes to fix one line and level it", "ratio", 6.0)
PROOF_MIN = constant("Minutes to proof-load a hung piece", "ratio", 20.0)
STRIKE_MIN = constant("Minutes to strike one piece", "ratio", 3.0)
STRIKE_RIG_MIN = constant("Minutes to strike a hung piece", "ratio", 15.0)
UNLOAD_MIN = constant("Unloading at the workshop, min", "count", 40)
GREEN_WITHIN = constant("Greens are placed at most before the display", "duration", 48.0, COMMON_PRACTICE)
FLOWER_WITHIN = constant("Flowers are placed at most before the display", "duration", 24.0, COMMON_PRACTICE)
MADE_WITHIN = constant("Mechanics are made at most before the display", "duration", 96.0)
HEAVY_KG = constant("A piece is carried by two from a mass of", "mass", 12.0)
LONGEST_MIN = constant("A task is shared out in parts of at most, min", "count", 120)

Stage = Literal[
    "collect",
    "condition",
    "mechanics",
    "green",
    "flower",
    "tubes",
    "load",
    "drive",
    "install",
    "fill",
    "on site",
    "top up",
    "strike",
    "return",
]
Where = Literal["workshop", "road", "venue"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Task:
    """One thing to do. `soonest` and `latest` bound when it starts and ends, `after` are the keys it follows.

    `rest_min` is how long what it made must rest before the next task, as stems that drink. `at` is a fixed start.
    `why` says what bounds it; `variety` names the flower whose life does. `person` is who must do it, None anybody.
    """

    key: str
    stage: Stage
    name: str
    where: Where
    minutes: int
    hands: int = 1
    soonest: datetime | None = None
    latest: datetime | None = None
    after: tuple[str, ...] = ()
    rest_min: int = 0
    at: datetime | None = None
    piece_id: int | None = None
    variety: str | None = None
    why: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Span:
    """Minutes of work on a piece by stage: what the run sheet and the price both reckon with."""

    mechanics: float
    green: float
    flower: float
    tubes: float
    on_site: float


def span_of(work: Work, varieties: dict[str, Variety]) -> Span:
    """Minutes of making a piece, all of its quantity. Source: minutes per stem and per mechanic are estimates."""
    quantity = quantity_of(work)
    lines = recipe_of(work)
    per_stem = MINUTES_PER_STEM.value * quantity
    here = [line for line in lines if not line.on_site]
    green = sum(line.count for line in here if _is_green(line, varieties))
    others = sum(line.count for line in here) - green
    on_site = sum(line.count for line in lines if line.on_site)
    tubes = sum(line.count for line in lines if line.water == "tube")
    if isinstance(work, PieceWork):
        sized = (
            [] if work.report is None else [work.report.mechanic, *(each.mechanic for each in work.report.companions)]
        )
        mechanics = sum(each.minutes for each in sized) * quantity
    else:
        parts = 0 if work.report is None else sum(each.count for each in work.report.take_off.sized.parts)
        mechanics = 15.0 + work.rig.armature.length_m * 6.0 + parts * 0.3
    return Span(
        mechanics=mechanics,
        green=green * per_stem,
        flower=others * per_stem,
        tubes=tubes * TUBE_MIN.value * quantity,
        on_site=on_site * per_stem,
    )


def tasks_of(job: Job, made: Made, varieties: dict[str, Variety]) -> tuple[Task, ...]:
    """Every task of an event. Where a time is not known its bound is left out; without `filled_at` none."""
    if job.filled_at is None:
        return ()
    start = job.filled_at
    found = list(_before(job, made, varieties, start))
    found += _venue(job, made, varieties, start)
    locks = {each.task: each.starts_at for each in job.locks}
    return tuple(
        replace(task, at=datetime.fromisoformat(locks[task.key]).replace(tzinfo=job.zone))
        if task.key in locks
        else task
        for task in found
    )


def hours_of_tube(line: RecipeLine, variety: Variety, factor: float) -> float:
    """How long one tube lasts its stem, h. Source: as `tubes.usable_ml`."""
    usable = usable_ml(line.tube or StemTube(), variety.stem_diameter_m)
    return hours_of_water(usable, variety.uptake_ml_h * factor)


def _is_green(line: RecipeLine, varieties: dict[str, Variety]) -> bool:
    variety = varieties.get(line.variety)
    return variety is not None and variety.form == "leaf"


def _before(job: Job, made: Made, varieties: dict[str, Variety], start: datetime) -> Iterator[Task]:
    """Everything up to the loaded van."""
    stems = sum(line.count * quantity_of(each) for each in made.works for line in recipe_of(each))
    if stems == 0 and not made.works:
        return
    drink_h = max(
        (
            varieties[line.variety].conditioning_h
            for each in made.works
            for line in recipe_of(each)
            if line.variety in varieties
        ),
        default=0.0,
    )
    early = _back(start, MADE_WITHIN.value)
    if stems:
        yield Task(
            key="collect",
            stage="collect",
            name="Fetch the flowers",
            where="workshop",
            minutes=round(COLLECT_MIN.value),
            soonest=early,
        )
        parts = _parts(stems * CONDITION_MIN.value)
        for nth, minutes in enumerate(parts):
            yield Task(
                key=f"condition-{nth + 1}",
                stage="condition",
                name=_numbered(f"Condition {stems} stems", nth, len(parts)),
                where="workshop",
                minutes=minutes,
                soonest=early,
                after=("collect",),
                rest_min=round(drink_h * 60),
                why=f"stems drink {drink_h:g} h before they are used",
            )
    conditioned = (
        tuple(f"condition-{nth + 1}" for nth in range(len(_parts(stems * CONDITION_MIN.value)))) if stems else ()
    )
    ready: list[str] = []
    for work in made.works:
        made_here = list(_made(job, work, varieties, start, early, conditioned))
        yield from made_here
        ready += [task.key for task in made_here]
    pieces = sum(each.piece.quantity for each in made.pieces) + len(made.rigs)
    loads = _parts(pieces * LOAD_MIN.value)
    for nth, minutes in enumerate(loads):
        yield Task(
            key=f"load-{nth + 1}",
            stage="load",
            name=_numbered("Pack and load", nth, len(loads)),
            where="workshop",
            minutes=minutes,
            hands=min(2, max(1, len(job.crew))),
            soonest=early,
            after=tuple(ready),
        )


def _made(
    job: Job,
    work: Work,
    varieties: dict[str, Variety],
    start: datetime,
    early: datetime,
    conditioned: tuple[str, ...],
) -> Iterator[Task]:
    """Mechanics, greens, flowers and tubes of one piece, each in parts of two hours at most."""
    name = name_of(work)
    span = span_of(work, varieties)
    before: tuple[str, ...] = ()
    stages: tuple[tuple[Stage, float, str, datetime, str, str | None], ...] = (
        ("mechanics", span.mechanics, "Make the mechanic", early, "", None),
        ("green", span.green, "Green", _back(start, GREEN_WITHIN.value), "greens keep 48 h in the work", None),
        ("tubes", span.tubes, "Fill tubes", *_limits(job, work, varieties, start, "tube")),
        ("flower", span.flower, "Flower", *_limits(job, work, varieties, start, "none")),
    )
    for stage, minutes, verb, soonest, why, variety in stages:
        if minutes <= 0:
            continue
        parts = _parts(minutes)
        keys = []
        for nth, part in enumerate(parts):
            key = f"{stage}-{work.id}" + (f"-{nth + 1}" if len(parts) > 1 else "")
            keys.append(key)
            yield Task(
                key=key,
                stage=stage,
                name=_numbered(f"{verb}: {name}", nth, len(parts)),
                where="workshop",
                minutes=part,
                soonest=soonest,
                after=before + (conditioned if stage in ("green", "flower", "tubes") else ()),
                piece_id=work.id,
                variety=variety,
                why=why,
            )
        before = tuple(keys) if stage != "tubes" else (*before, *keys)


def _limits(
    job: Job, work: Work, varieties: dict[str, Variety], start: datetime, water: WaterSource
) -> tuple[datetime, str, str | None]:
    """The soonest that flowers go in, or tubes are filled: a day before, or as long as the first of them lasts."""
    words = {"none": "flowers keep 24 h in the work", "tube": "tubes are not filled two days ahead"}
    soonest, why, named = _back(start, FLOWER_WITHIN.value), words[water], None
    for line in recipe_of(work):
        variety = varieties.get(line.variety)
        if variety is None or line.water != water or line.on_site or job.ends_at is None:
            continue
        holds = _holds_h(job, line, variety)
        if holds is not None and _back(job.ends_at, holds) > soonest:
            soonest, named = _back(job.ends_at, holds), variety.key
            has = "in its tube" if water == "tube" else "with no water"
            why = f"{variety.name} lasts {duration_text(holds)} {has}"
    return soonest, why, named


def _venue(job: Job, made: Made, varieties: dict[str, Variety], start: datetime) -> Iterator[Task]:
    """Drive, install in rig order, fill, what goes in on site, top up, strike, back."""
    number = sum(each.piece.quantity for each in made.pieces) + len(made.rigs)
    loads = tuple(f"load-{nth + 1}" for nth in range(len(_parts(number * LOAD_MIN.value))))
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
            minutes=_slots(minutes),
            hands=min(2, max(1, len(job.crew))),
            soonest=job.access_at,
            latest=guests,
            after=before if hung else arrive,
            piece_id=rig.id,
            why="hung work goes up before what stands under it" if hung else "",
        )
        before = (f"install-{rig.id}",) if hung else before
        if hung and rig.rig.below == "table":
            over_tables.append(f"install-{rig.id}")
    placed = []
    for work in made.pieces:
        if work.piece.bouquet is not None:
            continue
        kg = work.report.balance.mass_kg if work.report is not None and work.report.balance is not None else 0.0
        key = f"install-{work.id}"
        placed.append(key)
        yield Task(
            key=key,
            stage="install",
            name=f"Place: {work.piece.name}",
            where="venue",
            minutes=_slots(PLACE_MIN.value * work.piece.quantity),
            hands=min(2 if kg >= HEAVY_KG.value else 1, max(1, len(job.crew))),
            soonest=job.access_at,
            latest=start,
            after=tuple(over_tables),
            piece_id=work.id,
        )
    if placed:
        number = sum(each.piece.quantity for each in made.pieces if each.piece.bouquet is None)
        yield Task(
            key="fill",
            stage="fill",
            name="Fill with display water, look at every piece from all sides",
            where="venue",
            minutes=_slots(FILL_MIN.value * number),
            soonest=job.access_at,
            latest=start + timedelta(minutes=_slots(FILL_MIN.value * number)),
            after=tuple(placed),
            why="the display counts from its filling",
        )
    yield from _on_site(job, made, varieties, guests, tuple(placed) or arrive)
    yield from _top_ups(made, start)
    yield from _after(job, made, drive)


def _on_site(
    job: Job, made: Made, varieties: dict[str, Variety], guests: datetime, after: tuple[str, ...]
) -> Iterator[Task]:
    """What goes in only where the piece is shown: by variety where it lacks water, the rest together."""
    for work in made.works:
        own = f"install-{work.id}"
        name = name_of(work)
        quantity = quantity_of(work)
        lines = [line for line in recipe_of(work) if line.on_site and line.variety in varieties]
        lasting = [line for line in lines if _holds_h(job, line, varieties[line.variety]) is None]
        groups = [([line], f"-{line.variety}") for line in lines if line not in lasting]
        for group, ending in [*groups, *([(lasting, "")] if lasting else [])]:
            stems = sum(line.count for line in group) * quantity
            parts = _parts(stems * MINUTES_PER_STEM.value)
            variety = varieties[group[0].variety] if ending else None
            holds = _holds_h(job, group[0], variety) if variety is not None else None
            soonest, why = job.access_at, "thirsty flowers go in last"
            if variety is not None and holds is not None and job.ends_at is not None:
                soonest = _later(soonest, _back(job.ends_at, holds))
                has = "in its tube" if group[0].water == "tube" else "with no water"
                why = f"{variety.name} lasts {duration_text(holds)} {has}"
            for nth, minutes in enumerate(parts):
                what = variety.name if variety is not None else "stems"
                yield Task(
                    key=f"on-site-{work.id}{ending}" + (f"-{nth + 1}" if len(parts) > 1 else ""),
                    stage="on site",
                    name=_numbered(f"On site: {stems} {what} into {name}", nth, len(parts)),
                    where="venue",
                    minutes=minutes,
                    soonest=soonest,
                    latest=guests,
                    after=(own,) if own in after or isinstance(work, RigWork) else after,
                    piece_id=work.id,
                    variety=variety.key if variety is not None else None,
                    why=why,
                )


def _holds_h(job: Job, line: RecipeLine, variety: Variety) -> float | None:
    """How long a stem lasts in the air of the place by what it has with it, h; None where it drinks from a vessel."""
    if job.air is None or line.water not in ("none", "tube"):
        return None
    factor = draw_factor(job.air)
    return variety.dry_hold_h / factor if line.water == "none" else hours_of_tube(line, variety, factor)


def _later(one: datetime | None, other: datetime) -> datetime:
    return other if one is None or other > one else one


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
                minutes=_slots(TOP_UP_MIN.value * work.piece.quantity),
                at=_floored(_back(start, -each.after_h)),
                piece_id=work.id,
                why="before the first stem runs dry",
            )


def _after(job: Job, made: Made, drive: int) -> Iterator[Task]:
    """Strike and return."""
    pieces = sum(each.piece.quantity for each in made.pieces if each.piece.bouquet is None)
    minutes = pieces * STRIKE_MIN.value + len(made.rigs) * STRIKE_RIG_MIN.value
    if job.ends_at is None or minutes == 0:
        return
    parts = _parts(minutes)
    keys = tuple(f"strike-{nth + 1}" for nth in range(len(parts)))
    for nth, (key, part) in enumerate(zip(keys, parts, strict=True)):
        yield Task(
            key=key,
            stage="strike",
            name=_numbered("Strike, sort and pack", nth, len(parts)),
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


def _parts(minutes: float) -> list[int]:
    """Minutes shared out evenly over as many parts as keep each under two hours, each a whole five minutes."""
    if minutes <= 0:
        return []
    number = math.ceil(minutes / LONGEST_MIN.value - 1e-9)
    return [_slots(minutes / number)] * number


def _slots(minutes: float) -> int:
    """Up to the next whole five minutes."""
    return max(5, 5 * math.ceil(minutes / 5 - 1e-9))


def _numbered(name: str, nth: int, of: int) -> str:
    return name if of == 1 else f"{name} ({nth + 1} of {of})"


def _back(at: datetime, hours: float) -> datetime:
    """So many elapsed hours before a time, over clock changes too."""
    return (at.astimezone(UTC) - timedelta(hours=hours)).astimezone(at.tzinfo)


def _floored(at: datetime) -> datetime:
    return at.replace(minute=at.minute - at.minute % 5, second=0, microsecond=0)
