"""Work mounted on a frame, stand, wall or column: ties, screws by the arm, how a free-standing frame stands."""

import math
from dataclasses import dataclass
from itertools import pairwise

from jolly_trellis.core.books.figures import Constant, Shown, rule
from jolly_trellis.core.building.footing import FOOT_FRICTION
from jolly_trellis.core.checks.stand_ledge import BRUSH
from jolly_trellis.core.checks.stand_stack import JOINT_LIMIT
from jolly_trellis.core.checks.stand_wind import (
    BEAUFORT_TOP,
    OVERTURNING,
    ballast_needed_kg,
    design_speed_m_s,
    wind_force_n,
)
from jolly_trellis.core.checks.verdicts import Finding, finding
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.mechanics.fit import PUTTY_PULL
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.provenance import FROM_MEMORY, Provenance
from jolly_trellis.core.quantities import count, length, moment, phrase, pull, ratio
from jolly_trellis.core.rigging import facts
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.hang_points import POINTS
from jolly_trellis.core.rigging.lines import LINES
from jolly_trellis.core.rigging.rig import HangPoint, Mount, Rig
from jolly_trellis.core.rigging.states import rating_of

Place = tuple[float, float, float]
TIE_APART = rule("Ties along a frame, farthest apart", "length", 0.30, FROM_MEMORY, cautious="down")
STEEL_APART = rule("Steel or cord ties over people, farthest apart", "length", 0.60, FROM_MEMORY, cautious="down")
TIES_LEAST = rule("Ties of mounted work, fewest", "count", 3, FROM_MEMORY, cautious="up")
TIES_AT_ENDS = rule("Ties at each end of mounted work", "count", 2, FROM_MEMORY, cautious="up")
STEEL_ENDS = rule("Ends with a steel or cord tie, over people", "count", 2, FROM_MEMORY, cautious="up")
FEET = 4
TRIAL = rule("Trial of a frame of one's own bears, times the counted load", "ratio", 1.5, FROM_MEMORY, cautious="up")
SCREW_POWER = rule(
    "Shear and pull-out of a screw together: power of each share",
    "ratio",
    2.0,
    Provenance(kind="from memory", source="EN 1995-1-1, 8.7.3: screws loaded both ways"),
)
_ROOM_M = 0.005


@dataclass(frozen=True, slots=True, kw_only=True)
class FrameStand:
    """How a free-standing frame stands: in wind from the front or back, and from a side.

    `wind_n` is the push on the covered outline at `height_m`, 0 indoors; `ballast_kg` on each of four feet is what the
    worse of the two winds, or a guest who leans on it, asks.
    """

    area_m2: float
    height_m: float
    wind_n: float
    ballast_kg: float


def stands(rig: Rig, at: tuple[Place, ...], typical_kg: float, thick_m: float, wide_m: float) -> list[Finding]:
    """Whether a free-standing frame or stand keeps upright, both ways.

    Args:
        at: nodes of the armature at rest, m. typical_kg: of what is on it. thick_m, wide_m: finished, front to back
        and across the run or ring, m.
    """
    mount = rig.mount
    if mount is None or mount.kind not in ("frame", "stand") or _unmeasured(mount):
        return []
    ways = (
        ("front or back", _push(mount, at, wide_m, from_side=False)),
        ("a side", _push(mount, at, thick_m, from_side=True)),
    )
    tipped = [(way, push) for way, push in ways if push.force_n * push.height_m > 0]
    found = [_upright(rig, mount, at, typical_kg, push, way) for way, push in tipped]
    slides = _slides(rig, mount, typical_kg, max((push for _, push in ways), key=lambda push: push.force_n))
    return [*found, *([slides] if slides is not None else [])]


def standing(rig: Rig, at: tuple[Place, ...], typical_kg: float, thick_m: float, wide_m: float) -> FrameStand | None:
    """Wind on a frame and the ballast each of its feet needs; None where it is no frame, or something is missing."""
    mount = rig.mount
    if mount is None or mount.kind not in ("frame", "stand") or _unmeasured(mount):
        return None
    front, side = _push(mount, at, wide_m, from_side=False), _push(mount, at, thick_m, from_side=True)
    needed = max(
        ballast_per_foot_kg(mount, at, typical_kg, push, from_side=from_side)
        for push, from_side in ((front, False), (side, True))
    )
    return FrameStand(area_m2=front.area_m2, height_m=front.height_m, wind_n=front.force_n, ballast_kg=needed)


@dataclass(frozen=True, slots=True, kw_only=True)
class Push:
    """A push on a frame: N at a height in m, over an area in m² (0 where it is a guest who leans)."""

    force_n: float
    height_m: float
    area_m2: float


