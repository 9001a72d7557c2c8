"""What the verdicts make of acts: what goes in on site is not driven, weights are judged where they are missing."""

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from jolly_trellis.core.books import bodies
from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks import lift, stand_acts, travel
from jolly_trellis.core.checks.balance import footing_of, turning_kg_m
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.geometry import azimuth_rays
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.passage import Cooled, Handover, Passage
from jolly_trellis.core.plan.piece import Counterweight, Mechanic, Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.stems.shades import with_count
from tests.ordinary import beside, bouquet, conditions, on_ledge, piece, recipe
from tests.rigs import run

BOXED = Transport(box_wall_m=0.2)
THERE = Passage(made="its place")


def verdict(plan: Piece, verb: str, *, with_fixes: bool = False) -> Verdict:
    return next(each for each in evaluate(plan, conditions(), with_fixes=with_fixes).verdicts if each.verb == verb)


def test_a_low_bowl_of_hydrangea_made_where_it_stands_is_made_on_site() -> None:
    low = replace(piece(), recipe=recipe(hydrangea=(5, "focal")), transport=BOXED)
    assert any(each.check.startswith("thirsty") for each in verdict(low, "drink").findings)
    assert not any(each.check.startswith("thirsty") for each in verdict(replace(low, passage=THERE), "drink").findings)


def test_what_goes_in_on_site_is_neither_driven_nor_carried_through_the_door_but_in_a_bucket() -> None:
    """Bare it is its vessel, wire and the road's water, and as high as its rim; the rest rides in a bucket."""
    plan = replace(piece(), transport=BOXED)
    bare = replace(plan, recipe=tuple(replace(line, goes_in="on site") for line in plan.recipe))
    full, empty = build(plan, conditions()), build(bare, conditions())
    stems = float(full.rows.mass_kg.sum())
    whole, dry = travel.journey_of(full), travel.journey_of(empty)
    assert whole is not None
    assert dry is not None
    assert dry.mass_kg == pytest.approx(whole.mass_kg - stems)
    assert dry.height_m == pytest.approx(plan.vessel.rim_m)
    assert dry.width_m == pytest.approx(dry.box_width_m)
    assert [each.name for each in lift.loads_of(full)] == ["the piece as it travels"]
    by_name = {each.name: each.mass_kg for each in lift.loads_of(empty)}
    assert by_name["the piece as it travels"] == pytest.approx(dry.heavy_kg)
    number = sum(line.count for line in plan.recipe)
    heavy = float(full.heavy_rows.mass_kg.sum()) * min(25 / number, 1.0)
    assert by_name["a bucket of what goes in there"] == pytest.approx(0.6 + 3.0 + heavy)


def test_half_of_a_line_may_go_in_on_site_and_its_weight_with_it() -> None:
    plan = replace(piece(), recipe=recipe(rose=(10, "focal")), transport=BOXED)
    some = replace(plan, recipe=(replace(plan.recipe[0], goes_in="on site", goes_in_n=4),))
    made = build(some, conditions())
    there = made.placement.stems.present(travel.loaded(made).stems)
    assert int(made.placement.stems.stems_in_row[there].sum()) == 6
    clumps = replace(some, recipe=(replace(some.recipe[0], clump=3),))
    rows = build(clumps, conditions()).placement.stems
    riding = rows.stems_in_row[rows.present(travel.loaded(build(clumps, conditions())).stems)]
    assert int(riding.sum()) == 6


def test_rods_of_cups_weigh_as_they_are_cut() -> None:
    """What the balance has of cups and rods beside stems and water is what the list has of them."""
    tall = RecipeLine(variety="rose", count=6, role="line", water="cup", clump=2)
    plan = replace(piece(), recipe=(*piece().recipe, tall), envelope=replace(piece().envelope, height_m=0.9))
    made = build(plan, conditions())
    listed = sum(each.part.mass_kg for each in made.extras if "spike cup" in each.part.name)
    stems = made.placement.stems
    bare = stems.mass_kg(made.placement.cut_length_m)
    carried = float((made.rows.mass_kg - bare)[stems.in_cup].sum())
    water = 3 * 0.060
    assert listed > 0
    assert carried == pytest.approx(listed + water)


def leaning() -> Standing:
    """A bowl near the edge of a ledge whose finished piece is held by 4 kg at its back."""
    plan = on_ledge(set_back_m=0.0)
    weight = Counterweight(mass_kg=4.0, away_m=0.14, azimuth_rad=math.pi)
    wide = replace(plan.envelope, depth_m=plan.envelope.depth_m * 1.3, height_m=plan.envelope.height_m * 1.2)
    return replace(plan, counterweight=weight, envelope=wide, transport=BOXED)


