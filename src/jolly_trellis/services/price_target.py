"""What would reach a price: fewer of the dearest stems, another mechanic, a trip less; each tried on the event."""

import sqlite3
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from decimal import Decimal
from functools import partial, reduce

from jolly_trellis.core.errors import CoreError, InvalidMeasure
from jolly_trellis.core.event.cost.cost import EventCost
from jolly_trellis.core.event.parts import Part, in_vessels
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import Phrase, phrase
from jolly_trellis.core.stems.shades import with_count
from jolly_trellis.services import event_work, judging, planning
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.long_work import Running
from jolly_trellis.services.planning import EventState, NotFound
from jolly_trellis.services.trying import States, states_of, with_part, worse_of
from jolly_trellis.store.plan import Plan

_SHARES = (0.9, 0.8, 0.7)
_MOST_DEAR = 3
_MOST_PIECES = 3
_MOST_TOGETHER = 1
_AND = "+"


@dataclass(frozen=True, slots=True, kw_only=True)
class _Change:
    """A change to a plan: its key, what it changes (of two for the same only one is made), in words, how."""

    key: str
    of_what: str
    say: Phrase
    of: Callable[[Plan], Plan]


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
    now, found = states_of(work), []
    changes = list(_changes(conn, work, cost))
    for place, each in enumerate(changes):
        if running.stopping:
            break
        tried = _tried(conn, work, cost.asked, each, now)
        if tried is not None:
            found.append(tried)
            running.tell(_ranked(target, cost.asked, found, (place + 1) / (len(changes) + _MOST_TOGETHER)))
    for together in _together(changes, found, target, cost.asked):
        tried = _tried(conn, work, cost.asked, together, now)
        if tried is not None:
            found.append(tried)
    return _ranked(target, cost.asked, found, 1.0)


def _tried(
    conn: sqlite3.Connection, work: EventWork, asked_now: Decimal, change: _Change, now: States
) -> Reach | None:
    """A change as it comes out; None where it saves nothing, or cannot be."""
    try:
        there = event_work.work_with(conn, work.event_id, change.of(work.plan), revision=work.revision)
    except CoreError:
        return None
    asked = event_work.cost_of_event(there).asked
    if asked is None or asked >= asked_now:
        return None
    target = work.job.costing.target
    return Reach(
        key=change.key,
        say=change.say,
        asked=asked,
        less=asked_now - asked,
        reaches=target is not None and asked <= target,
        worse=tuple(worse_of(now, states_of(there))),
    )


def apply(conn: sqlite3.Connection, event_id: int, key: str, *, base_revision: int) -> EventState:
    """Make a change that was tried; several together are named with + between. Raises NotFound: none of it; Stale."""
    work = event_work.work_of(conn, event_id)
    known = {each.key: each for each in _changes(conn, work, event_work.cost_of_event(work))}
    plan, said = work.plan, []
    for one in key.split(_AND):
        if one not in known:
            raise NotFound(f"change {one}")
        plan = known[one].of(plan)
        said.append(known[one].say.text)
    return planning.put_plan(conn, event_id, plan, base_revision=base_revision, label="; ".join(said)[:80])


def _together(changes: list[_Change], found: list[Reach], target: Decimal, asked: Decimal) -> Iterator[_Change]:
    """Changes that make nothing worse put together, what saves most first, where none reaches the target alone."""
    if any(each.reaches and not each.worse for each in found):
        return
    by_key = {each.key: each for each in changes}
    chosen: list[Reach] = []
    for each in sorted((each for each in found if not each.worse), key=lambda each: -each.less):
        if all(by_key[each.key].of_what != by_key[other.key].of_what for other in chosen):
            chosen.append(each)
        if len(chosen) > 1 and asked - sum(other.less for other in chosen) <= target:
            break
    if len(chosen) > 1:
        yield _Change(
            key=_AND.join(each.key for each in chosen),
            of_what="together",
            say=phrase("{all}, together", all=", ".join(each.say.text for each in chosen)),
            of=lambda plan: reduce(lambda done, each: by_key[each.key].of(done), chosen, plan),
        )


