"""Cold and heat: what is chilled in the cool room or the van, what cooks, what is kept warm enough."""

from dataclasses import replace
from datetime import datetime, timedelta

import pytest

from jolly_trellis.core.checks.verdicts import Finding
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.passage import Cooled, Passage
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.units import render
from tests.ordinary import ZONE, bouquet, conditions, piece, varieties

MILD = Air(temperature_c=16.0, relative_humidity=0.6)


def around(van_c: float = 16.0, road: timedelta = timedelta(hours=3)) -> Conditions:
    filled = datetime(2027, 5, 15, 13, 0, tzinfo=ZONE)
    return replace(
        conditions(),
        workshop=MILD,
        van=Air(temperature_c=van_c, relative_humidity=0.6),
        loaded_at=filled - road,
        finished_at=filled - road - timedelta(hours=12),
    )


def of(plan: Piece, near: Conditions | None = None) -> list[Finding]:
    verdicts = evaluate(plan, near or around(), with_fixes=False).verdicts
    drink = next(each for each in verdicts if each.verb == "drink")
    return [each for each in drink.findings if each.check in ("cold", "heat")]


def posy(key: str = "anthurium", **cooled: float) -> Piece:
    cold = Passage(cooled=Cooled(days=1.0, **cooled))
    return replace(
        bouquet(),
        recipe=(RecipeLine(variety=key, count=6, role="focal"),),
        passage=cold,
        transport=Transport(),
        carried_h=1.0,
    )


def test_an_anthurium_is_chilled_in_a_flower_cooler_and_not_in_a_mild_one() -> None:
    """4 °C against 11: seven degrees, a tenth of the limit each."""
    (found,) = of(posy())
    assert (found.check, found.value.value, found.limit.value) == ("cold", 4.0, 11.0)
    assert found.utilisation == pytest.approx(1.7)
    assert "the cool room it is 4 °C; anthurium is chilled below 11 °C" in render(found.reason, "metric")
    assert "39 °F" in render(found.reason, "inch")
    assert of(posy(temperature_c=11.0)) == []
    assert of(posy("rose")) == []
    assert [each.limit.value for each in of(posy("dahlia", temperature_c=2.0))] == [3.0]


def test_what_is_dried_is_neither_chilled_nor_cooked() -> None:
    lasting = next(key for key, each in varieties().items() if each.lasting)
    dry = RecipeLine(variety=lasting, count=4, role="filler")
    mixed = replace(posy("rose"), recipe=(dry, RecipeLine(variety="rose", count=3, role="focal")))
    chilled = [each for each in of(mixed, around(van_c=0.5)) if each.check == "cold"]
    assert ["rose" in each.reason.text for each in chilled] == [True]


def test_a_hot_van_cooks_what_rides_in_it_for_half_an_hour_and_nothing_that_goes_in_there() -> None:
    boxed = replace(piece(), transport=Transport(box_wall_m=0.2))
    (found,) = of(boxed, around(van_c=38.0))
    assert (found.check, found.limit.value) == ("heat", 35.0)
    assert found.utilisation == pytest.approx(1.3)
    assert of(boxed, around(van_c=35.0)) == []
    assert of(boxed, around(van_c=38.0, road=timedelta(minutes=29))) == []
    assert len(of(boxed, around(van_c=38.0, road=timedelta(minutes=30)))) == 1
    there = replace(boxed, passage=Passage(made="its place"))
    assert of(there, around(van_c=38.0)) == []


def test_a_place_that_is_too_hot_or_too_cold_is_said_of_what_stands_there() -> None:
    hot = replace(around(), air=Air(temperature_c=37.0, relative_humidity=0.3))
    assert [(each.check, "the place" in each.reason.text) for each in of(piece(), hot)] == [("heat", True)]
    cold = replace(around(), air=Air(temperature_c=0.0, relative_humidity=0.8))
    assert {each.check for each in of(piece(), cold)} == {"cold"}


def test_a_milder_cool_room_or_none_mends_it() -> None:
    verdicts = evaluate(posy(), around()).verdicts
    drink = next(each for each in verdicts if each.verb == "drink")
    by_key = {each.key: each for each in drink.fixes}
    assert drink.state == "fails"
    assert "milder" in by_key or "not-cooled" in by_key
    if "milder" in by_key:
        mended = by_key["milder"].piece
        assert mended.passage.cooled is not None
        assert mended.passage.cooled.temperature_c == 11.0
