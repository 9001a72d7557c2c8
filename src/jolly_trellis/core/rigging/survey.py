"""The survey of a place: its hang points and fixings, what each may carry and who says so, for every piece there."""

from dataclasses import dataclass, replace
from typing import Annotated

from jolly_trellis.core import ranges
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.ranges import Many, Range, Text
from jolly_trellis.core.rigging.hang_points import POINTS, HangKind
from jolly_trellis.core.rigging.rig import HangPoint, Rig
from jolly_trellis.core.rigging.stated import unstated


@dataclass(frozen=True, slots=True, kw_only=True)
class SurveyPoint:
    """One hang point of a place: its kind, where it is (m right, back and up of the middle of the floor), its ratings.

    Ratings as in HangPoint, in newtons; `note` is whatever else is to be asked or said of it. `key` is what pieces
    know it by, empty until it is kept; `beam` is the key of the beam it is on.
    """

    name: Annotated[str, Text(120, least=1)]
    kind: HangKind
    x_m: Annotated[float, Range("length", -60, 60)]
    y_m: Annotated[float, Range("length", -60, 60)]
    z_m: Annotated[float, Range("length", 0, 60)]
    rating_n: Annotated[float | None, Range("force", 0, 1000000)] = None
    pull_out_n: Annotated[float | None, Range("force", 0, 1000000)] = None
    rated_within_rad: Annotated[float | None, Range("angle", 0, 1.5708)] = None
    stated_by: Annotated[str | None, Text(120, least=1)] = None
    stated_on: Annotated[str | None, Text(20, least=1)] = None
    made_for: Annotated[str | None, Text(120, least=1)] = None
    note: Annotated[str, Text(400, lines=True)] = ""
    beam: Annotated[str | None, Text(120, least=1)] = None
    key: Annotated[str, Text(60)] = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class SurveyBeam:
    """A beam or truss of a place: what it may carry in all, N, who states that and when; `key` as of a point."""

    name: Annotated[str, Text(120, least=1)]
    rating_n: Annotated[float | None, Range("force", 0, 10000000, above=True)] = None
    stated_by: Annotated[str | None, Text(120, least=1)] = None
    stated_on: Annotated[str | None, Text(20, least=1)] = None
    key: Annotated[str, Text(60)] = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Survey:
    """What is known of a place that pieces are hung in: its points and beams, and how large its room is; None is not
    known.
    """

    points: Annotated[tuple[SurveyPoint, ...], Many(200)] = ()
    room_width_m: Annotated[float | None, Range("length", 0, 200, above=True)] = None
    room_depth_m: Annotated[float | None, Range("length", 0, 200, above=True)] = None
    room_height_m: Annotated[float | None, Range("length", 0, 60, above=True)] = None
    beams: Annotated[tuple[SurveyBeam, ...], Many(60)] = ()


def check(survey: Survey) -> None:
    """Refuse a survey with two points of one name, or a rating of nothing. Raises InvalidMeasure."""
    ranges.check(survey)
    beams = [each.name for each in survey.beams]
    for index, name in enumerate(beams):
        if name in beams[:index]:
            raise InvalidMeasure(
                path=f"beams.{index}.name",
                message=phrase("Two beams are called {name}.", name=name),
                limit=phrase("Give each a name of its own: people ask for it by that."),
            )
    names: set[str] = set()
    for index, point in enumerate(survey.points):
        if point.name in names:
            raise InvalidMeasure(
                path=f"points.{index}.name",
                message=phrase("Two points are called {point}.", point=point.name),
                limit=phrase("Give each a name of its own: people ask for it by that."),
            )
        names.add(point.name)
        for field in ("rating_n", "pull_out_n"):
            stated: float | None = getattr(point, field)
            if stated is not None and not stated > 0:
                raise InvalidMeasure(
                    path=f"points.{index}.{field}",
                    message=phrase("A rating of nothing holds nothing."),
                    limit=phrase("Give it, or leave it empty."),
                )


def unanswered(point: SurveyPoint) -> tuple[str, ...]:
    """What is still to be asked of a point; a point never to hang from has nothing to ask."""
    if POINTS[point.kind].never:
        return ()
    asked = []
    if point.rating_n is None:
        asked.append("what it may carry")
    if point.stated_by is None:
        asked.append("who states that")
    if point.stated_on is None:
        asked.append("when it was stated")
    if POINTS[point.kind].in_wall and point.pull_out_n is None:
        asked.append("what it bears straight out of the wall")
    if POINTS[point.kind].part and point.made_for is None:
        asked.append("what it was made for")
    return tuple(asked)


def in_place(rig: Rig, survey: Survey) -> Rig:
    """A rig with what the survey says of its points: a point of the survey has no rating but the survey's.

    One that is not in the survey any more, or that has a question unanswered, has none.

    Raises: InvalidMeasure: its frame is larger than the room.
    """
    _check_room(rig, survey)
    of = {point.key: point for point in survey.points}
    return replace(rig, points=tuple(_surveyed(point, of) for point in rig.points))


def _check_room(rig: Rig, survey: Survey) -> None:
    """Refuse a frame or stand that does not go into the room. Raises InvalidMeasure."""
    mount = rig.mount
    if mount is None or mount.kind not in ("frame", "stand"):
        return
    across = max((each for each in (survey.room_width_m, survey.room_depth_m) if each is not None), default=None)
    for path, words, size, room in (
        ("mount.height_m", "high", mount.height_m, survey.room_height_m),
        ("mount.width_m", "wide", mount.width_m, across),
    ):
        if room is not None and size > room:
            raise InvalidMeasure(
                path=path,
                message=phrase(
                    "The {kind} is {size} {words}; the room is {room}.",
                    kind=mount.kind,
                    size=length(size),
                    words=words,
                    room=length(room),
                ),
                limit=phrase("Take one of up to {room}, or measure the room again in the survey.", room=length(room)),
            )


def _surveyed(point: HangPoint, of: dict[str, SurveyPoint]) -> HangPoint:
    if point.surveyed is None:
        return point
    found = of.get(point.surveyed)
    if found is None:
        return replace(unstated(point), surveyed=point.surveyed, elsewhere=point.elsewhere)
    open_ = bool(unanswered(found))
    return replace(
        point,
        kind=found.kind,
        rating_n=None if open_ else found.rating_n,
        pull_out_n=found.pull_out_n,
        rated_within_rad=found.rated_within_rad,
        stated_by=found.stated_by,
        stated_on=found.stated_on,
        made_for=found.made_for,
        beam=found.beam,
    )


def beam_of(survey: Survey, key: str) -> tuple[str, float | None]:
    """What a beam is called, and what it may carry in all, N.

    Where it is not in the survey it is called as its key, and may carry what is not known (None); so may one of which
    it is not stated by whom and when.
    """
    found = next((each for each in survey.beams if each.key == key), None)
    if found is None:
        return key, None
    return found.name, found.rating_n if found.stated_by and found.stated_on else None
