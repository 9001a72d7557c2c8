"""How stems go into hung and wrapped work, its pegs, ties and joints, hardware in its lines, wind, raising, making."""

import math
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.job import Made, RigWork
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.materials.netting import pitch_along_m
from jolly_trellis.core.mechanics.sized import Part
from jolly_trellis.core.plan.recipe import RecipeLine, StemTube
from jolly_trellis.core.rigging.armatures import (
    joints_m,
    peg_lengths_m,
    size_armature,
    ties_of_a_coil,
    wire_ties,
)
from jolly_trellis.core.rigging.assess import RigReport, assess
from jolly_trellis.core.rigging.beams import beams_of, pull_on_n
from jolly_trellis.core.rigging.drops import drops_m, hook_bears_kg, hook_gauge_m, stands_m
from jolly_trellis.core.rigging.lines import LineSpec, mass_kg_m, working_limit_n
from jolly_trellis.core.rigging.loads import take_off
from jolly_trellis.core.rigging.resting import settle
from jolly_trellis.core.rigging.rig import (
    Armature,
    Attachment,
    BeamLoad,
    Drop,
    HangPoint,
    Hardware,
    Mount,
    Rig,
    RigLine,
)
from tests.generated import examples
from tests.ordinary import conditions, lacks
from tests.rigs import STEEL, panel, run

NET = conditions().nettings["galvanized-50-10"]
TUBE = Armature(kind="tube", length_m=2.0, netting=NET.key)


def line(variety: str, count: int, **more: Any) -> RecipeLine:
    return RecipeLine(variety=variety, count=count, role="filler", water="none", **more)


def parts_of(rig: Rig, name: str) -> list[Part]:
    return [each for each in take_off(rig, conditions()).sized.parts if each.name == name]


def judged(rig: Rig) -> RigReport:
    return assess(rig, conditions())


def finding_of(report: RigReport, check: str) -> Any:
    return next(each for each in report.verdict.findings if each.check == check)


def test_only_what_hangs_has_a_hook_and_a_drop() -> None:
    """Worked by hand: 50 upright stems, none of them hooked; 8 roses at 65 cm on wire, cut to 15: 12 + 50 cm each."""
    mixed = panel(
        recipe=(
            line("gypsophila", 50, goes="pushed in", cut_m=0.3),
            line("rose", 8, goes="hung", drop_m=0.66, cut_m=0.16),
            line("ruscus", 20, goes="woven"),
        )
    )
    report = judged(mixed)
    assert [(row.variety, row.count, round(row.length_m, 3)) for row in report.drops] == [("rose", 8, 0.66)]
    (hooks,) = parts_of(mixed, "hooks of wire")
    assert hooks.quantity == 8
    assert hooks.sizes[0].value == pytest.approx(0.12 + 0.50)
    tips = [stem.tip_z_m - stem.seat_z_m for stem in settle(mixed, conditions()).picture.hung]
    assert sum(each > 0.26 for each in tips) == 50
    assert sum(each < -0.1 for each in tips) == 8


@examples(25)
@given(
    st.lists(
        st.tuples(st.integers(1, 60), st.floats(0.05, 2.0), st.booleans()),
        min_size=1,
        max_size=4,
    )
)
def test_the_wire_of_a_drop_list_is_the_wire_that_is_cut(lines: list[tuple[int, float, bool]]) -> None:
    """What the list says, stem for stem, is what the take-off bends; no stem is cut longer than it is sold."""
    recipe = tuple(
        line("rose", count, goes="hung", drop_m=drop, cut_m=0.2 if short else None) for count, drop, short in lines
    )
    rig = panel(recipe=recipe)
    weighed = take_off(rig, conditions())
    hooks = parts_of(rig, "hooks of wire")
    listed = sum(row.count * row.hook_m for row in weighed.drops)
    assert sum(each.quantity * each.sizes[0].value for each in hooks) == pytest.approx(listed, abs=1e-3)
    assert sum(row.count for row in weighed.drops) == sum(count for count, *_ in lines)
    for row in weighed.drops:
        assert row.stem_m <= max(conditions().varieties["rose"].sold_lengths_m)
        assert row.stem_m + row.hook_m == pytest.approx(row.length_m + 0.12)
        assert row.length_m / 0.02 == pytest.approx(round(row.length_m / 0.02))


