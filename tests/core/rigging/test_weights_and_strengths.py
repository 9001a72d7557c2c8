"""Nothing over people is forgotten: cores, chains at their ends, fittings, directions, frames that slide."""

import math
from dataclasses import replace

import numpy as np
import pytest

from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.rigging.assess import RigReport, assess
from jolly_trellis.core.rigging.chains import CHAIN_PIECES, chain_pull_n, hung_as_chain
from jolly_trellis.core.rigging.fixes import fixes_of
from jolly_trellis.core.rigging.layout import LaidOut
from jolly_trellis.core.rigging.lines import LINES, Fitting, LineKind, LineSpec, efficiency
from jolly_trellis.core.rigging.loads import hung_core_kg, proof_kg, take_off
from jolly_trellis.core.rigging.mount_ties import screw
from jolly_trellis.core.rigging.network import Network, network, solve
from jolly_trellis.core.rigging.resting import design_load
from jolly_trellis.core.rigging.rig import Armature, Attachment, HangPoint, Mount, Rig, RigLine
from jolly_trellis.core.rigging.snip import snip
from tests.ordinary import conditions, lacks, recipe
from tests.rigs import STEEL, bond, checks, panel, run

COUNTED = GRAVITY_M_S2 * 1.10 * 1.25


def sleeve(core_kg: float, mount: Mount | None = None) -> Rig:
    """A sleeve bent down from two points to a foot that hangs lower, its core in it."""
    rig = run(3)
    low = (*rig.attachments[:2], replace(rig.attachments[2], z_m=2.2))
    armature = replace(rig.armature, kind="sleeve", core_kg=core_kg)
    return replace(rig, armature=armature, attachments=low, mount=mount)


def use(report: RigReport) -> list[float]:
    return [each.use for each in report.lines]


@pytest.mark.parametrize(("core", "newtons"), [(3.0, 40.5), (10.0, 134.8)])
def test_a_core_that_hangs_adds_its_weight_to_everything(core: float, newtons: float) -> None:
    """By hand: 10 kg × 9.80665 × 1.10 × 1.25 = 134.8 N; 3 kg 40.5 N."""
    bare, cored = sleeve(0.0), sleeve(core)
    before, after = assess(bare, conditions()), assess(cored, conditions())
    assert after.rest.load_n - before.rest.load_n == pytest.approx(newtons, abs=0.1)
    hung = [sum(each.tension_n for each in report.lines) for report in (before, after)]
    assert hung[1] - hung[0] > 0.9 * newtons
    assert max(use(after)) > max(use(before))
    pulls = [sum(point.pull_n for point in report.points) for report in (before, after)]
    assert pulls[1] > pulls[0] + 0.9 * newtons
    heavier = [take_off(each, conditions()) for each in (bare, cored)]
    assert heavier[1].heavy_kg - heavier[0].heavy_kg == pytest.approx(core)
    assert heavier[1].bare_kg - heavier[0].bare_kg == pytest.approx(core)
    assert proof_kg(heavier[1]) - proof_kg(heavier[0]) == pytest.approx(1.25 * core)
    asked = [next(f.limit.value for f in r.verdict.findings if f.check == "second bond") for r in (before, after)]
    assert asked[1] - asked[0] == pytest.approx(10 * core * GRAVITY_M_S2)


def test_the_line_at_the_foot_bears_the_core() -> None:
    """The end drawn lower is the foot; the last of two alike."""
    light, heavy = (assess(sleeve(core), conditions()) for core in (0.0, 10.0))
    more = [two.tension_n - one.tension_n for one, two in zip(light.lines, heavy.lines, strict=True)]
    assert more[2] > 0.8 * 10 * COUNTED
    assert more[2] > 5 * abs(more[0])
    flipped = sleeve(10.0)
    flipped = replace(flipped, attachments=(replace(flipped.attachments[0], z_m=2.0), *flipped.attachments[1:]))
    lines = assess(flipped, conditions()).lines
    assert lines[0].tension_n > 5 * lines[2].tension_n


def test_ten_kilograms_in_a_sleeve_do_not_pass_on_lines_that_hold_it_empty() -> None:
    thin = LineSpec(kind="polyester cord", size_m=0.003)
    corded = [replace(each, lines=tuple(replace(line, spec=thin) for line in each.lines)) for each in
              (sleeve(0.0), sleeve(10.0))]  # fmt: skip
    empty, cored = (assess(each, conditions()) for each in corded)
    assert max(use(empty)) <= 1
    assert cored.verdict.state == "fails"


