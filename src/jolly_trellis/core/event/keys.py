"""Keys of what people name: made of a name once and kept, so that a new name changes nothing but the name."""

import re
import unicodedata
from collections.abc import Container, Iterable
from dataclasses import replace
from typing import Any, Protocol, TypeVar

_LONGEST = 50


class Named(Protocol):
    """A row of the brief with a name for people and a key; empty where it has none yet."""

    @property
    def key(self) -> str: ...

    @property
    def name(self) -> str: ...


N = TypeVar("N", bound=Named)


def slug(name: str, nameless: str = "x") -> str:
    """A name as part of a key: small letters, digits and dashes."""
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    return re.sub(r"[^a-z0-9]+", "-", plain).strip("-") or nameless


def keyed(rows: Iterable[N]) -> tuple[N, ...]:
    """Rows, each with a key that no other has: those that have none get one made of their name."""
    taken: set[str] = set()
    found: list[N] = []
    for each in rows:
        key = each.key if each.key and each.key not in taken else free_key(each.name, taken)
        taken.add(key)
        row: Any = each
        found.append(each if key == each.key else replace(row, key=key))
    return tuple(found)


def free_key(name: str, taken: Container[str]) -> str:
    """A key made of a name, numbered where it is taken."""
    plain = slug(name, "thing")[:_LONGEST]
    key, number = plain, 2
    while key in taken:
        key, number = f"{plain}-{number}", number + 1
    return key


def thing_id(kind: str, key: str, name: str) -> str:
    """What tells a vessel or a stand from all others: its key in the stores, else what it is called."""
    return f"{kind}:{key}" if key else f"~{name}"


def line_key(kind: str, thing: str) -> str:
    """The key of a line of a list that is one thing: what tells it from all others, its kind before what is called."""
    return thing if thing.startswith(f"{kind}:") else f"{kind}-{thing}"
