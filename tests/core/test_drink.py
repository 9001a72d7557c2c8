"""Drink: volumes, draw, the first dry stem, top-ups."""

import re
from dataclasses import replace
from datetime import datetime
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.books.water import needed_hours, pooled, run_down
from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials import air
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.vessels import volume_below_l
from jolly_trellis.core.placement.water_table import water_table
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.setting import TopUp
from jolly_trellis.core.units import render
from tests.ordinary import ZONE, conditions, piece, round_vessel, stems, vessels

FLARED = round_vessel((0, 0.060), (0.09, 0.110))


def verdict_of(each: Piece, under: Conditions | None = None) -> Verdict:
    return next(v for v in evaluate(each, under or conditions()).verdicts if v.verb == "drink")


def test_thirty_stems_drink_548_ml_in_22_8_hours() -> None:
    """Worked by hand: filled to 0.07 m, 30 stems of 0.8 ml/h, all ends at 0.05 m, nothing evaporates."""
    table = water_table(FLARED, placement=None, mechanic=None, ballast_kg=0.0)
    going = run_down(
        table,
        level_m=0.07,
        end_levels_m=np.full(30, 0.05),
        draws_ml_h=np.full(30, 0.8),
        evaporation_ml_h_m2=0.0,
        needed_h=48.0,
    )
    assert table.volume_at_l(0.07) - table.volume_at_l(0.05) == pytest.approx(0.548, abs=0.0005)
    assert going.first_dry_h == pytest.approx(22.8, abs=0.05)
    assert going.lowest_level_m == pytest.approx(0.05, abs=1e-4)


def test_the_highest_end_runs_dry_first_and_then_drinks_no_more() -> None:
    table = water_table(FLARED, placement=None, mechanic=None, ballast_kg=0.0)
    ends = np.array([0.02, 0.05, 0.03])
    going = run_down(
        table,
        level_m=0.07,
        end_levels_m=ends,
        draws_ml_h=np.array([10.0, 10.0, 10.0]),
        evaporation_ml_h_m2=0.0,
        needed_h=100.0,
    )
    assert going.first_dry_row == 1
    first = (table.volume_at_l(0.07) - table.volume_at_l(0.05)) * 1000 / 30
    second = (table.volume_at_l(0.05) - table.volume_at_l(0.03)) * 1000 / 20
    level = np.interp(first + second, going.hours, going.levels_m)
    assert level == pytest.approx(0.03, abs=5e-4)


@given(st.floats(0.03, 0.085), st.floats(0.005, 0.025), st.floats(1.0, 60.0))
def test_what_is_drunk_is_what_is_missing(level: float, end: float, draw: float) -> None:
    table = water_table(FLARED, placement=None, mechanic=None, ballast_kg=0.0)
    going = run_down(
        table,
        level_m=level,
        end_levels_m=np.array([end]),
        draws_ml_h=np.array([draw]),
        evaporation_ml_h_m2=0.0,
        needed_h=5.0,
    )
    gone = table.volume_at_l(level) - table.volume_at_l(float(np.interp(5.0, going.hours, going.levels_m)))
    assert going.drawn_l == pytest.approx(gone, abs=2e-4)
    assert going.drawn_l <= draw * 5.0 / 1000 + 1e-9


def test_a_top_up_puts_off_the_first_dry_stem() -> None:
    table = water_table(FLARED, placement=None, mechanic=None, ballast_kg=0.0)

    def first(*top_ups: TopUp) -> float:
        hours = run_down(
            table,
            level_m=0.07,
            end_levels_m=np.full(30, 0.05),
            draws_ml_h=np.full(30, 0.8),
            evaporation_ml_h_m2=0.0,
            needed_h=48.0,
            top_ups=top_ups,
        ).first_dry_h
        assert hours is not None
        return hours

    assert first(TopUp(after_h=10, volume_l=0.24)) == pytest.approx(first() + 10.0, abs=0.02)


def test_water_that_does_not_fit_is_not_counted() -> None:
    table = water_table(FLARED, placement=None, mechanic=None, ballast_kg=0.0)
    going = run_down(
        table,
        level_m=0.07,
        end_levels_m=np.array([0.05]),
        draws_ml_h=np.array([1.0]),
        evaporation_ml_h_m2=0.0,
        needed_h=10.0,
        top_ups=(TopUp(after_h=1, volume_l=50.0),),
    )
    assert max(going.levels_m) <= 0.08 + 1e-6


