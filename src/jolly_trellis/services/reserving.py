"""What events near one another want of the same things in the stores, and where there is too little for all."""

import sqlite3
from collections.abc import Iterator

from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.reservations import Claim, Shortfall, away, claims_of, shortfalls
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
    found = shortfalls([*mine, *_others(conn, work, mine)], work.shelves.vessels_here)
    return tuple(each for each in found if any(share.event_id == work.event_id for share in each.by))


def _others(conn: sqlite3.Connection, work: EventWork, mine: tuple[Claim, ...]) -> Iterator[Claim]:
    """What other events have of the same things at the same time; only those near in time are read whole."""
    names = {each.name for each in mine}
    since, until = mine[0].since, mine[0].until
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
        yield from (each for each in claims_of(row.id, brief.name, job, pieces) if each.name in names)
