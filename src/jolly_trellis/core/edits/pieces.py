"""Edits of a piece that stands: another vessel beside it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from jolly_trellis.core.edits.usual import COMPANION_HIGH, COMPANION_WATER, COMPANION_WIDE
from jolly_trellis.core.errors import UnknownName
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.plan.piece import Companion, Envelope
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.ranges import Text


@dataclass(frozen=True, slots=True, kw_only=True)
class AddCompanion:
    """Another vessel of the stores to the right of what stands there, its flowers as wide as they usually are."""

    kind: Literal["add companion"] = "add companion"
    vessel: Annotated[str, Text(60, least=1)]


PieceEdit = AddCompanion


def edit_piece(piece: Standing, edit: PieceEdit, vessels: Mapping[str, Vessel]) -> tuple[Standing, str]:
    """The piece after an edit, and what the edit is called. Raises: UnknownName: the stores have no such vessel."""
    vessel = vessels.get(edit.vessel)
    if vessel is None:
        raise UnknownName(
            path="vessel",
            message=phrase("No vessel in the stores is called “{key}”.", key=edit.vessel),
            limit=phrase("Choose one from the stores."),
        )
    wide = vessel.mouth_width_m * COMPANION_WIDE
    foot = piece.vessel.foot_width_m or piece.vessel.mouth_width_m
    reach = max([foot / 2, *(each.x_m + each.vessel.mouth_width_m / 2 for each in piece.companions)])
    companion = Companion(
        name=vessel.name,
        vessel=vessel,
        envelope=Envelope(
            height_m=round(vessel.rim_m + wide * COMPANION_HIGH, 3), width_m=round(wide, 3), depth_m=round(wide, 3)
        ),
        mechanic=replace(piece.mechanic, layer_gap_m=None, tape_strips=None),
        water_level_m=round(vessel.inside_depth_m * COMPANION_WATER, 3),
        x_m=round(reach + wide / 2, 3),
        y_m=0.0,
        recipe=(),
    )
    return replace(piece, companions=(*piece.companions, companion)), f"Add {vessel.name} beside it"
