"""The rig place: hung work solved while it is drawn, snipped, saved, removed."""

from fastapi import APIRouter, Response

from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.line_up import event_out
from jolly_trellis.api.models import BasedOn, EventOut
from jolly_trellis.api.rig_models import AssessRig, PutRig, SavedRig, SnipLine
from jolly_trellis.core.rigging.assess import Rest, RigReport, assess, settle
from jolly_trellis.core.rigging.fixes import RigFix, fixes_of
from jolly_trellis.core.rigging.snip import SnipStep, snip
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange.pattern_pdf import Paper
from jolly_trellis.exchange.rig_card import write_rig_card
from jolly_trellis.services import judging, planning
from jolly_trellis.services.stores import free_key

router = APIRouter(prefix="/api/events/{event_id}", tags=["rig"])


@router.post("/assess")
def assess_rig(event_id: Number, body: AssessRig, conn: Connection) -> RigReport:
    return assess(body.rig.to_core(), judging.conditions_of(conn, planning.brief_of(conn, event_id)))


@router.post("/settle")
def settle_rig(event_id: Number, body: AssessRig, conn: Connection) -> Rest:
    return settle(body.rig.to_core(), judging.conditions_of(conn, planning.brief_of(conn, event_id)))


@router.post("/rig-fixes")
def rig_fixes(event_id: Number, body: AssessRig, conn: Connection) -> list[RigFix]:
    rig, conditions = body.rig.to_core(), judging.conditions_of(conn, planning.brief_of(conn, event_id))
    return list(fixes_of(rig, assess(rig, conditions), conditions))


@router.post("/snip")
def snip_line(event_id: Number, body: SnipLine, conn: Connection) -> list[SnipStep]:
    conditions = judging.conditions_of(conn, planning.brief_of(conn, event_id))
    return list(snip(body.rig.to_core(), conditions, body.cut))


@router.post("/rigs", status_code=201)
def add_rig(event_id: Number, body: PutRig, conn: Connection) -> SavedRig:
    rig = body.rig.to_core()
    report = assess(rig, judging.conditions_of(conn, planning.brief_of(conn, event_id)))
    state = planning.add_rig(conn, event_id, rig, base_revision=body.base_revision)
    return SavedRig.from_core(state, state.plan.rigs[-1].id, report)


@router.put("/rigs/{rig_id}")
def put_rig(event_id: Number, rig_id: Number, body: PutRig, conn: Connection) -> SavedRig:
    rig = body.rig.to_core()
    report = assess(rig, judging.conditions_of(conn, planning.brief_of(conn, event_id)))
    state = planning.put_rig(conn, event_id, rig_id, rig, base_revision=body.base_revision, label=body.label)
    return SavedRig.from_core(state, rig_id, report)


@router.delete("/rigs/{rig_id}")
def remove_rig(event_id: Number, rig_id: Number, body: BasedOn, conn: Connection) -> EventOut:
    return event_out(conn, planning.remove_rig(conn, event_id, rig_id, base_revision=body.base_revision))


@router.get("/rigs/{rig_id}/card.pdf")
def rig_card(
    event_id: Number, rig_id: Number, conn: Connection, paper: Paper = "A4", system: UnitSystem = "metric"
) -> Response:
    """The rig card of a hung piece as it is kept: one page."""
    rig, brief = planning.rig_of(conn, event_id, rig_id)
    conditions = judging.conditions_of(conn, brief)
    report = assess(rig, conditions)
    snips = [list(snip(rig, conditions, cut)) for cut in range(len(rig.lines))]
    page = write_rig_card(rig, report, snips, event=brief.name, paper=paper, system=system)
    headers = {"Content-Disposition": f'inline; filename="{free_key(rig.name, set())}-rig-card.pdf"'}
    return Response(page, media_type="application/pdf", headers=headers)
