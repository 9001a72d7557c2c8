"""What is still to settle in an event beside its verdicts, named with the place that settles it."""

import sqlite3
from collections import OrderedDict
from dataclasses import replace
from decimal import Decimal

import pytest

from jolly_trellis.core.event.cutting.roll import cut_plan
from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services import event_work, long_work, planning
from jolly_trellis.services.settling import ToSettle, to_settle
from tests.day_done import day_done


@pytest.fixture
def demo(studio: sqlite3.Connection) -> sqlite3.Connection:
    load_demo(studio)
    return studio


def opened(conn: sqlite3.Connection) -> tuple[ToSettle, ...]:
    work = event_work.work_of(conn, 1)
    return to_settle(conn, work, event_work.cost_of_event(work))


def test_the_demo_has_nothing_open_until_its_day_and_cuts_are_worked_out(
    demo: sqlite3.Connection, monkeypatch: pytest.MonkeyPatch
) -> None:
    # A day is of what is planned, wherever that is kept: the demo's may be worked out already, by a test before this.
    monkeypatch.setattr(long_work, "_running", OrderedDict())
    assert opened(demo) == ()
    day_done(demo)
    asked = opened(demo)
    assert {each.screen for each in asked} == {"day"}
    assert any("bellflower" in each.say.text for each in asked)
    work = event_work.work_of(demo, 1)
    event_work.keep_cuts(demo, work, cut_plan(work.needs, work.larder, seconds=0.5))
    assert {each.screen for each in opened(demo)} == {"day"}


def test_cuts_of_an_earlier_state_are_to_be_planned_again(demo: sqlite3.Connection) -> None:
    work = event_work.work_of(demo, 1)
    event_work.keep_cuts(demo, work, cut_plan(work.needs, work.larder, seconds=0.5))
    piece, _ = planning.piece_of(demo, 1, 1)
    planning.put_part(demo, 1, 1, replace(piece, quantity=20), base_revision=1, label="More")
    assert any("changed since its cuts" in each.say.text for each in opened(demo))


def test_a_missing_rate_is_settled_at_the_cost_and_missing_facts_in_the_brief(demo: sqlite3.Connection) -> None:
    brief = planning.brief_of(demo, 1)
    bare = replace(brief, costing=replace(brief.costing, rate_per_h=None), crew=(), filled_at=None)
    planning.put_brief(demo, 1, bare, base_revision=1)
    found = {each.screen: each.say.text for each in opened(demo)}
    assert "what an hour of work costs" in found["cost"]
    assert found["brief"] == "The brief does not say when the water goes in, who works (one pair of hands is taken)."
    assert Decimal(0) < event_work.cost_of_event(event_work.work_of(demo, 1)).known


def test_an_event_with_nothing_in_it_has_nothing_to_settle(studio: sqlite3.Connection) -> None:
    load_demo(studio)
    plan = planning.state(studio, 1).plan
    empty = planning.begin(studio, replace(plan, parts=())).id
    work = event_work.work_of(studio, empty)
    assert to_settle(studio, work, event_work.cost_of_event(work)) == ()
