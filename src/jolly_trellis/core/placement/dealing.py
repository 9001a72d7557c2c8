"""Seats that stay: what they were dealt for, and whether they still can be kept."""

import zlib

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.plan.piece import Dealt, Piece, Seat

MOUTH_CHANGE = rule("Seats are dealt again when the mouth changes by more than", "ratio", 0.10)
ENVELOPE_CHANGE = rule("Seats are dealt again when the envelope changes by more than", "ratio", 0.25)
_STEP_M = 1e-4


def made_for(piece: Piece, *, several_points: bool) -> str:
    """What seats are dealt for, told in eight letters: recipe, form, colours, hands, mechanic, netting and frog."""
    lines = [(each.variety, each.count, each.clump, each.role, each.water) for each in piece.recipe]
    hands = sorted(each.variety for each in piece.hand_placed)
    chosen = (piece.mechanic.kind, piece.mechanic.netting, piece.mechanic.frog, piece.mechanic.cell_m)
    told = (lines, hands, piece.envelope.form, piece.arrangement, chosen, piece.vessel.plan_shape, several_points)
    return f"{zlib.crc32(repr(told).encode()):08x}"


def kept_seats_m(piece: Piece, *, several_points: bool, rows: int) -> Array | None:
    """Seats kept from an earlier deal, shape (rows, 2), m; None where they are to be dealt afresh.

    They are kept while the recipe and the mechanic are what they were dealt for, the mouth has changed by a tenth at
    most and the envelope by a quarter.

    Args:
        several_points: whether the school grows from several points. rows: how many rows the recipe has.
    """
    dealt = piece.dealt
    if dealt is None or len(dealt.seats) != rows or dealt.made_for != made_for(piece, several_points=several_points):
        return None
    mouth = ((piece.vessel.mouth_width_m, dealt.mouth_width_m), (piece.vessel.mouth_depth_m, dealt.mouth_depth_m))
    envelope = (
        (piece.envelope.height_m, dealt.height_m),
        (piece.envelope.width_m, dealt.width_m),
        (piece.envelope.depth_m, dealt.depth_m),
    )
    for sizes, most in ((mouth, MOUTH_CHANGE.value), (envelope, ENVELOPE_CHANGE.value)):
        if any(abs(now / then - 1) > most + 1e-9 for now, then in sizes):
            return None
    return np.array([(each.x_m, each.y_m) for each in dealt.seats]).reshape(-1, 2)


def dealt_as(piece: Piece, *, several_points: bool, seats_m: Array) -> Dealt:
    """The deal of a piece, to be kept with it: what was kept stays as it was dealt first.

    Args:
        seats_m: middles of the seats taken, a row each, shape (rows, 2), m.
    """
    if kept_seats_m(piece, several_points=several_points, rows=len(seats_m)) is not None and piece.dealt is not None:
        return piece.dealt
    return Dealt(
        seats=_seats(seats_m),
        made_for=made_for(piece, several_points=several_points),
        mouth_width_m=piece.vessel.mouth_width_m,
        mouth_depth_m=piece.vessel.mouth_depth_m,
        height_m=piece.envelope.height_m,
        width_m=piece.envelope.width_m,
        depth_m=piece.envelope.depth_m,
    )


@remembered
def _seats(seats_m: Array) -> tuple[Seat, ...]:
    """Seats as they are kept, to the step of a hand."""
    rounded = np.round(seats_m / _STEP_M) * _STEP_M
    return tuple(Seat(x_m=round(x, 4), y_m=round(y, 4)) for x, y in rounded.tolist())
