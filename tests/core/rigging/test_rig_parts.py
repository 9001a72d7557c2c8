"""Bonds, points, handles, cords and proof loads of a rig: what each may be, and what is never cleared."""

from dataclasses import replace
from datetime import timedelta

import pytest

from jolly_trellis.core.errors import InvalidMeasure, Unfinished, Unstable
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.hang_points import POINTS, HangKind
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.loads import take_off
from jolly_trellis.core.rigging.resting import settle
from jolly_trellis.core.rigging.rig import Attachment, Bond, HangPoint, Rig, RigLine
from tests.ordinary import conditions
from tests.rigs import OWN, STEEL, bond, checks, panel, run


@pytest.mark.parametrize("spec", [replace(STEEL, size_m=0.001), replace(STEEL, size_m=None, stated_n=9000.0)])
def test_a_second_bond_that_is_thin_or_of_no_known_thickness_is_never_cleared(spec: LineSpec) -> None:
    report = assess(panel(bond=bond(4, spec)), conditions())
    assert report.verdict.state == "fails"
    assert "bond of steel" in checks(report)


def test_the_second_bond_leads_to_a_rated_point_of_its_own_or_is_no_bond() -> None:
    shared = assess(panel(bond=bond(0)), conditions())
    assert shared.verdict.state == "fails"
    assert "where a line hangs too" in shared.verdict.reason.text
    nowhere = assess(panel(bond=Bond(spec=STEEL)), conditions())
    assert nowhere.verdict.state == "cannot say"
    assert "which hang point of its own" in nowhere.verdict.reason.text
    unrated = assess(panel(points=(*panel().points[:4], replace(OWN, rating_n=None))), conditions())
    assert unrated.verdict.state == "cannot say"
    weak = assess(panel(points=(*panel().points[:4], replace(OWN, rating_n=20.0))), conditions())
    assert weak.verdict.state == "fails"
    slack = assess(panel(bond=replace(bond(4), slack_m=0.2)), conditions())
    assert any(each.check == "slack of the bond" and each.state == "fails" for each in slack.verdict.findings)


def test_on_one_line_over_people_without_a_bond_nothing_else_holds_it() -> None:
    hook = HangPoint(name="hook", kind="eye", x_m=0, y_m=0, z_m=4, rating_n=300, stated_by="the warden")
    alone = panel(
        points=(hook,),
        attachments=(Attachment(x_m=0, y_m=0, z_m=3),),
        lines=(RigLine(point=0, attachment=0, spec=STEEL),),
        bond=None,
    )
    report = assess(alone, conditions())
    assert report.verdict.state == "fails"
    assert "one line" in checks(report)


def test_cable_ties_are_never_all_that_holds_it_over_people() -> None:
    tie = LineSpec(kind="cable tie", size_m=0.0076)
    report = assess(run(spec=tie), conditions())
    assert "only cable ties" in checks(report)
    assert "only cable ties" not in checks(assess(replace(run(spec=tie), below="nobody"), conditions()))


def test_nothing_stays_on_monofilament_for_longer_than_a_day() -> None:
    thick = LineSpec(kind="monofilament", stated_n=2000.0)
    day = conditions()
    assert "monofilament creeps" in checks(assess(run(spec=thick), day))
    assert day.ends_at is not None
    weekend = replace(day, ends_at=day.ends_at + timedelta(days=2))
    assert assess(run(spec=thick), weekend).verdict.state == "fails"
    unknown = assess(run(spec=thick), replace(day, ends_at=None))
    assert unknown.verdict.state == "cannot say"


def test_points_are_judged_by_their_worst_pull_with_a_line_long_too() -> None:
    """With one of four lines 1 % long a stiff panel hangs on the other diagonal: its points bear half of it each."""
    report = assess(panel(), conditions())
    for point in report.points[:4]:
        assert point.pull_n >= 0.49 * report.rest.load_n


