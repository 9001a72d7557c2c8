"""Hung and lying work at another size: what it hangs from, its armature and its frame go with it."""

import math
from dataclasses import replace

import numpy as np

from jolly_trellis.core.event.starting.starts_hung import banded, sections_for, wrapped
from jolly_trellis.core.rigging import outlines
from jolly_trellis.core.rigging.refusals import MOST_PLACES
from jolly_trellis.core.rigging.rig import RUNS, Armature, Attachment, Mount, Rig
from jolly_trellis.core.rigging.stated import of_their_places

_STANDS_M = 0.75  # a hoop's lowest point over the floor
_ON_IT_M = 0.03  # what is no farther from a frame is on it
_STRETCH = 4 / 3  # how much wider a span of a longer run may be than it is begun with
_SECTION_SHARE = 0.7  # what covers less of its frame is a section of it


def size_of(rig: Rig) -> float:
    """The size people say of it, m: a ring's or a frame's width, how long a section or any other run is."""
    if rig.mount is not None and rig.mount.kind == "frame" and not _is_section(rig, rig.mount):
        return rig.mount.width_m
    return rig.armature.diameter_m if rig.armature.kind == "ring" else rig.armature.length_m


def resized(rig: Rig, size_m: float) -> Rig:
    """The same piece so large, m; its heights stay, but those of a frame. A long run is held at more places.

    A section of a frame grows along it from where it begins, what is tied to a frame or a column is tied anew, and a
    long run is made in sections that can be carried.

    Args:
        size_m: over 0, as `size_of` gives it.
    Raises: InvalidMeasure: a section longer than its frame.
    """
    return of_their_places(rig, _resized(rig, size_m))


def _resized(rig: Rig, size_m: float) -> Rig:
    times = size_m / size_of(rig)
    armature, mount = _longer(rig.armature, times), rig.mount
    if mount is not None and mount.kind == "frame":
        return _as_was(rig, _on_frame(rig, mount, armature, times))
    if mount is not None and mount.kind == "column":
        return _as_was(rig, banded(rig.name, armature, mount))
    deep = times if rig.armature.kind in ("ring", "panel") else 1.0
    if armature.kind == "ring":
        armature = replace(armature, diameter_m=size_m)
    if armature.kind == "panel":
        armature = replace(armature, width_m=round(armature.width_m * times, 4))
    spread = replace(
        rig,
        armature=armature,
        points=tuple(
            replace(each, x_m=round(each.x_m * times, 4), y_m=round(each.y_m * deep, 4)) for each in rig.points
        ),
        attachments=tuple(
            replace(each, x_m=round(each.x_m * times, 4), y_m=round(each.y_m * deep, 4)) for each in rig.attachments
        ),
    )
    return _held_between(spread, times) if rig.armature.kind in RUNS else spread


