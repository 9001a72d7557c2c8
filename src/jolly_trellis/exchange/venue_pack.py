"""The venue pack: one HTML file with everything needed on site, that opens on a phone with no network."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from itertools import groupby
from typing import Any, cast

from jinja2 import Environment, PackageLoader, StrictUndefined
from markupsafe import Markup
from reportlab.pdfgen.canvas import Canvas

from jolly_trellis.core.drawing.project import View
from jolly_trellis.core.event.buying.shopping import Shopping
from jolly_trellis.core.event.day.day import Day
from jolly_trellis.core.event.job import Job, Made, PieceWork, RigWork
from jolly_trellis.core.event.sheet.schedule import Timed
from jolly_trellis.core.event.tasks.gates import cleared
from jolly_trellis.core.event.tasks.water_rounds import Pour, WaterRounds
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.missing import listed
from jolly_trellis.core.quantities import length, mass, pull, volume
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.units import UnitSystem, render, text_of
from jolly_trellis.exchange.bench_card import CAUTIONS, to_cut
from jolly_trellis.exchange.ink import draw_picture
from jolly_trellis.exchange.rig_card import BELOW, line_cut
from jolly_trellis.exchange.rig_card import CAUTIONS as RIG_CAUTIONS
from jolly_trellis.exchange.rig_drawing import draw_rig
from jolly_trellis.exchange.svg_page import SvgPage

DRAWING = (320.0, 240.0)
_templates = Environment(
    loader=PackageLoader("jolly_trellis.exchange", "templates"),
    autoescape=True,
    undefined=StrictUndefined,
    trim_blocks=True,
    lstrip_blocks=True,
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Pack:
    """What a venue pack is made of."""

    event_id: int
    name: str
    place: str
    job: Job
    made: Made
    day: Day
    water: WaterRounds
    shopping: Shopping
    made_for: str


def write_pack(pack: Pack, *, system: UnitSystem) -> str:
    """The pack as one HTML text with no outside reference; what is ticked is kept on the phone.

    Args:
        system: units of sentences; lengths to cut are given in both.
    """
    crew = [each.name for each in pack.job.crew] or ["you"]
    rows = _rows(pack.day.timed, crew, system)
    return _templates.get_template("venue_pack.html.j2").render(
        pack=pack,
        key=f"jolly-trellis-pack-{pack.event_id}-{pack.made_for[:12]}",
        times=_times(pack.job),
        days=[(day, list(each)) for day, each in groupby(rows, key=lambda row: row["day"])],
        no_day=_no_day(pack.day, system),
        conflicts=[render(each.say, system) for each in pack.day.conflicts],
        fill=[_pour(each, system) for each in pack.water.fill],
        rounds=[_round(each.at, each.pours, each.litres, system) for each in pack.water.rounds],
        total=text_of(volume(pack.water.total_l), system),
        who=pack.water.who or "nobody is named",
        pieces=[_piece(each, system) for each in pack.made.pieces],
        rigs=[_rig(each, system) for each in pack.made.rigs],
        packs=[(group, list(rows)) for group, rows in groupby(_packs(pack.shopping, system), key=lambda row: row[0])],
        cautions=CAUTIONS,
        rig_cautions=RIG_CAUTIONS,
    )


def _no_day(day: Day, system: UnitSystem) -> str:
    """Why there is no run sheet, truly."""
    if day.missing:
        return f"No run sheet: the brief does not say {render(listed(day.missing, ', '), system)}."
    return "No run sheet: no order of the tasks was found, see what is not settled."


def _times(job: Job) -> list[tuple[str, str]]:
    known = (
        ("The place opens to the crew", job.access_at),
        ("Water goes in", job.filled_at),
        ("Guests come", job.starts_at),
        ("The event ends", job.ends_at),
        ("All gone by", job.clear_by),
    )
    return [(words, f"{at:%a %d %b, %H:%M}") for words, at in known if at is not None]


def _rows(timed: Iterable[Timed], crew: list[str], system: UnitSystem) -> Iterable[dict[str, Any]]:
    for each in timed:
        yield {
            "key": each.task.key,
            "day": f"{each.starts_at:%A %d %B}",
            "from": f"{each.starts_at:%H:%M}",
            "to": f"{each.ends_at:%H:%M}",
            "name": each.task.name,
            "where": each.task.where,
            "who": ", ".join(each.who(crew)),
            "early": each.out_min,
            "gate": "" if each.task.gate is None else render(each.task.gate, system),
        }


def _pour(pour: Pour, system: UnitSystem) -> dict[str, Any]:
    vessel = f", {pour.vessel}" if pour.vessel else ""
    each = text_of(volume(pour.each_l), system)
    words = f"{pour.quantity} × {each}" if pour.quantity > 1 else each
    return {"key": f"{pour.piece_id}{vessel}", "piece": pour.piece + vessel, "words": words}


def _round(at: datetime, pours: tuple[Pour, ...], litres: float, system: UnitSystem) -> dict[str, Any]:
    rows = [_pour(each, system) for each in pours]
    return {"at": f"{at:%a %H:%M}", "pours": rows, "litres": text_of(volume(litres), system)}


def _piece(work: PieceWork, system: UnitSystem) -> dict[str, Any]:
    piece, report = work.piece, work.report
    return {
        "id": work.id,
        "name": piece.name,
        "quantity": piece.quantity,
        "worked_out": report is not None,
        "drawing": "" if report is None else _section(work, report),
        "facts": [] if report is None else _facts(work, report, system),
        "states": [] if report is None else [(each.verb, each.state) for each in report.verdicts],
        "steps": [] if report is None else [render(each.say, system) for each in report.steps],
        "cuts": []
        if report is None
        else [f"{each.count} {each.name} at {to_cut(length(each.cut_length_m), system)}" for each in report.cut_list],
    }


def _facts(work: PieceWork, report: Report, system: UnitSystem) -> list[tuple[str, str]]:
    outline = report.outline
    facts = [
        ("vessel", work.piece.vessel.name),
        ("mechanic", report.mechanic.name),
        ("high", text_of(length(outline.height_m), system)),
        ("wide", text_of(length(outline.width_m), system)),
        ("water on show", text_of(volume(sum(litres for _, litres in report.vessels_l)), system)),
    ]
    if report.balance is not None:
        facts.append(("weighs", text_of(mass(report.balance.mass_kg), system)))
    return facts


def _section(work: PieceWork, report: Report) -> Markup:
    page = SvgPage(*DRAWING)
    view = View(turn_rad=math.pi / 2 if report.ledge is not None else 0.0, cut=True)
    box = (4.0, 4.0, DRAWING[0] - 8, DRAWING[1] - 8)
    draw_picture(cast(Canvas, page), report.picture, report.stems, view, box)
    side = "the right side" if report.ledge is not None else "the front"
    return Markup(page.svg(f"{work.piece.name}, cut open, from {side}"))  # written by SvgPage, which escapes


def _rig(work: RigWork, system: UnitSystem) -> dict[str, Any]:
    report = work.report
    return {
        "id": work.id,
        "name": work.rig.name,
        "below": BELOW[work.rig.below],
        "cleared": report is not None and cleared(report.verdict),
        "why": "It could not be worked out." if report is None else render(report.verdict.reason, system),
        "drawing": "" if report is None else _elevation(work.rig, report),
        "weighs": "" if report is None else text_of(mass(report.take_off.heavy_kg), system),
        "proof": "" if report is None else text_of(mass(report.proof_kg), system),
        "lines": [] if report is None else _lines(report, system),
        "points": [] if report is None else _points(report, system),
    }


def _lines(report: RigReport, system: UnitSystem) -> list[dict[str, str]]:
    return [
        {
            "name": each.name,
            "cut": line_cut(each, system),
            "tension": text_of(pull(each.tension_n), system),
            "limit": text_of(pull(each.limit_n), system),
            "use": f"{each.use:.2f}",
        }
        for each in report.lines
    ]


def _points(report: RigReport, system: UnitSystem) -> list[dict[str, str]]:
    return [
        {
            "name": each.name,
            "pull": text_of(pull(each.pull_n), system),
            "use": "nobody has stated a rating" if each.use is None else f"{each.use:.2f} of its rating",
        }
        for each in report.points
    ]


def _elevation(rig: Rig, report: RigReport) -> Markup:
    page = SvgPage(*DRAWING)
    draw_rig(cast(Canvas, page), rig, report, (4, 4, DRAWING[0] - 8, DRAWING[1] - 8))
    return Markup(page.svg(f"{rig.name}, from the front"))  # written by SvgPage, which escapes


def _packs(shopping: Shopping, system: UnitSystem) -> Iterable[tuple[str, str, str]]:
    for each in shopping.packs:
        words = f"{each.number} × {each.name}" if each.number > 1 else each.name
        yield each.group, words, render(each.why, system)
