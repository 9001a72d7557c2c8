"""Events as they go out: whole, or as what a write has changed. Reports that are kept go out as they are written."""

import sqlite3
from collections.abc import Sequence

from fastapi.responses import Response
from pydantic import TypeAdapter

from jolly_trellis.api.answers import EventHead, EventSummary, Problem
from jolly_trellis.core.drawing.picture import Picture
from jolly_trellis.core.event.parts import AnyPart, Part, hangs
from jolly_trellis.core.rigging.pictures import picture_of_rig
from jolly_trellis.services import figures, judging, planning
from jolly_trellis.services.conditions import conditions_of
from jolly_trellis.services.judging import Judged
from jolly_trellis.services.planning import EventState
from jolly_trellis.store import events
from jolly_trellis.store.plan import Planned

_PICTURE = TypeAdapter(Picture)
_PART: TypeAdapter[Part] = TypeAdapter(AnyPart)


def event_out(conn: sqlite3.Connection, state: EventState, status: int = 200) -> Response:
    """An `EventOut`: every part judged; one that cannot be computed carries its problem instead.

    Fixes are not tried here: with many parts that takes seconds, and the desk asks for those of its own part.
    """
    return _out(conn, state, state.plan.parts, b"", status)


def change_out(
    conn: sqlite3.Connection, state: EventState, base_revision: int, added: int | None = None, status: int = 200
) -> Response:
    """An `EventChange`: what has changed since a revision, by whomever; all is judged anew where the brief has."""
    revisions = events.part_revisions(conn, state.event.id)
    every = state.event.brief_revision > base_revision
    changed = [each for each in state.plan.parts if every or revisions[each.id] > base_revision]
    numbers = ",".join(str(each.id) for each in state.plan.parts)
    rest = f',"order":[{numbers}],"added":{"null" if added is None else added}'
    return _out(conn, state, changed, rest.encode(), status)


def _out(
    conn: sqlite3.Connection, state: EventState, parts: Sequence[Planned[Part]], rest: bytes, status: int
) -> Response:
    # A step may change which book the event is planned with: what is open is the one before it.
    book = figures.of_event(conn, state.event.id)
    with book.open():
        conditions = conditions_of(conn, state.plan.brief)
        judged = judging.judge_all(conn, state.event.id, state.plan.brief, parts, conditions)
        written = b",".join(_part(each, judged[each.id]) for each in parts)
    head = EventHead(
        id=state.event.id,
        revision=state.event.revision,
        brief=state.plan.brief,
        undo=state.undo,
        redo=state.redo,
        newest_figures=book.edition == figures.current(conn).edition,
    )
    body = head.model_dump_json().encode().removesuffix(b"}") + rest + b',"parts":[' + written + b"]}"
    return Response(body, status_code=status, media_type="application/json")


def _part(planned: Planned[Part], judged: Judged) -> bytes:
    plan = _PART.dump_json(judging.with_seats(planned.part, judged))
    problem = b"null" if judged.problem is None else Problem.of(judged.problem).model_dump_json().encode()
    head = f'{{"id":{planned.id},"part":'.encode()
    return (
        head + plan + b',"report":' + judged.written + _planned(planned.part, judged) + b',"problem":' + problem + b"}"
    )


def _planned(part: Part, judged: Judged) -> bytes:
    """What hung work that cannot be worked out looks like as it is planned, with nothing hanging."""
    if not hangs(part):
        return b""
    if judged.report is not None:
        return b',"planned":null'
    held = tuple((each.x_m, each.y_m, each.z_m) for each in part.attachments)
    picture = picture_of_rig(part, at_m=(), held_m=held, varieties={})
    return b',"planned":' + _PICTURE.dump_json(picture)


def summary_of(conn: sqlite3.Connection, event_id: int) -> EventSummary:
    """An event as the list of all tells it. Raises NotFound."""
    event = planning.event_row(conn, event_id)
    return EventSummary(id=event.id, revision=event.revision, brief=planning.brief_of(conn, event_id))
