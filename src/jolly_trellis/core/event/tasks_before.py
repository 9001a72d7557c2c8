"""Everything up to the loaded van: fetch, condition, mechanics, greens, tubes, flowers, load."""

from collections.abc import Iterator
from datetime import datetime

from jolly_trellis.core.event.job import Job, Made, Work, name_of, quantity_of, recipe_of
from jolly_trellis.core.event.task import (
    COLLECT_MIN,
    CONDITION_MIN,
    FLOWER_WITHIN,
    GREEN_WITHIN,
    LOAD_MIN,
    MADE_WITHIN,
    Stage,
    Task,
    back,
    holds_h,
    numbered,
    parts_of,
    span_of,
)
from jolly_trellis.core.piece import WaterSource
from jolly_trellis.core.stems import Variety
from jolly_trellis.core.units import duration_text


def before_the_drive(job: Job, made: Made, varieties: dict[str, Variety], start: datetime) -> Iterator[Task]:
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
    early = back(start, MADE_WITHIN.value)
    if stems:
        yield Task(
            key="collect",
            stage="collect",
            name="Fetch the flowers",
            where="workshop",
            minutes=round(COLLECT_MIN.value),
            soonest=early,
        )
        parts = parts_of(stems * CONDITION_MIN.value)
        for nth, minutes in enumerate(parts):
            yield Task(
                key=f"condition-{nth + 1}",
                stage="condition",
                name=numbered(f"Condition {stems} stems", nth, len(parts)),
                where="workshop",
                minutes=minutes,
                soonest=early,
                after=("collect",),
                rest_min=round(drink_h * 60),
                why=f"stems drink {drink_h:g} h before they are used",
            )
    conditioned = (
        tuple(f"condition-{nth + 1}" for nth in range(len(parts_of(stems * CONDITION_MIN.value)))) if stems else ()
    )
    ready: list[str] = []
    for work in made.works:
        made_here = list(_made(job, work, varieties, start, early, conditioned))
        yield from made_here
        ready += [task.key for task in made_here]
    pieces = sum(each.piece.quantity for each in made.pieces) + len(made.rigs)
    loads = parts_of(pieces * LOAD_MIN.value)
    for nth, minutes in enumerate(loads):
        yield Task(
            key=f"load-{nth + 1}",
            stage="load",
            name=numbered("Pack and load", nth, len(loads)),
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
        ("green", span.green, "Green", back(start, GREEN_WITHIN.value), "greens keep 48 h in the work", None),
        ("tubes", span.tubes, "Fill tubes", *_limits(job, work, varieties, start, "tube")),
        ("flower", span.flower, "Flower", *_limits(job, work, varieties, start, "none")),
    )
    for stage, minutes, verb, soonest, why, variety in stages:
        if minutes <= 0:
            continue
        parts = parts_of(minutes)
        keys = []
        for nth, part in enumerate(parts):
            key = f"{stage}-{work.id}" + (f"-{nth + 1}" if len(parts) > 1 else "")
            keys.append(key)
            yield Task(
                key=key,
                stage=stage,
                name=numbered(f"{verb}: {name}", nth, len(parts)),
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
    soonest, why, named = back(start, FLOWER_WITHIN.value), words[water], None
    for line in recipe_of(work):
        variety = varieties.get(line.variety)
        if variety is None or line.water != water or line.on_site or job.ends_at is None:
            continue
        holds = holds_h(job, line, variety)
        if holds is not None and back(job.ends_at, holds) > soonest:
            soonest, named = back(job.ends_at, holds), variety.key
            has = "in its tube" if water == "tube" else "with no water"
            why = f"{variety.name} lasts {duration_text(holds)} {has}"
    return soonest, why, named
