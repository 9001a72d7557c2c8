"""A rig judged: every line whole, one a little long, one gone; hang points against what was stated; clearance."""

import math
from dataclasses import dataclass, replace

import numpy as np

from jolly_trellis.core.acts.passed import Passed, passed_dry
from jolly_trellis.core.books.figures import Figure, Shown, rule
from jolly_trellis.core.checks.hang import CONTINGENCY, HANDLING
from jolly_trellis.core.checks.sides import Sides, sides_of
from jolly_trellis.core.checks.verdicts import Verdict, conclude
from jolly_trellis.core.errors import CoreError, InvalidMeasure
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.provenance import COMPUTED, Provenance
from jolly_trellis.core.quantities import mass, phrase, pull
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging import mounts
from jolly_trellis.core.rigging.acts import acts_of_rig
from jolly_trellis.core.rigging.chains import chain_pull_n, hung_as_chain
from jolly_trellis.core.rigging.coverage import Coverage, cover
from jolly_trellis.core.rigging.drops import DropRow, as_made, highest_stand_m, longest_drop_m
from jolly_trellis.core.rigging.findings import ANGLE_LEAST, Worked, findings_of
from jolly_trellis.core.rigging.hang_points import POINTS
from jolly_trellis.core.rigging.hung_wind import HungWind, wind_on
from jolly_trellis.core.rigging.layout import LaidOut, along_m, lay_out
from jolly_trellis.core.rigging.levelling import Tighten, cut_length_m, tightening
from jolly_trellis.core.rigging.loads import Load, TakeOff, proof_kg, take_off
from jolly_trellis.core.rigging.making import RigStep, making_of
from jolly_trellis.core.rigging.network import Settled, solve
from jolly_trellis.core.rigging.raising import Raising, raising_of
from jolly_trellis.core.rigging.resting import (
    Rest,
    body_m,
    design_load,
    drawn,
    line_tensions,
    lying,
    rest_of,
    states_of,
    top_m,
)
from jolly_trellis.core.rigging.rig import HangPoint, Rig
from jolly_trellis.core.rigging.states import HangState, LineCase, LineState, PointState, name_of, rating_of
from jolly_trellis.core.rigging.tied import round_m
from jolly_trellis.core.wanted import go_on

NO_LINE_N = 1.0e6
PULL_COUNTS = rule("A pull on a hang point has a direction from", "force", 0.5)
LONG = rule("One line longer than it should be by", "ratio", 0.01)


@dataclass(frozen=True, slots=True, kw_only=True)
class RigReport:
    """A rig worked out: where it rests, what every line and point bears in the worst case, and the Hang verdict.

    `states` is how it hangs bare, with one face (of a panel or ring: one half) done, and finished; those that find no
    rest are left out. `standing` is how its frame stands, None without one; `tightening` the order of levelling;
    `core_bed_m2` the sealant that the core of a sleeve is bedded on. `sides` is how its weight lies about its middle
    as it hangs; None for what lies on a table. The flowers stand `projection_m` off it, and the highest of it is
    `top_m` over the floor. `wind` pushes what hangs free outdoors; `raising` is how it goes up, `making` the order it
    is made in, `acts` what is done to it from the workshop to the end.
    """

    take_off: TakeOff
    coverage: Coverage
    drops: tuple[DropRow, ...]
    rest: Rest
    states: tuple[HangState, ...]
    lines: tuple[LineState, ...]
    points: tuple[PointState, ...]
    tightening: tuple[Tighten, ...]
    standing: mounts.FrameStand | None
    core_bed_m2: float
    proof_kg: float
    sides: Sides | None
    projection_m: float
    top_m: float
    wind: HungWind | None
    raising: Raising | None
    making: tuple[RigStep, ...]
    verdict: Verdict
    acts: tuple[Passed, ...] = ()


