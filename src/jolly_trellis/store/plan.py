"""The plan of an event: its brief and its pieces, kept and undone as one."""

from dataclasses import dataclass, field

from jolly_trellis.core.piece import Air, Piece
from jolly_trellis.core.practice import Practice


@dataclass(frozen=True, slots=True, kw_only=True)
class Brief:
    """What is known of the job. Times are local, "YYYY-MM-DDTHH:MM", in `time_zone`; None is not known yet."""

    name: str
    place: str = ""
    time_zone: str = "UTC"
    filled_at: str | None = None
    ends_at: str | None = None
    air: Air | None = None
    topped_up_by: str | None = None
    practice: Practice = field(default_factory=Practice)


@dataclass(frozen=True, slots=True, kw_only=True)
class PlannedPiece:
    """A piece with the number it keeps for life."""

    id: int
    piece: Piece


@dataclass(frozen=True, slots=True, kw_only=True)
class Plan:
    """An event's brief and pieces, in order."""

    brief: Brief
    pieces: tuple[PlannedPiece, ...] = ()

    def by_id(self) -> dict[int, Piece]:
        """The pieces by number."""
        return {each.id: each.piece for each in self.pieces}
