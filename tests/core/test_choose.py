"""Choosing: every mechanic sized and judged, ranked, ruled out by the event's wishes, with the reason in words."""

from dataclasses import replace

import pytest

from jolly_trellis.core.judging.choose import Option, choice_of, choose, usable_frog, usable_netting
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.materials.netting import aperture_m, passes
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.practice import Practice
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.units import render
from tests.ordinary import IN_VESSEL, conditions, nettings, piece, recipe, stems, vessels


def options(
    plan: Piece, practice: Practice | None = None, on_hand: frozenset[str] | None = None
) -> tuple[Option, ...]:
    asked = replace(conditions(), practice=practice or Practice())
    return choose(plan, asked, on_hand=on_hand)


ORDINARY = replace(
    piece(),
    vessel=vessels()["low-bowl-26"],
    transport=Transport(box_wall_m=0.2),
    water_level_m=0.09,
    recipe=recipe(
        ruscus=(6, "margin"),
        pittosporum=(26, "base"),
        rose=(7, "focal"),
        ranunculus=(8, "filler"),
        scabious=(4, "airy"),
    ),
)


@pytest.fixture(scope="module")
def ranked() -> tuple[Option, ...]:
    return options(ORDINARY)


def test_every_mechanic_is_answered_for(ranked: tuple[Option, ...]) -> None:
    assert {each.kind for each in ranked} == set(IN_VESSEL)


def test_what_fails_nothing_comes_before_what_fails(ranked: tuple[Option, ...]) -> None:
    good = [not each.fails and each.mechanic is not None for each in ranked]
    assert good == sorted(good, reverse=True)
    assert good[0]


def test_among_the_good_states_decide_then_use_again_then_price(ranked: tuple[Option, ...]) -> None:
    """Bands, not decimals: holding at 0.3 comes no sooner than holding at 0.6."""
    good = [each for each in ranked if each.mechanic is not None and not each.fails and not each.ruled_out]
    bands = ("holds", "tight", "cannot say")
    order = [
        (
            max(bands.index(rung.state) for rung in each.rungs if rung.state != "not needed"),
            each.mechanic.uses <= 1,
            99.0 if each.mechanic.price is None else each.mechanic.price / each.mechanic.uses,
            each.mechanic.minutes,
        )
        for each in good
        if each.mechanic is not None
    ]
    assert order == sorted(order)
    assert [each.worst for each in good] != sorted(each.worst for each in good)


def test_what_is_used_once_is_never_first_for_an_ordinary_bowl(ranked: tuple[Option, ...]) -> None:
    first = ranked[0].mechanic
    assert first is not None
    assert first.uses > 1


def test_each_mechanic_is_shown_at_its_best_and_says_what_that_takes() -> None:
    """A bowl that drinks too fast is judged with the top-up that mends it, for whoever is there to give it."""
    hot = replace(conditions(), air=Air(temperature_c=27, relative_humidity=0.35))
    low = replace(stems(ORDINARY, 45), water_level_m=0.05)
    found = {each.kind: each for each in choose(low, hot, on_hand=None)}
    cushion = found["folded_cushion"]
    assert cushion.change is not None
    assert "Top up" in cushion.change.text
    assert cushion.change.text in cushion.why.text
    assert cushion.piece.top_ups
    assert "drink" not in cushion.fails
    alone = {each.kind: each for each in choose(low, replace(hot, topped_up_by=None), on_hand=None)}
    assert "drink" in alone["folded_cushion"].fails
    assert alone["folded_cushion"].change is None


def test_what_cannot_be_made_comes_last_and_says_why(ranked: tuple[Option, ...]) -> None:
    last = ranked[-1]
    assert last.kind == "cross_stick_roll"
    assert last.mechanic is None
    assert "trough" in last.why.text


def test_each_says_why_in_whole_words(ranked: tuple[Option, ...]) -> None:
    for option in ranked:
        said = render(option.why, "metric")
        assert said
        assert "{" not in said
        if option.fails:
            assert said.startswith("Fails on ")
            for verb in option.fails:
                assert verb.capitalize() in said
    assert render(ranked[0].why, "metric").startswith("First: ")


def test_rungs_are_the_eight_verdicts(ranked: tuple[Option, ...]) -> None:
    assert all(len(each.rungs) == 8 for each in ranked if each.mechanic is not None)


