"""The shopping and packing list as CSV and as PDF, grouped by who sells it."""

import csv
import io
from collections.abc import Iterator
from functools import partial
from xml.sax.saxutils import escape

from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, SimpleDocTemplate

from jolly_trellis.core.event.shopping import Buy, Shopping
from jolly_trellis.core.units import UnitSystem, render, text_of
from jolly_trellis.exchange.page import (
    FOOT,
    HEAD,
    LANGUAGE,
    MARGIN,
    SIZES,
    SMALL,
    Paper,
    Stamp,
    draw_head,
    draw_stamp,
    paragraph,
    title,
)

COLUMNS = ("group", "what", "needed", "here", "buy", "pack", "price", "note")
GROUPS = {
    "flowers": "Stems",
    "market": "From the market, other",
    "sundries": "Floristry sundries",
    "hardware": "Hardware and netting",
    "rigging": "Rigging",
    "frogs": "Frogs",
    "vessels": "Vessels",
    "left out": "Not in this list",
}


def rows_of(shopping: Shopping, system: UnitSystem) -> Iterator[tuple[str, ...]]:
    """Every line to buy and to pack, then what is in no line, as text in the order of `COLUMNS`."""
    for stem in shopping.stems:
        bought = [f"{stem.bunches} bunches" if stem.bunches != 1 else "1 bunch"] if stem.bunches else []
        bought += [f"{stem.singles} stems" if stem.singles != 1 else "1 stem"] if stem.singles else []
        price = "" if stem.cost is None else f"{stem.cost}"
        note = f"{stem.in_recipes} in the recipes, {stem.left_over} left over"
        yield (
            "flowers",
            stem.name,
            str(stem.with_waste),
            str(stem.here) if stem.here else "",
            " and ".join(bought) or "0",
            f"bunch of {stem.bunch_size}",
            price,
            note,
        )
    order = list(GROUPS)
    for buy in sorted(shopping.buys, key=lambda each: order.index(each.group)):
        if buy.packs:
            yield (buy.group, buy.name, *_amounts(buy, system))
    for pack in shopping.packs:
        yield (pack.group, pack.name, str(pack.number), "", "", "", "", render(pack.why, system))
    for words in shopping.left_out:
        yield ("left out", render(words, system), "", "", "", "", "", "")


def write_csv(shopping: Shopping, system: UnitSystem) -> str:
    """The list as CSV; a cell that a spreadsheet would take for a formula gets an apostrophe before it."""
    stream = io.StringIO(newline="")
    writer = csv.writer(stream, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for row in rows_of(shopping, system):
        writer.writerow([f"'{each}" if each[:1] in ("=", "+", "@", "-", "\t") else each for each in row])
    return stream.getvalue()


def write_pdf(shopping: Shopping, *, stamp: Stamp, currency: str, paper: Paper, system: UnitSystem) -> bytes:
    """The list as PDF with a box to tick before each line.

    Args:
        stamp: what every foot says.
    """
    pages = 1
    while True:
        stream = io.BytesIO()
        page = SimpleDocTemplate(
            stream,
            pagesize=SIZES[paper],
            leftMargin=MARGIN,
            rightMargin=MARGIN,
            topMargin=MARGIN + HEAD,
            bottomMargin=MARGIN + FOOT / 2,
            title=f"Shopping and packing: {stamp.event}",
            lang=LANGUAGE,
            invariant=1,
        )
        dressed = partial(_dress, stamp=stamp, pages=pages, paper=paper)
        page.build(_story(shopping, currency, system), onFirstPage=dressed, onLaterPages=dressed)
        if page.page == pages:
            return stream.getvalue()
        pages = page.page


def _dress(canvas: Canvas, page: SimpleDocTemplate, *, stamp: Stamp, pages: int, paper: Paper) -> None:
    draw_head(canvas, "Shopping and packing", stamp.event, paper)
    draw_stamp(canvas, stamp, "shopping and packing", page.page, pages, paper)


def _story(shopping: Shopping, currency: str, system: UnitSystem) -> list[Flowable]:
    story: list[Flowable] = []
    group = ""
    for row in rows_of(shopping, system):
        if row[0] != group:
            group = row[0]
            story.append(title(GROUPS.get(group, group.capitalize())))
        story.append(paragraph(_line(row, currency), SMALL))
    total = f"With a known price: {currency} {shopping.cost}."
    if shopping.unpriced:
        total += f" No price is known for: {', '.join(shopping.unpriced)}."
    story.append(paragraph(f"<br/>{escape(total)}", SMALL))
    return story


def _amounts(buy: Buy, system: UnitSystem) -> tuple[str, ...]:
    price = "" if buy.price is None else f"{buy.price}"
    here = text_of(buy.here, system) if buy.here.value > 0 else ""
    return text_of(buy.needed, system), here, str(buy.packs), buy.pack, price, buy.note


def _line(row: tuple[str, ...], currency: str) -> str:
    group, what, needed, here, buy, pack, price, note = (escape(each) for each in row)
    if group == "left out":
        return what
    if not buy:
        return f"[  ]  {needed} × {what}" + (f" ({note})" if note else "")
    words = f"[  ]  <b>{what}</b>: buy {buy} ({pack}); needed {needed}" + (f", here {here}" if here else "")
    return words + (f"; {escape(currency)} {price}" if price else "; no price known") + (f"; {note}" if note else "")
