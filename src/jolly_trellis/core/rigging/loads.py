"""What a rig weighs, part by part: netting, canes, flowers, water in tubes, whatever else hangs on it."""

import math
from dataclasses import dataclass, replace

import numpy as np

from jolly_trellis.core import ranges
from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.checks.hang import CONTINGENCY, HANDLING
from jolly_trellis.core.errors import UnknownName
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.stems import GRAVITY_M_S2, cut_mass_kg, heavy_factor
from jolly_trellis.core.mechanics.sized import Part
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.provenance import FROM_MEMORY
from jolly_trellis.core.quantities import phrase, worded
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.armatures import SizedArmature, hook_parts, size_armature, with_more_ties
from jolly_trellis.core.rigging.drops import (
    DropRow,
    drop_list,
    drops_m,
    hook_bears_kg,
    hook_gauge_m,
    in_steps_m,
    mean_stem_m,
    on_hooks,
    slopes,
    spread,
    stem_and_hook_m,
)
from jolly_trellis.core.rigging.rig import Rig, RigLine
from jolly_trellis.core.rigging.tied import round_m
from jolly_trellis.core.stems.stem_set import variety_of_line
from jolly_trellis.core.stems.tubes import line_water_kg, own_water_kg

PROOF = rule("Proof load, times the finished load", "ratio", 1.25, FROM_MEMORY, cautious="up")
PROOF_MIN = rule("Proof load hangs for", "minutes", 10, FROM_MEMORY, cautious="up")
HARDWARE_KG = {
    kind: measure(worded("A {fitting} weighs", fitting=kind), "mass", kg, cautious="up")
    for kind, kg in (
        ("shackle", 0.06),
        ("sling", 0.15),
        ("eye bolt", 0.08),
        ("carabiner", 0.08),
        ("swivel", 0.06),
        ("turnbuckle", 0.12),
    )
}
HARDWARE_USES = measure("Times a shackle, sling or other marked hardware is used", "count", 100)
NETTING = "netting"
EXTRA = "whatever else hangs on it"
CORE = "core"
LINES = "lines, with their ends"
CARRIER = "cord through it"


@dataclass(frozen=True, slots=True, kw_only=True)
class Load:
    """What pulls a rig down, N: spread all along it as full as it is there, and what hangs at its foot. Of a panel or
    ring, `right_m` is how far right of where it would lie its middle is, m: stems that hang longer there.
    """

    spread_n: float
    foot_n: float = 0.0
    right_m: float = 0.0

    @property
    def total_n(self) -> float:
        """All of it, N."""
        return self.spread_n + self.foot_n


