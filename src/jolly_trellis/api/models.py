"""What may come in, with its ranges and units; what goes out is the core's own frozen values."""

from decimal import Decimal
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from jolly_trellis.core.piece import (
    Arrangement,
    Behind,
    FootMaterial,
    Form,
    MechanicKind,
    Piece,
    SpillHold,
    Surface,
    WaterSource,
    Where,
)
from jolly_trellis.core.practice import FillSchool, FixingSchool, FrogSchool, PatternSchool, WireFinish
from jolly_trellis.core.provenance import ProvenanceKind
from jolly_trellis.core.stems import Role
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.core.vessels import Material, PlanShape, Vessel
from jolly_trellis.store import codec
from jolly_trellis.store.plan import Brief

Size = Annotated[float, Field(gt=0, le=5, description="m")]
Height = Annotated[float, Field(ge=0, le=5, description="m")]
Name = Annotated[str, Field(min_length=1, max_length=120)]
Key = Annotated[str, Field(min_length=1, max_length=60)]


class In(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class ProfilePointIn(In):
    height_m: Height
    width_m: Size
    depth_m: Size


class VesselIn(In):
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


class EnvelopeIn(In):
    height_m: Size
    width_m: Size
    depth_m: Size
    form: Form = "dome"


class StemTubeIn(In):
    inner_diameter_m: Annotated[float, Field(ge=0.004, le=0.1)] = 0.014
    length_m: Annotated[float, Field(ge=0.02, le=0.5)] = 0.09
    air_gap_m: Annotated[float, Field(ge=0, le=0.2)] = 0.005
    stem_in_m: Annotated[float, Field(gt=0, le=0.5)] = 0.06
    tilt_rad: Annotated[float, Field(ge=0, le=3.1416)] = 0.0
    fill_share: Annotated[float, Field(ge=0, le=1)] = 1.0
    cap_seals: bool = False


class RecipeLineIn(In):
    variety: Key
    count: Annotated[int, Field(ge=1, le=400)]
    role: Role
    clump: Annotated[int, Field(ge=1, le=40)] = 1
    water: WaterSource = "vessel"
    tube: StemTubeIn | None = None
    wrap_ml: Annotated[float, Field(gt=0, le=5000)] | None = None
    on_site: bool = False


class MechanicIn(In):
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


class PeopleIn(In):
    seated: bool = True
    both_sides: bool = True
    seat_distance_m: Annotated[float, Field(ge=0.2, le=5)] = 0.55
    table_height_m: Annotated[float, Field(ge=0, le=2)] = 0.75
    standing: bool = True
    standing_distance_m: Annotated[float, Field(ge=0.3, le=10)] = 1.2
    a_little_may_show: bool = False


class LedgeIn(In):
    depth_m: Size
    height_m: Annotated[float, Field(ge=0, le=6)]
    set_back_m: Annotated[float, Field(ge=0, le=3)] = 0.0
    edge_radius_m: Annotated[float, Field(ge=0, le=0.2)] = 0.0
    behind: Behind = "weights"
    wall: bool = True


class SettingIn(In):
    where: Where = "table"
    surface: Surface = "cloth"
    foot_material: FootMaterial = "glazed"
    free_table_m: Annotated[float, Field(ge=0, le=5)] | None = None
    outdoors: bool = False
    comes_down_above: Annotated[int, Field(ge=2, le=7)] = 5
    people: PeopleIn | None = PeopleIn()
    ledge: LedgeIn | None = None
    moves_to: Where | None = None


class SupportIn(In):
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


class InsertIn(In):
    outer: VesselIn
    drop_m: Annotated[float, Field(ge=0, le=1)] = 0.01


class TransportIn(In):
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


class HandPlacedIn(In):
    variety: Key
    tip_x_m: Annotated[float, Field(ge=-3, le=3)]
    tip_y_m: Annotated[float, Field(ge=-3, le=3)]
    tip_z_m: Annotated[float, Field(ge=0, le=5)]


class TopUpIn(In):
    after_h: Annotated[float, Field(ge=0, le=240)]
    volume_l: Annotated[float, Field(gt=0, le=100)]


class CounterweightIn(In):
    mass_kg: Annotated[float, Field(gt=0, le=100)]
    away_m: Annotated[float, Field(ge=0, le=2)]
    azimuth_rad: Annotated[float, Field(ge=0, le=6.2832)] = 3.141592653589793
    tied: bool = True


class CompanionIn(In):
    name: Name
    vessel: VesselIn
    envelope: EnvelopeIn
    mechanic: MechanicIn
    water_level_m: Height
    x_m: Annotated[float, Field(ge=-3, le=3)]
    y_m: Annotated[float, Field(ge=-3, le=3)]
    recipe: Annotated[list[RecipeLineIn], Field(max_length=40)] = []
    ballast_kg: Annotated[float, Field(ge=0, le=50)] = 0.0
    top_ups: Annotated[list[TopUpIn], Field(max_length=24)] = []
    tied: bool = False


class SpillIn(In):
    drop_m: Annotated[float, Field(gt=0, le=4)]
    width_m: Annotated[float, Field(ge=0.03, le=2)] = 0.15
    netting: Key | None = None
    held_by: SpillHold = "hook"
    hook_n: Annotated[float, Field(gt=0, le=20_000)] | None = None
    hook_stated_by: Annotated[str, Field(min_length=1, max_length=80)] | None = None
    recipe: Annotated[list[RecipeLineIn], Field(max_length=40)] = []
    cut_length_m: Annotated[float, Field(ge=0.05, le=1.5)] = 0.2


class BouquetIn(In):
    dome_m: Annotated[float, Field(gt=0, le=0.6)] | None = None
    hand_length_m: Annotated[float, Field(gt=0, le=0.8)] | None = None
    carried_h: Annotated[float, Field(gt=0, le=48)] | None = None
    cooler_days: Annotated[float, Field(ge=0, le=7)] = 0.0
    collar: bool = False
    bow_loops: Annotated[int, Field(ge=0, le=40)] = 0
    bow_loop_m: Annotated[float, Field(ge=0.02, le=0.5)] = 0.12
    streamers: Annotated[int, Field(ge=0, le=40)] = 0
    streamer_m: Annotated[float, Field(ge=0.05, le=3)] = 0.5


class StemRefIn(In):
    line: Annotated[int, Field(ge=0, le=40)]
    nth: Annotated[int, Field(ge=0, le=400)]
    vessel: Annotated[int, Field(ge=0, le=8)] = 0


class MakingIn(In):
    order: Annotated[list[StemRefIn], Field(max_length=1200)] = []
    propped: bool = False
    water_last: bool = False
    gates_passed: Annotated[list[Key], Field(max_length=20)] = []


class PieceIn(In):
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
    companions: Annotated[list[CompanionIn], Field(max_length=4)] = []
    spill: SpillIn | None = None
    counterweight: CounterweightIn | None = None
    bouquet: BouquetIn | None = None
    making: MakingIn = MakingIn()

    def to_core(self) -> Piece:
        plain = self.model_dump()
        plain["top_ups"].sort(key=lambda each: each["after_h"])
        return codec.from_plain(plain, Piece)


class AirIn(In):
    temperature_c: Annotated[float, Field(ge=-5, le=50)]
    relative_humidity: Annotated[float, Field(ge=0, le=1)]
    speed_m_s: Annotated[float, Field(ge=0, le=5)] = 0.1
    sun: bool = False


class PracticeIn(In):
    wire: WireFinish = "coated"
    fixing: FixingSchool = "worked out"
    fill: FillSchool = "worked out"
    pattern: PatternSchool = "one point"
    frog: FrogSchool = "worked out"
    no_single_use_plastic: bool = False
    only_in_store: bool = False


Moment = Annotated[str, Field(max_length=20)]
Clock = Annotated[str, Field(pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]


class CrewMemberIn(In):
    name: Annotated[str, Field(min_length=1, max_length=40)]


class LockIn(In):
    task: Key
    starts_at: Moment


class CostingIn(In):
    currency: Annotated[str, Field(max_length=4)] = "€"
    rate_per_h: Annotated[Decimal, Field(ge=0, le=1000, max_digits=8, decimal_places=2)] | None = None
    margin: Annotated[float, Field(ge=0, le=0.95)] = 0.3
    waste: Annotated[float, Field(ge=0, le=1)] = 0.1
    uses: Annotated[int, Field(ge=1, le=1000)] | None = None


class BriefIn(In):
    name: Name
    place: Annotated[str, Field(max_length=120)] = ""
    time_zone: Annotated[str, Field(max_length=60)] = "UTC"
    filled_at: Moment | None = None
    ends_at: Moment | None = None
    air: AirIn | None = None
    topped_up_by: Annotated[str, Field(min_length=1, max_length=80)] | None = None
    practice: PracticeIn = PracticeIn()
    access_at: Moment | None = None
    starts_at: Moment | None = None
    clear_by: Moment | None = None
    travel_h: Annotated[float, Field(ge=0, le=48)] | None = None
    tables: Annotated[int, Field(ge=0, le=1000)] | None = None
    crew: Annotated[list[CrewMemberIn], Field(max_length=12)] = []
    vehicle: Annotated[str, Field(max_length=80)] = ""
    workshop: AirIn | None = None
    van: AirIn | None = None
    opens: Clock = "08:00"
    closes: Clock = "19:00"
    costing: CostingIn = CostingIn()
    locks: Annotated[list[LockIn], Field(max_length=400)] = []
    turning: bool = True

    def to_core(self) -> Brief:
        return codec.from_plain(self.model_dump(), Brief)


class BasedOn(In):
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


class EvaluatePiece(In):
    piece: PieceIn
    with_fixes: bool = True


class SayIt(In):
    text: Annotated[str, Field(min_length=1, max_length=2000)]
    system: UnitSystem = "metric"
    piece: PieceIn
