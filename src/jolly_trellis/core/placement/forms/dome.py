"""The all-round dome: where each stem's tip goes on the upper half of an ellipsoid over the mouth."""

import numpy as np

from jolly_trellis.core.books.figures import Constant, rule
from jolly_trellis.core.geometry import GOLDEN_ANGLE_RAD, Array
from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.placement.form import FormRule, declare
from jolly_trellis.core.quantities import worded

LOWEST_SHARE = 0.12
_REACHES: tuple[tuple[Role, str, float, float], ...] = (
    ("margin", "a margin", 1.0, 1.0),
    ("line", "a line", 1.0, 1.15),
    ("focal", "a focal", 0.80, 0.90),
    ("filler", "a filler", 0.70, 0.85),
    ("base", "a base", 0.50, 0.60),
    ("airy", "an airy", 1.05, 1.20),
)
REACH: dict[Role, tuple[Constant, Constant]] = {
    role: (
        rule(worded("Reach of {which} stem towards the envelope, least", which=words), "ratio", least),
        rule(worded("Reach of {which} stem towards the envelope, most", which=words), "ratio", most),
    )
    for role, words, least, most in _REACHES
}
_HEIGHT_BAND: dict[Role, tuple[float, float]] = {
    "margin": (LOWEST_SHARE, 1.0),
    "line": (0.2, 1.0),
    "focal": (0.3, 0.97),
    "filler": (LOWEST_SHARE, 1.0),
    "base": (0.05, 0.45),
    "airy": (0.15, 1.0),
}


def directions(role: Role, number: int, turn_rad: float) -> Array:
    """Evenly spread unit directions for the stems of one recipe line, shape (number, 3).

    Equal steps of height on a sphere and the golden angle round it give equal areas. Margins go first to the
    four sides, then the top, then between the sides.

    Args:
        role: sets the band of heights the stems keep to.
        number: how many stems, ≥ 1.
        turn_rad: turns the whole set, so that two lines do not fall on one another.
    Source: Fibonacci lattice on the sphere (published; González 2010 describes it).
    """
    index = np.arange(number)
    low, high = _HEIGHT_BAND[role]
    height = high - (high - low) * (index + 0.5) / number
    azimuth = turn_rad + index * GOLDEN_ANGLE_RAD
    if role == "margin":
        side = np.where(index < 4, index, index - 5)
        azimuth = side * (np.pi / 2) + np.where(index < 4, 0.0, np.pi / 4 + turn_rad)
        height = np.where(index == 4, 1.0, low)
    flat = np.sqrt(np.maximum(1.0 - height * height, 0.0))
    return np.stack([flat * np.sin(azimuth), -flat * np.cos(azimuth), height], axis=1)


def whole(directions_: Array) -> Array:
    """The plain half-ellipsoid: no stretch, ones of shape (n, 3)."""
    return np.ones_like(directions_)


RULE = declare(
    FormRule(
        kind="dome",
        place=10,
        name="all-round dome",
        said=("dome", "all-round", "round"),
        directions=directions,
        scale=whole,
    )
)
