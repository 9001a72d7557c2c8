"""A piece's section drawn to scale on a PDF page, from the front or from the right side: lines only, no figures."""

import math
from collections.abc import Iterable
from typing import Literal

from reportlab.lib.colors import Color, HexColor
from reportlab.pdfgen.canvas import Canvas

from jolly_trellis.core.judging.report import PlacedStem, Report
from jolly_trellis.core.materials.vessels import Vessel, inside_size_m
from jolly_trellis.core.plan.piece import Companion, Piece

Side = Literal["front", "side"]
Box = tuple[float, float, float, float]
Points = Iterable[tuple[float, float]]
INK, SOFT, LEAF = HexColor("#2b2620"), HexColor("#8a8172"), HexColor("#41662f")
WATER, STEEL, CLAY = HexColor("#c5d5e2"), HexColor("#757a80"), HexColor("#e6dfd0")
_SLAB_M = 0.06


def draw_section(canvas: Canvas, piece: Piece, report: Report, box: Box, *, side: Side) -> float:
    """Draw a piece into a box of the page.

    Args:
        box: left, bottom, width, height of the room, points.
        side: seen from the front, or from the right with the back of the piece to the right.
    Returns: the scale, points for each metre.
    """
    left, bottom, width, height = box
    low, high, near, far = _reach(piece, report, side)
    scale = min(width / (far - near), height / (high - low))
    middle = (near + far) / 2
    canvas.saveState()
    canvas.translate(left + width / 2 - scale * middle, bottom + (height - scale * (high - low)) / 2 - scale * low)
    canvas.scale(scale, scale)
    canvas.setLineJoin(1)
    _ground(canvas, piece, report, side, (near, far), scale)
    _weight(canvas, piece, side, scale)
    for each in piece.companions:
        at = each.x_m if side == "front" else each.y_m
        _vessel(canvas, each.vessel, at, 0.0, _level(each), side, scale)
    if piece.support is not None:
        _support(canvas, piece, scale)
    if piece.insert is not None:
        _vessel(canvas, piece.insert.outer, 0.0, 0.0, 0.0, side, scale)
    _vessel(canvas, piece.vessel, 0.0, report.raised_m, piece.water_level_m, side, scale)
    _levels(canvas, piece, report, side, scale)
    _stems(canvas, report.stems, side, scale)
    outline = report.envelope_front if side == "front" else report.envelope_side
    canvas.setDash(3 / scale, 3 / scale)
    _path(canvas, outline, stroke=SOFT, width=0.5 / scale)
    canvas.setDash()
    _balance(canvas, report, side, scale)
    canvas.restoreState()
    return scale


def _reach(piece: Piece, report: Report, side: Side) -> tuple[float, float, float, float]:
    """Lowest and highest point, and the farthest to the left and right, of everything that is drawn, metres."""
    outline = report.envelope_front if side == "front" else report.envelope_side
    wall = max(p.width_m if side == "front" else p.depth_m for p in piece.vessel.profile) / 2 + 0.03
    across = [-wall, wall, *(x for x, _ in outline)]
    for stem in report.stems:
        across += [_across(stem, side) - stem.head_radius_m, _across(stem, side) + stem.head_radius_m]
    for each in piece.companions:
        at = each.x_m if side == "front" else each.y_m
        across += [at - 0.1, at + 0.1]
    if report.ledge is not None and side == "side":
        across += [report.ledge.front_m, report.ledge.back_m]
    low = -(piece.spill.drop_m if piece.spill else _SLAB_M) if report.ledge else -0.01
    high = max(report.outline.height_m, piece.envelope.height_m, report.rim_m) + 0.01
    return low - 0.01, high, min(across), max(across)


def _across(stem: PlacedStem, side: Side) -> float:
    return stem.tip_x_m if side == "front" else stem.tip_y_m


def _level(companion: Companion) -> float:
    return companion.water_level_m


