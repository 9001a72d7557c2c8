"""The pull list and the read-outs of balance: exactly the recipe, shares that add up, mirror images that mirror."""

from dataclasses import replace

import pytest

from jolly_trellis.core.building.build import build
from jolly_trellis.core.making.pull_list import preparation_of
from jolly_trellis.core.making.report import MakingReport, making_of
from jolly_trellis.core.making.shares import shares_of
from jolly_trellis.core.plan.piece import Piece, Spill
from jolly_trellis.core.plan.recipe import HandPlaced
from tests.ordinary import beside, conditions, on_ledge, piece, recipe, varieties


def report(each: Piece) -> MakingReport:
    return making_of(each, conditions(), with_fixes=False)


def test_exactly_the_stems_of_the_recipe_are_pulled() -> None:
    for each in (piece(), replace(piece(), companions=(beside(tied=True),))):
        wanted = sum(line.count for line in each.recipe) + 13 * len(each.companions)
        pull = report(each).pull
        assert sum(line.count for line in pull) == wanted
        assert all(sum(cut.count for cut in line.cuts) == line.count for line in pull)


def test_lines_come_in_order_of_use_and_a_spill_last() -> None:
    spill = Spill(drop_m=0.5, recipe=recipe(gypsophila=(7, "filler")))
    pull = report(replace(on_ledge(), spill=spill)).pull
    steps = [line.first_step for line in pull]
    assert steps[-1] is None
    assert pull[-1].count == 7
    known = [step for step in steps if step is not None]
    assert known == sorted(known)


def test_what_bunches_leave_over_is_shown_once_for_a_variety() -> None:
    twice = replace(piece(), recipe=recipe(rose=(7, "focal")) + recipe(rose=(4, "filler")), quantity=2)
    pull = report(twice).pull
    assert [line.bunches for line in pull] == [2, 0]
    assert [line.left_over for line in pull] == [40 - 22, 0]


@pytest.mark.parametrize(
    ("key", "hours", "words"),
    [
        ("quince-branch", 4, "cut on the slant and split"),
        ("rose", 4, "thorns: gloves, take the thorns off"),
        ("rose", 4, "petals may be folded back: shown {h}"),
        ("rose", 9, "do not fold petals back: shown {h}"),
        ("hydrangea", 4, "dip or sear the cut end"),
        ("tulip", 4, "sap irritates skin: gloves and sleeves, wash it off"),
    ],
)
def test_how_each_stem_is_prepared(key: str, hours: float, words: str) -> None:
    """Common practice, no source."""
    said = [each.text for each in preparation_of(varieties()[key], shown_h=hours, bound=False)]
    assert words in said


def test_stems_are_stripped_below_what_holds_them() -> None:
    rose = varieties()["rose"]
    assert any("binding" in each.text for each in preparation_of(rose, shown_h=None, bound=True))
    assert any("rim" in each.text for each in preparation_of(rose, shown_h=None, bound=False))


def test_side_shoots_are_counted() -> None:
    pull = report(replace(piece(), recipe=recipe(spray_rose=(6, "filler")))).pull
    assert pull[0].side_shoots == 12


def test_shares_add_up() -> None:
    shares = shares_of(build(piece(), conditions()))
    assert shares is not None
    for sides in (shares.mass, shares.sight):
        assert sides.left + sides.right == pytest.approx(1)
        assert sides.front + sides.back == pytest.approx(1)
    assert sum(each.of_stems for each in shares.varieties) == pytest.approx(1)
    assert sum(each.of_sight for each in shares.varieties) == pytest.approx(1)
    assert 0 < shares.openness < 1


def test_a_stem_put_to_the_left_weighs_on_the_left() -> None:
    single = replace(piece(), recipe=recipe(rose=(1, "focal")))
    for x, left in ((-0.1, 1.0), (0.1, 0.0)):
        hand = HandPlaced(variety="rose", tip_x_m=x, tip_y_m=-0.05, tip_z_m=0.25)
        shares = shares_of(build(replace(single, hand_placed=(hand,)), conditions()))
        assert shares is not None
        assert shares.sight.left == pytest.approx(left)
        assert shares.sight.front == pytest.approx(1.0)


def test_a_forward_form_is_heavy_in_front() -> None:
    shares = shares_of(build(on_ledge(), conditions()))
    assert shares is not None
    assert shares.sight.front > 0.55


def test_more_stems_leave_less_air() -> None:
    few = replace(piece(), recipe=recipe(rose=(4, "focal")))
    many = replace(piece(), recipe=recipe(rose=(24, "focal")))
    openness = [s.openness for s in (shares_of(build(each, conditions())) for each in (few, many)) if s]
    assert openness[0] > openness[1]


def test_no_stems_no_read_outs() -> None:
    assert shares_of(build(replace(piece(), recipe=()), conditions())) is None
