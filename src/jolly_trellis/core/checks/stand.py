"""Stand: whether the piece keeps its feet, tilted or pushed, in every direction and load case."""

import math
from dataclasses import dataclass, replace

import numpy as np

from jolly_trellis.core import vessels
from jolly_trellis.core.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.geometry import Array, azimuth_rays, ray_to_outline_m
from jolly_trellis.core.provenance import COMPUTED, MEASURED, Figure, constant
from jolly_trellis.core.quantities import angle, energy, force, length, mass, phrase, ratio
from jolly_trellis.core.stems import GRAVITY_M_S2
from jolly_trellis.core.units import round_up
from jolly_trellis.core.verdicts import CASES, Case, Finding, Verdict, conclude, finding
from jolly_trellis.core.water import ballast_centre_m

LOW_PIECE_TOP = constant("A piece counts as low up to", "length", 0.40)
TIP_ANGLE_LOW = constant("Tip angle a low piece needs", "angle", math.radians(12))
TIP_ANGLE_TALL = constant("Tip angle a tall piece needs", "angle", math.radians(10))
BUMP_TABLE = constant("Push mid-table that must not tip it, at most", "force", 10.0)
BUMP_TABLE_SHARE = constant("Push mid-table, share of its weight", "ratio", 0.12)
BUMP_EDGE = constant("Push by an edge that must not tip it, at most", "force", 20.0)
BUMP_EDGE_SHARE = constant("Push by an edge, share of its weight", "ratio", 0.2)
FREE_TABLE = constant("Bare table that lets a piece slide instead of tip", "length", 0.10)
FOOT_FRICTION = {
    ("glass", "wood"): constant("Friction, glass on wood, dry", "ratio", 0.25),
    ("glazed", "cloth"): constant("Friction, glaze on cloth, dry", "ratio", 0.3),
    ("felt", "wood"): constant("Friction, felt on wood, dry", "ratio", 0.25),
    ("glass", "cloth"): constant("Friction, glass on cloth, dry", "ratio", 0.3),
    ("glazed", "wood"): constant("Friction, glaze on wood, dry", "ratio", 0.25),
    ("felt", "cloth"): constant("Friction, felt on cloth, dry", "ratio", 0.3),
    ("rubber", "wood"): constant("Friction, rubber pad, dry", "ratio", 0.6),
    ("rubber", "cloth"): constant("Friction, rubber pad on cloth, dry", "ratio", 0.6),
}
DIRECTIONS = 72


@dataclass(frozen=True, slots=True, kw_only=True)
class Balance:
    """A piece's weight in one case: mass, centre (x, y, height), and how far the water raises it in a tilt."""

    mass_kg: float
    x_m: float
    y_m: float
    height_m: float
    water_rise_x_m: float
    water_rise_y_m: float


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


def water_rise_m(surface_second_moment_m4: float, volume_l: float) -> float:
    """How far free water raises its centre in a tilt: I/V, metres; R²/(4·depth) in a straight round vessel.

    Args:
        surface_second_moment_m4: of the water surface, m⁴.
        volume_l: litres of water; 0 gives 0.
    Valid for: small tilts, while the floor stays covered and the water below the rim.
    Source: metacentric radius BM = I/V, any text on hydrostatics.
    """
    return 1000 * surface_second_moment_m4 / volume_l if volume_l > 1e-6 else 0.0


def foot_edge_m(build: Build, balance: Balance) -> Array:
    """Distance along each of 72 azimuths from below the centre of mass to the foot's edge, metres."""
    vessel = build.piece.vessel
    ray_x, ray_y = azimuth_rays(DIRECTIONS)
    width, depth = vessel.foot_width_m or 0.0, vessel.foot_depth_m or vessel.foot_width_m or 0.0
    x, y = np.full(DIRECTIONS, balance.x_m), np.full(DIRECTIONS, balance.y_m)
    return ray_to_outline_m(vessel.plan_shape, x, y, ray_x, ray_y, width / 2, depth / 2)


