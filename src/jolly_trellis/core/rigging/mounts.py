"""Work mounted on a frame, stand, wall or column: ties, screws by the arm, how a free-standing frame stands."""

import math
from dataclasses import dataclass
from itertools import pairwise

from jolly_trellis.core.books.figures import Shown, rule
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
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.mechanics.tape import PUTTY_PULL
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.provenance import FROM_MEMORY
from jolly_trellis.core.quantities import count, moment, phrase, pull, worded
from jolly_trellis.core.rigging import facts
from jolly_trellis.core.rigging.mount_ties import (
    SCREW_POWER,
    STEEL_APART,
    TIE_APART,
    TIES_AT_ENDS,
    TIES_LEAST,
    Place,
)
from jolly_trellis.core.rigging.rig import Mount, Rig
from jolly_trellis.core.rigging.states import rating_of

FEET = 4
TRIAL = rule("Trial of a frame of one's own bears, times the counted load", "ratio", 1.5, FROM_MEMORY, cautious="up")


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
    return finding(check=sliding(mount), case="typical", value=grip, limit=needs, sense="at least", reason=reason)


def sliding(mount: Mount) -> str:
    """What its check against sliding is called."""
    return worded("{mount} sliding", mount=mount.kind)


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
