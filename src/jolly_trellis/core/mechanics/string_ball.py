"""A ball of netting tied like a parcel; the string is cut when the vessel is full of stems."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit, check_depth, check_mouth, cut_step
from jolly_trellis.core.mechanics.sized import FlatSheet, Part, SizedMechanic, Step
from jolly_trellis.core.mechanics.tape import STRING_HOLDS, STRING_KG_M
from jolly_trellis.core.mechanics.wire import of_netting
from jolly_trellis.core.quantities import length, phrase

BALL_SHEET = rule("Side of the sheet against the ball's diameter", "ratio", 2.6)
CRUMPLED = measure("Clear width of crumpled cells against flat", "ratio", 0.8)
KNOT = rule("String for knots", "length", 0.20)
BALL_LEAST = rule("Depth of a vessel for a tied ball, at least", "length", 0.06)
BALL_OVER_FLOOR = rule("A tied ball keeps over the floor by", "length", 0.01)
BALL_SAVES = measure("A crumpled ball takes less time than folded layers by", "minutes", 2.0)


def string_length_m(vessel_width_m: float, vessel_height_m: float) -> float:
    """String tied twice round ball and vessel like a parcel, with knots, metres.

    Source: geometry: two loops over the mouth, down both sides and under.
    """
    return 2 * (2 * vessel_width_m + 2 * vessel_height_m) + KNOT.value


def size(fit: Fit) -> SizedMechanic:
    """Size a string-tied ball. Raises InvalidMeasure: a mouth narrower than a cell, or under 6 cm deep."""
    check_mouth(fit)
    check_depth(fit, BALL_LEAST.value, "A tied ball")
    ball = min(fit.mouth_m * (1 + fit.choice.squeeze), fit.depth_m)
    side = BALL_SHEET.value * fit.mouth_m * (1 + fit.choice.squeeze)
    sheet = nets.sheet(fit.net, width_m=side, length_m=side * fit.mouth_long_m / fit.mouth_m)
    string = string_length_m(fit.mouth_m + 2 * fit.vessel.wall_m, fit.vessel.rim_m)
    low = max(fit.depth_m - ball, BALL_OVER_FLOOR.value)
    levels = 4
    step = (fit.depth_m - low) / (levels - 1)
    return of_netting(
        fit,
        kind="string_ball",
        name="string-tied ball",
        heights_m=tuple(fit.depth_m - index * step for index in range(levels)),
        flat=(FlatSheet(name="sheet", sheet=sheet),),
        parts=(
            Part(
                name="string",
                quantity=1,
                sizes=(length(string),),
                mass_kg=string * STRING_KG_M.value,
                taken=FromSupply(supply="string", how="in all"),
            ),
        ),
        aperture_share=CRUMPLED.value,
        extra_moment_n_m=STRING_HOLDS.value * fit.mouth_m / 2,
        seated_by="its spring and the string",
        extra_minutes=-BALL_SAVES.value,
        steps=(
            cut_step(fit, sheet, "one sheet"),
            Step(
                kind="ball",
                say=phrase("Crumple it to a loose ball {d} across, ends inwards.", d=length(ball)),
            ),
            Step(
                kind="tie",
                say=phrase(
                    "Tie it in like a parcel with {string} of string; cut the string when the stems lock it.",
                    string=length(math.ceil(string * 20) / 20),
                ),
            ),
        ),
    )


STRING_BALL = declare(
    About(
        kind="string_ball",
        draw=drawn.netting,
        place=70,
        name="String-tied ball",
        what="a ball of netting tied like a parcel",
        size=size,
        netting=True,
    )
)
