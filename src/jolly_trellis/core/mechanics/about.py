"""What a file about a mechanic says of it: its name, what it needs and reads, how it is sized."""

from collections.abc import Callable
from dataclasses import dataclass, field

from jolly_trellis.core.choices import MECHANICS
from jolly_trellis.core.drawing.primitives import Primitive
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.frogs import FrogKind
from jolly_trellis.core.mechanics.drawn import Bed
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.handful import Handful
from jolly_trellis.core.mechanics.sized import SizedMechanic, WornOn
from jolly_trellis.core.plan.piece import MechanicKind, Sort
from jolly_trellis.core.quantities import phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class About:
    """One kind of mechanic.

    `place` is where it stands in lists. `netting` and `frog` are what of the stores it needs; `bought` tells one that
    comes ready made and must be on hand. `reads` names the fields of `Mechanic` that size it. `tapes` tells whether
    the rim may be taped over it, `least_strips` how many it has at least. `moss_round` has moss lie all round it
    unless somebody says otherwise. `with_moss` is the kind it becomes with a lid of moss. One that is `firm` is
    offered where another cannot hold, the firmest first. One with `bind` is what a bouquet is made on, or, with
    `worn`, what is worn there; one with `size` sits in a vessel. `draw` gives what it looks like there, None where
    there is nothing to see.
    """

    kind: MechanicKind
    place: int
    name: str
    what: str
    size: Callable[[Fit], SizedMechanic] | None = None
    draw: Callable[[Bed], list[Primitive]] | None = None
    bind: Callable[[Handful], SizedMechanic] | None = None
    netting: bool = False
    frog: FrogKind | None = None
    tapes: bool = True
    least_strips: int = 0
    bought: bool = False
    reads: frozenset[str] = field(default_factory=frozenset)
    moss_round: bool = False
    with_moss: MechanicKind | None = None
    firm: int = 0
    worn: WornOn | None = None

    @property
    def of(self) -> Sort:
        """Which sort of piece it is for."""
        if self.bind is None:
            return "standing"
        return "bouquet" if self.worn is None else "worn"

    def sized(self, fit: Fit) -> SizedMechanic:
        """Size it to its vessel. Raises InvalidMeasure: the vessel, netting or frog does not allow it."""
        if self.size is None:
            raise InvalidMeasure(
                path="mechanic.kind",
                message=phrase("A {self} is carried in the hand; this piece stands.", self=self.name.lower()),
                limit=phrase("Choose a mechanic that sits in a vessel, or begin a bouquet."),
            )
        return self.size(fit)


ABOUT: dict[MechanicKind, About] = {}


def declare(about: About) -> About:
    """Make a kind of mechanic known, in its place; called once by the file that describes it."""
    every = sorted((*ABOUT.values(), about), key=lambda each: each.place)
    ABOUT.clear()
    ABOUT.update({each.kind: each for each in every})
    MECHANICS.know(list(ABOUT))
    return about


def firm_ones(of: Sort) -> tuple[About, ...]:
    """What is offered to a sort of piece where another mechanic cannot hold, the firmest first."""
    firm = (each for each in ABOUT.values() if each.firm and each.of == of)
    return tuple(sorted(firm, key=lambda each: -each.firm))
