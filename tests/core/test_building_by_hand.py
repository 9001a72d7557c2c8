"""Sums of a piece as it is put together, by hand: courses of water, what rocks a mechanic, what is tall."""

from dataclasses import replace

import numpy as np
import pytest

from jolly_trellis.core.books.water import HEAVY_DRAW, courses
from jolly_trellis.core.building.build import build, companion_piece, demand_n_m
from jolly_trellis.core.materials.stems import GRAVITY_M_S2
from jolly_trellis.core.plan.piece import Mechanic, Support
from jolly_trellis.core.plan.setting import TopUp, Transport
from tests.ordinary import beside, conditions, piece, recipe


def test_thirsty_days_empty_the_fullest_of_several_cups_sooner_by_their_share() -> None:
    cups = replace(piece(), mechanic=Mechanic(kind="raised_cups", cup_ml=30.0), recipe=recipe(rose=(9, "focal")))
    made = build(cups, conditions())
    assert made.courses is not None
    typical, heavy, low = (each.first_dry_h for each in made.courses)
    assert typical is not None
    assert heavy == pytest.approx(typical / HEAVY_DRAW.value)
    assert low == pytest.approx(0.9 * typical)


def test_water_poured_at_the_very_end_is_counted_and_changes_nothing_that_was_drunk() -> None:
    """Ten hours from filling to the end; two top-ups of 200 ml, the second of them as the last guest goes."""
    made = build(piece(), conditions())

    def drawn(*hours: float) -> float:
        plan = replace(piece(), top_ups=tuple(TopUp(after_h=each, volume_l=0.2) for each in hours))
        found = courses(plan, made.conditions, made.mechanic, made.placement, made.water)
        assert found is not None
        return found[0].drawn_l

    assert drawn(4.0, 10.0) == pytest.approx(drawn(4.0), rel=1e-9)


def test_a_course_is_told_twice_an_hour_and_at_the_end() -> None:
    made = build(piece(), conditions())
    assert made.courses is not None
    hours = made.courses[0].hours
    assert hours[:4] == (0.0, 0.5, 1.0, 1.5)
    assert 10.0 in hours


def test_what_rocks_a_mechanic_is_the_stems_moment_less_what_their_weight_holds_on_its_arm() -> None:
    """Of a mechanic that rests on an edge 1 cm out: |Σ m·g·x| − Σ m·g · 0.01, heavy, and never less than nothing."""
    leaning = replace(piece(), recipe=recipe(rose=(6, "focal")), envelope=replace(piece().envelope, form="forward"))
    made = build(leaning, conditions())
    resting = replace(made.mechanic, seat_arm_m=0.01)
    kg, at = made.heavy_rows.mass_kg, made.heavy_rows.centre_m
    sideways = GRAVITY_M_S2 * float(np.hypot(*(kg[:, None] * at[:, :2]).sum(axis=0)))
    holds = GRAVITY_M_S2 * float(kg.sum()) * 0.01
    assert sideways > holds > 0
    assert demand_n_m(resting, leaning, made.placement) == pytest.approx(sideways - holds)
    far = replace(made.mechanic, seat_arm_m=1.0)
    assert demand_n_m(far, leaning, made.placement) == 0.0


def test_tall_frog_work_is_what_stands_tall_over_its_rim_not_over_the_table() -> None:
    """On a stand of 40 cm and to 70 cm it is 22 cm over its rim: no frog is stuck for that; to 100 cm it is 52."""
    stand = Support(name="stand", height_m=0.4, top_width_m=0.2, foot_width_m=0.2, mass_kg=2.0)
    raised = replace(piece(), support=stand, mechanic=Mechanic(kind="pin_frog", frog="pin-75"))

    def stuck(height_m: float) -> bool:
        made = build(replace(raised, envelope=replace(raised.envelope, height_m=height_m)), conditions())
        return any("putty" in part.name for part in made.mechanic.parts)

    assert [stuck(0.7), stuck(1.0)] == [False, True]


def test_a_companion_rides_no_wetter_than_it_is_deep() -> None:
    other = beside(tied=False)
    deep = other.vessel.inside_depth_m
    going = replace(
        piece(), transport=Transport(overnight_level_m=deep + 0.05, water_level_m=deep - 0.01), companions=(other,)
    )
    there = companion_piece(going, other).transport
    assert there is not None
    assert (there.overnight_level_m, there.water_level_m) == (deep, deep - 0.01)
    assert companion_piece(replace(going, transport=Transport()), other).transport == Transport()
