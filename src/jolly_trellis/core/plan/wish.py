"""A look to match: a picture with marks on it that give its size, and marks on the heads that it shows."""

from dataclasses import dataclass
from typing import Annotated

from jolly_trellis.core.ranges import Many, Range, Text


@dataclass(frozen=True, slots=True, kw_only=True)
class HeadMark:
    """A head that the picture shows: where, from its left and its top as shares of it; its colour; the variety that
    somebody takes it for, by its key, empty for none.
    """

    x: Annotated[float, Range("ratio", 0, 1)]
    y: Annotated[float, Range("ratio", 0, 1)]
    colour: Annotated[str, Text(7, like="#[0-9a-f]{6}", such="#c8566b")]
    variety: Annotated[str, Text(60)] = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Wish:
    """A picture by its key and size, px, and what is marked on it: where the piece stands, its top, `apart_m` over one
    another, and its heads. Places are shares of the picture from its left and its top.
    """

    picture: Annotated[str, Text(80, least=1)]
    width_px: Annotated[int, Range("count", 1, 10000)]
    height_px: Annotated[int, Range("count", 1, 10000)]
    foot_x: Annotated[float, Range("ratio", 0, 1)] = 0.5
    foot_y: Annotated[float, Range("ratio", 0, 1)] = 0.95
    top_x: Annotated[float, Range("ratio", 0, 1)] = 0.5
    top_y: Annotated[float, Range("ratio", 0, 1)] = 0.05
    apart_m: Annotated[float, Range("length", 0, 5, above=True)]
    heads: Annotated[tuple[HeadMark, ...], Many(200)] = ()
