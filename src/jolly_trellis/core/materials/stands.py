"""Stands of the stores: what a raised bowl is put on, as measured with a tape."""

from dataclasses import dataclass
from typing import Annotated

from jolly_trellis.core.provenance import ESTIMATE, Provenance
from jolly_trellis.core.ranges import Key, Range, Text


@dataclass(frozen=True, slots=True, kw_only=True)
class Stand:
    """One stand, column or tall cylinder: its height, the outside of its plate or rim, the hole in it (0: solid).

    Foot and mass may be unknown (None). `clear` is whether one sees through it, `ridge` whether it locates the bowl.
    `price` is what one is bought for, None not known.
    """

    key: Key
    name: Annotated[str, Text(120, least=1)]
    height_m: Annotated[float, Range("length", 0, 3, above=True)]
    top_width_m: Annotated[float, Range("length", 0, 5, above=True)]
    opening_m: Annotated[float, Range("length", 0, 2)] = 0.0
    foot_width_m: Annotated[float | None, Range("length", 0, 5, above=True)] = None
    mass_kg: Annotated[float | None, Range("mass", 0, 200, above=True)] = None
    column_width_m: Annotated[float, Range("length", 0, 5, above=True)] = 0.12
    clear: bool = False
    ridge: bool = False
    price: Annotated[float | None, Range("ratio", 0, 10000)] = None
    provenance: Provenance = ESTIMATE