@pytest.mark.parametrize(("kind", "hangs"), [("frame", False), ("stand", False), ("column", True), ("wall", True)])
def test_a_core_on_a_foot_of_its_own_adds_nothing_to_the_lines(kind: str, hangs: bool) -> None:
    mount = Mount(kind=kind, height_m=2.0)  # type: ignore[arg-type]
    assert hung_core_kg(sleeve(10.0, mount)) == (10.0 if hangs else 0.0)
    kg = [take_off(sleeve(core, mount), conditions()).heavy_kg for core in (0.0, 10.0)]
    assert kg[1] - kg[0] == pytest.approx(10.0 if hangs else 0.0)


def test_a_core_is_there_while_it_is_made_and_when_a_line_is_cut() -> None:
    report = assess(sleeve(10.0), conditions())
    bare = next(each for each in report.states if each.name == "bare")
    assert bare.load_n > 10 * COUNTED
    step = snip(sleeve(10.0), conditions(), 0)[0]
    assert sum(step.tension_n) > 10 * GRAVITY_M_S2


def catenary(span: float, long: float, kg_m: float) -> float:
    """End pull of a level chain, N: s = 2·a·sinh(span/2a), H = w·a, √(H² + (w·s/2)²) (any text on statics)."""
    low, high = 1e-3, 1e4
    for _ in range(200):
        middle = (low * high) ** 0.5
        ratio = span / (2 * middle)
        too_long = ratio > 300 or 2 * middle * math.sinh(ratio) > long
        low, high = (middle, high) if too_long else (low, middle)
    weight = kg_m * GRAVITY_M_S2
    return math.hypot(weight * low, weight * long / 2)


def chain(span: float, long: float, kg_m: float, pieces: int) -> tuple[LaidOut, Network]:
    share = np.arange(pieces + 1) / pieces
    weight = np.full(pieces, long / pieces) * kg_m * GRAVITY_M_S2
    load = np.zeros(pieces + 1)
    load[:-1] += weight / 2
    load[1:] += weight / 2
    net = network(
        start_m=np.stack([span * share, np.zeros(pieces + 1), -0.3 * np.sin(np.pi * share)], axis=1),
        fixed=np.array([True, *([False] * (pieces - 1)), True]),
        load_n=load,
        ends=np.stack([np.arange(pieces), np.arange(1, pieces + 1)], axis=1),
        rest_m=np.full(pieces, long / pieces),
        stiffness_n=np.full(pieces, 3e6),
        slack=np.ones(pieces, dtype=np.bool_),
    )
    made = LaidOut(net=net, point_node=(), attachment_node=(0, pieces), line_link=(), armature_nodes=(),
                   chain_links=tuple(range(pieces)), ends_n=np.stack([weight / 2, weight / 2], axis=1))  # fmt: skip
    return made, net


@pytest.mark.parametrize(("span", "long", "kg_m"), [(4, 5, 1.2), (3, 3.05, 1.2), (3, 4, 0.9), (2, 5, 0.5)])
@pytest.mark.parametrize("pieces", [12, 24, 100])
def test_a_chain_is_pulled_hardest_at_its_attachment(span: float, long: float, kg_m: float, pieces: int) -> None:
    """Within 0.5 % of the catenary from twelve links on; 1.2 kg/m over 4 m, 5 m long: 35.52 N; 3 and 3.05: 58.77."""
    made, net = chain(span, long, kg_m, pieces)
    rest = solve(net)
    assert chain_pull_n(made, rest.at_m, rest.tension_n) == pytest.approx(catenary(span, long, kg_m), rel=0.005)
    if (span, long) in {(4, 5), (3, 3.05)}:
        assert catenary(span, long, kg_m) == pytest.approx({4: 35.52, 3: 58.77}[int(span)], abs=0.01)


def test_a_run_taken_as_a_chain_has_twelve_links_a_span_and_its_end_pull() -> None:
    for points in (2, 3, 5, 8, 12):
        rig = run(points)
        made, rest = hung_as_chain(rig, design_load(take_off(rig, conditions())))
        nodes = sorted(made.attachment_node)
        assert min(np.diff(nodes)) >= CHAIN_PIECES == 12
        middle = float(rest.tension_n[list(made.chain_links)].max())
        assert chain_pull_n(made, rest.at_m, rest.tension_n) > middle
        assert made.ends_n is not None
        assert made.ends_n.sum() == pytest.approx(design_load(take_off(rig, conditions())).total_n)


