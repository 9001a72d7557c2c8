"""Everything up to the loaded van: fetch, condition, mechanics, greens, tubes, flowers, load."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from jolly_trellis.core.acts.stances import rides_flowered
from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.books.time import Stage, Task, Wait, Where, key_of
from jolly_trellis.core.event.job import Job, Made, RigWork, Work, name_of, quantity_of, recipe_of
from jolly_trellis.core.event.putting import STAGE_OF, acts_of_work, puts_of
from jolly_trellis.core.event.sheet.lives import lasts_words, soonest_use
from jolly_trellis.core.event.sheet.task import (
    COLLECT_MIN,
    CONDITION_MIN,
    FLOWER_WITHIN,
    LOAD_MIN,
    MADE_WITHIN,
    back,
    green_within_h,
    is_green,
    later,
    numbered,
    parts_of,
    slots,
    span_of,
)
from jolly_trellis.core.event.tasks.asked import foraging_gate
from jolly_trellis.core.event.tasks.payment import buying_gate
from jolly_trellis.core.event.tasks.purchases import DRY_MOST, GATHERED_FROM, Purchase, cooled_h, open_window
from jolly_trellis.core.event.tasks.tasks_hires import fetched_hires, waits_for_hires
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import Phrase, worded
from jolly_trellis.core.units import duration_text

COOL_MIN = measure("Time to carry one piece into a cool room", "minutes", 2.0)
FINISHED_SHARE = measure("A finished armature takes of the time of a new one", "ratio", 0.25)


@dataclass(frozen=True, slots=True, kw_only=True)
class Before:
    """What the tasks before the drive are made from: the job, all that is made, the purchases of stems."""

    job: Job
    made: Made
    varieties: Mapping[str, Variety]
    purchases: tuple[Purchase, ...]
    start: datetime | None

    def early(self) -> datetime | None:
        """The soonest that anything is begun without a reason of its own."""
        return None if self.start is None else back(self.start, MADE_WITHIN.value)


def before_the_drive(before: Before) -> Iterator[Task]:
    """Everything up to the loaded van; hung work that goes up on a day before is loaded for itself."""
    yield from _fetched(before)
    yield from fetched_hires(before.job)
    ready: list[Task] = []
    for work in before.made.works:
        made_here = list(_made(before, work))
        yield from made_here
        ready += made_here
    yield from _loaded(before, ready)


def goes_up_early(job: Job, work: Work) -> bool:
    """Whether a part goes up on a day before: it hangs or is mounted, and the place lets it."""
    return job.builds_from is not None and isinstance(work, RigWork) and not work.rig.lies


def waits_for(before: Before, keys: frozenset[str], *, only_drink: bool = False) -> tuple[Wait, ...]:
    """What stems of some varieties wait for: each purchase they are in, conditioned and rested."""
    found = []
    for purchase in before.purchases:
        own = keys & frozenset(purchase.varieties)
        if not own:
            continue
        rest = purchase.rest_min
        if only_drink:
            rest = min(rest, max(round(60 * before.varieties[key].conditioning_h) for key in own))
        for nth in range(len(parts_of(purchase.stems * CONDITION_MIN.value))):
            found.append(Wait(task=key_of(purchase.place, "condition", nth + 1), minutes=rest))
    return tuple(found)


def _fetched(before: Before) -> Iterator[Task]:
    """One way to each supplier on each day, and the conditioning of what it brings."""
    trips: dict[str, list[Purchase]] = {}
    for purchase in before.purchases:
        trips.setdefault(purchase.trip, []).append(purchase)
    for trip, purchases in trips.items():
        first = purchases[0]
        gathered = first.supplier in GATHERED_FROM.values()
        window = None if first.day is None else open_window(before.job, first.supplier, first.day)
        yield Task(
            key=key_of(trip, "collect"),
            stage="collect",
            name=worded(
                "Gather {n} {n|stem|stems}: {supplier}" if gathered else "Fetch {n} {n|stem|stems}: {supplier}",
                n=sum(each.stems for each in purchases),
                supplier=first.supplier.name,
            ),
            where="supplier",
            minutes=slots(COLLECT_MIN.value),
            skills=("drives",),
            windows=() if window is None else (window,),
            varieties=tuple(key for each in purchases for key in each.varieties),
            why=worded(
                "{supplier} is open from {opens} to {closes}",
                supplier=first.supplier.name,
                opens=first.supplier.opens,
                closes=first.supplier.closes,
            )
            if before.job.suppliers
            else "",
            gate=_gate(before.job, first),
        )
        for purchase in purchases:
            parts = parts_of(purchase.stems * CONDITION_MIN.value)
            named = ", ".join(before.varieties[key].name for key in purchase.varieties[:3])
            more = len(purchase.varieties) - 3
            words = "Condition {n} {n|stem|stems}: {varieties}"
            words = "Condition {n} {n|stem|stems}: {varieties} and {more} more" if more > 0 else words
            name = worded(words, n=purchase.stems, varieties=named, more=more)
            for nth, minutes in enumerate(parts):
                yield Task(
                    key=key_of(purchase.place, "condition", nth + 1),
                    stage="condition",
                    name=numbered(name, nth, len(parts)),
                    where="workshop",
                    minutes=minutes,
                    windows=tuple(_soon(before.job, purchase)),
                    after=(Wait(task=key_of(trip, "collect")),),
                    varieties=purchase.varieties,
                    why=worded(
                        "stems drink and open {h} before they are used", h=duration_text(purchase.rest_min / 60)
                    ),
                )


def _gate(job: Job, purchase: Purchase) -> Phrase | None:
    """What must be cleared before a lot is fetched: money, or the landowner's leave; an own garden asks nobody."""
    if purchase.supplier == GATHERED_FROM["foraged"]:
        return foraging_gate(job)
    return None if purchase.supplier == GATHERED_FROM["own garden"] else buying_gate(job)


