"""Findings summed up from nothing beside the code that makes them: value, limit, case and utilisation of each."""

import math
from dataclasses import replace

import numpy as np
import pytest

from jolly_trellis.core.books import bodies
from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.checks import hide_carried, hold_bound, stand_ledge
from jolly_trellis.core.checks.sight import flower_mass, seen_share
from jolly_trellis.core.checks.verdicts import Finding
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.piece import Mechanic, Piece, Support
from jolly_trellis.core.plan.setting import Setting, Transport
from jolly_trellis.core.rigging.assess import assess
from tests import rigs
from tests.core.rigging.test_mounts import railed
from tests.ordinary import bouquet, conditions, on_ledge, piece, recipe, vessels

G = 9.80665


def found(plan: Piece, verb: str, check: str) -> list[Finding]:
    report = evaluate(plan, conditions(), with_fixes=False)
    verdict = next(each for each in report.verdicts if each.verb == verb)
    return [each for each in verdict.findings if each.check == check]


def one(plan: Piece, verb: str, check: str, case: str = "typical") -> Finding:
    (finding,) = (each for each in found(plan, verb, check) if each.case == case)
    return finding


def riding(made: Build, level_m: float) -> bodies.Centre:
    """What rides in a box: everything on the vessel's own foot with the water poured off."""
    return bodies.centre_of(bodies.own(made, "typical", bodies.State(level_m=level_m)))


def test_box_and_box_wall_in_braking_and_cornering() -> None:
    """Braking 0.8 g along the depth, cornering 0.5 g along the width: wall h − gap/a, at least a third of the vessel;
    the box itself half its lesser side over h, against 0.8."""
    going = Transport(box_width_m=0.24, box_depth_m=0.34, box_wall_m=0.05, water_level_m=0.02)
    plan = replace(piece(), transport=going)
    centre = riding(build(plan, conditions()), 0.02)
    walls = [centre.height_m - (0.17 - abs(centre.y_m)) / 0.8, centre.height_m - (0.12 - abs(centre.x_m)) / 0.5]
    wall = one(plan, "travel", "box wall")
    assert wall.limit.value == pytest.approx(max(plan.vessel.rim_m / 3, *walls))
    assert wall.value.value == 0.05
    box = one(plan, "travel", "box tips")
    assert box.value.value == pytest.approx(0.12 / centre.height_m)
    assert box.limit.value == 0.8
    assert box.utilisation == pytest.approx(0.8 * centre.height_m / 0.12)


def test_wind_tips_and_slides_what_stands_outside() -> None:
    """Top of Beaufort 4, 7.9 m/s, gusts × 1.2: 0.613·v²·A·0.7·1.2 newtons, both held to 1.5 times."""
    plan = replace(piece(), setting=Setting(outdoors=True, comes_down_above=4))
    made = build(plan, conditions())
    heads = made.placement
    rim = made.piece.vessel.rim_m
    top = float((heads.head_z_m + heads.stems.head_radius_m).max())
    wide = 2 * float((np.hypot(*heads.tip_m[:, :2].T) + heads.stems.head_radius_m).max())
    bowl = rim * (plan.vessel.mouth_width_m + 2 * plan.vessel.wall_m)
    flowers = 0.785 * wide * (top - rim)
    area = bowl + flowers
    height = (bowl * rim / 2 + flowers * (rim + 0.45 * (top - rim))) / area
    push = 0.613 * (7.9 * 1.2) ** 2 * area * 0.7 * 1.2
    whole = bodies.centre_of(bodies.own(made, "typical", bodies.on_show(made, "typical")))
    tips, slides = (one(plan, "stand", f"wind, {how}") for how in ("tipping", "sliding"))
    assert tips.limit.value == pytest.approx(1.5 * push * height)
    foot = (plan.vessel.foot_width_m or 0.0) / 2
    assert tips.value.value == pytest.approx(whole.mass_kg * G * (foot - math.hypot(whole.x_m, whole.y_m)), rel=2e-3)
    assert slides.limit.value == pytest.approx(1.5 * push)
    assert slides.value.value == pytest.approx(0.3 * whole.mass_kg * G)