def _ranked(target: Decimal, asked: Decimal, found: list[Reach], done: float) -> Reached:
    def rank(each: Reach) -> tuple[bool, int, Decimal]:
        return (not each.reaches, len(each.worse), each.less if each.reaches else -each.less)

    return Reached(target=target, asked=asked, tried=tuple(sorted(found, key=rank)), done=done)


def _changes(conn: sqlite3.Connection, work: EventWork, cost: EventCost) -> Iterator[_Change]:
    yield from _fewer(work)
    yield from _other_mechanics(conn, work, cost)
    yield from _less_driving(work)


def _fewer(work: EventWork) -> Iterator[_Change]:
    """Fewer of the varieties that cost most, a tenth, a fifth, three tenths."""
    bought = [each for each in event_work.bought_of(work) if each.full_cost]
    for each in sorted(bought, key=lambda each: -(each.full_cost or 0))[:_MOST_DEAR]:
        for share in _SHARES:
            yield _Change(
                key=f"fewer-{each.variety}-{round(share * 100)}",
                of_what=each.variety,
                say=phrase("{share} % fewer {name}", share=round(100 * (1 - share)), name=each.name),
                of=partial(_thinned, each.variety, share),
            )


def _thinned(variety: str, share: float, plan: Plan) -> Plan:
    def recipe(part: Part) -> tuple[RecipeLine, ...]:
        return tuple(
            with_count(line, max(1, round(line.count * share))) if line.variety == variety else line
            for line in part.recipe
        )

    return replace(
        plan, parts=tuple(replace(one, part=replace(one.part, recipe=recipe(one.part))) for one in plan.parts)
    )


def _other_mechanics(conn: sqlite3.Connection, work: EventWork, cost: EventCost) -> Iterator[_Change]:
    """For the pieces whose mechanics cost most, the best other ones for their vessels."""
    parts = {number: part for number, part in work.plan.by_id().items() if in_vessels(part)}
    rows = [row for row in cost.pieces if row.piece_id in parts]
    for row in sorted(rows, key=lambda each: -(each.mechanics + each.consumables))[:_MOST_PIECES]:
        part = parts[row.piece_id]
        others = [each for each in judging.options_of(conn, part, work.plan.brief) if each.kind != part.mechanic.kind]
        for option in [each for each in others if each.mechanic is not None and not each.ruled_out][:2]:
            yield _Change(
                key=f"mechanic-{row.piece_id}-{option.kind}",
                of_what=f"mechanic {row.piece_id}",
                say=phrase("{name} with {kind}", name=part.name, kind=option.name.lower()),
                of=partial(_with, row.piece_id, option.piece),
            )


def _with(part_id: int, part: Part, plan: Plan) -> Plan:
    return with_part(plan, part_id, part)


def _less_driving(work: EventWork) -> Iterator[_Change]:
    costing = work.plan.brief.costing
    if costing.vehicle_days > 1:
        say = phrase("a day less of the vehicle")
        yield _Change(key="vehicle-day", of_what="vehicle", say=say, of=_a_day_less)
        if costing.km and work.plan.brief.travel_h:
            say = phrase("one way there and back less, half the kilometres")
            yield _Change(key="trip", of_what="trip", say=say, of=_a_trip_less)


def _a_day_less(plan: Plan) -> Plan:
    costing = plan.brief.costing
    return replace(plan, brief=replace(plan.brief, costing=replace(costing, vehicle_days=costing.vehicle_days - 1)))


def _a_trip_less(plan: Plan) -> Plan:
    costing = plan.brief.costing
    return replace(plan, brief=replace(plan.brief, costing=replace(costing, km=(costing.km or 0.0) / 2)))
