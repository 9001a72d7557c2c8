"""The spill: a strip of netting set with flowers that hangs free over a ledge's edge, as a chain."""

from collections.abc import Iterator
from dataclasses import dataclass

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.errors import InvalidMeasure, UnknownName
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.netting import Netting, NettingSheet
from jolly_trellis.core.materials.stems import GRAVITY_M_S2, Variety, cut_mass_kg, heavy_factor
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Piece, Spill
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.stems.stem_set import variety_of_line
from jolly_trellis.core.stems.tubes import line_water_kg

TAIL = rule("Netting left past the edge of a ledge, to fix it by", "length", 0.45, COMMON_PRACTICE)
LAYERS = rule("Layers of netting in a spill", "count", 1.6)
TENSION_PER_CELL = measure(
    "Netting in tension, per whole cell of flat width, 0.9 mm wire", "force", 8.0, cautious="down"
)
THIN_WIRE_M = 0.00075
THIN_WIRE_SHARE = measure("Netting of 0.7 mm wire in tension, against 0.9 mm", "ratio", 0.5, cautious="down")


@dataclass(frozen=True, slots=True, kw_only=True)
class SizedSpill:
    """A spill sized: the flat sheet to cut, its masses, what hangs below the edge, and what its netting bears.

    Masses in kg: typical and heavy, of the part that hangs; `strength_n` is the netting's own in tension.
    """

    netting: Netting
    sheet: NettingSheet
    hanging_kg: float
    hanging_heavy_kg: float
    stems: int
    strength_n: float


def lines_of(spill: Spill, conditions: Conditions) -> Iterator[tuple[RecipeLine, Variety]]:
    """The spill's recipe with its varieties. Raises UnknownName."""
    for index, line in enumerate(spill.recipe):
        yield line, variety_of_line(conditions.varieties, line, path=f"spill.recipe.{index}.variety")


def chain_strength_n(netting: Netting, width_m: float) -> float:
    """What a flat strip of netting bears along its length: 8 N for each whole cell of width, half at 0.7 mm wire.

    Args:
        width_m: flat width, m.
    Returns: newtons; 0 for a strip narrower than one cell.
    Source: estimate.
    """
    cells = int(width_m / nets.pitch_across_m(netting) + 1e-9)
    share = THIN_WIRE_SHARE.value if netting.wire_m <= THIN_WIRE_M else 1.0
    return TENSION_PER_CELL.value * cells * share


def size(piece: Piece, conditions: Conditions) -> SizedSpill | None:
    """Size the spill of a piece; None where it has none.

    The sheet is the drop and a tail past the edge, rolled loosely to 1.6 layers of its flat width; stems are spread
    evenly over the drop, so all of them hang.

    Raises:
        InvalidMeasure: no vessel stands behind it on a ledge, it would lie on the floor, or it is under a cell wide.
        UnknownName: a netting or variety the studio does not have.
    """
    spill = piece.spill
    if spill is None:
        return None
    _check(piece, spill)
    net = _netting(spill, piece, conditions)
    wide = spill.width_m * LAYERS.value
    sheet = nets.sheet(net, width_m=wide, length_m=spill.drop_m + TAIL.value)
    strength = chain_strength_n(net, spill.width_m)
    if strength <= 0:
        raise InvalidMeasure(
            path="spill.width_m",
            message=phrase("A strip {w} wide is less than one cell.", w=length(spill.width_m)),
            limit=phrase("Make it at least {c}, one cell, wide.", c=length(nets.pitch_across_m(net))),
        )
    bare = wide * spill.drop_m * nets.mass_per_area_kg_m2(net)
    coated = wide * spill.drop_m * nets.mass_per_area_kg_m2(net, heavy=True)
    typical, heavy, number = 0.0, 0.0, 0
    for line, variety in lines_of(spill, conditions):
        kg = line.count * cut_mass_kg(variety, spill.cut_length_m)
        typical += kg + line_water_kg(line)
        heavy += kg * heavy_factor(variety) + line_water_kg(line, heavy=True)
        number += line.count
    return SizedSpill(
        netting=net,
        sheet=sheet,
        hanging_kg=bare + typical,
        hanging_heavy_kg=coated + heavy,
        stems=number,
        strength_n=strength,
    )


def pull_n(piece: Piece, sized: SizedSpill | None, *, heavy: bool) -> float:
    """Level pull of the spill on the vessel, N: its weight where the vessel holds it, 0 where its own hook does.

    The strip lies over the edge with no friction counted, so the whole weight comes round as a pull.

    Source: statics of a rope over a smooth edge.
    """
    if sized is None or piece.spill is None or piece.spill.held_by == "hook":
        return 0.0
    return GRAVITY_M_S2 * (sized.hanging_heavy_kg if heavy else sized.hanging_kg)


def _check(piece: Piece, spill: Spill) -> None:
    ledge = piece.setting.ledge
    if piece.setting.where != "ledge" or ledge is None:
        raise InvalidMeasure(
            path="spill",
            message=phrase("A spill hangs over a ledge's edge, and no vessel of this piece stands behind one."),
            limit=phrase("Stand the piece on a ledge, or take the spill off."),
        )
    if spill.drop_m > ledge.height_m + 1e-9:
        raise InvalidMeasure(
            path="spill.drop_m",
            message=phrase(
                "A drop of {d} from a ledge {h} high lies on the floor.",
                d=length(spill.drop_m),
                h=length(ledge.height_m),
            ),
            limit=phrase("Let it hang {h} at most.", h=length(ledge.height_m)),
        )


def _netting(spill: Spill, piece: Piece, conditions: Conditions) -> Netting:
    key = spill.netting or piece.mechanic.netting
    found = conditions.nettings.get(key or "")
    if found is None:
        said = (
            phrase("No netting in the stores is called “{key}”.", key=key)
            if key
            else phrase("No netting is chosen for the spill.")
        )
        raise UnknownName(path="spill.netting", message=said, limit=phrase("Choose one from the stores."))
    return found
