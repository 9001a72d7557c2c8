"""Finished armatures of the stores: netting that has been cut, formed and used, and came home to be used again."""

from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from jolly_trellis.core.provenance import MEASURED, Provenance
from jolly_trellis.core.ranges import Key, Range, Text

Condition = Literal["good", "rust", "bent", "coating worn", "cracked", "short"]
CONDITIONS: tuple[Condition, ...] = get_args(Condition)


@dataclass(frozen=True, slots=True, kw_only=True)
class FinishedArmature:
    """One make of armature or shaped netting as it came home.

    `made_as` is what it was made as: the kind of a hung armature, or of a vessel's mechanic. `netting` is a key of the
    stores, empty where it has none; `width_m` × `length_m` the sheet that was cut for one. `made_for` is the job that
    it came home from, `picture` a key of the pictures, empty none.
    """

    key: Key
    name: Annotated[str, Text(120, least=1)]
    made_as: Annotated[str, Text(60, least=1)]
    netting: Annotated[str, Text(60)] = ""
    width_m: Annotated[float, Range("length", 0, 10, above=True)]
    length_m: Annotated[float, Range("length", 0, 100, above=True)]
    condition: Condition = "good"
    note: Annotated[str, Text(300, lines=True)] = ""
    made_for: Annotated[str, Text(120)] = ""
    picture: Annotated[str, Text(64)] = ""
    provenance: Provenance = MEASURED
