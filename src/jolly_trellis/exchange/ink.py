"""A picture on paper: what a drawing says is seen, in the inks of a printed page, to scale."""

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from reportlab.lib.colors import Color, HexColor
from reportlab.pdfgen.canvas import Canvas

from jolly_trellis.core.drawing.picture import Picture, Stem
from jolly_trellis.core.drawing.project import Flat, View, project

Box = tuple[float, float, float, float]
INK, SOFT, LEAF = HexColor("#2b2620"), HexColor("#665d50"), HexColor("#41662f")
SLATE, STEEL, CLAY = HexColor("#3c6382"), HexColor("#757a80"), HexColor("#e1dbcf")
WATER, BERRY, SAND = HexColor("#c5d5e2"), HexColor("#9c1f45"), HexColor("#efe9db")
TWIG, MOSS, GLASS = HexColor("#6b4a1c"), HexColor("#a5b88f"), HexColor("#dbe5ec")
_FAR_KEEPS = 0.62
_FINE_PT = 0.12  # a finer edge would be drawn as wide as one dot of the printer
_LEFT_OUT = ("surface", "ledge", "floor", "mount-wall")


@dataclass(frozen=True, slots=True)
class Ink:
    """How a thing is printed: its area, its edge and how wide that is in points, and dashes of so many points."""

    fill: Color | None = None
    stroke: Color | None = None
    width_pt: float = 0.6
    dash_pt: tuple[float, ...] = ()
    alpha: float = 1.0


_LINE = Ink(stroke=INK)
INKS: Mapping[str, Ink] = {
    "edge": Ink(stroke=INK, width_pt=0.7),
    "clay": Ink(fill=CLAY, stroke=INK, width_pt=0.7),
    "glass": Ink(fill=GLASS, stroke=INK, alpha=0.6),
    "inside": Ink(fill=HexColor("#f4f1ea")),
    "water": Ink(fill=WATER, alpha=0.75),
    "water line": Ink(stroke=SLATE, width_pt=1.0),
    "water low": Ink(stroke=SLATE, dash_pt=(3, 2)),
    "water travel": Ink(stroke=SLATE, dash_pt=(0.6, 2)),
    "wire": Ink(stroke=STEEL, width_pt=0.7),
    "iron": Ink(fill=STEEL, stroke=INK),
    "iron line": Ink(stroke=STEEL),
    "twig": Ink(stroke=TWIG),
    "string": _LINE,
    "tie": _LINE,
    "tape grid": Ink(stroke=HexColor("#8fa5b6"), width_pt=1.2),
    "tape": Ink(stroke=HexColor("#c8c2b8"), width_pt=2.4),
    "moss": Ink(fill=MOSS, stroke=LEAF),
    "lining": Ink(fill=HexColor("#c6d3b8"), stroke=LEAF),
    "stone": Ink(fill=HexColor("#a39c91"), stroke=INK),
    "shaving": Ink(stroke=HexColor("#c9a36b")),
    "stem": Ink(stroke=LEAF),
    "bark": Ink(stroke=TWIG),
    "bark line": Ink(stroke=HexColor("#cbb89a"), width_pt=0.4),
    "tube": Ink(stroke=HexColor("#a9bccb")),
    "head": Ink(stroke=INK, width_pt=0.25),
    "rib": Ink(stroke=SOFT, width_pt=0.25),
    "held": Ink(fill=INK),
    "surface": Ink(fill=SAND, stroke=INK, width_pt=0.7),
    "ledge": Ink(fill=CLAY, stroke=INK, width_pt=0.7),
    "wall": Ink(fill=SAND, stroke=SOFT),
    "axis": Ink(fill=BERRY),
    "spill": Ink(fill=HexColor("#dcdee0"), stroke=STEEL, dash_pt=(2, 1.4)),
    "hook": Ink(stroke=INK, width_pt=1.2),
    "seat": Ink(fill=INK),
    "binding": Ink(fill=HexColor("#8aa57a"), stroke=INK),
    "envelope": Ink(stroke=SOFT, dash_pt=(1.2, 2.2)),
    "balance": Ink(fill=HexColor("#ffffff"), stroke=INK, width_pt=1.4),
    "rim": Ink(stroke=INK, width_pt=0.8),
    "foot": Ink(stroke=INK, dash_pt=(3, 1.8)),
    "person": Ink(fill=HexColor("#ddd8cf")),
    "line": Ink(stroke=INK, width_pt=0.8),
    "line fails": Ink(stroke=BERRY, width_pt=1.8, dash_pt=(3, 2)),
    "bond": Ink(stroke=STEEL, dash_pt=(1.5, 2)),
    "attachment": Ink(fill=INK),
    "joint": Ink(stroke=INK, width_pt=1.4),
    "hang point": Ink(fill=HexColor("#ffffff"), stroke=INK, width_pt=0.9),
    "run": Ink(stroke=HexColor("#b9c9ae")),
    "panel": Ink(fill=HexColor("#e6eddf"), stroke=LEAF, width_pt=0.9),
    "ring": Ink(stroke=TWIG),
    "frame": Ink(stroke=STEEL),
    "frame foot": Ink(stroke=STEEL, width_pt=1.0),
    "column": Ink(fill=SAND, stroke=SOFT),
    "hazard": Ink(fill=WATER, stroke=SLATE),
    "hazard water": Ink(fill=WATER, stroke=SLATE),
    "hazard flame": Ink(fill=HexColor("#f0c68b"), stroke=HexColor("#9a5200")),
    "clearance": Ink(stroke=INK, dash_pt=(3, 1.8)),
    "rose": Ink(fill=HexColor("#dfe8d8"), stroke=LEAF),
    "rose limit": Ink(stroke=BERRY, dash_pt=(1.8, 1.8)),
}


