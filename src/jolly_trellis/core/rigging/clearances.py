"""Clearances: over walkways and tables, and to sprinklers, detectors, flames and exit signs."""

import math

import numpy as np

from jolly_trellis.core.books.figures import Constant, rule
from jolly_trellis.core.checks.verdicts import Finding, finding
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.provenance import COMMON_PRACTICE, FROM_MEMORY, Provenance
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.rigging.rig import Hazard, HazardKind, Rig

WALKWAY = rule("Clearance over a walkway", "length", 2.2, FROM_MEMORY, cautious="up")
TABLE = rule("Clearance over the floor at a table: its top, and an arm's reach over it", "length", 1.35, cautious="up")
SPRINKLER = rule(
    "Clear below and beside a sprinkler head",
    "length",
    0.46,
    Provenance(kind="from memory", source="NFPA 13 gives 18 in below the deflector, for stored goods"),
    cautious="up",
)
DETECTOR = rule("Clear round a smoke or heat detector", "length", 0.5, cautious="up")
EXIT_SIGN = rule("Clear round an exit sign", "length", 0.3, cautious="up")
OVER_FLAME = rule("Clear above a flame", "length", 1.0, COMMON_PRACTICE, cautious="up")
BESIDE_FLAME = rule("Clear beside an open flame", "length", 0.3, COMMON_PRACTICE, cautious="up")
BESIDE_GLASS = rule("Clear beside glass taller than its flame", "length", 0.1, COMMON_PRACTICE, cautious="up")
DRIED = rule("Dried material clear of any flame, all round", "length", 1.0, COMMON_PRACTICE, cautious="up")
ROUND: dict[HazardKind, Constant] = {"sprinkler": SPRINKLER, "detector": DETECTOR, "exit sign": EXIT_SIGN}
BESIDE: dict[HazardKind, Constant] = {"open flame": BESIDE_FLAME, "flame in glass": BESIDE_GLASS}
_TOUCHES_M = 1e-3


def clearances(rig: Rig, body: Array, thick_m: float, lowest_m: float, *, dry: bool = False) -> list[Finding]:
    """What must be kept clear of a rig at rest.

    Args:
        body: places all over the finished work, shape (n, 3), m. thick_m: how thick it is about them, m.
        lowest_m: of the finished work over the floor, m. dry: whether stems of it are dried, preserved or artificial.
    """
    found = []
    if rig.below in ("walkway", "table"):
        found.append(_under(rig, lowest_m))
    for hazard in rig.hazards:
        found += _near(hazard, body, thick_m / 2, dry=dry or rig.dried)
    return found


def gap_m(hazard: Hazard, body: Array, reach_m: float) -> float:
    """How far the finished work keeps from a place, m; 0 where it touches. Source: geometry."""
    return max(0.0, float(_apart(hazard, body).min()) - reach_m)


def gap_beside_m(hazard: Hazard, body: Array, reach_m: float) -> float:
    """How far aside of a place the work keeps where it is about as high, m; infinite where none of it is. Geometry."""
    level = body[np.abs(body[:, 2] - hazard.z_m) <= reach_m + BESIDE_FLAME.value]
    return max(0.0, float(_aside(hazard, level).min(initial=math.inf)) - reach_m)


def gap_over_m(hazard: Hazard, body: Array, reach_m: float, beside_m: float) -> float:
    """How far above a place the work hangs where it is over it, m; infinite where none of it is. Source: geometry."""
    over = body[(_aside(hazard, body) <= reach_m + beside_m) & (body[:, 2] + reach_m > hazard.z_m)]
    return max(0.0, float(over[:, 2].min(initial=math.inf)) - reach_m - hazard.z_m)


def _apart(hazard: Hazard, body: Array) -> Array:
    return np.asarray(np.linalg.norm(body - np.array([hazard.x_m, hazard.y_m, hazard.z_m]), axis=1))


def _aside(hazard: Hazard, body: Array) -> Array:
    return np.asarray(np.hypot(body[:, 0] - hazard.x_m, body[:, 1] - hazard.y_m))


def _under(rig: Rig, lowest_m: float) -> Finding:
    limit = (WALKWAY if rig.below == "walkway" else TABLE).quantity
    where = "over a walkway" if rig.below == "walkway" else "over the floor at a table"
    value = length(lowest_m)
    reason = phrase("It hangs {v} {where}; {limit} is needed.", v=value, limit=limit, where=where)
    return finding(check="clearance", case="heavy", value=value, limit=limit, sense="at least", reason=reason)


def _near(hazard: Hazard, body: Array, reach: float, *, dry: bool) -> list[Finding]:
    if hazard.kind == "LED candle":
        return []
    if hazard.kind in ROUND:
        return [_keeps(hazard, "of", gap_m(hazard, body, reach), ROUND[hazard.kind].value)]
    if dry:
        return [_keeps(hazard, "of, being dried,", gap_m(hazard, body, reach), DRIED.value)]
    beside = BESIDE[hazard.kind].value
    found = []
    aside, over = gap_beside_m(hazard, body, reach), gap_over_m(hazard, body, reach, beside)
    if math.isfinite(aside):
        found.append(_keeps(hazard, "beside", aside, beside))
    if math.isfinite(over):
        found.append(_keeps(hazard, "above", over, OVER_FLAME.value))
    return found


def _keeps(hazard: Hazard, way: str, gap: float, limit_m: float) -> Finding:
    value, limit = length(gap), length(limit_m)
    article = "an" if hazard.kind[0] in "aeiouL" else "a"
    words = "It touches or reaches round the place {way} {article} {hazard}; {limit} is needed."
    if gap > _TOUCHES_M:
        words = "It keeps {v} clear {way} {article} {hazard}; {limit} is needed."
    reason = phrase(
        words,
        v=value,
        limit=limit,
        way=way,
        article=article,
        hazard=hazard.kind,
    )
    return finding(
        check=f"clear of {hazard.kind}", case="heavy", value=value, limit=limit, sense="at least", reason=reason
    )
