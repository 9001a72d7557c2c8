"""What the core's dataclasses are to Pydantic, worked out once each.

A plain dataclass keeps no schema of its own: each model and route that holds a recipe line would work it out anew,
some ninety times, which was a third of the program's start.
"""

from dataclasses import is_dataclass
from typing import Any, get_args, get_type_hints

from pydantic import TypeAdapter


def work_out(*kinds: type[Any]) -> None:
    """Give dataclasses, and those they hold, the schema by which they go out; those inside come first.

    What comes in has models of its own (`sent.model_of`), which refuse more than these would.
    """
    for each in _innermost_first(kinds, seen=set()):
        each.__pydantic_core_schema__ = TypeAdapter(each).core_schema


def _innermost_first(hints: Any, seen: set[Any]) -> list[Any]:
    found = []
    for hint in hints:
        found += _innermost_first(get_args(hint), seen)
        if isinstance(hint, type) and is_dataclass(hint) and hint not in seen:
            seen.add(hint)
            found += [*_innermost_first(get_type_hints(hint, include_extras=True).values(), seen), hint]
    return found
