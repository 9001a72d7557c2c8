"""Stand: tip angle, push, energy, every direction and case, and the fixes."""

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from jolly_trellis.core.books import bodies
from jolly_trellis.core.books.bodies import CASES
from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks import balance, stand
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Envelope, Piece
from jolly_trellis.core.plan.setting import Setting
from tests.ordinary import conditions, lacks, on_ledge, piece, round_vessel, vessels


def verdict_of(each: Piece, under: Conditions | None = None) -> Verdict:
    return next(v for v in evaluate(each, under or conditions()).verdicts if v.verb == "stand")


@pytest.mark.parametrize(("edge", "height", "degrees", "g"), [(0.07, 0.24, 16.26, 0.292), (0.11, 0.52, 11.94, 0.2115)])
def test_tip_angle(edge: float, height: float, degrees: float, g: float) -> None:
    """Worked from statics."""
    assert math.degrees(stand.tip_angle_rad(edge, height)) == pytest.approx(degrees, abs=0.005)
    assert math.tan(stand.tip_angle_rad(edge, height)) == pytest.approx(g, abs=0.0005)


def test_push_and_energy_to_tip() -> None:
    """Worked from statics: 3.2 kg, e 0.09 m, h 0.31 m: 7.06 N at 0.40 m, 0.402 J."""
    assert stand.push_to_tip_n(3.2, 0.09, 0.40) == pytest.approx(7.06, abs=0.005)
    assert stand.energy_to_tip_j(3.2, 0.09, 0.31) == pytest.approx(0.402, abs=0.0005)


def test_free_water_in_a_straight_round_vessel_rises_by_r_squared_over_four_depths() -> None:
    """Source: BM = I/V, any text on hydrostatics."""
    radius, depth = 0.1, 0.07
    rise = balance.water_rise_m(math.pi / 4 * radius**4, math.pi * radius**2 * depth * 1000)
    assert rise == pytest.approx(radius**2 / (4 * depth))
    assert balance.water_rise_m(1e-5, 0.0) == 0.0


def test_an_ordinary_bowl_stands() -> None:
    assert verdict_of(piece()).state == "holds"


def tall(foot: float = 0.09) -> Piece:
    slim = replace(
        round_vessel((0, 0.04), (0.25, 0.045)), foot_width_m=foot, foot_depth_m=foot, mass_kg=0.5, name="slim"
    )
    envelope = replace(piece().envelope, height_m=0.62, width_m=0.5, depth_m=0.5)
    return replace(piece(), vessel=slim, envelope=envelope, water_level_m=0.08, recipe=piece().recipe[:4])


def test_a_slim_vessel_with_tall_flowers_fails_and_offers_ballast_that_mends_it() -> None:
    verdict = verdict_of(tall(foot=0.075))
    assert verdict.state == "fails"
    assert verdict.fixes
    assert any(fix.key.startswith("base") for fix in verdict.fixes)
    for fix in verdict.fixes:
        assert verdict_of(fix.piece).state in ("holds", "tight")


def test_dry_is_the_low_case_where_nobody_tops_up() -> None:
    alone = replace(conditions(), topped_up_by=None)
    made = build(piece(), alone)
    assert bodies.case_level_m(made, "low") == 0.0
    assert bodies.case_level_m(made, "typical") == piece().water_level_m
    attended = build(piece(), conditions())
    assert 0.0 < bodies.case_level_m(attended, "low") < piece().water_level_m


@pytest.mark.parametrize(
    ("changed", "words"),
    [
        ({"mass_kg": None}, "weight of the empty vessel"),
        ({"foot_width_m": None}, "foot"),
    ],
)
def test_a_missing_measure_of_the_vessel_cannot_be_judged(changed: dict[str, Any], words: str) -> None:
    verdict = verdict_of(replace(piece(), vessel=replace(piece().vessel, **changed)))
    assert verdict.state == "cannot say"
    assert words in lacks(verdict)[0]


def test_an_unknown_distance_to_the_edge_cannot_be_judged() -> None:
    verdict = verdict_of(replace(piece(), setting=Setting(free_table_m=None)))
    assert verdict.state == "cannot say"


def test_near_an_edge_sliding_counts_and_rubber_mends_it() -> None:
    by_edge = replace(piece(), setting=Setting(free_table_m=0.05, surface="wood", foot_material="glazed"))
    pushes = [each for each in verdict_of(by_edge).findings if each.check == "push"]
    weight = build(by_edge, conditions())
    assert len(pushes) == 3
    typical = balance.balance_of(weight, "typical").mass_kg * 9.80665
    assert pushes[0].limit.value == pytest.approx(min(20.0, 0.2 * typical))
    assert pushes[0].value.value <= 0.25 * typical + 1e-9


def test_mid_table_a_foot_that_slides_first_needs_no_push_limit_and_says_so() -> None:
    verdict = verdict_of(piece())
    assert not any(each.check == "push" for each in verdict.findings)
    assert any("Slides before it tips" in figure.label for figure in verdict.figures)


def test_the_tip_rose_is_even_for_an_even_piece_and_leans_with_a_trough() -> None:
    trough = replace(piece(), vessel=vessels()["trough-40"], water_level_m=0.06)
    made = build(trough, conditions())
    angles = stand.tip_angles_rad(made, balance.balance_of(made, "typical"))
    front, right = angles[0], angles[balance.DIRECTIONS // 4]
    assert right > 1.4 * front


def test_the_composite_balances_like_its_parts() -> None:
    """Direct recomputation of the first moments, from the same parts listed by hand."""
    weighted = replace(piece(), ballast_kg=0.4)
    made = build(weighted, conditions())
    found = balance.balance_of(made, "typical")
    water = made.water.volume_at_l(weighted.water_level_m)
    mass = 0.88 + water + made.mechanic.mass_kg + 0.4 + float(made.rows.mass_kg.sum())
    assert found.mass_kg == pytest.approx(mass)
    assert found.x_m == pytest.approx(float(np.dot(made.rows.mass_kg, made.rows.centre_m[:, 0])) / mass)


def test_ballast_lowers_the_balance_point() -> None:
    heights = []
    for ballast in (0.0, 0.5, 1.0):
        made = build(replace(piece(), ballast_kg=ballast), conditions())
        heights.append(balance.balance_of(made, "typical").height_m)
    assert heights[0] > heights[1] > heights[2]


def test_the_stone_asked_for_brings_the_centre_down_to_where_the_tilt_allows() -> None:
    """Moments: (M·h + b·z)/(M + b) = e/tan(limit) in the worst case, 5 % more asked for; free water raises h.

    On a ledge, where no push is asked about: a compote of tall branches.
    """
    tall = replace(
        on_ledge(),
        vessel=replace(vessels()["compote-16"], foot_width_m=0.08, foot_depth_m=0.08),
        envelope=Envelope(height_m=0.7, width_m=0.4, depth_m=0.25, form="dome"),
        water_level_m=0.055,
    )
    made = build(tall, conditions())
    asked = stand._ballast_needed_kg(made)
    assert asked > 0.1
    stone_m = made.piece.vessel.base_m + 0.015
    over = []
    for case in CASES:
        found = balance.balance_of(made, case)
        allowed = float(balance.foot_edge_m(made, found).min()) / math.tan(
            stand.tip_angle_needed_rad(balance.outline_top_m(made))
        )
        height = found.height_m + max(found.water_rise_x_m, found.water_rise_y_m)
        b = asked / 1.05
        over.append((found.mass_kg * height + b * stone_m) / (found.mass_kg + b) / allowed)
    assert max(over) == pytest.approx(1.0, abs=0.01)