@dataclass(frozen=True, slots=True)
class Placed:
    """Where a picture lies on its page: `scale` is points for each metre."""

    x_pt: float
    y_pt: float
    scale: float
    middle_x: float
    middle_y: float
    edge_x: float
    edge_y: float

    def at(self, x: float, y: float) -> tuple[float, float]:
        """A place of the sheet on the page, points; what goes on for ever ends at the box's edge."""
        across = min(max(x - self.middle_x, -self.edge_x), self.edge_x)
        up = min(max(y - self.middle_y, -self.edge_y), self.edge_y)
        return self.x_pt + self.scale * across, self.y_pt + self.scale * up


def draw_picture(
    canvas: Canvas,
    picture: Picture,
    stems: Iterable[Stem],
    view: View,
    box: Box,
    inks: Mapping[str, str] | None = None,
) -> Placed:
    """Draw a picture as it is seen into a box of the page.

    Args:
        box: left, bottom, width, height of the room, points.
        inks: of things by id, where another than its own.
    Returns: where it lies on the page, and its scale.
    """
    told = inks or {}
    flats = [replace(each, ink=told.get(each.id, each.ink)) for each in project(picture, stems, view)]
    left, bottom, width, height = box
    low_x, high_x, low_y, high_y = _room(flats)
    scale = min(width / (high_x - low_x), height / (high_y - low_y))
    middle_x, middle_y = (low_x + high_x) / 2, (low_y + high_y) / 2
    edges = width / 2 / scale, height / 2 / scale
    place = Placed(left + width / 2, bottom + height / 2, scale, middle_x, middle_y, *edges)
    canvas.saveState()
    canvas.setLineJoin(1)
    for flat in flats:
        _put(canvas, flat, place)
    canvas.restoreState()
    return place


def _room(flats: Sequence[Flat]) -> tuple[float, float, float, float]:
    """Lowest and highest x and y of all but what it stands on, metres."""
    kept = [each for each in flats if not each.id.startswith(_LEFT_OUT)] or list(flats)
    xs = [x for each in kept for run in each.runs for x, _ in run]
    ys = [y for each in kept for run in each.runs for _, y in run]
    for each in kept:
        for x, y, r in each.dots:
            xs += [x - r, x + r]
            ys += [y - r, y + r]
    if not xs:
        return -0.1, 0.1, 0.0, 0.1
    room = 0.01
    return min(xs) - room, max(xs) + room, min(ys) - room, max(ys) + room


def _put(canvas: Canvas, flat: Flat, place: Placed) -> None:
    ink = INKS.get(flat.ink, _LINE)
    fill = _tinted(flat) if flat.colour else ink.fill
    filled = fill is not None and flat.part != "edge"
    wide = ink.width_pt if flat.width_m is None else flat.width_m * place.scale
    stroked = ink.stroke is not None and flat.part != "fill" and (not filled or wide >= _FINE_PT)
    if fill is not None and filled:
        canvas.setFillColor(Color(fill.red, fill.green, fill.blue, alpha=ink.alpha))
    if ink.stroke is not None and stroked:
        canvas.setStrokeColor(ink.stroke)
        canvas.setLineWidth(max(wide, _FINE_PT))
        canvas.setDash(*([list(ink.dash_pt)] if ink.dash_pt else []))
    path = canvas.beginPath()
    for run in flat.runs:
        for index, (x, y) in enumerate(run):
            step: Callable[[float, float], None] = path.lineTo if index else path.moveTo
            step(*place.at(x, y))
        if flat.closed and run:
            path.close()
    if flat.runs:
        canvas.drawPath(path, stroke=int(stroked), fill=int(filled))
    for x, y, r in flat.dots:
        canvas.circle(*place.at(x, y), r * place.scale, stroke=int(stroked), fill=int(filled))


def _tinted(flat: Flat) -> Color:
    """Its colour, lighter where it is pale or far back, on white paper."""
    keeps = (1 - flat.pale) * (1 - (1 - _FAR_KEEPS) * flat.far)
    red, green, blue = (int(flat.colour[place : place + 2], 16) / 255 for place in (1, 3, 5))
    return Color(*(1 - keeps * (1 - each) for each in (red, green, blue)))
