"""What goes into and comes out of the stores over the web."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from jolly_trellis.api.models import In, Name, VesselIn
from jolly_trellis.catalog.columns import HeldKind
from jolly_trellis.core.frogs import Frog, FrogKind
from jolly_trellis.core.netting import Finish, Netting
from jolly_trellis.core.piece import MechanicKind
from jolly_trellis.core.provenance import ProvenanceKind
from jolly_trellis.core.stems import HeadForm, Stiffness, Thirst, Variety
from jolly_trellis.core.supplies import MeasuredBy, Supplier, Supply
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.core.vessels import ProfilePoint, Vessel
from jolly_trellis.store import codec


class PutVessel(In):
    vessel: VesselIn


class ProvenanceIn(In):
    kind: ProvenanceKind = "measured"
    source: Annotated[str, Field(max_length=400)] = ""


class NettingIn(In):
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


class FrogIn(In):
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


class VarietyProvenanceIn(In):
    size: ProvenanceIn = ProvenanceIn()
    mass: ProvenanceIn = ProvenanceIn()
    uptake: ProvenanceIn = ProvenanceIn()
    dry_hold: ProvenanceIn = ProvenanceIn()
    hazard: ProvenanceIn = ProvenanceIn()
    price: ProvenanceIn = ProvenanceIn()
    opening: ProvenanceIn = ProvenanceIn()


class VarietyIn(In):
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
    bulb: bool = False
    forked: bool = False
    dip: bool = False
    fold: bool = False
    side_shoots: Annotated[int, Field(ge=0, le=40)] = 0
    bunch_price: Annotated[float, Field(ge=0, le=10_000)] | None = None
    stem_price: Annotated[float, Field(ge=0, le=10_000)] | None = None
    conditioning_h: Annotated[float, Field(ge=0, le=72)] = 6.0
    opening_days: Annotated[float, Field(ge=0, le=60)] = 0.0
    provenance: VarietyProvenanceIn = VarietyProvenanceIn()

    def to_core(self, key: str) -> Variety:
        return codec.from_plain({"key": key, **self.model_dump()}, Variety)


class SupplyIn(In):
    name: Name
    measured_by: MeasuredBy
    pack: Annotated[float, Field(gt=0, le=10_000)]
    stick_m: Annotated[float, Field(gt=0, le=10)] | None = None
    price: Annotated[float, Field(ge=0, le=10_000)] | None = None
    spare: Annotated[float, Field(ge=0, le=2)] = 0.0
    supplier: Supplier = "sundries"
    provenance: ProvenanceIn = ProvenanceIn()

    def to_core(self, key: str) -> Supply:
        return codec.from_plain({"key": key, **self.model_dump()}, Supply)


class PutNetting(In):
    netting: NettingIn


class PutFrog(In):
    frog: FrogIn


class PutVariety(In):
    variety: VarietyIn


class PutSupply(In):
    supply: SupplyIn


class PutHolding(In):
    on_hand: Annotated[int, Field(ge=0, le=10_000)] = 0
    retired: bool = False


class ImportTable(In):
    text: Annotated[str, Field(min_length=1, max_length=900_000)]
    dry_run: bool = True


class ReadOutline(In):
    text: Annotated[str, Field(min_length=1, max_length=500_000)]
    written_as: Literal["svg", "table"]
    inside_depth_m: Annotated[float, Field(gt=0, le=5)] | None = None
    half: bool = False
    system: UnitSystem = "metric"


class CheckFill(In):
    vessel: VesselIn
    poured_l: Annotated[float, Field(gt=0, le=500)]


class HoldingOut(BaseModel):
    on_hand: int
    retired: bool


class StockOut(BaseModel):
    vessels: dict[str, Vessel]
    nettings: dict[str, Netting]
    frogs: dict[str, Frog]
    varieties: dict[str, Variety]
    supplies: dict[str, Supply]
    holdings: dict[HeldKind, dict[str, HoldingOut]]


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
    bought: bool
    bound: bool


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