def _push(mount: Mount, at: tuple[Place, ...], across_m: float, *, from_side: bool) -> Push:
    """Wind on what is covered outdoors, else a guest's push at its top; what hangs lower lies on the floor."""
    at = tuple((x, y, max(z, 0.0)) for x, y, z in at)
    top = max(node[2] for node in at)
    if not mount.outdoors:
        return Push(force_n=BRUSH.value, height_m=top, area_m2=0.0)
    seen = [(0.0, node[2]) if from_side else (node[0], node[2]) for node in at]
    pieces = [(math.dist(one, other), (one[1] + other[1]) / 2) for one, other in pairwise(seen)]
    if from_side:
        tall = top - min(node[2] for node in at)
        pieces = [(tall + across_m, top - tall / 2)]
    long = sum(each for each, _ in pieces)
    height = sum(each * z for each, z in pieces) / long if long > 0 else top
    area = long * across_m
    return Push(force_n=wind_force_n(design_speed_m_s(mount.comes_down_above), area), height_m=height, area_m2=area)


def ballast_per_foot_kg(
    mount: Mount, at: tuple[Place, ...], typical_kg: float, push: Push, *, from_side: bool
) -> float:
    """Ballast on each of four feet, kg, 0 or more: (1.5·M − W·e)/(g·e_b), half the ballast a whole foot away.

    Source: moments about the edge of the feet.
    """
    weight, edge, foot = _holds(mount, at, typical_kg, from_side=from_side)
    needed = ballast_needed_kg(
        wind_moment_n_m=push.force_n * push.height_m, weight_n=weight, edge_m=edge, ballast_edge_m=foot / 2
    )
    return needed / FEET


def _holds(mount: Mount, at: tuple[Place, ...], typical_kg: float, *, from_side: bool) -> tuple[float, float, float]:
    """Weight of frame and work without ballast, N; how far its centre is inside the nearer edge, m; the foot, m."""
    axis, foot = (0, mount.foot_width_m) if from_side else (1, mount.foot_depth_m)
    aside = sum(node[axis] for node in at) / len(at) - (mount.x_m if from_side else 0.0)
    frame = mount.mass_kg or 0.0
    whole = frame + typical_kg
    centre = typical_kg * aside / whole
    return whole * GRAVITY_M_S2, foot / 2 - abs(centre), foot


def core_bed_m2(core_kg: float) -> float:
    """Sealant or putty under a core so that it stays where it is when its stand is knocked: m·0.3·g/10 kPa, m².

    Source: shear over an area; the jolt and the putty's strength are estimates.
    """
    return core_kg * JOINT_LIMIT.value * GRAVITY_M_S2 / PUTTY_PULL.value


def core_needed_kg(mount: Mount, at: tuple[Place, ...], typical_kg: float, wide_m: float) -> float:
    """A dense core in the foot of a stand that brings it back inside its margin by itself, kg, 0 or more.

    Source: moments about the edge of the foot.
    """
    needed = 0.0
    for from_side in (False, True):
        push = _push(mount, at, wide_m, from_side=from_side)
        weight, edge, foot = _holds(mount, at, typical_kg, from_side=from_side)
        ballast = FEET * mount.ballast_kg * GRAVITY_M_S2 * foot / 2
        short = OVERTURNING.value * push.force_n * push.height_m - weight * edge - ballast
        needed = max(needed, short / (GRAVITY_M_S2 * foot / 2))
    return needed


