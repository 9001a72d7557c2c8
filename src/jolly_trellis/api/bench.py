"""The bench: one piece evaluated while it is drawn, the order it is made in, its patterns."""

from typing import Literal

from fastapi import APIRouter, Request
from fastapi.responses import Response
from pydantic import TypeAdapter

from jolly_trellis.api.deps import Connection, Number, while_wanted
from jolly_trellis.api.models import EvaluateChange, EvaluatePiece, SayIt
from jolly_trellis.api.sections import Changed, changed
from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks.looking import Looking, looking_at
from jolly_trellis.core.checks.matching import Match, match
from jolly_trellis.core.event.keys import free_key
from jolly_trellis.core.event.parts import hangs
from jolly_trellis.core.judging.choose import Option
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.making.patterns import Pattern, patterns_of, run_pattern
from jolly_trellis.core.making.report import MakingReport, making_of
from jolly_trellis.core.say.say_it import Understood, say_it
from jolly_trellis.core.say.words import COLOURS
from jolly_trellis.exchange.page import Paper
from jolly_trellis.exchange.pattern_pdf import write_pdf
from jolly_trellis.exchange.pattern_svg import write_svg
from jolly_trellis.services import judging, planning
from jolly_trellis.services.conditions import conditions_of
from jolly_trellis.services.planning import NotFound
from jolly_trellis.services.rigging import Where
from jolly_trellis.services.stamps import stamp_of
from jolly_trellis.store import stock

router = APIRouter(prefix="/api/events/{event_id}", tags=["bench"])


_REPORT = TypeAdapter(Report)
_MAKING = TypeAdapter(MakingReport)
_OPTIONS = TypeAdapter(list[Option])
_LOOKING = TypeAdapter(Looking)


def _json(written: bytes) -> Response:
    """What the core has made goes out as it is: it is not looked over again."""
    return Response(written, media_type="application/json")


@router.post("/evaluate/changed", response_model=Changed)
def evaluate_change(event_id: Number, body: EvaluateChange, conn: Connection) -> Response:
    """Asked many times a second while a hand drags: only what is another than the one who asks has, with no fixes."""
    conditions = conditions_of(conn, planning.brief_of(conn, event_id))
    report = evaluate(body.piece, conditions, with_fixes=False)
    return _json(changed(report, body.have))


@router.post("/evaluate", response_model=Report)
async def evaluate_piece(event_id: Number, body: EvaluatePiece, conn: Connection, request: Request) -> Response:
    """A piece judged whole, with what would mend it, while somebody waits for that."""

    def work() -> bytes:
        conditions = conditions_of(conn, planning.brief_of(conn, event_id))
        return _REPORT.dump_json(evaluate(body.piece, conditions, with_fixes=body.with_fixes))

    return _json(await while_wanted(request, work))


@router.post("/looking", response_model=Looking)
async def looking(event_id: Number, body: EvaluatePiece, conn: Connection, request: Request) -> Response:
    """What shows of a piece from every eye and side."""

    def work() -> bytes:
        conditions = conditions_of(conn, planning.brief_of(conn, event_id))
        with conditions.figures.open():
            made = build(body.piece, conditions)
            eyes = evaluate(body.piece, conditions, with_fixes=False).picture.eyes
            return _LOOKING.dump_json(looking_at(made, eyes))

    return _json(await while_wanted(request, work))


@router.post("/making", response_model=MakingReport)
async def making(event_id: Number, body: EvaluatePiece, conn: Connection, request: Request) -> Response:
    """The making order of a piece: every step with its margins, its gates, the pull list."""

    def work() -> bytes:
        conditions = conditions_of(conn, planning.brief_of(conn, event_id))
        return _MAKING.dump_json(making_of(body.piece, conditions, with_fixes=body.with_fixes))

    return _json(await while_wanted(request, work))


@router.post("/choose", response_model=list[Option])
async def choose_mechanic(event_id: Number, body: EvaluatePiece, conn: Connection, request: Request) -> Response:
    """Every mechanic for a piece, while somebody waits for that."""

    def work() -> bytes:
        return _OPTIONS.dump_json(list(judging.options_of(conn, body.piece, planning.brief_of(conn, event_id))))

    return _json(await while_wanted(request, work))


@router.post("/matching")
def matching(event_id: Number, body: EvaluatePiece, conn: Connection) -> Match:
    """A piece against the picture that it is to look like. Refused where it has none."""
    conditions = conditions_of(conn, planning.brief_of(conn, event_id))
    if body.piece.wish is None:
        raise NotFound("a picture to match")
    with conditions.figures.open():
        return match(body.piece, body.piece.wish, conditions.varieties, COLOURS)


@router.post("/say")
def say(event_id: Number, body: SayIt, conn: Connection) -> Understood:
    brief = planning.brief_of(conn, event_id)
    conditions = conditions_of(conn, brief)
    return say_it(body.text, body.piece, conditions, system=body.system, vessels=stock.vessels(conn))


@router.get("/parts/{part_id}/patterns.{ending}")
def patterns(
    event_id: Number, part_id: Number, ending: Literal["svg", "dxf", "pdf"], conn: Connection, paper: Paper = "A4"
) -> Response:
    """What of a piece or an armature is cut from the flat, at true size."""
    part, brief = planning.part_of(conn, event_id, part_id)
    conditions = conditions_of(conn, brief)
    if hangs(part):
        where = Where(event=event_id, brief=brief, part=part_id)
        sized = judging.rig_report_of(conn, where, part, conditions).take_off.sized
        name = f"{part.name}, a section" if sized.sections > 1 else part.name
        flat: tuple[Pattern, ...] = (
            run_pattern(name, sized.netting, width_m=sized.sheet.width_m, length_m=sized.section_m),
        )
    else:
        flat = patterns_of(build(planning.piece_of(conn, event_id, part_id)[0], conditions))
    headers = {"Content-Disposition": f'inline; filename="{free_key(part.name, set())}.{ending}"'}
    match ending:
        case "svg":
            return Response(write_svg(flat), media_type="image/svg+xml", headers=headers)
        case "dxf":
            # it brings a drawing program's whole vocabulary with it: half a second of every start
            from jolly_trellis.exchange.pattern_dxf import write_dxf

            return Response(write_dxf(flat), media_type="image/vnd.dxf", headers=headers)
        case "pdf":
            page = write_pdf(flat, paper=paper, title=part.name, stamp=stamp_of(conn, event_id))
            return Response(page, media_type="application/pdf", headers=headers)
