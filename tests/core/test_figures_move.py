"""Every figure of the book is read by some piece of work, and moves what comes of it."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import replace
from functools import cache

import pytest

from jolly_trellis.core.books.figures import FigureBook
from jolly_trellis.core.books.memory import MEMORY
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.method import CONSTANTS, PROGRAM
from tests import worked
from tests.formulas import by_themselves

FIXED = {key for key, each in CONSTANTS.items() if each.sort == "standard"}


class Noting(Mapping[str, float]):
    """Numbers of a book that notes which of them are read."""

    def __init__(self, values: Mapping[str, float]) -> None:
        self.values_, self.read = values, set[str]()

    def __getitem__(self, key: str) -> float:
        self.read.add(key)
        return self.values_[key]

    def __iter__(self) -> Iterator[str]:
        return iter(self.values_)

    def __len__(self) -> int:
        return len(self.values_)


@cache
def readers() -> dict[str, frozenset[str]]:
    """What each piece of ordinary work, and each formula by itself, reads."""
    noting = Noting(PROGRAM.values)
    book, found = FigureBook(values=noting), {}
    for name, work in _work().items():
        noting.read = set()
        _under(book, work)
        found[name] = frozenset(noting.read)
    return found


def _work() -> dict[str, Callable[[], object]]:
    return {**worked.worked(), **by_themselves()}


def _under(book: FigureBook, work: Callable[[], object]) -> object:
    MEMORY.forget()
    with book.open():
        try:
            return worked.summary_of(work())
        except CoreError as problem:
            return worked.summary_of((problem.path, problem.message, problem.limit))


def test_every_figure_is_read() -> None:
    read = frozenset().union(*readers().values())
    assert sorted(set(CONSTANTS) - read - FIXED) == []


@pytest.mark.long
def test_every_figure_moves_something() -> None:
    """Each is set a little higher, lower, then far: some piece of work that reads it comes out otherwise."""
    idle = [key for key in sorted(set(CONSTANTS) - FIXED) if not _moves(key)]
    assert idle == []


_LOOKED_AT_MOST = 40
# What is read in much work and moves little of it, and a piece of work that it moves: looked at first.
_MOVED_IN = {
    "a-pull-on-a-hang-point-has-a-direction-from": "start cloud",
    "lines-hauled-at-once": "start ring",
    "least-that-air-dries-a-stem-against-22-c-and-50": "disc",
    "a-pull-this-far-off-the-stated-direction-has-no-rating": "sections",
    "most-that-air-dries-a-stem-against-22-c-and-50": "event",
    "ties-across-a-joint-of-two-sections": "start runner",
    "netting-sags-between-canes-of-their-distance-at-most": "start cloud",
    "least-room-between-a-seat-s-middle-and-the-wall": "anchors",
    "a-stem-this-near-the-middle-counts-to-both-sides": "raised, dry joint, being made",
    "jolt-of-a-knocked-table-share-of-the-bowl-s-weight": "on a rod",
    "most-the-air-speeds-drinking": "start crown",
    "room-a-frog-needs-round-it-on-the-floor": "start cups",
    "putty-on-a-clean-dry-surface-in-pull-and-in-shear": "stuck frog",
    "bare-table-that-lets-a-piece-slide-instead-of-tip": "start wire_dome",
    "tape-wider-than-this-is-cut-from-the-wide-roll": "taped",
    "guests-sit-apart-by": "soft stems far out",
    "fullness-over-which-heads-are-crushed": "start crown",
    "a-strung-ring-has-a-second-one-low-from-a-depth-of": "on strung_ring, sized",
    "how-much-of-a-view-a-flower-head-blocks": "raised, dry joint, being made",
    "push-mid-table-that-must-not-tip-a-bowl-off-its-joint-at-most": "on a rod",
    "least-from-the-binding-to-the-underside-of-the-flowers": "start wire_dome",
    "a-top-up-comes-before-the-first-dry-stem-by": "cups on short rods",
    "turns-round-the-hand-that-a-batch-of-ties-is-cut-from": "start runner",
}


@cache
def _usual(name: str) -> object:
    return _under(PROGRAM, _work()[name])


def _moves(key: str) -> bool:
    constant = CONSTANTS[key]
    low, high = replace(constant, cautious="either way").bounds
    near = [constant.built_in * 1.12, constant.built_in * 0.85, low + 0.02 * (high - low), high]
    values = near if constant.built_in else [1.0]
    books = [FigureBook(values=PROGRAM.values | {key: value}) for value in values]  # type: ignore[operator]
    looked_at = sorted((name for name, read in readers().items() if key in read), key=_cost)[:_LOOKED_AT_MOST]
    first = [_MOVED_IN[key]] if key in _MOVED_IN else []
    return any(
        _under(book, _work()[name]) != _usual(name) for names in (first, looked_at) for book in books for name in names
    )


def _cost(name: str) -> tuple[bool, int]:
    """The quickest first: formulas by themselves, then what reads least."""
    return name in worked.worked(), len(readers()[name])
