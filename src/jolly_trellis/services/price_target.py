"""What would reach a price: fewer of the dearest stems, another mechanic, a trip less; each tried on the event."""

import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass, replace
from decimal import Decimal

from jolly_trellis.core.errors import CoreError, InvalidMeasure
from jolly_trellis.core.event.cost import EventCost
from jolly_trellis.core.event.job import Costing
from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.quantities import Phrase, phrase
from jolly_trellis.services import event_work, judging, planning
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.planning import EventState, NotFound
from jolly_trellis.services.trying import states_of, with_part, worse_of
from jolly_trellis.store.plan import Plan

_SHARES = (0.9, 0.8, 0.7)
_MOST_DEAR = 3
_MOST_PIECES = 3


@dataclass(frozen=True, slots=True, kw_only=True)
class Reach:
    """One change that was tried: what it is, what would be asked then and by how much that is less, whether it reaches
    the target, and what of the verdicts would be worse, in words; none where they stay as they are.
    """

    key: str
    say: Phrase
    asked: Decimal
    less: Decimal
    reaches: bool
    worse: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Reached:
    """What was tried to reach a target, the least change that reaches it first; `done` is how far, 0 to 1."""

    target: Decimal
    asked: Decimal
    tried: tuple[Reach, ...]
    done: float = 1.0


def search(conn: sqlite3.Connection, work: EventWork, running: Running[Reached]) -> Reached:
    """Try every change. Raises InvalidMeasure: no target is said, or there is no price to bring down."""
    target = work.job.costing.target
    cost = event_work.cost_of_event(work)
    if target is None or cost.asked is None:
        raise InvalidMeasure(
            path="costing.target",
            message=phrase("There is no target, or no price to bring down to it yet."),
            limit=phrase("Type what the client would pay, and settle what is not known."),
        )
    now = states_of(work)
    found: list[Reach] = []
    changes = list(_changes(conn, work, cost))
    for place, (key, say, plan) in enumerate(changes):
        if running.stopping:
            break
        try:
            there = event_work.work_with(conn, work.event_id, plan, revision=work.revision)
        except CoreError:
            continue
        asked = event_work.cost_of_event(there).asked
        if asked is not None and asked < cost.asked:
            worse = tuple(worse_of(now, states_of(there)))
            less = cost.asked - asked
            found.append(Reach(key=key, say=say, asked=asked, less=less, reaches=asked <= target, worse=worse))
            running.tell(_ranked(target, cost.asked, found, (place + 1) / len(changes)))
    return _ranked(target, cost.asked, found, 1.0)


def apply(conn: sqlite3.Connection, event_id: int, key: str, *, base_revision: int) -> EventState:
    """Make a change that was tried. Raises NotFound: it is offered no longer; Stale."""
    work = event_work.work_of(conn, event_id)
    cost = event_work.cost_of_event(work)
    for known, say, plan in _changes(conn, work, cost):
        if known == key:
            return planning.put_plan(conn, event_id, plan, base_revision=base_revision, label=say.text[:80])
    raise NotFound(f"change {key}")


def _ranked(target: Decimal, asked: Decimal, found: list[Reach], done: float) -> Reached:
    def rank(each: Reach) -> tuple[bool, int, Decimal]:
        return (not each.reaches, len(each.worse), each.less if each.reaches else -each.less)

    return Reached(target=target, asked=asked, tried=tuple(sorted(found, key=rank)), done=done)


def _changes(conn: sqlite3.Connection, work: EventWork, cost: EventCost) -> Iterator[tuple[str, Phrase, Plan]]:
    yield from _fewer(work)
    yield from _other_mechanics(conn, work, cost)
    yield from _less_driving(work)


def _fewer(work: EventWork) -> Iterator[tuple[str, Phrase, Plan]]:
    """Fewer of the varieties that cost most, a tenth, a fifth, three tenths."""
    bought = [each for each in event_work.bought_of(work) if each.full_cost]
    dear = sorted(bought, key=lambda each: -(each.full_cost or 0))[:_MOST_DEAR]
    for each in dear:
        for share in _SHARES:
            parts = tuple(replace(one, part=_thinned(one.part, each.variety, share)) for one in work.plan.parts)
            say = phrase("{share} % fewer {name}", share=round(100 * (1 - share)), name=each.name)
            yield f"fewer-{each.variety}-{round(share * 100)}", say, replace(work.plan, parts=parts)


def _thinned(part: Part, variety: str, share: float) -> Part:
    recipe = tuple(
        replace(line, count=max(1, round(line.count * share))) if line.variety == variety else line
        for line in part.recipe
    )
    return replace(part, recipe=recipe)


def _other_mechanics(conn: sqlite3.Connection, work: EventWork, cost: EventCost) -> Iterator[tuple[str, Phrase, Plan]]:
    """For the pieces whose mechanics cost most, the best other one that all its verdicts let be."""
    dear = sorted(cost.pieces, key=lambda each: -(each.mechanics + each.consumables))
    by_id = work.plan.by_id()
    for row in dear[:_MOST_PIECES]:
        part = by_id[row.piece_id]
        if not isinstance(part, Piece):
            continue
        for option in judging.options_of(conn, part, work.plan.brief)[:2]:
            if option.kind == part.mechanic.kind or option.mechanic is None or option.ruled_out:
                continue
            say = phrase("{name} with {kind}", name=part.name, kind=option.name.lower())
            plan = with_part(work.plan, row.piece_id, option.piece)
            yield f"mechanic-{row.piece_id}-{option.kind}", say, plan


def _less_driving(work: EventWork) -> Iterator[tuple[str, Phrase, Plan]]:
    costing = work.plan.brief.costing
    if costing.vehicle_days > 1:
        fewer = replace(costing, vehicle_days=costing.vehicle_days - 1)
        yield "vehicle-day", phrase("a day less of the vehicle"), _costed(work.plan, fewer)
    if costing.km:
        way = 4 * (work.plan.brief.travel_h or 0.0)
        if way and costing.vehicle_days > 1:
            fewer = replace(costing, km=costing.km / 2)
            yield "trip", phrase("one way there and back less: half the kilometres"), _costed(work.plan, fewer)


def _costed(plan: Plan, costing: Costing) -> Plan:
    return replace(plan, brief=replace(plan.brief, costing=costing))
