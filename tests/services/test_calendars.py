"""What calendars are told: SEQUENCE and stamp go on with what changed; what is somebody else's is called off."""

import sqlite3
from contextlib import closing
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services import calendars, planning
from jolly_trellis.services.opening import open_studio
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store.calendars import installation


@pytest.fixture
def demo(studio: sqlite3.Connection) -> sqlite3.Connection:
    load_demo(studio)
    return studio


FIRST = datetime(2027, 4, 1, 9, 0, tzinfo=UTC)
LATER = FIRST + timedelta(days=2)


def test_told_twice_with_nothing_changed_it_is_the_same_word_for_word(demo: sqlite3.Connection) -> None:
    first = calendars.told(demo, 1, now=FIRST)[2]
    assert {each.sequence for each in first} == {0}
    assert {each.stamped_at for each in first} == {FIRST}
    assert calendars.told(demo, 1, now=LATER)[2] == first


def test_what_has_moved_is_told_as_one_more_and_the_rest_stays(demo: sqlite3.Connection) -> None:
    before = {each.entry.task: each for each in calendars.told(demo, 1, now=FIRST)[2]}
    brief = planning.brief_of(demo, 1)
    moved = replace(brief, clear_by="2027-05-16T03:00", ends_at="2027-05-16T00:30")
    planning.put_brief(demo, 1, moved, base_revision=1)
    after = {each.entry.task: each for each in calendars.told(demo, 1, now=LATER)[2]}
    assert after["place:strike:1"].sequence == 1
    assert after["place:strike:1"].stamped_at == LATER
    for key, each in after.items():
        if key in before and each.entry == before[key].entry:
            assert each == before[key]
        elif key in before:
            assert (each.sequence, each.stamped_at) == (1, LATER)


def test_a_piece_that_is_taken_off_is_called_off_once(demo: sqlite3.Connection) -> None:
    calendars.told(demo, 1, now=FIRST)
    planning.remove_part(demo, 1, 2, base_revision=1)
    off = [each for each in calendars.told(demo, 1, now=LATER)[2] if each.cancelled]
    assert off
    assert all(each.entry.task.startswith("2:") or ":" in each.entry.task for each in off)
    assert {each.sequence for each in off} == {1}
    again = [each for each in calendars.told(demo, 1, now=LATER + timedelta(days=1))[2] if each.cancelled]
    assert again == off


def test_each_person_has_a_calendar_of_what_is_theirs_and_all_of_them_are_everything(demo: sqlite3.Connection) -> None:
    job, _, everything = calendars.told(demo, 1, now=FIRST)
    own = {each.name: calendars.told(demo, 1, each.id, now=FIRST)[2] for each in job.crew}
    for name, entries in own.items():
        assert entries
        assert all(f"Who: {name}" in each.entry.description or name in each.entry.description for each in entries)
    theirs = {each.entry.task for entries in own.values() for each in entries}
    house = {each.entry.task for each in everything if "the evening crew" in each.entry.description}
    assert theirs | house == {each.entry.task for each in everything}
    with pytest.raises(NotFound):
        calendars.told(demo, 1, "Nobody of that name", now=FIRST)


def test_every_studio_has_a_name_of_its_own(studio: sqlite3.Connection, tmp_path: Path) -> None:
    with closing(open_studio(tmp_path / "other")) as other:
        assert installation(studio) != installation(other)
    assert len(installation(studio)) == 32
