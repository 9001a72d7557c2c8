"""What hangs, is mounted or lies, as it is begun: garlands, arches, hoops, panels, runners, cascades.

Hang points are unrated: nothing is said of them before somebody states it. Sizes are usual ones; common practice, no
source.
"""

import math
from collections.abc import Callable
from dataclasses import replace

from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.event.recipes.recipes import ScaleBy
from jolly_trellis.core.event.starting.starting import Given, Start, filled_m, half_centimetres
from jolly_trellis.core.event.starting.usual import USUAL, usual_line
from jolly_trellis.core.plan.piece import Envelope, Mechanic
from jolly_trellis.core.plan.setting import Setting
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.quantities import worded
from jolly_trellis.core.rigging import outlines
from jolly_trellis.core.rigging.hang_points import HangKind
from jolly_trellis.core.rigging.rig import (
    Armature,
    ArmatureKind,
    Attachment,
    Drop,
    HangPoint,
    Mount,
    Rig,
    RigLine,
    Stiffness,
)

Spot = tuple[float, float, float]
_BEAM_M, _LOW_M, _LONGER, _TABLE_M = 3.6, 2.6, 1.05, 0.75
_TIES_M = 0.24
_SECTION_M, _MOST_WRAP_M = 0.8, 1.0
_BANDS_M, _CRAWLS_FROM_M = 0.25, 0.5
_CARRIED_M = 3.5
_MOST_SECTIONS = 40
_CLEAR_M = 0.2


def sections_for(kind: ArmatureKind, length_m: float, usual: int) -> int:
    """In how many sections a run is made so that each can be carried: no fewer than are usual."""
    most = _MOST_WRAP_M if kind == "wrapped frame" and usual > 1 else _CARRIED_M
    return min(max(usual, math.ceil(length_m / most - 1e-9)), _MOST_SECTIONS)


def _armature(given: Given, kind: ArmatureKind, length_m: float) -> Armature:
    stiffness: Stiffness = "cored" if kind == "sleeve" else "twig-stiffened"
    return Armature(kind=kind, length_m=round(length_m, 3), netting=given.open, stiffness=stiffness)


def _empty(given: Given) -> Rig:
    return Rig(name="Hung piece", points=(), attachments=(), lines=(), armature=_armature(given, "snake", 3.0))


def _hung(name: str, armature: Armature, places: tuple[Spot, ...]) -> Rig:
    points = tuple(
        _point(worded("point {n}", n=at), "beam loop", (x, y, _BEAM_M)) for at, (x, y, _) in enumerate(places, 1)
    )
    return _held(name, armature, places, points)


def _held(name: str, armature: Armature, places: tuple[Spot, ...], points: tuple[HangPoint, ...]) -> Rig:
    steel = USUAL.hanger
    return Rig(
        name=name,
        points=points,
        attachments=tuple(Attachment(x_m=x, y_m=y, z_m=z) for x, y, z in places),
        lines=tuple(RigLine(attachment=at, point=at, spec=steel) for at in range(len(places))),
        armature=armature,
    )


def _point(name: str, kind: HangKind, place: Spot) -> HangPoint:
    x, y, z = place
    return HangPoint(name=name, kind=kind, x_m=x, y_m=y, z_m=z)


def _tied(name: str, armature: Armature, places: tuple[Spot, ...], kind: HangKind, word: str) -> Rig:
    """Tied all along, the ends twice; every second tie of cord, which stays when a cable tie goes."""
    last, tie = len(places) - 1, usual_line("cable tie")
    cord = USUAL.tie
    points = tuple(_point(f"{word} {at}", kind, (x, y, z + 0.03)) for at, (x, y, z) in enumerate(places, 1))
    rig = _held(name, armature, places, points)
    lines = tuple(replace(line, spec=cord if at % 2 == 0 or at == last else tie) for at, line in enumerate(rig.lines))
    twice = tuple(RigLine(attachment=at, point=at, spec=tie) for at in (0, last))
    return replace(rig, lines=(*lines, *twice), below="beside")


def wrapped(name: str, armature: Armature, mount: Mount, begins_m: float) -> Rig:
    """Netting wrapped on a frame from so far along it, tied all along.

    Args:
        armature: a wrapped frame as long as what is covered. begins_m: from the outline's first foot, m.
    """
    long = armature.length_m
    places = tuple(
        (round(x, 3), round(y, 3), round(z, 3))
        for x, y, z in outlines.ties_m(mount, begins_m=begins_m, long_m=long, apart_m=_TIES_M)
    )
    return replace(_tied(name, armature, places, "frame member", "tie"), mount=mount)


def banded(name: str, armature: Armature, mount: Mount) -> Rig:
    """A crawl up the front of a column from above its foot, with bands round the column all along it."""
    bands = max(3, round(armature.length_m / _BANDS_M) + 1)
    places: tuple[Spot, ...] = tuple(
        (mount.width_m / 2, 0.0, round(_CRAWLS_FROM_M + _BANDS_M * at, 3)) for at in range(bands)
    )
    return replace(_tied(name, armature, places, "clamp", "band"), mount=mount)


