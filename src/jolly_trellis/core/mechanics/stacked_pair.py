"""The stacked pair, a low piece and one at the rim; and the moss sandwich, the same with moss between."""

from dataclasses import replace

from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import FLOOR_CLEARANCE, Fit, check_depth, check_mouth, cut_step, tuck_folds
from jolly_trellis.core.mechanics.sized import FlatSheet, Part, SizedMechanic, Step
from jolly_trellis.core.mechanics.wire import of_netting
from jolly_trellis.core.provenance import FROM_MEMORY
from jolly_trellis.core.quantities import length, mass, phrase, volume, worded

MOSS_DRY_KG_M2 = measure("Dry moss spread thin", "areal_mass", 0.25)
MOSS_SOAKS = measure("Water moss takes up, times its dry mass", "ratio", 12.0, FROM_MEMORY)
MOSS_DELIVERS = measure("Share of moss water that stems can drink", "ratio", 0.6, FROM_MEMORY, most=1.0)
MOSS_SLOP = measure("Slop with moss against bare wire", "ratio", 0.7)
MOSS_PRICE_KG = measure("Price of a kilogram of dry moss", "price_kg", 30.0)
LEAST_DEPTH = 0.05
MOSS_MIN = measure("Time to spread moss between two layers", "minutes", 3.0)


def low_level_m(inside_depth_m: float) -> float:
    """Height of the lower piece above the inside floor: 2 cm, or a quarter of a shallow vessel's depth, metres.

    Source: common practice, no source.
    """
    return min(FLOOR_CLEARANCE.value, inside_depth_m / 4)


def disc_side_m(inside_m: float, squeeze: float, tuck_m: float) -> float:
    """Side of a square cut for a disc: inside size there·(1 + squeeze) + 2·tuck, metres. Source: geometry."""
    return inside_m * (1 + squeeze) + 2 * tuck_m


def moss_water_l(dry_kg: float) -> float:
    """Water that moss takes up, litres: 12 times its dry mass. Source: from memory."""
    return MOSS_SOAKS.value * dry_kg


def size(fit: Fit) -> SizedMechanic:
    """Size a stacked pair. Raises InvalidMeasure: a mouth narrower than a cell, or under 5 cm deep."""
    flat, heights = _pair(fit, "A stacked pair")
    return of_netting(
        fit,
        kind="stacked_pair",
        name="stacked pair",
        heights_m=heights,
        flat=flat,
        steps=(
            *_cuts(fit, flat),
            _seat_low(heights),
            Step(kind="spring in", say=phrase("Seat the upper at the rim.")),
        ),
    )


def size_with_moss(fit: Fit) -> SizedMechanic:
    """Size a moss sandwich: a stacked pair, moss over the lower piece, one strip of tape or more.

    Raises: InvalidMeasure, as for a stacked pair.
    """
    flat, heights = _pair(fit, "A moss sandwich")
    area = fit.mouth_area_m2
    dry = MOSS_DRY_KG_M2.value * area
    taken = moss_water_l(dry)
    made = of_netting(
        fit,
        kind="moss_sandwich",
        mossed=True,
        name="moss sandwich",
        heights_m=heights,
        flat=flat,
        parts=(
            Part(
                name="dry moss",
                quantity=1,
                sizes=(mass(dry),),
                mass_kg=dry,
                taken=FromSupply(supply="moss", how="by mass"),
            ),
        ),
        slop_factor=MOSS_SLOP.value,
        extra_minutes=MOSS_MIN.value,
        steps=(
            *_cuts(fit, flat),
            _seat_low(heights),
            Step(
                kind="moss",
                say=phrase("Spread {m} of moss over it; it takes up {water}.", m=mass(dry), water=volume(taken)),
                caution="Dry moss is dusty: wet it first.",
            ),
            Step(kind="spring in", say=phrase("Seat the upper at the rim.")),
        ),
    )
    return replace(
        made,
        absorbed_l=taken,
        deliverable_share=MOSS_DELIVERS.value,
        displaced_volume_l=made.displaced_volume_l + dry,
        price=None if made.price is None else made.price + dry * MOSS_PRICE_KG.value,
    )


def _pair(fit: Fit, what: str) -> tuple[tuple[FlatSheet, ...], tuple[float, float]]:
    check_mouth(fit)
    check_depth(fit, LEAST_DEPTH, what)
    low = low_level_m(fit.depth_m)
    sheets = []
    for name, height in (("upper piece", fit.depth_m), ("lower piece", low)):
        width, depth = vessels.inside_size_m(fit.vessel, height)
        short, long = sorted((width, depth))
        wide, deep = (disc_side_m(each, fit.choice.squeeze, fit.tuck_m) for each in (short, long))
        sheet = nets.sheet(fit.net, width_m=wide, length_m=deep)
        sheets.append(FlatSheet(name=name, sheet=sheet, folds=tuck_folds(fit, deep), tuck_m=fit.tuck_m))
    return tuple(sheets), (fit.depth_m, low)


def _cuts(fit: Fit, flat: tuple[FlatSheet, ...]) -> tuple[Step, ...]:
    return tuple(cut_step(fit, each.sheet, worded("the {sheet}", sheet=each.name)) for each in flat)


def _seat_low(heights_m: tuple[float, float]) -> Step:
    say = phrase("Spring the lower piece in, {low} above the inside floor.", low=length(heights_m[1]))
    return Step(kind="seat low", say=say)


STACKED_PAIR = declare(
    About(
        kind="stacked_pair",
        draw=drawn.netting,
        place=30,
        name="Stacked pair",
        what="one piece low, one at the rim",
        size=size,
        netting=True,
        firm=2,
    )
)
MOSS_SANDWICH = declare(
    About(
        kind="moss_sandwich",
        draw=drawn.moss_between,
        place=40,
        name="Moss sandwich",
        what="a stacked pair with moss between",
        size=size_with_moss,
        netting=True,
        least_strips=1,
    )
)
