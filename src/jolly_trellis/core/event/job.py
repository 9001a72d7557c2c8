"""The job around the pieces: its times, crew, prices; and every piece with what was worked out for it."""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from datetime import datetime, time
from decimal import Decimal
from typing import Annotated, Literal, get_args
from zoneinfo import ZoneInfo

from jolly_trellis.core.books.time import SKILLS, Skill
from jolly_trellis.core.event.keys import free_key, slug, thing_id
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.ranges import Many, Range, Text
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.rig import Rig

FIRST_YEAR, LAST_YEAR = 2000, 2199


Day = Annotated[str, Text(10, like=r"\d{4}-\d{2}-\d{2}", such="2027-05-15")]
Clock = Annotated[str, Text(5, like=r"([01]\d|2[0-3]):[0-5]\d", such="08:00")]
Weekday = Literal["mon", "tue", "wed", "thu", "fri", "sat", "sun"]
WEEKDAYS: tuple[Weekday, ...] = get_args(Weekday)
Part = Literal["all of it", "setting up", "strike"]
CREW_MOST = 12
Question = Literal["fire", "foraging", "food", "animals"]


@dataclass(frozen=True, slots=True, kw_only=True)
class CrewMember:
    """One pair of hands: a name, what they can do, from when to when they work on a day, and what an hour costs.

    `comes` None is from any time on, `goes` None until any time; `goes` before `comes` is after midnight. `does` is
    their part of the day itself: who does the strike alone is not at the place before it, who sets up goes before it.
    `rate_per_h` None is the event's. `key` is made of the name once.
    """

    name: Annotated[str, Text(40, least=1)]
    skills: Annotated[tuple[Skill, ...], Many(3)] = SKILLS
    comes: Clock | None = None
    goes: Clock | None = None
    does: Part = "all of it"
    rate_per_h: Annotated[Decimal | None, Range("ratio", 0, 1000)] = None
    key: Annotated[str, Text(60)] = ""

    @property
    def id(self) -> str:
        """What tells one person from all others."""
        return self.key or slug(self.name)


@dataclass(frozen=True, slots=True, kw_only=True)
class Supplier:
    """Where stems are fetched: its name, its hours on the days it is open, and the varieties it is asked for.

    `sells` holds keys of varieties; the first supplier that sells nothing in particular is asked for all others. `key`
    is made of the name once: the keys of its tasks hold it.
    """

    name: Annotated[str, Text(60, least=1)]
    opens: Clock = "06:00"
    closes: Clock = "18:00"
    days: Annotated[tuple[Weekday, ...], Many(7, least=1)] = ("mon", "tue", "wed", "thu", "fri", "sat")
    sells: Annotated[tuple[Annotated[str, Text(60, least=1)], ...], Many(400)] = ()
    key: Annotated[str, Text(60)] = ""

    @property
    def id(self) -> str:
        """What tells one supplier from all others."""
        return self.key or slug(self.name)


