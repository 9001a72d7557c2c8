"""What goes into and comes out of the stores over the web."""

from collections.abc import Mapping
from typing import TYPE_CHECKING, Annotated, Any, Literal

from pydantic import Base64Bytes, BaseModel, Field, create_model

from jolly_trellis.api.paper import EventPaper
from jolly_trellis.api.sent import In, Sent
from jolly_trellis.catalog.about import STORES, About, ShownColumn
from jolly_trellis.catalog.rows import HeldKind, StoreKind
from jolly_trellis.core.drawing.heads import Head
from jolly_trellis.core.drawing.primitives import Primitive
from jolly_trellis.core.event.recipes.recipes import ScaleBy
from jolly_trellis.core.event.starting.starts import Asks
from jolly_trellis.core.event.starting.usual import Usual
from jolly_trellis.core.glossary import Term
from jolly_trellis.core.materials.frogs import FrogKind
from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.piece import Form, MechanicKind
from jolly_trellis.core.plan_shapes import PlanShape
from jolly_trellis.core.rigging.hang_points import HangKind
from jolly_trellis.core.rigging.lines import Fitting, LineKind
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.services.gate import Chosen
from jolly_trellis.store.stock import Holding
from jolly_trellis.store.stock_history import Deleted


class PutThing(In):
    """A thing of the stores; `was`: as its window began from it."""

    chosen: Annotated[Chosen, Sent()] | None = None


def _put_thing(about: About) -> type[PutThing]:
    sent: Any = Annotated[about.thing, Sent(keyed=about.kind != "vessel")]
    fields: dict[str, Any] = {about.kind: (sent, ...), "was": (sent | None, None)}
    return create_model(f"Put{about.kind.title()}", __base__=PutThing, **fields)


PUT_THINGS: Mapping[StoreKind, type[PutThing]] = {kind: _put_thing(about) for kind, about in STORES.items()}


class DrawVessel(In):
    vessel: Annotated[Vessel, Sent()]


class PutCurrency(In):
    currency: Annotated[str, Field(min_length=1, max_length=4)]


class AddPicture(In):
    """A picture's bytes in base 64."""

    data: Annotated[Base64Bytes, Field(max_length=16_000_000)]


class CountIn(In):
    on_hand: Annotated[int, Field(ge=0, le=10_000)] = 0
    retired: bool = False
    lasts: Annotated[int, Field(ge=1, le=10_000)] | None = None
    used: Annotated[int, Field(ge=0, le=10_000_000)] = 0
    resale: Annotated[float, Field(ge=0, le=10_000)] | None = None

    def to_core(self) -> Holding:
        return Holding(
            on_hand=self.on_hand, retired=self.retired, lasts=self.lasts, used=self.used, resale=self.resale
        )


class PutHolding(CountIn):
    was: CountIn | None = None
    chosen: Annotated[Chosen, Sent()] | None = None


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
    vessel: Annotated[Vessel, Sent()]
    poured_l: Annotated[float, Field(gt=0, le=500)]


class HoldingOut(BaseModel):
    """How many there are and how they wear; `uses` is how often one is used, by the holding or by the figures, None
    where it is used up.
    """

    on_hand: int
    retired: bool
    lasts: int | None
    used: int
    resale: float | None


class StockHead(BaseModel):
    """How vessels look, what undo and redo would do, what was deleted, how many there are of each thing.

    Every write to the stores names their `revision`, exactly.
    """

    revision: int
    currency: str
    undo: str | None
    redo: str | None
    deleted: list[Deleted]
    drawn: dict[str, list[Primitive]]
    holdings: dict[HeldKind, dict[str, HoldingOut]]


if TYPE_CHECKING:

    class StockOut(StockHead):
        def __init__(self, **values: Any) -> None: ...

else:
    # All the stores have, each kind under what many of it are called.
    StockOut = create_model(
        "StockOut",
        __base__=StockHead,
        **{about.plural: (dict[str, about.thing], ...) for about in STORES.values()},
    )


class ViewOut(BaseModel):
    """Some columns of a table of the stores that are shown together; its words are empty where it is the only one."""

    words: str
    columns: list[ShownColumn]


class StoreOut(BaseModel):
    """A kind of thing of the stores: what many are called in answers and on the screen, and what is shown of it."""

    kind: StoreKind
    plural: str
    title: str
    views: list[ViewOut]


class VesselDrawn(BaseModel):
    """What a vessel looks like."""

    drawn: list[Primitive]


class Kept(BaseModel):
    """What a thing is kept under, and the revision of the stores with it."""

    key: str
    revision: int


class AboutOut(BaseModel):
    """A kind of mechanic, for choosing it by hand; `reads` names the fields of the plan that size it."""

    kind: MechanicKind
    name: str
    what: str
    netting: bool
    frog: FrogKind | None
    tapes: bool
    bought: bool
    of: str
    reads: list[str]
    moss_round: bool


class FittingOut(BaseModel):
    """A way a kind of line can be made off, as done to it: “knotted”."""

    fitting: Fitting
    done: str


class LineOut(BaseModel):
    """A kind of line: whether it goes by its packet, what it is unless somebody says, its fittings, its own first."""

    kind: LineKind
    rated: bool
    usual_m: float | None
    usual_n: float | None
    fittings: list[FittingOut]


class FormOut(BaseModel):
    kind: Form
    name: str


class ShapeOut(BaseModel):
    """A vessel seen from above, whether it is as deep as it is wide, and points of its outline in half sizes."""

    kind: PlanShape
    even: bool
    outline: list[tuple[float, float]]


class PointKindOut(BaseModel):
    """A kind of hang point: its name, whether anything may hang from it, and what else is asked of it."""

    kind: HangKind
    name: str
    never: bool
    in_wall: bool
    part: bool


class StartOut(BaseModel):
    """One thing a part can start as, what has to be chosen for it, and what to measure first; `vessel` is its usual
    one, `by` how its recipe goes with its size, None for a blank one.
    """

    key: str
    kind: str
    name: str
    asks: Asks
    measure: list[str]
    vessel: str | None
    by: ScaleBy | None


class SchoolOut(BaseModel):
    field: str
    question: str
    answers: list[str]
    why: str


class ColourOut(BaseModel):
    """A colour as florists call it."""

    name: str
    colour: str


class TradeOut(BaseModel):
    """What can be chosen: mechanics, and the questions on which the trade disagrees; words; from which use on a thing
    is tight as a rule."""

    stores: list[StoreOut]
    papers: list[EventPaper]
    mechanics: list[AboutOut]
    lines: list[LineOut]
    forms: list[FormOut]
    shapes: list[ShapeOut]
    heads: list[Head]
    hang_points: list[PointKindOut]
    starts: list[StartOut]
    usual: Usual
    schools: list[SchoolOut]
    glossary: list[Term]
    tight_from: float
    colours: list[ColourOut]


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
