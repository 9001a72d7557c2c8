"""The event file: the whole event as one JSON text with a version, read strictly and written back the same."""

import json
from collections import Counter
from collections.abc import Callable
from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from jolly_trellis import __version__
from jolly_trellis.api.sent import In, Sent
from jolly_trellis.core.books.figures import FigureBook, read_book
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.parts import AnyPart
from jolly_trellis.core.method import CONSTANTS
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging.survey import Survey, SurveyBeam, SurveyPoint
from jolly_trellis.store import codec
from jolly_trellis.store.migrating import piece_of_now, rig_of_now
from jolly_trellis.store.plan import MOST_PARTS, Brief, Plan, Planned
from jolly_trellis.store.rewriting import Places, with_passage

FORMAT = "jolly-trellis-event"
VERSION = 4
PartNumber = Annotated[int, Field(ge=1, le=1_000_000)]
FigureKey = Annotated[str, Field(min_length=1, max_length=200)]


def _number(value: Any) -> Any:
    """A version is a whole number: true, which equals 1, is none."""
    if isinstance(value, bool):
        raise ValueError("a version is a number")
    return value


class FilePart(In):
    id: PartNumber
    part: Annotated[AnyPart, Sent()]


class FileFigures(In):
    """The book of figures an event was planned with: numbers by key, and a studio's reasons for its own."""

    values: Annotated[dict[FigureKey, float], Field(max_length=2000)]
    own: Annotated[dict[FigureKey, Annotated[str, Field(max_length=200)]], Field(max_length=2000)] = Field(
        default_factory=dict
    )


class FileRoom(In):
    """How large the room of the survey is, m; null is not known."""

    width_m: float | None = None
    depth_m: float | None = None
    height_m: float | None = None


class EventFile(In):
    """One event: what is known of the job, what it is made of, the survey of its place, its figures.

    `survey` are the hang points of the place, `beams` what they hang from, `room` how large it is.
    """

    format: Literal["jolly-trellis-event"]
    version: Annotated[Literal[4], BeforeValidator(_number)]
    written_by: Annotated[str, Field(max_length=40)] = ""
    brief: Annotated[Brief, Sent()]
    parts: Annotated[list[FilePart], Field(max_length=MOST_PARTS)]
    survey: Annotated[list[Annotated[SurveyPoint, Sent()]], Field(max_length=200)]
    beams: Annotated[list[Annotated[SurveyBeam, Sent()]], Field(max_length=60)] = Field(default_factory=list)
    room: FileRoom = Field(default_factory=FileRoom)
    figures: FileFigures | None = None

    def to_core(self) -> tuple[Plan, Survey, FigureBook | None]:
        """The plan, the survey, and the figures where the file has them.

        Raises InvalidMeasure: two pieces with one number, or a figure out of range.
        """
        numbers = Counter(each.id for each in self.parts)
        twice = next((number for number, times in numbers.items() if times > 1), None)
        if twice is not None:
            raise InvalidMeasure(
                path="text",
                message=phrase("Two pieces of the file have the number {twice}.", twice=twice),
                limit=phrase("Give each its own."),
            )
        plan = Plan(
            brief=replace(self.brief, figures=""),
            parts=tuple(Planned(id=each.id, part=each.part) for each in self.parts),
        )
        try:
            book = None if self.figures is None else read_book(CONSTANTS, self.figures.values, self.figures.own)
        except InvalidMeasure as problem:
            raise InvalidMeasure(path="text", message=problem.message, limit=problem.limit) from None
        survey = Survey(
            points=tuple(self.survey),
            beams=tuple(self.beams),
            room_width_m=self.room.width_m,
            room_depth_m=self.room.depth_m,
            room_height_m=self.room.height_m,
        )
        return plan, survey, book


