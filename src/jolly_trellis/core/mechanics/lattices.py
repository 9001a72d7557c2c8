"""Grids over the rim: a moulded lattice pad, a disc on dowels, and tape strips alone."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.materials.netting import cell_capacity
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.sized import Level, Part, Seating, SizedMechanic, Step, weight_kg
from jolly_trellis.core.mechanics.tape import (
    TAPE_END_N_M,
    TAPE_OVERHANG,
    TAPE_PRICE_M,
    strip_length_m,
    tape_kg,
    tape_supply,
)
from jolly_trellis.core.plan.piece import MechanicKind
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, phrase

PAD_OVERHANG = rule("Lattice pad past the mouth, in all", "length", 0.02, COMMON_PRACTICE)
PAD_THICKNESS = measure("Thickness of a moulded lattice", "length", 0.03)
PAD_CELL = measure("Cell of a moulded lattice", "length", 0.016)
PAD_RIB = measure("Rib of a moulded lattice", "length", 0.002)
PAD_KG_M2 = measure("Mass of a moulded lattice", "areal_mass", 3.2)
PAD_USES = measure("Times a moulded lattice is used again", "count", 40)
DOWEL_OVERHANG = rule("Dowel past the mouth at each end", "length", 0.02, COMMON_PRACTICE)
DOWEL_KG_M = measure("Mass of a metre of dowel", "linear_mass", 0.035)
DOWEL_MOMENT = measure("Moment two dowels on the rim add", "moment", 0.25)
GRID_SPACING = rule("Usual spacing of tape strips", "length", 0.03, COMMON_PRACTICE)
GRID_MIN = measure("Time to tape each strip of a grid, and one more", "minutes", 1.0)
GRID_SLOP = measure("Slop under a tape grid against bare wire", "ratio", 1.3)
PAD_HOLDS = measure("Rib of a moulded lattice, push it takes", "force", 12.0)
PAD_PRICE = measure("Price of the smallest moulded lattice", "price", 9.0)
PAD_PRICE_M2 = measure("Price of a moulded lattice, for its area", "price_m2", 120.0)
PAD_DENSITY = measure("Density of a moulded lattice", "density", 950.0)
PAD_MIN = measure("Time to seat a moulded lattice", "minutes", 1.5)
PAD_SLOP = measure("Slop under a moulded lattice against bare wire", "ratio", 1.1)
DISC_ROOM = rule("A lattice disc is narrower than its mouth by", "length", 0.005, COMMON_PRACTICE)


def grid_strips(mouth_m: float, spacing_m: float) -> int:
    """Strips one way for a grid across a mouth: ⌈mouth/spacing⌉ − 1, at least one. Source: geometry."""
    return max(1, math.ceil(mouth_m / spacing_m - 1e-9) - 1)


def grid_length_m(mouth_m: float, spacing_m: float, overhang_m: float) -> float:
    """Tape for a grid both ways on a round mouth: chords π/4·D on average, plus the ends, metres.

    Source: mean chord of a circle (geometry).
    """
    number = grid_strips(mouth_m, spacing_m)
    return 2 * number * (math.pi / 4 * mouth_m + 2 * overhang_m)


def size_pad(fit: Fit) -> SizedMechanic:
    """Size a moulded lattice pad that rests on the rim and lifts off whole."""
    size = fit.mouth_long_m + PAD_OVERHANG.value
    return _lattice(fit, "lattice_pad", "moulded lattice pad", size, dowels=False)


def size_disc(fit: Fit) -> SizedMechanic:
    """Size a lattice disc inside the mouth, hung on two dowels longer than the mouth."""
    return _lattice(fit, "lattice_disc", "lattice disc on dowels", fit.mouth_m - DISC_ROOM.value, dowels=True)


def size_grid(fit: Fit) -> SizedMechanic:
    """Size a grid of tape across the rim: one level, and the wall or the floor must do the rest."""
    spacing = fit.choice.cell_m or GRID_SPACING.value
    number = grid_strips(fit.mouth_m, spacing)
    width = fit.choice.tape_width_m
    overhang = fit.vessel.wall_m + TAPE_OVERHANG.value
    tape = grid_length_m(fit.mouth_m, spacing, overhang)
    ends = TAPE_END_N_M.value * width
    aperture = spacing - width
    return SizedMechanic(
        kind="tape_grid",
        name="tape grid",
        seating=Seating(pattern="square", pitch_m=spacing, aperture_m=aperture, height_m=fit.depth_m),
        levels=(Level(height_m=fit.depth_m, aperture_m=aperture),),
        parts=(
            Part(
                name="tape, in all",
                quantity=1,
                sizes=(length(tape),),
                mass_kg=tape_kg(tape, width),
                taken=FromSupply(supply=tape_supply(width), how="in all"),
            ),
        ),
        tape_strips=2 * number,
        tape_strip_length_m=strip_length_m(fit),
        tape_share_of_mouth=min(1.0, 2 * number * width * math.pi / 4 * fit.mouth_m / fit.mouth_area_m2),
        seat_moment_n_m=2 * number * ends * fit.mouth_m / 2,
        seated_by="its tape ends",
        strength_n=2 * ends,
        capacity=max(1, int(fit.mouth_area_m2 / spacing**2)) * cell_capacity(aperture, fit.stem_diameter_m),
        displaced_volume_l=0.0,
        mass_kg=tape_kg(tape, width),
        price=tape * TAPE_PRICE_M.value,
        minutes=GRID_MIN.value * (1 + number),
        uses=1,
        single_use_plastic=True,
        loose=True,
        shows=False,
        slop_factor=GRID_SLOP.value,
        steps=(
            Step(
                kind="tape",
                say=phrase(
                    "Tape {n} {n|strip|strips} each way, {s} apart: {l} in all.",
                    n=number,
                    s=length(spacing),
                    l=length(tape),
                ),
                caution="Tape holds on a clean, dry rim only.",
            ),
        ),
    )


def _lattice(fit: Fit, kind: MechanicKind, name: str, size_m: float, *, dowels: bool) -> SizedMechanic:
    ratio = fit.mouth_m / fit.mouth_long_m
    area = size_m**2 * ratio
    kg = PAD_KG_M2.value * area
    thickness = min(PAD_THICKNESS.value, fit.depth_m)
    aperture, pitch = PAD_CELL.value - PAD_RIB.value, PAD_CELL.value
    dowel = fit.mouth_m + 2 * (fit.vessel.wall_m + DOWEL_OVERHANG.value)
    parts = [
        Part(
            name=name,
            quantity=1,
            sizes=(length(size_m), length(size_m * ratio)),
            mass_kg=kg,
            taken=FromSupply(supply="lattice-pad", lasts=True),
        )
    ]
    say = phrase("Rest it on the rim; it lifts off whole for the road.")
    if dowels:
        parts.append(
            Part(
                name="dowel",
                quantity=2,
                sizes=(length(dowel),),
                mass_kg=2 * dowel * DOWEL_KG_M.value,
                taken=FromSupply(supply="dowel", how="each cut", lasts=True),
            )
        )
        say = phrase("Push two dowels, {d} each, through its edge and hang it on the rim.", d=length(dowel))
    return SizedMechanic(
        kind=kind,
        name=name,
        seating=Seating(pattern="square", pitch_m=pitch, aperture_m=aperture, height_m=fit.depth_m, each=1),
        levels=(
            Level(height_m=fit.depth_m, aperture_m=aperture),
            Level(height_m=fit.depth_m - thickness, aperture_m=aperture),
        ),
        layer_gap_m=thickness,
        rigid=True,
        parts=tuple(parts),
        seat_moment_n_m=kg * GRAVITY_M_S2 * fit.mouth_m / 2 + (DOWEL_MOMENT.value if dowels else 0.0),
        seated_by="its weight on the rim" if not dowels else "its dowels",
        seat_arm_m=fit.mouth_m / 2,
        strength_n=PAD_HOLDS.value,
        capacity=max(1, int(fit.mouth_area_m2 / pitch**2 / 2)),
        displaced_volume_l=1000 * kg / PAD_DENSITY.value,
        mass_kg=weight_kg(parts),
        price=PAD_PRICE.value + PAD_PRICE_M2.value * area,
        minutes=PAD_MIN.value,
        uses=round(PAD_USES.value),
        lifts_off=True,
        loose=False,
        shows=True,
        slop_factor=PAD_SLOP.value,
        steps=(Step(kind="seat", say=say),),
    )


LATTICE_PAD = declare(
    About(
        kind="lattice_pad",
        draw=drawn.lattice,
        place=180,
        name="Lattice pad",
        what="a moulded lattice on the rim; lifts off",
        size=size_pad,
        tapes=False,
        bought=True,
    )
)
LATTICE_DISC = declare(
    About(
        kind="lattice_disc",
        draw=drawn.held_lattice,
        place=190,
        name="Lattice disc",
        what="a lattice disc hung on dowels",
        size=size_disc,
        tapes=False,
        bought=True,
    )
)
TAPE_GRID = declare(
    About(
        kind="tape_grid",
        draw=drawn.tape,
        place=200,
        name="Tape grid",
        what="strips across the rim and nothing else",
        size=size_grid,
        tapes=False,
        reads=frozenset({"cell_m"}),
    )
)