def test_a_piece_is_judged_set_down_before_its_weight_is_on_with_hands_on_it() -> None:
    made = build(leaning(), conditions())
    moments = {each.act: each for each in stand_acts.moments_of(made)}
    assert moments["carry in"].held
    assert not moments["carry in"].stances[0].weight
    found = [each for each in verdict(leaning(), "stand").findings if each.check == "after: carry in"]
    assert found
    assert {each.limit.value for each in found if each.limit.kind == "ratio"} == {1.2}
    # Worked again from the bodies alone: each row of stems by itself, the weight left out.
    state = travel.loaded(made)
    parts = [(each.mass_kg, each.y_m) for each in bodies.own_bare(made, "heavy", state)]
    rows = bodies.rows_in(made, "heavy")
    parts += list(zip(rows.mass_kg.tolist(), rows.centre_m[:, 1].tolist(), strict=True))
    axis = footing_of(made).axis_m
    out = sum(kg * (axis - y) for kg, y in parts if y < axis)
    holds = sum(kg * (y - axis) for kg, y in parts if y > axis)
    heavy = next(each for each in found if each.case == "heavy" and each.limit.kind == "ratio")
    assert heavy.value.value == pytest.approx(min(holds / out, 9.99), rel=1e-6)


def test_a_piece_on_a_table_with_all_its_stems_is_judged_no_oftener_than_before() -> None:
    assert list(stand_acts.moments_of(build(piece(), conditions()))) == []
    driven = list(stand_acts.moments_of(build(replace(piece(), transport=BOXED), conditions())))
    assert [(each.act, each.stances[0].level) for each in driven] == [("carry in", "road")]
    wetter = replace(BOXED, water_level_m=piece().water_level_m)
    assert list(stand_acts.moments_of(build(replace(piece(), transport=wetter), conditions()))) == []


def test_at_strike_the_weight_is_off_only_when_nothing_leans_out_any_more() -> None:
    made = build(leaning(), conditions())
    acts = [each.act for each in stand_acts.moments_of(made)]
    assert acts.index("take the stems out") < acts.index("take the weight off")
    struck = [each for each in verdict(leaning(), "stand").findings if each.check == "after: take the weight off"]
    assert all(each.utilisation <= 1 for each in struck)


def test_one_that_falls_before_its_weight_is_on_is_set_down_bare_and_made_there() -> None:
    wide = replace(leaning().envelope, depth_m=0.7, height_m=0.5, width_m=0.45)
    light = Counterweight(mass_kg=0.2, away_m=0.14, azimuth_rad=math.pi)
    far = replace(leaning(), envelope=wide, counterweight=light, transport=replace(BOXED, water_level_m=0.0))
    worst = [each for each in verdict(far, "stand").findings if each.check == "after: carry in"]
    assert any(each.utilisation > 1 for each in worst)
    there = verdict(replace(far, passage=THERE), "stand")
    assert all(each.utilisation <= 1 for each in there.findings if each.check == "after: carry in")
    made = build(far, conditions())
    assert [each.key for each in stand_acts.candidates(made, verdict(far, "stand"))] == ["made-there"]
    assert stand_acts.candidates(made, verdict(piece(), "stand")) == []


@pytest.mark.parametrize(
    ("changes", "path", "instead"),
    [
        ({"passage": Passage(made="sections")}, "passage.made", "in the workshop or where it stands"),
        ({"recipe": (RecipeLine(variety="rose", count=5, role="focal", goes_in="after the move"),)},
         "recipe.0.goes_in", "say where it is moved to"),
        ({"recipe": (RecipeLine(variety="rose", count=5, role="focal", goes_in="last", goes_in_n=6),)},
         "recipe.0.goes_in_n", "5 at most"),
        ({"passage": Passage(handover=Handover(to="her", at="half past two"))}, "passage.handover.at", "T14:30"),
        ({"passage": Passage(handover=Handover(to="her", at="2027-05-15"))}, "passage.handover.at", "T14:30"),
        ({"passage": Passage(handover=Handover(to="her", at="2027-05-15T14:30+02"))}, "passage.handover.at", "clock"),
    ],
)  # fmt: skip
def test_choices_that_contradict_one_another_are_refused_with_what_would_be_right(
    changes: dict[str, Any], path: str, instead: str
) -> None:
    with pytest.raises(InvalidMeasure) as refused:
        build(replace(piece(), **changes), conditions())
    assert refused.value.path == path
    assert instead in refused.value.limit.text


def test_a_moved_piece_takes_stems_after_the_move_and_a_bouquet_takes_none_last() -> None:
    line = RecipeLine(variety="rose", count=5, role="focal", goes_in="after the move")
    moved = replace(piece(), recipe=(line,), setting=replace(piece().setting, moves_to="floor"))
    assert len(build(moved, conditions()).acts) > 8
    with pytest.raises(InvalidMeasure) as refused:
        build(replace(bouquet(), recipe=(replace(line, goes_in="last"),)), conditions())
    assert refused.value.path == "recipe.0.goes_in"
    with pytest.raises(InvalidMeasure) as refused:
        assess(replace(run(5), recipe=(line,)), conditions())
    assert refused.value.path == "recipe.0.goes_in"


