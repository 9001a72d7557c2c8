"""Stand: whether the piece keeps its feet, tilted or pushed, in every direction and load case."""

import math
from dataclasses import replace
from functools import cache

import numpy as np

from jolly_trellis.core.books.bodies import CASES, Case, case_level_m, standing_together
from jolly_trellis.core.books.figures import Constant, Figure, Shown, rule
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.building.footing import FOOT_FRICTION
from jolly_trellis.core.checks import stand_acts, stand_ledge, stand_making, stand_stack, stand_wind
from jolly_trellis.core.checks.balance import (
    DIRECTIONS,
    Balance,
    balance_of,
    compass,
    foot_edge_m,
    outline_top_m,
    standing_foot_m,
)
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, Verdict, conclude, finding
from jolly_trellis.core.geometry import Array, azimuth_rays
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.plan import facts
from jolly_trellis.core.plan.setting import Where
from jolly_trellis.core.provenance import COMPUTED, MEASURED
from jolly_trellis.core.quantities import angle, energy, force, length, mass, phrase, ratio, worded
from jolly_trellis.core.units import round_up

LOW_PIECE_TOP = rule("A piece counts as low up to", "length", 0.35)
TALL_PIECE_TOP = rule("A piece counts as tall from", "length", 0.60)
TIP_ANGLE_LOW = rule("Tip angle a low piece needs", "angle", math.radians(12))
TIP_ANGLE_TALL = rule("Tip angle a tall piece needs", "angle", math.radians(10))
BUMP_TABLE = rule("Push mid-table that must not tip it, at most", "force", 10.0)
BUMP_TABLE_SHARE = rule("Push mid-table, share of its weight", "ratio", 0.12)
BUMP_EDGE = rule("Push by an edge that must not tip it, at most", "force", 20.0)
BUMP_EDGE_SHARE = rule("Push by an edge, share of its weight", "ratio", 0.2)
FREE_TABLE = rule("Bare table that lets a piece slide instead of tip", "length", 0.10)


def tip_angle_rad(edge_m: float, height_m: float) -> float:
    """Angle at which a body tips: atan(e/h).

    Args:
        edge_m: horizontally from below the centre of mass to the edge it tips over, m; negative is past it.
        height_m: of the centre of mass above that edge, m, > 0.
    Returns: radians; negative where it has already tipped.
    Source: statics.
    """
    return math.atan2(edge_m, height_m)


def push_to_tip_n(mass_kg: float, edge_m: float, push_height_m: float) -> float:
    """Level push that tips a body: W·e/h_b, newtons.

    Args:
        mass_kg: of the whole piece.
        edge_m: from below the centre of mass to the edge on the far side of the push, m.
        push_height_m: height of the push, m, > 0.
    Source: moments about the edge.
    """
    return mass_kg * GRAVITY_M_S2 * edge_m / push_height_m


def energy_to_tip_j(mass_kg: float, edge_m: float, height_m: float) -> float:
    """Work that tips a body over an edge: W·(√(e² + h²) − h), joules.

    Source: energy; the centre of mass must rise to stand above the edge.
    """
    return mass_kg * GRAVITY_M_S2 * (math.hypot(edge_m, height_m) - height_m)


def tip_angle_needed_rad(top_m: float) -> float:
    """Tip angle a piece needs by the height of its outline: 12° up to 0.35 m, evenly down to 10° at 0.60 m, rad.

    Source: estimate.
    """
    heights = (LOW_PIECE_TOP.value, TALL_PIECE_TOP.value)
    return float(np.interp(top_m, heights, (TIP_ANGLE_LOW.value, TIP_ANGLE_TALL.value)))


def tip_angles_rad(build: Build, balance: Balance) -> Array:
    """Tip angle towards each of 72 azimuths from the front, radians: the tip rose."""
    across, over = _squared_rays()
    rise = balance.water_rise_x_m * across + balance.water_rise_y_m * over
    return np.arctan2(foot_edge_m(build, balance), balance.height_m + rise)


@cache
def _squared_rays() -> tuple[Array, Array]:
    ray_x, ray_y = azimuth_rays(DIRECTIONS)
    return ray_x**2, ray_y**2


def judge(build: Build) -> Verdict:
    """Stand: at rest wherever it stands, and after every stem while it is being made."""
    missing = _missing(build)
    if missing:
        return conclude("stand", [], missing=missing)
    findings = at_rest(build) + stand_making.judge_making(build)
    findings += stand_acts.judge_acts(build, tip_angle_needed_rad(outline_top_m(build)))
    return conclude("stand", findings, figures=_figures(build))


