"""Where a rig comes to rest: bare, half done, finished; how low it reaches and how far out of level."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.drawing.picture import NOTHING_DRAWN, Picture
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.rigging.drops import as_made, highest_stand_m, longest_drop_m
from jolly_trellis.core.rigging.layout import LaidOut, lay_out
from jolly_trellis.core.rigging.loads import Load, TakeOff, take_off
from jolly_trellis.core.rigging.network import Settled, solve
from jolly_trellis.core.rigging.pictures import picture_of_rig
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.rigging.states import HangState, StateName

_BODY_STEP_M = 0.10
TILT_MOST = rule("Out of level with one face done, most before faces are filled by turns", "angle", math.radians(5))
TABLE_TOP = rule("Height of a table's top, where a runner lies", "length", 0.75)


@dataclass(frozen=True, slots=True, kw_only=True)
class Rest:
    """Where a rig hangs at rest, all lines whole, with its design load.

    `at_m` are the armature's nodes in order along it; `attachments_m` where lines meet it; `tension_n` of every line;
    `lowest_m` over the floor; `tilt_rad` out of level; `residual` the unbalanced force over the load; `picture` is
    what it looks like.
    """

    load_n: float
    at_m: tuple[tuple[float, float, float], ...]
    attachments_m: tuple[tuple[float, float, float], ...]
    lowest_m: float
    tilt_rad: float
    residual: float
    free_modes: int
    tension_n: tuple[float, ...]
    picture: Picture = NOTHING_DRAWN


def settle(rig: Rig, conditions: Conditions) -> Rest:
    """Where a rig hangs as it is drawn: what is asked for while it is being dragged.

    Raises: CoreError: the rig cannot be, or has no rest position.
    """
    with conditions.figures.open():
        load = design_load(take_off(rig, conditions))
        rig = as_made(rig)
        if rig.lies:
            return drawn(rig, lying(rig, load.total_n), conditions)
        shown = lay_out(rig, load, as_if=None)
        return drawn(rig, rest_of(rig, load.total_n, shown, solve(shown.net)), conditions)


def drawn(rig: Rig, rest: Rest, conditions: Conditions) -> Rest:
    """A rest with its picture."""
    picture = picture_of_rig(rig, at_m=rest.at_m, held_m=rest.attachments_m, varieties=conditions.varieties)
    return replace(rest, picture=picture)


def lying(rig: Rig, load: float) -> Rest:
    """A runner on its table: it lies as it is drawn."""
    at = tuple((each.x_m, each.y_m, each.z_m) for each in rig.attachments)
    if len(at) < 2:
        at = ((-rig.armature.length_m / 2, 0.0, TABLE_TOP.value), (rig.armature.length_m / 2, 0.0, TABLE_TOP.value))
    low = min(node[2] for node in at)
    return Rest(
        load_n=load,
        at_m=at,
        attachments_m=at,
        lowest_m=low,
        tilt_rad=0.0,
        residual=0.0,
        free_modes=0,
        tension_n=tuple(0.0 for _ in rig.lines),
    )


def states_of(rig: Rig, weighed: TakeOff, rest: Rest) -> tuple[HangState, ...]:
    """Bare, with one face of a run or one half of a panel or ring done, and finished; without those of no rest."""
    factor = GRAVITY_M_S2 * weighed.design_factor
    bare = weighed.load(factor, weighed.bare_kg)
    half = weighed.load(factor, (weighed.bare_kg + weighed.heavy_kg) / 2)
    found = []
    left = 0.0 if rig.is_run else 1.0 - bare.total_n / half.total_n
    ways: tuple[tuple[StateName, Load, float], ...] = (
        ("bare", bare, 0.0),
        ("one face done", replace(half, right_m=0.0), left),  # on the right nothing hangs yet
    )
    for name, load, left_share in ways:
        try:
            made = lay_out(rig, load, as_if=None, left_share=left_share)
            there = rest_of(rig, load.total_n, made, solve(made.net))
        except CoreError:
            continue
        tilt = there.tilt_rad
        if name == "one face done" and rig.mount is not None and rig.mount.kind == "wall":
            tilt = rest.tilt_rad  # what leans on a wall it is fixed to cannot roll over
        if name == "one face done" and rig.is_run and rig.mount is None:
            tilt = roll_rad(rig, weighed)
        found.append(HangState(name=name, load_n=load.total_n, lowest_m=there.lowest_m, tilt_rad=tilt))
    finished = HangState(name="finished", load_n=rest.load_n, lowest_m=rest.lowest_m, tilt_rad=rest.tilt_rad)
    return (*found, finished)


def roll_rad(rig: Rig, weighed: TakeOff) -> float:
    """How far a run rolls about its lines with the flowers of one face in, radians: tan = aside/below.

    Half of the flowers stand half their projection off its skin; the lines meet it at its top, a radius above its
    middle.

    Source: statics of a body hung from one line of points.
    """
    flowers = (weighed.heavy_kg - weighed.bare_kg) / 2
    if flowers <= 0:
        return 0.0
    radius = rig.armature.diameter_m / 2
    aside = flowers * (radius + rig.armature.projection_m / 2) / (flowers + weighed.bare_kg)
    return math.atan2(aside, radius)


def design_load(weighed: TakeOff) -> Load:
    """What lines are judged by: heavy mass × g × what was forgotten × handling."""
    return weighed.load(GRAVITY_M_S2 * weighed.design_factor)


def rest_of(rig: Rig, load: float, made: LaidOut, settled: Settled) -> Rest:
    """A solved network as the rig at rest, under its counted load, N."""
    nodes = settled.at_m[list(made.armature_nodes)]
    return Rest(
        load_n=load,
        at_m=places(nodes),
        attachments_m=places(settled.at_m[list(made.attachment_node)]),
        lowest_m=lowest_m(rig, nodes),
        tilt_rad=tilt_rad(rig, nodes),
        residual=settled.residual,
        free_modes=settled.free_modes or 0,
        tension_n=tuple(line_tensions(made, settled).tolist()),
    )


def lowest_m(rig: Rig, nodes: Array) -> float:
    """How low the finished work reaches, m: under a run by its flowers, under a panel or ring by its longest stem."""
    run = rig.armature.diameter_m / 2 + rig.armature.projection_m
    if rig.is_run:
        run = max(run, rig.armature.diameter_m / 2 + longest_drop_m(rig)) if rig.recipe else run
    return float(nodes[:, 2].min()) - (run if rig.is_run else longest_drop_m(rig))


def top_m(rig: Rig, at: Sequence[tuple[float, float, float]]) -> float:
    """How high the finished work reaches over the floor, m: its flowers over a run, its upright stems over a panel."""
    up = highest_stand_m(rig)
    if rig.is_run:
        up = rig.armature.diameter_m / 2 + max(rig.armature.projection_m, up)
    return max(z for _, _, z in at) + up if at else 0.0


def line_tensions(made: LaidOut, settled: Settled) -> Array:
    """Tension of every line, newtons, shape (lines,)."""
    if made.shares_n is not None:
        return made.shares_n
    return np.asarray(np.maximum(settled.tension_n[list(made.line_link)], 0.0))


def body_m(rig: Rig, at: tuple[tuple[float, float, float], ...]) -> Array:
    """Places all over the finished work at rest, shape (n, 3), m, to measure from: no gap between them over 10 cm.

    Along a run's middle; all over a panel or ring, from its plane down to its longest stem.
    """
    nodes = np.array(at)
    if rig.is_run:
        return _filled(nodes)
    rim = _filled(np.concatenate([nodes, nodes[:1]]))
    middle = nodes.mean(axis=0)
    wide = float(np.linalg.norm(rim - middle, axis=1).max())
    inward = np.linspace(0, 1, max(2, math.ceil(wide / _BODY_STEP_M)) + 1)
    plane = (middle + inward[:, None, None] * (rim - middle)).reshape(-1, 3)
    down, up = longest_drop_m(rig), highest_stand_m(rig)
    levels = np.linspace(-up, down, max(1, math.ceil((down + up) / _BODY_STEP_M)) + 1)
    return np.concatenate([plane - np.array([0.0, 0.0, level]) for level in levels.tolist()])


def _filled(nodes: Array) -> Array:
    """A row of places with more between them, so that no two neighbours are over 10 cm apart."""
    rows = [nodes[:1]]
    for one, other in pairwise(nodes):
        parts = max(1, math.ceil(float(np.linalg.norm(other - one)) / _BODY_STEP_M))
        rows.append(one + (np.arange(1, parts + 1) / parts)[:, None] * (other - one))
    return np.concatenate(rows)


def tilt_rad(rig: Rig, nodes: Array) -> float:
    """How far a panel or ring hangs out of level, or a run's two ends from one another, rad; tied work does not."""
    if rig.is_tied:
        return 0.0
    if rig.is_run:
        rise, run = float(nodes[-1, 2] - nodes[0, 2]), float(np.linalg.norm(nodes[-1, :2] - nodes[0, :2]))
        return abs(math.atan2(rise, max(run, 1e-9)))
    _, _, axes = np.linalg.svd(nodes - nodes.mean(axis=0))
    return math.acos(min(1.0, abs(float(axes[2, 2]))))


def places(at: Array) -> tuple[tuple[float, float, float], ...]:
    """Nodes as plain (x, y, z), metres."""
    return tuple((float(x), float(y), float(z)) for x, y, z in at.tolist())