def test_all_of_a_line_may_be_named_as_going_in_later() -> None:
    line = RecipeLine(variety="rose", count=5, role="focal", goes_in="last", goes_in_n=5)
    assert len(build(replace(piece(), recipe=(line,)), conditions()).acts) > 8


def test_set_down_it_tips_over_its_foot_with_free_water_raising_its_centre() -> None:
    """Everything as one body at the road's level: atan(edge / (height + how far the water raises it)), the least."""
    made = build(replace(piece(), transport=BOXED), conditions())
    state = travel.loaded(made)
    whole = bodies.centre_of(bodies.own(made, "heavy", state))
    raised = max(turning_kg_m(made, state)) / whole.mass_kg
    foot = (piece().vessel.foot_width_m or 0.0) / 2
    edge = foot - math.hypot(whole.x_m, whole.y_m)
    expected = math.atan2(edge, whole.height_m + raised)
    found = [each for each in verdict(replace(piece(), transport=BOXED), "stand").findings if each.case == "heavy"]
    (down,) = (each for each in found if each.check == "after: carry in")
    assert raised > 0.001
    assert down.value.value == pytest.approx(expected, rel=2e-3)
    assert down.limit.value > math.radians(9.9)


def test_a_vessel_that_is_tied_beside_it_is_set_down_with_it() -> None:
    """Both vessels at the road's level as one body, the second at its place beside the first."""
    plan = replace(piece(), companions=(beside(tied=True, x_m=0.3, y_m=0.1),), transport=BOXED)
    made = build(plan, conditions())
    other = made.companions[0]
    parts = list(bodies.own(made, "heavy", travel.loaded(made)))
    parts += [
        replace(each, x_m=each.x_m + 0.3, y_m=each.y_m + 0.1)
        for each in bodies.own(other, "heavy", travel.loaded(other))
    ]
    whole = bodies.centre_of(tuple(parts))
    rises = [turning_kg_m(each, travel.loaded(each)) for each in (made, other)]
    ray_x, ray_y = azimuth_rays(72)
    edges = footing_of(made).edge_m(np.full(72, whole.x_m), np.full(72, whole.y_m), ray_x, ray_y)
    rise = (sum(each[0] for each in rises) * ray_x**2 + sum(each[1] for each in rises) * ray_y**2) / whole.mass_kg
    expected = float(np.arctan2(edges, whole.height_m + rise).min())
    found = [each for each in verdict(plan, "stand").findings if each.case == "heavy"]
    (down,) = (each for each in found if each.check == "after: carry in")
    assert down.value.value == pytest.approx(expected, rel=1e-9)


def test_the_door_of_the_cool_room_is_asked_for_as_the_van_s_is() -> None:
    def cooled(**door: float) -> Verdict:
        cold = Passage(cooled=Cooled(days=1.0, **door))
        return verdict(replace(bouquet(), transport=BOXED, passage=cold), "travel")

    assert not any("cool room" in each.check for each in cooled().findings)
    low = cooled(door_height_m=0.2, door_width_m=2.0)
    (door,) = (each for each in low.findings if each.check == "cool room's door")
    made = travel.journey_of(build(replace(bouquet(), transport=BOXED), conditions()))
    assert made is not None
    assert (low.state, door.limit.value) == ("fails", 0.2)
    assert door.utilisation > 1
    assert door.value.value == pytest.approx(made.height_m)
    (narrow,) = (each for each in cooled(door_width_m=0.1).findings if each.check == "cool room's door")
    assert narrow.value.value == pytest.approx(made.width_m)
    (wide,) = (each for each in cooled(door_height_m=2.0, door_width_m=1.0).findings if "cool room" in each.check)
    assert wide.utilisation < 1


def test_as_many_of_a_line_go_in_later_as_before_when_it_is_scaled() -> None:
    line = RecipeLine(variety="rose", count=10, role="focal", goes_in="on site", goes_in_n=4)
    found = [with_count(line, number) for number in (20, 5, 1)]
    assert [(each.count, each.goes_in_n) for each in found] == [(20, 8), (5, 2), (1, 1)]
    assert with_count(replace(line, goes_in_n=None), 3).goes_in_n is None


def test_a_pad_that_rides_on_a_bucket_is_filled_where_it_is_shown_all_of_it() -> None:
    """Its vessel rides empty: nothing of the water on show comes with it."""
    pad = replace(piece(), mechanic=Mechanic(kind="lattice_pad"), must_lift_off=True)
    riding = replace(pad, transport=Transport(lifted_out=True, box_wall_m=0.2))
    assert travel.lifted_out(build(riding, conditions())) == "pad"
    water = evaluate(riding, conditions(), with_fixes=False).water
    assert water.poured_l == pytest.approx(water.on_show_l)
    assert water.poured_l > 0
