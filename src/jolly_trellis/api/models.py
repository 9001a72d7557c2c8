"""What may come in, with its ranges and units; what goes out is the core's own frozen values."""

from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field

from jolly_trellis.core.netting import Netting
from jolly_trellis.core.piece import FootMaterial, Form, Piece, Surface
from jolly_trellis.core.quantities import Phrase, Quantity
from jolly_trellis.core.report import Report
from jolly_trellis.core.stems import Role, Variety
from jolly_trellis.core.vessels import Material, PlanShape, Vessel
from jolly_trellis.services.planning import EventState
from jolly_trellis.store import codec
from jolly_trellis.store.plan import Brief

Size = Annotated[float, Field(gt=0, le=5, description="m")]
Height = Annotated[float, Field(ge=0, le=5, description="m")]
Name = Annotated[str, Field(min_length=1, max_length=120)]
Key = Annotated[str, Field(min_length=1, max_length=60)]


class _In(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class ProfilePointIn(_In):
    height_m: Height
    width_m: Size
    depth_m: Size


class VesselIn(_In):
    name: Name
    plan_shape: PlanShape
    profile: Annotated[list[ProfilePointIn], Field(min_length=2, max_length=24)]
    wall_m: Annotated[float, Field(ge=0.0005, le=0.1)] = 0.005
    base_m: Annotated[float, Field(ge=0, le=1)] = 0.006
    foot_width_m: Size | None = None
    foot_depth_m: Size | None = None
    mass_kg: Annotated[float, Field(gt=0, le=200)] | None = None
    material: Material = "glazed"
    clear: bool = False

    def to_core(self) -> Vessel:
        return codec.from_plain(self.model_dump(), Vessel)


class EnvelopeIn(_In):
    height_m: Size
    width_m: Size
    depth_m: Size
    form: Form = "dome"


class RecipeLineIn(_In):
    variety: Key
    count: Annotated[int, Field(ge=1, le=400)]
    role: Role
    clump: Annotated[int, Field(ge=1, le=40)] = 1


class FoldedCushionIn(_In):
    netting: Key
    layers: Annotated[int, Field(ge=1, le=4)] = 2
    layer_gap_m: Annotated[float, Field(gt=0, le=2)] | None = None
    squeeze: Annotated[float, Field(ge=0, le=0.15)] = 0.06
    tuck_m: Annotated[float, Field(ge=0, le=0.1)] | None = None
    tape_strips: Annotated[int, Field(ge=0, le=6)] | None = None
    tape_width_m: Annotated[float, Field(ge=0.003, le=0.05)] = 0.006


class SettingIn(_In):
    surface: Surface = "cloth"
    foot_material: FootMaterial = "glazed"
    free_table_m: Annotated[float, Field(ge=0, le=5)] | None = None


class TopUpIn(_In):
    after_h: Annotated[float, Field(ge=0, le=240)]
    volume_l: Annotated[float, Field(gt=0, le=100)]


class PieceIn(_In):
    name: Name
    vessel: VesselIn
    envelope: EnvelopeIn
    mechanic: FoldedCushionIn
    water_level_m: Height
    recipe: Annotated[list[RecipeLineIn], Field(max_length=40)] = []
    setting: SettingIn = SettingIn()
    ballast_kg: Annotated[float, Field(ge=0, le=50)] = 0.0
    top_ups: Annotated[list[TopUpIn], Field(max_length=24)] = []
    quantity: Annotated[int, Field(ge=1, le=500)] = 1

    def to_core(self) -> Piece:
        plain = self.model_dump()
        plain["top_ups"].sort(key=lambda each: each["after_h"])
        return codec.from_plain(plain, Piece)


class AirIn(_In):
    temperature_c: Annotated[float, Field(ge=-5, le=50)]
    relative_humidity: Annotated[float, Field(ge=0, le=1)]
    speed_m_s: Annotated[float, Field(ge=0, le=5)] = 0.1
    sun: bool = False


class BriefIn(_In):
    name: Name
    place: Annotated[str, Field(max_length=120)] = ""
    time_zone: Annotated[str, Field(max_length=60)] = "UTC"
    filled_at: Annotated[str, Field(max_length=20)] | None = None
    ends_at: Annotated[str, Field(max_length=20)] | None = None
    air: AirIn | None = None
    topped_up_by: Annotated[str, Field(min_length=1, max_length=80)] | None = None

    def to_core(self) -> Brief:
        return codec.from_plain(self.model_dump(), Brief)


class BasedOn(_In):
    """Every write names the revision it was based on."""

    base_revision: Annotated[int, Field(ge=0, le=2**53)]


class PutBrief(BasedOn):
    brief: BriefIn


class PutPiece(BasedOn):
    piece: PieceIn
    label: Annotated[str, Field(min_length=1, max_length=80)] = "Change the piece"


class ApplyFix(BasedOn):
    verb: Key
    key: Key


class EvaluatePiece(_In):
    piece: PieceIn
    with_fixes: bool = True


class AddVessel(_In):
    vessel: VesselIn


class Problem(BaseModel):
    """One sentence for one place: what is wrong, what would be right, and where it was typed."""

    code: str
    path: str
    message: Phrase
    limit: Phrase


class DifferenceOut(BaseModel):
    path: str
    was: Any
    now: Any


class StaleOut(Problem):
    revision: int
    differences: list[DifferenceOut]


class EventSummary(BaseModel):
    id: int
    name: str
    revision: int


class PieceOut(BaseModel):
    """A piece of the line-up: its plan, and its report or the problem that prevents one."""

    id: int
    piece: Piece
    report: Report | None
    problem: Problem | None


class EventOut(BaseModel):
    id: int
    revision: int
    brief: Brief
    undo: str | None
    redo: str | None
    pieces: list[PieceOut]


class SavedPiece(BaseModel):
    """A piece after a write: where the event stands now, the plan kept, and its report."""

    id: int
    revision: int
    undo: str | None
    redo: str | None
    piece: Piece
    report: Report

    @classmethod
    def from_core(cls, state: EventState, piece_id: int, report: Report) -> "SavedPiece":
        return cls(
            id=piece_id,
            revision=state.event.revision,
            undo=state.undo,
            redo=state.redo,
            piece=state.plan.by_id()[piece_id],
            report=report,
        )


class StockOut(BaseModel):
    vessels: dict[str, Vessel]
    nettings: dict[str, Netting]
    varieties: dict[str, Variety]


class FigureOut(BaseModel):
    label: str
    quantity: Quantity
    provenance: str
    source: str


class TopicOut(BaseModel):
    topic: str
    figures: list[FigureOut]


class AddedVessel(BaseModel):
    key: str
    vessel: Vessel
