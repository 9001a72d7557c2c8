"""The rig card: one page for one hung piece, for whoever rigs it and whoever lets it be hung."""

import io
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Frame, KeepInFrame, Table

from jolly_trellis.core.quantities import angle, force, length, mass
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.drops import longest_stem_m
from jolly_trellis.core.rigging.loads import PROOF_MIN
from jolly_trellis.core.rigging.resting import TILT_MOST
from jolly_trellis.core.rigging.rig import Rig, RigLine
from jolly_trellis.core.rigging.snip import SnipStep
from jolly_trellis.core.units import UnitSystem, render, text_of
from jolly_trellis.exchange.bench_card import (
    FOOT,
    HEAD,
    INK,
    MARGIN,
    SMALL,
    draw_head,
    paragraph,
    title,
    to_cut,
)
from jolly_trellis.exchange.pattern_pdf import SIZES, Paper

DRAWN = 0.27
LABEL_PT = 60
LEAF = HexColor("#41662f")
BELOW = {
    "walkway": "people walk under it",
    "table": "people sit under it",
    "beside": "people come beside it",
    "nobody": "nobody under it or beside it",
}
CASES = {"whole": "as hung", "uneven": "a line 1 % long", "one gone": "one line gone"}
CAUTIONS = (
    "Planning figures. The building's owner rates its points; a competent rigger and local rules decide what hangs.",
    "Nobody stands under it while it goes up, is proved or comes down. Close the floor below.",
    "Keep sprinklers, detectors, exits, lamps and flames clear; local codes give the distances.",
    "Ladders, lifts and work at height by those trained for it. Cut netting: gloves, eye protection, ends tucked in.",
)


def write_rig_card(
    rig: Rig, report: RigReport, snips: list[list[SnipStep]], *, event: str, paper: Paper, system: UnitSystem
) -> bytes:
    """The card of one hung piece as a PDF of one page: everything on it shrinks until it fits.

    Args:
        rig, report: the plan as it stands, worked out.
        snips: what happens when each line is cut, in the order of the lines.
        event: its event's name, for the head.
        system: units of sentences; lengths to cut are given in both.
    """
    stream = io.BytesIO()
    width, height = SIZES[paper]
    canvas = Canvas(stream, pagesize=(width, height), invariant=1)
    canvas.setTitle(f"Rig card: {rig.name}")
    draw_head(canvas, rig.name, f"{event} · Rig card", width, height)
    room = height - 2 * MARGIN - HEAD - FOOT
    tall = DRAWN * room
    top = height - MARGIN - HEAD - tall
    wide = width - 2 * MARGIN
    _draw(canvas, rig, report, (MARGIN, top + 6, wide * 0.62, tall - 8))
    frames: tuple[tuple[float, float, float, float, list[Flowable]], ...] = (
        (MARGIN + wide * 0.64, top, wide * 0.36, tall, _summary(rig, report, system)),
        (MARGIN, MARGIN + FOOT, wide, room - tall - 6, _schedule(rig, report, snips, system)),
    )
    for left, bottom, across, high, story in frames:
        frame = Frame(left, bottom, across, high, leftPadding=0, rightPadding=0, topPadding=0, bottomPadding=0)
        frame.addFromList([KeepInFrame(across, high, story, mode="shrink")], canvas)
    canvas.setFont("Helvetica", 7.5)
    canvas.drawString(
        MARGIN,
        MARGIN + 2,
        "Points rated by ____________________   rigged by ____________________   "
        "proved at ____________   witnessed by ____________________",
    )
    canvas.showPage()
    canvas.save()
    return stream.getvalue()


def cleared(report: RigReport) -> bool:
    """Whether every overhead check holds; anything unknown is not cleared."""
    return report.verdict.state in ("holds", "tight")


