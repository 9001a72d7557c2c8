"""Forms, colour and hands: where stems are aimed, whatever the form."""

from dataclasses import replace

import numpy as np
import pytest

from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.choices import FORMS
from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.placement.aim import outline_m
from jolly_trellis.core.placement.form_table import FORM_RULES
from jolly_trellis.core.plan.piece import Arrangement, Envelope, Form, Piece
from jolly_trellis.core.plan.recipe import HandPlaced
from tests.ordinary import conditions, piece, stems


def formed(form: Form, **changes: object) -> Build:
    plan = replace(piece(), envelope=replace(piece().envelope, form=form, **changes))  # type: ignore[arg-type]
    return build(plan, conditions())


def test_every_form_has_its_rule() -> None:
    assert tuple(FORM_RULES) == FORMS.known


@pytest.mark.parametrize("form", FORM_RULES)
@pytest.mark.parametrize("role", ["margin", "base", "focal", "line", "filler", "airy"])
@pytest.mark.parametrize("number", [1, 4, 5, 17])
def test_directions_are_unit_and_never_point_down(form: Form, role: Role, number: int) -> None:
    rays = FORM_RULES[form].directions(role, number, 0.7)
    assert rays.shape == (number, 3)
    assert np.linalg.norm(rays, axis=1) == pytest.approx(np.ones(number))
    assert np.all(rays[:, 2] >= -1e-9)


@pytest.mark.parametrize("form", FORM_RULES)
def test_stems_keep_within_what_was_asked_for(form: Form) -> None:
    """Airy stems may reach 1.2 times as far; base stems reach over the rim."""
    placed = formed(form).placement
    assert np.abs(placed.tip_m[:, 0]).max() <= 1.2 * 0.19 + 1e-6
    assert placed.tip_m[:, 2].max() <= 0.103 + 1.2 * (0.30 - 0.103) + 1e-6


@pytest.mark.parametrize("form", FORM_RULES)
def test_its_outline_is_closed_above_and_as_wide_as_asked(form: Form) -> None:
    envelope = Envelope(height_m=0.5, width_m=0.6, depth_m=0.4, form=form)
    front = outline_m(envelope, from_m=0.1, view="front")
    above = outline_m(envelope, from_m=0.1, view="above")
    assert max(x for x, _ in front) == pytest.approx(0.3)
    assert max(z for _, z in front) <= 0.5 + 1e-9
    assert above[0] == pytest.approx(above[-1], abs=1e-9)


def test_a_fan_faces_the_front() -> None:
    fan, dome = formed("fan"), formed("dome")
    assert fan.rows.centre_m[:, 1].mean() < dome.rows.centre_m[:, 1].mean() - 0.01


def test_a_sweep_is_high_on_the_left_and_low_on_the_right() -> None:
    tips = formed("sweep").placement.tip_m
    assert tips[tips[:, 0] < -0.03, 2].max() > tips[tips[:, 0] > 0.08, 2].max()


def test_a_mound_is_fuller_at_its_shoulders_than_a_dome() -> None:
    def shoulder(build_: Build) -> float:
        tips = build_.placement.tip_m
        out = np.hypot(tips[:, 0], tips[:, 1])
        return float((out * (tips[:, 2] - 0.103)).mean())

    assert shoulder(formed("mound")) > shoulder(formed("dome"))


def test_a_horizontal_lies_along_its_width() -> None:
    tips = formed("horizontal", width_m=0.6, depth_m=0.6).placement.tip_m
    assert np.abs(tips[:, 0]).mean() > 1.3 * np.abs(tips[:, 1]).mean()


def test_a_garden_grows_from_several_points() -> None:
    def spread(build_: Build) -> float:
        ends = np.stack([build_.placement.found.end_x_m, build_.placement.found.end_y_m], axis=1)
        return float(np.linalg.norm(ends - ends.mean(axis=0), axis=1).mean())

    assert spread(formed("garden")) > spread(formed("dome"))


