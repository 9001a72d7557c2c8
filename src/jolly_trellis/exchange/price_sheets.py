"""What an event costs as papers and as CSV: the client's sheet has no costs, the studio's has every line."""

import csv
import io
from collections.abc import Iterator
from decimal import Decimal
from typing import Literal
from xml.sax.saxutils import escape

from reportlab.platypus import Flowable, Table, TableStyle

from jolly_trellis.core.event.cost.cost import EventCost
from jolly_trellis.core.event.tasks.payment import Payment
from jolly_trellis.core.units import render
from jolly_trellis.exchange.page import INK, SIZES, SMALL, Paper, Stamp, flowing, paragraph
from jolly_trellis.exchange.page import MARGIN as SIDE

Reader = Literal["client", "studio"]
COLUMNS = (
    "kind",
    "name",
    "count",
    "stems",
    "mechanics",
    "vessels",
    "used_up",
    "work_min",
    "labour",
    "breakage",
    "overheads",
    "cost",
    "margin",
    "price_each",
    "price",
    "currency",
)
_FOR_CLIENT = ("kind", "name", "count", "price_each", "price", "currency")
_UNKNOWN = "cannot say"
_SHEETS: dict[Reader, str] = {"client": "Price", "studio": "Cost and price"}


def rows_of(cost: EventCost) -> Iterator[dict[str, str]]:
    """Every line by `COLUMNS`, then the sums: `price`, `tax`, `asked`. Amounts are decimal, empty where not known."""
    for each in cost.pieces:
        yield {
            "kind": "piece",
            "name": each.name,
            "count": str(each.quantity),
            "stems": str(each.stems),
            "mechanics": str(each.mechanics),
            "vessels": str(each.vessels),
            "used_up": str(each.consumables),
            "work_min": str(each.minutes),
            "labour": _amount(each.labour),
            "breakage": str(each.breakage),
            "overheads": str(each.overheads),
            "cost": _amount(each.cost),
            "margin": _amount(each.margin),
            "price_each": _amount(each.price_each),
            "price": _amount(each.price),
        }
    for line in cost.lines:
        yield {
            "kind": "line",
            "name": line.name,
            "count": "1",
            "overheads": str(line.overheads),
            "cost": str(line.cost),
            "price_each": str(line.price),
            "price": str(line.price),
        }
    yield {"kind": "sum", "name": "price", "cost": _amount(cost.cost), "price": _amount(cost.price)}
    yield {"kind": "sum", "name": "tax", "price": _amount(cost.tax)}
    yield {"kind": "sum", "name": "asked", "price": _amount(cost.asked)}


def write_csv(cost: EventCost, reader: Reader, payment: Payment | None = None) -> str:
    """The lines as CSV; the client's has no costs. A cell that would be a formula gets an apostrophe before it."""
    stream = io.StringIO(newline="")
    columns = _FOR_CLIENT if reader == "client" else COLUMNS
    writer = csv.DictWriter(stream, columns, restval="", extrasaction="ignore", lineterminator="\r\n")
    writer.writeheader()
    for row in (*rows_of(cost), *_paid_rows(payment)):
        named = row | {"currency": cost.currency}
        writer.writerow({key: f"'{each}" if each[:1] in ("=", "+", "@", "-") else each for key, each in named.items()})
    return stream.getvalue()


def _paid_rows(payment: Payment | None) -> Iterator[dict[str, str]]:
    """The deposit, what is paid and what is due, where a deposit is asked or something is paid."""
    if payment is not None and (payment.deposit or payment.paid):
        for name, amount in (("deposit", payment.deposit), ("paid", payment.paid), ("due", payment.due)):
            yield {"kind": "sum", "name": name, "price": _amount(amount)}


