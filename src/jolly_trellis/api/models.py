"""What may come in, with its ranges and units; what goes out is the core's own frozen values."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from jolly_trellis.catalog.columns import StoreKind
from jolly_trellis.core.frogs import Frog, FrogKind
from jolly_trellis.core.netting import Finish, Netting
from jolly_trellis.core.piece import Arrangement, FootMaterial, Form, MechanicKind, Piece, Surface, WaterSource, Where
from jolly_trellis.core.practice import FillSchool, FixingSchool, FrogSchool, PatternSchool, WireFinish
from jolly_trellis.core.provenance import ProvenanceKind
from jolly_trellis.core.quantities import Phrase, Quantity
from jolly_trellis.core.report import Report
from jolly_trellis.core.stems import HeadForm, Role, Stiffness, Thirst, Variety
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.core.vessels import Material, PlanShape, ProfilePoint, Vessel
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
    provenance: ProvenanceKind = "measured"

    def to_core(self) -> Vessel:
        return codec.from_plain(self.model_dump(), Vessel)


class EnvelopeIn(_In):
    height_m: Size
    width_m: Size
    depth_m: Size
    form: Form = "dome"


class StemTubeIn(_In):
    inner_diameter_m: Annotated[float, Field(ge=0.004, le=0.1)] = 0.014
    length_m: Annotated[float, Field(ge=0.02, le=0.5)] = 0.09
    air_gap_m: Annotated[float, Field(ge=0, le=0.2)] = 0.005
    stem_in_m: Annotated[float, Field(gt=0, le=0.5)] = 0.06
    tilt_rad: Annotated[float, Field(ge=0, le=3.1416)] = 0.0
    fill_share: Annotated[float, Field(ge=0, le=1)] = 1.0
    cap_seals: bool = False


class RecipeLineIn(_In):
    variety: Key
    count: Annotated[int, Field(ge=1, le=400)]
    role: Role
    clump: Annotated[int, Field(ge=1, le=40)] = 1
    water: WaterSource = "vessel"
    tube: StemTubeIn | None = None
    wrap_ml: Annotated[float, Field(gt=0, le=5000)] | None = None
    on_site: bool = False


class MechanicIn(_In):
    kind: MechanicKind = "folded_cushion"
    netting: Key | None = None
    frog: Key | None = None
    layers: Annotated[int, Field(ge=1, le=4)] = 2
    layer_gap_m: Annotated[float, Field(gt=0, le=2)] | None = None
    squeeze: Annotated[float, Field(ge=0, le=0.15)] = 0.06
    tuck_m: Annotated[float, Field(ge=0, le=0.1)] | None = None
    tape_strips: Annotated[int, Field(ge=0, le=6)] | None = None
    tape_width_m: Annotated[float, Field(ge=0.003, le=0.05)] = 0.006
    putty: bool | None = None
    cell_m: Annotated[float, Field(ge=0.008, le=0.1)] | None = None
    cup_ml: Annotated[float, Field(ge=5, le=1000)] = 60.0


class PeopleIn(_In):
    seated: bool = True
    both_sides: bool = True
    seat_distance_m: Annotated[float, Field(ge=0.2, le=5)] = 0.55
    table_height_m: Annotated[float, Field(ge=0, le=2)] = 0.75
    standing: bool = True
    standing_distance_m: Annotated[float, Field(ge=0.3, le=10)] = 1.2
    a_little_may_show: bool = False


class SettingIn(_In):
    where: Where = "table"
    surface: Surface = "cloth"
    foot_material: FootMaterial = "glazed"
    free_table_m: Annotated[float, Field(ge=0, le=5)] | None = None
    outdoors: bool = False
    comes_down_above: Annotated[int, Field(ge=2, le=7)] = 5
    people: PeopleIn | None = PeopleIn()


class SupportIn(_In):
    name: Name
    height_m: Annotated[float, Field(gt=0, le=3)]
    top_width_m: Size
    opening_m: Annotated[float, Field(ge=0, le=2)] = 0.0
    foot_width_m: Size | None = None
    mass_kg: Annotated[float, Field(gt=0, le=200)] | None = None
    column_width_m: Size = 0.12
    water_l: Annotated[float, Field(ge=0, le=200)] = 0.0
    clear: bool = False
    ridge: bool = False
    putty: bool = False


class InsertIn(_In):
    outer: VesselIn
    drop_m: Annotated[float, Field(ge=0, le=1)] = 0.01


class TransportIn(_In):
    made_on_site: bool = False
    boxed: bool = True
    box_width_m: Size | None = None
    box_depth_m: Size | None = None
    box_wall_m: Annotated[float, Field(ge=0, le=3)] | None = None
    water_level_m: Height | None = None
    door_height_m: Size = 1.15
    door_width_m: Size = 1.10
    apart: bool = True
    carriers: Annotated[int, Field(ge=1, le=2)] = 1
    crate: bool = False


class HandPlacedIn(_In):
    variety: Key
    tip_x_m: Annotated[float, Field(ge=-3, le=3)]
    tip_y_m: Annotated[float, Field(ge=-3, le=3)]
    tip_z_m: Annotated[float, Field(ge=0, le=5)]


class TopUpIn(_In):
    after_h: Annotated[float, Field(ge=0, le=240)]
    volume_l: Annotated[float, Field(gt=0, le=100)]


class PieceIn(_In):
    name: Name
    vessel: VesselIn
    envelope: EnvelopeIn
    mechanic: MechanicIn
    water_level_m: Height
    recipe: Annotated[list[RecipeLineIn], Field(max_length=40)] = []
    setting: SettingIn = SettingIn()
    ballast_kg: Annotated[float, Field(ge=0, le=50)] = 0.0
    top_ups: Annotated[list[TopUpIn], Field(max_length=24)] = []
    quantity: Annotated[int, Field(ge=1, le=500)] = 1
    arrangement: Arrangement = "even"
    hand_placed: Annotated[list[HandPlacedIn], Field(max_length=100)] = []
    transport: TransportIn | None = None
    support: SupportIn | None = None
    insert: InsertIn | None = None
    lining: bool = False
    wrap_height_m: Annotated[float, Field(ge=0, le=3)] = 0.0
    must_lift_off: bool = False

    def to_core(self) -> Piece:
        plain = self.model_dump()
        plain["top_ups"].sort(key=lambda each: each["after_h"])
        return codec.from_plain(plain, Piece)


class AirIn(_In):
    temperature_c: Annotated[float, Field(ge=-5, le=50)]
    relative_humidity: Annotated[float, Field(ge=0, le=1)]
    speed_m_s: Annotated[float, Field(ge=0, le=5)] = 0.1
    sun: bool = False


class PracticeIn(_In):
    wire: WireFinish = "coated"
    fixing: FixingSchool = "worked out"
    fill: FillSchool = "worked out"
    pattern: PatternSchool = "one point"
    frog: FrogSchool = "worked out"
    no_single_use_plastic: bool = False
    only_in_store: bool = False


class BriefIn(_In):
    name: Name
    place: Annotated[str, Field(max_length=120)] = ""
    time_zone: Annotated[str, Field(max_length=60)] = "UTC"
    filled_at: Annotated[str, Field(max_length=20)] | None = None
    ends_at: Annotated[str, Field(max_length=20)] | None = None
    air: AirIn | None = None
    topped_up_by: Annotated[str, Field(min_length=1, max_length=80)] | None = None
    practice: PracticeIn = PracticeIn()

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


class SayIt(_In):
    text: Annotated[str, Field(min_length=1, max_length=2000)]
    system: UnitSystem = "metric"
    piece: PieceIn


class PutVessel(_In):
    vessel: VesselIn


class ProvenanceIn(_In):
    kind: ProvenanceKind = "measured"
    source: Annotated[str, Field(max_length=400)] = ""


class NettingIn(_In):
    name: Name
    aperture_m: Annotated[float, Field(ge=0.005, le=0.1)]
    wire_m: Annotated[float, Field(ge=0.0004, le=0.002)]
    finish: Finish
    roll_width_m: Annotated[float, Field(ge=0.05, le=5)]
    roll_length_m: Annotated[float, Field(ge=0.1, le=200)]
    price: Annotated[float, Field(ge=0, le=10_000)] | None = None
    counted_cells: Annotated[int, Field(ge=1, le=500)] | None = None
    counted_length_m: Annotated[float, Field(gt=0, le=5)] | None = None
    provenance: ProvenanceIn = ProvenanceIn()

    def to_core(self, key: str) -> Netting:
        return codec.from_plain({"key": key, **self.model_dump()}, Netting)


class FrogIn(_In):
    name: Name
    kind: FrogKind
    width_m: Annotated[float, Field(ge=0.01, le=0.5)]
    height_m: Annotated[float, Field(ge=0.005, le=0.3)]
    mass_kg: Annotated[float, Field(gt=0, le=20)]
    opening_m: Annotated[float, Field(ge=0.001, le=0.06)]
    openings: Annotated[int, Field(ge=0, le=500)] = 0
    volume_l: Annotated[float, Field(ge=0, le=5)] = 0.0
    price: Annotated[float, Field(ge=0, le=10_000)] | None = None
    provenance: ProvenanceIn = ProvenanceIn()

    def to_core(self, key: str) -> Frog:
        return codec.from_plain({"key": key, **self.model_dump()}, Frog)


class VarietyProvenanceIn(_In):
    size: ProvenanceIn = ProvenanceIn()
    mass: ProvenanceIn = ProvenanceIn()
    uptake: ProvenanceIn = ProvenanceIn()
    dry_hold: ProvenanceIn = ProvenanceIn()
    hazard: ProvenanceIn = ProvenanceIn()


class VarietyIn(_In):
    name: Name
    colour: Annotated[str, Field(pattern="^#[0-9a-f]{6}$")]
    form: HeadForm
    head_diameter_m: Annotated[float, Field(ge=0.001, le=1)]
    head_height_m: Annotated[float, Field(ge=0.001, le=1.5)]
    stem_diameter_m: Annotated[float, Field(ge=0.0005, le=0.08)]
    mass_kg: Annotated[float, Field(ge=0.0005, le=5)]
    mass_length_m: Annotated[float, Field(ge=0.03, le=4)]
    head_fraction: Annotated[float, Field(ge=0.01, le=0.99)]
    heavy_mass_kg: Annotated[float, Field(gt=0, le=8)] | None = None
    stiffness: Stiffness
    branch: bool = False
    uptake_ml_h: Annotated[float, Field(ge=0, le=100)]
    dry_hold_h: Annotated[float, Field(ge=0, le=2000)]
    thirst: Thirst = "usual"
    bunch_size: Annotated[int, Field(ge=1, le=500)] = 10
    sold_lengths_m: Annotated[list[Annotated[float, Field(gt=0, le=4)]], Field(min_length=1, max_length=12)]
    toxic: bool = False
    thorny: bool = False
    provenance: VarietyProvenanceIn = VarietyProvenanceIn()

    def to_core(self, key: str) -> Variety:
        return codec.from_plain({"key": key, **self.model_dump()}, Variety)


class PutNetting(_In):
    netting: NettingIn


class PutFrog(_In):
    frog: FrogIn


class PutVariety(_In):
    variety: VarietyIn


class PutHolding(_In):
    on_hand: Annotated[int, Field(ge=0, le=10_000)] = 0
    retired: bool = False


class ImportTable(_In):
    text: Annotated[str, Field(min_length=1, max_length=900_000)]
    dry_run: bool = True


class ReadOutline(_In):
    text: Annotated[str, Field(min_length=1, max_length=500_000)]
    written_as: Literal["svg", "table"]
    inside_depth_m: Annotated[float, Field(gt=0, le=5)] | None = None
    half: bool = False
    system: UnitSystem = "metric"


class CheckFill(_In):
    vessel: VesselIn
    poured_l: Annotated[float, Field(gt=0, le=500)]


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


class HoldingOut(BaseModel):
    on_hand: int
    retired: bool


class StockOut(BaseModel):
    vessels: dict[str, Vessel]
    nettings: dict[str, Netting]
    frogs: dict[str, Frog]
    varieties: dict[str, Variety]
    holdings: dict[StoreKind, dict[str, HoldingOut]]


class Kept(BaseModel):
    key: str


class AboutOut(BaseModel):
    """A kind of mechanic, for choosing it by hand."""

    kind: MechanicKind
    name: str
    what: str
    netting: bool
    frog: FrogKind | None
    tapes: bool


class SchoolOut(BaseModel):
    field: str
    question: str
    answers: list[str]
    why: str


class TradeOut(BaseModel):
    """What can be chosen: mechanics, and the questions on which the trade disagrees."""

    mechanics: list[AboutOut]
    schools: list[SchoolOut]


class RefusedOut(BaseModel):
    line: int
    column: str
    why: str


class ImportOut(BaseModel):
    """What a table would change, or has changed: keys new and changed, rows refused and why."""

    added: list[str]
    changed: list[str]
    unchanged: int
    refused: list[RefusedOut]
    written: bool


class OutlineOut(BaseModel):
    profile: list[ProfilePoint]


class FigureOut(BaseModel):
    label: str
    quantity: Quantity
    provenance: str
    source: str


class TopicOut(BaseModel):
    topic: str
    figures: list[FigureOut]
