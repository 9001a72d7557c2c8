"""An edit of a part of any kind."""

from dataclasses import dataclass, field

from jolly_trellis.core import ranges
from jolly_trellis.core.edits.pieces import (
    ChooseMechanic,
    PieceEdit,
    Shelf,
    StandingEdit,
    edit_standing,
    with_mechanic,
)
from jolly_trellis.core.edits.rigs import RigEdit, edit_rig
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.parts import Part, hangs, in_vessels
from jolly_trellis.core.mechanics.about import ABOUT
from jolly_trellis.core.plan.kinds import stands
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging.survey import Survey

Edit = RigEdit | PieceEdit


@dataclass(frozen=True, slots=True, kw_only=True)
class Given:
    """What an edit may take from: the survey of the place, the shelf of the stores."""

    survey: Survey = field(default_factory=Survey)
    shelf: Shelf = field(default_factory=Shelf)


def edited(part: Part, edit: Edit, given: Given) -> tuple[Part, str]:
    """A part after an edit, and what the edit is called.

    Raises: InvalidMeasure: it is none of such a part, or what it is of is not there; UnknownName.
    """
    ranges.check(edit, "edit")
    if hangs(part) and isinstance(edit, RigEdit):
        return edit_rig(part, edit, given.survey)
    if in_vessels(part) and isinstance(edit, ChooseMechanic) and ABOUT[edit.mechanic].of == part.sort:
        return with_mechanic(part, edit, given.shelf)
    if in_vessels(part) and stands(part) and isinstance(edit, StandingEdit):
        return edit_standing(part, edit, given.shelf)
    raise InvalidMeasure(
        path="edit",
        message=phrase("“{edit}” is nothing that is done to such a part.", edit=edit.kind),
        limit=phrase("Choose what is offered where the part is planned."),
    )
