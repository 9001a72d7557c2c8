"""The fields of a value of the core as a table: type, range, choices, default, said once, on the dataclass itself."""

from dataclasses import MISSING, dataclass, fields
from functools import cache
from types import NoneType, UnionType
from typing import Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints

from jolly_trellis.core.ranges import Range, Text


@dataclass(frozen=True, slots=True, kw_only=True)
class FieldOf:
    """One field: its name, what it holds, and what it is held to.

    `kind` is float, int, bool, str, or another class; `many` tells a tuple of those. `optional` may be None, which is
    not known. `choices` are all it can be, where they are few. `default` is `MISSING` where it must be given.
    """

    name: str
    kind: type
    many: bool = False
    optional: bool = False
    range: Range | None = None
    text: Text | None = None
    choices: tuple[str, ...] = ()
    default: Any = MISSING

    @property
    def must_be_given(self) -> bool:
        """Whether nothing stands in for it where it is left out."""
        return self.default is MISSING and not self.optional


@cache
def field_table(kind: type) -> dict[str, FieldOf]:
    """The fields of a dataclass of the core, by name, in their order."""
    hints = get_type_hints(kind, include_extras=True)
    found: dict[str, FieldOf] = {}
    for each in fields(kind):
        default = each.default if each.default_factory is MISSING else each.default_factory()
        found[each.name] = _read(each.name, hints[each.name], default)
    return found


def _read(name: str, hint: Any, default: Any) -> FieldOf:
    marks: list[Any] = []
    many = optional = False
    while True:
        origin = get_origin(hint)
        if origin is Annotated:
            hint, *more = get_args(hint)
            marks += more
        elif origin in (Union, UnionType):
            optional = NoneType in get_args(hint)
            hint = next(each for each in get_args(hint) if each is not NoneType)
        elif origin is tuple:
            many, hint = True, get_args(hint)[0]
        else:
            break
    choices = get_args(hint) if get_origin(hint) is Literal else ()
    return FieldOf(
        name=name,
        kind=str if choices else hint,
        many=many,
        optional=optional,
        range=next((each for each in marks if isinstance(each, Range)), None),
        text=next((each for each in marks if isinstance(each, Text)), None),
        choices=choices,
        default=default,
    )