@dataclass(frozen=True, slots=True, kw_only=True)
class Lock:
    """A task somebody has set by hand: its key, and when it starts, local, "YYYY-MM-DDTHH:MM"."""

    task: Annotated[str, Text(120, least=1)]
    starts_at: Annotated[str, Text(20)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Hire:
    """Things that are hired for the event: what and how many, from whom, from which day to which, what one costs.

    `name` is what people call it; `thing` what tells it from all else, as `thing_id` gives it, empty: what is called
    so. `comes` and `goes_back` are local days, both in it. `each` is the hire of one, None not known; `damage` what
    the lender has asked beside it. `lender_key` is made of the lender's name once: the keys of its tasks hold it.
    """

    name: Annotated[str, Text(120, least=1)]
    number: Annotated[int, Range("count", 1, 1000)] = 1
    lender: Annotated[str, Text(80, least=1)]
    comes: Day
    goes_back: Day
    each: Annotated[Decimal | None, Range("ratio", 0, 100_000)] = None
    damage: Annotated[Decimal, Range("ratio", 0, 100_000)] = Decimal(0)
    thing: Annotated[str, Text(140)] = ""
    lender_key: Annotated[str, Text(60)] = ""

    @property
    def of(self) -> str:
        """What tells the thing it is from all others."""
        return self.thing or thing_id("", "", self.name)


def lenders_keyed(hires: Iterable[Hire]) -> tuple[Hire, ...]:
    """What is hired, each with a key of its lender: the same for all that are called the same, and for no other."""
    keys: dict[str, str] = {}
    for each in hires:
        if slug(each.lender) not in keys:
            taken = set(keys.values())
            own = each.lender_key
            keys[slug(each.lender)] = own if own and own not in taken else free_key(each.lender, taken)
    return tuple(replace(each, lender_key=keys[slug(each.lender)]) for each in hires)


@dataclass(frozen=True, slots=True, kw_only=True)
class Answer:
    """What was answered to a question that must be asked before work goes on, and by whom, in words."""

    question: Question
    words: Annotated[str, Text(300, least=1)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Reused:
    """So many of a part that are made from finished armatures of the stores, by the key of those."""

    part: Annotated[int, Range("count", 1, 1_000_000)]
    armature: Annotated[str, Text(60, least=1)]
    number: Annotated[int, Range("count", 1, 1000)]


@dataclass(frozen=True, slots=True, kw_only=True)
class QuoteLine:
    """One line of a price that was accepted: what, how many, what one is and all of them are."""

    name: Annotated[str, Text(200)]
    number: Annotated[int, Range("count", 1, 1000)]
    each: Annotated[Decimal, Range("ratio", 0, 100_000_000)]
    amount: Annotated[Decimal, Range("ratio", 0, 100_000_000)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Quote:
    """The price that the client accepted, as it stood then: line by line, without tax, the tax, with it."""

    accepted_on: Day
    currency: Annotated[str, Text(4)]
    lines: Annotated[tuple[QuoteLine, ...], Many(800)]
    price: Annotated[Decimal, Range("ratio", 0, 100_000_000)]
    tax: Annotated[Decimal, Range("ratio", 0, 100_000_000)]
    asked: Annotated[Decimal, Range("ratio", 0, 100_000_000)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Costing:
    """What money is reckoned by: the sign of the currency, an hour's work, the share of the price that is kept.

    `rate_per_h` None is not known; `margin` is the share of the price, 0 to under 1; `waste` what is bought of stems
    beyond the recipe; `uses` how often mechanics bought for this event will be used, None as each is known to last.
    The vehicle costs `per_km` for `km` in all, and `per_day` for `vehicle_days`; `delivery` is what others take to
    bring or fetch; None is not known. `breakage` is a share of all goods, `overheads` of all costs, `tax` of the
    price. `deposit` is the share of what is asked that is paid before, `paid` what has been paid; with `waits` nothing
    is bought before the deposit is in. `target` is what the client would ask for, tax in, None nothing said.
    """

    currency: Annotated[str, Text(4)] = "€"
    rate_per_h: Annotated[Decimal | None, Range("ratio", 0, 1000)] = None
    margin: Annotated[float, Range("ratio", 0, 0.95)] = 0.3
    waste: Annotated[float, Range("ratio", 0, 1)] = 0.1
    uses: Annotated[int | None, Range("count", 1, 1000)] = None
    km: Annotated[float | None, Range("ratio", 0, 5000)] = None
    per_km: Annotated[Decimal | None, Range("ratio", 0, 100)] = None
    vehicle_days: Annotated[int, Range("count", 0, 30)] = 1
    per_day: Annotated[Decimal | None, Range("ratio", 0, 10_000)] = None
    delivery: Annotated[Decimal | None, Range("ratio", 0, 100_000)] = None
    breakage: Annotated[float, Range("ratio", 0, 0.5)] = 0.0
    overheads: Annotated[float, Range("ratio", 0, 2)] = 0.0
    tax: Annotated[float, Range("ratio", 0, 0.5)] = 0.0
    deposit: Annotated[float, Range("ratio", 0, 1)] = 0.0
    paid: Annotated[Decimal, Range("ratio", 0, 100_000_000)] = Decimal(0)
    waits: bool = False
    target: Annotated[Decimal | None, Range("ratio", 0, 100_000_000, above=True)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Hours:
    """The workshop's hours on the days before, local."""

    opens: time = time(8, 0)
    closes: time = time(19, 0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Job:
    """The times and means of one event. Times are aware; None is not known yet.

    `access_at` is when the place lets the crew in, `filled_at` when water on show goes in, `starts_at` when guests
    come, `ends_at` when they go, `clear_by` when all must be gone. `travel_h` is one way. `air`, `workshop` are the
    air of the place and of the workshop. From `builds_from` to `builds_to`, before the day, hung and mounted work may
    go up already. `seats` is how many the vehicle takes, its driver too. With `greens_sooner` greens go in a day
    sooner than is usual. `buckets` is how many buckets the workshop has, `cool_buckets` how many its cool room takes.
    `hires` are things hired for it, `reused` what is made from finished armatures, `quote` the price it was taken at;
    `answers` what places and owners have answered.
    """

    zone: ZoneInfo
    access_at: datetime | None = None
    filled_at: datetime | None = None
    starts_at: datetime | None = None
    ends_at: datetime | None = None
    clear_by: datetime | None = None
    travel_h: float | None = None
    crew: tuple[CrewMember, ...] = ()
    hours: Hours = field(default_factory=Hours)
    air: Air | None = None
    workshop: Air | None = None
    topped_up_by: str | None = None
    costing: Costing = field(default_factory=Costing)
    locks: tuple[Lock, ...] = ()
    suppliers: tuple[Supplier, ...] = ()
    builds_from: datetime | None = None
    builds_to: datetime | None = None
    seats: int | None = None
    greens_sooner: bool = False
    buckets: int | None = None
    cool_buckets: int | None = None
    hires: tuple[Hire, ...] = ()
    reused: tuple[Reused, ...] = ()
    quote: Quote | None = None
    answers: tuple[Answer, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class PieceWork:
    """A piece with its number and its report, None where it could not be worked out."""

    id: int
    piece: Piece
    report: Report | None


@dataclass(frozen=True, slots=True, kw_only=True)
class RigWork:
    """A hung piece with its number and its report, None where it could not be worked out."""

    id: int
    rig: Rig
    report: RigReport | None


Work = PieceWork | RigWork


@dataclass(frozen=True, slots=True, kw_only=True)
class Made:
    """Everything made for one event."""

    pieces: tuple[PieceWork, ...] = ()
    rigs: tuple[RigWork, ...] = ()

    @property
    def works(self) -> tuple[Work, ...]:
        """All of it, pieces first."""
        return (*self.pieces, *self.rigs)


def recipe_of(work: Work) -> tuple[RecipeLine, ...]:
    """Every recipe line: a hung piece's; a piece's own, its companions', its spill's."""
    if isinstance(work, RigWork):
        return work.rig.recipe
    piece = work.piece
    spill = piece.spill.recipe if piece.spill is not None else ()
    return (*piece.recipe, *(line for each in piece.companions for line in each.recipe), *spill)


def name_of(work: Work) -> str:
    """What it is called."""
    return work.rig.name if isinstance(work, RigWork) else work.piece.name


def quantity_of(work: Work) -> int:
    """How many of it are made; hung work is made once."""
    return 1 if isinstance(work, RigWork) else work.piece.quantity
