"""The making order: how a piece balances after every stem, and an order that keeps it on its feet."""

from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from jolly_trellis.core.acts.stances import while_flowered
from jolly_trellis.core.books.bodies import (
    Body,
    Case,
    State,
    level_m,
    own_bare,
    rows_in,
    standing_together,
    tied_weights,
)
from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.memory import remembered
from jolly_trellis.core.building import stacks
from jolly_trellis.core.building.build import Build
from jolly_trellis.core.building.footing import Footing, Outline
from jolly_trellis.core.checks import stand_ledge
from jolly_trellis.core.checks.balance import DIRECTIONS, footing_of, turning_kg_m
from jolly_trellis.core.checks.making_phases import phases_of, usual_order
from jolly_trellis.core.geometry import Array, azimuth_rays
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.plan.piece import StemRef
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.stems.stem_set import laid_out_lines

TIP_MAKING = rule("Tip angle a piece needs while it is being made", "angle", float(np.radians(8)))
_CASES: tuple[Case, ...] = ("typical", "heavy")
_MOST_USE = 10.0
# Columns of a running sum: mass, its first moments, and the moments about a ledge's edge.
_M, _X, _Y, _Z, _OUT, _IN = range(6)


Order = npt.NDArray[np.intp]


@dataclass(frozen=True, slots=True, kw_only=True)
class Tipping:
    """One body that can tip by itself: what bears it, its running sum before any stem, its water's turning.

    `start` has shape (cases, 6); `turning_kg_m` is water times its rise about both axes; `lift_m` is taken off
    heights, for a bowl that tips on its support.
    """

    name: str
    footing: Footing
    on_ledge: bool
    start: Array
    turning_kg_m: Array
    lift_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Work:
    """All stems of a composition as rows, and the bodies they are put into.

    `adds` is what each row adds to each body's sum, shape (rows, bodies, cases, 6). `pulls_kg_m` is each row's mass
    and its first moments in its own vessel, heavy, shape (rows, vessels, 3); `seats` what each vessel's mechanic
    takes, N·m, and the arm on which its stems' weight helps.
    """

    refs: tuple[StemRef, ...]
    phase: npt.NDArray[np.intp]
    mass_kg: Array
    bodies: tuple[Tipping, ...]
    adds: Array
    pulls_kg_m: Array
    seats: tuple[tuple[float, float], ...]
    usual: Order

    def __len__(self) -> int:
        return len(self.refs)


@dataclass(frozen=True, slots=True, kw_only=True)
class Margins:
    """How a composition stands after each step, the first row before any stem: shape (steps + 1,) each.

    `tip_angle_rad` is the least over bodies, cases and directions, `towards` its azimuth's index; `ledge_ratio` the
    least holding ratio, infinite where nothing stands on a ledge; `seat_use` the worst mechanic's moment over what it
    takes; `use` the worst of all against their limits while making. `mass_kg`, `x_m`, `y_m`, `height_m` are the first
    body's, typical.
    """

    tip_angle_rad: Array
    towards: npt.NDArray[np.intp]
    ledge_ratio: Array
    seat_use: Array
    use: Array
    mass_kg: Array
    x_m: Array
    y_m: Array
    height_m: Array


def lay_out(build: Build) -> Work:
    """Everything the running balance needs, worked out once for a composition."""
    vessels = [(build, 0.0, 0.0, True), *_others(build)]
    bodies, body_of = _bodies(build)
    refs: list[StemRef] = []
    mass, phase, usual = [], [], []
    adds = np.zeros((sum(len(each.placement.stems) for each, *_ in vessels), len(bodies), len(_CASES), 6))
    pulls = np.zeros((len(adds), len(vessels), 3))
    for index, (made, x, y, _) in enumerate(vessels):
        first, count = len(refs), len(made.placement.stems)
        refs += refs_of(made, index)
        place_m = np.array([x, y, made.raised_m])
        mass.append(made.rows.mass_kg)
        phase.append(phases_of(made))
        usual.append(usual_order(made) + first)
        rows = slice(first, first + count)
        for place in body_of[index]:
            for case_index, case in enumerate(_CASES):
                in_case = rows_in(made, case)
                adds[rows, place, case_index] = _sums(in_case.mass_kg, in_case.centre_m + place_m, bodies[place])
        heavy = made.heavy_rows
        pulls[rows, index, 0] = heavy.mass_kg
        pulls[rows, index, 1:] = heavy.mass_kg[:, None] * heavy.centre_m[:, :2]
    phases = np.concatenate(phase) if phase else np.zeros(0, dtype=np.intp)
    together = np.concatenate(usual)
    return Work(
        refs=tuple(refs),
        phase=phases,
        mass_kg=np.concatenate(mass),
        bodies=bodies,
        adds=adds,
        pulls_kg_m=pulls,
        seats=tuple(_seat(made) for made, *_ in vessels),
        usual=together[np.argsort(phases[together], kind="stable")],
    )


def refs_of(build: Build, vessel: int) -> tuple[StemRef, ...]:
    """The name of every row of a build: its line in the recipe as planned, and which of that line's it is."""
    return _refs(build.piece.recipe, build.placement.stems.line_index, vessel)


