"""What a bound mechanic is made from, and what binds and finishes any of them: tape, bow, streamers, collar."""

import math
from dataclasses import dataclass

from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.mechanics import bouquet as bouquets
from jolly_trellis.core.mechanics.bouquet import Shape
from jolly_trellis.core.mechanics.sized import Level, Part, Step
from jolly_trellis.core.mechanics.tape import STRING_KG_M, TAPE_KG_M2
from jolly_trellis.core.plan.bound import Bound
from jolly_trellis.core.quantities import cut_length, length, phrase
from jolly_trellis.core.stems.stem_set import StemSet

DISC_KG_M2 = measure("Mass of covered card", "areal_mass", 0.6)
COLLAR = "leaf of the collar"
RIBBON_KG_M = measure("Mass of a metre of ribbon, 25 mm", "linear_mass", 0.004)
COLLAR_LEAF_M = measure("Width that one leaf of a collar covers", "length", 0.08)
COLLAR_LEAF_KG = measure("Mass of a leaf of a collar", "mass", 0.005)


@dataclass(frozen=True, slots=True, kw_only=True)
class Handful:
    """A piece to be bound: its plan, its shape, its stems, and the netting chosen for it, None for none.

    With `crosses` its stems cross at the binding though an armature holds their heads.
    """

    piece: Bound
    shape: Shape
    stems: StemSet
    netting: Netting | None
    crosses: bool = False

    @property
    def binding(self) -> Level:
        """Where it is bound."""
        return Level(height_m=self.shape.binding_m - self.piece.vessel.base_m, aperture_m=0.0)

    @property
    def armature_m(self) -> float:
        """Height of the middle of an armature under the flowers over the vase's inside floor, m."""
        rise = bouquets.ARMATURE_SHARE.value * self.shape.dome_m
        return self.shape.under_m - self.piece.vessel.base_m + 0.5 * rise

    @property
    def armature_width_m(self) -> float:
        """Width of an armature under the flowers, m."""
        envelope = self.piece.envelope
        return bouquets.ARMATURE_SHARE.value * max(envelope.width_m, envelope.depth_m)


def finish(handful: Handful, *, crosses: bool) -> tuple[tuple[Part, ...], tuple[Step, ...]]:
    """Tape, bow, streamers and collar, and the steps that bind and finish.

    Args:
        crosses: whether stems cross at the binding, or lie side by side.
    """
    handle = bouquets.handle_of(handful.stems, crosses)
    parts, steps = _bound(handle) if handle > 0 else ([], [])
    more_parts, more_steps = trimmings(handful.piece)
    level = [Step(kind="level", say=phrase("Cut the ends level, on the slant, under water."))] if handle > 0 else []
    return (*parts, *more_parts), (*steps, *more_steps, *level)


def trimmings(piece: Bound) -> tuple[list[Part], list[Step]]:
    """Bow, streamers, what covers its back, and a collar, with the steps that put them on."""
    parts, steps = _ribbons(piece)
    if piece.back != "bare":
        step, part = _backed(piece)
        parts.append(part)
        steps.append(step)
    if piece.collar:
        envelope = piece.envelope
        leaves = math.ceil(math.pi * max(envelope.width_m, envelope.depth_m) / COLLAR_LEAF_M.value)
        kg, taken = leaves * COLLAR_LEAF_KG.value, FromSupply(supply="large-leaf")
        parts.append(Part(name=COLLAR, quantity=leaves, mass_kg=kg, taken=taken))
        steps.append(
            Step(kind="collar", say=phrase("Bind {leaves} leaves under the flowers as a collar.", leaves=leaves))
        )
    return parts, steps


def _backed(piece: Bound) -> tuple[Step, Part]:
    """What covers the side of a bouquet against the body: leaves over half of its rim, or a disc of card."""
    envelope = piece.envelope
    if piece.back == "leaves":
        leaves = math.ceil(math.pi / 2 * max(envelope.width_m, envelope.depth_m) / COLLAR_LEAF_M.value)
        say = phrase("Lay {leaves} leaves flat over the back and bind them in.", leaves=leaves)
        kg, taken = leaves * COLLAR_LEAF_KG.value, FromSupply(supply="large-leaf")
        return Step(kind="back", say=say), Part(name="leaf of the back", quantity=leaves, mass_kg=kg, taken=taken)
    across = bouquets.ARMATURE_SHARE.value * min(envelope.width_m, envelope.depth_m)
    say = phrase("Cover a disc of card {across} across and bind it flat to the back.", across=length(across))
    kg = math.pi / 4 * across**2 * DISC_KG_M2.value
    part = Part(name="disc of covered card", quantity=1, sizes=(length(across),), mass_kg=kg)
    return Step(kind="back", say=say), part


def _bound(handle: float) -> tuple[list[Part], list[Step]]:
    string = bouquets.binding_length_m(handle)
    tape = bouquets.tape_length_m(handle, bouquets.TAPE_BAND.value, bouquets.TAPE_WIDTH.value, bouquets.TAPE_LAP.value)
    kg = tape * bouquets.TAPE_WIDTH.value * TAPE_KG_M2.value
    parts = [
        Part(
            name="string of the binding",
            quantity=1,
            sizes=(length(string),),
            mass_kg=string * STRING_KG_M.value,
            taken=FromSupply(supply="string", how="each cut"),
        ),
        Part(
            name="tape over the binding",
            quantity=1,
            sizes=(length(tape),),
            mass_kg=kg,
            taken=FromSupply(supply="stem-tape", how="each cut"),
        ),
    ]
    words = "Bind tightly at one point with {s} of string, and tape over it: {t}."
    return parts, [Step(kind="bind", say=phrase(words, s=cut_length(string), t=cut_length(tape)))]


def _ribbons(piece: Bound) -> tuple[list[Part], list[Step]]:
    parts: list[Part] = []
    steps: list[Step] = []
    bow = bouquets.bow_length_m(piece.bow_loops, piece.bow_loop_m)
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
        words = "Tie a bow of {loops} loops from {b} of ribbon."
        steps.append(Step(kind="bow", say=phrase(words, loops=piece.bow_loops, b=cut_length(bow))))
    if piece.streamers:
        number, long = piece.streamers, piece.streamer_m
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
    return parts, steps
