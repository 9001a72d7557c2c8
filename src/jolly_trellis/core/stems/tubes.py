"""Stem tubes and wet wraps: how much water a stem can really reach, and for how long."""

import math
from collections.abc import Iterator, Mapping

import numpy as np

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.recipe import RecipeLine, StemTube
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.stems.cups import CUP_INSIDE, cup_deep_m, cup_kg

WRAP_L = measure("Water of a wet wrap", "volume", 0.030, COMMON_PRACTICE)
WRAP_KG = measure("Dry wrap and film of one bundle", "mass", 0.006)
_USUAL_WALL_M2 = math.pi * 0.014 * 0.09
TUBE_WALL_KG_M2 = measure("Stem tube with its cap, for each m² of its wall", "areal_mass", 0.005 / _USUAL_WALL_M2)
CAP_ASKED_FROM = rule("A tube leaned this far asks whether its cap seals", "angle", math.radians(45))
_SLICES = 1200


def upright_ml(tube: StemTube, stem_diameter_m: float = 0.0) -> float:
    """Usable water of a tube standing upright: (A − A_stem)·(ℓ − air gap), ml.

    Args:
        tube: inner diameter, stem in, air gap.
        stem_diameter_m: 0 leaves the stem's own section in.
    Source: geometry.
    """
    area = math.pi / 4 * (tube.inner_diameter_m**2 - stem_diameter_m**2)
    return 1e6 * area * max(tube.stem_in_m - tube.air_gap_m, 0.0)


def cap_down_full_ml(tube: StemTube) -> float:
    """Usable water of a full tube cap down: A·(L − ℓ), ml: what lies above the stem's end. Source: geometry."""
    return 1e6 * math.pi / 4 * tube.inner_diameter_m**2 * max(tube.length_m - tube.stem_in_m, 0.0)


def usable_ml(tube: StemTube, stem_diameter_m: float = 0.0) -> float:
    """Water a stem can drink from its tube, at any angle and fill: what lies above the level plane of its end, ml.

    The tube is a cylinder, its cap at x = 0, the stem's end at x = ℓ. Tilted by θ from upright (cap up), a point at
    x along the axis and r across lies at height −x·cos θ + r·sin θ. The water fills the lowest part; usable is the
    water above the height of the stem's end. Integrated over slices.

    Args:
        tube: sizes, tilt 0-π, share filled 0-1, whether the cap seals.
        stem_diameter_m: section of the stem, taken off where it stands in water; 0 leaves it in.
    Raises: InvalidMeasure: a stem longer in than the tube, or a tube turned down without a cap that seals.
    Source: geometry, numerical integration over 1200 slices.
    """
    if not 0 < tube.stem_in_m <= tube.length_m:
        raise InvalidMeasure(
            path="recipe",
            message=phrase(
                "A stem {deep} in does not fit a tube {long} long.",
                deep=length(tube.stem_in_m),
                long=length(tube.length_m),
            ),
            limit=phrase("Push it in by up to {most}.", most=length(tube.length_m)),
        )
    cosine, sine = math.cos(tube.tilt_rad), math.sin(tube.tilt_rad)
    if cosine < -1e-9 and not tube.cap_seals:
        return 0.0
    radius = tube.inner_diameter_m / 2
    along = (np.arange(_SLICES) + 0.5) / _SLICES * tube.length_m
    slices = _SLICES // 24
    across = (np.arange(slices) + 0.5) / slices * 2 * radius - radius
    width = 2 * np.sqrt(np.maximum(radius**2 - across**2, 0.0))
    height = -along[:, None] * cosine + across[None, :] * sine
    cell = np.broadcast_to(width * (2 * radius / slices) * (tube.length_m / _SLICES), height.shape)
    filled = max(0.0, min(1.0, tube.fill_share))
    if filled <= 0:
        return 0.0
    if cosine > 1e-9:
        filled = min(filled, 1.0 - tube.air_gap_m / tube.length_m)
    order = np.sort(height, axis=None)
    weight = cell.ravel()[np.argsort(height, axis=None, kind="stable")].cumsum()
    surface = order[min(int(np.searchsorted(weight, filled * weight[-1])), len(order) - 1)]
    end = -tube.stem_in_m * cosine
    wet = (height <= surface) & (height > end)
    usable = 1e6 * float(cell[wet].sum())
    if stem_diameter_m and cosine > 1e-9:
        usable *= 1.0 - (stem_diameter_m / tube.inner_diameter_m) ** 2
    return max(usable, 0.0)


