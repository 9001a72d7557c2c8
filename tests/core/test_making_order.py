"""The making order: the running balance against direct sums, the search against brute force, kept orders, gates."""

import math
from dataclasses import replace
from itertools import permutations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.books import bodies
from jolly_trellis.core.books.bodies import Body, Case, Centre
from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.checks import (
    balance,
    hold_swing,
    making_order,
    making_search,
    stand,
    stand_ledge,
    stand_making,
)
from jolly_trellis.core.checks.making_order import Margins, Work
from jolly_trellis.core.checks.making_phases import PHASES
from jolly_trellis.core.errors import CoreError
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.plan.piece import Counterweight, Making, Piece, StemRef, Support
from jolly_trellis.core.plan.standing import standing
from jolly_trellis.demo.loading import demo_plan
from tests.generated import examples
from tests.ordinary import beside, conditions, on_ledge, piece, recipe, stems


def work_of(each: Piece) -> tuple[Build, Work, Margins]:
    made = build(each, conditions())
    work = making_order.lay_out(made)
    return made, work, making_order.walk(work, work.usual)


def direct(made: Build, rows: list[int], case: Case) -> Centre:
    """Mass and centre of the vessel with only some of its stems in it, summed from nothing."""
    placed = bodies.rows_in(made, case)
    stems_in = []
    for row in rows:
        x, y, z = placed.centre_m[row].tolist()
        kg, up = float(placed.mass_kg[row]), made.raised_m + z
        stems_in.append(Body(thing="stems", mass_kg=kg, x_m=x, y_m=y, height_m=up, borne_by="mechanic"))
    return bodies.centre_of((*bodies.together_bare(made, case), *stems_in))


@examples(12)
@given(st.integers(6, 40), st.randoms(use_true_random=False))
def test_the_running_balance_is_the_sum_over_what_is_in_at_every_step(number: int, shuffler: object) -> None:
    made = build(stems(piece(), number), conditions())
    work = making_order.lay_out(made)
    order = np.array(shuffler.sample(range(len(work)), len(work)), dtype=np.intp)  # type: ignore[attr-defined]
    margins = making_order.walk(work, order)
    for step in range(len(order) + 1):
        there = direct(made, order[:step].tolist(), "typical")
        assert margins.mass_kg[step] == pytest.approx(there.mass_kg)
        assert (margins.x_m[step], margins.y_m[step]) == pytest.approx((there.x_m, there.y_m), abs=1e-12)
        assert margins.height_m[step] == pytest.approx(there.height_m)


@pytest.mark.parametrize("each", [piece(), replace(piece(), counterweight=Counterweight(mass_kg=0.4, away_m=0.1))])
def test_the_last_step_is_the_finished_piece(each: Piece) -> None:
    made, _, margins = work_of(each)
    least = min(
        float(stand.tip_angles_rad(made, balance.balance_of(made, case)).min()) for case in ("typical", "heavy")
    )
    assert margins.tip_angle_rad[-1] == pytest.approx(least)
    assert margins.mass_kg[-1] == pytest.approx(balance.balance_of(made, "typical").mass_kg)


def test_on_a_ledge_the_last_step_has_the_finished_ratio() -> None:
    made, _, margins = work_of(on_ledge())
    ratios = [stand_ledge.holding_ratio(*stand_ledge.leaning_n_m(made, case)) for case in ("typical", "heavy")]
    assert margins.ledge_ratio[-1] == pytest.approx(min(ratios))


def test_play_of_the_stems_so_far_is_that_of_the_piece_once_all_are_in() -> None:
    made = build(piece(), conditions())
    every = np.ones(len(made.placement.stems), dtype=np.bool_)
    assert hold_swing.stems_play(made, every).sway_m == pytest.approx(hold_swing.stems_play(made).sway_m)
    few = every.copy()
    few[5:] = False
    loose, tight = hold_swing.stems_play(made, few).sway_m, hold_swing.stems_play(made).sway_m
    assert (loose[few] >= tight[few] - 1e-12).all()


def small(each: Piece, number: int) -> Piece:
    return stems(
        replace(each, recipe=recipe(rose=(3, "focal"), quince_branch=(2, "line"), ruscus=(1, "margin"))), number
    )


def best_by_brute_force(work: Work, *, within: bool) -> float:
    """The best worst moment over every order, or over every order that keeps to the phases."""
    best = math.inf
    for order in permutations(range(len(work))):
        phases = [int(work.phase[row]) for row in order]
        if within and phases != sorted(phases):
            continue
        best = min(best, float(making_order.walk(work, np.array(order, dtype=np.intp)).use.max()))
    return best


