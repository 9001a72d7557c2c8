"""A picture: what is drawn of a piece but its stems, which are drawn as they are placed, and how far it reaches."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, fields
from typing import Literal, Self

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


@dataclass(frozen=True, slots=True, kw_only=True)
class Stems:
    """Many stems as columns, each as long as there are stems; what the columns mean is told of `Stem`."""

    colour: tuple[str, ...] = ()
    form: tuple[HeadForm, ...] = ()
    branch: tuple[bool, ...] = ()
    held: tuple[bool, ...] = ()
    seat_x_m: tuple[float, ...] = ()
    seat_y_m: tuple[float, ...] = ()
    seat_z_m: tuple[float, ...] = ()
    tip_x_m: tuple[float, ...] = ()
    tip_y_m: tuple[float, ...] = ()
    tip_z_m: tuple[float, ...] = ()
    droop_m: tuple[float, ...] = ()
    end_x_m: tuple[float, ...] = ()
    end_y_m: tuple[float, ...] = ()
    end_z_m: tuple[float, ...] = ()
    diameter_m: tuple[float, ...] = ()
    head_radius_m: tuple[float, ...] = ()
    head_height_m: tuple[float, ...] = ()
    vessel: tuple[int, ...] = ()
    tube_length_m: tuple[float, ...] = ()
    tube_width_m: tuple[float, ...] = ()

    @classmethod
    def of(cls, several: Iterable[Stem]) -> Self:
        """Columns of stems that are drawn one by one."""
        rows = tuple(several)
        return cls(**{each.name: tuple(getattr(row, each.name) for row in rows) for each in fields(Stem)})

    def __len__(self) -> int:
        return len(self.colour)

    def __iter__(self) -> Iterator[Stem]:
        """One by one, as they are drawn."""
        names = [each.name for each in fields(Stem)]
        for values in zip(*(getattr(self, name) for name in names), strict=True):
            yield Stem(**dict(zip(names, values, strict=True)))


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
    hung: Stems
    rims_m: tuple[float, ...]
    reach_m: float
    deep_m: float
    low_m: float
    top_m: float
    eyes: tuple[Eye, ...]


NOTHING_DRAWN = Picture(primitives=(), hung=Stems(), rims_m=(), reach_m=1.0, deep_m=1.0, low_m=0.0, top_m=1.0, eyes=())
