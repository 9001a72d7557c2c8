"""The cut plan as PDF: every roll drawn to scale with its pieces, the order of cuts beside it, lengths as lists."""

from xml.sax.saxutils import escape

from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable

from jolly_trellis.core.event.cutting.roll import CutPlan, cut_steps_of
from jolly_trellis.core.event.cutting.roll_problems import CutStock, MaterialPlan
from jolly_trellis.core.quantities import length
from jolly_trellis.core.units import UnitSystem, render, text_of
from jolly_trellis.exchange.bench_card import to_cut
from jolly_trellis.exchange.ink import CLAY, SOFT, Box
from jolly_trellis.exchange.page import (
    FOOT,
    HEAD,
    INK,
    MARGIN,
    SIZES,
    SMALL,
    Paper,
    Stamp,
    draw_head,
    draw_stamp,
    fill,
    paged,
    paragraph,
    title,
    write,
)
from jolly_trellis.exchange.page import wide as words_wide

DRAWN = 0.46
CAPTION = 11.0
SOURCES = {"remnant": "remnant in the stores", "here": "in the stores", "to buy": "to buy"}
CAUTION = "Cut netting: gloves, eye protection, ends tucked in; hold both edges when the roll is cut, it springs."


def write_cut_sheets(plan: CutPlan, *, stamp: Stamp, paper: Paper, system: UnitSystem) -> bytes:
    """A page for each roll or remnant of netting, then the lengths of every spool and stick.

    Args:
        stamp: what every foot says.
        system: units of sentences; sizes to cut are given in both.
    """
    rolls = [
        (material, place, stock)
        for material in plan.materials
        if material.material == "netting"
        for place, stock in enumerate(material.stocks)
    ]
    lengths = [each for each in plan.materials if each.material == "supply"]
    missing = [render(words, system) for material in plan.materials for words in material.missing]
    missing += [render(words, system) for words in plan.left_out]
    listed = bool(lengths or missing or not plan.materials)
    width, height = SIZES[paper]
    whole = (MARGIN, MARGIN + FOOT, width - 2 * MARGIN, height - 2 * MARGIN - HEAD - FOOT)

    def draw(canvas: Canvas, pages: int) -> int:
        page = 0
        for material, place, stock in rolls:
            heads = _heads(material, place, stock, stamp)
            draw_head(canvas, *heads, paper)
            rest = _netting(canvas, material, place, stock, whole, system)
            page = _ended(canvas, stamp, page, pages, paper, heads, rest, whole)
        if listed:
            heads = ("Lengths to cut", f"{stamp.event} · Cut plan")
            draw_head(canvas, *heads, paper)
            rest = fill(canvas, whole, _lengths(lengths, missing, system))
            page = _ended(canvas, stamp, page, pages, paper, heads, rest, whole)
        return page

    return paged(paper, f"Cut plan: {stamp.event}", draw)


def _ended(
    canvas: Canvas,
    stamp: Stamp,
    page: int,
    pages: int,
    paper: Paper,
    heads: tuple[str, str],
    rest: list[Flowable],
    whole: Box,
) -> int:
    """End a page, and go on for what had no room on it; the number of the last page."""
    while True:
        page += 1
        canvas.setFillColor(INK)
        write(canvas, MARGIN, MARGIN + 6, CAUTION)
        draw_stamp(canvas, stamp, "cut plan", page, pages, paper)
        canvas.showPage()
        if not rest:
            return page
        draw_head(canvas, heads[0], f"{heads[1]}, continued", paper)
        rest = fill(canvas, whole, rest)


def _heads(plan: MaterialPlan, place: int, stock: CutStock, stamp: Stamp) -> tuple[str, str]:
    number = f", roll {place + 1} of {len(plan.stocks)}" if len(plan.stocks) > 1 else ""
    return f"{plan.name}{number}", f"{stamp.event} · Cut plan · {SOURCES[stock.source]}"


