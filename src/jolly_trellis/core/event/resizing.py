"""Hung and lying work at another size: what it hangs from, its armature and its frame go with it."""

from dataclasses import replace

from jolly_trellis.core.event.starts_hung import banded, sections_for, wrapped
from jolly_trellis.core.rigging import outlines
from jolly_trellis.core.rigging.rig import RUNS, Armature, Mount, Rig

_STANDS_M = 0.75  # a hoop's lowest point over the floor
_SECTION_SHARE = 0.7  # what covers less of its frame is a section of it


def size_of(rig: Rig) -> float:
    """The size people say of it, m: a ring's or a frame's width, how long a section or any other run is."""
    if rig.mount is not None and rig.mount.kind == "frame" and not _is_section(rig, rig.mount):
        return rig.mount.width_m
    return rig.armature.diameter_m if rig.armature.kind == "ring" else rig.armature.length_m


def resized(rig: Rig, size_m: float) -> Rig:
    """The same piece so large, m, its hang points as far apart; its heights stay, but those of a frame.

    A section of a frame grows along it from where it begins, what is tied to a frame or a column is tied anew, and a
    long run is made in sections that can be carried.

    Args:
        size_m: over 0, as `size_of` gives it.
    Raises: InvalidMeasure: a section longer than its frame.
    """
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
    return replace(
        rig,
        armature=armature,
        points=tuple(
            replace(each, x_m=round(each.x_m * times, 4), y_m=round(each.y_m * deep, 4)) for each in rig.points
        ),
        attachments=tuple(
            replace(each, x_m=round(each.x_m * times, 4), y_m=round(each.y_m * deep, 4)) for each in rig.attachments
        ),
    )


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
