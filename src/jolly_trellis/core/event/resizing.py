"""Hung and lying work at another size: what it hangs from, its armature and its frame go with it."""

from dataclasses import replace

from jolly_trellis.core.rigging import outlines
from jolly_trellis.core.rigging.rig import Armature, Mount, Rig

_STANDS_M = 0.75  # a hoop's lowest point over the floor
_SECTION_SHARE = 0.7  # what covers less of its frame is a section of it


def size_of(rig: Rig) -> float:
    """The size people say of it, m: a ring's or a frame's width, how long a section or any other run is."""
    if rig.mount is not None and rig.mount.kind == "frame" and not _is_section(rig, rig.mount):
        return rig.mount.width_m
    return rig.armature.diameter_m if rig.armature.kind == "ring" else rig.armature.length_m


def resized(rig: Rig, size_m: float) -> Rig:
    """The same piece so large, m, its hang points as far apart; its heights stay, but those of a frame.

    A section of a frame grows along it from where it begins, and its ties go with it.

    Args:
        size_m: over 0, as `size_of` gives it.
    """
    times = size_m / size_of(rig)
    mount = rig.mount
    if mount is not None and mount.kind == "frame" and _is_section(rig, mount):
        return _longer_section(rig, mount, times)
    framed = mount is not None and mount.kind == "frame"
    deep = times if rig.armature.kind in ("ring", "panel") else 1.0
    feet = _STANDS_M if mount is not None and mount.outline == "hoop" else 0.0

    def high(z_m: float) -> float:
        return round(feet + (z_m - feet) * times, 4) if framed else z_m

    armature = _longer(rig.armature, times)
    if armature.kind == "ring":
        armature = replace(armature, diameter_m=size_m)
    if armature.kind == "panel":
        armature = replace(armature, width_m=round(armature.width_m * times, 4))
    if mount is not None and framed:
        tall = feet + (mount.height_m - feet) * times
        wide = round(mount.foot_width_m * times, 4)
        mount = replace(mount, width_m=size_m, height_m=round(tall, 4), foot_width_m=wide)
    return replace(
        rig,
        armature=armature,
        mount=mount,
        points=tuple(
            replace(each, x_m=round(each.x_m * times, 4), y_m=round(each.y_m * deep, 4), z_m=high(each.z_m))
            for each in rig.points
        ),
        attachments=tuple(
            replace(each, x_m=round(each.x_m * times, 4), y_m=round(each.y_m * deep, 4), z_m=high(each.z_m))
            for each in rig.attachments
        ),
    )


def _is_section(rig: Rig, mount: Mount) -> bool:
    return rig.armature.length_m < _SECTION_SHARE * outlines.length_m(mount)


def _longer(armature: Armature, times: float) -> Armature:
    return replace(
        armature,
        length_m=round(armature.length_m * times, 4),
        joints_m=tuple(round(each * times, 4) for each in armature.joints_m),
    )


def _longer_section(rig: Rig, mount: Mount, times: float) -> Rig:
    """A section as much longer, its ties as many and evenly along it, from the place on the frame where it begins.

    Raises: InvalidMeasure: it is longer than its frame.
    """
    armature = _longer(rig.armature, times)
    outlines.check_length(armature, mount)
    first = rig.attachments[0]
    begins = outlines.along_m(mount, (first.x_m, first.y_m, first.z_m))
    begins = max(min(begins, outlines.length_m(mount) - armature.length_m), 0.0)
    spans = max(len(rig.attachments) - 1, 1)
    places = [outlines.place_m(mount, begins + armature.length_m * nth / spans) for nth in range(spans + 1)]
    held = tuple(
        replace(each, x_m=round(x, 4), y_m=round(y, 4), z_m=round(z, 4))
        for each, (x, y, z) in zip(rig.attachments, places, strict=True)
    )
    points = list(rig.points)
    for line in rig.lines:
        if line.point is not None:
            old, new = rig.attachments[line.attachment], held[line.attachment]
            was = rig.points[line.point]
            points[line.point] = replace(
                was,
                x_m=round(was.x_m + new.x_m - old.x_m, 4),
                y_m=round(was.y_m + new.y_m - old.y_m, 4),
                z_m=round(max(was.z_m + new.z_m - old.z_m, 0.0), 4),
            )
    return replace(rig, armature=armature, attachments=held, points=tuple(points))
