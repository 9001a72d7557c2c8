"""A picture: what is drawn of a piece but its stems, which are drawn as they are placed, and how far it reaches."""

from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.drawing.primitives import Primitive
from jolly_trellis.core.materials.stems import HeadForm


@dataclass(frozen=True, slots=True, kw_only=True)
class Stem:
    """What is drawn of a placed stem or clump: its cut end, its seat, its tip, how far that droops, its head.

    Metres from the middle of the piece's own vessel, z from the surface. `vessel` is 0 for the piece's own, else the
    companion, counted from 1. One that is `held` was placed by hand; a `branch` has bark. `tube_length_m` and
    `tube_width_m` are of the tube of water it stands in, 0 for none.
    """

    colour: str
    form: HeadForm
    branch: bool
    held: bool
    seat_x_m: float
    seat_y_m: float
    seat_z_m: float
    tip_x_m: float
    tip_y_m: float
    tip_z_m: float
    droop_m: float
    end_x_m: float
    end_y_m: float
    end_z_m: float
    diameter_m: float
    head_radius_m: float
    head_height_m: float
    vessel: int = 0
    tube_length_m: float = 0.0
    tube_width_m: float = 0.0


EyeKind = Literal["cut open", "level", "standing", "seated", "low", "close", "from under", "from above"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Eye:
    """From where people look: how far from the middle and how high over the surface, metres, at a height on the piece;
    `raised_rad` is how far over the level that is. A piece cut open is seen level, from nowhere near."""

    kind: EyeKind
    away_m: float
    height_m: float
    raised_rad: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Picture:
    """What is to be seen of a piece but its placed stems; those that are `hung` over an edge are in it.

    `rims_m` is the height of each vessel's rim over the surface; `reach_m` how far out it goes from the middle,
    `low_m` and `top_m` how far down and up; what stands before and behind the middle grows paler over `deep_m`.
    `eyes` are those that look at it.
    """

    primitives: tuple[Primitive, ...]
    hung: tuple[Stem, ...]
    rims_m: tuple[float, ...]
    reach_m: float
    deep_m: float
    low_m: float
    top_m: float
    eyes: tuple[Eye, ...]


NOTHING_DRAWN = Picture(primitives=(), hung=(), rims_m=(), reach_m=1.0, deep_m=1.0, low_m=0.0, top_m=1.0, eyes=())
