"""Stand at a joint: a bowl on a support, which must neither tip off, slide off nor drop in."""

import math
from dataclasses import replace

from jolly_trellis.core.books.bodies import Case, centre_of, on_show, own
from jolly_trellis.core.books.figures import Figure, Shown, measure, rule
from jolly_trellis.core.building import stacks
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.checks.fixing import Candidate
from jolly_trellis.core.checks.verdicts import Finding, finding
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.provenance import COMPUTED
from jolly_trellis.core.quantities import force, length, mass, phrase, volume

JOINT_FRICTION = measure("Friction at a dry joint", "ratio", 0.25, spread=0.25)
DROP_IN_MARGIN = rule("Bowl's foot over the support's opening, all round", "length", 0.01)
BUMP_LEAST = rule("Push mid-table that must not tip a bowl off its joint, at most", "force", 10.0)
BUMP_SHARE = rule("Push at a joint, share of the bowl's weight", "ratio", 0.12)
BALLAST_WATER_L = (2.0, 4.0, 6.0, 8.0)
BALLAST_SHARE = 0.9


def judge_joint(build: Build, case: Case, push_height_m: float) -> list[Finding]:
    """Push at the bowl's widest reach with the bowl's own mass, sliding on the joint, and dropping into the opening.

    Args:
        push_height_m: of the widest reach above the surface, m, where a passer-by bumps.
    """
    support, vessel = build.piece.support, stacks.on_support(build.piece)
    foot = vessel.foot_width_m
    if support is None or foot is None:
        return []
    offset, nested = stacks.offset_of(support, vessel), stacks.nests_m(vessel, support) > 0
    across = stacks.joint_across_m(vessel, support)
    above = centre_of(tuple(each for each in own(build, case, on_show(build, case)) if each.on_joint))
    kg, lean = above.mass_kg, math.hypot(above.x_m, above.y_m)
    edge = stacks.joint_edge_m(bowl_foot_m=across, support_top_m=across, offset_m=offset) - lean
    arm = max(push_height_m - support.height_m, 0.05)
    weight = kg * GRAVITY_M_S2
    bond = stacks.putty_joint_moment_n_m(across, edge) if support.putty else 0.0
    tips = (weight * edge + bond) / arm
    slides = math.inf if support.putty or stacks.located(vessel, support) else JOINT_FRICTION.value * weight
    limit = force(min(BUMP_LEAST.value, BUMP_SHARE.value * weight))
    value = force(min(tips, slides))
    act = "slides off its support" if slides < tips else "tips off its support"
    words = "With heavy stems," if case != "typical" else "As planned,"
    push = finding(
        check="joint",
        case=case,
        value=value,
        limit=limit,
        sense="at least",
        reason=phrase(
            "{words} a push of {push} and the bowl {act}; it must bear {limit}.",
            push=value,
            limit=limit,
            words=words,
            act=act,
        ),
    )
    found = [push]
    if case == "typical" and not (support.putty or stacks.located(vessel, support)):
        found.append(_bond(kg))
    if case == "typical" and support.opening_m > 0 and not nested:
        needed = length(support.opening_m + 2 * (DROP_IN_MARGIN.value + offset))
        found.append(
            finding(
                check="drop in",
                case=case,
                value=length(foot),
                limit=needed,
                sense="at least",
                reason=phrase(
                    "The bowl's foot is {foot} across; over this opening it needs {needed} or it can drop in.",
                    foot=length(foot),
                    needed=needed,
                ),
            )
        )
    return found


def _bond(kg: float) -> Finding:
    """A bowl that merely stands on its support slides at the first bump of a tray or a table leg."""
    value = force(JOINT_FRICTION.value * kg * GRAVITY_M_S2)
    limit = force(JOINT_LIMIT.value * kg * GRAVITY_M_S2)
    return finding(
        check="bond",
        case="typical",
        value=value,
        limit=limit,
        sense="at least",
        reason=phrase(
            "Nothing bonds the bowl to its support: it slides at {value}, a knocked table gives {limit}.",
            value=value,
            limit=limit,
        ),
    )


JOINT_LIMIT = rule("Jolt of a knocked table, share of the bowl's weight", "ratio", 0.3)


def candidates(piece: Piece) -> list[Candidate]:
    """Bond the joint; put ballast water into the support."""
    support = piece.support
    if support is None:
        return []
    tried = []
    if not support.putty:
        bonded = replace(piece, support=replace(support, putty=True))
        say = phrase("Bond the joint with a ring of putty, on dry clean surfaces.")
        tried.append(Candidate(key="bond", say=say, piece=bonded))
    if support.opening_m > 0:
        room = BALLAST_SHARE * stacks.support_holds_l(support, stacks.nests_m(stacks.on_support(piece), support))
        for litres in BALLAST_WATER_L:
            if support.water_l < litres <= room:
                for putty in (False, True) if not support.putty else (True,):
                    filled = replace(piece, support=replace(support, water_l=litres, putty=putty))
                    words = "Fill the support with {v} of water" + (
                        " and bond the joint with putty." if putty and not support.putty else "."
                    )
                    key = f"ballast{'bond' if putty else ''}-{litres:g}"
                    tried.append(Candidate(key=key, say=phrase(words, v=volume(litres)), piece=filled))
    return tried


def figures(build: Build) -> list[Shown]:
    """What the joint rests on, for the screen."""
    support, vessel = build.piece.support, stacks.on_support(build.piece)
    if support is None or vessel.foot_width_m is None:
        return []
    across, nest = stacks.joint_across_m(vessel, support), stacks.nests_m(vessel, support)
    tolerance = stacks.off_centre_tolerance_m(bowl_foot_m=across, support_top_m=across, centre_m=0.0)
    drops = [Figure(label="Bowl nests in the opening by", quantity=length(nest), provenance=COMPUTED)] if nest else []
    return [
        *drops,
        Figure(label="Bowl may slide off centre by", quantity=length(tolerance), provenance=COMPUTED),
        Figure(label="Support, bare", quantity=mass(support.mass_kg or 0.0), provenance=COMPUTED),
        JOINT_FRICTION,
        DROP_IN_MARGIN,
    ]
