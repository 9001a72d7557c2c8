"""Tables of the stores as CSV: read strictly row by row, written back the same."""

import csv
import io
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from jolly_trellis.catalog.cells import (
    BadCell,
    BadTable,
    Row,
    is_number,
)
from jolly_trellis.catalog.rows import TABLES, StoreKind, Table, as_before
from jolly_trellis.core.errors import CoreError

MOST_ROWS = 2000


@dataclass(frozen=True, slots=True, kw_only=True)
class Refused:
    """A row that was not taken: its line in the file, the column, and why."""

    line: int
    column: str
    why: str


def rows_of(kind: StoreKind, text: str) -> Iterator[tuple[int, Any, Refused | None]]:
    """Every row of a CSV text as (line, (key, thing) or None, refusal or None).

    Raises: BadTable: no header, other columns, another delimiter, or too many rows.
    """
    lines = text.removeprefix("\ufeff")
    if "\x00" in lines:
        raise BadTable("This is not text. Save the table as CSV in UTF-8.")
    reader = csv.DictReader(io.StringIO(lines, newline=""))
    try:
        yield from _rows_in(reader, kind, TABLES[kind])
    except csv.Error:
        raise BadTable(
            f"Line {reader.line_num + 1} holds a cell longer than any table has. Mend that line, or save it anew."
        ) from None


def _rows_in(
    reader: "csv.DictReader[str]", kind: StoreKind, table: Table
) -> Iterator[tuple[int, Any, Refused | None]]:
    header = [name.strip() for name in reader.fieldnames or []]
    _check_header(header, table)
    reader.fieldnames = header
    for place, raw in enumerate(reader):
        if place >= MOST_ROWS:
            raise BadTable(f"The table has more than {MOST_ROWS} rows. Split it into smaller files.")
        line = reader.line_num
        row = {name: (raw.get(name) or "").strip() for name in table.columns}
        as_before(kind, raw, row)
        try:
            if None in raw:
                raise BadCell("", "The row has more cells than the header. Put text with commas in double quotes.")
            yield line, (row["key"], _thing(table, row)), None
        except BadCell as problem:
            yield line, None, Refused(line=line, column=problem.column, why=str(problem))
        except CoreError as problem:
            why = f"{problem.message.text} {problem.limit.text}".replace("{", "").replace("}", "")
            yield line, None, Refused(line=line, column=problem.path, why=why)


def write_table(kind: StoreKind, things: dict[str, Any]) -> str:
    """Things by key as CSV; a cell that a spreadsheet would take for a formula gets an apostrophe before it."""
    table = TABLES[kind]
    stream = io.StringIO(newline="")
    writer = csv.DictWriter(stream, fieldnames=table.columns, lineterminator="\r\n")
    writer.writeheader()
    for key, thing in things.items():
        row = {name: _harmless(value) for name, value in table.write(key, thing).items()}
        writer.writerow(row)
    return stream.getvalue()


def _harmless(value: str) -> str:
    return f"'{value}" if value[:1] in ("=", "+", "@", "\t", "\r") else value


def _check_header(header: list[str], table: Table) -> None:
    wanted = [name for name in table.columns if name not in table.optional]
    missing = [name for name in wanted if name not in header]
    if not missing:
        return
    if len(header) == 1:
        for delimiter, word in ((";", "semicolons"), ("\t", "tabs"), ("|", "upright strokes")):
            if header[0].count(delimiter) >= 2:
                raise BadTable(f"The columns are separated by {word}. Save the table with commas between them.")
    if not header or not any(name in header for name in wanted):
        raise BadTable(f"The first line must name the columns: {', '.join(table.columns)}.")
    raise BadTable(f"The column {missing[0]} is missing. Needed are: {', '.join(wanted)}.")


def _thing(table: Table, row: Row) -> Any:
    for name, value in row.items():
        if value[:1] in ("=", "+", "@") or (value[:1] == "-" and not is_number(value)):
            raise BadCell(name, f"The cell begins with “{value[0]}”, as a formula does. Type the value itself.")
        if len(value) > 400:
            raise BadCell(name, "The cell is longer than 400 characters. Shorten it.")
    key = row["key"]
    if not key or len(key) > 60 or not all((each.isalnum() and each.isascii()) or each == "-" for each in key):
        raise BadCell("key", "A key is made of letters, digits and dashes, such as low-bowl-20.")
    if not row["name"]:
        raise BadCell("name", "The name is empty. Give one.")
    return table.read(row)
