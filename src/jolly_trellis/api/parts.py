"""What an event is made of, of whatever kind: added, saved, mended, removed, and its card."""

from typing import TypeVar

from fastapi import APIRouter
from fastapi.responses import Response

from jolly_trellis.api.answers import EditSeen, EventChange
from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.event_answers import change_out
from jolly_trellis.api.models import AddSaid, ApplyFix, BasedOn, BeginPart, EditPart, PutPart, SayParts
from jolly_trellis.catalog.rows import HeldKind
from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks.looking import looking_at
from jolly_trellis.core.edits.edit import Given, edited
from jolly_trellis.core.edits.pieces import Shelf
from jolly_trellis.core.event.keys import free_key
from jolly_trellis.core.event.parts import Part, hangs, in_vessels
from jolly_trellis.core.event.starting.resizing import followed
from jolly_trellis.core.event.starting.saying import SaidPart
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.rigging.snip import snip
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange.bench_card import write_card
from jolly_trellis.exchange.page import Paper
from jolly_trellis.exchange.rig_card import write_rig_card
from jolly_trellis.services import judging, planning, rigging, saying, starting
from jolly_trellis.services.conditions import conditions_of
from jolly_trellis.services.rigging import Where
from jolly_trellis.services.stamps import stamp_of
from jolly_trellis.store import stock
from jolly_trellis.store.plan import Brief
from jolly_trellis.store.stock import Holding

T = TypeVar("T")
router = APIRouter(prefix="/api/events/{event_id}/parts", tags=["parts"])


@router.post("", status_code=201, response_model=EventChange)
def add_part(event_id: Number, body: PutPart, conn: Connection) -> Response:
    brief = planning.brief_of(conn, event_id)
    judged = judging.judged(
        conn, Where(event=event_id, brief=brief, part=None), body.part, conditions_of(conn, brief), before=None
    )
    seated = judging.with_seats(body.part, judged)
    state, number = planning.add_part(conn, event_id, seated, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision, number, status=201)


@router.post("/begin", status_code=201, response_model=EventChange)
def begin_part(event_id: Number, body: BeginPart, conn: Connection) -> Response:
    """Add a part as one of those that work is begun from."""
    brief = planning.brief_of(conn, event_id)
    conditions = conditions_of(conn, brief)
    with conditions.figures.open():
        parts = starting.begin(conn, brief, body.start, body.vessel, stems=body.stems)
    new = Where(event=event_id, brief=brief, part=None)
    seated = [judging.with_seats(part, judging.judged(conn, new, part, conditions, before=None)) for part in parts]
    state, number = planning.add_parts(conn, event_id, seated, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision, number, status=201)


@router.post("/say")
def say_parts(event_id: Number, body: SayParts, conn: Connection) -> list[SaidPart]:
    """What a text speaks of, thing by thing, with what was understood and what was not; nothing is added."""
    return list(saying.said(conn, planning.brief_of(conn, event_id), body.text, body.system))


@router.post("/said", status_code=201, response_model=EventChange)
def add_said(event_id: Number, body: AddSaid, conn: Connection) -> Response:
    """Add everything that a text speaks of, in one act."""
    brief = planning.brief_of(conn, event_id)
    conditions = conditions_of(conn, brief)
    new = Where(event=event_id, brief=brief, part=None)
    parts = [
        judging.with_seats(each.part, judging.judged(conn, new, each.part, conditions, before=None))
        for each in saying.said(conn, brief, body.text, body.system)
        if each.heard
    ]
    state, number = planning.add_parts(conn, event_id, parts, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision, number, status=201)


def _put(
    conn: Connection, event_id: int, part_id: int, part: Part, *, before: Part, brief: Brief, base: BasedOn, label: str
) -> Response:
    """Judge and save a part over what it was."""
    revision = base.base_revision
    if isinstance(base, PutPart):
        part, revision = planning.settled_part(conn, event_id, part_id, part, base.based())
    after = followed(before, part) if hangs(before) and hangs(part) else part
    judged = judging.judged(
        conn, Where(event=event_id, brief=brief, part=part_id), after, conditions_of(conn, brief), before=before
    )
    seated = judging.with_seats(after, judged)
    state = planning.put_part(conn, event_id, part_id, seated, base_revision=revision, label=label)
    return change_out(conn, state, base.base_revision)


