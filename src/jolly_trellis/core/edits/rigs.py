"""Edits of hung work: points, lines and places come and go, a path is drawn anew; each gives a new rig."""

import itertools
import math
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from jolly_trellis.core.edits.usual import (
    BESIDE_M,
    BOND_BESIDE_M,
    HANG_OVER_M,
    LEAST_HIGH_M,
    LEVEL_M,
    PATH_SLACK,
    PLACE_APART_M,
    TIE_OVER_M,
)
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.starting.usual import USUAL
from jolly_trellis.core.quantities import phrase, worded
from jolly_trellis.core.ranges import Many, Range, Text
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.rig import Attachment, HangPoint, Rig, RigLine
from jolly_trellis.core.rigging.survey import Survey


@dataclass(frozen=True, slots=True, kw_only=True)
class Place:
    """A place of a path that is drawn: right, back and up, m."""

    x_m: Annotated[float, Range("length", -60, 60)]
    y_m: Annotated[float, Range("length", -60, 60)]
    z_m: Annotated[float, Range("length", 0, 60)]


@dataclass(frozen=True, slots=True, kw_only=True)
class AddPoint:
    """Another hang point in the widest gap, with a line of its own down to the armature; or one of the survey."""

    kind: Literal["add point"] = "add point"
    surveyed: Annotated[str | None, Text(120, least=1)] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class RemovePoint:
    """A hang point goes, and the lines that lead to it."""

    kind: Literal["remove point"] = "remove point"
    point: Annotated[int, Range("count", 0, 400)]


@dataclass(frozen=True, slots=True, kw_only=True)
class AddLine:
    """One more line from the last hang point to the first place, to be led elsewhere."""

    kind: Literal["add line"] = "add line"


@dataclass(frozen=True, slots=True, kw_only=True)
class RemoveLine:
    """A line goes; a place that nothing leads to any more goes with it, but for that of a run."""

    kind: Literal["remove line"] = "remove line"
    line: Annotated[int, Range("count", 0, 400)]


@dataclass(frozen=True, slots=True, kw_only=True)
class AddPlace:
    """One more place of the armature, to the right of the last."""

    kind: Literal["add place"] = "add place"


@dataclass(frozen=True, slots=True, kw_only=True)
class RemovePlace:
    """A place of the armature goes, and the lines that lead to it."""

    kind: Literal["remove place"] = "remove place"
    place: Annotated[int, Range("count", 0, 400)]


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawPath:
    """A path drawn or typed anew: its places in order; what led to the old ones goes."""

    kind: Literal["draw path"] = "draw path"
    places: Annotated[tuple[Place, ...], Many(400, least=1)]


@dataclass(frozen=True, slots=True, kw_only=True)
class HoldPlaces:
    """Every place that nothing holds gets a hang point over it, with a line; tied work is tied where it is."""

    kind: Literal["hold places"] = "hold places"


@dataclass(frozen=True, slots=True, kw_only=True)
class BondPoint:
    """The second bond leads to a new hang point of its own."""

    kind: Literal["bond point"] = "bond point"


RigEdit = AddPoint | RemovePoint | AddLine | RemoveLine | AddPlace | RemovePlace | DrawPath | HoldPlaces | BondPoint


def edit_rig(rig: Rig, edit: RigEdit, survey: Survey) -> tuple[Rig, str]:
    """The rig after an edit, and what the edit is called.

    Raises: InvalidMeasure: it has no such point, line or place, or the survey none of that name.
    """
    match edit:
        case AddPoint(surveyed=None):
            return _with_point(rig), "Add a hang point"
        case AddPoint(surveyed=key):
            return _with_surveyed(rig, str(key), survey)
        case RemovePoint(point=index):
            _known(index, len(rig.points), "point", "hang point")
            return _without_point(rig, index), worded("Remove {point}", point=rig.points[index].name)
        case AddLine():
            return _with_line(rig), "Add a line"
        case RemoveLine(line=index):
            _known(index, len(rig.lines), "line", "line")
            lines = tuple(each for at, each in enumerate(rig.lines) if at != index)
            return _cleared(replace(rig, lines=lines)), "Remove a line"
        case AddPlace():
            return _with_place(rig), "Add a place of the armature"
        case RemovePlace(place=index):
            _known(index, len(rig.attachments), "place", "place")
            return _without_place(rig, index), worded("Remove place {n}", n=index + 1)
        case DrawPath(places=places):
            return _with_path(rig, places), "Draw the path"
        case HoldPlaces():
            return _every_place_held(rig), "Tie every place" if rig.is_tied else "Hang every place"
        case BondPoint():
            return _bonded(rig), "A point for the second bond"


