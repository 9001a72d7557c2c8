"""The plan of what is worn: wired and taped, on a lapel, a wrist or a head."""

from dataclasses import dataclass
from typing import ClassVar, Literal

from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.plan.piece import Sort


@dataclass(frozen=True, slots=True, kw_only=True)
class Worn(Bound):
    """A piece that is worn: every head on a wire; no water goes with it, and nothing of it stands."""

    sort: ClassVar[Sort] = "worn"

    kind: Literal["worn"] = "worn"
