"""Turning what went wrong into one clear sentence beside the place where it was typed."""

import sqlite3
from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

from fastapi import FastAPI, Request
from fastapi.encoders import jsonable_encoder
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from jolly_trellis.api.bodies import body_of
from jolly_trellis.catalog.cells import BadTable
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.event.parts import KINDS
from jolly_trellis.core.quantities import Phrase, Quantity
from jolly_trellis.core.units import render
from jolly_trellis.core.wanted import NobodyWaits
from jolly_trellis.services.figures import NoSuchFigure
from jolly_trellis.services.gate import Stale
from jolly_trellis.services.planning import NotFound, NothingToDo
from jolly_trellis.store.connection import StoreError, in_words

_LABELS = {
    "height_m": "The height",
    "width_m": "The width",
    "depth_m": "The depth",
    "length_m": "The length",
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
_STATUS = {
    400: ("What was sent cannot be read.", "Send a plan as the application writes it."),
    404: ("No such address.", "Go back to the line-up."),
    405: ("That cannot be done at this address.", "Go back to the line-up."),
}
_GONE = 499  # of no standard, and nobody is there to read it
_OF_PARTS = ("piece", "part", *KINDS)
_NOT_TOLD = ("body", "brief", *_OF_PARTS)
_KINDS = {"_m": "length", "_kg": "mass", "_l": "volume", "_h": "duration", "_c": "temperature"}


def install(app: FastAPI) -> None:
    """Give the application its handlers: nothing a person does ends in a stack trace."""

    @app.exception_handler(CoreError)
    def _core(_: Request, problem: CoreError) -> JSONResponse:
        body = body_of(code=problem.code, path=problem.path, message=problem.message, limit=problem.limit)
        return JSONResponse(body, status_code=422)

    @app.exception_handler(NobodyWaits)
    def _unwanted(_: Request, problem: NobodyWaits) -> JSONResponse:
        body = body_of(code="unwanted", path="", message="Nobody waited for this any more.", limit="Ask again.")
        return JSONResponse(body, status_code=_GONE)

    @app.exception_handler(RequestValidationError)
    def _request(_: Request, problem: RequestValidationError) -> JSONResponse:
        return JSONResponse(_from_pydantic(problem.errors()), status_code=422)

    @app.exception_handler(Stale)
    def _stale(_: Request, problem: Stale) -> JSONResponse:
        body = body_of(
            code="stale",
            path="",
            message="This was changed in another window meanwhile.",
            limit="Keep yours over it, or take the other.",
        )
        told = {
            "revision": problem.revision,
            "differences": [asdict(each) for each in problem.differences],
            "both": [asdict(each) for each in problem.both],
        }
        return JSONResponse(body | jsonable_encoder(told), status_code=409)

    @app.exception_handler(NotFound)
    def _missing(_: Request, problem: NotFound) -> JSONResponse:
        body = body_of(code="not_found", path="", message="That is no longer here.", limit="Go back to the line-up.")
        return JSONResponse(body, status_code=404)

    @app.exception_handler(NoSuchFigure)
    def _no_figure(_: Request, problem: NoSuchFigure) -> JSONResponse:
        limit = "Choose one from the list of figures."
        body = body_of(code="not_found", path="key", message="There is no such figure.", limit=limit)
        return JSONResponse(body, status_code=404)

    @app.exception_handler(BadTable)
    def _table(_: Request, problem: BadTable) -> JSONResponse:
        return JSONResponse(body_of(code="table", path="text", message=str(problem), limit=""), status_code=422)

    @app.exception_handler(HTTPException)
    def _http(_: Request, problem: HTTPException) -> JSONResponse:
        message, limit = _STATUS.get(problem.status_code, ("That cannot be answered.", "Go back to the line-up."))
        body = body_of(code=f"http_{problem.status_code}", path="", message=message, limit=limit)
        return JSONResponse(body, status_code=problem.status_code, headers=problem.headers)

    @app.exception_handler(StoreError)
    def _copy(_: Request, problem: StoreError) -> JSONResponse:
        return JSONResponse(body_of(code="copy", path="", message=str(problem), limit=""), status_code=422)

    @app.exception_handler(sqlite3.Error)
    @app.exception_handler(OSError)
    def _unwritten(_: Request, problem: sqlite3.Error | OSError) -> JSONResponse:
        body = body_of(
            code="not_saved",
            path="",
            message=f"The data {in_words(problem)}.",
            limit="Nothing was saved of this; mend that and try again.",
        )
        return JSONResponse(body, status_code=503)

    @app.exception_handler(Exception)
    def _unforeseen(_: Request, problem: Exception) -> JSONResponse:
        body = body_of(
            code="unforeseen",
            path="",
            message="The program met something it does not know how to handle.",
            limit="Nothing was saved of this; all before it is. Do it another way, or start the program again.",
        )
        return JSONResponse(body, status_code=500)

    @app.exception_handler(NothingToDo)
    def _nothing(_: Request, problem: NothingToDo) -> JSONResponse:
        return JSONResponse(body_of(code="nothing", path="", message=str(problem), limit=""), status_code=409)


def _from_pydantic(errors: Sequence[Any]) -> dict[str, Any]:
    """The first of Pydantic's findings as a sentence."""
    first = errors[0]
    where = [str(part) for part in first["loc"] if part not in _NOT_TOLD]
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
    """A path in words: ("parts", 0, "part", "standing", "name") is “parts, no. 1, name”."""
    told = [each for each in path if each not in _OF_PARTS]
    return ", ".join(f"no. {int(part) + 1}" if str(part).isdigit() else str(part).replace("_", " ") for part in told)


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
        case "union_tag_invalid":
            return "The “kind” is not one of the choices.", f"Choose {bounds.get('expected_tags', 'another')}."
        case "union_tag_not_found":
            return "The “kind” is missing.", "Give it."
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
