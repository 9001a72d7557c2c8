"""The plan of an event: its brief and its parts, kept and undone as one."""

from dataclasses import dataclass, field
from typing import Annotated, Generic, TypeVar, cast

from jolly_trellis.core.event.job import (
    CREW_MOST,
    Answer,
    Clock,
    Costing,
    CrewMember,
    Hire,
    Lock,
    Quote,
    Reused,
    Supplier,
)
from jolly_trellis.core.event.parts import Part, hangs, in_vessels
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.practice import Practice
from jolly_trellis.core.ranges import Many, Range, Text
from jolly_trellis.core.rigging.rig import Rig

MOST_PARTS = 700
P = TypeVar("P", covariant=True)
Local = Annotated[str | None, Text(20)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Brief:
    """What is known of the job. Times are local, "YYYY-MM-DDTHH:MM", in `time_zone`; None is not known yet.

    `place_key` is which place it is, whatever it is called; empty asks for the one that is called so.
    `access_at` is when the place lets the crew in, `starts_at` when guests come, `clear_by` when all must be gone.
    `travel_h` is one way; `tables` how many guest tables; `workshop` and `van` their air. The workshop is open from
    `opens` to `closes`, "HH:MM". Hung and mounted work may go up from `builds_from` to `builds_to`, before the
    day. `seats` is how many the vehicle takes; `buckets` and `cool_buckets` how many buckets the workshop has and its
    cool room takes; with `greens_sooner` greens go in a day sooner than is usual. `locks` are tasks set by hand;
    `turning` lets sheets lie across the roll's length where that saves netting. `hires` are things hired for it,
    `reused` what is made from finished armatures of the stores, `quote` the price the client accepted, `answers` what
    places and owners have answered. `figures` is the edition of the book of figures that the event is planned with;
    empty is the book as it stands.
    """

    name: Annotated[str, Text(120, least=1)]
    place: Annotated[str, Text(120)] = ""
    place_key: Annotated[str, Text(60)] = ""
    time_zone: Annotated[str, Text(60)] = "UTC"
    filled_at: Local = None
    ends_at: Local = None
    air: Air | None = None
    topped_up_by: Annotated[str | None, Text(80, least=1)] = None
    practice: Practice = field(default_factory=Practice)
    access_at: Local = None
    starts_at: Local = None
    clear_by: Local = None
    travel_h: Annotated[float | None, Range("duration", 0, 48)] = None
    tables: Annotated[int | None, Range("count", 0, 1000)] = None
    crew: Annotated[tuple[CrewMember, ...], Many(CREW_MOST)] = ()
    vehicle: Annotated[str, Text(80)] = ""
    workshop: Air | None = None
    van: Air | None = None
    opens: Clock = "08:00"
    closes: Clock = "19:00"
    costing: Costing = field(default_factory=Costing)
    locks: Annotated[tuple[Lock, ...], Many(400)] = ()
    suppliers: Annotated[tuple[Supplier, ...], Many(12)] = ()
    builds_from: Local = None
    builds_to: Local = None
    seats: Annotated[int | None, Range("count", 1, 60)] = None
    greens_sooner: bool = False
    buckets: Annotated[int | None, Range("count", 0, 5000)] = None
    cool_buckets: Annotated[int | None, Range("count", 0, 5000)] = None
    turning: bool = True
    hires: Annotated[tuple[Hire, ...], Many(100)] = ()
    reused: Annotated[tuple[Reused, ...], Many(400)] = ()
    quote: Quote | None = None
    answers: Annotated[tuple[Answer, ...], Many(8)] = ()
    figures: Annotated[str, Text(16)] = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Planned(Generic[P]):
    """A part with the number it keeps for life."""

    id: int
    part: P


@dataclass(frozen=True, slots=True, kw_only=True)
class Plan:
    """An event's brief and its parts, in order."""

    brief: Brief
    parts: tuple[Planned[Part], ...] = ()

    def by_id(self) -> dict[int, Part]:
        """The parts by number."""
        return {each.id: each.part for each in self.parts}

    @property
    def pieces(self) -> tuple[Planned[Piece], ...]:
        """The parts that stand or are carried, in order."""
        return tuple(cast(Planned[Piece], each) for each in self.parts if in_vessels(each.part))

    @property
    def rigs(self) -> tuple[Planned[Rig], ...]:
        """The parts that hang or are mounted, in order."""
        return tuple(cast(Planned[Rig], each) for each in self.parts if hangs(each.part))
