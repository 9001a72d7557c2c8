"""Work mounted on frames, walls and columns; ties; what must be kept clear; the survey of a place."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.spatial import ConvexHull

from jolly_trellis.core.errors import InvalidMeasure, Unstable
from jolly_trellis.core.event.job import Made, RigWork
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.rigging.assess import RigReport, assess
from jolly_trellis.core.rigging.clearances import gap_beside_m, gap_m, gap_over_m
from jolly_trellis.core.rigging.fixes import fixes_of
from jolly_trellis.core.rigging.levelling import cut_length_m, stretch_m
from jolly_trellis.core.rigging.lines import LineSpec, end_takes_m, mass_kg_m, pieces_of
from jolly_trellis.core.rigging.mount_ties import screw_pull_n
from jolly_trellis.core.rigging.mounts import Push, ballast_per_foot_kg, core_bed_m2
from jolly_trellis.core.rigging.resting import body_m
from jolly_trellis.core.rigging.rig import Armature, Attachment, HangPoint, Hazard, HazardKind, Mount, Rig, RigLine
from jolly_trellis.core.rigging.snip import snip
from jolly_trellis.core.rigging.survey import Survey, SurveyPoint, check, in_place, unanswered
from jolly_trellis.core.rigging.tied import belt_m, round_m, tie_shares_n
from tests.ordinary import conditions, lacks, recipe
from tests.rigs import STEEL, bond, panel, run

TIE = LineSpec(kind="cable tie", size_m=0.0048)
CORD = LineSpec(kind="polyester cord", size_m=0.002)
FRAME = Mount(
    kind="frame", outline="rail", width_m=2.2, height_m=2.0, foot_width_m=2.2, foot_depth_m=0.6, mass_kg=12.0,
    ballast_kg=8.0, tied_to="the porch post",
)  # fmt: skip


def railed(mount: Mount = FRAME, ties: int = 9, **changes: object) -> Rig:
    """Two metres of tube along a rail at 1.9 m, tied every 25 cm, both ends twice, every second tie of cord."""
    xs = [-1 + 2 * each / (ties - 1) for each in range(ties)]
    specs = [CORD if each % 2 == 0 else TIE for each in range(ties)]
    lines = [RigLine(point=each, attachment=each, spec=spec) for each, spec in enumerate(specs)]
    lines += [RigLine(point=each, attachment=each, spec=TIE) for each in (0, ties - 1)]
    rig = Rig(
        name="railed",
        points=tuple(
            HangPoint(
                name=f"rail {n}", kind="frame member", x_m=x, y_m=0, z_m=1.93, rating_n=150, stated_by="its maker"
            )
            for n, x in enumerate(xs, start=1)
        ),
        attachments=tuple(Attachment(x_m=x, y_m=0, z_m=1.9) for x in xs),
        lines=tuple(lines),
        armature=Armature(kind="wrapped frame", length_m=2.02, netting="galvanized-50-10"),
        recipe=recipe(gypsophila=(40, "filler"), ruscus=(20, "base")),
        below="beside",
        mount=mount,
    )
    return replace(rig, **changes)  # type: ignore[arg-type]


def failing(report: RigReport) -> set[str]:
    return {each.check for each in report.verdict.findings if each.state == "fails"}


def test_a_run_tied_all_along_is_cleared_and_its_ties_bear_all_of_it() -> None:
    report = assess(railed(), conditions())
    assert report.verdict.state in ("holds", "tight")
    assert sum(each.tension_n for each in report.lines) == pytest.approx(report.rest.load_n)
    assert report.rest.tilt_rad == 0


@given(st.lists(st.floats(0, 5), min_size=1, max_size=8, unique=True), st.floats(0.1, 3))
def test_simple_spans_share_all_of_the_load_and_its_moment(along: list[float], whole: float) -> None:
    """Equilibrium of a row of simple spans: forces, and moments about the start where no load is past the ends."""
    lines = tuple(RigLine(point=at, attachment=at, spec=TIE) for at in range(len(along)))
    station = np.linspace(min(along), max(along), 31)
    load = np.full(31, whole / 31)
    shares = tie_shares_n(along, lines, station, load)
    assert shares.sum() == pytest.approx(whole)
    assert (shares * np.array(along)).sum() == pytest.approx((station * load).sum(), abs=1e-6)


def test_inner_ties_bear_a_whole_span_and_end_ties_half_of_one() -> None:
    """Statics: three ties a metre apart under 10 N/m bear 5, 10, 5 N; two ties at one place share it."""
    station = np.linspace(0, 2, 2001)
    load = np.full(2001, 20 / 2001)
    lines = tuple(RigLine(point=0, attachment=at, spec=TIE) for at in (0, 1, 2, 2))
    assert tie_shares_n([0.0, 1.0, 2.0], lines, station, load) == pytest.approx([5, 10, 2.5, 2.5], rel=0.002)
    with pytest.raises(Unstable):
        tie_shares_n([0.0, 1.0, 2.0], (), station, load)


def test_a_tie_that_goes_is_borne_by_its_neighbours() -> None:
    steps = snip(railed(), conditions(), 4)
    before = assess(railed(), conditions()).lines
    whole = steps[0].tension_n
    factor = 1.10 * 1.25
    assert whole[4] == 0
    assert whole[3] * factor == pytest.approx(1.5 * before[3].tension_n, rel=0.05)
    assert whole[5] * factor == pytest.approx(1.5 * before[5].tension_n, rel=0.05)
    assert steps[0].lowest_m <= assess(railed(), conditions()).rest.lowest_m


def test_ties_too_far_apart_single_at_an_end_or_all_of_plastic_are_not_cleared() -> None:
    assert "ties apart" in failing(assess(railed(ties=5), conditions()))
    single = railed()
    assert "ties at its ends" in failing(assess(replace(single, lines=single.lines[:-1]), conditions()))
    plastic = replace(single, lines=tuple(replace(line, spec=TIE) for line in single.lines))
    found = failing(assess(plastic, conditions()))
    assert {"steel ties apart", "steel ties at its ends", "only cable ties"} <= found
    alone = failing(assess(replace(plastic, below="nobody"), conditions()))
    assert "steel ties apart" not in alone


def test_a_frame_nobody_weighed_or_tied_cannot_be_said() -> None:
    cases: tuple[tuple[dict[str, object], str], ...] = (
        ({"mass_kg": None}, "what the frame weighs"),
        ({"foot_depth_m": 0.0}, "how wide and deep"),
        ({"tied_to": None}, "guyed or tied to"),
    )
    for changes, words in cases:
        report = assess(railed(replace(FRAME, **changes)), conditions())  # type: ignore[arg-type]
        assert report.verdict.state == "cannot say"
        assert any(words in each for each in lacks(report.verdict))
    alone = railed(replace(FRAME, tied_to=None, foot_material="rubber", surface="wood"), below="nobody")
    assert assess(alone, conditions()).verdict.state in ("holds", "tight")


def test_wind_turns_over_a_frame_without_ballast_and_the_fix_ballasts_it() -> None:
    bare = railed(replace(FRAME, outdoors=True, ballast_kg=0.0))
    report = assess(bare, conditions())
    assert report.verdict.state == "fails"
    assert report.standing is not None
    fix = next(each for each in fixes_of(bare, report, conditions()) if each.key == "ballast")
    assert fix.state_after in ("holds", "tight")
    calm = assess(railed(replace(FRAME, outdoors=True, ballast_kg=0.0, comes_down_above=2)), conditions())
    assert calm.standing is not None
    assert calm.standing.wind_n < report.standing.wind_n


def test_the_ballast_of_each_foot_balances_the_wind_with_its_margin() -> None:
    """Worked by hand: 40 N at 1.5 m asks 90 N·m; 10 kg on a foot of 0.6 m holds 29.42; 60.58/(4·g·0.3) = 5.15 kg."""
    mount = replace(FRAME, mass_kg=8.0)
    at = ((-1.0, 0.0, 1.5), (1.0, 0.0, 1.5))
    push = Push(force_n=40.0, height_m=1.5, area_m2=0.0)
    asked = ballast_per_foot_kg(mount, at, 2.0, push, from_side=False)
    assert asked == pytest.approx((1.5 * 40 * 1.5 - 10 * GRAVITY_M_S2 * 0.3) / (4 * GRAVITY_M_S2 * 0.3))
    assert asked == pytest.approx(5.15, abs=0.01)
    aside = tuple((x, 0.1, z) for x, _, z in at)
    assert ballast_per_foot_kg(mount, aside, 2.0, push, from_side=False) > asked


def test_what_hangs_from_one_tie_down_to_the_floor_is_judged_all_the_same() -> None:
    """Three metres of run on one tie at 1.35 m: both ends lie on the floor, and the wind is on what stands over it."""
    long = replace(railed().armature, length_m=6.0)
    tied = replace(railed(), lines=railed().lines[:1], armature=long, mount=replace(FRAME, outdoors=True))
    report = assess(tied, conditions())
    assert report.verdict.state == "fails"
    upright = [each for each in report.verdict.findings if each.check.startswith("frame upright")]
    assert all(each.limit.value > 0 for each in upright)
    down = assess(replace(tied, attachments=(replace(tied.attachments[0], z_m=0.0),)), conditions())
    assert down.verdict.state == "fails"


def test_indoors_a_guest_leans_on_it() -> None:
    thin = railed(replace(FRAME, ballast_kg=0.0, mass_kg=3.0, foot_depth_m=0.2))
    report = assess(thin, conditions())
    assert any("A guest who leans" in each.reason.text for each in report.verdict.findings)
    assert "frame upright, front or back" in failing(report)


def walled(pull_out: float | None = 260.0, **changes: object) -> Rig:
    rig = run(rating=180.0)
    screws = tuple(replace(each, kind="wall screw", pull_out_n=pull_out) for each in rig.points[:5])
    mount = replace(Mount(kind="wall", arm_m=0.12, bears_below_m=0.18), **changes)  # type: ignore[arg-type]
    return replace(rig, points=(*screws, rig.points[5]), mount=mount, below="beside")


def test_a_wall_screw_is_pulled_out_by_the_arm_of_what_hangs_on_it() -> None:
    """Moments: 50 N down with its middle 12 cm out, leaning 18 cm below, pull 33.3 N out; 5 N of its own besides."""
    mount = Mount(kind="wall", arm_m=0.12, bears_below_m=0.18)
    assert screw_pull_n(50, 0, mount) == pytest.approx(33.33, abs=0.01)
    assert screw_pull_n(50, 5, mount) == pytest.approx(38.33, abs=0.01)
    with pytest.raises(InvalidMeasure):
        screw_pull_n(50, 0, replace(mount, bears_below_m=0.0))


def test_shear_and_pull_out_of_a_screw_count_together() -> None:
    """EN 1995-1-1, 8.7.3 (from memory): the squares of both shares together are 1 at most."""
    report = assess(walled(), conditions())
    assert report.verdict.state in ("holds", "tight")
    found = [each for each in report.verdict.findings if each.check == "wall screw"]
    shear = report.points[0].pull_n
    assert found[0].value.value == pytest.approx((shear / 180) ** 2 + (shear * 0.12 / 0.18 / 260) ** 2, rel=0.02)
    assert "wall screw" in failing(assess(walled(pull_out=5.0), conditions()))


def test_a_wall_screw_with_half_of_its_facts_cannot_be_said() -> None:
    for rig, words in (
        (walled(pull_out=None), "straight out of the wall"),
        (walled(arm_m=0.0), "how far its middle stands out"),
        (replace(walled(), mount=None), "how far the work stands out"),
    ):
        report = assess(rig, conditions())
        assert report.verdict.state == "cannot say"
        assert any(words in each for each in lacks(report.verdict))


AT = np.array([(-1.0, 0.0, 2.5), (0.0, 0.0, 2.5), (1.0, 0.0, 2.5)])


def test_gaps_are_from_the_skin_of_the_work() -> None:
    """Geometry: a run 30 cm thick at 2.5 m over a flame at 1.2 m keeps 1.15 m; a head 60 cm over it keeps 45 cm."""
    flame = Hazard(kind="open flame", x_m=0.0, y_m=0.0, z_m=1.2)
    assert gap_over_m(flame, AT, 0.15, 0.3) == pytest.approx(1.15)
    assert gap_m(Hazard(kind="sprinkler", x_m=0, y_m=0, z_m=3.1), AT, 0.15) == pytest.approx(0.45)
    beside = Hazard(kind="open flame", x_m=0.0, y_m=0.5, z_m=2.5)
    assert gap_beside_m(beside, AT, 0.15) == pytest.approx(0.35)
    assert math.isinf(gap_over_m(replace(flame, x_m=5.0), AT, 0.15, 0.3))


@pytest.mark.parametrize(
    ("kind", "z_m", "dried", "fails"),
    [
        ("sprinkler", 2.9, False, True),
        ("sprinkler", 3.5, False, False),
        ("open flame", 1.9, False, True),
        ("open flame", 1.0, False, False),
        ("flame in glass", 1.9, False, True),
        ("LED candle", 2.3, True, False),
        ("open flame", 1.5, True, True),
        ("detector", 2.8, False, True),
        ("exit sign", 2.6, False, True),
    ],
)
def test_what_is_near_is_kept_clear(kind: HazardKind, z_m: float, dried: bool, fails: bool) -> None:
    near = replace(run(), hazards=(Hazard(kind=kind, x_m=0.3, y_m=0, z_m=z_m),), dried=dried)
    found = failing(assess(near, conditions()))
    assert any(each.startswith("clear of") for each in found) == fails


def test_the_middle_of_a_panel_and_its_hanging_stems_are_near_too() -> None:
    """A sprinkler over the middle of a panel is far from its corners; a flame under its longest stem is near that."""
    rig = panel(hazards=(Hazard(kind="sprinkler", x_m=0, y_m=0, z_m=3.2),))
    assert "clear of sprinkler" in failing(assess(rig, conditions()))
    flame = panel(hazards=(Hazard(kind="open flame", x_m=0.1, y_m=0.1, z_m=1.8),))
    assert "clear of open flame" in failing(assess(flame, conditions()))
    body = body_m(panel(), assess(panel(), conditions()).rest.at_m)
    corners = np.array(assess(panel(), conditions()).rest.at_m)
    assert body[:, 0].min() == pytest.approx(corners[:, 0].min(), abs=1e-6)
    assert body[:, 1].max() == pytest.approx(corners[:, 1].max(), abs=1e-6)
    assert body[:, 2].max() == pytest.approx(corners[:, 2].max(), abs=1e-6)
    assert body[:, 2].min() == pytest.approx(assess(panel(), conditions()).rest.lowest_m, abs=0.01)


def test_lines_are_cut_with_their_ends_and_what_is_let_out() -> None:
    """Common practice, no source: 15 cm a knot, 12 cm a ferruled loop, 10 cm a grip, at each end."""
    ferrule = replace(STEEL, fitting="ferrule")
    assert [end_takes_m(each) for each in (CORD, ferrule, STEEL)] == [0.15, 0.12, 0.10]
    assert cut_length_m(CORD, 1.0, 0.03) == pytest.approx(1.33)


def test_a_line_stretches_as_hooke_says() -> None:
    """T·L/EA: 70 N on 2 m of rope with EA 70 kN is 2 mm."""
    assert stretch_m(STEEL, 2.0, 70.0) == pytest.approx(0.002)


def surveyed(rating: float | None = 300.0) -> Survey:
    points = tuple(
        SurveyPoint(
            key=each.name, name="other", kind=each.kind, x_m=each.x_m, y_m=each.y_m, z_m=each.z_m, rating_n=rating,
            stated_by="the works officer", stated_on="2027-04-12",
        )
        for each in run().points
    )  # fmt: skip
    return Survey(points=points)


def test_a_point_of_the_survey_has_the_survey_s_rating_and_no_other() -> None:
    rig = run(rating=9999.0)
    taken = replace(rig, points=tuple(replace(each, surveyed=each.name) for each in rig.points))
    there = in_place(taken, surveyed())
    assert {each.rating_n for each in there.points} == {300.0}
    assert in_place(rig, surveyed()) == rig
    assert assess(in_place(taken, surveyed(None)), conditions()).verdict.state == "cannot say"
    assert assess(in_place(taken, Survey()), conditions()).verdict.state == "cannot say"


def test_what_is_still_to_be_asked_of_a_point() -> None:
    full = surveyed().points[0]
    assert unanswered(full) == ()
    assert unanswered(replace(full, rating_n=None, stated_by=None)) == ("what it may carry", "who states that")
    assert unanswered(replace(full, kind="wall screw")) == ("what it bears straight out of the wall",)
    assert unanswered(replace(full, kind="handle")) == ("what it was made for",)
    assert unanswered(replace(full, kind="gas pipe", rating_n=None)) == ()


def test_a_survey_with_two_of_one_name_or_a_rating_of_nothing_is_refused() -> None:
    points = surveyed().points
    with pytest.raises(InvalidMeasure, match="Two points are called"):
        check(Survey(points=(points[0], points[0])))
    with pytest.raises(InvalidMeasure, match="holds nothing"):
        check(Survey(points=(replace(points[0], rating_n=0.0),)))


def test_a_bonded_swag_on_a_wall_still_asks_for_its_bond() -> None:
    assert assess(replace(walled(), bond=None), conditions()).verdict.state == "cannot say"
    assert assess(replace(walled(), bond=bond(5)), conditions()).verdict.state in ("holds", "tight")


def stand(core_kg: float = 0.0) -> Rig:
    """A sleeve up a slender stand: eight places, 20 cm apart, a little aside of it."""
    zs = [0.3 + 0.2 * each for each in range(8)]
    rig = railed(ties=8)
    return replace(
        rig,
        points=tuple(replace(p, x_m=0.05, z_m=z + 0.02) for p, z in zip(rig.points, zs, strict=True)),
        attachments=tuple(Attachment(x_m=0.05, y_m=0, z_m=z) for z in zs),
        armature=Armature(kind="sleeve", length_m=1.42, netting="galvanized-50-10", core_kg=core_kg),
        mount=Mount(kind="stand", height_m=1.75, foot_width_m=0.24, foot_depth_m=0.24, mass_kg=2.5, tied_to="the bar"),
    )


def test_a_core_in_the_foot_of_a_slender_stand_brings_it_back_inside() -> None:
    """Moments: the core on half of the foot makes good what the push asks over what the weight holds."""
    bare = assess(stand(), conditions())
    assert "stand upright, a side" in failing(bare)
    fix = next(each for each in fixes_of(stand(), bare, conditions()) if each.key == "core")
    assert not any("upright" in each for each in failing(assess(fix.rig, conditions())))
    found = next(each for each in bare.verdict.findings if each.check == "stand upright, a side")
    short = found.limit.value - found.value.value
    assert fix.rig.armature.core_kg >= short / (GRAVITY_M_S2 * 0.12) - 1e-6


def test_a_core_holds_a_stand_upright_by_its_weight_on_half_of_the_foot() -> None:
    """Moments: 6 kg on a foot of 24 cm add 6 × 9.80665 × 0.12 N·m."""
    holds = [
        next(f for f in assess(stand(kg), conditions()).verdict.findings if f.check == "stand upright, a side")
        for kg in (0.0, 6.0)
    ]
    assert holds[1].value.value - holds[0].value.value == pytest.approx(6 * GRAVITY_M_S2 * 0.12, rel=0.01)


def test_a_core_is_bedded_so_that_a_knock_does_not_shift_it() -> None:
    """Shear: 3 kg at 0.3 g is 8.83 N; at 10 kPa that is 8.8 cm²."""
    assert core_bed_m2(3.0) == pytest.approx(8.83e-4, rel=0.001)
    assert assess(stand(3.0), conditions()).core_bed_m2 == pytest.approx(core_bed_m2(3.0))


def test_stems_that_hang_under_a_panel_on_a_frame_stand_in_the_wind_too() -> None:
    mount = replace(FRAME, outdoors=True)
    short, long = (
        assess(panel(mount=mount, armature=replace(panel().armature, stem_cut_m=cut)), conditions()).standing
        for cut in (0.2, 0.6)
    )
    assert short is not None
    assert long is not None
    assert long.area_m2 == pytest.approx(short.area_m2 * 0.8 / 0.4, rel=1e-4), (
        "but for what longer stems stretch the lines"
    )


@pytest.mark.parametrize(("column", "run"), [(0.30, 0.30), (0.30, 0.11), (0.40, 0.10), (0.11, 0.30)])
def test_a_band_goes_round_the_column_and_the_run(column: float, run: float) -> None:
    """As the hull of both circles, by SciPy; two that are alike: half a turn of each, and twice the way between."""
    turn = np.linspace(0, 2 * math.pi, 5000)
    circles = [
        np.stack([x + size / 2 * np.cos(turn), size / 2 * np.sin(turn)], axis=1)
        for size, x in ((column, 0.0), (run, (column + run) / 2))
    ]
    assert belt_m(column, run) == pytest.approx(ConvexHull(np.concatenate(circles)).area, rel=1e-5)
    assert belt_m(0.2, 0.2) == pytest.approx(math.pi * 0.2 + 2 * 0.2)
    assert belt_m(column, 0.0) == pytest.approx(math.pi * column)


def test_a_tie_goes_round_the_run_on_a_frame_and_round_the_column_too_on_one() -> None:
    """By hand: 11 cm of run are 34.6 cm round, one tie of 37 cm; with a column of 30 cm 110 cm, three of them."""
    rig = railed()
    tube = rig.armature.diameter_m
    assert round_m(rig) == pytest.approx(math.pi * tube)
    on_column = replace(rig, mount=Mount(kind="column", width_m=0.30, height_m=3.0))
    assert round_m(on_column) == pytest.approx(belt_m(0.30, tube))
    for each, number in ((rig, 1), (on_column, 3)):
        report = assess(each, conditions())
        for line, state in zip(each.lines, report.lines, strict=True):
            if line.spec == TIE:
                assert state.pieces == number
            else:
                assert state.pieces is None
                ends = 2 * end_takes_m(CORD) + each.levelling_m
                assert state.cut_length_m == pytest.approx(round_m(each) + ends)
        ties = sum(line.spec == TIE for line in each.lines)
        cords = len(each.lines) - ties
        needs = needs_of(Made(rigs=(RigWork(id=1, rig=each, report=report),)))
        assert sum(need.amount for need in needs.supplies if need.supply == "cable-tie-48") == ties * number
        lines_kg = next(part.typical_kg for part in report.take_off.parts if part.name == "lines, with their ends")
        cord_kg = cords * (round_m(each) + 2 * end_takes_m(CORD) + each.levelling_m) * mass_kg_m(CORD)
        assert lines_kg == pytest.approx(cord_kg + ties * number * 0.37 * mass_kg_m(TIE))


def test_what_is_bought_by_the_piece_is_joined_to_reach() -> None:
    assert [pieces_of(TIE, each) for each in (0.0, 0.2, 0.37, 0.371, 0.75)] == [1, 1, 1, 2, 3]
    assert pieces_of(LineSpec(kind="strap", size_m=0.02, stated_n=100.0), 0.61) == 3
    assert pieces_of(CORD, 0.4) is None
