"""The outline of a frame as one way along it: how long it is, where each place of it lies, ties laid along it."""

import math

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.rigging.rig import Armature, Mount

Place = tuple[float, float, float]
TOO_LONG = 1.02  # a wrap may go round the ends of its frame a little


def length_m(mount: Mount) -> float:
    """How long the outline of a frame is, m: a hoop once round, an arch up, over and down, a rail up,
    across and down.

    Source: geometry.
    """
    half = mount.width_m / 2
    if mount.outline == "hoop":
        return 2 * math.pi * half
    if mount.outline == "arch":
        return 2 * max(mount.height_m - half, 0.0) + math.pi * half
    return 2 * mount.height_m + mount.width_m


def place_m(mount: Mount, along_m: float) -> Place:
    """A place so far along the outline, m: from the left foot of an arch or rail, from the bottom of a hoop leftwards.

    Source: geometry.
    """
    half, high, x = mount.width_m / 2, mount.height_m, mount.x_m
    if mount.outline == "hoop":
        turn = -math.pi / 2 - along_m / max(half, 1e-9)
        return x + half * math.cos(turn), 0.0, high - half + half * math.sin(turn)
    if mount.outline == "arch":
        leg, bow = max(high - half, 0.0), math.pi * half
        if along_m <= leg:
            return x - half, 0.0, along_m
        if along_m <= leg + bow:
            turn = math.pi - (along_m - leg) / max(half, 1e-9)
            return x + half * math.cos(turn), 0.0, leg + half * math.sin(turn)
        return x + half, 0.0, max(leg - (along_m - leg - bow), 0.0)
    if along_m <= high:
        return x - half, 0.0, along_m
    if along_m <= high + mount.width_m:
        return x - half + along_m - high, 0.0, high
    return x + half, 0.0, max(high - (along_m - high - mount.width_m), 0.0)


def along_m(mount: Mount, place: Place) -> float:
    """How far along the outline the place of it that is nearest to another lies, m, to 1 cm."""
    steps = max(1, math.ceil(length_m(mount) / 0.01))
    marks = [length_m(mount) * nth / steps for nth in range(steps + 1)]
    return min(marks, key=lambda each: math.dist(place_m(mount, each), place))


def ties_m(mount: Mount, *, begins_m: float, long_m: float, apart_m: float) -> tuple[Place, ...]:
    """Places of ties along a frame, both ends and evenly between, no farther apart than `apart_m`."""
    spans = max(2, math.ceil(long_m / apart_m - 1e-9))
    return tuple(place_m(mount, begins_m + long_m * nth / spans) for nth in range(spans + 1))


def check_length(armature: Armature, mount: Mount | None) -> None:
    """Refuse a wrap that is longer than the frame it is wrapped on. Raises InvalidMeasure."""
    if armature.kind != "wrapped frame" or mount is None or mount.kind != "frame":
        return
    if not (mount.width_m > 0 and mount.height_m > 0):
        return
    whole = length_m(mount)
    if armature.length_m > TOO_LONG * whole:
        raise InvalidMeasure(
            path="armature.length_m",
            message=phrase(
                "{long} of wrapping is longer than its {outline}, which is {whole} from foot to foot.",
                long=length(armature.length_m),
                outline=mount.outline,
                whole=length(whole),
            ),
            limit=phrase("Take up to {whole}, or a larger frame.", whole=length(math.floor(whole * 100) / 100)),
        )
