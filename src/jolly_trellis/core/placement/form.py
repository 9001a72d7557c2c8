"""What a form of arrangement is to the placer, and every form by its name."""

from collections.abc import Callable
from dataclasses import dataclass

from jolly_trellis.core.geometry import Array
from jolly_trellis.core.stems import Role

Directions = Callable[[Role, int, float], Array]
Scale = Callable[[Array], Array]
ONE_POINT: tuple[tuple[float, float], ...] = ((0.0, 0.0),)
SEVERAL_POINTS: tuple[tuple[float, float], ...] = ((-0.45, -0.2), (0.45, -0.1), (0.0, 0.45))


@dataclass(frozen=True, slots=True, kw_only=True)
class FormRule:
    """How a form spreads its stems.

    `directions(role, number, turn_rad)` gives unit directions from the middle of the mouth, shape (number, 3), z ≥ 0;
    `scale(directions)` how the half-ellipsoid of the envelope is stretched along x, y and z in each, shape (n, 3);
    `growing_points` are shares of the mouth's half sizes. `front_facing` forms are seen from the front and sides only.
    """

    directions: Directions
    scale: Scale
    growing_points: tuple[tuple[float, float], ...] = ONE_POINT
    front_facing: bool = False
