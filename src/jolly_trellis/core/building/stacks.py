"""Stacked pieces: a bowl in a larger urn on a riser, a bowl raised on a stand or a tall cylinder."""

import math

from jolly_trellis.core.books.figures import measure, rule
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.vessels import Vessel, check_vessel, inside_size_m
from jolly_trellis.core.mechanics.tape import PUTTY_PULL, PUTTY_WIDTH
from jolly_trellis.core.plan.piece import Insert, Piece, Support
from jolly_trellis.core.quantities import length, phrase

OFFSET_FREE = rule("Bowl off the middle of its support", "length", 0.01)
OFFSET_RIDGED = rule("Bowl off the middle where a ridge locates it", "length", 0.003)
RISER_DENSITY = measure("Density of a riser block", "density", 600.0)


def riser_m(outer_depth_m: float, bowl_height_m: float, drop_m: float) -> float:
    """Height of the block under an insert: urn depth − bowl height − drop below the rim, metres; may be negative.

    Source: geometry.
    """
    return outer_depth_m - bowl_height_m - drop_m


def packing_ring_m(outer_inside_m: float, bowl_outside_m: float) -> float:
    """Width of the ring that centres an insert: half the difference of the sizes, metres; may be negative.

    Source: geometry.
    """
    return (outer_inside_m - bowl_outside_m) / 2


def joint_edge_m(*, bowl_foot_m: float, support_top_m: float, offset_m: float) -> float:
    """Edge of a joint: the lesser radius of bowl foot and support rim, less the offset, metres.

    Args:
        bowl_foot_m: width of the bowl's foot, m.
        support_top_m: outside width of the support's rim, m.
        offset_m: how far the bowl may stand off the middle, m.
    Source: statics; the offset is an estimate.
    """
    return min(bowl_foot_m, support_top_m) / 2 - offset_m


def off_centre_tolerance_m(*, bowl_foot_m: float, support_top_m: float, centre_m: float) -> float:
    """How far the bowl may slide before its centre of mass passes the joint's edge, metres.

    Source: statics.
    """
    return min(bowl_foot_m, support_top_m) / 2 - centre_m


def putty_joint_moment_n_m(ring_m: float, edge_m: float) -> float:
    """Moment of a putty ring at a joint: 10 kPa · area · e, N·m. Source: estimate."""
    return PUTTY_PULL.value * math.pi * ring_m * PUTTY_WIDTH.value * max(edge_m, 0.0)


def support_holds_l(support: Support, nest_m: float = 0.0) -> float:
    """Water that a support holds to its rim, or to the bowl that nests in it: π/4·d²·h of its column, litres; 0 where
    its top is closed.

    Args:
        nest_m: how far the bowl hangs into it, m.
    Source: geometry of a straight column.
    """
    if support.opening_m <= 0:
        return 0.0
    return 1000 * math.pi / 4 * support.column_width_m**2 * max(support.height_m - nest_m, 0.0)


def outside_m(vessel: Vessel, over_underside_m: float) -> float:
    """How wide a vessel is outside, across its wider side, at a height over its underside, m.

    Source: inside profile and wall.
    """
    width, depth = inside_size_m(vessel, max(over_underside_m - vessel.base_m, 0.0))
    return max(width, depth) + 2 * vessel.wall_m


def nests_m(vessel: Vessel, support: Support) -> float:
    """How far a bowl drops into the opening of its support before its outside meets the edge, m; 0 where its foot
    stands on the rim, or nobody has measured that.

    Raises: InvalidMeasure: its widest passes the opening, so that it falls through.
    Source: geometry, by halving.
    """
    foot, opening = vessel.foot_width_m, support.opening_m
    if foot is None or foot >= opening:
        return 0.0
    heights = [vessel.base_m + point.height_m for point in vessel.profile]
    widest = max(outside_m(vessel, each) for each in heights)
    if widest <= opening:
        raise InvalidMeasure(
            path="support.opening_m",
            message=phrase(
                "The bowl is {bowl} across at its widest and falls through an opening of {opening}.",
                bowl=length(widest),
                opening=length(opening),
            ),
            limit=phrase("Take an opening under {bowl}, or a wider bowl.", bowl=length(widest)),
        )
    low, high = 0.0, next(each for each in heights if outside_m(vessel, each) > opening)
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (low, middle) if outside_m(vessel, middle) > opening else (middle, high)
    return high


def joint_across_m(vessel: Vessel, support: Support) -> float:
    """Across the joint between a bowl and its support, m: the opening where it nests, else the lesser of foot and rim.

    Source: geometry.
    """
    if nests_m(vessel, support) > 0:
        return support.opening_m
    return min(vessel.foot_width_m or support.top_width_m, support.top_width_m)


def located(vessel: Vessel, support: Support) -> bool:
    """Whether the bowl cannot slide off the middle of its support: a ridge holds it, or it nests."""
    return support.ridge or nests_m(vessel, support) > 0


def offset_of(support: Support, vessel: Vessel | None = None) -> float:
    """How far the bowl may stand off the middle of its support, metres; a bowl that nests is held by the edge."""
    held = support.ridge if vessel is None else located(vessel, support)
    return (OFFSET_RIDGED if held else OFFSET_FREE).value


def raised_m(piece: Piece) -> float:
    """Height of the underside of the piece's own vessel above the surface, metres.

    Raises: InvalidMeasure: an insert that stands out of its urn or does not go in.
    """
    base = 0.0
    if piece.insert is not None:
        base = _insert_underside_m(piece.vessel, piece.insert)
    if piece.support is not None:
        base += piece.support.height_m - nests_m(on_support(piece), piece.support)
    return base


def on_support(piece: Piece) -> Vessel:
    """The vessel that stands on a piece's support: the urn of an insert, else its own."""
    return piece.insert.outer if piece.insert is not None else piece.vessel


def _insert_underside_m(vessel: Vessel, insert: Insert) -> float:
    outer = insert.outer
    check_vessel(outer, path="insert.outer")
    riser = riser_m(outer.inside_depth_m, vessel.rim_m, insert.drop_m)
    if riser < -1e-9:
        raise InvalidMeasure(
            path="insert.drop_m",
            message=phrase(
                "The bowl, {bowl} high, stands out of an urn {urn} deep.",
                bowl=length(vessel.rim_m),
                urn=length(outer.inside_depth_m),
            ),
            limit=phrase("Take a bowl up to {most} high.", most=length(outer.inside_depth_m - insert.drop_m)),
        )
    room = min(inside_size_m(outer, outer.inside_depth_m - insert.drop_m))
    outside = max(vessel.mouth_width_m, vessel.mouth_depth_m) + 2 * vessel.wall_m
    if outside > room:
        raise InvalidMeasure(
            path="insert.outer",
            message=phrase(
                "The bowl is {bowl} across outside; the urn is {urn} across there.",
                bowl=length(outside),
                urn=length(room),
            ),
            limit=phrase("Take a bowl up to {most} across.", most=length(room)),
        )
    return outer.base_m + max(riser, 0.0)
