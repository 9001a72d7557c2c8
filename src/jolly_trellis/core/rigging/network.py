"""Static equilibrium of hung work in three dimensions: lines and chains in tension, stiff bars, bending tubes."""

from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt
from scipy.linalg import solveh_banded

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
    counts the ways it may still swing or spin with no work, which every hung thing has.
    """

    at_m: Array
    tension_n: Array
    reaction_n: Array
    residual: float
    free_modes: int
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


def solve(net: Network, near_m: Array | None = None) -> Settled:
    """Find where a network hangs at rest.

    The potential energy is brought to its minimum by Newton's method, damped so that it falls in every round; links
    are first taken soft and then stiffened to what they are, so that long slack chains find their shape.

    Args:
        near_m: a rest position of nearly the same network, shape (n, 3), to begin from; links are then not softened.
    Raises:
        InvalidMeasure: more than 260 nodes, no load, or a link of no length.
        Unstable: a part has no path of links to a fixed node, or it only balances, wherever it is nudged to.
        NotConverged: no rest position within 1500 rounds.
    Valid for: any displacement; after it the sum of all reactions is the load, to the residual.
    Source: minimum of the potential energy (any text on structural mechanics).
    """
    check(net)
    free = np.flatnonzero(~net.fixed)
    total = float(net.load_n[free].sum())
    soft = np.minimum(net.stiffness_n, _SOFT * total)
    at, rounds, damping = (net.start_m, 0, 1.0) if near_m is None else (near_m, 0, 1e-3)
    stages = int(np.ceil(np.log(float((net.stiffness_n / soft).max())) / np.log(_HARDER))) + 1
    stages = stages if near_m is None else 1
    for stage in range(stages):
        last = stage == stages - 1
        now = replace(net, stiffness_n=net.stiffness_n if last else np.minimum(net.stiffness_n, soft * _HARDER**stage))
        at, used, damping = _descend(now, at, free, total, _TOLERANCE if last else _ROUGH, damping)
        rounds += used
    for _ in range(_NUDGES):
        stiff = _stiffness(net, at, free)
        modes = np.linalg.eigvalsh(stiff)
        softest = _softest(at, modes, total)
        if float(modes[0]) >= -10 * softest:
            return _settled(net, at, free, total, rounds, int((modes < softest).sum()))
        # A run drawn in one plane can come to balance there on a crest, and rest only beside it.
        aside = np.linalg.eigh(stiff)[1][:, 0]
        at = at.copy()
        at[free] += _NUDGE_M * (aside * np.sign(aside[np.abs(aside).argmax()])).reshape(-1, 3)
        at, used, damping = _descend(net, at, free, total, _TOLERANCE, 1.0)
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
    along = at_m[net.ends[:, 1]] - at_m[net.ends[:, 0]]
    pull = net.stiffness_n / net.rest_m * (np.linalg.norm(along, axis=1) - net.rest_m)
    return np.asarray(np.where(net.slack, np.maximum(pull, 0.0), pull))


def _descend(
    net: Network, at: Array, free: Indices, total: float, tolerance: float, damping: float
) -> tuple[Array, int, float]:
    energy = _energy(net, at)
    band = _band(net, free)
    for rounds in range(_ROUNDS):
        force = _forces(net, at)[free]
        if float(np.abs(force).max()) < tolerance * total:
            return at, rounds, damping
        stiff = _stiffness(net, at, free)
        while True:
            step = _step(stiff, band, damping * total, force)
            if step is None:
                damping = _harder(damping, force, total)
                continue
            tried = at.copy()
            tried[free] += step
            after = _energy(net, tried)
            if after <= energy + 1e-13 * max(1.0, abs(energy)):
                break
            damping = _harder(damping, force, total)
        at, energy = tried, after
        damping = max(damping / 6, 1e-9)
    raise _no_rest(float(np.abs(_forces(net, at)[free]).max()) / total)


def _harder(damping: float, force: Array, total: float) -> float:
    if damping > _MOST_DAMPED:
        raise _no_rest(float(np.abs(force).max()) / total)
    return damping * 4


def _band(net: Network, free: Indices) -> int:
    """How many places off the diagonal the stiffness reaches: few for a run, whose nodes stand in a row."""
    place = np.full(len(net.start_m), -1)
    place[free] = np.arange(len(free))
    both = place[net.ends]
    apart = np.abs(both[:, 0] - both[:, 1])[(both >= 0).all(axis=1)]
    reach = max(int(apart.max(initial=0)), 2 if len(net.bends) else 0)
    return 3 * reach + 2


def _step(stiff: Array, band: int, damping: float, force: Array) -> Array | None:
    """Newton's step, damped, shape (free, 3); None where it would not go down and is to be damped more."""
    size = len(stiff)
    if 3 * band > size:
        return np.asarray(np.linalg.solve(stiff + damping * np.eye(size), force.reshape(-1))).reshape(-1, 3)
    lower = np.zeros((band + 1, size))
    for off in range(band + 1):
        lower[off, : size - off] = np.diagonal(stiff, -off)
    lower[0] += damping
    try:
        step = solveh_banded(lower, force.reshape(-1), lower=True, check_finite=False)
    except np.linalg.LinAlgError:
        return None
    return np.asarray(step).reshape(-1, 3)


