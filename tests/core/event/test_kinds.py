"""What is dried, preserved, artificial, foraged or of one's own garden, from the recipe to the price and the day."""

from collections.abc import Iterable
from dataclasses import replace
from datetime import date
from decimal import Decimal

import pytest

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.buying.orders import orders_of
from jolly_trellis.core.event.buying.shopping import KEEPS, Shopping, shopping
from jolly_trellis.core.event.cost.cost import EventCost, cost_of
from jolly_trellis.core.event.cost.currencies import asked_in, priced_in
from jolly_trellis.core.event.cutting.roll import cut_plan
from jolly_trellis.core.event.job import Answer, Job, Made, PieceWork, Question
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.needs.wear import stem_uses
from jolly_trellis.core.event.tasks.asked import asked_of, fire_gate, foraging_gate
from jolly_trellis.core.event.tasks.days_before import days_before
from jolly_trellis.core.event.tasks.purchases import purchases_of
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.water_rounds import water_rounds
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.making.pull_list import preparation_of
from jolly_trellis.core.materials.stems import Kind, Variety, check_kind
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.core.rigging.rig import Hazard
from jolly_trellis.core.units import render
from tests.events import all_needs, demo_made, job, larder, shelves
from tests.ordinary import conditions, piece, recipe, varieties

LASTING = recipe(dried_statice=(6, "filler"), preserved_rose=(5, "focal"), artificial_berry=(3, "line"))
MIXED = (*LASTING[2:], *recipe(rose=(5, "focal"), ruscus=(5, "base")))


def as_kind(key: str, kind: Kind) -> Variety:
    return replace(varieties()[key], kind=kind, bunch_price=None, stem_price=None)


def with_kind(key: str, kind: Kind) -> dict[str, Variety]:
    return varieties() | {key: as_kind(key, kind)}


def made_of(plan: Piece, around: Conditions | None = None) -> Made:
    report = evaluate(plan, around or conditions(), with_fixes=False)
    return Made(pieces=(PieceWork(id=1, piece=plan, report=report),))


def kept_bowl() -> Piece:
    return replace(piece(), recipe=LASTING, water_level_m=0.0, quantity=2)


def bought(made: Made, around: Job, known: dict[str, Variety] | None = None) -> Shopping:
    needs = all_needs(made, around)
    rounds = water_rounds(around, made, conditions())
    cuts = cut_plan(needs, larder(), seconds=0.2)
    return shopping(around, made, needs, cuts, larder(), shelves(), known or varieties(), rounds)


def cost(made: Made, around: Job, last: dict[str, int] | None = None) -> EventCost:
    needs = all_needs(made, around)
    stems = buy_stems(needs.stems, varieties(), waste=0.0, here={})
    book = time_book(around, made, varieties(), stems)
    held = replace(shelves(), stems_last=last or {})
    return cost_of(made, needs, stems, larder(), held, varieties(), around, book)


def stages(made: Made, around: Job, known: dict[str, Variety]) -> set[str]:
    return {each.stage for each in time_book(around, made, known).tasks}


def test_what_keeps_needs_no_water_no_days_before_and_no_buckets() -> None:
    made, around = made_of(kept_bowl()), job()
    report = made.pieces[0].report
    assert report is not None
    (drink,) = (each for each in report.verdicts if each.verb == "drink")
    assert drink.state == "not needed"
    assert "dust it" in render(drink.reason, "metric")
    wet = evaluate(replace(kept_bowl(), water_level_m=0.06), conditions(), with_fixes=False)
    (said,) = (each for each in wet.verdicts if each.verb == "drink")
    assert "it would spoil in 6 cm of water: leave the water out." in render(said.reason, "metric")
    needs = needs_of(made)
    stems = buy_stems(needs.stems, varieties(), waste=0.1, here={})
    assert purchases_of(around, made, stems, varieties()) == ()
    assert days_before(around, made, needs.stems, varieties()) == ()
    assert not {"collect", "condition", "fill"} & stages(made, around, varieties())
    assert {"mechanics", "flower", "install", "strike"} <= stages(made, around, varieties())
    shared = {each.supply for each in all_needs(made, around).supplies}
    assert not {"bucket", "flower-food", "water-can"} & shared
    flower = [each for each in time_book(around, made, varieties()).tasks if each.stage == "flower"]
    fresh = [each for each in time_book(around, made_of(piece()), varieties()).tasks if each.stage == "flower"]
    assert flower[0].soonest is not None
    assert fresh[0].soonest is not None
    assert flower[0].soonest < fresh[0].soonest
    assert flower[0].why == "nothing in it fades"


