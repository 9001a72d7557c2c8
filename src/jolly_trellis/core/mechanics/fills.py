"""Vessels filled with something that holds: a tangle of branches, wood shavings under a grid."""

import math
from dataclasses import dataclass

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.netting import cell_capacity
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.lattices import grid_length_m, grid_strips
from jolly_trellis.core.mechanics.rings import WOOD_DENSITY
from jolly_trellis.core.mechanics.sized import Level, Part, Seating, SizedMechanic, Step, weight_kg
from jolly_trellis.core.mechanics.tape import TAPE_END_N_M, TAPE_OVERHANG, TAPE_PRICE_M, grid_parts, with_string
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
GRID_MOST = rule("Strips of a grid over a loose fill are apart by, at most", "length", 0.04, COMMON_PRACTICE)
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
    grid = grid_over(fit)
    stems = Part(
        name="pliable bare stems, in all",
        quantity=1,
        sizes=(length(stem_m),),
        mass_kg=wood * WOOD_DENSITY.value,
        taken=FromSupply(supply="pliable-stems", how="in all"),
    )
    parts = (stems, *grid.parts)
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
        tape_strips=grid.strips,
        tape_strip_length_m=grid.length_m / max(2 * grid.each_way, 1),
        tape_share_of_mouth=grid.share,
        seat_moment_n_m=TANGLE_MOMENT.value + grid.moment_n_m,
        seated_by="its spring",
        capacity=max(1, int(fit.mouth_area_m2 / max(pitch, TANGLE_PITCH.value) ** 2)),
        displaced_volume_l=full * TANGLE_FILL.value,
        mass_kg=weight_kg(parts),
        price=TANGLE_PRICE.value + grid.price,
        minutes=TANGLE_MIN.value,
        uses=round(TANGLE_USES.value),
        compostable=True,
        single_use_plastic=grid.strips > 0,
        shows=False,
        slop_factor=1.0,
        steps=(
            Step(
                kind="coil",
                say=phrase(
                    "Coil {l} of clean, bare, pliable stem into the vessel; no leaf in the water.", l=length(stem_m)
                ),
            ),
            grid.step,
        ),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Grid:
    """A grid across a rim: strips each way, how many of them are tape, all their length, what they take and cost."""

    each_way: int
    strips: int
    length_m: float
    share: float
    moment_n_m: float
    price: float
    parts: tuple[Part, ...]
    step: Step


def grid_over(fit: Fit) -> Grid:
    """The grid that keeps a loose fill down: strips both ways, at most 4 cm apart; of tape, or of string.

    Source: common practice, no source.
    """
    spacing = min(fit.choice.cell_m or GRID_SPACING.value, GRID_MOST.value)
    number = grid_strips(fit.mouth_m, spacing)
    long = grid_length_m(fit.mouth_m, spacing, fit.vessel.wall_m + TAPE_OVERHANG.value)
    string, width = with_string(fit), fit.choice.tape_width_m
    words = "Tape a grid over the mouth: {n} {n|strip|strips} each way, {s} apart, {l} in all."
    if string:
        words = "String a grid over the mouth: {n} {n|line|lines} each way, {s} apart, {l} in all."
    ends = 0.0 if string else TAPE_END_N_M.value * width
    return Grid(
        each_way=number,
        strips=0 if string else 2 * number,
        length_m=long,
        share=0.0 if string else min(1.0, 2 * number * width * math.pi / 4 * fit.mouth_m / fit.mouth_area_m2),
        moment_n_m=2 * number * ends * fit.mouth_m / 2,
        price=0.0 if string else long * TAPE_PRICE_M.value,
        parts=grid_parts(fit, 2 * number, long),
        step=Step(
            kind="grid",
            say=phrase(words, n=number, s=length(spacing), l=length(long)),
            caution="" if string else "Tape holds on a clean, dry rim only.",
        ),
    )


def size_shavings(fit: Fit) -> SizedMechanic:
    """Size a fill of fine shavings, with a grid over it because they sag when wet."""
    full = vessels.volume_below_l(fit.vessel, fit.depth_m)
    dry = SHAVINGS_DRY.value / 1000 * full * (1 + SHAVINGS_SAG.value)
    grid = grid_over(fit)
    spacing = min(fit.choice.cell_m or GRID_SPACING.value, GRID_MOST.value)
    sizes = (volume(full * (1 + SHAVINGS_SAG.value)), mass(dry))
    parts = (
        Part(
            name="fine wood shavings",
            quantity=1,
            sizes=sizes,
            mass_kg=dry,
            taken=FromSupply(supply="shavings", how="by mass"),
        ),
        *grid.parts,
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
        tape_strips=grid.strips,
        tape_strip_length_m=grid.length_m / max(2 * grid.each_way, 1),
        tape_share_of_mouth=grid.share,
        seat_moment_n_m=SHAVINGS_MOMENT.value + grid.moment_n_m,
        seated_by="its packing",
        capacity=max(1, int(fit.mouth_area_m2 / spacing**2)) * cell_capacity(spacing, fit.stem_diameter_m),
        displaced_volume_l=full * SHAVINGS_SOLID.value,
        mass_kg=weight_kg(parts),
        price=SHAVINGS_PRICE.value * full + grid.price,
        minutes=SHAVINGS_MIN.value,
        uses=1,
        compostable=True,
        single_use_plastic=grid.strips > 0,
        shows=False,
        slop_factor=SHAVINGS_SLOP.value,
        steps=(
            Step(
                kind="fill",
                say=phrase(
                    "Fill with {v} of fine shavings: they sag by {s} when wet.",
                    v=volume(full * (1 + SHAVINGS_SAG.value)),
                    s=length(fit.depth_m - sagged),
                ),
            ),
            grid.step,
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
        tapes=False,
        reads=frozenset({"cell_m", "tape_strips"}),
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
        tapes=False,
        reads=frozenset({"cell_m", "tape_strips"}),
    )
)
