"""Stand on a ledge: whether what is tied together can tip or slide off its front edge, finished or brushed past."""

import math
from dataclasses import replace

import numpy as np

from jolly_trellis.core.books.bodies import Case, by_stem, case_level_m
from jolly_trellis.core.books.figures import Figure, Shown, rule
from jolly_trellis.core.building import spills
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.building.footing import ledge_edge_m
from jolly_trellis.core.checks.balance import DIRECTIONS, balance_of, footing_of
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, finding
from jolly_trellis.core.geometry import Array, Flags
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.plan.kinds import stands
from jolly_trellis.core.plan.piece import Counterweight, Piece
from jolly_trellis.core.plan.recipe import HandPlaced, RecipeLine
from jolly_trellis.core.provenance import COMMON_PRACTICE, COMPUTED, FROM_MEMORY
from jolly_trellis.core.quantities import count, force, length, mass, moment, phrase, ratio
from jolly_trellis.core.units import round_up

LEDGE_FACTOR = rule("Holding moment over tipping moment on a ledge, finished", "ratio", 1.5, FROM_MEMORY)
MAKING_FACTOR = rule("Holding moment over tipping moment on a ledge, while being made", "ratio", 1.2)
BRUSH = rule("Push of a guest who brushes past, at the widest reach", "force", 10.0)
WALL_GAP = rule("Rear greens keep from the wall by", "length", 0.05, COMMON_PRACTICE)
REAR_RISE = rule("Rear greens rise towards the top, share of the height", "ratio", 0.6, most=1.0)
BESIDE = rule("Counterweight stands behind the foot by", "length", 0.04)
_MOST_RATIO = 9.99


def moments_n_m(mass_kg: Array, y_m: Array, axis_m: float) -> tuple[float, float]:
    """Moments about a ledge's tipping axis: (out over the edge, in behind it), N·m, both 0 or more.

    Args:
        mass_kg, y_m: of each part, and where its centre is, to the back; shapes (n,).
        axis_m: y of the axis, m.
    Source: statics; each part counts on the side its own centre lies.
    """
    each = mass_kg * GRAVITY_M_S2 * (axis_m - y_m)
    return float(np.maximum(each, 0.0).sum()), float(np.maximum(-each, 0.0).sum())


def holding_ratio(outward_n_m: float, inward_n_m: float) -> float:
    """Holding over tipping moment, at most 9.99; 9.99 where nothing leans out. Source: definition."""
    return _MOST_RATIO if outward_n_m <= 1e-9 else min(inward_n_m / outward_n_m, _MOST_RATIO)


def counterweight_kg(outward_n_m: float, inward_n_m: float, arm_m: float, factor: float) -> float:
    """Weight tied behind the axis that brings the ratio up to a factor: (M_out·factor − M_in)/(g·x), kg, 0 or more.

    Args:
        outward_n_m, inward_n_m: moments about the axis, N·m.
        arm_m: from the axis back to the weight, m, > 0.
        factor: the ratio wanted.
    Source: moments about the tipping axis.
    """
    return max((outward_n_m * factor - inward_n_m) / (GRAVITY_M_S2 * arm_m), 0.0)


def towards_front() -> Flags:
    """Azimuths within 60° of the front, where a ledge's own ratio takes the place of the tip angle, shape (72,)."""
    turn = np.arange(DIRECTIONS) * (2 * np.pi / DIRECTIONS)
    return np.asarray(np.cos(turn) > 0.5 - 1e-9)


def leaning_n_m(build: Build, case: Case) -> tuple[float, float]:
    """Moments of everything that stands tied together about the tipping axis: (out, in), N·m, a spill's pull apart.

    Each row of stems counts by itself: a branch in front and greens behind do not cancel. Source: `moments_n_m`.
    """
    kg, at = by_stem(build, case)
    return moments_n_m(kg, at[:, 1], footing_of(build).axis_m)


def pull_moment_n_m(build: Build, case: Case) -> tuple[float, float]:
    """Level pull of a spill that the vessel holds, N, and its moment about the foot at the rim's height, N·m."""
    pull = spills.pull_n(build.piece, build.spill, heavy=case != "typical")
    return pull, pull * build.rim_z_m


