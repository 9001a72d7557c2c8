"""Everything up to the loaded van: fetch, condition, mechanics, greens, tubes, flowers, load."""

from collections.abc import Iterator
from datetime import datetime

from jolly_trellis.core.event.job import Job, Made, Work, name_of, quantity_of, recipe_of
from jolly_trellis.core.event.lives import lasts_words, soonest_use
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
    is_green,
    numbered,
    parts_of,
    span_of,
)
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.piece import RecipeLine


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
    greens = _limit(
        job,
        work,
        varieties,
        "green",
        (back(start, GREEN_WITHIN.value), f"greens keep {GREEN_WITHIN.value:g} h in the work"),
    )
    tubes = _limit(
        job, work, varieties, "tubes", (back(start, FLOWER_WITHIN.value), "tubes are not filled days ahead")
    )
    flowers = _limit(
        job,
        work,
        varieties,
        "flower",
        (back(start, FLOWER_WITHIN.value), f"flowers keep {FLOWER_WITHIN.value:g} h in the work"),
    )
    stages: tuple[tuple[Stage, float, str, datetime, str, str | None], ...] = (
        ("mechanics", span.mechanics, "Make the mechanic", early, "", None),
        ("green", span.green, "Green", *greens),
        ("tubes", span.tubes, "Fill tubes", *tubes),
        ("flower", span.flower, "Flower", *flowers),
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


def _limit(
    job: Job, work: Work, varieties: dict[str, Variety], stage: Stage, usual: tuple[datetime, str]
) -> tuple[datetime, str, str | None]:
    """The soonest that a stage of a piece may be done: the usual, or as long as the first of its stems lasts."""
    soonest, why = usual
    named = None
    for line in recipe_of(work):
        variety = varieties.get(line.variety)
        if variety is None or line.on_site or _stage_of(line, varieties) != stage:
            continue
        least = soonest_use(job, line, variety)
        if least is not None and least > soonest:
            soonest, why, named = least, lasts_words(job, line, variety), variety.key
    return soonest, why, named


def _stage_of(line: RecipeLine, varieties: dict[str, Variety]) -> Stage:
    """The stage in which a stem's own water, or its life without, begins to count."""
    if line.water == "tube":
        return "tubes"
    return "green" if is_green(line, varieties) else "flower"
