"""What a bouquet is bound on: a wire dome, a star lattice of covered wires, or nothing but the hand."""

import math

from jolly_trellis.core import bouquet as bouquets
from jolly_trellis.core import netting as nets
from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.books.needs import FromSupply, from_roll
from jolly_trellis.core.bouquet import Shape
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.mechanics.fit import TAPE_KG_M2
from jolly_trellis.core.mechanics.sized import (
    FlatSheet,
    Level,
    Part,
    Seating,
    SeatPattern,
    SizedMechanic,
    Step,
    weight_kg,
)
from jolly_trellis.core.netting import Netting
from jolly_trellis.core.piece import Bouquet, Piece
from jolly_trellis.core.placement.stem_set import StemSet
from jolly_trellis.core.quantities import cut_length, length, phrase

STAR_WIRE_M = 0.0012
COLLAR = "leaf of the collar"
COVERED_WIRE_KG_M = measure("Mass of a metre of covered wire", "linear_mass", 0.0075)
VINE_KG_M = measure("Mass of a metre of vine", "linear_mass", 0.02)
RIBBON_KG_M = measure("Mass of a metre of ribbon, 25 mm", "linear_mass", 0.004)
COLLAR_LEAF_M = measure("Width that one leaf of a collar covers", "length", 0.08)
COLLAR_LEAF_KG = measure("Mass of a leaf of a collar", "mass", 0.005)
MINUTES_DOME = measure("Time to shape and bind a wire dome", "minutes", 8.0)
MINUTES_STARS = measure("Time to twist a star lattice, for each star", "minutes", 0.35)
DOME_USES = measure("Times a wire dome is used again", "count", 3)


def size(piece: Piece, bouquet: Bouquet, shape: Shape, stems: StemSet, netting: Netting | None) -> SizedMechanic:
    """What a bouquet is bound on, sized to its dome. Raises InvalidMeasure: a mechanic that sits in a vessel."""
    floor = piece.vessel.base_m
    binding = Level(height_m=shape.binding_m - floor, aperture_m=0.0)
    armature = shape.under_m - floor + 0.5 * bouquets.ARMATURE_SHARE.value * shape.dome_m
    handle = bouquets.handle_of(stems, piece.mechanic.kind == "hand_spiral")
    parts, steps = _finish(bouquet, handle)
    if bouquet.collar:
        leaves = math.ceil(math.pi * max(piece.envelope.width_m, piece.envelope.depth_m) / COLLAR_LEAF_M.value)
        parts = (
            *parts,
            Part(
                name=COLLAR,
                quantity=leaves,
                mass_kg=leaves * COLLAR_LEAF_KG.value,
                taken=FromSupply(supply="large-leaf"),
            ),
        )
        collared = phrase(f"Bind {leaves} leaves under the flowers as a collar.")
        steps = (*steps, Step(act="collar", say=collared))
    match piece.mechanic.kind:
        case "wire_dome" if netting is not None:
            return _wire_dome(piece, shape, netting, armature, binding, parts, steps)
        case "star_lattice":
            return _star_lattice(piece, shape, armature, binding, parts, steps)
        case "hand_spiral":
            return _hand_spiral(piece, shape, stems, binding, parts, steps)
        case _:
            raise InvalidMeasure(
                path="mechanic.kind",
                message=phrase("This mechanic sits in a vessel; a bouquet is bound in the hand."),
                limit=phrase("Choose a wire dome, a star lattice or a hand spiral."),
            )


