"""How a drawing is seen: the same few rules on paper and on screens (`web/src/drawing/project.ts`), at one scale.

Parallel projection: everything keeps its scale wherever it lies. The eye is turned round the piece and raised or
lowered; a piece *cut open* is seen level, with the inside of its vessels bare. A wall or a ledge that would hide it is
seen as its outline.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from jolly_trellis.core.drawing.heads import HEADS, Ball, Blade, Head
from jolly_trellis.core.drawing.picture import Picture, Stem
from jolly_trellis.core.drawing.primitives import Aspect, Dot, Layer, Place, Primitive, Ring, Run, Turned
from jolly_trellis.core.plan_shapes import SHAPES

Flat2 = tuple[float, float]
_STRAIGHT_DOWN = math.radians(85)
_SAME = 1e-6
_AS_DEEP = 6  # decimals of a metre to which two things are equally far: they keep their order
_STEP = 3
_OUTLINE_M = 0.001  # of petals and leaves: no line at all where they are small
_BARK = 0.2  # of a branch's reach, the length of a line of its bark
_BARK_STARTS = (0.1, 0.4, 0.7)
_SEEN_THROUGH = ("wall", "ledge")


@dataclass(frozen=True, slots=True, kw_only=True)
class View:
    """From where a piece is seen: turned to the right round it from the front, raised over the level, radians."""

    turn_rad: float = 0.0
    raised_rad: float = 0.0
    cut: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Flat:
    """A thing as it lies on the sheet, metres, x right and y up: runs of points, and round dots (x, y, radius).

    `part` tells whether its area is filled, its edge drawn, or both. `pale` is how much lighter than its colour it is,
    `far` how far back it stands, 0 the nearest to 1.
    """

    id: str
    ink: str
    part: str = "both"
    runs: tuple[tuple[Flat2, ...], ...] = ()
    dots: tuple[tuple[float, float, float], ...] = ()
    closed: bool = False
    width_m: float | None = None
    colour: str = ""
    pale: float = 0.0
    far: float = 0.0


@dataclass(frozen=True, slots=True)
class _Eye:
    cos_turn: float
    sin_turn: float
    cos_up: float
    sin_up: float

    def see(self, at: Place) -> tuple[float, float, float]:
        """Across and up on the sheet, and how far behind the middle, metres."""
        x, y, z = at
        across = x * self.cos_turn + y * self.sin_turn
        back = y * self.cos_turn - x * self.sin_turn
        return across, z * self.cos_up + back * self.sin_up, back * self.cos_up - z * self.sin_up


def project(picture: Picture, stems: Iterable[Stem], view: View) -> list[Flat]:
    """A picture and the stems that stand in it as they are seen, from back to front."""
    eye = _Eye(math.cos(view.turn_rad), math.sin(view.turn_rad), math.cos(view.raised_rad), math.sin(view.raised_rad))
    aspects = _aspects(view)
    ordered: list[tuple[float, float, Flat]] = []

    def put(layer: int, depth: float, flat: Flat) -> None:
        if view.cut:
            ordered.append((layer, -depth, flat))
        elif layer == Layer.PLACE:
            before = depth < 0 if flat.ink == "wall" else view.raised_rad < 0
            seen = replace(flat, part="edge") if before and flat.ink in _SEEN_THROUGH else flat
            ordered.append((1.0 if before else -1.0, -depth, seen))
        else:
            ordered.append((2.0 if layer == Layer.MARKS else 0.0, -depth, flat))

    for each in picture.primitives:
        if each.seen and not set(each.seen) & aspects:
            continue
        for depth, flat in _of_primitive(each, eye, view):
            put(each.layer, depth, flat)
    for name, several in (("", stems), ("hung-", picture.hung)):
        for index, stem in enumerate(several):
            for layer, depth, flat in _of_stem(name, index, stem, picture, eye, view):
                put(layer, depth, flat)
    return [flat for _, _, flat in sorted(ordered, key=lambda each: (each[0], round(each[1], _AS_DEEP)))]


def _aspects(view: View) -> set[Aspect]:
    found: set[Aspect] = {"cut" if view.cut else "whole"}
    if view.raised_rad > _STRAIGHT_DOWN:
        found.add("above")
    if abs(view.raised_rad) < _SAME:
        if abs(math.sin(view.turn_rad)) < _SAME:
            found.add("front")
        if abs(math.cos(view.turn_rad)) < _SAME:
            found.add("side")
    return found


def _of_primitive(each: Primitive, eye: _Eye, view: View) -> list[tuple[float, Flat]]:
    if isinstance(each, Dot):
        x, y, back = eye.see(each.at)
        return [(back, Flat(id=each.id, ink=each.ink, dots=((x, y, each.r_m),)))]
    if isinstance(each, Turned):
        return [_silhouette(each, eye)] if view.cut else _halves(each, eye)
    seen = [[eye.see(at) for at in run] for run in each.runs]
    runs = tuple(tuple((x, y) for x, y, _ in run) for run in seen)
    if each.kind == "solid":
        runs = tuple(_hull(run) for run in runs)
    depths = [back for run in seen for _, _, back in run]
    part = "edge" if each.kind == "line" else "both"
    closed = each.closed or each.kind != "line"
    flat = Flat(id=each.id, ink=each.ink, part=part, runs=runs, closed=closed, width_m=each.width_m)
    return [(sum(depths) / len(depths), flat)]


def _ring_points(ring: Ring, shape: str) -> list[Place]:
    outline = SHAPES[shape].outline
    kept = outline[::_STEP] if len(outline) > 4 else outline
    x, y, z = ring.at
    return [(x + u * ring.half_width_m, y + v * ring.half_depth_m, z) for u, v in kept.tolist()]


def _silhouette(each: Turned, eye: _Eye) -> tuple[float, Flat]:
    """A turned body seen level: from its widest to the left to its widest to the right, ring by ring."""
    left, right = [], []
    for ring in each.rings:
        seen = [eye.see(at) for at in _ring_points(ring, each.plan_shape)]
        height = seen[0][1]
        left.append((min(x for x, _, _ in seen), height))
        right.append((max(x for x, _, _ in seen), height))
    _, _, back = eye.see(each.rings[0].at)
    part = "fill" if each.inside else "both"
    flat = Flat(id=each.id, ink=each.ink, part=part, runs=((*right, *reversed(left)),), closed=True)
    return back, flat


def _halves(each: Turned, eye: _Eye) -> list[tuple[float, Flat]]:
    """A turned body as what is seen of its near and its far side, and of its ends."""
    arcs = [_arcs(ring, each.plan_shape, eye) for ring in each.rings]
    far_runs, near_runs = [], []
    inwards = -1.0 if each.inside else 1.0
    for place, (low, high) in enumerate(pairwise(each.rings)):
        up = (high.at[2] - low.at[2]) * eye.cos_up
        out = (high.half_width_m - low.half_width_m + high.half_depth_m - low.half_depth_m) / 2 * eye.sin_up
        if inwards * (up - out) > _SAME:
            near_runs.append((*arcs[place][0], *reversed(arcs[place + 1][0])))
        if inwards * (-up - out) > _SAME:
            far_runs.append((*arcs[place][1], *reversed(arcs[place + 1][1])))
    reach = max(max(ring.half_width_m, ring.half_depth_m) for ring in each.rings)
    _, _, middle = eye.see((each.rings[0].at[0], each.rings[0].at[1], 0.0))
    low_z, high_z = each.rings[0].at[2], each.rings[-1].at[2]
    behind = middle + reach * eye.cos_up - low_z * eye.sin_up
    before = middle - reach * eye.cos_up - low_z * eye.sin_up
    found = []
    if each.inside:
        floor = (*arcs[0][0], *reversed(arcs[0][1]))
        runs = [floor] * (eye.sin_up > _SAME) + near_runs + far_runs
        rims = (arcs[-1][1], arcs[-1][0])
        found.append((behind, Flat(id=f"{each.id}-far", ink=each.ink, part="fill", runs=tuple(runs), closed=True)))
        found.append((behind, Flat(id=f"{each.id}-rim", ink="edge", part="edge", runs=rims)))
        return found
    if far_runs:
        flat = Flat(id=f"{each.id}-far", ink=each.ink, part="fill", runs=tuple(far_runs), closed=True)
        found.append((behind, flat))
    if near_runs:
        contours = tuple(tuple(arc[0][end] for arc in arcs) for end in (0, -1))
        flat = Flat(id=f"{each.id}-near", ink=each.ink, part="fill", runs=tuple(near_runs), closed=True)
        edges = (*contours, arcs[0][0], arcs[-1][0])
        found.append((before, flat))
        found.append((before, Flat(id=f"{each.id}-edge", ink="edge", part="edge", runs=edges)))
    top = eye.sin_up > _SAME
    if (top and not each.open) or eye.sin_up < -_SAME:
        near, far = arcs[-1 if top else 0]
        cap = (*near, *reversed(far))
        depth = middle - (high_z if top else low_z) * eye.sin_up
        found.append((depth, Flat(id=f"{each.id}-end", ink=each.ink, runs=(cap,), closed=True)))
    return found


def _arcs(ring: Ring, shape: str, eye: _Eye) -> tuple[tuple[Flat2, ...], tuple[Flat2, ...]]:
    """The near and the far half of a ring, both from left to right."""
    seen = [eye.see(at) for at in _ring_points(ring, shape)]
    count = len(seen)
    right = max(range(count), key=lambda at: (round(seen[at][0], 9), -round(seen[at][2], 9)))
    left = min(range(count), key=lambda at: (round(seen[at][0], 9), round(seen[at][2], 9)))
    ways = []
    for step in (1, -1):
        at, way = left, [left]
        while at != right:
            at = (at + step) % count
            way.append(at)
        ways.append(way)
    ways.sort(key=lambda way: sum(seen[at][2] for at in way) / len(way))
    near, far = (tuple((seen[at][0], seen[at][1]) for at in way) for way in ways)
    return near, far


def _hull(points: Sequence[Flat2]) -> tuple[Flat2, ...]:
    """The outline of a convex body's corners. Source: monotone chain (Andrew, 1979)."""
    every = sorted(set(points))
    if len(every) < 3:
        return tuple(every)

    def half(of: Sequence[Flat2]) -> list[Flat2]:
        kept: list[Flat2] = []
        for at in of:
            while len(kept) > 1 and _turns(kept[-2], kept[-1], at) <= 0:
                kept.pop()
            kept.append(at)
        return kept[:-1]

    return tuple(half(every) + half(every[::-1]))


