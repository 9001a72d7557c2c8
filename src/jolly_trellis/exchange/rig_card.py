"""The rig card: one page for one hung piece, for whoever rigs it and whoever lets it be hung."""

import math
from xml.sax.saxutils import escape

from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Table

from jolly_trellis.core.event.tasks.gates import cleared
from jolly_trellis.core.quantities import angle, length, mass, pull
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.hang_points import POINTS
from jolly_trellis.core.rigging.loads import PROOF_MIN
from jolly_trellis.core.rigging.resting import TILT_MOST
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.rigging.snip import SnipStep
from jolly_trellis.core.rigging.states import LineState, PointState
from jolly_trellis.core.units import UnitSystem, render, text_of
from jolly_trellis.exchange.bench_card import to_cut
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
from jolly_trellis.exchange.rig_drawing import draw_rig

DRAWN = 0.27
SEVERAL = 3
BELOW = {
    "walkway": "people walk under it",
    "table": "people sit under it",
    "beside": "people come beside it",
    "nobody": "nobody under it or beside it",
}
SIGNED = (
    "Points rated by ____________________   rigged by ____________________   "
    "proved at ____________   witnessed by ____________________"
)
CASES = {"whole": "as hung", "uneven": "one line a little long", "one gone": "one line gone"}
CAUTIONS = (
    "Planning figures. The building's owner rates its points; a competent rigger and local rules decide what hangs.",
    "Nobody stands under it while it goes up, is proved or comes down. Close the floor below.",
    "Keep sprinklers, detectors, exits, lamps and flames clear; local codes give the distances.",
    "Ladders, lifts and work at height by those trained for it. Cut netting: gloves, eye protection, ends tucked in.",
)


def write_rig_card(
    rig: Rig, report: RigReport, snips: list[list[SnipStep]], *, stamp: Stamp, paper: Paper, system: UnitSystem
) -> bytes:
    """The card of one hung piece as a PDF: one page, and another for what has no room on it.

    Args:
        rig, report: the plan as it stands, worked out.
        snips: what happens when each line is cut, in the order of the lines.
        stamp: what its foot says.
        system: units of sentences; lengths to cut are given in both.
    """
    width, height = SIZES[paper]
    wide = width - 2 * MARGIN
    room = height - 2 * MARGIN - HEAD - FOOT
    tall = DRAWN * room
    top = height - MARGIN - HEAD - tall

    def draw(canvas: Canvas, pages: int) -> int:
        draw_head(canvas, rig.name, f"{stamp.event} · Rig card", paper)
        draw_rig(canvas, rig, report, (MARGIN, top + 6, wide * 0.62, tall - 8))
        story = fill(canvas, (MARGIN + wide * 0.64, top, wide * 0.36, tall), _summary(rig, report, system))
        story += _schedule(rig, report, snips, system)
        rest = fill(canvas, (MARGIN, MARGIN + FOOT, wide, room - tall - 6), story)
        write(canvas, MARGIN, MARGIN + 6, SIGNED)
        page = 1
        while True:
            draw_stamp(canvas, stamp, rig.name, page, pages, paper)
            canvas.showPage()
            if not rest:
                return page
            page += 1
            draw_head(canvas, rig.name, f"{stamp.event} · Rig card, continued", paper)
            rest = fill(canvas, (MARGIN, MARGIN + FOOT, wide, room), rest)

    return paged(paper, f"Rig card: {rig.name}", draw)