@dataclass(frozen=True, slots=True, kw_only=True)
class LoadPart:
    """One part of the take-off: its name, typical and heavy mass in kg; `bare` of those there before any flower."""

    name: str
    typical_kg: float
    heavy_kg: float
    bare: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeOff:
    """Everything that hangs, by part, and the armature as it is sized for it; `core_kg` of it hangs at its foot.

    `drops` is the drop list of what hangs on hooks of wire `hook_gauge_m` thick; such a hook holds `hook_bears_kg`,
    and the heaviest stem weighs `heaviest_hung_kg`. `right_kg_m` is the moment of stems that hang longer on the right.
    """

    parts: tuple[LoadPart, ...]
    sized: SizedArmature
    core_kg: float = 0.0
    drops: tuple[DropRow, ...] = ()
    hook_gauge_m: float = 0.0
    hook_bears_kg: float = 0.0
    heaviest_hung_kg: float = 0.0
    right_kg_m: float = 0.0

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

    def load(self, per_kg_n: float, kg: float | None = None) -> Load:
        """What pulls it down where each kilogram pulls so hard, N.

        Args:
            kg: of all that hangs by then, the core in; None for the finished heavy mass.
        """
        whole = self.heavy_kg if kg is None else kg
        flowers = self.heavy_kg - self.bare_kg
        done = (whole - self.bare_kg) / flowers if flowers > 0 else 0.0
        right = self.right_kg_m * done / whole if whole > 0 else 0.0
        return Load(spread_n=(whole - self.core_kg) * per_kg_n, foot_n=self.core_kg * per_kg_n, right_m=right)

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
    ranges.check(rig)
    armature = rig.armature
    net = conditions.nettings.get(armature.netting or "")
    if net is None:
        raise UnknownName(
            path="armature.netting",
            message=phrase("No netting is chosen for the armature."),
            limit=phrase("Choose one from the stores."),
        )
    flowers = _flowers(rig, conditions)
    heavy_n = sum(each.heavy_kg for each in flowers) * GRAVITY_M_S2
    sized = size_armature(armature, net, flowers_n=heavy_n)
    known = (conditions.varieties.get(line.variety) for line in rig.recipe)
    if any(each is not None and each.lasting for each in known):
        sized = with_more_ties(sized)
    drops, heaviest = drop_list(rig, conditions.varieties), heaviest_hung_kg(rig, conditions)
    gauge = hook_gauge_m(heaviest, armature.hook_gauge_m)
    sized = replace(sized, parts=(*sized.parts, *_hooks(drops, gauge)))
    area = sized.sheet.width_m * sized.sheet.length_m
    parts = [
        LoadPart(
            name=NETTING,
            typical_kg=area * nets.mass_per_area_kg_m2(net),
            heavy_kg=area * nets.mass_per_area_kg_m2(net, heavy=True),
            bare=True,
        ),
        *(_solid(name, kg) for name, kg in _by_name(sized.parts).items()),
        *_in_lines(rig),
        *flowers,
    ]
    core = hung_core_kg(rig)
    if core:
        parts.append(_solid(CORE, core))
    if rig.extra_kg:
        parts.append(LoadPart(name=EXTRA, typical_kg=rig.extra_kg, heavy_kg=rig.extra_kg, bare=True))
    return TakeOff(
        parts=tuple(parts),
        sized=sized,
        core_kg=core,
        drops=drops,
        hook_gauge_m=gauge,
        hook_bears_kg=hook_bears_kg(gauge),
        heaviest_hung_kg=heaviest,
        right_kg_m=_right_kg_m(rig, conditions),
    )


def _right_kg_m(rig: Rig, conditions: Conditions) -> float:
    """Moment of the stems of a slope about the middle of their armature, heavy, kg·m: those on the right are longer.

    Their water hangs alike on both sides, and turns nothing. Source: statics; they hang where they are drawn.
    """
    armature = rig.armature
    drops = drops_m(rig.recipe, armature)
    stems = []
    for index, line in enumerate(rig.recipe):
        if not slopes(line, armature):
            continue
        variety = variety_of_line(conditions.varieties, line, path=f"recipe.{index}.variety")
        for long in drops[index]:
            stem, _ = stem_and_hook_m(in_steps_m(long), line, variety, None)
            stems.append((long, cut_mass_kg(variety, stem) * heavy_factor(variety)))
    half = (armature.diameter_m if armature.kind == "ring" else armature.length_m) / 2
    right = np.sort(spread(len(stems), round_=armature.kind == "ring")[:, 0])
    kg = np.array([mass for _, mass in sorted(stems)])
    return float(half * right @ kg)


def _by_name(parts: tuple[Part, ...]) -> dict[str, float]:
    """What parts of one name weigh together, kg."""
    found: dict[str, float] = {}
    for each in parts:
        found[each.name] = found.get(each.name, 0.0) + each.mass_kg
    return found


def _hooks(drops: tuple[DropRow, ...], gauge_m: float) -> tuple[Part, ...]:
    counts: dict[float, int] = {}
    for each in drops:
        long = round(each.hook_m, 4)
        counts[long] = counts.get(long, 0) + each.count
    return hook_parts(counts.items(), gauge_m)


