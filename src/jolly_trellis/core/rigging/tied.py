"""Runs tied all along to a frame, stand or column: each tie bears what lies between it and its neighbours."""

import math

import numpy as np

from jolly_trellis.core.errors import Unstable
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging.rig import Rig, RigLine


def round_m(rig: Rig) -> float:
    """How long a tie is that goes once round a run and what it is tied to, m: on a frame as good as round the run
    alone, on a column or stand as a belt round both.
    """
    mount, run = rig.mount, rig.armature.diameter_m
    if mount is None or mount.kind not in ("column", "stand"):
        return math.pi * run
    return belt_m(mount.width_m, run)


def belt_m(one_m: float, other_m: float) -> float:
    """Length of a belt round two circles that touch, m: R(π + 2φ) + r(π - 2φ) + 4√(R·r), sin φ = (R - r)/(R + r).

    Args:
        one_m, other_m: their diameters, m, ≥ 0 and not both 0.
    Source: geometry (any handbook of machine parts).
    """
    large, small = max(one_m, other_m) / 2, min(one_m, other_m) / 2
    turn = math.asin((large - small) / (large + small))
    return large * (math.pi + 2 * turn) + small * (math.pi - 2 * turn) + 4 * math.sqrt(large * small)


def tie_shares_n(along_m: list[float], lines: tuple[RigLine, ...], station_m: Array, load_n: Array) -> Array:
    """What each tie bears, N, shape (lines,).

    The run is moulded to what it is tied to and rests on its ties as a row of simple spans: a load between two tied
    places goes to them as it lies near them, one past the last goes to that. Ties at one place share it evenly.

    Args:
        along_m: how far along the run each attachment lies, m. station_m, load_n: nodes along the run, shape (n,), and
        what pulls each down.
    Raises: Unstable: no tie is left.
    Source: reactions of simple spans (any text on statics).
    """
    if not lines:
        raise Unstable(
            path="lines",
            message=phrase("Nothing ties it any more."),
            limit=phrase("Tie it to what it is mounted on."),
        )
    places = sorted({line.attachment for line in lines}, key=lambda each: along_m[each])
    marks = np.array([along_m[each] for each in places])
    share = np.zeros(len(places))
    for at, pull in zip(station_m.tolist(), load_n.tolist(), strict=True):
        after = int(np.searchsorted(marks, at))
        if after == 0:
            share[0] += pull
        elif after == len(marks):
            share[-1] += pull
        else:
            before = after - 1
            part = (at - marks[before]) / max(float(marks[after] - marks[before]), 1e-9)
            share[before] += pull * (1 - part)
            share[after] += pull * part
    there = {place: sum(line.attachment == place for line in lines) for place in places}
    of = dict(zip(places, share.tolist(), strict=True))
    return np.array([of[line.attachment] / there[line.attachment] for line in lines])