@pytest.mark.parametrize("number", [4, 5, 6])
@pytest.mark.parametrize("each", [piece(), on_ledge(), on_ledge(set_back_m=0.01)])
def test_the_search_finds_what_trying_every_order_finds(each: Piece, number: int) -> None:
    _, work, _ = work_of(small(each, number))
    found = making_search.find_order(work)
    within, across = best_by_brute_force(work, within=True), best_by_brute_force(work, within=False)
    assert max(found.worst, 1.0) == pytest.approx(max(min(within, across), 1.0))
    assert sorted(found.order.tolist()) == list(range(len(work)))
    assert found.crossed == (within > 1.0 and across < within - 1e-9)


def test_the_usual_order_follows_the_phases_and_takes_opposite_sides_in_turn() -> None:
    made, work, _ = work_of(piece())
    phases = work.phase[work.usual]
    assert (np.diff(phases) >= 0).all()
    roses = [row for row in work.usual.tolist() if made.placement.stems.variety_of(row).key == "rose"]
    turn = np.arctan2(made.placement.tip_m[roses, 0], -made.placement.tip_m[roses, 1])
    apart = np.abs(np.angle(np.exp(1j * np.diff(turn))))
    assert np.median(apart) > math.radians(100)


@pytest.mark.parametrize(
    ("key", "role", "phase"),
    [
        ("tulip", "focal", "last"),
        ("hydrangea", "focal", "last"),
        ("quince_branch", "line", "branches"),
        ("rose", "focal", "large"),
    ],
)
def test_bulbs_and_thirsty_come_last_and_branches_before_flowers(key: str, role: str, phase: str) -> None:
    _, work, _ = work_of(replace(piece(), recipe=recipe(**{key: (2, role)})))  # type: ignore[arg-type]
    assert PHASES[work.phase[0]] == phase


def test_a_ledge_piece_that_falls_while_made_is_named_and_mended_by_one_act() -> None:
    heavy = replace(on_ledge(), envelope=replace(on_ledge().envelope, depth_m=1.1), ballast_kg=0.0)
    report = making_of(heavy, conditions())
    assert report.fails_at is not None
    assert "While being made, at" in report.say.text
    assert report.fixes
    for fix in report.fixes:
        again = making_of(fix.piece, conditions(), with_fixes=False)
        assert again.propped or max(step.moment.use for step in again.steps if step.moment) <= 1.0


@pytest.mark.parametrize(
    ("unmeasured", "words"),
    [
        (replace(piece(), vessel=replace(piece().vessel, foot_width_m=None, foot_depth_m=None)), "width of the foot"),
        (replace(piece(), vessel=replace(piece().vessel, mass_kg=None)), "weight of the empty vessel"),
        (
            replace(
                piece(),
                support=Support(name="stand", height_m=0.5, top_width_m=0.16, mass_kg=3.0),
                envelope=replace(piece().envelope, height_m=piece().envelope.height_m + 0.5),
            ),
            "width of the support's foot",
        ),
    ],
)
def test_how_it_stands_while_it_is_made_cannot_be_said_of_what_nobody_measured(unmeasured: Piece, words: str) -> None:
    report = making_of(unmeasured, conditions())
    assert report.state == "cannot say"
    assert report.say.text.startswith("Cannot say until this is known")
    assert words in report.say.text
    assert (report.start, report.curve, report.fails_at, report.falls_at, report.fixes) == (None, (), None, None, ())
    known = making_of(piece(), conditions(), with_fixes=False)
    assert [each.ref for each in report.steps] == [each.ref for each in known.steps]
    assert report.pull == known.pull
    assert all(each.moment is None for each in report.steps)
    assert all(each.moment is not None for each in known.steps)


def test_a_kept_order_is_walked_as_it_is_kept_and_says_what_it_leaves_out() -> None:
    _, work, _ = work_of(piece())
    backwards = tuple(work.refs[row] for row in work.usual[::-1].tolist())
    whole = making_of(replace(piece(), making=Making(order=backwards)), conditions(), with_fixes=False)
    assert whole.kept
    assert whole.left_out is None
    assert [step.ref for step in whole.steps] == list(backwards)
    short = making_of(replace(piece(), making=Making(order=backwards[:-2])), conditions(), with_fixes=False)
    assert short.left_out is not None
    assert short.left_out.quantities["n"].value == 2
    assert len(short.steps) == len(whole.steps)


def test_an_order_of_stems_that_are_gone_passes_over_them() -> None:
    gone = Making(order=(StemRef(line=30, nth=0), StemRef(line=0, nth=0), StemRef(line=0, nth=0)))
    report = making_of(replace(piece(), making=gone), conditions(), with_fixes=False)
    assert report.steps[0].ref == StemRef(line=0, nth=0)
    assert len(report.steps) == sum(line.count for line in piece().recipe)


def test_an_empty_recipe_says_what_to_do_first() -> None:
    report = making_of(replace(piece(), recipe=()), conditions())
    assert report.steps == ()
    assert report.say.text.startswith("The recipe is empty: add stems")


