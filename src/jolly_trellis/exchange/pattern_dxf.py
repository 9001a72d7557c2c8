"""Flat patterns as DXF: layers CUT, FOLD and MARK, units declared as millimetres."""

import io

from ezdxf import units
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.tools.standards import setup_linetypes

from jolly_trellis.core.making.patterns import Pattern
from jolly_trellis.exchange.pattern_svg import GAP_M, LAYERS

_COLOURS = {"CUT": 7, "FOLD": 5, "MARK": 8}
_TEXT_MM = 3.5


def write_dxf(patterns: tuple[Pattern, ...]) -> str:
    """All patterns side by side, 2 cm apart, in millimetres, y up."""
    document = Drawing.new("R2010")
    setup_linetypes(document)
    document.units = units.MM
    document.header["$MEASUREMENT"] = 1
    for layer in LAYERS:
        document.layers.add(layer, color=_COLOURS[layer], linetype="DASHED" if layer == "FOLD" else "CONTINUOUS")
    space = document.modelspace()
    left = 0.0
    for pattern in patterns:
        for line in pattern.lines:
            points = [(1000 * (left + x), 1000 * y) for x, y in line.points]
            space.add_lwpolyline(points, close=line.closed, dxfattribs={"layer": line.layer})
        for label in pattern.labels:
            text = space.add_text(label.text, height=_TEXT_MM, dxfattribs={"layer": "MARK"})
            text.set_placement((1000 * (left + label.x_m), 1000 * label.y_m), align=TextEntityAlignment.LEFT)
        left += pattern.width_m + GAP_M
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()