def held_ml(tube: StemTube, *, full: bool = False) -> float:
    """All the water in a tube, reached or not, the stem's own section not taken off: π·d²/4 · length · fill, ml.

    Upright or level it stops short of the cap by the air gap. `full` takes it filled, whatever its share is.

    Source: geometry.
    """
    share = 1.0 if full else tube.fill_share
    if math.cos(tube.tilt_rad) > -1e-9:
        share = min(share, max(0.0, 1.0 - tube.air_gap_m / tube.length_m))
    return 1e6 * math.pi / 4 * tube.inner_diameter_m**2 * tube.length_m * share


def tube_size_m(line: RecipeLine) -> tuple[float, float]:
    """Length and inner diameter of the tube or cup that stems of a line stand in, m; (0, 0) where in none."""
    if line.water == "cup":
        return cup_deep_m(line), CUP_INSIDE.value
    if line.water != "tube":
        return 0.0, 0.0
    tube = line.tube or StemTube()
    return tube.length_m, tube.inner_diameter_m


def empty_kg(tube: StemTube) -> float:
    """Mass of a tube with its cap: 1.26 kg on each m² of its wall, so 5 g for 14 × 90 mm. Source: estimate."""
    return TUBE_WALL_KG_M2.value * math.pi * tube.inner_diameter_m * tube.length_m


def own_water_kg(line: RecipeLine, stems: int, *, heavy: bool = False, rod_m: float = 0.0) -> float:
    """What stems of one line that go in together carry with them beside themselves: tubes, their wet wrap or cup, kg.

    Args:
        stems: how many go in together, as a clump. heavy: tubes filled to their air gap. rod_m: under their cup, m.
    Source: sum of tube and water, or wrap and water.
    """
    if line.water == "tube":
        tube = line.tube or StemTube()
        return stems * (empty_kg(tube) + held_ml(tube, full=heavy) / 1000)
    if line.water == "cup":
        return cup_kg(line, rod_m)
    if line.water == "wrap":
        return WRAP_KG.value + (WRAP_L.value if line.wrap_ml is None else line.wrap_ml / 1000)
    return 0.0


def line_water_kg(line: RecipeLine, *, heavy: bool = False) -> float:
    """Tubes or wraps of a recipe line with their water, kg: a tube each stem, a wrap each bundle. Source: sum."""
    bundles, rest = divmod(line.count, line.clump)
    kg = bundles * own_water_kg(line, line.clump, heavy=heavy)
    return kg + (own_water_kg(line, rest, heavy=heavy) if rest else 0.0)


def hours_of_water(usable: float, draw_ml_h: float) -> float:
    """How long so much water lasts, hours: ml over ml/h. Source: definition."""
    return usable / max(draw_ml_h, 1e-9)


def caps_unsure(line: RecipeLine) -> bool:
    """Whether tubes lean so far, from 45°, that all hangs on whether their caps seal, and nobody says they do."""
    tube = line.tube or StemTube()
    return line.water == "tube" and not tube.cap_seals and tube.tilt_rad >= CAP_ASKED_FROM.value - 1e-9


def caps_asked(recipe: tuple[RecipeLine, ...], varieties: Mapping[str, Variety], *, path: str) -> Iterator[Missing]:
    """What is to be asked of the tubes of a recipe; `path` is where it stands in the plan."""
    for at, line in enumerate(recipe):
        if caps_unsure(line) and line.variety in varieties:
            turned = (line.tube or StemTube()).tilt_rad > math.pi / 2 + 1e-9
            fact = facts.CAPS_TURNED if turned else facts.CAPS_LEANED
            yield fact.missing((path, at), variety=varieties[line.variety].name)
