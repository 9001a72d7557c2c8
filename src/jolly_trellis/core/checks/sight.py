"""Lines of sight: heads and leaves as balls of some opacity, and how much of a line of sight they block."""

from dataclasses import dataclass

import numpy as np

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.placement.place import Placement

OPACITY_FLOWER = measure("How much of a view a flower head blocks", "ratio", 1.0, most=1.0)
OPACITY_FOLIAGE = measure("How much of a view foliage blocks", "ratio", 0.70, most=1.0)
OPACITY_AIRY = measure("How much of a view airy stems block", "ratio", 0.25, most=1.0)
LEAF_PLACES = (0.06, 0.2, 0.36, 0.52, 0.7, 0.88)
LEAF_SHARE = measure("Leaf cluster along a stem, share of the foliage's head size", "ratio", 0.8, most=1.0)
STEM_LEAVES = measure("Own leaves low on a flower stem, share of its head size", "ratio", 0.5, most=1.0)
_CLOSE_M = 1e-6
LOW_LEAVES = rule("A flower's own leaves sit along its stem at, from the mechanic", "ratio", 0.18)


@dataclass(frozen=True, slots=True, kw_only=True)
class Mass:
    """What stands in the way: centres, shape (n, 3), metres above the surface; radii; opacities 0-1."""

    centre_m: Array
    radius_m: Array
    opacity: Array


def flower_mass(build: Build) -> Mass:
    """Heads and leaves of a piece as balls.

    A flower is one ball at its head and a loose one of its own leaves just over the seat; foliage is six along its
    stem; airy stems are see-through. Sizes and opacities are estimates.
    """
    return _flower_mass(build.placement, build.piece.vessel.base_m, build.raised_m)


@remembered
def _flower_mass(placement: Placement, base_m: float, raised_m: float) -> Mass:
    stems = placement.stems
    if len(stems) == 0:
        return Mass(centre_m=np.zeros((0, 3)), radius_m=np.zeros(0), opacity=np.zeros(0))
    tips = placement.tip_m.copy()
    tips[:, 2] = placement.head_z_m
    seat_z = base_m + placement.seat_height_m
    seats = np.stack([placement.seat_x_m, placement.seat_y_m, np.full(len(stems), seat_z)], axis=1)
    airy = np.array([stems.role_of(row) == "airy" for row in range(len(stems))])
    leafy = stems.flower == 0
    solid = np.where(airy, OPACITY_AIRY.value, OPACITY_FLOWER.value)
    centres, radii, opacities = [tips[~leafy]], [stems.head_radius_m[~leafy]], [solid[~leafy]]
    low = seats[~leafy] + LOW_LEAVES.value * (tips[~leafy] - seats[~leafy])
    centres.append(low)
    radii.append(STEM_LEAVES.value * stems.head_radius_m[~leafy])
    opacities.append(np.full(len(low), OPACITY_FOLIAGE.value))
    for share in LEAF_PLACES:
        centres.append(seats[leafy] + share * (tips[leafy] - seats[leafy]))
        radii.append(LEAF_SHARE.value * stems.head_radius_m[leafy])
        opacities.append(np.where(airy[leafy], OPACITY_AIRY.value, OPACITY_FOLIAGE.value))
    centre = np.concatenate(centres)
    centre[:, 2] += raised_m
    return Mass(centre_m=centre, radius_m=np.concatenate(radii), opacity=np.concatenate(opacities))


@remembered
def seen_share(mass: Mass, eyes_m: Array, points_m: Array) -> Array:
    """How much of each point an eye still sees: the product of what each ball in between lets through, 0-1.

    Args:
        mass: balls in the way.
        eyes_m: shape (e, 3).
        points_m: shape (p, 3).
    Returns: shape (e, p).
    Source: geometry: a ball is in the way where the line passes within its radius, between eye and point.
    """
    eyes, points = len(eyes_m), len(points_m)
    rays = (points_m[None] - eyes_m[:, None]).reshape(-1, 3)
    starts = np.repeat(eyes_m, points, axis=0)
    return seen_along(mass, starts, rays).reshape(eyes, points)


def seen_along(mass: Mass, starts_m: Array, rays_m: Array) -> Array:
    """How much of the end of each ray is seen from its start, shape (n,): what all that lies between lets through.

    Args:
        starts_m, rays_m: shape (n, 3).
    Source: as `seen_share`; single precision is enough for centimetres over metres.
    """
    if len(mass.radius_m) == 0:
        return np.ones(len(starts_m))
    starts, rays, centres = (each.astype(np.float32) for each in (starts_m, rays_m, mass.centre_m))
    span = np.maximum(np.linalg.norm(rays, axis=1), _CLOSE_M)
    unit = rays / span[:, None]
    along = unit @ centres.T
    along -= (unit * starts).sum(axis=1)[:, None]
    square = starts @ (-2 * centres.T)
    square += (starts**2).sum(axis=1)[:, None]
    square += ((mass.centre_m**2).sum(axis=1) - mass.radius_m**2).astype(np.float32)
    in_way = (along > 0) & (along < span[:, None])
    in_way &= square < np.square(along, out=along)
    lets = np.log1p(-np.minimum(mass.opacity, 0.999)).astype(np.float32)
    return np.exp(in_way.astype(np.float32) @ lets).astype(np.float64)
