"""Water rounds and the days before: by hand, and by what each piece says itself."""

from dataclasses import replace
from datetime import timedelta

import pytest

from jolly_trellis.core.event.job import Job, Made, PieceWork, Supplier
from jolly_trellis.core.event.needs.needed import StemNeed
from jolly_trellis.core.event.needs.needs import needs_of
from jolly_trellis.core.event.tasks.days_before import VarietyDays, days_before
from jolly_trellis.core.event.tasks.purchases import OPENING_Q10, days_to_open
from jolly_trellis.core.event.tasks.tasks import time_book
from jolly_trellis.core.event.tasks.water_rounds import WaterRounds, water_rounds
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.plan.setting import TopUp
from jolly_trellis.core.units import render
from tests.events import at, demo_made, job, one_bowl
from tests.ordinary import conditions, varieties


def days(asked: Job, stems: tuple[StemNeed, ...], made: Made | None = None) -> tuple[VarietyDays, ...]:
    return days_before(asked, made or Made(), stems, varieties())


def rounds(*top_ups: TopUp) -> WaterRounds:
    made = one_bowl()
    work = replace(made.pieces[0], piece=replace(made.pieces[0].piece, top_ups=top_ups))
    return water_rounds(job(), replace(made, pieces=(work,)), conditions())


def test_top_ups_near_one_another_are_one_round_at_the_first_time() -> None:
    found = rounds(
        TopUp(after_h=3.0, volume_l=0.2), TopUp(after_h=3.4, volume_l=0.3), TopUp(after_h=6.0, volume_l=0.1)
    )
    assert [each.at for each in found.rounds] == [at("2027-05-15T15:30"), at("2027-05-15T18:30")]
    assert found.rounds[0].litres == pytest.approx(3 * 0.5)
    assert found.total_l == pytest.approx(found.fill_l + 3 * 0.6)
    assert found.who == "the evening crew"


def test_litres_of_the_filling_are_each_display_level_times_its_quantity() -> None:
    report = one_bowl().pieces[0].report
    assert report is not None
    assert rounds().fill_l == pytest.approx(3 * report.water.on_show_l)


def test_a_piece_that_runs_dry_before_the_end_is_named_with_its_time() -> None:
    around = replace(conditions(), filled_at=job().filled_at, ends_at=job().ends_at, air=job().air)
    low = replace(one_bowl().pieces[0].piece, water_level_m=0.05)
    made = Made(pieces=(PieceWork(id=1, piece=low, report=evaluate(low, around, with_fixes=False)),))
    found = water_rounds(job(), made, around)
    filled = job().filled_at
    assert filled is not None
    for each in found.dry:
        report = made.pieces[each.piece_id - 1].report
        assert report is not None
        drink = next(verdict for verdict in report.verdicts if verdict.verb == "drink")
        assert drink.state == "fails"
        hours = min(finding.value.value for finding in drink.findings if finding.check == "lasts")
        assert timedelta(0) <= filled + timedelta(hours=hours) - each.at < timedelta(minutes=5)
    assert found.dry
    assert all(not made.pieces[each.piece_id - 1].piece.carried for each in found.dry)


def test_without_a_filling_there_are_no_rounds_but_the_litres_are_known() -> None:
    found = water_rounds(replace(job(), filled_at=None), one_bowl(), conditions())
    assert found.rounds == ()
    assert found.fill_l > 0


def test_buds_open_as_many_times_slower_as_the_q10_says() -> None:
    peony = varieties()["peony"]
    assert days_to_open(peony, 20.0) == pytest.approx(peony.opening_days)
    assert days_to_open(peony, 10.0) == pytest.approx(peony.opening_days * OPENING_Q10.value)
    assert days_to_open(peony, -30.0) == days_to_open(peony, 2.0)


def test_a_variety_is_bought_so_that_it_opens_and_then_drinks_in_time() -> None:
    """Peony, three days at 20 °C, used from a day before half past twelve on: fetched three days earlier."""
    warm = replace(job(), workshop=Air(temperature_c=20.0, relative_humidity=0.6))
    (row,) = days(warm, (StemNeed(piece_id=1, piece="a", variety="peony", count=6),))
    assert row.place_from == at("2027-05-14T12:30")
    assert row.drinks_by == at("2027-05-14T06:30")
    assert row.buy_on == at("2027-05-11T09:30").date()
    assert row.opening_days == pytest.approx(3.0)


