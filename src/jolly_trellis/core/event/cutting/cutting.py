"""Cutting without waste: strips across the roll, strips into columns, columns into pieces; counted in whole cells.

Everything here is a whole number, so that a plan can be checked without rounding. A cut may eat some (`kerf`): a piece
of n lies on n + kerf, and a stock of N gives N + kerf. Lengths are the same problem: a spool is one across, and a
bundle of sticks is as many rows long as there are sticks.
"""

from collections.abc import Callable
from dataclasses import dataclass, field

STRIP_ROUNDS = 40


@dataclass(frozen=True, slots=True, kw_only=True)
class Item:
    """So many pieces of one size: at least `across` and `along`; `turned` its size lying the other way, if it may.

    `room` and `room_turned` are what it should have across where there is room, None no more than it must; `spare` how
    much wider than that it may stay.
    """

    key: int
    across: int
    along: int
    count: int
    turned: tuple[int, int] | None = None
    room: int | None = None
    room_turned: int | None = None
    spare: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Stock:
    """Stock to cut from: cells across, rows along, how many there are, what one costs in cents, 0 if it is here."""

    key: int
    across: int
    along: int
    count: int
    cost: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Placed:
    """A piece on a stock: its item, where its corner lies, its size there, in cells and rows."""

    item: int
    x: int
    y: int
    across: int
    along: int
    turned: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Used:
    """One stock with the pieces cut from it: which it is, which of its count, rows used, and strips by their end."""

    sheet: int
    nth: int
    rows: int
    strips: tuple[int, ...]
    placed: tuple[Placed, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Cutting:
    """A cut plan: what is cut from what, what could not be placed (item, count), the area used and needed, cells."""

    used: tuple[Used, ...]
    unplaced: tuple[tuple[int, int], ...]
    area_used: int
    area_needed: int
    bound: int

    @property
    def cost(self) -> tuple[int, int]:
        """What plans are compared by: pieces left over first, then area used."""
        return sum(count for _, count in self.unplaced), self.area_used

    @property
    def area_placed(self) -> int:
        """Cells that become pieces."""
        return sum(piece.across * piece.along for used in self.used for piece in used.placed)


@dataclass(frozen=True, slots=True)
class Column:
    """Pieces one behind another in a strip: (item, turned) from its near edge; its width in cells with the kerf."""

    across: int
    pieces: tuple[tuple[int, bool], ...]


@dataclass(frozen=True, slots=True)
class Strip:
    """A strip across the roll: rows along with the kerf, and its columns from the left."""

    along: int
    columns: tuple[Column, ...]

    def counts(self, items: int) -> list[int]:
        """How many of each item it holds."""
        found = [0] * items
        for column in self.columns:
            for item, _ in column.pieces:
                found[item] += 1
        return found


@dataclass(slots=True)
class Progress:
    """Where a long search stands: it calls `tell` with each better plan, and ends early when `stop` says so."""

    tell: Callable[[Cutting], None] = field(default=lambda _: None)
    stop: Callable[[], bool] = field(default=lambda: False)


def lie(item: Item, turned: bool) -> tuple[int, int]:
    """Cells across and rows along of an item as it lies."""
    return item.turned if turned and item.turned is not None else (item.across, item.along)


def roomy(item: Item, turned: bool) -> int:
    """What an item should have across where there is room, as it lies."""
    least, _ = lie(item, turned)
    return max(least, (item.room_turned if turned else item.room) or 0)


def fits(item: Item, sheet: Stock) -> bool:
    """Whether an item fits a stock, lying either way."""
    ways = [(item.across, item.along), *([item.turned] if item.turned is not None else [])]
    return any(across <= sheet.across and along <= sheet.along for across, along in ways)


def area_bound(items: tuple[Item, ...]) -> int:
    """Cells that the pieces themselves are: no plan uses less. Source: definition."""
    return sum(item.across * item.along * item.count for item in items)


def laid_out(used: list[tuple[Stock, int, list[Strip]]], items: tuple[Item, ...], kerf: int) -> tuple[Used, ...]:
    """Strips on stocks as pieces with places. Strips lie one behind another, the longest first; columns are as wide as
    their pieces should be, as far as there is room.
    """
    done = []
    for sheet, nth, strips in used:
        placed, ends, y = [], [], 0
        for strip in sorted(strips, key=lambda each: -each.along):
            x, slack = 0, sheet.across + kerf - sum(column.across for column in strip.columns)
            for column in strip.columns:
                up, needs = y, max(roomy(items[item], turned) for item, turned in column.pieces) + kerf
                wider = min(max(needs - column.across, 0), slack)
                slack -= wider
                for item, turned in column.pieces:
                    _, along = lie(items[item], turned)
                    most = roomy(items[item], turned) + items[item].spare
                    across = min(most, column.across + wider - kerf)
                    placed.append(Placed(item=items[item].key, x=x, y=up, across=across, along=along, turned=turned))
                    up += along + kerf
                x += column.across + wider
            y += strip.along
            ends.append(min(y, sheet.along))
        rows = min(y, sheet.along)
        done.append(Used(sheet=sheet.key, nth=nth, rows=rows, strips=tuple(ends), placed=tuple(placed)))
    return tuple(done)