def write_pdf(cost: EventCost, reader: Reader, *, stamp: Stamp, paper: Paper, payment: Payment | None = None) -> bytes:
    """The sheet as PDF.

    Args:
        reader: who it is for. stamp: what every foot says. payment: what is paid before, None says nothing of it.
    """
    width = SIZES[paper][0] - 2 * SIDE
    return flowing(lambda: _story(cost, reader, width, payment), _SHEETS[reader], stamp=stamp, paper=paper)


def _story(cost: EventCost, reader: Reader, width: float, payment: Payment | None) -> list[Flowable]:
    story: list[Flowable] = [_table(list(_client(cost) if reader == "client" else _studio(cost)), width)]
    least = "at least " if cost.unsaid or cost.missing else ""
    sums = [("Price", cost.price), ("Tax", cost.tax), ("To ask", cost.asked)]
    for words, amount in sums if cost.tax else sums[:1]:
        said = _UNKNOWN if amount is None else f"{least}{escape(cost.currency)} {amount}"
        story.append(paragraph(f"<b>{words}: {said}</b>"))
    for row in _paid_rows(payment):
        words, said = row["name"].capitalize(), row["price"] or _UNKNOWN
        story.append(paragraph(f"{words}: {escape(cost.currency)} {said}", SMALL))
    if reader == "studio":
        for words, names in (
            ("Not known", [each.say.text for each in cost.missing]),
            ("Not in it, as nobody has said what it costs", list(cost.unsaid)),
        ):
            if names:
                story.append(paragraph(f"{words}: {escape('; '.join(names))}.", SMALL))
    return story


def _client(cost: EventCost) -> Iterator[tuple[str, ...]]:
    yield "", "each", "price"
    for each in cost.pieces:
        number = f"{each.quantity} × " if each.quantity > 1 else ""
        one = _amount(each.price_each) if each.quantity > 1 else ""
        yield f"{number}{each.name}", one, _amount(each.price) or _UNKNOWN
    for line in cost.lines:
        yield line.name, "", str(line.price)


def _studio(cost: EventCost) -> Iterator[tuple[str, ...]]:
    yield "", "stems", "mech.", "vessels", "used up", "h:min", "labour", "break.", "overh.", "cost", "kept", "price"
    for each in cost.pieces:
        yield (
            f"{each.quantity} × {each.name}" if each.quantity > 1 else each.name,
            *(str(amount) for amount in (each.stems, each.mechanics, each.vessels, each.consumables)),
            f"{each.minutes // 60}:{each.minutes % 60:02d}",
            _amount(each.labour) or _UNKNOWN,
            *(str(amount) for amount in (each.breakage, each.overheads)),
            _amount(each.cost) or _UNKNOWN,
            _amount(each.margin),
            _amount(each.price) or _UNKNOWN,
        )
    for line in cost.lines:
        of = render(line.of, "metric")
        kept = str(line.price - line.cost)
        yield f"{line.name}, {of}", *[""] * 7, str(line.overheads), str(line.cost), kept, str(line.price)


def _table(rows: list[tuple[str, ...]], width: float) -> Table:
    """Rows with their names on the left, amounts to the right; the first row is the head, told again on each page."""
    amounts = len(rows[0]) - 1
    each = min(70.0, 0.765 * width / amounts)
    cells = [[paragraph(escape(row[0]), SMALL), *row[1:]] for row in rows]
    table = Table(cells, colWidths=[width - amounts * each, *[each] * amounts], repeatRows=1)
    table.setStyle(
        TableStyle(
            [
                ("FONT", (0, 0), (-1, -1), SMALL.fontName, 8),
                ("ALIGN", (1, 0), (-1, -1), "RIGHT"),
                ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
                ("LINEBELOW", (0, 0), (-1, -1), 0.3, INK),
                ("LEFTPADDING", (0, 0), (-1, -1), 0),
                ("RIGHTPADDING", (0, 0), (-1, -1), 3),
            ]
        )
    )
    return table


def _amount(amount: Decimal | None) -> str:
    return "" if amount is None else str(amount)
