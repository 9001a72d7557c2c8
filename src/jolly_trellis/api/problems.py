"""Turning what went wrong into one clear sentence beside the place where it was typed."""

from collections.abc import Mapping, Sequence
from typing import Any

from fastapi import FastAPI, Request
from fastapi.encoders import jsonable_encoder
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from jolly_trellis.catalog.cells import BadTable
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.quantities import Phrase, Quantity
from jolly_trellis.core.units import render
from jolly_trellis.services.planning import NotFound, NothingToDo, Stale

MOST_BODY_BYTES = 1_000_000
MOST_FILE_BYTES = 40_000_000
LARGE = ("/api/events/from-file",)
_LABELS = {
    "height_m": "The height",
    "width_m": "The width",
    "depth_m": "The depth",
    "layers": "The number of layers",
    "layer_gap_m": "The gap between layers",
    "count": "The number of stems",
    "clump": "The clump",
    "mass_kg": "The weight",
    "ballast_kg": "The ballast",
    "water_level_m": "The water level",
    "foot_width_m": "The width of the foot",
    "foot_depth_m": "The depth of the foot",
    "wall_m": "The wall",
    "base_m": "The base",
    "quantity": "The quantity",
    "name": "The name",
    "temperature_c": "The temperature",
    "relative_humidity": "The humidity",
    "free_table_m": "The bare table",
    "tape_strips": "The number of tape strips",
    "after_h": "The time of the top-up",
    "volume_l": "The volume of the top-up",
    "recipe": "The recipe",
    "profile": "The profile",
    "base_revision": "The revision",
}
_KINDS = {"_m": "length", "_kg": "mass", "_l": "volume", "_h": "duration", "_c": "temperature"}


def body_of(*, code: str, path: str, message: Any, limit: Any) -> dict[str, Any]:
    """A problem as JSON; plain strings become sentences without quantities."""

    def sentence(value: Any) -> Any:
        return {"text": value, "quantities": {}} if isinstance(value, str) else jsonable_encoder(value)

    return {"code": code, "path": path, "message": sentence(message), "limit": sentence(limit)}


def install(app: FastAPI) -> None:
    """Give the application its handlers: nothing a person does ends in a stack trace."""

    @app.exception_handler(CoreError)
    def _core(_: Request, problem: CoreError) -> JSONResponse:
        body = body_of(code=problem.code, path=problem.path, message=problem.message, limit=problem.limit)
        return JSONResponse(body, status_code=422)

    @app.exception_handler(RequestValidationError)
    def _request(_: Request, problem: RequestValidationError) -> JSONResponse:
        return JSONResponse(_from_pydantic(problem.errors()), status_code=422)

    @app.exception_handler(Stale)
    def _stale(_: Request, problem: Stale) -> JSONResponse:
        body = body_of(
            code="stale",
            path="",
            message="This plan was changed in another window meanwhile.",
            limit="Keep yours over it, or take the other.",
        )
        differences = jsonable_encoder([_plain(each) for each in problem.differences])
        return JSONResponse(body | {"revision": problem.revision, "differences": differences}, status_code=409)

    @app.exception_handler(NotFound)
    def _missing(_: Request, problem: NotFound) -> JSONResponse:
        body = body_of(code="not_found", path="", message="That is no longer here.", limit="Go back to the line-up.")
        return JSONResponse(body, status_code=404)

    @app.exception_handler(BadTable)
    def _table(_: Request, problem: BadTable) -> JSONResponse:
        return JSONResponse(body_of(code="table", path="text", message=str(problem), limit=""), status_code=422)

    @app.exception_handler(NothingToDo)
    def _nothing(_: Request, problem: NothingToDo) -> JSONResponse:
        return JSONResponse(body_of(code="nothing", path="", message=str(problem), limit=""), status_code=409)


