"""What an act and a lot are, and the fold: where every lot is after an act."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from jolly_trellis.core.plan.passage import GoesIn

Place = Literal["workshop", "cool room", "van", "place", "moved to", "others", "home", "compost", "drain"]
Level = Literal["bench", "road", "show"]
Held = Literal["in it", "under it", "in a bucket", "apart", "laid", "tied"]
What = Literal[
    "vessel",
    "urn",
    "support",
    "mechanic",
    "stone",
    "water",
    "ballast water",
    "weight",
    "spill",
    "stems",
    "frame",
    "mount",
    "foot weights",
    "core",
    "extra",
]
ActKind = Literal[
    "make",
    "lay the weight at the bench",
    "water",
    "green",
    "flower",
    "cool",
    "load",
    "carry in",
    "raise",
    "lay the weight",
    "make there",
    "flower there",
    "fill",
    "move",
    "flower after the move",
    "flower last",
    "hand over",
    "unhook",
    "take the stems out",
    "take the weight off",
    "tip out",
    "take down",
    "bring home",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Lot:
    """What moves together: a thing, or so many stems of a line that go in at one time.

    `vessel` is 0 for a piece's own, then its companions in order; `line` the line of that vessel's recipe that stems
    are of, `goes_in` when they go in, `count` how many they are.
    """

    what: What
    vessel: int = 0
    line: int | None = None
    goes_in: GoesIn = "with the piece"
    count: int = 1

    @property
    def key(self) -> str:
        """What tells it from the others of its part."""
        which = "" if self.line is None else f":{self.line}:{self.goes_in.replace(' ', '-')}"
        return f"{self.what.replace(' ', '-')}:{self.vessel}{which}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Spot:
    """Where a lot is: the place, how it is held there, and of water the level that it stands at."""

    place: Place
    held: Held = "in it"
    level: Level | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Act:
    """One thing that is done to a part: where, what it moves, and where to. `key` tells it from the others."""

    kind: ActKind
    place: Place
    moves: Mapping[Lot, Spot] = field(default_factory=dict)

    @property
    def key(self) -> str:
        """The kind, as it goes into keys of tasks."""
        return self.kind.replace(" ", "-")


class Acts(tuple[Act, ...]):
    """The acts of one part, in order; those that follow from the same choices are the very same."""

    __slots__ = ()

    def __hash__(self) -> int:
        return id(self)

    def __eq__(self, other: object) -> bool:
        return self is other


def where(acts: Iterable[Act], after: int) -> dict[Lot, Spot]:
    """Where every lot is after so many acts; what no act has moved yet is not in it.

    Args:
        after: how many acts are done, from 0.
    """
    found: dict[Lot, Spot] = {}
    for nth, act in enumerate(acts):
        if nth >= after:
            break
        found.update(act.moves)
    return found
