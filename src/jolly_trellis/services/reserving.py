"""What events near one another want of the same things in the stores, and where there is too little for all."""

import sqlite3

from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.job import Hire
from jolly_trellis.core.event.reservations import Claim, Shortfall, Thing, away, claims_of, shortfalls
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.services.conditions import job_of
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.store.events import get_brief, get_plan, list_events


def shortfalls_of(conn: sqlite3.Connection, work: EventWork) -> tuple[Shortfall, ...]:
    """Where an event and others want more of a thing on a day than the stores have."""
    name = work.plan.brief.name
    mine = claims_of(work.event_id, name, work.job, [each.piece for each in work.made.pieces])
    if not mine:
        return ()
    others, lent = _others(conn, work, mine)
    found = shortfalls([*mine, *others], _here(work), (*work.job.hires, *lent))
    return tuple(each for each in found if any(share.event_id == work.event_id for share in each.by))


def _here(work: EventWork) -> dict[Thing, int]:
    shelves = work.shelves
    here: dict[Thing, int] = {("vessel", name): each.here for name, each in shelves.vessels.items()}
    here |= {("stand", name): each.here for name, each in shelves.stands.items()}
    here |= {("frog", key): number for key, number in shelves.frogs_here.items()}
    return here | {("armature", key): each.here for key, each in shelves.armatures_kept.items()}


def _others(conn: sqlite3.Connection, work: EventWork, mine: tuple[Claim, ...]) -> tuple[list[Claim], list[Hire]]:
    """What other events have of the same things at the same time, and hire; only those near in time are read whole."""
    things = {(each.kind, each.name) for each in mine}
    since, until = mine[0].since, mine[0].until
    claims: list[Claim] = []
    hires: list[Hire] = []
    for row in list_events(conn):
        brief = get_brief(conn, row.id) if row.id != work.event_id else None
        if brief is None:
            continue
        try:
            job = job_of(brief)
        except CoreError:
            continue
        span = away(job)
        if span is None or span[0] > until or span[1] < since:
            continue
        pieces = [each.part for each in get_plan(conn, row.id).parts if isinstance(each.part, Piece)]
        claims += [each for each in claims_of(row.id, brief.name, job, pieces) if (each.kind, each.name) in things]
        hires += job.hires
    return claims, hires
