"""Whole events: as one file, from a file, as a copy of an old one; and the venue pack."""

import json
from typing import Annotated, Any

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, Field, ValidationError

from jolly_trellis.api.answers import EventOut, EventSummary
from jolly_trellis.api.bodies import MOST_FILE_BYTES
from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.event_answers import event_out, summary_of
from jolly_trellis.api.event_file import EventFile, check_version, in_this_version, schema_of
from jolly_trellis.api.problems import sentence_of, where_of
from jolly_trellis.api.sent import In
from jolly_trellis.core import ranges
from jolly_trellis.core.books.figures import FigureBook
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging.survey import Survey
from jolly_trellis.core.units import render
from jolly_trellis.services import planning, rigging
from jolly_trellis.services.conditions import check_brief
from jolly_trellis.store.plan import Plan

router = APIRouter(prefix="/api", tags=["event files"])


class ReadFile(In):
    text: Annotated[str, Field(min_length=1, max_length=MOST_FILE_BYTES)]


class FileRead(BaseModel):
    """An event read from a file; `survey_kept` tells that the studio's own survey of the place stayed as it was."""

    event: EventSummary
    survey_kept: bool


@router.get("/event-file.schema.json")
def event_schema() -> dict[str, Any]:
    """The JSON Schema of an event file."""
    return schema_of()


@router.post("/events/from-file", status_code=201)
def read_event(body: ReadFile, conn: Connection) -> FileRead:
    """Begin an event from a file. A damaged or newer file says which part, and nothing is taken in."""
    plan, survey, book = _read(body.text)
    check_brief(plan.brief)
    event, kept = rigging.begin_with_survey(conn, plan, survey, book)
    return FileRead(event=summary_of(conn, event.id), survey_kept=kept)


@router.post("/events/{event_id}/copy", status_code=201, response_model=EventOut)
def copy_event(event_id: Number, conn: Connection) -> Response:
    """A new event with the pieces and ways of an old one, its times left open."""
    return event_out(conn, planning.copy_event(conn, event_id), status=201)


def _read(text: str) -> tuple[Plan, Survey, FigureBook | None]:
    """A file's plan, survey, figures. Raises InvalidMeasure: it is damaged, newer, or holds what is out of range."""
    try:
        plain = json.loads(text)
    except json.JSONDecodeError as problem:
        raise _refused(
            "The file is damaged at line {line}, column {column}.", line=problem.lineno, column=problem.colno
        ) from None
    except RecursionError:
        raise _refused("The file is damaged: it is nested without end.") from None
    except ValueError:
        raise _refused("The file is damaged: it holds a number that nobody could have typed.") from None
    check_version(plain)
    try:
        plan, survey, book = EventFile.model_validate(in_this_version(plain)).to_core()
    except ValidationError as problem:
        where, sentence = sentence_of(problem.errors()[0])
        raise _refused("The file is damaged in {where}: {said}", where=where, said=sentence) from None
    for part, path in ((plan, ""), (survey, "survey")):
        wrong = next(ranges.outside(part, path), None)
        if wrong is not None:
            said = f"{render(wrong.message, 'metric')} {render(wrong.limit, 'metric')}"
            raise _refused("The file is damaged in {where}: {said}", where=where_of(wrong.path.split(".")), said=said)
    return plan, survey, book


def _refused(message: str, **names: str | int) -> InvalidMeasure:
    return InvalidMeasure(
        path="text",
        message=phrase(message, **names),
        limit=phrase("Nothing was taken in. Save the file again where it came from."),
    )
