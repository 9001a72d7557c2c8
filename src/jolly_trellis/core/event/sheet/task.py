"""How long the tasks of an event take, and what the makers of its tasks share."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.time import key_of
from jolly_trellis.core.event.job import Job, PieceWork, Work, quantity_of, recipe_of
from jolly_trellis.core.event.putting import puts_of
from jolly_trellis.core.making.steps import MINUTES_PER_STEM
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import worded

THERE_EARLY, BACK_EARLY = key_of("van-early", "drive"), key_of("van-early", "drive-back")
_A_DAY_H = 24.0
COLLECT_MIN = measure("Time to fetch the flowers", "minutes", 60)

CONDITION_MIN = measure("Time to condition a stem", "minutes", 0.3)

TUBE_MIN = measure("Time to fill and put on a tube", "minutes", 0.5)

LOAD_MIN = measure("Time to pack and load one piece", "minutes", 3.0)

PLACE_MIN = measure("Time to carry in and place one piece", "minutes", 4.0)

FILL_MIN = measure("Time to fill one piece with display water", "minutes", 1.5)

TOP_UP_MIN = measure("Time to top up one piece", "minutes", 2.0)

RIG_MIN = measure("Time to hang or mount a piece, beside its lines", "minutes", 20.0)

LINE_MIN = measure("Time to fix one line and level it", "minutes", 6.0)

PROOF_MIN = measure("Time to proof-load a hung piece", "minutes", 20.0)

STRIKE_MIN = measure("Time to strike one piece", "minutes", 3.0)

STRIKE_RIG_MIN = measure("Time to strike a hung piece", "minutes", 15.0)

UNLOAD_MIN = measure("Time to unload at the workshop", "minutes", 40)

GREEN_WITHIN = rule("Greens are placed at most before the display", "duration", 48.0, COMMON_PRACTICE)

FLOWER_WITHIN = rule("Flowers are placed at most before the display", "duration", 24.0, COMMON_PRACTICE)

MADE_WITHIN = rule("Mechanics are made at most before the display", "duration", 96.0)

HEAVY_KG = rule("A piece is carried by two from a mass of", "mass", 12.0)

LONGEST_MIN = rule("A task is shared out in parts of at most", "minutes", 120)

RIG_BASE_MIN = measure("Time to make an armature, beside its length and parts", "minutes", 15.0)
RIG_M_MIN = measure("Time to make a metre of armature", "minutes", 6.0)
RIG_PART_MIN = measure("Time to fix one part of an armature", "minutes", 0.3)


@dataclass(frozen=True, slots=True, kw_only=True)
class Span:
    """Minutes of work on a piece by stage: what the run sheet and the price both reckon with."""

    mechanics: float
    green: float
    flower: float
    tubes: float
    on_site: float


def span_of(work: Work, varieties: Mapping[str, Variety]) -> Span:
    """Minutes of making a piece, all of its quantity. Source: minutes per stem and per mechanic are estimates."""
    quantity = quantity_of(work)
    per_stem = MINUTES_PER_STEM.value * quantity
    puts = puts_of(work, varieties)
    green, flower = (sum(each.line.count for each in puts if each.act == act) for act in ("green", "flower"))
    on_site = sum(each.line.count for each in puts) - green - flower
    tubes = sum(line.count for line in recipe_of(work) if line.water == "tube")
    if isinstance(work, PieceWork):
        sized = (
            [] if work.report is None else [work.report.mechanic, *(each.mechanic for each in work.report.companions)]
        )
        mechanics = sum(each.minutes for each in sized) * quantity
    else:
        parts = 0 if work.report is None else sum(each.quantity for each in work.report.take_off.sized.parts)
        mechanics = RIG_BASE_MIN.value + work.rig.armature.length_m * RIG_M_MIN.value + parts * RIG_PART_MIN.value
    return Span(
        mechanics=mechanics,
        green=green * per_stem,
        flower=flower * per_stem,
        tubes=tubes * TUBE_MIN.value * quantity,
        on_site=on_site * per_stem,
    )


def green_within_h(job: Job) -> float:
    """Hours before the display from which greens are placed: the usual, or a day more where that is asked for."""
    return GREEN_WITHIN.value + (_A_DAY_H if job.greens_sooner else 0.0)


def is_green(line: RecipeLine, varieties: Mapping[str, Variety]) -> bool:
    variety = varieties.get(line.variety)
    return variety is not None and variety.form == "leaf"


def parts_of(minutes: float) -> list[int]:
    """Minutes shared out evenly over as many parts as keep each under two hours, each a whole five minutes."""
    if minutes <= 0:
        return []
    number = math.ceil(minutes / LONGEST_MIN.value - 1e-9)
    return [slots(minutes / number)] * number


def slots(minutes: float) -> int:
    """Up to the next whole five minutes."""
    return max(5, 5 * math.ceil(minutes / 5 - 1e-9))


def numbered(name: str, nth: int, of: int) -> str:
    return name if of == 1 else worded("{name} ({nth} of {of})", name=name, nth=nth + 1, of=of)


def back(at: datetime, hours: float) -> datetime:
    """So many elapsed hours before a time, over clock changes too."""
    return (at.astimezone(UTC) - timedelta(hours=hours)).astimezone(at.tzinfo)


def later(one: datetime | None, other: datetime) -> datetime:
    """The later of two times, the first of which may not be known."""
    return other if one is None or other > one else one


def floored(at: datetime) -> datetime:
    return at.replace(minute=at.minute - at.minute % 5, second=0, microsecond=0)
