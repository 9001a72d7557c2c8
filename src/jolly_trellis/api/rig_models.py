"""What goes into and comes out of the rig place over the web."""

from typing import Annotated

from pydantic import BaseModel, Field

from jolly_trellis.api.answers import Problem, RigOut
from jolly_trellis.api.models import BasedOn
from jolly_trellis.api.sent import In, Sent
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.rig import (
    Rig,
)
from jolly_trellis.core.rigging.survey import Survey, SurveyPoint
from jolly_trellis.services.planning import EventState

At = Annotated[int, Field(ge=0, le=400)]


class SizeFinished(In):
    """A finished size somebody asks for; what is None stays as it is."""

    rig: Annotated[Rig, Sent()]
    length_m: Annotated[float, Field(gt=0, le=100)] | None = None
    width_m: Annotated[float, Field(gt=0, le=10)] | None = None
    thick_m: Annotated[float, Field(gt=0, le=5)] | None = None


class PutSurvey(In):
    base_revision: Annotated[int, Field(ge=0, le=2**53)]
    points: list[Annotated[SurveyPoint, Sent()]]


class SurveyOut(BaseModel):
    """The survey of an event's place; `open` is what is still to be asked of each point, by its place in the list."""

    place: str
    revision: int
    survey: Survey
    open: list[tuple[str, ...]]
    can_put_back: bool


class AssessRig(In):
    rig: Annotated[Rig, Sent()]


class SnipLine(In):
    rig: Annotated[Rig, Sent()]
    cut: At


class PutRig(BasedOn):
    rig: Annotated[Rig, Sent()]
    label: Annotated[str, Field(min_length=1, max_length=80)] = "Change the rig"


class SavedRig(BaseModel):
    """A hung piece after a write: where the event stands now, the plan kept, and its report or what it still lacks."""

    id: int
    revision: int
    undo: str | None
    redo: str | None
    rig: Rig
    report: RigReport | None
    problem: Problem | None

    @classmethod
    def from_core(cls, state: EventState, out: RigOut) -> "SavedRig":
        return cls(
            id=out.id,
            revision=state.event.revision,
            undo=state.undo,
            redo=state.redo,
            rig=out.rig,
            report=out.report,
            problem=out.problem,
        )
