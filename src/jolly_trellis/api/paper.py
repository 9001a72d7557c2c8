"""What a file about a paper of an event says of it: how it is called, what it waits for, what writes it."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import wraps
from inspect import signature
from typing import Any

from fastapi import APIRouter
from fastapi.params import Depends
from fastapi.responses import Response

from jolly_trellis.core.event.keys import free_key

router = APIRouter(prefix="/api/events/{event_id}", tags=["papers"])
_MEDIA = {
    "pdf": "application/pdf",
    "csv": "text/csv; charset=utf-8",
    "ics": "text/calendar; charset=utf-8",
    "html": "text/html; charset=utf-8",
    "json": "application/json",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Written:
    """A paper as it is written, and what its file is called after: the event's name, and what it is of that."""

    content: str | bytes
    event: str
    what: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class EventPaper:
    """A paper that an event has: its address under the event, what it is called, and what may be asked of it.

    The `title` is empty for one that is of something chosen on its own screen.
    """

    name: str
    title: str
    asks: tuple[str, ...]


PAPERS: dict[str, EventPaper] = {}


def paper(
    name: str, *, title: str = "", needs: Sequence[Depends] = (), ends: str = ""
) -> Callable[[Callable[..., Written]], Callable[..., Written]]:
    """Make a paper known by what writes it; what is asked of that in the address is asked of the paper.

    Args:
        name: its address under the event, with the ending of its file, which `ends` may make longer. needs: what is
            waited for first.
    """
    ending = name.rpartition(".")[2]

    def known(write: Callable[..., Written]) -> Callable[..., Written]:
        @wraps(write)
        def door(*args: Any, **asked: Any) -> Response:
            written = write(*args, **asked)
            file = f"{free_key(written.event, set())}{written.what and '-'}{written.what}.{ends or ending}"
            shown = "inline" if ending == "pdf" else "attachment"
            headers = {"Content-Disposition": f'{shown}; filename="{file}"'}
            return Response(written.content, media_type=_MEDIA[ending], headers=headers)

        router.add_api_route(
            f"/{name}", door, methods=["GET"], dependencies=list(needs), response_class=Response, response_model=None
        )
        asks = tuple(each for each in ("system", "paper") if each in signature(write).parameters)
        PAPERS[name] = EventPaper(name=name, title=title, asks=asks)
        return write

    return known
