"""What comes in and goes out of the lists, the cost and the tools for recipes."""

from decimal import Decimal
from typing import Annotated

from pydantic import BaseModel, Field

from jolly_trellis.api.models import BasedOn, Key
from jolly_trellis.api.sent import In, Sent
from jolly_trellis.core.event.buying.ledger import LedgerRow
from jolly_trellis.core.event.buying.orders import Order
from jolly_trellis.core.event.buying.shopping import Shopping
from jolly_trellis.core.event.cost.cost import EventCost
from jolly_trellis.core.event.recipes.lasting_care import LastingCare
from jolly_trellis.core.event.recipes.recipes import (
    ScaleBy,
    SideShoots,
)
from jolly_trellis.core.event.returning.finished import Offer
from jolly_trellis.core.event.returning.reservations import Shortfall
from jolly_trellis.core.event.tasks.days_before import VarietyDays
from jolly_trellis.core.quantities import Phrase
from jolly_trellis.services.coming_home import Back, ReturnsState
from jolly_trellis.services.price_target import Reached
from jolly_trellis.services.quoting import PriceStanding
from jolly_trellis.services.recipes import PullRow
from jolly_trellis.store.ticks import GoodsState, Tick, TickedList


class ScaleRecipe(In):
    """Two sizes of what is covered: metres of a length or diameter, square metres of an area."""

    by: ScaleBy
    was_m: Annotated[float, Field(le=1000)]
    now_m: Annotated[float, Field(le=1000)]


class ApplyScale(BasedOn):
    scale: ScaleRecipe


class MixIn(In):
    tables: Annotated[int, Field(ge=0, le=1000)]
    stands: Annotated[int, Field(ge=0, le=1000)]
    places_in_van: Annotated[int, Field(ge=0, le=1000)]
    hands: Annotated[int, Field(ge=0, le=100)]
    minutes_each: Annotated[float, Field(gt=0, le=600)] = 15.0
    minutes_there_are: Annotated[float, Field(ge=0, le=5000)]


class LastingIn(In):
    months: Annotated[int, Field(ge=1, le=120)] | None = None


class TickedIn(In):
    """How many of a line are ticked, how it came in, a note."""

    number: Annotated[float, Field(ge=0, le=1_000_000)]
    state: GoodsState = ""
    note: Annotated[str, Field(max_length=200)] = ""


class TickIn(In):
    """A line of a list that is ticked (None: not any more), over what its window knew of it (None: no tick)."""

    list: TickedList
    line: Annotated[str, Field(min_length=1, max_length=300)]
    tick: TickedIn | None
    was: TickedIn | None = None

    def as_tick(self, given: TickedIn | None) -> Tick | None:
        if given is None:
            return None
        return Tick(line=self.line, number=given.number, state=given.state, note=given.note)


class SplitIn(In):
    """What the stems of one piece may cost, and the share of it for premium ones."""

    budget: Annotated[Decimal, Field(ge=0, le=1_000_000)]
    premium: Annotated[float, Field(ge=0, le=1)] = 0.4


class KeepSplit(BasedOn):
    budget: Annotated[Decimal, Field(ge=0, le=1_000_000)]
    premium: Annotated[float, Field(ge=0, le=1)] = 0.4


class SwapIn(BasedOn):
    """A variety by its key, and another by its key or any of its names."""

    old: Annotated[str, Field(min_length=1, max_length=60)]
    new: Annotated[str, Field(min_length=1, max_length=120)]


class GoodsIn(In):
    text: Annotated[str, Field(min_length=1, max_length=500_000)]


class GoodsOut(BaseModel):
    """What is ticked now, and keys of the table that are in no order."""

    unknown: list[str]
    ticks: dict[TickedList, list[Tick]]


class ReuseIn(BasedOn):
    """So many of a part from finished armatures; none lets them go."""

    part: Annotated[int, Field(ge=1, le=1_000_000)]
    armature: Key
    number: Annotated[int, Field(ge=0, le=1000)]


class InsteadIn(BasedOn):
    """Another vessel of the stores in the place of one, by its key."""

    thing: Annotated[str, Field(min_length=1, max_length=140)]
    vessel: Key


class ListsOut(BaseModel):
    """Everything to buy and pack, what other events want as well, the days before, side shoots, stems of each piece as
    they are pulled; what is ordered from whom, what is ticked, which finished armatures would do for what, what comes
    home and how it did.
    """

    name: str
    currency: str
    shopping: Shopping
    shortfalls: list[Shortfall]
    days: list[VarietyDays]
    side_shoots: list[SideShoots]
    pull: list[PullRow]
    orders: list[Order]
    ticks: dict[TickedList, list[Tick]]
    offers: list[Offer]
    hires_out_of_time: list[Phrase]
    returns: ReturnsState
    ledger: list[LedgerRow]
    lasting: list[LastingCare]


class CostOut(BaseModel):
    """What it costs, with the revision of the event it is reckoned from, and where its price stands."""

    revision: int
    cost: EventCost
    standing: PriceStanding


class ReachOut(BaseModel):
    """What was tried to reach the target so far; None at first."""

    reached: Reached | None
    running: bool


class ReachIn(BasedOn):
    key: Annotated[str, Field(min_length=1, max_length=200)]


class HomeIn(In):
    """How everything came home; a line that is not named came back whole."""

    lines: Annotated[list[Annotated[Back, Sent()]], Field(max_length=2000)]