def _frame(width_m: float, height_m: float, outline: str) -> Mount:
    """A frame of one's own outdoors, its feet as wide as it is; what it weighs and may carry is to be said."""
    return Mount(
        kind="frame",
        outline="arch" if outline == "arch" else "hoop",
        width_m=width_m,
        height_m=height_m,
        foot_width_m=round(0.92 * width_m, 2),
        foot_depth_m=0.6,
        outdoors=True,
        comes_down_above=4,
    )


def _arch_section(given: Given) -> Rig:
    arch = _frame(1.4, 2.2, "arch")
    armature = replace(_armature(given, "wrapped frame", _SECTION_M), turns=1.3)
    return replace(wrapped("Arch section", armature, arch, 1.5), recipe=given.recipe("arch_section", _SECTION_M))


def _arch(given: Given) -> Rig:
    """From over the foot of one leg to that of the other, clear of the floor, in sections that can be carried."""
    arch = _frame(1.4, 2.2, "arch")
    long = outlines.length_m(arch) - 2 * _CLEAR_M
    parts = sections_for("wrapped frame", long, 2)
    armature = replace(_armature(given, "wrapped frame", long), turns=1.3, sections=parts)
    return replace(wrapped("Arch", armature, arch, _CLEAR_M), recipe=given.recipe("arch_section", long))


def _hoop(given: Given) -> Rig:
    """All round but for the foot."""
    hoop = _frame(1.2, 1.95, "hoop")
    gap = math.pi * 1.2 / 9
    long = outlines.length_m(hoop) - gap
    armature = replace(_armature(given, "wrapped frame", long), turns=1.3, sections=4)
    return replace(wrapped("Hoop", armature, hoop, gap / 2), recipe=given.recipe("arch_section", long))


def _garland(given: Given) -> Rig:
    places: tuple[Spot, ...] = tuple((x, 0.0, _LOW_M) for x in (-1.5, 0.0, 1.5))
    armature = replace(_armature(given, "snake", 3 * _LONGER), diameter_m=0.08)
    return replace(_hung("Garland", armature, places), recipe=given.recipe("garland", 3.0))


def _panel(given: Given) -> Rig:
    corners: tuple[Spot, ...] = tuple((x, y, _LOW_M) for x, y in ((-0.5, -0.5), (0.5, -0.5), (0.5, 0.5), (-0.5, 0.5)))
    drop = Drop(shortest_m=0.2, longest_m=0.6, curve="dome")
    armature = replace(_armature(given, "panel", 1.1), width_m=1.1, diameter_m=0.05, drop=drop)
    return replace(_hung("Hung panel", armature, corners), recipe=given.recipe("panel", 1.21))


def _ring(given: Given) -> Rig:
    places: tuple[Spot, ...] = tuple((x, y, _LOW_M) for x, y in ((0.0, 0.4), (-0.35, -0.2), (0.35, -0.2)))
    armature = replace(_armature(given, "ring", 0.9), diameter_m=0.9, drop=Drop(shortest_m=0.15, longest_m=0.4))
    return replace(_hung("Hung ring", armature, places), recipe=given.recipe("ring", 0.9))


def _cloud(given: Given) -> Rig:
    """A panel whose stems hang lower from one side to the other."""
    corners: tuple[Spot, ...] = tuple((x, y, _LOW_M) for x, y in ((-0.7, -0.3), (0.7, -0.3), (0.7, 0.3), (-0.7, 0.3)))
    drop = Drop(shortest_m=0.2, longest_m=0.7, curve="slope")
    armature = replace(_armature(given, "panel", 1.6), width_m=0.8, diameter_m=0.05, drop=drop)
    return replace(_hung("Sloping cloud", armature, corners), recipe=given.recipe("cloud", 1.28))


def _column(given: Given) -> Rig:
    rig = banded("Column crawl", _armature(given, "sleeve", 1.8), Mount(kind="column", width_m=0.3, height_m=3.2))
    return replace(rig, recipe=given.recipe("column", 1.8))


def _wall_roll(given: Given) -> Rig:
    places: tuple[Spot, ...] = tuple(
        (x, 0.0, z) for x, z in ((-0.9, 2.48), (-0.45, 2.36), (0.0, 2.32), (0.45, 2.36), (0.9, 2.48))
    )
    points = tuple(
        _point(worded("screw {n}", n=at), "wall screw", (x, 0.0, 2.62)) for at, (x, _, _) in enumerate(places, 1)
    )
    rig = _held("Wall roll", _armature(given, "tube", 2.0), places, points)
    wall = Mount(kind="wall", arm_m=0.12, bears_below_m=0.25)
    return replace(rig, below="beside", mount=wall, recipe=given.recipe("wall_roll", 2.0))


