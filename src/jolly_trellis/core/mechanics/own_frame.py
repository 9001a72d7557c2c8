"""A frame of one's own: a square of rods strung with wires, turned so that its corners rest on the rim."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.netting import STEEL_DENSITY, cell_capacity
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.mechanics import drawn
from jolly_trellis.core.mechanics.about import About, declare
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.sized import Level, Part, Seating, SizedMechanic, Step, weight_kg
from jolly_trellis.core.mechanics.tape import tape_parts, tape_price, tape_step, taped_n_m
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import count, length, phrase

RESTS_BY = rule("Corners of a frame rest past the mouth, both together", "length", 0.02, COMMON_PRACTICE)
FRAME_ROD = rule("Rod of a square frame", "length", 0.005, COMMON_PRACTICE)
FRAME_WIRE = rule("Wires of a square frame are of", "length", 0.002, COMMON_PRACTICE)
FRAME_CELL = rule("Usual cell of a square frame", "length", 0.025, COMMON_PRACTICE)
FRAME_HOLDS = measure("Wire of a square frame, push it takes at one point", "force", 12.0)
FRAME_MIN = measure("Time to lay a frame of one's own on a rim", "minutes", 2.0)
FRAME_USES = measure("Times a frame of one's own is used again", "count", 60)
FRAME_SLOP = measure("Slop under a frame against bare wire", "ratio", 1.3)
FRAME_PRICE = measure("Price of a square frame, where it has to be made", "price", 8.0)


def least_side_m(mouth_m: float) -> float:
    """The smallest square that rests on a mouth by its corners: (D + 2 cm)/√2, m. Source: geometry."""
    return (mouth_m + RESTS_BY.value) / math.sqrt(2)


def check_side(side_m: float, *, mouth_m: float, square: bool) -> None:
    """Refuse a square frame that does not rest on its mouth by its corners.

    On a round mouth its diagonal reaches 2 cm past it. On a square one it is turned by 45°, so that its diagonal
    reaches past the side of the mouth, and its side is shorter than the mouth's diagonal.

    Raises: InvalidMeasure.
    Source: geometry; what it rests by is common practice, no source.
    """
    least = least_side_m(mouth_m)
    if side_m < least - 1e-9:
        raise InvalidMeasure(
            path="mechanic.own_m",
            message=phrase(
                "A frame of {side} drops into a mouth of {mouth}: turned, it is {diagonal} from corner to corner.",
                side=length(side_m),
                mouth=length(mouth_m),
                diagonal=length(side_m * math.sqrt(2)),
            ),
            limit=phrase("Take one of {least} or more.", least=length(math.ceil(least * 200) / 200)),
        )
    if square and side_m >= mouth_m * math.sqrt(2):
        raise InvalidMeasure(
            path="mechanic.own_m",
            message=phrase(
                "A frame of {side} covers a square mouth of {mouth} whole and slides on it.",
                side=length(side_m),
                mouth=length(mouth_m),
            ),
            limit=phrase("Take one under {most}.", most=length(mouth_m * math.sqrt(2))),
        )


def size(fit: Fit) -> SizedMechanic:
    """Size a square frame laid on the rim by its corners, with as many wires each way as it has.

    Raises: InvalidMeasure: it falls in, or covers a square mouth whole; wires with no room between them.
    """
    square = fit.vessel.plan_shape in ("square", "rectangular")
    side = fit.choice.own_m or math.ceil(least_side_m(fit.mouth_m) * 200) / 200
    check_side(side, mouth_m=fit.mouth_m, square=square)
    wire = fit.choice.own_wire_m or FRAME_WIRE.value
    wires = fit.choice.own_wires or max(1, round(side / (fit.choice.cell_m or FRAME_CELL.value)) - 1)
    cell = side / (wires + 1)
    if cell - wire < 0.004:
        raise InvalidMeasure(
            path="mechanic.own_wires",
            message=phrase(
                "{wires} wires each way leave {gap} between them.", wires=wires, gap=length(max(cell - wire, 0.0))
            ),
            limit=phrase("Take {most} or fewer.", most=max(1, int(side / (wire + 0.004)) - 1)),
        )
    steel = math.pi / 4 * (4 * side * FRAME_ROD.value**2 + 2 * wires * side * wire**2)
    frame = Part(
        name="square frame",
        quantity=1,
        sizes=(length(side),),
        mass_kg=steel * STEEL_DENSITY.value,
    )
    parts = (frame, *tape_parts(fit))
    return SizedMechanic(
        kind="own_frame",
        name="square frame",
        seating=Seating(pattern="square", pitch_m=cell, aperture_m=cell - wire, height_m=fit.depth_m),
        levels=(Level(height_m=fit.depth_m, aperture_m=cell - wire),),
        layer_gap_m=0.0,
        rigid=True,
        parts=parts,
        tape_strips=fit.tape_strips,
        seat_moment_n_m=frame.mass_kg * GRAVITY_M_S2 * side / 2 + taped_n_m(fit),
        seated_by="its weight on the rim",
        seat_arm_m=fit.mouth_m / 2,
        strength_n=FRAME_HOLDS.value,
        capacity=max(1, int(fit.mouth_area_m2 / cell**2)) * cell_capacity(cell - wire, fit.stem_diameter_m),
        displaced_volume_l=0.0,
        mass_kg=weight_kg(parts),
        price=FRAME_PRICE.value + tape_price(fit),
        minutes=FRAME_MIN.value,
        uses=round(FRAME_USES.value),
        single_use_plastic=fit.tape_strips > 0,
        loose=not fit.tape_strips,
        lifts_off=True,
        slop_factor=FRAME_SLOP.value,
        steps=(
            Step(
                kind="seat",
                say=phrase(
                    "Lay the frame, {side} square with {wires} wires each way, on the rim, turned so that its corners "
                    "rest.",
                    side=length(side),
                    wires=count(wires),
                ),
            ),
            *tape_step(fit),
        ),
    )


OWN_FRAME = declare(
    About(
        kind="own_frame",
        draw=drawn.ring,
        place=155,
        name="Square frame",
        what="a frame of one's own, turned to rest on the rim by its corners",
        size=size,
        bought=True,
        reads=frozenset({"cell_m", "own_m", "own_wires", "own_wire_m"}),
    )
)