def _turns(a: Flat2, b: Flat2, c: Flat2) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def _of_stem(
    name: str, index: int, stem: Stem, picture: Picture, eye: _Eye, view: View
) -> list[tuple[int, float, Flat]]:
    end = (stem.end_x_m, stem.end_y_m, stem.end_z_m)
    seat = (stem.seat_x_m, stem.seat_y_m, stem.seat_z_m)
    tip = (stem.tip_x_m, stem.tip_y_m, stem.tip_z_m - stem.droop_m)
    rim = _at_rim(seat, tip, picture.rims_m[stem.vessel])
    seen = [eye.see(at) for at in (end, seat, rim, tip)]
    depth = seen[3][2]
    far = min(max((depth + picture.deep_m) / (2 * picture.deep_m), 0.0), 1.0)
    ink = "bark" if stem.branch else "stem"
    width = min(stem.diameter_m, 0.007) * 0.7

    def drawn(id_: str, *points: tuple[float, float, float]) -> Flat:
        run = tuple((x, y) for x, y, _ in points)
        return Flat(id=id_, ink=ink, part="edge", runs=(run,), width_m=width, far=far)

    if view.cut:
        found = [(int(Layer.STEMS), depth, drawn(f"{name}stem-{index}", *seen))]
    else:
        inside = sum(each[2] for each in seen[:3]) / 3
        over = 0.25 * seen[2][2] + 0.75 * depth
        found = [
            (int(Layer.STEMS), inside, drawn(f"{name}stem-{index}-low", *seen[:3])),
            (int(Layer.STEMS), over, drawn(f"{name}stem-{index}", *seen[2:])),
        ]
    if stem.branch:
        bark = Flat(id=f"{name}stem-{index}-bark", ink="bark line", part="edge", runs=_bark(seen), far=far)
        found.append((int(Layer.STEMS), found[-1][1], bark))
    if stem.tube_length_m > 0:
        held = _between(seen[0], seen[3], min(stem.tube_length_m / max(math.dist(end, tip), _SAME), 1.0))
        runs = ((seen[0][:2], held[:2]),)
        tube = Flat(id=f"{name}tube-{index}", ink="tube", part="edge", runs=runs, width_m=stem.tube_width_m, far=far)
        found.append((int(Layer.STEMS), seen[0][2], tube))
    nearest = depth - stem.head_radius_m
    for flat in _of_head(f"{name}head-{index}", stem, rim, tip, eye, far):
        found.append((int(Layer.HEADS), nearest, flat))
    if stem.held:
        x, y, _ = seen[3]
        found.append(
            (int(Layer.MARKS), nearest, Flat(id=f"{name}head-{index}-held", ink="held", dots=((x, y, 0.006),)))
        )
    return found