def _soon(job: Job, purchase: Purchase) -> Iterator[tuple[datetime, datetime]]:
    """When stems that have come are conditioned, in the workshop's hours: soon, as they stand dry till then."""
    if purchase.day is None:
        return
    late = purchase.supplier.opens >= f"{job.hours.closes:%H:%M}"
    on = purchase.day + timedelta(days=1 if late else 0)
    opens, closes = (datetime.combine(on, clock, tzinfo=job.zone) for clock in (job.hours.opens, job.hours.closes))
    window = open_window(job, purchase.supplier, purchase.day)
    if window is not None and not late:
        soon = max(window[1], opens) + timedelta(hours=DRY_MOST.value)
        closes = min(closes, soon)
    yield opens, closes


def _loaded(before: Before, ready: list[Task]) -> Iterator[Task]:
    """The van is packed when all is made, and when what goes in at the place has drunk."""
    job = before.job
    on_site = frozenset(
        put.line.variety for work in before.made.works for put in puts_of(work, before.varieties) if put.there
    )
    for early in (True, False):
        works = [work for work in before.made.works if goes_up_early(job, work) is early]
        number = sum(quantity_of(work) for work in works)
        own = {work.id for work in works}
        later = {work.id for work in before.made.works if goes_up_early(job, work)} if not early else set()
        going = frozenset() if early else on_site
        if not number and not going:
            continue
        loads = parts_of(max(number, 1) * LOAD_MIN.value)
        for nth, minutes in enumerate(loads):
            yield Task(
                key=key_of("van-early" if early else "van", "load", nth + 1),
                stage="load",
                name=numbered("Pack and load what goes up before" if early else "Pack and load", nth, len(loads)),
                where="workshop",
                minutes=minutes,
                hands=min(2, max(1, len(job.crew))),
                soonest=before.early(),
                latest=None if early or before.start is None else back(before.start, job.travel_h or 0.0),
                after=(
                    *(
                        Wait(task=each.key)
                        for each in ready
                        if (each.piece_id in own and not (early and each.stage == "tubes"))
                        or (each.piece_id in later and each.stage == "tubes")
                    ),
                    *waits_for(before, going, only_drink=True),
                    *waits_for_hires(job),
                ),
                why="what goes in at the place has drunk before it leaves" if going else "",
            )


def _made(before: Before, work: Work) -> Iterator[Task]:
    """What is done to a part in the workshop: its mechanic, its tubes, and its stems where they go in there."""
    mechanics = span_of(work, before.varieties).mechanics * _left_to_make(before.job, work)
    first = _Made(stage="mechanics", minutes=mechanics, words="Make the mechanic: {part}", soonest=before.early())
    follows = waits_for_hires(before.job, work)
    here = [each for each in _flowered(before, work) if each.stage == "tubes" or not flowered_there(work)]
    made = list(_in_turn(before, work, [first, *here], follows, where="workshop"))
    yield from made
    if made and cooled_h(work):
        last = [each for each in made if each.stage == made[-1].stage]
        yield Task(
            key=key_of(work.id, "cool"),
            stage="flower",
            name=worded("Into the cool room: {part}", part=name_of(work)),
            where="workshop",
            minutes=slots(COOL_MIN.value * quantity_of(work)),
            latest=finished_by(before, work),
            after=tuple(Wait(task=each.key) for each in last),
            piece_id=work.id,
            why=worded("it waits there {h}", h=duration_text(cooled_h(work))),
        )


def made_there(before: Before, work: Work, follows: tuple[Wait, ...], latest: datetime | None) -> Iterator[Task]:
    """Greens and flowers of a part that is made where it stands; nothing where it is made in the workshop.

    Args:
        follows: what must be done first: it stands, or is up. latest: when all there is done.
    """
    if flowered_there(work):
        stages = [each for each in _flowered(before, work) if each.stage != "tubes"]
        for task in _in_turn(before, work, stages, follows, where="venue"):
            access = before.job.access_at
            soonest = task.soonest if access is None else later(task.soonest, access)
            yield replace(task, soonest=soonest, latest=latest, why=task.why or "made where it stands")


def flowered_there(work: Work) -> bool:
    """Whether the stems of a part go in where it stands, all of them."""
    return not rides_flowered(acts_of_work(work, {}))


