"""A mechanic is one file: a stand-in is described here and nowhere else, and is in every place that knows them."""

from collections.abc import Iterator
from dataclasses import replace
from decimal import Decimal

import pytest

from jolly_trellis.core import ranges
from jolly_trellis.core.books.needs import FromSupply
from jolly_trellis.core.choices import MECHANICS
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.buying.shopping import shopping
from jolly_trellis.core.event.cost.cost import cost_of
from jolly_trellis.core.event.cutting.roll import cut_plan
from jolly_trellis.core.event.job import Costing, Made, PieceWork
from jolly_trellis.core.event.needs.bunches import buy_stems
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.water_rounds import water_rounds
from jolly_trellis.core.judging.choose import choose
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.mechanics.about import ABOUT, About, declare
from jolly_trellis.core.mechanics.fit import Fit
from jolly_trellis.core.mechanics.sized import Level, Part, Seating, SizedMechanic, weight_kg
from jolly_trellis.core.plan.piece import Mechanic, Piece
from jolly_trellis.core.quantities import length
from jolly_trellis.core.say.say_it import say_it
from tests.events import job, larder, shelves
from tests.ordinary import conditions, piece, varieties, vessels

KIND = "hair_grid"


def size_bands(fit: Fit) -> SizedMechanic:
    """Seven lengths of string each way across the mouth, 2 cm apart."""
    string = 14 * fit.mouth_m
    taken = FromSupply(supply="string", how="in all")
    part = Part(name="thread", quantity=1, sizes=(length(string),), mass_kg=0.004, taken=taken)
    return SizedMechanic(
        kind=KIND,
        name="hair grid",
        seating=Seating(pattern="square", pitch_m=0.02, aperture_m=0.018, height_m=fit.depth_m),
        levels=(Level(height_m=fit.depth_m, aperture_m=0.018),),
        parts=(part,),
        seat_moment_n_m=0.4,
        capacity=60,
        displaced_volume_l=0.0,
        mass_kg=weight_kg((part,)),
        price=0.5,
        minutes=3.0,
        uses=1,
    )


@pytest.fixture
def known() -> Iterator[About]:
    """The stand-in described, as importing its file would."""
    yield declare(About(kind=KIND, place=15, name="Hair grid", what="string each way across the rim", size=size_bands))
    del ABOUT[KIND]
    MECHANICS.know(list(ABOUT))


def on_it(quantity: int = 1) -> Piece:
    return replace(piece(), mechanic=Mechanic(kind=KIND), quantity=quantity)


def made_of(plan: Piece) -> Made:
    return Made(pieces=(PieceWork(id=1, piece=plan, report=evaluate(plan, conditions(), with_fixes=False)),))


def test_it_is_no_choice_until_it_is_described() -> None:
    with pytest.raises(InvalidMeasure, match="hair_grid"):
        ranges.check(on_it())


def test_it_is_sized_judged_and_weighed(known: About) -> None:
    report = evaluate(on_it(), conditions(), with_fixes=False)
    assert report.mechanic.name == "hair grid"
    assert len(report.verdicts) == 8


def test_it_is_in_the_chooser_in_its_place_and_understood_when_it_is_said(known: About) -> None:
    assert KIND in {each.kind for each in choose(piece(), conditions(), on_hand=None)}
    assert MECHANICS.known[1] == KIND
    heard = say_it("hair grid", piece(), conditions(), system="metric", vessels=vessels())
    assert heard.piece.mechanic.kind == KIND


def test_it_is_cut_bought_and_paid_for(known: About) -> None:
    made = made_of(on_it(5))
    needs = needs_of(made)
    string = sum(each.amount for each in needs.supplies if each.supply == "string")
    mouth = piece().vessel.mouth_width_m
    assert string == pytest.approx(5 * 14 * mouth)
    cuts = cut_plan(needs, larder(), seconds=0.5)
    water = water_rounds(job(), made, conditions())
    bought = shopping(job(), made, needs, cuts, larder(), shelves(), varieties(), water)
    line = next(each for each in bought.buys if each.key == "string")
    assert line.packs >= 1
    without = made_of(replace(on_it(5), mechanic=Mechanic(kind="tape_grid")))
    costs = [cost(each) for each in (made, without)]
    assert costs[0] != costs[1]


def cost(made: Made) -> Decimal:
    needs, costing = needs_of(made), Costing(rate_per_h=Decimal("26.00"))
    bought = buy_stems(needs.stems, varieties(), waste=costing.waste, here={})
    around = replace(job(), costing=costing)
    return cost_of(
        made, needs, bought, larder(), shelves(), varieties(), around, time_book(around, made, varieties(), bought)
    ).known
