"""The price as a client takes it: accepted as it stands, let go again, held against today's plan."""

import sqlite3
from dataclasses import dataclass, replace
from datetime import datetime

from jolly_trellis.core.event.cost.cost import EventCost
from jolly_trellis.core.event.cost.quotes import Held, held_against, quote_of
from jolly_trellis.core.event.tasks.payment import Payment, payment_of
from jolly_trellis.services import event_work, planning
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.services.planning import EventState


@dataclass(frozen=True, slots=True, kw_only=True)
class PriceStanding:
    """Where the price of an event stands: against what was accepted, None while nothing was; and what is paid."""

    held: Held | None
    payment: Payment


def standing_of(work: EventWork, cost: EventCost) -> PriceStanding:
    """Where the price of an event stands."""
    quote = work.job.quote
    return PriceStanding(
        held=None if quote is None else held_against(quote, cost), payment=payment_of(work.job, cost.asked)
    )


def accept(conn: sqlite3.Connection, event_id: int, *, base_revision: int) -> EventState:
    """Keep today's price as what the client has accepted. Raises NotFound, Stale, InvalidMeasure: it has no price."""
    work = event_work.work_of(conn, event_id)
    quote = quote_of(event_work.cost_of_event(work), datetime.now(work.job.zone).date())
    brief = replace(work.plan.brief, quote=quote)
    return planning.put_brief(conn, event_id, brief, base_revision=base_revision, label="The price is accepted")


def let_go(conn: sqlite3.Connection, event_id: int, *, base_revision: int) -> EventState:
    """Let the accepted price go. Raises NotFound, Stale."""
    brief = replace(planning.brief_of(conn, event_id), quote=None)
    return planning.put_brief(conn, event_id, brief, base_revision=base_revision, label="The price is open again")
