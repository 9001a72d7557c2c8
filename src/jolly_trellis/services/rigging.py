"""The survey of a place, and hung work with what it says of its points."""

import sqlite3
from dataclasses import replace

from jolly_trellis.core.books.figures import FigureBook
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging import survey as surveying
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.rigging.survey import Survey
from jolly_trellis.services import figures, planning
from jolly_trellis.services.planning import NotFound, Stale
from jolly_trellis.store import surveys
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.events import EventRow
from jolly_trellis.store.plan import Brief, Plan
from jolly_trellis.store.surveys import SurveyRow


def in_place(conn: sqlite3.Connection, brief: Brief, rig: Rig) -> Rig:
    """A rig with what the survey of its event's place says of its points."""
    return surveying.in_place(rig, surveys.get_survey(conn, _place_of(brief)).survey)


def survey_of(conn: sqlite3.Connection, event_id: int) -> tuple[str, SurveyRow]:
    """The place of an event and its survey. Raises NotFound."""
    place = _place_of(planning.brief_of(conn, event_id))
    return place, surveys.get_survey(conn, place)


def put_survey(conn: sqlite3.Connection, event_id: int, survey: Survey, *, base_revision: int) -> None:
    """Keep the survey of an event's place.

    Raises: NotFound, Stale; InvalidMeasure: the event has no place yet, or the survey cannot be.
    """
    surveying.check(survey)
    with transaction(conn):
        place, row = survey_of(conn, event_id)
        if not place:
            raise InvalidMeasure(
                path="place",
                message=phrase("This event has no place yet, and a survey is kept with its place."),
                limit=phrase("Name the place in the brief first."),
            )
        if row.revision > base_revision:
            raise Stale(revision=row.revision, differences=())
        if survey != row.survey:
            surveys.put_survey(conn, place, survey)


def begin_with_survey(
    conn: sqlite3.Connection, plan: Plan, survey: Survey, book: FigureBook | None = None
) -> tuple[EventRow, bool]:
    """Start an event from a plan, with the survey of its place where the studio has none of it yet: both or neither.

    Args:
        book: the figures it was planned with elsewhere, to be kept with it; None for the studio's.
    Returns: the event; whether the studio's own survey was kept instead of another one that came with the plan.
    Raises: InvalidMeasure: the survey cannot be.
    """
    surveying.check(survey)
    place = _place_of(plan.brief)
    with transaction(conn):
        if book is not None:
            plan = replace(plan, brief=replace(plan.brief, figures=figures.keep(conn, book)))
        event = planning.begin(conn, plan)
        if not place or not survey.points:
            return event, False
        row = surveys.get_survey(conn, place)
        if row.revision == 0:
            surveys.put_survey(conn, place, survey)
            return event, False
    return event, row.survey != survey


def put_back(conn: sqlite3.Connection, event_id: int) -> None:
    """Put back the survey as it was before its last change; doing so again brings the change back. Raises NotFound."""
    with transaction(conn):
        place, row = survey_of(conn, event_id)
        if row.previous is None:
            raise NotFound("an earlier survey")
        surveys.put_survey(conn, place, row.previous)


def _place_of(brief: Brief) -> str:
    """A place's name as surveys are kept by: without its spare blanks."""
    return " ".join(brief.place.split())