def test_a_bowl_on_a_dry_joint_is_pushed_off_with_its_own_weight() -> None:
    """Edge: the lesser radius, 5 cm, less 1 cm off centre and its lean; it slides at a quarter of its weight."""
    column = Support(
        name="column", height_m=0.4, top_width_m=0.16, foot_width_m=0.2, mass_kg=2.0, column_width_m=0.1, clear=True
    )
    plan = replace(piece(), support=column, envelope=replace(piece().envelope, height_m=0.8))
    made = build(plan, conditions())
    bowl = bodies.centre_of(
        tuple(each for each in bodies.own(made, "typical", bodies.on_show(made, "typical")) if each.on_joint)
    )
    joint = one(plan, "stand", "joint")
    weight = bowl.mass_kg * G
    assert joint.limit.value == pytest.approx(min(10.0, 0.12 * weight))
    assert joint.value.value <= 0.25 * weight + 1e-9
    bond = one(plan, "stand", "bond")
    assert (bond.value.value, bond.limit.value) == pytest.approx((0.25 * weight, 0.3 * weight))
    stuck = replace(plan, support=replace(column, putty=True))
    edge = min(plan.vessel.foot_width_m or 0.0, 0.16) / 2
    free = edge - 0.01 - math.hypot(bowl.x_m, bowl.y_m)
    heads = build(stuck, conditions()).placement
    reach = np.hypot(*heads.tip_m[:, :2].T) + heads.stems.round_reach_m
    arm = float(heads.head_z_m[int(reach.argmax())])
    putty = math.pi * (2 * edge) * 0.008 * 10_000 * free
    held = one(stuck, "stand", "joint")
    assert held.value.value == pytest.approx((weight * free + putty) / arm)


def test_pins_that_hold_a_stem_alone_bear_its_moment() -> None:
    """m·g·c·sin θ of the worst stem, heavy; 0.25 N·m for a soft one, 0.6 for a woody one."""
    dish = vessels()["shallow-dish-28"]
    plan = replace(
        piece(),
        vessel=dish,
        mechanic=Mechanic(kind="pin_frog", frog="pin-75"),
        recipe=recipe(ruscus=(5, "base"), rose=(4, "line")),
        water_level_m=0.03,
    )
    made = build(plan, conditions())
    stems, place = made.placement.stems, made.placement
    heavy = stems.mass_kg(place.cut_length_m) * stems.heavy_factor
    moments = heavy * G * stems.centre_from_foot_m(place.cut_length_m) * np.sin(place.lean_rad)
    bears = np.where(stems.woody, 0.6, 0.25) * stems.stems_in_row
    worst = int((moments / bears).argmax())
    pins = one(plan, "hold", "pins", "heavy")
    assert (pins.value.value, pins.limit.value) == pytest.approx((float(moments[worst]), float(bears[worst])))


def test_the_netting_bears_the_stem_that_presses_hardest_on_one_point() -> None:
    """m·g·c·sin θ·cos θ over the distance of the supports it swings on; wire of 0.9 mm bears 5 N at one point."""
    plan = piece()
    load = one(plan, "hold", "netting load", "heavy")
    made = build(plan, conditions())
    stems = made.placement.stems
    heavy = stems.mass_kg(made.placement.cut_length_m) * stems.heavy_factor * G
    assert load.limit.value == 5.0
    assert 0.0 < load.value.value < float((heavy * made.placement.cut_length_m).max()) / 0.02


def test_a_stem_with_one_support_only_is_named_and_fails() -> None:
    """A single layer high in a deep vessel with the water shallow: a foot that slides on the floor holds nothing."""
    shallow = replace(
        piece(),
        mechanic=replace(piece().mechanic, layers=1),
        feet="to the water",
        water_level_m=piece().vessel.inside_depth_m - 0.012,
    )
    (alone,) = found(shallow, "hold", "supports")
    assert (alone.value.value, alone.limit.value, alone.utilisation, alone.state) == (1, 2, 2.0, "fails")


