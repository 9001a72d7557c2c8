"""Coverage: the finished outline that is seen, against what the stems of the recipe cover."""

import math
from dataclasses import dataclass
from typing import Literal

from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.rigging.armatures import RING_TUBE, finished_m
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.stems.shades import check_shades
from jolly_trellis.core.stems.stem_set import variety_of_line

Seen = Literal["hung", "wall", "frame", "runner"]
SEEN = {
    "hung": measure("Share of a hung outline that is seen", "ratio", 1.0, most=1.0),
    "wall": measure("Share of an outline on a wall that is seen", "ratio", 0.5, most=1.0),
    "frame": measure("Share of an outline on a frame or column that is seen", "ratio", 0.75, most=1.0),
    "runner": measure("Share of a runner's outline that is seen", "ratio", 0.6, most=1.0),
}
OVERLAP = measure("Stems overlap, so cover so much more than is seen", "ratio", 1.3)
BUNDLE = measure("A bundle covers, against its stems one by one", "ratio", 1.15)
COVERS = {
    "gypsophila": measure("A stem of gypsophila covers", "area", 0.015),
    "ruscus": measure("A stem of ruscus or other long foliage covers", "area", 0.020),
    "hydrangea": measure("A stem of hydrangea covers", "area", 0.02),
    "leaf": measure("A leaf covers", "area", 0.008),
    "spray-rose": measure("A stem of spray rose covers", "area", 0.006),
    "rose": measure("A rose covers", "area", 0.004),
    "carnation": measure("A carnation covers", "area", 0.0035),
}
BY_HEAD = measure("Any other stem covers, of its head as seen from its larger side", "ratio", 1.1)
LONG_FOLIAGE_M = 0.20


@dataclass(frozen=True, slots=True, kw_only=True)
class CoverLine:
    """What one line of the recipe covers, m², and how many more of it alone would cover what is still bare.

    `bundles_more` counts them in bundles of the line's clump.
    """

    variety: str
    name: str
    covers_m2: float
    more: int
    bundles_more: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Coverage:
    """Finished outline and what of it is seen, with overlap, m²; what is covered, and by which stems."""

    outline_m2: float
    needed_m2: float
    covered_m2: float
    lines: tuple[CoverLine, ...]


def stem_covers_m2(variety: Variety) -> float:
    """What one stem covers, m²: by its kind where we have a figure, else by the outline of its head.

    Source: estimates, see each constant.
    """
    own = COVERS.get(variety.key)
    if own is not None:
        return own.value
    if variety.form == "leaf":
        return (COVERS["ruscus"] if variety.head_height_m >= LONG_FOLIAGE_M else COVERS["leaf"]).value
    tall = max(variety.head_diameter_m, variety.head_height_m)
    return BY_HEAD.value * math.pi / 4 * variety.head_diameter_m * tall * variety.heads


def line_covers_m2(line: RecipeLine, variety: Variety) -> float:
    """What a line of the recipe covers, m²: a bundle of n covers n × 1.15. Source: estimate."""
    return line.count * stem_covers_m2(variety) * (BUNDLE.value if line.clump > 1 else 1.0)


def outline_m2(rig: Rig) -> float:
    """Surface of the finished outline, m²: a cylinder (run), a torus (ring), the underside and edges of a panel.

    The top of a panel faces the ceiling. Source: geometry.
    """
    armature, p = rig.armature, rig.armature.projection_m
    if rig.is_run:
        return math.pi * finished_m(armature.diameter_m, p) * armature.length_m
    if armature.kind == "ring":
        return math.pi**2 * armature.diameter_m * finished_m(RING_TUBE.value, p)
    long, wide = finished_m(armature.length_m, p), finished_m(armature.width_m, p)
    return long * wide + 2 * (long + wide) * 2 * p


def seen_as(rig: Rig) -> Seen:
    """From which sides it is seen."""
    if rig.lies:
        return "runner"
    if rig.mount is None:
        return "hung"
    return "wall" if rig.mount.kind == "wall" else "frame"


def needed_m2(outline: float, seen: Seen) -> float:
    """What stems must cover: outline × share seen × 1.3, m². Source: estimates."""
    return outline * SEEN[seen].value * OVERLAP.value


def cover(rig: Rig, conditions: Conditions) -> Coverage:
    """Coverage of a rig's finished outline by its recipe. Raises UnknownName: a variety the studio does not have."""
    outline = outline_m2(rig)
    needed = needed_m2(outline, seen_as(rig))
    for index, line in enumerate(rig.recipe):
        check_shades(line, f"recipe.{index}")
    found = [
        (line, variety_of_line(conditions.varieties, line, path=f"recipe.{index}.variety"))
        for index, line in enumerate(rig.recipe)
    ]
    covered = sum(line_covers_m2(line, variety) for line, variety in found)
    bare = max(0.0, needed - covered)
    return Coverage(
        outline_m2=outline,
        needed_m2=needed,
        covered_m2=covered,
        lines=tuple(_line(line, variety, bare) for line, variety in found),
    )


def _line(line: RecipeLine, variety: Variety, bare: float) -> CoverLine:
    each = stem_covers_m2(variety)
    bundle = each * line.clump * (BUNDLE.value if line.clump > 1 else 1.0)
    return CoverLine(
        variety=variety.key,
        name=variety.name,
        covers_m2=line_covers_m2(line, variety),
        more=math.ceil(bare / each - 1e-9),
        bundles_more=math.ceil(bare / bundle - 1e-9),
    )
