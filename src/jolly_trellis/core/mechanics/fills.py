"""Vessels filled with something that holds: a tangle of branches, wood shavings under a grid."""

import math
from dataclasses import replace

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.netting import cell_capacity
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import (
    Fit,
    strip_length_m,
    tape_parts,
    tape_price,
    tape_step,
    taped_n_m,
    taped_share,
)
from jolly_trellis.core.mechanics.rings import WOOD_DENSITY
from jolly_trellis.core.mechanics.sized import Level, Part, Seating, SizedMechanic, Step, weight_kg
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, mass, phrase, volume

TANGLE_FILL = rule("Share of the vessel that coiled stems fill", "ratio", 0.10, COMMON_PRACTICE, most=1.0)
TANGLE_STEM = rule("Thickness of tangle stems", "length", 0.005, COMMON_PRACTICE)
TANGLE_MOMENT = measure("Moment a coiled tangle takes by its own spring", "moment", 0.35)
SHAVINGS_SAG = measure("Wet shavings sag by", "ratio", 0.15, COMMON_PRACTICE)
SHAVINGS_DRY = measure("Dry shavings, packed", "density", 50.0)
SHAVINGS_SOLID = measure("Share of shavings that is solid", "ratio", 0.10, most=1.0)
SHAVINGS_GAP = measure("Clear width among shavings", "length", 0.014)
SHAVINGS_MOMENT = measure("Moment a packed fill takes", "moment", 0.8)
LEAST_GRID = 2
GRID_SPACING = rule("Usual spacing of a grid across the rim", "length", 0.03, COMMON_PRACTICE)
TANGLE_PITCH = rule("Stems in a tangle are apart by, at least", "length", 0.018)
TANGLE_PRICE = measure("Price of the pliable stems of a tangle", "price", 3.0)
TANGLE_MIN = measure("Time to coil a tangle", "minutes", 12.0)
TANGLE_USES = measure("Times a tangle is used again", "count", 4)
SHAVINGS_PRICE = measure("Price of a litre of shavings", "price_l", 0.75)
SHAVINGS_MIN = measure("Time to fill with shavings and tape the grid", "minutes", 6.0)
SHAVINGS_SLOP = measure("Slop with shavings against bare wire", "ratio", 0.8)


def tangle_stem_length_m(volume_l: float, fill: float, stem_m: float) -> float:
    """Length of stem that fills a share of a vessel: V·φ/(π·d²/4), metres.

    Args:
        volume_l: of the vessel to the rim.
        fill: share filled, 0.08-0.12.
        stem_m: thickness of a stem, m.
    Source: geometry; the share is common practice, no source.
    """
    return volume_l / 1000 * fill / (math.pi / 4 * stem_m**2)


def tangle_gap_m(fill: float, stem_m: float) -> float:
    """Mean clear width among crossing stems: d·(√(π/(4φ)) − 1), metres.

    Source: square array of cylinders at fill φ (geometry; an estimate for a tangle).
    """
    return stem_m * (math.sqrt(math.pi / (4 * fill)) - 1)


def size_tangle(fit: Fit) -> SizedMechanic:
    """Size a tangle of clean, bare, pliable stems coiled to fill the vessel."""
    full = vessels.volume_below_l(fit.vessel, fit.depth_m)
    stem_m = tangle_stem_length_m(full, TANGLE_FILL.value, TANGLE_STEM.value)
    gap = tangle_gap_m(TANGLE_FILL.value, TANGLE_STEM.value)
    pitch = gap + TANGLE_STEM.value
    wood = full / 1000 * TANGLE_FILL.value
    stems = Part(
        name="pliable bare stems, in all",
        quantity=1,
        sizes=(length(stem_m),),
        mass_kg=wood * WOOD_DENSITY.value,
        taken=FromSupply(supply="pliable-stems", how="in all"),
    )
    parts = (stems, *tape_parts(fit))
    heights = (1.0, 0.78, 0.6, 0.35, 0.15)
    return SizedMechanic(
        kind="branch_tangle",
        name="branch tangle",
        seating=Seating(
            pattern="hexagonal", pitch_m=max(pitch, TANGLE_PITCH.value), aperture_m=gap, height_m=fit.depth_m
        ),
        levels=tuple(Level(height_m=share * fit.depth_m, aperture_m=gap) for share in heights),
        layer_gap_m=0.22 * fit.depth_m,
        parts=parts,
        tape_strips=fit.tape_strips,
        tape_strip_length_m=strip_length_m(fit),
        tape_share_of_mouth=taped_share(fit),
        seat_moment_n_m=TANGLE_MOMENT.value + taped_n_m(fit),
        seated_by="its spring",
        capacity=max(1, int(fit.mouth_area_m2 / max(pitch, TANGLE_PITCH.value) ** 2)),
        displaced_volume_l=full * TANGLE_FILL.value,
        mass_kg=weight_kg(parts),
        price=TANGLE_PRICE.value + tape_price(fit),
        minutes=TANGLE_MIN.value,
        uses=round(TANGLE_USES.value),
        compostable=True,
        single_use_plastic=fit.tape_strips > 0,
        shows=False,
        loose=not fit.tape_strips,
        slop_factor=1.0,
        steps=(
            Step(
                act="coil",
                say=phrase(
                    "Coil {l} of clean, bare, pliable stem into the vessel; no leaf in the water.", l=length(stem_m)
                ),
            ),
            *tape_step(fit),
        ),
    )


