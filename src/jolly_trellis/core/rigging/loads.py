"""What a rig weighs, part by part: netting, flowers, water in tubes, whatever else hangs on it."""

import math
from dataclasses import dataclass

from jolly_trellis.core import netting as nets
from jolly_trellis.core.checks.hang import CONTINGENCY, HANDLING
from jolly_trellis.core.errors import InvalidMeasure, UnknownName
from jolly_trellis.core.netting import Netting
from jolly_trellis.core.piece import Conditions, StemTube
from jolly_trellis.core.placement.stem_set import find_variety
from jolly_trellis.core.provenance import COMMON_PRACTICE, FROM_MEMORY, constant
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.rigging.rig import Armature, Rig
from jolly_trellis.core.stems import cut_mass_kg, heavy_factor
from jolly_trellis.core.tubes import full_ml

TAIL = constant("Netting left past the first fixing of a tube or snake", "length", 0.45, COMMON_PRACTICE)
TWIST = constant("Length that twisting takes from a snake", "ratio", 1.07)
FOLDED_IN = constant("A panel's netting folded in at its edge, cells", "count", 1, COMMON_PRACTICE)
CANE_KG_M = constant("Mass of a metre of cane", "linear_mass", 0.06)
PROOF = constant("Proof load, times the finished load", "ratio", 1.25, FROM_MEMORY)
PROOF_MIN = constant("Proof load hangs for, min", "count", 10, FROM_MEMORY)
TUBE_KG = 0.004


@dataclass(frozen=True, slots=True, kw_only=True)
class LoadPart:
    """One part of the take-off: its name, typical and heavy mass in kg."""

    name: str
    typical_kg: float
    heavy_kg: float


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeOff:
    """Everything that hangs, by part; the strip or sheet of netting to cut, width × length in metres."""

    parts: tuple[LoadPart, ...]
    strip_width_m: float
    strip_length_m: float
    netting: Netting

    @property
    def typical_kg(self) -> float:
        """Finished mass, typical, kg."""
        return sum(each.typical_kg for each in self.parts)

    @property
    def heavy_kg(self) -> float:
        """Finished mass, heavy: what lines and points are judged by, kg."""
        return sum(each.heavy_kg for each in self.parts)

    @property
    def design_factor(self) -> float:
        """What the heavy mass counts as: × 1.10 for what was forgotten, × 1.25 for handling."""
        return CONTINGENCY.value * HANDLING.value


def proof_kg(weighed: TakeOff) -> float:
    """What is hung on the bare rig to prove it, kg: the finished heavy mass × 1.25. Source: from memory."""
    return weighed.heavy_kg * PROOF.value


def strip_width_m(diameter_m: float, turns: float) -> float:
    """Width of the strip that is rolled to a tube: π·d·turns, metres. Source: geometry."""
    return math.pi * diameter_m * turns


def turns_of(strip_m: float, diameter_m: float) -> float:
    """How often a strip goes round a tube: width/(π·d). Source: geometry."""
    return strip_m / (math.pi * diameter_m)


def strip_length_m(finished_m: float, *, twisted: bool) -> float:
    """Length of strip for a finished length: the tail past the first fixing, and what twisting takes, metres.

    Source: common practice, no source.
    """
    return finished_m * (TWIST.value if twisted else 1.0) + TAIL.value


def take_off(rig: Rig, conditions: Conditions) -> TakeOff:
    """Weigh a rig part by part.

    Raises:
        UnknownName: a netting or variety the studio does not have.
        InvalidMeasure: an armature with no length.
    """
    armature = rig.armature
    if not armature.length_m > 0:
        raise InvalidMeasure(
            path="armature.length_m",
            message=phrase("The armature is {l} long.", l=length(armature.length_m)),
            limit=phrase("Give it a length."),
        )
    net = conditions.nettings.get(armature.netting or "")
    if net is None:
        raise UnknownName(
            path="armature.netting",
            message=phrase("No netting is chosen for the armature."),
            limit=phrase("Choose one from the stores."),
        )
    wide, long = _strip_m(armature, net)
    area = wide * long
    parts = [
        LoadPart(
            name="netting",
            typical_kg=area * nets.mass_per_area_kg_m2(net),
            heavy_kg=area * nets.mass_per_area_kg_m2(net, heavy=True),
        )
    ]
    if armature.kind in ("panel", "ring"):
        canes = 2 * max(armature.length_m, armature.width_m or armature.diameter_m) * CANE_KG_M.value
        parts.append(LoadPart(name="canes", typical_kg=canes, heavy_kg=canes))
    for index, line in enumerate(rig.recipe):
        variety = find_variety(conditions, line.variety, path=f"recipe.{index}.variety")
        kg = line.count * cut_mass_kg(variety, armature.stem_cut_m)
        parts.append(LoadPart(name=variety.name, typical_kg=kg, heavy_kg=kg * heavy_factor(variety)))
        if line.water == "tube":
            wet = line.count * (TUBE_KG + full_ml(line.tube or StemTube()) / 1000)
            parts.append(LoadPart(name=f"stem tubes for {variety.name}", typical_kg=wet, heavy_kg=wet))
    if rig.extra_kg:
        parts.append(LoadPart(name="whatever else hangs on it", typical_kg=rig.extra_kg, heavy_kg=rig.extra_kg))
    return TakeOff(parts=tuple(parts), strip_width_m=wide, strip_length_m=long, netting=net)


def _strip_m(armature: Armature, net: Netting) -> tuple[float, float]:
    match armature.kind:
        case "snake" | "tube":
            wide = strip_width_m(armature.diameter_m, armature.turns)
            return wide, strip_length_m(armature.length_m, twisted=armature.kind == "snake")
        case "ring":
            return strip_width_m(0.08, armature.turns), math.pi * armature.diameter_m
        case _:
            fold = 2 * FOLDED_IN.value * nets.pitch_across_m(net)
            return armature.width_m + fold, armature.length_m + fold
