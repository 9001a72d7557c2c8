"""Absorbent blocks in a shallow bowl: a compostable fibre pouch, a block of mineral wool; taped down."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit, check_depth
from jolly_trellis.core.mechanics.sized import Level, Part, Seating, SizedMechanic, Step, weight_kg
from jolly_trellis.core.mechanics.tape import tape_parts, tape_price, tape_step, taped_n_m, taped_share
from jolly_trellis.core.plan.piece import MechanicKind
from jolly_trellis.core.provenance import COMMON_PRACTICE, Provenance
from jolly_trellis.core.quantities import length, mass, phrase, volume

SOAKED = measure(
    "Soaked block", "density", 900.0, Provenance(kind="from memory", source="soaked fibre and mineral wool")
)
FIBRE_DELIVERS = measure("Share of a fibre pouch's water that stems can drink", "ratio", 0.6, most=1.0)
MINERAL_DELIVERS = measure("Share of a mineral block's water that stems can drink", "ratio", 0.7, most=1.0)
BLOCK_PROUD = rule("Block stands over the rim by", "length", 0.02, COMMON_PRACTICE)
BLOCK_SHARE = rule("Block against the mouth, across", "ratio", 0.8, COMMON_PRACTICE)
STEM_PITCH = measure("Room a stem needs in a block, times its diameter", "ratio", 2.5)
PUSHED_IN = rule("Depth a stem is pushed into a block, share of its height", "ratio", 0.7, COMMON_PRACTICE, most=1.0)
BLOCK_LEAST = rule("Depth of a vessel for a soaked block, at least", "length", 0.03)
BLOCK_LOW = rule("Height at which a vessel must take a block, share of its depth", "ratio", 0.3, most=1.0)
BLOCK_WATER = measure("Share of a soaked block that is water", "ratio", 0.85, most=1.0)
BLOCK_PITCH = rule("Stems in a block are apart by, at least", "length", 0.012)
FIBRE_PRICE = measure("Price of a litre of fibre pouch", "price_l", 2.6)
MINERAL_PRICE = measure("Price of a litre of mineral block", "price_l", 1.8)
BLOCK_MIN = measure("Time to soak and seat a block", "minutes", 3.0)
BLOCK_SLOP = measure("Slop with a block against bare wire", "ratio", 0.7)


def size_fibre(fit: Fit) -> SizedMechanic:
    """Size a fibre pouch. Raises InvalidMeasure: a vessel under 3 cm deep."""
    return _block(fit, "fibre_pouch", "fibre pouch", "fibre-block", delivers=FIBRE_DELIVERS.value)


def size_mineral(fit: Fit) -> SizedMechanic:
    """Size a block of mineral wool. Raises InvalidMeasure: a vessel under 3 cm deep."""
    return _block(fit, "mineral_block", "mineral block", "mineral-block", delivers=MINERAL_DELIVERS.value)


def _block(fit: Fit, kind: MechanicKind, name: str, supply: str, *, delivers: float) -> SizedMechanic:
    """A soaked block: compostable, as makers of both kinds state (from memory), and used once."""
    check_depth(fit, BLOCK_LEAST.value, f"A {name}")
    low = min(vessels.inside_size_m(fit.vessel, fit.depth_m * BLOCK_LOW.value))
    across = min(BLOCK_SHARE.value * fit.mouth_m, low)
    along = min(BLOCK_SHARE.value * fit.mouth_long_m, across * 3)
    height = fit.depth_m + BLOCK_PROUD.value
    litres = 1000 * across * along * height
    soaked = SOAKED.value / 1000 * litres
    water = BLOCK_WATER.value * soaked
    pitch = max(STEM_PITCH.value * fit.stem_diameter_m, BLOCK_PITCH.value)
    capacity = max(1, int(across * along / pitch**2))
    sizes = (length(across), length(along), length(height))
    parts = (
        Part(name=name, quantity=1, sizes=sizes, mass_kg=soaked, taken=FromSupply(supply=supply, lasts=True)),
        *tape_parts(fit),
    )
    under = min(litres * fit.depth_m / height, litres)
    return SizedMechanic(
        kind=kind,
        name=name,
        seating=Seating(
            pattern="square",
            pitch_m=pitch,
            aperture_m=pitch,
            height_m=fit.depth_m,
            half_width_m=(along if fit.vessel.mouth_width_m >= fit.vessel.mouth_depth_m else across) / 2,
            half_depth_m=(across if fit.vessel.mouth_width_m >= fit.vessel.mouth_depth_m else along) / 2,
            each=1,
        ),
        levels=tuple(
            Level(height_m=fit.depth_m - share * PUSHED_IN.value * fit.depth_m, aperture_m=0.0)
            for share in (0.0, 0.5, 1.0)
        ),
        layer_gap_m=0.5 * PUSHED_IN.value * fit.depth_m,
        parts=parts,
        tape_strips=fit.tape_strips,
        tape_share_of_mouth=taped_share(fit),
        seat_moment_n_m=soaked * GRAVITY_M_S2 * across / 2 + taped_n_m(fit),
        seated_by="its soaked weight",
        seat_arm_m=across / 2,
        capacity=capacity,
        displaced_volume_l=under,
        absorbed_l=water,
        deliverable_share=delivers,
        mass_kg=weight_kg(parts),
        price=(FIBRE_PRICE if kind == "fibre_pouch" else MINERAL_PRICE).value * litres + tape_price(fit),
        minutes=BLOCK_MIN.value + fit.tape_strips,
        uses=1,
        compostable=True,
        single_use_plastic=fit.tape_strips > 0,
        slop_factor=BLOCK_SLOP.value,
        steps=(
            Step(
                kind="soak",
                say=phrase(
                    "Soak a {a} × {b} × {h} block until it sinks: {m}, of which stems can drink {w}.",
                    a=length(math.ceil(across * 200) / 200),
                    b=length(math.ceil(along * 200) / 200),
                    h=length(height),
                    m=mass(soaked),
                    w=volume(water * delivers),
                ),
                caution="" if kind == "fibre_pouch" else "Dust of mineral wool: wet it before cutting, wear a mask.",
            ),
            *tape_step(fit),
        ),
    )


FIBRE_POUCH = declare(
    About(
        kind="fibre_pouch",
        draw=lambda bed: drawn.block(bed, "moss"),
        place=210,
        name="Fibre pouch",
        what="a compostable block, soaked",
        size=size_fibre,
        least_strips=1,
        bought=True,
    )
)
MINERAL_BLOCK = declare(
    About(
        kind="mineral_block",
        draw=lambda bed: drawn.block(bed, "stone"),
        place=220,
        name="Mineral block",
        what="a block of mineral wool, soaked",
        size=size_mineral,
        least_strips=1,
        bought=True,
    )
)
