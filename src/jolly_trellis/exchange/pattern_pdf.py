"""Flat patterns as a 1:1 PDF, tiled on A4 or Letter with overlap, cross marks and a bar to check the printer by."""

import io
import math
from collections.abc import Iterator

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from jolly_trellis.core.making.patterns import Pattern
from jolly_trellis.exchange.page import LEAST_PT, SIZES, Paper, Stamp, cut_to, draw_stamp, open_page, wide, write

MARGIN_M = 0.010
OVERLAP_M = 0.010
FOOT_M = 0.012
WORDS_M = 0.004  # kept free round words at the edge of a page
_STYLES = {"CUT": (0.9, ()), "FOLD": (0.6, (4 * mm, 2 * mm)), "MARK": (0.25, ())}


def write_pdf(patterns: tuple[Pattern, ...], *, paper: Paper, title: str, stamp: Stamp) -> bytes:
    """Every pattern over as many pages as it needs, at true size.

    Neighbouring pages overlap by 10 mm; crosses mark the corners where they meet; each page says its row and column
    and carries a bar of 50 mm.
    """
    stream = io.BytesIO()
    canvas = open_page(stream, paper, f"Patterns: {title}")
    pages = sum(math.prod(tiles(each, paper)) for each in patterns) or 1
    page = 0
    for pattern in patterns:
        for row, column in _tiles_of(canvas, pattern, paper):
            page += 1
            of = tiles(pattern, paper)
            words = f"{pattern.name}, page row {row + 1} of {of[1]}, column {column + 1} of {of[0]}."
            _foot(canvas, words + " Print at 100 %, no scaling; overlap the crosses.")
            draw_stamp(canvas, stamp, title, page, pages, paper)
            canvas.showPage()
    if not patterns:
        write(canvas, 20 * mm, 20 * mm, "Nothing in this piece is cut from the flat.", 11)
        draw_stamp(canvas, stamp, title, 1, 1, paper)
        canvas.showPage()
    canvas.save()
    return stream.getvalue()


def tiles(pattern: Pattern, paper: Paper) -> tuple[int, int]:
    """Columns and rows of pages that a pattern needs."""
    wide, tall = _room_m(paper)
    return (
        max(1, math.ceil((pattern.width_m - OVERLAP_M) / (wide - OVERLAP_M) - 1e-9)),
        max(1, math.ceil((pattern.height_m - OVERLAP_M) / (tall - OVERLAP_M) - 1e-9)),
    )


def _room_m(paper: Paper) -> tuple[float, float]:
    """What of a page can be drawn on, metres."""
    width, height = SIZES[paper]
    return width / mm / 1000 - 2 * MARGIN_M, height / mm / 1000 - 2 * MARGIN_M - FOOT_M


def _tiles_of(canvas: Canvas, pattern: Pattern, paper: Paper) -> Iterator[tuple[int, int]]:
    """Draw a pattern's pages, one after the other; the row and column of each once it is drawn."""
    wide, tall = _room_m(paper)
    columns, rows = tiles(pattern, paper)
    for row in range(rows):
        for column in range(columns):
            left, bottom = column * (wide - OVERLAP_M), row * (tall - OVERLAP_M)
            canvas.saveState()
            frame = canvas.beginPath()
            frame.rect(1000 * MARGIN_M * mm, 1000 * (MARGIN_M + FOOT_M) * mm, 1000 * wide * mm, 1000 * tall * mm)
            canvas.clipPath(frame, stroke=0, fill=0)
            canvas.translate(1000 * (MARGIN_M - left) * mm, 1000 * (MARGIN_M + FOOT_M - bottom) * mm)
            _draw(canvas, pattern)
            _labels(canvas, pattern, (left, bottom, wide, tall))
            canvas.restoreState()
            _crosses(canvas, wide, tall)
            yield row, column


def _draw(canvas: Canvas, pattern: Pattern) -> None:
    for line in pattern.lines:
        width, dash = _STYLES[line.layer]
        canvas.setLineWidth(width)
        canvas.setDash(*dash) if dash else canvas.setDash()
        path = canvas.beginPath()
        (x, y), *rest = line.points
        path.moveTo(1000 * x * mm, 1000 * y * mm)
        for x, y in rest:
            path.lineTo(1000 * x * mm, 1000 * y * mm)
        if line.closed:
            path.close()
        canvas.drawPath(path)
    canvas.setDash()


def _labels(canvas: Canvas, pattern: Pattern, box: tuple[float, float, float, float]) -> None:
    """The words that begin on this page, moved to where all of them are on it."""
    left, bottom, across, tall = box
    for label in pattern.labels:
        if not (left <= label.x_m <= left + across and bottom <= label.y_m <= bottom + tall):
            continue
        room = across - WORDS_M
        words = cut_to(label.text, 1000 * room * mm, LEAST_PT)
        x = min(label.x_m, left + across - WORDS_M / 2 - wide(words) / mm / 1000)
        y = min(max(label.y_m, bottom + WORDS_M), bottom + tall - WORDS_M)
        write(canvas, 1000 * max(x, left + WORDS_M / 2) * mm, 1000 * y * mm, words)


def _crosses(canvas: Canvas, wide: float, tall: float) -> None:
    canvas.setLineWidth(0.3)
    inset = OVERLAP_M / 2
    for x in (MARGIN_M + inset, MARGIN_M + wide - inset):
        for y in (MARGIN_M + FOOT_M + inset, MARGIN_M + FOOT_M + tall - inset):
            canvas.line(1000 * (x - 0.003) * mm, 1000 * y * mm, 1000 * (x + 0.003) * mm, 1000 * y * mm)
            canvas.line(1000 * x * mm, 1000 * (y - 0.003) * mm, 1000 * x * mm, 1000 * (y + 0.003) * mm)


def _foot(canvas: Canvas, words: str) -> None:
    y = (1000 * MARGIN_M + 4) * mm
    canvas.setLineWidth(1.2)
    canvas.line(1000 * MARGIN_M * mm, y, (1000 * MARGIN_M + 50) * mm, y)
    write(canvas, (1000 * MARGIN_M + 52) * mm, y - 2, "50 mm")
    write(canvas, 1000 * MARGIN_M * mm, y + 8, words)