def size_shavings(fit: Fit) -> SizedMechanic:
    """Size a fill of fine shavings, with a grid over it because they sag when wet."""
    full = vessels.volume_below_l(fit.vessel, fit.depth_m)
    dry = SHAVINGS_DRY.value / 1000 * full * (1 + SHAVINGS_SAG.value)
    spacing = fit.choice.cell_m or GRID_SPACING.value
    fit = replace(fit, tape_strips=max(fit.tape_strips, LEAST_GRID))
    sizes = (volume(full * (1 + SHAVINGS_SAG.value)), mass(dry))
    parts = (
        Part(
            name="fine wood shavings",
            quantity=1,
            sizes=sizes,
            mass_kg=dry,
            taken=FromSupply(supply="shavings", how="by mass"),
        ),
        *tape_parts(fit),
    )
    sagged = fit.depth_m * (1 - SHAVINGS_SAG.value)
    return SizedMechanic(
        kind="wood_shavings",
        name="wood shavings under a grid",
        seating=Seating(
            pattern="square", pitch_m=spacing, aperture_m=spacing - fit.choice.tape_width_m, height_m=fit.depth_m
        ),
        levels=(
            Level(height_m=fit.depth_m, aperture_m=spacing - fit.choice.tape_width_m),
            *(Level(height_m=share * sagged, aperture_m=SHAVINGS_GAP.value) for share in (0.9, 0.6, 0.25)),
        ),
        layer_gap_m=fit.depth_m - 0.9 * sagged,
        parts=parts,
        tape_strips=fit.tape_strips,
        tape_strip_length_m=strip_length_m(fit),
        tape_share_of_mouth=taped_share(fit),
        seat_moment_n_m=SHAVINGS_MOMENT.value + taped_n_m(fit),
        seated_by="its packing",
        capacity=max(1, int(fit.mouth_area_m2 / spacing**2)) * cell_capacity(spacing, fit.stem_diameter_m),
        displaced_volume_l=full * SHAVINGS_SOLID.value,
        mass_kg=weight_kg(parts),
        price=SHAVINGS_PRICE.value * full + tape_price(fit),
        minutes=SHAVINGS_MIN.value,
        uses=1,
        compostable=True,
        single_use_plastic=True,
        shows=False,
        slop_factor=SHAVINGS_SLOP.value,
        steps=(
            Step(
                act="fill",
                say=phrase(
                    "Fill with {v} of fine shavings: they sag by {s} when wet.",
                    v=volume(full * (1 + SHAVINGS_SAG.value)),
                    s=length(fit.depth_m - sagged),
                ),
            ),
            Step(act="grid", say=phrase("Tape a grid over the mouth, strips {s} apart.", s=length(spacing))),
        ),
    )


BRANCH_TANGLE = declare(
    About(
        kind="branch_tangle",
        draw=drawn.tangle,
        place=160,
        name="Branch tangle",
        what="pliable stems coiled to fill the vessel",
        size=size_tangle,
    )
)
WOOD_SHAVINGS = declare(
    About(
        kind="wood_shavings",
        draw=drawn.shavings,
        place=170,
        name="Wood shavings",
        what="fine shavings under a grid",
        size=size_shavings,
        reads=frozenset({"cell_m"}),
    )
)
