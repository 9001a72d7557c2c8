"""What mounted work is tied and screwed on with: how many ties, how far apart, what slides, what a screw bears."""

import math
from itertools import pairwise

from jolly_trellis.core.books.figures import Constant, rule
from jolly_trellis.core.checks.verdicts import Finding, finding
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.provenance import FROM_MEMORY, Provenance
from jolly_trellis.core.quantities import count, length, phrase, pull, ratio
from jolly_trellis.core.rigging import facts
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.hang_points import POINTS
from jolly_trellis.core.rigging.lines import LINES
from jolly_trellis.core.rigging.rig import HangPoint, Mount, Rig

Place = tuple[float, float, float]
_ROOM_M = 0.005
TIE_APART = rule("Ties along a frame, farthest apart", "length", 0.30, FROM_MEMORY, cautious="down")
STEEL_APART = rule("Steel or cord ties over people, farthest apart", "length", 0.60, FROM_MEMORY, cautious="down")
TIES_LEAST = rule("Ties of mounted work, fewest", "count", 3, FROM_MEMORY, cautious="up")
TIES_AT_ENDS = rule("Ties at each end of mounted work", "count", 2, FROM_MEMORY, cautious="up")
STEEL_ENDS = rule("Ends with a steel or cord tie, over people", "count", 2, FROM_MEMORY, cautious="up")
SCREW_POWER = rule(
    "Shear and pull-out of a screw together: power of each share",
    "ratio",
    2.0,
    Provenance(kind="from memory", source="EN 1995-1-1, 8.7.3: screws loaded both ways"),
)


def ties(rig: Rig, along_m: list[float], load_n: float) -> list[Finding]:
    """Ties of a run to its frame, stand or column: how many, how far apart, doubled at the ends, strong ones too.

    Args:
        along_m: how far along the run each attachment lies, m. load_n: what all ties together bear, N.
    """
    if not rig.is_tied:
        return []
    number = len(rig.lines)
    factor = line_rules.design_factor(over_people=rig.over_people, one_gone=False)
    keeps = sum(line_rules.breaking_n(line.spec) * line_rules.efficiency(line.spec) for line in rig.lines)
    marks = sorted(along_m[line.attachment] for line in rig.lines)
    first, last = min(along_m), max(along_m)
    ends = min(sum(abs(each - end) < _ROOM_M for each in marks) for end in (first, last))
    found = [
        *_too_few("ties", "It is tied {v} times; never fewer than {limit}.", number, TIES_LEAST),
        *_too_few("ties at its ends", "An end is tied {v} times; {limit} are needed.", ends, TIES_AT_ENDS),
        _apart("ties apart", "Ties are up to {v} apart; {limit} at most.", marks, TIE_APART),
        finding(
            check="ties together",
            case="heavy",
            value=pull(load_n * factor),
            limit=pull(keeps),
            sense="at most",
            reason=phrase(
                "All ties keep {k} together; the load, {f} times, is {n}.",
                k=pull(keeps),
                f=count(factor),
                n=pull(load_n * factor),
            ),
        ),
    ]
    if rig.over_people:
        strong = [along_m[line.attachment] for line in rig.lines if LINES[line.spec.kind].strong]
        words = "Steel or cord ties, which stay when a cable tie goes, are up to {v} apart; {limit} at most."
        found.append(_apart("steel ties apart", words, sorted([first, *strong, last]), STEEL_APART))
        held = sum(any(abs(each - end) < _ROOM_M for each in strong) for end in (first, last))
        words = "{v} of {limit} ends have a steel or cord tie."
        found += _too_few("steel ties at its ends", words, held, STEEL_ENDS)
    return found


def _too_few(check: str, words: str, value: int, limit: Constant) -> list[Finding]:
    """A count that is short of its least; enough is enough, so there is nothing to say of it."""
    if value >= limit.value:
        return []
    reason = phrase(words, v=count(value), limit=limit.quantity)
    return [
        finding(check=check, case="heavy", value=count(value), limit=limit.quantity, sense="at least", reason=reason)
    ]


def _apart(check: str, words: str, marks: list[float], limit: Constant) -> Finding:
    widest = max((other - one for one, other in pairwise(marks)), default=0.0)
    reason = phrase(words, v=length(widest), limit=limit.quantity)
    return finding(
        check=check, case="heavy", value=length(widest), limit=limit.quantity, sense="at most", reason=reason,
        tight_from=1.01,
    )  # fmt: skip


def screw_pull_n(shear_n: float, outward_n: float, mount: Mount) -> float:
    """Pull on a wall screw straight out of the wall: V·arm/lever + H, N.

    The work's middle stands `arm_m` out from the wall and leans on it `bears_below_m` under the screw.

    Args:
        shear_n: pull down the wall. outward_n: pull of the line itself away from the wall.
    Raises: InvalidMeasure: it leans on the wall nowhere under the screw.
    Source: moments about where it leans.
    """
    if not mount.bears_below_m > 0:
        raise InvalidMeasure(
            path="mount.bears_below_m",
            message=phrase("It leans on the wall nowhere under its screws."),
            limit=phrase("Say how far below a screw the work touches the wall."),
        )
    return shear_n * mount.arm_m / mount.bears_below_m + outward_n


def screw(point: HangPoint, mount: Mount, pulls: tuple[Place, ...]) -> Finding | None:
    """A wall screw in shear and pull-out together, in the worst of all cases; None where it is no wall screw or has
    not both ratings stated.
    """
    if not POINTS[point.kind].in_wall or not (
        point.rating_n and point.pull_out_n and mount.arm_m and mount.bears_below_m
    ):
        return None
    power, cases = SCREW_POWER.value, []
    for right, back, up in pulls:
        shear = math.hypot(right, up)
        out = screw_pull_n(shear, abs(back), mount)
        cases.append(((shear / point.rating_n) ** power + (out / point.pull_out_n) ** power, shear, out))
    used, shear, out = max(cases)
    reason = phrase(
        "{point} is pulled down with {s} and out with {o} by an arm of {a}; rated {rs} and {ro}.",
        s=pull(shear),
        o=pull(out),
        a=length(mount.arm_m),
        rs=pull(point.rating_n),
        ro=pull(point.pull_out_n),
        point=point.name,
    )
    return finding(
        check="wall screw", case="heavy", value=ratio(used), limit=ratio(1.0), sense="at most", reason=reason
    )


def untied(rig: Rig) -> list[Missing]:
    """Over people a free-standing frame is guyed or tied to something fixed: what that is, where nobody says."""
    mount = rig.mount
    if mount is None or mount.kind not in ("frame", "stand") or not rig.over_people or mount.tied_to:
        return []
    return [facts.MOUNT_TIED.missing(mount=mount.kind)]
