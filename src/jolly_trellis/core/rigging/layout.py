"""A rig as a network: the armature cut into nodes, its load spread along it, its lines led to the hang points."""

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np

from jolly_trellis.core.books.figures import measure
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.quantities import length, phrase
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging import refusals
from jolly_trellis.core.rigging.drops import mean_drop_m
from jolly_trellis.core.rigging.loads import Load
from jolly_trellis.core.rigging.network import MOST_NODES, Indices, Network, network
from jolly_trellis.core.rigging.rig import Rig, RigLine
from jolly_trellis.core.rigging.tied import tie_shares_n

AsIf = Literal["chain", "beam"]
SPAN_PIECES = 8
RUN_PIECES = 40
NETTING_EA = measure("Stiffness EA of a run of netting in tension", "force", 1.0e6)
FRAME_EA = measure("Stiffness EA of a stiff panel or ring", "force", 2.0e5)
BENDING = {
    "twig-stiffened": measure("Bending stiffness of a snake stiffened with twigs", "stiffness", 4.0),
    "cored": measure("Bending stiffness of a cored tube", "stiffness", 25.0),
}
STIFF_BEAM = measure("Bending stiffness a tube is also judged at, as a stiff beam", "stiffness", 20.0)
APEX_M = 0.4
_NEAR_M = 0.01
_SAG = 0.2
_ROUNDED_M = 0.0005  # places are kept to the millimetre
_SHORT = 1e-6


@dataclass(frozen=True, slots=True, kw_only=True)
class LaidOut:
    """A rig's network and what is what in it: the node of each hang point and attachment, the link of each line.

    `armature_nodes` are the armature's own nodes in order along it (its rim for a panel or ring). `shares_n` is what
    each tie of a run that is tied all along bears; it has no lines in its network, and no nodes for its points.
    `ends_n`, shape (links, 2), is the weight of each half link of a chain, at the node it is lumped into; `station_m`
    how far along the run each of its nodes lies.
    """

    net: Network
    point_node: tuple[int, ...]
    attachment_node: tuple[int, ...]
    line_link: tuple[int, ...]
    armature_nodes: tuple[int, ...]
    chain_links: tuple[int, ...]
    shares_n: Array | None = None
    ends_n: Array | None = None
    station_m: Array | None = None


def lay_out(rig: Rig, load: Load, *, as_if: AsIf | None, left_share: float = 0.0, least: int = 2) -> LaidOut:
    """The network of a rig.

    Args:
        load: of the armature with all that is on it. as_if: a run taken as a chain with no stiffness, or as a
        stiff beam; None as its stiffness is stated. Panels and rings are stiff either way. left_share: of the load of
        a panel or ring, 0-1, how much lies on its left half only. least: links of every span of a run, where the whole
        of it has room for so many.
    Raises: InvalidMeasure: see `refusals.check`; a snake that does not reach from one attachment to the next.
    """
    refusals.check(rig)
    if rig.is_tied:
        return _tied(rig, load)
    if rig.is_run:
        return _run(rig, load, as_if, least)
    return _plate(rig, load, left_share)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Nodes:
    """A run cut into nodes: how far along each lies, m; where it starts from; what pulls it down, N; which node is
    the node of each attachment; what each half link weighs, N, shape (links, 2). `taut` is how long each link is where
    every span is as long as its places are apart, m: what is longer there is gathered, and pushes nothing.
    """

    station: Array
    taut: Array
    start: Array
    load: Array
    node_of: tuple[int, ...]
    ends: Array


def _tied(rig: Rig, load: Load) -> LaidOut:
    """A run moulded to what it is tied to: it stays where a tie holds it, and hangs as a chain where none does."""
    made = _nodes(rig, load)
    number = len(made.station)
    fixed = np.zeros(number, dtype=np.bool_)
    fixed[[made.node_of[line.attachment] for line in rig.lines]] = True
    net = network(
        start_m=made.start,
        fixed=fixed,
        load_n=made.load,
        ends=np.stack([np.arange(number - 1), np.arange(1, number)], axis=1),
        rest_m=np.diff(made.station),
        stiffness_n=np.full(number - 1, NETTING_EA.value),
        slack=np.ones(number - 1, dtype=np.bool_),
    )
    return LaidOut(
        net=net,
        point_node=(),
        attachment_node=made.node_of,
        line_link=(),
        armature_nodes=tuple(range(number)),
        chain_links=(),
        shares_n=tie_shares_n(along_m(rig), rig.lines, made.station, made.load),
    )


