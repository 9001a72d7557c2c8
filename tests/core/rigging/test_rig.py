"""Whole rigs: take-off, what governs a line, stated ratings, the second bond, snipping to its end, what is refused."""

import math
from dataclasses import replace
from itertools import pairwise

import pytest

from jolly_trellis.core.errors import CoreError, InvalidMeasure, UnknownName
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.rigging.armatures import strip_length_m, strip_width_m, turns_of
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.loads import proof_kg, take_off
from jolly_trellis.core.rigging.rig import Attachment, Bond, HangPoint, RigLine
from jolly_trellis.core.rigging.snip import snip
from tests.ordinary import conditions, lacks, recipe
from tests.rigs import OWN, STEEL, THIN, bond, checks, on_one_point, panel, run, state


def test_a_strip_for_a_snake() -> None:
    """Worked from geometry: a 0.55 m strip at 0.11 m diameter goes round 1.59 times."""
    assert turns_of(0.55, 0.11) == pytest.approx(1.59, abs=0.005)
    assert strip_width_m(0.11, turns_of(0.55, 0.11)) == pytest.approx(0.55)
    assert strip_length_m(3.0, twisted=False) == pytest.approx(3.45)
    assert strip_length_m(3.0, twisted=True) > strip_length_m(3.0, twisted=False)


def test_the_take_off_is_the_sum_of_its_parts_and_what_is_counted() -> None:
    weighed = take_off(run(), conditions())
    assert weighed.typical_kg == pytest.approx(sum(each.typical_kg for each in weighed.parts))
    assert weighed.heavy_kg > weighed.typical_kg
    assert proof_kg(weighed) == pytest.approx(1.25 * weighed.heavy_kg)
    assert assess(run(), conditions()).rest.load_n == pytest.approx(weighed.heavy_kg * GRAVITY_M_S2 * 1.1 * 1.25)


def test_tubes_are_weighed_full() -> None:
    """By hand: 100 tubes of 14 × 90 mm with 5 mm of air, 13.085 ml each, and 5 g of tube."""
    dry = run()
    wet = replace(dry, recipe=tuple(replace(line, water="tube") for line in dry.recipe))
    more = take_off(wet, conditions()).typical_kg - take_off(dry, conditions()).typical_kg
    assert more == pytest.approx(100 * (0.005 + 0.013085), rel=1e-4)


def test_wet_wraps_are_weighed_by_the_bundle() -> None:
    """By hand: 60 stems in bundles of 5 are 12 wraps of 40 ml and 6 g."""
    dry = replace(run(), recipe=recipe(gypsophila=(60, "filler")))
    line = replace(dry.recipe[0], water="wrap", clump=5, wrap_ml=40.0)
    more = take_off(replace(dry, recipe=(line,)), conditions()).typical_kg - take_off(dry, conditions()).typical_kg
    assert more == pytest.approx(12 * 0.046)


def test_a_level_run_shares_its_load_evenly_and_in_balance() -> None:
    report = assess(run(), conditions())
    assert report.rest.residual < 1e-5
    assert report.lines[0].tension_n == pytest.approx(report.lines[4].tension_n, rel=0.02)
    assert report.lines[1].tension_n > report.lines[0].tension_n
    assert sum(each.tension_n for each in report.lines) >= report.rest.load_n * 0.99
    assert report.rest.lowest_m < 2.6


def test_a_square_panel_on_four_lines_shares_evenly() -> None:
    report = assess(panel(), conditions())
    assert [each.tension_n for each in report.lines] == pytest.approx([report.rest.load_n / 4] * 4, rel=0.01)
    assert report.rest.tilt_rad == pytest.approx(0.0, abs=1e-3)


def test_a_panel_fuller_on_one_side_pulls_more_there() -> None:
    heavy = assess(panel(armature=replace(panel().armature, density=(1.6, 1.0))), conditions())
    left = heavy.lines[0].tension_n + heavy.lines[1].tension_n
    right = heavy.lines[2].tension_n + heavy.lines[3].tension_n
    assert left > right


def test_a_panel_on_one_line_is_free_to_turn() -> None:
    middle = panel(
        points=(HangPoint(name="hook", kind="eye", x_m=0, y_m=0, z_m=4, rating_n=200, stated_by="the warden"), OWN),
        bond=bond(1),
        attachments=(Attachment(x_m=0, y_m=0, z_m=3),),
        lines=(RigLine(point=0, attachment=0, spec=STEEL),),
    )
    assert assess(middle, conditions()).rest.free_modes >= 1


def test_thin_line_fails_over_people_and_says_in_which_case() -> None:
    report = assess(run(spec=THIN), conditions())
    assert report.verdict.state == "fails"
    assert any(each.use > 1 for each in report.lines)


def test_a_point_nobody_rates_is_no_pass() -> None:
    assert assess(run(rating=None), conditions()).verdict.state == "cannot say"
    assert assess(run(by=None), conditions()).verdict.state == "cannot say"
    rated = assess(run(), conditions())
    assert rated.verdict.state in ("holds", "tight")


def test_over_people_a_second_bond_is_asked_for_and_judged() -> None:
    bare = assess(replace(run(), bond=None), conditions())
    assert bare.verdict.state == "cannot say"
    assert any("second bond" in words for words in lacks(bare.verdict))
    cord = assess(replace(run(), bond=Bond(spec=LineSpec(kind="polyester cord", size_m=0.003), point=5)), conditions())
    assert cord.verdict.state == "fails"
    alone = assess(replace(run(), bond=None, below="nobody"), conditions())
    assert not any("second bond" in words for words in lacks(alone.verdict))


