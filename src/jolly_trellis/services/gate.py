"""The one gate for every write: an exact base, one transaction, and one kind of conflict, by field.

A write names the revision it rests on. Where what it touches was changed since, it is refused with what changed. A
write of a whole document comes with the document its window began from: what only this window changed goes over what
is there by now; what both changed is asked about, field by field, and sent once more with what was chosen.
"""

import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from jolly_trellis.store import codec
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.merging import Both, merged

T = TypeVar("T")


@dataclass(frozen=True, slots=True, kw_only=True)
class Difference:
    """One quantity that changed since a revision: dotted path, what it was, what it is now."""

    path: str
    was: Any
    now: Any


@dataclass(frozen=True, slots=True, kw_only=True)
class Chosen:
    """What a person chose of what both changed: paths that stay theirs, all others the other's; of which revision."""

    revision: int
    mine: tuple[str, ...] = ()
    theirs: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Based(Generic[T]):
    """What a write rests on: a revision, or the document that its window began from; and what was chosen of both's."""

    revision: int
    was: T | None = None
    chosen: Chosen | None = None


class Stale(Exception):
    """A write rests on what is no longer so.

    `revision` is the newest, `differences` what changed since, `both` what this window changed too and must be asked.
    """

    def __init__(
        self, *, revision: int, differences: tuple[Difference, ...] = (), both: tuple[Both, ...] = ()
    ) -> None:
        super().__init__("somebody else changed this meanwhile")
        self.revision = revision
        self.differences = differences
        self.both = both


@dataclass(frozen=True, slots=True, kw_only=True)
class Revisions:
    """The newest revision of all, and the one at which what a write touches was changed last."""

    newest: int
    touched: int

    def bears(self, base: int) -> bool:
        """Whether a write may rest on a revision: what it touches is as it was, and the revision is no later one."""
        return self.touched <= base <= self.newest


@contextmanager
def gate(
    conn: sqlite3.Connection,
    revisions: Callable[[], Revisions],
    base: int,
    since: Callable[[], tuple[Difference, ...]] = tuple,
) -> Iterator[None]:
    """One write, all or nothing, resting on what it touches as it is.

    Args:
        revisions: asked inside the transaction. base: the revision the write rests on. since: what changed after that.
    Raises: Stale: what it touches was changed since, or that revision never was.
    """
    with transaction(conn):
        now = revisions()
        if not now.bears(base):
            raise Stale(revision=now.newest, differences=since())
        yield


def settled(mine: T, now: T, based: Based[T], revisions: Revisions, kind: type[T]) -> tuple[T, int]:
    """A document with what this window changed over what is there by now, and the revision that then rests on.

    Args:
        mine: as this window sends it. now: as it is, and `revisions` of it. kind: what the document is.
    Returns: both as they were sent where the document that the window began from is not known: the gate then refuses.
    Raises: Stale: both changed a field, and nobody has chosen.
    """
    if based.was is None:
        return mine, based.revision
    chosen = based.chosen
    if chosen is None or chosen.revision != revisions.newest:
        chosen = Chosen(revision=revisions.newest)
    found = merged(
        codec.to_plain(based.was),
        codec.to_plain(mine),
        codec.to_plain(now),
        keep=chosen.mine,
        give=chosen.theirs,
    )
    if found.both:
        raise Stale(revision=revisions.newest, both=found.both)
    return codec.from_plain(found.document, kind), revisions.newest


def over(was: T | None, mine: T | None, now: T | None, kind: type[T]) -> T | None:
    """A small document without revisions, such as a tick or a figure, over what its window knew of it.

    Args:
        was: as the window knew it. mine: as it sends it. now: as it is; None where there is none.
    Raises: Stale: both changed the same of it; sent again over what it is now, it is kept.
    """
    began, own, other = (None if each is None else codec.to_plain(each) for each in (was, mine, now))
    if began is None and own is not None and other is not None:
        began = {}  # both made one where there was none: field by field too
    found = merged(began, own, other)
    if found.both:
        raise Stale(revision=0, both=found.both)
    return None if found.document is None else codec.from_plain(found.document, kind)