def _summary(rig: Rig, report: RigReport, system: UnitSystem) -> list[Flowable]:
    weighed = report.take_off
    state = "Every overhead check of this plan holds." if cleared(report) else "NOT CLEARED"
    proof = text_of(mass(report.proof_kg), system)
    sized = weighed.sized
    lowest = text_of(length(report.rest.lowest_m), system)
    words = [
        f"<b>{state}</b> {escape(render(report.verdict.reason, system))}",
        f"Finished: {text_of(mass(weighed.typical_kg), system)}, heavy {text_of(mass(weighed.heavy_kg), system)}; "
        f"counted as {text_of(force(report.rest.load_n), system)}.",
        f"Hangs {lowest} over the floor at its lowest; {BELOW[rig.below]}.",
        f"<b>Prove it with {proof}</b> for {PROOF_MIN.value:.0f} minutes, nobody under it, before any flower goes in.",
        f"Netting to cut: {to_cut(length(sized.sheet.width_m), system)} × "
        f"{to_cut(length(sized.sheet.length_m), system)}"
        + (f", in {sized.sections} sections." if sized.sections > 1 else "."),
    ]
    half = next((each for each in report.states if each.name == "one face done"), None)
    if half is not None and half.tilt_rad > TILT_MOST.value:
        tilt = text_of(angle(half.tilt_rad), system)
        words.append(f"Fill both faces in turn: with one done it hangs {tilt} out of level.")
    if report.standing is not None and rig.mount is not None:
        ballast = text_of(mass(rig.mount.ballast_kg), system)
        words.append(
            f"Each of the {rig.mount.kind}'s four feet: {ballast}; tied to {escape(rig.mount.tied_to or 'NOTHING')}."
        )
    return [title("Load summary"), *(paragraph(each) for each in words)]


def _schedule(rig: Rig, report: RigReport, snips: list[list[SnipStep]], system: UnitSystem) -> list[Flowable]:
    lines = [["Line", "Of", "Cut to, with tails", "Worst pull", "May carry", "Use", "In the case"]]
    for line, state in zip(rig.lines, report.lines, strict=True):
        lines.append(
            [
                state.name,
                f"{line.spec.kind}{_size(line.spec.size_m)}, {line.spec.fitting}",
                to_cut(length(state.cut_length_m), system),
                text_of(force(state.design_n), system),
                text_of(force(state.limit_n), system),
                f"{state.use:.2f}",
                CASES[state.governs],
            ]
        )
    points = [["Hang point", "Kind", "Design load", "Off straight down", "May carry", "Stated by", "On"]]
    for hung, pulled in zip(rig.points, report.points, strict=True):
        rated = "NOT STATED" if hung.rating_n is None else text_of(force(hung.rating_n), system)
        points.append(
            [
                hung.name,
                hung.kind,
                text_of(force(pulled.pull_n), system),
                f"{pulled.off_rad * 57.29578:.0f}°",
                rated,
                hung.stated_by or "____________",
                hung.stated_on or "________",
            ]
        )
    parts = ", ".join(f"{each.name} {text_of(mass(each.heavy_kg), system)}" for each in report.take_off.parts)
    told = [
        f"<b>{escape(state.name)} cut:</b> {escape(' Then: '.join(render(step.say, system) for step in steps))}"
        for state, steps in zip(report.lines, snips, strict=True)
    ]
    bond = "none: it is tied all along" if rig.is_tied else "NONE PLANNED"
    if rig.bond is not None:
        spec, point = rig.bond.spec, rig.bond.point
        where = "NO POINT CHOSEN" if point is None else rig.points[point].name
        slack = text_of(length(rig.bond.slack_m), system)
        bond = f"{spec.kind}{_size(spec.size_m)}, {spec.fitting}, {slack} slack, to {where}"
    names = [state.name for state in report.lines]
    order = "; ".join(
        f"{each + 1}. {names[step.line]}, {text_of(length(step.slack_m), system)} slack till then"
        for each, step in enumerate(report.tightening)
    )
    parts_cut = ", ".join(
        f"{each.count} {each.name}" + ("" if each.length_m is None else f" of {to_cut(length(each.length_m), system)}")
        for each in report.take_off.sized.parts
    )
    return [
        title("Line schedule"),
        _table(lines),
        title("Design loads of hang points"),
        _table(points),
        paragraph(f"<b>Second bond:</b> {escape(bond)}."),
        title("Order of tightening"),
        paragraph(escape(order) or "No lines.", SMALL),
        title("If a line goes"),
        *(paragraph(each, SMALL) for each in told),
        title("What hangs, heavy case"),
        paragraph(escape(parts), SMALL),
        *([paragraph(f"<b>Also to cut:</b> {escape(parts_cut)}.", SMALL)] if parts_cut else []),
        *_drop_list(report, system),
        title("Cautions"),
        *(paragraph(f"– {escape(each)}", SMALL) for each in CAUTIONS),
    ]


