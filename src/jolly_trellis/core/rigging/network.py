"""Static equilibrium of hung work in three dimensions: lines and chains in tension, stiff bars, bending tubes."""

from copy import copy
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt
from scipy.linalg.lapack import dpbsv, dpbtrf

from jolly_trellis.core.errors import InvalidMeasure, NotConverged, Unstable
from jolly_trellis.core.geometry import Array, Flags
from jolly_trellis.core.quantities import count, phrase

Indices = npt.NDArray[np.intp]
MOST_NODES = 260
_ROUNDS = 1500
_TOLERANCE = 1e-6
_ROUGH = 1e-2
_SOFT = 8.0
_HARDER = 100.0
_ZERO_MODE = 1e-5
_NUDGES = 12
_WALL_N_M = 5e4
_MOST_DAMPED = 1e14
_NUDGE_M = 0.05
_WEIGHTS = np.array([1.0, -2.0, 1.0])
_EYE = np.eye(3)
_NO_CURVE = np.zeros((0, 3))


@dataclass(frozen=True, slots=True, kw_only=True)
class Network:
    """Nodes and what joins them.

    `start_m`, shape (n, 3), is where nodes are before they settle; `fixed` which of them never move; `load_n` what
    pulls each down. Links join two nodes: `ends`, shape (k, 2), `rest_m` their lengths unloaded, `stiffness_n` their
    EA; `slack` tells those that bear tension only. `bends`, shape (b, 3), are three nodes in a row of a stiff tube
    and `bend_n_m` the stiffness EI/l³ of each. `wall_y_m`, shape (n,), is how far back each node can go before it
    meets a wall, which pushes and never pulls; infinite where there is none.
    """

    start_m: Array
    fixed: Flags
    load_n: Array
    ends: Indices
    rest_m: Array
    stiffness_n: Array
    slack: Flags
    bends: Indices
    bend_n_m: Array
    wall_y_m: Array


@dataclass(frozen=True, slots=True, kw_only=True)
class Settled:
    """Where a network comes to rest.

    `tension_n` of every link (negative: pressed); `reaction_n`, shape (n, 3), is the pull on each fixed node, 0 at
    free ones. `residual` is the largest force left over on a free node, as a share of all the load. `free_modes`
    counts the ways it may still swing or spin with no work, which every hung thing has; None where nobody asked.
    """

    at_m: Array
    tension_n: Array
    reaction_n: Array
    residual: float
    free_modes: int | None
    rounds: int


def network(
    *,
    start_m: Array,
    fixed: Flags,
    load_n: Array,
    ends: Indices,
    rest_m: Array,
    stiffness_n: Array,
    slack: Flags,
    bends: Indices | None = None,
    bend_n_m: Array | None = None,
    wall_y_m: Array | None = None,
) -> Network:
    """A network; without bends it has no stiff tube in it, without a wall nothing leans."""
    return Network(
        start_m=start_m,
        fixed=fixed,
        load_n=load_n,
        ends=ends,
        rest_m=rest_m,
        stiffness_n=stiffness_n,
        slack=slack,
        bends=np.zeros((0, 3), dtype=np.intp) if bends is None else bends,
        bend_n_m=np.zeros(0) if bend_n_m is None else bend_n_m,
        wall_y_m=np.full(len(start_m), np.inf) if wall_y_m is None else wall_y_m,
    )