@remembered
def _refs(recipe: tuple[RecipeLine, ...], line_index: tuple[int, ...], vessel: int) -> tuple[StemRef, ...]:
    lines = laid_out_lines(recipe)
    seen: dict[int, int] = {}
    refs = []
    for place in line_index:
        line = lines[place]
        refs.append(StemRef(line=line, nth=seen.get(line, 0), vessel=vessel))
        seen[line] = seen.get(line, 0) + 1
    return tuple(refs)


def kept_order(work: Work, kept: tuple[StemRef, ...]) -> tuple[Order, int]:
    """The order a hand has set, and how many stems of the recipe it leaves out.

    Stems it leaves out come last in the usual order; stems that are gone from the recipe are passed over. An empty
    order gives the usual one.
    """
    if not kept:
        return work.usual, 0
    place = {ref: row for row, ref in enumerate(work.refs)}
    rows = list(dict.fromkeys(place[ref] for ref in kept if ref in place))
    named = set(rows)
    left = [row for row in work.usual.tolist() if row not in named]
    return np.array([*rows, *left], dtype=np.intp), len(left)


def walk(work: Work, order: Order) -> Margins:
    """How the composition stands before the first stem and after each one, in an order."""
    start = np.stack([each.start for each in work.bodies])
    sums = np.concatenate([start[None], start + np.cumsum(work.adds[order], axis=0)])
    pulls = np.concatenate([np.zeros((1, *work.pulls_kg_m.shape[1:])), np.cumsum(work.pulls_kg_m[order], axis=0)])
    angle, towards, held = _stands(work, sums)
    seat = seat_use(work, pulls)
    first = sums[:, 0, 0]
    mass = np.maximum(first[:, _M], 1e-9)
    return Margins(
        tip_angle_rad=angle,
        towards=towards,
        ledge_ratio=held,
        seat_use=seat,
        use=use_while_making(angle, held, seat),
        mass_kg=first[:, _M],
        x_m=first[:, _X] / mass,
        y_m=first[:, _Y] / mass,
        height_m=first[:, _Z] / mass,
    )


def use_of(work: Work, sums: Array, pulls: Array) -> Array:
    """Worst use of running sums of shape (n, bodies, cases, 6) and pulls of shape (n, vessels, 3)."""
    angle, _, held = _stands(work, sums)
    return use_while_making(angle, held, seat_use(work, pulls))


def use_while_making(angle: Array, held: Array, seat: Array) -> Array:
    """Worst use against the limits while making: tip angle 8°, ledge ratio 1.2, the mechanic's moment."""
    by_angle = np.where(angle > 0, TIP_MAKING.value / np.maximum(angle, 1e-9), _MOST_USE)
    by_ledge = np.where(held > 0, stand_ledge.MAKING_FACTOR.value / np.maximum(held, 1e-9), _MOST_USE)
    return np.minimum(np.maximum(np.maximum(by_angle, by_ledge), seat), _MOST_USE)


def _stands(work: Work, sums: Array) -> tuple[Array, npt.NDArray[np.intp], Array]:
    """(least tip angle, its azimuth, least ledge ratio) of running sums of shape (n, bodies, cases, 6)."""
    ray_x, ray_y = azimuth_rays(DIRECTIONS)
    angles, held = [], np.full(len(sums), np.inf)
    for index, body in enumerate(work.bodies):
        sum_ = sums[:, index]
        mass = np.maximum(sum_[..., _M], 1e-9)
        x, y = (sum_[..., column] / mass for column in (_X, _Y))
        edge = body.footing.edge_m(x[..., None], y[..., None], ray_x, ray_y)
        rise = (body.turning_kg_m[0] * ray_x**2 + body.turning_kg_m[1] * ray_y**2) / mass[..., None]
        up = (sum_[..., _Z] / mass - body.lift_m)[..., None] + rise
        slope = edge / np.maximum(up, 1e-3)
        if body.on_ledge:
            slope = np.where(stand_ledge.towards_front(), np.inf, slope)
            ratio = np.where(sum_[..., _OUT] > 1e-9, sum_[..., _IN] / np.maximum(sum_[..., _OUT], 1e-9), np.inf)
            held = np.minimum(held, ratio.min(axis=1))
        angles.append(slope.min(axis=1))
    slopes = np.stack(angles, axis=1).min(axis=1)
    towards = slopes.argmin(axis=1)
    return np.arctan(slopes.min(axis=1)), towards, held


def seat_use(work: Work, pulls: Array) -> Array:
    """Worst mechanic's moment over what it takes, as `build.demand_n_m` has it, of sums of shape (n, vessels, 3)."""
    worst = np.zeros(len(pulls))
    for index, (takes, arm) in enumerate(work.seats):
        moment = np.hypot(pulls[:, index, 1], pulls[:, index, 2]) - pulls[:, index, 0] * arm
        worst = np.maximum(worst, np.maximum(moment, 0.0) * GRAVITY_M_S2 / takes)
    return worst


