"""Tape, putty and string over a mouth: what they hold, how much of them, and how they go on."""

import math
from typing import TYPE_CHECKING

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.mechanics.sized import Part, Step
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import cut_length, length, mass, phrase

if TYPE_CHECKING:
    from jolly_trellis.core.mechanics.fit import Fit

WIDE_TAPE = rule("Tape wider than this is cut from the wide roll", "length", 0.009)
TAPE_KG_M2 = measure("Mass of tape", "areal_mass", 0.33)
TAPE_END_N_M = measure("Hold of a tape end on a clean dry rim, for its width", "line_force", 1000.0)
TAPE_OVERHANG = rule("Tape down the outside at each end", "length", 0.025, COMMON_PRACTICE)
STRING_KG_M = measure("Mass of a metre of string", "linear_mass", 0.0015)
TAPE_PRICE_M = measure("Price of a metre of tape", "price_m", 0.12)
PUTTY_PULL = measure("Putty on a clean dry surface, in pull and in shear", "pressure", 10_000.0)
PUTTY_WIDTH = rule("Width of a putty ring", "length", 0.008, COMMON_PRACTICE)
PUTTY_KG_M = measure("Putty per metre of ring", "linear_mass", 0.075)
PUTTY_PRICE_KG = measure("Price of a kilogram of putty", "price_kg", 28.0)
STRING_HOLDS = measure("String over a mechanic until it is cut", "force", 20.0)
MAX_TAPE_STRIPS = 6


def tape_moment_n_m(*, strips: int, tape_width_m: float, mouth_size_m: float) -> float:
    """Moment that tape across the rim adds: each strip's end force over the mouth, N·m.

    Valid for: tape put on a clean, dry rim; on a wet one it is nothing.
    Source: estimate, 6 N per end at 6 mm width, 12 N at 12 mm.
    """
    return strips * TAPE_END_N_M.value * tape_width_m * mouth_size_m


def taped_n_m(fit: "Fit") -> float:
    """Moment of this fit's tape, N·m."""
    return tape_moment_n_m(strips=fit.tape_strips, tape_width_m=fit.choice.tape_width_m, mouth_size_m=fit.mouth_m)


def strip_length_m(fit: "Fit") -> float:
    """Length of one tape strip: over the mouth, both walls and 2.5 cm down each side, metres; that of a moss sandwich
    lies on the diagonal.
    """
    cornered = fit.vessel.plan_shape in ("square", "rectangular")
    over = (
        math.hypot(fit.mouth_m, fit.mouth_long_m) if cornered and fit.choice.kind == "moss_sandwich" else fit.mouth_m
    )
    return over + 2 * (fit.vessel.wall_m + TAPE_OVERHANG.value)


def grid_parts(fit: "Fit", strips: int, length_m: float) -> tuple[Part, ...]:
    """The tape of a grid across the rim as a part; string where nothing single-use of plastic is taken, or no tape.

    Args:
        strips: both ways together. length_m: of all of them, ends and all, m.
    """
    if with_string(fit):
        return (
            Part(
                name="string of the grid",
                quantity=1,
                sizes=(length(length_m),),
                mass_kg=STRING_KG_M.value * length_m,
                taken=FromSupply(supply="string", how="in all"),
            ),
        )
    return (
        Part(
            name="tape of the grid",
            quantity=strips,
            sizes=(length(length_m / strips),),
            mass_kg=tape_kg(length_m, fit.choice.tape_width_m),
            taken=FromSupply(supply=tape_supply(fit.choice.tape_width_m), how="each cut"),
        ),
    )


def with_string(fit: "Fit") -> bool:
    """Whether a grid is strung of string: where tape is not taken."""
    return fit.plastic_free or fit.choice.tape_strips == 0


def taped_share(fit: "Fit") -> float:
    """Share of the mouth that tape covers, 0-1."""
    return min(1.0, fit.tape_strips * fit.choice.tape_width_m * fit.mouth_m / fit.mouth_area_m2)


def tape_price(fit: "Fit") -> float:
    """Price of this fit's tape."""
    return fit.tape_strips * strip_length_m(fit) * TAPE_PRICE_M.value


def tape_parts(fit: "Fit") -> tuple[Part, ...]:
    """The tape strips as parts, none where there are none."""
    if not fit.tape_strips:
        return ()
    long, strips = strip_length_m(fit), fit.tape_strips
    kg = tape_kg(strips * long, fit.choice.tape_width_m)
    return (
        Part(
            name="tape strip",
            quantity=strips,
            sizes=(length(long),),
            mass_kg=kg,
            taken=FromSupply(supply=tape_supply(fit.choice.tape_width_m), how="each cut"),
        ),
    )


def tape_supply(width_m: float) -> str:
    """The key of the supply that tape of a width is cut from."""
    return "tape-12" if width_m > WIDE_TAPE.value else "tape-6"


def tape_kg(length_m: float, width_m: float) -> float:
    """Mass of a length of tape, kg. Source: area; its mass is an estimate."""
    return TAPE_KG_M2.value * length_m * width_m


def putty_parts(ring_m: float) -> tuple[Part, ...]:
    """A ring of putty as a part, none where there is none."""
    if not ring_m:
        return ()
    kg = putty_ring_kg(ring_m)
    return (
        Part(
            name="putty ring",
            quantity=1,
            sizes=(length(ring_m), mass(kg)),
            mass_kg=kg,
            taken=FromSupply(supply="putty", how="by mass"),
        ),
    )


def tape_step(fit: "Fit") -> tuple[Step, ...]:
    """What to say about the tape, nothing where there is none."""
    if not fit.tape_strips:
        return ()
    words = {
        1: "Tape across the rim: one strip of {tape}, {wide} wide, across the middle.",
        2: "Tape across the rim: two strips of {tape}, {wide} wide, crossed in the middle.",
    }
    more = "Tape across the rim: {tape_strips} strips of {tape}, {wide} wide, {one} one way and {other} the other."
    if fit.tape_strips == 1 and fit.choice.kind == "moss_sandwich":
        words[1] = "Tape across the rim: one strip of {tape}, {wide} wide, on the diagonal."
    say = phrase(
        words.get(fit.tape_strips, more),
        one=fit.tape_strips - fit.tape_strips // 2,
        other=fit.tape_strips // 2,
        tape=cut_length(strip_length_m(fit)),
        wide=length(fit.choice.tape_width_m),
        tape_strips=fit.tape_strips,
    )
    return (Step(kind="tape", say=say, caution="Tape holds on a clean, dry rim only."),)


def putty_ring_kg(girth_m: float) -> float:
    """Putty for a ring of a given girth, kg. Source: estimate, 75 g per metre of an 8 mm ring."""
    return PUTTY_KG_M.value * girth_m


def putty_moment_n_m(*, area_m2: float, arm_m: float) -> float:
    """Moment that putty resists: pull × area × arm, N·m.

    Valid for: clean, dry surfaces; on wet ones it is nothing.
    Source: estimate, 10 kPa.
    """
    return PUTTY_PULL.value * area_m2 * arm_m


def putty_step(girth_m: float, where: str) -> Step:
    """Sticking something down with a ring of putty."""
    say = phrase(
        "Press a ring of putty {long} long, {m}, {where}; twist to bed it.",
        long=cut_length(girth_m),
        m=mass(putty_ring_kg(girth_m)),
        where=where,
    )
    return Step(kind="stick", say=say, caution="Putty bonds to dry, clean surfaces only.")
