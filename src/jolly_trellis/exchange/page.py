"""What all papers share: the faces of the screen, embedded; a head and a foot; letters of every script."""

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cache
from importlib.resources import as_file, files
from io import BytesIO
from typing import Literal
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.cidfonts import UnicodeCIDFont
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Frame, Paragraph, SimpleDocTemplate

Paper = Literal["A4", "Letter"]
SIZES = {"A4": A4, "Letter": LETTER}
MARGIN = 11 * mm
GAP = 4 * mm
HEAD = 13 * mm
FOOT = 10 * mm
INK = HexColor("#2b2620")
LEAST_PT = 8.0
LANGUAGE = "en-GB"
REGULAR, BOLD, ITALIC, NAMES, OTHER = "Atkinson", "Atkinson-Bold", "Atkinson-Italic", "Fraunces", "Noto"
# For scripts that no face of ours has; it is the reader's own, by the names that PDF gives such faces.
_EASTERN = "STSong-Light"
_FILES = {
    REGULAR: "atkinson-regular.ttf",
    BOLD: "atkinson-bold.ttf",
    ITALIC: "atkinson-italic.ttf",
    NAMES: "fraunces-semibold.ttf",
    OTHER: "noto-regular.ttf",
}


@cache
def _glyphs() -> dict[str, frozenset[int]]:
    """Makes the faces known to the PDF library, once; the letters that each has."""
    found = {}
    for face, name in _FILES.items():
        with as_file(files("jolly_trellis.exchange").joinpath("fonts", name)) as path:
            made = TTFont(face, str(path))
        pdfmetrics.registerFont(made)
        found[face] = frozenset(made.face.charToGlyph)
    pdfmetrics.registerFontFamily(REGULAR, normal=REGULAR, bold=BOLD, italic=ITALIC, boldItalic=BOLD)
    pdfmetrics.registerFont(UnicodeCIDFont(_EASTERN))
    return found


_glyphs()
TEXT = ParagraphStyle("text", fontName=REGULAR, fontSize=9.8, leading=12.4, textColor=INK)
SMALL = ParagraphStyle("small", parent=TEXT, fontSize=9.0, leading=11.4)
TITLE = ParagraphStyle("title", parent=TEXT, fontName=NAMES, fontSize=11.2, leading=14.5, spaceBefore=5)


@dataclass(frozen=True, slots=True, kw_only=True)
class Stamp:
    """What every page says of itself: its event, of which revision, printed on which day."""

    event: str
    revision: int
    printed_on: date


def runs_of(words: str, face: str) -> Iterator[tuple[str, str]]:
    """Words as runs of (face, text), each in a face that has its letters."""
    glyphs = _glyphs()

    def face_of(letter: str) -> str:
        code = ord(letter)
        if letter.isspace() or code in glyphs[face]:
            return face
        return next((each for each in (REGULAR, OTHER) if code in glyphs[each]), _EASTERN)

    held, text = face, ""
    for letter in words:
        needed = face_of(letter)
        if needed != held and text:
            yield held, text
            text = ""
        held = needed
        text += letter
    if text:
        yield held, text


def write(canvas: Canvas, x: float, y: float, words: str, size: float = LEAST_PT, face: str = REGULAR) -> float:
    """Write a line; where it ends, points."""
    for each, text in runs_of(words, face):
        canvas.setFont(each, size)
        canvas.drawString(x, y, text)
        x += pdfmetrics.stringWidth(text, each, size)
    return x


def wide(words: str, size: float = LEAST_PT, face: str = REGULAR) -> float:
    """How wide a line is, points."""
    return float(sum(pdfmetrics.stringWidth(text, each, size) for each, text in runs_of(words, face)))


def cut_to(words: str, room: float, size: float, face: str = REGULAR) -> str:
    """A line cut short, with an ellipsis, where it is wider than its room in points."""
    if wide(words, size, face) <= room:
        return words
    while words and wide(words + "…", size, face) > room:
        words = words[:-1]
    return words.rstrip() + "…"


_MARK = re.compile(r"(<[^>]+>|&[#\w]+;)")


def paragraph(words: str, style: ParagraphStyle = TEXT) -> Paragraph:
    """A paragraph on a card, with marks of its own."""
    parts = []
    for part in _MARK.split(words):
        if _MARK.fullmatch(part):
            parts.append(part)
            continue
        for face, text in runs_of(part, style.fontName):
            parts.append(text if face == style.fontName else f'<font name="{face}">{text}</font>')
    return Paragraph("".join(parts), style)