_Seen = tuple[float, float, float]


def _bark(seen: Sequence[_Seen]) -> tuple[tuple[Flat2, ...], ...]:
    """Short lines along what is seen of a branch, three on each of its reaches."""
    return tuple(
        (_between(low, high, start)[:2], _between(low, high, start + _BARK)[:2])
        for low, high in pairwise(seen)
        for start in _BARK_STARTS
    )


def _between(low: _Seen, high: _Seen, share: float) -> _Seen:
    x, y, back = (a + share * (b - a) for a, b in zip(low, high, strict=True))
    return x, y, back


def _at_rim(seat: Place, tip: Place, rim_m: float) -> Place:
    """Where a stem comes out over the rim; its seat where it never does."""
    if not seat[2] < rim_m < tip[2]:
        return seat
    share = (rim_m - seat[2]) / (tip[2] - seat[2])
    return tuple(a + share * (b - a) for a, b in zip(seat, tip, strict=True))  # type: ignore[return-value]


def _of_head(name: str, stem: Stem, rim: Place, tip: Place, eye: _Eye, far: float) -> list[Flat]:
    """A head in its place: what is farther off first, like things that follow one another as one."""
    head = HEADS[stem.form]
    frame = _frame(head, stem, rim, tip)
    items: list[tuple[float, Ball | Blade]] = []
    every: tuple[Ball | Blade, ...] = (*head.blades, *head.balls)
    for item in every:
        points = (item.at,) if isinstance(item, Ball) else item.edge
        depth = sum(eye.see(_put(at, frame))[2] for at in points) / len(points)
        items.append((-round(depth, _AS_DEEP), item))
    items.sort(key=lambda each: each[0])
    found: list[Flat] = []
    group: list[Ball | Blade] = []
    for _, item in items:
        if group and (type(group[0]), group[0].pale) != (type(item), item.pale):
            found += _grouped(f"{name}-{len(found)}", group, stem, frame, eye, far)
            group = []
        group.append(item)
    return found + _grouped(f"{name}-{len(found)}", group, stem, frame, eye, far)


