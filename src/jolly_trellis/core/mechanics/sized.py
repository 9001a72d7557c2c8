"""What every mechanic returns, the same for all."""

from dataclasses import dataclass

from jolly_trellis.core.netting import Sheet
from jolly_trellis.core.quantities import Quantity


@dataclass(frozen=True, slots=True, kw_only=True)
class WireLevel:
    """One level of netting: height above the inside floor and clear width of its cells, metres."""

    height_m: float
    aperture_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Fold:
    """A line across the flat sheet: distance from its end, metres, and what is done there."""

    at_m: float
    act: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """Something to cut or take: its name, how many, and its sizes."""

    name: str
    quantity: int
    sizes: tuple[Quantity, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class SizedMechanic:
    """A mechanic sized to its vessel.

    `levels` run from the rim down; `seat_moment_n_m` is what it can take in its vessel before it rocks;
    `displaced_volume_l` is the metal under water when full.
    """

    name: str
    levels: tuple[WireLevel, ...]
    layer_gap_m: float
    sheet: Sheet
    folds: tuple[Fold, ...]
    parts: tuple[Part, ...]
    tape_strips: int
    tape_strip_length_m: float
    tape_share_of_mouth: float
    free_cells: int
    seat_moment_n_m: float
    displaced_volume_l: float
    mass_kg: float
    price: float | None
    minutes: float
    uses: int
    compostable: bool
    shows: bool
