"""What the mechanics are drawn with: netting as cells, pins, twigs, grids, fills, in their vessel's own frame."""

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from jolly_trellis.core.drawing.primitives import Layer, Primitive, Ring, Turned, column, line, place, run
from jolly_trellis.core.drawing.vessels import outline_points
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.vessels import Vessel, inside_size_m
from jolly_trellis.core.mechanics.sized import SizedMechanic
from jolly_trellis.core.plan_shapes import plan_share

_HALF_CELL = np.array(
    [(math.cos(math.pi / 6 + step * math.pi / 3), math.sin(math.pi / 6 + step * math.pi / 3)) for step in range(4)]
)
_DOME = 0.005
_TWIST = 0.0015
_BASE = 0.008


@dataclass(frozen=True, slots=True, kw_only=True)
class Bed:
    """A sized mechanic in its vessel: `floor_m` is the inside floor over the surface, `cells_m` its seats, (x, y)."""

    vessel: Vessel
    mechanic: SizedMechanic
    floor_m: float
    cells_m: tuple[tuple[float, float], ...]

    def half_sizes_m(self, height_m: float) -> tuple[float, float]:
        """Half the inside sizes at a height over the inside floor, m."""
        width, depth = inside_size_m(self.vessel, height_m)
        return width / 2, depth / 2


def netting(bed: Bed, *, folded: bool = False) -> list[Primitive]:
    """Every level of netting as cells that follow its surface; a `folded` sheet goes on round its edge."""
    found: list[Primitive] = []
    levels = bed.mechanic.levels
    for index, level in enumerate(levels):
        half = bed.half_sizes_m(level.height_m)
        z = bed.floor_m + level.height_m
        runs = _cells(bed, half, z, _DOME if index == 0 else 0.0)
        edge = run(outline_points(bed.vessel, *half, z, 6))
        found.append(line(f"wire-{index}", "wire", Layer.OVER, *runs))
        found.append(line(f"wire-edge-{index}", "wire", Layer.OVER, edge, closed=True))
    if folded:
        for index, (high, low) in enumerate(pairwise(levels)):
            side = -1 if index % 2 else 1
            wide, under = bed.half_sizes_m(high.height_m)[0], bed.half_sizes_m(low.height_m)[0]
            top, bottom = bed.floor_m + high.height_m, bed.floor_m + low.height_m
            bend = [
                (side * wide, 0, top),
                (side * (wide + under) / 2, 0, (top + bottom) / 2),
                (side * under, 0, bottom),
            ]
            found.append(line(f"fold-{index}", "wire", Layer.OVER, run(bend)))
    return found


def folded_netting(bed: Bed) -> list[Primitive]:
    """Netting in one folded sheet."""
    return netting(bed, folded=True)


def _cells(bed: Bed, half: tuple[float, float], z: float, dome: float) -> list[tuple[tuple[float, float, float], ...]]:
    """Half of every cell inside the wall: with its neighbours' halves it is whole."""
    centres = np.array(bed.cells_m, dtype=np.float64).reshape(-1, 2)
    corner = bed.mechanic.seating.pitch_m / math.sqrt(3)
    points = centres[:, None] + corner * _HALF_CELL
    x, y = points[..., 0], points[..., 1]
    share = plan_share(bed.vessel.plan_shape, x, y, np.asarray(half[0]), np.asarray(half[1]))
    heights = z + dome * (1 - share**2) + _TWIST * np.where(np.arange(4) % 2, 1.0, -1.0)
    kept = (share <= 1.0).all(axis=1)
    solid = np.stack([x, y, heights], axis=2)[kept]
    return [run(each) for each in solid]


def frog(bed: Bed, *, pins: bool, top: bool) -> list[Primitive]:
    """A frog on the floor: its base, and its pins or the uprights of its openings."""
    made = bed.mechanic
    r = made.frog_radius_m
    height = made.grip.height_m if made.grip is not None else made.levels[-1].height_m if made.levels else 0.02
    base = min(_BASE, height * 0.4)
    low, high = bed.floor_m + base, bed.floor_m + height
    found: list[Primitive] = [column("frog", "iron", Layer.OVER, [(bed.floor_m, r), (low, r)])]
    pitch = 0.005 if pins else 0.014
    spots = _spots(r * 0.94, max(pitch, r / 9))
    found.append(line("frog-pins", "wire", Layer.OVER, *(run([(x, y, low), (x, y, high)]) for x, y in spots)))
    if top:
        found.append(line("frog-top", "wire", Layer.OVER, run(_circle(r, high)), closed=True))
    return found


def pins(bed: Bed) -> list[Primitive]:
    """A frog of pins."""
    return frog(bed, pins=True, top=False)


def openings(bed: Bed) -> list[Primitive]:
    """A frog of openings under a plate or a grid."""
    return frog(bed, pins=False, top=True)


