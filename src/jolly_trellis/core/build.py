"""A piece put together: sized mechanic, placed stems, water; what every check reads."""

import math
from dataclasses import dataclass

import numpy as np

from jolly_trellis.core import netting as nets
from jolly_trellis.core import vessels
from jolly_trellis.core.drinking import Course, courses
from jolly_trellis.core.errors import InvalidMeasure, UnknownName
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.mechanics import folded_cushion
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.netting import Netting
from jolly_trellis.core.piece import Conditions, Piece
from jolly_trellis.core.placement.place import Placement, place
from jolly_trellis.core.placement.stem_set import StemSet, expand
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.stems import GRAVITY_M_S2
from jolly_trellis.core.water import WaterTable, water_table

LEAST_TOP_OVER_RIM_M = 0.03


@dataclass(frozen=True, slots=True, kw_only=True)
class Build:
    """A piece with everything worked out from it that the checks share.

    `courses` is how the water goes, typical, heavy and low; None where that cannot be said. `stem_mass_kg` is
    the typical mass of each row of stems as cut, `stem_centre_m` its centre of mass, shape (n, 3), metres from
    the foot's middle on the surface.
    """

    piece: Piece
    conditions: Conditions
    netting: Netting
    mechanic: SizedMechanic
    placement: Placement
    water: WaterTable
    courses: tuple[Course, Course, Course] | None
    stem_mass_kg: Array
    stem_centre_m: Array


def build(piece: Piece, conditions: Conditions) -> Build:
    """Put a piece together.

    Raises:
        InvalidMeasure: a measure that makes no vessel, envelope, water level or mechanic.
        UnknownName: a variety or netting the studio does not have.
    """
    check_piece(piece)
    netting = conditions.nettings.get(piece.mechanic.netting)
    if netting is None:
        raise UnknownName(
            path="mechanic.netting",
            message=phrase(f"No netting in the stores is called “{piece.mechanic.netting}”."),
            limit=phrase("Choose one from the stores."),
        )
    stems = expand(piece.recipe, conditions)
    strips = piece.mechanic.tape_strips or 0
    mechanic, placement = _assemble(piece, netting, stems, strips)
    if piece.mechanic.tape_strips is None:
        strips = fewest_strips(piece, mechanic, net_moment_n_m(piece, placement, heavy=True))
        if strips:
            mechanic, placement = _assemble(piece, netting, stems, strips)
    water = water_table(piece.vessel, placement=placement, mechanic=mechanic, ballast_kg=piece.ballast_kg)
    return Build(
        piece=piece,
        conditions=conditions,
        netting=netting,
        mechanic=mechanic,
        placement=placement,
        water=water,
        courses=courses(piece, conditions, placement, water),
        stem_mass_kg=stems.mass_kg(placement.cut_length_m),
        stem_centre_m=stem_centres_m(piece.vessel, placement),
    )


def check_piece(piece: Piece) -> None:
    """Refuse a plan whose measures contradict one another.

    Raises: InvalidMeasure, with the path of the measure and what would be right.
    """
    vessels.check_vessel(piece.vessel)
    vessels.check_level(piece.vessel, piece.water_level_m)
    least_height = piece.vessel.rim_m + LEAST_TOP_OVER_RIM_M
    bounds = (
        ("envelope.height_m", piece.envelope.height_m, least_height, "The flowers end at {value}, which is"),
        ("envelope.width_m", piece.envelope.width_m, 0.05, "A width of {value} is"),
        ("envelope.depth_m", piece.envelope.depth_m, 0.05, "A depth of {value} is"),
    )
    for path, value, least, words in bounds:
        if not value >= least:
            raise InvalidMeasure(
                path=path,
                message=phrase(f"{words} too small.", value=length(value)),
                limit=phrase("Give at least {least}.", least=length(least)),
            )
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


def stem_centres_m(vessel: vessels.Vessel, placement: Placement) -> Array:
    """Centre of mass of each row of stems, shape (n, 3), metres from the foot's middle on the surface."""
    found = placement.found
    cut = placement.cut_length_m
    share = (placement.stems.centre_from_foot_m(cut) / np.maximum(cut, 1e-9))[:, None]
    end = np.stack([found.end_x_m, found.end_y_m, vessel.rim_m - found.drop_m], axis=1)
    return end + share * (placement.tip_m - end)


def net_moment_n_m(piece: Piece, placement: Placement, *, heavy: bool) -> float:
    """Moment of all stems about the middle of the mouth, N·m: what would rock the mechanic.

    Source: statics; taken as if the netting carried every stem, which overstates it.
    """
    mass = placement.stems.mass_kg(placement.cut_length_m)
    if heavy:
        mass = mass * placement.stems.heavy_factor
    first = (mass[:, None] * stem_centres_m(piece.vessel, placement)[:, :2]).sum(axis=0)
    return float(GRAVITY_M_S2 * np.hypot(first[0], first[1]))


def fewest_strips(piece: Piece, mechanic: SizedMechanic, moment_n_m: float) -> int:
    """Fewest tape strips that hold the mechanic in its vessel, 0 to 6."""
    per_strip = folded_cushion.tape_moment_n_m(
        strips=1,
        tape_width_m=piece.mechanic.tape_width_m,
        mouth_size_m=min(piece.vessel.mouth_width_m, piece.vessel.mouth_depth_m),
    )
    short = moment_n_m - mechanic.seat_moment_n_m
    return max(0, min(folded_cushion.MAX_TAPE_STRIPS, math.ceil(short / per_strip)))


def _assemble(piece: Piece, netting: Netting, stems: StemSet, strips: int) -> tuple[SizedMechanic, Placement]:
    mechanic = folded_cushion.size(piece.mechanic, piece.vessel, netting, tape_strips=strips)
    placement = place(
        stems,
        vessel=piece.vessel,
        envelope=piece.envelope,
        mechanic=mechanic,
        pitch_m=nets.pitch_across_m(netting),
        tape_width_m=piece.mechanic.tape_width_m,
    )
    return mechanic, placement
