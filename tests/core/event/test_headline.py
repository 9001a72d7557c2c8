"""What an event comes to: sums of what its pieces report, each by its quantity."""

from dataclasses import replace

import pytest

from jolly_trellis.core.evaluate import evaluate
from jolly_trellis.core.event.headline import Headline, headline, sheets_of
from jolly_trellis.core.rigging.assess import assess
from jolly_trellis.demo.loading import demo_plan
from tests.core.rigging.test_rig import run
from tests.ordinary import conditions
from tests.ordinary import piece as ordinary_piece

NOTHING = Headline(
    pieces=0, stems=0, minutes=0, water_l=0, netting_m=0, netting_m2=0, overhead_kg=0, not_cleared=0, failing=0,
    not_worked_out=0,
)  # fmt: skip


def test_an_empty_event_comes_to_nothing() -> None:
    assert headline([], []) == NOTHING


def test_twelve_of_a_piece_come_to_twelve_times_one() -> None:
    one = ordinary_piece()
    twelve = replace(one, quantity=12)
    single = headline([(one, evaluate(one, conditions()))], [])
    dozen = headline([(twelve, evaluate(twelve, conditions()))], [])
    for field in ("pieces", "stems", "minutes", "water_l", "netting_m", "netting_m2"):
        assert getattr(dozen, field) == pytest.approx(12 * getattr(single, field)), field
        assert getattr(single, field) > 0, field


def test_what_hangs_over_people_is_counted_by_its_heavy_mass_and_whether_it_is_cleared() -> None:
    report = assess(run(), conditions())
    unrated = run(rating=None)
    both = headline([], [(run(), report), (unrated, assess(unrated, conditions()))])
    assert both.overhead_kg == pytest.approx(2 * report.take_off.heavy_kg)
    assert both.not_cleared == 1
    alone = replace(run(), below="nobody")
    assert headline([], [(alone, assess(alone, conditions()))]).overhead_kg == 0


def test_what_cannot_be_worked_out_is_counted_and_never_passes() -> None:
    found = headline([(ordinary_piece(), None)], [(run(), None)])
    assert found.pieces == 2
    assert found.not_worked_out == 2
    assert found.not_cleared == 1
    assert found.netting_m2 == 0


def test_every_sheet_of_a_composition_is_in_the_netting() -> None:
    """By hand: its own folded sheet, one for each companion with netting, and its spill's."""
    plan = demo_plan()
    ledge = next(each.piece for each in plan.pieces if each.piece.spill is not None)
    report = evaluate(ledge, conditions())
    sheets = list(sheets_of(report))
    assert report.spill is not None
    assert sheets[-1] == report.spill.sheet
    own = len(report.mechanic.flat) + sum(len(each.mechanic.flat) for each in report.companions)
    assert len(sheets) == own + 1
    area = headline([(ledge, report)], []).netting_m2
    assert area == pytest.approx(sum(each.width_m * each.length_m for each in sheets))
