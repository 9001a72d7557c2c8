"""The rig place: hung and mounted work solved while it is drawn, snipped, saved, removed; the survey of the place."""

from fastapi import APIRouter, Response

from jolly_trellis.api.answers import EventOut
from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.line_up import event_out, rig_out
from jolly_trellis.api.models import BasedOn
from jolly_trellis.api.rig_models import AssessRig, PutRig, PutSurvey, SavedRig, SizeFinished, SnipLine, SurveyOut
from jolly_trellis.core.piece import Conditions
from jolly_trellis.core.rigging.armatures import for_finished
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.fixes import RigFix, fixes_of
from jolly_trellis.core.rigging.resting import Rest, settle
from jolly_trellis.core.rigging.rig import Armature, Rig
from jolly_trellis.core.rigging.snip import SnipStep, snip
from jolly_trellis.core.rigging.survey import Survey, unanswered
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.exchange.pattern_pdf import Paper
from jolly_trellis.exchange.rig_card import write_rig_card
from jolly_trellis.services import judging, planning, rigging
from jolly_trellis.services.planning import EventState
from jolly_trellis.services.stores import free_key

router = APIRouter(prefix="/api/events/{event_id}", tags=["rig"])


@router.post("/assess")
def assess_rig(event_id: Number, body: AssessRig, conn: Connection) -> RigReport:
    return _judged(conn, event_id, body.rig)


@router.post("/settle")
def settle_rig(event_id: Number, body: AssessRig, conn: Connection) -> Rest:
    return settle(body.rig, judging.conditions_of(conn, planning.brief_of(conn, event_id)))


@router.post("/rig-fixes")
def rig_fixes(event_id: Number, body: AssessRig, conn: Connection) -> list[RigFix]:
    rig, conditions = _there(conn, event_id, body.rig)
    return list(fixes_of(rig, _judged(conn, event_id, rig), conditions))


@router.post("/rig-finished")
def size_finished(body: SizeFinished) -> Armature:
    """The armature to cut for a finished size."""
    armature = body.rig.armature
    return for_finished(armature, length_m=body.length_m, width_m=body.width_m, thick_m=body.thick_m)


@router.post("/snip")
def snip_line(event_id: Number, body: SnipLine, conn: Connection) -> list[SnipStep]:
    rig, conditions = _there(conn, event_id, body.rig)
    return list(snip(rig, conditions, body.cut))


@router.post("/rigs", status_code=201)
def add_rig(event_id: Number, body: PutRig, conn: Connection) -> SavedRig:
    _check(conn, event_id, body.rig, None)
    state, number = planning.add_rig(conn, event_id, body.rig, base_revision=body.base_revision)
    return _saved(conn, state, number)


@router.put("/rigs/{rig_id}")
def put_rig(event_id: Number, rig_id: Number, body: PutRig, conn: Connection) -> SavedRig:
    rig = body.rig
    _check(conn, event_id, rig, planning.rig_of(conn, event_id, rig_id)[0])
    state = planning.put_rig(conn, event_id, rig_id, rig, base_revision=body.base_revision, label=body.label)
    return _saved(conn, state, rig_id)


@router.delete("/rigs/{rig_id}")
def remove_rig(event_id: Number, rig_id: Number, body: BasedOn, conn: Connection) -> EventOut:
    return event_out(conn, planning.remove_rig(conn, event_id, rig_id, base_revision=body.base_revision))


@router.get("/rigs/{rig_id}/card.pdf")
def rig_card(
    event_id: Number, rig_id: Number, conn: Connection, paper: Paper = "A4", system: UnitSystem = "metric"
) -> Response:
    """The rig card of a hung piece as it is kept: one page."""
    kept, brief = planning.rig_of(conn, event_id, rig_id)
    rig, conditions = _there(conn, event_id, kept)
    snips = [list(snip(rig, conditions, cut)) for cut in range(len(rig.lines))]
    report = _judged(conn, event_id, kept)
    page = write_rig_card(rig, report, snips, event=brief.name, paper=paper, system=system)
    headers = {"Content-Disposition": f'inline; filename="{free_key(rig.name, set())}-rig-card.pdf"'}
    return Response(page, media_type="application/pdf", headers=headers)


@router.get("/survey")
def get_survey(event_id: Number, conn: Connection) -> SurveyOut:
    """The survey of the event's place; an empty one, of revision 0, where nobody has made one."""
    place, row = rigging.survey_of(conn, event_id)
    return SurveyOut(
        place=place,
        revision=row.revision,
        survey=row.survey,
        open=[unanswered(point) for point in row.survey.points],
        can_put_back=row.previous is not None,
    )


@router.put("/survey")
def put_survey(event_id: Number, body: PutSurvey, conn: Connection) -> SurveyOut:
    rigging.put_survey(conn, event_id, Survey(points=tuple(body.points)), base_revision=body.base_revision)
    return get_survey(event_id, conn)


@router.post("/survey/put-back")
def put_survey_back(event_id: Number, conn: Connection) -> SurveyOut:
    """The survey as it was before its last change."""
    rigging.put_back(conn, event_id)
    return get_survey(event_id, conn)


def _there(conn: Connection, event_id: int, rig: Rig) -> tuple[Rig, Conditions]:
    """A rig with what its place's survey says, and the conditions of its event."""
    brief = planning.brief_of(conn, event_id)
    return rigging.in_place(conn, brief, rig), judging.conditions_of(conn, brief)


def _check(conn: Connection, event_id: int, rig: Rig, kept: Rig | None) -> None:
    brief = planning.brief_of(conn, event_id)
    rigging.check(conn, brief, rig, judging.conditions_of(conn, brief), kept=kept)


def _saved(conn: Connection, state: EventState, rig_id: int) -> SavedRig:
    brief = state.plan.brief
    planned = next(each for each in state.plan.rigs if each.id == rig_id)
    return SavedRig.from_core(state, rig_out(conn, brief, planned, judging.conditions_of(conn, brief)))


def _judged(conn: Connection, event_id: int, rig: Rig) -> RigReport:
    brief = planning.brief_of(conn, event_id)
    return rigging.report_of(conn, brief, rig, judging.conditions_of(conn, brief))