def test_a_hook_with_no_drop_is_refused_and_a_curve_is_shared() -> None:
    with pytest.raises(InvalidMeasure, match="nobody says how far down") as caught:
        take_off(replace(run(), recipe=(line("rose", 3, goes="hung"),)), conditions())
    assert caught.value.path == "recipe.0.drop_m"
    curve = replace(panel().armature, drop=Drop(shortest_m=0.2, longest_m=0.8, curve="slope"))
    drops = drops_m((line("rose", 2), line("ruscus", 1, drop_m=0.5), line("gypsophila", 1)), curve)
    assert [round(each, 3) for group in drops for each in group] == [0.3, 0.7, 0.5, 0.5]


def test_a_stem_pushed_in_aslant_stands_out_less() -> None:
    """By hand: of 40 cm, 11 are in the tube; at 30° to it half of the other 29 is how far it stands out."""
    aslant = line("ruscus", 1, goes="pushed in", cut_m=0.4, out_rad=math.radians(30))
    assert stands_m(aslant, TUBE) == pytest.approx(0.29 / 2)
    assert stands_m(replace(aslant, out_rad=None), TUBE) == pytest.approx(0.29)
    assert stands_m(replace(aslant, out_rad=None), panel().armature) == pytest.approx(0.37)
    assert stands_m(replace(aslant, out_rad=None, cut_m=0.1), TUBE) == pytest.approx(0.05)
    assert stands_m(replace(aslant, goes="woven"), TUBE) == 0


def test_flowers_stand_off_a_run_as_far_as_those_that_fill_it() -> None:
    """A thin tube of woven ivy is no thicker than its leaves; one with a line nobody said of is as it is typed."""
    thin = replace(run(), armature=replace(run().armature, kind="tube", diameter_m=0.05))
    woven = replace(thin, recipe=(line("ivy", 90, goes="woven"),))
    assert judged(woven).projection_m == pytest.approx(0.03)
    assert judged(woven).take_off.sized.finished_thick_m == pytest.approx(0.11)
    tall = replace(
        woven,
        recipe=(
            *woven.recipe,
            line("rose", 5, goes="pushed in", cut_m=0.25),
            replace(line("ruscus", 3, goes="pushed in", cut_m=0.6), role="line"),
        ),
    )
    assert judged(tall).projection_m == pytest.approx(0.20)
    assert judged(tall).top_m == pytest.approx(2.6 + 0.025 + 0.55, abs=0.1)
    assert judged(replace(woven, recipe=(line("ivy", 90),))).projection_m == thin.armature.projection_m


def test_hook_wire_is_as_thick_as_its_stem_asks() -> None:
    assert [hook_gauge_m(kg, None) for kg in (0.05, 0.15, 0.45)] == [0.0007, 0.001, 0.0013]
    assert hook_gauge_m(0.45, 0.001) == 0.001
    assert hook_bears_kg(0.001) == 0.2
    assert hook_bears_kg(0.0035 / 10) == pytest.approx(0.06 / 4)
    wet = panel(
        recipe=(line("hydrangea", 4, goes="hung", drop_m=0.5),),
        armature=replace(panel().armature, hook_gauge_m=0.0007),
    )
    assert finding_of(judged(wet), "hooks").utilisation > 1


def test_pegs_are_unequal_and_every_tie_is_counted() -> None:
    """By hand, common practice, no source: 2 m: 7 twigs of 22, 33 and 44 cm; a tie each, 11 to close, 3 a joint."""
    tube = replace(TUBE, diameter_m=0.11, sections=2)
    assert [(round(long, 3), count) for long, count in peg_lengths_m(tube)] == [(0.22, 3), (0.33, 2), (0.44, 2)]
    assert wire_ties(tube) == 7 + 11 + 3
    assert wire_ties(replace(tube, kind="snake", pegs=4, sections=1)) == 4
    assert ties_of_a_coil() == 6
    names = {each.name: each for each in size_armature(tube, NET, flowers_n=1.0).parts}
    assert names["ties of wire"].quantity == 21
    assert names["ties of wire"].sizes[0].value == pytest.approx(0.15)