def _upright(rig: Rig, mount: Mount, at: tuple[Place, ...], typical_kg: float, push: Push, way: str) -> Finding:
    side = way == "a side"
    weight, edge, foot = _holds(mount, at, typical_kg, from_side=side)
    core = rig.armature.core_kg * GRAVITY_M_S2 * foot / 2
    holds = moment(weight * edge + FEET * mount.ballast_kg * GRAVITY_M_S2 * foot / 2 + core)
    needs = moment(OVERTURNING.value * push.force_n * push.height_m)
    words = (
        "A guest who leans on it with {push} from {way} asks {needs} of the {mount} with a margin; on "
        "its feet it has {holds}."
    )
    if mount.outdoors:
        words = "Wind of {push} from {way} asks {needs} of the {mount} with a margin; on its feet it has {holds}."
    reason = phrase(
        words,
        push=pull(push.force_n),
        needs=needs,
        holds=holds,
        way=way,
        mount=mount.kind,
    )
    return finding(
        check=f"{mount.kind} upright, {way}", case="typical", value=holds, limit=needs, sense="at least", reason=reason
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


def _slides(rig: Rig, mount: Mount, typical_kg: float, push: Push) -> Finding | None:
    """Whether a frame's feet grip what they stand on: 1.5·F ≤ μ·W; None where a guy holds it, or feet are not known.

    W is frame and work as planned, with its ballast and core.
    """
    if mount.tied_to or mount.foot_material is None or mount.surface is None:
        return None
    friction = FOOT_FRICTION[(mount.foot_material, mount.surface)]
    kg = (mount.mass_kg or 0.0) + typical_kg + FEET * mount.ballast_kg + rig.armature.core_kg
    grip = pull(friction.value * kg * GRAVITY_M_S2)
    needs = pull(OVERTURNING.value * push.force_n)
    words = (
        "A guest who leans on it with {push} asks a grip of {needs} of the {mount}'s feet with a "
        "margin; dry, they have {grip}."
    )
    if mount.outdoors:
        words = "Wind of {push} asks a grip of {needs} of the {mount}'s feet with a margin; dry, they have {grip}."
    reason = phrase(
        words,
        push=pull(push.force_n),
        needs=needs,
        grip=grip,
        mount=mount.kind,
    )
    return finding(
        check=f"{mount.kind} sliding", case="typical", value=grip, limit=needs, sense="at least", reason=reason
    )


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


def missing(rig: Rig) -> list[Missing]:
    """Facts of what it is mounted on that nobody has given."""
    mount = rig.mount
    if mount is None:
        return []
    frame = mount.kind in ("frame", "stand")
    sliding = frame and not mount.tied_to

    def first(*fields: str) -> str | None:
        """The first of some fields that nobody has filled in."""
        return next((each for each in fields if not getattr(mount, each)), None)

    asked = (
        ("width_m" if mount.kind != "wall" and not mount.width_m > 0 else None, facts.MOUNT_ACROSS),
        ("mass_kg" if frame and mount.mass_kg is None else None, facts.MOUNT_WEIGHT),
        (first("foot_width_m", "foot_depth_m") if frame else None, facts.MOUNT_FEET),
        (first("foot_material", "surface") if sliding else None, facts.MOUNT_SLIDES),
        (first("arm_m", "bears_below_m") if mount.kind == "wall" else None, facts.LEANS),
    )
    return [fact.missing((field,), mount=mount.kind) for field, fact in asked if field is not None]


def _unmeasured(mount: Mount) -> bool:
    """Whether weight or footprint of a frame is not known, so that nothing can be said of how it stands."""
    return mount.mass_kg is None or not (mount.foot_width_m > 0 and mount.foot_depth_m > 0)


def answers_for_its_points(rig: Rig) -> bool:
    """Whether work is tied to a frame or stand of one's own, whose load is stated once for all of it."""
    return rig.is_tied and rig.mount is not None and rig.mount.kind in ("frame", "stand")


def own_load(rig: Rig, load_n: float) -> tuple[list[Finding], list[Missing]]:
    """The load of a frame or stand of one's own, as its maker states or a trial has shown, against what is counted.

    A trial must have borne 1.5 times the counted load. Over people a competent person signs for it. Where every point
    has a rating of its own, none need be stated for the whole; one that is stated is judged all the same.

    Args:
        load_n: what is counted: the heavy mass × what was forgotten × handling, N.
    Source: from memory; local rules come first.
    """
    mount = rig.mount
    if mount is None or not answers_for_its_points(rig):
        return [], []
    trial = pull(TRIAL.value * load_n)
    if mount.load_kg is None:
        if all(rating_of(each) is not None for each in rig.points):
            return [], []
        return [], [facts.MOUNT_LOAD.missing(mount=mount.kind)]
    stated = pull(mount.load_kg * GRAVITY_M_S2)
    if mount.load_from == "trial":
        words = "In its trial the {mount} bore {limit}; it must have borne {v}, {times} the counted load."
        value = trial
    else:
        words = "The {mount} is counted with {v}; its maker states {limit}."
        value = pull(load_n)
    reason = phrase(words, mount=mount.kind, v=value, limit=stated, times=count(TRIAL.value))
    found = finding(
        check=f"{mount.kind}'s load", case="heavy", value=value, limit=stated, sense="at most", reason=reason
    )
    lacks = []
    if not mount.load_by or not mount.load_on:
        field = "load_by" if not mount.load_by else "load_on"
        lacks.append(facts.MOUNT_LOAD_BY.missing((field,), mount=mount.kind))
    if rig.over_people and not mount.signed_by:
        lacks.append(facts.MOUNT_SIGNED.missing(mount=mount.kind))
    return [found], lacks


def untied(rig: Rig) -> list[Missing]:
    """Over people a free-standing frame is guyed or tied to something fixed: what that is, where nobody says."""
    mount = rig.mount
    if mount is None or mount.kind not in ("frame", "stand") or not rig.over_people or mount.tied_to:
        return []
    return [facts.MOUNT_TIED.missing(mount=mount.kind)]


def figures(rig: Rig) -> list[Shown]:
    """Figures for the screen of what it is mounted on."""
    mount = rig.mount
    if mount is None:
        return []
    if mount.kind == "wall":
        return [SCREW_POWER]
    own: list[Shown] = [TRIAL] if mount.kind in ("frame", "stand") else []
    own += [TIE_APART, STEEL_APART, TIES_LEAST, TIES_AT_ENDS]
    if mount.kind == "column":
        return own
    feet = (mount.foot_material, mount.surface)
    own += [FOOT_FRICTION[feet[0], feet[1]]] if feet[0] is not None and feet[1] is not None else []
    wind = BEAUFORT_TOP.get(mount.comes_down_above) if mount.outdoors else None
    return [*own, OVERTURNING, *([wind] if wind else [BRUSH])]