def _wire_dome(
    piece: Piece,
    shape: Shape,
    netting: Netting,
    armature_m: float,
    binding: Level,
    parts: tuple[Part, ...],
    steps: tuple[Step, ...],
) -> SizedMechanic:
    wide = bouquets.ARMATURE_SHARE.value * max(piece.envelope.width_m, piece.envelope.depth_m)
    rise = bouquets.ARMATURE_SHARE.value * shape.dome_m
    side = bouquets.dome_arc_m(wide / 2, max(rise, 0.01)) + 2 * (shape.neck_m + bouquets.SKIRT.value)
    sheet = nets.sheet(netting, width_m=side, length_m=side)
    name = f"square for the dome, {netting.name}"
    square = Part(
        name=name,
        quantity=1,
        sizes=(length(side), length(side)),
        mass_kg=sheet.mass_kg,
        taken=from_roll("square for the dome", netting, sheet),
    )
    aperture = nets.aperture_m(netting)
    pitch = nets.pitch_across_m(netting)
    area = bouquets.cap_area_m2(wide / 2, wide / 2, rise)
    cut = Step(
        act="cut",
        say=phrase(f"Cut a square of {netting.name}, {{s}} each way.", s=cut_length(side)),
        caution="Cut ends are sharp: gloves and eye protection.",
    )
    shape_it = Step(
        act="shape",
        say=phrase(
            "Dome it over a bowl {w} across to rise {h}, tuck the ends in, and gather the skirt into the handle.",
            w=length(wide),
            h=length(rise),
        ),
    )
    return SizedMechanic(
        kind="wire_dome",
        name="wire dome",
        seating=_seating("hexagonal", pitch, aperture, armature_m, wide),
        levels=(Level(height_m=armature_m, aperture_m=aperture), binding),
        layer_gap_m=armature_m - binding.height_m,
        flat=(FlatSheet(name="square for the dome", sheet=sheet, tuck_m=pitch / 2),),
        parts=(square, *parts),
        seat_moment_n_m=1.0,
        seated_by="its binding",
        capacity=max(1, int(area / nets.cell_area_m2(pitch))),
        displaced_volume_l=0.0,
        mass_kg=weight_kg((square, *parts)),
        price=_price(netting, side * side),
        minutes=MINUTES_DOME.value,
        uses=round(DOME_USES.value),
        steps=(cut, shape_it, *steps),
    )


def _star_lattice(
    piece: Piece, shape: Shape, armature_m: float, binding: Level, parts: tuple[Part, ...], steps: tuple[Step, ...]
) -> SizedMechanic:
    wide = bouquets.ARMATURE_SHARE.value * max(piece.envelope.width_m, piece.envelope.depth_m)
    spacing = bouquets.STAR_SPACING.value
    wires = bouquets.star_wires(wide, spacing)
    each = bouquets.star_wire_length_m(wide, shape.neck_m, shape.hand_m)
    area = bouquets.cap_area_m2(wide / 2, wide / 2, bouquets.ARMATURE_SHARE.value * shape.dome_m)
    stars = max(1, int(area / (math.sqrt(3) / 2 * spacing**2)))
    twist = Step(
        act="twist",
        say=phrase(
            f"Twist {wires} covered wires of {{l}} into stars a finger apart, {{w}} across; run the ends down.",
            l=cut_length(each),
            w=length(wide),
        ),
        caution="Wire ends spring: eye protection.",
    )
    vine = 2 * math.pi * wide
    work = Step(act="weave", say=phrase("Work {v} of vine in and out round the rim.", v=cut_length(vine)))
    own = (
        Part(
            name="covered wire",
            quantity=wires,
            sizes=(length(each),),
            mass_kg=wires * each * COVERED_WIRE_KG_M.value,
            taken=FromSupply(supply="covered-wire", how="each cut"),
        ),
        Part(
            name="vine, in all",
            quantity=1,
            sizes=(length(vine),),
            mass_kg=vine * VINE_KG_M.value,
            taken=FromSupply(supply="vine", how="in all"),
        ),
    )
    return SizedMechanic(
        kind="star_lattice",
        name="star lattice",
        seating=_seating("hexagonal", spacing, spacing - STAR_WIRE_M, armature_m, wide),
        levels=(Level(height_m=armature_m, aperture_m=spacing - STAR_WIRE_M), binding),
        layer_gap_m=armature_m - binding.height_m,
        parts=(*own, *parts),
        seat_moment_n_m=1.0,
        seated_by="its binding",
        capacity=stars,
        displaced_volume_l=0.0,
        mass_kg=weight_kg((*own, *parts)),
        price=None,
        minutes=MINUTES_STARS.value * stars,
        uses=1,
        steps=(twist, work, *steps),
    )


