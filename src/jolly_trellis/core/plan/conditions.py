"""What surrounds a piece."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from jolly_trellis.core.books.figures import FigureBook
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.practice import Practice


@dataclass(frozen=True, slots=True, kw_only=True)
class Conditions:
    """What surrounds a piece: times, air, who tops up, how the studio works, its figures, and its stores by key.

    `filled_at` is when the water on show goes in; what travels is finished on the bench at `finished_at` and loaded at
    `loaded_at`. `air` is the place's, `workshop` and `van` theirs. Times are aware. None is a fact nobody has given.
    """

    filled_at: datetime | None
    ends_at: datetime | None
    air: Air | None
    topped_up_by: str | None
    varieties: Mapping[str, Variety]
    nettings: Mapping[str, Netting]
    figures: FigureBook
    frogs: Mapping[str, Frog] = field(default_factory=dict)
    practice: Practice = field(default_factory=Practice)
    finished_at: datetime | None = None
    loaded_at: datetime | None = None
    workshop: Air | None = None
    van: Air | None = None
