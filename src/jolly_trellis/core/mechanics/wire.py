"""A mechanic of netting put together from its levels and sheets: what the netting mechanics share."""

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import from_roll
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.mechanics.fit import (
    MINUTES_PER_LAYER,
    Fit,
    cells_free,
    netting_price,
    netting_seating,
    netting_uses,
    point_strength,
    squeezed_n_m,
    stems_taken,
)
from jolly_trellis.core.mechanics.sized import FlatSheet, Level, Part, SizedMechanic, Step, weight_kg
from jolly_trellis.core.mechanics.tape import (
    PUTTY_WIDTH,
    putty_moment_n_m,
    putty_parts,
    putty_ring_kg,
    putty_step,
    strip_length_m,
    tape_parts,
    tape_price,
    tape_step,
    taped_share,
)
from jolly_trellis.core.plan.piece import MechanicKind
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, worded

DABS = rule("Dabs of putty under a rim", "count", 4, COMMON_PRACTICE)
DAB_LENGTH = rule("Length of a dab of putty", "length", 0.02, COMMON_PRACTICE)
STRIP_MIN = measure("Time to tape one strip", "minutes", 1.0)


def of_netting(
    fit: Fit,
    *,
    kind: MechanicKind,
    name: str,
    heights_m: tuple[float, ...],
    flat: tuple[FlatSheet, ...],
    steps: tuple[Step, ...],
    layer_gap_m: float | None = None,
    parts: tuple[Part, ...] = (),
    aperture_share: float = 1.0,
    slop_factor: float = 1.0,
    extra_moment_n_m: float = 0.0,
    seated_by: str = "its spring",
    loose: bool = False,
    extra_minutes: float = 0.0,
    mossed: bool = False,
    anchored: bool = False,
) -> SizedMechanic:
    """A netting mechanic in the mouth.

    Args:
        fit: what it is sized to.
        heights_m: of its levels above the inside floor, from the rim down.
        flat: the sheets it is cut from.
        steps: what to do before the tape.
        layer_gap_m: worked out from the first two heights where it is not given.
        aperture_share: clear width of a cell as seated against flat.
        extra_moment_n_m: what string, sticks or moss add to the squeeze.
    """
    net = fit.net
    aperture = nets.aperture_m(net)
    sheets = tuple(each.sheet for each in flat)
    wire_kg = sum(each.mass_kg for each in sheets)
    pieces = tuple(
        Part(
            name=f"{each.name}, {net.name}",
            quantity=1,
            sizes=(length(each.sheet.width_m), length(each.sheet.length_m)),
            mass_kg=each.sheet.mass_kg,
            taken=from_roll(each.name, net, each.sheet),
        )
        for each in flat
    )
    price = netting_price(net, sheets)
    dabs = fit.putty and fit.frog is None
    putty_m = DABS.value * DAB_LENGTH.value if dabs else 0.0
    if dabs:
        extra_moment_n_m += putty_moment_n_m(area_m2=putty_m * PUTTY_WIDTH.value, arm_m=fit.mouth_m / 2)
        steps = (putty_step(putty_m, "in four dabs under the rim, on a dry wall"), *steps)
        seated_by += " and putty"
    gap = layer_gap_m
    if gap is None:
        gap = heights_m[0] - heights_m[1] if len(heights_m) > 1 else 0.0
    strips = fit.tape_strips
    all_parts = (*pieces, *parts, *tape_parts(fit), *putty_parts(putty_m))
    return SizedMechanic(
        kind=kind,
        name=name,
        seating=netting_seating(fit),
        levels=tuple(Level(height_m=each, aperture_m=aperture * aperture_share) for each in heights_m),
        layer_gap_m=gap,
        flat=flat,
        parts=all_parts,
        tape_strips=strips,
        tape_strip_length_m=strip_length_m(fit),
        tape_share_of_mouth=taped_share(fit),
        putty_ring_m=putty_m,
        putty_kg=putty_ring_kg(putty_m),
        seat_moment_n_m=squeezed_n_m(fit) + extra_moment_n_m,
        seated_by=seated_by if not strips else worded("{by} and {n} tape {n|strip|strips}", by=seated_by, n=strips),
        strength_n=point_strength(net.wire_m).value,
        capacity=stems_taken(fit, cells_free(fit, nets.pitch_across_m(net)), aperture),
        displaced_volume_l=1000 * wire_kg / nets.STEEL_DENSITY.value,
        mass_kg=weight_kg(all_parts),
        price=None if price is None else price + tape_price(fit),
        minutes=MINUTES_PER_LAYER.value * max(1, len(heights_m)) + STRIP_MIN.value * strips + extra_minutes,
        uses=netting_uses(net.finish),
        single_use_plastic=strips > 0,
        loose=loose or (len(heights_m) == 1 and not strips),
        slop_factor=slop_factor,
        mossed=mossed,
        anchored=anchored,
        steps=steps + tape_step(fit),
    )