def _held_between(rig: Rig, times: float) -> Rig:
    """A run drawn out so many times, held at places between as well, so that its spans stay about as they were."""
    spans = len(rig.attachments) - 1
    own = [(line.point, line.attachment) for line in rig.lines] == [(at, at) for at in range(len(rig.points))]
    if spans < 1 or not own or len(rig.points) != spans + 1:
        return rig
    each = min(math.ceil(times / _STRETCH - 1e-9), (MOST_PLACES - 1) // spans)
    if each <= 1:
        return rig
    word = rig.points[0].name.rsplit(" ", 1)[0]
    points = tuple(
        replace(rig.points[at // each], name=f"{word} {at + 1}", x_m=x, y_m=y, z_m=z)
        for at, (x, y, z) in enumerate(_smoothly([(p.x_m, p.y_m, p.z_m) for p in rig.points], each))
    )
    attachments = tuple(
        Attachment(x_m=x, y_m=y, z_m=z)
        for x, y, z in _smoothly([(a.x_m, a.y_m, a.z_m) for a in rig.attachments], each)
    )
    lines = tuple(replace(rig.lines[0], point=at, attachment=at) for at in range(len(points)))
    return replace(rig, attachments=attachments, points=points, lines=lines)


def _smoothly(places: list[tuple[float, float, float]], each: int) -> list[list[float]]:
    """So many steps from each place to the next, on the smooth way through all of them: a stiff run has no kinks."""
    from scipy.interpolate import CubicSpline  # half a second of the start, for what is seldom asked

    count = len(places) - 1
    found: list[list[float]] = CubicSpline(range(count + 1), places)(np.linspace(0, count, count * each + 1)).tolist()
    return [[round(value, 4) for value in place] for place in found]


def _is_section(rig: Rig, mount: Mount) -> bool:
    return rig.armature.length_m < _SECTION_SHARE * outlines.length_m(mount)


def _longer(armature: Armature, times: float) -> Armature:
    long = round(armature.length_m * times, 4)
    sections = sections_for(armature.kind, long, armature.sections) if armature.kind in RUNS else 1
    joints = tuple(round(each * times, 4) for each in armature.joints_m)
    return replace(armature, length_m=long, sections=sections, joints_m=joints)


def _on_frame(rig: Rig, mount: Mount, armature: Armature, times: float) -> Rig:
    """What is wrapped on a frame: a section of it on the same frame, else the frame with all that is on it."""
    first = rig.attachments[0]
    begins = outlines.along_m(mount, (first.x_m, first.y_m, first.z_m))
    if not _is_section(rig, mount):
        feet = _STANDS_M if mount.outline == "hoop" else 0.0
        mount = replace(
            mount,
            width_m=round(mount.width_m * times, 4),
            height_m=round(feet + (mount.height_m - feet) * times, 4),
            foot_width_m=round(mount.foot_width_m * times, 4),
        )
        begins *= times
    outlines.check_length(armature, mount)
    begins = max(min(begins, outlines.length_m(mount) - armature.length_m), 0.0)
    return wrapped(rig.name, armature, mount, begins)


def _as_was(rig: Rig, made: Rig) -> Rig:
    """A piece tied anew, its stems and what is under it as they were."""
    return replace(made, recipe=rig.recipe, below=rig.below, hazards=rig.hazards, bond=rig.bond)


def followed(before: Rig, after: Rig) -> Rig:
    """A piece whose frame or column has been given another size, with what is tied to it moved along.

    Where its places were set by hand, or were not on the frame, they stay. A wrap of the whole frame becomes as long
    as the new one asks; ties become more or fewer, so that they are no farther apart than is usual. Whatever moved its
    points, they keep nothing that was stated of other places.
    """
    return of_their_places(before, _followed(before, after))


def _followed(before: Rig, after: Rig) -> Rig:
    was, now = before.mount, after.mount
    if was is None or now is None or was.kind != now.kind or after.attachments != before.attachments:
        return after
    if was.kind == "column":
        return _on_column(after, was, now)
    known = min(was.width_m, was.height_m, now.width_m, now.height_m) > 0
    wrapped_on = was.kind == "frame" and after.armature.kind == "wrapped frame" and len(after.attachments) > 1
    if not known or not wrapped_on or _outline(was) == _outline(now) or _off_m(before, was) > _ON_IT_M:
        return after
    if now.outline == "hoop" and now.height_m == was.height_m:
        # Made wider, it grows upwards: its lowest point stays where it is.
        now = replace(now, height_m=round(now.height_m + now.width_m - was.width_m, 4))
    times = outlines.length_m(now) / outlines.length_m(was)
    whole = not _is_section(before, was) and after.armature.length_m == before.armature.length_m
    armature = _longer(after.armature, times) if whole else after.armature
    first = after.attachments[0]
    begins = times * outlines.along_m(was, (first.x_m, first.y_m, first.z_m))
    begins = max(min(begins, outlines.length_m(now) - armature.length_m), 0.0)
    return _retied(replace(after, mount=now), wrapped(after.name, armature, now, begins))


def _retied(rig: Rig, made: Rig) -> Rig:
    """A rig tied where another one is: as many ties keep what they are, more or fewer are usual ones."""
    ties = len(rig.attachments)
    beyond = rig.points[ties:]
    if len(made.attachments) == ties <= len(rig.points):
        moved = tuple(
            replace(point, x_m=at.x_m, y_m=at.y_m, z_m=at.z_m)
            for point, at in zip(rig.points, made.points, strict=False)
        )
        return replace(rig, armature=made.armature, attachments=made.attachments, points=(*moved, *beyond))
    bond = rig.bond
    if bond is not None and bond.point is not None:
        own = bond.point - ties
        bond = replace(bond, point=len(made.points) + own if own >= 0 else None)
    return replace(
        rig,
        armature=made.armature,
        attachments=made.attachments,
        points=(*made.points, *beyond),
        lines=made.lines,
        bond=bond,
    )


def _on_column(rig: Rig, was: Mount, now: Mount) -> Rig:
    """What lies on the front of a column, as far out as the column now reaches."""
    half, out = was.width_m / 2, (now.width_m - was.width_m) / 2
    if out == 0 or any(abs(each.x_m - half) > _ON_IT_M for each in rig.attachments):
        return rig
    return replace(
        rig,
        attachments=tuple(replace(each, x_m=round(each.x_m + out, 4)) for each in rig.attachments),
        points=tuple(
            replace(each, x_m=round(each.x_m + out, 4)) if abs(each.x_m - half) <= _ON_IT_M else each
            for each in rig.points
        ),
    )


def _outline(mount: Mount) -> tuple[object, ...]:
    return mount.outline, mount.x_m, mount.width_m, mount.height_m


def _off_m(rig: Rig, mount: Mount) -> float:
    """How far the place that is farthest from it lies off the outline of a frame, m."""
    places = [(each.x_m, each.y_m, each.z_m) for each in rig.attachments]
    return max(math.dist(place, outlines.place_m(mount, outlines.along_m(mount, place))) for place in places)
