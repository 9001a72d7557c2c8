"""How long a stem lasts on what it has with it, tube, wrap or nothing, in one air after another."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.materials.air import Air, draw_factor, vapour_pressure_deficit_kpa
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine, StemTube
from jolly_trellis.core.stems.cups import CUP_REACHED, cup_l
from jolly_trellis.core.stems.tubes import WRAP_L, usable_ml

DRY_AT = Air(temperature_c=22.0, relative_humidity=0.5)
DRIES_LEAST = rule("Least that air dries a stem, against 22 °C and 50 %", "ratio", 0.2)
DRIES_MOST = rule("Most that air dries a stem, against 22 °C and 50 %", "ratio", 4.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Reserve:
    """What a stem has with it: water that it reaches, ml, what it draws of it at 20 °C and 60 %, ml/h, and its hours
    without water at 22 °C and 50 %.
    """

    water_ml: float
    draw_ml_h: float
    dry_h: float


def dry_rate(air: Air) -> float:
    """How fast dry hours are used up in this air against 22 °C and 50 %: ratio of the deficits, held to 0.2-4.

    Source: proportion to the deficit and its bounds are estimates.
    """
    ratio = vapour_pressure_deficit_kpa(air) / vapour_pressure_deficit_kpa(DRY_AT)
    return min(max(ratio, DRIES_LEAST.value), DRIES_MOST.value)


def reserve_of(line: RecipeLine, variety: Variety) -> Reserve | None:
    """What a stem of a line has with it, a bundle's wrap shared by its stems; None where it drinks from a vessel, or
    needs no water.

    Source: usable water as `tubes.usable_ml`; draw and dry life are the variety's own.
    """
    if variety.lasting:
        return None
    match line.water:
        case "none":
            water = 0.0
        case "tube":
            water = usable_ml(line.tube or StemTube(), variety.stem_diameter_m)
        case "wrap":
            water = (line.wrap_ml or WRAP_L.value * 1000) / line.clump
        case "cup":
            water = 1000 * cup_l(line) * CUP_REACHED.value / line.clump
        case _:
            return None
    return Reserve(water_ml=water, draw_ml_h=variety.uptake_ml_h, dry_h=variety.dry_hold_h)


def lasts_h(reserve: Reserve, stretches: Sequence[tuple[float, Air]], *, thirst: float = 1.0) -> float:
    """Hours until all of a reserve is used up: its water first, then its dry hours.

    Args:
        stretches: hours and the air of each, one after the other; the last goes on for as long as it takes.
        thirst: of the draw, 1 for typical.
    Source: conservation; used dry hours add up over places.
    """
    return _used_up((_water_of(reserve, thirst), (reserve.dry_h, dry_rate)), stretches)


def reaches_back_h(reserve: Reserve, stretches: Sequence[tuple[float, Air]]) -> float:
    """Hours before the end at which a reserve may begin, so that it is used up at the end.

    Args:
        stretches: hours and the air of each from the end backwards; the last goes on for as long as it takes.
    Source: as `lasts_h`, from the end backwards: the dry hours are the last.
    """
    return _used_up(((reserve.dry_h, dry_rate), _water_of(reserve, 1.0)), stretches)


def _water_of(reserve: Reserve, thirst: float) -> tuple[float, Callable[[Air], float]]:
    return reserve.water_ml, lambda air: reserve.draw_ml_h * draw_factor(air) * thirst


def _used_up(stores: Sequence[tuple[float, Callable[[Air], float]]], stretches: Sequence[tuple[float, Air]]) -> float:
    """Hours in which stores are used up one after the other, each at its own rate in the air of each stretch."""
    passed, at = 0.0, 0
    left = stores[0][0]
    for index, (hours, air) in enumerate(stretches):
        rest = math.inf if index == len(stretches) - 1 else max(hours, 0.0)
        while rest > 0:
            rate = stores[at][1](air)
            takes = left / rate if rate > 0 else (0.0 if left <= 0 else math.inf)
            if takes > rest:
                left -= rest * rate
                passed += rest
                break
            passed, rest = passed + takes, rest - takes
            at += 1
            if at == len(stores):
                return passed
            left = stores[at][0]
    return passed