def loops(bed: Bed) -> list[Primitive]:
    """A frog of loops that stand free."""
    return frog(bed, pins=False, top=False)


def twigs(bed: Bed) -> list[Primitive]:
    """Rings of twigs, each of three strands round one another."""
    found: list[Primitive] = []
    for index, level in enumerate(bed.mechanic.levels):
        wide, deep = (each * (1.05 if index == 0 else 0.97) for each in bed.half_sizes_m(level.height_m))
        turns = np.linspace(0, 2 * math.pi, 49)[:-1]
        for strand in range(3):
            wave = np.sin(7 * turns + strand * 2.1)
            z = bed.floor_m + level.height_m + 0.004 * wave
            out = 1 + 0.02 * np.cos(7 * turns + strand * 2.1)
            ring = run(np.column_stack([wide * out * np.cos(turns), deep * out * np.sin(turns), z]))
            found.append(line(f"twig-{index}-{strand}", "twig", Layer.OVER, ring, closed=True, width_m=0.003))
    return found


def ring(bed: Bed) -> list[Primitive]:
    """Rings, each strung across in squares of one cell."""
    found: list[Primitive] = []
    for index, level in enumerate(bed.mechanic.levels):
        wide, deep = bed.half_sizes_m(level.height_m)
        z = bed.floor_m + level.height_m
        edge = run(outline_points(bed.vessel, wide, deep, z))
        found.append(line(f"ring-{index}", "twig", Layer.OVER, edge, closed=True, width_m=0.003))
        found.append(line(f"strings-{index}", "string", Layer.OVER, *_grid(bed, wide, deep, z)))
    return found


def tape(bed: Bed) -> list[Primitive]:
    """A grid of tape over the mouth."""
    level = bed.mechanic.levels[0].height_m if bed.mechanic.levels else bed.vessel.inside_depth_m
    wide, deep = bed.half_sizes_m(level)
    return [line("tape", "tape grid", Layer.OVER, *_grid(bed, wide + 0.004, deep + 0.004, bed.floor_m + level))]


def lattice(bed: Bed) -> list[Primitive]:
    """A lattice with two levels of holes that line up, and the ribs between them."""
    top, low = bed.mechanic.levels[0], bed.mechanic.levels[-1]
    wide, deep = bed.half_sizes_m(top.height_m)
    high, bottom = bed.floor_m + top.height_m, bed.floor_m + low.height_m
    edge = run(outline_points(bed.vessel, wide, deep, high, 6))
    inner = bed.half_sizes_m(low.height_m)
    ribs = [
        run([(x, y, high), (x, y, bottom)])
        for each in _grid(bed, min(wide, inner[0]), min(deep, inner[1]), high)
        for x, y, _ in each
    ]
    return [
        line("lattice-edge", "wire", Layer.OVER, edge, closed=True),
        line("lattice-top", "wire", Layer.OVER, *_grid(bed, wide, deep, high)),
        line("lattice-ribs", "wire", Layer.OVER, *ribs),
    ]


def held_lattice(bed: Bed) -> list[Primitive]:
    """A lattice held by a stick across the rim."""
    return [*lattice(bed), *sticks(bed, crossed=False)]


def sticks(bed: Bed, *, crossed: bool = True) -> list[Primitive]:
    """A stick over the rim, or two that cross."""
    vessel = bed.vessel
    z = bed.floor_m + vessel.inside_depth_m + 0.003
    wide, deep = (size / 2 + vessel.wall_m + 0.02 for size in (vessel.mouth_width_m, vessel.mouth_depth_m))
    runs = [run([(-wide, 0, z), (wide, 0, z)])]
    if crossed:
        runs.append(run([(0, -deep, z), (0, deep, z)]))
    return [line("stick", "twig", Layer.OVER, *runs, width_m=0.006)]


def roll(bed: Bed) -> list[Primitive]:
    """Netting under crossed sticks."""
    return [*netting(bed), *sticks(bed)]


def ball(bed: Bed) -> list[Primitive]:
    """Netting tied round with string."""
    return netting(bed)


def moss_between(bed: Bed) -> list[Primitive]:
    """Moss between two layers of netting."""
    low = bed.mechanic.levels[-1].height_m if bed.mechanic.levels else 0.02
    top = low + min(0.02, (bed.vessel.inside_depth_m - low) / 2)
    return [_filling("moss", "moss", bed, low, top), *netting(bed)]


def block(bed: Bed, ink: str) -> list[Primitive]:
    """A block on the floor of its seats' size."""
    seating = bed.mechanic.seating
    half = seating.half_width_m or 0.05
    rings = tuple(
        Ring(at=place(0, 0, z), half_width_m=round(half, 5), half_depth_m=round(seating.half_depth_m or half, 5))
        for z in (bed.floor_m, bed.floor_m + seating.height_m)
    )
    shape = bed.vessel.plan_shape
    return [Turned(id="block", ink=ink, layer=Layer.UNDER, plan_shape=shape, rings=rings)]


