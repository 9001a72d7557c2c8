"""Core values to JSON and back, for plans kept whole; unknown fields are refused, missing ones take defaults."""

import json
from datetime import datetime
from decimal import Decimal
from typing import Any, TypeVar, get_origin

from cattrs import Converter
from cattrs.gen import make_dict_structure_fn

from jolly_trellis.core.event.parts import KINDS, AnyPart, Part
from jolly_trellis.core.plan.kinds import AnyPiece
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.store.plan import Planned

T = TypeVar("T")

_converter = Converter(forbid_extra_keys=True, prefer_attrib_converters=False)
_converter.register_unstructure_hook(datetime, lambda value: value.isoformat())
_converter.register_structure_hook(datetime, lambda value, _: datetime.fromisoformat(value))
_converter.register_unstructure_hook(Decimal, str)
_converter.register_structure_hook(Decimal, lambda value, _: Decimal(str(value)))


def _line_spec(plain: Any, _: Any) -> LineSpec:
    """A line; a cable tie, whose head plans once called a knot, has its head."""
    if isinstance(plain, dict) and plain.get("kind") == "cable tie" and plain.get("fitting") == "knot":
        plain = {**plain, "fitting": "head"}
    return _structure_line(plain, LineSpec)


_structure_line = make_dict_structure_fn(LineSpec, _converter, _cattrs_forbid_extra_keys=True)
_converter.register_structure_hook(LineSpec, _line_spec)


def _is_of_any_kind(kind: Any) -> bool:
    return kind in (Piece, Part, AnyPiece, AnyPart)


def _of_its_kind(plain: Any, _: Any) -> Any:
    """A part, by the kind it names."""
    return _converter.structure(plain, KINDS[plain["kind"]])


def _is_planned(kind: Any) -> bool:
    origin: Any = get_origin(kind) or kind
    return origin is Planned


def _planned(plain: Any, _: Any) -> Planned[Any]:
    return Planned(id=int(plain["id"]), part=_of_its_kind(plain["part"], None))


def _plain_planned(planned: Planned[Any]) -> dict[str, Any]:
    return {"id": planned.id, "part": _converter.unstructure(planned.part)}


_converter.register_structure_hook_func(_is_of_any_kind, _of_its_kind)
_converter.register_structure_hook_func(_is_planned, _planned)
_converter.register_unstructure_hook_func(_is_planned, _plain_planned)


def to_plain(value: object) -> Any:
    """A core value as plain dicts, lists and numbers."""
    return _converter.unstructure(value)


def from_plain(plain: Any, kind: type[T]) -> T:
    """Plain data as a core value; raises where a field is unknown or has the wrong type."""
    return _converter.structure(plain, kind)


def dumps(value: object) -> str:
    """Compact JSON of a core value; NaN and infinity are refused."""
    return json.dumps(to_plain(value), allow_nan=False, separators=(",", ":"), ensure_ascii=False)


def part_from(plain: Any) -> Part:
    """Plain data as a part, of the kind it names; raises as `from_plain`, and where there is no such kind."""
    part: Part = _of_its_kind(plain, None)
    return part


def loads(text: str, kind: type[T]) -> T:
    """A core value from its JSON."""
    return from_plain(json.loads(text), kind)
