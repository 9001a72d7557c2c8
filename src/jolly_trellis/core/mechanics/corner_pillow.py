"""The corner pillow: a square of netting, its four corners folded to the middle and wrapped round each other."""

import math

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit, check_depth, check_mouth, cut_step, gap_m
from jolly_trellis.core.mechanics.sized import FlatSheet, SizedMechanic, Step
from jolly_trellis.core.mechanics.wire import of_netting
from jolly_trellis.core.quantities import length, phrase

PILLOW_LEAST = rule("Depth of a vessel for a corner pillow, at least", "length", 0.04)


def side_m(mouth_m: float, squeeze: float) -> float:
    """Side of the square to cut: √2·W with W = mouth·(1 + squeeze), metres.

    Folding the corners to the middle halves the area; a pillow as wide as the mouth comes of a square √2 wider.

    Source: geometry; "a 30 cm sheet for a 20 cm mouth" is common practice, no source.
    """
    return math.sqrt(2) * mouth_m * (1 + squeeze)


def size(fit: Fit) -> SizedMechanic:
    """Size a corner pillow. Raises InvalidMeasure: a mouth narrower than a cell, or under 4 cm deep."""
    check_mouth(fit)
    check_depth(fit, PILLOW_LEAST.value, "A corner pillow")
    side = side_m(fit.mouth_long_m, fit.choice.squeeze)
    sheet = nets.sheet(fit.net, width_m=side, length_m=side)
    gap = gap_m(fit, 2)
    return of_netting(
        fit,
        kind="corner_pillow",
        name="corner pillow",
        heights_m=(fit.depth_m, fit.depth_m - gap),
        flat=(FlatSheet(name="square", sheet=sheet, diagonal_folds=True),),
        steps=(
            cut_step(fit, sheet, "one square"),
            Step(kind="fold", say=phrase("Fold the four corners to the middle and wrap their points together.")),
            Step(
                kind="spring in",
                say=phrase("Puff it {gap} thick and spring it in, points down.", gap=length(gap)),
            ),
        ),
    )


CORNER_PILLOW = declare(
    About(
        kind="corner_pillow",
        draw=drawn.folded_netting,
        place=20,
        name="Corner pillow",
        what="a square, its corners folded to the middle",
        size=size,
        netting=True,
        reads=frozenset({"layer_gap_m"}),
    )
)
