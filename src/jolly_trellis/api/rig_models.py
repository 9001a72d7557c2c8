"""What is asked of and answered by the rig place."""

from typing import Annotated

from pydantic import BaseModel, Field

from jolly_trellis.api.sent import In, Sent
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.rigging.survey import Survey, SurveyBeam, SurveyPoint
from jolly_trellis.services.gate import Based, Chosen

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
    beams: tuple[Annotated[SurveyBeam, Sent()], ...] = ()
    room_width_m: float | None = None
    room_depth_m: float | None = None
    room_height_m: float | None = None
    was: Annotated[Survey, Sent()] | None = None
    chosen: Annotated[Chosen, Sent()] | None = None

    def based(self) -> Based[Survey]:
        return Based(revision=self.base_revision, was=self.was, chosen=self.chosen)


class SurveyOut(BaseModel):
    """The survey of an event's place; `open` is what is still to be asked of each point, by its place in the list."""

    place: str
    revision: int
    survey: Survey
    open: list[tuple[str, ...]]
    can_put_back: bool


class AssessRig(In):
    """A rig; `part`: which of its event's it is, None for one that is not kept."""

    rig: Annotated[Rig, Sent()]
    part: Annotated[int, Field(ge=1, le=2**53)] | None = None


class SnipLine(AssessRig):
    cut: At
