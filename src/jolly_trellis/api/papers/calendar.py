"""The run sheet as a calendar."""

from typing import Annotated

from pydantic import Field

from jolly_trellis.api.deps import Connection, DayDone, Number
from jolly_trellis.api.paper import Written, paper
from jolly_trellis.core.event.sheet.puzzle import NOBODY
from jolly_trellis.exchange.calendar import write_calendar
from jolly_trellis.services import calendars
from jolly_trellis.store.calendars import installation


@paper("day.ics", needs=[DayDone])
def day_calendar(event_id: Number, conn: Connection, person: Annotated[str, Field(max_length=60)] = "") -> Written:
    """The run sheet as a calendar, of all or of one of the crew; what it tells is kept, so that a change is one."""
    job, name, entries = calendars.told(conn, event_id, person)
    whose = next((each for each in job.crew or (NOBODY,) if each.id == person), None)
    text = write_calendar(name, event_id, installation(conn), job, entries, whose)
    return Written(content=text, event=name if whose is None else f"{name} {whose.name}")
