"""The stems of hung work as they are drawn: along its armature, or under it, fuller where it is painted so."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from jolly_trellis.core.drawing.picture import Stem, Stems
from jolly_trellis.core.drawing.primitives import (
    Layer,
    Primitive,
    line,
    run,
)
from jolly_trellis.core.geometry import GOLDEN_ANGLE_RAD, Array
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.rigging.drops import (
    drops_m,
    goes_of,
    in_steps_m,
    on_hooks,
    shown_m,
    slopes,
    spread,
    stands_m,
    stem_and_hook_m,
)
from jolly_trellis.core.rigging.rig import Armature, Rig
from jolly_trellis.core.stems.shades import colours_at
from jolly_trellis.core.stems.tubes import tube_size_m

MOST_STEMS = 200
_STEP = 200
_WOVEN_OUT_M = 0.02


def _at_share(nodes: Array, share: float) -> tuple[Array, Array]:
    """A place on a run at a share 0-1 of its length, and the way it goes there, of length 1."""
    legs = np.linalg.norm(np.diff(nodes, axis=0), axis=1)
    marks = np.concatenate([[0.0], np.cumsum(legs)]) / max(float(legs.sum()), 1e-9)
    leg = min(max(int(np.searchsorted(marks, share, side="right")) - 1, 0), len(nodes) - 2)
    part = (share - marks[leg]) / max(float(marks[leg + 1] - marks[leg]), 1e-9)
    way = nodes[leg + 1] - nodes[leg]
    return nodes[leg] + part * way, way / max(float(np.linalg.norm(way)), 1e-9)


def _square_to(along: Array) -> Array:
    """A way square to a run in the plane it is seen in from the front."""
    across = np.array([-along[2], 0.0, along[0]])
    long = float(np.linalg.norm(across))
    return across / long if long > 1e-6 else np.array([1.0, 0.0, 0.0])


def drawn_stems(rig: Rig, nodes: Array, varieties: Mapping[str, Variety]) -> tuple[Stems, tuple[Primitive, ...]]:
    """The flowers, mixed, at most so many of them: what share is drawn is the same for every variety; and the wire of
    their hooks.
    """
    if len(nodes) < 2:
        return Stems(), ()
    total = sum(each.count for each in rig.recipe)
    share = min(1.0, MOST_STEMS / max(total, 1))
    mixed = sorted(
        ((nth + 0.5) / number, each.variety, index)
        for index, each in enumerate(rig.recipe)
        for number in [max(round(each.count * share), 1)]
        for nth in range(number)
    )
    ways = _ways(rig, varieties, [(index, share) for share, _, index in mixed])
    places = _along(rig, nodes, ways) if rig.is_run else _under(rig, nodes, ways)
    colours = [""] * len(mixed)
    for index, each in enumerate(rig.recipe):
        own = [at for at, (_, _, which) in enumerate(mixed) if which == index]
        x, y = ([float(places[at][0][axis]) for at in own] for axis in (0, 1))
        for at, colour in zip(own, colours_at(each, varieties[each.variety], x, y), strict=True):
            colours[at] = colour
    hooks = tuple(
        line(f"hook-{at}", "wire", Layer.UNDER, run(np.stack([start + np.array([0.0, 0.0, way.wire_m]), start])))
        for at, (way, (start, _)) in enumerate(zip(ways, places, strict=True))
        if way.wire_m > 0
    )
    tubes = [tube_size_m(each) for each in rig.recipe]
    stems = Stems.of(
        _stem(varieties[name], colour, tubes[which], start, end)
        for (_, name, which), (start, end), colour in zip(mixed, places, colours, strict=True)
    )
    return stems, hooks


def _stem(variety: Variety, colour: str, tube: tuple[float, float], start: Array, end: Array) -> Stem:
    sx, sy, sz = (round(float(each), 4) for each in start)
    ex, ey, ez = (round(float(each), 4) for each in end)
    return Stem(
        colour=colour,
        form=variety.form,
        branch=variety.branch,
        held=False,
        seat_x_m=sx,
        seat_y_m=sy,
        seat_z_m=sz,
        tip_x_m=ex,
        tip_y_m=ey,
        tip_z_m=ez,
        droop_m=0.0,
        end_x_m=sx,
        end_y_m=sy,
        end_z_m=sz,
        diameter_m=variety.stem_diameter_m,
        head_radius_m=variety.head_diameter_m / 2,
        head_height_m=variety.head_height_m,
        tube_length_m=tube[0],
        tube_width_m=tube[1],
    )


def fullness(density: Sequence[float], share: float) -> float:
    """How full a run is at a share 0-1 of the way along, against its other places. Source: linear between stations."""
    if not density:
        return 1.0
    at = min(max(share * len(density) - 0.5, 0.0), len(density) - 1.0)
    low, part = int(at), at - int(at)
    return density[low] + (density[min(low + 1, len(density) - 1)] - density[low]) * part


@dataclass(frozen=True, slots=True)
class _Way:
    """How one stem goes in: how far it hangs and what of that is wire; how far it stands out and runs along, m; and
    whether it is longer the farther right it hangs.
    """

    down_m: float = 0.0
    wire_m: float = 0.0
    slopes: bool = False
    out_m: float = 0.0
    along_m: float = 0.0


def _ways(rig: Rig, varieties: Mapping[str, Variety], stems: list[tuple[int, float]]) -> list[_Way]:
    """How each stem of the mix goes in: by its line, and by how far through it it comes, 0-1."""
    armature, drops = rig.armature, drops_m(rig.recipe, rig.armature)
    return [_way(rig.recipe[index], armature, drops[index], share, varieties) for index, share in stems]


def _way(
    line: RecipeLine, armature: Armature, drops: tuple[float, ...], share: float, varieties: Mapping[str, Variety]
) -> _Way:
    goes, long = goes_of(line, armature), line.cut_m or armature.stem_cut_m
    if drops:
        down = drops[min(int(share * len(drops)), len(drops) - 1)]
        if not on_hooks(line, armature):
            return _Way(down_m=down)
        down = in_steps_m(down)
        stem, _ = stem_and_hook_m(down, line, varieties[line.variety], None)
        return _Way(down_m=down, wire_m=down - stem, slopes=slopes(line, armature))
    if goes == "woven":
        return _Way(out_m=_WOVEN_OUT_M, along_m=long)
    if line.goes is None:
        return _Way(out_m=armature.projection_m)
    out = stands_m(line, armature)
    return _Way(out_m=out, along_m=math.sqrt(max(shown_m(line, armature) ** 2 - out**2, 0.0)))


def _along(rig: Rig, nodes: Array, ways: Sequence[_Way]) -> list[tuple[Array, Array]]:
    """Stems all round a run, closer where it is fuller: out to where they stand, along it, or down from it."""
    count = len(ways)
    full = np.array([fullness(rig.armature.density, (step + 0.5) / _STEP) for step in range(_STEP)])
    sums = np.concatenate([[0.0], np.cumsum(full)])
    wanted = (np.arange(count) + 0.5) / max(count, 1) * sums[-1]
    shares = np.interp(wanted, sums, np.linspace(0, 1, _STEP + 1)) * (len(nodes) - 1)
    place_ = np.minimum(shares.astype(int), len(nodes) - 2)
    part = (shares - place_)[:, None]
    along = nodes[place_ + 1] - nodes[place_]
    at = nodes[place_] + part * along
    unit = along / np.maximum(np.linalg.norm(along, axis=1), 1e-9)[:, None]
    upright = np.abs(unit[:, 2]) > 0.9
    first = np.cross(unit, np.where(upright[:, None], np.array([1.0, 0.0, 0.0]), np.array([0.0, 0.0, 1.0])))
    first /= np.maximum(np.linalg.norm(first, axis=1), 1e-9)[:, None]
    second = np.cross(unit, first)
    turn = (np.arange(count) * GOLDEN_ANGLE_RAD)[:, None]
    out = np.cos(turn) * first + np.sin(turn) * second
    own = rig.armature.diameter_m / 2
    found = []
    for row, way in enumerate(ways):
        if way.down_m:
            top = at[row] - np.array([0.0, 0.0, own])
            found.append((top - np.array([0.0, 0.0, way.wire_m]), top - np.array([0.0, 0.0, way.down_m])))
            continue
        if rig.lies and out[row][2] < 0:
            out[row] = -out[row]  # nothing of what lies goes into its table
        # Every second one the other way along.
        turned = 1 if row % 2 else -1
        start = at[row] + 0.6 * own * out[row]
        found.append((start, at[row] + (own + way.out_m) * out[row] + turned * way.along_m * unit[row]))
    return found


def _under(rig: Rig, nodes: Array, ways: Sequence[_Way]) -> list[tuple[Array, Array]]:
    """Stems that hang evenly under a panel or ring, stand on it or lie in it, from the middle outwards."""
    middle = nodes.mean(axis=0)
    ring = rig.armature.kind == "ring"

    def towards(node: int) -> Array:
        one, other = nodes[node % len(nodes)], nodes[(node if ring else node + 1) % len(nodes)]
        return (one + other) / 2 - middle

    u, v = (towards(0), towards(len(nodes) // 4)) if ring else (towards(1), towards(2))
    places = spread(len(ways), round_=ring)
    sloped = [index for index, way in enumerate(ways) if way.slopes]
    places[sloped] = places[sorted(sloped, key=lambda each: float(places[each, 0]))]
    found = []
    for (right, back), way in zip(places.tolist(), ways, strict=True):
        aim = right * u + back * v
        top = middle + aim
        if way.down_m:
            found.append((top - np.array([0.0, 0.0, way.wire_m]), top - np.array([0.0, 0.0, way.down_m])))
        else:
            side = aim / max(float(np.linalg.norm(aim)), 1e-9)
            found.append((top, top + np.array([0.0, 0.0, way.out_m]) + way.along_m * side))
    return found
