"""The book of figures of a studio: its own numbers in the program's, and the editions that events are pinned to."""

import sqlite3
import threading
from collections import OrderedDict
from dataclasses import dataclass
from datetime import UTC, datetime

from jolly_trellis.core.books.figures import Constant, FigureBook, OwnFigure, book_of, read_book
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.method import CONSTANTS
from jolly_trellis.services.gate import over
from jolly_trellis.store import figures
from jolly_trellis.store.connection import transaction

_MOST_KEPT = 64
_kept: OrderedDict[tuple[object, ...], FigureBook] = OrderedDict()
_lock = threading.Lock()


class NoSuchFigure(Exception):
    """The method has no figure of that key, or the studio none of its own."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Unused:
    """A figure of the studio's own that this version of the method does not read: kept, and shown as such."""

    key: str
    own: OwnFigure


def current(conn: sqlite3.Connection) -> FigureBook:
    """The program's numbers with the studio's own in their places."""
    own = {key: each for key, each in figures.own_figures(conn).items() if _usable(key, each)}
    return _remembered(("own", *sorted((key, each.value, each.reason) for key, each in own.items())), own)


def unused(conn: sqlite3.Connection) -> tuple[Unused, ...]:
    """Figures of the studio's own that this version of the method has no use for, or that it would refuse."""
    return tuple(
        Unused(key=key, own=each) for key, each in figures.own_figures(conn).items() if not _usable(key, each)
    )


def of_event(conn: sqlite3.Connection, event_id: int) -> FigureBook:
    """The book an event was planned with; the current one where it is pinned to none."""
    return of_edition(conn, figures.edition_of_event(conn, event_id)) or current(conn)


def of_edition(conn: sqlite3.Connection, edition: str) -> FigureBook | None:
    """The book of an edition, None for one that is not kept; what it had no number for is the program's."""
    found = _found(("edition", edition))
    if found is None and edition:
        row = figures.get_edition(conn, edition)
        if row is None:
            return None
        found = read_book(CONSTANTS, row.values, row.own)
        _keep(("edition", edition), found)
    return found


def kept_at(conn: sqlite3.Connection, edition: str) -> str | None:
    """When an edition was first used, ISO 8601 in UTC; None for one that is not kept."""
    row = figures.get_edition(conn, edition)
    return None if row is None else row.kept_at


def keep(conn: sqlite3.Connection, book: FigureBook) -> str:
    """Keep a book as an edition. Returns: its mark."""
    figures.put_edition(conn, book, datetime.now(UTC).isoformat(timespec="seconds"))
    return book.edition


def pin(conn: sqlite3.Connection, edition: str) -> str:
    """The edition for an event: the one given where it is kept, else the current book, kept as one."""
    if edition and figures.get_edition(conn, edition) is not None:
        return edition
    return keep(conn, current(conn))


def set_own(conn: sqlite3.Connection, key: str, own: OwnFigure, was: OwnFigure | None) -> None:
    """Set a figure of the studio's own over what its window knew of it. Raises NoSuchFigure, InvalidMeasure, Stale."""
    constant = constant_of(key)
    with transaction(conn):
        settled = over(was, own, figures.own_figures(conn).get(key), OwnFigure) or own
        constant.check(settled)
        figures.put_own(conn, key, settled)


def unset_own(conn: sqlite3.Connection, key: str, was: OwnFigure | None) -> None:
    """Go back to the program's figure. Raises NoSuchFigure: there is none of the studio's own; Stale."""
    with transaction(conn):
        now = figures.own_figures(conn).get(key)
        if now is None:
            raise NoSuchFigure(key)
        if over(was, None, now, OwnFigure) is None:
            figures.delete_own(conn, key)


def constant_of(key: str) -> Constant:
    """A constant of the method. Raises NoSuchFigure."""
    constant = CONSTANTS.get(key)
    if constant is None:
        raise NoSuchFigure(key)
    return constant


def _usable(key: str, own: OwnFigure) -> bool:
    try:
        CONSTANTS[key].check(own)
    except (KeyError, CoreError):
        return False
    return True


def _remembered(mark: tuple[object, ...], own: dict[str, OwnFigure]) -> FigureBook:
    found = _found(mark)
    if found is None:
        found = book_of(CONSTANTS, own)
        _keep(mark, found)
    return found


def _found(mark: tuple[object, ...]) -> FigureBook | None:
    with _lock:
        return _kept.get(mark)


def _keep(mark: tuple[object, ...], book: FigureBook) -> None:
    with _lock:
        _kept[mark] = book
        while len(_kept) > _MOST_KEPT:
            _kept.popitem(last=False)