def solve(net: Network, near_m: Array | None = None, *, count_modes: bool = True) -> Settled:
    """Find where a network hangs at rest.

    The potential energy is brought to its minimum by Newton's method, damped so that it falls in every round; links
    are first taken soft and then stiffened to what they are, so that long slack chains find their shape.

    Args:
        near_m: a rest position of nearly the same network, shape (n, 3), to begin from; links are then not softened.
        count_modes: whether to count its free modes; that it rests is looked at anyway.
    Raises:
        InvalidMeasure: more than 260 nodes, no load, or a link of no length.
        Unstable: a part has no path of links to a fixed node, or it only balances, wherever it is nudged to.
        NotConverged: no rest position within 1500 rounds.
    Valid for: any displacement; after it the sum of all reactions is the load, to the residual.
    Source: minimum of the potential energy (any text on structural mechanics).
    """
    check(net)
    shape = _Shape(net)
    total = float(net.load_n[shape.free].sum())
    soft = np.minimum(net.stiffness_n, _SOFT * total)
    at, rounds, damping = (net.start_m, 0, 1.0) if near_m is None else (near_m, 0, 1e-3)
    stages = int(np.ceil(np.log(float((net.stiffness_n / soft).max())) / np.log(_HARDER))) + 1
    stages = stages if near_m is None else 1
    for stage in range(stages):
        last = stage == stages - 1
        now = shape if last else shape.with_stiffness(np.minimum(net.stiffness_n, soft * _HARDER**stage))
        at, used, damping = _descend(now, at, total, _TOLERANCE if last else _ROUGH, damping)
        rounds += used
    for _ in range(_NUDGES):
        pose = shape.pose(at)
        if not count_modes and shape.rests(pose, total):
            return _settled(shape, pose, total, rounds, None)
        stiff = shape.stiffness(pose)
        modes = np.linalg.eigvalsh(stiff)
        softest = _softest(at, modes, total)
        if float(modes[0]) >= -10 * softest:
            return _settled(shape, pose, total, rounds, int((modes < softest).sum()))
        # A run drawn in one plane can come to balance there on a crest, and rest only beside it.
        aside = np.linalg.eigh(stiff)[1][:, 0]
        at = at.copy()
        at[shape.free] += _NUDGE_M * (aside * np.sign(aside[np.abs(aside).argmax()])).reshape(-1, 3)
        at, used, damping = _descend(shape, at, total, _TOLERANCE, 1.0)
        rounds += used
    raise Unstable(
        path="lines",
        message=phrase("It stands on its head: the least touch and it falls over."),
        limit=phrase("Hang it from above its middle."),
    )


def check(net: Network) -> None:
    """Refuse what has no rest position before trying. Raises InvalidMeasure, Unstable."""
    nodes = len(net.start_m)
    if nodes > MOST_NODES:
        raise InvalidMeasure(
            path="armature",
            message=phrase("It is too long to be worked out in one: it bends in {n} places.", n=count(nodes)),
            limit=phrase("Plan it as two pieces; {most} places are worked out at most.", most=count(MOST_NODES)),
        )
    if not float(net.load_n[~net.fixed].sum()) > 0:
        raise InvalidMeasure(
            path="armature",
            message=phrase("Nothing hangs on these lines: the rig has no load."),
            limit=phrase("Give the armature its flowers, or a weight."),
        )
    if bool((net.rest_m <= 0).any()):
        raise InvalidMeasure(
            path="lines",
            message=phrase("A line runs from a place to the same place."),
            limit=phrase("Move one of its ends."),
        )
    reached = net.fixed.copy()
    for _ in range(nodes):
        grown = reached.copy()
        joined = reached[net.ends].any(axis=1)
        grown[net.ends[joined].reshape(-1)] = True
        if (grown == reached).all():
            break
        reached = grown
    if not reached.all():
        raise Unstable(
            path="lines",
            message=phrase("A part of the rig hangs on nothing: no line leads from it to a hang point."),
            limit=phrase("Lead a line from it to a hang point."),
        )


def tensions_n(net: Network, at_m: Array) -> Array:
    """Tension of every link where nodes are, newtons; slack ones bear no pressure. Source: Hooke's law."""
    return _Shape(net).pose(at_m).pull_n


@dataclass(frozen=True, slots=True, kw_only=True)
class _Pose:
    """A network with its nodes at certain places, worked out once: links along, how long, their tension; the energy.

    `into_wall_m` is how far each node is pressed into its wall, `curve_m` the second difference of each stiff bend.
    """

    at_m: Array
    along_m: Array
    far_m: Array
    pull_n: Array
    into_wall_m: Array
    curve_m: Array
    energy: float


