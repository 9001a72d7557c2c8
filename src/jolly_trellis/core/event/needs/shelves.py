"""What the stores have beside what is cut: frogs, vessels, stands, finished armatures, stems."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from jolly_trellis.core.event.needs.wear import Kept
from jolly_trellis.core.materials.finished import FinishedArmature
from jolly_trellis.core.materials.frogs import Frog


@dataclass(frozen=True, slots=True, kw_only=True)
class Shelves:
    """Frogs by key with how many, vessels and stands by their `thing_id`, finished armatures by key, stems by variety,
    and how often one that keeps is used, where somebody has said so.
    """

    frogs: Mapping[str, Frog]
    frogs_here: Mapping[str, int]
    stems_here: Mapping[str, int]
    vessels: Mapping[str, Kept] = field(default_factory=dict)
    stands: Mapping[str, Kept] = field(default_factory=dict)
    armatures: Mapping[str, FinishedArmature] = field(default_factory=dict)
    armatures_kept: Mapping[str, Kept] = field(default_factory=dict)
    stems_last: Mapping[str, int] = field(default_factory=dict)
