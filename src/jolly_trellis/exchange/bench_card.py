"""The bench card: one page for one piece, to hang over the bench; the carry card of a bouquet."""

import math
from dataclasses import dataclass
from itertools import groupby
from xml.sax.saxutils import escape

from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable

from jolly_trellis.core.acts.of_piece import acts_of
from jolly_trellis.core.acts.stances import rides_flowered
from jolly_trellis.core.checks.hide import side_words
from jolly_trellis.core.checks.looking import Looking
from jolly_trellis.core.drawing.project import View
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.making.report import Gate, MakingReport, MakingStep
from jolly_trellis.core.making.steps import CutGroup
from jolly_trellis.core.materials.netting import NettingSheet
from jolly_trellis.core.mechanics.sized import Part
from jolly_trellis.core.plan.kinds import is_worn
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.quantities import Quantity, cut_length, length, level_least, level_most
from jolly_trellis.core.units import UnitSystem, cut_length_text, render, text_of
from jolly_trellis.exchange.ink import draw_picture
from jolly_trellis.exchange.page import (
    FOOT,
    GAP,
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

DRAWN = 0.36
SEEN = 0.56
CAPTION = 34.0
POINT_M = 0.0254 / 72
_STATE = {"holds": "HOLDS", "tight": "TIGHT", "fails": "FAILS", "not needed": "not needed", "cannot say": "CANNOT SAY"}
CAUTIONS = (
    "Planning figures; your own trial decides. Local rules and licensed trades come first.",
    "Cut netting: gloves, eye protection, ends tucked in. Keep water from electricity.",
)
HANGS = "What hangs over people: the building's owner rates the hook, and a competent person and local rules decide."
LEDGE = "Nobody stands under a ledge piece while it is made. Keep exits, sprinklers and detectors clear."


def write_card(
    piece: Piece,
    report: Report,
    making: MakingReport,
    looking: Looking,
    *,
    stamp: Stamp,
    paper: Paper,
    system: UnitSystem,
) -> bytes:
    """The card of one piece as a PDF: one page, and another for what has no room on it.

    Args:
        piece, report, making, looking: the plan as it stands, worked out.
        stamp: what its foot says.
        system: units of sentences; sizes to cut are given in both.
    """
    kind = "Carry card" if piece.carried else "Bench card"

    def draw(canvas: Canvas, pages: int) -> int:
        return _pages(canvas, piece, report, making, looking, (kind, stamp, pages), paper, system)

    return paged(paper, f"{kind}: {piece.name}", draw)


def _pages(
    canvas: Canvas,
    piece: Piece,
    report: Report,
    making: MakingReport,
    looking: Looking,
    head: tuple[str, Stamp, int],
    paper: Paper,
    system: UnitSystem,
) -> int:
    """Draw every page; how many there are."""
    kind, stamp, pages = head
    width, height = SIZES[paper]
    wide = width - 2 * MARGIN
    half = (wide - GAP) / 2
    room = height - 2 * MARGIN - HEAD - FOOT
    tall = DRAWN * room
    top = height - MARGIN - HEAD - tall
    drawn = (SEEN * wide - GAP) / 2
    draw_head(canvas, f"{piece.name} × {piece.quantity}", f"{stamp.event} · {kind}", paper)
    for place, view in enumerate(_views(report, looking)):
        left = MARGIN + place * (drawn + GAP)
        box = (left, top + CAPTION, drawn, tall - CAPTION - 2)
        placed = draw_picture(canvas, report.picture, report.stems, view.view, box)
        _caption(canvas, left, top, placed.scale, view.lines, system)
    across = (1 - SEEN) * wide - GAP
    low, below = MARGIN + FOOT, top - GAP - MARGIN - FOOT
    sizes = fill(canvas, (width - MARGIN - across, top, across, tall), _sizes(piece, report, making, system))
    left_over = [
        [*sizes, *fill(canvas, (MARGIN, low, half, below), _making(piece, report, making, system))],
        fill(canvas, (MARGIN + half + GAP, low, half, below), _verdicts(piece, report, system)),
    ]
    _foot(canvas, piece)
    page = 1
    while True:
        draw_stamp(canvas, stamp, piece.name, page, pages, paper)
        canvas.showPage()
        if not any(left_over):
            return page
        page += 1
        draw_head(canvas, f"{piece.name} × {piece.quantity}", f"{stamp.event} · {kind}, continued", paper)
        left_over = [
            fill(canvas, (MARGIN + at * (half + GAP), low, half, room), story) for at, story in enumerate(left_over)
        ]


def to_cut(quantity: Quantity, system: UnitSystem) -> str:
    """A size to cut in both unit systems, the reader's first."""
    value = cut_length(quantity.value) if quantity.kind in ("length", "cut_length") else quantity
    other: UnitSystem = "inch" if system == "metric" else "metric"
    return f"{text_of(value, system)} ({text_of(value, other)})"


@dataclass(frozen=True, slots=True)
class _Seen:
    view: View
    lines: tuple[str, str]


def _views(report: Report, looking: Looking) -> tuple[_Seen, _Seen]:
    """The piece cut open, and from where most of what is to be hidden shows; where no guest looks, from aside."""
    ledge = report.ledge is not None
    cut = View(turn_rad=math.pi / 2 if ledge else 0.0, cut=True)
    opened = _Seen(cut, ("Cut open,", "from the right" if ledge else "from the front"))
    raised = {each.kind: each.raised_rad for each in report.picture.eyes}
    if looking.worst is None:
        aside = View(turn_rad=math.radians(30), raised_rad=raised.get("standing", 0.3))
        counted = any(each.counts for each in looking.glances)
        return opened, _Seen(aside, ("Standing, from front right", "Nothing to be hidden shows" if counted else ""))
    worst = looking.glances[looking.worst]
    seen = View(turn_rad=worst.turn_rad, raised_rad=raised[worst.eye])
    where = f"Worst: {worst.eye}, from {side_words(worst.turn_rad)},"
    return opened, _Seen(seen, (where, f"{worst.share:.0%} of the {worst.of} shows"))


_BAR_MOST_PT = 90  # so that its words have room under a drawing


def _caption(
    canvas: Canvas, left: float, bottom: float, scale: float, lines: tuple[str, str], system: UnitSystem
) -> None:
    """A scale bar, what scale that is, and from where it is seen."""
    bars = (0.1, 0.05, 0.02, 0.01) if system == "metric" else tuple(each * 0.0254 for each in (4, 2, 1, 0.5))
    bar = next((each for each in bars if each * scale <= _BAR_MOST_PT), bars[-1])
    canvas.setStrokeColor(INK)
    canvas.setFillColor(INK)
    canvas.setLineWidth(1)
    canvas.line(left, bottom + 24, left + bar * scale, bottom + 24)
    told = f"{text_of(length(bar), system)}, 1 : {1 / (scale * POINT_M):.1f}"
    write(canvas, left + bar * scale + 4, bottom + 21.5, told)
    for row, words in enumerate(lines):
        write(canvas, left, bottom + 11.5 - 9.5 * row, words)


def _sizes(piece: Piece, report: Report, making: MakingReport, system: UnitSystem) -> list[Flowable]:
    """What to cut and take, in both units; water levels; stems by cut length."""
    story: list[Flowable] = [title(f"Cut and take: {report.mechanic.name}")]
    for flat in report.mechanic.flat:
        story.append(paragraph(_sheet(flat.name, flat.sheet, system)))
    if report.spill is not None:
        story.append(paragraph(_sheet("spill", report.spill.sheet, system)))
    for other in report.companions:
        story += [paragraph(_sheet(f"{other.name}, {flat.name}", flat.sheet, system)) for flat in other.mechanic.flat]
    story += [paragraph(_part(each, system)) for each in (*report.mechanic.parts, *report.extras)]
    if not is_worn(piece):
        story += _water(piece, report, system)
    story.append(title("Stems by cut length"))
    groups = [*report.cut_list, *(group for each in report.companions for group in each.cut_list)]
    for name, cuts in groupby(sorted(groups, key=lambda each: each.name), key=lambda each: each.name):
        story.append(paragraph(f"<b>{escape(name)}</b> " + ", ".join(_cut(each, system) for each in cuts), SMALL))
    for line in making.pull:
        if line.first_step is None and piece.spill is not None:
            cut = to_cut(length(piece.spill.cut_length_m), system)
            story.append(paragraph(f"<b>{escape(line.name)}</b>, for the spill, {line.count} at {cut}", SMALL))
    if piece.carried:
        story += _carried(piece, report, system)
    return story


def _water(piece: Piece, report: Report, system: UnitSystem) -> list[Flowable]:
    """Water levels: before any stem and on the road, where it rides wet, and on show."""
    rides = piece.transport is not None and rides_flowered(acts_of(piece, {}))
    going = (report.water.bench_level_m, report.water.travel_level_m) if rides else (None, None)
    levels = (
        ("bench, before any stem, at most", None if going[0] is None else level_most(going[0])),
        ("on the road, at most", None if going[1] is None else level_most(going[1])),
        ("on show" if not piece.carried else "in the vase", level_least(piece.water_level_m)),
    )
    known = [f"{words} <b>{to_cut(level, system)}</b>" for words, level in levels if level is not None]
    return [title("Water above the inside floor"), paragraph("; ".join(known) + ".")]


def _carried(piece: Piece, report: Report, system: UnitSystem) -> list[Flowable]:
    """What whoever carries it should know."""
    made = report.bouquet
    if made is None:
        return []
    drink = next(each for each in report.verdicts if each.verb == "drink")
    weighs = f"It weighs {text_of(Quantity(kind='mass', value=made.carried_kg), system)}"
    worn = is_worn(piece)
    filled = text_of(level_least(piece.water_level_m), system)
    words = [
        f"{weighs}." if worn else f"{weighs}; hold it below the binding.",
        f"Out of water: {render(drink.reason, system)}",
        "Between times it lies in its closed box, misted, in the cool."
        if worn
        else f"Between times it stands in its vase, filled to {filled}.",
    ]
    return [title("To whoever carries it"), *(paragraph(escape(each)) for each in words)]


def _making(piece: Piece, report: Report, making: MakingReport, system: UnitSystem) -> list[Flowable]:
    """Steps of the mechanic, then the making order with its gates as boxes to tick."""
    story: list[Flowable] = [title("Do, in this order")]
    for step in report.steps:
        if step.kind == "place":
            continue
        caution = f" <i>{escape(step.caution)}</i>" if step.caution else ""
        story.append(paragraph(f"– {escape(render(step.say, system))}{caution}", SMALL))
    story.append(title("Making order" + (", as kept by hand" if making.kept else "")))
    story += [paragraph(words, SMALL) for words in _order_lines(piece, making, system)]
    if making.fails_at is not None and not making.propped:
        story.append(paragraph(f"<b>{escape(render(making.say, system))}</b>"))
    if making.propped:
        story.append(paragraph("<b>Propped, or held by somebody, until the last stem is in.</b>"))
    return story


def _order_lines(piece: Piece, making: MakingReport, system: UnitSystem) -> list[str]:
    lines = []
    gates, befores = list(making.gates), [gate.before for gate in making.gates]

    def run_of(each: tuple[int, MakingStep]) -> tuple[int, int, int]:
        """Steps of one line with no gate between them are one line on the card."""
        return each[1].ref.vessel, each[1].ref.line, sum(before < each[0] for before in befores)

    for _, group in groupby(enumerate(making.steps, start=1), key=run_of):
        run = list(group)
        while gates and gates[0].before < run[0][0]:
            lines.append(_gate_line(gates.pop(0), system))
        lines.append(_run_line(piece, run, system))
    return [*lines, *(_gate_line(gate, system) for gate in gates)]


def _gate_line(gate: Gate, system: UnitSystem) -> str:
    return f"[{'x' if gate.passed else '&nbsp;&nbsp;'}] <i>{escape(render(gate.say, system))}</i>"


def _run_line(piece: Piece, run: list[tuple[int, MakingStep]], system: UnitSystem) -> str:
    first, last, step = run[0][0], run[-1][0], run[0][1]
    numbers = f"{first}" if first == last else f"{first}–{last}"
    sides = ", ".join(dict.fromkeys(each.side for _, each in run)) if len(run) <= 3 else "opposite sides in turn"
    if is_worn(piece):
        sides = "one after another"
    cuts = sorted({each.cut_length_m for _, each in run}, reverse=True)
    long = " to ".join(dict.fromkeys((cut_length_text(cuts[0], system), cut_length_text(cuts[-1], system))))
    where = f", in {escape(piece.companions[step.ref.vessel - 1].name)}" if step.ref.vessel else ""
    return f"<b>{numbers}</b> {escape(step.name)}{where} ({step.phase}): {sides}; {long}"


def _verdicts(piece: Piece, report: Report, system: UnitSystem) -> list[Flowable]:
    story: list[Flowable] = [title("Verdicts")]
    for verdict in report.verdicts:
        used = verdict.utilisation
        number = "" if used is None else f" {'over 9.99' if used > 9.99 else f'{used:.2f}'}"
        words = escape(render(verdict.reason, system))
        story.append(paragraph(f"<b>{verdict.verb.capitalize()}: {_STATE[verdict.state]}{number}.</b> {words}", SMALL))
    for notice in report.notices:
        story.append(paragraph(escape(render(notice.say, system)), SMALL))
    story.append(title("Cautions"))
    told = dict.fromkeys(step.caution for step in report.steps if step.caution)
    lines = [*CAUTIONS, *told]
    if report.ledge is not None:
        lines.append(LEDGE)
    if piece.spill is not None:
        lines.append(HANGS)
    return [*story, *(paragraph(f"– {escape(each)}", SMALL) for each in lines)]


def _foot(canvas: Canvas, piece: Piece) -> None:
    canvas.setFillColor(INK)
    words = "Made by ____________________   weighed ____________   "
    words += "handed over at ____________" if piece.carried else "set down at ____________"
    write(canvas, MARGIN, MARGIN + 6, words)


def _sheet(name: str, sheet: NettingSheet, system: UnitSystem) -> str:
    size = f"{to_cut(length(sheet.width_m), system)} × {to_cut(length(sheet.length_m), system)}"
    return f"<b>{escape(name)}</b> {size}, {sheet.cells_across} cells × {sheet.rows_along} rows"


def _part(part: Part, system: UnitSystem) -> str:
    number = f"{part.quantity} × " if part.quantity > 1 else ""
    return f"{number}{escape(part.name)} " + " × ".join(to_cut(size, system) for size in part.sizes)


def _cut(group: CutGroup, system: UnitSystem) -> str:
    long = "" if group.sold else " (not sold so long)"
    return f"{group.count} at {to_cut(length(group.cut_length_m), system)}{long}"
