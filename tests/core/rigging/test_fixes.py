"""What clears a rig: every act is worked out whole before it is offered, and does what it says."""

from dataclasses import replace

import pytest

from jolly_trellis.core.rigging import lines as line_rules
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.fixes import RigFix, bond_for, fixes_of, stronger_line
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.core.stems import GRAVITY_M_S2
from tests.core.rigging.test_rig import STEEL, THIN, panel, run
from tests.ordinary import conditions


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
