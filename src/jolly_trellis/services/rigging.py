"""The survey of a place, and hung work with what it says of its points."""

import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass, replace

from jolly_trellis.core.books.figures import FigureBook
from jolly_trellis.core.errors import CoreError, InvalidMeasure
from jolly_trellis.core.event.keys import Named, keyed
from jolly_trellis.core.event.parts import hangs
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging import survey as surveying
from jolly_trellis.core.rigging.assess import RigReport, assess
from jolly_trellis.core.rigging.beams import beams_of, pull_on_n
from jolly_trellis.core.rigging.rig import BeamLoad, Rig
from jolly_trellis.core.rigging.survey import Survey
from jolly_trellis.services import figures, kept_reports, places, planning
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
    survey = surveys.get_survey(conn, where.brief.place_key).survey
    there = surveying.in_place(rig, survey)
    keys = beams_of(there)
    if not keys:
        return replace(there, beams=())
    others = _others(conn, where)
    return replace(there, beams=tuple(_loaded(key, survey, others) for key in keys))


def _others(conn: sqlite3.Connection, where: Where) -> list[tuple[Rig, RigReport | None]]:
    """All other hung work of the place on the same day, each as its survey has it, with its report."""
    found: list[tuple[Rig, RigReport | None]] = []
    brief = where.brief
    for event in events.list_events(conn):
        plan = events.get_plan(conn, event.id)
        own = event.id == where.event
        same_day = own or (_day_of(brief) != "" and _day_of(plan.brief) == _day_of(brief))
        if not same_day or plan.brief.place_key != brief.place_key:
            continue
        survey = surveys.get_survey(conn, brief.place_key).survey
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


def _loaded(key: str, survey: Survey, others: list[tuple[Rig, RigReport | None]]) -> BeamLoad:
    on_it = [(rig, report) for rig, report in others if key in beams_of(rig)]
    known = [(rig, report) for rig, report in on_it if report is not None]
    name, rating_n = surveying.beam_of(survey, key)
    return BeamLoad(
        key=key,
        name=name,
        rating_n=rating_n,
        others_n=sum(pull_on_n(rig, report.points, key) for rig, report in known),
        others=tuple(rig.name for rig, _ in known),
        unknown=tuple(rig.name for rig, report in on_it if report is None),
    )


def _day_of(brief: Brief) -> str:
    """The local day of an event: when guests come, else when it is filled, else when it ends; empty for not known."""
    return next((each[:10] for each in (brief.starts_at, brief.filled_at, brief.ends_at) if each), "")


def survey_of(conn: sqlite3.Connection, event_id: int) -> tuple[str, SurveyRow]:
    """The key of the place of an event, empty for none, and its survey. Raises NotFound."""
    place = planning.brief_of(conn, event_id).place_key
    return place, surveys.get_survey(conn, place)


def put_survey(conn: sqlite3.Connection, event_id: int, survey: Survey, based: Based[Survey]) -> None:
    """Keep the survey of an event's place, with what its window changed.

    Raises: NotFound, Stale; InvalidMeasure: the event has no place yet, or the survey cannot be.
    """
    with transaction(conn):
        place, row = survey_of(conn, event_id)
        was = None if based.was is None else _keyed(based.was)
        survey, base = settled(_keyed(survey), row.survey, replace(based, was=was), _revisions_of(row), Survey)
        survey = _keyed(survey)
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
    survey = _keyed(survey)
    surveying.check(survey)
    with transaction(conn):
        plan = replace(plan, brief=replace(plan.brief, place_key=places.key_of(conn, plan.brief.place)))
        row = surveys.get_survey(conn, plan.brief.place_key)
        if row.revision > 0:
            plan = _of_this_survey(plan, survey, row.survey)
        if book is not None:
            plan = replace(plan, brief=replace(plan.brief, figures=figures.keep(conn, book)))
        event = planning.begin(conn, plan)
        if not plan.brief.place_key or survey == Survey():
            return event, False
        if row.revision == 0:
            surveys.put_survey(conn, plan.brief.place_key, survey)
            return event, False
    return event, _nameless(row.survey) != _nameless(survey)


def _keyed(survey: Survey) -> Survey:
    """A survey whose points and beams have keys, each its own."""
    return replace(survey, points=keyed(survey.points), beams=keyed(survey.beams))


def _nameless(survey: Survey) -> Survey:
    """A survey without its keys: what people have stated in it."""
    beams = {each.key: each.name for each in survey.beams}
    points = tuple(
        replace(each, key="", beam=None if each.beam is None else beams.get(each.beam, each.beam))
        for each in survey.points
    )
    return replace(survey, points=points, beams=tuple(replace(each, key="") for each in survey.beams))


def _of_this_survey(plan: Plan, theirs: Survey, ours: Survey) -> Plan:
    """A plan from elsewhere with the points and beams of the survey that is kept here, by what they are called."""
    points = _same_names(theirs.points, ours.points)
    beams = _same_names(theirs.beams, ours.beams)
    parts = []
    for each in plan.parts:
        part = each.part
        if hangs(part):
            told = tuple(
                replace(
                    point,
                    surveyed=None if point.surveyed is None else points.get(point.surveyed, point.surveyed),
                    beam=None if point.beam is None else beams.get(point.beam, point.beam),
                )
                for point in part.points
            )
            part = replace(part, points=told)
        parts.append(replace(each, part=part))
    return replace(plan, parts=tuple(parts))


def _same_names(theirs: Sequence[Named], ours: Sequence[Named]) -> dict[str, str]:
    """Keys here of what is called the same there, by their keys."""
    here = {each.name: each.key for each in ours}
    return {each.key: here[each.name] for each in theirs if each.name in here}


def put_back(conn: sqlite3.Connection, event_id: int, *, base_revision: int) -> None:
    """Put back the survey as it was before its last change; doing so again brings the change back.

    Raises: NotFound, Stale.
    """
    with gate(conn, lambda: _revisions_of(survey_of(conn, event_id)[1]), base_revision):
        place, row = survey_of(conn, event_id)
        if row.previous is None:
            raise NotFound("an earlier survey")
        surveys.put_survey(conn, place, row.previous)