def _known(index: int, number: int, path: str, what: str) -> None:
    if not 0 <= index < number:
        raise InvalidMeasure(
            path=path,
            message=phrase("There is no {what} {n}.", what=what, n=index + 1),
            limit=phrase("It has {number} of them.", number=number),
        )


def _free_name(rig: Rig, kind: str = "point") -> str:
    taken = {each.name for each in rig.points}
    number = len(rig.points) + 1
    while f"{kind} {number}" in taken:
        number += 1
    return f"{kind} {number}"


def _mean(*values: float) -> float:
    return round(sum(values) / len(values), 3) if values else 0.0


def _with_point(rig: Rig) -> Rig:
    ordered = sorted(rig.points, key=lambda each: each.x_m)
    if not ordered:
        held = rig.attachments[0] if rig.attachments else Attachment(x_m=0.0, y_m=0.0, z_m=LEVEL_M)
        high = held.z_m + HANG_OVER_M
        point = HangPoint(name=_free_name(rig), kind="beam loop", x_m=held.x_m, y_m=held.y_m, z_m=high)
        return _with_line_down(rig, point)
    gaps = list(itertools.pairwise(ordered)) or [(ordered[0], ordered[0])]
    one, other = max(gaps, key=lambda pair: pair[1].x_m - pair[0].x_m)
    point = HangPoint(
        name=_free_name(rig),
        kind=one.kind,
        x_m=one.x_m + BESIDE_M if one is other else _mean(one.x_m, other.x_m),
        y_m=_mean(one.y_m, other.y_m),
        z_m=_mean(one.z_m, other.z_m),
    )
    return _with_line_down(rig, point)


def _with_surveyed(rig: Rig, key: str, survey: Survey) -> tuple[Rig, str]:
    found = next((each for each in survey.points if each.key == key), None)
    if found is None:
        raise InvalidMeasure(
            path="surveyed",
            message=phrase("The survey has no point “{key}”.", key=key),
            limit=phrase("Choose one that it has."),
        )
    if any(each.surveyed == key for each in rig.points):
        raise InvalidMeasure(
            path="surveyed",
            message=phrase("It hangs from “{name}” already.", name=found.name),
            limit=phrase("Add a line there, or choose another point."),
        )
    point = HangPoint(name=found.name, kind=found.kind, x_m=found.x_m, y_m=found.y_m, z_m=found.z_m, surveyed=key)
    return _with_line_down(rig, point), worded("Hang it from {point}", point=found.name)


def _with_line_down(rig: Rig, point: HangPoint) -> Rig:
    """A hang point with its line down to a place under it, which lies in the run where it is along it."""
    lows = [each.z_m for each in rig.attachments]
    low = sum(lows) / len(lows) if lows else max(point.z_m - HANG_OVER_M, LEAST_HIGH_M)
    held = Attachment(x_m=point.x_m, y_m=point.y_m, z_m=low)
    places = list(rig.attachments)
    at = next((nth for nth, each in enumerate(places) if rig.is_run and each.x_m > held.x_m), len(places))

    def after(index: int) -> int:
        return index + 1 if index >= at else index

    moved = tuple(
        replace(
            each,
            attachment=after(each.attachment),
            tied_to=None if each.tied_to is None else after(each.tied_to),
        )
        for each in rig.lines
    )
    spec = rig.lines[0].spec if rig.lines else USUAL.hanger
    return replace(
        rig,
        points=(*rig.points, point),
        attachments=tuple(replace(each, along_m=None) for each in (*places[:at], held, *places[at:])),
        lines=(*moved, RigLine(point=len(rig.points), attachment=at, spec=spec)),
    )


def _with_line(rig: Rig) -> Rig:
    if not rig.points or not rig.attachments:
        raise InvalidMeasure(
            path="lines",
            message=phrase("A line leads from a hang point to a place, and one of them is not there yet."),
            limit=phrase("Add a hang point with its line."),
        )
    spec = rig.lines[-1].spec if rig.lines else USUAL.hanger
    return replace(rig, lines=(*rig.lines, RigLine(point=len(rig.points) - 1, attachment=0, spec=spec)))


