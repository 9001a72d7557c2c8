"""An event is gathered once for each way it stands, which is told by revisions."""

import sqlite3
from collections.abc import Callable
from dataclasses import replace

import pytest

from jolly_trellis.core.method import PROGRAM
from jolly_trellis.core.rigging.survey import Survey
from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services import event_work, judging, planning, rigging, rolling, stores
from jolly_trellis.services.conditions import stock_of
from jolly_trellis.store import stock, surveys
from jolly_trellis.store.connection import transaction
from jolly_trellis.store.stock import Holding


@pytest.fixture
def gathered(studio: sqlite3.Connection, monkeypatch: pytest.MonkeyPatch) -> list[int]:
    load_demo(studio)
    found: list[int] = []
    real = event_work.work_with

    def counting(conn: sqlite3.Connection, event_id: int, *args: object, **named: object) -> object:
        found.append(event_id)
        return real(conn, event_id, *args, **named)  # type: ignore[arg-type]

    monkeypatch.setattr(event_work, "work_with", counting)
    return found


def test_what_asks_again_takes_what_was_gathered(studio: sqlite3.Connection, gathered: list[int]) -> None:
    first = event_work.work_of(studio, 1)
    assert event_work.work_of(studio, 1) is first
    event_work.cost_of_event(event_work.work_of(studio, 1))
    event_work.shopping_of(studio, event_work.work_of(studio, 1))
    assert gathered == [1]


def test_whatever_changes_is_gathered_anew(studio: sqlite3.Connection, gathered: list[int]) -> None:
    def now() -> int:
        return planning.event_row(studio, 1).revision

    def in_the_brief() -> object:
        brief = planning.brief_of(studio, 1)
        return planning.put_brief(studio, 1, replace(brief, travel_h=1.25), base_revision=now())

    def in_the_survey() -> object:
        place, row = rigging.survey_of(studio, 1)
        surveys.put_survey(studio, place, Survey(points=row.survey.points[:-1]))
        return None

    acts: list[Callable[[], object]] = [
        in_the_brief,
        lambda: planning.undo(studio, 1, base_revision=now()),
        lambda: planning.redo(studio, 1, base_revision=now()),
        in_the_survey,
        lambda: stores.count(studio, "frog", "pin-75", Holding(on_hand=7)),
        lambda: stores.put_currency(studio, "GBP"),
        lambda: rolling.add_remnant(studio, "netting", "coated-25-09", width_m=0.3, length_m=0.8),
        lambda: planning.new_event(studio, planning.brief_of(studio, 1), ()),
    ]
    event_work.work_of(studio, 1)
    for number, act in enumerate(acts, start=2):
        act()
        event_work.work_of(studio, 1)
        event_work.work_of(studio, 1)
        assert len(gathered) == number
    book = replace(PROGRAM, values={**PROGRAM.values, "gravity": 9.81})
    with book.open():
        event_work.work_of(studio, 1)
    assert len(gathered) == len(acts) + 2


def test_what_is_rolled_back_is_not_taken_for_what_comes_after(
    studio: sqlite3.Connection, gathered: list[int]
) -> None:
    """Both ways the stores stand at the same revision, and only one of them was ever kept."""
    seen = []
    for number in (7, 9):
        studio.execute("BEGIN IMMEDIATE")
        stores.count(studio, "frog", "pin-75", Holding(on_hand=number))
        seen.append(event_work.work_of(studio, 1).shelves.frogs_here["pin-75"])
        studio.execute("ROLLBACK")
    assert seen == [7, 9]
    assert event_work.work_of(studio, 1).shelves.frogs_here["pin-75"] == 3


def test_the_stores_are_not_remembered_before_they_are_kept(studio: sqlite3.Connection) -> None:
    rose = stock.varieties(studio)["rose"]
    seen = []
    for kg in (0.05, 0.06):
        studio.execute("BEGIN IMMEDIATE")
        stores.put(studio, "variety", "rose", replace(rose, mass_kg=kg))
        seen.append(stock_of(studio).varieties["rose"].mass_kg)
        studio.execute("ROLLBACK")
    assert seen == [0.05, 0.06]
    assert stock_of(studio).varieties["rose"] == rose


def test_within_a_write_nothing_is_judged_anew_for_what_pieces_are_not_made_of(
    studio: sqlite3.Connection, gathered: list[int], monkeypatch: pytest.MonkeyPatch
) -> None:
    """Marking a roll as cut changes what is on the shelf, and no report."""
    event_work.work_of(studio, 1)
    anew: list[object] = []
    for name in ("evaluate", "assess"):
        monkeypatch.setattr(judging, name, lambda part, *_, **__: anew.append(part))
    with transaction(studio):
        stores.count(studio, "netting", "coated-25-09", Holding(on_hand=7))
        event_work.work_of(studio, 1)
    assert gathered == [1, 1]
    assert anew == []