def _seat(build: Build) -> tuple[float, float]:
    mechanic = build.mechanic
    alone = mechanic.frog_radius_m if mechanic.netting_free else 0.0
    return max(mechanic.seat_moment_n_m, 1e-3), max(mechanic.seat_arm_m, alone)


def _others(build: Build) -> list[tuple[Build, float, float, bool]]:
    return [
        (made, each.x_m, each.y_m, each.tied)
        for made, each in zip(build.companions, build.piece.companions, strict=True)
    ]


def _bodies(build: Build) -> tuple[tuple[Tipping, ...], list[list[int]]]:
    """Every body that can tip, and which of them each vessel's stems are part of."""
    together = standing_together(build)
    bodies = [_standing(build, "the composition" if len(together) > 1 else "the piece", together, footing_of(build))]
    body_of: list[list[int]] = [[0]]
    support = build.piece.support
    if support is not None and not support.putty and stacks.on_support(build.piece).foot_width_m:
        body_of[0].append(len(bodies))
        bodies.append(_on_joint(build))
    for made, each in zip(build.companions, build.piece.companions, strict=True):
        if each.tied:
            body_of.append([0])
            continue
        body_of.append([len(bodies)])
        alone = replace(made, piece=replace(made.piece, name=each.name))
        footing = footing_of(made)
        feet = tuple(replace(foot, x_m=foot.x_m + each.x_m, y_m=foot.y_m + each.y_m) for foot in footing.feet)
        front = None if footing.front_m is None else footing.front_m + each.y_m
        moved = Footing(feet=feet, front_m=front)
        bodies.append(_standing(alone, each.name, ((made, each.x_m, each.y_m),), moved))
    return tuple(bodies), body_of


def _standing(build: Build, name: str, together: tuple[tuple[Build, float, float], ...], footing: Footing) -> Tipping:
    on_ledge = build.piece.setting.where == "ledge"
    watered = [(made, x, y, _while_made(made)) for made, x, y in together]
    turning = np.array([turning_kg_m(made, state) for made, _, _, state in watered]).sum(axis=0)
    started = []
    for case in _CASES:
        fixed = list(tied_weights(build))
        for made, x, y, state in watered:
            bare = own_bare(made, case, state)
            fixed += [replace(each, x_m=each.x_m + x, y_m=each.y_m + y) if x or y else each for each in bare]
        start = _fixed_sums(fixed, footing if on_ledge else None)
        start[_OUT] += stand_ledge.pull_moment_n_m(build, case)[1] if on_ledge else 0.0
        started.append(start)
    return Tipping(
        name=name,
        footing=footing,
        on_ledge=on_ledge,
        start=np.stack(started),
        turning_kg_m=turning,
        lift_m=0.0,
    )


def _on_joint(build: Build) -> Tipping:
    """The bowl on a support that nothing bonds: it tips over the joint's edge with its own mass."""
    support, vessel = build.piece.support, stacks.on_support(build.piece)
    across = stacks.joint_across_m(vessel, support) if support is not None else 0.0
    up = support.height_m if support is not None else 0.0
    offset = stacks.offset_of(support, vessel) if support is not None else 0.0
    edge = stacks.joint_edge_m(bowl_foot_m=across, support_top_m=across, offset_m=offset)
    state = _while_made(build)
    above = [[each for each in own_bare(build, case, state) if each.on_joint] for case in _CASES]
    ring = Outline(plan_shape="round", x_m=0.0, y_m=0.0, width_m=2 * edge, depth_m=2 * edge)
    return Tipping(
        name="the bowl on its support",
        footing=Footing(feet=(ring,)),
        on_ledge=False,
        start=np.stack([_fixed_sums(fixed, None) for fixed in above]),
        turning_kg_m=np.array(turning_kg_m(build, state)),
        lift_m=up,
    )


def _while_made(build: Build) -> State:
    """The water it has while its stems go in: none where it is made dry, else as on the bench; on show in a vase."""
    stance = while_flowered(build.acts)
    level = None if stance is None else stance.level
    return State(level_m=level_m(build, level))


def _fixed_sums(bodies: list[Body], ledge: Footing | None) -> Array:
    if not bodies:
        return np.zeros(6)
    rows = np.array([(each.mass_kg, each.x_m, each.y_m, each.height_m) for each in bodies])
    return _six(rows[:, 0], rows[:, 1:], ledge).sum(axis=0)


def _sums(mass_kg: Array, centre_m: Array, body: Tipping) -> Array:
    return _six(mass_kg, centre_m, body.footing if body.on_ledge else None)


def _six(mass_kg: Array, centre_m: Array, ledge: Footing | None) -> Array:
    """Each row's mass, first moments, and moments about the ledge's edge (0 on no ledge), shape (rows, 6)."""
    outward = np.zeros(len(mass_kg)) if ledge is None else mass_kg * GRAVITY_M_S2 * (ledge.axis_m - centre_m[:, 1])
    return np.stack(
        [
            mass_kg,
            mass_kg * centre_m[:, 0],
            mass_kg * centre_m[:, 1],
            mass_kg * centre_m[:, 2],
            np.maximum(outward, 0.0),
            np.maximum(-outward, 0.0),
        ],
        axis=1,
    )
