"""What a rig weighs, part by part: netting, canes, flowers, water in tubes, whatever else hangs on it."""

import math
from dataclasses import dataclass

from jolly_trellis.core import netting as nets
from jolly_trellis.core.checks.drink_own import WRAP_ML
from jolly_trellis.core.checks.hang import CONTINGENCY, HANDLING
from jolly_trellis.core.errors import UnknownName
from jolly_trellis.core.piece import Conditions, StemTube
from jolly_trellis.core.placement.stem_set import find_variety
from jolly_trellis.core.provenance import FROM_MEMORY, constant
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging.armatures import ArmaturePart, SizedArmature, size_armature
from jolly_trellis.core.rigging.drops import mean_stem_m
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.stems import GRAVITY_M_S2, cut_mass_kg, heavy_factor
from jolly_trellis.core.tubes import full_ml

CANE_KG_M = constant("Mass of a metre of cane", "linear_mass", 0.06)
TWIG_KG_M = constant("Mass of a metre of dry twig", "linear_mass", 0.03)
HOOK_KG_M = constant("Mass of a metre of hook wire, 1 mm", "linear_mass", 0.006)
TUBE_KG = constant("Mass of an empty stem tube", "mass", 0.004)
WRAP_KG = constant("Mass of the dry wrap and film of one bundle", "mass", 0.006)
PROOF = constant("Proof load, times the finished load", "ratio", 1.25, FROM_MEMORY)
PROOF_MIN = constant("Proof load hangs for, min", "count", 10, FROM_MEMORY)
NETTING = "netting"
EXTRA = "whatever else hangs on it"
WEIGHED = {
    "dry twigs": TWIG_KG_M,
    "canes along": CANE_KG_M,
    "canes across": CANE_KG_M,
    "cane bent to the ring": CANE_KG_M,
    "hooks of wire": HOOK_KG_M,
}


@dataclass(frozen=True, slots=True, kw_only=True)
class LoadPart:
    """One part of the take-off: its name, typical and heavy mass in kg; `bare` of those there before any flower."""

    name: str
    typical_kg: float
    heavy_kg: float
    bare: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeOff:
    """Everything that hangs, by part, and the armature as it is sized for it."""

    parts: tuple[LoadPart, ...]
    sized: SizedArmature

    @property
    def typical_kg(self) -> float:
        """Finished mass, typical, kg."""
        return sum(each.typical_kg for each in self.parts)

    @property
    def heavy_kg(self) -> float:
        """Finished mass, heavy: what lines and points are judged by, kg."""
        return sum(each.heavy_kg for each in self.parts)

    @property
    def bare_kg(self) -> float:
        """Mass of the armature before any flower, heavy, kg."""
        return sum(each.heavy_kg for each in self.parts if each.bare)

    @property
    def design_factor(self) -> float:
        """What the heavy mass counts as: × 1.10 for what was forgotten, × 1.25 for handling."""
        return CONTINGENCY.value * HANDLING.value


def proof_kg(weighed: TakeOff) -> float:
    """What is hung on the bare rig to prove it, kg: the finished heavy mass × 1.25. Source: from memory."""
    return weighed.heavy_kg * PROOF.value


def take_off(rig: Rig, conditions: Conditions) -> TakeOff:
    """Weigh a rig part by part.

    Raises:
        UnknownName: a netting or variety the studio does not have.
        InvalidMeasure: an armature with no length.
    """
    armature = rig.armature
    net = conditions.nettings.get(armature.netting or "")
    if net is None:
        raise UnknownName(
            path="armature.netting",
            message=phrase("No netting is chosen for the armature."),
            limit=phrase("Choose one from the stores."),
        )
    flowers = _flowers(rig, conditions)
    number = sum(line.count for line in rig.recipe)
    heavy_n = sum(each.heavy_kg for each in flowers) * GRAVITY_M_S2
    sized = size_armature(armature, net, flowers_n=heavy_n, hung=number)
    area = sized.sheet.width_m * sized.sheet.length_m
    parts = [
        LoadPart(
            name=NETTING,
            typical_kg=area * nets.mass_per_area_kg_m2(net),
            heavy_kg=area * nets.mass_per_area_kg_m2(net, heavy=True),
            bare=True,
        ),
        *(_solid(each) for each in sized.parts if each.name in WEIGHED),
        *flowers,
    ]
    if rig.extra_kg:
        parts.append(LoadPart(name=EXTRA, typical_kg=rig.extra_kg, heavy_kg=rig.extra_kg, bare=True))
    return TakeOff(parts=tuple(parts), sized=sized)


def _flowers(rig: Rig, conditions: Conditions) -> list[LoadPart]:
    """Stems by variety, each followed by its tubes, filled, or the wet wraps of its bundles."""
    long = mean_stem_m(rig.armature)
    parts = []
    for index, line in enumerate(rig.recipe):
        variety = find_variety(conditions, line.variety, path=f"recipe.{index}.variety")
        kg = line.count * cut_mass_kg(variety, long)
        parts.append(LoadPart(name=variety.name, typical_kg=kg, heavy_kg=kg * heavy_factor(variety)))
        if line.water == "tube":
            wet = line.count * (TUBE_KG.value + full_ml(line.tube or StemTube()) / 1000)
            parts.append(LoadPart(name=f"stem tubes for {variety.name}", typical_kg=wet, heavy_kg=wet))
        if line.water == "wrap":
            each = WRAP_ML.value if line.wrap_ml is None else line.wrap_ml
            wet = math.ceil(line.count / line.clump) * (WRAP_KG.value + each / 1000)
            parts.append(LoadPart(name=f"wet wraps for {variety.name}", typical_kg=wet, heavy_kg=wet))
    return parts


def _solid(part: ArmaturePart) -> LoadPart:
    kg = part.count * (part.length_m or 0.0) * WEIGHED[part.name].value
    return LoadPart(name=part.name, typical_kg=kg, heavy_kg=kg, bare=True)