def _without_point(rig: Rig, index: int) -> Rig:
    def after(point: int | None) -> int | None:
        return point - 1 if point is not None and point > index else point

    bond = rig.bond
    if bond is not None:
        bond = replace(bond, point=None if bond.point == index else after(bond.point))
    lines = tuple(replace(each, point=after(each.point)) for each in rig.lines if each.point != index)
    points = tuple(each for at, each in enumerate(rig.points) if at != index)
    return _cleared(replace(rig, points=points, bond=bond, lines=lines))


def _with_place(rig: Rig) -> Rig:
    last = rig.attachments[-1] if rig.attachments else Attachment(x_m=-PLACE_APART_M, y_m=0.0, z_m=LEVEL_M)
    place = Attachment(x_m=last.x_m + PLACE_APART_M, y_m=last.y_m, z_m=last.z_m)
    # the places of a run are shared out along it anew
    others = tuple(replace(each, along_m=None) if rig.is_run else each for each in rig.attachments)
    return replace(rig, attachments=(*others, place))


def _without_place(rig: Rig, index: int) -> Rig:
    def after(place: int) -> int:
        return place - 1 if place > index else place

    return replace(
        rig,
        attachments=tuple(replace(each, along_m=None) for at, each in enumerate(rig.attachments) if at != index),
        lines=tuple(
            replace(
                each,
                attachment=after(each.attachment),
                tied_to=None if each.tied_to is None else after(each.tied_to),
            )
            for each in rig.lines
            if index not in (each.attachment, each.tied_to)
        ),
    )


def _cleared(rig: Rig) -> Rig:
    """Without the places that nothing leads to; those of a run are its path, and stay."""
    if rig.is_run:
        return rig
    led_to = {each.attachment for each in rig.lines} | {each.tied_to for each in rig.lines}
    kept = [at for at in range(len(rig.attachments)) if at in led_to]
    now = {was: at for at, was in enumerate(kept)}
    return replace(
        rig,
        attachments=tuple(rig.attachments[at] for at in kept),
        lines=tuple(
            replace(
                each,
                attachment=now[each.attachment],
                tied_to=None if each.tied_to is None else now[each.tied_to],
            )
            for each in rig.lines
        ),
    )


def _with_path(rig: Rig, places: tuple[Place, ...]) -> Rig:
    way = sum(
        math.dist((one.x_m, one.y_m, one.z_m), (other.x_m, other.y_m, other.z_m))
        for one, other in itertools.pairwise(places)
    )
    bond, points = rig.bond, rig.points
    kept = () if bond is None or bond.point is None else (points[bond.point],)
    length_m = max(math.ceil(way * PATH_SLACK * 100 - 1e-9) / 100, LEAST_HIGH_M)
    return replace(
        rig,
        attachments=tuple(Attachment(x_m=each.x_m, y_m=each.y_m, z_m=each.z_m) for each in places),
        lines=(),
        points=kept,
        bond=None if bond is None else replace(bond, point=0 if kept else None),
        armature=replace(rig.armature, length_m=length_m),
    )


def _every_place_held(rig: Rig) -> Rig:
    tied = rig.is_tied
    spec: LineSpec = USUAL.tie if tied else USUAL.hanger
    high = max([*(each.z_m for each in rig.points), *(each.z_m + HANG_OVER_M for each in rig.attachments)], default=0)
    held = {each.attachment for each in rig.lines} | {each.tied_to for each in rig.lines}
    found = rig
    for at, place in enumerate(rig.attachments):
        if at in held:
            continue
        point = HangPoint(
            name=_free_name(found),
            kind="frame member" if tied else "beam loop",
            x_m=place.x_m,
            y_m=place.y_m,
            z_m=place.z_m + TIE_OVER_M if tied else high,
        )
        line = RigLine(point=len(found.points), attachment=at, spec=spec)
        found = replace(found, points=(*found.points, point), lines=(*found.lines, line))
    return found


def _bonded(rig: Rig) -> Rig:
    point = HangPoint(
        name="bond point" if all(each.name != "bond point" for each in rig.points) else _free_name(rig, "bond point"),
        kind="beam loop",
        x_m=_mean(*(each.x_m for each in rig.points)),
        y_m=_mean(*(each.y_m for each in rig.points)) + BOND_BESIDE_M,
        z_m=max([LEVEL_M, *(each.z_m for each in rig.points)]),
    )
    bond = replace(rig.bond or USUAL.bond, point=len(rig.points))
    return replace(rig, points=(*rig.points, point), bond=bond)
