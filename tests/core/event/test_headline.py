"""What an event comes to: sums of what its pieces report, each by its quantity."""

from dataclasses import replace
from decimal import Decimal

import pytest

from jolly_trellis.core.event.cost.cost import cost_of
from jolly_trellis.core.event.headline import Headline, headline
from jolly_trellis.core.event.job import Costing, Made, PieceWork, RigWork
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.water_rounds import water_rounds
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.rigging.assess import RigReport, assess
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.demo.loading import demo_plan
from tests.events import demo_made, job, larder, shelves
from tests.ordinary import conditions, varieties
from tests.ordinary import piece as ordinary_piece
from tests.rigs import run

NOTHING = Headline(
    pieces=0,
    stems=0,
    minutes=0,
    water_l=0,
    netting_m=0,
    netting_m2=0,
    overhead_kg=0,
    not_cleared=0,
    failing=0,
    not_worked_out=0,
    currency="€",
    cost=Decimal("0.00"),
    price=Decimal("0.00"),
    at_least=False,
    unpriced=0,
)


def of(made: Made) -> Headline:
    needs = needs_of(made)
    bought = buy_stems(needs.stems, varieties(), waste=0.1, here={})
    around = replace(job(), costing=Costing(rate_per_h=Decimal(20)))
    book = time_book(around, made, varieties(), bought)
    return headline(made, cost_of(made, needs, bought, larder(), shelves(), varieties(), around, book))


def stands(quantity: int = 1) -> PieceWork:
    bowl = replace(ordinary_piece(), quantity=quantity)
    return PieceWork(id=1, piece=bowl, report=evaluate(bowl, conditions()))


def hangs(rig: Rig, number: int = 1) -> RigWork:
    report: RigReport = assess(rig, conditions())
    return RigWork(id=number, rig=rig, report=report)


def test_an_empty_event_comes_to_nothing() -> None:
    assert of(Made()) == NOTHING


def test_twelve_of_a_piece_come_to_twelve_times_one() -> None:
    single, dozen = of(Made(pieces=(stands(),))), of(Made(pieces=(stands(12),)))
    for field in ("pieces", "stems", "water_l", "netting_m", "netting_m2"):
        assert getattr(dozen, field) == pytest.approx(12 * getattr(single, field)), field
        assert getattr(single, field) > 0, field
    assert single.minutes < dozen.minutes < 12 * single.minutes  # one way to the market, one drive
    assert dozen.price is not None
    assert single.price is not None
    assert dozen.price > single.price


def test_what_hangs_over_people_is_counted_by_its_heavy_mass_and_whether_it_is_cleared() -> None:
    rated = hangs(run())
    both = of(Made(rigs=(rated, hangs(run(rating=None), 2))))
    assert rated.report is not None
    assert both.overhead_kg == pytest.approx(2 * rated.report.take_off.heavy_kg)
    assert both.not_cleared == 1
    assert of(Made(rigs=(hangs(replace(run(), below="nobody")),))).overhead_kg == 0


def test_what_cannot_be_worked_out_is_counted_and_never_passes() -> None:
    broken = Made(
        pieces=(PieceWork(id=1, piece=ordinary_piece(), report=None),), rigs=(RigWork(id=2, rig=run(), report=None),)
    )
    found = of(broken)
    assert found.pieces == 2
    assert found.not_worked_out == 2
    assert found.not_cleared == 1
    assert found.netting_m2 == 0
    assert found.price is None
    assert found.unpriced > 0


def test_every_sheet_of_a_composition_is_in_the_netting() -> None:
    """By hand: its own folded sheet, one for each companion with netting, and its spill's."""
    plan = demo_plan()
    ledge = next(each.part for each in plan.pieces if each.part.spill is not None)
    report = evaluate(ledge, conditions())
    assert report.spill is not None
    mechanics = [report.mechanic, *(each.mechanic for each in report.companions)]
    sheets = [*(flat.sheet for each in mechanics for flat in each.flat), report.spill.sheet]
    area = of(Made(pieces=(PieceWork(id=1, piece=ledge, report=report),))).netting_m2
    assert area == pytest.approx(sum(each.width_m * each.length_m for each in sheets))


def test_the_water_on_show_is_what_the_first_round_fills_companions_too_and_no_bouquet() -> None:
    """One sum in two places; the ledge's three vessels each have a pour of their own."""
    made = demo_made()
    rounds = water_rounds(job(), made, conditions())
    assert of(made).water_l == pytest.approx(rounds.fill_l)
    ledge = next(work for work in made.pieces if work.piece.companions)
    assert ledge.report is not None
    pours = [each for each in rounds.fill if each.piece_id == ledge.id]
    assert [each.vessel for each in pours] == ["", *(each.name for each in ledge.piece.companions)]
    assert all(each.each_l > 0 for each in pours)
    carried = {work.id for work in made.pieces if work.piece.carried}
    assert carried
    assert not carried & {each.piece_id for each in rounds.fill}


def test_a_price_without_what_the_vehicle_costs_is_the_least_it_can_be() -> None:
    assert of(demo_made()).at_least
    assert not of(Made()).at_least