def test_a_studio_of_several_points_spreads_a_dome_too() -> None:
    several = replace(conditions(), practice=replace(conditions().practice, pattern="several points"))
    one = build(piece(), conditions()).placement
    many = build(piece(), several).placement
    assert np.hypot(many.seat_x_m, many.seat_y_m).mean() != np.hypot(one.seat_x_m, one.seat_y_m).mean()


def coloured(arrangement: Arrangement) -> Build:
    return build(replace(stems(piece(), 40), arrangement=arrangement), conditions())


def rows_of(build_: Build, key: str) -> np.ndarray:
    placement = build_.placement
    rows = [row for row in range(len(placement.stems)) if placement.stems.variety_of(row).key == key]
    return np.asarray(placement.tip_m[rows])


def test_clusters_keep_a_variety_together() -> None:
    def scatter(build_: Build) -> float:
        tips = rows_of(build_, "ranunculus")[:, :2]
        return float(np.linalg.norm(tips - tips.mean(axis=0), axis=1).mean())

    assert scatter(coloured("clusters")) < 0.75 * scatter(coloured("even"))


def test_the_far_side_repeats_the_near_one() -> None:
    tips = rows_of(coloured("far_side"), "ranunculus")[:, :2]
    mean = np.linalg.norm(tips.mean(axis=0))
    assert mean < 0.5 * np.linalg.norm(tips, axis=1).mean()


def test_a_gradient_runs_from_left_to_right_by_hue() -> None:
    gradient = coloured("gradient")
    means = {key: rows_of(gradient, key)[:, 0].mean() for key in ("rose", "ranunculus", "scabious")}
    assert max(means.values()) - min(means.values()) > 0.05


@pytest.mark.parametrize("arrangement", ["even", "clusters", "gradient", "far_side"])
def test_no_arrangement_loses_a_stem(arrangement: Arrangement) -> None:
    assert int(coloured(arrangement).placement.stems.stems_in_row.sum()) == 40


def handed(*hands: HandPlaced) -> Piece:
    return replace(piece(), hand_placed=hands)


def test_a_stem_placed_by_hand_stays_where_it_was_put() -> None:
    hand = HandPlaced(variety="rose", tip_x_m=0.05, tip_y_m=-0.06, tip_z_m=0.26)
    placed = build(handed(hand), conditions()).placement
    (row,) = np.flatnonzero(placed.held).tolist()
    assert placed.stems.variety_of(row).key == "rose"
    assert placed.tip_m[row] == pytest.approx([0.05, -0.06, 0.26])


def test_the_rest_fills_round_it() -> None:
    hand = HandPlaced(variety="rose", tip_x_m=0.05, tip_y_m=-0.06, tip_z_m=0.26)
    before, after = build(piece(), conditions()).placement, build(handed(hand), conditions()).placement
    assert len(before.stems) == len(after.stems)
    free = ~after.held
    near = np.linalg.norm(after.tip_m[free] - np.array([0.05, -0.06, 0.26]), axis=1)
    assert near.min() > 0.01


def test_as_many_hands_as_stems_and_no_more() -> None:
    hands = tuple(HandPlaced(variety="rose", tip_x_m=0.01 * i, tip_y_m=0.0, tip_z_m=0.2) for i in range(20))
    placed = build(handed(*hands), conditions()).placement
    assert int(placed.held.sum()) == 7


def test_a_hand_under_the_rim_is_lifted_over_it() -> None:
    hand = HandPlaced(variety="rose", tip_x_m=0.15, tip_y_m=0.0, tip_z_m=0.01)
    placed = build(handed(hand), conditions()).placement
    assert placed.tip_m[placed.held][0, 2] > piece().vessel.rim_m


def test_a_variety_that_is_not_in_the_recipe_takes_no_hand() -> None:
    hand = HandPlaced(variety="peony", tip_x_m=0.0, tip_y_m=0.0, tip_z_m=0.3)
    assert not build(handed(hand), conditions()).placement.held.any()
