"""What of a piece is together after an act: whatever weighs, balances, lifts or drinks asks by it."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from jolly_trellis.core.acts.acts import Act, ActKind, Acts, Level, Lot, Place, Spot
from jolly_trellis.core.plan.passage import GOES_IN, GoesIn

EVERY: frozenset[GoesIn] = frozenset(GOES_IN)
WITH_IT: frozenset[GoesIn] = frozenset({"with the piece"})
NONE: frozenset[GoesIn] = frozenset()


@dataclass(frozen=True, slots=True, kw_only=True)
class Stance:
    """One vessel after an act: where it is, its water's level (None dry), which of its stems are in it, all of those
    that go in together or none; whether the weight it counts on is laid or tied, and whether its spill hangs."""

    place: Place
    level: Level | None
    stems: frozenset[GoesIn]
    weight: bool
    spill: bool


def stance_of(now: Mapping[Lot, Spot], vessel: int = 0) -> Stance:
    """The stance of a vessel where everything is as given; it is where its mechanic is, which never leaves it."""
    place = now[Lot(what="mechanic", vessel=vessel)].place
    water = now.get(Lot(what="water", vessel=vessel))
    stems: dict[GoesIn, bool] = dict.fromkeys(GOES_IN, True)
    for lot, spot in now.items():
        if lot.what == "stems" and lot.vessel == vessel and (spot.place, spot.held) != (place, "in it"):
            stems[lot.goes_in] = False
    known = {lot.goes_in for lot in now if lot.what == "stems" and lot.vessel == vessel}
    weight = now.get(Lot(what="weight"))
    spill = now.get(Lot(what="spill"))
    return Stance(
        place=place,
        level=None if water is None or water.place != place else water.level,
        stems=frozenset(each for each in known if stems[each]),
        weight=weight is not None and weight.place == place and weight.held in ("laid", "tied"),
        spill=spill is not None and spill.place == place and spill.held == "in it",
    )


@lru_cache(maxsize=400)
def stances(acts: Acts, vessel: int = 0) -> tuple[tuple[Act, Stance], ...]:
    """Every act with the stance that it leaves a vessel in."""
    now: dict[Lot, Spot] = {}
    found = []
    for act in acts:
        now.update(act.moves)
        found.append((act, stance_of(now, vessel)))
    return tuple(found)


def after(acts: Acts, kind: ActKind, vessel: int = 0) -> Stance | None:
    """The stance that an act leaves a vessel in; None where there is no such act."""
    return next((stance for act, stance in stances(acts, vessel) if act.kind == kind), None)


def rides_flowered(acts: Acts) -> bool:
    """Whether a part is in the van with its stems in it, or would be if it had any: it is not made where it stands."""
    return all(act.kind != "make there" for act in acts)


@lru_cache(maxsize=400)
def lines_that_ride(acts: Acts, vessel: int = 0) -> frozenset[int]:
    """The lines of a vessel's recipe of which stems are in it while it is in the van."""
    loaded = next((act for act in acts if act.kind == "load"), None)
    if loaded is None:
        return frozenset()
    return frozenset(
        lot.line
        for lot, spot in loaded.moves.items()
        if lot.line is not None and lot.vessel == vessel and spot.held == "in it"
    )


@lru_cache(maxsize=400)
def while_flowered(acts: Acts, vessel: int = 0) -> Stance | None:
    """The stance in which the stems of a piece go in one by one: that before its first greens or flowers, or before it
    leaves the hands that would put them in, where it has none.
    """
    left: ActKind = "load" if rides_flowered(acts) else "fill"
    before: Stance | None = None
    for act, stance in stances(acts, vessel):
        if act.kind in ("green", "flower", "cool", left):
            return before
        before = stance
    return before
