"""What papers say of the event they were printed from."""

import sqlite3
from datetime import UTC, datetime
from zoneinfo import ZoneInfo

from jolly_trellis.exchange.page import Stamp
from jolly_trellis.services import planning


def stamp_of(conn: sqlite3.Connection, event_id: int) -> Stamp:
    """The event as it stands, printed today where it takes place. Raises NotFound."""
    state = planning.state(conn, event_id)
    here = datetime.now(UTC).astimezone(ZoneInfo(state.plan.brief.time_zone))
    return Stamp(event=state.plan.brief.name, revision=state.event.revision, printed_on=here.date())