def heaviest_hung_kg(rig: Rig, conditions: Conditions) -> float:
    """What the heaviest stem that hangs on a hook weighs, heavy, with its tube, kg; 0 where none does."""
    most = 0.0
    for index, (line, drops) in enumerate(zip(rig.recipe, drops_m(rig.recipe, rig.armature), strict=True)):
        if not on_hooks(line, rig.armature):
            continue
        variety = variety_of_line(conditions.varieties, line, path=f"recipe.{index}.variety")
        stem = max(stem_and_hook_m(each, line, variety, None)[0] for each in drops)
        wet = own_water_kg(line, 1, heavy=True)
        most = max(most, cut_mass_kg(variety, stem) * heavy_factor(variety) + wet)
    return most


def hung_core_kg(rig: Rig) -> float:
    """A core that hangs with the work, kg; one in the foot of a frame or stand is borne there, and only there."""
    on_foot = rig.mount is not None and rig.mount.kind in ("frame", "stand")
    return 0.0 if on_foot or rig.lies else rig.armature.core_kg


def _in_lines(rig: Rig) -> list[LoadPart]:
    """Lines, bond and the cord through a run, by the length they are drawn with and what their ends take.

    All of it is counted as hanging with the work, which overstates what the lines bear of themselves.
    """
    kg = 0.0
    for line in rig.lines:
        reach = round_m(rig) if rig.is_tied else _drawn_m(rig, line)
        piece, number = line_rules.LINES[line.spec.kind].piece_m, line_rules.pieces_of(line.spec, reach)
        if piece is None or number is None:
            long = reach + 2 * line_rules.end_takes_m(line.spec) + rig.levelling_m
        else:
            long = number * piece.value
        kg += long * line_rules.mass_kg_m(line.spec)
        kg += sum(HARDWARE_KG[each.kind].value for each in line.hardware)
    if rig.bond is not None and rig.bond.point is not None and rig.attachments and rig.bond.point < len(rig.points):
        point = rig.points[rig.bond.point]
        reach = min(math.dist((point.x_m, point.y_m, point.z_m), (a.x_m, a.y_m, a.z_m)) for a in rig.attachments)
        kg += (reach + rig.bond.slack_m + 2 * line_rules.end_takes_m(rig.bond.spec)) * line_rules.mass_kg_m(
            rig.bond.spec
        )
    parts = [_solid(LINES, kg)] if kg else []
    cord = rig.armature.carrier
    if cord is not None:
        long = rig.armature.length_m + 2 * line_rules.end_takes_m(cord)
        parts.append(_solid(CARRIER, long * line_rules.mass_kg_m(cord)))
    return parts


def _drawn_m(rig: Rig, line: RigLine) -> float:
    """How far a line reaches as it is drawn, m; 0 for one that leads to nothing, which `refusals.check` refuses."""
    places = len(rig.attachments)
    begin = rig.points if line.point is not None else rig.attachments
    at = line.point if line.point is not None else line.tied_to
    if at is None or at >= len(begin) or line.attachment >= places:
        return 0.0
    one, other = begin[at], rig.attachments[line.attachment]
    return math.dist((one.x_m, one.y_m, one.z_m), (other.x_m, other.y_m, other.z_m))


def _flowers(rig: Rig, conditions: Conditions) -> list[LoadPart]:
    """Stems by variety, each followed by its tubes, filled, or the wet wraps of its bundles."""
    parts = []
    for index, (line, drops) in enumerate(zip(rig.recipe, drops_m(rig.recipe, rig.armature), strict=True)):
        variety = variety_of_line(conditions.varieties, line, path=f"recipe.{index}.variety")
        long = mean_stem_m(line, drops, variety, rig.armature)
        kg = line.count * cut_mass_kg(variety, long)
        parts.append(LoadPart(name=variety.name, typical_kg=kg, heavy_kg=kg * heavy_factor(variety)))
        wet, full = line_water_kg(line), line_water_kg(line, heavy=True)
        if full:
            words = "stem tubes for {variety}" if line.water == "tube" else "wet wraps for {variety}"
            parts.append(LoadPart(name=worded(words, variety=variety.name), typical_kg=wet, heavy_kg=full))
    return parts


def _solid(name: str, kg: float) -> LoadPart:
    return LoadPart(name=name, typical_kg=kg, heavy_kg=kg, bare=True)
