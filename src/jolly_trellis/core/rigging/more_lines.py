"""More hang points for a run: each in the widest gap, with a place under it and a line like the first."""

from dataclasses import replace
from itertools import pairwise

from jolly_trellis.core.quantities import worded
from jolly_trellis.core.rigging.rig import Attachment, Rig, RigLine
from jolly_trellis.core.rigging.stated import unstated


def with_points(rig: Rig, more: int) -> Rig:
    """A run on so many more points, each halving the widest gap between places; nobody has rated the new ones.

    Source: geometry.
    """
    for _ in range(more):
        rig = _with_point(rig)
    return rig


def _with_point(rig: Rig) -> Rig:
    order = sorted(range(len(rig.attachments)), key=lambda each: rig.attachments[each].x_m)
    if len(order) < 2:
        return rig
    gaps = [(rig.attachments[other].x_m - rig.attachments[one].x_m, one, other) for one, other in pairwise(order)]
    _, one, other = max(gaps)
    here, there = rig.attachments[one], rig.attachments[other]
    high = max(point.z_m for point in rig.points)
    place = Attachment(x_m=(here.x_m + there.x_m) / 2, y_m=(here.y_m + there.y_m) / 2, z_m=(here.z_m + there.z_m) / 2)
    number = len(rig.points) + 1
    names = {point.name for point in rig.points}
    while (name := worded("point {n}", n=number)) in names:
        number += 1
    like = unstated(rig.points[0])
    point = replace(like, name=name, x_m=place.x_m, y_m=place.y_m, z_m=high)
    at = max(one, other) if abs(one - other) == 1 else len(rig.attachments)
    shared = [replace(each, along_m=None) for each in rig.attachments]
    moved = tuple(
        replace(
            line,
            attachment=_after(line.attachment, at),
            tied_to=None if line.tied_to is None else _after(line.tied_to, at),
        )
        for line in rig.lines
    )
    line = RigLine(point=len(rig.points), attachment=at, spec=rig.lines[0].spec)
    return replace(
        rig,
        points=(*rig.points, point),
        attachments=(*shared[:at], place, *shared[at:]),
        lines=(*moved, line),
    )


def _after(index: int, at: int) -> int:
    return index + 1 if index >= at else index
