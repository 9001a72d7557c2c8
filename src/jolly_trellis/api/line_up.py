"""The line-up: events, their brief, their pieces, and going back and forth over their history."""

from typing import Annotated

from fastapi import APIRouter
from fastapi.responses import Response

from jolly_trellis.api.answers import DeletedEvent, EventChange, EventOut, EventStanding, EventSummary, Judging
from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.event_answers import change_out, event_out, summary_of
from jolly_trellis.api.models import BasedOn, PutBrief
from jolly_trellis.api.sent import Sent
from jolly_trellis.core.event.headline import headline
from jolly_trellis.core.event.tasks.asked import asked_of
from jolly_trellis.demo.loading import add_demo
from jolly_trellis.services import event_work, judging, planning
from jolly_trellis.services.conditions import check_brief, check_sold
from jolly_trellis.services.settling import to_settle
from jolly_trellis.store import events
from jolly_trellis.store.plan import Brief

router = APIRouter(prefix="/api/events", tags=["line-up"])


@router.get("")
def list_events(conn: Connection) -> list[EventSummary]:
    return [summary_of(conn, each.id) for each in events.list_events(conn)]


@router.post("", status_code=201, response_model=EventOut)
def new_event(brief: Annotated[Brief, Sent()], conn: Connection) -> Response:
    check_brief(brief)
    return event_out(conn, planning.new_event(conn, brief), status=201)


@router.post("/demo", status_code=201)
def begin_demo(conn: Connection) -> EventSummary:
    """Lay the demo job beside the studio's own, with the survey of its place; it is deleted like any other."""
    return summary_of(conn, add_demo(conn))


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
    return summary_of(conn, event_id)


@router.get("/{event_id}", response_model=EventOut)
def get_event(event_id: Number, conn: Connection) -> Response:
    return event_out(conn, planning.state(conn, event_id))


@router.get("/{event_id}/standing")
def get_standing(event_id: Number, conn: Connection) -> EventStanding:
    """The headline of an event, and what is still to settle in it."""
    work = event_work.work_of(conn, event_id)
    cost = event_work.cost_of_event(work)
    settle = list(to_settle(conn, work, cost))
    asks = list(asked_of(work.job, work.made, work.varieties))
    return EventStanding(revision=work.revision, headline=headline(work.made, cost), to_settle=settle, asks=asks)


@router.get("/{event_id}/judging")
def get_judging(event_id: Number, conn: Connection) -> Judging:
    """How far the judging of an event has come, for whoever waits for it."""
    found = judging.progress_of(conn, event_id)
    return Judging(done=0, of=0) if found is None else Judging(done=found.done, of=found.of)


@router.put("/{event_id}/brief", response_model=EventChange)
def put_brief(event_id: Number, body: PutBrief, conn: Connection) -> Response:
    before = planning.brief_of(conn, event_id)
    brief, base = planning.settled_brief(conn, event_id, body.brief, body.based())
    check_brief(brief, before)
    check_sold(conn, brief, before)
    state = planning.put_brief(conn, event_id, brief, base_revision=base)
    return change_out(conn, state, body.base_revision)


@router.post("/{event_id}/undo", response_model=EventChange)
def undo(event_id: Number, body: BasedOn, conn: Connection) -> Response:
    return change_out(conn, planning.undo(conn, event_id, base_revision=body.base_revision), body.base_revision)


@router.post("/{event_id}/redo", response_model=EventChange)
def redo(event_id: Number, body: BasedOn, conn: Connection) -> Response:
    return change_out(conn, planning.redo(conn, event_id, base_revision=body.base_revision), body.base_revision)
