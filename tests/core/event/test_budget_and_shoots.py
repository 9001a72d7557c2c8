"""A budget split between stems, side shoots as stems, and work that keeps for months: worked by hand."""

from dataclasses import replace
from datetime import date
from decimal import Decimal

import pytest

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.job import Job, Made, PieceWork
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.recipes.budget import Split, split_budget, stem_price
from jolly_trellis.core.event.recipes.lasting_care import lasting_care
from jolly_trellis.core.event.recipes.recipes import scaled, side_shoots, too_few_shoots
from jolly_trellis.core.event.recipes.swapping import variety_uses
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.materials.stems import cut_mass_kg, shoot_of
from jolly_trellis.core.plan.recipe import RecipeLine, Shade
from jolly_trellis.core.rigging.loads import take_off
from jolly_trellis.core.stems.shades import with_count
from jolly_trellis.core.units import render
from tests import rigs
from tests.events import at, job
from tests.ordinary import conditions, piece, recipe, varieties

D = Decimal
KNOWN = {
    "peony": replace(varieties()["peony"], bunch_size=5, bunch_price=20.0, stem_price=None, head_diameter_m=0.1),
    "rose": replace(varieties()["rose"], bunch_size=10, bunch_price=20.0, stem_price=None, head_diameter_m=0.06),
    "ruscus": replace(varieties()["ruscus"], bunch_size=10, bunch_price=5.0, stem_price=None),
}
LINES = recipe(rose=(4, "focal"), peony=(2, "focal"), ruscus=(6, "base"))


def split(budget: str, premium: float = 0.5, surface_m2: float = 1.0, lines: tuple[RecipeLine, ...] = LINES) -> Split:
    return split_budget(lines, KNOWN, budget=D(budget), premium=premium, surface_m2=surface_m2)


def counts(found: Split) -> dict[str, int]:
    return {line.variety: line.count for line in found.recipe}


def test_premium_stems_take_their_share_largest_heads_first_and_the_rest_what_is_left() -> None:
    """32.00, half premium: 16.00 are two peonies at 4.00 and four roses at 2.00; 16.00 are 32 ruscus at 0.50."""
    found = split("32.00")
    assert counts(found) == {"rose": 4, "peony": 2, "ruscus": 32}
    assert (found.spent, found.premium_share) == (D("32.00"), 0.5)
    assert not [each for each in found.say if "Premium" in each.text]
    assert [line.role for line in found.recipe] == ["focal", "focal", "base"]
    one = split("8.00")
    assert counts(one) == {"peony": 1, "ruscus": 8}
    assert render(one.say[0], "metric") == "Not one of these fits into the budget: rose."


def test_no_more_flowers_than_fill_it_and_what_is_left_is_said() -> None:
    """Heads of 0.00785 and 0.00283 m²: 0.04 m² is 90 % full with three peonies and four roses, 0.0349 m²."""
    found = split("500.00", premium=1.0, surface_m2=0.04)
    area = counts(found)["peony"] * 0.00785 + counts(found)["rose"] * 0.00283
    assert found.fullness == pytest.approx(area / 0.04, abs=0.002)
    assert 0.8 < found.fullness <= 0.9
    assert found.spent < D("500.00")
    much = split("500.00", premium=0.5, surface_m2=0.04)
    assert counts(much)["ruscus"] <= 6 * max(counts(much)["peony"] / 2, counts(much)["rose"] / 4) + 1
    assert [render(each, "metric") for each in much.say] == [
        f"It is full: {500 - much.spent} of the budget is left over."
    ]
    thin = split("8.00", surface_m2=1.0)
    assert any("It is airy: heads fill 1% of the size wanted" in render(each, "metric") for each in thin.say)


def test_a_share_that_whole_stems_cannot_meet_is_said() -> None:
    said = [render(each, "metric") for each in split("9.00", premium=0.6).say]
    assert "Premium stems take 44% of it, 60% was asked: whole stems come no nearer." in said
    none = split("5.00", lines=recipe(ruscus=(6, "base")))
    assert counts(none) == {"ruscus": 10}
    assert render(none.say[0], "metric") == "No line is focal: all of it goes to the rest."


@pytest.mark.parametrize(
    ("budget", "lines", "sentence"),
    [
        ("0", LINES, "A budget of nothing buys no stems."),
        ("-4", LINES, "A budget of nothing buys no stems."),
        ("40", (), "There are no varieties to split it between."),
    ],
)
def test_a_budget_that_splits_nothing_is_a_sentence(budget: str, lines: tuple[RecipeLine, ...], sentence: str) -> None:
    with pytest.raises(InvalidMeasure) as told:
        split(budget, lines=lines)
    assert (told.value.path, told.value.message.text) == ("budget", sentence)


def test_a_stem_without_a_price_is_named_and_one_nobody_sells_is_free() -> None:
    assert stem_price(replace(KNOWN["rose"], bunch_price=None, stem_price=1.5)) == D("1.50")
    assert stem_price(replace(KNOWN["rose"], kind="own garden", bunch_price=None)) == 0
    unknown = KNOWN | {"rose": replace(KNOWN["rose"], bunch_price=None)}
    with pytest.raises(InvalidMeasure, match="No price is known for"):
        split_budget(LINES, unknown, budget=D(9), premium=0.5, surface_m2=1.0)
    garden = KNOWN | {"ruscus": replace(KNOWN["ruscus"], kind="own garden", bunch_price=None)}
    free = split_budget(LINES, garden, budget=D(8), premium=1.0, surface_m2=1.0)
    assert counts(free)["ruscus"] == 6


