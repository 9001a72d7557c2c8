"""What goes out: problems, the line-up, pieces after a write, figures; the core's own frozen values within."""

from pydantic import BaseModel

from jolly_trellis.core.drawing.picture import Picture
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.headline import Headline
from jolly_trellis.core.event.parts import AnyPart
from jolly_trellis.core.event.tasks.asked import Asks
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.plan.kinds import AnyPiece
from jolly_trellis.core.quantities import Phrase
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.services.settling import ToSettle
from jolly_trellis.store.plan import Brief


class Problem(BaseModel):
    """One sentence for one place: what is wrong, what would be right, and where it was typed."""

    code: str
    path: str
    message: Phrase
    limit: Phrase

    @classmethod
    def of(cls, problem: CoreError) -> "Problem":
        return cls(code=problem.code, path=problem.path, message=problem.message, limit=problem.limit)


class EventSummary(BaseModel):
    """An event in the list of all: its brief, as far as it is known, and how far its plan has come."""

    id: int
    revision: int
    brief: Brief


class DeletedEvent(BaseModel):
    """An event that was deleted and can be brought back; `deleted_at` is UTC, ISO 8601."""

    id: int
    name: str
    deleted_at: str


class PieceOut(BaseModel):
    """A part that stands or is carried: its plan, and its report or what prevents one."""

    id: int
    part: AnyPiece
    report: Report | None
    problem: Problem | None


class RigOut(BaseModel):
    """A part that hangs or is mounted: its plan, its report or what prevents one and what is planned to be seen."""

    id: int
    part: Rig
    report: RigReport | None
    planned: Picture | None
    problem: Problem | None


PartOut = PieceOut | RigOut


class EventHead(BaseModel):
    """An event but for its parts: where it stands, its brief, what undo and redo would do."""

    id: int
    revision: int
    brief: Brief
    undo: str | None
    redo: str | None
    newest_figures: bool


class EventOut(EventHead):
    """An event as it stands."""

    parts: list[PartOut]


class EventChange(EventHead):
    """An event after a write, to be laid over what was known of it at the revision the write was based on.

    `parts` are those that have changed since, or are judged otherwise; `order` the numbers of all there are. `added`
    is the number of a new one.
    """

    order: list[int]
    added: int | None
    parts: list[PartOut]


class EditSeen(BaseModel):
    """What an edit would make of a part, and what it is called; nothing is kept."""

    part: AnyPart
    label: str


class EventStanding(BaseModel):
    """Where an event stands as a whole: its headline, and what is still to settle."""

    revision: int
    headline: Headline
    to_settle: list[ToSettle]
    asks: list[Asks]


class Judging(BaseModel):
    """How many parts of an event are judged, of how many; both 0 where nothing is going on."""

    done: int
    of: int
