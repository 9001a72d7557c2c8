"""Ordinary work must come out as ordinary: each verdict in the state a florist would say, and how near its limit.

Common practice, no source. A range is narrow enough that a change of a rule is seen, and wide enough for estimates.
"""

from dataclasses import replace
from datetime import datetime

import pytest

from jolly_trellis.core.checks.drink_own import own_lasts
from jolly_trellis.core.checks.verdicts import State, Verdict
from jolly_trellis.core.event.job import Made, PieceWork
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.passage import Passage
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.rigging.assess import assess
from tests import ordinary_work as work
from tests.ordinary import ZONE, conditions

BOXED = Transport(box_width_m=0.42, box_depth_m=0.42, box_wall_m=0.25, door_height_m=1.3, water_level_m=None)
HERE = Passage(made="its place")


def verdicts(piece: Piece, around: Conditions | None = None) -> dict[str, Verdict]:
    report = evaluate(piece, around or conditions(), with_fixes=False)
    return {each.verb: each for each in report.verdicts}


def driven_overnight() -> Conditions:
    """Finished on Friday at seven in the evening, on the road from ten, filled at half past twelve."""
    return replace(
        conditions(),
        finished_at=datetime(2027, 5, 14, 19, 0, tzinfo=ZONE),
        loaded_at=datetime(2027, 5, 15, 10, 0, tzinfo=ZONE),
        filled_at=datetime(2027, 5, 15, 12, 30, tzinfo=ZONE),
        workshop=Air(temperature_c=16.0, relative_humidity=0.6),
    )


def said(found: dict[str, Verdict], **wanted: tuple[State, float, float]) -> None:
    """Each verdict named is in its state, its utilisation within the two bounds."""
    for verb, (state, least, most) in wanted.items():
        verdict = found[verb]
        assert verdict.state == state, (verb, verdict.state, verdict.reason.text)
        if state != "not needed":
            assert least <= (verdict.utilisation or 0.0) <= most, (verb, verdict.utilisation)


def test_a_low_bowl_holds_firmer_with_each_layer() -> None:
    one, two, three = (
        next(each for each in verdicts(work.low_bowl(layers))["hold"].findings if each.check == "sway").utilisation
        for layers in (1, 2, 3)
    )
    assert one > 1.0 > two > three
    assert two > 0.4


def test_a_low_bowl_of_forty_mixed_stems_is_ordinary_where_it_is_made() -> None:
    said(
        verdicts(replace(work.low_bowl(), passage=HERE)),
        hold=("holds", 0.40, 0.80),
        stand=("holds", 0.30, 0.60),
        drink=("holds", 0.30, 0.60),
        travel=("not needed", 0, 0),
        hang=("not needed", 0, 0),
        hide=("tight", 0.50, 1.00),
        see=("holds", 0.0, 0.05),
        lift=("holds", 0.05, 0.40),
    )


def test_at_its_travelling_level_overnight_and_on_the_road_some_ends_run_dry() -> None:
    """2.6 cm of water from Friday evening to Saturday noon."""
    riding = replace(work.low_bowl(), transport=replace(BOXED, water_level_m=0.026))
    drink = verdicts(riding, driven_overnight())["drink"]
    assert drink.state == "fails"
    assert drink.governing is not None
    assert drink.governing.check == "waits"
    assert any("runs dry after" in each.reason.text or "reach" in each.reason.text for each in drink.findings)
    slower = replace(riding, transport=replace(BOXED, water_level_m=0.046))
    assert "Fill it by" in verdicts(slower, driven_overnight())["drink"].reason.text
    report = evaluate(riding, driven_overnight())
    acts = {fix.key for each in report.verdicts if each.verb == "drink" for fix in each.fixes}
    assert acts & {"full-overnight", "wetter-50", "wetter-100", "lid-of-moss"}
    full = replace(BOXED, overnight_level_m=0.083, water_level_m=0.06)
    assert verdicts(replace(riding, transport=full), driven_overnight())["drink"].state == "holds"


def test_nothing_fails_in_a_bud_vase() -> None:
    found = verdicts(replace(work.bud_vase(), passage=HERE))
    assert [each.verb for each in found.values() if each.state in ("fails", "cannot say")] == []
    said(found, hide=("not needed", 0, 0), stand=("tight", 0.80, 1.00), drink=("holds", 0.1, 0.6))


def test_a_dense_vase_made_where_it_stands_is_tight_at_the_most() -> None:
    found = verdicts(work.dense_vase())
    said(
        found,
        hold=("holds", 0.20, 0.60),
        stand=("holds", 0.50, 0.80),
        drink=("holds", 0.15, 0.50),
        hide=("holds", 0.0, 0.37),
        lift=("holds", 0.20, 0.70),
    )
    report = evaluate(work.dense_vase(), conditions(), with_fixes=False)
    assert report.outline.height_m == pytest.approx(0.58, abs=0.08)
    assert report.outline.width_m == pytest.approx(0.69, abs=0.08)


def test_an_urn_of_fifty_tulips_stands_and_drinks() -> None:
    said(
        verdicts(replace(work.urn_of_tulips(), passage=HERE)),
        hold=("holds", 0.40, 0.79),
        stand=("holds", 0.60, 0.80),
        drink=("holds", 0.05, 0.30),
        lift=("holds", 0.20, 0.60),
    )


