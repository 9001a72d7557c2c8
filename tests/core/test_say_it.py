"""The say-it line: sizes, vessels, forms, counts and names, plurals, switches; what it did not understand."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jolly_trellis.core.building.build import build
from jolly_trellis.core.say.names import find_varieties, role_of
from jolly_trellis.core.say.say_it import Understood, say_it
from jolly_trellis.core.units import UnitSystem, render
from tests.ordinary import conditions, piece, varieties, vessels


def said(text: str, system: UnitSystem = "metric") -> Understood:
    return say_it(text, piece(), conditions(), system=system, vessels=vessels())


def counts(understood: Understood) -> dict[str, int]:
    return {line.variety: line.count for line in understood.piece.recipe}


def test_an_urn_with_everything() -> None:
    found = said("urn 24 across 30 deep, 60 high 70 wide lopsided, 9 quince, 30 tulip, 12 fern")
    plan = found.piece
    assert plan.vessel.mouth_width_m == pytest.approx(0.24)
    assert plan.vessel.inside_depth_m == pytest.approx(0.30)
    assert (plan.envelope.height_m, plan.envelope.width_m) == pytest.approx((0.60, 0.70))
    assert plan.envelope.form == "sweep"
    assert counts(found) == {"quince-branch": 9, "tulip": 30, "leatherleaf": 12}
    assert found.unheard == ()
    assert found.asked == ()
    build(plan, conditions())


def test_a_vessel_nobody_has_weighed_stays_unweighed() -> None:
    plan = said("urn 24 across 30 deep, 60 high").piece
    assert plan.vessel.mass_kg is None
    assert plan.vessel.foot_width_m is None


@pytest.mark.parametrize(
    ("text", "system", "mouth"),
    [
        ("bowl 8 in", "metric", 0.2032),
        ("8 in bowl", "metric", 0.2032),
        ("bowl 20 across", "metric", 0.20),
        ("bowl 8 across", "inch", 0.2032),
        ("bowl 7 7/8 in across", "metric", 0.200025),
        ("bowl 200 mm wide", "inch", 0.20),
        ("a bowl, of 22 cm across", "metric", None),
    ],
)
def test_sizes_in_any_unit(text: str, system: UnitSystem, mouth: float | None) -> None:
    found = said(text, system)
    if mouth is not None:
        assert found.piece.vessel.mouth_width_m == pytest.approx(mouth, abs=1e-5)


@pytest.mark.parametrize(
    ("word", "shape"),
    [
        ("bowl", "round"),
        ("cube", "square"),
        ("trough", "rectangular"),
        ("cylinder", "round"),
        ("bucket", "round"),
        ("vase", "round"),
        ("jug", "round"),
    ],
)
def test_vessel_words_make_vessels(word: str, shape: str) -> None:
    found = said(f"{word} 20 across 15 deep, 40 high")
    assert found.piece.vessel.plan_shape == shape
    assert found.piece.vessel.name == word
    build(found.piece, conditions())


def test_a_trough_has_a_long_side() -> None:
    vessel = said("trough 60 long 12 wide 10 deep").piece.vessel
    assert (vessel.mouth_width_m, vessel.mouth_depth_m) == pytest.approx((0.60, 0.12))


@pytest.mark.parametrize(
    ("text", "form"),
    [
        ("lopsided", "sweep"),
        ("front-facing", "fan"),
        ("a low mound", "mound"),
        ("all-round", "dome"),
        ("horizontal", "horizontal"),
        ("garden", "garden"),
    ],
)
def test_form_words(text: str, form: str) -> None:
    assert said(text).piece.envelope.form == form


@pytest.mark.parametrize(
    ("name", "key"),
    [
        ("rose", "rose"),
        ("roses", "rose"),
        ("peonies", "peony"),
        ("anemones", "anemone"),
        ("garden roses", "garden-rose"),
        ("quince", "quince-branch"),
        ("spray roses", "spray-rose"),
        ("lilies", "lily"),
        ("irises", "iris"),
        ("eucalyptus", "eucalyptus"),
        ("delphiniums", "delphinium"),
    ],
)
def test_names_singular_and_plural(name: str, key: str) -> None:
    assert [each.key for each in find_varieties(name, varieties())] == [key]


@pytest.mark.parametrize(
    ("misspelt", "nearest"),
    [("ranunkulus", "ranunculus"), ("euclyptus", "eucalyptus, round leaf"), ("delfinium", "delphinium")],
)
def test_a_misspelt_variety_is_offered_the_nearest_and_not_taken(misspelt: str, nearest: str) -> None:
    found = said(f"5 {misspelt}")
    assert [each.choices for each in found.asked] == [(nearest,)]
    assert [f"5 {misspelt}"[each.start : each.end] for each in found.asked] == [misspelt]
    assert counts(found) == {line.variety: line.count for line in piece().recipe}


def test_nothing_near_offers_nothing() -> None:
    found = said("4 xyzzyqq, 3 roses")
    assert found.asked == ()
    assert [(each.words, each.start, each.end) for each in found.unheard] == [("4 xyzzyqq", 0, 9)]


@pytest.mark.parametrize(
    ("text", "check"),
    [
        ("clear glass", lambda plan: plan.vessel.clear and plan.vessel.material == "glass"),
        ("outdoors", lambda plan: plan.setting.outdoors),
        ("no tape", lambda plan: plan.mechanic.tape_strips == 0),
        ("on the floor", lambda plan: plan.setting.where == "floor"),
        ("lifts off", lambda plan: plan.must_lift_off),
        ("lined", lambda plan: plan.lining),
        ("× 12", lambda plan: plan.quantity == 12),
        ("three layers", lambda plan: plan.mechanic.layers == 3),
        ("single layer", lambda plan: plan.mechanic.layers == 1),
        ("19 mm wire", lambda plan: plan.mechanic.netting == "coated-19-08"),
        ("moss sandwich", lambda plan: plan.mechanic.kind == "moss_sandwich"),
        ("roll on cross-sticks", lambda plan: plan.mechanic.kind == "cross_stick_roll"),
    ],
)
def test_switches(text: str, check: object) -> None:
    found = said(text)
    assert check(found.piece)  # type: ignore[operator]
    assert found.heard
    assert found.unheard == ()


def test_counts_alone_change_the_recipe_and_a_vessel_begins_it_anew() -> None:
    changed = counts(said("12 roses, 3 peonies"))
    assert changed["rose"] == 12
    assert changed["peony"] == 3
    assert changed["ruscus"] == 5
    begun = counts(said("bowl 20 across, 12 roses, 3 peonies"))
    assert begun == {"rose": 12, "peony": 3}


def test_a_role_can_be_said() -> None:
    line = next(each for each in said("bowl 20 across, 7 margin tulips").piece.recipe if each.variety == "tulip")
    assert line.role == "margin"


@pytest.mark.parametrize(
    ("key", "role"),
    [
        ("pittosporum", "base"),
        ("quince-branch", "line"),
        ("delphinium", "line"),
        ("peony", "focal"),
        ("ranunculus", "filler"),
        ("gypsophila", "airy"),
    ],
)
def test_the_role_a_variety_most_often_plays(key: str, role: str) -> None:
    assert role_of(varieties()[key]) == role


def test_a_vessel_of_the_stores_is_taken_by_its_name() -> None:
    found = said("the low bowl 26 cm with 10 garden roses")
    assert found.piece.vessel == vessels()["low-bowl-26"]
    assert found.piece.envelope.form == "dome"


def test_what_is_not_understood_is_said() -> None:
    found = said("a bowl 20 across, sprinkled with stardust")
    assert [each.words for each in found.unheard] == ["sprinkled with stardust"]


def test_everything_heard_reads_in_both_unit_systems() -> None:
    found = said("urn 24 across 30 deep, 60 high 70 wide lopsided, 9 quince")
    for each in found.heard:
        for system in ("metric", "inch"):
            assert "{" not in render(each.meaning, system)
    assert render(found.heard[1].meaning, "inch") == "mouth 9 1/2 in"


def test_nothing_said_changes_nothing() -> None:
    assert said("  ,, ; ").piece == piece()


@given(st.text(max_size=120))
def test_any_text_at_all_is_read_without_harm(text: str) -> None:
    found = said(text)
    assert found.piece.name == piece().name
    assert replace(found.piece, recipe=()).hand_placed == ()


KNOWN = "bowl urn 20 across 12 deep 5 roses tulips lopsided clear glass , no tape × 3"


@given(st.lists(st.sampled_from(KNOWN.split(" ")), max_size=14))
def test_any_order_of_known_words_makes_a_plan(words: list[str]) -> None:
    found = said(" ".join(words))
    assert found.piece.quantity >= 1
    assert all(line.count >= 1 for line in found.piece.recipe)


@pytest.mark.parametrize(
    ("said", "shape", "width_m", "depth_m"),
    [
        ("square dish 20 across", "square", 0.20, 0.20),
        ("round bowl 24 across", "round", 0.24, 0.24),
        ("oval bowl 30 long 18 across", "oval", 0.30, 0.18),
        ("oblong dish 30 long 12 across", "rectangular", 0.30, 0.12),
    ],
)
def test_a_plan_shape_said_before_the_vessel(said: str, shape: str, width_m: float, depth_m: float) -> None:
    understood = say_it(f"{said}, 6 roses", piece(), conditions(), system="metric")
    vessel = understood.piece.vessel
    assert (vessel.plan_shape, understood.unheard) == (shape, ())
    assert (vessel.mouth_width_m, vessel.mouth_depth_m) == pytest.approx((width_m, depth_m))
    assert understood.piece.arrangement == piece().arrangement