class _Shape:
    """What does not change while a network settles: what is joined, and where each part of its stiffness goes."""

    def __init__(self, net: Network) -> None:
        self.net = net
        self.free = np.flatnonzero(~net.fixed)
        self.spring = net.stiffness_n / net.rest_m
        place = np.full(len(net.start_m), -1)
        place[self.free] = np.arange(len(self.free))
        self.place, self.size = place, 3 * len(self.free)
        self.joined = np.concatenate([net.ends[:, 0], net.ends[:, 1]])
        both = place[net.ends]
        apart = np.abs(both[:, 0] - both[:, 1])[(both >= 0).all(axis=1)]
        # few places for a run, whose nodes stand in a row
        self.band = 3 * max(int(apart.max(initial=0)), 2 if len(net.bends) else 0) + 2
        self.banded = 3 * self.band <= self.size
        first, second = both[:, 0], both[:, 1]
        # What each link adds, at both its ends and between them, then each bend, then walls: always in this order.
        pairs = [(first, first), (second, second), (first, second), (second, first)]
        pairs += [(place[net.bends[:, row]], place[net.bends[:, column]]) for row in range(3) for column in range(3)]
        pairs.append((place, place))
        self.whole, self.lower = self._cells(pairs, banded=False), self._cells(pairs, banded=True)
        stiff = [one * other * net.bend_n_m for one in _WEIGHTS.tolist() for other in _WEIGHTS.tolist()]
        self.bends = np.concatenate(stiff)[:, None, None] * _EYE

    def _beyond(self, *, banded: bool) -> int:
        """The cell after the last of the stiffness, banded or whole: it takes what belongs to fixed nodes."""
        return (self.band + 1 if banded else self.size) * self.size

    def _cells(self, pairs: list[tuple[Indices, Indices]], *, banded: bool) -> Indices:
        """Where the 3 × 3 numbers of each pair of free nodes go, flat."""
        row, column = (np.concatenate(each)[:, None, None] for each in zip(*pairs, strict=True))
        axis = np.arange(3)
        down, across = 3 * row + axis[:, None], 3 * column + axis[None, :]
        inside = (row >= 0) & (column >= 0) & (down >= across if banded else np.bool_(True))
        cell = (down - across if banded else down) * self.size + across
        return np.asarray(np.where(inside, cell, self._beyond(banded=banded)).reshape(-1))

    def with_stiffness(self, stiffness_n: Array) -> "_Shape":
        """The same with other links: what is joined does not change."""
        other = copy(self)
        other.net = replace(self.net, stiffness_n=stiffness_n)
        other.spring = stiffness_n / self.net.rest_m
        return other

    def pose(self, at: Array) -> _Pose:
        """Everything of the nodes' places that energy, forces and stiffness share. Source: Hooke's law."""
        net = self.net
        along = at[net.ends[:, 1]] - at[net.ends[:, 0]]
        far = np.sqrt(np.add.reduce(along * along, axis=1))
        pull = self.spring * (far - net.rest_m)
        pull = np.where(net.slack, np.maximum(pull, 0.0), pull)
        wall = np.maximum(at[:, 1] - net.wall_y_m, 0.0)
        energy = 0.5 * float(np.add.reduce(pull**2 * net.rest_m / net.stiffness_n))
        energy += float(np.add.reduce(net.load_n * at[:, 2])) + 0.5 * _WALL_N_M * float(np.add.reduce(wall**2))
        curve = _NO_CURVE
        if len(net.bends):
            curve = np.einsum("k,bkx->bx", _WEIGHTS, at[net.bends])
            energy += 0.5 * float(np.add.reduce(net.bend_n_m * np.add.reduce(curve**2, axis=1)))
        return _Pose(at_m=at, along_m=along, far_m=far, pull_n=pull, into_wall_m=wall, curve_m=curve, energy=energy)

    def forces(self, pose: _Pose) -> Array:
        """The force left over on every node, shape (n, 3), N."""
        net, nodes = self.net, len(pose.at_m)
        pull = (pose.along_m / np.maximum(pose.far_m, 1e-12)[:, None] * pose.pull_n[:, None]).T
        both = np.concatenate([pull, -pull], axis=1)
        force = np.empty((nodes, 3))
        for axis in range(3):
            force[:, axis] = np.bincount(self.joined, weights=both[axis], minlength=nodes)
        force[:, 2] -= net.load_n
        force[:, 1] -= _WALL_N_M * pose.into_wall_m
        if len(net.bends):
            curve = pose.curve_m * net.bend_n_m[:, None]
            for place, weight in enumerate(_WEIGHTS.tolist()):
                force[net.bends[:, place]] += -weight * curve  # a node is the first, middle, last of one bend each
        return force

    def _blocks(self, pose: _Pose) -> Array:
        """Tangent stiffness of every pair that is joined, tension stiffening included, flat, N/m."""
        net = self.net
        far = np.maximum(pose.far_m, 1e-12)
        unit = pose.along_m / far[:, None]
        axial = np.where(net.slack & (far < net.rest_m), 0.0, self.spring)
        outer = unit[:, :, None] * unit[:, None, :]
        blocks = axial[:, None, None] * outer + (pose.pull_n / far)[:, None, None] * (_EYE - outer)
        pushed = np.zeros((len(pose.at_m), 3, 3))
        pushed[:, 1, 1] = np.where(pose.into_wall_m > 0, _WALL_N_M, 0.0)
        return np.concatenate([blocks, blocks, -blocks, -blocks, self.bends, pushed]).reshape(-1)

    def stiffness(self, pose: _Pose) -> Array:
        """Tangent stiffness of the free nodes, shape (3·free, 3·free), N/m."""
        cells = np.bincount(self.whole, weights=self._blocks(pose), minlength=self._beyond(banded=False) + 1)
        return np.ascontiguousarray(cells[:-1].reshape(self.size, self.size), dtype=np.float64)

    def stiff_band(self, pose: _Pose) -> Array:
        """The same as the diagonal and those under it, shape (band + 1, 3·free)."""
        cells = np.bincount(self.lower, weights=self._blocks(pose), minlength=self._beyond(banded=True) + 1)
        return np.ascontiguousarray(cells[:-1].reshape(self.band + 1, self.size), dtype=np.float64)

    def rests(self, pose: _Pose, total: float) -> bool:
        """Whether it surely rests there: no mode falls away faster than what counts as free. False: look closer."""
        if not self.banded:
            return False
        lower = self.stiff_band(pose)
        least = total / max(float(np.ptp(pose.at_m, axis=0).max()), 0.1)
        if float(lower[0].max()) < least:  # the stiffest mode, no less than this, may count instead of the weight
            return False
        lower[0] += 10 * _ZERO_MODE * least
        return bool(dpbtrf(lower, lower=1, overwrite_ab=1)[1] == 0)