@pytest.mark.parametrize("key", sorted(vessels()))
def test_the_water_table_of_an_empty_vessel_is_its_volume(key: str) -> None:
    vessel = vessels()[key]
    table = water_table(vessel, placement=None, mechanic=None, ballast_kg=0.0)
    for level in np.linspace(0, vessel.inside_depth_m, 7).tolist():
        assert table.volume_at_l(level) == pytest.approx(volume_below_l(vessel, level), rel=2e-3, abs=1e-4)


def test_stems_wire_and_stone_take_the_place_of_water() -> None:
    made = build(replace(piece(), ballast_kg=0.5), conditions())
    empty = water_table(made.piece.vessel, placement=None, mechanic=None, ballast_kg=0.0)
    taken = empty.volume_at_l(0.083) - made.water.volume_at_l(0.083)
    assert 0.2 < taken < 0.45


@pytest.mark.parametrize(("temperature", "humidity", "factor"), [(28, 0.45, 2.223), (12, 0.7, 0.45), (20, 0.6, 1.0)])
def test_draw_against_20_degrees_and_60_percent(temperature: float, humidity: float, factor: float) -> None:
    """Worked from the formula."""
    drawn = air.draw_factor(Air(temperature_c=temperature, relative_humidity=humidity))
    assert drawn == pytest.approx(factor, abs=0.0005)


def test_draw_is_kept_within_its_bounds() -> None:
    assert air.draw_factor(Air(temperature_c=45, relative_humidity=0.05)) == 3.0
    assert air.draw_factor(Air(temperature_c=2, relative_humidity=1.0)) == 0.3


def test_sun_makes_flowers_drink_more() -> None:
    shade, sun = (air.draw_factor(Air(temperature_c=20, relative_humidity=0.6, sun=sun)) for sun in (False, True))
    assert sun > 2 * shade


@pytest.mark.parametrize(("temperature", "humidity"), [(80, 0.5), (20, 1.2), (20, -0.1)])
def test_air_out_of_range_is_refused(temperature: float, humidity: float) -> None:
    with pytest.raises(InvalidMeasure):
        air.vapour_pressure_deficit_kpa(Air(temperature_c=temperature, relative_humidity=humidity))


def test_evaporation_is_proportional_to_surface_and_cover() -> None:
    """131·A·(1 + 0.88·v)·VPD·cover, from memory of the ASHRAE pool equation."""
    still = Air(temperature_c=20, relative_humidity=0.6)
    expected = 131 * 0.03 * 1.088 * (2.3383 * 0.4) * 0.4
    assert air.evaporation_ml_h(0.03, still, 0.4) == pytest.approx(expected, rel=1e-3)


def test_an_ordinary_bowl_drinks_through_an_evening() -> None:
    assert verdict_of(piece()).state in ("holds", "tight")


def test_a_soaked_block_is_drunk_to_its_last_drop_and_filled_again() -> None:
    """By hand: 1 L at 100 ml/h; 0.3 L after 5 h makes 0.8 L, which last 8 h more; 2 L after that fill it, no more."""
    once = pooled(volume_l=1.0, level_m=0.1, draw_ml_h=100.0, needed_h=20.0, top_ups=(), row=0)
    assert once.first_dry_h == pytest.approx(10.0)
    again = pooled(
        volume_l=1.0,
        level_m=0.1,
        draw_ml_h=100.0,
        needed_h=12.0,
        top_ups=(TopUp(after_h=5.0, volume_l=0.3),),
        row=0,
    )
    assert again.first_dry_h == pytest.approx(13.0)
    assert again.drawn_l == pytest.approx(1.2)
    assert again.lowest_level_m == pytest.approx(0.01)
    brim = TopUp(after_h=5.0, volume_l=2.0)
    full = pooled(volume_l=1.0, level_m=0.1, draw_ml_h=100.0, needed_h=12.0, top_ups=(brim,), row=0)
    assert full.first_dry_h == pytest.approx(15.0)


LOW = replace(stems(piece(), 45), water_level_m=0.05)


def test_a_long_hot_evening_fails_and_every_fix_mends_it() -> None:
    hot = replace(conditions(), air=Air(temperature_c=27, relative_humidity=0.35))
    verdict = verdict_of(LOW, hot)
    assert verdict.state == "fails"
    assert "top-up" in {fix.key for fix in verdict.fixes}
    for fix in verdict.fixes:
        assert verdict_of(fix.piece, hot).state in ("holds", "tight")


