"""Frogs: heavy bases with pins or openings that hold stems from the floor of a vessel."""

from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.provenance import ESTIMATE, Provenance

FrogKind = Literal["pin", "cage", "loop", "holed", "cup"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Frog:
    """A frog as bought: outside size and height, mass, and its openings or pins.

    `opening_m` is the clear width of one opening, or the spacing of pins; `openings` how many there are (0 for pins,
    where stems go anywhere); `volume_l` the water a cup frog holds, 0 for the rest.
    """

    key: str
    name: str
    kind: FrogKind
    width_m: float
    height_m: float
    mass_kg: float
    opening_m: float
    openings: int = 0
    volume_l: float = 0.0
    price: float | None = None
    provenance: Provenance = ESTIMATE