def _drop_list(report: RigReport, system: UnitSystem) -> list[Flowable]:
    """Hung stems by the length they are cut to."""
    if not report.drops:
        return []
    rows = ", ".join(f"{each.count} × {to_cut(length(each.length_m), system)}" for each in report.drops)
    return [title("Drop list"), paragraph(escape(rows), SMALL)]


def _size(size_m: float | None) -> str:
    return "" if size_m is None else f" {size_m * 1000:g} mm"


def _table(rows: list[list[str]]) -> Table:
    cells = [
        [paragraph(f"<b>{escape(each)}</b>" if at == 0 else escape(each), SMALL) for each in row]
        for at, row in enumerate(rows)
    ]
    table = Table(cells, hAlign="LEFT", repeatRows=1)
    table.setStyle(
        [
            ("LINEBELOW", (0, 0), (-1, -1), 0.4, INK),
            ("LEFTPADDING", (0, 0), (-1, -1), 0),
            ("RIGHTPADDING", (0, 0), (-1, -1), 4),
            ("TOPPADDING", (0, 0), (-1, -1), 1),
            ("BOTTOMPADDING", (0, 0), (-1, -1), 1),
            ("VALIGN", (0, 0), (-1, -1), "TOP"),
        ]
    )
    return table


def _place(rig: Rig, line: RigLine) -> tuple[float, float, float]:
    point = rig.points[line.point or 0]
    return point.x_m, point.y_m, point.z_m


def _draw(canvas: Canvas, rig: Rig, report: RigReport, box: tuple[float, float, float, float]) -> None:
    """The rig from the front to scale, settled, from its beam to the floor."""
    left, bottom, wide, tall = box
    nodes, held = report.rest.at_m, report.rest.attachments_m
    xs = [*(point.x_m for point in rig.points), *(node[0] for node in nodes)]
    high = max(*(point.z_m for point in rig.points), *(node[2] for node in nodes))
    scale = min(wide / (max(xs) - min(xs) + 0.6), (tall - 30) / high)
    middle = (max(xs) + min(xs)) / 2

    def at(x: float, z: float) -> tuple[float, float]:
        return left + wide / 2 + (x - middle) * scale, bottom + z * scale

    canvas.setStrokeColor(INK)
    canvas.setLineWidth(1)
    canvas.line(left, bottom, left + wide, bottom)
    canvas.setFont("Helvetica", 6.5)
    for index, line in enumerate(rig.lines):
        start = held[line.tied_to] if line.tied_to is not None else _place(rig, line)
        over = report.lines[index].use > 1
        canvas.setLineWidth(1.8 if over else 0.8)
        canvas.setDash(*([3, 2] if over else [1, 0]))
        canvas.line(*at(start[0], start[2]), *at(held[line.attachment][0], held[line.attachment][2]))
    canvas.setDash()
    canvas.setStrokeColor(LEAF)
    run = rig.is_run
    canvas.setLineWidth(max(rig.armature.diameter_m * scale, 2) if run else 2)
    path = canvas.beginPath()
    path.moveTo(*at(nodes[0][0], nodes[0][2]))
    for node in nodes[1:]:
        path.lineTo(*at(node[0], node[2]))
    canvas.drawPath(path)
    if not run:
        low = min(node[2] for node in nodes) - longest_stem_m(rig.armature)
        canvas.setLineWidth(0.6)
        for node in nodes:
            canvas.line(*at(node[0], node[2]), *at(node[0], low))
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.8)
    named: list[float] = []
    for point in rig.points:
        x, y = at(point.x_m, point.z_m)
        canvas.circle(x, y, 2)
        near = sum(abs(x - other) < LABEL_PT for other in named)
        canvas.drawCentredString(x, y + 4 + 7 * near, point.name[:18])
        named.append(x)