def test_sections_meet_where_it_is_said_and_hold_all_the_netting() -> None:
    uneven = replace(TUBE, joints_m=(1.5, 0.5))
    assert joints_m(uneven) == (0.5, 1.5)
    assert joints_m(replace(TUBE, sections=4)) == pytest.approx((0.5, 1.0, 1.5))
    sized = size_armature(uneven, NET, flowers_n=1.0)
    share = (0.45 + 2 * 2 * pitch_along_m(NET)) / 3
    assert [part.quantity for part in sized.cuts] == [1, 2]
    assert [part.sizes[1].value for part in sized.cuts] == pytest.approx([1.0 + share, 0.5 + share])
    assert sum(each.mass_kg for each in sized.cuts) == pytest.approx(sized.sheet.mass_kg, rel=0.02)
    assert sized.sections == 3
    rings = [
        each
        for each in settle(
            replace(run(), armature=replace(run().armature, sections=3)), conditions()
        ).picture.primitives
        if each.id.startswith("joint-")
    ]
    assert len(rings) == 2


@pytest.mark.parametrize("joints", [(2.0,), (0.0,), (2.5,), (0.7, 0.7)])
def test_a_joint_off_the_run_is_refused(joints: tuple[float, ...]) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        size_armature(replace(TUBE, joints_m=joints), NET, flowers_n=1.0)
    assert caught.value.path.startswith("armature.joints_m.")


def on_frame(**mount: Any) -> Rig:
    """A metre of tube tied every 25 cm to a frame nobody has rated tie by tie."""
    at = [(-0.5 + 0.25 * n, 0.0, 1.5) for n in range(5)]
    held = [0, 0, 1, 2, 3, 4, 4]
    return Rig(
        name="on a frame",
        points=tuple(
            HangPoint(name=f"tie {n}", kind="frame member", x_m=x, y_m=y, z_m=z) for n, (x, y, z) in enumerate(at)
        ),
        attachments=tuple(Attachment(x_m=x, y_m=y, z_m=z) for x, y, z in at),
        lines=tuple(RigLine(attachment=n, point=n, spec=STEEL) for n in held),
        armature=Armature(kind="wrapped frame", length_m=1.0, netting=NET.key),
        recipe=(line("gypsophila", 40),),
        below="beside",
        mount=Mount(
            kind="frame", outline="rail", width_m=1.2, height_m=1.6, foot_width_m=1.0, foot_depth_m=1.2, mass_kg=12,
            foot_material="rubber", surface="wood", tied_to="the wall", **mount,
        ),
    )  # fmt: skip


def test_a_frame_of_ones_own_is_stated_once_for_all_of_it() -> None:
    bare = judged(on_frame())
    assert sum("may carry" in each for each in lacks(bare.verdict)) == 1
    counted = bare.rest.load_n / 9.80665
    said = {"load_by": "its maker", "load_on": "2026-05-01", "signed_by": "the rigger"}
    well = judged(on_frame(load_kg=counted * 1.01, **said))
    assert lacks(well.verdict) == ()
    assert finding_of(well, "frame's load").utilisation == pytest.approx(1 / 1.01, rel=1e-3)
    # A trial must have borne half as much again.
    trial = finding_of(judged(on_frame(load_kg=counted * 1.4, load_from="trial", **said)), "frame's load")
    assert trial.utilisation == pytest.approx(1.5 / 1.4, rel=1e-3)
    for left_out in said:
        short = judged(on_frame(load_kg=50.0, **{**said, left_out: None}))
        assert short.verdict.state == "cannot say", left_out