def assess(rig: Rig, conditions: Conditions) -> RigReport:
    """Work out a rig: settled whole as a chain and as a stiff beam; each line 1 % long; each line gone.

    A line's tension is the larger of chain and beam; the shape follows the stiffness that is stated.

    Raises: CoreError: the rig cannot be, or has no rest position; a proof load under the finished load.
    NobodyWaits: it is wanted no more.
    """
    with conditions.figures.open():
        return _assess(rig, conditions)


def _assess(rig: Rig, conditions: Conditions) -> RigReport:
    go_on()
    rig = as_made(rig)
    weighed = take_off(rig, conditions)
    load = design_load(weighed)
    proof = chosen_proof_kg(rig, weighed)
    if rig.lies:
        return _lying_report(rig, weighed, load.total_n, conditions, proof)
    shown = lay_out(rig, load, as_if=None)
    settled = solve(shown.net)
    ways, chain = [(shown, settled)], 0.0
    if rig.is_run and not rig.is_tied:
        slack, hung = hung_as_chain(rig, load)
        chain = chain_pull_n(slack, hung.at_m, hung.tension_n)
        beam = lay_out(rig, load, as_if="beam")
        ways += [(slack, hung), (beam, solve(beam.net, count_modes=False))]
    whole = np.max([line_tensions(made, found) for made, found in ways], axis=0)
    uneven, uneven_pulls = _uneven(rig, shown, settled)
    gone, gone_pulls = _each_gone(rig, load)
    pulls = [*(_point_pulls(rig, made, found) for made, found in ways), *uneven_pulls, *gone_pulls]
    lines = tuple(_line_state(rig, index, whole, uneven, gone, shown, settled) for index in range(len(rig.lines)))
    points = tuple(_point_state(point, index, pulls) for index, point in enumerate(rig.points))
    rest = drawn(rig, rest_of(rig, load.total_n, shown, settled), conditions)
    sized = weighed.sized
    thick = sized.finished_thick_m if rig.is_run else 2 * rig.armature.projection_m
    reach = tuple(_reach(rig, index, shown, settled)[0] for index in range(len(rig.lines)))
    wind = wind_on(rig, typical_kg=weighed.typical_kg, thick_m=thick, longest_line_m=max(reach, default=0.0))
    worked = Worked(
        weighed=weighed,
        load_n=load.total_n,
        lines=lines,
        points=points,
        at_m=rest.at_m,
        body_m=body_m(rig, rest.at_m),
        lowest_m=rest.lowest_m,
        along_m=tuple(along_m(rig)) if rig.is_run else (),
        chain_n=chain,
        thick_m=thick,
        wide_m=sized.finished_thick_m if rig.is_run else _deep_m(rig),
        wind=wind,
    )
    findings, missing = findings_of(rig, worked, conditions)
    return RigReport(
        take_off=weighed,
        coverage=cover(rig, conditions),
        drops=weighed.drops,
        rest=rest,
        states=states_of(rig, weighed, rest),
        lines=lines,
        points=points,
        tightening=tightening(rig, reach, tuple(whole.tolist())),
        standing=mounts.standing(rig, rest.at_m, weighed.typical_kg, worked.thick_m, worked.wide_m),
        core_bed_m2=mounts.core_bed_m2(rig.armature.core_kg),
        proof_kg=proof,
        sides=_sides(shown, settled),
        projection_m=rig.armature.projection_m,
        top_m=top_m(rig, rest.at_m),
        wind=wind,
        raising=raising_of(rig, load, rest.at_m),
        making=making_of(rig, weighed, conditions.varieties),
        acts=passed_dry(acts_of_rig(rig, conditions.varieties)),
        verdict=conclude("hang", findings, missing=missing, figures=_figures(rig, weighed, load.total_n)),
    )


def _sides(made: LaidOut, found: Settled) -> Sides:
    """How the weight of the armature, with all that is on it, lies about the middle of its length and depth."""
    own = list(made.armature_nodes)
    at = found.at_m[own]
    middle = (at.min(axis=0) + at.max(axis=0)) / 2
    return sides_of(made.net.load_n[own], at, (float(middle[0]), float(middle[1])))


