"""What a start is: how one thing that people order is begun, and what to measure first."""

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, field
from typing import Literal

from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.recipes.proven import PROVEN, stems_for
from jolly_trellis.core.event.recipes.recipes import ScaleBy
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.stands import Stand
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.piece import Support
from jolly_trellis.core.plan.practice import FillSchool, Practice
from jolly_trellis.core.plan.recipe import RecipeLine

Asks = Literal["nothing", "a vessel", "a vase"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Given:
    """What a part is begun from: the vessel chosen for it, what the stores have by key, how the studio works.

    With `stems` it is begun with its proven recipe, of those varieties that are `known`.
    """

    vessel: Vessel
    nettings: Mapping[str, Netting]
    practice: Practice
    vessels: Mapping[str, Vessel] = field(default_factory=dict)
    stands: Mapping[str, Stand] = field(default_factory=dict)
    frogs: Collection[str] = ()
    known: Collection[str] = ()
    stems: bool = False

    def recipe(self, start: str, size: float) -> tuple[RecipeLine, ...]:
        """The proven recipe of a start at a size; none where it has none, or stems are not wanted."""
        return stems_for(PROVEN[start], size, self.known) if self.stems and start in PROVEN else ()

    def other(self, key: str) -> Vessel:
        """Another vessel of the stores; the chosen one where it is not there."""
        return self.vessels.get(key, self.vessel)

    @property
    def fine(self) -> str | None:
        """The netting of the studio's finish with the usual cell, else any."""
        usual = (
            key
            for key, each in self.nettings.items()
            if each.finish == self.practice.wire and abs(each.aperture_m - 0.025) < 1e-9
        )
        return next(usual, next(iter(self.nettings), None))

    @property
    def open(self) -> str | None:
        """The first netting of wide cells, galvanized where there is one, else any."""
        wide = [key for key, each in self.nettings.items() if each.aperture_m >= 0.05]
        plain = (key for key in wide if self.nettings[key].finish == "galvanized")
        return next(plain, next(iter(wide), next(iter(self.nettings), None)))


@dataclass(frozen=True, slots=True, kw_only=True)
class Start:
    """One thing a part can start as; `asks` is what has to be chosen for it, `vessel` the one that is usual.

    `measure` is what to measure first, in words; `by` how its recipe goes with its size. What `beside` gives is begun
    with it as parts of their own.
    """

    key: str
    kind: str
    name: str
    asks: Asks
    begin: Callable[[Given], Part]
    measure: tuple[str, ...] = ()
    vessel: str | None = None
    by: ScaleBy | None = None
    beside: Callable[[Given], tuple[Part, ...]] | None = None


def half_centimetres(value: float) -> float:
    """A length to the half centimetre, m."""
    return round(value * 200) / 200


def filled_m(vessel: Vessel, fill: FillSchool) -> float:
    """The water on show of a new piece over its inside floor, as the studio fills, m."""
    top = vessel.profile[-1].height_m
    share = {"full": 1.0, "half": 0.5}.get(fill, 0.8)
    return max(half_centimetres(top - 0.01 if fill == "full" else top * share), 0.005)


def support_of(stand: Stand) -> Support:
    """A stand of the stores as what a piece stands on, dry and not bonded."""
    return Support(
        key=stand.key,
        name=stand.name,
        height_m=stand.height_m,
        top_width_m=stand.top_width_m,
        opening_m=stand.opening_m,
        foot_width_m=stand.foot_width_m,
        mass_kg=stand.mass_kg,
        column_width_m=stand.column_width_m,
        clear=stand.clear,
        ridge=stand.ridge,
    )
