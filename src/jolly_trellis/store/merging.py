"""Two changes of one document of plain JSON data brought together, field by field; what both changed is named."""

from collections.abc import Collection, Iterator
from dataclasses import dataclass
from typing import Any

Path = tuple[str | int, ...]
# What tells one thing of a list from another: where it differs, they are not the same thing changed.
_NAMES = ("key", "id", "variety", "name", "kind")
# What follows from the rest of a document: nobody is asked about it.
DERIVED = frozenset({"dealt"})
_ABSENT = object()


@dataclass(frozen=True, slots=True, kw_only=True)
class Both:
    """A field that two changed: dotted path, what it was, what the one made of it and what the other."""

    path: str
    was: Any
    mine: Any
    now: Any


@dataclass(frozen=True, slots=True, kw_only=True)
class Merged:
    """A document with both changes; `both` names what both changed, which is `mine` in it where nobody chose."""

    document: Any
    both: tuple[Both, ...]


def merged(was: Any, mine: Any, now: Any, *, keep: Collection[str] = (), give: Collection[str] = ()) -> Merged:
    """Bring what one changed of a document over what it is now.

    Args:
        was: the document that both began from. mine: as the one changed it. now: as it is by now.
        keep: paths that both changed and that stay as the one has them. give: those that stay as they are now.
    """
    merging = _Merging(keep=frozenset(keep), give=frozenset(give), both=[])
    document = merging.of((), was, mine, now)
    return Merged(document=document, both=tuple(merging.both))


def leaves(value: Any, path: Path = ()) -> Iterator[tuple[str, Any]]:
    """Everything in a document that holds nothing further and does not follow from the rest, by dotted path."""
    if isinstance(value, dict):
        for key, each in value.items():
            if key not in DERIVED:
                yield from leaves(each, (*path, key))
    elif isinstance(value, (list, tuple)):
        for place, each in enumerate(value):
            yield from leaves(each, (*path, place))
    else:
        yield dotted(path), value


def dotted(path: Path) -> str:
    """A path as it is told: its keys and places with dots between."""
    return ".".join(str(each) for each in path)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Merging:
    keep: frozenset[str]
    give: frozenset[str]
    both: list[Both]

    def of(self, path: Path, was: Any, mine: Any, now: Any) -> Any:
        if mine in (now, was):
            return now
        if now == was:
            return mine
        if _one_thing(was, mine, now):
            inside = {
                key: self.of((*path, key), was.get(key, _ABSENT), mine.get(key, _ABSENT), now.get(key, _ABSENT))
                for key in dict.fromkeys((*now, *mine))
            }
            return {key: value for key, value in inside.items() if value is not _ABSENT}
        if _one_list(was, mine, now):
            return [self.of((*path, place), *three) for place, three in enumerate(zip(was, mine, now, strict=True))]
        told = dotted(path)
        if told in self.give or (path[-1:] and path[-1] in DERIVED):
            return now
        if told not in self.keep:
            self.both.append(Both(path=told, was=_told(was), mine=_told(mine), now=_told(now)))
        return mine


def _told(value: Any) -> Any:
    return None if value is _ABSENT else value


def _one_thing(*three: Any) -> bool:
    """Three states of one and the same thing, rather than one thing in place of another."""
    return all(isinstance(each, dict) for each in three) and len({each.get("kind") for each in three}) == 1


def _one_list(*three: Any) -> bool:
    """Three states of one list of the same things in the same order."""
    return (
        all(isinstance(each, list) for each in three)
        and len({len(each) for each in three}) == 1
        and all(len({_name(each) for each in at}) == 1 for at in zip(*three, strict=True))
    )


def _name(thing: Any) -> Any:
    if not isinstance(thing, dict):
        return None
    return next((str(thing[each]) for each in _NAMES if each in thing), None)
