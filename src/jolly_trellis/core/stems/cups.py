"""Spike cups: a cup on a rod that one line's stems stand in, beside whatever holds the rest."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.provenance import COMMON_PRACTICE

CUP_ML = rule("Water of a spike cup", "volume", 0.060, COMMON_PRACTICE)
CUP_INSIDE = rule("Inside of a spike cup", "length", 0.028, COMMON_PRACTICE)
CUP_REACHED = measure("Share of a spike cup's water that stems reach", "ratio", 0.9, most=1.0)
CUP_KG = measure("Empty spike cup", "mass", 0.025)
ROD_THICK = rule("Rod of a spike cup", "length", 0.006, COMMON_PRACTICE)
ROD_KG_M = measure("Mass of a metre of rod of a spike cup", "linear_mass", 0.035)
ROD_LEAST = rule("Rod of a spike cup, at least", "length", 0.10, COMMON_PRACTICE)
ROD_MOST = rule("Rod of a spike cup, at most unless somebody says", "length", 0.60, COMMON_PRACTICE)
ROD_STEP = rule("Rods of spike cups are cut in steps of", "length", 0.05, COMMON_PRACTICE)


def cup_l(line: RecipeLine) -> float:
    """Water of each cup of a line, litres."""
    return CUP_ML.value if line.cup_ml is None else line.cup_ml / 1000


def cup_deep_m(line: RecipeLine) -> float:
    """How deep the water stands in a cup of a line, m. Source: V/(π·d²/4)."""
    return cup_l(line) / 1000 / (math.pi / 4 * CUP_INSIDE.value**2)


def rod_for_m(line: RecipeLine, whole_m: float, sold_m: float) -> float:
    """The rod under a cup, m: as said, else what the longest stem that is sold leaves to be made up, 10 cm at least.

    Args:
        whole_m: from the foot of the rod to the tip of the flower. sold_m: the longest that the stem is sold.
    Source: geometry; the least is common practice, no source.
    """
    if line.rod_m is not None:
        return line.rod_m
    return min(max(ROD_LEAST.value, whole_m - sold_m), ROD_MOST.value)


def rod_cut_m(rod_m: float) -> float:
    """What a rod is cut to, m: up to the next step. Source: common practice, no source."""
    return math.ceil(rod_m / ROD_STEP.value - 1e-6) * ROD_STEP.value


def cup_kg(line: RecipeLine, rod_m: float) -> float:
    """A cup on its rod and full of water, kg. Source: sum.

    Args:
        rod_m: of its rod as it is planned, m; it is cut to the next step.
    """
    return CUP_KG.value + ROD_KG_M.value * rod_cut_m(rod_m) + cup_l(line)
