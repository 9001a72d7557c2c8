"""The bench: one piece evaluated while it is drawn, saved, mended, removed."""

from typing import Literal

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import TypeAdapter

from jolly_trellis.api.answers import EventOut, SavedPiece
from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.line_up import event_out
from jolly_trellis.api.models import ApplyFix, BasedOn, EvaluatePiece, PutPiece, SayIt
from jolly_trellis.core.build import build
from jolly_trellis.core.choose import Option
from jolly_trellis.core.making_report import MakingReport, making_of
from jolly_trellis.core.patterns import patterns_of
from jolly_trellis.core.report import Report
from jolly_trellis.core.say_it import Understood, say_it
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange.bench_card import write_card
from jolly_trellis.exchange.pattern_dxf import write_dxf
from jolly_trellis.exchange.pattern_pdf import Paper, write_pdf
from jolly_trellis.exchange.pattern_svg import write_svg
from jolly_trellis.services import judging, planning
from jolly_trellis.services.stores import free_key
from jolly_trellis.store import stock

router = APIRouter(prefix="/api/events/{event_id}", tags=["bench"])


_REPORT = TypeAdapter(Report)
_MAKING = TypeAdapter(MakingReport)
_OPTIONS = TypeAdapter(list[Option])


@router.post("/evaluate", response_model=Report)
def evaluate(event_id: Number, body: EvaluatePiece, conn: Connection) -> Response:
    """Asked many times a second while a hand drags: written straight to JSON, since the core made every value."""
    conditions = judging.conditions_of(conn, planning.brief_of(conn, event_id))
    report = judging.report_of(body.piece, conditions, with_fixes=body.with_fixes)
    return Response(_REPORT.dump_json(report), media_type="application/json")


@router.post("/making", response_model=MakingReport)
def making(event_id: Number, body: EvaluatePiece, conn: Connection) -> Response:
    """The making order of a piece: every step with its margins, its gates, the pull list."""
    conditions = judging.conditions_of(conn, planning.brief_of(conn, event_id))
    report = making_of(body.piece, conditions, with_fixes=body.with_fixes)
    return Response(_MAKING.dump_json(report), media_type="application/json")


@router.post("/choose", response_model=list[Option])
def choose_mechanic(event_id: Number, body: EvaluatePiece, conn: Connection) -> Response:
    options = judging.options_of(conn, body.piece, planning.brief_of(conn, event_id))
    return Response(_OPTIONS.dump_json(list(options)), media_type="application/json")


@router.post("/say")
def say(event_id: Number, body: SayIt, conn: Connection) -> Understood:
    brief = planning.brief_of(conn, event_id)
    conditions = judging.conditions_of(conn, brief)
    return say_it(body.text, body.piece, conditions, system=body.system, vessels=stock.vessels(conn))


@router.get("/pieces/{piece_id}/patterns.{ending}")
def patterns(
    event_id: Number, piece_id: Number, ending: Literal["svg", "dxf", "pdf"], conn: Connection, paper: Paper = "A4"
) -> Response:
    piece, brief = planning.piece_of(conn, event_id, piece_id)
    flat = patterns_of(build(piece, judging.conditions_of(conn, brief)))
    headers = {"Content-Disposition": f'inline; filename="{free_key(piece.name, set())}.{ending}"'}
    match ending:
        case "svg":
            return Response(write_svg(flat), media_type="image/svg+xml", headers=headers)
        case "dxf":
            return Response(write_dxf(flat), media_type="image/vnd.dxf", headers=headers)
        case "pdf":
            return Response(
                write_pdf(flat, paper=paper, title=piece.name), media_type="application/pdf", headers=headers
            )


@router.get("/pieces/{piece_id}/card.pdf")
def card(
    event_id: Number, piece_id: Number, conn: Connection, paper: Paper = "A4", system: UnitSystem = "metric"
) -> Response:
    """The bench card of a piece as it is kept: one page."""
    piece, brief = planning.piece_of(conn, event_id, piece_id)
    conditions = judging.conditions_of(conn, brief)
    report = judging.report_of(piece, conditions, with_fixes=False)
    made = making_of(piece, conditions, with_fixes=False)
    page = write_card(piece, report, made, event=brief.name, paper=paper, system=system)
    headers = {"Content-Disposition": f'inline; filename="{free_key(piece.name, set())}-card.pdf"'}
    return Response(page, media_type="application/pdf", headers=headers)


@router.post("/pieces", status_code=201)
def add_piece(event_id: Number, body: PutPiece, conn: Connection) -> SavedPiece:
    brief = planning.brief_of(conn, event_id)
    judged = judging.judged(body.piece, judging.conditions_of(conn, brief), kept=None, with_fixes=True)
    seated = judging.with_seats(body.piece, judged)
    state, number = planning.add_piece(conn, event_id, seated, base_revision=body.base_revision)
    return SavedPiece.from_core(state, number, judged)


@router.put("/pieces/{piece_id}")
def put_piece(event_id: Number, piece_id: Number, body: PutPiece, conn: Connection) -> SavedPiece:
    kept, brief = planning.piece_of(conn, event_id, piece_id)
    judged = judging.judged(body.piece, judging.conditions_of(conn, brief), kept=kept, with_fixes=True)
    seated = judging.with_seats(body.piece, judged)
    state = planning.put_piece(conn, event_id, piece_id, seated, base_revision=body.base_revision, label=body.label)
    return SavedPiece.from_core(state, piece_id, judged)


@router.delete("/pieces/{piece_id}")
def remove_piece(event_id: Number, piece_id: Number, body: BasedOn, conn: Connection) -> EventOut:
    state = planning.remove_piece(conn, event_id, piece_id, base_revision=body.base_revision)
    return event_out(conn, state)


@router.post("/pieces/{piece_id}/fix")
def apply_fix(event_id: Number, piece_id: Number, body: ApplyFix, conn: Connection) -> SavedPiece:
    before, brief = planning.piece_of(conn, event_id, piece_id)
    conditions = judging.conditions_of(conn, brief)
    piece, label = judging.apply_fix(before, conditions, verb=body.verb, key=body.key)
    judged = judging.judged(piece, conditions, kept=None, with_fixes=True)
    seated = judging.with_seats(piece, judged)
    state = planning.put_piece(conn, event_id, piece_id, seated, base_revision=body.base_revision, label=label)
    return SavedPiece.from_core(state, piece_id, judged)
