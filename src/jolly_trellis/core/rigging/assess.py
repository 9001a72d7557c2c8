"""A rig judged: every line whole, one a little long, one gone; hang points against what was stated; clearance."""

import math
from dataclasses import dataclass, replace

import numpy as np

from jolly_trellis.core.checks.hang import CONTINGENCY, HANDLING
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.piece import Conditions
from jolly_trellis.core.provenance import COMPUTED, Figure, Provenance, constant
from jolly_trellis.core.quantities import force, mass
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.findings import ANGLE_LEAST, findings_of
from jolly_trellis.core.rigging.layout import LaidOut, lay_out
from jolly_trellis.core.rigging.loads import TakeOff, take_off
from jolly_trellis.core.rigging.network import Settled, solve
from jolly_trellis.core.rigging.rig import HangPoint, Rig
from jolly_trellis.core.rigging.states import LineCase, LineState, PointState, name_of, rating_of
from jolly_trellis.core.stems import GRAVITY_M_S2
from jolly_trellis.core.verdicts import Verdict, conclude

KNOT_TAIL = constant("Line kept for the knot or fitting at each end", "length", 0.15)
NO_LINE_N = 1.0e6
LONG = constant("One line longer than it should be by", "ratio", 0.01)


@dataclass(frozen=True, slots=True, kw_only=True)
class Rest:
    """Where a rig hangs at rest, all lines whole, with its design load.

    `at_m` are the armature's nodes in order along it; `attachments_m` where lines meet it; `tension_n` of every line;
    `lowest_m` over the floor; `tilt_rad` out of level; `residual` the unbalanced force over the load.
    """

    load_n: float
    at_m: tuple[tuple[float, float, float], ...]
    attachments_m: tuple[tuple[float, float, float], ...]
    lowest_m: float
    tilt_rad: float
    residual: float
    free_modes: int
    tension_n: tuple[float, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class RigReport:
    """A rig worked out: where it rests, what every line and point bears in the worst case, and the Hang verdict.

    `half_tilt_rad` is how far a panel or ring hangs out of level while only one half of it is full; None for a run,
    and where it finds no rest so.
    """

    take_off: TakeOff
    rest: Rest
    half_tilt_rad: float | None
    lines: tuple[LineState, ...]
    points: tuple[PointState, ...]
    verdict: Verdict


def settle(rig: Rig, conditions: Conditions) -> Rest:
    """Where a rig hangs as it is drawn: what is asked for while it is being dragged.

    Raises: CoreError: the rig cannot be, or has no rest position.
    """
    load = _design_load_n(take_off(rig, conditions))
    shown = lay_out(rig, load, as_if=None)
    return _rest(rig, load, shown, solve(shown.net))


def assess(rig: Rig, conditions: Conditions) -> RigReport:
    """Work out a rig: settled whole as a chain and as a stiff beam; each line 1 % long; each line gone.

    A line's tension is the larger of chain and beam; the shape follows the stiffness that is stated.

    Raises: CoreError: the rig cannot be, or has no rest position.
    """
    weighed = take_off(rig, conditions)
    load = _design_load_n(weighed)
    shown = lay_out(rig, load, as_if=None)
    settled = solve(shown.net)
    ways, chain = [(shown, settled)], 0.0
    if rig.armature.kind in ("snake", "tube"):
        slack = lay_out(rig, load, as_if="chain")
        hung = solve(slack.net)
        chain = float(hung.tension_n[list(slack.chain_links)].max())
        beam = lay_out(rig, load, as_if="beam")
        ways += [(slack, hung), (beam, solve(beam.net))]
    whole = np.max([line_tensions(made, found) for made, found in ways], axis=0)
    pulls = [_point_pulls(made, found) for made, found in ways]
    uneven = _uneven(shown, settled)
    gone, gone_pulls = _each_gone(rig, load)
    lines = tuple(_line_state(rig, index, whole, uneven, gone, shown, settled) for index in range(len(rig.lines)))
    points = tuple(_point_state(point, index, [*pulls, *gone_pulls]) for index, point in enumerate(rig.points))
    rest = _rest(rig, load, shown, settled)
    findings, missing = findings_of(rig, weighed, lines, points, rest.lowest_m, chain)
    return RigReport(
        take_off=weighed,
        rest=rest,
        half_tilt_rad=_half_tilt_rad(rig, load),
        lines=lines,
        points=points,
        verdict=conclude("hang", findings, missing=missing, figures=_figures(weighed, load)),
    )


def _design_load_n(weighed: TakeOff) -> float:
    """Weight lines are judged by: heavy mass × g × what was forgotten × handling, N."""
    return weighed.heavy_kg * GRAVITY_M_S2 * weighed.design_factor


def _rest(rig: Rig, load: float, made: LaidOut, settled: Settled) -> Rest:
    nodes = settled.at_m[list(made.armature_nodes)]
    return Rest(
        load_n=load,
        at_m=places(nodes),
        attachments_m=places(settled.at_m[list(made.attachment_node)]),
        lowest_m=float(nodes[:, 2].min()) - thickness_m(rig) / 2,
        tilt_rad=_tilt_rad(rig, nodes),
        residual=settled.residual,
        free_modes=settled.free_modes,
        tension_n=tuple(line_tensions(made, settled).tolist()),
    )


def thickness_m(rig: Rig) -> float:
    """How thick what hangs is, up and down, m: a run's diameter; stems hang through a panel or ring to their cut."""
    run = rig.armature.kind in ("snake", "tube")
    return rig.armature.diameter_m if run else 2 * rig.armature.stem_cut_m


def line_tensions(made: LaidOut, settled: Settled) -> Array:
    """Tension of every line, newtons, shape (lines,)."""
    return np.asarray(np.maximum(settled.tension_n[list(made.line_link)], 0.0))


def _point_pulls(made: LaidOut, settled: Settled) -> Array:
    """Pull on each hang point, shape (points, 3), newtons: what the lines drag it by."""
    return -settled.reaction_n[list(made.point_node)]


def _uneven(made: LaidOut, settled: Settled) -> Array:
    """Worst tension of every line with each line in turn 1 % long."""
    worst = np.zeros(len(made.line_link))
    for link in made.line_link:
        rest = made.net.rest_m.copy()
        rest[link] *= 1 + LONG.value
        worst = np.maximum(worst, line_tensions(made, solve(replace(made.net, rest_m=rest), settled.at_m)))
    return worst


def _each_gone(rig: Rig, load: float) -> tuple[Array, list[Array]]:
    """Worst tension of every line with each other line gone, and the pulls on the points then."""
    worst, pulls = np.zeros(len(rig.lines)), []
    for gone in range(len(rig.lines)):
        left = [index for index in range(len(rig.lines)) if index != gone]
        bare = replace(rig, lines=tuple(rig.lines[index] for index in left))
        try:
            made = lay_out(bare, load, as_if=None)
            settled = solve(made.net)
        except CoreError:
            worst[left] = np.inf
            continue
        worst[left] = np.maximum(worst[left], line_tensions(made, settled))
        pulls.append(_point_pulls(made, settled))
    return worst, pulls


def _line_state(
    rig: Rig, index: int, whole: Array, uneven: Array, gone: Array, made: LaidOut, settled: Settled
) -> LineState:
    line = rig.lines[index]
    tensions: dict[LineCase, float] = {
        "whole": float(whole[index]),
        "uneven": float(uneven[index]),
        "one gone": float(gone[index]),
    }
    limits: dict[LineCase, float] = {
        case: line_rules.working_limit_n(line.spec, over_people=rig.over_people, one_gone=case == "one gone")
        for case in tensions
    }
    governs = max(tensions, key=lambda case: tensions[case] / limits[case])
    one, other = (settled.at_m[node] for node in made.net.ends[made.line_link[index]])
    rise = float(abs(one[2] - other[2]))
    away = float(np.hypot(one[0] - other[0], one[1] - other[1]))
    return LineState(
        name=name_of(rig, line),
        tension_n=tensions["whole"],
        design_n=min(tensions[governs], NO_LINE_N),
        limit_n=limits[governs],
        breaking_n=line_rules.breaking_n(line.spec),
        use=min(tensions[governs] / limits[governs], 99.0),
        governs=governs,
        angle_rad=math.atan2(rise, away),
        cut_length_m=float(made.net.rest_m[made.line_link[index]]) + 2 * KNOT_TAIL.value,
    )


def _point_state(point: HangPoint, index: int, pulls: list[Array]) -> PointState:
    worst = max((each[index] for each in pulls), key=lambda pull: float(np.linalg.norm(pull)))
    size = float(np.linalg.norm(worst))
    off = math.atan2(float(np.hypot(worst[0], worst[1])), -float(worst[2])) if size > 1e-9 else 0.0
    rating = rating_of(point)
    return PointState(name=point.name, pull_n=size, off_rad=off, use=None if rating is None else size / rating)


def _tilt_rad(rig: Rig, nodes: Array) -> float:
    """How far a panel or ring hangs out of level, or a run's two ends from one another, radians."""
    if rig.armature.kind in ("snake", "tube"):
        rise, run = float(nodes[-1, 2] - nodes[0, 2]), float(np.linalg.norm(nodes[-1, :2] - nodes[0, :2]))
        return abs(math.atan2(rise, max(run, 1e-9)))
    _, _, axes = np.linalg.svd(nodes - nodes.mean(axis=0))
    return math.acos(min(1.0, abs(float(axes[2, 2]))))


def _half_tilt_rad(rig: Rig, load: float) -> float | None:
    """Tilt of a panel or ring with half of its load, all on one side: as it hangs when one half is done first."""
    if rig.armature.kind in ("snake", "tube"):
        return None
    try:
        made = lay_out(rig, load / 2, as_if=None, one_side=True)
        settled = solve(made.net)
    except CoreError:
        return None
    return _tilt_rad(rig, settled.at_m[list(made.armature_nodes)])


def _figures(weighed: TakeOff, load: float) -> list[Figure]:
    own = [
        Figure(label="Finished, typical", quantity=mass(weighed.typical_kg), provenance=COMPUTED),
        Figure(label="Finished, heavy", quantity=mass(weighed.heavy_kg), provenance=COMPUTED),
        Figure(label="Counted as", quantity=force(load), provenance=Provenance(kind="computed")),
    ]
    return [
        *own,
        CONTINGENCY,
        HANDLING,
        line_rules.FACTOR_PEOPLE,
        line_rules.FACTOR_NOBODY,
        line_rules.FACTOR_GONE,
        ANGLE_LEAST,
        LONG,
    ]


def places(at: Array) -> tuple[tuple[float, float, float], ...]:
    """Nodes as plain (x, y, z), metres."""
    return tuple((float(x), float(y), float(z)) for x, y, z in at.tolist())