def balance_of(build: Build, case: Case) -> Balance:
    """Composite mass and centre of vessel, ballast, netting, water and stems in one load case."""
    piece, vessel = build.piece, build.piece.vessel
    level = case_level_m(build, case)
    water_l = build.water.volume_at_l(level)
    stems = build.stem_mass_kg * (1.0 if case == "typical" else build.placement.stems.heavy_factor)
    centres = build.stem_centre_m
    wire_height = vessel.base_m + sum(each.height_m for each in build.mechanic.levels) / len(build.mechanic.levels)
    ballast_centre = vessel.base_m + ballast_centre_m(vessel, piece.ballast_kg)
    masses = [
        (vessel.mass_kg or 0.0, vessels.shell_centre_m(vessel)),
        (water_l, vessel.base_m + build.water.centre_at_m(level)),
        (build.mechanic.mass_kg, wire_height),
        (piece.ballast_kg, ballast_centre),
    ]
    stem_total = float(stems.sum())
    total = sum(each for each, _ in masses) + stem_total
    height = (sum(each * z for each, z in masses) + float((stems * centres[:, 2]).sum())) / total
    turning = vessels.surface_second_moment_m4(vessel, level)
    share = water_l / total
    return Balance(
        mass_kg=total,
        x_m=float((stems * centres[:, 0]).sum()) / total,
        y_m=float((stems * centres[:, 1]).sum()) / total,
        height_m=height,
        water_rise_x_m=share * water_rise_m(turning[0], water_l),
        water_rise_y_m=share * water_rise_m(turning[1], water_l),
    )


def case_level_m(build: Build, case: Case) -> float:
    """Water level of a load case, metres above the inside floor.

    The low case takes the lowest level before a top-up, or dry where nobody is named to top up.
    """
    if case != "low":
        return build.piece.water_level_m
    if build.conditions.topped_up_by is None:
        return 0.0
    return 0.0 if build.courses is None else build.courses[1].lowest_level_m


def tip_angles_rad(build: Build, balance: Balance) -> Array:
    """Tip angle towards each of 72 azimuths from the front, radians: the tip rose."""
    ray_x, ray_y = azimuth_rays(DIRECTIONS)
    rise = balance.water_rise_x_m * ray_x**2 + balance.water_rise_y_m * ray_y**2
    return np.arctan2(foot_edge_m(build, balance), balance.height_m + rise)


def judge(build: Build) -> Verdict:
    """Stand: tip angle, push at the widest reach and sliding, each case, each direction."""
    missing = _missing(build)
    if missing:
        return conclude("stand", [], missing=missing)
    findings: list[Finding] = []
    for case in CASES:
        balance = balance_of(build, case)
        findings += [_tilt(build, case, balance), *_push(build, case, balance)]
    return conclude("stand", findings, figures=_figures(build))


def candidates(build: Build, verdict: Verdict) -> list[Candidate]:
    """Changes that could mend Stand: ballast, more water, lower or narrower flowers, rubber under the foot."""
    piece, vessel = build.piece, build.piece.vessel
    tried: list[Candidate] = []
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
    above = piece.envelope.height_m - vessel.rim_m
    for share in (0.9, 0.8, 0.65):
        height = round_up(vessel.rim_m + share * above, 0.005)
        lower = replace(piece.envelope, height_m=height)
        say = phrase("Bring the flowers down to {h}.", h=length(height))
        tried.append(Candidate(key=f"lower-{round(share * 100)}", say=say, piece=replace(piece, envelope=lower)))
    if piece.setting.foot_material != "rubber" and (piece.setting.free_table_m or 0) < FREE_TABLE.value:
        padded = replace(piece, setting=replace(piece.setting, foot_material="rubber"))
        tried.append(Candidate(key="rubber", say=phrase("Put rubber pads under the foot."), piece=padded))
    return tried


def _missing(build: Build) -> list[str]:
    vessel, setting = build.piece.vessel, build.piece.setting
    facts = (
        (vessel.mass_kg is None, "the weight of the empty vessel"),
        (vessel.foot_width_m is None, "the width of the foot it stands on"),
        (setting.free_table_m is None, "how much bare table there is round the foot"),
    )
    return [words for absent, words in facts if absent]