def _ground(
    canvas: Canvas, piece: Piece, report: Report, side: Side, across: tuple[float, float], scale: float
) -> None:
    ledge = report.ledge
    if ledge is None:
        _path(canvas, [(across[0], 0.0), (across[1], 0.0)], stroke=INK, width=1 / scale)
        return
    left, right = across if side == "front" else (ledge.front_m, ledge.back_m)
    slab = [(left, 0.0), (right, 0.0), (right, -_SLAB_M), (left, -_SLAB_M)]
    _path(canvas, slab, fill=CLAY, stroke=INK, width=0.8 / scale, closed=True)
    if piece.spill is not None:
        wide = piece.spill.width_m / 2 if side == "front" else 0.02
        at = 0.0 if side == "front" else ledge.front_m - wide
        strip = [
            (at - wide, 0.0),
            (at + wide, 0.0),
            (at + wide, -piece.spill.drop_m),
            (at - wide, -piece.spill.drop_m),
        ]
        _path(canvas, strip, stroke=STEEL, width=0.8 / scale, closed=True)


def _weight(canvas: Canvas, piece: Piece, side: Side, scale: float) -> None:
    if piece.counterweight is not None:
        turn = piece.counterweight.azimuth_rad
        at = piece.counterweight.away_m * (math.sin(turn) if side == "front" else -math.cos(turn))
        _path(
            canvas,
            [(at - 0.03, 0.0), (at + 0.03, 0.0), (at + 0.03, 0.05), (at - 0.03, 0.05)],
            fill=STEEL,
            stroke=INK,
            width=0.6 / scale,
            closed=True,
        )


def _vessel(canvas: Canvas, vessel: Vessel, at: float, up: float, level: float, side: Side, scale: float) -> None:
    axis = 0 if side == "front" else 1
    floor = up + vessel.base_m
    inner = [((p.width_m, p.depth_m)[axis] / 2, floor + p.height_m) for p in vessel.profile]
    outer = [(x + vessel.wall_m, z) for x, z in inner]
    foot = (vessel.foot_width_m if axis == 0 else vessel.foot_depth_m or vessel.foot_width_m) or 2 * inner[0][0]
    right = [(foot / 2, up), *outer]
    body = [*right, *((-x, z) for x, z in reversed(right))]
    _path(canvas, _moved(body, at), fill=CLAY, stroke=INK, width=0.8 / scale, closed=True)
    hollow = [*inner, *((-x, z) for x, z in reversed(inner))]
    _path(canvas, _moved(hollow, at), fill=HexColor("#ffffff"), stroke=INK, width=0.5 / scale, closed=True)
    if level > 0:
        wet = [(x, z) for x, z in inner if z < floor + level]
        wet.append((inside_size_m(vessel, level)[axis] / 2, floor + level))
        pool = [*wet, *((-x, z) for x, z in reversed(wet))]
        _path(canvas, _moved(pool, at), fill=WATER, closed=True)


def _support(canvas: Canvas, piece: Piece, scale: float) -> None:
    support = piece.support
    if support is None:
        return
    column, top = support.column_width_m / 2, support.top_width_m / 2
    foot, tall = (support.foot_width_m or support.column_width_m) / 2, support.height_m
    body = [(-foot, 0.0), (foot, 0.0), (column, 0.01), (column, tall - 0.01), (top, tall), (-top, tall)]
    body += [(-column, tall - 0.01), (-column, 0.01)]
    _path(canvas, body, fill=CLAY, stroke=INK, width=0.8 / scale, closed=True)


