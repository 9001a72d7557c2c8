"""What changed between two documents of plain JSON data, both ways: small where the change is small.

A change is a list of leaves, `[path, was, now]`: `path` the keys and places that lead there, `was` and `now` lists of
the one value there, empty where there was or is none. A list that got longer or shorter is one leaf.
"""

from collections.abc import Iterator, Sequence
from typing import Any, Literal

Leaf = list[Any]
Way = Literal["back", "forth"]
_ABSENT = object()


def between(before: Any, after: Any) -> list[Leaf]:
    """The leaves in which two documents differ; none where they are the same."""
    return list(_leaves([], before, after))


def moved(document: Any, leaves: Sequence[Leaf], way: Way) -> Any:
    """A document after a change, or before it; the one that was given may be altered.

    Raises: LookupError: the change is of another document.
    """
    wanted = 1 if way == "back" else 2
    for leaf in leaves if way == "forth" else reversed(leaves):
        path, value = leaf[0], leaf[wanted]
        if not path:
            document = value[0] if value else None
            continue
        *above, last = path
        inside = document
        for key in above:
            inside = inside[key]
        if value:
            inside[last] = value[0]
        else:
            del inside[last]
    return document


def _leaves(path: list[Any], before: Any, after: Any) -> Iterator[Leaf]:
    if before is after:
        return
    if isinstance(before, dict) and isinstance(after, dict):
        for key in [*before, *(key for key in after if key not in before)]:
            yield from _leaves([*path, key], before.get(key, _ABSENT), after.get(key, _ABSENT))
    elif isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        for place, (was, now) in enumerate(zip(before, after, strict=True)):
            yield from _leaves([*path, place], was, now)
    elif type(before) is not type(after) or before != after:
        yield [path, [] if before is _ABSENT else [before], [] if after is _ABSENT else [after]]
