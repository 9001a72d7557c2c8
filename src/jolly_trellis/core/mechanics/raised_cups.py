"""Raised cups: small cup vases on rods tied to a branch, to lift short flowers."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.materials.netting import cell_capacity
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.sized import Level, Part, Seating, SizedMechanic, Step, weight_kg
from jolly_trellis.core.mechanics.tape import STRING_KG_M
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, phrase, volume, worded

CUP_INSIDE = rule("Inside of a cup", "length", 0.024, COMMON_PRACTICE)
TIE_PER_CUP = rule("Tie for one cup on its rod", "length", 0.40, COMMON_PRACTICE)
CUP_KG = measure("Empty cup", "mass", 0.025)
ROD_KG = measure("Rod of a raised cup", "mass", 0.010)
TIE_MOMENT = measure("Moment one tied rod takes", "moment", 0.15)
CUP_APART = rule("Cups are apart by, times their inside", "ratio", 1.4)
CUP_MOST = rule("Stems in one cup, at most", "count", 5, COMMON_PRACTICE)
CUP_PRICE = measure("Price of a cup on its rod", "price", 1.6)
CUP_MIN = measure("Time to tie a cup on its rod", "minutes", 2.5)
CUP_USES = measure("Times a cup is used again", "count", 30)
CUP_SLOP = measure("Slop in raised cups against bare wire", "ratio", 1.3)


def cup_depth_m(cup_ml: float, inside_m: float) -> float:
    """Depth of water of a cup: V/(π·d²/4), metres. Source: geometry."""
    return cup_ml * 1e-6 / (math.pi / 4 * inside_m**2)


def size(fit: Fit) -> SizedMechanic:
    """Size raised cups: as many as the recipe's stems need, each with its own water, none lower than the floor."""
    inside = CUP_INSIDE.value
    each = min(round(CUP_MOST.value), cell_capacity(inside, fit.stem_diameter_m) + 1)
    cups = max(1, math.ceil(max(fit.stems, 1) / each))
    deep = cup_depth_m(fit.choice.cup_ml, inside)
    total = cups * fit.choice.cup_ml / 1000
    rim = max(fit.depth_m, deep)
    tie = cups * TIE_PER_CUP.value
    parts = (
        Part(
            name="cup",
            quantity=cups,
            sizes=(volume(fit.choice.cup_ml / 1000),),
            mass_kg=cups * CUP_KG.value,
            taken=FromSupply(supply="cup", lasts=True),
        ),
        Part(name="rod", quantity=cups, mass_kg=cups * ROD_KG.value, taken=FromSupply(supply="rod", lasts=True)),
        Part(
            name="tie, in all",
            quantity=1,
            sizes=(length(tie),),
            mass_kg=tie * STRING_KG_M.value,
            taken=FromSupply(supply="string", how="in all"),
        ),
    )
    return SizedMechanic(
        kind="raised_cups",
        name=worded("{n} raised {n|cup|cups}", n=cups),
        seating=Seating(
            pattern="cups",
            pitch_m=max(inside * CUP_APART.value, fit.mouth_m / max(1.0, math.sqrt(cups))),
            aperture_m=inside,
            height_m=rim,
            each=each,
        ),
        levels=(Level(height_m=rim, aperture_m=inside), Level(height_m=rim - deep, aperture_m=inside)),
        layer_gap_m=deep,
        rigid=True,
        parts=parts,
        seat_moment_n_m=cups * TIE_MOMENT.value,
        seated_by="its ties",
        seat_arm_m=fit.mouth_m / 2,
        capacity=cups * each,
        displaced_volume_l=0.0,
        mass_kg=weight_kg(parts),
        price=CUP_PRICE.value * cups,
        minutes=CUP_MIN.value * cups,
        uses=round(CUP_USES.value),
        slop_factor=CUP_SLOP.value,
        own_water_l=total,
        own_cups=cups,
        steps=(
            Step(
                kind="tie",
                say=phrase(
                    "Tie {n} {n|cup|cups} of {v} on rods to a branch, {t} of tie each.",
                    n=cups,
                    v=volume(fit.choice.cup_ml / 1000),
                    t=length(TIE_PER_CUP.value),
                ),
            ),
        ),
    )


RAISED_CUPS = declare(
    About(
        kind="raised_cups",
        draw=drawn.cups,
        place=230,
        name="Raised cups",
        what="cups on rods tied to a branch",
        size=size,
        tapes=False,
        bought=True,
        reads=frozenset({"cup_ml"}),
    )
)