def judge_ledge(build: Build, case: Case, friction: float, push_height_m: float, words: str) -> list[Finding]:
    """Holding ratio, a guest brushing past, and sliding, towards the front edge.

    Args:
        friction: of the foot on the ledge.
        push_height_m: of the widest reach, m.
        words: how the load case begins its sentence.
    """
    outward, inward = leaning_n_m(build, case)
    pull, turning = pull_moment_n_m(build, case)
    outward += turning
    held = ratio(holding_ratio(outward, inward))
    verb = "It falls off the ledge" if inward < outward else "It leans over the ledge's edge"
    tips = finding(
        check="ledge",
        case=case,
        value=held,
        limit=LEDGE_FACTOR.quantity,
        sense="at least",
        reason=phrase(
            "{words} {verb}{verb2} with {out} against {inn} that holds it: {r} times; {limit} is needed.",
            out=moment(outward),
            inn=moment(inward),
            r=held,
            limit=LEDGE_FACTOR.quantity,
            words=words,
            verb=verb[0].lower(),
            verb2=verb[1:],
        ),
    )
    weight = balance_of(build, case).mass_kg * GRAVITY_M_S2
    brushed = force(max((inward - outward) / push_height_m, 0.0))
    brush = finding(
        check="brush",
        case=case,
        value=brushed,
        limit=BRUSH.quantity,
        sense="at least",
        reason=phrase(
            "{words} a guest's sleeve tips it at {f}, {up} up; it must bear {limit}.",
            f=brushed,
            up=length(push_height_m),
            limit=BRUSH.quantity,
            words=words,
        ),
    )
    with_spill = " and the spill" if pull else ""
    grip, needed = force(friction * weight), force(BRUSH.value + pull)
    slides = finding(
        check="slide",
        case=case,
        value=grip,
        limit=needed,
        sense="at least",
        reason=phrase(
            "{words} it slides over the edge at {grip}; a brush{with_spill} may pull {need}.",
            grip=grip,
            need=needed,
            words=words,
            with_spill=with_spill,
        ),
    )
    return [tips, brush, slides]


def room_behind_m(piece: Piece) -> float:
    """Bare ledge behind the foot, metres; 0 where it stands on no ledge."""
    ledge, foot = piece.setting.ledge, piece.vessel.foot_depth_m or piece.vessel.foot_width_m
    if ledge is None or foot is None:
        return 0.0
    return max(ledge.depth_m - ledge.set_back_m - foot, 0.0)


def weight_place_m(piece: Piece) -> float | None:
    """How far behind the middle of the vessel a tied weight can stand, metres; None where it may not or cannot."""
    ledge, foot = piece.setting.ledge, piece.vessel.foot_depth_m or piece.vessel.foot_width_m
    if foot is None or (ledge is not None and ledge.behind != "weights"):
        return None
    if ledge is not None and room_behind_m(piece) < 2 * BESIDE.value:
        return None
    return round_up(foot / 2 + BESIDE.value, 0.005)


def candidates(build: Build, *, least_kg: float) -> list[Candidate]:
    """Tie a weight on behind, stand it farther back, hang the spill on its own hook.

    Args:
        least_kg: the counterweight that the worst case needs, kg.
    """
    piece = build.piece
    if not stands(piece):
        return []
    tried: list[Candidate] = []
    ledge, spill = piece.setting.ledge, piece.spill
    place = weight_place_m(piece)
    if place is not None and least_kg > 0:
        kept = piece.counterweight.mass_kg if piece.counterweight is not None and piece.counterweight.tied else 0.0
        for share in (1.0, 1.25, 1.6, 2.2, 3.0):
            kg = round(round_up(kept + least_kg * share, 0.02), 3)
            say = phrase(
                "Tie a weight of {m} to the vessel at the back, {x} behind its middle.", m=mass(kg), x=length(place)
            )
            weighted = replace(piece, counterweight=Counterweight(mass_kg=kg, away_m=place, azimuth_rad=math.pi))
            tried.append(Candidate(key=f"counterweight-{round(share * 100)}", say=say, piece=weighted))
    stone = least_kg * _arms_ratio(build)
    if stone > 0:
        for share in (1.0, 1.25, 1.6, 2.2):
            kg = round(round_up(piece.ballast_kg + stone * share, 0.02), 3)
            say = phrase("Lay {m} of stone in all on the floor of the vessel.", m=mass(kg))
            tried.append(Candidate(key=f"inside-{round(share * 100)}", say=say, piece=replace(piece, ballast_kg=kg)))
    if ledge is not None:
        for back in (0.02, 0.04, 0.08):
            if back <= room_behind_m(piece) + 1e-9:
                farther = replace(ledge, set_back_m=round(ledge.set_back_m + back, 4))
                say = phrase("Stand it {b} farther back from the edge.", b=length(back))
                moved = replace(piece, setting=replace(piece.setting, ledge=farther))
                tried.append(Candidate(key=f"back-{round(back * 100)}", say=say, piece=moved))
    tried += _rear_greens(build)
    if spill is not None and spill.held_by == "vessel":
        hooked = replace(piece, spill=replace(spill, held_by="hook"))
        tried.append(Candidate(key="own-hook", say=phrase("Hang the spill on a hook of its own."), piece=hooked))
    return tried