def _netting(
    canvas: Canvas, plan: MaterialPlan, place: int, stock: CutStock, whole: Box, system: UnitSystem
) -> list[Flowable]:
    """The roll, and what is cut of it beside it; what had no room is given back."""
    left, bottom, across, room = whole
    wide = across * DRAWN
    _draw(canvas, plan, stock, (left, bottom + CAPTION, wide, room - CAPTION), system)
    story: list[Flowable] = [title("Pieces")]
    used = sorted({each.item for each in stock.pieces})
    for item in used:
        number_here = sum(each.item == item for each in stock.pieces)
        it = plan.items[item]
        size = f"{to_cut(length(it.width_m), system)} × {to_cut(length(it.length_m), system)}"
        story.append(paragraph(f"<b>{item + 1}</b>  {number_here} × {escape(it.label)}: {size}", SMALL))
    story.append(title("Order of cuts"))
    for step in cut_steps_of(plan):
        if step.stock == place:
            story.append(paragraph(escape(render(step.say, system)), SMALL))
    story.append(title("Worth keeping"))
    kept = [f"{text_of(length(w), system)} × {text_of(length(long), system)}" for w, long in stock.keep]
    story.append(paragraph(escape("; ".join(kept) or "nothing"), SMALL))
    return fill(canvas, (left + wide + 14, bottom, across - wide - 14, room), story)


def _draw(
    canvas: Canvas,
    plan: MaterialPlan,
    stock: CutStock,
    box: Box,
    system: UnitSystem,
) -> None:
    """The used part of the roll, its free end up, pieces numbered as in the list."""
    left, bottom, wide, tall = box
    shown = min(stock.length_m, max(stock.used_m * 1.06, 0.1))
    scale = min(wide / stock.width_m, tall / shown)
    top = bottom + tall
    canvas.setStrokeColor(SOFT)
    canvas.setLineWidth(0.6)
    canvas.rect(left, top - shown * scale, stock.width_m * scale, shown * scale)
    for piece in stock.pieces:
        x, y = left + piece.x * plan.cell_m * scale, top - piece.y * plan.row_m * scale
        across, along = piece.across * plan.cell_m * scale, piece.along * plan.row_m * scale
        canvas.setFillColor(CLAY)
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(0.8)
        canvas.rect(x, y - along, across, along, fill=1)
        canvas.setFillColor(INK)
        number = str(piece.item + 1)
        write(canvas, x + across / 2 - words_wide(number) / 2, y - along / 2 - 2.5, number)
    canvas.setDash(3, 2)
    for end in stock.strips:
        y = top - end * plan.row_m * scale
        canvas.line(left, y, left + stock.width_m * scale, y)
    canvas.setDash()
    canvas.setFillColor(INK)
    words = f"{text_of(length(stock.width_m), system)} across, {text_of(length(stock.used_m), system)} used"
    write(canvas, left, top - shown * scale - CAPTION + 2, words)


def _lengths(plans: list[MaterialPlan], missing: list[str], system: UnitSystem) -> list[Flowable]:
    story: list[Flowable] = []
    for plan in plans:
        total = sum(stock.count for stock in plan.stocks)
        what = ("stick" if plan.sticks else "spool") + ("" if total == 1 else "s")
        bought = f", {plan.to_buy} to buy" if plan.to_buy else ""
        story.append(title(f"{plan.name}: {total} {what}{bought}"))
        for item in plan.items:
            size = to_cut(length(item.length_m), system)
            story.append(paragraph(f"{item.quantity} × {escape(item.label)}: {size}", SMALL))
        if plan.sticks:
            story += [paragraph(escape(render(step.say, system)), SMALL) for step in cut_steps_of(plan)]
    if missing:
        story.append(title("Cannot be cut"))
        story += [paragraph(escape(words), SMALL) for words in missing]
    if not story:
        story.append(paragraph("Nothing in this event is cut from a roll, spool or stick."))
    return story