def chosen_proof_kg(rig: Rig, weighed: TakeOff) -> float:
    """The proof load, kg: what somebody has chosen, else finished × 1.25.

    Raises: InvalidMeasure: it is less than what will hang.
    """
    if rig.proof_kg is None:
        return proof_kg(weighed)
    if rig.proof_kg < weighed.heavy_kg - 1e-9:
        raise InvalidMeasure(
            path="proof_kg",
            message=phrase(
                "A proof load of {p} is less than what will hang, {w}: it proves nothing.",
                p=mass(rig.proof_kg),
                w=mass(weighed.heavy_kg),
            ),
            limit=phrase("Prove it with {n}, or leave it empty for that.", n=mass(proof_kg(weighed))),
        )
    return rig.proof_kg


def _deep_m(rig: Rig) -> float:
    """A panel or ring from its highest stem to its lowest, m."""
    return longest_drop_m(rig) + highest_stand_m(rig) + 2 * rig.armature.projection_m


def _lying_report(rig: Rig, weighed: TakeOff, load: float, conditions: Conditions, proof: float) -> RigReport:
    rest = drawn(rig, lying(rig, load), conditions)
    return RigReport(
        take_off=weighed,
        coverage=cover(rig, conditions),
        drops=weighed.drops,
        rest=rest,
        states=(),
        lines=(),
        points=(),
        tightening=(),
        standing=None,
        core_bed_m2=0.0,
        proof_kg=proof,
        sides=None,
        projection_m=rig.armature.projection_m,
        top_m=top_m(rig, rest.at_m),
        wind=None,
        raising=None,
        making=making_of(rig, weighed, conditions.varieties),
        acts=passed_dry(acts_of_rig(rig, conditions.varieties)),
        verdict=conclude("hang", [], not_needed=phrase("It lies where it is; nothing hangs.")),
    )


def _point_pulls(rig: Rig, made: LaidOut, settled: Settled) -> Array:
    """Pull on each hang point, shape (points, 3), newtons: what the lines drag it by."""
    if made.shares_n is not None:
        return _tie_pulls(rig, made.shares_n)
    return -settled.reaction_n[list(made.point_node)]


def _uneven(rig: Rig, made: LaidOut, settled: Settled) -> tuple[Array, list[Array]]:
    """Worst tension of every line with each line in turn 1 % long, and the pulls on the points then.

    Ties are pulled up until each bears its share, so no length of theirs makes them uneven.
    """
    if made.shares_n is not None:
        return made.shares_n, []
    worst, pulls = np.zeros(len(made.line_link)), []
    for link in made.line_link:
        rest = made.net.rest_m.copy()
        rest[link] *= 1 + LONG.value
        there = solve(replace(made.net, rest_m=rest), settled.at_m, count_modes=False)
        worst = np.maximum(worst, line_tensions(made, there))
        pulls.append(_point_pulls(rig, made, there))
    return worst, pulls


def _each_gone(rig: Rig, load: Load) -> tuple[Array, list[Array]]:
    """Worst tension of every line with each other line gone, and the pulls on the points then."""
    worst, pulls = np.zeros(len(rig.lines)), []
    for gone in range(len(rig.lines)):
        left = [index for index in range(len(rig.lines)) if index != gone]
        if not left:
            continue
        bare = replace(rig, lines=tuple(rig.lines[index] for index in left))
        try:
            made = lay_out(bare, load, as_if=None)
            tension, pull = _borne(bare, made)
        except CoreError:
            worst[left] = np.inf
            continue
        worst[left] = np.maximum(worst[left], tension)
        pulls.append(pull)
    return worst, pulls


def _borne(rig: Rig, made: LaidOut) -> tuple[Array, Array]:
    """Tension of every line and pull on every point; ties share by where they are, with nothing to settle."""
    if made.shares_n is not None:
        return made.shares_n, _tie_pulls(rig, made.shares_n)
    settled = solve(made.net, count_modes=False)
    return line_tensions(made, settled), _point_pulls(rig, made, settled)