def _rear_greens(build: Build) -> list[Candidate]:
    """More and more heavy foliage leaning back over the ledge, placed by hand behind the vessel."""
    piece, ledge = build.piece, build.piece.setting.ledge
    edge = ledge_edge_m(piece)
    if ledge is None or edge is None or ledge.behind == "nothing":
        return []
    leaf = _heaviest_leaf(build)
    room = edge - ledge.edge_radius_m + ledge.depth_m - WALL_GAP.value if ledge.wall else piece.envelope.depth_m / 2
    if leaf is None or room < WALL_GAP.value:
        return []
    tried = []
    rim = build.rim_z_m
    up = rim + REAR_RISE.value * max(piece.envelope.height_m - rim, 0.05)
    for number in (3, 5, 8, 12):
        places = [(index + 0.5) / number - 0.5 for index in range(number)]
        tips = tuple(
            HandPlaced(
                variety=leaf,
                tip_x_m=round(share * piece.envelope.width_m * 0.7, 3),
                tip_y_m=round(min(room, piece.envelope.depth_m / 2), 3),
                tip_z_m=round(up, 3),
            )
            for share in places
        )
        line = RecipeLine(variety=leaf, count=number, role="line")
        say = phrase(
            "Add {n} {leaf} leaning back behind.", n=count(number), leaf=build.conditions.varieties[leaf].name
        )
        greened = replace(piece, recipe=(*piece.recipe, line), hand_placed=(*piece.hand_placed, *tips))
        tried.append(Candidate(key=f"greens-{number}", say=say, piece=greened))
    return tried


def _heaviest_leaf(build: Build) -> str | None:
    """The heaviest foliage of the recipe that no hand has placed yet, else of the stores; branches are no greens."""
    placed = {each.variety for each in build.piece.hand_placed}
    known = build.conditions.varieties
    own = [known[line.variety] for line in build.piece.recipe]
    for some in (own, list(known.values())):
        leaves = [each for each in some if each.form == "leaf" and not each.branch and each.key not in placed]
        if leaves:
            return max(leaves, key=lambda each: each.mass_kg).key
    return None


def _arms_ratio(build: Build) -> float:
    """How many times the weight behind is needed where it lies in the vessel instead; 0 where that holds nothing."""
    axis, place = footing_of(build).axis_m, _arm_place_m(build.piece)
    return (place - axis) / -axis if axis < -1e-3 else 0.0


def _arm_place_m(piece: Piece) -> float:
    """Where a weight behind is reckoned from: its place there, or the middle of the vessel where none may stand."""
    place = weight_place_m(piece)
    return 0.0 if place is None else place


def needed_kg(build: Build, case: Case, push_height_m: float) -> float:
    """Counterweight, behind or else inside, that brings ratio and brush inside their limits in one case, kg."""
    place, axis = _arm_place_m(build.piece), footing_of(build).axis_m
    if place - axis < 1e-3:
        return 0.0
    outward, inward = leaning_n_m(build, case)
    outward += pull_moment_n_m(build, case)[1]
    by_ratio = counterweight_kg(outward, inward, place - axis, LEDGE_FACTOR.value)
    by_brush = counterweight_kg(outward + BRUSH.value * push_height_m, inward, place - axis, 1.0)
    return max(by_ratio, by_brush)


def figures(build: Build) -> list[Shown]:
    """What the ledge rests on, for the screen."""
    outward, inward = leaning_n_m(build, "typical")
    return [
        Figure(label="Leans out over the edge", quantity=moment(outward), provenance=COMPUTED),
        Figure(label="Holds it behind the edge", quantity=moment(inward), provenance=COMPUTED),
        Figure(label="Bare ledge behind the foot", quantity=length(room_behind_m(build.piece)), provenance=COMPUTED),
        Figure(label="Water it counts on", quantity=length(case_level_m(build, "typical")), provenance=COMPUTED),
        LEDGE_FACTOR,
        MAKING_FACTOR,
        BRUSH,
    ]
