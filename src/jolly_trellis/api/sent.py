"""What comes in as values of the core, held to the shape of the core's own dataclasses.

Ranges are the core's to refuse, so that a saved plan that lies outside a newer range can still be sent, shown and
mended; they stand in the published schema all the same.
"""

from dataclasses import MISSING, Field, dataclass, fields, is_dataclass
from types import UnionType
from typing import Annotated, Any, Union, get_args, get_origin, get_type_hints

from pydantic import BaseModel, ConfigDict, GetCoreSchemaHandler, create_model
from pydantic import Field as Described
from pydantic_core import CoreSchema, core_schema

from jolly_trellis.core.choices import OneOf
from jolly_trellis.core.ranges import Many, Range, Text
from jolly_trellis.store import codec


class In(BaseModel):
    """Anything that comes in: unknown fields, NaN and infinities are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


@dataclass(frozen=True)
class Sent:
    """Marks a field of a body as a value of the core: `piece: Annotated[Piece, Sent()]`.

    `keyed` leaves its key out of what comes in: that stands in the address.
    """

    keyed: bool = False

    def __get_pydantic_core_schema__(self, kind: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        shape = handler.generate_schema(_shape(kind) if get_origin(kind) else model_of(kind, keyed=self.keyed))
        given = {"key": ""} if self.keyed else {}

        def to_core(sent: BaseModel) -> Any:
            return codec.from_plain({**given, **sent.model_dump()}, kind)

        return core_schema.no_info_after_validator_function(to_core, shape)


_made: dict[tuple[Any, bool], type[In]] = {}


def model_of(kind: Any, *, keyed: bool = False) -> type[In]:
    """The model of a dataclass of the core, named like it with “In” behind; `keyed` leaves its key out."""
    found = _made.get((kind, keyed))
    if found is None:
        hints = get_type_hints(kind, include_extras=True)
        shape: dict[str, Any] = {
            each.name: (_shape(hints[each.name]), _default(each))
            for each in fields(kind)
            if not (keyed and each.name == "key")
        }
        found = create_model(f"{kind.__name__}In", __base__=In, __doc__=kind.__doc__, **shape)
        _made[kind, keyed] = found
    return found


def _shape(hint: Any) -> Any:
    """A field's type as Pydantic takes it: dataclasses as their models, tuples as lists, ranges in the schema."""
    origin = get_origin(hint)
    if origin is Annotated:
        inner, *marks = get_args(hint)
        return _described(_shape(inner), marks)
    if origin in (Union, UnionType):
        arms = get_args(hint)
        shape: Any = Union[tuple(_shape(each) for each in arms)]  # noqa: UP007  # the arms are known only here
        kinds = all(is_dataclass(each) and any(field.name == "kind" for field in fields(each)) for each in arms)
        return Annotated[shape, Described(discriminator="kind")] if kinds else shape
    if origin is tuple:
        inside: Any = _shape(get_args(hint)[0])
        return list[inside]
    if isinstance(hint, type) and is_dataclass(hint):
        return model_of(hint)
    return hint


def _described(shape: Any, marks: list[Any]) -> Any:
    limits: dict[str, Any] = {}
    for mark in marks:
        if isinstance(mark, Range):
            limits |= {"exclusiveMinimum" if mark.above else "minimum": mark.low, "maximum": mark.high}
        if isinstance(mark, Text):
            limits |= {"maxLength": mark.most} | ({"minLength": mark.least} if mark.least else {})
        if isinstance(mark, Many):
            limits |= {"maxItems": mark.most} | ({"minItems": mark.least} if mark.least else {})
        if isinstance(mark, OneOf):
            limits |= {"enum": list(mark.known)}

    def describe(schema: dict[str, Any]) -> None:
        arms = [each for each in schema.get("anyOf", ()) if each.get("type") != "null"]
        (arms[0] if arms else schema).update(limits)

    return Annotated[shape, Described(json_schema_extra=describe)] if limits else shape


def _default(field: Field[Any]) -> Any:
    """A field's default as plain data, of which Pydantic makes its own value; `...` where it must be given."""
    if field.default_factory is not MISSING:
        return Described(default=codec.to_plain(field.default_factory()), validate_default=True)
    if field.default is not MISSING:
        return Described(default=codec.to_plain(field.default), validate_default=True)
    return ...
