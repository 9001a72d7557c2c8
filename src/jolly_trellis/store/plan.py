"""The plan of an event: its brief and its pieces, kept and undone as one."""

from dataclasses import dataclass, field

from jolly_trellis.core.event.job import Costing, CrewMember, Lock
from jolly_trellis.core.piece import Air, Piece
from jolly_trellis.core.practice import Practice
from jolly_trellis.core.rigging.rig import Rig


@dataclass(frozen=True, slots=True, kw_only=True)
class Brief:
    """What is known of the job. Times are local, "YYYY-MM-DDTHH:MM", in `time_zone`; None is not known yet.

    `access_at` is when the place lets the crew in, `starts_at` when guests come, `clear_by` when all must be gone.
    `travel_h` is one way; `tables` how many guest tables; `workshop` and `van` their air. The workshop is open from
    `opens` to `closes`, "HH:MM". `locks` are tasks set by hand; `turning` lets sheets lie across
    the roll's length where that saves netting.
    """

    name: str
    place: str = ""
    time_zone: str = "UTC"
    filled_at: str | None = None
    ends_at: str | None = None
    air: Air | None = None
    topped_up_by: str | None = None
    practice: Practice = field(default_factory=Practice)
    access_at: str | None = None
    starts_at: str | None = None
    clear_by: str | None = None
    travel_h: float | None = None
    tables: int | None = None
    crew: tuple[CrewMember, ...] = ()
    vehicle: str = ""
    workshop: Air | None = None
    van: Air | None = None
    opens: str = "08:00"
    closes: str = "19:00"
    costing: Costing = field(default_factory=Costing)
    locks: tuple[Lock, ...] = ()
    turning: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedPiece:
    """A piece with the number it keeps for life."""

    id: int
    piece: Piece


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedRig:
    """A hung piece with the number it keeps for life, from the same row of numbers as the pieces."""

    id: int
    rig: Rig


@dataclass(frozen=True, slots=True, kw_only=True)
class Plan:
    """An event's brief, its pieces and its hung pieces, each in order."""

    brief: Brief
    pieces: tuple[PlannedPiece, ...] = ()
    rigs: tuple[PlannedRig, ...] = ()

    def by_id(self) -> dict[int, Piece]:
        """The pieces by number."""
        return {each.id: each.piece for each in self.pieces}

    def rigs_by_id(self) -> dict[int, Rig]:
        """The hung pieces by number."""
        return {each.id: each.rig for each in self.rigs}
