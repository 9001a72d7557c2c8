"""The placer: tips on the envelope, seats in free cells, cut ends inside the vessel."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.errors import InvalidMeasure, UnknownName
from jolly_trellis.core.materials.stems import Role
from jolly_trellis.core.materials.vessels import inside_size_m
from jolly_trellis.core.mechanics.sized import Seating
from jolly_trellis.core.placement.forms import dome
from jolly_trellis.core.placement.seats import seat_centres_m, under_tape
from jolly_trellis.core.placement.trace import floor_friction_needed
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan_shapes import PlanShape, plan_share, ray_to_outline_m
from jolly_trellis.core.stems.stem_set import expand
from tests.generated import examples
from tests.ordinary import conditions, piece, stems, varieties, vessels

CELLS = Seating(pattern="hexagonal", pitch_m=0.0268, aperture_m=0.025, height_m=0.095)


def made(each: Piece) -> Build:
    return build(each, conditions())


@examples(25)
@given(
    st.sampled_from(["low-bowl-20", "low-bowl-26", "belly-vase-16", "trough-40", "oval-dish-30", "cube-14"]),
    st.integers(15, 60),
    st.integers(1, 4),
)
def test_every_cut_end_lies_inside_the_vessel_and_every_length_adds_up(key: str, number: int, layers: int) -> None:
    vessel = vessels()[key]
    plan = stems(replace(piece(), vessel=vessel, water_level_m=0.04), number)
    envelope = replace(plan.envelope, height_m=vessel.rim_m + 0.2)
    mechanic = replace(plan.mechanic, layers=layers)
    placed = made(replace(plan, envelope=envelope, mechanic=mechanic)).placement
    found = placed.found
    for row in range(len(placed.stems)):
        width, depth = inside_size_m(vessel, vessel.inside_depth_m - found.drop_m[row])
        share = plan_share(
            vessel.plan_shape,
            found.end_x_m[row],
            found.end_y_m[row],
            np.asarray(width / 2),
            np.asarray(depth / 2),
        )
        assert share <= 1.0 + 1e-6
    assert np.all(found.drop_m <= vessel.inside_depth_m + 1e-9)
    run = np.hypot(placed.tip_m[:, 0] - found.end_x_m, placed.tip_m[:, 1] - found.end_y_m)
    rise = placed.tip_m[:, 2] - (vessel.rim_m - found.drop_m)
    assert placed.cut_length_m == pytest.approx(np.hypot(run, rise), abs=2e-3)


def test_the_same_recipe_always_lands_alike() -> None:
    assert np.array_equal(made(piece()).placement.tip_m, made(piece()).placement.tip_m)


def test_margins_mark_the_four_sides_and_then_the_height() -> None:
    marks = dome.directions("margin", 5, 0.0)
    assert marks[:4, :2] == pytest.approx(
        np.sqrt(1 - 0.12**2) * np.array([[0, -1], [1, 0], [0, 1], [-1, 0]]), abs=1e-12
    )
    assert marks[4] == pytest.approx([0, 0, 1])


def test_margin_tips_reach_the_envelope() -> None:
    placed = made(piece()).placement
    margins = placed.tip_m[:5]
    assert margins[:4, :2].max() == pytest.approx(0.19 * np.sqrt(1 - 0.12**2), rel=0.02)
    assert margins[4, 2] == pytest.approx(0.30)


@pytest.mark.parametrize("role", ["line", "focal", "filler", "base", "airy"])
def test_each_role_spreads_evenly_round_the_compass(role: Role) -> None:
    centre = dome.directions(role, 60, 0.7)[:, :2].mean(axis=0)
    assert np.hypot(*centre) < 0.05


def test_a_recipe_of_ordinary_size_finds_a_free_cell_for_every_stem() -> None:
    placed = made(stems(piece(), 36)).placement
    assert not placed.over_capacity.any()


def test_too_many_stems_are_named_not_hidden() -> None:
    """What is stated is what is seated: 90 stocks of 10 mm, two to each of 43 cells of 24 mm."""
    thick = RecipeLine(variety="stock", count=90, role="filler")
    crowded = made(replace(piece(), recipe=(thick,)))
    assert crowded.placement.over_capacity.sum() == 90 - 2 * len(crowded.placement.cells_m) == 4
    assert crowded.mechanic.capacity == 86


def test_no_stem_takes_a_seat_with_one_support_while_a_free_seat_gives_two() -> None:
    """All of an ordinary bowl's stems find two."""
    made_ = made(stems(piece(), 40))
    from jolly_trellis.core.checks.hold_swing import stems_play

    assert not stems_play(made_).unheld.any()


def test_soft_stems_are_not_leaned_farther_than_they_can_bear() -> None:
    soft = made(replace(piece(), recipe=(RecipeLine(variety="tulip", count=20, role="filler"),))).placement
    assert np.all(soft.tip_m[:, 2] - soft.head_z_m <= 0.2 * soft.visible_m + 1e-9)


def test_cells_cover_the_mouth_at_the_pitch() -> None:
    cells = seat_centres_m(vessels()["low-bowl-20"], CELLS, 0)
    apart = np.linalg.norm(cells[:, None] - cells[None], axis=2)
    assert apart[apart > 0].min() == pytest.approx(0.0268)
    assert len(cells) == pytest.approx(np.pi * 0.093**2 / (np.sqrt(3) / 2 * 0.0268**2), rel=0.12)


