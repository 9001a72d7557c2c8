"""What goes out: problems, the line-up, pieces after a write, figures; the core's own frozen values within."""

from typing import Any

from pydantic import BaseModel

from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.headline import Headline
from jolly_trellis.core.piece import Piece
from jolly_trellis.core.quantities import Phrase
from jolly_trellis.core.report import Report
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.services.judging import Judged
from jolly_trellis.services.planning import EventState
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


class DeletedEvent(BaseModel):
    """An event that was deleted and can be brought back; `deleted_at` is UTC, ISO 8601."""

    id: int
    name: str
    deleted_at: str


class PieceOut(BaseModel):
    """A piece of the line-up: its plan, and its report or what prevents one."""

    id: int
    piece: Piece
    report: Report | None
    problem: Problem | None


class RigOut(BaseModel):
    """A hung piece of the line-up: its plan, and its report or what prevents one."""

    id: int
    rig: Rig
    report: RigReport | None
    problem: Problem | None


class EventOut(BaseModel):
    id: int
    revision: int
    brief: Brief
    undo: str | None
    redo: str | None
    newest_figures: bool
    pieces: list[PieceOut]
    rigs: list[RigOut]
    headline: Headline
    to_settle: list[ToSettle]


class SavedPiece(BaseModel):
    """A piece after a write: where the event stands now, the plan kept, its report or what prevents one."""

    id: int
    revision: int
    undo: str | None
    redo: str | None
    piece: Piece
    report: Report | None
    problem: Problem | None

    @classmethod
    def from_core(cls, state: EventState, piece_id: int, judged: Judged) -> "SavedPiece":
        return cls(
            id=piece_id,
            revision=state.event.revision,
            undo=state.undo,
            redo=state.redo,
            piece=state.plan.by_id()[piece_id],
            report=judged.report,
            problem=None if judged.problem is None else Problem.of(judged.problem),
        )
