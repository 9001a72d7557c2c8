"""The survey of a place, and hung work with what it says of its points."""

import sqlite3
from dataclasses import dataclass, replace

from jolly_trellis.core.books.figures import FigureBook
from jolly_trellis.core.errors import CoreError, InvalidMeasure
from jolly_trellis.core.event.parts import hangs
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging import survey as surveying
from jolly_trellis.core.rigging.assess import RigReport, assess
from jolly_trellis.core.rigging.beams import beams_of, pull_on_n
from jolly_trellis.core.rigging.rig import BeamLoad, Rig
from jolly_trellis.core.rigging.survey import Survey
from jolly_trellis.services import figures, kept_reports, planning
from jolly_trellis.services.conditions import conditions_of
from jolly_trellis.services.gate import Based, Revisions, gate, settled
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import events, surveys
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.events import EventRow
from jolly_trellis.store.plan import Brief, Plan
from jolly_trellis.store.surveys import SurveyRow


@dataclass(frozen=True, slots=True, kw_only=True)
class Where:
    """Which part of which event something is: the event's number and brief, the part's number, None for a new one."""

    event: int
    brief: Brief
    part: int | None


def in_place(conn: sqlite3.Connection, where: Where, rig: Rig) -> Rig:
    """A rig with what the survey of its event's place says of its points, and what else its beams bear that day."""
    survey = surveys.get_survey(conn, _place_of(where.brief)).survey
    there = surveying.in_place(rig, survey)
    names = beams_of(there)
    if not names:
        return replace(there, beams=())
    others = _others(conn, where)
    return replace(there, beams=tuple(_loaded(name, survey, others) for name in names))


def _others(conn: sqlite3.Connection, where: Where) -> list[tuple[Rig, RigReport | None]]:
    """All other hung work of the place on the same day, each as its survey has it, with its report."""
    found: list[tuple[Rig, RigReport | None]] = []
    brief = where.brief
    for event in events.list_events(conn):
        plan = events.get_plan(conn, event.id)
        own = event.id == where.event
        same_day = own or (_day_of(brief) != "" and _day_of(plan.brief) == _day_of(brief))
        if not same_day or _place_of(plan.brief) != _place_of(brief):
            continue
        survey = surveys.get_survey(conn, _place_of(brief)).survey
        for each in plan.parts:
            part = each.part
            if not hangs(part) or (own and each.id == where.part):
                continue
            there = replace(surveying.in_place(part, survey), beams=())
            if beams_of(there):
                found.append((there, _report(conn, plan.brief, there)))
    return found


def _report(conn: sqlite3.Connection, brief: Brief, rig: Rig) -> RigReport | None:
    conditions = conditions_of(conn, brief)
    with kept_reports.of(conn, conditions) as kept:
        found = kept.find(rig)
        if found is None:
            try:
                found = kept.keep(rig, assess(rig, conditions))
            except CoreError:
                return None
    return found.report if isinstance(found.report, RigReport) else None


def _loaded(name: str, survey: Survey, others: list[tuple[Rig, RigReport | None]]) -> BeamLoad:
    on_it = [(rig, report) for rig, report in others if name in beams_of(rig)]
    known = [(rig, report) for rig, report in on_it if report is not None]
    return BeamLoad(
        name=name,
        rating_n=surveying.rating_of_beam(survey, name),
        others_n=sum(pull_on_n(rig, report.points, name) for rig, report in known),
        others=tuple(rig.name for rig, _ in known),
        unknown=tuple(rig.name for rig, report in on_it if report is None),
    )


def _day_of(brief: Brief) -> str:
    """The local day of an event: when guests come, else when it is filled, else when it ends; empty for not known."""
    return next((each[:10] for each in (brief.starts_at, brief.filled_at, brief.ends_at) if each), "")


def survey_of(conn: sqlite3.Connection, event_id: int) -> tuple[str, SurveyRow]:
    """The place of an event and its survey. Raises NotFound."""
    place = _place_of(planning.brief_of(conn, event_id))
    return place, surveys.get_survey(conn, place)


def put_survey(conn: sqlite3.Connection, event_id: int, survey: Survey, based: Based[Survey]) -> None:
    """Keep the survey of an event's place, with what its window changed.

    Raises: NotFound, Stale; InvalidMeasure: the event has no place yet, or the survey cannot be.
    """
    with transaction(conn):
        place, row = survey_of(conn, event_id)
        survey, base = settled(survey, row.survey, based, _revisions_of(row), Survey)
        surveying.check(survey)
        if not place:
            raise InvalidMeasure(
                path="place",
                message=phrase("This event has no place yet, and a survey is kept with its place."),
                limit=phrase("Name the place in the brief first."),
            )
        with gate(conn, lambda: _revisions_of(row), base):
            if survey != row.survey:
                surveys.put_survey(conn, place, survey)


def _revisions_of(row: SurveyRow) -> Revisions:
    return Revisions(newest=row.revision, touched=row.revision)


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
        if not place or survey == Survey():
            return event, False
        row = surveys.get_survey(conn, place)
        if row.revision == 0:
            surveys.put_survey(conn, place, survey)
            return event, False
    return event, row.survey != survey


def put_back(conn: sqlite3.Connection, event_id: int, *, base_revision: int) -> None:
    """Put back the survey as it was before its last change; doing so again brings the change back.

    Raises: NotFound, Stale.
    """
    with gate(conn, lambda: _revisions_of(survey_of(conn, event_id)[1]), base_revision):
        place, row = survey_of(conn, event_id)
        if row.previous is None:
            raise NotFound("an earlier survey")
        surveys.put_survey(conn, place, row.previous)


def _place_of(brief: Brief) -> str:
    """A place's name as surveys are kept by: without its spare blanks."""
    return " ".join(brief.place.split())