def test_tape_takes_the_cells_under_it() -> None:
    cells = seat_centres_m(vessels()["low-bowl-20"], CELLS, 0)
    assert under_tape(cells, strips=0, tape_width_m=0.006).sum() == 0
    one, two = (under_tape(cells, strips=n, tape_width_m=0.006).sum() for n in (1, 2))
    assert 0 < one < two < len(cells) / 2


@pytest.mark.parametrize(("lean_deg", "ratio", "needed"), [(15, 2.5, 0.75), (15, 1.0, 0.268)])
def test_friction_a_leaning_foot_needs(lean_deg: float, ratio: float, needed: float) -> None:
    """Worked from statics."""
    value = floor_friction_needed(np.radians(np.array([lean_deg])), np.array([ratio]))[0]
    assert value == pytest.approx(needed, abs=0.0015)


def test_a_far_leaning_foot_is_held_by_no_friction() -> None:
    assert np.isinf(floor_friction_needed(np.radians(np.array([50.0])), np.array([2.5]))[0])


def test_a_ray_meets_a_circle_an_ellipse_and_a_box() -> None:
    def ray(shape: PlanShape, x: float, y: float, dx: float, dy: float, a: float, b: float) -> float:
        at = [np.array([each]) for each in (x, y, dx, dy)]
        return float(ray_to_outline_m(shape, at[0], at[1], at[2], at[3], a, b)[0])

    assert ray("round", 0.02, 0, 1, 0, 0.1, 0.1) == pytest.approx(0.08)
    assert ray("oval", 0, 0, 0, -1, 0.2, 0.1) == pytest.approx(0.1)
    assert ray("rectangular", 0.05, 0.02, 1, 0, 0.2, 0.1) == pytest.approx(0.15)
    assert ray("round", 0.12, 0, 1, 0, 0.1, 0.1) < 0


def test_an_unknown_variety_is_answered_with_the_nearest() -> None:
    with pytest.raises(UnknownName) as caught:
        made(replace(piece(), recipe=(RecipeLine(variety="ranunclus", count=5, role="filler"),)))
    assert caught.value.path == "recipe.0.variety"
    assert "ranunculus" in caught.value.limit.text


@pytest.mark.parametrize(("count", "clump", "path"), [(0, 1, "count"), (5, 0, "clump"), (10_000, 1, "count")])
def test_counts_that_plan_nothing_or_too_much_are_refused(count: int, clump: int, path: str) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        made(replace(piece(), recipe=(RecipeLine(variety="rose", count=count, role="focal", clump=clump),)))
    assert caught.value.path == f"recipe.0.{path}"


def test_clumps_go_in_together() -> None:
    line = RecipeLine(variety="gypsophila", count=11, role="airy", clump=3)
    placed = made(replace(piece(), recipe=(line,))).placement
    assert placed.stems.stems_in_row.tolist() == [3, 3, 3, 2]


def test_the_mean_stem_counts_every_stem_of_a_clump() -> None:
    """Three of one variety in one clump and one of another: three times the first and once the second, over four."""
    lines = (
        RecipeLine(variety="rose", count=3, role="focal", clump=3),
        RecipeLine(variety="ranunculus", count=1, role="filler"),
    )
    thick, thin = (varieties()[key].stem_diameter_m for key in ("rose", "ranunculus"))
    assert expand(lines, conditions().varieties).mean_diameter_m == pytest.approx((3 * thick + thin) / 4)


def test_cells_of_every_other_row_stand_half_a_cell_to_the_right() -> None:
    """By hand: rows √3/2 of a cell apart, each second one shifted by half a cell, to the right as sheets are drawn."""
    with conditions().figures.open():
        cells = seat_centres_m(vessels()["low-bowl-20"], CELLS, 0)
    pitch = CELLS.pitch_m
    rows = sorted({round(float(y), 6) for _, y in cells})
    first = min(rows, key=abs)
    second = min(row for row in rows if row > first)
    assert second - first == pytest.approx(pitch * 3**0.5 / 2, rel=1e-3)
    for row, shift in ((first, 0.0), (second, 0.5)):
        places = np.array([x for x, y in cells if abs(y - row) < 1e-5]) / pitch - shift
        assert places == pytest.approx(np.round(places), abs=1e-6)
    reach = {row: max(x for x, y in cells if abs(y - row) < 1e-5) for row in rows}
    low = {row: min(x for x, y in cells if abs(y - row) < 1e-5) for row in rows}
    assert reach[first] == pytest.approx(-low[first])


def test_a_round_bed_in_a_long_vessel_is_round_and_an_oval_one_has_the_vessels_shape() -> None:
    """By hand: a corner of the bed's square is in a rectangle and not in a circle."""
    trough = vessels()["trough-60"]
    square = replace(CELLS, pattern="square", pitch_m=0.02, half_width_m=0.05, half_depth_m=0.05)
    with conditions().figures.open():
        round_bed = seat_centres_m(trough, square, 0)
        long_bed = seat_centres_m(trough, replace(square, half_width_m=0.09), 0)
    assert np.hypot(round_bed[:, 0], round_bed[:, 1]).max() <= 0.05 + 1e-9
    corners = (abs(long_bed[:, 0]) > 0.07) & (abs(long_bed[:, 1]) > 0.035)
    assert corners.any() == (trough.plan_shape == "rectangular")
