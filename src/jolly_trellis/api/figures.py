"""The book of figures: every constant by topic, the studio's own in their places; newer figures for an event."""

import sqlite3
from typing import Annotated, Literal

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, Field

from jolly_trellis.api.answers import EventChange
from jolly_trellis.api.deps import Connection, Number
from jolly_trellis.api.event_answers import change_out
from jolly_trellis.api.models import BasedOn
from jolly_trellis.api.sent import In, Sent
from jolly_trellis.core.books.figures import Cautious, Constant, FigureBook, OwnFigure, Sort
from jolly_trellis.core.method import all_constants
from jolly_trellis.core.provenance import ProvenanceKind
from jolly_trellis.core.quantities import Quantity
from jolly_trellis.services import figures, newer_figures
from jolly_trellis.services.newer_figures import FigureChange, VerdictChange

router = APIRouter(prefix="/api", tags=["figures"])
Edition = Annotated[str, Field(min_length=16, max_length=16)]
FigureKey = Annotated[str, Field(min_length=1, max_length=200)]


class FigureOut(BaseModel):
    """One constant. `reason` is the studio's where the figure is its own; `least` and `most` bound such a figure."""

    key: str
    label: str
    quantity: Quantity
    built_in: Quantity
    sort: Sort
    spread: float
    cautious: Cautious
    least: Quantity
    most: Quantity
    owner: Literal["program", "studio"]
    provenance: ProvenanceKind
    source: str
    reason: str | None


class TopicOut(BaseModel):
    topic: str
    figures: list[FigureOut]


class BookOut(BaseModel):
    """The studio's book as it stands; `unused` are own figures this version has no use for, with their reasons."""

    edition: str
    topics: list[TopicOut]
    unused: dict[str, str]


class SetFigure(In):
    """A figure of the studio's own, in the unit of its kind, and why; `was`: the one that its window knew."""

    value: float
    reason: Annotated[str, Field(max_length=200)]
    was: Annotated[OwnFigure, Sent()] | None = None


class UnsetFigure(In):
    """`was`: the studio's own figure that its window knew."""

    was: Annotated[OwnFigure, Sent()] | None = None


class NewerOut(BaseModel):
    """What the studio's book as it stands would change in an event; `kept_at`: when its own edition was first used."""

    kept_at: str | None
    figures: list[FigureChange]
    verdicts: list[VerdictChange]


@router.get("/figures")
def get_figures(conn: Connection) -> BookOut:
    return _book_out(conn)


@router.put("/figures/{key}")
def set_figure(key: FigureKey, body: SetFigure, conn: Connection) -> BookOut:
    """Set a figure of the studio's own; events keep the figures they were planned with until they take the newer."""
    figures.set_own(conn, key, OwnFigure(value=body.value, reason=body.reason), body.was)
    return _book_out(conn)


@router.delete("/figures/{key}")
def unset_figure(key: FigureKey, body: UnsetFigure, conn: Connection) -> BookOut:
    """Go back to the program's figure."""
    figures.unset_own(conn, key, body.was)
    return _book_out(conn)


@router.get("/events/{event_id}/newer-figures")
def get_newer(event_id: Number, conn: Connection) -> NewerOut:
    """What taking the newer figures would change in an event, verdicts that get worse first."""
    found = newer_figures.newer(conn, event_id)
    return NewerOut(
        kept_at=newer_figures.planned_since(conn, event_id),
        figures=list(found.figures),
        verdicts=list(found.verdicts),
    )


@router.post("/events/{event_id}/newer-figures", response_model=EventChange)
def take_newer(event_id: Number, body: BasedOn, conn: Connection) -> Response:
    """Plan the event with the newer figures from now on, as one step that can be undone."""
    state = newer_figures.take(conn, event_id, base_revision=body.base_revision)
    return change_out(conn, state, body.base_revision)


def _book_out(conn: sqlite3.Connection) -> BookOut:
    book = figures.current(conn)
    topics = [
        TopicOut(topic=topic, figures=[_figure_out(each, book) for each in constants])
        for topic, constants in all_constants()
    ]
    return BookOut(
        edition=book.edition,
        topics=topics,
        unused={each.key: each.own.reason for each in figures.unused(conn)},
    )


def _figure_out(constant: Constant, book: FigureBook) -> FigureOut:
    least, most = (Quantity(kind=constant.kind, value=each) for each in constant.bounds)
    own, provenance = book.own.get(constant.key), book.provenance_of(constant)
    return FigureOut(
        key=constant.key,
        label=constant.label,
        quantity=Quantity(kind=constant.kind, value=book.values[constant.key]),
        built_in=Quantity(kind=constant.kind, value=constant.built_in),
        sort=constant.sort,
        spread=constant.spread,
        cautious=constant.cautious,
        least=least,
        most=most,
        owner="program" if own is None else "studio",
        provenance=provenance.kind,
        source=provenance.source,
        reason=None if own is None else own.reason,
    )