def at_rest(build: Build) -> list[Finding]:
    """Tip angle, push or ledge, joint and wind in each case; again where it is moved to; and untied vessels."""
    findings = [found for case in CASES for found in _in_case(build, case)]
    to = build.piece.setting.moves_to
    if to is not None and to != build.piece.setting.where:
        moved = moved_to(build, to)
        findings += [
            _begun(worded("Moved to the {where}:", where=to), found)
            for case in CASES
            for found in _in_case(moved, case)
        ]
    for made, each in zip(build.companions, build.piece.companions, strict=True):
        if not each.tied:
            alone = [found for case in CASES for found in _in_case(made, case)]
            findings += [_begun(f"{each.name.capitalize()}:", found) for found in alone]
    return findings


def moved_to(build: Build, where: Where) -> Build:
    """The same piece where it stands later: off its ledge, its spill left behind."""
    setting = replace(build.piece.setting, where=where, ledge=None, moves_to=None)
    companions = tuple(moved_to(each, where) for each in build.companions)
    piece = replace(build.piece, setting=setting).without_spill()
    return replace(build, piece=piece, companions=companions, spill=None)


def _in_case(build: Build, case: Case) -> list[Finding]:
    balance = balance_of(build, case)
    edges = foot_edge_m(build, balance)
    on_ledge = build.piece.setting.where == "ledge"
    if on_ledge:
        reach, words = widest_reach_height_m(build), _case_words(build, case)
        pushed = stand_ledge.judge_ledge(build, case, foot_friction(build).value, reach, words)
    else:
        pushed = _push(build, case, balance)
    return [
        _tilt(build, case, balance),
        *pushed,
        *stand_stack.judge_joint(build, case, widest_reach_height_m(build)),
        *stand_wind.judge_wind(build, case, balance, edges, foot_friction(build)),
    ]