def _levels(canvas: Canvas, piece: Piece, report: Report, side: Side, scale: float) -> None:
    """Where stems are held: a line of steel for each level of wire, a band for a bouquet's binding."""
    axis = 0 if side == "front" else 1
    floor = report.raised_m + piece.vessel.base_m
    if report.bouquet is not None:
        half = report.bouquet.handle_m / 2
        band = [(-half, report.bouquet.binding_m - 0.02), (half, report.bouquet.binding_m + 0.02)]
        (left, low), (right, high) = band
        corners = [(left, low), (right, low), (right, high), (left, high)]
        _path(canvas, corners, fill=LEAF, closed=True)
        return
    for level in report.mechanic.levels:
        half = inside_size_m(piece.vessel, min(level.height_m, piece.vessel.inside_depth_m))[axis] / 2
        z = floor + level.height_m
        _path(canvas, [(-half, z), (half, z)], stroke=STEEL, width=1.6 / scale)


def _stems(canvas: Canvas, stems: tuple[PlacedStem, ...], side: Side, scale: float) -> None:
    far = (lambda stem: -stem.tip_y_m) if side == "front" else (lambda stem: stem.tip_x_m)
    for stem in sorted(stems, key=far):
        ends = (
            (stem.end_x_m, stem.seat_x_m, stem.tip_x_m)
            if side == "front"
            else (stem.end_y_m, stem.seat_y_m, stem.tip_y_m)
        )
        top = stem.tip_z_m - stem.droop_m
        line = list(zip(ends, (stem.end_z_m, stem.seat_z_m, top), strict=True))
        _path(canvas, line, stroke=LEAF, width=max(0.6 * stem.diameter_m, 0.5 / scale))
    for stem in sorted(stems, key=far):
        x, z = _across(stem, side), stem.tip_z_m - stem.droop_m
        canvas.setFillColor(Color(*_rgb(stem.colour), alpha=0.75))
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(0.3 / scale)
        if stem.form in ("leaf", "spike", "plume", "tassel"):
            _long_head(canvas, stem, side)
        else:
            canvas.circle(x, z, stem.head_radius_m, stroke=1, fill=1)


def _long_head(canvas: Canvas, stem: PlacedStem, side: Side) -> None:
    """A leaf or spike as a long ellipse lying along its stem."""
    x, z = _across(stem, side), stem.tip_z_m - stem.droop_m
    seat = stem.seat_x_m if side == "front" else stem.seat_y_m
    turn = math.degrees(math.atan2(z - stem.seat_z_m, x - seat))
    long = stem.head_radius_m if stem.form == "leaf" else min(stem.head_height_m, 0.3) / 2
    canvas.saveState()
    canvas.translate(x, z)
    canvas.rotate(turn)
    wide = 0.38 * stem.head_radius_m
    canvas.ellipse(-2 * long, -wide, 0.0, wide, stroke=1, fill=1)
    canvas.restoreState()


def _balance(canvas: Canvas, report: Report, side: Side, scale: float) -> None:
    if report.balance is None or report.bouquet is not None:
        return
    x = report.balance.x_m if side == "front" else report.balance.y_m
    canvas.setFillColor(INK)
    canvas.setStrokeColor(HexColor("#ffffff"))
    canvas.setLineWidth(0.8 / scale)
    canvas.circle(x, report.balance.height_m, 3.2 / scale, stroke=1, fill=1)


def _path(
    canvas: Canvas,
    points: Points,
    *,
    fill: Color | None = None,
    stroke: Color | None = None,
    width: float = 0.0,
    closed: bool = False,
) -> None:
    path = canvas.beginPath()
    for index, (x, y) in enumerate(points):
        (path.lineTo if index else path.moveTo)(x, y)
    if closed:
        path.close()
    if fill is not None:
        canvas.setFillColor(fill)
    if stroke is not None:
        canvas.setStrokeColor(stroke)
        canvas.setLineWidth(width)
    canvas.drawPath(path, stroke=int(stroke is not None), fill=int(fill is not None))


def _moved(points: Points, at: float) -> list[tuple[float, float]]:
    return [(x + at, z) for x, z in points]


def _rgb(colour: str) -> tuple[float, float, float]:
    red, green, blue = (int(colour[place : place + 2], 16) / 255 for place in (1, 3, 5))
    return red, green, blue
