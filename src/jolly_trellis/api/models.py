"""What may come in for an event and its pieces; ranges and defaults are the core's own."""

from typing import Annotated

from pydantic import Field

from jolly_trellis.api.sections import MOST_SECTIONS
from jolly_trellis.api.sent import In, Sent
from jolly_trellis.core.edits.edit import Edit
from jolly_trellis.core.event.parts import AnyPart, Part
from jolly_trellis.core.plan.kinds import AnyPiece
from jolly_trellis.core.units import UnitSystem
from jolly_trellis.services.gate import Based, Chosen
from jolly_trellis.store.plan import Brief

Key = Annotated[str, Field(min_length=1, max_length=60)]
Label = Annotated[str, Field(min_length=1, max_length=80)]
Moment = Annotated[str, Field(max_length=20)]


class BasedOn(In):
    """Every write names the revision it was based on."""

    base_revision: Annotated[int, Field(ge=0, le=2**53)]


class PutBrief(BasedOn):
    """`was`: the brief that its window began from."""

    brief: Annotated[Brief, Sent()]
    was: Annotated[Brief, Sent()] | None = None
    chosen: Annotated[Chosen, Sent()] | None = None

    def based(self) -> Based[Brief]:
        return Based(revision=self.base_revision, was=self.was, chosen=self.chosen)


class PutPart(BasedOn):
    """`was`: the part that its window began from."""

    part: Annotated[AnyPart, Sent()]
    label: Label = "Change the piece"
    was: Annotated[AnyPart, Sent()] | None = None
    chosen: Annotated[Chosen, Sent()] | None = None

    def based(self) -> Based[Part]:
        return Based(revision=self.base_revision, was=self.was, chosen=self.chosen)


class EditPart(BasedOn):
    """Something that is done to a part; with `keep` false it is only shown what that would make of it."""

    edit: Annotated[Edit, Sent()]
    keep: bool = True


class BeginPart(BasedOn):
    """A new part to begin with: what it starts as, the key of the vessel it is in (None: its usual one, or one not
    measured), and whether its proven stems come with it.
    """

    start: Key
    vessel: Key | None = None
    stems: bool = True


class ApplyFix(BasedOn):
    verb: Key
    key: Key


class EvaluatePiece(In):
    piece: Annotated[AnyPiece, Sent()]
    with_fixes: bool = True


class EvaluateChange(In):
    """A piece as it is changed, and the marks of the sections of a report that the one who asks has."""

    piece: Annotated[AnyPiece, Sent()]
    have: Annotated[dict[Key, Annotated[str, Field(max_length=16)]], Field(max_length=MOST_SECTIONS)]


class SayParts(In):
    text: Annotated[str, Field(min_length=1)]
    system: UnitSystem = "metric"


class AddSaid(BasedOn):
    """Everything that a text speaks of, to be added."""

    text: Annotated[str, Field(min_length=1)]
    system: UnitSystem = "metric"


class SayIt(In):
    text: Annotated[str, Field(min_length=1)]
    system: UnitSystem = "metric"
    piece: Annotated[AnyPiece, Sent()]