def test_netting_and_cord_are_judged_by_the_pull_at_the_attachment() -> None:
    rig = run(3)
    made, rest = hung_as_chain(rig, design_load(take_off(rig, conditions())))
    found = next(each for each in assess(rig, conditions()).verdict.findings if each.check == "netting chain")
    assert found.value.value == pytest.approx(chain_pull_n(made, rest.at_m, rest.tension_n))


@pytest.mark.parametrize("kind", LINES)
def test_a_line_is_made_off_with_its_kinds_own_unless_it_is_said(kind: LineKind) -> None:
    spec = LineSpec(kind=kind, size_m=0.003, stated_n=200.0)
    assert spec.fits
    assert spec.fitting == next(iter(LINES[kind].fittings))
    every: tuple[Fitting, ...] = ("knot", "splice", "ferrule", "grip", "head")
    for fitting in every:
        assert replace(spec, fitting=fitting).fits == (fitting in LINES[kind].fittings)


def test_a_knot_in_steel_rope_never_passes_and_is_never_the_default() -> None:
    assert LineSpec(kind="steel rope", size_m=0.002).fitting == "grip"
    knotted = replace(STEEL, fitting="knot")
    holds = run()
    assert assess(holds, conditions()).verdict.state == "holds"
    tied = replace(holds, lines=tuple(replace(line, spec=knotted) for line in holds.lines))
    report = assess(tied, conditions())
    assert report.verdict.state == "cannot say"
    assert any(
        "a knot does not belong in steel rope; take a grip or a ferrule" in each for each in lacks(report.verdict)
    )
    mended = next(each for each in fixes_of(tied, report, conditions()) if each.key == "made off")
    assert mended.state_after == "holds"
    assert mended.rig.lines == holds.lines


def test_a_knot_in_the_bond_or_the_cord_is_said_too() -> None:
    rig = run()
    assert rig.bond is not None
    bonded = replace(rig, bond=replace(rig.bond, spec=replace(rig.bond.spec, fitting="knot")))
    clamped = LineSpec(kind="polyester cord", size_m=0.003, fitting="ferrule")
    corded = replace(rig, armature=replace(rig.armature, carrier=clamped))
    for each, words in ((bonded, "the second bond"), (corded, "the cord through it")):
        report = assess(each, conditions())
        assert report.verdict.state == "cannot say"
        assert any(words in fact for fact in lacks(report.verdict))


def test_a_splice_keeps_more_than_a_knot() -> None:
    cord = LineSpec(kind="polyester cord", size_m=0.003)
    assert efficiency(cord) == 0.5
    assert efficiency(replace(cord, fitting="splice")) == 0.8


def test_the_direction_of_a_pull_is_judged_in_every_case() -> None:
    """The greatest pull on an end point is 13° off; with the run as a chain it is 23°, and that is what is asked."""
    rig = run()
    plain = replace(rig, points=tuple(replace(each, rated_within_rad=None) for each in rig.points))
    report = assess(plain, conditions())
    worst = max(report.points[0].pulls_n, key=lambda each: math.hypot(*each))
    assert math.degrees(math.atan2(math.hypot(worst[0], worst[1]), -worst[2])) < 15
    assert math.degrees(report.points[0].off_rad) > 15
    assert report.verdict.state == "cannot say"
    assert any("beam 1" in fact and "off straight down" in fact for fact in lacks(report.verdict))
    narrow = replace(rig.points[0], rated_within_rad=math.radians(20))
    again = assess(replace(rig, points=(narrow, *rig.points[1:])), conditions())
    assert again.verdict.state == "cannot say"
    assert assess(rig, conditions()).verdict.state == "holds"


def test_a_point_that_hardly_anything_pulls_has_no_direction() -> None:
    report = assess(panel(), conditions())
    assert report.points[-1].pull_n == 0
    assert report.points[-1].off_rad == 0


def test_a_wall_screw_is_judged_in_the_case_that_uses_it_most() -> None:
    """By hand: rated 100 N down and 20 N out on an arm of 0, with 30 N down (0.09), or 20 N down and 15 N out."""
    point = HangPoint(name="screw", kind="wall screw", x_m=0, y_m=0, z_m=2, rating_n=100, pull_out_n=20, stated_by="x")
    mount = Mount(kind="wall", arm_m=0.1, bears_below_m=1.0)
    found = screw(point, mount, ((0.0, 0.0, -30.0), (0.0, 15.0, -20.0)))
    assert found is not None
    assert found.value.value == pytest.approx((20 / 100) ** 2 + ((20 * 0.1 + 15) / 20) ** 2)
    assert screw(replace(point, kind="eye"), mount, ((0.0, 0.0, -30.0),)) is None


