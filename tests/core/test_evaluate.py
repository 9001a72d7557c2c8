"""The one entry: a whole report, whatever is asked."""

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.building.build import build
from jolly_trellis.core.errors import CoreError, InvalidMeasure, UnknownName
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.steps import cut_list
from jolly_trellis.core.method import all_constants
from jolly_trellis.core.plan.piece import Envelope, Mechanic
from jolly_trellis.core.plan.setting import TopUp
from jolly_trellis.core.plan.standing import Standing
from jolly_trellis.core.provenance import PROVENANCE_KINDS
from jolly_trellis.core.units import render
from tests.generated import examples
from tests.ordinary import conditions, lacks, piece, recipe, vessels

VERBS = ("hold", "stand", "drink", "travel", "hang", "hide", "see", "lift")


def test_all_eight_verdicts_have_their_place_and_none_passes_unworked() -> None:
    verdicts = evaluate(piece(), conditions()).verdicts
    assert tuple(each.verb for each in verdicts) == VERBS
    by_verb = {each.verb: each for each in verdicts}
    assert by_verb["hang"].state == "not needed"
    for verb in ("travel", "lift"):
        assert by_verb[verb].state == "cannot say"
        assert lacks(by_verb[verb])


def test_the_cut_list_has_exactly_the_stems_of_the_recipe() -> None:
    report = evaluate(piece(), conditions())
    wanted = {line.variety: line.count for line in piece().recipe}
    cut: dict[str, int] = {}
    for group in report.cut_list:
        cut[group.variety] = cut.get(group.variety, 0) + group.count
        assert group.cut_length_m / 0.02 == pytest.approx(round(group.cut_length_m / 0.02))
    assert cut == wanted


def test_a_stem_that_needs_just_a_step_is_cut_to_it() -> None:
    """Common practice, no source: cut up to the next 2 cm; what needs 24 cm to a hair is cut to 24, not to 26."""
    made = build(piece(), conditions())
    exact = replace(made.placement.found, embedded_m=0.24 - made.placement.visible_m)
    placed = replace(made, placement=replace(made.placement, found=exact))
    assert placed.placement.cut_length_m == pytest.approx(0.24, abs=1e-12)
    assert {group.cut_length_m for group in cut_list(placed)} == {0.24}


def test_no_stem_is_cut_shorter_than_it_is_placed() -> None:
    report = evaluate(piece(), conditions())
    longest = {group.variety: 0.0 for group in report.cut_list}
    for group in report.cut_list:
        longest[group.variety] = max(longest[group.variety], group.cut_length_m)
    for variety, cut_length in zip(report.stems.variety, report.stems.cut_length_m, strict=True):
        assert cut_length <= longest[variety] + 1e-9


def test_lengths_not_sold_are_named() -> None:
    tall = replace(piece(), envelope=Envelope(height_m=0.75, width_m=0.5, depth_m=0.5))
    report = evaluate(tall, conditions())
    assert any("not sold" in notice.say.text for notice in report.notices)
    assert any(not group.sold for group in report.cut_list)


def test_steps_come_in_the_order_of_doing_and_warn_where_hands_are_at_risk() -> None:
    steps = evaluate(replace(piece(), ballast_kg=0.2), conditions()).steps
    assert [step.kind for step in steps] == ["cut", "fold", "tuck", "spring in", "weight", "fill", "place"]
    assert "gloves" in steps[0].caution
    assert "Sap irritates skin (" in steps[-1].caution
    assert "Thorns" in steps[-1].caution


def test_bare_wire_in_water_is_warned_about() -> None:
    bare = replace(piece(), mechanic=Mechanic(netting="bare-25-09"))
    assert any("rusts" in notice.say.text for notice in evaluate(bare, conditions()).notices)


def test_an_empty_recipe_gives_a_report_that_asks_for_stems() -> None:
    report = evaluate(replace(piece(), recipe=()), conditions())
    assert len(report.stems) == 0
    assert report.verdicts[0].state == "cannot say"
    assert report.verdicts[1].state in ("holds", "tight")