def _run(rig: Rig, load: Load, as_if: AsIf | None, least: int) -> LaidOut:
    """A snake or tube: a chain or bending tube along its nodes, hung on its lines."""
    armature = rig.armature
    made = _nodes(rig, load, least=least)
    number, rest = len(made.station), made.taut if as_if == "beam" else np.diff(made.station)
    ends = np.stack([np.arange(number - 1), np.arange(1, number)], axis=1)
    inner = np.arange(number - 2)
    bends = np.stack([inner, inner + 1, inner + 2], axis=1) if number > 2 else np.zeros((0, 3), dtype=np.intp)
    stated = 0.0 if armature.stiffness == "loose" else BENDING[armature.stiffness].value
    bending = {"chain": 0.0, "beam": STIFF_BEAM.value, None: stated}[as_if]
    mean = (rest[:-1] + rest[1:]) / 2
    return _with_lines(
        rig,
        start=made.start,
        load=made.load,
        ends=ends,
        rest=rest,
        stiffness=np.full(len(rest), NETTING_EA.value),
        slack=np.full(len(rest), as_if != "beam"),
        bends=bends,
        bend=bending / mean**3,
        nodes=made.node_of,
        own=tuple(range(number)),
        ends_n=made.ends,
        station_m=made.station,
    )


def _nodes(rig: Rig, load: Load, *, least: int = 2) -> _Nodes:
    """A run's nodes: at the attachments and between them, more where they are farther apart; `least` links a span."""
    armature = rig.armature
    along_of = along_m(rig)
    order = sorted(range(len(rig.attachments)), key=lambda each: along_of[each])
    stations = [along_of[each] for each in order]
    places = [(a.x_m, a.y_m, a.z_m) for a in (rig.attachments[each] for each in order)]
    for (one, other), (here, there) in zip(pairwise(stations), pairwise(places), strict=True):
        if other - one < math.dist(here, there) - _ROUNDED_M:
            raise InvalidMeasure(
                path="attachments",
                message=phrase(
                    "Between two lines the snake is {l} long; they are {d} apart.",
                    l=length(other - one),
                    d=length(math.dist(here, there)),
                ),
                limit=phrase("Let it be longer there, or move the attachments together."),
            )
    if stations[-1] > armature.length_m + 1e-9 or stations[0] < -1e-9:
        raise InvalidMeasure(
            path="attachments",
            message=phrase("An attachment lies past the end of the armature."),
            limit=phrase("Bring it within its length."),
        )
    marks = [*([0.0] if stations[0] > _SHORT else []), *stations]
    marks += [armature.length_m] if armature.length_m - stations[-1] > _SHORT else []
    along = [marks[0]]
    usual = max(2.0, min(SPAN_PIECES, RUN_PIECES / (len(marks) - 1))) if len(marks) > 1 else SPAN_PIECES
    for one, other in pairwise(marks):
        pieces = max(2, round(usual * (other - one) / max(armature.length_m, 1e-6) * (len(marks) - 1)))
        pieces = max(pieces, least if (len(marks) - 1) * least + len(rig.points) < MOST_NODES else 2)
        along += np.linspace(one, other, pieces + 1)[1:].tolist()
    station = np.array(along)
    start = _start(station, np.array(stations), np.array(places))
    ends_n = _link_ends(station, load.spread_n, armature.length_m, armature.density)
    pulls = np.zeros(len(station))
    pulls[:-1] += ends_n[:, 0]
    pulls[1:] += ends_n[:, 1]
    pulls[_foot(places)] += load.foot_n
    node_of = tuple(int(np.abs(station - each).argmin()) for each in along_of)
    taut = _taut(station, stations, places)
    return _Nodes(station=station, taut=taut, start=start, load=pulls, node_of=node_of, ends=ends_n)


def _taut(station: Array, stations: list[float], places: list[tuple[float, float, float]]) -> Array:
    """How long each link is where spans are as long as their places are apart, m, shape (links,); ends keep theirs."""
    apart = np.cumsum([0.0, *(math.dist(one, other) for one, other in pairwise(places))])
    beyond = np.minimum(station - stations[0], 0.0) + np.maximum(station - stations[-1], 0.0)
    return np.diff(np.interp(station, stations, apart) + beyond)