FRAME = Mount(
    kind="frame", outline="rail", width_m=2.2, height_m=2.0, foot_width_m=2.2, foot_depth_m=1.2, mass_kg=14.0,
    ballast_kg=4.0, outdoors=True, comes_down_above=5, foot_material="felt", surface="wood",
)  # fmt: skip


def railed(**changes: object) -> Rig:
    mount = replace(FRAME, **changes)  # type: ignore[arg-type]
    xs = [-1 + 2 * each / 8 for each in range(9)]
    cord = LineSpec(kind="polyester cord", size_m=0.002)
    lines = [RigLine(point=at, attachment=at, spec=cord) for at in (*range(9), 0, 8)]
    return Rig(
        name="railed",
        points=tuple(
            HangPoint(name=f"r{n}", kind="frame member", x_m=x, y_m=0, z_m=1.93, rating_n=150, stated_by="its maker")
            for n, x in enumerate(xs)
        ),
        attachments=tuple(Attachment(x_m=x, y_m=0, z_m=1.9) for x in xs),
        lines=tuple(lines),
        armature=Armature(kind="wrapped frame", length_m=2.02, netting="galvanized-50-10"),
        recipe=recipe(gypsophila=(40, "filler"), ruscus=(20, "base")),
        below="nobody",
        mount=mount,
    )


def test_a_frame_that_wind_slides_fails_and_grip_mends_it() -> None:
    """By hand: the grip is μ·W, W frame, work and ballast on four feet; asked is 1.5 times the wind."""
    rig = railed()
    report = assess(rig, conditions())
    slid = next(each for each in report.verdict.findings if each.check == "frame sliding")
    kg = 14.0 + 4 * 4.0 + report.take_off.typical_kg
    assert slid.value.value == pytest.approx(0.25 * kg * GRAVITY_M_S2)
    assert report.standing is not None
    assert slid.limit.value >= 1.5 * report.standing.wind_n
    assert slid.state == "fails"
    keys = {each.key: each for each in fixes_of(rig, report, conditions())}
    assert {"rubber", "grip"} & set(keys)
    for fix in keys.values():
        if fix.key in ("rubber", "grip"):
            after = assess(fix.rig, conditions())
            now = next(each for each in after.verdict.findings if each.check == "frame sliding")
            assert now.utilisation < slid.utilisation
            assert fix.key != "grip" or 0.75 < now.utilisation <= 0.95, "as much as is needed, and no more"


def test_ballast_and_core_count_against_sliding_and_a_guy_holds_it() -> None:
    heavy = next(
        f for f in assess(railed(ballast_kg=60.0), conditions()).verdict.findings if f.check == "frame sliding"
    )
    assert heavy.state == "holds"
    cored = railed()
    cored = replace(cored, armature=replace(cored.armature, core_kg=40.0))
    one, other = (
        next(f.value.value for f in assess(each, conditions()).verdict.findings if f.check == "frame sliding")
        for each in (railed(), cored)
    )
    assert other - one == pytest.approx(0.25 * 40 * GRAVITY_M_S2)
    assert "frame sliding" not in checks(assess(railed(tied_to="the oak"), conditions()))


def test_what_a_frame_stands_on_is_asked_for() -> None:
    for changes in ({"foot_material": None}, {"surface": None}):
        report = assess(railed(**changes, ballast_kg=80.0), conditions())
        assert report.verdict.state == "cannot say"
        assert any("feet are of and stand on" in each for each in lacks(report.verdict))
    guyed = railed(foot_material=None, tied_to="the oak", ballast_kg=80.0)
    assert not any("feet are" in each for each in lacks(assess(guyed, conditions()).verdict))


def test_indoors_a_guest_who_leans_on_it_must_not_slide_it() -> None:
    inside = railed(outdoors=False, ballast_kg=0.0, mass_kg=4.0)
    slid = next(each for each in assess(inside, conditions()).verdict.findings if each.check == "frame sliding")
    assert slid.limit.value == pytest.approx(15.0)
    assert bond(0).spec.fitting == "ferrule"