def test_what_is_stated_of_a_frame_is_judged_whether_or_not_its_points_are_rated() -> None:
    """By hand: 1 kg is stated, which is 9.80665 N, and nearly twice that is counted."""
    said = {"load_by": "its maker", "load_on": "2026-05-01", "signed_by": "the rigger"}
    bare = on_frame()
    rated = tuple(replace(each, rating_n=500.0, stated_by="the smith") for each in bare.points)
    assert not any("may carry" in each for each in lacks(judged(replace(bare, points=rated)).verdict))
    little = replace(on_frame(load_kg=1.0, **said), points=rated)
    found = judged(little)
    assert finding_of(found, "frame's load").utilisation == pytest.approx(found.rest.load_n / 9.80665)
    assert found.verdict.state == "fails"
    for left_out in said:
        short = replace(on_frame(load_kg=500.0, **{**said, left_out: None}), points=rated)
        assert judged(short).verdict.state == "cannot say", left_out
    nobody = tuple(replace(each, stated_by=None) for each in rated)
    asked = lacks(judged(replace(bare, points=nobody)).verdict)
    assert sum("may carry" in each for each in asked) == 1, "a rating that nobody stated is none"


def test_the_weakest_in_a_path_decides_and_an_unread_mark_is_asked_for() -> None:
    rig = run()
    before = judged(rig)
    weak = replace(rig.lines[2], hardware=(Hardware(kind="shackle", wll_n=20.0), Hardware(kind="swivel", wll_n=500.0)))
    found = judged(replace(rig, lines=(*rig.lines[:2], weak, *rig.lines[3:])))
    assert (found.lines[2].weakest, found.lines[2].limit_n) == ("shackle", 20.0)
    assert found.lines[1].weakest == ""
    assert before.lines[2].limit_n > 20.0
    strong = replace(weak, hardware=(Hardware(kind="shackle", wll_n=5000.0),))
    assert judged(replace(rig, lines=(*rig.lines[:2], strong, *rig.lines[3:]))).lines[2].weakest == ""
    unread = replace(weak, hardware=(Hardware(kind="sling"),))
    asked = judged(replace(rig, lines=(*rig.lines[:2], unread, *rig.lines[3:])))
    assert any("sling" in each and "marked" in each for each in lacks(asked.verdict))
    assert found.take_off.typical_kg == pytest.approx(before.take_off.typical_kg + 0.06 + 0.06)


def test_wind_swings_what_hangs_outdoors() -> None:
    """By hand: 0.613·(10.7·1.2)²·0.7·1.2 Pa on 6.92 × 0.31 m; tan of the swing is that over the weight."""
    rig = replace(run(), outdoors=True, comes_down_above=5)
    report = judged(rig)
    push = 0.613 * (10.7 * 1.2) ** 2 * 0.7 * 1.2 * 6.92 * 0.31
    weight = report.take_off.typical_kg * 9.80665
    assert report.wind is not None
    assert report.wind.push_n == pytest.approx(push, rel=1e-3)
    assert math.tan(report.wind.swing_rad) == pytest.approx(push / weight, rel=1e-3)
    assert report.wind.times == pytest.approx(math.hypot(1, push / weight), rel=1e-3)
    assert report.wind.aside_m == pytest.approx(math.sin(report.wind.swing_rad) * 1.0, rel=0.05)
    assert any("as wind swings it" in each for each in lacks(report.verdict))
    calm = replace(rig, comes_down_above=2)
    assert finding_of(judged(calm), "wind").utilisation < finding_of(report, "wind").utilisation
    assert judged(run()).wind is None


def test_it_is_raised_on_two_lines_before_four() -> None:
    raising = judged(panel()).raising
    assert raising is not None
    assert [len(stage.held_by) for stage in raising.stages] == [2, 4]
    assert all(stage.hands == 3 for stage in raising.stages)
    xs = {panel().attachments[panel().lines[at].attachment].x_m for at in raising.stages[0].lines}
    assert len(xs) == 2, "one at each end"
    assert raising.clear_width_m == pytest.approx(panel().armature.length_m + 4.0, rel=0.02)
    five = judged(run()).raising
    assert five is not None
    assert [len(stage.held_by) for stage in five.stages] == [2, 4, 5]
    # Two of five lines at its ends bear more each than five do.
    assert five.stages[0].pull_n is not None
    assert five.stages[0].pull_n > max(each.tension_n for each in judged(run()).lines)
    assert judged(on_frame()).raising is None


