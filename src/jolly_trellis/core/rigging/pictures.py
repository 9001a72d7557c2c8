"""Hung and mounted work as a picture: its place, its lines and points, its armature with its flowers as they hang."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.drawing.picture import Eye, EyeKind, Picture, Stems
from jolly_trellis.core.drawing.primitives import (
    Dot,
    Layer,
    Place,
    Primitive,
    Shape,
    box,
    column,
    line,
    place,
    run,
)
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.rigging.armatures import joints_m
from jolly_trellis.core.rigging.clearances import WALKWAY
from jolly_trellis.core.rigging.hang_points import POINTS
from jolly_trellis.core.rigging.picture_stems import _at_share, _square_to, drawn_stems
from jolly_trellis.core.rigging.rig import Mount, Rig, RigLine

STANDS_AWAY = measure("Somebody who looks at hung work stands so far from it", "length", 3.0)
EYE = measure("Height of an eye that looks up at hung work", "length", 1.60)
_PERSON_M = 1.7
_AROUND_M = 0.6
_POINT_M, _HELD_M, _HAZARD_M = 0.03, 0.022, 0.05
_BEAM_M = 0.06
_BARE_M = 3.2  # room to begin in, where nothing is planned yet


def picture_of_rig(
    rig: Rig,
    *,
    at_m: Sequence[Place],
    held_m: Sequence[Place],
    varieties: Mapping[str, Variety],
    cut: Sequence[int] = (),
) -> Picture:
    """What is to be seen of hung work.

    Args:
        at_m: the armature's nodes where they rest. held_m: where lines meet it. varieties: the studio's, by key.
        cut: lines that are cut, drawn where they were planned.
    """
    nodes = np.array(at_m, dtype=np.float64).reshape(-1, 3)
    stems, hooks = drawn_stems(rig, nodes, varieties)
    work = [*_armature(rig, nodes), *hooks, *_lines(rig, held_m, cut), *_bond(rig, held_m), *_points(rig, held_m)]
    there = [*_mount(rig.mount, nodes), *_hazards(rig), *_beams(rig)]
    low_x, high_x, deep, top = _extent(rig, nodes, stems)
    parts: list[Primitive] = [*_room(rig, low_x, high_x, deep), *there, *work]
    reach = max(-low_x, high_x, deep)
    return Picture(
        primitives=tuple(parts),
        hung=stems,
        rims_m=(0.0,),
        reach_m=round(reach, 4),
        deep_m=round(max(deep, 0.3), 4),
        low_m=0.0,
        top_m=round(top, 4),
        eyes=_eyes(float(nodes[:, 2].mean()) if len(nodes) else 2.0, deep),
    )


def _extent(rig: Rig, nodes: Array, stems: Stems) -> tuple[float, float, float, float]:
    """How far it goes to the left, to the right, to front or back, and up, m."""
    places = nodes.tolist()
    places += [[each.x_m, each.y_m, each.z_m] for each in rig.points]
    places += [[each.x_m, each.y_m, each.z_m] for each in rig.attachments]
    places += [[x, y, z] for x, y, z in zip(stems.tip_x_m, stems.tip_y_m, stems.tip_z_m, strict=True)]
    places += [[each.x_m, each.y_m, each.z_m] for each in rig.hazards]
    if rig.mount is not None:
        half = max(rig.mount.width_m, rig.mount.foot_width_m) / 2
        places += [[rig.mount.x_m + side * half, rig.mount.foot_depth_m / 2, rig.mount.height_m] for side in (-1, 1)]
    at = np.array(places or [[0.0, 0.0, _BARE_M]])
    return (
        min(float(at[:, 0].min()), -0.5),
        max(float(at[:, 0].max()), 0.5),
        float(np.abs(at[:, 1]).max()),
        float(at[:, 2].max()) + 0.1,
    )


def _eyes(middle_m: float, deep_m: float) -> tuple[Eye, ...]:
    """Level with it, standing before it, from right under it, from above."""
    away = STANDS_AWAY.value + deep_m
    places: tuple[tuple[EyeKind, float, float], ...] = (
        ("level", away, middle_m),
        ("standing", away, EYE.value),
        ("from under", max(away / 4, 0.4), EYE.value if middle_m > EYE.value + 0.3 else middle_m - 0.5),
    )
    found = [
        Eye(kind=kind, away_m=round(far, 4), height_m=high, raised_rad=round(math.atan2(high - middle_m, far), 6))
        for kind, far, high in places
    ]
    above = Eye(kind="from above", away_m=0.0, height_m=middle_m + 2, raised_rad=round(math.pi / 2, 6))
    return (*found, above)


def _room(rig: Rig, low_x: float, high_x: float, deep: float) -> list[Primitive]:
    """The floor, somebody for measure, and the clearance wanted over a walkway."""
    left, right, out = low_x - 2 * _AROUND_M, high_x + _AROUND_M, deep + _AROUND_M
    floor = run([(left, -out, 0), (right, -out, 0), (right, out, 0), (left, out, 0)])
    found: list[Primitive] = [
        Shape(kind="face", id="floor", ink="surface", layer=Layer.PLACE, runs=(floor,), closed=True),
        *_person(low_x - _AROUND_M - 0.35),
    ]
    if rig.below == "walkway":
        clear = run([(left, 0, WALKWAY.value), (right, 0, WALKWAY.value)])
        found.append(replace(line("walkway", "clearance", Layer.MARKS, clear), seen=("front",)))
    return found


def _person(x: float) -> list[Primitive]:
    body = [(0.0, 0.07), (0.45, 0.09), (0.85, 0.16), (1.3, 0.2), (1.42, 0.1), (1.46, 0.05)]
    return [
        column("person", "person", Layer.BESIDE, body, x=x),
        Dot(id="person-head", ink="person", layer=Layer.BESIDE, at=place(x, 0, _PERSON_M - 0.11), r_m=0.11),
    ]


def _beams(rig: Rig) -> list[Primitive]:
    """A piece of what every hang point is on, where that is a part of the building."""
    found: list[Primitive] = []
    for index, point in enumerate(rig.points):
        if rig.is_tied or POINTS[point.kind].in_wall:
            continue
        low = place(point.x_m - 0.18, point.y_m - _BEAM_M / 2, point.z_m + 0.02)
        high = place(point.x_m + 0.18, point.y_m + _BEAM_M / 2, point.z_m + 0.02 + _BEAM_M)
        found.append(box(f"beam-{index}", "wall", Layer.BESIDE, low, high))
    return found


def _mount(mount: Mount | None, nodes: Array) -> list[Primitive]:
    """A frame on its feet, a stand, a column; the wall that work leans on."""
    if mount is None:
        return []
    x, half, high = mount.x_m, mount.width_m / 2, mount.height_m
    if mount.kind == "column":
        return [column("mount", "column", Layer.SUPPORT, [(0, half), (high, half)], x=x)]
    if mount.kind == "wall":
        back = (float(nodes[:, 1].max()) if len(nodes) else 0.0) + 0.05
        left, right = (float(nodes[:, 0].min()), float(nodes[:, 0].max())) if len(nodes) else (-0.5, 0.5)
        top = (float(nodes[:, 2].max()) if len(nodes) else 2.0) + 0.5
        corners = place(left - 0.5, back, 0), place(right + 0.5, back + 0.05, top)
        return [box("mount-wall", "wall", Layer.PLACE, *corners)]
    wide, deep = mount.foot_width_m / 2, mount.foot_depth_m / 2
    feet = run([(x - wide, -deep, 0), (x + wide, -deep, 0), (x + wide, deep, 0), (x - wide, deep, 0)])
    outline = [(x, 0.0, 0.0), (x, 0.0, high)] if mount.kind == "stand" else _outline(mount)
    return [
        Shape(kind="face", id="mount-feet", ink="frame foot", layer=Layer.SUPPORT, runs=(feet,), closed=True),
        line("mount", "frame", Layer.SUPPORT, run(outline), width_m=0.03),
    ]


def _outline(mount: Mount) -> list[Place]:
    x, half, high = mount.x_m, mount.width_m / 2, mount.height_m
    if mount.outline == "rail":
        return [(x - half, 0, 0), (x - half, 0, high), (x + half, 0, high), (x + half, 0, 0)]
    arch = mount.outline == "arch"
    start, end = (math.pi, 0.0) if arch else (-math.pi / 2, 1.5 * math.pi)
    turns = [start + (end - start) * step / 48 for step in range(49)]
    bow = [(x + half * math.cos(turn), 0.0, high - half + half * math.sin(turn)) for turn in turns]
    return [(x - half, 0, 0), *bow, (x + half, 0, 0)] if arch else [(x, 0, 0), *bow]


def _hazards(rig: Rig) -> list[Primitive]:
    """What must be kept clear, each as a small cone in its ink."""
    inks = {"sprinkler": "hazard water", "open flame": "hazard flame", "flame in glass": "hazard flame"}
    return [
        column(
            f"hazard-{index}",
            inks.get(each.kind, "hazard"),
            Layer.BESIDE,
            [(each.z_m - _HAZARD_M, _HAZARD_M), (each.z_m + _HAZARD_M, 0.002)],
            x=each.x_m,
            y=each.y_m,
        )
        for index, each in enumerate(rig.hazards)
    ]


def start_of(rig: Rig, each: RigLine, held_m: Sequence[Place]) -> Place | None:
    """Where a line starts: at its hang point, or at another place of the armature; None for nowhere."""
    if each.tied_to is not None:
        return held_m[each.tied_to] if each.tied_to < len(held_m) else None
    if each.point is None or each.point >= len(rig.points):
        return None
    point = rig.points[each.point]
    return point.x_m, point.y_m, point.z_m


def _lines(rig: Rig, held_m: Sequence[Place], cut: Sequence[int]) -> list[Primitive]:
    """Every line from where it starts to where it meets the armature; a cut one as it was planned."""
    found: list[Primitive] = []
    for index, each in enumerate(rig.lines):
        start = start_of(rig, each, held_m)
        planned = rig.attachments[each.attachment] if each.attachment < len(rig.attachments) else None
        if start is None or planned is None or each.attachment >= len(held_m):
            continue
        meets = (planned.x_m, planned.y_m, planned.z_m) if index in cut else held_m[each.attachment]
        found.append(line(f"line-{index}", "line", Layer.OVER, run([start, meets])))
    return found


def _bond(rig: Rig, held_m: Sequence[Place]) -> list[Primitive]:
    """The second bond, slack from its own point to the nearest place of the armature."""
    if rig.bond is None or rig.bond.point is None or rig.bond.point >= len(rig.points) or not held_m:
        return []
    point = rig.points[rig.bond.point]
    start = np.array((point.x_m, point.y_m, point.z_m))
    meets = min((np.array(each) for each in held_m), key=lambda each: float(np.linalg.norm(each - start)))
    bow = (start + meets) / 2 + np.array((rig.bond.slack_m, 0.0, 0.0))
    return [line("bond", "bond", Layer.OVER, run(np.stack([start, bow, meets])))]


def _points(rig: Rig, held_m: Sequence[Place]) -> list[Primitive]:
    """Where lines meet the armature, and the places of the building they are fixed to."""
    dots: list[Primitive] = [
        Dot(id=f"attachment-{index}", ink="attachment", layer=Layer.MARKS, at=place(*each), r_m=_HELD_M)
        for index, each in enumerate(held_m)
    ]
    dots += [
        Dot(
            id=f"point-{index}",
            ink="hang point",
            layer=Layer.MARKS,
            at=place(each.x_m, each.y_m, each.z_m),
            r_m=_POINT_M,
        )
        for index, each in enumerate(rig.points)
    ]
    return dots


def _armature(rig: Rig, nodes: Array) -> list[Primitive]:
    """A run as thick as it is; a panel or ring by its rim."""
    if len(nodes) < 2:
        return []
    if rig.is_run:
        tube = line("run", "run", Layer.UNDER, run(nodes), width_m=rig.armature.diameter_m)
        return [tube, *_joints(rig, nodes)]
    kind = "face" if rig.armature.kind == "panel" else "line"
    ink = "panel" if kind == "face" else "ring"
    width = None if kind == "face" else 0.02
    rim = Shape(
        kind="face" if kind == "face" else "line",
        id="rim",
        ink=ink,
        layer=Layer.OVER,
        runs=(run(nodes),),
        closed=True,
        width_m=width,
    )
    return [rim]


def _joints(rig: Rig, nodes: Array) -> list[Primitive]:
    """Where sections of a run meet, each as a ring round it."""
    found: list[Primitive] = []
    half = 0.55 * rig.armature.diameter_m
    for index, joint in enumerate(joints_m(rig.armature)):
        at, along = _at_share(nodes, joint / rig.armature.length_m)
        across = _square_to(along)
        found.append(
            line(f"joint-{index}", "joint", Layer.OVER, run(np.stack([at - half * across, at + half * across])))
        )
    return found