def test_every_option_is_drawn_with_every_stem(ranked: tuple[Option, ...]) -> None:
    rows = sum(line.count for line in ORDINARY.recipe)
    assert all(len(each.stems) == rows for each in ranked if each.mechanic is not None)


def test_without_plastic_nothing_taped_is_offered() -> None:
    for option in options(ORDINARY, Practice(no_single_use_plastic=True)):
        if option.mechanic is not None and option.mechanic.single_use_plastic:
            assert "plastic" in option.ruled_out
            assert option.why.text.startswith("Ruled out")


def test_only_what_is_in_the_store_rules_out_what_is_not() -> None:
    found = {each.kind: each for each in options(ORDINARY, Practice(only_in_store=True), frozenset({"coated-19-08"}))}
    assert found["stacked_pair"].ruled_out == ""
    assert "on hand" in found["pin_frog"].ruled_out
    assert found["branch_tangle"].ruled_out == ""


def test_a_piece_that_must_lift_off_gets_a_lattice() -> None:
    first = options(replace(ORDINARY, must_lift_off=True))
    assert first[0].mechanic is not None
    assert first[0].mechanic.lifts_off
    assert all(each.ruled_out for each in first if each.mechanic is not None and not each.mechanic.lifts_off)


def test_clear_glass_rules_out_what_shows_until_it_is_lined() -> None:
    glass = replace(ORDINARY, vessel=replace(vessels()["low-bowl-26"], clear=True, material="glass"))
    bare = {each.kind: each.ruled_out for each in options(glass)}
    lined = {each.kind: each.ruled_out for each in options(replace(glass, lining=True))}
    assert "glass" in bare["folded_cushion"]
    assert bare["branch_tangle"] == ""
    assert lined["folded_cushion"] == ""


def test_the_mesh_is_the_smallest_the_thickest_stem_passes() -> None:
    branches = replace(ORDINARY, recipe=recipe(magnolia_branch=(3, "line"), rose=(5, "focal")))
    thin = replace(ORDINARY, recipe=recipe(sweet_pea=(9, "filler")))
    for plan, widest in ((branches, 0.013), (thin, 0.003)):
        netting = usable_netting(plan, conditions())
        assert netting is not None
        assert passes(aperture_m(netting), widest)
        smaller = [
            each for each in nettings().values()
            if each.finish == netting.finish and 0.018 <= aperture_m(each) < aperture_m(netting)
        ]  # fmt: skip
        assert all(not passes(aperture_m(each), widest) for each in smaller)


def test_the_wire_is_the_one_the_studio_uses() -> None:
    galvanized = replace(conditions(), practice=Practice(wire="galvanized"))
    netting = usable_netting(ORDINARY, galvanized)
    assert netting is not None
    assert netting.finish == "galvanized"


def test_the_frog_is_the_widest_that_sits_on_the_floor() -> None:
    frog = usable_frog(ORDINARY, conditions(), "pin")
    assert frog is not None
    assert frog.key == "pin-100"
    assert usable_frog(replace(ORDINARY, vessel=vessels()["bud-cylinder-8"]), conditions(), "cage") is None


@pytest.mark.parametrize("kind", IN_VESSEL)
def test_a_choice_names_what_its_kind_needs_and_no_more(kind: str) -> None:
    choice = choice_of(ORDINARY, conditions(), kind)
    assert choice.kind == kind
    assert choice.tape_strips is None


def test_an_empty_recipe_can_still_be_compared() -> None:
    empty = options(replace(ORDINARY, recipe=()))
    assert len(empty) == len(IN_VESSEL)


def test_a_retired_mechanic_is_ruled_out_and_a_retired_netting_is_not_picked() -> None:
    found = {
        each.kind: each
        for each in choose(ORDINARY, conditions(), on_hand=None, retired=frozenset({"moss_sandwich", "coated-19-08"}))
    }
    assert "retired" in found["moss_sandwich"].ruled_out
    assert found["stacked_pair"].piece.mechanic.netting not in (None, "coated-19-08")


def test_ready_made_mechanics_must_be_on_hand() -> None:
    asked = Practice(only_in_store=True)
    without = {each.kind: each.ruled_out for each in options(ORDINARY, asked, frozenset())}
    having = {each.kind: each.ruled_out for each in options(ORDINARY, asked, frozenset({"lattice_pad"}))}
    assert "on hand" in without["lattice_pad"]
    assert having["lattice_pad"] == ""
    assert without["twig_rings"] == ""