def test_the_making_order_has_every_stem_once_and_hung_ones_last() -> None:
    rig = panel(
        recipe=(
            line("rose", 9, goes="hung", drop_m=0.4),
            line("gypsophila", 51, goes="pushed in"),
            line("ruscus", 1, goes="woven"),
        )
    )
    steps = judged(rig).making
    for at, each in enumerate(rig.recipe):
        assert sum(step.stems for step in steps if step.line == at) == each.count
    assert steps[-1].line == 0
    assert [step.stems for step in steps if step.line == 1] == [26, 25]
    words = [step.say.text for step in judged(on_frame()).making]
    assert any("last two rows" in each for each in words)
    assert any(
        "Number the sections" in step.say.text
        for step in judged(replace(on_frame(), armature=replace(on_frame().armature, sections=2))).making
    )


def test_a_beam_bears_all_that_hangs_on_it() -> None:
    """By hand: five points on one truss pull it with the whole counted load; what else hangs there adds to it."""
    rig = run()
    rig = replace(rig, points=tuple(replace(each, beam="truss A") for each in rig.points[:5]) + rig.points[5:])
    asked = judged(rig)
    assert any("what truss A may carry in all" in each for each in lacks(asked.verdict))
    own = pull_on_n(rig, asked.points, "truss A")
    assert own == pytest.approx(asked.rest.load_n, rel=0.02)
    assert beams_of(rig) == ("truss A",)
    shared = BeamLoad(key="truss A", name="truss A", rating_n=own + 150.0, others_n=200.0, others=("the cloud",))
    report = judged(replace(rig, beams=(shared,)))
    found = finding_of(report, "beam")
    assert found.utilisation == pytest.approx((own + 200) / (own + 150), rel=1e-4)
    assert finding_of(judged(replace(rig, beams=(replace(shared, others_n=0.0),))), "beam").utilisation < 1
    lost = judged(replace(rig, beams=(replace(shared, unknown=("the ring",)),)))
    assert any("the ring" in each for each in lacks(lost.verdict))


def test_a_strap_carries_what_its_label_says_is_used_again_and_is_never_all_there_is() -> None:
    """Hook and loop by its label; common practice, no source, for how often one is used."""
    spec = LineSpec(kind="strap", size_m=0.02, stated_n=200.0)
    assert working_limit_n(spec, over_people=True) == pytest.approx(200.0 / 10)
    assert working_limit_n(spec, over_people=False) == pytest.approx(200.0 / 5)
    with pytest.raises(InvalidMeasure, match="rating"):
        working_limit_n(LineSpec(kind="strap", size_m=0.02), over_people=False)
    assert mass_kg_m(spec) == pytest.approx(20 * 0.0004)
    rig = replace(panel(), lines=tuple(replace(each, spec=spec) for each in panel().lines))
    found = judged(rig)
    assert "only cable ties" in {each.check for each in found.verdict.findings}
    work = RigWork(id=1, rig=rig, report=found)
    straps = [each for each in needs_of(Made(rigs=(work,))).supplies if each.supply == "strap"]
    assert sum(each.amount for each in straps) == 4 * len(rig.lines)  # a metre each, of straps of 30 cm
    assert {each.uses for each in straps} == {50}


def test_a_hung_tube_that_leans_asks_whether_its_cap_seals() -> None:
    for tilt, seals, asks in ((45, False, True), (44, False, False), (90, True, False), (120, False, True)):
        tube = StemTube(tilt_rad=math.radians(tilt), cap_seals=seals)
        hung = RecipeLine(variety="rose", count=4, role="focal", water="tube", tube=tube)
        missing = lacks(judged(replace(panel(), recipe=(hung,))).verdict)
        assert any("caps of the rose" in each for each in missing) is asks