class BodyLimit:
    """Refuses bodies over a megabyte, however they are sent; event files, and tables of plans, may be larger."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        most = MOST_FILE_BYTES if scope["path"] in LARGE else MOST_BODY_BYTES
        declared = dict(scope["headers"]).get(b"content-length", b"0")
        if not declared.isdigit() or len(declared) > 12 or int(declared) > most:
            await _refuse(scope, receive, send)
            return
        parts, size, more = [], 0, True
        while more:
            message = await receive()
            if message["type"] != "http.request":
                break
            parts.append(message.get("body", b""))
            size += len(parts[-1])
            more = message.get("more_body", False)
            if size > most:
                await _refuse(scope, receive, send)
                return
        body, given = b"".join(parts), False

        async def replay() -> Message:
            nonlocal given
            if given:
                return await receive()
            given = True
            return {"type": "http.request", "body": body, "more_body": False}

        await self.app(scope, replay, send)


async def _refuse(scope: Scope, receive: Receive, send: Send) -> None:
    body = body_of(
        code="too_large",
        path="",
        message="That is more than the program takes in at once.",
        limit="A plan is a few kilobytes, an event file at most forty megabytes; nothing was saved.",
    )
    await JSONResponse(body, status_code=413)(scope, receive, send)


def _plain(difference: Any) -> Mapping[str, Any]:
    return {"path": difference.path, "was": difference.was, "now": difference.now}


def _from_pydantic(errors: Sequence[Any]) -> dict[str, Any]:
    """The first of Pydantic's findings as a sentence."""
    first = errors[0]
    where = [str(part) for part in first["loc"] if part not in ("body", "piece", "brief", "rig")]
    field = next((part for part in reversed(where) if not part.isdigit()), "")
    label = _LABELS.get(field, f"“{field.replace('_', ' ')}”" if field else "What was sent")
    message, limit = _sentence(first, label, field)
    return body_of(code="measure", path=".".join(where), message=message, limit=limit)


def sentence_of(finding: Any) -> tuple[str, str]:
    """Where one of Pydantic's findings lies, in words, and what is wrong there with what would be right."""
    where = where_of(finding["loc"])
    field = next((str(part) for part in reversed(finding["loc"]) if not isinstance(part, int)), "")
    label = _LABELS.get(field, f"“{field.replace('_', ' ')}”" if field else "What was sent")
    texts = []
    for each in _sentence(finding, label, field):
        plain: dict[str, Any] = {"text": each, "quantities": {}} if isinstance(each, str) else each
        said = Phrase(
            text=plain["text"],
            quantities={name: Quantity(**value) for name, value in plain["quantities"].items()},
        )
        texts.append(render(said, "metric"))
    return where, " ".join(texts)


def where_of(path: Sequence[str | int]) -> str:
    """A path in words: ("pieces", 0, "name") is “pieces, no. 1, name”."""
    return ", ".join(f"no. {int(part) + 1}" if str(part).isdigit() else str(part).replace("_", " ") for part in path)


def _sentence(finding: Any, label: str, field: str) -> tuple[Any, Any]:
    bounds = finding.get("ctx", {})
    match finding["type"]:
        case "greater_than":
            return f"{label} is too small.", _bound("Give more than {bound}.", bounds["gt"], field)
        case "greater_than_equal":
            return f"{label} is too small.", _bound("Give at least {bound}.", bounds["ge"], field)
        case "less_than_equal":
            return f"{label} is too large.", _bound("Give at most {bound}.", bounds["le"], field)
        case "finite_number" | "float_type" | "float_parsing" | "int_type" | "int_parsing" | "int_from_float":
            return f"{label} is not a number that can be used.", "Type a number, such as 24."
        case "missing":
            return f"{label} is missing.", "Give it."
        case "string_too_short":
            return f"{label} is empty.", "Type at least one character."
        case "string_too_long" | "too_long":
            return f"{label} is too long.", f"Give at most {bounds.get('max_length', 'a few')}."
        case "too_short":
            return f"{label} is too short.", f"Give at least {bounds.get('min_length', 1)}."
        case "literal_error":
            return f"{label} is not one of the choices.", f"Choose {bounds.get('expected', 'another')}."
        case "extra_forbidden":
            return f"{label} is not known here.", "Take it out."
        case _:
            return f"{label} cannot be read.", "Send a plan as the application writes it."


def _bound(text: str, bound: float, field: str) -> Any:
    kind = next((kind for ending, kind in _KINDS.items() if field.endswith(ending)), None)
    if kind is None:
        return text.replace("{bound}", f"{bound:g}")
    return {"text": text, "quantities": {"bound": {"kind": kind, "value": float(bound)}}}
