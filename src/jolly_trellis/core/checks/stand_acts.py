"""Stand after every act where it is shown: set down, waiting for its weight, flowered there, taken apart again."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from jolly_trellis.core.acts.acts import Act, ActKind, Lot, Spot
from jolly_trellis.core.acts.stances import Stance, rides_flowered, stance_of
from jolly_trellis.core.books.bodies import (
    Case,
    State,
    case_level_m,
    level_m,
    own_bare,
    rows_in,
    standing_together,
    tied_weights,
)
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks import stand_ledge
from jolly_trellis.core.checks.balance import DIRECTIONS, compass, footing_of, turning_kg_m
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.making_order import TIP_MAKING
from jolly_trellis.core.checks.verdicts import Finding, Verdict, finding
from jolly_trellis.core.geometry import Array, azimuth_rays
from jolly_trellis.core.quantities import Quantity, angle, phrase, ratio

_CASES: tuple[Case, ...] = ("typical", "heavy")
# Acts that leave a part so that hands stay on it until the next one is done.
_HELD_UNTIL: frozenset[ActKind] = frozenset({"lay the weight", "take the stems out", "take the weight off", "tip out"})
_AFTER = "after: "
_SAID: dict[ActKind, str] = {
    "carry in": "Set down,",
    "lay the weight": "Once its weight is on,",
    "make there": "Dry where it is made,",
    "water": "Watered where it is made,",
    "green": "Greened where it is made,",
    "flower": "Flowered where it is made,",
    "flower there": "Once what goes in on site is in,",
    "unhook": "At strike, its spill unhooked,",
    "take the stems out": "At strike, its stems out,",
    "take the weight off": "At strike, its weight off,",
    "tip out": "At strike, its water tipped out,",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Moment:
    """How all that stands tied together is after an act: a stance for each vessel, and whether hands stay on it."""

    act: ActKind
    stances: tuple[Stance, ...]
    held: bool


def judge_acts(build: Build, needed_rad: float) -> list[Finding]:
    """Tip angle and holding on a ledge after each act that leaves it otherwise than on show.

    Args:
        needed_rad: tip angle it needs once hands leave it; while they are on it less will do.
    """
    found: list[Finding] = []
    for moment in moments_of(build):
        found += _judged(build, moment, needed_rad)
    return found


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Made where it stands, it is set down dry and bare, and flowered when its weight is on."""
    piece = build.piece
    fails = any(each.check.startswith(_AFTER) and each.utilisation > 1 for each in verdict.findings)
    if not fails or not rides_flowered(build.acts):
        return []
    there = replace(piece, passage=replace(piece.passage, made="its place"))
    say = phrase("Set it down dry and bare, and make it where it stands.")
    return [Candidate(key="made-there", say=say, piece=there)]


def moments_of(build: Build) -> Iterator[Moment]:
    """Every distinct moment at the place that neither the piece on show nor its making covers."""
    piece = build.piece
    if piece.carried:
        return
    numbers = [0, *(nth for nth, each in enumerate(piece.companions, 1) if each.tied)]
    now: dict[Lot, Spot] = {}
    seen: set[tuple[tuple[Stance, ...], bool]] = set()
    for nth, act in enumerate(build.acts):
        now.update(act.moves)
        if act.place != "place" or act.kind not in _SAID:
            continue
        stances = tuple(stance_of(now, number) for number in numbers)
        follows = build.acts[nth + 1].kind if nth + 1 < len(build.acts) else "bring home"
        held = follows in _HELD_UNTIL
        if (stances, held) in seen or _covered(build, act, stances):
            continue
        seen.add((stances, held))
        yield Moment(act=act.kind, stances=stances, held=held)


def _covered(build: Build, act: Act, stances: tuple[Stance, ...]) -> bool:
    """Whether it stands no worse on show: as much of it is there, its weight too, and no less water than in the low
    case; or nothing is in it that could tip it, and no weight that could pull it over.
    """
    own = stances[0]
    counted_on = build.piece.setting.where == "ledge" and tied_weights(build) != ()
    if not own.stems and not own.spill and not counted_on:
        return True
    everything = {lot.goes_in for each in build.acts for lot in each.moves if lot.what == "stems" and lot.vessel == 0}
    weighted = own.weight or tied_weights(build) == ()
    whole = own.stems == everything and weighted
    wet = level_m(build, own.level) >= case_level_m(build, "low") - 1e-9
    making = act.kind in ("make there", "water", "green", "flower")
    return making or (whole and (wet or build.conditions.topped_up_by is None))


