"""A plan against the picture it is to look like: size, spread, heads by variety, colours."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.wish import HeadMark, Wish
from jolly_trellis.core.quantities import Phrase, length, phrase

SIZE_APART = rule("Sizes of plan and picture differ from", "ratio", 0.1)
COLOUR_APART = rule("Colours of plan and picture differ from, CIE 1976", "count", 25)


@dataclass(frozen=True, slots=True, kw_only=True)
class Match:
    """What the picture says: metres to one of its points (0 until two places are marked), how high the piece stands
    in it and how wide its marked heads spread, m (None fewer than two); what the plan differs in.
    """

    metres_to_px: float
    height_m: float
    spread_m: float | None
    say: tuple[Phrase, ...]


def match(piece: Piece, wish: Wish, varieties: Mapping[str, Variety], names: Mapping[str, str]) -> Match:
    """Hold a plan against a picture.

    Args:
        varieties: of the stores, by key. names: of colours, to their value.
    Source: geometry of one scale; colours by CIE 1976 difference (ISO/CIE 11664-4), its limit is an estimate.
    """
    across = (wish.top_x - wish.foot_x) * wish.width_px
    up = (wish.foot_y - wish.top_y) * wish.height_px
    apart = math.hypot(across, up)
    if apart < 1:
        say = phrase("Mark where it stands and its top: two places, one over the other.")
        return Match(metres_to_px=0.0, height_m=0.0, spread_m=None, say=(say,))
    scale = wish.apart_m / apart
    height = max(up, 0.0) * scale
    xs = [each.x * wish.width_px for each in wish.heads]
    spread = (max(xs) - min(xs)) * scale if len(xs) > 1 else None
    said = [*_sizes(piece, height, spread), *_heads(piece, wish.heads, varieties)]
    said += _colours(piece, wish.heads, varieties, names)
    return Match(metres_to_px=scale, height_m=height, spread_m=spread, say=tuple(said))


def _sizes(piece: Piece, height: float, spread: float | None) -> Iterator[Phrase]:
    wanted = piece.envelope
    if abs(height - wanted.height_m) > SIZE_APART.value * wanted.height_m:
        words = "It stands {there} high in the picture, {here} in the plan."
        yield phrase(words, there=length(height), here=length(wanted.height_m))
    if spread is not None and abs(spread - wanted.width_m) > SIZE_APART.value * wanted.width_m:
        words = "Its marked heads spread {there} from middle to middle, the plan is {here} wide."
        yield phrase(words, there=length(spread), here=length(wanted.width_m))


def _heads(piece: Piece, heads: Sequence[HeadMark], varieties: Mapping[str, Variety]) -> Iterator[Phrase]:
    """Heads by variety: those that are named against the stems of the plan, which show from all sides."""
    marked: dict[str, int] = {}
    for each in heads:
        if each.variety:
            marked[each.variety] = marked.get(each.variety, 0) + 1
    planned: dict[str, int] = {}
    for line in piece.recipe:
        heads_each = varieties[line.variety].heads if line.variety in varieties else 1
        planned[line.variety] = planned.get(line.variety, 0) + line.count * heads_each
    for key, number in marked.items():
        name = varieties[key].name if key in varieties else key
        there = planned.get(key, 0)
        if number > there:
            words = "{name}: {number} {number|head is|heads are} marked on one side, the plan has {there} all round."
            yield phrase(words, name=name, number=number, there=there)
    for key, number in planned.items():
        if marked and key in varieties and varieties[key].form != "leaf" and key not in marked:
            yield phrase("{name}: {number} in the plan, none marked.", name=varieties[key].name, number=number)


def _colours(
    piece: Piece, heads: Sequence[HeadMark], varieties: Mapping[str, Variety], names: Mapping[str, str]
) -> Iterator[Phrase]:
    """Colours that are marked and that nothing in the plan comes near."""
    planned = [shade.colour for line in piece.recipe for shade in line.shades]
    planned += [varieties[line.variety].colour for line in piece.recipe if line.variety in varieties]
    missing: dict[str, int] = {}
    for each in heads:
        if all(apart(each.colour, other) >= COLOUR_APART.value for other in planned):
            name = min(names, key=lambda known: apart(names[known], each.colour), default=each.colour)
            missing[name] = missing.get(name, 0) + 1
    for name, number in missing.items():
        words = "{number} marked {number|head is|heads are} {name}, and nothing in the plan comes near it."
        yield phrase(words, number=number, name=name)


def apart(one: str, other: str) -> float:
    """How far two colours, "#rrggbb", are from one another as people see it: the CIE 1976 difference, 0 the same.

    Source: sRGB to CIELAB, IEC 61966-2-1 and ISO/CIE 11664-4, white D65.
    """
    return math.dist(_lab(one), _lab(other))


def _lab(colour: str) -> tuple[float, float, float]:
    red, green, blue = (_linear(int(colour[at : at + 2], 16) / 255) for at in (1, 3, 5))
    x = _curve((0.4124564 * red + 0.3575761 * green + 0.1804375 * blue) / 0.95047)
    y = _curve(0.2126729 * red + 0.7151522 * green + 0.0721750 * blue)
    z = _curve((0.0193339 * red + 0.1191920 * green + 0.9503041 * blue) / 1.08883)
    return 116 * y - 16, 500 * (x - y), 200 * (y - z)


def _linear(value: float) -> float:
    return value / 12.92 if value <= 0.04045 else ((value + 0.055) / 1.055) ** 2.4


def _curve(value: float) -> float:
    return value ** (1 / 3) if value > (6 / 29) ** 3 else value / (3 * (6 / 29) ** 2) + 4 / 29
