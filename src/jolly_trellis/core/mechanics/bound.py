"""What a bouquet is bound on: a wire dome, a star lattice of covered wires, or nothing but the hand."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.books.needs import FromSupply, from_roll
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.mechanics import bouquet as bouquets
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.handful import Handful, finish
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
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import cut_length, length, phrase, worded

STAR_WIRE_M = 0.0012
COVERED_WIRE_KG_M = measure("Mass of a metre of covered wire", "linear_mass", 0.0075)
VINE_ROUNDS = rule("Rounds of vine about a star lattice", "count", 2, COMMON_PRACTICE)
VINE_WIDENS = rule("A round of vine past those widens a star lattice, each side, by", "length", 0.01)
BERRY_KG = measure("Mass of a sprig of berries", "mass", 0.008)
VINE_KG_M = measure("Mass of a metre of vine", "linear_mass", 0.02)
MINUTES_DOME = measure("Time to shape and bind a wire dome", "minutes", 8.0)
MINUTES_STARS = measure("Time to twist a star lattice, for each star", "minutes", 0.35)
DOME_USES = measure("Times a wire dome is used again", "count", 3)


def size_dome(handful: Handful) -> SizedMechanic:
    """A dome of netting under the heads, its skirt run into the handle. Raises InvalidMeasure: no netting."""
    shape, netting, wide = handful.shape, handful.netting, handful.armature_width_m
    binding, armature_m = handful.binding, handful.armature_m
    parts, steps = finish(handful, crosses=handful.crosses)
    if netting is None:
        raise InvalidMeasure(
            path="mechanic.netting",
            message=phrase("A wire dome is made of netting, and none is chosen."),
            limit=phrase("Choose one from the stores."),
        )
    rise = bouquets.ARMATURE_SHARE.value * shape.dome_m
    side = bouquets.dome_arc_m(wide / 2, max(rise, 0.01)) + 2 * (shape.neck_m + bouquets.SKIRT.value)
    sheet = nets.sheet(netting, width_m=side, length_m=side)
    name = worded("square for the dome, {netting}", netting=netting.name)
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
        kind="cut",
        say=phrase("Cut a square of {netting}, {s} each way.", s=cut_length(side), netting=netting.name),
        caution="Cut ends are sharp: gloves and eye protection.",
    )
    shape_it = Step(
        kind="shape",
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
        crosses=handful.crosses,
        steps=(cut, shape_it, *steps),
    )


def size_stars(handful: Handful) -> SizedMechanic:
    """Covered wires twisted into stars under the heads, their ends run into the handle."""
    shape, wide, binding, armature_m = handful.shape, handful.armature_width_m, handful.binding, handful.armature_m
    parts, steps = finish(handful, crosses=handful.crosses)
    spacing = bouquets.STAR_SPACING.value
    wires = bouquets.star_wires(wide, spacing)
    each = bouquets.star_wire_length_m(wide, shape.neck_m, shape.hand_m)
    choice = handful.piece.mechanic
    rounds = round(VINE_ROUNDS.value) if choice.vine_rounds is None else choice.vine_rounds
    # Each round of vine past the usual ones widens what stems go through.
    wider = wide + 2 * VINE_WIDENS.value * max(rounds - VINE_ROUNDS.value, 0.0)
    area = bouquets.cap_area_m2(wider / 2, wider / 2, bouquets.ARMATURE_SHARE.value * shape.dome_m)
    stars = max(1, int(area / (math.sqrt(3) / 2 * spacing**2)))
    twist = Step(
        kind="twist",
        say=phrase(
            "Twist {wires} covered wires of {l} into stars a finger apart, {w} across; run the ends down.",
            l=cut_length(each),
            w=length(wide),
            wires=wires,
        ),
        caution="Wire ends spring: eye protection.",
    )
    vine = rounds * math.pi * wide
    work = []
    if vine:
        say = phrase(
            "Work {v} of vine in and out round the rim, {n} {n|time|times} round.", v=cut_length(vine), n=rounds
        )
        work.append(Step(kind="weave", say=say))
    if choice.berries:
        say = phrase("Work {n} {n|sprig|sprigs} of berries in among the stars.", n=choice.berries)
        work.append(Step(kind="weave in berries", say=say))
    own = [
        Part(
            name="covered wire",
            quantity=wires,
            sizes=(length(each),),
            mass_kg=wires * each * COVERED_WIRE_KG_M.value,
            taken=FromSupply(supply="covered-wire", how="each cut"),
        ),
    ]
    if vine:
        own.append(
            Part(
                name="vine, in all",
                quantity=1,
                sizes=(length(vine),),
                mass_kg=vine * VINE_KG_M.value,
                taken=FromSupply(supply="vine", how="in all"),
            )
        )
    if choice.berries:
        kg = choice.berries * BERRY_KG.value
        taken = FromSupply(supply="berry-sprig")
        own.append(Part(name="sprig of berries", quantity=choice.berries, mass_kg=kg, taken=taken))
    return SizedMechanic(
        kind="star_lattice",
        name="star lattice",
        seating=_seating("hexagonal", spacing, spacing - STAR_WIRE_M, armature_m, wider),
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
        crosses=handful.crosses,
        steps=(twist, *work, *steps),
    )


def size_spiral(handful: Handful) -> SizedMechanic:
    """Stems laid across one another in the hand, with no armature."""
    piece, shape, stems, binding = handful.piece, handful.shape, handful.stems, handful.binding
    parts, steps = finish(handful, crosses=True)
    area = bouquets.cap_area_m2(piece.envelope.width_m / 2, piece.envelope.depth_m / 2, shape.dome_m)
    heads = stems.head_radius_m[stems.flower > 0]
    mean = float(heads.mean()) * 2 if len(heads) else 0.06
    green = int(stems.stems_in_row[stems.flower == 0].sum()) if len(stems) else 0
    turn = Step(
        kind="spiral",
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
        crosses=True,
        steps=(turn, *steps),
    )


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


WIRE_DOME = declare(
    About(
        kind="wire_dome",
        place=240,
        name="Wire dome",
        what="netting domed under the heads, its skirt run into the handle",
        bind=size_dome,
        netting=True,
        tapes=False,
    )
)
STAR_LATTICE = declare(
    About(
        kind="star_lattice",
        place=250,
        name="Star lattice",
        what="covered wires twisted into stars, run into the handle",
        bind=size_stars,
        tapes=False,
        firm=1,
        reads=frozenset({"vine_rounds", "berries"}),
    )
)
HAND_SPIRAL = declare(
    About(
        kind="hand_spiral",
        place=260,
        name="Hand spiral",
        what="stems crossed in the hand, no armature",
        bind=size_spiral,
        tapes=False,
    )
)
