"""A variety swapped for another in a whole event: what that changes is told before anybody does it."""

import sqlite3
from dataclasses import dataclass, replace
from decimal import Decimal

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.recipes.swapping import swapped
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.say.names import find_varieties, nearest_name
from jolly_trellis.services import event_work, planning
from jolly_trellis.services.conditions import conditions_of
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.planning import EventState, NotFound
from jolly_trellis.services.trying import states_of, worse_of
from jolly_trellis.store.plan import Plan, Planned


@dataclass(frozen=True, slots=True, kw_only=True)
class Swapped:
    """What a swap changes: how many stems, in how many pieces; what would be asked and what all weighs, now and then;
    how long a stem lasts without water, h, None where it needs none; what of the verdicts would be worse.
    """

    variety: str
    name: str
    stems: int
    pieces: int
    asked_now: Decimal | None
    asked_then: Decimal | None
    mass_now_kg: float | None
    mass_then_kg: float | None
    dry_now_h: float | None
    dry_then_h: float | None
    worse: tuple[str, ...]


def try_swap(conn: sqlite3.Connection, event_id: int, old: str, said: str) -> Swapped:
    """Try a variety in the place of another. Raises NotFound, InvalidMeasure."""
    work = event_work.work_of(conn, event_id)
    was, new = _both(conn, work, old, said)
    plan = _plan(work.plan, old, new, work)
    then = event_work.work_with(conn, event_id, plan, revision=work.revision)
    stems = sum(each.count for each in work.needs.stems if each.variety == old)
    return Swapped(
        variety=new.key,
        name=new.name,
        stems=stems,
        pieces=len({each.piece_id for each in work.needs.stems if each.variety == old}),
        asked_now=event_work.cost_of_event(work).asked,
        asked_then=event_work.cost_of_event(then).asked,
        mass_now_kg=_mass_kg(work),
        mass_then_kg=_mass_kg(then),
        dry_now_h=None if was.lasting else was.dry_hold_h,
        dry_then_h=None if new.lasting else new.dry_hold_h,
        worse=tuple(worse_of(states_of(work), states_of(then))),
    )


def swap(conn: sqlite3.Connection, event_id: int, old: str, said: str, *, base_revision: int) -> EventState:
    """Swap a variety in everything, as one step. Raises NotFound, Stale, InvalidMeasure."""
    work = event_work.work_of(conn, event_id)
    was, new = _both(conn, work, old, said)
    label = f"Swap {was.name} for {new.name}"
    plan = _plan(work.plan, old, new, work)
    return planning.put_plan(conn, event_id, plan, base_revision=base_revision, label=label)


def _plan(plan: Plan, old: str, new: Variety, work: EventWork) -> Plan:
    known = work.conditions.varieties
    return replace(
        plan, parts=tuple(Planned(id=each.id, part=swapped(each.part, old, new.key, known)) for each in plan.parts)
    )


def _both(conn: sqlite3.Connection, work: EventWork, old: str, said: str) -> tuple[Variety, Variety]:
    known = conditions_of(conn, work.plan.brief).varieties
    if old not in known or all(each.variety != old for each in work.needs.stems):
        raise NotFound(f"variety {old} in event {work.event_id}")
    found = find_varieties(said.strip().lower(), known)
    if len(found) != 1:
        near = nearest_name(said.lower(), known)
        names = ", ".join(each.name for each in found[:5]) or near
        raise InvalidMeasure(
            path="new",
            message=phrase("Several varieties are called “{said}”.", said=said)
            if found
            else phrase("No variety in the stores is called “{said}”.", said=said),
            limit=phrase("Say which: {names}.", names=names) if names else phrase("Choose one from the stores."),
        )
    if found[0].key == old:
        raise InvalidMeasure(
            path="new",
            message=phrase("That is {name} already.", name=found[0].name),
            limit=phrase("Name another variety."),
        )
    return known[old], found[0]


def _mass_kg(work: EventWork) -> float | None:
    """What all that stands weighs; None where something is not known."""
    masses = []
    for each in work.made.pieces:
        balance = None if each.report is None else each.report.balance
        masses.append(None if balance is None else balance.mass_kg * each.piece.quantity)
    hung = [None if rig.report is None else rig.report.take_off.typical_kg for rig in work.made.rigs]
    known = [each for each in (*masses, *hung) if each is not None]
    return sum(known) if len(known) == len(masses) + len(hung) else None
