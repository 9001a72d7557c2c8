"""Frogs: heavy bases with pins or openings that hold stems from the floor of a vessel."""

from dataclasses import dataclass
from typing import Annotated, Literal

from jolly_trellis.core.provenance import ESTIMATE, Provenance
from jolly_trellis.core.ranges import Key, Range, Text

FrogKind = Literal["pin", "cage", "loop", "holed", "cup"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Frog:
    """A frog as bought: outside size and height, mass, and its openings or pins.

    `opening_m` is the clear width of one opening, or the spacing of pins; `openings` how many there are (0 for pins,
    where stems go anywhere); `volume_l` the water a cup frog holds, 0 for the rest.
    """

    key: Key
    name: Annotated[str, Text(120, least=1)]
    kind: FrogKind
    width_m: Annotated[float, Range("length", 0.01, 0.5)]
    height_m: Annotated[float, Range("length", 0.005, 0.3)]
    mass_kg: Annotated[float, Range("mass", 0, 20, above=True)]
    opening_m: Annotated[float, Range("length", 0.001, 0.06)]
    openings: Annotated[int, Range("count", 0, 500)] = 0
    volume_l: Annotated[float, Range("volume", 0, 5)] = 0.0
    price: Annotated[float | None, Range("ratio", 0, 10000)] = None
    provenance: Provenance = ESTIMATE