def test_what_keeps_is_ordered_once_for_no_day_and_paid_for_by_the_use() -> None:
    found = bought(made_of(kept_bowl()), job())
    (trip,) = found.trips
    assert (trip.supplier, trip.day) == (KEEPS, None)
    assert set(trip.varieties) == {"dried-statice", "preserved-rose", "artificial-berry"}
    (order,) = (each for each in orders_of(found) if each.supplier == KEEPS)
    assert order.cost == trip.cost
    made = made_of(kept_bowl())
    usual, often = cost(made, job()), cost(made, job(), {"artificial-berry": 24})
    parts = {each.name: each.amount for each in usual.pieces[0].parts if each.kind == "stems"}
    # 6 berry sprays at 2.80 over 12 uses; 10 roses, 2 bunches of 6 at 21.00 or 1 and 4 single ones, over 2 uses
    assert parts["artificial berry spray"] == Decimal("1.40")
    assert parts["preserved rose"] == Decimal("18.30")
    assert usual.stems - often.stems == Decimal("0.70")
    assert [stem_uses(varieties()[key]) for key in ("rose", "lunaria", "artificial-rose")] == [1, 2, 12]


def test_half_artificial_drinks_for_the_fresh_half_only() -> None:
    plan = replace(piece(), recipe=MIXED)
    fresh = evaluate(replace(plan, recipe=MIXED[1:]), conditions(), with_fixes=False)
    both = evaluate(plan, conditions(), with_fixes=False)

    def drawn(report: object) -> float:
        figures = {each.label: each.quantity.value for v in report.verdicts if v.verb == "drink" for each in v.figures}  # type: ignore[attr-defined]
        return figures["All stems drink"]

    assert drawn(both) == pytest.approx(drawn(fresh))
    (drink,) = (each for each in both.verdicts if each.verb == "drink")
    assert drink.state != "not needed"
    assert not any("artificial" in render(each.reason, "metric") for each in drink.findings)


def test_what_is_gathered_is_bought_nowhere_has_a_task_and_the_owners_leave() -> None:
    known = with_kind("rose", "foraged")
    made = made_of(piece(), replace(conditions(), varieties=known))
    found = bought(made, job(), known)
    (rose,) = (each for each in found.stems if each.variety == "rose")
    assert (rose.bunches, rose.cost, rose.gathered) == (0, Decimal("0.00"), True)
    assert rose.singles >= rose.in_recipes
    assert not [
        each for order in orders_of(found) for each in order.lines if each.key in ("bunches-rose", "stems-rose")
    ]
    tasks = time_book(job(), made, known, found.stems).tasks
    (gather,) = (each for each in tasks if each.stage == "collect" and "rose" in each.varieties)
    assert gather.name.startswith("Gather ")
    assert gather.gate is not None
    assert "landowner" in render(gather.gate, "metric")
    allowed = replace(job(), answers=(Answer(question="foraging", words="the owner of the hedge"),))
    assert foraging_gate(allowed) is None
    garden = with_kind("rose", "own garden")
    (own,) = (
        each
        for each in time_book(job(), made, garden, found.stems).tasks
        if each.stage == "collect" and "rose" in each.varieties
    )
    assert own.gate is None
    assert own.key.startswith("own-garden")


