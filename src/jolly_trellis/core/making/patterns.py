"""Flat patterns at true size: sheets with cells, folds and tucks; frog, putty and lining templates."""

import math
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal

from jolly_trellis.core.building import stacks
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.building.extras import lining_strip_m, wrap_length_m
from jolly_trellis.core.materials import netting as nets
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.mechanics.sized import FlatSheet
from jolly_trellis.core.mechanics.tape import PUTTY_WIDTH
from jolly_trellis.core.quantities import length, worded
from jolly_trellis.core.units import cut_length_text, text_of

Layer = Literal["CUT", "FOLD", "MARK"]
Points = tuple[tuple[float, float], ...]
_MOST_CELLS = 4000
_ARC_STEPS = 96


@dataclass(frozen=True, slots=True, kw_only=True)
class Line:
    """A run of points on one layer, metres, y up; closed or open."""

    layer: Layer
    points: Points
    closed: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Label:
    """Words on the pattern at a place, metres; always on the layer MARK."""

    text: str
    x_m: float
    y_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Pattern:
    """One thing to cut, flat: its size and everything drawn on it, from (0, 0) to (width, height), metres."""

    name: str
    width_m: float
    height_m: float
    lines: tuple[Line, ...]
    labels: tuple[Label, ...]


def patterns_of(build: Build) -> tuple[Pattern, ...]:
    """Everything of a piece that is cut from the flat or laid out from a template; empty where there is nothing.

    What its spill and its other vessels are cut from is there too, under their names.
    """
    found = _own(build)
    if build.spill is not None:
        found.append(sheet_pattern(FlatSheet(name="spill", sheet=build.spill.sheet), build.spill.netting))
    for each, made in zip(build.piece.companions, build.companions, strict=True):
        found += [_named(pattern, f"{each.name}, {pattern.name}") for pattern in _own(made)]
    return tuple(found)


def run_pattern(name: str, netting: Netting, *, width_m: float, length_m: float) -> Pattern:
    """The sheet of an armature, or one section of it, as it is cut: its edge, its cells, its size.

    Raises: InvalidMeasure: a sheet of no size.
    """
    sheet = nets.sheet(netting, width_m=width_m, length_m=length_m)
    exact = replace(sheet, width_m=width_m, length_m=length_m)
    return sheet_pattern(FlatSheet(name=name, sheet=exact), netting)


def _named(pattern: Pattern, name: str) -> Pattern:
    """A pattern under another name, which its first words say too."""
    first, *others = pattern.labels
    first = replace(first, text=first.text.replace(pattern.name, name, 1))
    return replace(pattern, name=name, labels=(first, *others))


def _own(build: Build) -> list[Pattern]:
    found = [sheet_pattern(each, build.netting) for each in build.mechanic.flat if build.netting is not None]
    if build.mechanic.frog_radius_m:
        found.append(frog_pattern(2 * build.mechanic.frog_radius_m, with_putty=build.mechanic.putty_kg > 0))
    support = build.piece.support
    if support is not None and support.putty:
        across = stacks.joint_across_m(stacks.on_support(build.piece), support)
        found.append(ring_pattern("putty ring of the joint", across))
    if build.piece.lining:
        tall, around = lining_strip_m(build.piece.vessel)
        found.append(strip_pattern("leaf lining strip", around, tall))
    if build.piece.wrap_height_m:
        found.append(
            strip_pattern("netting round the outside", wrap_length_m(build.piece.vessel), build.piece.wrap_height_m)
        )
    return found


def sheet_pattern(flat: FlatSheet, netting: Netting) -> Pattern:
    """A sheet of netting: its edge to cut, folds, tucks, the cells, and its sizes in length and in whole cells.

    x runs across the roll, y along the twists.
    """
    wide, long = flat.sheet.width_m, flat.sheet.length_m
    lines = [Line(layer="CUT", points=_box(0, 0, wide, long), closed=True)]
    for fold in flat.folds:
        if fold.kind != "tuck":
            lines.append(Line(layer="FOLD", points=((0.0, fold.at_m), (wide, fold.at_m))))
    tuck = flat.tuck_m
    if tuck:
        lines.append(Line(layer="FOLD", points=_box(tuck, tuck, wide - tuck, long - tuck), closed=True))
    if flat.diagonal_folds:
        middles = ((wide / 2, 0.0), (wide, long / 2), (wide / 2, long), (0.0, long / 2))
        lines.append(Line(layer="FOLD", points=middles, closed=True))
    lines += _cells(flat, netting)
    middle = _clear_place(flat, long)
    labels = [
        Label(text=f"{flat.name}: {_both(wide)} ×", x_m=0.004, y_m=middle + 0.008),
        Label(text=_both(long), x_m=0.004, y_m=middle),
        Label(text=netting.name, x_m=0.004, y_m=middle - 0.008),
        Label(
            text=worded(
                "{across} cells across, {along} rows along",
                across=flat.sheet.cells_across,
                along=flat.sheet.rows_along,
            ),
            x_m=0.004,
            y_m=middle - 0.016,
        ),
        Label(text="↕ the twists run this way", x_m=0.004, y_m=middle - 0.024),
    ]
    for fold in flat.folds:
        if fold.kind != "tuck":
            words = worded("{fold}, {at} from the end", fold=fold.kind, at=_at(round(fold.at_m * 200) / 200))
            labels.append(Label(text=words, x_m=0.004, y_m=fold.at_m + 0.002))
    if tuck:
        labels.append(Label(text=worded("tuck {at} in all round", at=_at(tuck)), x_m=tuck + 0.003, y_m=tuck + 0.003))
    return Pattern(name=flat.name, width_m=wide, height_m=long, lines=tuple(lines), labels=tuple(labels))


