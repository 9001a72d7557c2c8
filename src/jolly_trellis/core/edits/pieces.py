"""Edits of a piece: another mechanic; of one that stands also what it stands on, a weight, another vessel there."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal, TypeVar

from jolly_trellis.core.edits.usual import (
    COMPANION_HIGH,
    COMPANION_WATER,
    COMPANION_WIDE,
    FROG_ROOM_M,
    INSERT_DROP_M,
    OVER_URN_M,
    URN_FROM_M,
    WEIGHT_BEHIND_M,
)
from jolly_trellis.core.errors import InvalidMeasure, UnknownName
from jolly_trellis.core.event.starting.starting import half_centimetres, support_of
from jolly_trellis.core.event.starting.usual import USUAL
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.stands import Stand
from jolly_trellis.core.materials.vessels import Vessel
from jolly_trellis.core.mechanics.about import ABOUT
from jolly_trellis.core.plan.piece import Companion, Counterweight, Envelope, Insert, MechanicKind, Piece, Support
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.quantities import phrase, worded
from jolly_trellis.core.ranges import Text

P = TypeVar("P", bound=Piece)


@dataclass(frozen=True, slots=True, kw_only=True)
class Shelf:
    """What an edit may take from the stores, by key; nothing that is retired."""

    vessels: Mapping[str, Vessel] = field(default_factory=dict)
    stands: Mapping[str, Stand] = field(default_factory=dict)
    nettings: Mapping[str, Netting] = field(default_factory=dict)
    frogs: Mapping[str, Frog] = field(default_factory=dict)


@dataclass(frozen=True, slots=True, kw_only=True)
class AddCompanion:
    """Another vessel of the stores to the right of what stands there, its flowers as wide as they usually are."""

    kind: Literal["add companion"] = "add companion"
    vessel: Annotated[str, Text(60, least=1)]


@dataclass(frozen=True, slots=True, kw_only=True)
class StandOn:
    """The piece stands by itself, on the usual cylinder or stand, or in a larger vessel of the stores."""

    kind: Literal["stand on"] = "stand on"
    on: Literal["nothing", "cylinder", "stand", "urn"]


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeStand:
    """A stand of the stores in the place of the support that the piece stands on."""

    kind: Literal["take stand"] = "take stand"
    stand: Annotated[str, Text(60, least=1)]


@dataclass(frozen=True, slots=True, kw_only=True)
class AddCounterweight:
    """The usual weight, tied on just behind the foot."""

    kind: Literal["add counterweight"] = "add counterweight"


@dataclass(frozen=True, slots=True, kw_only=True)
class ChooseMechanic:
    """Another mechanic, with netting where it needs some and the largest frog that goes into the vessel."""

    kind: Literal["choose mechanic"] = "choose mechanic"
    mechanic: MechanicKind


StandingEdit = AddCompanion | StandOn | TakeStand | AddCounterweight
PieceEdit = StandingEdit | ChooseMechanic


def with_mechanic(piece: P, edit: ChooseMechanic, shelf: Shelf) -> tuple[P, str]:
    """A piece with another mechanic, and what that is called."""
    about, mechanic = ABOUT[edit.mechanic], piece.mechanic
    floor = piece.vessel.profile[0]
    room = min(floor.width_m, floor.depth_m) - FROG_ROOM_M
    fitting = [key for key, each in shelf.frogs.items() if each.kind == about.frog and each.width_m <= room]
    largest = max(fitting, key=lambda key: shelf.frogs[key].width_m, default=None)
    chosen = replace(
        mechanic,
        kind=edit.mechanic,
        netting=(mechanic.netting or next(iter(shelf.nettings), None)) if about.netting else mechanic.netting,
        frog=largest if about.frog else mechanic.frog,
        layer_gap_m=None,
        tape_strips=None,
    )
    return replace(piece, mechanic=chosen), worded("Use {mechanic}", mechanic=about.name.lower())


def edit_standing(piece: Standing, edit: StandingEdit, shelf: Shelf) -> tuple[Standing, str]:
    """The piece after an edit, and what the edit is called.

    Raises: UnknownName: the stores have no such vessel or stand. InvalidMeasure: it stands on nothing to be replaced,
    or no vessel is large enough.
    """
    match edit:
        case AddCompanion(vessel=key):
            return _with_companion(piece, _vessel(shelf, key))
        case StandOn(on=on):
            return _standing_on(piece, on, shelf)
        case TakeStand(stand=key):
            return _on_stand(piece, key, shelf)
        case AddCounterweight():
            foot = piece.vessel.foot_depth_m or piece.vessel.foot_width_m or piece.vessel.mouth_width_m
            weight = Counterweight(
                mass_kg=USUAL.counterweight_kg,
                away_m=half_centimetres(foot / 2 + WEIGHT_BEHIND_M),
                azimuth_rad=math.pi,
                tied=True,
            )
            return replace(piece, counterweight=weight), "Add a counterweight"


def _with_companion(piece: Standing, vessel: Vessel) -> tuple[Standing, str]:
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
    return replace(piece, companions=(*piece.companions, companion)), worded(
        "Add {vessel} beside it", vessel=vessel.name
    )


def _standing_on(
    piece: Standing, on: Literal["nothing", "cylinder", "stand", "urn"], shelf: Shelf
) -> tuple[Standing, str]:
    match on:
        case "nothing":
            return replace(_raised(piece, None), insert=None), "Stand it by itself"
        case "cylinder":
            return replace(_raised(piece, USUAL.cylinder), insert=None), "Raise it on a cylinder"
        case "stand":
            return replace(_raised(piece, USUAL.stand), insert=None), "Raise it on a stand"
        case "urn":
            outer = _urn_for(piece.vessel, shelf)
            lower = _raised(piece, None)
            high = max(lower.envelope.height_m, outer.rim_m + OVER_URN_M)
            return (
                replace(
                    lower,
                    insert=Insert(outer=outer, drop_m=INSERT_DROP_M),
                    envelope=replace(lower.envelope, height_m=round(high, 3)),
                ),
                "Set it into an urn",
            )


def _on_stand(piece: Standing, key: str, shelf: Shelf) -> tuple[Standing, str]:
    stand = shelf.stands.get(key)
    if stand is None:
        raise UnknownName(
            path="stand",
            message=phrase("No stand in the stores is called “{key}”.", key=key),
            limit=phrase("Choose one from the stores."),
        )
    if piece.support is None:
        raise InvalidMeasure(
            path="support",
            message=phrase("This piece stands by itself."),
            limit=phrase("Raise it on a stand first."),
        )
    was = piece.support
    support = replace(support_of(stand), water_l=was.water_l, putty=was.putty, ridge=stand.ridge and not was.putty)
    return _raised(piece, support), worded("Take {stand}", stand=stand.name)


def _raised(piece: Standing, support: Support | None) -> Standing:
    """A piece on a support, or on none, its flowers as high over that as they were over the one before."""
    was = 0.0 if piece.support is None else piece.support.height_m
    now = 0.0 if support is None else support.height_m
    high = round(piece.envelope.height_m - was + now, 3)
    return replace(piece, support=support, envelope=replace(piece.envelope, height_m=high))


def _urn_for(vessel: Vessel, shelf: Shelf) -> Vessel:
    """The first vessel that is wider than one, a deep one where there is any. Raises InvalidMeasure: none is."""
    wider = [each for each in shelf.vessels.values() if each.mouth_width_m > vessel.mouth_width_m]
    deep = [each for each in wider if each.inside_depth_m > URN_FROM_M]
    found = next(iter(deep or wider), None)
    if found is None:
        raise InvalidMeasure(
            path="insert",
            message=phrase("No vessel of the stores is wider than this one."),
            limit=phrase("Measure an urn and keep it in the stores first."),
        )
    return found


def _vessel(shelf: Shelf, key: str) -> Vessel:
    vessel = shelf.vessels.get(key)
    if vessel is None:
        raise UnknownName(
            path="vessel",
            message=phrase("No vessel in the stores is called “{key}”.", key=key),
            limit=phrase("Choose one from the stores."),
        )
    return vessel