def _begun(words: str, found: Finding) -> Finding:
    return replace(found, reason=phrase("{where} {reason}", where=words, reason=found.reason))


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Changes that could mend Stand: ballast, more water, lower flowers, rubber, a bonded joint, an earlier strike."""
    piece, vessel = build.piece, build.piece.vessel
    tried: list[Candidate] = [*stand_making.candidates(build), *stand_acts.candidates(build, verdict)]
    if piece.setting.where == "ledge":
        needed = max(stand_ledge.needed_kg(build, case, widest_reach_height_m(build)) for case in CASES)
        tried += stand_ledge.candidates(build, least_kg=needed)
    check = verdict.governing.check if verdict.governing else ""
    if piece.support is not None:
        tried += stand_stack.candidates(piece)
    if check.startswith("wind"):
        tried += stand_wind.candidates(piece)
    least = _ballast_needed_kg(build)
    for share in (1.0, 1.4, 2.0, 3.0, 4.5):
        ballast = round_up(least * share, 0.02)
        if ballast > 0:
            say = phrase("Lay {m} of stone on the floor of the vessel.", m=mass(ballast))
            weighted = replace(piece, ballast_kg=round(piece.ballast_kg + ballast, 3))
            tried.append(Candidate(key=f"ballast-{round(share * 10)}", say=say, piece=weighted))
    fullest = vessel.inside_depth_m - vessels.BRIM_GAP.value
    if piece.water_level_m < fullest - 1e-6:
        say = phrase("Fill the water to {level}, a finger under the rim.", level=length(fullest))
        tried.append(Candidate(key="fill", say=say, piece=replace(piece, water_level_m=round(fullest, 4))))
    above = piece.envelope.height_m - build.rim_z_m
    for share in (0.9, 0.8, 0.65):
        height = round_up(build.rim_z_m + share * above, 0.005)
        lower = replace(piece.envelope, height_m=height)
        say = phrase("Bring the flowers down to {h}.", h=length(height))
        tried.append(Candidate(key=f"lower-{round(share * 100)}", say=say, piece=replace(piece, envelope=lower)))
    tried += _wider_base(build)
    if piece.setting.foot_material != "rubber" and stands_exposed(build):
        padded = replace(piece, setting=replace(piece.setting, foot_material="rubber"))
        tried.append(Candidate(key="rubber", say=phrase("Put rubber pads under the foot."), piece=padded))
    return tried


def _wider_base(build: Build) -> list[Candidate]:
    """Bond the vessel to a wider base; where weight does not help, since the push that tips it grows with it."""
    piece, support = build.piece, build.piece.support
    foot = piece.vessel.foot_width_m if support is None else support.foot_width_m
    if piece.insert is not None or foot is None:
        return []
    tried = []
    for share in (1.15, 1.35, 1.6, 2.0):
        wide = round_up(foot * share, 0.01)
        if support is not None:
            based = replace(piece, support=replace(support, foot_width_m=wide))
            say = phrase("Bond the support to a base {w} across.", w=length(wide))
            tried.append(Candidate(key=f"base-{round(share * 100)}", say=say, piece=based))
            continue
        deep = None if piece.vessel.foot_depth_m is None else round_up(piece.vessel.foot_depth_m * share, 0.01)
        based = replace(piece, vessel=replace(piece.vessel, foot_width_m=wide, foot_depth_m=deep))
        say = phrase("Bond it to a base {w} across.", w=length(wide))
        tried.append(Candidate(key=f"base-{round(share * 100)}", say=say, piece=based))
    return tried


def _missing(build: Build) -> list[Missing]:
    setting = build.piece.setting
    by_table = setting.free_table_m is None and "table" in (setting.where, setting.moves_to)
    return [*unknown(build), *([facts.BARE_TABLE.missing()] if by_table else [])]


def unknown(build: Build) -> list[Missing]:
    """The weights and feet nobody has measured, without which there is no balance."""
    piece = build.piece
    _, foot, _ = standing_foot_m(build)
    stands_on = facts.STANDING_FOOT
    if piece.support is not None:
        stands_on = facts.SUPPORT_FOOT
    elif piece.insert is not None:
        stands_on = facts.URN_FOOT
    asked = (
        (piece.vessel.mass_kg is None, facts.VESSEL_WEIGHT),
        (piece.insert is not None and piece.insert.outer.mass_kg is None, facts.URN_WEIGHT),
        (piece.support is not None and piece.support.mass_kg is None, facts.SUPPORT_WEIGHT),
        (piece.support is not None and piece.vessel.foot_width_m is None, facts.BOWL_FOOT),
        (foot is None, stands_on),
    )
    found = [fact.missing() for absent, fact in asked if absent]
    for at, (made, each) in enumerate(zip(build.companions, piece.companions, strict=True)):
        if made.piece.vessel.mass_kg is None:
            found.append(facts.COMPANION_WEIGHT.missing((at,), name=each.name))
        if made.piece.vessel.foot_width_m is None:
            found.append(facts.COMPANION_FOOT.missing((at,), name=each.name))
    return found


def _tilt(build: Build, case: Case, balance: Balance) -> Finding:
    angles = tip_angles_rad(build, balance)
    if build.piece.setting.where == "ledge":
        angles = np.where(stand_ledge.towards_front(), np.pi, angles)
    worst = int(angles.argmin())
    limit = angle(tip_angle_needed_rad(outline_top_m(build)))
    towards = compass(worst)
    reason = phrase(
        "{case} it tips {towards} when tilted {a}; a piece this tall needs {limit}.",
        a=angle(angles[worst]),
        limit=limit,
        case=_case_words(build, case),
        towards=towards,
    )
    return finding(check="tilt", case=case, value=angle(angles[worst]), limit=limit, sense="at least", reason=reason)


def _push(build: Build, case: Case, balance: Balance) -> list[Finding]:
    """The push at the widest reach that tips it; near an edge also the push that slides it."""
    edges = foot_edge_m(build, balance)
    worst = int(edges.argmin())
    height = widest_reach_height_m(build)
    friction = foot_friction(build).value
    weight = balance.mass_kg * GRAVITY_M_S2
    exposed, by_edge = stands_exposed(build), stands_by_edge(build)
    if not exposed and _one_footing(build) and friction < edges[worst] / height:
        return []
    limit_n = (
        min(BUMP_EDGE.value, BUMP_EDGE_SHARE.value * weight)
        if exposed
        else min(BUMP_TABLE.value, BUMP_TABLE_SHARE.value * weight)
    )
    tips = push_to_tip_n(balance.mass_kg, float(edges[worst]), height)
    slides = friction * weight if by_edge else math.inf
    value = force(min(tips, slides))
    act = worded("slides off the edge" if slides < tips else "tips {where}", where=compass(worst))
    reason = phrase(
        "{case} a push of {push} at {height} and it {act}; it must bear {limit}.",
        push=value,
        height=length(height),
        limit=force(limit_n),
        case=_case_words(build, case),
        act=act,
    )
    return [finding(check="push", case=case, value=value, limit=force(limit_n), sense="at least", reason=reason)]


def widest_reach_height_m(build: Build) -> float:
    """Height of the stem tip that reaches farthest out, above the surface, metres: where a passer-by bumps."""
    placement = build.placement
    if len(placement.stems) == 0:
        return build.rim_z_m
    reach = np.hypot(placement.tip_m[:, 0], placement.tip_m[:, 1]) + placement.stems.round_reach_m
    return build.raised_m + max(float(placement.head_z_m[int(reach.argmax())]), 0.05)


def stands_exposed(build: Build) -> bool:
    """Whether it stands on a floor, by a bar or within 10 cm of an edge, where people bump harder."""
    setting = build.piece.setting
    return setting.where != "table" or (setting.free_table_m or 0.0) < FREE_TABLE.value


def stands_by_edge(build: Build) -> bool:
    """Whether it can slide off what it stands on: on a bar, or within 10 cm of a table's edge."""
    setting = build.piece.setting
    return setting.where == "bar" or (setting.where == "table" and (setting.free_table_m or 0.0) < FREE_TABLE.value)