def test_without_fixes_the_verdicts_are_the_same() -> None:
    with_fixes, without = (evaluate(piece(), conditions(), with_fixes=each) for each in (True, False))
    assert [each.state for each in with_fixes.verdicts] == [each.state for each in without.verdicts]
    assert not without.fixes_tried


@pytest.mark.parametrize(
    ("changed", "path"),
    [
        ({"envelope": Envelope(height_m=0.0, width_m=0.3, depth_m=0.3)}, "envelope.height_m"),
        ({"envelope": Envelope(height_m=-0.3, width_m=0.3, depth_m=0.3)}, "envelope.height_m"),
        ({"envelope": Envelope(height_m=float("nan"), width_m=0.3, depth_m=0.3)}, "envelope.height_m"),
        ({"envelope": Envelope(height_m=0.3, width_m=0.0, depth_m=0.3)}, "envelope.width_m"),
        ({"water_level_m": 0.2}, "water_level_m"),
        ({"water_level_m": -0.01}, "water_level_m"),
        ({"vessel": replace(piece().vessel, foot_width_m=-0.1)}, "vessel.foot_width_m"),
    ],
)
def test_measures_that_contradict_are_refused_at_their_place(changed: dict[str, Any], path: str) -> None:
    with pytest.raises(InvalidMeasure) as caught:
        evaluate(replace(piece(), **changed), conditions())
    assert caught.value.path == path
    assert caught.value.limit.text


def test_an_unknown_netting_is_refused() -> None:
    with pytest.raises(UnknownName) as caught:
        evaluate(replace(piece(), mechanic=Mechanic(netting="gold")), conditions())
    assert caught.value.path == "mechanic.netting"


@examples(60)
@given(
    st.sampled_from(sorted(vessels())),
    st.floats(0.02, 1.2),
    st.floats(0.06, 1.2),
    st.floats(0.0, 0.3),
    st.integers(1, 4),
    st.sampled_from(["coated-13-07", "coated-25-09", "coated-50-10", "bare-25-09"]),
    st.integers(0, 80),
)
def test_any_piece_gives_a_report_or_one_sentence(
    key: str, height: float, width: float, level: float, layers: int, netting: str, count: int
) -> None:
    plan = Standing(
        name="any",
        vessel=vessels()[key],
        envelope=Envelope(height_m=height, width_m=width, depth_m=width * 0.7),
        mechanic=Mechanic(netting=netting, layers=layers),
        water_level_m=level,
        recipe=recipe(rose=(count, "focal"), gypsophila=(5, "airy")) if count else (),
        top_ups=(TopUp(after_h=2.0, volume_l=0.2),),
    )
    try:
        report = evaluate(plan, conditions())
    except CoreError as refused:
        assert render(refused.message, "metric").endswith(".")
        assert render(refused.limit, "inch")
        return
    for verdict in report.verdicts:
        words = render(verdict.reason, "metric")
        assert "{" not in words
        assert "nan" not in words
        assert verdict.utilisation is None or 0 <= verdict.utilisation <= 10
        for fix in verdict.fixes:
            assert fix.state_after in ("holds", "tight")
            assert "{" not in render(fix.say, "inch")


def test_every_constant_is_listed_once_with_its_provenance() -> None:
    figures = [figure for _, listed in all_constants() for figure in listed]
    labels = [figure.label for figure in figures]
    assert len(figures) > 60
    assert len(labels) == len(set(labels))
    assert all(figure.provenance.kind in PROVENANCE_KINDS for figure in figures)
    assert all(figure.provenance.source for figure in figures if figure.provenance.kind == "published")


def test_nothing_says_safe() -> None:
    report = evaluate(piece(), conditions())
    words = [each.reason.text for each in report.verdicts] + [each.say.text for each in report.steps]
    assert not any("safe" in each.lower() for each in words)
