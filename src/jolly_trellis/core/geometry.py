"""Small plane geometry shared by the placer and the checks; x right, y back, azimuth 0 front, 90° right."""

from functools import cache

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Flags = npt.NDArray[np.bool_]

GOLDEN_ANGLE_RAD = float(np.pi * (3 - np.sqrt(5)))


@cache
def azimuth_rays(number: int) -> tuple[Array, Array]:
    """Unit rays evenly round the compass from the front: x = sin(azimuth), y = −cos(azimuth)."""
    azimuth = np.arange(number) * (2 * np.pi / number)
    rays = np.sin(azimuth), -np.cos(azimuth)
    for each in rays:
        each.setflags(write=False)
    return rays


def half_ellipsoid_surface_m2(half_width_m: float, half_depth_m: float, height_m: float) -> float:
    """Curved surface of the upper half of an ellipsoid, m².

    Valid for: all half sizes > 0, to about 1 %.
    Source: Thomsen's approximation with p = 1.6075 (from memory).
    """
    power = 1.6075
    a, b, c = half_width_m**power, half_depth_m**power, height_m**power
    return 2 * float(np.pi) * float(((a * b + a * c + b * c) / 3) ** (1 / power))
