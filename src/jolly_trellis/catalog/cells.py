"""Reading the cells of a table: numbers in range, choices, flags; each refusal says what would be right."""

import math
from typing import Any

from jolly_trellis.core.provenance import PROVENANCE_KINDS, Provenance

Row = dict[str, str]


class BadTable(Exception):
    """The text is no table of this kind; the message says what would be right."""


class BadCell(Exception):
    """One cell cannot be read: its column, and what would be right."""

    def __init__(self, column: str, message: str) -> None:
        super().__init__(message)
        self.column = column


def is_number(text: str) -> bool:
    try:
        float(text)
    except ValueError:
        return False
    return True


def number(
    row: Row, column: str, *, scale: float = 1.0, least: float = 0.0, most: float = 1e6, above: bool = False
) -> float:
    """A number of a row, scaled to SI; `above` leaves the least itself out.

    Raises: BadCell: no number, or outside its range.
    """
    text = row[column].replace(",", ".")
    try:
        value = float(text)
    except ValueError:
        raise BadCell(column, f"“{row[column][:40]}” is no number. Type one such as 24.5.") from None
    slack = 1e-9 * max(abs(least), abs(most))
    if not math.isfinite(value) or not least - slack <= value <= most + slack or (above and value <= least):
        right = f"Give more than {least:g}, up to {most:g}." if above else f"Give {least:g} to {most:g}."
        raise BadCell(column, f"{row[column][:40]} is out of range. {right}")
    return value * scale


def choice(row: Row, column: str, choices: tuple[str, ...], default: str | None = None) -> Any:
    value = row[column] or (default or "")
    if value not in choices:
        raise BadCell(column, f"“{row[column][:40]}” is not known. Choose one of: {', '.join(choices)}.")
    return value


def flag(row: Row, column: str) -> bool:
    return bool(choice(row, column, ("0", "1"), "0") == "1")


def whole(row: Row, column: str, *, least: int = 0, most: int = 100_000) -> int:
    value = number(row, column, least=least, most=most)
    if value != int(value):
        raise BadCell(column, f"{row[column][:40]} is not a whole number. Type one such as 12.")
    return int(value)


def provenance(row: Row, column: str) -> Provenance:
    kind = choice(row, column, PROVENANCE_KINDS, "measured")
    return Provenance(kind=kind, source=row["provenance_note"])


def plain(value: float | None, scale: float = 1.0) -> str:
    """A number as a cell has it, in units of which one is `scale`; empty where it is not known."""
    return "" if value is None else f"{round(value / scale, 4):.10g}"
