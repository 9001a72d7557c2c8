"""A rig from the front to scale on a page: its lines, armature at rest, hang points, what it is mounted on."""

import math
from collections.abc import Callable

from reportlab.lib.colors import HexColor
from reportlab.pdfgen.canvas import Canvas

from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.drops import longest_stem_m
from jolly_trellis.core.rigging.rig import Mount, Rig, RigLine
from jolly_trellis.exchange.page import INK, LEAST_PT, REGULAR

LABEL_PT = 60
LEAF = HexColor("#41662f")
STEEL = HexColor("#757a80")


def _place(rig: Rig, line: RigLine) -> tuple[float, float, float]:
    point = rig.points[line.point or 0]
    return point.x_m, point.y_m, point.z_m


def draw_rig(canvas: Canvas, rig: Rig, report: RigReport, box: tuple[float, float, float, float]) -> None:
    """The rig from the front to scale, settled, from its beam to the floor."""
    left, bottom, wide, tall = box
    nodes, held = report.rest.at_m, report.rest.attachments_m
    wide_m = 0.0 if rig.mount is None else max(rig.mount.width_m, rig.mount.foot_width_m)
    middle_m = 0.0 if rig.mount is None else rig.mount.x_m
    xs = [middle_m - wide_m / 2, middle_m + wide_m / 2] if wide_m else []
    xs += [*(point.x_m for point in rig.points), *(node[0] for node in nodes)]
    high = max(*(point.z_m for point in rig.points), *(node[2] for node in nodes))
    scale = min(wide / (max(xs) - min(xs) + 0.6), (tall - 30) / high)
    middle = (max(xs) + min(xs)) / 2

    def at(x: float, z: float) -> tuple[float, float]:
        return left + wide / 2 + (x - middle) * scale, bottom + z * scale

    canvas.setStrokeColor(INK)
    canvas.setLineWidth(1)
    canvas.line(left, bottom, left + wide, bottom)
    _mount(canvas, rig.mount, at)
    canvas.setStrokeColor(INK)
    canvas.setFont(REGULAR, LEAST_PT)
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
        if rig.is_tied:
            continue
        near = sum(abs(x - other) < LABEL_PT for other in named)
        canvas.drawCentredString(x, y + 4 + 7 * near, point.name[:18])
        named.append(x)


def _mount(canvas: Canvas, mount: Mount | None, at: Callable[[float, float], tuple[float, float]]) -> None:
    """The frame or stand on its feet, or the column; a wall is the page."""
    if mount is None or mount.kind == "wall":
        return
    canvas.setStrokeColor(STEEL)
    canvas.setLineWidth(1.6)
    x, half, high = mount.x_m, mount.width_m / 2, mount.height_m
    if mount.kind == "column":
        left, foot = at(x - half, 0)
        right, top = at(x + half, high)
        canvas.rect(left, foot, right - left, top - foot)
        return
    canvas.line(*at(x - mount.foot_width_m / 2, 0), *at(x + mount.foot_width_m / 2, 0))
    if mount.kind == "stand":
        outline = [(x, 0.0), (x, high)]
    elif mount.outline == "rail":
        outline = [(x - half, 0.0), (x - half, high), (x + half, high), (x + half, 0.0)]
    else:
        arch = mount.outline == "arch"
        start, end = (math.pi, 0.0) if arch else (-math.pi / 2, 1.5 * math.pi)
        turns = [start + (end - start) * step / 48 for step in range(49)]
        bow = [(x + half * math.cos(turn), high - half + half * math.sin(turn)) for turn in turns]
        outline = [(x - half, 0.0), *bow, (x + half, 0.0)] if arch else [(x, 0.0), *bow]
    path = canvas.beginPath()
    path.moveTo(*at(*outline[0]))
    for place in outline[1:]:
        path.lineTo(*at(*place))
    canvas.drawPath(path)
