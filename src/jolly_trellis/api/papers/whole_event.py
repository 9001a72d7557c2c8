"""The whole event as one file."""

from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.event_file import write_file
from jolly_trellis.api.paper import Written, paper
from jolly_trellis.services import figures, planning, rigging


@paper("event.json", title="The whole event as a file", ends="event.json")
def event_file(event_id: Number, conn: Connection) -> Written:
    """The whole event as one file: its schema is published beside it."""
    plan = planning.state(conn, event_id).plan
    _, row = rigging.survey_of(conn, event_id)
    text = write_file(plan, row.survey, figures.of_edition(conn, plan.brief.figures))
    return Written(content=text, event=plan.brief.name)
