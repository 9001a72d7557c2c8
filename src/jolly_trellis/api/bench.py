"""The bench: one piece evaluated while it is drawn, saved, mended, removed."""

from fastapi import APIRouter

from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.line_up import event_out
from jolly_trellis.api.models import ApplyFix, BasedOn, EvaluatePiece, EventOut, PutPiece, SavedPiece
from jolly_trellis.core.report import Report
from jolly_trellis.services import judging, planning

router = APIRouter(prefix="/api/events/{event_id}", tags=["bench"])


@router.post("/evaluate")
def evaluate(event_id: Number, body: EvaluatePiece, conn: Connection) -> Report:
    brief = planning.state(conn, event_id).plan.brief
    return judging.report_of(body.piece.to_core(), judging.conditions_of(conn, brief), with_fixes=body.with_fixes)


@router.post("/pieces", status_code=201)
def add_piece(event_id: Number, body: PutPiece, conn: Connection) -> SavedPiece:
    piece = body.piece.to_core()
    brief = planning.state(conn, event_id).plan.brief
    report = judging.report_of(piece, judging.conditions_of(conn, brief), with_fixes=True)
    state = planning.add_piece(conn, event_id, piece, base_revision=body.base_revision)
    return SavedPiece.from_core(state, state.plan.pieces[-1].id, report)


@router.put("/pieces/{piece_id}")
def put_piece(event_id: Number, piece_id: Number, body: PutPiece, conn: Connection) -> SavedPiece:
    piece = body.piece.to_core()
    brief = planning.state(conn, event_id).plan.brief
    report = judging.report_of(piece, judging.conditions_of(conn, brief), with_fixes=True)
    state = planning.put_piece(conn, event_id, piece_id, piece, base_revision=body.base_revision, label=body.label)
    return SavedPiece.from_core(state, piece_id, report)


@router.delete("/pieces/{piece_id}")
def remove_piece(event_id: Number, piece_id: Number, body: BasedOn, conn: Connection) -> EventOut:
    state = planning.remove_piece(conn, event_id, piece_id, base_revision=body.base_revision)
    return event_out(conn, state)


@router.post("/pieces/{piece_id}/fix")
def apply_fix(event_id: Number, piece_id: Number, body: ApplyFix, conn: Connection) -> SavedPiece:
    plan = planning.state(conn, event_id).plan
    if piece_id not in plan.by_id():
        raise planning.NotFound(f"piece {piece_id}")
    conditions = judging.conditions_of(conn, plan.brief)
    piece, label = judging.apply_fix(plan.by_id()[piece_id], conditions, verb=body.verb, key=body.key)
    state = planning.put_piece(conn, event_id, piece_id, piece, base_revision=body.base_revision, label=label)
    return SavedPiece.from_core(state, piece_id, judging.report_of(piece, conditions, with_fixes=True))