def test_the_outermost_stems_of_a_bouquet_leave_the_binding_at_their_angle() -> None:
    """atan(R/L): half the width over what the binding lies below the heads; 60° at the most."""
    plan = bouquet("star_lattice")
    angle = one(plan, "hold", "outer angle")
    assert angle.limit.value == pytest.approx(math.radians(60))
    made = build(plan, conditions())
    lean = made.placement.lean_rad.max()
    assert 0.5 * float(lean) <= angle.value.value <= 1.6 * float(lean)


def test_a_hang_point_is_held_to_what_is_stated_of_it() -> None:
    """The panel's four points share its counted load, heavy × 1.10 × 1.25 × g; one line gone leaves it to two."""
    report = assess(rigs.panel(), conditions())
    points = [each for each in report.verdict.findings if each.check == "hang point"]
    load = report.take_off.heavy_kg * 1.1 * 1.25 * G
    assert report.rest.load_n == pytest.approx(load)
    assert len(points) >= 4
    for each in points[:4]:
        assert each.limit.value == 200
        assert each.value.value == pytest.approx(load / 2, rel=0.02)
        assert each.utilisation == pytest.approx(each.value.value / 200)


def test_all_ties_of_mounted_work_together_keep_its_load_ten_times() -> None:
    """Cord ties of 600 N at half for their knots and cable ties of 222 N: the sum against ten times the load."""
    rig = railed()
    report = assess(rig, conditions())
    (together,) = (each for each in report.verdict.findings if each.check == "ties together")
    keeps = sum(600 * 0.5 if line.spec.kind == "polyester cord" else 222 for line in rig.lines)
    assert together.limit.value == pytest.approx(keeps)
    assert together.value.value == pytest.approx(10 * report.take_off.heavy_kg * 1.1 * 1.25 * G)


def test_the_side_against_the_body_is_looked_at_over_the_whole_dome_and_counts_half() -> None:
    """Points of the back lie from the underside of the flowers up to no more than the dome's rise over it."""
    plan = bouquet("hand_spiral")
    one_sided = replace(plan, envelope=replace(plan.envelope, form="fan"))
    made = build(one_sided, conditions())
    _, shape = hold_bound.dome_of(made)
    points = hide_carried.back_points_m(made)
    assert points[:, 2].min() >= made.raised_m + shape.under_m - 1e-9
    assert points[:, 2].max() <= made.raised_m + shape.under_m + shape.dome_m + 1e-9
    assert points[:, 2].max() > made.raised_m + shape.under_m + shape.dome_m / 3
    behind = np.array([[0.0, 1.5, made.raised_m + shape.under_m + shape.dome_m / 3]])
    seen = float(seen_share(flower_mass(made), behind, points).mean())
    back = one(one_sided, "hide", "back")
    assert back.value.value == pytest.approx(0.5 * seen)


def test_where_no_weight_is_needed_none_is_offered() -> None:
    made = build(on_ledge(), conditions())
    assert not any("weight" in each.say.text for each in stand_ledge.candidates(made, least_kg=0.0))
    assert any("weight" in each.say.text for each in stand_ledge.candidates(made, least_kg=0.2))


def test_greens_behind_are_spread_evenly_over_the_middle_of_the_piece() -> None:
    """Even steps about the middle, all inside 0.35 of the width to either side."""
    plan = on_ledge()
    offered = [
        [each.tip_x_m for each in candidate.piece.hand_placed[len(plan.hand_placed) :]]
        for candidate in stand_ledge.candidates(build(plan, conditions()), least_kg=1.0)
        if len(candidate.piece.hand_placed) > len(plan.hand_placed)
    ]
    assert offered
    for places in offered:
        assert sum(places) == pytest.approx(0.0, abs=0.002 * len(places))
        assert max(abs(each) for each in places) <= 0.35 * plan.envelope.width_m
        steps = np.diff(sorted(places))
        assert steps == pytest.approx([float(steps.mean())] * len(steps), abs=0.0021)
