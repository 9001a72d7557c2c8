"""The shopping and packing list as CSV and as PDF, grouped by who sells it."""

import csv
import io
from collections.abc import Iterator
from decimal import Decimal
from itertools import groupby
from xml.sax.saxutils import escape

from reportlab.platypus import Flowable

from jolly_trellis.core.event.buying.shopping import Buy, Shopping, Trip
from jolly_trellis.core.event.needs.bunches import StemBuy, shades_in_words
from jolly_trellis.core.units import UnitSystem, render, text_of
from jolly_trellis.exchange.page import SMALL, Paper, Stamp, flowing, paragraph, title

COLUMNS = (
    "group",
    "key",
    "name",
    "supplier",
    "buy_on",
    "needed_count",
    "needed_m",
    "needed_kg",
    "here_count",
    "here_m",
    "here_kg",
    "buy_packs",
    "buy_singles",
    "pack",
    "price",
    "left_over_count",
    "note",
)
GROUPS = {
    "flowers": "Stems",
    "market": "From the market, other",
    "sundries": "Floristry sundries",
    "hardware": "Hardware and netting",
    "rigging": "Rigging",
    "frogs": "Frogs",
    "vessels": "Vessels and stands",
    "hired": "Hired",
    "finished": "Used again",
    "left out": "Not in this list",
}
_IN: dict[str, str] = {"count": "count", "mass": "kg"}


def rows_of(shopping: Shopping) -> Iterator[dict[str, str]]:
    """Every line to buy and to pack, then what is in no line, by `COLUMNS`.

    Numbers are plain, and each column has one unit.
    """
    for trip, stem in _stems(shopping):
        yield {
            "group": "flowers",
            "key": stem.variety,
            "name": stem.name,
            "supplier": "" if trip is None else trip.supplier,
            "buy_on": "" if trip is None or trip.day is None else trip.day.isoformat(),
            "needed_count": str(stem.with_waste),
            "here_count": str(stem.here),
            "buy_packs": str(stem.bunches),
            "buy_singles": str(stem.singles),
            "pack": f"bunch of {stem.bunch_size}",
            "price": "" if stem.cost is None else f"{stem.cost}",
            "left_over_count": str(stem.left_over),
            "note": f"{stem.in_recipes} in the recipes" + (f"; {shades_in_words(stem)}" if stem.shades else ""),
        }
    for buy in _buys(shopping):
        yield {
            "group": buy.group,
            "key": buy.key,
            "name": buy.name,
            f"needed_{_IN.get(buy.needed.kind, 'm')}": f"{buy.needed.value:.6g}",
            f"here_{_IN.get(buy.here.kind, 'm')}": f"{buy.here.value:.6g}",
            "buy_packs": str(buy.packs),
            "pack": render(buy.pack, "metric"),
            "price": "" if buy.price is None else f"{buy.price}",
            "note": _notes(buy, "metric"),
        }
    for pack in shopping.packs:
        yield {
            "group": pack.group,
            "name": pack.name,
            "needed_count": str(pack.number),
            "note": render(pack.why, "metric"),
        }
    for words in shopping.left_out:
        yield {"group": "left out", "name": render(words, "metric")}


def _notes(buy: Buy, system: UnitSystem) -> str:
    return "; ".join(render(each, system) for each in buy.notes)


def write_csv(shopping: Shopping) -> str:
    """The list as CSV, in metres and kilograms; a cell that a spreadsheet would take for a formula gets an apostrophe
    before it.
    """
    stream = io.StringIO(newline="")
    writer = csv.DictWriter(stream, COLUMNS, restval="", lineterminator="\r\n")
    writer.writeheader()
    for row in rows_of(shopping):
        writer.writerow({name: _harmless(each) for name, each in row.items()})
    return stream.getvalue()


def _harmless(cell: str) -> str:
    return f"'{cell}" if cell[:1] in ("=", "+", "@", "-", "\t") else cell


def _stems(shopping: Shopping) -> Iterator[tuple[Trip | None, StemBuy]]:
    """Stems trip by trip, then those that are here."""
    by_key = {stem.variety: stem for stem in shopping.stems}
    for trip in shopping.trips:
        for key in trip.varieties:
            yield trip, by_key.pop(key)
    for stem in by_key.values():
        yield None, stem


def _buys(shopping: Shopping) -> list[Buy]:
    """What is bought beside stems, what the stores have too, group by group."""
    order = list(GROUPS)
    return sorted(shopping.buys, key=lambda each: order.index(each.group))


def write_pdf(shopping: Shopping, *, stamp: Stamp, currency: str, paper: Paper, system: UnitSystem) -> bytes:
    """The list as PDF with a box to tick before each line.

    Args:
        stamp: what every foot says.
    """
    return flowing(lambda: _story(shopping, currency, system), "Shopping and packing", stamp=stamp, paper=paper)


def _story(shopping: Shopping, currency: str, system: UnitSystem) -> list[Flowable]:
    story: list[Flowable] = []
    for heading, lines in groupby(_lines(shopping, currency, system), key=lambda each: each[0]):
        story.append(title(heading))
        story += [paragraph(line, SMALL) for _, line in lines]
    total = f"With a known price: {currency} {shopping.cost}."
    if shopping.unpriced:
        total += f" No price is known for: {', '.join(shopping.unpriced)}."
    story.append(paragraph(f"<br/>{escape(total)}", SMALL))
    return story


def _lines(shopping: Shopping, currency: str, system: UnitSystem) -> Iterator[tuple[str, str]]:
    """Each line under its heading, as text that may be marked up."""
    for trip, stem in _stems(shopping):
        bought = [f"{stem.bunches} bunches" if stem.bunches != 1 else "1 bunch"] if stem.bunches else []
        bought += [f"{stem.singles} stems" if stem.singles != 1 else "1 stem"] if stem.singles else []
        words = (
            f"[  ]  <b>{escape(stem.name)}</b>: buy {' and '.join(bought) or 'nothing'} (bunch of {stem.bunch_size}); "
        )
        if stem.shades:
            words += f"{escape(shades_in_words(stem))}; "
        words += f"needed {stem.with_waste}" + (f", here {stem.here}" if stem.here else "")
        words += _priced(stem.cost, currency) + f"; {stem.in_recipes} in the recipes, {stem.left_over} left over"
        yield heading_of(trip), words
    for buy in _buys(shopping):
        needed, here = text_of(buy.needed, system), text_of(buy.here, system)
        words = f"[  ]  <b>{escape(buy.name)}</b>: "
        if buy.packs:
            words += f"buy {buy.packs} ({escape(render(buy.pack, system))}); needed {needed}"
            words += (f", here {here}" if buy.here.value > 0 else "") + _priced(buy.price, currency)
        else:
            words += f"in the stores; needed {needed}"
        notes = _notes(buy, system)
        yield GROUPS[buy.group], words + (f"; {escape(notes)}" if notes else "")
    for pack in shopping.packs:
        why = escape(render(pack.why, system))
        yield pack.group.capitalize(), f"[  ]  {pack.number} × {escape(pack.name)}" + (f" ({why})" if why else "")
    for left in shopping.left_out:
        yield GROUPS["left out"], escape(render(left, system))


def heading_of(trip: Trip | None) -> str:
    """Where and when stems are fetched, in words."""
    if trip is None:
        return "Stems that are here"
    return f"Stems: {trip.supplier}" + ("" if trip.day is None else f", {trip.day:%a %d %b}")


def _priced(price: Decimal | None, currency: str) -> str:
    return "; no price known" if price is None else f"; {escape(currency)} {price}"