def title(words: str) -> Paragraph:
    """A heading on a card, plain words."""
    return paragraph(escape(words), TITLE)


def open_page(stream: BytesIO, paper: Paper, words: str) -> Canvas:
    """A new paper, with its title and its language."""
    canvas = Canvas(stream, pagesize=SIZES[paper], invariant=1, lang=LANGUAGE)
    canvas.setTitle(words)
    return canvas


def paged(paper: Paper, words: str, draw: Callable[[Canvas, int], int]) -> bytes:
    """A paper whose pages say how many there are: drawn again until that is so.

    Args:
        words: its title. draw: draws every page, told how many there are; how many it drew.
    """
    pages = 1
    while True:
        stream = BytesIO()
        canvas = open_page(stream, paper, words)
        drawn = draw(canvas, pages)
        if drawn == pages:
            canvas.save()
            return stream.getvalue()
        pages = drawn


def flowing(story: Callable[[], list[Flowable]], name: str, *, stamp: Stamp, paper: Paper) -> bytes:
    """A paper of as many pages as its story takes, each with head and foot.

    Args:
        story: makes what stands on it, anew each time it is laid out. name: what it is.
    """
    pages = 1

    def dress(canvas: Canvas, page: SimpleDocTemplate) -> None:
        draw_head(canvas, name, stamp.event, paper)
        draw_stamp(canvas, stamp, name[0].lower() + name[1:], page.page, pages, paper)

    while True:
        stream = BytesIO()
        laid_out = SimpleDocTemplate(
            stream,
            pagesize=SIZES[paper],
            leftMargin=MARGIN,
            rightMargin=MARGIN,
            topMargin=MARGIN + HEAD,
            bottomMargin=MARGIN + FOOT / 2,
            title=f"{name}: {stamp.event}",
            lang=LANGUAGE,
            invariant=1,
        )
        laid_out.build(story(), onFirstPage=dress, onLaterPages=dress)
        if laid_out.page == pages:
            return stream.getvalue()
        pages = laid_out.page


def draw_head(canvas: Canvas, name: str, words: str, paper: Paper) -> None:
    """The head of a page: what it is of, and a line of words, over a rule."""
    width, height = SIZES[paper]
    room = width - 2 * MARGIN
    canvas.setFillColor(INK)
    write(canvas, MARGIN, height - MARGIN - 13, cut_to(name, room, 16, NAMES), 16, NAMES)
    write(canvas, MARGIN, height - MARGIN - 26, cut_to(words, room, 9), 9)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.8)
    canvas.line(MARGIN, height - MARGIN - HEAD + 3, width - MARGIN, height - MARGIN - HEAD + 3)


def draw_stamp(canvas: Canvas, stamp: Stamp, name: str, page: int, pages: int, paper: Paper) -> None:
    """The foot of a page: event, piece, date, revision and page."""
    width, _ = SIZES[paper]
    day = f"{stamp.printed_on.day} {stamp.printed_on:%B %Y}"
    told = f"{day} · revision {stamp.revision} · page {page} of {pages}"
    canvas.setFillColor(INK)
    at = width - MARGIN - wide(told)
    write(canvas, at, MARGIN - 8, told)
    write(canvas, MARGIN, MARGIN - 8, cut_to(f"{stamp.event} · {name}", at - MARGIN - 8, LEAST_PT))


def fill(canvas: Canvas, box: tuple[float, float, float, float], story: Sequence[Flowable]) -> list[Flowable]:
    """Put a story into a box of the page; what has no room in it is given back."""
    rest = list(story)
    column = _Column(*box, leftPadding=0, rightPadding=0, topPadding=0, bottomPadding=0)
    while rest:
        if isinstance(rest[0], Paragraph) and rest[0].style is TITLE and column.room < _TITLED:
            break
        if column.add(rest[0], canvas):
            del rest[0]
            continue
        parts = column.split(rest[0], canvas)
        if len(parts) < 2 or not column.add(parts[0], canvas):
            break
        rest[:1] = parts[1:]
    return rest


_TITLED = TITLE.spaceBefore + TITLE.leading + 2 * TEXT.leading


class _Column(Frame):  # type: ignore[misc]
    """A box of a page that tells how high what is left of it is, points."""

    @property
    def room(self) -> float:
        return float(self._y - self._y1p)