@router.put("/{part_id}", response_model=EventChange)
def put_part(event_id: Number, part_id: Number, body: PutPart, conn: Connection) -> Response:
    before, brief = planning.part_of(conn, event_id, part_id)
    return _put(conn, event_id, part_id, body.part, before=before, brief=brief, base=body, label=body.label)


@router.post("/{part_id}/edit", response_model=EventChange | EditSeen)
def edit_part(event_id: Number, part_id: Number, body: EditPart, conn: Connection) -> Response:
    """Do something to a part as it is kept, or show what it would be: the core says what that makes of it."""
    before, brief = planning.part_of(conn, event_id, part_id)
    _, survey = rigging.survey_of(conn, event_id)
    part, label = edited(before, body.edit, Given(survey=survey.survey, shelf=_shelf(conn)))
    if not body.keep:
        return Response(EditSeen(part=part, label=label).model_dump_json(), media_type="application/json")
    return _put(conn, event_id, part_id, part, before=before, brief=brief, base=body, label=label)


def _shelf(conn: Connection) -> Shelf:
    """What is offered of the stores: nothing that is retired."""
    held = stock.holdings(conn)

    def offered(kind: HeldKind, things: dict[str, T]) -> dict[str, T]:
        return {key: each for key, each in things.items() if not held[kind].get(key, Holding()).retired}

    return Shelf(
        vessels=offered("vessel", stock.vessels(conn)),
        stands=offered("stand", stock.stands(conn)),
        nettings=offered("netting", stock.nettings(conn)),
        frogs=offered("frog", stock.frogs(conn)),
    )


@router.delete("/{part_id}", response_model=EventChange)
def remove_part(event_id: Number, part_id: Number, body: BasedOn, conn: Connection) -> Response:
    state = planning.remove_part(conn, event_id, part_id, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision)


@router.post("/{part_id}/fix", response_model=EventChange)
def apply_fix(event_id: Number, part_id: Number, body: ApplyFix, conn: Connection) -> Response:
    """Make the change that a verdict of a piece offers."""
    before, brief = planning.piece_of(conn, event_id, part_id)
    conditions = conditions_of(conn, brief)
    piece, label = judging.apply_fix(before, conditions, verb=body.verb, key=body.key)
    judged = judging.judged(conn, Where(event=event_id, brief=brief, part=part_id), piece, conditions, before=None)
    seated = judging.with_seats(piece, judged)
    state = planning.put_part(conn, event_id, part_id, seated, base_revision=body.base_revision, label=label)
    return change_out(conn, state, body.base_revision)


@router.get("/{part_id}/card.pdf")
def card(
    event_id: Number, part_id: Number, conn: Connection, paper: Paper = "A4", system: UnitSystem = "metric"
) -> Response:
    """The card of a part as it is kept."""
    part, brief = planning.part_of(conn, event_id, part_id)
    conditions = conditions_of(conn, brief)
    stamp = stamp_of(conn, event_id)
    where = Where(event=event_id, brief=brief, part=part_id)
    if in_vessels(part):
        report = judging.report_of(conn, where, part, conditions)
        made = making_of(part, conditions, with_fixes=False)
        with conditions.figures.open():
            looking = looking_at(build(part, conditions), report.picture.eyes)
        page = write_card(part, report, made, looking, stamp=stamp, paper=paper, system=system)
        name = "card"
    else:
        rig, _ = planning.rig_of(conn, event_id, part_id)
        there = rigging.in_place(conn, where, rig)
        snips = [list(snip(there, conditions, cut)) for cut in range(len(there.lines))]
        hung = judging.rig_report_of(conn, where, rig, conditions)
        page, name = write_rig_card(there, hung, snips, stamp=stamp, paper=paper, system=system), "rig-card"
    headers = {"Content-Disposition": f'inline; filename="{free_key(part.name, set())}-{name}.pdf"'}
    return Response(page, media_type="application/pdf", headers=headers)
