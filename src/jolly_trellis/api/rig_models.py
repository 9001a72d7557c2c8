"""What goes into and comes out of the rig place over the web."""

from typing import Annotated

from pydantic import BaseModel, Field

from jolly_trellis.api.answers import Problem, RigOut
from jolly_trellis.api.models import BasedOn, In, Key, Name, RecipeLineIn
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.lines import Fitting, LineKind
from jolly_trellis.core.rigging.rig import (
    ArmatureKind,
    Below,
    DropCurve,
    HangKind,
    HazardKind,
    MountKind,
    Outline,
    Rig,
    Stiffness,
)
from jolly_trellis.core.rigging.survey import Survey
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


Said = Annotated[str, Field(min_length=1, max_length=120)]
Height = Annotated[float, Field(ge=0, le=60, description="m")]
At = Annotated[int, Field(ge=0, le=400)]


class HangPointIn(In):
    name: Name
    kind: HangKind
    x_m: Place
    y_m: Place
    z_m: Height
    rating_n: Force | None = None
    pull_out_n: Force | None = None
    stated_by: Said | None = None
    stated_on: Annotated[str, Field(min_length=1, max_length=20)] | None = None
    made_for: Said | None = None
    surveyed: Name | None = None


class AttachmentIn(In):
    x_m: Place
    y_m: Place
    z_m: Height
    along_m: Annotated[float, Field(ge=0, le=200)] | None = None


class RigLineIn(In):
    attachment: At
    spec: LineSpecIn
    point: At | None = None
    tied_to: At | None = None


class BondIn(In):
    spec: LineSpecIn
    point: At | None = None
    slack_m: Annotated[float, Field(ge=0, le=5)] = 0.05


class DropIn(In):
    shortest_m: Annotated[float, Field(gt=0, le=5)]
    longest_m: Annotated[float, Field(gt=0, le=5)]
    curve: DropCurve = "dome"


class ArmatureIn(In):
    kind: ArmatureKind
    length_m: Annotated[float, Field(gt=0, le=100)]
    diameter_m: Annotated[float, Field(gt=0, le=5)] = 0.11
    width_m: Annotated[float, Field(ge=0, le=10)] = 0.0
    projection_m: Annotated[float, Field(ge=0, le=2)] = 0.10
    turns: Annotated[float, Field(ge=1, le=6)] = 1.6
    sections: Annotated[int, Field(ge=1, le=40)] = 1
    netting: Key | None = None
    stiffness: Stiffness = "twig-stiffened"
    density: Annotated[list[Annotated[float, Field(ge=0.05, le=20)]], Field(default_factory=list, max_length=60)]
    stem_cut_m: Annotated[float, Field(ge=0.03, le=2)] = 0.25
    core_kg: Annotated[float, Field(ge=0, le=200)] = 0.0
    carrier: LineSpecIn | None = None
    drop: DropIn | None = None


class MountIn(In):
    kind: MountKind
    outline: Outline = "hoop"
    x_m: Place = 0.0
    width_m: Annotated[float, Field(ge=0, le=30)] = 0.0
    height_m: Height = 0.0
    foot_width_m: Annotated[float, Field(ge=0, le=20)] = 0.0
    foot_depth_m: Annotated[float, Field(ge=0, le=20)] = 0.0
    mass_kg: Annotated[float, Field(gt=0, le=5000)] | None = None
    ballast_kg: Annotated[float, Field(ge=0, le=2000)] = 0.0
    outdoors: bool = False
    comes_down_above: Annotated[int, Field(ge=2, le=7)] = 5
    tied_to: Said | None = None
    arm_m: Annotated[float, Field(ge=0, le=3)] = 0.0
    bears_below_m: Annotated[float, Field(ge=0, le=10)] = 0.0


class HazardIn(In):
    kind: HazardKind
    x_m: Place
    y_m: Place
    z_m: Height


class RigIn(In):
    name: Name
    points: Annotated[list[HangPointIn], Field(max_length=400)]
    attachments: Annotated[list[AttachmentIn], Field(max_length=400)]
    lines: Annotated[list[RigLineIn], Field(max_length=400)]
    armature: ArmatureIn
    recipe: Annotated[list[RecipeLineIn], Field(default_factory=list, max_length=40)]
    below: Below = "table"
    extra_kg: Annotated[float, Field(ge=0, le=500)] = 0.0
    bond: BondIn | None = None
    mount: MountIn | None = None
    hazards: Annotated[list[HazardIn], Field(default_factory=list, max_length=60)]
    proof_kg: Annotated[float, Field(gt=0, le=2000)] | None = None
    levelling_m: Annotated[float, Field(ge=0, le=1)] = 0.03
    dried: bool = False

    def to_core(self) -> Rig:
        return codec.from_plain(self.model_dump(), Rig)


class SizeFinished(In):
    """A finished size somebody asks for; what is None stays as it is."""

    rig: RigIn
    length_m: Annotated[float, Field(gt=0, le=100)] | None = None
    width_m: Annotated[float, Field(gt=0, le=10)] | None = None
    thick_m: Annotated[float, Field(gt=0, le=5)] | None = None


class SurveyPointIn(In):
    name: Name
    kind: HangKind
    x_m: Place
    y_m: Place
    z_m: Height
    rating_n: Force | None = None
    pull_out_n: Force | None = None
    stated_by: Said | None = None
    stated_on: Annotated[str, Field(min_length=1, max_length=20)] | None = None
    made_for: Said | None = None
    note: Annotated[str, Field(max_length=400)] = ""


class PutSurvey(In):
    base_revision: Annotated[int, Field(ge=0)]
    points: Annotated[list[SurveyPointIn], Field(max_length=200)]

    def to_core(self) -> Survey:
        return codec.from_plain({"points": self.model_dump()["points"]}, Survey)


class SurveyOut(BaseModel):
    """The survey of an event's place; `open` is what is still to be asked of each point, by its place in the list."""

    place: str
    revision: int
    survey: Survey
    open: list[tuple[str, ...]]
    can_put_back: bool


class AssessRig(In):
    rig: RigIn


class SnipLine(In):
    rig: RigIn
    cut: At


class PutRig(BasedOn):
    rig: RigIn
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