def test_an_adhesive_hook_is_never_over_people() -> None:
    rig = run()
    stuck = replace(rig, points=(replace(rig.points[0], kind="adhesive hook"), *rig.points[1:]))
    report = assess(stuck, conditions())
    assert "never overhead" in checks(report)
    assert report.verdict.state == "fails"


def test_over_a_walkway_it_hangs_high_enough_or_fails() -> None:
    assert "clearance" in checks(assess(replace(run(), below="walkway"), conditions()))
    low = run()
    down = replace(low, below="walkway", attachments=tuple(replace(each, z_m=1.9) for each in low.attachments))
    assert assess(down, conditions()).verdict.state == "fails"


def test_a_flat_line_is_refused_by_its_angle() -> None:
    rig = panel()
    wide = tuple(replace(each, x_m=6 * each.x_m, z_m=3.4) for each in rig.points)
    report = assess(replace(rig, points=wide), conditions())
    assert any(found.check == "line angle" and found.state == "fails" for found in report.verdict.findings)


def test_snipping_a_strong_rig_leaves_it_hanging() -> None:
    for cut in range(5):
        steps = snip(run(), conditions(), cut)
        assert len(steps) == 1
        assert steps[0].cut == (cut,)
        assert steps[0].tension_n[cut] == 0
        assert not steps[0].lets_go


def test_snipping_a_weak_rig_runs_to_its_end_in_solved_steps() -> None:
    weak = LineSpec(kind="monofilament", stated_n=45.0)
    steps = snip(run(spec=weak), conditions(), 2)
    assert len(steps) > 1
    cuts = [set(step.cut) for step in steps]
    assert all(before < after for before, after in pairwise(cuts))
    assert steps[-1].lets_go == ()


def test_with_every_line_gone_it_hangs_on_its_second_bond_or_lies_on_the_floor() -> None:
    weak = LineSpec(kind="monofilament", stated_n=20.0)
    last = snip(panel(lines=tuple(replace(line, spec=weak) for line in panel().lines)), conditions(), 0)[-1]
    assert "Only its second bond holds it, from own" in last.say.text
    assert last.at_m
    assert 0 < last.lowest_m < assess(panel(), conditions()).rest.lowest_m
    bare = panel(lines=tuple(replace(line, spec=weak) for line in panel().lines), bond=None)
    fallen = snip(bare, conditions(), 0)[-1]
    assert "on the floor" in fallen.say.text
    assert fallen.at_m == ()


def test_over_its_limit_and_letting_go_are_two_things() -> None:
    steps = snip(run(spec=LineSpec(kind="monofilament", stated_n=110.0)), conditions(), 2)
    assert steps[0].over_limit
    assert not steps[0].lets_go


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"lines": ()}, "lines"),
        ({"attachments": ()}, "lines.0"),
        ({"lines": (RigLine(point=9, attachment=0, spec=STEEL),)}, "lines.0"),
        ({"points": tuple(replace(each, x_m=0.0) for each in run().points)}, "points.1"),
        ({"points": (replace(run().points[0], rating_n=0.0), *run().points[1:])}, "points.0.rating_n"),
        ({"armature": replace(run().armature, length_m=0.0)}, "armature.length_m"),
        ({"armature": replace(run().armature, length_m=3.0)}, "attachments"),
        ({"attachments": tuple(replace(a, along_m=0.9 * (a.x_m + 3)) for a in run().attachments)}, "attachments"),
    ],
)
def test_a_rig_that_cannot_be_is_refused_beside_its_place(change: dict[str, object], path: str) -> None:
    with pytest.raises(CoreError) as caught:
        assess(replace(run(), **change), conditions())  # type: ignore[arg-type]
    assert caught.value.path == path
    assert caught.value.limit.text


def test_unknown_netting_and_lines_that_are_not_there() -> None:
    with pytest.raises(UnknownName):
        assess(replace(run(), armature=replace(run().armature, netting=None)), conditions())
    with pytest.raises(InvalidMeasure):
        snip(run(), conditions(), 7)


def test_half_a_panel_hangs_out_of_level_as_its_balance_point_says() -> None:
    """Closed form: on one point it turns until its centre of mass is under it: tan(tilt) = aside / below.

    Half done, the flowers of the left half are half the width aside at the rim and the bare panel is not; half a stem
    below the plane, a metre under the point.
    """
    report = assess(on_one_point(), conditions())
    weighed = report.take_off
    flowers = (weighed.heavy_kg - weighed.bare_kg) / 2
    aside = 0.5 * flowers / (flowers + weighed.bare_kg)
    assert state(report, "one face done").tilt_rad == pytest.approx(math.atan(aside / (1.0 + 0.25 / 2)), rel=0.01)
    assert report.rest.tilt_rad == pytest.approx(0.0, abs=1e-3)


def test_lines_straight_up_keep_a_panel_level_and_a_run_rolls_with_one_face_done() -> None:
    """Closed form: a run rolls about its lines until its centre is under them: tan = aside / radius."""
    assert state(assess(panel(), conditions()), "one face done").tilt_rad < 0.01
    report = assess(run(), conditions())
    weighed = report.take_off
    flowers = (weighed.heavy_kg - weighed.bare_kg) / 2
    aside = flowers * (0.055 + 0.05) / (flowers + weighed.bare_kg)
    assert state(report, "one face done").tilt_rad == pytest.approx(math.atan(aside / 0.055))
    assert [each.name for each in report.states] == ["bare", "one face done", "finished"]
    assert state(report, "bare").load_n < state(report, "finished").load_n
