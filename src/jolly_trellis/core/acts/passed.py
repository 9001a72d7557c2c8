"""The acts of a part as a person sees them: in order, where each is, and how the part stands after it."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

from jolly_trellis.core.acts.acts import ActKind, Acts, Level, Lot, Place, Spot
from jolly_trellis.core.acts.stances import stances


@dataclass(frozen=True, slots=True, kw_only=True)
class Passed:
    """One act: where it is done, the water of its own vessel after it in m over the inside floor, 0 for none, and how
    many of its stems are in it.
    """

    kind: ActKind
    place: Place
    level_m: float
    stems: int


def passed(acts: Acts, level_of: Callable[[Level | None], float]) -> tuple[Passed, ...]:
    """The acts of a piece.

    Args:
        level_of: the height of the water at a level, m.
    """
    return tuple(
        Passed(kind=act.kind, place=act.place, level_m=level_of(stance.level), stems=stems)
        for (act, stance), stems in zip(stances(acts), stems_after(acts), strict=True)
    )


def passed_dry(acts: Acts) -> tuple[Passed, ...]:
    """The acts of hung work, which has no vessel."""
    return tuple(
        Passed(kind=act.kind, place=act.place, level_m=0.0, stems=stems)
        for act, stems in zip(acts, stems_after(acts), strict=True)
    )


@lru_cache(maxsize=400)
def stems_after(acts: Acts) -> tuple[int, ...]:
    """How many stems are in a part after each act, whichever of its vessels they are in."""
    now: dict[Lot, Spot] = {}
    found = []
    for act in acts:
        now.update(act.moves)
        stems = (lot for lot, spot in now.items() if lot.what == "stems" and spot.held == "in it")
        found.append(sum(lot.count for lot in stems))
    return tuple(found)