def test_what_must_be_asked_is_asked_and_gates_until_somebody_answered() -> None:
    made, around = made_of(kept_bowl()), job()
    asks = {each.question: each for each in asked_of(around, made, varieties())}
    assert set(asks) == {"fire"}
    assert "fire officer" in render(asks["fire"].say, "metric")
    (place,) = (each for each in time_book(around, made, varieties()).tasks if each.key == "1:install:1")
    assert place.gate is not None
    assert "preserved rose" in render(place.gate, "metric")
    said = replace(around, answers=(Answer(question="fire", words="certificate 12, shown to the house"),))
    assert asked_of(said, made, varieties())[0].answer == "certificate 12, shown to the house"
    assert fire_gate(said, made.pieces[0], varieties()) is None
    assert fire_gate(around, made_of(piece()).pieces[0], varieties()) is None
    lilies = made_of(replace(piece(), recipe=recipe(lily=(5, "focal"), sea_holly=(5, "filler"))))
    of_lilies: dict[Question, str] = {
        each.question: render(each.say, "metric") for each in asked_of(around, lilies, varieties())
    }
    assert set(of_lilies) == {"food", "animals"}
    assert all("lily" in each and "sea holly" not in each for each in of_lilies.values())
    assert not any("safe" in each or "harmless" in each for each in of_lilies.values())


def test_dried_stems_hung_near_a_flame_keep_a_metre() -> None:
    run = next(each for each in demo_made().rigs if each.report is not None and not each.rig.lies).rig
    lowest = min(each.z_m for each in run.attachments)
    flame = Hazard(kind="flame in glass", x_m=run.attachments[0].x_m, y_m=run.attachments[0].y_m + 0.6, z_m=lowest)
    near = replace(run, hazards=(flame,))

    def keeps(rig: object) -> set[float]:
        report = assess(rig, conditions())  # type: ignore[arg-type]
        return {each.limit.value for each in report.verdict.findings if each.check.startswith("clear") and each.limit}

    fresh, dried = keeps(near), keeps(replace(near, recipe=recipe(wheat=(40, "filler"))))
    assert 1.0 in dried
    assert fresh != dried
    assert keeps(replace(near, dried=True)) == dried


def test_what_keeps_is_prepared_otherwise() -> None:
    def said(key: str) -> list[str]:
        return [render(each, "metric") for each in preparation_of(varieties()[key], shown_h=4.0, bound=False)]

    assert said("wheat") == ["cut to length, handle it little", "stand it clear of water, or seal its end"]
    assert said("artificial-rose") == ["cut with wire cutters", "turn its wire end back"]


@pytest.mark.parametrize(
    ("key", "change", "path"),
    [
        ("artificial-rose", {"uptake_ml_h": 1.0}, "uptake_ml_h"),
        ("wheat", {"conditioning_h": 4.0}, "conditioning_h"),
        ("lunaria", {"opening_days": 2.0}, "opening_days"),
        ("rose", {"kind": "foraged"}, "bunch_price"),
        ("rose", {"kind": "own garden", "bunch_price": None}, "stem_price"),
        ("rose", {"kind": "dried"}, "uptake_ml_h"),
    ],
)
def test_what_its_kind_cannot_is_refused_in_a_sentence(key: str, change: dict[str, object], path: str) -> None:
    check_kind(varieties()[key])
    with pytest.raises(InvalidMeasure) as told:
        check_kind(replace(varieties()[key], **change))  # type: ignore[arg-type]
    assert told.value.path == path
    assert told.value.limit.text


def test_a_price_in_another_currency_is_a_question_and_never_added() -> None:
    known = varieties() | {"rose": replace(varieties()["rose"], currency="$", priced_on="2027-03-01")}
    usable = priced_in(known, "€")
    assert (usable["rose"].bunch_price, usable["rose"].stem_price) == (None, None)
    assert usable["tulip"] == known["tulip"]
    assert priced_in(known, "$")["rose"] == known["rose"]

    def asked(currency: str, of: Iterable[Variety]) -> list[str]:
        return [render(each, "metric") for each in asked_in(of, currency)]

    assert asked("€", known.values()) == ["rose: its price is in $, the event is in €. What does it cost in €?"]
    assert asked("$", known.values()) == []
    assert date.fromisoformat(known["rose"].priced_on) == date(2027, 3, 1)
