"""Stem tubes at any angle, wraps, dry hold, thirsty varieties."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.building.build import build
from jolly_trellis.core.checks import drink
from jolly_trellis.core.checks.drink_own import own_lasts
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine, StemTube, WaterSource
from jolly_trellis.core.stems.dry_life import dry_rate
from jolly_trellis.core.stems.tubes import cap_down_full_ml, hours_of_water, upright_ml, usable_ml
from tests.ordinary import conditions, lacks, piece, varieties, vessels

DEEP = StemTube(cap_seals=True)
SHORT = StemTube(stem_in_m=0.02, cap_seals=True)
DOWN = math.pi


@pytest.mark.parametrize(("tube", "ml"), [(DEEP, 8.47), (SHORT, 2.31)])
def test_upright_worked_by_hand(tube: StemTube, ml: float) -> None:
    assert upright_ml(tube) == pytest.approx(ml, abs=0.005)
    assert usable_ml(tube) == pytest.approx(ml, rel=0.008)


@pytest.mark.parametrize(("tube", "ml"), [(DEEP, 4.62), (SHORT, 10.78)])
def test_cap_down_and_full_worked_by_hand(tube: StemTube, ml: float) -> None:
    assert cap_down_full_ml(tube) == pytest.approx(ml, abs=0.005)
    assert usable_ml(replace(tube, tilt_rad=DOWN)) == pytest.approx(ml, rel=0.005)


def test_half_filled_and_cap_down_a_deep_stem_reaches_nothing() -> None:
    assert usable_ml(replace(DEEP, tilt_rad=DOWN, fill_share=0.5)) == 0.0


def test_a_full_tube_lying_flat_gives_half() -> None:
    full = 1e6 * math.pi / 4 * 0.014**2 * 0.09
    assert usable_ml(replace(DEEP, tilt_rad=math.pi / 2)) == pytest.approx(full / 2, rel=0.01)


def test_a_cap_that_does_not_seal_gives_nothing_turned_down() -> None:
    assert usable_ml(StemTube(tilt_rad=DOWN, cap_seals=False)) == 0.0


def test_the_stems_own_section_is_taken_off_upright() -> None:
    assert usable_ml(DEEP, 0.007) == pytest.approx(0.75 * usable_ml(DEEP), rel=0.01)
    assert upright_ml(DEEP, 0.007) == pytest.approx(0.75 * upright_ml(DEEP))


@pytest.mark.parametrize("stem_in", [0.0, -0.01, 0.12])
def test_a_stem_that_does_not_fit_its_tube_is_refused(stem_in: float) -> None:
    with pytest.raises(InvalidMeasure):
        usable_ml(replace(DEEP, stem_in_m=stem_in))


@given(st.floats(0.01, 0.09), st.floats(0.0, math.pi), st.floats(0.0, 1.0))
def test_no_tube_gives_more_than_it_holds(stem_in: float, tilt: float, fill: float) -> None:
    tube = StemTube(stem_in_m=stem_in, tilt_rad=tilt, fill_share=fill, cap_seals=True)
    holds = 1e6 * math.pi / 4 * tube.inner_diameter_m**2 * tube.length_m
    assert 0.0 <= usable_ml(tube) <= fill * holds * 1.01 + 1e-9


@given(st.floats(0.0, math.pi))
def test_a_fuller_tube_never_gives_less(tilt: float) -> None:
    amounts = [usable_ml(replace(DEEP, tilt_rad=tilt, fill_share=share)) for share in (0.3, 0.6, 1.0)]
    assert amounts[0] <= amounts[1] + 0.05
    assert amounts[1] <= amounts[2] + 0.05


def test_hours_are_water_over_draw() -> None:
    assert hours_of_water(8.4, 0.7) == pytest.approx(12.0)


def with_line(variety: str, water: WaterSource, **changes: object) -> Piece:
    line = RecipeLine(variety=variety, count=4, role="focal", water=water)
    return replace(piece(), recipe=(*piece().recipe[:2], replace(line, **changes)))  # type: ignore[arg-type]


def drinks(plan: Piece) -> Verdict:
    return next(each for each in evaluate(plan, conditions()).verdicts if each.verb == "drink")


def own(plan: Piece) -> list[str]:
    return [each.check for each in drink.judge(build(plan, conditions())).findings if each.check.startswith("own")]


def test_a_dry_tulip_wilts_before_the_event_ends_and_a_tube_mends_it() -> None:
    said = drinks(with_line("tulip", "none"))
    assert said.state == "fails"
    assert "Tulip with no water" in said.reason.text
    assert said.fixes
    for fix in said.fixes:
        assert drinks(fix.piece).state in ("holds", "tight")


def test_dried_things_need_no_water() -> None:
    craspedia = next(
        each for each in drinks(with_line("craspedia", "none")).findings if each.check == "own water, craspedia"
    )
    assert craspedia.utilisation < 0.8


def test_stems_with_their_own_water_draw_nothing_from_the_vessel() -> None:
    tube, vessel = (build(with_line("rose", water), conditions()) for water in ("tube", "vessel"))
    assert tube.courses is not None
    assert vessel.courses is not None
    assert tube.courses[0].drawn_l < vessel.courses[0].drawn_l


def test_a_tube_is_judged_in_two_cases_and_a_wrap_shares_its_water() -> None:
    assert len(own(with_line("rose", "tube", tube=StemTube()))) == 2
    alone = drink.judge(build(with_line("rose", "wrap", wrap_ml=30.0), conditions()))
    shared = drink.judge(build(with_line("rose", "wrap", wrap_ml=30.0, clump=4), conditions()))

    def hours(said: Verdict) -> float:
        return min(each.value.value for each in said.findings if each.check.startswith("own"))

    air = conditions().air
    assert air is not None
    dry = varieties()["rose"].dry_hold_h / dry_rate(air)
    assert hours(alone) - dry == pytest.approx(4 * (hours(shared) - dry))


def test_a_full_tube_is_never_worse_than_none() -> None:
    """Upright, of 14 × 90 mm, for every variety of the stores in the air of an ordinary evening."""
    air = conditions().air
    assert air is not None
    for variety in (each for each in varieties().values() if not each.lasting):
        lines = [RecipeLine(variety=variety.key, count=1, role="focal", water=each) for each in ("tube", "none")]
        with_tube, bare = (
            own_lasts(line, variety, [(10.0, air)], 10.0, words="{needed}")[0].value.value for line in lines
        )
        assert with_tube >= bare, variety.name
        assert with_tube > bare or variety.stem_diameter_m >= StemTube().inner_diameter_m, variety.name


@pytest.mark.parametrize(("degrees", "asked"), [(44, False), (45, True), (60, True), (90, True), (150, True)])
def test_from_45_degrees_over_it_is_asked_whether_the_cap_seals(degrees: float, asked: bool) -> None:
    leaned = StemTube(tilt_rad=math.radians(degrees))
    said = drinks(with_line("craspedia", "tube", tube=leaned))
    assert any("caps" in fact for fact in lacks(said)) == asked
    sealed = drinks(with_line("craspedia", "tube", tube=replace(leaned, cap_seals=True)))
    assert not lacks(sealed)


def test_a_tube_turned_down_waits_for_a_word_about_its_cap() -> None:
    said = drinks(with_line("craspedia", "tube", tube=StemTube(tilt_rad=2.5)))
    assert said.state == "cannot say"
    assert any("caps" in fact for fact in lacks(said))


def test_thirsty_flowers_go_into_shallow_bowls_on_site_only() -> None:
    said = drinks(with_line("hydrangea", "vessel"))
    assert said.state == "fails"
    assert any(each.check == "thirsty, hydrangea" for each in said.findings)
    on_site = drinks(with_line("hydrangea", "vessel", goes_in="on site"))
    assert not any(each.check.startswith("thirsty") for each in on_site.findings)


def test_thirsty_flowers_are_never_without_water() -> None:
    said = drinks(with_line("hydrangea", "none", goes_in="on site"))
    assert any(each.check == "thirsty, hydrangea" for each in said.findings)


def test_a_deep_vessel_takes_thirsty_flowers() -> None:
    deep = replace(
        with_line("hydrangea", "vessel"),
        vessel=vessels()["cylinder-15"],
        water_level_m=0.25,
        envelope=replace(piece().envelope, height_m=0.6),
    )
    assert not any(each.check.startswith("thirsty") for each in drinks(deep).findings)
