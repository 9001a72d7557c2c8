"""Rolled netting: hung from sticks in a trough, or rolled and pressed flat to three layers in a shallow dish."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit, check_depth, check_mouth, cut_step, tuck_folds, tuck_step
from jolly_trellis.core.mechanics.sized import FlatSheet, Part, SizedMechanic, Step
from jolly_trellis.core.mechanics.wire import of_netting
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, phrase, worded

ROLL_OVERSIZE = rule("Roll against the inner width of its trough", "ratio", 1.05, COMMON_PRACTICE)
TURNS = rule("Turns of a roll", "ratio", 1.5, COMMON_PRACTICE)
STICK_OVERHANG = rule("Stick past the outside of the trough at each end", "length", 0.03, COMMON_PRACTICE)
STICK_SPACING = rule("One stick for every", "length", 0.30, COMMON_PRACTICE)
STICK_KG_M = measure("Mass of a metre of bamboo stick", "linear_mass", 0.04)
STICK_MOMENT = measure("Moment a stick across the rim adds", "moment", 0.6)
PRESSED_GAP = measure("Gap between pressed layers", "length", 0.015)
TROUGH_RATIO = 1.8
ROLL_LEAST = rule("Depth of a vessel for a roll on sticks, at least", "length", 0.06)
PRESSED_LEAST = rule("Depth of a vessel for a three-layer roll, at least", "length", 0.03)
ROLL_OVER_FLOOR = rule("A roll keeps over the floor by", "length", 0.005)
STICK_MIN = measure("Time to push a stick through a roll", "minutes", 2.0)


def roll_diameter_m(inner_width_m: float) -> float:
    """Diameter of the roll: inner width × 1.05, metres. Source: common practice, no source."""
    return ROLL_OVERSIZE.value * inner_width_m


def roll_sheet_width_m(diameter_m: float, turns: float) -> float:
    """Width of sheet that makes a roll: π·d·turns, metres. Source: geometry, turns on one diameter."""
    return math.pi * diameter_m * turns


def sticks(inner_length_m: float) -> int:
    """Sticks across the rim: one for every 30 cm, at least one. Source: common practice, no source."""
    return max(1, math.ceil(inner_length_m / STICK_SPACING.value - 1e-9))


def size_on_sticks(fit: Fit) -> SizedMechanic:
    """Size a roll hung on sticks across a long trough.

    Raises: InvalidMeasure: a vessel that is no trough, or under 6 cm deep.
    """
    check_mouth(fit)
    check_depth(fit, ROLL_LEAST.value, "A roll on sticks")
    if fit.mouth_long_m < TROUGH_RATIO * fit.mouth_m:
        raise InvalidMeasure(
            path="mechanic.kind",
            message=phrase("A roll on sticks is for a long trough; this mouth is nearly as wide as it is long."),
            limit=phrase("Use a vessel at least {long} long.", long=length(TROUGH_RATIO * fit.mouth_m)),
        )
    diameter = min(roll_diameter_m(fit.mouth_m), fit.depth_m)
    sheet = nets.sheet(fit.net, width_m=roll_sheet_width_m(diameter, TURNS.value), length_m=fit.mouth_long_m)
    number, stick = sticks(fit.mouth_long_m), fit.mouth_m + 2 * (fit.vessel.wall_m + STICK_OVERHANG.value)
    sticks_kg = number * stick * STICK_KG_M.value
    low = max(fit.depth_m - diameter, ROLL_OVER_FLOOR.value)
    return of_netting(
        fit,
        kind="cross_stick_roll",
        name="roll on cross-sticks",
        heights_m=(fit.depth_m, (fit.depth_m + low) / 2, low),
        flat=(FlatSheet(name="sheet", sheet=sheet),),
        parts=(
            Part(
                name="stick",
                quantity=number,
                sizes=(length(stick),),
                mass_kg=sticks_kg,
                taken=FromSupply(supply="stick", how="each cut", lasts=True),
            ),
        ),
        extra_moment_n_m=number * STICK_MOMENT.value,
        seated_by=worded("its spring and {n} {n|stick|sticks}", n=number),
        extra_minutes=STICK_MIN.value * number,
        steps=(
            cut_step(fit, sheet, "one sheet"),
            Step(
                kind="roll",
                say=phrase(
                    "Roll it {turns} turns to {d} across and drop it in.", d=length(diameter), turns=f"{TURNS.value:g}"
                ),
            ),
            Step(
                kind="hang",
                say=phrase(
                    "Push {n} {n|stick|sticks}, {long} each, through its top, resting on both rims.",
                    n=number,
                    long=length(stick),
                ),
            ),
        ),
    )


def size_pressed(fit: Fit) -> SizedMechanic:
    """Size a three-layer roll for a shallow dish: width W + 2t, length 3W + 2t.

    Raises: InvalidMeasure: a mouth narrower than a cell, or under 3 cm deep.
    Source: geometry; the form is common practice, no source.
    """
    check_mouth(fit)
    check_depth(fit, PRESSED_LEAST.value, "A three-layer roll")
    oversize, tuck = 1 + fit.choice.squeeze, fit.tuck_m
    width, long = fit.mouth_m * oversize + 2 * tuck, 3 * fit.mouth_long_m * oversize + 2 * tuck
    sheet = nets.sheet(fit.net, width_m=width, length_m=long)
    gap = min(PRESSED_GAP.value, (fit.depth_m - ROLL_OVER_FLOOR.value) / 2)
    return of_netting(
        fit,
        kind="three_layer_roll",
        anchored=True,
        name="three-layer roll",
        heights_m=tuple(fit.depth_m - index * gap for index in range(3)),
        flat=(FlatSheet(name="sheet", sheet=sheet, folds=tuck_folds(fit, long), tuck_m=tuck),),
        steps=(
            cut_step(fit, sheet, "one sheet"),
            tuck_step(fit),
            Step(kind="roll", say=phrase("Roll it, press it flat to three layers, twist the ends in.")),
            Step(
                kind="anchor", say=phrase("It sits still once three anchor stems at the edge are in: do those first.")
            ),
        ),
    )


CROSS_STICK_ROLL = declare(
    About(
        kind="cross_stick_roll",
        draw=drawn.roll,
        place=50,
        name="Roll on cross-sticks",
        what="rolled netting hung in a trough",
        size=size_on_sticks,
        netting=True,
    )
)
THREE_LAYER_ROLL = declare(
    About(
        kind="three_layer_roll",
        draw=drawn.folded_netting,
        place=60,
        name="Three-layer roll",
        what="rolled and pressed flat in a dish",
        size=size_pressed,
        netting=True,
    )
)