def tangle(bed: Bed) -> list[Primitive]:
    """Bare stems coiled to fill the vessel."""
    rim, found = bed.vessel.inside_depth_m, []
    turns = np.linspace(0, 2 * math.pi, 33)[:-1]
    for index in range(9):
        height = rim * (0.08 + 0.1 * index)
        wide, deep = bed.half_sizes_m(height)
        share = 0.94 - 0.11 * (index % 3)
        z = bed.floor_m + np.maximum(height + 0.012 * np.sin(turns * 2 + index), 0.002)
        points = np.column_stack([share * wide * np.cos(turns), share * deep * np.sin(turns), z])
        found.append(line(f"tangle-{index}", "twig", Layer.UNDER, run(points), closed=True, width_m=0.003))
    return [*found]


def shavings(bed: Bed) -> list[Primitive]:
    """Curls of wood under a grid of tape."""
    rim, runs = bed.vessel.inside_depth_m, []
    for index in range(80):
        height = rim * 0.85 * (((index * 37) % 80) / 80) + 0.004
        wide, deep = bed.half_sizes_m(height)
        out, turn = 0.92 * math.sqrt(((index * 53) % 80) / 80), index * 2.4
        x, y, z = out * wide * math.cos(turn), out * deep * math.sin(turn), bed.floor_m + height
        bend = [
            (x + 0.008 * math.cos(a + index), y + 0.008 * math.sin(a + index), z + 0.004 * math.sin(2 * a))
            for a in (0, 0.8, 1.6, 2.4)
        ]
        runs.append(run(bend))
    return [line("shavings", "shaving", Layer.UNDER, *runs, width_m=0.0025), *tape(bed)]


def cups(bed: Bed) -> list[Primitive]:
    """A cup of water at every seat, on its rod."""
    top, low = bed.mechanic.levels[0], bed.mechanic.levels[-1]
    half = top.aperture_m / 2
    found: list[Primitive] = []
    for index, (x, y) in enumerate(bed.cells_m):
        rings = [(bed.floor_m + low.height_m, half * 0.7), (bed.floor_m + top.height_m, half)]
        found.append(column(f"cup-{index}", "glass", Layer.OVER, rings, x=x, y=y))
    rods = [run([(x, y, bed.floor_m), (x, y, bed.floor_m + low.height_m)]) for x, y in bed.cells_m]
    return [line("rods", "iron line", Layer.UNDER, *rods, width_m=0.003), *found]


def _filling(name: str, ink: str, bed: Bed, low_m: float, top_m: float) -> Turned:
    heights = np.linspace(low_m, top_m, 4)
    rings = []
    for height in heights.tolist():
        wide, deep = bed.half_sizes_m(height)
        rings.append(
            Ring(at=place(0, 0, bed.floor_m + height), half_width_m=round(wide, 5), half_depth_m=round(deep, 5))
        )
    return Turned(id=name, ink=ink, layer=Layer.UNDER, plan_shape=bed.vessel.plan_shape, rings=tuple(rings))


def _grid(bed: Bed, wide: float, deep: float, z: float) -> list[tuple[tuple[float, float, float], ...]]:
    """Lines both ways, a seat's pitch apart, as far as the wall."""
    pitch = bed.mechanic.seating.pitch_m
    runs = []
    for axis, (along, across) in enumerate(((wide, deep), (deep, wide))):
        count = int(across // pitch)
        for index in range(-count, count + 1):
            off = index * pitch
            reach = along * _chord(bed.vessel, off / across)
            ends: Array = np.array([(-reach, off, z), (reach, off, z)])
            runs.append(run(ends if axis == 0 else ends[:, [1, 0, 2]]))
    return runs


def _chord(vessel: Vessel, share: float) -> float:
    """How much of the full width is left at a share of the way from the middle to the side."""
    return math.sqrt(max(1 - share * share, 0.0)) if vessel.plan_shape in ("round", "oval") else 1.0


def _circle(r: float, z: float) -> Array:
    turns = np.linspace(0, 2 * math.pi, 33)[:-1]
    return np.column_stack([r * np.cos(turns), r * np.sin(turns), np.full(len(turns), z)])


def _spots(r: float, pitch: float) -> list[tuple[float, float]]:
    """Places in rows inside a circle."""
    count = int(r // pitch)
    rows = [(i * pitch, j * pitch) for i in range(-count, count + 1) for j in range(-count, count + 1)]
    return [(x, y) for x, y in rows if math.hypot(x, y) <= r]
