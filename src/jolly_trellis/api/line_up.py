"""The line-up: events, their brief, their pieces, and going back and forth over their history."""

import sqlite3
from typing import Annotated

from fastapi import APIRouter

from jolly_trellis.api.answers import DeletedEvent, EventOut, EventSummary, PieceOut, Problem, RigOut
from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.models import BasedOn, PutBrief
from jolly_trellis.api.sent import Sent
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.headline import headline
from jolly_trellis.core.piece import Conditions
from jolly_trellis.services import event_work, figures, judging, planning, rigging
from jolly_trellis.services.planning import EventState
from jolly_trellis.services.settling import to_settle
from jolly_trellis.store import events
from jolly_trellis.store.plan import Brief, PlannedPiece, PlannedRig

router = APIRouter(prefix="/api/events", tags=["line-up"])


@router.get("")
def list_events(conn: Connection) -> list[EventSummary]:
    return [EventSummary(id=each.id, name=each.name, revision=each.revision) for each in events.list_events(conn)]


@router.post("", status_code=201)
def new_event(brief: Annotated[Brief, Sent()], conn: Connection) -> EventOut:
    judging.check_brief(brief)
    return event_out(conn, planning.new_event(conn, brief))


@router.get("/deleted")
def list_deleted(conn: Connection) -> list[DeletedEvent]:
    return [DeletedEvent(id=each.id, name=each.name, deleted_at=at) for each, at in events.list_deleted(conn)]


@router.delete("/{event_id}", status_code=204)
def delete_event(event_id: Number, conn: Connection) -> None:
    """Delete an event; it can be brought back."""
    planning.delete_event(conn, event_id)


@router.post("/{event_id}/bring-back")
def bring_back_event(event_id: Number, conn: Connection) -> EventSummary:
    planning.bring_back_event(conn, event_id)
    event = planning.state(conn, event_id).event
    return EventSummary(id=event.id, name=event.name, revision=event.revision)


@router.get("/{event_id}")
def get_event(event_id: Number, conn: Connection) -> EventOut:
    return event_out(conn, planning.state(conn, event_id))


@router.put("/{event_id}/brief")
def put_brief(event_id: Number, body: PutBrief, conn: Connection) -> EventOut:
    judging.check_brief(body.brief, planning.brief_of(conn, event_id))
    return event_out(conn, planning.put_brief(conn, event_id, body.brief, base_revision=body.base_revision))


@router.post("/{event_id}/undo")
def undo(event_id: Number, body: BasedOn, conn: Connection) -> EventOut:
    return event_out(conn, planning.undo(conn, event_id, base_revision=body.base_revision))


@router.post("/{event_id}/redo")
def redo(event_id: Number, body: BasedOn, conn: Connection) -> EventOut:
    return event_out(conn, planning.redo(conn, event_id, base_revision=body.base_revision))


def event_out(conn: sqlite3.Connection, state: EventState) -> EventOut:
    """An event with every piece judged; a piece that cannot be computed carries its problem instead.

    Fixes are not tried here: with many pieces that takes seconds, and the bench asks for those of its own piece.
    """
    # A step may change which book the event is planned with: what is open is the one before it.
    book = figures.of_event(conn, state.event.id)
    with book.open():
        return _event_out(conn, state, book.edition == figures.current(conn).edition)


def _event_out(conn: sqlite3.Connection, state: EventState, newest: bool) -> EventOut:
    conditions = judging.conditions_of(conn, state.plan.brief)
    pieces = [_piece_out(each, conditions) for each in state.plan.pieces]
    rigs = [rig_out(conn, state.plan.brief, each, conditions) for each in state.plan.rigs]
    work = event_work.work_of(conn, state.event.id)
    cost = event_work.cost_of_event(work)
    return EventOut(
        id=state.event.id,
        revision=state.event.revision,
        brief=state.plan.brief,
        undo=state.undo,
        redo=state.redo,
        newest_figures=newest,
        pieces=pieces,
        rigs=rigs,
        headline=headline(work.made, cost),
        to_settle=list(to_settle(conn, work, cost)),
    )


def _piece_out(planned: PlannedPiece, conditions: Conditions) -> PieceOut:
    judged = judging.judged(planned.piece, conditions, kept=planned.piece, with_fixes=False)
    problem = None if judged.problem is None else Problem.of(judged.problem)
    seated = judging.with_seats(planned.piece, judged)
    return PieceOut(id=planned.id, piece=seated, report=judged.report, problem=problem)


def rig_out(conn: sqlite3.Connection, brief: Brief, planned: PlannedRig, conditions: Conditions) -> RigOut:
    """A hung piece judged, or with what keeps it from being judged."""
    try:
        report = rigging.report_of(conn, brief, planned.rig, conditions)
    except CoreError as problem:
        return RigOut(id=planned.id, rig=planned.rig, report=None, problem=Problem.of(problem))
    return RigOut(id=planned.id, rig=planned.rig, report=report, problem=None)