_Frame = tuple[Place, Place, Place, Place]


def _frame(head: Head, stem: Stem, rim: Place, tip: Place) -> _Frame:
    """The tip, and the template's three directions at their sizes; a long head ends where its stem starts."""
    way = tuple(b - a for a, b in zip(rim, tip, strict=True))
    size = math.hypot(*way)
    ax, ay, az = (0.0, 0.0, 1.0) if head.hangs or size <= _SAME else (each / size for each in way)
    level = math.hypot(ax, ay)
    ux, uy = (-ay / level, ax / level) if level > _SAME else (1.0, 0.0)
    r = stem.head_radius_m
    long = min(stem.head_height_m, max(size, r)) if head.long else r
    across = (r * ux, r * uy, 0.0)
    over = (-r * az * uy, r * az * ux, r * (ax * uy - ay * ux))
    return tip, across, over, (long * ax, long * ay, long * az)


def _put(at: Place, frame: _Frame) -> Place:
    (tx, ty, tz), across, over, along = frame
    u, v, w = at
    return (
        tx + u * across[0] + v * over[0] + w * along[0],
        ty + u * across[1] + v * over[1] + w * along[1],
        tz + u * across[2] + v * over[2] + w * along[2],
    )


def _grouped(name: str, group: Sequence[Ball | Blade], stem: Stem, frame: _Frame, eye: _Eye, far: float) -> list[Flat]:
    def run(points: Run) -> tuple[Flat2, ...]:
        return tuple(eye.see(_put(at, frame))[:2] for at in points)

    if not group:
        return []
    pale = group[0].pale
    balls = [each for each in group if isinstance(each, Ball)]
    if balls:
        dots = tuple((*eye.see(_put(each.at, frame))[:2], each.r * stem.head_radius_m) for each in balls)
        return [Flat(id=name, ink="head", dots=dots, width_m=_OUTLINE_M, colour=stem.colour, pale=pale, far=far)]
    blades = [each for each in group if isinstance(each, Blade)]
    edges = tuple(run(each.edge) for each in blades)
    found = [
        Flat(id=name, ink="head", runs=edges, closed=True, width_m=_OUTLINE_M, colour=stem.colour, pale=pale, far=far)
    ]
    ribs = tuple(run(each.rib) for each in blades if each.rib)
    if ribs:
        found.append(Flat(id=f"{name}-rib", ink="rib", part="edge", runs=ribs, width_m=_OUTLINE_M, far=far))
    return found
