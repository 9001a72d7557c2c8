"""Worn pieces: wires by gauge and length, tape, what they weigh, hours without water."""

from dataclasses import replace

import pytest

from jolly_trellis.core.event.needs.needs import things_in
from jolly_trellis.core.event.starting.starts import STARTS, Given
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.making.report import making_of
from jolly_trellis.core.materials.stems import cut_mass_kg, shoot_of
from jolly_trellis.core.mechanics.worn import WIRE_HOLDS, wire_for_m, wire_length_m
from jolly_trellis.core.plan.practice import Practice
from jolly_trellis.core.plan.worn import Worn
from tests.ordinary import conditions, nettings, recipe, vessels

KINDS = ("buttonhole", "corsage", "crown")


def begun(kind: str) -> Worn:
    given = Given(
        vessel=vessels()["bud-cylinder-8"],
        nettings=nettings(),
        practice=Practice(),
        known=list(conditions().varieties),
        stems=True,
    )
    with conditions().figures.open():
        part = STARTS[kind].begin(given)
    assert isinstance(part, Worn)
    return replace(part, carried_h=4.0)


def judged(kind: str) -> Report:
    return evaluate(begun(kind), conditions())


@pytest.mark.parametrize("kind", KINDS)
def test_every_head_has_its_wire_and_all_of_it_is_worn(kind: str) -> None:
    report, piece = judged(kind), begun(kind)
    states = {each.verb: each.state for each in report.verdicts}
    assert states["hold"] in ("holds", "tight")
    assert states["lift"] in ("holds", "tight")
    assert all(states[verb] == "not needed" for verb in ("stand", "travel", "hang", "hide", "see"))
    wires = [each for each in report.mechanic.parts if each.name.startswith("wire ")]
    assert sum(each.quantity for each in wires) == sum(line.count for line in piece.recipe)
    assert {each.sizes[0].value for each in wires} == {wire_length_m(kind)}
    tape = next(each for each in report.mechanic.parts if each.name.startswith("stem tape"))
    heads = sum(line.count for line in piece.recipe)
    leg = {"buttonhole": 0.06, "corsage": 0.05, "crown": 0.03}[kind]
    base = 3.14159265 * 0.18 + 0.08 if kind == "crown" else 0.0
    assert tape.sizes[0].value == pytest.approx(1.5 * (heads * leg + base))


def test_a_buttonhole_weighs_its_heads_wires_tape_and_pin() -> None:
    """By hand: 2 cm of stem on each head; wire of 16 cm, its mass by the square of its gauge."""
    piece, report = begun("buttonhole"), judged("buttonhole")
    held = conditions().varieties
    heads = sum(
        line.count * cut_mass_kg(shoot_of(held[line.variety]) if line.shoot else held[line.variety], 0.02)
        for line in piece.recipe
    )
    lift = next(each for each in report.verdicts if each.verb == "lift")
    typical = next(each for each in lift.findings if each.case == "typical")
    assert typical.value.value == pytest.approx(heads + report.mechanic.mass_kg, rel=1e-6)
    assert [wire_for_m(kg) for kg in (0.004, 0.0041, 0.03, 0.05, 0.2)] == [0.0004, 0.00055, 0.0007, 0.0009, 0.0009]
    assert wire_length_m("buttonhole") == pytest.approx(0.16)


def test_a_head_too_heavy_for_its_wire_and_a_crown_too_heavy_fail() -> None:
    heavy = replace(begun("buttonhole"), recipe=recipe(hydrangea=(1, "focal")))
    states = {each.verb: each.state for each in evaluate(heavy, conditions()).verdicts}
    assert states["hold"] == "fails"
    assert states["lift"] == "fails"
    crowned = replace(begun("crown"), recipe=recipe(rose=(25, "focal")))
    assert next(each for each in evaluate(crowned, conditions()).verdicts if each.verb == "lift").state == "fails"
    assert max(WIRE_HOLDS) == 0.0009


def test_a_crown_lies_round_its_wire_and_fades_by_its_dry_life() -> None:
    report = judged("crown")
    assert all(abs((each.tip_x_m**2 + each.tip_y_m**2) ** 0.5 - 0.09) < 1e-6 for each in report.stems)
    drink = next(each for each in report.verdicts if each.verb == "drink")
    assert all(each.check.startswith("own water") for each in drink.findings)
    assert len(drink.findings) == 3
    forgotten = evaluate(replace(begun("crown"), carried_h=None), conditions())
    assert next(each for each in forgotten.verdicts if each.verb == "drink").state == "cannot say"
    days = evaluate(replace(begun("crown"), carried_h=40.0), conditions())
    assert next(each for each in days.verdicts if each.verb == "drink").state == "fails"


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_worn_weighs_no_vase_and_needs_none(kind: str) -> None:
    piece, report = begun(kind), judged(kind)
    assert report.balance is not None
    lift = next(each for each in report.verdicts if each.verb == "lift")
    typical = next(each for each in lift.findings if each.case == "typical")
    assert report.balance.mass_kg == pytest.approx(typical.value.value)
    assert report.balance.mass_kg < piece.vessel.mass_kg  # type: ignore[operator]
    assert list(things_in(piece)) == []
    assert not {"vessel", "water"} & {each.id for each in report.picture.primitives}


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_worn_is_made_and_looked_at_as_such(kind: str) -> None:
    made = making_of(begun(kind), conditions(), with_fixes=False)
    words = " ".join(each.say.text for each in made.gates)
    assert "wire end" in words
    assert "vase" not in words
    wired = next(each.say.text for each in judged(kind).steps if "wire it with" in each.say.text)
    asked = {"buttonhole": "1 of 0.4 mm, 1 of 0.55 mm, 1 of 0.7 mm", "corsage": "1 of 0.4 mm, 2 of 0.55 mm"}
    assert asked.get(kind, "12 of 0.4 mm, 17 of 0.55 mm") in wired
    low = judged(kind).picture.low_m
    assert low > 0.05, "the picture does not begin at a table it does not stand on"
