"""For troughs: loops of cane sprung between the walls, and bundles of thorny stem laid in to grip."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.materials.netting import cell_capacity
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit, check_depth
from jolly_trellis.core.mechanics.rings import WOOD_DENSITY
from jolly_trellis.core.mechanics.sized import Level, Part, Seating, SizedMechanic, Step, weight_kg
from jolly_trellis.core.mechanics.tape import tape_parts, tape_price, tape_step, taped_n_m
from jolly_trellis.core.plan.piece import MechanicKind
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, phrase

LOOPS_APART = rule("Loops of cane in a trough, one every", "length", 0.03, COMMON_PRACTICE)
LOOP_CANE = rule("Cane of a loop", "length", 0.004, COMMON_PRACTICE)
LOOP_GAP = measure("Clear width between crossing loops of cane", "length", 0.022)
LOOP_MOMENT = measure("Moment loops of cane sprung in a trough take", "moment", 0.6)
LOOP_MIN = measure("Time to bend and spring in one loop of cane", "minutes", 0.8)
LOOP_USES = measure("Times loops of cane are used again", "count", 6)
THORN_APART = rule("Thorny stems laid in a trough, middle to middle", "length", 0.025, COMMON_PRACTICE)
THORN_STEM = rule("Thorny stem of a holder", "length", 0.006, COMMON_PRACTICE)
THORN_MOMENT = measure("Moment thorny stems wedged in a trough take", "moment", 0.4)
THORN_MIN = measure("Time to cut and lay one thorny stem", "minutes", 0.5)
TROUGH_SLOP = measure("Slop under cane or thorns against bare wire", "ratio", 1.1)
TROUGH_LEAST = rule("Depth of a trough for loops or thorns, at least", "length", 0.05)
CANE_PRICE_M = measure("Price of a metre of pliable stem", "price_m", 0.45)


def loop_length_m(across_m: float, deep_m: float) -> float:
    """Cane of one loop: an arch that springs from wall to wall and stands in both corners, m.

    Source: half an ellipse as wide as the trough and as high as it is deep, and a foot in each corner.
    """
    half, high = across_m / 2, deep_m
    squashed = ((half - high) / (half + high)) ** 2
    arch = math.pi / 2 * (half + high) * (1 + 3 * squashed / (10 + math.sqrt(4 - 3 * squashed)))
    return arch + 0.02


def size_loops(fit: Fit) -> SizedMechanic:
    """Size loops of cane sprung across a trough one behind the other, and one lengthwise through them.

    Raises: InvalidMeasure: a vessel under 5 cm deep.
    """
    check_depth(fit, TROUGH_LEAST.value, "Loops of cane")
    number = max(2, math.ceil(fit.mouth_long_m / LOOPS_APART.value - 1e-9))
    each = loop_length_m(fit.mouth_m, fit.depth_m)
    return _wedged(
        fit,
        kind="cane_loops",
        name="loops of cane",
        part="loop of cane",
        number=number,
        long_m=each,
        thick_m=LOOP_CANE.value,
        gap_m=LOOP_GAP.value,
        pitch_m=LOOPS_APART.value,
        moment=LOOP_MOMENT.value,
        minutes=number * LOOP_MIN.value,
        uses=round(LOOP_USES.value),
        step=Step(
            kind="spring in",
            say=phrase(
                "Bend {number} loops of pliable cane, {each} each, spring them in across the trough {apart} "
                "apart, and weave one lengthwise through.",
                number=number,
                each=length(each),
                apart=length(LOOPS_APART.value),
            ),
        ),
    )


def size_thorns(fit: Fit) -> SizedMechanic:
    """Size thorny stems wedged across a trough at two heights, crossing: thorns catch what is pushed between.

    Raises: InvalidMeasure: a vessel under 5 cm deep.
    """
    check_depth(fit, TROUGH_LEAST.value, "Thorny stems")
    number = 2 * max(2, math.ceil(fit.mouth_long_m / THORN_APART.value - 1e-9))
    each = fit.mouth_m * 1.06
    return _wedged(
        fit,
        kind="thorny_holders",
        name="thorny stems",
        part="thorny stem",
        number=number,
        long_m=each,
        thick_m=THORN_STEM.value,
        gap_m=THORN_APART.value - THORN_STEM.value,
        pitch_m=THORN_APART.value,
        moment=THORN_MOMENT.value,
        minutes=number * THORN_MIN.value,
        uses=1,
        step=Step(
            kind="wedge",
            say=phrase(
                "Cut {number} thorny stems {each} long, leaves off, and wedge them across the trough at two heights.",
                number=number,
                each=length(each),
            ),
            caution="Thorns: gloves.",
        ),
    )


def _wedged(
    fit: Fit,
    *,
    kind: MechanicKind,
    name: str,
    part: str,
    number: int,
    long_m: float,
    thick_m: float,
    gap_m: float,
    pitch_m: float,
    moment: float,
    minutes: float,
    uses: int,
    step: Step,
) -> SizedMechanic:
    """Wood wedged across a vessel: holds at the rim and half way down, rots, is seen without shame."""
    volume = number * long_m * math.pi / 4 * thick_m**2
    wood = Part(
        name=part,
        quantity=number,
        sizes=(length(long_m),),
        mass_kg=volume * WOOD_DENSITY.value,
        taken=FromSupply(supply="pliable-stems", how="each cut"),
    )
    parts = (wood, *tape_parts(fit))
    cells = max(1, int(fit.mouth_area_m2 / pitch_m**2))
    return SizedMechanic(
        kind=kind,
        name=name,
        seating=Seating(pattern="hexagonal", pitch_m=pitch_m, aperture_m=gap_m, height_m=fit.depth_m),
        levels=tuple(Level(height_m=share * fit.depth_m, aperture_m=gap_m) for share in (1.0, 0.5)),
        layer_gap_m=0.5 * fit.depth_m,
        parts=parts,
        tape_strips=fit.tape_strips,
        seat_moment_n_m=moment + taped_n_m(fit),
        seated_by="wedging",
        seat_arm_m=fit.mouth_m / 2,
        capacity=cells * cell_capacity(gap_m, fit.stem_diameter_m),
        displaced_volume_l=1000 * volume / 2,
        mass_kg=weight_kg(parts),
        price=CANE_PRICE_M.value * number * long_m + tape_price(fit),
        minutes=minutes,
        uses=uses,
        compostable=True,
        single_use_plastic=fit.tape_strips > 0,
        shows=False,
        loose=not fit.tape_strips,
        slop_factor=TROUGH_SLOP.value,
        steps=(step, *tape_step(fit)),
    )


CANE_LOOPS = declare(
    About(
        kind="cane_loops",
        draw=drawn.twigs,
        place=145,
        name="Loops of cane",
        what="hoops of pliable cane sprung across a trough",
        size=size_loops,
    )
)
THORNY_HOLDERS = declare(
    About(
        kind="thorny_holders",
        draw=drawn.twigs,
        place=147,
        name="Thorny stems",
        what="thorny stems wedged across, which grip",
        size=size_thorns,
    )
)