SHOOTS = RecipeLine(variety="spray-rose", count=6, role="margin", shoot=True)


def test_a_side_shoot_is_a_smaller_stem_that_nobody_buys() -> None:
    whole, shoot = varieties()["spray-rose"], shoot_of(varieties()["spray-rose"])
    assert shoot.key == whole.key
    assert shoot.head_diameter_m == pytest.approx(0.5 * whole.head_diameter_m)
    assert max(shoot.sold_lengths_m) == pytest.approx(0.35 * max(whole.sold_lengths_m))
    assert cut_mass_kg(shoot, 0.15) < 0.4 * cut_mass_kg(whole, 0.15)
    plan = replace(piece(), recipe=(*recipe(spray_rose=(9, "filler")), SHOOTS), quantity=2)
    report = evaluate(plan, conditions(), with_fixes=False)
    made = Made(pieces=(PieceWork(id=1, piece=plan, report=report),), rigs=())
    needs = needs_of(made)
    assert [(each.variety, each.count) for each in needs.stems] == [("spray-rose", 18)]
    assert [(each.variety, each.count) for each in needs.shoots] == [("spray-rose", 12)]
    (bought,) = buy_stems(needs.stems, varieties(), waste=0.0, here={})
    assert bought.in_recipes == 18
    assert variety_uses(made, varieties())[0].stems == 18
    pulled = {each.name: each for each in making_of(plan, conditions(), with_fixes=False).pull}
    assert pulled["spray rose, side shoot"].bunches == 0
    assert pulled["spray rose"].bunches == -(-18 // varieties()["spray-rose"].bunch_size)
    assert pulled["spray rose, side shoot"].cuts[0].cut_length_m <= 0.35 * max(whole.sold_lengths_m) + 0.02


def test_more_side_shoots_than_the_stems_give_is_said() -> None:
    known = varieties() | {"spray-rose": replace(varieties()["spray-rose"], side_shoots=2)}
    plan = replace(piece(), recipe=(*recipe(spray_rose=(1, "filler")), SHOOTS))
    needs = needs_of(Made(pieces=(PieceWork(id=1, piece=plan, report=None),), rigs=()))
    found = side_shoots(needs.stems, known, needs.shoots)
    assert [(each.shoots, each.planned) for each in found] == [(2, 6)]
    assert [render(each, "metric") for each in too_few_shoots(found)] == [
        "spray rose: 6 side shoots are planned, its 1 stem gives 2. Plan fewer, or buy more stems."
    ]
    (alone,) = side_shoots((), known, needs.shoots)
    assert (alone.stems, alone.shoots, alone.planned) == (0, 0, 6)
    assert list(too_few_shoots(side_shoots(needs.stems, known))) == []


def test_shades_keep_their_proportions_when_a_line_is_scaled() -> None:
    shades = tuple(Shade(name=name, colour="#aaaaaa", count=n) for name, n in (("a", 4), ("b", 6), ("c", 2)))
    line = RecipeLine(variety="tulip", count=12, role="filler", shades=shades)
    assert [each.count for each in with_count(line, 30).shades] == [10, 15, 5]
    assert [each.count for each in with_count(line, 6).shades] == [2, 3, 1]
    assert [each.name for each in with_count(line, 1).shades] == ["b"]
    assert with_count(replace(line, shades=shades[:1]), 24).shades[0].count == 8
    (double,) = scaled((line,), 2.0)
    assert (double.count, [each.count for each in double.shades]) == (24, [8, 12, 4])


def test_hung_work_that_keeps_has_half_as_many_ties_again() -> None:
    fresh = take_off(rigs.panel(), conditions())
    kept = take_off(replace(rigs.panel(), recipe=recipe(wheat=(9, "line"))), conditions())

    def ties(found: object) -> tuple[int, float]:
        (part,) = (each for each in found.sized.parts if each.name.startswith("ties"))  # type: ignore[attr-defined]
        return part.quantity, part.mass_kg

    number, mass = ties(fresh)
    assert ties(kept)[0] == -(-3 * number // 2)
    assert ties(kept)[1] == pytest.approx(mass * ties(kept)[0] / number)


def test_what_keeps_settles_and_is_looked_over_until_it_comes_down() -> None:
    """Up on 15 May for a year: a week after, then every three months; 28 cm settles by 1.4 cm."""
    plan = replace(piece(), recipe=recipe(wheat=(9, "line"), preserved_rose=(3, "focal")))
    made = Made(pieces=(PieceWork(id=7, piece=plan, report=None),), rigs=())
    around: Job = replace(job(), ends_at=at("2028-03-01T12:00"), clear_by=None)
    (care,) = lasting_care(around, made, varieties())
    assert care.part == 7
    assert care.days == (date(2027, 5, 22), date(2027, 8, 14), date(2027, 11, 13), date(2028, 2, 12))
    high = 100 * plan.envelope.height_m
    assert render(care.say[0], "metric") == (
        f"It settles by about {0.05 * high:.1f} cm: make it {high:.0f} cm high to stand at {0.95 * high:.1f} cm."
    )
    assert lasting_care(job(), made, varieties())[0].days == ()
    week = replace(around, ends_at=at("2027-05-22T12:00"))
    assert lasting_care(week, made, varieties())[0].days == ()
    assert len(lasting_care(replace(around, ends_at=at("2040-05-22T12:00")), made, varieties())[0].days) == 12
    half = replace(plan, recipe=(*plan.recipe, *recipe(rose=(1, "focal"))))
    assert lasting_care(around, Made(pieces=(PieceWork(id=1, piece=half, report=None),), rigs=()), varieties()) == ()