def test_a_line_between_two_places_of_the_armature_is_part_of_the_rig() -> None:
    rig = panel()
    tied = replace(rig, lines=(*rig.lines, RigLine(tied_to=0, attachment=1, spec=STEEL)))
    report = assess(tied, conditions())
    assert report.lines[4].tension_n == pytest.approx(0.0, abs=0.5)
    assert "between places 1 and 2" in report.lines[4].name


def test_lines_in_a_ring_with_no_hang_point_are_refused() -> None:
    rig = panel(bond=None)
    ring = tuple(RigLine(tied_to=each, attachment=(each + 1) % 4, spec=STEEL) for each in range(4))
    with pytest.raises(Unstable, match="hangs on nothing"):
        assess(replace(rig, lines=ring), conditions())


@pytest.mark.parametrize(
    "line",
    [RigLine(attachment=0, spec=STEEL), RigLine(attachment=0, tied_to=0, spec=STEEL)],
    ids=["from nothing", "to itself"],
)
def test_a_line_from_nothing_or_to_itself_is_refused(line: RigLine) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        assess(panel(lines=(*panel().lines, line)), conditions())
    assert caught.value.path == "lines.4"


def test_what_has_no_place_or_no_line_yet_is_unfinished() -> None:
    for change in ({"attachments": (), "lines": ()}, {"lines": ()}):
        with pytest.raises(Unfinished):
            assess(replace(run(), **change), conditions())  # type: ignore[arg-type]


def test_more_places_than_can_be_solved_are_refused_in_words() -> None:
    rig = panel(attachments=tuple(Attachment(x_m=0.01 * n, y_m=0, z_m=3) for n in range(400)))
    with pytest.raises(InvalidMeasure, match="held at"):
        assess(rig, conditions())


@pytest.mark.parametrize("kind", [kind for kind, each in POINTS.items() if each.never])
def test_nothing_hangs_from_what_is_never_a_hang_point(kind: HangKind) -> None:
    rig = run()
    with pytest.raises(InvalidMeasure, match="Nothing hangs from") as caught:
        assess(replace(rig, points=(replace(rig.points[0], kind=kind), *rig.points[1:])), conditions())
    assert caught.value.path == "points.0.kind"


def test_a_handle_says_what_it_was_made_for() -> None:
    rig = run()
    handle = replace(rig.points[0], kind="handle")
    asked = assess(replace(rig, points=(handle, *rig.points[1:])), conditions())
    assert asked.verdict.state == "cannot say"
    said = replace(handle, made_for="a sliding door of 60 kg")
    assert assess(replace(rig, points=(said, *rig.points[1:])), conditions()).verdict.state == "holds"


def test_a_proof_load_under_what_hangs_is_refused() -> None:
    weighs = take_off(run(), conditions()).heavy_kg
    with pytest.raises(InvalidMeasure) as caught:
        assess(replace(run(), proof_kg=0.9 * weighs), conditions())
    assert caught.value.path == "proof_kg"
    assert assess(replace(run(), proof_kg=1.5 * weighs), conditions()).proof_kg == pytest.approx(1.5 * weighs)


def test_a_cord_through_a_run_bears_what_its_netting_would() -> None:
    def chain(rig: Rig) -> float:
        found = assess(rig, conditions()).verdict.findings
        return next(each.limit.value for each in found if each.check == "netting chain")

    corded = replace(run().armature, carrier=LineSpec(kind="polyester cord", size_m=0.004))
    assert chain(replace(run(), armature=corded)) == pytest.approx(2300 * 0.5 / 10)
    assert chain(run()) != chain(replace(run(), armature=corded))


def test_a_runner_lies_along_its_table_and_nothing_hangs() -> None:
    runner = replace(run(), armature=replace(run().armature, kind="runner"), lines=(), points=(), bond=None)
    report = assess(runner, conditions())
    assert report.verdict.state == "not needed"
    assert settle(runner, conditions()).at_m == report.rest.at_m


def test_the_order_of_tightening_takes_every_line_once_from_outside_in() -> None:
    report = assess(run(), conditions())
    order = [each.line for each in report.tightening]
    assert order == [0, 4, 1, 3, 2]
    assert all(each.slack_m >= 0.03 for each in report.tightening)
