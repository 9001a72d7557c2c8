"""Water in a dressed vessel: what fits between stems, wire and ballast, level by level."""

import math
from dataclasses import dataclass

import numpy as np

from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.profiles import curve_of
from jolly_trellis.core.materials.vessels import Vessel, centroid_below_m, level_for_volume_m, volume_below_l
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.placement.place import Placement
from jolly_trellis.core.plan_shapes import SHAPES

STONE_DENSITY = measure("Density of stone ballast", "density", 2500.0)
STONE_FILL = measure("Stone in a bed of ballast", "ratio", 0.6)
_LEVELS = 81


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class WaterTable:
    """Levels above the inside floor (rising), the water under each in litres, and the surface there in m²."""

    level_m: Array
    volume_l: Array
    area_m2: Array
    moment_m_l: Array

    def volume_at_l(self, level_m: float) -> float:
        """Litres of water at a level."""
        return float(np.interp(level_m, self.level_m, self.volume_l))

    def level_at_m(self, volume_l: float) -> float:
        """Level at which that much water stands, metres above the inside floor."""
        return float(np.interp(volume_l, self.volume_l, self.level_m))

    def centre_at_m(self, level_m: float) -> float:
        """Height of the water's centre above the inside floor, metres; 0 when dry."""
        volume = self.volume_at_l(level_m)
        return float(np.interp(level_m, self.level_m, self.moment_m_l)) / volume if volume > 1e-9 else 0.0


@remembered
def water_table(
    vessel: Vessel, *, placement: Placement | None, mechanic: SizedMechanic | None, ballast_kg: float
) -> WaterTable:
    """Tabulate a vessel's water, less what stems, wire and ballast displace.

    Args:
        vessel: a checked vessel.
        placement, mechanic: what stands in it; None for the empty vessel.
        ballast_kg: stone on the floor, kg, ≥ 0.
    Source: section area, integrated over the height; stems as leaning cylinders.
    """
    curve = curve_of(vessel.profile)
    levels = np.union1d(np.linspace(0.0, vessel.inside_depth_m, _LEVELS), curve.high_m)
    widths, depths = curve.sizes_m(levels)
    factor = SHAPES[vessel.plan_shape].area
    area = factor * widths * depths
    gross = 1000 * factor * curve.below(levels)[0]
    taken = np.minimum(1000 * ballast_kg / STONE_DENSITY.value, STONE_FILL.value * gross)
    if placement is not None:
        taken = taken + _stems_below_l(placement, levels)
    if mechanic is not None:
        taken = taken + mechanic.displaced_volume_l * gross / gross[-1]
    net = np.maximum.accumulate(np.maximum(gross - taken, 0.02 * gross))
    moments = np.diff(net) * (levels[1:] + levels[:-1]) / 2
    return WaterTable(
        level_m=levels,
        volume_l=net,
        area_m2=area,
        moment_m_l=np.concatenate([[0.0], np.cumsum(moments)]),
    )


@remembered
def stone_most_kg(vessel: Vessel) -> float:
    """The most stone a vessel holds, filled to its rim: 0.6 × volume × 2500 kg/m³, kg.

    Source: geometry; stone density and fill are estimates.
    """
    return STONE_FILL.value * STONE_DENSITY.value * volume_below_l(vessel, vessel.inside_depth_m) / 1000


def ballast_centre_m(vessel: Vessel, ballast_kg: float) -> float:
    """Height of the centre of a bed of stone above the inside floor, metres; a bed over the rim is cut there.

    Source: the bed fills the vessel from its floor; stone density and fill are estimates.
    """
    if ballast_kg <= 0:
        return 0.0
    full = volume_below_l(vessel, vessel.inside_depth_m)
    bed_l = min(1000 * ballast_kg / STONE_DENSITY.value / STONE_FILL.value, full)
    return centroid_below_m(vessel, level_for_volume_m(vessel, bed_l))


def _stems_below_l(placement: Placement, levels: Array) -> Array:
    stems, found = placement.stems, placement.found
    section = math.pi / 4 * stems.diameter_m**2
    under = np.maximum(levels[:, None] - placement.end_height_m, 0.0)
    return 1000 * (under * (section * found.slant)).sum(axis=1)