def test_a_prop_counts_only_once_it_is_entered() -> None:
    falls = replace(on_ledge(), envelope=replace(on_ledge().envelope, depth_m=1.1))
    findings = {
        propped: [
            found.check
            for verdict in evaluate(
                replace(falls, making=Making(propped=propped)), conditions(), with_fixes=False
            ).verdicts
            for found in verdict.findings
        ]
        for propped in (False, True)
    }
    assert "making" in findings[False]
    assert "making" not in findings[True]


def test_two_lines_alike_keep_their_own_stems() -> None:
    twice = recipe(rose=(2, "focal")) * 2
    refs = making_order.refs_of(build(replace(piece(), recipe=twice), conditions()), 0)
    assert sorted((each.line, each.nth) for each in refs) == [(0, 0), (0, 1), (1, 0), (1, 1)]


def test_a_bowl_on_a_support_with_no_bond_is_walked_on_its_joint_too() -> None:
    stand_ = Support(name="stand", height_m=0.4, top_width_m=0.12, foot_width_m=0.22, mass_kg=2.0)
    raised = replace(piece(), support=stand_, envelope=replace(piece().envelope, height_m=0.75))
    loose = work_of(raised)[1]
    bonded = work_of(replace(raised, support=replace(stand_, putty=True)))[1]
    assert [each.name for each in loose.bodies] == ["the piece", "the bowl on its support"]
    assert len(bonded.bodies) == 1


def test_stems_of_every_vessel_are_in_the_order_and_an_untied_one_tips_by_itself() -> None:
    together = replace(piece(), companions=(beside(tied=True),))
    apart = replace(piece(), companions=(beside(tied=False),))
    own = sum(line.count for line in piece().recipe)
    for each, number in ((together, 1), (apart, 2)):
        made, work, margins = work_of(each)
        assert len(work) == own + 13
        assert len(work.bodies) == number
        total = balance.balance_of(made, "typical").mass_kg
        assert margins.mass_kg[-1] == pytest.approx(total)


def test_gates_stand_where_they_belong() -> None:
    report = making_of(replace(piece(), counterweight=Counterweight(mass_kg=0.5, away_m=0.1)), conditions())
    places = {gate.key: gate.before for gate in report.gates}
    assert places["tucked"] == places["water in"] == places["weighted"] == 0
    assert places["nudged"] == places["seen from all sides"] == len(report.steps)
    greens = [index for index, step in enumerate(report.steps) if step.phase in ("margins", "greens")]
    assert places["rim covered"] == max(greens) + 1
    passed = making_of(replace(piece(), making=Making(gates_passed=("tucked",))), conditions(), with_fixes=False)
    assert [gate.key for gate in passed.gates if gate.passed] == ["tucked"]


def test_water_rises_as_stems_go_in_and_crowding_ends_at_the_piece() -> None:
    report = making_of(piece(), conditions(), with_fixes=False)
    levels = [step.water_level_m for step in report.steps]
    assert levels == sorted(levels)
    assert levels[-1] == pytest.approx(piece().water_level_m)
    made = build(piece(), conditions())
    assert report.steps[-1].crowding == pytest.approx(len(report.steps) / made.mechanic.capacity)


def test_the_seat_of_the_mechanic_ends_at_what_hold_finds() -> None:
    report = evaluate(piece(), conditions(), with_fixes=False)
    seat = next(found for found in report.verdicts[0].findings if found.check == "seat")
    assert work_of(piece())[2].seat_use[-1] == pytest.approx(seat.value.value / seat.limit.value)


def test_a_plan_that_cannot_be_is_refused_with_its_path() -> None:
    with pytest.raises(CoreError) as caught:
        making_of(replace(piece(), water_level_m=2.0), conditions())
    assert caught.value.path == "water_level_m"


def test_gravity_is_the_standard_one() -> None:
    outward, inward = stand_ledge.moments_n_m(np.ones(2), np.array([-0.2, 0.1]), 0.0)
    assert (outward, inward) == pytest.approx((0.2 * GRAVITY_M_S2, 0.1 * GRAVITY_M_S2))


def test_stems_of_another_vessel_alone_are_an_order_too() -> None:
    alone = replace(piece(), recipe=(), companions=(beside(tied=True),))
    report = making_of(alone, conditions(), with_fixes=False)
    assert len(report.steps) == 13
    assert all(step.ref.vessel == 1 for step in report.steps)
    assert report.say.text.startswith("While being made")


def test_a_weight_that_is_tied_on_already_is_made_heavier_by_what_is_added() -> None:
    """The demo's ledge with 100 g behind: the least weight offered is 100 g and 300 g."""
    ledge = next(each.part for each in demo_plan().pieces if each.part.setting.where == "ledge")
    held = replace(standing(ledge), counterweight=Counterweight(mass_kg=0.1, away_m=0.1))
    for each, least in ((ledge, 0.3), (held, 0.4)):
        tried = [one for one in stand_making.candidates(build(each, conditions())) if one.key.startswith("weight-")]
        weight = tried[0].piece.counterweight
        assert weight is not None
        assert weight.mass_kg == pytest.approx(least)
