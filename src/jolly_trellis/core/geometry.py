"""Small plane geometry shared by the placer and the checks; x right, y back, azimuth 0 front, 90° right."""

from typing import Literal, cast

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Flags = npt.NDArray[np.bool_]

GOLDEN_ANGLE_RAD = float(np.pi * (3 - np.sqrt(5)))
PlanShape = Literal["round", "oval", "square", "rectangular"]


def has_corners(plan_shape: PlanShape) -> bool:
    """Whether the plan is a rectangle rather than an ellipse."""
    return plan_shape in ("square", "rectangular")


def plan_share(plan_shape: PlanShape, x_m: Array, y_m: Array, half_width_m: Array, half_depth_m: Array) -> Array:
    """How far out a point lies in a plan outline: 0 at the centre, 1 on the outline, more outside.

    Args:
        plan_shape: ellipse or rectangle.
        x_m, y_m: the point, any shape that broadcasts.
        half_width_m, half_depth_m: half sizes of the outline, m, > 0.
    Source: definition.
    """
    along, across = x_m / half_width_m, y_m / half_depth_m
    if has_corners(plan_shape):
        return np.maximum(np.abs(along), np.abs(across))
    return cast(Array, np.sqrt(along * along + across * across))


def ray_to_outline_m(
    plan_shape: PlanShape,
    x_m: Array,
    y_m: Array,
    ray_x: Array,
    ray_y: Array,
    half_width_m: float,
    half_depth_m: float,
) -> Array:
    """Distance from a point inside an outline along a unit ray to the outline, metres.

    Args:
        x_m, y_m: start of the ray; a start outside the outline gives a negative distance.
        ray_x, ray_y: unit direction.
        half_width_m, half_depth_m: half sizes of the outline, m, > 0.
    Source: ray against an ellipse, or the nearer of two slabs for a rectangle.
    """
    if has_corners(plan_shape):
        with np.errstate(divide="ignore", invalid="ignore"):
            to_side = np.where(ray_x != 0, (np.sign(ray_x) * half_width_m - x_m) / ray_x, np.inf)
            to_end = np.where(ray_y != 0, (np.sign(ray_y) * half_depth_m - y_m) / ray_y, np.inf)
        return np.minimum(to_side, to_end)
    px, py = x_m / half_width_m, y_m / half_depth_m
    dx, dy = ray_x / half_width_m, ray_y / half_depth_m
    a, b, c = dx * dx + dy * dy, px * dx + py * dy, px * px + py * py - 1
    a = np.maximum(a, 1e-12)
    return cast(Array, np.where(c <= 0, (np.sqrt(np.maximum(b * b - a * c, 0.0)) - b) / a, -c / np.sqrt(a)))


def azimuth_rays(number: int) -> tuple[Array, Array]:
    """Unit rays evenly round the compass from the front: x = sin(azimuth), y = −cos(azimuth)."""
    azimuth = np.arange(number) * (2 * np.pi / number)
    return np.sin(azimuth), -np.cos(azimuth)


def half_ellipsoid_surface_m2(half_width_m: float, half_depth_m: float, height_m: float) -> float:
    """Curved surface of the upper half of an ellipsoid, m².

    Valid for: all half sizes > 0, to about 1 %.
    Source: Thomsen's approximation with p = 1.6075 (from memory).
    """
    power = 1.6075
    a, b, c = half_width_m**power, half_depth_m**power, height_m**power
    return 2 * float(np.pi) * float(((a * b + a * c + b * c) / 3) ** (1 / power))