def _foot(places: list[tuple[float, float, float]]) -> int:
    """Which end of a run its core hangs in: the one drawn lower, the last of two alike; a node's place, 0 or -1."""
    return 0 if places[0][2] < places[-1][2] - _NEAR_M else -1


def along_m(rig: Rig) -> list[float]:
    """How far along the run every attachment lies: as stated, or the length shared out as they are apart.

    In one place a run is held in its middle, a spill by its upper end.
    """
    stated = [each.along_m for each in rig.attachments]
    if None not in stated:
        return [each for each in stated if each is not None]
    places = [(a.x_m, a.y_m, a.z_m) for a in rig.attachments]
    apart = np.concatenate([[0.0], np.cumsum([math.dist(one, other) for one, other in pairwise(places)])])
    whole = float(apart[-1])
    if len(places) > 1 and whole > rig.armature.length_m + _ROUNDED_M * len(places):
        raise InvalidMeasure(
            path="armature.length_m",
            message=phrase(
                "The run is {l} long; its lines lead over {d}.", l=length(rig.armature.length_m), d=length(whole)
            ),
            limit=phrase("Make it longer than the way it hangs."),
        )
    if whole == 0:
        return [0.0 if rig.armature.kind == "spill" else rig.armature.length_m / 2 for _ in places]
    shared: list[float] = (apart * (rig.armature.length_m / whole)).tolist()
    return shared


def _start(station: Array, stations: Array, places: Array) -> Array:
    """Where nodes are before they settle: on the drawn polyline, sagging a little; ends hang down from their line.

    Held in one place, its two ends begin apart: folded on one another they would stay so.
    """
    if len(stations) == 1:
        past = station - stations[0]
        return np.asarray(places + past[:, None] * [1.0, 0.0, 0.0] - np.abs(past)[:, None] * [0.0, 0.0, _SAG])
    inside = np.stack([np.interp(station, stations, places[:, axis]) for axis in range(3)], axis=1)
    for index, at in enumerate(station.tolist()):
        if at < stations[0]:
            inside[index, 2] -= stations[0] - at
        elif at > stations[-1]:
            inside[index, 2] -= at - stations[-1]
        else:
            gap = np.abs(stations - at).min()
            inside[index, 2] -= _SAG * float(gap)
    return inside


def _link_ends(station: Array, load_n: float, whole_m: float, density: tuple[float, ...]) -> Array:
    """Weight of each half link, lumped into its node, N, shape (links, 2): its length, as full as it is there."""
    full = fullness(station / max(whole_m, 1e-9), density)
    weight = np.stack([full[:-1], full[1:]], axis=1) * np.diff(station)[:, None] / 2
    return np.asarray(load_n * weight / weight.sum())


def fullness(share: Array, density: tuple[float, ...]) -> Array:
    """How full an armature is at shares 0-1 of the way along it, against its other places; 1 where it is even."""
    if not density:
        return np.ones_like(share)
    number = len(density)
    return np.interp(share, (np.arange(number) + 0.5) / number, np.array(density))


