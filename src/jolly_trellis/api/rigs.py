"""The rig place: hung and mounted work solved while it is drawn, and snipped; the survey of the place."""

from fastapi import APIRouter, Request
from fastapi.responses import Response
from pydantic import TypeAdapter

from jolly_trellis.api.deps import BaseRevision, Connection, Number, while_wanted
from jolly_trellis.api.rig_models import AssessRig, PutSurvey, SizeFinished, SnipLine, SurveyOut
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.rigging.armatures import for_finished
from jolly_trellis.core.rigging.assess import RigReport, assess
from jolly_trellis.core.rigging.drops import as_made
from jolly_trellis.core.rigging.fixes import RigFix, fixes_of
from jolly_trellis.core.rigging.resting import Rest, settle
from jolly_trellis.core.rigging.rig import Armature, Rig
from jolly_trellis.core.rigging.snip import SnipStep, snip
from jolly_trellis.core.rigging.survey import Survey, unanswered
from jolly_trellis.services import planning, rigging
from jolly_trellis.services.conditions import conditions_of
from jolly_trellis.services.rigging import Where

_REST = TypeAdapter(Rest)
router = APIRouter(prefix="/api/events/{event_id}", tags=["rig"])


@router.post("/assess")
def assess_rig(event_id: Number, body: AssessRig, conn: Connection) -> RigReport:
    return _judged(conn, event_id, body.part, body.rig)


@router.post("/settle", response_model=Rest)
def settle_rig(event_id: Number, body: AssessRig, conn: Connection) -> Response:
    """Asked many times a second while a hand drags: written straight to JSON, since the core made every value."""
    rest = settle(body.rig, conditions_of(conn, planning.brief_of(conn, event_id)))
    return Response(_REST.dump_json(rest), media_type="application/json")


@router.post("/rig-fixes")
async def rig_fixes(event_id: Number, body: AssessRig, conn: Connection, request: Request) -> list[RigFix]:
    """What would clear a rig, while somebody waits for that."""

    def work() -> list[RigFix]:
        rig, conditions = _there(conn, event_id, body.part, body.rig)
        return list(fixes_of(rig, _judged(conn, event_id, body.part, rig), conditions))

    return await while_wanted(request, work)


@router.post("/rig-finished")
def size_finished(body: SizeFinished) -> Armature:
    """The armature to cut for a finished size."""
    armature = as_made(body.rig).armature
    return for_finished(armature, length_m=body.length_m, width_m=body.width_m, thick_m=body.thick_m)


@router.post("/snip")
def snip_line(event_id: Number, body: SnipLine, conn: Connection) -> list[SnipStep]:
    rig, conditions = _there(conn, event_id, body.part, body.rig)
    return list(snip(rig, conditions, body.cut))


@router.get("/survey")
def get_survey(event_id: Number, conn: Connection) -> SurveyOut:
    """The survey of the event's place; an empty one, of revision 0, where nobody has made one."""
    _, row = rigging.survey_of(conn, event_id)
    return SurveyOut(
        place=planning.brief_of(conn, event_id).place,
        revision=row.revision,
        survey=row.survey,
        open=[unanswered(point) for point in row.survey.points],
        can_put_back=row.previous is not None,
    )


@router.put("/survey")
def put_survey(event_id: Number, body: PutSurvey, conn: Connection) -> SurveyOut:
    survey = Survey(
        points=tuple(body.points),
        beams=body.beams,
        room_width_m=body.room_width_m,
        room_depth_m=body.room_depth_m,
        room_height_m=body.room_height_m,
    )
    rigging.put_survey(conn, event_id, survey, body.based())
    return get_survey(event_id, conn)


@router.post("/survey/put-back")
def put_survey_back(event_id: Number, conn: Connection, base_revision: BaseRevision) -> SurveyOut:
    """The survey as it was before its last change."""
    rigging.put_back(conn, event_id, base_revision=base_revision)
    return get_survey(event_id, conn)


def _there(conn: Connection, event_id: int, part: int | None, rig: Rig) -> tuple[Rig, Conditions]:
    """A rig with what its place's survey says, and the conditions of its event."""
    brief = planning.brief_of(conn, event_id)
    return rigging.in_place(conn, Where(event=event_id, brief=brief, part=part), rig), conditions_of(conn, brief)


def _judged(conn: Connection, event_id: int, part: int | None, rig: Rig) -> RigReport:
    rig, conditions = _there(conn, event_id, part, rig)
    return assess(rig, conditions)