def _hand_spiral(
    piece: Piece, shape: Shape, stems: StemSet, binding: Level, parts: tuple[Part, ...], steps: tuple[Step, ...]
) -> SizedMechanic:
    area = bouquets.cap_area_m2(piece.envelope.width_m / 2, piece.envelope.depth_m / 2, shape.dome_m)
    heads = stems.head_radius_m[stems.flower > 0]
    mean = float(heads.mean()) * 2 if len(heads) else 0.06
    green = int(stems.stems_in_row[stems.flower == 0].sum()) if len(stems) else 0
    turn = Step(
        act="spiral",
        say=phrase(
            "Hold at the binding; lay each stem across the last, all one way: front to the left, back to the right."
        ),
    )
    return SizedMechanic(
        kind="hand_spiral",
        name="hand spiral",
        seating=_seating("cups", mean, 0.0, binding.height_m, piece.envelope.width_m),
        levels=(binding,),
        layer_gap_m=shape.neck_m,
        parts=parts,
        seat_moment_n_m=1.0,
        seated_by="its binding",
        capacity=max(1, bouquets.heads_on_dome(area, mean, bouquets.HEADS_FILL_MOST.value) + green),
        displaced_volume_l=0.0,
        mass_kg=weight_kg(parts),
        price=0.0,
        minutes=0.0,
        uses=1,
        compostable=True,
        shows=False,
        steps=(turn, *steps),
    )


def _finish(bouquet: Bouquet, handle: float) -> tuple[tuple[Part, ...], tuple[Step, ...]]:
    """Tape, bow and streamers, and the steps that bind and finish."""
    if handle <= 0:
        return (), ()
    tape = bouquets.tape_length_m(handle, bouquets.TAPE_BAND.value, bouquets.TAPE_WIDTH.value, bouquets.TAPE_LAP.value)
    kg = tape * bouquets.TAPE_WIDTH.value * TAPE_KG_M2.value
    parts = [
        Part(
            name="tape over the binding",
            quantity=1,
            sizes=(length(tape),),
            mass_kg=kg,
            taken=FromSupply(supply="stem-tape", how="each cut"),
        )
    ]
    steps = [Step(act="bind", say=phrase("Bind tightly at one point and tape over it: {t}.", t=cut_length(tape)))]
    bow = bouquets.bow_length_m(bouquet.bow_loops, bouquet.bow_loop_m)
    if bow:
        parts.append(
            Part(
                name="ribbon for the bow",
                quantity=1,
                sizes=(length(bow),),
                mass_kg=bow * RIBBON_KG_M.value,
                taken=FromSupply(supply="ribbon", how="each cut"),
            )
        )
        words = f"Tie a bow of {bouquet.bow_loops} loops from {{b}} of ribbon."
        steps.append(Step(act="bow", say=phrase(words, b=cut_length(bow))))
    if bouquet.streamers:
        number, long = bouquet.streamers, bouquet.streamer_m
        kg = number * long * RIBBON_KG_M.value
        parts.append(
            Part(
                name="streamer",
                quantity=number,
                sizes=(length(long),),
                mass_kg=kg,
                taken=FromSupply(supply="ribbon", how="each cut"),
            )
        )
    steps.append(Step(act="level", say=phrase("Cut the ends level, on the slant, under water.")))
    return tuple(parts), tuple(steps)


def _seating(pattern: SeatPattern, pitch: float, aperture: float, height: float, wide: float) -> Seating:
    return Seating(
        pattern=pattern,
        pitch_m=pitch,
        aperture_m=aperture,
        height_m=height,
        half_width_m=wide / 2,
        half_depth_m=wide / 2,
    )


def _price(netting: Netting, area_m2: float) -> float | None:
    if netting.price is None:
        return None
    return netting.price * area_m2 / (netting.roll_width_m * netting.roll_length_m)