def greened_h(work: Work) -> float:
    """Hours that the greens of a part are in before its flowers."""
    return (work.rig if isinstance(work, RigWork) else work.piece).passage.greened_h


def finished_by(before: Before, work: Work) -> datetime | None:
    """When a part that waits in the cool room must be in it; None where none waits, or no time is known."""
    hours = cooled_h(work)
    return back(before.start, hours) if hours and before.start is not None else None


@dataclass(frozen=True, slots=True, kw_only=True)
class _Made:
    """One stage of making a part: its minutes, what it is called, when it may begin, and what bounds that."""

    stage: Stage
    minutes: float
    words: str
    soonest: datetime | None
    why: str = ""
    variety: str | None = None


def _flowered(before: Before, work: Work) -> list[_Made]:
    """Greens, tubes and flowers of a part; its greens so long before as somebody chose, or as they keep."""
    span, job = span_of(work, before.varieties), before.job
    within_h = green_within_h(job)
    earlier_h = cooled_h(work)
    greens = worded("greens keep {h} in the work", h=duration_text(within_h))
    flowers = worded("flowers keep {h} in the work", h=duration_text(FLOWER_WITHIN.value))
    kinds: tuple[tuple[Stage, float, str, float, str], ...] = (
        ("green", span.green, "Green: {part}", within_h + greened_h(work), greens),
        ("tubes", span.tubes, "Fill tubes: {part}", FLOWER_WITHIN.value, "tubes are not filled days ahead"),
        ("flower", span.flower, "Flower: {part}", FLOWER_WITHIN.value, flowers),
    )
    found = []
    for stage, minutes, words, hours, why in kinds:
        soonest, bound, variety = _limit(before, work, stage, hours + earlier_h, why)
        found.append(_Made(stage=stage, minutes=minutes, words=words, soonest=soonest, why=bound, variety=variety))
    return found


def _in_turn(
    before: Before, work: Work, stages: list[_Made], follows: tuple[Wait, ...], *, where: Where
) -> Iterator[Task]:
    """Stages of making one part, one after the other, each in parts of two hours at most."""
    for made in stages:
        parts = parts_of(made.minutes)
        own = _varieties_in(before, work, made.stage)
        drunk = waits_for(before, own) if where == "workshop" else ()
        tasks = [
            Task(
                key=key_of(work.id, made.stage, nth + 1),
                stage=made.stage,
                name=numbered(worded(made.words, part=name_of(work)), nth, len(parts)),
                where=where,
                minutes=part,
                soonest=made.soonest,
                latest=finished_by(before, work) if where == "workshop" else None,
                after=(*follows, *drunk),
                piece_id=work.id,
                variety=made.variety,
                varieties=tuple(sorted(own)),
                why=made.why,
            )
            for nth, part in enumerate(parts)
        ]
        yield from tasks
        if tasks:
            rests = round(60 * greened_h(work)) if made.stage == "green" else 0
            done = tuple(Wait(task=each.key, minutes=rests) for each in tasks)
            follows = (*follows, *done) if made.stage == "tubes" else done


def _left_to_make(job: Job, work: Work) -> float:
    """The share of the time for its mechanics that a part takes, where some of it comes from finished armatures."""
    quantity = quantity_of(work)
    reused = min(sum(each.number for each in job.reused if each.part == work.id), quantity)
    return 1 - (1 - FINISHED_SHARE.value) * reused / quantity


def _varieties_in(before: Before, work: Work, stage: Stage) -> frozenset[str]:
    """Varieties whose stems go in, or into their tubes, in a stage of making."""
    puts = [put for put in puts_of(work, before.varieties) if put.line.variety in before.varieties]
    if stage == "tubes":
        return frozenset(
            put.line.variety for put in puts if put.line.water == "tube" and put.act in ("green", "flower")
        )
    return frozenset(put.line.variety for put in puts if put.act == stage)


def _limit(
    before: Before, work: Work, stage: Stage, within_h: float, why: str
) -> tuple[datetime | None, str, str | None]:
    """The soonest that a stage of a part may be done: the usual, or as long as the first of its stems lasts."""
    soonest = None if before.start is None else back(before.start, within_h)
    named, fresh = None, False
    for put in puts_of(work, before.varieties):
        line, variety = put.line, before.varieties.get(put.line.variety)
        if variety is None or STAGE_OF[put.act] == "on site" or _stage_of(line, before.varieties) != stage:
            continue
        fresh = fresh or not variety.lasting
        least = soonest_use(before.job, line, variety)
        if least is not None and (soonest is None or least > soonest):
            soonest, why, named = least, lasts_words(before.job, line, variety), variety.key
    if not fresh and any(_stage_of(line, before.varieties) == stage for line in recipe_of(work)):
        return before.early(), "nothing in it fades", None
    return soonest, why, named


def _stage_of(line: RecipeLine, varieties: Mapping[str, Variety]) -> Stage:
    """The stage in which a stem's own water, or its life without, begins to count."""
    if line.water == "tube":
        return "tubes"
    return "green" if is_green(line, varieties) else "flower"
