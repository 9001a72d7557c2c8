"""The order for one supplier, as PDF and as CSV."""

import csv
import io
from xml.sax.saxutils import escape

from reportlab.platypus import Flowable

from jolly_trellis.core.event.orders import Order
from jolly_trellis.exchange.page import SMALL, Paper, Stamp, flowing, paragraph, title

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
                "pack": line.pack,
                "cost": "" if line.cost is None else str(line.cost),
                "currency": currency,
            }
            writer.writerow({name: _harmless(each) for name, each in row.items()})
    return stream.getvalue()


def _harmless(cell: str) -> str:
    return f"'{cell}" if cell[:1] in ("=", "+", "@", "-", "\t") else cell


def write_pdf(orders: tuple[Order, ...], *, stamp: Stamp, currency: str, paper: Paper) -> bytes:
    """The orders as a paper, with a box to tick as the goods come in.

    Args:
        stamp: what every foot says.
    """
    return flowing(lambda: _story(orders, currency), f"Order: {orders[0].supplier}", stamp=stamp, paper=paper)


def _story(orders: tuple[Order, ...], currency: str) -> list[Flowable]:
    story: list[Flowable] = []
    for order in orders:
        day = "" if order.day is None else f", for {order.day:%a %d %b %Y}"
        story.append(title(f"{order.supplier}{day}"))
        for line in order.lines:
            cost = "no price known" if line.cost is None else f"{escape(currency)} {line.cost}"
            words = f"[  ]  {line.number} × {escape(line.pack)}: <b>{escape(line.name)}</b>; {cost}"
            story.append(paragraph(words, SMALL))
        total = "cannot say, a price is missing" if order.cost is None else f"{escape(currency)} {order.cost}"
        story.append(paragraph(f"In all: {total}", SMALL))
    return story
