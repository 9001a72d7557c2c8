"""The inside of a vessel between the heights where a tape was held to it: one smooth curve for all that asks.

Half the width, and half the depth, over height follow a monotone cubic from one measured point to the next, so that
the curve is never wider than what was measured at either end of a piece. A point marked as a corner ends one curve and
begins another, and two sizes at one height are a step.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Annotated

import numpy as np

from jolly_trellis.core.geometry import Array
from jolly_trellis.core.ranges import Range

_FINE = 12
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(4)


@dataclass(frozen=True, slots=True, kw_only=True)
class ProfilePoint:
    """Inside size at one height: side to side (x) and front to back (y), both in metres.

    At a `corner` the outline bends sharply; elsewhere it runs on smoothly.
    """

    height_m: Annotated[float, Range("length", 0, 5)]
    width_m: Annotated[float, Range("length", 0, 5, above=True)]
    depth_m: Annotated[float, Range("length", 0, 5, above=True)]
    corner: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Curve:
    """The outline as pieces of cubics, the lowest first; `low_m` and `high_m` of each, shape (n,).

    `cubics` are coefficients of width and depth over the height above `low_m`, the third power first, shape (2, 4, n);
    `straight` tells pieces that are lines.
    """

    low_m: Array
    high_m: Array
    cubics: Array
    straight: Array

    def sizes_m(self, height_m: Array | float) -> tuple[Array, Array]:
        """Inside width and depth at heights above the inside floor, m; at a step those under it.

        Outside the profile the nearest end is used.
        """
        at = np.clip(height_m, self.low_m[0], self.high_m[-1])
        piece = np.minimum(np.searchsorted(self.high_m, at, side="left"), len(self.high_m) - 1)
        up = at - self.low_m[piece]
        third, second, first, start = self.cubics[:, :, piece].transpose(1, 0, *range(2, 2 + np.ndim(at)))
        width, depth = ((third * up + second) * up + first) * up + start
        return width, depth

    def below(self, levels_m: Array) -> tuple[Array, Array]:
        """∫ w·d dh and ∫ h·w·d dh from the floor to each level, m³ and m⁴, shape of the levels, which rise.

        Source: Gauss and Legendre's rule with four nodes, exact to the seventh power; w·d is a sixth.
        """
        ends = np.union1d(np.concatenate([self.low_m, self.high_m]), levels_m)
        half = np.diff(ends) / 2
        heights = (ends[:-1] + half)[:, None] + half[:, None] * _NODES
        width, depth = self.sizes_m(heights)
        areas = width * depth * _WEIGHTS * half[:, None]
        moments = np.cumsum([0.0, *(areas * heights).sum(axis=1)])
        volumes = np.cumsum([0.0, *areas.sum(axis=1)])
        places = np.searchsorted(ends, levels_m)
        return volumes[places], moments[places]

    def points(self, pieces: int = _FINE) -> tuple[ProfilePoint, ...]:
        """The curve as short straight pieces, so many for every piece that bends; a step has both its sizes."""
        found: list[ProfilePoint] = []
        for piece, (low, high) in enumerate(zip(self.low_m, self.high_m, strict=True)):
            heights = np.linspace(low, high, 2 if self.straight[piece] else pieces + 1)
            third, second, first, start = self.cubics[:, :, piece, None].transpose(1, 0, 2)
            up = heights - low
            width, depth = ((third * up + second) * up + first) * up + start
            run = [
                ProfilePoint(height_m=float(h), width_m=float(w), depth_m=float(d))
                for h, w, d in zip(heights, width, depth, strict=True)
            ]
            found += run[1:] if found and found[-1] == run[0] else run
        return tuple(found)


@lru_cache(maxsize=1024)
def curve_of(profile: tuple[ProfilePoint, ...]) -> Curve:
    """The curve through a checked profile.

    Source: monotone piecewise cubic (scipy's PchipInterpolator) over each run of points between corners.
    """
    pieces = [_run(run) for run in _runs(profile)]
    return Curve(
        low_m=np.concatenate([heights[:-1] for heights, _ in pieces]),
        high_m=np.concatenate([heights[1:] for heights, _ in pieces]),
        cubics=np.concatenate([cubics for _, cubics in pieces], axis=2),
        straight=np.concatenate([np.abs(cubics[:, :2]).max(axis=(0, 1)) < 1e-9 for _, cubics in pieces]),
    )


@lru_cache(maxsize=1024)
def fine_profile(profile: tuple[ProfilePoint, ...]) -> tuple[ProfilePoint, ...]:
    """A checked profile as many short straight pieces along its curve."""
    return curve_of(profile).points()


def _runs(profile: Sequence[ProfilePoint]) -> list[list[ProfilePoint]]:
    """The points from one corner to the next, which both have; a step lies between two runs."""
    runs = [[profile[0]]]
    for before, point in pairwise(profile):
        if point.height_m == before.height_m:
            runs.append([point])
            continue
        runs[-1].append(point)
        if point.corner and point is not profile[-1]:
            runs.append([point])
    return [run for run in runs if len(run) > 1]


def _run(run: Sequence[ProfilePoint]) -> tuple[Array, Array]:
    from scipy.interpolate import PchipInterpolator  # half a second of the start, for what needs a curved vessel

    heights = np.array([point.height_m for point in run])
    sizes = np.array([(point.width_m, point.depth_m) for point in run])
    cubics = PchipInterpolator(heights, sizes).c.transpose(2, 0, 1)
    return heights, cubics
