"""What a form of arrangement is to the placer, and every form by its name."""

import math
from collections.abc import Callable
from dataclasses import dataclass

from jolly_trellis.core.books.figures import Constant
from jolly_trellis.core.choices import FORMS
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.plan.piece import Form

Directions = Callable[[Role, int, float], Array]
Scale = Callable[[Array], Array]
ONE_POINT: tuple[tuple[float, float], ...] = ((0.0, 0.0),)
SEVERAL_POINTS: tuple[tuple[float, float], ...] = ((-0.45, -0.2), (0.45, -0.1), (0.0, 0.45))


POINTS_OUT = 0.45


def growing_points(number: int) -> tuple[tuple[float, float], ...]:
    """So many places to grow from, as shares of the mouth's half sizes: one in the middle, several evenly round it.

    Source: geometry; how far out they lie is an estimate.
    """
    if number == 1:
        return ONE_POINT
    turns = (2 * math.pi * (nth + 0.25) / number for nth in range(number))
    return tuple((POINTS_OUT * math.cos(turn), POINTS_OUT * math.sin(turn)) for turn in turns)


@dataclass(frozen=True, slots=True, kw_only=True)
class FormRule:
    """A form: how it spreads its stems, and how it is named.

    `place` is where it stands in lists, `said` the words it is understood by. `directions(role, number, turn_rad)`
    gives unit directions from the middle of the mouth, shape (number, 3), z ≥ 0; `scale(directions)` how the
    half-ellipsoid of the envelope is stretched along x, y and z in each, shape (n, 3); `growing_points` are shares of
    the mouth's half sizes. `front_facing` forms are seen from the front and sides only, and go back by the share
    `back`, None as far as their scale says. One that is `lengthwise` is longer than it is deep.
    """

    kind: Form
    place: int
    name: str
    said: tuple[str, ...]
    directions: Directions
    scale: Scale
    growing_points: tuple[tuple[float, float], ...] = ONE_POINT
    front_facing: bool = False
    back: Constant | None = None
    lengthwise: bool = False


FORM_RULES: dict[Form, FormRule] = {}


def declare(rule: FormRule) -> FormRule:
    """Make a form known, in its place; called once by the file that describes it."""
    every = sorted((*FORM_RULES.values(), rule), key=lambda each: each.place)
    FORM_RULES.clear()
    FORM_RULES.update({each.kind: each for each in every})
    FORMS.know(list(FORM_RULES))
    return rule