def _runner(given: Given) -> Rig:
    along = tuple(Attachment(x_m=x, y_m=0.0, z_m=_TABLE_M) for x in (-1.0, 1.0))
    armature = replace(_armature(given, "runner", 2.0), sections=2, diameter_m=0.08)
    rig = replace(_empty(given), name="Runner", below="beside", attachments=along, armature=armature)
    return replace(rig, recipe=given.recipe("runner", 2.0))


def _drift(given: Given) -> Rig:
    """Netting along the floor with stems that stand up out of it."""
    along = tuple(Attachment(x_m=x, y_m=0.0, z_m=0.06) for x in (-0.6, 0.6))
    armature = replace(_armature(given, "runner", 1.2), diameter_m=0.14)
    rig = replace(_empty(given), name="Ground drift", below="beside", attachments=along, armature=armature)
    return replace(rig, recipe=given.recipe("drift", 1.2))


def _cascade(given: Given) -> Rig:
    """A tube that comes down from a high rail in four steps, its flowers in wet bundles."""
    places: tuple[Spot, ...] = tuple((x, 0.0, z) for x, z in ((-0.9, 2.9), (-0.3, 2.3), (0.3, 1.7), (0.9, 1.1)))
    points = tuple(
        _point(worded("point {n}", n=at), "beam loop", (x, 0.0, 3.4)) for at, (x, _, _) in enumerate(places, 1)
    )
    rig = _held("Cascade", _armature(given, "tube", 2.6 * _LONGER), places, points)
    return replace(rig, below="beside", recipe=given.recipe("cascade", 2.6))


def _buckets(given: Given) -> tuple[Part, ...]:
    """Two buckets with wire on the ground at its foot."""
    bucket = given.other("bucket-26")
    across = half_centimetres(1.7 * bucket.mouth_width_m)
    size = Envelope(height_m=half_centimetres(bucket.rim_m + 0.35), width_m=across, depth_m=across)
    return (
        Standing(
            name="Bucket at the foot of the cascade",
            vessel=bucket,
            envelope=size,
            mechanic=Mechanic(netting=given.fine),
            water_level_m=filled_m(bucket, given.practice.fill),
            recipe=given.recipe("urn", bucket.mouth_width_m),
            setting=Setting(where="floor", surface="stone"),
            quantity=2,
        ),
    )


_POINTS = "where each point is, who rates it, and how high"
_FRAME = (
    "the frame: how wide and high, and its feet",
    "what it weighs and may carry, and who says so",
    "what it is guyed to",
)
_ROWS: tuple[tuple[str, str, Callable[[Given], Rig], ScaleBy | None, tuple[str, ...]], ...] = (
    ("empty", "Nothing yet: I draw it", _empty, None, (_POINTS,)),
    (
        "arch_section",
        "A section of an arch or hoop",
        _arch_section,
        "length",
        ("how long a section is, along the frame", *_FRAME),
    ),
    ("arch", "A whole arch", _arch, "length", _FRAME),
    ("hoop", "A hoop on a standing frame", _hoop, "diameter", _FRAME),
    (
        "garland",
        "A garland with pegs, hung from points",
        _garland,
        "length",
        (_POINTS, "how far it is along the way it hangs"),
    ),
    (
        "runner",
        "A runner along a table",
        _runner,
        "length",
        ("the table, long and wide", "how far guests sit from it"),
    ),
    ("drift", "A ground drift", _drift, "length", ("the ground it lies on, long and deep", "who walks by")),
    (
        "panel",
        "A flat panel, hung and upright stems",
        _panel,
        "area",
        (_POINTS, "the floor under it, and who walks there"),
    ),
    ("ring", "A ring or round panel", _ring, "diameter", (_POINTS, "the ring, across")),
    (
        "wall_roll",
        "A roll on a wall",
        _wall_roll,
        "length",
        ("the wall between its screws", "what a screw bears there, down and out"),
    ),
    (
        "column",
        "A crawl up a column",
        _column,
        "length",
        ("round the column", "how high it goes", "what may go round it"),
    ),
    ("cloud", "A sloping cloud", _cloud, "area", (_POINTS, "how low it may reach, and over whom")),
    (
        "cascade",
        "A cascade with bundles and buckets",
        _cascade,
        "length",
        (_POINTS, "how far it falls and reaches out", "the floor at its foot"),
    ),
)


def hung_starts() -> tuple[Start, ...]:
    """What hangs, is mounted or lies; first what is drawn from nothing."""
    return tuple(
        Start(
            key=key,
            kind="rig",
            name=name,
            asks="nothing",
            begin=begin,
            by=by,
            measure=measure,
            beside=_buckets if key == "cascade" else None,
        )
        for key, name, begin, by, measure in _ROWS
    )
