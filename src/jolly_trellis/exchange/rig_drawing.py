"""Hung work on paper, level from the front: its picture, with the names of its hang points."""

from reportlab.pdfgen.canvas import Canvas

from jolly_trellis.core.drawing.project import View
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.exchange.ink import Box, draw_picture
from jolly_trellis.exchange.page import INK, LEAST_PT, REGULAR, cut_to, wide

_ROWS = 4
_ROW_PT = 9.5
_NAME_PT = 90.0
_OVER_M = 0.09


def draw_rig(canvas: Canvas, rig: Rig, report: RigReport, box: Box) -> float:
    """Draw hung work into a box of the page; a line over its limit stands out.

    Args:
        box: left, bottom, width, height of the room, points.
    Returns: the scale, points for each metre.
    """
    left, bottom, width, height = box
    fails = {f"line-{index}": "line fails" for index, each in enumerate(report.lines) if each.use > 1}
    named = not rig.is_tied
    room = (left, bottom, width, height - (_ROWS * _ROW_PT if named else 0.0))
    placed = draw_picture(canvas, report.rest.picture, (), View(), room, fails)
    if not named:
        return placed.scale
    canvas.setFillColor(INK)
    canvas.setFont(REGULAR, LEAST_PT)
    rows: list[float] = []
    for point in sorted(rig.points, key=lambda each: each.x_m):
        name = cut_to(point.name, _NAME_PT, LEAST_PT)
        x, y = placed.at(point.x_m, point.z_m + _OVER_M)
        half = wide(name) / 2
        x = min(max(x, left + half), left + width - half)
        row = next((at for at, end in enumerate(rows) if end < x - half - 3), len(rows))
        if row >= _ROWS:
            continue
        rows[row:] = [x + half, *rows[row + 1 :]]
        canvas.drawCentredString(x, y + 3 + _ROW_PT * row, name)
    return placed.scale