def write_file(plan: Plan, survey: Survey, book: FigureBook | None = None) -> str:
    """A whole event as text, indented so that it can be read and compared.

    Args:
        book: the figures it is planned with; None leaves them out.
    """
    plain, there = codec.to_plain(plan), codec.to_plain(survey)
    plain["brief"] = {**plain["brief"], "place_key": ""}  # elsewhere the place is the one that is called so
    if book is None:
        plain["brief"]["figures"] = ""
        own = {}
    else:
        reasons = {key: each.reason for key, each in book.own.items()}
        own = {"figures": {"values": dict(sorted(book.values.items())), "own": reasons}}
    return json.dumps(
        {
            "format": FORMAT,
            "version": VERSION,
            "written_by": __version__,
            **plain,
            "survey": there["points"],
            "beams": there["beams"],
            "room": {name: there[f"room_{name}"] for name in FileRoom.model_fields},
            **own,
        },
        ensure_ascii=False,
        allow_nan=False,
        indent=1,
    )


def check_version(plain: Any) -> None:
    """Raises InvalidMeasure: it is no event file, or one of a newer version."""
    if not isinstance(plain, dict) or plain.get("format") != FORMAT:
        raise InvalidMeasure(
            path="text",
            message=phrase("This is no event file: its format is not named."),
            limit=phrase("Choose a file that ends in .event.json."),
        )
    version = plain.get("version")
    if isinstance(version, int) and not isinstance(version, bool) and version > VERSION:
        raise InvalidMeasure(
            path="text",
            message=phrase(
                "This file is of version {version}, and this program reads up to {version2}.",
                version=version,
                version2=VERSION,
            ),
            limit=phrase("Nothing was taken in. Open it with a newer Jolly Trellis."),
        )


def in_this_version(plain: Any) -> Any:
    """The data of a file as this version has it.

    One of version 1 kept standing and hung work in two lists; up to version 2 what is worn was a bouquet, and points
    and beams were joined by name; up to version 3 a transport told where a piece is made.

    Returns: the data, as it is where it is none of an earlier version.
    Raises: InvalidMeasure: one of those is no list.
    """
    if not isinstance(plain, dict) or isinstance(plain.get("version"), bool):
        return plain
    if plain.get("version") == 1:
        plain = _in_one_list(plain)
    if plain.get("version") == 2:
        plain = _with_keys(plain)
    return _with_passages(plain) if plain.get("version") == 3 else plain


def _with_keys(plain: dict[str, Any]) -> dict[str, Any]:
    """A file of version 2 in version 3; what is damaged in it is left for the reader to find."""
    try:
        places = Places()
        survey = places.survey("", {"points": plain.get("survey", []), "beams": plain.get("beams", [])})
        parts = [{**each, "part": places.part(each["part"], "")} for each in plain["parts"]]
    except (AttributeError, KeyError, TypeError):
        return {**plain, "version": 3}
    return {**plain, "version": 3, "parts": parts, "survey": survey["points"], "beams": survey["beams"]}


def _with_passages(plain: dict[str, Any]) -> dict[str, Any]:
    """A file of version 3 in version 4; what is damaged in it is left for the reader to find."""
    try:
        parts = [{**each, "part": with_passage(each["part"])} for each in plain["parts"]]
    except (AttributeError, KeyError, TypeError):
        return {**plain, "version": VERSION}
    return {**plain, "version": VERSION, "parts": parts}


def _in_one_list(plain: dict[str, Any]) -> dict[str, Any]:
    """A file of version 1 in version 2. Raises InvalidMeasure: one of its lists is none."""
    rest = {key: value for key, value in plain.items() if key not in ("pieces", "rigs")}
    parts: list[Any] = []
    for kind, name, of_now in (("piece", "pieces", piece_of_now), ("rig", "rigs", rig_of_now)):
        listed = plain.get(name, [])
        if not isinstance(listed, list):
            raise InvalidMeasure(
                path="text",
                message=phrase("The file is damaged in {name}: that is no list.", name=name),
                limit=phrase("Nothing was taken in. Save the file again where it came from."),
            )
        parts += [_of_now(kind, each, of_now) for each in listed]
    return {**rest, "version": 2, "parts": parts}


def _of_now(kind: str, numbered: Any, of_now: Callable[[dict[str, Any]], dict[str, Any]]) -> Any:
    if not isinstance(numbered, dict) or not isinstance(numbered.get(kind), dict):
        return numbered
    rest = {key: value for key, value in numbered.items() if key != kind}
    return {**rest, "part": of_now(numbered[kind])}


def schema_of() -> dict[str, Any]:
    """The JSON Schema of the file."""
    schema = EventFile.model_json_schema()
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "$id": "event.schema.json", **schema}
