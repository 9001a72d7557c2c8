"""Shapes of vessels and feet seen from above: one description each, and what is reckoned with it.

x right, y back. Sizes are overall, m. Adding a shape is a row of `SHAPES`.
"""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Annotated, cast

import numpy as np

from jolly_trellis.core.choices import PLAN_SHAPES
from jolly_trellis.core.geometry import Array

PlanShape = Annotated[str, PLAN_SHAPES]
_AROUND = 96


@dataclass(frozen=True, slots=True, kw_only=True)
class AboutShape:
    """A shape: `even` is as deep as it is wide.

    `share` is how far out a point lies whose place is given in half sizes: 0 at the centre, 1 on the outline, more
    outside. `ray` is the distance from a point along a unit ray to the outline, from x, y, the ray and the half sizes;
    negative for a point outside. `area` and `second_moment` are shares of w·d and of w³·d; `outline` are points
    of it in half sizes, shape (n, 2).
    """

    kind: PlanShape
    even: bool
    share: Callable[[Array, Array], Array]
    ray: Callable[[Array, Array, Array, Array, float, float], Array]
    area: float
    second_moment: float
    girth: Callable[[float, float], float]
    outline: Array


def _round_share(along: Array, across: Array) -> Array:
    return cast(Array, np.sqrt(along * along + across * across))


def _round_ray(x: Array, y: Array, ray_x: Array, ray_y: Array, half_width_m: float, half_depth_m: float) -> Array:
    """A ray against an ellipse."""
    px, py = x / half_width_m, y / half_depth_m
    dx, dy = ray_x / half_width_m, ray_y / half_depth_m
    a, b, c = dx * dx + dy * dy, px * dx + py * dy, px * px + py * py - 1
    a = np.maximum(a, 1e-12)
    return cast(Array, np.where(c <= 0, (np.sqrt(np.maximum(b * b - a * c, 0.0)) - b) / a, -c / np.sqrt(a)))


def _round_girth(width_m: float, depth_m: float) -> float:
    """Source: Ramanujan's approximation for an ellipse (published 1914), exact for a circle."""
    a, b = width_m / 2, depth_m / 2
    return math.pi * (3 * (a + b) - math.sqrt((3 * a + b) * (a + 3 * b)))


def _square_share(along: Array, across: Array) -> Array:
    return np.maximum(np.abs(along), np.abs(across))


def _square_ray(x: Array, y: Array, ray_x: Array, ray_y: Array, half_width_m: float, half_depth_m: float) -> Array:
    """A ray against the nearer of two slabs."""
    with np.errstate(divide="ignore", invalid="ignore"):
        to_side = np.where(ray_x != 0, (np.sign(ray_x) * half_width_m - x) / ray_x, np.inf)
        to_end = np.where(ray_y != 0, (np.sign(ray_y) * half_depth_m - y) / ray_y, np.inf)
    return np.minimum(to_side, to_end)


def _square_girth(width_m: float, depth_m: float) -> float:
    return 2 * (width_m + depth_m)


def _ellipse(kind: str, *, even: bool) -> AboutShape:
    angle = np.arange(_AROUND) * (2 * np.pi / _AROUND)
    return AboutShape(
        kind=kind,
        even=even,
        share=_round_share,
        ray=_round_ray,
        area=math.pi / 4,
        second_moment=math.pi / 64,
        girth=_round_girth,
        outline=np.stack([np.cos(angle), np.sin(angle)], axis=1),
    )


def _rectangle(kind: str, *, even: bool) -> AboutShape:
    return AboutShape(
        kind=kind,
        even=even,
        share=_square_share,
        ray=_square_ray,
        area=1.0,
        second_moment=1 / 12,
        girth=_square_girth,
        outline=np.array([[-1.0, -1.0], [1.0, -1.0], [1.0, 1.0], [-1.0, 1.0]]),
    )


_EVERY = (
    _ellipse("round", even=True),
    _ellipse("oval", even=False),
    _rectangle("square", even=True),
    _rectangle("rectangular", even=False),
)
SHAPES: Mapping[PlanShape, AboutShape] = {each.kind: each for each in _EVERY}
PLAN_SHAPES.know(list(SHAPES))


def plan_share(plan_shape: PlanShape, x_m: Array, y_m: Array, half_width_m: Array, half_depth_m: Array) -> Array:
    """How far out a point lies in a plan outline: 0 at the centre, 1 on the outline, more outside.

    Args:
        x_m, y_m: the point, any shape that broadcasts.
        half_width_m, half_depth_m: half sizes of the outline, m, > 0.
    Source: definition.
    """
    return SHAPES[plan_shape].share(x_m / half_width_m, y_m / half_depth_m)


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
    Source: geometry.
    """
    return SHAPES[plan_shape].ray(x_m, y_m, ray_x, ray_y, half_width_m, half_depth_m)


def section_area_m2(plan_shape: PlanShape, width_m: float, depth_m: float) -> float:
    """Area of a level section, m². Source: definition."""
    return SHAPES[plan_shape].area * width_m * depth_m


def girth_m(plan_shape: PlanShape, width_m: float, depth_m: float) -> float:
    """Girth of a level section, metres."""
    return SHAPES[plan_shape].girth(width_m, depth_m)
