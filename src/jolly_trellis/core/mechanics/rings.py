"""Rings: two rings of twigs, one low and one on the rim; a metal ring strung to and fro with soft wire."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.netting import STEEL_DENSITY, cell_capacity
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit, check_depth
from jolly_trellis.core.mechanics.sized import Level, Part, Seating, SizedMechanic, Step, weight_kg
from jolly_trellis.core.mechanics.tape import tape_parts, tape_price, tape_step, taped_n_m
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, phrase

TWIG_GAP = measure("Clear width between the twigs of a ring", "length", 0.020)
TWIG_PITCH = measure("Spacing of gaps in a twig ring", "length", 0.026)
TWIG_DIAMETER = rule("Twig of a ring", "length", 0.005, COMMON_PRACTICE)
TWIG_WINDS = rule("Twigs wound into a ring", "count", 10, COMMON_PRACTICE)
RING_LOW_SHARE = rule("Height of the lower ring, share of inside depth", "ratio", 0.30, COMMON_PRACTICE, most=1.0)
RING_OVERHANG = rule("Upper ring past the mouth, all round together", "length", 0.02, COMMON_PRACTICE)
WOOD_DENSITY = measure("Density of green twigs", "density", 900.0)
RING_FRICTION_MOMENT = measure("Moment a twig ring wedged in a vessel takes", "moment", 0.4)
STRUNG_WIRE = rule("Soft wire of a strung ring", "length", 0.002, COMMON_PRACTICE)
STRUNG_CELL = rule("Usual cell of a strung ring", "length", 0.025, COMMON_PRACTICE)
RING_ROD = rule("Rod of the metal ring", "length", 0.004, COMMON_PRACTICE)
TWIGS = "pliable twigs, in all"
RINGS_LEAST = rule("Depth of a vessel for a pair of twig rings, at least", "length", 0.06)
TWIG_ROUND = measure("Mean round of a twig in its ring, against the ring's", "ratio", 0.85)
TWIG_PRICE = measure("Price of the twigs of two rings", "price", 2.0)
TWIG_MIN = measure("Time to wind two twig rings", "minutes", 14.0)
TWIG_USES = measure("Times twig rings are used again", "count", 3)
TWIG_SLOP = measure("Slop under twig rings against bare wire", "ratio", 1.1)
STRUNG_TIES = rule("Wire that ties one strung wire to its ring, both ends", "length", 0.06, COMMON_PRACTICE)
STRUNG_TWO = rule("A strung ring has a second one low from a depth of", "length", 0.07, COMMON_PRACTICE)
STRUNG_HOLDS = measure("Strung wire, push it takes at one point", "force", 12.0)
STRUNG_PRICE = measure("Price of the rings of a strung ring", "price", 6.0)
STRUNG_PRICE_M = measure("Price of a metre of soft wire", "price_m", 0.4)
STRUNG_MIN = measure("Time to string rings", "minutes", 16.0)
STRUNG_USES = measure("Times strung rings are used again", "count", 40)
STRUNG_SLOP = measure("Slop under strung rings against bare wire", "ratio", 1.2)


def strung_wire_length_m(ring_m: float, cell_m: float) -> float:
    """Wire strung to and fro across a ring both ways, ends folded over, metres.

    Chords a cell apart have a mean length of π/4 of the diameter; both ways, plus 3 cm folded at each end.

    Args:
        ring_m: diameter of the ring, m.
        cell_m: spacing of the wires, m.
    Source: mean chord of a circle, π·d/4 (geometry).
    """
    wires = max(1, round(ring_m / cell_m) - 1)
    return 2 * wires * (math.pi / 4 * ring_m + STRUNG_TIES.value)


def size_twigs(fit: Fit) -> SizedMechanic:
    """Size two twig rings. Raises InvalidMeasure: a vessel under 6 cm deep."""
    check_depth(fit, RINGS_LEAST.value, "A pair of twig rings")
    low = RING_LOW_SHARE.value * fit.depth_m
    inside = min(vessels.inside_size_m(fit.vessel, low))
    outer = fit.mouth_m + RING_OVERHANG.value
    twig_m = TWIG_WINDS.value * math.pi * (inside + outer) * TWIG_ROUND.value
    volume = twig_m * math.pi / 4 * TWIG_DIAMETER.value**2
    twigs = Part(
        name=TWIGS,
        quantity=1,
        sizes=(length(twig_m),),
        mass_kg=volume * WOOD_DENSITY.value,
        taken=FromSupply(supply="pliable-stems", how="in all"),
    )
    cells = max(1, int(fit.mouth_area_m2 / TWIG_PITCH.value**2))
    return SizedMechanic(
        kind="twig_rings",
        name="twig rings",
        seating=Seating(
            pattern="hexagonal", pitch_m=TWIG_PITCH.value, aperture_m=TWIG_GAP.value, height_m=fit.depth_m
        ),
        levels=(
            Level(height_m=fit.depth_m, aperture_m=TWIG_GAP.value),
            Level(height_m=low, aperture_m=TWIG_GAP.value),
        ),
        layer_gap_m=fit.depth_m - low,
        parts=(
            Part(name="low twig ring, outside", quantity=1, sizes=(length(inside),), mass_kg=0.0, made_of=TWIGS),
            Part(name="rim twig ring, outside", quantity=1, sizes=(length(outer),), mass_kg=0.0, made_of=TWIGS),
            twigs,
            *tape_parts(fit),
        ),
        tape_strips=fit.tape_strips,
        seat_moment_n_m=RING_FRICTION_MOMENT.value + taped_n_m(fit),
        seated_by="wedging",
        seat_arm_m=fit.mouth_m / 2,
        capacity=cells * cell_capacity(TWIG_GAP.value, fit.stem_diameter_m),
        displaced_volume_l=1000 * volume / 2,
        mass_kg=weight_kg((twigs, *tape_parts(fit))),
        price=TWIG_PRICE.value + tape_price(fit),
        minutes=TWIG_MIN.value,
        uses=round(TWIG_USES.value),
        compostable=True,
        single_use_plastic=fit.tape_strips > 0,
        shows=False,
        loose=not fit.tape_strips,
        slop_factor=TWIG_SLOP.value,
        steps=(
            Step(
                kind="wind",
                say=phrase(
                    "Wind a ring {low} across for the bowl and one {rim} across for the rim, of dried twigs.",
                    low=length(inside),
                    rim=length(outer),
                ),
            ),
            Step(
                kind="seat",
                say=phrase("Wedge the first {h} above the floor; lay the second on the rim.", h=length(low)),
            ),
            *tape_step(fit),
        ),
    )


def _of_steel(name: str, size_m: float, wire_m: float, thick_m: float, taken: FromSupply) -> Part:
    """A part of round steel: its size, and its mass from the wire or rod in it."""
    kg = math.pi / 4 * thick_m**2 * wire_m * STEEL_DENSITY.value
    return Part(name=name, quantity=1, sizes=(length(size_m),), mass_kg=kg, taken=taken)


def _ring_m(fit: Fit) -> float:
    """The ring on the mouth: one's own where it is measured, else 2 cm past it. Raises InvalidMeasure: it falls in."""
    own = fit.choice.own_m
    if own is not None and own <= fit.mouth_m:
        raise InvalidMeasure(
            path="mechanic.own_m",
            message=phrase(
                "A ring of {own} drops into a mouth of {mouth}.", own=length(own), mouth=length(fit.mouth_m)
            ),
            limit=phrase("Take one over {mouth}, or leave it to be worked out.", mouth=length(fit.mouth_m)),
        )
    return fit.mouth_m + RING_OVERHANG.value if own is None else own