def _clear_place(flat: FlatSheet, long_m: float) -> float:
    """Middle of the widest stretch between folds, where words cross no line, metres from the end."""
    marks = sorted({0.0, long_m, *(fold.at_m for fold in flat.folds)})
    low, high = max(pairwise(marks), key=lambda pair: pair[1] - pair[0])
    return (low + high) / 2 + 0.008


def frog_pattern(width_m: float, *, with_putty: bool) -> Pattern:
    """The frog's base as a template for the floor, with the putty ring under it where it is stuck."""
    middle = width_m / 2
    lines = [Line(layer="CUT", points=circle(middle, middle, middle), closed=True), *_cross(middle, middle)]
    if with_putty:
        inner = max(middle - PUTTY_WIDTH.value, 0.002)
        lines.append(Line(layer="MARK", points=circle(middle, middle, inner), closed=True))
    labels = [Label(text=worded("frog {width}", width=_both(width_m)), x_m=middle * 0.3, y_m=middle + 0.006)]
    if with_putty:
        labels.append(Label(text="putty: the ring", x_m=middle * 0.3, y_m=middle - 0.01))
    return Pattern(name="frog", width_m=width_m, height_m=width_m, lines=tuple(lines), labels=tuple(labels))


def ring_pattern(name: str, width_m: float) -> Pattern:
    """A ring of putty at true size."""
    middle = width_m / 2
    rings = (middle, max(middle - PUTTY_WIDTH.value, 0.002))
    lines = tuple(Line(layer="MARK", points=circle(middle, middle, each), closed=True) for each in rings)
    label = Label(text=worded("{name}, {long} long", name=name, long=_both(math.pi * width_m)), x_m=0.003, y_m=middle)
    return Pattern(
        name=name, width_m=width_m, height_m=width_m, lines=(*lines, *_cross(middle, middle)), labels=(label,)
    )


def strip_pattern(name: str, long_m: float, tall_m: float) -> Pattern:
    """A strip to cut."""
    lines = (Line(layer="CUT", points=_box(0, 0, long_m, tall_m), closed=True),)
    label = Label(text=f"{name}: {_both(long_m)} × {_both(tall_m)}", x_m=0.004, y_m=tall_m / 2)
    return Pattern(name=name, width_m=long_m, height_m=tall_m, lines=lines, labels=(label,))


def circle(x_m: float, y_m: float, radius_m: float) -> Points:
    """A circle as a polygon of 96 corners."""
    turns = (2 * math.pi * step / _ARC_STEPS for step in range(_ARC_STEPS))
    return tuple((x_m + radius_m * math.cos(turn), y_m + radius_m * math.sin(turn)) for turn in turns)


def _both(value_m: float) -> str:
    """A length in both unit systems, as it is cut."""
    return f"{cut_length_text(value_m, 'metric')} ({cut_length_text(value_m, 'inch')})"


def _at(value_m: float) -> str:
    """Where a fold or a tuck lies in both unit systems, as the steps at the bench say it."""
    return f"{text_of(length(value_m), 'metric')} ({text_of(length(value_m), 'inch')})"


def _box(left: float, bottom: float, right: float, top: float) -> Points:
    return ((left, bottom), (right, bottom), (right, top), (left, top))


def _cross(x_m: float, y_m: float) -> tuple[Line, ...]:
    reach = 0.006
    return (
        Line(layer="MARK", points=((x_m - reach, y_m), (x_m + reach, y_m))),
        Line(layer="MARK", points=((x_m, y_m - reach), (x_m, y_m + reach))),
    )


def _cells(flat: FlatSheet, netting: Netting) -> list[Line]:
    """Cells as zigzag wires between the rows, clipped to the sheet; none where there are too many to read."""
    if flat.sheet.cells_across * flat.sheet.rows_along > _MOST_CELLS:
        return []
    across, along = nets.pitch_across_m(netting), nets.pitch_along_m(netting)
    wide, long = flat.sheet.width_m, flat.sheet.length_m
    side = across / math.sqrt(3)
    lines: list[Line] = []
    for row in range(int(long / along) + 1):
        base = row * along
        shift = across / 2 if row % 2 else 0.0
        steps = [step * across / 2 - shift for step in range(2 * int(wide / across) + 3)]
        zig = [
            (min(max(x, 0.0), wide), base + (side / 2 if step % 2 else 0.0))
            for step, x in enumerate(steps)
            if -1e-9 <= x <= wide + 1e-9
        ]
        if len(zig) > 1 and base + side / 2 <= long:
            lines.append(Line(layer="MARK", points=tuple(zig)))
        for column in range(int(wide / across) + 2):
            x = column * across + across / 2 - shift
            top = min(base + along, long)
            if 0 <= x <= wide and base + side / 2 < top:
                lines.append(Line(layer="MARK", points=((x, base + side / 2), (x, top))))
    return lines
