"""The order for one supplier, as PDF and as CSV."""

import csv
import io
from xml.sax.saxutils import escape

from reportlab.platypus import Flowable

from jolly_trellis.catalog.cells import BadTable
from jolly_trellis.core.event.buying.orders import Order
from jolly_trellis.core.units import UnitSystem, render
from jolly_trellis.exchange.page import SMALL, Paper, Stamp, flowing, paragraph, title

STATES = ("right", "short", "late", "wrong", "poor")
COLUMNS = ("supplier", "day", "key", "name", "number", "pack", "cost", "currency")


def write_csv(orders: tuple[Order, ...], *, currency: str) -> str:
    """Every line of the orders; a cell that a spreadsheet would take for a formula gets an apostrophe before it."""
    stream = io.StringIO(newline="")
    writer = csv.DictWriter(stream, COLUMNS, lineterminator="\r\n")
    writer.writeheader()
    for order in orders:
        for line in order.lines:
            row = {
                "supplier": order.supplier,
                "day": "" if order.day is None else order.day.isoformat(),
                "key": line.key,
                "name": line.name,
                "number": str(line.number),
                "pack": render(line.pack, "metric"),
                "cost": "" if line.cost is None else str(line.cost),
                "currency": currency,
            }
            writer.writerow({name: _harmless(each) for name, each in row.items()})
    return stream.getvalue()


def read_csv(text: str) -> tuple[tuple[str, float, str], ...]:
    """What came in, from an order that was written here and has two more columns: `came`, a number, and `state`, one
    of right, short, late, wrong, poor; a row with neither has not come in yet.

    Returns: (key of the line, how many came, state).
    Raises: BadTable: a column is missing, a number is none, a state there is not.
    """
    rows = csv.DictReader(io.StringIO(text.removeprefix("\ufeff"), newline=""))
    header = [name.strip() for name in rows.fieldnames or []]
    missing = [name for name in ("key", "number", "came") if name not in header]
    if missing:
        raise BadTable(
            f"The table has no column “{missing[0]}”. Save the order as CSV, and write what came beside it."
        )
    rows.fieldnames = header
    found = []
    for row in rows:
        came, state = (row.get("came") or "").strip(), (row.get("state") or "").strip().lower()
        if not came and not state:
            continue
        ordered = _number(rows.line_num, row.get("number") or "")
        number = ordered if not came else _number(rows.line_num, came)
        if state not in ("", *STATES):
            raise BadTable(f"Line {rows.line_num}: “{state[:20]}” is no way to come in. Write {', '.join(STATES)}.")
        found.append(((row.get("key") or "").strip(), number, state or ("right" if number >= ordered else "short")))
    return tuple(found)


def _number(line: int, text: str) -> float:
    try:
        number = float(text)
    except ValueError:
        number = -1.0
    if not 0 <= number <= 1_000_000:
        raise BadTable(f"Line {line}: “{text[:20]}” is no number of what came. Write one, such as 12.")
    return number


def _harmless(cell: str) -> str:
    return f"'{cell}" if cell[:1] in ("=", "+", "@", "-", "\t") else cell


def write_pdf(
    orders: tuple[Order, ...], *, stamp: Stamp, currency: str, paper: Paper, system: UnitSystem = "metric"
) -> bytes:
    """The orders as a paper, with a box to tick as the goods come in.

    Args:
        stamp: what every foot says.
    """
    return flowing(lambda: _story(orders, currency, system), f"Order: {orders[0].supplier}", stamp=stamp, paper=paper)


def _story(orders: tuple[Order, ...], currency: str, system: UnitSystem) -> list[Flowable]:
    story: list[Flowable] = []
    for order in orders:
        day = "" if order.day is None else f", for {order.day:%a %d %b %Y}"
        story.append(title(f"{order.supplier}{day}"))
        for line in order.lines:
            cost = "no price known" if line.cost is None else f"{escape(currency)} {line.cost}"
            words = f"[  ]  {line.number} × {escape(render(line.pack, system))}: <b>{escape(line.name)}</b>; {cost}"
            story.append(paragraph(words, SMALL))
        total = "cannot say, a price is missing" if order.cost is None else f"{escape(currency)} {order.cost}"
        story.append(paragraph(f"In all: {total}", SMALL))
    return story
