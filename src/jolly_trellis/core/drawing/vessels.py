"""A vessel as it looks: its outside, its inside, its water, along the curve of its profile."""

import numpy as np

from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.drawing.primitives import Layer, Primitive, Ring, Turned, line, place, run
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.profiles import curve_of
from jolly_trellis.core.materials.vessels import Vessel, inside_size_m
from jolly_trellis.core.plan_shapes import SHAPES

_PIECES = 5
_FOOT = 0.9


@remembered
def drawn_vessel(
    vessel: Vessel, *, up_m: float = 0.0, name: str = "vessel", layer: int = Layer.VESSEL
) -> tuple[Primitive, ...]:
    """Outside and inside of a vessel whose underside is at `up_m`."""
    floor = up_m + vessel.base_m
    wall = vessel.wall_m
    heights, widths, depths = _inside(vessel, vessel.inside_depth_m)
    foot_width = vessel.foot_width_m or _FOOT * float(widths[0])
    foot_depth = vessel.foot_depth_m or (foot_width if SHAPES[vessel.plan_shape].even else _FOOT * float(depths[0]))
    outside = [
        Ring(at=place(0, 0, up_m), half_width_m=round(foot_width / 2, 5), half_depth_m=round(foot_depth / 2, 5)),
        *_rings(heights + floor, widths / 2 + wall, depths / 2 + wall),
    ]
    inside = _rings(heights + floor, widths / 2, depths / 2)
    ink = "glass" if vessel.clear else "clay"
    shape = vessel.plan_shape
    return (
        Turned(id=f"{name}-wall", ink=ink, layer=layer, plan_shape=shape, rings=tuple(outside), open=True),
        Turned(id=f"{name}-inside", ink="inside", layer=layer, plan_shape=shape, rings=tuple(inside), inside=True),
    )


@remembered
def drawn_water(vessel: Vessel, level_m: float, *, up_m: float = 0.0, name: str = "water") -> tuple[Primitive, ...]:
    """Water up to a level, with its surface; none where it is dry."""
    if level_m <= 0:
        return ()
    heights, widths, depths = _inside(vessel, level_m)
    rings = _rings(heights + up_m + vessel.base_m, widths / 2, depths / 2)
    body = Turned(id=name, ink="water", layer=Layer.WATER, plan_shape=vessel.plan_shape, rings=tuple(rings))
    return body, level_line(f"{name}-line", "water line", vessel, level_m, up_m)


def level_line(name: str, ink: str, vessel: Vessel, level_m: float, up_m: float) -> Primitive:
    """The outline of the inside at a level."""
    width, depth = inside_size_m(vessel, level_m)
    points = outline_points(vessel, width / 2, depth / 2, up_m + vessel.base_m + level_m)
    return line(name, ink, Layer.WATER, run(points), closed=True)


def outline_points(vessel: Vessel, half_width_m: float, half_depth_m: float, z_m: float, step: int = 4) -> Array:
    """Points round a level outline of a vessel's shape, shape (n, 3)."""
    outline = SHAPES[vessel.plan_shape].outline
    kept = outline[::step] if len(outline) > 4 else outline
    return np.column_stack([kept * [half_width_m, half_depth_m], np.full(len(kept), z_m)])


def _inside(vessel: Vessel, up_to_m: float) -> tuple[Array, Array, Array]:
    """Heights over the inside floor up to a level, and the inside sizes there, from the floor up."""
    points = [each for each in curve_of(vessel.profile).points(_PIECES) if each.height_m < up_to_m - 1e-6]
    width, depth = inside_size_m(vessel, up_to_m)
    rows = [(each.height_m, each.width_m, each.depth_m) for each in points]
    heights, widths, depths = np.array([*rows, (up_to_m, width, depth)]).T
    return heights, widths, depths


def _rings(z: Array, half_widths: Array, half_depths: Array) -> list[Ring]:
    rows = zip(*(np.round(each, 5).tolist() for each in (z, half_widths, half_depths)), strict=True)
    return [Ring(at=(0.0, 0.0, height), half_width_m=width, half_depth_m=depth) for height, width, depth in rows]