def _summary(rig: Rig, report: RigReport, system: UnitSystem) -> list[Flowable]:
    weighed = report.take_off
    state = "Every overhead check of this plan holds." if cleared(report.verdict) else "NOT CLEARED"
    proof = text_of(mass(report.proof_kg), system)
    sized = weighed.sized
    lowest = text_of(length(report.rest.lowest_m), system)
    words = [
        f"<b>{state}</b> {escape(render(report.verdict.reason, system))}",
        f"Finished: {text_of(mass(weighed.typical_kg), system)}, heavy {text_of(mass(weighed.heavy_kg), system)}; "
        f"counted as {text_of(pull(report.rest.load_n), system)}.",
        f"Hangs {lowest} over the floor at its lowest; {BELOW[rig.below]}.",
        f"<b>Prove it with {proof}</b> for {PROOF_MIN.value:.0f} minutes, nobody under it, before any flower goes in.",
        f"Netting to cut: {to_cut(length(sized.sheet.width_m), system)} × "
        f"{to_cut(length(sized.sheet.length_m), system)}"
        + (f", in {sized.sections} sections." if sized.sections > 1 else "."),
    ]
    if sized.joints_m:
        places = ", ".join(text_of(length(each), system) for each in sized.joints_m)
        words.append(f"Sections meet {places} along it.")
    if report.wind is not None:
        swing, push = text_of(angle(report.wind.swing_rad), system), text_of(pull(report.wind.push_n), system)
        words.append(f"Comes down above Beaufort {report.wind.beaufort}: then {push} swings it {swing}.")
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
    lines += _line_rows(rig, report, system)
    points = [["Hang point", "Kind", "Design load", "Off straight down", "May carry", "Stated by", "On"]]
    points += _point_rows(rig, report, system)
    parts = ", ".join(f"{each.name} {text_of(mass(each.heavy_kg), system)}" for each in report.take_off.parts)
    cuts: dict[str, list[str]] = {}
    for state, steps in zip(report.lines, snips, strict=True):
        cuts.setdefault(" Then: ".join(render(step.say, system) for step in steps), []).append(state.name)
    told = [
        f"<b>{'any one of ' if len(names) > 1 else ''}{escape(_several(names))} cut:</b> {escape(words)}"
        for words, names in cuts.items()
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
    if rig.is_tied:
        order = "Every tie loose until the work sits right; then the ends, then inwards on either side by turns."
    parts_cut = ", ".join(
        f"{each.quantity} {each.name}" + "".join(f" of {to_cut(size, system)}" for size in each.sizes)
        for each in report.take_off.sized.parts
    )
    return [
        title("Cautions"),
        *(paragraph(f"– {escape(each)}", SMALL) for each in CAUTIONS),
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
        *_making(report, system),
        *_raising(report, system),
    ]


def line_cut(state: LineState, system: UnitSystem) -> str:
    """What a line is cut to, or how many ties or straps are joined for it."""
    if state.pieces is None:
        return to_cut(length(state.cut_length_m), system)
    return f"{state.pieces} joined" if state.pieces > 1 else "one"


def _line_rows(rig: Rig, report: RigReport, system: UnitSystem) -> list[list[str]]:
    """Lines, those alike in one row with the worst of their pulls."""
    alike: dict[tuple[str, ...], list[LineState]] = {}
    for line, state in zip(rig.lines, report.lines, strict=True):
        kind = f"{line.spec.kind}{_size(line.spec.size_m)}, {line.spec.fitting}"
        for each in line.hardware:
            marked = "mark NOT READ" if each.wll_n is None else f"marked {text_of(pull(each.wll_n), system)}"
            kind += f", {each.kind} {marked}"
        key = (kind, line_cut(state, system), CASES[state.governs])
        alike.setdefault(key if rig.is_tied else (*key, state.name), []).append(state)
    rows = []
    for (kind, cut, case, *_), states in alike.items():
        worst = max(states, key=lambda each: each.use)
        rows.append(
            [
                _several([each.name for each in states]),
                kind,
                cut,
                text_of(pull(worst.design_n), system),
                text_of(pull(worst.limit_n), system),
                f"{worst.use:.2f}",
                case,
            ]
        )
    return rows


def _point_rows(rig: Rig, report: RigReport, system: UnitSystem) -> list[list[str]]:
    """Hang points, those alike and alike rated in one row with the greatest of their loads."""
    alike: dict[tuple[str, ...], list[PointState]] = {}
    for point, state in zip(rig.points, report.points, strict=True):
        rated = "NOT STATED" if point.rating_n is None else text_of(pull(point.rating_n), system)
        if POINTS[point.kind].in_wall and point.pull_out_n is not None:
            rated += f" down, {text_of(pull(point.pull_out_n), system)} out"
        key = (point.kind, rated, point.stated_by or "____________", point.stated_on or "________")
        alike.setdefault(key if rig.is_tied else (*key, point.name), []).append(state)
    rows = []
    for (kind, rated, by, on, *_), states in alike.items():
        worst = max(states, key=lambda each: each.pull_n)
        load, off = text_of(pull(worst.pull_n), system), f"{math.degrees(worst.off_rad):.0f}°"
        rows.append([_several([each.name for each in states]), kind, load, off, rated, by, on])
    return rows


def _several(names: list[str]) -> str:
    """Names of things alike: each where there are few, else how many and the first and last of them."""
    if len(names) <= SEVERAL:
        return ", ".join(names)
    return f"{len(names)} alike, {names[0]} to {names[-1]}"


def _drop_list(report: RigReport, system: UnitSystem) -> list[Flowable]:
    """Hung stems: how far their tips hang, what each is cut to and the wire of its hook."""
    if not report.drops:
        return []
    rows = [["Hang", "Tips down", "Cut to", "Hook wire"]]
    rows += [
        [
            f"{each.count} {each.name}",
            *(to_cut(length(part), system) for part in (each.length_m, each.stem_m, each.hook_m)),
        ]
        for each in report.drops
    ]
    return [title("Drop list"), _table(rows)]


def _making(report: RigReport, system: UnitSystem) -> list[Flowable]:
    """The order it is made in."""
    steps = [f"{at}. {render(each.say, system)}" for at, each in enumerate(report.making, 1)]
    return [title("How it is made"), *(paragraph(escape(each), SMALL) for each in steps)] if steps else []


def _raising(report: RigReport, system: UnitSystem) -> list[Flowable]:
    """How it goes up, stage by stage, and the floor that is kept clear."""
    raising = report.raising
    if raising is None:
        return []
    names = [state.name for state in report.lines]
    told = []
    for at, stage in enumerate(raising.stages, 1):
        held = "does not rest on these alone: bear it from below till the next"
        if stage.pull_n is not None and stage.limit_n is not None:
            held = f"{len(stage.held_by)} hold it then, {text_of(pull(stage.pull_n), system)} on the worst"
            if stage.pull_n > stage.limit_n:
                held += ", more than it may carry: bear it from below till the next"
        told.append(f"{at}. {' and '.join(names[each] for each in stage.lines)}: {stage.hands} hands; {held}.")
    wide, deep = (text_of(length(each), system) for each in (raising.clear_width_m, raising.clear_depth_m))
    told.append(f"Keep {wide} × {deep} of floor clear under it; nobody goes in while it moves.")
    return [title("How it goes up"), *(paragraph(escape(each), SMALL) for each in told)]


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