def test_no_tulip_is_cut_longer_than_it_is_sold_and_what_does_not_reach_is_named() -> None:
    """Sold to 45 cm: in an urn 62 cm high with its flowers they reach, 85 cm high they do not."""
    report = evaluate(work.urn_of_tulips(), conditions(), with_fixes=False)
    assert max(each.cut_length_m for each in report.cut_list) == pytest.approx(0.45)
    tall = work.urn_of_tulips()
    tall = replace(tall, envelope=replace(tall.envelope, height_m=0.85, width_m=0.80, depth_m=0.80))
    hold = next(each for each in evaluate(tall, conditions()).verdicts if each.verb == "hold")
    assert hold.state == "fails"
    reach = next(each for each in hold.findings if each.check == "reach")
    assert "it is sold to {limit}" in reach.reason.text
    assert reach.limit.value == pytest.approx(0.45)
    assert any(fix.key.startswith("within-") for fix in hold.fixes)
    assert verdicts(tall)["drink"].state == "fails"


def test_twenty_tulips_in_a_cylinder_hold() -> None:
    said(
        verdicts(replace(work.tulips_in_a_cylinder(), passage=HERE)),
        hold=("holds", 0.20, 0.60),
        stand=("holds", 0.50, 0.80),
        drink=("holds", 0.15, 0.50),
        lift=("holds", 0.03, 0.40),
    )


def test_more_water_in_a_cylinder_lasts_longer() -> None:
    hours = [
        evaluate(
            replace(work.tulips_in_a_cylinder(), water_level_m=level), conditions(), with_fixes=False
        ).water.first_dry_h
        for level in (0.11, 0.15, 0.20)
    ]
    assert None not in hours
    assert hours == sorted(hours, key=lambda each: each or 0.0)
    assert hours[2] > 1.4 * hours[0]  # type: ignore[operator]


def test_a_trough_along_a_table_is_ordinary() -> None:
    said(
        verdicts(replace(work.trough(), passage=HERE)),
        hold=("holds", 0.20, 0.70),
        stand=("holds", 0.45, 0.80),
        drink=("holds", 0.25, 0.60),
        hide=("tight", 0.37, 0.80),
        see=("holds", 0.0, 0.05),
        lift=("holds", 0.05, 0.40),
    )


@pytest.mark.parametrize(
    ("across_m", "water_l", "state", "least", "most"),
    [(0.15, 0.0, "fails", 1.0, 1.3), (0.15, 6.0, "holds", 0.6, 0.8), (0.10, 0.0, "fails", 1.4, 2.2)],
)
def test_a_bowl_on_a_column_stands_with_water_in_it(
    across_m: float, water_l: float, state: State, least: float, most: float
) -> None:
    said(verdicts(work.on_column(across_m, water_l)), stand=(state, least, most))


def test_a_bowl_on_a_narrow_column_has_a_fix() -> None:
    report = evaluate(work.on_column(0.10, 0.0), conditions())
    stand = next(each for each in report.verdicts if each.verb == "stand")
    assert stand.fixes


def test_a_pin_frog_bowl_shows_nothing_that_is_to_be_hidden() -> None:
    said(
        verdicts(replace(work.pin_frog_bowl(), passage=HERE)),
        hold=("holds", 0.05, 0.50),
        stand=("holds", 0.15, 0.60),
        drink=("tight", 0.80, 1.00),
        hide=("not needed", 0, 0),
    )


def test_ten_cup_frogs_in_moss_are_ordinary() -> None:
    """Six small stems each on a guest table; the moss hides the cups, weighs, and is bought."""
    piece = work.cup_frog()
    report = evaluate(piece, conditions(), with_fixes=False)
    said(
        {each.verb: each for each in report.verdicts},
        hold=("holds", 0.0, 0.30),
        stand=("holds", 0.10, 0.60),
        drink=("holds", 0.40, 1.00),
        hide=("not needed", 0, 0),
        see=("holds", 0.0, 0.10),
        lift=("holds", 0.0, 0.40),
    )
    moss = next(each for each in report.extras if each.name == "moss round it")
    assert 0.008 <= moss.mass_kg <= 0.020
    needs = needs_of(Made(pieces=(PieceWork(id=1, piece=piece, report=report),), rigs=()))
    assert next(each for each in needs.supplies if each.supply == "moss").amount == pytest.approx(10 * moss.mass_kg)


def test_a_section_of_an_arch_is_covered_by_its_proven_recipe() -> None:
    """50 gypsophila, 11 carnations, 8 roses on 0.8 m, 0.35 m thick when finished: from 0.95 of what is seen."""
    found = assess(work.arch_section(), conditions()).coverage
    assert found.outline_m2 == pytest.approx(3.1416 * 0.35 * 0.8, rel=0.01)
    assert 0.95 <= found.covered_m2 / found.needed_m2 <= 1.05


@pytest.mark.parametrize(
    ("temperature_c", "humidity", "state", "use"), [(22.0, 0.5, "fails", 1.09), (20.0, 0.6, "holds", 0.77)]
)
def test_delphinium_hung_head_down_for_twelve_hours(
    temperature_c: float, humidity: float, state: State, use: float
) -> None:
    line = work.delphinium_panel().recipe[0]
    air = Air(temperature_c=temperature_c, relative_humidity=humidity)
    (life,) = own_lasts(line, conditions().varieties["delphinium"], [(12.0, air)], 12.0, words="it hangs {needed}.")
    assert (life.state, round(life.utilisation, 2)) == (state, use)
