"""Vessels by their measured inner profile: inside size, volume, water surface and centre of mass, all on one curve.

Heights here are measured from the inside floor of the vessel; `Vessel.base_m` lifts that floor above the
surface the vessel stands on.
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Annotated, Literal

import numpy as np

from jolly_trellis.core.books.figures import measure, rule, standard
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.profiles import ProfilePoint, curve_of, fine_profile
from jolly_trellis.core.plan_shapes import SHAPES, PlanShape, girth_m, section_area_m2
from jolly_trellis.core.provenance import COMMON_PRACTICE, Provenance, ProvenanceKind
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.ranges import Many, Range, Text

Material = Literal["glass", "glazed", "unglazed", "metal", "plastic", "wood"]

FLOOR_FRICTION_GLASS = measure("Friction of a stem end on glass", "ratio", 0.2, spread=0.25)
FLOOR_FRICTION_CERAMIC = measure("Friction of a stem end on ceramic", "ratio", 0.35, spread=0.25)
WATER_DENSITY = standard(
    "Density of water", "density", 1000.0, Provenance(kind="published", source="any handbook, at 4 °C")
)
BRIM_GAP = rule("Gap kept between water and rim", "length", 0.01, COMMON_PRACTICE)


@dataclass(frozen=True, slots=True, kw_only=True)
class Vessel:
    """A vessel as measured with a tape: inner profile from the floor up, walls, foot and mass.

    `foot_width_m`, `foot_depth_m` and `mass_kg` may be missing (None); what needs them then cannot say. `price` is
    what one is bought for, None not known. `key` is the one of the stores that it is, empty for one of a plan's own.
    """

    name: Annotated[str, Text(120, least=1)]
    plan_shape: PlanShape
    profile: Annotated[tuple[ProfilePoint, ...], Many(60, least=2)]
    wall_m: Annotated[float, Range("length", 0.0005, 0.1)] = 0.005
    base_m: Annotated[float, Range("length", 0, 1)] = 0.006
    foot_width_m: Annotated[float | None, Range("length", 0, 5, above=True)] = None
    foot_depth_m: Annotated[float | None, Range("length", 0, 5, above=True)] = None
    mass_kg: Annotated[float | None, Range("mass", 0, 200, above=True)] = None
    material: Material = "glazed"
    clear: bool = False
    price: Annotated[float | None, Range("ratio", 0, 10000)] = None
    provenance: ProvenanceKind = "measured"
    key: Annotated[str, Text(60)] = ""

    @property
    def inside_depth_m(self) -> float:
        """Height of the rim above the inside floor, metres."""
        return self.profile[-1].height_m

    @property
    def rim_m(self) -> float:
        """Height of the rim above the surface the vessel stands on, metres."""
        return self.base_m + self.inside_depth_m

    @property
    def mouth_width_m(self) -> float:
        """Inside width of the mouth, side to side, metres."""
        return self.profile[-1].width_m

    @property
    def mouth_depth_m(self) -> float:
        """Inside depth of the mouth, front to back, metres."""
        return self.profile[-1].depth_m


def check_vessel(vessel: Vessel, *, path: str = "vessel") -> None:
    """Refuse a profile that is no vessel.

    Raises:
        InvalidMeasure: fewer than two heights, a first height that is not 0, heights that fall, a step at the floor,
            at the rim or of more than two sizes, an inside size that is not positive, or a round or square vessel
            wider one way than the other.
    """
    profile = vessel.profile
    if len(profile) < 2:
        raise InvalidMeasure(
            path=f"{path}.profile",
            message=phrase("The profile has fewer than two heights."),
            limit=phrase("Measure at least the inside floor and the rim."),
        )
    if profile[0].height_m != 0:
        raise InvalidMeasure(
            path=f"{path}.profile.0.height_m",
            message=phrase("The profile starts at {h}.", h=length(profile[0].height_m)),
            limit=phrase("The first height is the inside floor, 0."),
        )
    for index, point in enumerate(profile):
        _check_point(vessel, index, point, path=f"{path}.profile.{index}")


def _check_point(vessel: Vessel, index: int, point: ProfilePoint, *, path: str) -> None:
    before = vessel.profile[index - 1] if index else None
    if before is not None and point.height_m < before.height_m:
        raise InvalidMeasure(
            path=f"{path}.height_m",
            message=phrase("The profile folds back at {h}.", h=length(point.height_m)),
            limit=phrase("No height lies under the one before it, {h}.", h=length(before.height_m)),
        )
    stepped = before is not None and point.height_m == before.height_m
    if stepped and point.height_m in (0, vessel.inside_depth_m):
        raise InvalidMeasure(
            path=f"{path}.height_m",
            message=phrase("Two sizes are given at {h}.", h=length(point.height_m)),
            limit=phrase("The inside floor and the rim have one size each; a step lies between them."),
        )
    if stepped and point.height_m == vessel.profile[index - 2].height_m:
        raise InvalidMeasure(
            path=f"{path}.height_m",
            message=phrase("Three sizes are given at {h}.", h=length(point.height_m)),
            limit=phrase("A step has two: the size under it and the size over it."),
        )
    for name, value in (("width_m", point.width_m), ("depth_m", point.depth_m)):
        if not (value > 0 and math.isfinite(value)):
            raise InvalidMeasure(
                path=f"{path}.{name}",
                message=phrase("The inside size is {size}.", size=length(value)),
                limit=phrase("An inside size is more than 0."),
            )
    if SHAPES[vessel.plan_shape].even and not math.isclose(point.width_m, point.depth_m):
        raise InvalidMeasure(
            path=f"{path}.depth_m",
            message=phrase(
                "A {plan_shape} vessel is measured wider one way than the other.", plan_shape=vessel.plan_shape
            ),
            limit=phrase("Make both sizes {size}, or choose oval or rectangular.", size=length(point.width_m)),
        )


def inside_size_m(vessel: Vessel, height_m: float) -> tuple[float, float]:
    """Inside width and depth at a height.

    Args:
        vessel: a checked vessel.
        height_m: above the inside floor, m; outside the profile the nearest end is used.
    Returns:
        (width, depth) in metres, on the curve through the measured heights; at a step the sizes under it.
    Source: definition.
    """
    width, depth = curve_of(vessel.profile).sizes_m(height_m)
    return float(width), float(depth)


def volume_below_l(vessel: Vessel, level_m: float) -> float:
    """Volume of the empty vessel below a level.

    Args:
        vessel: a checked vessel.
        level_m: height of the level above the inside floor, m, from 0 to the rim.
    Returns:
        Litres, exact for the curve.
    Raises:
        InvalidMeasure: the level lies below the floor or above the rim.
    Source: section area, integrated over the height.
    """
    check_level(vessel, level_m)
    volume, _ = curve_of(vessel.profile).below(np.array([level_m]))
    return 1000 * SHAPES[vessel.plan_shape].area * float(volume[0])


def centroid_below_m(vessel: Vessel, level_m: float) -> float:
    """Height of the centre of the water filled to a level, metres above the inside floor.

    Args:
        vessel: a checked vessel.
        level_m: height of the level, m, from 0 to the rim; at 0 the answer is 0.
    Raises:
        InvalidMeasure: the level lies outside the vessel.
    Source: first moment of the section area, integrated over the height.
    """
    check_level(vessel, level_m)
    volume, moment = curve_of(vessel.profile).below(np.array([level_m]))
    return float(moment[0] / volume[0]) if volume[0] > 0 else 0.0


@lru_cache(maxsize=1024)
def level_for_volume_m(vessel: Vessel, volume_l: float) -> float:
    """The level that a volume reaches in the empty vessel, metres above the inside floor.

    Args:
        vessel: a checked vessel.
        volume_l: litres, from 0 to what the vessel holds.
    Raises:
        InvalidMeasure: more than the vessel holds, or less than nothing.
    Source: bisection of `volume_below_l`, to 1 µm.
    """
    full = volume_below_l(vessel, vessel.inside_depth_m)
    if not 0 <= volume_l <= full * (1 + 1e-12):
        raise InvalidMeasure(
            path="water_volume_l",
            message=phrase("The vessel does not hold that much."),
            limit=phrase("It holds {full} litres to the rim.", full=f"{full:.2f}"),
        )
    low, high = 0.0, vessel.inside_depth_m
    for _ in range(60):
        middle = (low + high) / 2
        if volume_below_l(vessel, middle) < volume_l:
            low = middle
        else:
            high = middle
        if high - low < 1e-6:
            break
    return (low + high) / 2


def surface_second_moment_m4(vessel: Vessel, level_m: float) -> tuple[float, float]:
    """Second moments of the water surface, for tilting about the y axis (x²) and about the x axis (y²), m⁴.

    Source: π·w³·d/64 for an ellipse, w³·d/12 for a rectangle (any statics text).
    """
    width, depth = inside_size_m(vessel, level_m)
    factor = SHAPES[vessel.plan_shape].second_moment
    return factor * width**3 * depth, factor * depth**3 * width


@lru_cache(maxsize=256)
def shell_centre_m(vessel: Vessel) -> float:
    """Height of the empty vessel's centre of mass above the surface it stands on, metres.

    Takes the wall as a thin shell of one thickness and the base as a plate of `base_m`.

    Source: area-weighted mean of the wall's frusta and the base plate; valid for an even wall.
    """
    base_area = section_area_m2(vessel.plan_shape, vessel.profile[0].width_m, vessel.profile[0].depth_m)
    total = base_area * vessel.base_m
    first = total * vessel.base_m / 2
    for low, high in pairwise(fine_profile(vessel.profile)):
        rise = high.height_m - low.height_m
        slope_x, slope_y = (high.width_m - low.width_m) / 2, (high.depth_m - low.depth_m) / 2
        slant = math.hypot(rise, (slope_x + slope_y) / 2)
        girths = [girth_m(vessel.plan_shape, p.width_m, p.depth_m) for p in (low, high)]
        area = slant * sum(girths) / 2 * vessel.wall_m
        share = (girths[0] + 2 * girths[1]) / (3 * sum(girths))
        total += area
        first += area * (vessel.base_m + low.height_m + share * rise)
    return first / total


def mouth_girth_m(vessel: Vessel) -> float:
    """Inside circumference of the mouth, metres."""
    return girth_m(vessel.plan_shape, vessel.mouth_width_m, vessel.mouth_depth_m)


def check_level(vessel: Vessel, level_m: float, *, path: str = "water_level_m") -> None:
    """Refuse a level outside the vessel.

    Raises:
        InvalidMeasure: below the inside floor or above the rim.
    """
    if not 0 <= level_m <= vessel.inside_depth_m + 1e-9:
        raise InvalidMeasure(
            path=path,
            message=phrase("A level of {level} is outside the vessel.", level=length(level_m)),
            limit=phrase("It lies from 0 to {rim}, the rim.", rim=length(vessel.inside_depth_m)),
        )


def floor_friction(vessel: Vessel) -> float:
    """Friction of a stem end on the vessel's floor: smooth glass, metal and plastic low, the rest higher."""
    smooth = vessel.material in ("glass", "metal", "plastic")
    return (FLOOR_FRICTION_GLASS if smooth else FLOOR_FRICTION_CERAMIC).value
