"""What no piece can be: measures that contradict one another, and things that do not go into each other."""

from jolly_trellis.core import ranges
from jolly_trellis.core.acts import refusals
from jolly_trellis.core.building import stacks
from jolly_trellis.core.building.footing import ledge_edge_m
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials import vessels
from jolly_trellis.core.placement.water_table import stone_most_kg
from jolly_trellis.core.plan.kinds import is_worn
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.quantities import length, mass, phrase, volume

LEAST_TOP_OVER_RIM_M = 0.03


def check_piece(piece: Piece) -> None:
    """Refuse a plan whose measures contradict one another.

    Raises: InvalidMeasure, with the path of the measure and what would be right.
    """
    ranges.check(piece)
    vessels.check_vessel(piece.vessel)
    vessels.check_level(piece.vessel, piece.water_level_m)
    _check_room(piece)
    _check_points(piece)
    refusals.check_piece(piece)
    ledge_edge_m(piece)
    for path, size in (
        ("foot_width_m", piece.vessel.foot_width_m),
        ("foot_depth_m", piece.vessel.foot_depth_m),
    ):
        if size is not None and not size > 0:
            raise InvalidMeasure(
                path=f"vessel.{path}",
                message=phrase("The foot measures {value}.", value=length(size)),
                limit=phrase("Measure across the ring it stands on, or leave it empty."),
            )


def _check_points(piece: Piece) -> None:
    """Refuse more growing points than there are stems to grow from them. Raises InvalidMeasure."""
    stems, points = sum(line.count for line in piece.recipe), piece.envelope.points
    if points is not None and points > 1 and piece.recipe and points > stems:
        raise InvalidMeasure(
            path="envelope.points",
            message=phrase(
                "{points} growing points are more than the {stems} stems of the recipe.", points=points, stems=stems
            ),
            limit=phrase("Take up to {stems}, or add stems.", stems=stems),
        )


def _check_room(piece: Piece) -> None:
    """Refuse what does not go in: more stone than the vessel holds, more water than its support does, a box too small.

    Raises: InvalidMeasure, with the capacity named.
    """
    most = stone_most_kg(piece.vessel)
    if piece.ballast_kg > most + 1e-9:
        raise InvalidMeasure(
            path="ballast_kg",
            message=phrase("{m} of stone does not go into this vessel.", m=mass(piece.ballast_kg)),
            limit=phrase(
                "It holds {most} at the most, which fills its {full}.",
                most=mass(most),
                full=volume(vessels.volume_below_l(piece.vessel, piece.vessel.inside_depth_m)),
            ),
        )
    support = piece.support
    nest = 0.0 if support is None else stacks.nests_m(stacks.on_support(piece), support)
    if support is not None and support.water_l > stacks.support_holds_l(support, nest) + 1e-9:
        holds = stacks.support_holds_l(support, nest)
        raise InvalidMeasure(
            path="support.water_l",
            message=phrase("{w} of water does not go into the support.", w=volume(support.water_l)),
            limit=phrase("It holds {most}, to its rim or the bowl in it.", most=volume(holds))
            if holds
            else phrase("It is closed at its top, and holds none."),
        )
    going = piece.transport
    depth = piece.vessel.inside_depth_m
    if going is not None and going.overnight_level_m is not None and going.overnight_level_m > depth + 1e-9:
        raise InvalidMeasure(
            path="transport.overnight_level_m",
            message=phrase("{l} of water stands over the rim overnight.", l=length(going.overnight_level_m)),
            limit=phrase("The vessel is {d} deep inside.", d=length(depth)),
        )
    overnight, driven = (None, None) if going is None else (going.overnight_level_m, going.water_level_m)
    if overnight is not None and driven is not None and overnight < driven - 1e-9:
        raise InvalidMeasure(
            path="transport.overnight_level_m",
            message=phrase(
                "It stands at {o} overnight and drives at {d}: water is poured off before loading, not up.",
                o=length(overnight),
                d=length(driven),
            ),
            limit=phrase("Give {d} or more, or drive with less.", d=length(driven)),
        )
    if going is None or not going.boxed:
        return
    wall = 2 * piece.vessel.wall_m
    for path, box, across in (
        ("transport.box_width_m", going.box_width_m, max(point.width_m for point in piece.vessel.profile) + wall),
        ("transport.box_depth_m", going.box_depth_m, max(point.depth_m for point in piece.vessel.profile) + wall),
    ):
        if box is not None and box < across - 1e-9:
            raise InvalidMeasure(
                path=path,
                message=phrase(
                    "The vessel, {v} across outside, does not go into a box of {b}.", v=length(across), b=length(box)
                ),
                limit=phrase("Take a box of {v} or more.", v=length(across)),
            )


def check_envelope(piece: Piece, raised_m: float) -> None:
    """Refuse flowers that end under their vessel's rim, or too small ones. Raises InvalidMeasure.

    Args:
        raised_m: of the vessel's underside over the surface.
    """
    least_height = raised_m + piece.vessel.rim_m + LEAST_TOP_OVER_RIM_M
    least_across = 0.02 if is_worn(piece) else 0.05
    bounds = (
        (
            "envelope.height_m",
            piece.envelope.height_m,
            least_height,
            "The flowers end at {value}, which is too small.",
        ),
        ("envelope.width_m", piece.envelope.width_m, least_across, "A width of {value} is too small."),
        ("envelope.depth_m", piece.envelope.depth_m, least_across, "A depth of {value} is too small."),
    )
    for path, value, least, words in bounds:
        if not value >= least:
            raise InvalidMeasure(
                path=path,
                message=phrase(words, value=length(value)),
                limit=phrase("Give at least {least}.", least=length(least)),
            )
