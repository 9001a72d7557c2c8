"""What events near one another want of the same things in the stores, and what an event could take instead."""

import sqlite3
from dataclasses import dataclass, replace
from datetime import date
from functools import lru_cache

from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.job import Hire, Job
from jolly_trellis.core.event.needs.needs import vessel_id
from jolly_trellis.core.event.parts import in_vessels
from jolly_trellis.core.event.returning.reservations import (
    Claim,
    Shortfall,
    Thing,
    away,
    claims_of,
    shortfalls,
    wanted_of,
)
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.services import event_work, planning
from jolly_trellis.services.conditions import job_of
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.planning import EventState, NotFound
from jolly_trellis.services.trying import states_of, worse_of
from jolly_trellis.store import stock
from jolly_trellis.store.events import get_brief, get_plan, list_events
from jolly_trellis.store.plan import Brief, Plan

_FARTHEST = 1.25


def shortfalls_of(conn: sqlite3.Connection, work: EventWork) -> tuple[Shortfall, ...]:
    """Where an event and others want more of a thing on a day than the stores have."""
    name = work.plan.brief.name
    mine = claims_of(work.event_id, name, work.job, [each.piece for each in work.made.pieces])
    if not mine:
        return ()
    others, lent = _others(conn, work, mine)
    found = shortfalls([*mine, *others], _here(work), (*work.job.hires, *lent))
    return tuple(
        replace(each, said=_said(work, each))
        for each in found
        if any(one.event_id == work.event_id for one in each.by)
    )


def _said(work: EventWork, found: Shortfall) -> str:
    """What people call a thing that is known by its key."""
    if found.kind == "frog" and found.name in work.shelves.frogs:
        return work.shelves.frogs[found.name].name
    if found.kind == "armature" and found.name in work.shelves.armatures:
        return work.shelves.armatures[found.name].name
    return found.name


@lru_cache(maxsize=1000)
def _away(brief: Brief) -> tuple[Job, tuple[date, date]] | None:
    """The job of a brief and when its things are away; None where that is not known, or the brief cannot be."""
    try:
        job = job_of(brief)
    except CoreError:
        return None
    span = away(job)
    return None if span is None else (job, span)


def _here(work: EventWork) -> dict[Thing, int]:
    shelves = work.shelves
    here: dict[Thing, int] = {("vessel", thing): each.here for thing, each in shelves.vessels.items()}
    here |= {("stand", thing): each.here for thing, each in shelves.stands.items()}
    here |= {("frog", key): number for key, number in shelves.frogs_here.items()}
    return here | {("armature", key): each.here for key, each in shelves.armatures_kept.items()}


def _others(
    conn: sqlite3.Connection, work: EventWork, mine: tuple[Claim, ...], *, only_mine: bool = True
) -> tuple[list[Claim], list[Hire]]:
    """What other events have of the same things at the same time, and hire; only those near in time are read whole."""
    things = {(each.kind, each.thing) for each in mine}
    since, until = mine[0].since, mine[0].until
    claims: list[Claim] = []
    hires: list[Hire] = []
    for row in list_events(conn):
        brief = get_brief(conn, row.id) if row.id != work.event_id else None
        if brief is None:
            continue
        found = _away(brief)
        if found is None or found[1][0] > until or found[1][1] < since:
            continue
        job = found[0]
        pieces = [each.part for each in get_plan(conn, row.id).parts if in_vessels(each.part)]
        own = claims_of(row.id, brief.name, job, pieces)
        claims += [each for each in own if not only_mine or (each.kind, each.thing) in things]
        hires += job.hires
    return claims, hires


@dataclass(frozen=True, slots=True, kw_only=True)
class Instead:
    """Another vessel of the stores that is free then and was tried in every piece that has this one: what would be
    worse, in words; none where every verdict stays as it is.
    """

    vessel: str
    name: str
    free: int
    worse: tuple[str, ...]


def instead_of(conn: sqlite3.Connection, event_id: int, thing: str) -> tuple[Instead, ...]:
    """Vessels near in size that an event could take in place of one, each tried; those that change nothing first.

    Raises: NotFound, CoreError.
    """
    work = event_work.work_of(conn, event_id)
    wanted = wanted_of([each.piece for each in work.made.pieces])
    number = next((n for each, n in wanted.items() if (each.kind, each.thing) == ("vessel", thing)), 0)
    if not number:
        raise NotFound(f"vessel {thing} in event {event_id}")
    was = next(each for work_ in work.made.pieces for each in work_.piece.vessels() if vessel_id(each) == thing)
    free = _free(conn, work)
    now = states_of(work)
    found = []
    for key, vessel in stock.vessels(conn).items():
        there = free.get(("vessel", vessel_id(vessel)), 0)
        if vessel_id(vessel) == thing or there < number or not _near(vessel, was):
            continue
        try:
            tried = event_work.work_with(conn, event_id, _swapped(work.plan, thing, vessel), revision=work.revision)
        except CoreError:
            continue
        worse = tuple(worse_of(now, states_of(tried)))
        found.append(Instead(vessel=key, name=vessel.name, free=there, worse=worse))
    return tuple(sorted(found, key=lambda each: len(each.worse)))


def take_instead(conn: sqlite3.Connection, event_id: int, thing: str, key: str, *, base_revision: int) -> EventState:
    """Put another vessel in the place of one in every piece. Raises NotFound, Stale."""
    vessel = stock.vessels(conn).get(key)
    if vessel is None:
        raise NotFound(f"vessel {key}")
    plan = planning.state(conn, event_id).plan
    return planning.put_plan(
        conn, event_id, _swapped(plan, thing, vessel), base_revision=base_revision, label=f"{vessel.name} instead"
    )


def _near(vessel: Vessel, was: Vessel) -> bool:
    """Whether a vessel is of a size that could stand in for another: a quarter wider or narrower, deeper or not."""
    pairs = ((vessel.mouth_width_m, was.mouth_width_m), (vessel.inside_depth_m, was.inside_depth_m))
    return all(1 / _FARTHEST <= one / other <= _FARTHEST for one, other in pairs)


def _swapped(plan: Plan, thing: str, vessel: Vessel) -> Plan:
    """A plan with another vessel wherever one stands by itself."""
    parts = []
    for each in plan.parts:
        part = each.part
        if in_vessels(part) and vessel_id(part.vessel) == thing:
            level = part.water_level_m * vessel.inside_depth_m / part.vessel.inside_depth_m
            part = replace(part, vessel=vessel, water_level_m=level)
        parts.append(replace(each, part=part))
    return replace(plan, parts=tuple(parts))


def _free(conn: sqlite3.Connection, work: EventWork) -> dict[Thing, int]:
    """How many of each thing no other event has on any of the days of this one."""
    mine = claims_of(work.event_id, work.plan.brief.name, work.job, [each.piece for each in work.made.pieces])
    here = _here(work)
    if not mine:
        return here
    asked: dict[Thing, int] = {}
    for each in _others(conn, work, mine, only_mine=False)[0]:
        asked[each.kind, each.thing] = asked.get((each.kind, each.thing), 0) + each.number
    return {thing: number - asked.get(thing, 0) for thing, number in here.items()}
