"""Vessel outlines from a drawing (an SVG path) or a tape-measure table, and a measured fill to check them by."""

import math
import re
from dataclasses import dataclass, replace
from typing import Any
from xml.etree.ElementTree import ParseError

from defusedxml.common import DefusedXmlException
from defusedxml.ElementTree import fromstring
from svgelements import Path

from jolly_trellis.core import ranges
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.materials.profiles import ProfilePoint
from jolly_trellis.core.materials.vessels import Vessel, check_vessel, volume_below_l
from jolly_trellis.core.quantities import Phrase, length, phrase, volume
from jolly_trellis.core.units import UnitSystem, parse_length

MOST_SVG_CHARACTERS = 400_000
MOST_PATH_CHARACTERS = 60_000
_LEVELS = 9
_SAMPLES = 900
_FILL_AGREES = 0.05
_CORNER = re.compile(r"[\s,;:]+corner$", re.IGNORECASE)


def read_svg(text: str, *, inside_depth_m: float, half: bool) -> tuple[ProfilePoint, ...]:
    """The inner profile of a round vessel from the longest path of an SVG.

    The drawing's lowest point is the inside floor, its highest the rim; its height is scaled to the inside depth.
    Nothing in the file is run or fetched: files with scripts, references to elsewhere or entities are refused.

    Args:
        text: the SVG.
        inside_depth_m: real inside depth, m, > 0.
        half: the path draws one side only, its leftmost point on the middle line; else both sides.
    Raises: InvalidMeasure, with what would be right.
    """
    root = _safe_root(text)
    paths = [each.get("d") or "" for each in root.iter() if str(each.tag).rpartition("}")[2] == "path"]
    outline = max(paths, key=len, default="")
    if not outline or len(outline) > MOST_PATH_CHARACTERS:
        raise _refused(
            "The drawing has no path to read." if not outline else "The path is too long to read.",
            "Draw the vessel's inside as one path.",
        )
    try:
        path = Path(outline)
        span = [path.point(step / _SAMPLES) for step in range(_SAMPLES + 1)]
        points = [(float(each.x), -float(each.y)) for each in span]
    except (ValueError, TypeError, AttributeError, ZeroDivisionError, IndexError):
        raise _refused("The path cannot be read.", "Draw the vessel's inside as one path.") from None
    return _profile_of(points, inside_depth_m, half)


def read_table(text: str, *, system: UnitSystem) -> tuple[ProfilePoint, ...]:
    """The inner profile from lines of height and inside size, such as "0 12", "3 1/2 in, 8 in" or "9 20 corner".

    Two sizes at one height are a step.

    Raises: InvalidMeasure: a line that is no pair of lengths, heights that fall, or fewer than two lines.
    """
    points: list[ProfilePoint] = []
    lines = []
    for number, raw in enumerate(text.removeprefix("\ufeff").splitlines(), start=1):
        line = raw.strip()
        if not line or line[0] == "#":
            continue
        measured = _CORNER.sub("", line)
        pair = re.split(r"\s*[,;:\t]\s*|\s{2,}", measured)
        if len(pair) != 2:
            pair = measured.split()
        sizes = [parse_length(each, system=system) for each in pair]
        if len(sizes) != 2 or sizes[0] is None or sizes[1] is None:
            raise _refused(
                "Line {number}, “{line}”, is no height and size.",
                "Type two lengths, such as 9.5 20, and “corner” where it bends sharply.",
                number=number,
                line=line[:40],
            )
        corner = measured != line
        points.append(ProfilePoint(height_m=sizes[0], width_m=sizes[1], depth_m=sizes[1], corner=corner))
        lines.append(number)
        _check_line(number, points)
        if len(points) > 60:
            raise _refused("The table has more than 60 heights.", "A few heights are enough: floor, belly, rim.")
    if len(points) < 2:
        raise _refused("The table has fewer than two heights.", "Measure at least the inside floor and the rim.")
    try:
        check_vessel(Vessel(name="outline", plan_shape="round", profile=tuple(points)))
    except InvalidMeasure as wrong:
        place = int(wrong.path.split(".")[2])
        said = phrase("Line {number}: {wrong}", number=lines[place], wrong=wrong.message)
        raise InvalidMeasure(path="outline", message=said, limit=wrong.limit) from None
    return tuple(points)


@dataclass(frozen=True, slots=True, kw_only=True)
class FillCheck:
    """What an outline holds against what was poured, litres; the words; and the vessel with its widths mended."""

    holds_l: float
    poured_l: float
    agrees: bool
    say: Phrase
    mended: Vessel


