"""What is found of a rig: lines, hang points, the netting itself, the second bond, clearance."""

import math

from jolly_trellis.core.provenance import FROM_MEMORY, constant
from jolly_trellis.core.quantities import angle, force, length, phrase
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.loads import TakeOff
from jolly_trellis.core.rigging.rig import HangPoint, Rig
from jolly_trellis.core.rigging.states import NEVER_OVERHEAD, LineState, PointState, rating_of
from jolly_trellis.core.spills import chain_strength_n
from jolly_trellis.core.stems import GRAVITY_M_S2
from jolly_trellis.core.verdicts import Finding, finding

ANGLE_LEAST = constant("Angle of a line to the horizontal, least", "angle", math.radians(30), FROM_MEMORY)
OFF_RATING = constant("A pull this far off the stated direction has no rating", "angle", math.radians(15))
BOND_FACTOR = constant("Second bond keeps, times the weight", "ratio", 10.0, FROM_MEMORY)
BOND_LEAST = constant("Second bond, least thickness of its steel rope", "length", 0.0015, FROM_MEMORY)
WALKWAY = constant("Clearance over a walkway", "length", 2.2, FROM_MEMORY)


def findings_of(
    rig: Rig,
    weighed: TakeOff,
    lines: tuple[LineState, ...],
    points: tuple[PointState, ...],
    lowest: float,
    chain: float,
) -> tuple[list[Finding], list[str]]:
    """Everything that is found, and the facts that are missing."""
    findings = [each for line in lines for each in _line_findings(line)]
    missing = []
    for point, state in zip(rig.points, points, strict=True):
        if state.pull_n <= 0:
            continue
        rating = rating_of(point)
        if rating is None:
            missing.append(f"what {point.name} may carry, and who states it")
            continue
        if state.off_rad > OFF_RATING.value:
            missing.append(
                f"what {point.name} may carry when pulled {math.degrees(state.off_rad):.0f}° off straight down"
            )
        findings.append(_point_finding(point, state, rating))
        if rig.over_people and point.kind in NEVER_OVERHEAD:
            findings.append(_never(point))
    findings += _bond(rig, weighed)
    if rig.over_people and rig.bond is None:
        missing.append("the second bond: its own steel line to its own hang point, should everything else let go")
    if rig.walkway:
        findings.append(_clearance(lowest))
    if chain > 0 and rig.armature.kind in ("snake", "tube"):
        findings.append(_netting(weighed, chain))
    return findings, missing


def _line_findings(line: LineState) -> list[Finding]:
    cases = {"whole": "as hung", "uneven": "with a line 1 % long", "one gone": "with one line gone"}
    value, limit = force(line.design_n), force(line.limit_n)
    reason = phrase(f"{line.name} bears {{t}} {cases[line.governs]}; it may carry {{limit}}.", t=value, limit=limit)
    found = [finding(check="line", case="heavy", value=value, limit=limit, sense="at most", reason=reason)]
    flat = phrase(
        f"{line.name} runs at {{a}} to the horizontal, at least {{limit}}: flatter, the pull grows without measure.",
        a=angle(line.angle_rad),
        limit=ANGLE_LEAST.quantity,
    )
    found.append(
        finding(
            check="line angle",
            case="heavy",
            value=angle(line.angle_rad),
            limit=ANGLE_LEAST.quantity,
            sense="at least",
            reason=flat,
        )
    )
    return found


def _point_finding(point: HangPoint, state: PointState, rating: float) -> Finding:
    value, limit = force(state.pull_n), force(rating)
    words = f"{point.name} is pulled with {{v}}; {point.stated_by} rates it at {{limit}}."
    if point.kind in NEVER_OVERHEAD:
        words = f"{point.name} is pulled with {{v}}; half its label is {{limit}}."
    reason = phrase(words, v=value, limit=limit)
    return finding(check="hang point", case="heavy", value=value, limit=limit, sense="at most", reason=reason)


def _never(point: HangPoint) -> Finding:
    reason = phrase(f"{point.name} is an {point.kind}: never over people.")
    zero = force(0.0)
    return Finding(
        check="never overhead",
        case="heavy",
        value=zero,
        limit=force(1.0),
        sense="at least",
        utilisation=10.0,
        reason=reason,
    )


def _bond(rig: Rig, weighed: TakeOff) -> list[Finding]:
    """The second bond: steel of 1.5 mm or more that keeps ten times the weight at its ends."""
    if rig.bond is None:
        return []
    keeps = force(line_rules.breaking_n(rig.bond) * line_rules.efficiency(rig.bond))
    needed = force(BOND_FACTOR.value * weighed.heavy_kg * GRAVITY_M_S2)
    reason = phrase("The second bond keeps {k} at its ends; ten times the weight is {n}.", k=keeps, n=needed)
    found = [finding(check="second bond", case="heavy", value=keeps, limit=needed, sense="at least", reason=reason)]
    size = rig.bond.size_m or 0.0
    if rig.bond.kind != "steel rope" or size < BOND_LEAST.value - 1e-9:
        words = phrase(
            f"The second bond is {rig.bond.kind} of {{size}}: it must be steel rope of {{least}} or more.",
            size=length(size),
            least=BOND_LEAST.quantity,
        )
        found.append(
            Finding(
                check="bond of steel",
                case="heavy",
                value=length(size),
                limit=BOND_LEAST.quantity,
                sense="at least",
                utilisation=10.0,
                reason=words,
            )
        )
    return found


def _clearance(lowest: float) -> Finding:
    value = length(lowest)
    reason = phrase("It hangs {v} over a walkway; {limit} is needed.", v=value, limit=WALKWAY.quantity)
    return finding(
        check="clearance", case="heavy", value=value, limit=WALKWAY.quantity, sense="at least", reason=reason
    )


def _netting(weighed: TakeOff, chain: float) -> Finding:
    strength = max(chain_strength_n(weighed.netting, weighed.strip_width_m), 1.0)
    value, limit = force(chain), force(strength)
    reason = phrase(
        "The netting itself is pulled with {v}; it bears {limit}: over that, run a cord through.", v=value, limit=limit
    )
    return finding(check="netting chain", case="heavy", value=value, limit=limit, sense="at most", reason=reason)
