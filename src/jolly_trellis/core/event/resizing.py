"""Hung and lying work at another size: what it hangs from, its armature and its frame go with it."""

from dataclasses import replace

from jolly_trellis.core.rigging.rig import Rig

_STANDS_M = 0.75  # a hoop's lowest point over the floor


def size_of(rig: Rig) -> float:
    """The size people say of it, m: a ring's or a standing hoop's diameter, else how long it is."""
    if rig.mount is not None and rig.mount.kind == "frame":
        return rig.mount.width_m
    return rig.armature.diameter_m if rig.armature.kind == "ring" else rig.armature.length_m


def resized(rig: Rig, size_m: float) -> Rig:
    """The same piece so large, m, its hang points as far apart; its heights stay, but those of a hoop.

    Args:
        size_m: over 0, as `size_of` gives it.
    """
    times = size_m / size_of(rig)
    hoop = rig.mount is not None and rig.mount.kind == "frame"
    deep = times if rig.armature.kind in ("ring", "panel") else 1.0

    def high(z_m: float) -> float:
        return round(_STANDS_M + (z_m - _STANDS_M) * times, 4) if hoop else z_m

    armature = replace(
        rig.armature,
        length_m=round(rig.armature.length_m * times, 4),
        joints_m=tuple(round(each * times, 4) for each in rig.armature.joints_m),
    )
    if armature.kind == "ring":
        armature = replace(armature, diameter_m=size_m)
    if armature.kind == "panel":
        armature = replace(armature, width_m=round(armature.width_m * times, 4))
    mount = rig.mount
    if mount is not None and hoop:
        mount = replace(mount, width_m=size_m, height_m=round(_STANDS_M + size_m, 4))
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
