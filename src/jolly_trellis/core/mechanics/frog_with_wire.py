"""A pin frog on the floor, loose wire in the middle and a layer over the mouth, taped: for tall branches."""

from dataclasses import replace

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromFrogs
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit, check_depth, check_mouth, cut_step, tuck_folds, tuck_step
from jolly_trellis.core.mechanics.pin_frog import (
    FROG_DENSITY,
    PIN_SOFT,
    PIN_WOODY,
    check_floor,
    holding_moment_n_m,
    putty_ring_m,
)
from jolly_trellis.core.mechanics.sized import FlatSheet, Grip, Part, SizedMechanic, Step
from jolly_trellis.core.mechanics.tape import putty_parts, putty_ring_kg, putty_step
from jolly_trellis.core.mechanics.wire import of_netting
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, mass, phrase, worded

WIRED_LEAST = rule("Depth of a vessel for a frog with wire over it, at least", "length", 0.08)
MIDDLE_SIDE = rule("Loose netting over a frog, side against the mouth", "ratio", 1.5, COMMON_PRACTICE)
WIRED_MIN = measure("Time to seat a frog under wire", "minutes", 4.0)


def size(fit: Fit) -> SizedMechanic:
    """Size a frog with wire.

    Raises: InvalidMeasure: no pin frog, one that does not fit, a mouth narrower than a cell, or under 8 cm deep.
    """
    check_mouth(fit)
    check_depth(fit, WIRED_LEAST.value, "A frog with wire over it")
    frog = fit.frog_of("pin")
    check_floor(fit, frog)
    oversize, tuck = 1 + fit.choice.squeeze, fit.tuck_m
    wide, long = (each * oversize + 2 * tuck for each in (fit.mouth_m, fit.mouth_long_m))
    top = nets.sheet(fit.net, width_m=wide, length_m=long)
    middle_side = fit.mouth_m * MIDDLE_SIDE.value
    middle = nets.sheet(fit.net, width_m=middle_side, length_m=middle_side)
    radius = frog.width_m / 2
    ring = putty_ring_m(frog.width_m) if fit.putty else 0.0
    stuck = (putty_step(ring, "under the frog, on a dry floor"),) if fit.putty else ()
    half = (fit.depth_m + frog.height_m) / 2
    sizes = (length(frog.width_m), mass(frog.mass_kg))
    parts = (
        Part(name=frog.name, quantity=1, sizes=sizes, mass_kg=frog.mass_kg, taken=FromFrogs(frog=frog.key)),
        *putty_parts(ring),
    )
    made = of_netting(
        fit,
        kind="frog_with_wire",
        name=worded("{frog} with wire over it", frog=frog.name),
        heights_m=(fit.depth_m, half),
        flat=(
            FlatSheet(name="top layer", sheet=top, folds=tuck_folds(fit, long), tuck_m=tuck),
            FlatSheet(name="loose middle", sheet=middle),
        ),
        parts=parts,
        extra_moment_n_m=holding_moment_n_m(mass_kg=frog.mass_kg, radius_m=radius, putty_ring_m=ring),
        seated_by="its spring and the frog",
        extra_minutes=WIRED_MIN.value,
        steps=(
            *stuck,
            Step(
                kind="seat",
                say=phrase("Set the frog on the flat of the floor."),
                caution="Pins stab: keep the cover on until it is seated.",
            ),
            cut_step(fit, middle, "the loose middle"),
            Step(kind="crumple", say=phrase("Crumple it loosely over the frog.")),
            cut_step(fit, top, "the top layer"),
            tuck_step(fit),
            Step(kind="spring in", say=phrase("Spring the top layer into the mouth.")),
        ),
    )
    price = None if made.price is None or frog.price is None else made.price + frog.price
    return replace(
        made,
        grip=Grip(radius_m=radius, height_m=frog.height_m, soft_n_m=PIN_SOFT.value, woody_n_m=PIN_WOODY.value),
        frog_mass_kg=frog.mass_kg,
        frog_radius_m=radius,
        putty_ring_m=ring,
        putty_kg=putty_ring_kg(ring),
        displaced_volume_l=made.displaced_volume_l + 1000 * frog.mass_kg / FROG_DENSITY.value,
        price=price,
    )


FROG_WITH_WIRE = declare(
    About(
        kind="frog_with_wire",
        draw=lambda bed: [*drawn.pins(bed), *drawn.netting(bed)],
        place=130,
        name="Frog with wire",
        what="pins below, loose wire, a layer on top",
        size=size,
        netting=True,
        frog="pin",
        least_strips=1,
    )
)