def _one_footing(build: Build) -> bool:
    """Whether it stands on one foot with no joint that could open before it slides."""
    return build.piece.support is None and len(standing_together(build)) == 1


def foot_friction(build: Build) -> Constant:
    """Friction of the foot on what it stands on."""
    setting = build.piece.setting
    return FOOT_FRICTION[(setting.foot_material, setting.surface)]


def _ballast_needed_kg(build: Build) -> float:
    """Stone that would bring every case inside its limit, rounded up to 20 g; 0 where none would.

    With ballast b at height z the centre falls to (M·h + b·z)/(M + b); asking tan(limit) = e/h gives
    b = M·(h − h_t)/(h_t − z) with h_t = e/tan(limit). The push asks b = F·h_b/(e·g) − M.
    """
    needed = 0.0
    for case in CASES:
        balance = balance_of(build, case)
        edge = float(foot_edge_m(build, balance).min())
        tilt = _tilt(build, case, balance)
        if edge <= 0:
            return 0.0
        rise = max(balance.water_rise_x_m, balance.water_rise_y_m)
        height_wanted = edge / math.tan(tilt.limit.value)
        stone = build.raised_m + build.piece.vessel.base_m + 0.015
        height = balance.height_m + rise
        if height > height_wanted and height_wanted <= stone:
            return 0.0
        if height > height_wanted:
            needed = max(needed, balance.mass_kg * (height - height_wanted) / (height_wanted - stone))
        for push in [] if build.piece.setting.where == "ledge" else _push(build, case, balance):
            enough = push.limit.value * widest_reach_height_m(build) / (edge * GRAVITY_M_S2)
            needed = max(needed, enough - balance.mass_kg)
    return round_up(needed * 1.05, 0.02) if needed > 0 else 0.0


def _figures(build: Build) -> list[Shown]:
    balance = balance_of(build, "typical")
    edge = float(foot_edge_m(build, balance).min())
    vessel = build.piece.vessel
    _, foot, _ = standing_foot_m(build)
    computed = [
        ("Finished mass", mass(balance.mass_kg)),
        ("Height of its centre of mass", length(balance.height_m)),
        ("Least distance to the foot's edge", length(edge)),
        ("Work to tip it", energy(energy_to_tip_j(balance.mass_kg, max(edge, 0.0), balance.height_m))),
    ]
    return [
        *(Figure(label=name, quantity=value, provenance=COMPUTED) for name, value in computed),
        Figure(label="Empty vessel", quantity=mass(vessel.mass_kg or 0.0), provenance=MEASURED),
        Figure(label="Width of the foot", quantity=length(foot or 0.0), provenance=MEASURED),
        foot_friction(build),
        TIP_ANGLE_LOW,
        TIP_ANGLE_TALL,
        LOW_PIECE_TOP,
        TALL_PIECE_TOP,
        *_slides_first(build, balance, edge),
        *stand_stack.figures(build),
        *stand_wind.figures(build),
        *(stand_ledge.figures(build) if build.piece.setting.where == "ledge" else []),
    ]


def _slides_first(build: Build, balance: Balance, edge_m: float) -> list[Shown]:
    """Says so where no push limit applies, because a single foot with bare table round it slides first."""
    if build.piece.setting.where == "ledge":
        return []
    if _push(build, "typical", balance):
        return [BUMP_TABLE, BUMP_TABLE_SHARE]
    grip = ratio(edge_m / widest_reach_height_m(build))
    words = "Slides before it tips: friction is under this, so no push limit applies"
    return [Figure(label=words, quantity=grip, provenance=COMPUTED)]


def _case_words(build: Build, case: Case) -> str:
    if case == "typical":
        return "As planned,"
    if case == "heavy":
        return "With heavy stems,"
    return "Dry, with heavy stems," if case_level_m(build, "low") <= 0 else "At its lowest water,"