def test_top_ups_count_only_where_somebody_is_named() -> None:
    hot = replace(conditions(), air=Air(temperature_c=27, relative_humidity=0.35))
    topped = next(fix for fix in verdict_of(LOW, hot).fixes if fix.key == "top-up").piece
    verdict = verdict_of(topped, replace(hot, topped_up_by=None))
    assert verdict.state == "fails"
    assert "Nobody is named" in verdict.reason.text


def test_a_top_up_asks_who_does_it_where_nobody_is_named() -> None:
    hot = replace(conditions(), air=Air(temperature_c=27, relative_humidity=0.35))
    asks = "Name who does it in the brief."
    assert verdict_of(LOW, replace(hot, topped_up_by=None)).reason.text.endswith(asks)
    named = verdict_of(LOW, hot).reason.text
    assert "Top up" in named
    assert asks not in named


def test_a_cut_end_above_the_water_fails_and_says_which() -> None:
    verdict = verdict_of(replace(piece(), water_level_m=0.008))
    assert verdict.state == "fails"
    covered = next(each for each in verdict.findings if each.check == "covered")
    assert covered.utilisation > 9.99
    assert "above the water" in covered.reason.text


@pytest.mark.parametrize(
    ("changed", "words"),
    [
        ({"air": None}, "temperature and humidity"),
        ({"filled_at": None}, "filled"),
        ({"ends_at": None}, "ends"),
    ],
)
def test_a_missing_fact_cannot_be_judged(changed: dict[str, Any], words: str) -> None:
    verdict = verdict_of(piece(), replace(conditions(), **changed))
    assert verdict.state == "cannot say"
    assert words in verdict.reason.text


def test_a_night_with_a_clock_change_has_its_real_length() -> None:
    night = replace(
        conditions(),
        filled_at=datetime(2027, 10, 30, 20, 0, tzinfo=ZONE),
        ends_at=datetime(2027, 10, 31, 8, 0, tzinfo=ZONE),
    )
    assert needed_hours(night) == 13.0


def test_the_time_of_a_top_up_is_the_clock_on_the_wall() -> None:
    hot = replace(conditions(), air=Air(temperature_c=27, relative_humidity=0.35))
    fix = next(each for each in verdict_of(LOW, hot).fixes if each.key == "top-up")
    after_h = fix.piece.top_ups[0].after_h
    hour, minute = divmod(round(13 * 60 + after_h * 60), 60)
    assert f"{hour:02d}:{minute:02d}" in fix.say.text


def test_the_reason_and_the_fix_ask_for_the_same_water_at_the_same_time() -> None:
    """In the case that governs, both say when and how much: one sum, said twice."""
    verdict = verdict_of(LOW)
    fix = next(each for each in verdict.fixes if each.key == "top-up")
    asked = re.search(r"Top up (.+ ml) by (\d\d:\d\d)", render(verdict.reason, "metric"))
    assert asked
    assert f"{asked[1]} by {asked[2]}" in render(fix.say, "metric")


def test_each_of_two_top_ups_is_poured_into_what_is_left_by_then() -> None:
    """1 l drunk at 0.1 l/h: 0.6 left at 4 h, 0.8 with the first; 0.6 at 6 h, 0.8 with the second; dry at 14 h."""
    twice = (TopUp(after_h=4, volume_l=0.2), TopUp(after_h=6, volume_l=0.2))
    going = pooled(volume_l=1.0, level_m=0.1, draw_ml_h=100, needed_h=20, top_ups=twice, row=0)
    assert going.first_dry_h == pytest.approx(14.0)


def test_a_humidity_that_cannot_be_is_said_as_it_was_typed() -> None:
    with pytest.raises(InvalidMeasure) as caught:
        air.vapour_pressure_deficit_kpa(Air(temperature_c=20, relative_humidity=1.5))
    assert caught.value.message.text == "A humidity of 150 % is out of range."


def test_several_top_ups_are_one_sentence() -> None:
    hot = replace(conditions(), air=Air(temperature_c=32, relative_humidity=0.2))
    fix = next(each for each in verdict_of(LOW, hot).fixes if each.key == "top-up")
    assert len(fix.piece.top_ups) > 1
    assert re.fullmatch(r"Top up \{v\} by [^,.]+(, \{v(_\d)?\} by [^,.]+)+\.", fix.say.text)
