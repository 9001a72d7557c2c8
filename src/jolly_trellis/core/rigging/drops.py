"""Stems hung under a panel or ring, each to its own length: the drop list."""

import math
from collections import Counter
from dataclasses import dataclass

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.rigging.rig import Armature, Drop

STEP_M = 0.005


@dataclass(frozen=True, slots=True, kw_only=True)
class DropRow:
    """So many stems cut to one length, m; longest first in a list."""

    length_m: float
    count: int


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


def drop_list(count: int, drop: Drop) -> tuple[DropRow, ...]:
    """The drop list: cut lengths to the next half centimetre up, longest first. Source: as its parts."""
    cut = Counter(math.ceil(each / STEP_M - 1e-6) for each in drop_lengths_m(count, drop))
    return tuple(DropRow(length_m=steps * STEP_M, count=number) for steps, number in sorted(cut.items(), reverse=True))


def mean_stem_m(armature: Armature) -> float:
    """How long a stem of the armature is on the average, m: every curve is even over the stems."""
    if armature.drop is None:
        return armature.stem_cut_m
    return (armature.drop.shortest_m + armature.drop.longest_m) / 2


def longest_stem_m(armature: Armature) -> float:
    """How far the longest stem hangs, m."""
    return armature.stem_cut_m if armature.drop is None else armature.drop.longest_m