def _judged(build: Build, moment: Moment, needed_rad: float) -> Iterator[Finding]:
    """Tip angle, and on a ledge the holding ratio, in every case."""
    on_ledge, footing = build.piece.setting.where == "ledge", footing_of(build)
    parts = [_standing(build, moment, case) for case in _CASES]
    ray_x, ray_y = azimuth_rays(DIRECTIONS)
    turning = _turning_kg_m(build, moment)
    for case, (kg, at) in zip(_CASES, parts, strict=True):
        total = float(kg.sum())
        if total <= 0:
            continue
        x, y, height = kg @ at / total
        edges = footing.edge_m(np.full(DIRECTIONS, x), np.full(DIRECTIONS, y), ray_x, ray_y)
        angles = np.arctan2(edges, height + (turning[0] * ray_x**2 + turning[1] * ray_y**2) / total)
        if on_ledge:
            angles = np.where(stand_ledge.towards_front(), np.pi, angles)
        worst = int(angles.argmin())
        limit = TIP_MAKING.quantity if moment.held else angle(needed_rad)
        words = "it tips {towards} when tilted {v}; with hands on it {limit} is needed."
        if not moment.held:
            words = "it tips {towards} when tilted {v}; left alone it needs {limit}."
        yield _found(moment, case, angle(float(angles[worst])), limit, words, towards=compass(worst))
        if on_ledge:
            outward, inward = stand_ledge.moments_n_m(kg, at[:, 1], footing.axis_m)
            if moment.stances[0].spill:
                outward += stand_ledge.pull_moment_n_m(build, case)[1]
            held = ratio(stand_ledge.holding_ratio(outward, inward))
            least = (stand_ledge.MAKING_FACTOR if moment.held else stand_ledge.LEDGE_FACTOR).quantity
            words = "it is held {v} times against falling off the ledge; with hands on it {limit} is needed."
            if not moment.held:
                words = "it is held {v} times against falling off the ledge; left alone it needs {limit}."
            yield _found(moment, case, held, least, words)


def _found(moment: Moment, case: Case, value: Quantity, limit: Quantity, words: str, **slots: str) -> Finding:
    reason = phrase("{when} {says}", when=phrase(_SAID[moment.act]), says=phrase(words, v=value, limit=limit, **slots))
    return finding(check=_AFTER + moment.act, case=case, value=value, limit=limit, sense="at least", reason=reason)


def _states(build: Build, moment: Moment) -> list[tuple[Build, float, float, State]]:
    """Every vessel that stands tied together, its middle from the own one's in m, and its state."""
    return [
        (made, x, y, State(level_m=level_m(made, stance.level), stems=stance.stems))
        for (made, x, y), stance in zip(standing_together(build), moment.stances, strict=True)
    ]


def _standing(build: Build, moment: Moment, case: Case) -> tuple[Array, Array]:
    """Each thing and row of stems that stands tied together at a moment: kg, shape (n,); its centre, m, (n, 3)."""
    kg: list[Array] = []
    at: list[Array] = []
    for made, x, y, state in _states(build, moment):
        bare = own_bare(made, case, state)
        there, rows = made.placement.stems.present(state.stems), rows_in(made, case)
        kg += [np.array([each.mass_kg for each in bare]), rows.mass_kg[there]]
        place = np.array([x, y, made.raised_m])
        own = np.array([(each.x_m + x, each.y_m + y, each.height_m) for each in bare]).reshape(-1, 3)
        at += [own, rows.centre_m[there] + place]
    for each in tied_weights(build) if moment.stances[0].weight else ():
        kg.append(np.array([each.mass_kg]))
        at.append(np.array([[each.x_m, each.y_m, each.height_m]]))
    return np.concatenate(kg), np.concatenate(at)


def _turning_kg_m(build: Build, moment: Moment) -> Array:
    """Mass of all water times how far it raises its centre in a tilt, about both axes, kg·m."""
    return np.array([turning_kg_m(made, state) for made, _, _, state in _states(build, moment)]).sum(axis=0)
