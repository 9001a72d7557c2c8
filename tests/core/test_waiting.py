"""Before the show: cups and blocks that are not filled up again, a bouquet in its vase and in the cooler."""

from dataclasses import replace
from datetime import datetime

import pytest

from jolly_trellis.core.books.waiting import stages_of
from jolly_trellis.core.books.water import MOST_HOURS
from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.checks import drink
from jolly_trellis.core.checks.verdicts import Finding, Verdict
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.air import Air, draw_factor
from jolly_trellis.core.mechanics.blocks import FIBRE_DELIVERS
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.passage import Cooled, Passage
from jolly_trellis.core.plan.piece import Mechanic, Piece
from jolly_trellis.core.plan.setting import Transport
from jolly_trellis.core.units import render
from tests.ordinary import ZONE, bouquet, conditions, lacks, piece, recipe

EVEN = Air(temperature_c=20.0, relative_humidity=0.6)
RIDING = Transport(box_width_m=0.3, box_depth_m=0.3, box_wall_m=0.2)


def around(hours: float = 18.0) -> Conditions:
    """Finished so long before the filling at 13:00, loaded four hours before it, all in 20 °C and 60 %."""
    filled = datetime(2027, 5, 15, 13, 0, tzinfo=ZONE)
    return replace(
        conditions(),
        filled_at=filled,
        finished_at=datetime.fromtimestamp(filled.timestamp() - hours * 3600, tz=ZONE),
        loaded_at=datetime.fromtimestamp(filled.timestamp() - 4 * 3600, tz=ZONE),
        workshop=EVEN,
        van=EVEN,
        air=EVEN,
    )


def on(kind: str, count: int = 10, **choice: object) -> Piece:
    mechanic = Mechanic(kind=kind, **choice)  # type: ignore[arg-type]
    return replace(piece(), mechanic=mechanic, transport=RIDING, recipe=recipe(tulip=(count, "focal")))


def waits(made: Build) -> list[Finding]:
    return drink.waits(made)


def test_cups_that_nobody_fills_up_run_dry_by_the_hour_they_hold() -> None:
    """The fullest cup has so many tulips; 60 ml over their draw, ÷ 1.3 on a thirsty day, × 0.9 not quite full."""
    made = build(on("raised_cups", 20), around(40.0))
    cells = made.placement.seat_cell
    fullest = max((cells == each).sum() for each in set(cells.tolist()))
    draw = float(made.placement.stems.uptake_ml_h[0]) * int(fullest)
    hours = [each.value.value for each in waits(made)]
    assert hours == pytest.approx([60 / draw, 60 / draw / 1.3, 0.9 * 60 / draw])
    assert all(each.limit.value == pytest.approx(40.0) for each in waits(made))
    said = render(waits(made)[0].reason, "metric")
    assert said.startswith("Finished and standing on its cups, a tulip runs dry after")
    assert "fill it up again" in said
    assert render(waits(made)[2].reason, "metric").startswith("Its cups not quite full, finished")


def test_larger_cups_or_making_it_there_are_offered_and_help() -> None:
    report = evaluate(on("raised_cups", 20), around(40.0))
    verdict = next(each for each in report.verdicts if each.verb == "drink")
    assert verdict.state == "fails"
    keys = {fix.key.split("-")[0] for fix in verdict.fixes}
    assert keys & {"cups", "made"}


def test_a_soaked_block_is_drunk_as_one_store_through_every_air() -> None:
    """What it delivers over all draws: 14 h in the workshop at 20 °C, 60 %, then what is left at the van's rate."""
    warm = replace(around(), van=Air(temperature_c=30.0, relative_humidity=0.3))
    made = build(on("fibre_pouch", 30), warm)
    assert [each.value.value for each in waits(made)] == [MOST_HOURS] * 3
    thirsty = build(on("fibre_pouch", 120), warm)
    store = 1000 * thirsty.mechanic.absorbed_l * FIBRE_DELIVERS.value
    draw = float(thirsty.placement.stems.uptake_ml_h.sum())
    hot = draw_factor(Air(temperature_c=30.0, relative_humidity=0.3))
    assert 14 < store / draw < 18 * hot
    typical, heavy, low = (each.value.value for each in waits(thirsty))
    assert typical == low == pytest.approx(14 + (store - 14 * draw) / (draw * hot))
    assert heavy == pytest.approx(14 + (store - 14 * 1.3 * draw) / (1.3 * draw * hot)) or heavy == pytest.approx(
        store / draw / 1.3
    )