def size_strung(fit: Fit) -> SizedMechanic:
    """Size strung rings: one on the mouth, a second low where the vessel is deep enough; of one's own, as it is.

    Raises: InvalidMeasure: a ring that falls in, wires with no room between them.
    """
    thick = fit.choice.own_wire_m or STRUNG_WIRE.value
    ring = _ring_m(fit)
    wires = fit.choice.own_wires
    cell = ring / (wires + 1) if wires else fit.choice.cell_m or STRUNG_CELL.value
    aperture = cell - thick
    if aperture < 0.004:
        raise InvalidMeasure(
            path="mechanic.own_wires" if wires else "mechanic.cell_m",
            message=phrase(
                "Wires {cell} apart leave {gap} between them.",
                cell=length(cell),
                gap=length(max(aperture, 0.0)),
            ),
            limit=phrase("Take fewer, or thinner wire."),
        )
    low = RING_LOW_SHARE.value * fit.depth_m
    two = fit.depth_m >= STRUNG_TWO.value
    low_ring = min(vessels.inside_size_m(fit.vessel, low)) - RING_ROD.value
    wire = strung_wire_length_m(ring, cell) + (strung_wire_length_m(low_ring, cell) if two else 0.0)
    rods = math.pi * (ring + (low_ring if two else 0.0))
    steel = math.pi / 4 * (wire * thick**2 + rods * RING_ROD.value**2)
    levels = [Level(height_m=fit.depth_m, aperture_m=aperture)]
    ready = FromSupply(supply="metal-ring", lasts=True)
    parts = [_of_steel("metal ring for the mouth", ring, math.pi * ring, RING_ROD.value, ready)]
    if two:
        levels.append(Level(height_m=low, aperture_m=aperture))
        parts.append(_of_steel("metal ring for the bowl", low_ring, math.pi * low_ring, RING_ROD.value, ready))
    strung = FromSupply(supply="soft-wire", how="in all", lasts=True)
    parts.append(_of_steel("soft wire", wire, wire, thick, strung))
    parts += tape_parts(fit)
    return SizedMechanic(
        kind="strung_ring",
        name="strung rings" if two else "strung ring",
        seating=Seating(pattern="square", pitch_m=cell, aperture_m=aperture, height_m=fit.depth_m),
        levels=tuple(levels),
        layer_gap_m=fit.depth_m - low if two else 0.0,
        rigid=True,
        parts=tuple(parts),
        tape_strips=fit.tape_strips,
        seat_moment_n_m=steel * STEEL_DENSITY.value * GRAVITY_M_S2 * ring / 2 + taped_n_m(fit),
        seated_by="its weight on the rim",
        seat_arm_m=fit.mouth_m / 2,
        strength_n=STRUNG_HOLDS.value,
        capacity=max(1, int(fit.mouth_area_m2 / cell**2)) * cell_capacity(aperture, fit.stem_diameter_m),
        displaced_volume_l=1000 * steel / 2,
        mass_kg=weight_kg(parts),
        price=STRUNG_PRICE.value + STRUNG_PRICE_M.value * wire + tape_price(fit),
        minutes=STRUNG_MIN.value,
        uses=round(STRUNG_USES.value),
        single_use_plastic=fit.tape_strips > 0,
        loose=not two and not fit.tape_strips,
        lifts_off=not two,
        slop_factor=STRUNG_SLOP.value,
        steps=(
            Step(
                kind="string",
                say=phrase(
                    "String {wire} of soft wire to and fro, {cell} apart both ways; fold the ends over the ring.",
                    wire=length(wire),
                    cell=length(cell),
                ),
                caution="Wire ends spring: eye protection.",
            ),
            Step(
                kind="seat",
                say=phrase("Lay the ring on the rim, the smaller one low." if two else "Lay the ring on the rim."),
            ),
            *tape_step(fit),
        ),
    )


TWIG_RINGS = declare(
    About(
        kind="twig_rings",
        draw=drawn.twigs,
        place=140,
        name="Twig rings",
        what="one ring low, one across the rim",
        size=size_twigs,
    )
)
STRUNG_RING = declare(
    About(
        kind="strung_ring",
        draw=drawn.ring,
        place=150,
        name="Strung ring",
        what="a metal ring strung with soft wire",
        size=size_strung,
        bought=True,
        reads=frozenset({"cell_m", "own_m", "own_wires", "own_wire_m"}),
    )
)
