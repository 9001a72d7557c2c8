"""A page that takes the drawings made for PDF and gives them as SVG: one drawing, for paper and for screens."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from reportlab.lib.colors import Color

_STYLE = {"stroke": "#000000", "fill": "#000000", "opacity": 1.0, "width": 1.0, "dash": ""}


@dataclass(slots=True)
class SvgPath:
    """A path in the words of the PDF page."""

    steps: list[str] = field(default_factory=list)

    def moveTo(self, x: float, y: float) -> None:  # noqa: N802  # the PDF page's own name
        self.steps.append(f"M{_short(x)} {_short(y)}")

    def lineTo(self, x: float, y: float) -> None:  # noqa: N802  # the PDF page's own name
        self.steps.append(f"L{_short(x)} {_short(y)}")

    def close(self) -> None:
        self.steps.append("Z")


class SvgPage:
    """The few acts of a PDF page that the drawings use, y up, as SVG; sizes in points."""

    def __init__(self, width: float, height: float) -> None:
        self._size = (width, height)
        self._parts: list[str] = []
        self._style: dict[str, Any] = dict(_STYLE)
        self._open: list[tuple[int, dict[str, Any]]] = []
        self._groups = 0

    def svg(self, label: str) -> str:
        """The drawing so far as one SVG element, with a name for those who do not see it."""
        wide, tall = self._size
        inside = "".join(self._parts) + "</g>" * self._groups
        return (
            f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {wide:g} {tall:g}" role="img" '
            f'aria-label="{_escaped(label)}"><g transform="translate(0 {tall:g}) scale(1 -1)">{inside}</g></svg>'
        )

    def saveState(self) -> None:  # noqa: N802
        self._open.append((self._groups, dict(self._style)))

    def restoreState(self) -> None:  # noqa: N802
        groups, self._style = self._open.pop()
        self._parts.append("</g>" * (self._groups - groups))
        self._groups = groups

    def translate(self, x: float, y: float) -> None:
        self._group(f"translate({x:.5g} {y:.5g})")

    def scale(self, x: float, y: float) -> None:
        self._group(f"scale({x:.6g} {y:.6g})")

    def rotate(self, degrees: float) -> None:
        self._group(f"rotate({degrees:.5g})")

    def setLineJoin(self, _: int) -> None:  # noqa: N802
        """Joins are round for every line of an SVG page."""

    def setFont(self, *_: object) -> None:  # noqa: N802
        """Text is set in the page's own small type."""

    def setDash(self, dash: Sequence[float] | float = (), *more: float) -> None:  # noqa: N802
        every = [dash, *more] if isinstance(dash, int | float) else list(dash)
        self._style["dash"] = " ".join(f"{each:.5g}" for each in every)

    def setLineWidth(self, width: float) -> None:  # noqa: N802
        self._style["width"] = width

    def setStrokeColor(self, colour: Color) -> None:  # noqa: N802
        self._style["stroke"] = _hex(colour)

    def setFillColor(self, colour: Color) -> None:  # noqa: N802
        self._style["fill"] = _hex(colour)
        self._style["opacity"] = getattr(colour, "alpha", 1.0)

    def beginPath(self) -> SvgPath:  # noqa: N802
        return SvgPath()

    def drawPath(self, path: SvgPath, stroke: int = 1, fill: int = 0) -> None:  # noqa: N802
        self._draw(f'<path d="{"".join(path.steps)}"', stroke, fill)

    def line(self, x1: float, y1: float, x2: float, y2: float) -> None:
        self._draw(f'<path d="M{x1:.5g} {y1:.5g}L{x2:.5g} {y2:.5g}"', 1, 0)

    def rect(self, x: float, y: float, width: float, height: float, stroke: int = 1, fill: int = 0) -> None:
        self._draw(f'<rect x="{x:.5g}" y="{y:.5g}" width="{width:.5g}" height="{height:.5g}"', stroke, fill)

    def circle(self, x: float, y: float, r: float, stroke: int = 1, fill: int = 0) -> None:
        self._draw(f'<circle cx="{_short(x)}" cy="{_short(y)}" r="{_short(r)}"', stroke, fill)

    def ellipse(self, x1: float, y1: float, x2: float, y2: float, stroke: int = 1, fill: int = 0) -> None:
        middle = f'cx="{(x1 + x2) / 2:.5g}" cy="{(y1 + y2) / 2:.5g}"'
        self._draw(f'<ellipse {middle} rx="{abs(x2 - x1) / 2:.5g}" ry="{abs(y2 - y1) / 2:.5g}"', stroke, fill)

    def drawCentredString(self, x: float, y: float, words: str) -> None:  # noqa: N802
        turned = f'transform="translate({x:.5g} {y:.5g}) scale(1 -1)"'
        self._parts.append(f'<text {turned} text-anchor="middle" font-size="7">{_escaped(words)}</text>')

    def _group(self, transform: str) -> None:
        self._parts.append(f'<g transform="{transform}">')
        self._groups += 1

    def _draw(self, element: str, stroke: int, fill: int) -> None:
        inside = f' fill="{self._style["fill"]}"' if fill else ' fill="none"'
        if fill and self._style["opacity"] < 1:
            inside += f' fill-opacity="{self._style["opacity"]:.3g}"'
        edge = ""
        if stroke:
            edge = f' stroke="{self._style["stroke"]}" stroke-width="{self._style["width"]:.4g}"'
            if self._style["dash"]:
                edge += f' stroke-dasharray="{self._style["dash"]}"'
        self._parts.append(f"{element}{inside}{edge}/>")


def _short(value: float) -> str:
    """A place to the tenth of a point, which is all a drawing of this size shows."""
    return f"{value:.1f}".removesuffix(".0")


def _hex(colour: Color | tuple[float, float, float]) -> str:
    rgb = (colour.red, colour.green, colour.blue) if isinstance(colour, Color) else colour
    return "#" + "".join(f"{round(each * 255):02x}" for each in rgb)


def _escaped(words: str) -> str:
    return words.replace("&", "&amp;").replace("<", "&lt;").replace('"', "&quot;")