def carried(cooler_days: float = 0.0, level_m: float = 0.08, **changes: object) -> Piece:
    plan = bouquet("hand_spiral")
    return replace(
        plan,
        passage=Passage(cooled=Cooled(days=cooler_days) if cooler_days else None),
        carried_h=1.0,
        transport=replace(RIDING, water_level_m=level_m),
        water_level_m=level_m,
        **changes,  # type: ignore[arg-type]
    )


def drink_of(plan: Piece, near: Conditions) -> Verdict:
    return next(each for each in evaluate(plan, near, with_fixes=False).verdicts if each.verb == "drink")


def test_a_bouquet_keeps_the_water_of_its_vase_and_is_cold_in_the_cooler() -> None:
    made = build(carried(cooler_days=1.0), around())
    stages = stages_of(made.piece, made.conditions, made.mechanic, made.acts)
    assert [(each.place, round(each.hours, 6)) for each in stages] == [
        ("cooler", 24.0),
        ("bench", 14.0),
        ("road", 4.0),
    ]
    assert [each.level_m for each in stages] == [0.08, 0.08, 0.08]
    own = replace(made.piece, transport=replace(RIDING, overnight_level_m=0.07, water_level_m=0.06))
    assert [each.level_m for each in stages_of(own, made.conditions, made.mechanic, made.acts)] == [0.07, 0.07, 0.06]
    assert (stages[0].air.temperature_c, stages[0].air.relative_humidity) == (4.0, 0.85)


def test_a_bouquet_in_a_vase_too_low_to_last_the_night_fails() -> None:
    """Its ends stand on the floor of the vase: a centimetre of water is drunk long before it is taken up."""
    low = drink_of(carried(level_m=0.022), around())
    found = [each for each in low.findings if each.check == "waits"]
    assert len(found) == 3
    assert found[0].utilisation > 1
    assert "taken up" in render(found[0].reason, "metric")
    assert "in its vase" in render(found[0].reason, "metric")
    full = drink_of(carried(level_m=0.10), around(6.0))
    assert all(each.utilisation <= 1 for each in full.findings if each.check == "waits")


def test_a_fuller_vase_is_offered_and_mends_it() -> None:
    report = evaluate(carried(level_m=0.022), around(6.0))
    drinks = next(each for each in report.verdicts if each.verb == "drink")
    assert drinks.state == "fails"
    fuller = [fix for fix in drinks.fixes if fix.key.startswith("vase")]
    assert fuller
    assert drink_of(fuller[0].piece, around(6.0)).state in ("holds", "tight")


def test_what_is_not_known_of_the_workshop_is_asked_for_a_bouquet_too() -> None:
    asked = drink_of(carried(), replace(around(), workshop=None))
    assert any("workshop" in each for each in lacks(asked))
    here = replace(carried(), passage=Passage(made="its place"))
    assert not any("workshop" in each for each in lacks(drink_of(here, replace(around(), workshop=None))))


def test_water_that_would_rise_on_the_road_is_refused_with_what_would_be_right() -> None:
    rising = replace(piece(), transport=replace(RIDING, overnight_level_m=0.02, water_level_m=0.05))
    with pytest.raises(InvalidMeasure) as caught:
        build(rising, around())
    assert caught.value.path == "transport.overnight_level_m"
    assert render(caught.value.message, "metric") == (
        "It stands at 2 cm overnight and drives at 5 cm: water is poured off before loading, not up."
    )
    assert render(caught.value.limit, "metric") == "Give 5 cm or more, or drive with less."
    for level in (0.05, 0.06):
        build(replace(rising, transport=replace(RIDING, overnight_level_m=level, water_level_m=0.05)), around())


@pytest.mark.parametrize(
    ("temperature_c", "humidity", "path"), [(-40.0, 0.5, "temperature_c"), (20.0, 1.1, "humidity")]
)
def test_an_air_that_cannot_be_is_refused_beside_its_field(temperature_c: float, humidity: float, path: str) -> None:
    air = Air(temperature_c=temperature_c, relative_humidity=humidity)
    own = replace(piece(), setting=replace(piece().setting, air=air))
    for plan, near in ((own, around()), (piece(), replace(around(), air=air))):
        with pytest.raises(InvalidMeasure) as caught:
            build(plan, near)
        assert path in caught.value.path
        assert caught.value.limit.text.startswith("Give {low} to {high}")
