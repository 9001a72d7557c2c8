"""How stems go into hung and wrapped work: woven along it, pushed in, or hung from hooks; the drop list."""

import math
from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from jolly_trellis.core.books.figures import Constant, measure, rule
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.geometry import GOLDEN_ANGLE_RAD, Array
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import Goes, RecipeLine
from jolly_trellis.core.provenance import COMMON_PRACTICE
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.rigging.rig import RUNS, Armature, Drop, Rig

STEP = rule("Hung stems are cut in steps of", "length", 0.02, COMMON_PRACTICE)
HOOK_WIRE = rule("Wire for the hook of one hung stem", "length", 0.12, COMMON_PRACTICE)
SET_IN = rule("A stem goes into a sheet of netting by", "length", 0.03, COMMON_PRACTICE)
WOVEN_OFF = rule("Stems woven along an armature stand off it by", "length", 0.03, COMMON_PRACTICE)
EDGE = rule("Stems under a panel or ring go out to", "ratio", 0.96, COMMON_PRACTICE, most=1.0)
HOOK_KG_M = measure("Mass of a metre of hook wire, 1 mm", "linear_mass", 0.006)
# What a hook of each thickness bears before it opens, by the mass of its stem.
HOOK_BEARS: dict[float, Constant] = {
    0.0007: measure("A hook of 0.7 mm wire holds a stem of up to", "mass", 0.06, cautious="down"),
    0.001: measure("A hook of 1.0 mm wire holds a stem of up to", "mass", 0.2, cautious="down"),
    0.0013: measure("A hook of 1.3 mm wire holds a stem of up to", "mass", 0.5, cautious="down"),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class DropRow:
    """So many stems of one variety whose tips hang so far under the armature, m: cut to `stem_m`, each on a hook bent
    from `hook_m` of wire. The longest come first in a list.
    """

    variety: str
    name: str
    length_m: float
    count: int
    stem_m: float
    hook_m: float


def goes_of(line: RecipeLine, armature: Armature) -> Goes:
    """How the stems of a line go in: as it says, else pushed into a run, hung under a panel or ring."""
    return line.goes or ("pushed in" if armature.kind in RUNS else "hung")


def on_hooks(line: RecipeLine, armature: Armature) -> bool:
    """Whether each stem of a line hangs by a hook: where it is said to, or the armature has a drop for its stems."""
    return line.goes == "hung" or (goes_of(line, armature) == "hung" and armature.drop is not None)


@lru_cache(maxsize=512)
def drops_m(recipe: tuple[RecipeLine, ...], armature: Armature) -> tuple[tuple[float, ...], ...]:
    """How far the tip of each stem of each line hangs under the armature, m; empty for a line that does not hang.

    Lines with a drop of their own hang by it. The others share the armature's curve, mixed, from the middle outwards;
    without a curve all hang as far as stems are cut.

    Raises: InvalidMeasure: hooks with no drop; the longest is shorter than the shortest.
    Source: geometry.
    """
    found: list[list[float]] = [[] for _ in recipe]
    shared: list[tuple[float, int]] = []
    for index, line in enumerate(recipe):
        if goes_of(line, armature) != "hung":
            continue
        if line.drop_m is not None:
            found[index] = [line.drop_m] * line.count
        elif line.goes == "hung" and armature.drop is None and armature.kind in RUNS:
            raise InvalidMeasure(
                path=f"recipe.{index}.drop_m",
                message=phrase("These stems hang from hooks, and nobody says how far down."),
                limit=phrase("Give the drop from the armature to their tips."),
            )
        else:
            shared += [((nth + 0.5) / line.count, index) for nth in range(line.count)]
    if armature.drop is None:
        for _, index in shared:
            found[index].append(recipe[index].cut_m or armature.stem_cut_m)
    elif shared:
        longs = drop_lengths_m(len(shared), armature.drop)
        for long, (_, index) in zip(longs, sorted(shared), strict=True):
            found[index].append(long)
    return tuple(tuple(each) for each in found)


def slopes(line: RecipeLine, armature: Armature) -> bool:
    """Whether the stems of a line hang lower from the left to the right, by the slope of the armature they share."""
    drop = armature.drop
    return drop is not None and drop.curve == "slope" and line.drop_m is None and goes_of(line, armature) == "hung"


def spread(count: int, *, round_: bool) -> Array:
    """Where so many stems go on a panel or ring, from the middle outwards: shares of its half length and half width
    from its middle, right and back, -1 to 1, shape (count, 2).

    Source: a sunflower's turn from each to the next, at equal areas; on a panel along squares in the place of circles.
    """
    nth = np.arange(count)
    far = EDGE.value * np.sqrt((nth + 0.5) / max(count, 1))
    turn = nth * GOLDEN_ANGLE_RAD
    if round_:
        way = np.stack([np.cos(turn), np.sin(turn)], axis=1)
    else:
        along = (turn / (2 * math.pi) % 1.0) * 4
        side, part = along.astype(int), 2 * (along % 1.0) - 1
        ones = np.ones(count)
        way = np.stack(
            [
                np.choose(side, [ones, -part, -ones, part]),
                np.choose(side, [part, ones, -part, -ones]),
            ],
            axis=1,
        )
    return np.asarray(far[:, None] * way)


def drop_lengths_m(count: int, drop: Drop) -> tuple[float, ...]:
    """How long each of so many hung stems is, m, from the middle of the armature outwards (a slope: left to right).

    Stems hang evenly over the area, so the nth lies √((n+½)/count) of the way out. "dome" is longest in the middle,
    "bowl" longest at the rim, both by the square of the way out; "slope" and "even" go evenly from the shortest to
    the longest, "even" in no order of place.

    Raises: InvalidMeasure: the longest is shorter than the shortest.
    Source: geometry.
    """
    if drop.longest_m < drop.shortest_m:
        raise InvalidMeasure(
            path="armature.drop.longest_m",
            message=phrase(
                "The longest hung stem, {a}, is shorter than the shortest, {b}.",
                a=length(drop.longest_m),
                b=length(drop.shortest_m),
            ),
            limit=phrase("Give the longest at least {b}.", b=length(drop.shortest_m)),
        )
    more = drop.longest_m - drop.shortest_m
    shares = [(each + 0.5) / count for each in range(count)]
    if drop.curve == "dome":
        shares = [1 - each for each in shares]
    return tuple(drop.shortest_m + more * each for each in shares)


def in_steps_m(value_m: float) -> float:
    """A drop to the nearest 2 cm, one step at least, m. Source: common practice."""
    return max(1, round(value_m / STEP.value)) * STEP.value


def drop_list(rig: Rig, varieties: Mapping[str, Variety]) -> tuple[DropRow, ...]:
    """The drop list of what hangs on hooks, to the nearest 2 cm, longest first. Source: as its parts."""
    rows = []
    for line, drops in zip(rig.recipe, drops_m(rig.recipe, rig.armature), strict=True):
        if not on_hooks(line, rig.armature):
            continue
        variety = varieties[line.variety]
        for steps, number in Counter(round(in_steps_m(each) / STEP.value) for each in drops).items():
            drop = steps * STEP.value
            stem, hook = stem_and_hook_m(drop, line, variety, rig.armature.hook_wire_m)
            rows.append(
                DropRow(variety=variety.key, name=variety.name, length_m=drop, count=number, stem_m=stem, hook_m=hook)
            )
    return tuple(sorted(rows, key=lambda each: (-each.length_m, each.name, -each.stem_m)))


def stem_and_hook_m(
    drop_m: float, line: RecipeLine, variety: Variety, hook_wire_m: float | None
) -> tuple[float, float]:
    """What a hung stem is cut to, and the wire for its hook, m.

    The stem is cut as its line says, else as long as it hangs, as far as it is sold; wire makes up what is missing
    over the two bends. A length of wire that somebody has chosen is taken where it reaches.

    Source: geometry; the bends are common practice, no source.
    """
    stem = min(line.cut_m or drop_m, drop_m, max(variety.sold_lengths_m))
    needed = HOOK_WIRE.value + drop_m - stem
    return stem, max(needed, hook_wire_m or 0.0)


def hook_gauge_m(heaviest_kg: float, chosen_m: float | None) -> float:
    """Thickness of the wire of hooks, m: as chosen, else the thinnest that holds the heaviest. Source: estimate."""
    if chosen_m is not None:
        return chosen_m
    return next((gauge for gauge, bears in HOOK_BEARS.items() if heaviest_kg <= bears.value), max(HOOK_BEARS))


def hook_bears_kg(gauge_m: float) -> float:
    """What a hook of a thickness holds, kg: as the thickest of the table that is no thicker; by the square of it under
    that. Source: estimate.
    """
    known = [gauge for gauge in HOOK_BEARS if gauge <= gauge_m + 1e-6]
    if not known:
        least = min(HOOK_BEARS)
        return HOOK_BEARS[least].value * (gauge_m / least) ** 2
    return HOOK_BEARS[max(known)].value


def mean_stem_m(line: RecipeLine, drops: tuple[float, ...], variety: Variety, armature: Armature) -> float:
    """How long a stem of a line is on the average as it is cut, m.

    Args:
        drops: how far its stems hang, as `drops_m` gives it; empty where they do not hang.
    """
    if not drops:
        return line.cut_m or armature.stem_cut_m
    hooked = on_hooks(line, armature)
    cut = (stem_and_hook_m(in_steps_m(each) if hooked else each, line, variety, None)[0] for each in drops)
    return sum(cut) / len(drops)


def mean_drop_m(rig: Rig) -> float:
    """How far stems hang under the armature on the average, m; those that stand up on it count the other way."""
    total = sum(line.count for line in rig.recipe)
    if not total:
        return rig.armature.stem_cut_m if rig.armature.drop is None else _middle_m(rig.armature.drop)
    down = 0.0
    for line, drops in zip(rig.recipe, drops_m(rig.recipe, rig.armature), strict=True):
        down += sum(drops) if drops else -line.count * stands_m(line, rig.armature)
    return down / total


def _middle_m(drop: Drop) -> float:
    return (drop.shortest_m + drop.longest_m) / 2


def stands_m(line: RecipeLine, armature: Armature) -> float:
    """How far a stem that is pushed in stands out of the armature, m, square to it; 0 for what is woven or hangs.

    Source: geometry.
    """
    if goes_of(line, armature) != "pushed in":
        return 0.0
    angle = math.pi / 2 if line.out_rad is None else line.out_rad
    return shown_m(line, armature) * math.sin(angle)


def shown_m(line: RecipeLine, armature: Armature) -> float:
    """How much of a stem that is pushed in is out of the armature, m: what is left beyond a run's thickness, or 3 cm
    of a sheet's; at least half of it.

    Source: geometry; how far it goes in is common practice, no source.
    """
    cut = line.cut_m or armature.stem_cut_m
    deep = armature.diameter_m if armature.kind in RUNS else SET_IN.value
    return max(cut - deep, cut / 2)


def as_made(rig: Rig) -> Rig:
    """A run as its stems make it: where every line says how it goes in, the flowers stand off it as far as the
    outermost of those that fill it; elsewhere as somebody has typed.

    Source: geometry; how far woven stems stand off is common practice, no source.
    """
    if not rig.is_run or not rig.recipe or any(line.goes is None for line in rig.recipe):
        return rig
    filling = [line for line in rig.recipe if line.role not in ("line", "airy")] or list(rig.recipe)
    off = max(WOVEN_OFF.value, *(stands_m(line, rig.armature) for line in filling))
    return replace(rig, armature=replace(rig.armature, projection_m=round(off, 6)))


def longest_drop_m(rig: Rig) -> float:
    """How far the longest stem hangs, m; where there are no stems yet, as far as they are to hang."""
    if not rig.recipe:
        return rig.armature.stem_cut_m if rig.armature.drop is None else rig.armature.drop.longest_m
    return max((max(each) for each in drops_m(rig.recipe, rig.armature) if each), default=0.0)


def highest_stand_m(rig: Rig) -> float:
    """How far the stem that stands highest on a panel or ring stands, m; 0 for none."""
    return max((stands_m(line, rig.armature) for line in rig.recipe), default=0.0)
