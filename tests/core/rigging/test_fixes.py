"""What clears a rig: every act is worked out whole before it is offered, and does what it says."""

from dataclasses import replace

import pytest

from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.fixes import RigFix, bond_for, fixes_of, stronger_line
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.loads import take_off
from jolly_trellis.core.rigging.more_lines import with_points
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.rigging.stated import statement_of
from tests.ordinary import conditions, recipe
from tests.rigs import STEEL, THIN, bond, panel, run


def offered(rig: Rig) -> dict[str, RigFix]:
    return {each.key: each for each in fixes_of(rig, assess(rig, conditions()), conditions())}


def on_thin_lines(rig: Rig) -> Rig:
    return replace(rig, lines=tuple(replace(line, spec=THIN) for line in rig.lines))


def test_nothing_is_offered_where_it_holds() -> None:
    assert assess(run(), conditions()).verdict.state == "holds"
    assert offered(run()) == {}


def test_thin_lines_are_answered_with_steel_or_with_fewer_stems_and_each_is_so_when_done() -> None:
    thin = on_thin_lines(panel())
    before = assess(thin, conditions())
    assert before.verdict.state == "fails"
    found = offered(thin)
    assert "line" in found
    for each in found.values():
        after = assess(each.rig, conditions())
        assert after.verdict.state == each.state_after
        assert after.verdict.utilisation == each.utilisation_after
        assert max(line.use for line in after.lines) < max(line.use for line in before.lines)
    if "lighter" in found:
        assert sum(line.count for line in found["lighter"].rig.recipe) < 40
        assert all(line.use <= 1 for line in assess(found["lighter"].rig, conditions()).lines)


def test_the_thinnest_steel_that_bears_it_is_named() -> None:
    """The working limit itself is breaking load × fitting / factor: 1.0 mm in grips over people carries 48 N."""
    spec = LineSpec(kind="steel rope", size_m=0.001, fitting="grip")
    assert line_rules.working_limit_n(spec, over_people=True) == pytest.approx(600 * 0.8 / 10)
    light = assess(panel(), conditions())
    assert stronger_line(panel(), light) == spec
    heavy = panel(extra_kg=40.0)
    named = stronger_line(heavy, assess(heavy, conditions()))
    assert named is not None
    assert (named.size_m or 0) > 0.001


def test_a_missing_bond_is_planned_to_keep_ten_times_the_weight() -> None:
    bare = replace(run(), bond=None)
    planned = offered(bare)["bond"].rig.bond
    assert planned is not None
    assert planned.point == 5, "to the rated point that no line leads to"
    bond = planned.spec
    weight = assess(bare, conditions()).take_off.heavy_kg * GRAVITY_M_S2
    assert line_rules.breaking_n(bond) * line_rules.efficiency(bond) >= 10 * weight
    assert (bond.size_m or 0) >= 0.0015


def test_no_bond_is_named_where_no_rope_of_the_table_keeps_it() -> None:
    assert bond_for(assess(panel(extra_kg=60.0), conditions())) is None


def test_what_hangs_too_low_over_a_walkway_is_raised_by_what_it_lacks() -> None:
    rig = panel(below="walkway")
    low = replace(rig, attachments=tuple(replace(each, z_m=2.2) for each in rig.attachments))
    fix = offered(low)["raise"]
    assert assess(fix.rig, conditions()).rest.lowest_m >= 2.2


def test_nothing_is_offered_for_a_fact_that_only_somebody_can_state() -> None:
    assert offered(run(rating=None)) == {}


def test_a_line_of_no_known_strength_is_named_by_its_place() -> None:
    odd = replace(STEEL, size_m=0.0042)
    rig = replace(run(), lines=(*run().lines[:4], replace(run().lines[4], spec=odd)))
    with pytest.raises(Exception, match="No strength is known") as caught:
        assess(rig, conditions())
    assert getattr(caught.value, "path", "") == "lines.4.spec.size_m"


def test_how_many_more_lines_it_takes_is_found_and_their_points_are_still_to_be_rated() -> None:
    few = on_thin_lines(replace(run(count=3), below="nobody"))
    before = assess(few, conditions())
    assert before.verdict.state == "fails"
    fix = offered(few)["more lines"]
    after = assess(fix.rig, conditions())
    assert max(each.use for each in after.lines) <= 1
    assert after.verdict.state == "cannot say"
    assert len(fix.rig.points) > len(few.points)
    assert all(each.rating_n is None for each in fix.rig.points[len(few.points) :])
    one_less = with_points(few, len(fix.rig.points) - len(few.points) - 1)
    assert max(each.use for each in assess(one_less, conditions()).lines) > 1, "no fewer would do"


def test_a_point_that_pulls_askew_is_moved_over_the_place_it_holds() -> None:
    askew = replace(panel(), points=tuple(replace(each, x_m=each.x_m * 3) for each in panel().points))
    fix = offered(askew)["plumb"]
    for line in fix.rig.lines:
        assert line.point is not None
        assert fix.rig.points[line.point].x_m == fix.rig.attachments[line.attachment].x_m
    moved = [at for at, point in enumerate(askew.points) if fix.rig.points[at].x_m != point.x_m]
    assert len(moved) == 4
    for at in moved:
        assert fix.rig.points[at].rating_n is None
        assert statement_of(askew.points[at]) == fix.rig.points[at].elsewhere
    assert fix.state_after == "cannot say", "somebody must rate them where they are now"
    rated = tuple(replace(each, rating_n=200.0, stated_by="the warden") for each in fix.rig.points)
    assert assess(replace(fix.rig, points=rated), conditions()).verdict.state in ("holds", "tight")


def test_tubes_left_out_and_shorter_stems_are_offered_where_they_help() -> None:
    wet = on_thin_lines(panel())
    wet = replace(wet, recipe=tuple(replace(each, water="tube") for each in wet.recipe))
    found = offered(wet)
    dry = found["no tubes"].rig
    assert all(each.water == "none" for each in dry.recipe)
    assert take_off(dry, conditions()).heavy_kg < take_off(wet, conditions()).heavy_kg
    assert found["shorter stems"].rig.armature.stem_cut_m < wet.armature.stem_cut_m


def test_a_bond_that_shares_a_point_is_led_to_the_spare_one() -> None:
    shared = panel(bond=bond(0))
    fix = offered(shared)["bond point"]
    assert fix.rig.bond is not None
    assert fix.rig.bond.point == 4
    loose = panel(bond=replace(bond(4), slack_m=0.3))
    assert offered(loose)["bond slack"].state_after in ("holds", "tight")


def test_netting_that_is_pulled_too_hard_is_relieved_by_a_cord() -> None:
    tight = replace(run(count=2), armature=replace(run(count=2).armature, turns=1.0))
    laden = replace(tight, recipe=recipe(hydrangea=(90, "focal")))
    report = assess(laden, conditions())
    assert any(each.check == "netting chain" and each.state == "fails" for each in report.verdict.findings)
    fix = offered(laden)["carrier"]
    after = assess(fix.rig, conditions())
    assert not any(each.check == "netting chain" and each.state == "fails" for each in after.verdict.findings)
