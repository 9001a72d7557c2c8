"""Flat patterns as SVG, in millimetres at true size, one group a layer."""

from xml.sax.saxutils import escape

from jolly_trellis.core.making.patterns import Label, Layer, Pattern

GAP_M = 0.02
LAYERS: tuple[Layer, ...] = ("CUT", "FOLD", "MARK")
_STYLE: dict[Layer, str] = {
    "CUT": 'stroke="#000000" stroke-width="0.9"',
    "FOLD": 'stroke="#3c6382" stroke-width="0.7" stroke-dasharray="5 3"',
    "MARK": 'stroke="#757a80" stroke-width="0.25"',
}
NOTHING = Pattern(
    name="nothing",
    width_m=0.14,
    height_m=0.02,
    lines=(),
    labels=(Label(text="Nothing in this piece is cut from the flat.", x_m=0.0, y_m=0.01),),
)


def write_svg(patterns: tuple[Pattern, ...]) -> str:
    """All patterns side by side, 2 cm apart; the size of the page is theirs, in millimetres; words for none."""
    patterns = patterns or (NOTHING,)
    wide = sum(each.width_m for each in patterns) + GAP_M * (len(patterns) + 1)
    tall = max((each.height_m for each in patterns), default=0.0) + 2 * GAP_M
    parts = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{1000 * wide:.3f}mm" height="{1000 * tall:.3f}mm" '
        f'viewBox="0 0 {1000 * wide:.3f} {1000 * tall:.3f}">',
    ]
    for layer in LAYERS:
        parts.append(f'<g id="{layer}" fill="none" {_STYLE[layer]}>')
        left = GAP_M
        for pattern in patterns:
            for line in pattern.lines:
                if line.layer == layer:
                    at = " L".join(f"{1000 * (left + x):.3f} {1000 * (tall - GAP_M - y):.3f}" for x, y in line.points)
                    parts.append(f'<path d="M{at}{" Z" if line.closed else ""}"/>')
            left += pattern.width_m + GAP_M
        parts.append("</g>")
    parts.append('<g id="LABELS" font-family="sans-serif" font-size="5.5" fill="#000000">')
    left = GAP_M
    for pattern in patterns:
        for label in pattern.labels:
            x, y = 1000 * (left + label.x_m), 1000 * (tall - GAP_M - label.y_m)
            parts.append(f'<text x="{x:.3f}" y="{y:.3f}">{escape(label.text)}</text>')
        left += pattern.width_m + GAP_M
    parts += ["</g>", "</svg>"]
    return "\n".join(parts) + "\n"