def _tilt(build: Build, case: Case, balance: Balance) -> Finding:
    angles = tip_angles_rad(build, balance)
    worst = int(angles.argmin())
    top = float((build.placement.head_z_m + build.placement.stems.round_reach_m).max(initial=build.piece.vessel.rim_m))
    limit = (TIP_ANGLE_LOW if top <= LOW_PIECE_TOP.value else TIP_ANGLE_TALL).quantity
    towards = _compass(worst)
    reason = phrase(
        f"{_case_words(build, case)} it tips {towards} when tilted {{a}}; a piece this tall needs {{limit}}.",
        a=angle(angles[worst]),
        limit=limit,
    )
    return finding(check="tilt", case=case, value=angle(angles[worst]), limit=limit, sense="at least", reason=reason)


def _push(build: Build, case: Case, balance: Balance) -> list[Finding]:
    """The push at the widest reach that tips it; near an edge also the push that slides it."""
    edges = foot_edge_m(build, balance)
    worst = int(edges.argmin())
    height = widest_reach_height_m(build)
    friction = foot_friction(build).value
    weight = balance.mass_kg * GRAVITY_M_S2
    by_edge = (build.piece.setting.free_table_m or 0.0) < FREE_TABLE.value
    if not by_edge and friction < edges[worst] / height:
        return []
    limit_n = (
        min(BUMP_EDGE.value, BUMP_EDGE_SHARE.value * weight)
        if by_edge
        else min(BUMP_TABLE.value, BUMP_TABLE_SHARE.value * weight)
    )
    tips = push_to_tip_n(balance.mass_kg, float(edges[worst]), height)
    slides = friction * weight if by_edge else math.inf
    value = force(min(tips, slides))
    act = "slides off the edge" if slides < tips else f"tips {_compass(worst)}"
    reason = phrase(
        f"{_case_words(build, case)} a push of {{push}} at {{height}} and it {act}; it must bear {{limit}}.",
        push=value,
        height=length(height),
        limit=force(limit_n),
    )
    return [finding(check="push", case=case, value=value, limit=force(limit_n), sense="at least", reason=reason)]


def widest_reach_height_m(build: Build) -> float:
    """Height of the stem tip that reaches farthest out, above the surface, metres: where a passer-by bumps."""
    placement = build.placement
    if len(placement.stems) == 0:
        return build.piece.vessel.rim_m
    reach = np.hypot(placement.tip_m[:, 0], placement.tip_m[:, 1]) + placement.stems.round_reach_m
    return max(float(placement.head_z_m[int(reach.argmax())]), 0.05)


def foot_friction(build: Build) -> Figure:
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
        stone = build.piece.vessel.base_m + 0.015
        height = balance.height_m + rise
        if height > height_wanted and height_wanted <= stone:
            return 0.0
        if height > height_wanted:
            needed = max(needed, balance.mass_kg * (height - height_wanted) / (height_wanted - stone))
        for push in _push(build, case, balance):
            enough = push.limit.value * widest_reach_height_m(build) / (edge * GRAVITY_M_S2)
            needed = max(needed, enough - balance.mass_kg)
    return round_up(needed * 1.05, 0.02) if needed > 0 else 0.0


def _figures(build: Build) -> list[Figure]:
    balance = balance_of(build, "typical")
    edge = float(foot_edge_m(build, balance).min())
    vessel = build.piece.vessel
    computed = [
        ("Finished mass", mass(balance.mass_kg)),
        ("Height of its centre of mass", length(balance.height_m)),
        ("Least distance to the foot's edge", length(edge)),
        ("Work to tip it", energy(energy_to_tip_j(balance.mass_kg, max(edge, 0.0), balance.height_m))),
    ]
    return [
        *(Figure(label=name, quantity=value, provenance=COMPUTED) for name, value in computed),
        Figure(label="Empty vessel", quantity=mass(vessel.mass_kg or 0.0), provenance=MEASURED),
        Figure(label="Width of the foot", quantity=length(vessel.foot_width_m or 0.0), provenance=MEASURED),
        foot_friction(build),
        TIP_ANGLE_LOW,
        TIP_ANGLE_TALL,
        *_slides_first(build, balance, edge),
    ]


def _slides_first(build: Build, balance: Balance, edge_m: float) -> list[Figure]:
    """Says so where no push limit applies, because a single foot with bare table round it slides first."""
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


def _compass(index: int) -> str:
    names = ("to the front", "to the right", "to the back", "to the left")
    return names[round(index / DIRECTIONS * 4) % 4]
