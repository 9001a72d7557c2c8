"""What a drawing is made of before anybody looks at it: lines, faces, bodies, in metres; x right, y back, z up.

An `ink` names what a thing is made of or stands for; screens and papers have a colour for each. `layer` orders what is
drawn in a piece cut open, the lowest first; otherwise what is farther off is drawn first. A primitive with `seen` is
there in those aspects only.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from enum import IntEnum
from typing import Literal

import numpy as np

from jolly_trellis.core.geometry import Array
from jolly_trellis.core.plan_shapes import PlanShape

Place = tuple[float, float, float]
Run = tuple[Place, ...]
Aspect = Literal["front", "side", "above", "cut", "whole"]


class Layer(IntEnum):
    """Where a thing lies in a piece cut open, from back to front."""

    PLACE = 0
    BESIDE = 1
    SUPPORT = 2
    VESSEL = 3
    WATER = 4
    UNDER = 5
    STEMS = 6
    OVER = 7
    HEADS = 8
    MARKS = 9


@dataclass(frozen=True, slots=True, kw_only=True)
class Shape:
    """Runs of points: a `line`, a `face` with its edge, or a convex `solid` of which the outline is seen.

    `width_m` is how thick a line really is, None for a hairline.
    """

    kind: Literal["line", "face", "solid"]
    id: str
    ink: str
    layer: int
    runs: tuple[Run, ...]
    closed: bool = False
    width_m: float | None = None
    seen: tuple[Aspect, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Ring:
    """A level section of a turned body: where its middle is, and half its sizes, metres."""

    at: Place
    half_width_m: float
    half_depth_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Turned:
    """A body with level rings, the lowest first: a vessel's outside, or its `inside`; an `open` one has no top."""

    kind: Literal["turned"] = "turned"
    id: str
    ink: str
    layer: int
    plan_shape: PlanShape
    rings: tuple[Ring, ...]
    inside: bool = False
    open: bool = False
    seen: tuple[Aspect, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Dot:
    """A ball, or the mark of a place."""

    kind: Literal["dot"] = "dot"
    id: str
    ink: str
    layer: int
    at: Place
    r_m: float
    seen: tuple[Aspect, ...] = ()


Primitive = Shape | Turned | Dot


def place(x: float, y: float, z: float) -> Place:
    """A place to the tenth of a millimetre."""
    return round(float(x), 4), round(float(y), 4), round(float(z), 4)


def run(points: Iterable[Sequence[float]] | Array) -> Run:
    """Points as a run, to the tenth of a millimetre."""
    return tuple(map(tuple, np.asarray(points, dtype=np.float64).round(4).tolist()))


def line(name: str, ink: str, layer: int, *runs: Run, width_m: float | None = None, closed: bool = False) -> Shape:
    """A line of one run or more."""
    return Shape(kind="line", id=name, ink=ink, layer=layer, runs=runs, width_m=width_m, closed=closed)


def box(name: str, ink: str, layer: int, low: Place, high: Place) -> Shape:
    """A solid with level and upright sides between two corners."""
    corners = tuple(place(x, y, z) for x in (low[0], high[0]) for y in (low[1], high[1]) for z in (low[2], high[2]))
    return Shape(kind="solid", id=name, ink=ink, layer=layer, runs=(corners,), closed=True)


def column(
    name: str, ink: str, layer: int, rings: Iterable[tuple[float, float]], *, x: float = 0.0, y: float = 0.0
) -> Turned:
    """A round body of half widths at heights, (z, half width), the lowest first."""
    made = tuple(
        Ring(at=place(x, y, z), half_width_m=round(half, 5), half_depth_m=round(half, 5)) for z, half in rings
    )
    return Turned(id=name, ink=ink, layer=layer, plan_shape="round", rings=made)


def moved(primitive: Primitive, by: Place, prefix: str) -> Primitive:
    """A primitive moved in the room, under another name."""
    known = prefix + primitive.id
    if isinstance(primitive, Shape):
        runs = tuple(tuple(place(x + by[0], y + by[1], z + by[2]) for x, y, z in each) for each in primitive.runs)
        return replace(primitive, id=known, runs=runs)
    if isinstance(primitive, Turned):
        rings = tuple(
            replace(each, at=place(each.at[0] + by[0], each.at[1] + by[1], each.at[2] + by[2]))
            for each in primitive.rings
        )
        return replace(primitive, id=known, rings=rings)
    return replace(primitive, id=known, at=place(*(a + b for a, b in zip(primitive.at, by, strict=True))))
