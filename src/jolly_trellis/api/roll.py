"""The roll: the cut plan of an event, planned in the background, marked as cut, printed; remnants in the stores."""

from typing import Annotated

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, Field

from jolly_trellis.api.answers import EventChange
from jolly_trellis.api.deps import BaseRevision, Connection, Number
from jolly_trellis.api.event_answers import change_out
from jolly_trellis.api.models import BasedOn, Key
from jolly_trellis.api.sent import In
from jolly_trellis.core.event.cutting.roll import CutPlan, CutStep, cut_steps_of
from jolly_trellis.core.event.cutting.roll_problems import Material, Remnant
from jolly_trellis.services import bending, event_work, rolling, searches, stores
from jolly_trellis.services.bending import Bends
from jolly_trellis.store.cuts import CutRow

router = APIRouter(prefix="/api", tags=["roll"])


class StartCuts(In):
    seconds: Annotated[float, Field(ge=0.5, le=120)] = 10.0


class MarkCut(In):
    material: Material
    key: Key
    nth: Annotated[int, Field(ge=1, le=1000)] = 1
    cut: bool


class BendsOut(BaseModel):
    """What narrower sheets would save, as far as it was tried; None at first."""

    bends: Bends | None
    running: bool


class BendIn(BasedOn):
    key: Annotated[str, Field(min_length=1, max_length=100)]


class RemnantIn(In):
    key: Key
    material: Material
    width_m: Annotated[float, Field(ge=0, le=5)] = 0.0
    length_m: Annotated[float, Field(gt=0, le=200)]


class RollOut(BaseModel):
    """The roll as it stands: the plan (the best so far while one is looked for), its order of cuts, what is cut."""

    plan: CutPlan | None
    steps: list[list[CutStep]]
    fresh: bool
    running: bool
    cut: list[CutRow]


class RemnantsOut(BaseModel):
    netting: list[Remnant]
    supply: list[Remnant]


@router.get("/events/{event_id}/cuts")
def get_cuts(event_id: Number, conn: Connection) -> RollOut:
    state = rolling.state(conn, event_id)
    steps = [] if state.plan is None else [list(cut_steps_of(each)) for each in state.plan.materials]
    return RollOut(plan=state.plan, steps=steps, fresh=state.fresh, running=state.running, cut=list(state.cut))


@router.post("/events/{event_id}/cuts/start")
def start_cuts(event_id: Number, body: StartCuts, conn: Connection) -> RollOut:
    """Look for the best cut plan in the background; ask for the roll again to see how it stands."""
    rolling.start(conn, event_id, seconds=body.seconds)
    return get_cuts(event_id, conn)


@router.post("/events/{event_id}/cuts/stop")
def stop_cuts(event_id: Number, conn: Connection) -> RollOut:
    """End the search; the best so far is kept."""
    rolling.stop(conn, event_id)
    return get_cuts(event_id, conn)


@router.post("/events/{event_id}/cuts/mark")
def mark_cut(event_id: Number, body: MarkCut, conn: Connection) -> RollOut:
    """Mark a material as cut, which moves rolls and remnants in the stores; or take that back."""
    mark = rolling.mark_cut if body.cut else rolling.unmark_cut
    mark(conn, event_id, body.material, body.key, body.nth)
    return get_cuts(event_id, conn)


@router.get("/events/{event_id}/bends")
def get_bends(event_id: Number, conn: Connection) -> BendsOut:
    """What narrower sheets would save, tried in the background; ask again to see how it stands."""
    running = searches.bends(conn, event_id)
    if running.problem is not None:
        raise running.problem
    return BendsOut(bends=running.best, running=not running.done)


@router.post("/events/{event_id}/bends", response_model=EventChange)
def take_bend(event_id: Number, body: BendIn, conn: Connection) -> Response:
    """Cut the sheets of a piece a cell narrower."""
    state = bending.apply(conn, event_id, body.key, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision)


@router.get("/remnants")
def get_remnants(conn: Connection) -> RemnantsOut:
    larder = event_work.larder_of(conn)
    return RemnantsOut(netting=list(larder.netting_remnants), supply=list(larder.supply_remnants))


@router.post("/remnants", status_code=201)
def add_remnant(body: RemnantIn, conn: Connection, base_revision: BaseRevision) -> RemnantsOut:
    """Count a remnant into the stores by hand."""
    with stores.based_on(conn, base_revision):
        rolling.add_remnant(conn, body.material, body.key, width_m=body.width_m, length_m=body.length_m)
    return get_remnants(conn)


@router.delete("/remnants/{remnant_id}")
def remove_remnant(remnant_id: Number, conn: Connection, base_revision: BaseRevision) -> RemnantsOut:
    with stores.based_on(conn, base_revision):
        rolling.remove_remnant(conn, remnant_id)
    return get_remnants(conn)
