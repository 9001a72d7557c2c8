"""A low last point, a wall behind, how the weight lies left and right, and newtons said with kilograms."""

from dataclasses import replace

import numpy as np
import pytest

from jolly_trellis.core.checks.sides import sides_of
from jolly_trellis.core.quantities import pull
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.network import network, solve
from jolly_trellis.core.rigging.rig import Attachment, HangPoint, Mount, Rig, RigLine
from jolly_trellis.core.units import text_of
from tests import rigs
from tests.ordinary import conditions, recipe

ALONG = (0.1, 1.7, 3.3, 4.9, 7.4)


def low(last_m: float, stiffness: str) -> Rig:
    """Nine metres on five points, the last of them low: a door frame, and 5 cm of line to it."""
    base = rigs.run()
    points = (*base.points[:4], replace(base.points[4], z_m=last_m), *base.points[5:])
    places = [replace(each, along_m=along) for each, along in zip(base.attachments, ALONG, strict=True)]
    places[4] = replace(places[4], z_m=last_m - 0.05)
    armature = replace(base.armature, length_m=9.0, stiffness=stiffness)  # type: ignore[arg-type]
    return replace(base, points=points, attachments=tuple(places), armature=armature)


@pytest.mark.parametrize("stiffness", ["loose", "twig-stiffened", "cored"])
@pytest.mark.parametrize("last_m", [2.2, 1.4])
def test_a_low_last_point_is_no_reason_to_refuse(last_m: float, stiffness: str) -> None:
    report = assess(low(last_m, stiffness), conditions())
    assert report.rest.residual < 1e-5
    lift = sum(pulled[2] for pulled in (state.pulls_n[0] for state in report.points))
    assert -lift == pytest.approx(report.rest.load_n, rel=1e-4)
    ends = [place[2] for place in report.rest.attachments_m]
    assert ends[4] < min(ends[:4])


def test_what_only_balances_is_nudged_to_where_it_rests_under_its_point() -> None:
    """A weight on a stiff bar of 1 m, straight over its point: it comes to hang a metre under it, pulling 10 N."""
    upright = network(
        start_m=np.array([[0.0, 0.0, 2.0], [0.0, 0.0, 3.0]]),
        fixed=np.array([True, False]),
        load_n=np.array([0.0, 10.0]),
        ends=np.array([[0, 1]]),
        rest_m=np.array([1.0]),
        stiffness_n=np.array([1e5]),
        slack=np.array([False]),
    )
    found = solve(upright)
    assert found.at_m[1] == pytest.approx([0, 0, 1.0], abs=2e-3)
    assert found.tension_n[0] == pytest.approx(10.0, rel=1e-4)
    assert found.reaction_n[0] == pytest.approx([0, 0, 10.0], abs=1e-3)


def on_wall(line_m: float, *, mounted: bool = True) -> Rig:
    """A roll of 2.2 m on four wall screws, its back so far from the wall, held by lines just as long."""
    xs = (-0.9, -0.3, 0.3, 0.9)
    rated = {"rating_n": 300.0, "pull_out_n": 250.0, "stated_by": "the owner"}
    points = tuple(HangPoint(name=f"screw {x}", kind="wall screw", x_m=x, y_m=0.0, z_m=2.0, **rated) for x in xs)  # type: ignore[arg-type]
    places = tuple(Attachment(x_m=x, y_m=-line_m, z_m=2.0, along_m=1.1 + x) for x in xs)
    base = rigs.run()
    return replace(
        base,
        points=points,
        attachments=places,
        lines=tuple(RigLine(point=at, attachment=at, spec=rigs.STEEL) for at in range(4)),
        armature=replace(base.armature, length_m=2.2, stiffness="cored"),
        recipe=recipe(ruscus=(20, "base")),
        bond=None,
        below="nobody",
        mount=Mount(kind="wall", arm_m=0.05, bears_below_m=0.1) if mounted else None,
    )


@pytest.mark.parametrize("line_m", [0.05, 0.10])
def test_a_roll_tied_to_a_wall_by_short_lines_hangs_under_its_screws(line_m: float) -> None:
    report = assess(on_wall(line_m), conditions())
    back = np.array(report.rest.at_m)[:, 1]
    assert back.max() <= 1e-3
    assert [place[2] for place in report.rest.attachments_m] == pytest.approx([2.0 - line_m] * 4, abs=0.012)
    assert report.verdict.state in ("holds", "tight")


def test_a_wall_pushes_and_never_pulls() -> None:
    """A ball of 10 N on a line of 0.5 m, pushed 0.3 m forward by a wall that stands before its point: by hand the line
    leans 3 in 4, so the wall pushes 7.5 N and the line pulls 12.5 N. A wall behind it does nothing."""

    def hung(wall: float) -> tuple[np.ndarray, float]:
        found = solve(
            network(
                start_m=np.array([[0.0, 0.0, 2.0], [0.0, -0.3, 1.6]]),
                fixed=np.array([True, False]),
                load_n=np.array([0.0, 10.0]),
                ends=np.array([[0, 1]]),
                rest_m=np.array([0.5]),
                stiffness_n=np.array([1e5]),
                slack=np.array([True]),
                wall_y_m=np.array([np.inf, wall]),
            )
        )
        return found.reaction_n[0], float(found.tension_n[0])

    reaction, tension = hung(-0.3)
    assert reaction == pytest.approx([0, 7.5, 10.0], abs=0.02)
    assert tension == pytest.approx(12.5, abs=0.02)
    reaction, tension = hung(0.1)
    assert (reaction[1], tension) == pytest.approx((0.0, 10.0), abs=1e-3)


def test_shares_of_weight_left_and_right_front_and_back() -> None:
    """By hand: 3 kg left, 1 kg right, 2 kg at the middle count 1 and 1; of front and back 2 and 4."""
    weight = np.array([3.0, 1.0, 2.0])
    at = np.array([[-0.5, -0.2], [0.4, 0.3], [0.003, 0.3]])
    sides = sides_of(weight, at)
    assert (sides.left, sides.right) == pytest.approx((4 / 6, 2 / 6))
    assert (sides.front, sides.back) == pytest.approx((3 / 6, 3 / 6))
    assert sides_of(weight, at, (-1.0, 0.0)).left == 0.0


def test_hung_work_says_how_its_weight_lies() -> None:
    even = assess(rigs.run(), conditions()).sides
    assert even is not None
    assert (even.left, even.front) == pytest.approx((0.5, 0.5), abs=0.01)
    fuller = replace(rigs.run().armature, density=(1.0, 0.3))
    tapered = assess(replace(rigs.run(), armature=fuller), conditions()).sides
    assert tapered is not None
    assert abs(tapered.left - 0.5) > 0.05
    runner = replace(rigs.run().armature, kind="runner")
    assert assess(replace(rigs.run(), armature=runner, lines=(), points=(), bond=None), conditions()).sides is None


def test_a_pull_is_said_with_the_weight_it_feels_like() -> None:
    assert text_of(pull(134.8), "metric") == "134.8 N (13.7 kg)"
    assert text_of(pull(134.8), "inch") == "30.3 lbf"
    report = assess(rigs.run(), conditions())
    line = next(each for each in report.verdict.findings if each.check == "line")
    assert line.value.kind == "pull"
