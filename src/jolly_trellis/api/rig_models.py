"""What goes into and comes out of the rig place over the web."""

from typing import Annotated

from pydantic import BaseModel, Field

from jolly_trellis.api.models import BasedOn, In, Key, Name, RecipeLineIn
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.lines import Fitting, LineKind
from jolly_trellis.core.rigging.rig import ArmatureKind, HangKind, Rig, Stiffness
from jolly_trellis.services.planning import EventState
from jolly_trellis.store import codec

Place = Annotated[float, Field(ge=-60, le=60, description="m")]
Force = Annotated[float, Field(ge=0, le=1_000_000, description="N")]


class LineSpecIn(In):
    kind: LineKind
    size_m: Annotated[float, Field(gt=0, le=0.05)] | None = None
    stated_n: Annotated[float, Field(gt=0, le=200_000)] | None = None
    fitting: Fitting = "knot"
    stainless: bool = False
    wet: bool = False
    over_edge: bool = False


class HangPointIn(In):
    name: Name
    kind: HangKind
    x_m: Place
    y_m: Place
    z_m: Annotated[float, Field(ge=0, le=60)]
    rating_n: Force | None = None
    stated_by: Annotated[str, Field(min_length=1, max_length=80)] | None = None
    stated_on: Annotated[str, Field(min_length=1, max_length=20)] | None = None


class AttachmentIn(In):
    x_m: Place
    y_m: Place
    z_m: Annotated[float, Field(ge=0, le=60)]
    along_m: Annotated[float, Field(ge=0, le=200)] | None = None


class RigLineIn(In):
    point: Annotated[int, Field(ge=0, le=400)]
    attachment: Annotated[int, Field(ge=0, le=400)]
    spec: LineSpecIn


class ArmatureIn(In):
    kind: ArmatureKind
    length_m: Annotated[float, Field(gt=0, le=100)]
    diameter_m: Annotated[float, Field(gt=0, le=5)] = 0.11
    width_m: Annotated[float, Field(ge=0, le=10)] = 0.0
    turns: Annotated[float, Field(ge=1, le=6)] = 1.6
    netting: Key | None = None
    stiffness: Stiffness = "twig-stiffened"
    fuller_first: Annotated[float, Field(ge=0.1, le=10)] = 1.0
    stem_cut_m: Annotated[float, Field(ge=0.03, le=2)] = 0.25


class RigIn(In):
    name: Name
    points: Annotated[list[HangPointIn], Field(max_length=40)]
    attachments: Annotated[list[AttachmentIn], Field(max_length=40)]
    lines: Annotated[list[RigLineIn], Field(max_length=40)]
    armature: ArmatureIn
    recipe: Annotated[list[RecipeLineIn], Field(default_factory=list, max_length=40)]
    over_people: bool = True
    walkway: bool = False
    extra_kg: Annotated[float, Field(ge=0, le=500)] = 0.0
    bond: LineSpecIn | None = None

    def to_core(self) -> Rig:
        return codec.from_plain(self.model_dump(), Rig)


class AssessRig(In):
    rig: RigIn


class SnipLine(In):
    rig: RigIn
    cut: Annotated[int, Field(ge=0, le=40)]


class PutRig(BasedOn):
    rig: RigIn
    label: Annotated[str, Field(min_length=1, max_length=80)] = "Change the rig"


class SavedRig(BaseModel):
    """A hung piece after a write: where the event stands now, the plan kept, and its report or why there is none."""

    id: int
    revision: int
    undo: str | None
    redo: str | None
    rig: Rig
    report: RigReport

    @classmethod
    def from_core(cls, state: EventState, rig_id: int, report: RigReport) -> "SavedRig":
        return cls(
            id=rig_id,
            revision=state.event.revision,
            undo=state.undo,
            redo=state.redo,
            rig=state.plan.rigs_by_id()[rig_id],
            report=report,
        )