def _no_rest(residual: float) -> NotConverged:
    return NotConverged(
        path="lines",
        message=phrase(
            "No place was found where this comes to rest (left over: {residual} of its weight).",
            residual=f"{residual:.2g}",
        ),
        limit=phrase("Check that lines are as long as they must be, and that none crosses another part."),
    )


def _energy(net: Network, at: Array) -> float:
    pull = tensions_n(net, at)
    energy = 0.5 * float((pull**2 * net.rest_m / net.stiffness_n).sum()) + float((net.load_n * at[:, 2]).sum())
    energy += 0.5 * _WALL_N_M * float((_into_wall_m(net, at) ** 2).sum())
    if len(net.bends):
        curve = np.einsum("k,bkx->bx", _WEIGHTS, at[net.bends])
        energy += 0.5 * float((net.bend_n_m * (curve**2).sum(axis=1)).sum())
    return energy


def _into_wall_m(net: Network, at: Array) -> Array:
    """How far each node is pressed into its wall, m; 0 where it does not touch it."""
    return np.maximum(at[:, 1] - net.wall_y_m, 0.0)


def _forces(net: Network, at: Array) -> Array:
    along = at[net.ends[:, 1]] - at[net.ends[:, 0]]
    unit = along / np.maximum(np.linalg.norm(along, axis=1), 1e-12)[:, None]
    pull = unit * tensions_n(net, at)[:, None]
    force = np.zeros_like(at)
    np.add.at(force, net.ends[:, 0], pull)
    np.add.at(force, net.ends[:, 1], -pull)
    force[:, 2] -= net.load_n
    force[:, 1] -= _WALL_N_M * _into_wall_m(net, at)
    if len(net.bends):
        curve = np.einsum("k,bkx->bx", _WEIGHTS, at[net.bends]) * net.bend_n_m[:, None]
        for place, weight in enumerate(_WEIGHTS.tolist()):
            np.add.at(force, net.bends[:, place], -weight * curve)
    return force


def _stiffness(net: Network, at: Array, free: Indices) -> Array:
    """Tangent stiffness of the free nodes, tension stiffening included, shape (3·free, 3·free), N/m."""
    along = at[net.ends[:, 1]] - at[net.ends[:, 0]]
    far = np.maximum(np.linalg.norm(along, axis=1), 1e-12)
    unit = along / far[:, None]
    pull = tensions_n(net, at)
    axial = np.where(net.slack & (far < net.rest_m), 0.0, net.stiffness_n / net.rest_m)
    outer = unit[:, :, None] * unit[:, None, :]
    blocks = axial[:, None, None] * outer + (pull / far)[:, None, None] * (np.eye(3) - outer)
    place = np.full(len(at), -1)
    place[free] = np.arange(len(free))
    size = 3 * (len(free) + 1)
    first, second = (place[net.ends[:, side]] for side in (0, 1))
    rows = [first, second, first, second]
    columns = [first, second, second, first]
    values = [blocks, blocks, -blocks, -blocks]
    if len(net.bends):
        for row, one in enumerate(_WEIGHTS.tolist()):
            for column, other in enumerate(_WEIGHTS.tolist()):
                rows.append(place[net.bends[:, row]])
                columns.append(place[net.bends[:, column]])
                values.append((one * other * net.bend_n_m)[:, None, None] * np.eye(3))
    pushed = place[(_into_wall_m(net, at) > 0) & (place >= 0)]
    rows.append(pushed)
    columns.append(pushed)
    values.append(np.broadcast_to(np.diag([0.0, _WALL_N_M, 0.0]), (len(pushed), 3, 3)))
    axis = np.arange(3)
    # The last row and column take what belongs to fixed nodes (place −1), and are cut off.
    down = 3 * (np.concatenate(rows) % (len(free) + 1))[:, None, None] + axis[:, None]
    across = 3 * (np.concatenate(columns) % (len(free) + 1))[:, None, None] + axis[None, :]
    whole = np.bincount(
        (down * size + across).reshape(-1), weights=np.concatenate(values).reshape(-1), minlength=size * size
    ).reshape(size, size)
    return np.ascontiguousarray(whole[:-3, :-3])


def _softest(at: Array, modes: npt.NDArray[np.floating], total: float) -> float:
    """Stiffness under which a mode counts as free, N/m: by the stiffest, and by the weight over the size of it all."""
    stiffest = max(float(np.abs(modes).max()), 1e-9)
    return _ZERO_MODE * min(stiffest, total / max(float(np.ptp(at, axis=0).max()), 0.1))


def _settled(net: Network, at: Array, free: Indices, total: float, rounds: int, free_modes: int) -> Settled:
    force = _forces(net, at)
    reaction = np.where(net.fixed[:, None], -force, 0.0)
    return Settled(
        at_m=at,
        tension_n=tensions_n(net, at),
        reaction_n=reaction,
        residual=float(np.abs(force[free]).max()) / total,
        free_modes=free_modes,
        rounds=rounds,
    )