def _plate(rig: Rig, load: Load, left_share: float) -> LaidOut:
    """A stiff panel or ring: its attachments, its rim, a massless apex that stiffens it out of its plane, and a keel.

    Stems hang under it, so half of the load is on the keel, a stem's length below the middle of the load: together
    they balance half a stem below the plane. Stems that hang longer on the right put more of it there.
    """
    armature = rig.armature
    held = np.array([(a.x_m, a.y_m, a.z_m) for a in rig.attachments])
    middle = held.mean(axis=0)
    if armature.kind == "ring":
        turn = np.arange(8) * (math.pi / 4)
        rim = np.stack([np.cos(turn), np.sin(turn), np.zeros(8)], axis=1) * armature.diameter_m / 2
    else:
        corner = np.array([[-1.0, -1.0], [1.0, -1.0], [1.0, 1.0], [-1.0, 1.0]])
        rim = np.column_stack([corner * [armature.length_m / 2, armature.width_m / 2], np.zeros(4)])
    rim = rim + middle
    left = rim[:, 0] < middle[0] - _SHORT
    wide = max(float(np.ptp(rim[:, 0])), 1e-9)
    even = fullness((rim[:, 0] - float(rim[:, 0].min())) / wide, armature.density)
    apex = middle + np.array([0.0, 0.0, APEX_M])
    half = np.where(left, even, 0.0)
    share = (1.0 - left_share) * even / even.sum() + left_share * half / half.sum()
    aside = rim[:, 0] - share @ rim[:, 0]
    share = share * (1.0 + load.right_m * aside / max(float(share @ aside**2), 1e-12))
    keel = share @ rim - np.array([0.0, 0.0, mean_drop_m(rig)])
    start = np.concatenate([held, rim, apex[None], keel[None]])
    pulls = np.concatenate([np.zeros(len(held)), load.total_n * share / 2, [0.0, load.total_n / 2]])
    number = len(start)
    pairs = [
        (one, other)
        for one in range(number)
        for other in range(one + 1, number)
        if float(np.linalg.norm(start[one] - start[other])) > _NEAR_M
    ]
    ends = np.array(pairs, dtype=np.intp)
    rest = np.linalg.norm(start[ends[:, 0]] - start[ends[:, 1]], axis=1)
    return _with_lines(
        rig,
        start=start,
        load=pulls,
        ends=ends,
        rest=rest,
        stiffness=np.full(len(rest), FRAME_EA.value),
        slack=np.zeros(len(rest), dtype=np.bool_),
        bends=np.zeros((0, 3), dtype=np.intp),
        bend=np.zeros(0),
        nodes=tuple(range(len(held))),
        own=tuple(range(len(held), len(held) + len(rim))),
    )


def _with_lines(
    rig: Rig,
    *,
    start: Array,
    load: Array,
    ends: Indices,
    rest: Array,
    stiffness: Array,
    slack: Array,
    bends: Indices,
    bend: Array,
    nodes: tuple[int, ...],
    own: tuple[int, ...],
    ends_n: Array | None = None,
    station_m: Array | None = None,
) -> LaidOut:
    """The armature's nodes and links, then the hang points' nodes and the lines."""
    number, links = len(start), len(ends)
    points = np.array([(each.x_m, each.y_m, each.z_m) for each in rig.points]).reshape(-1, 3)
    drawn = np.array([(a.x_m, a.y_m, a.z_m) for a in rig.attachments])
    led = np.array([(_from_node(each, number, nodes), nodes[each.attachment]) for each in rig.lines], dtype=np.intp)
    cut = np.array([np.linalg.norm(_from(each, points, drawn) - drawn[each.attachment]) for each in rig.lines])
    ea = np.array([line_rules.stiffness_n(each.spec) for each in rig.lines])
    net = network(
        start_m=np.concatenate([start, points]),
        fixed=np.concatenate([np.zeros(number, dtype=np.bool_), np.ones(len(points), dtype=np.bool_)]),
        load_n=np.concatenate([load, np.zeros(len(points))]),
        ends=np.concatenate([ends, led]),
        rest_m=np.concatenate([rest, cut]),
        stiffness_n=np.concatenate([stiffness, ea]),
        slack=np.concatenate([slack, np.ones(len(led), dtype=np.bool_)]),
        bends=bends,
        bend_n_m=bend,
        wall_y_m=_wall_m(rig, start, own, len(points)),
    )
    return LaidOut(
        net=net,
        point_node=tuple(range(number, number + len(points))),
        attachment_node=nodes,
        line_link=tuple(range(links, links + len(led))),
        armature_nodes=own,
        chain_links=tuple(range(links)) if rig.is_run else (),
        ends_n=ends_n,
        station_m=station_m,
    )


def _wall_m(rig: Rig, start: Array, own: tuple[int, ...], points: int) -> Array | None:
    """How far back each node can go before it leans on the wall the rig is mounted on, m; None on no wall.

    The wall is where the points in it are. Work is tied to it by its back, so that is what meets it; what is drawn
    farther back touches it as it is drawn.
    """
    if rig.mount is None or rig.mount.kind != "wall" or not rig.points:
        return None
    meets = max(each.y_m for each in rig.points)
    wall = np.full(len(start) + points, np.inf)
    at = list(own)
    wall[at] = np.maximum(start[at, 1], meets)
    return wall


def _from_node(line: RigLine, number: int, nodes: tuple[int, ...]) -> int:
    return nodes[line.tied_to] if line.tied_to is not None else number + (line.point or 0)


def _from(line: RigLine, points: Array, drawn: Array) -> Array:
    found: Array = drawn[line.tied_to] if line.tied_to is not None else points[line.point or 0]
    return found