def check_fill(vessel: Vessel, poured_l: float) -> FillCheck:
    """Compare an outline with a measured fill to the rim; widths are scaled by √(poured/holds) to agree.

    Args:
        vessel: a checked vessel.
        poured_l: litres poured in until it brims, > 0.
    Raises: InvalidMeasure: an outline that holds less than a drop.
    Source: volume goes with the square of the widths.
    """
    holds = volume_below_l(vessel, vessel.inside_depth_m)
    if holds < 1e-6:
        raise InvalidMeasure(
            path="vessel.profile",
            message=phrase("The outline holds nothing to speak of."),
            limit=phrase("Measure the inside in whole millimetres or more."),
        )
    ratio = poured_l / holds
    agrees = abs(ratio - 1) <= _FILL_AGREES
    factor = math.sqrt(ratio)
    profile = tuple(
        replace(point, width_m=round(point.width_m * factor, 5), depth_m=round(point.depth_m * factor, 5))
        for point in vessel.profile
    )
    words = (
        "The outline holds {holds}, you poured {poured}: they agree."
        if agrees
        else "The outline holds {holds}, you poured {poured}: measure again, or let the widths be scaled to {share}."
    )
    return FillCheck(
        holds_l=holds,
        poured_l=poured_l,
        agrees=agrees,
        say=phrase(words, holds=volume(holds), poured=volume(poured_l), share=f"{factor:.1%}"),
        mended=replace(vessel, profile=profile),
    )


def _check_line(number: int, points: list[ProfilePoint]) -> None:
    """Refuse a line that no vessel has: a size out of range, or a height under the one before."""
    wrong = next(ranges.outside(points[-1]), None)
    if wrong is not None:
        said = phrase("Line {number}: {wrong}", number=number, wrong=wrong.message)
        raise InvalidMeasure(path="outline", message=said, limit=wrong.limit)
    last = points[-2].height_m if len(points) > 1 else 0.0
    if points[-1].height_m < last:
        raise InvalidMeasure(
            path="outline",
            message=phrase("Line {number}: the height falls.", number=number),
            limit=phrase("From the floor up, no height lies under the one before it, {last}.", last=length(last)),
        )


def _safe_root(text: str) -> Any:
    if len(text) > MOST_SVG_CHARACTERS:
        raise _refused("The drawing is larger than 400 kB.", "Save the outline alone, as one path.")
    try:
        root = fromstring(text, forbid_dtd=True, forbid_entities=True, forbid_external=True)
    except DefusedXmlException:
        raise _refused("The file defines entities of its own and is not opened.", "Save it as plain SVG.") from None
    except (ParseError, ValueError):
        raise _refused("This is no SVG.", "Save the outline as plain SVG.") from None
    for each in root.iter():
        tag = str(each.tag).rpartition("}")[2].lower()
        if tag in ("script", "foreignobject", "iframe", "use", "image"):
            raise _refused(
                "The file holds a “{tag}” and is not opened.", "Save the outline alone, as one path.", tag=tag
            )
        for name, value in each.attrib.items():
            plain = str(name).rpartition("}")[2].lower()
            if plain.startswith("on") or (plain == "href" and not str(value).startswith("#")):
                raise _refused("The file refers to something outside itself.", "Save the outline alone, as one path.")
    return root


def _profile_of(points: list[tuple[float, float]], inside_depth_m: float, half: bool) -> tuple[ProfilePoint, ...]:
    if not all(math.isfinite(x) and math.isfinite(y) for x, y in points):
        raise _refused("The path leaves the page.", "Draw the vessel's inside as one path.")
    bottom, top = min(y for _, y in points), max(y for _, y in points)
    left, right = min(x for x, _ in points), max(x for x, _ in points)
    if top - bottom < 1e-6 or right - left < 1e-6:
        raise _refused("The path is flat.", "Draw the vessel's inside, from the floor up to the rim.")
    scale = inside_depth_m / (top - bottom)
    axis = left if half else (left + right) / 2
    found = []
    for level in range(_LEVELS):
        height = bottom + (top - bottom) * level / (_LEVELS - 1)
        reach = max((abs(x - axis) for x, y in points if abs(y - height) <= 0.03 * (top - bottom)), default=0.0)
        if reach <= 0:
            raise _refused("The outline has a gap.", "Draw one side from the floor up to the rim without a break.")
        width = round(2 * reach * scale, 5)
        found.append(ProfilePoint(height_m=round((height - bottom) * scale, 5), width_m=width, depth_m=width))
        wrong = next(ranges.outside(found[-1]), None)
        if wrong is not None:
            raise InvalidMeasure(path="outline", message=wrong.message, limit=wrong.limit)
    return tuple(found)


def _refused(message: str, limit: str, **names: str | int) -> InvalidMeasure:
    return InvalidMeasure(path="outline", message=phrase(message, **names), limit=phrase(limit, **names))