def test_a_bulb_is_placed_last_and_said_to_grow_on() -> None:
    (row,) = days(job(), (StemNeed(piece_id=1, piece="a", variety="tulip", count=6),))
    assert row.place_from == at("2027-05-15T08:30")
    assert any("grows on" in each.text for each in row.notes)


def test_without_the_workshops_temperature_it_cannot_say_when_to_buy_what_must_open() -> None:
    stems = tuple(StemNeed(piece_id=1, piece="a", variety=each, count=6) for each in ("peony", "ruscus"))
    rows = {each.variety: each for each in days(replace(job(), workshop=None), stems)}
    assert rows["peony"].buy_on is None
    assert any("give the workshop's temperature" in each.text for each in rows["peony"].notes)
    assert rows["ruscus"].buy_on is not None


def test_petals_are_folded_only_for_a_short_show() -> None:
    stems = (StemNeed(piece_id=1, piece="a", variety="rose", count=6),)
    short = replace(job(), ends_at=at("2027-05-15T17:30"), starts_at=None)
    words = [" ".join(render(note, "metric") for note in days(each, stems)[0].notes) for each in (short, job())]
    assert "may be folded back" in words[0]
    assert "do not fold petals back: shown 11 h" in words[1]


def test_every_variety_of_the_demo_has_its_days_the_first_to_buy_first() -> None:
    rows = days(job(), needs_of(demo_made()).stems, demo_made())
    bought = [each.buy_on for each in rows]
    assert bought == sorted(bought)  # type: ignore[type-var]
    assert sum(each.count for each in rows) == sum(each.count for each in needs_of(demo_made()).stems)


def test_a_piece_whose_filling_is_not_known_is_named_and_in_no_sum() -> None:
    made = one_bowl()
    unknown = replace(made, pieces=(*made.pieces, replace(made.pieces[0], id=2, report=None)))
    found = water_rounds(job(), unknown, conditions())
    assert found.not_worked_out == (made.pieces[0].piece.name,)
    assert found.fill_l == pytest.approx(rounds().fill_l)
    assert rounds().not_worked_out == ()


def test_a_variety_is_fetched_on_the_last_open_day_of_who_sells_it() -> None:
    """Roses are used on Friday at half past twelve; a grower open on Mondays alone has them on the Monday before."""
    grower = Supplier(name="Grower", days=("mon",), sells=("rose",))
    market = Supplier(name="Market", opens="05:00", closes="11:00")
    asked = replace(job(), suppliers=(grower, market))
    stems = tuple(StemNeed(piece_id=1, piece="a", variety=each, count=9) for each in ("rose", "ranunculus"))
    rows = {each.variety: each for each in days(asked, stems)}
    assert (rows["rose"].supplier, rows["rose"].buy_on) == ("Grower", at("2027-05-10T08:00").date())
    assert rows["ranunculus"].supplier == "Market"
    assert rows["ranunculus"].buy_on is not None
    assert rows["ranunculus"].buy_on.weekday() != 6


def test_lists_and_run_sheet_have_one_day_for_each_variety() -> None:
    """Every way to a supplier is on the day that the lists say, and brings just what they say of it."""
    book = time_book(job(), demo_made(), varieties())
    listed = {each.variety: each.buy_on for each in days(job(), needs_of(demo_made()).stems, demo_made())}
    fetched = {key: each.windows[0][0].date() for each in book.of(("collect",)) for key in each.varieties}
    assert fetched == listed


def test_water_rounds_and_run_sheet_have_one_time_one_person_and_one_sum() -> None:
    book = time_book(job(), demo_made(), varieties())
    water = water_rounds(job(), demo_made(), conditions())
    tasks = book.of(("top up",))
    assert [each.at for each in tasks] == [each.at for each in water.rounds]
    assert {each.by for each in tasks} == {water.who}