def _descend(shape: _Shape, at: Array, total: float, tolerance: float, damping: float) -> tuple[Array, int, float]:
    pose = shape.pose(at)
    for rounds in range(_ROUNDS):
        force = shape.forces(pose)[shape.free]
        if float(np.abs(force).max()) < tolerance * total:
            return pose.at_m, rounds, damping
        stiff = shape.stiff_band(pose) if shape.banded else shape.stiffness(pose)
        while True:
            step = _step(stiff, damping * total, force, banded=shape.banded)
            if step is None:
                damping = _harder(damping, force, total)
                continue
            tried = pose.at_m.copy()
            tried[shape.free] += step
            after = shape.pose(tried)
            if after.energy <= pose.energy + 1e-13 * max(1.0, abs(pose.energy)):
                break
            damping = _harder(damping, force, total)
        pose = after
        damping = max(damping / 6, 1e-9)
    raise _no_rest(float(np.abs(shape.forces(pose)[shape.free]).max()) / total)


def _harder(damping: float, force: Array, total: float) -> float:
    if damping > _MOST_DAMPED:
        raise _no_rest(float(np.abs(force).max()) / total)
    return damping * 4


def _step(stiff: Array, damping: float, force: Array, *, banded: bool) -> Array | None:
    """Newton's step, damped, shape (free, 3); None where it would not go down and is to be damped more."""
    if not banded:
        damped = stiff + damping * np.eye(len(stiff))
        return np.asarray(np.linalg.solve(damped, force.reshape(-1))).reshape(-1, 3)
    lower = stiff.copy()
    lower[0] += damping
    _, step, failed = dpbsv(lower, force.reshape(-1), lower=1, overwrite_ab=1)
    return None if failed else np.asarray(step).reshape(-1, 3)


def _no_rest(residual: float) -> NotConverged:
    return NotConverged(
        path="lines",
        message=phrase(
            "No place was found where this comes to rest (left over: {residual} of its weight).",
            residual=f"{residual:.2g}",
        ),
        limit=phrase("Check that lines are as long as they must be, and that none crosses another part."),
    )


def _softest(at: Array, modes: npt.NDArray[np.floating], total: float) -> float:
    """Stiffness under which a mode counts as free, N/m: by the stiffest, and by the weight over the size of it all."""
    stiffest = max(float(np.abs(modes).max()), 1e-9)
    return _ZERO_MODE * min(stiffest, total / max(float(np.ptp(at, axis=0).max()), 0.1))


def _settled(shape: _Shape, pose: _Pose, total: float, rounds: int, free_modes: int | None) -> Settled:
    force = shape.forces(pose)
    reaction = np.where(shape.net.fixed[:, None], -force, 0.0)
    return Settled(
        at_m=pose.at_m,
        tension_n=pose.pull_n,
        reaction_n=reaction,
        residual=float(np.abs(force[shape.free]).max()) / total,
        free_modes=free_modes,
        rounds=rounds,
    )