def _tie_pulls(rig: Rig, shares_n: Array) -> Array:
    pulls = np.zeros((len(rig.points), 3))
    for line, share in zip(rig.lines, shares_n.tolist(), strict=True):
        pulls[line.point or 0, 2] -= share
    return pulls


def _line_state(
    rig: Rig, index: int, whole: Array, uneven: Array, gone: Array, made: LaidOut, settled: Settled
) -> LineState:
    line = rig.lines[index]
    tensions: dict[LineCase, float] = {
        "whole": float(whole[index]),
        "uneven": float(uneven[index]),
        "one gone": float(gone[index]),
    }
    own: dict[LineCase, float] = {
        case: line_rules.working_limit_n(line.spec, over_people=rig.over_people, one_gone=case == "one gone")
        for case in tensions
    }
    marked = [(each.wll_n, each.kind) for each in line.hardware if each.wll_n is not None]
    least, kind = min(marked, default=(math.inf, ""))
    limits = {case: min(limit, least) for case, limit in own.items()}
    governs = max(tensions, key=lambda case: tensions[case] / limits[case])
    reach, angle_rad = _reach(rig, index, made, settled)
    return LineState(
        name=name_of(rig, line),
        tension_n=tensions["whole"],
        design_n=min(tensions[governs], NO_LINE_N),
        limit_n=limits[governs],
        breaking_n=line_rules.breaking_n(line.spec),
        use=min(tensions[governs] / limits[governs], 99.0),
        governs=governs,
        angle_rad=angle_rad,
        cut_length_m=cut_length_m(line.spec, reach, rig.levelling_m),
        weakest=kind if least < own[governs] else "",
        pieces=line_rules.pieces_of(line.spec, reach),
    )


def _reach(rig: Rig, index: int, made: LaidOut, settled: Settled) -> tuple[float, float]:
    """How far a line reaches, m, and its angle to the horizontal at rest, rad; a tie goes once round."""
    if made.shares_n is not None:
        return round_m(rig), math.pi / 2
    link = made.line_link[index]
    one, other = (settled.at_m[node] for node in made.net.ends[link])
    rise, away = float(abs(one[2] - other[2])), float(np.hypot(one[0] - other[0], one[1] - other[1]))
    return float(made.net.rest_m[link]), math.atan2(rise, away)


def _point_state(point: HangPoint, index: int, pulls: list[Array]) -> PointState:
    """A hang point over all cases: its greatest pull, and how far off its rated direction it is pulled in any."""
    here = [each[index] for each in pulls]
    sizes = [float(np.linalg.norm(each)) for each in here]
    size = max(sizes)
    counted = [pull for pull, newtons in zip(here, sizes, strict=True) if newtons > PULL_COUNTS.value]
    off = max((_off_rad(point, pull) for pull in counted), default=0.0)
    rating = rating_of(point)
    use = None if rating is None else size / rating
    return PointState(
        name=point.name,
        pull_n=size,
        off_rad=off,
        use=use,
        pulls_n=tuple((float(right), float(back), float(up)) for right, back, up in (each.tolist() for each in here)),
    )


def _off_rad(point: HangPoint, pull: Array) -> float:
    """How far a pull is off the direction a rating was stated for: straight down, or anywhere along a screw's wall."""
    right, back, up = pull.tolist()
    if POINTS[point.kind].in_wall:
        return math.atan2(abs(back), math.hypot(right, up))
    return math.atan2(math.hypot(right, back), -up)


def _figures(rig: Rig, weighed: TakeOff, load: float) -> list[Shown]:
    own = [
        Figure(label="Finished, typical", quantity=mass(weighed.typical_kg), provenance=COMPUTED),
        Figure(label="Finished, heavy", quantity=mass(weighed.heavy_kg), provenance=COMPUTED),
        Figure(label="Counted as", quantity=pull(load), provenance=Provenance(kind="computed")),
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
        *mounts.figures(rig),
    ]
