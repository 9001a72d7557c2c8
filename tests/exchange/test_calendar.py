"""The run sheet as iCalendar: an independent parser opens it, right over a clock change; changed times read in."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from functools import cache
from typing import Any

import icalendar
import pytest

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.day.day import Day, day_of
from jolly_trellis.core.event.job import CrewMember, Job
from jolly_trellis.core.event.tasks.entries import Entry, KeptEntry
from jolly_trellis.exchange.calendar import read_times, write_calendar
from tests.events import at, job, one_bowl
from tests.ordinary import varieties


@cache
def day() -> Day:
    return day_of(job(), one_bowl(), varieties(), effort=0)


STAMP = datetime(2027, 5, 1, 8, 30, tzinfo=UTC)
STUDIO = "0123456789abcdef0123456789abcdef"
UID = f"@{STUDIO}.jolly-trellis"


def told(sheet: Day, sequence: int = 3, *, cancelled: bool = False) -> list[KeptEntry]:
    return [
        KeptEntry(
            entry=Entry(
                task=each.task.key,
                starts_at=each.starts_at.isoformat(),
                ends_at=each.ends_at.isoformat(),
                summary=each.task.name,
                location=each.task.where,
                description="Who: Wren.",
            ),
            sequence=sequence,
            stamped_at=STAMP,
            cancelled=cancelled,
        )
        for each in sheet.timed
    ]


def text(asked: Job | None = None, sheet: Day | None = None, person: str = "") -> str:
    whose = CrewMember(name=person) if person else None
    return write_calendar("Slipway lunch", 7, STUDIO, asked or job(), told(sheet or day()), whose).decode()


def parsed(words: str) -> Any:
    """The calendar as icalendar reads it."""
    return icalendar.Calendar.from_ical(words)


def test_every_task_opens_in_an_independent_parser_at_its_own_time() -> None:
    """icalendar (RFC 5545): the same instants, named zone and all."""
    entries = {str(each["uid"]): each for each in parsed(text()).walk("VEVENT")}
    assert len(entries) == len(day().timed)
    for timed in day().timed:
        entry = entries[f"7.{timed.task.key}{UID}"]
        assert entry["dtstart"].dt.timestamp() == timed.starts_at.timestamp()
        assert entry["dtend"].dt.timestamp() == timed.ends_at.timestamp()
        assert str(entry["summary"]) == timed.task.name
        assert entry["sequence"] == 3
        assert entry["dtstamp"].dt == STAMP
        assert [str(each["action"]) for each in entry.walk("VALARM")] == ["DISPLAY"]
        assert str(entry["dtstart"].params["TZID"]) == "Europe/London"


def test_the_zone_is_in_the_file_so_that_it_needs_no_other() -> None:
    zones = parsed(text()).walk("VTIMEZONE")
    assert [str(each["tzid"]) for each in zones] == ["Europe/London"]


def test_times_on_both_sides_of_a_clock_change_are_the_instants_they_are() -> None:
    """28 March 2027, 01:00 UTC: clocks in Europe/London go forward (tz database)."""
    spring = replace(
        job(),
        access_at=at("2027-03-28T08:00"),
        filled_at=at("2027-03-28T12:30"),
        starts_at=at("2027-03-28T18:00"),
        ends_at=at("2027-03-28T23:30"),
        clear_by=None,
    )
    sheet = day_of(spring, one_bowl(), varieties(), effort=0)
    starts = {str(e["uid"]): e["dtstart"].dt for e in parsed(text(spring, sheet)).walk("VEVENT")}
    offsets = {each.utcoffset() for each in starts.values()}
    assert offsets == {timedelta(0), timedelta(hours=1)}
    for timed in sheet.timed:
        assert starts[f"7.{timed.task.key}{UID}"].timestamp() == timed.starts_at.timestamp()


def test_what_is_written_is_read_back_and_a_moved_entry_is_moved() -> None:
    calendar = parsed(text())
    entry = calendar.walk("VEVENT")[0]
    entry["dtstart"].dt = entry["dtstart"].dt + timedelta(minutes=25)
    found = read_times(calendar.to_ical().decode(), 7, STUDIO)
    known = {each.task.key: each.starts_at for each in day().timed}
    moved = {key for key, when in found.items() if when.timestamp() != known[key].timestamp()}
    assert len(found) == len(known)
    assert len(moved) == 1


def test_a_time_in_another_zone_is_the_same_instant() -> None:
    calendar = parsed(text())
    entry = calendar.walk("VEVENT")[0]
    was = entry["dtstart"].dt
    del entry["dtstart"]
    entry.add("dtstart", was.astimezone(UTC))
    key = str(entry["uid"]).split("@")[0].partition(".")[2]
    assert read_times(calendar.to_ical().decode(), 7, STUDIO)[key].timestamp() == was.timestamp()


@pytest.mark.parametrize(
    ("broken", "words"),
    [
        ("", "This is no calendar"),
        ("<html>no</html>", "This is no calendar"),
        ("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nEND:VCALENDAR\r\n", "None of its entries is a task"),
    ],
)
def test_what_is_no_calendar_of_this_event_is_refused(broken: str, words: str) -> None:
    with pytest.raises(InvalidMeasure) as refused:
        read_times(broken, 7, STUDIO)
    assert words in refused.value.message.text


def test_a_calendar_of_another_event_is_refused() -> None:
    with pytest.raises(InvalidMeasure, match="None of its entries"):
        read_times(text(), 8, STUDIO)


def test_an_entry_with_a_date_and_no_time_is_refused_by_its_name() -> None:
    calendar = parsed(text())
    entry = calendar.walk("VEVENT")[0]
    del entry["dtstart"]
    entry.add("dtstart", datetime(2027, 5, 15, tzinfo=UTC).date())
    with pytest.raises(InvalidMeasure, match="is no time with a zone"):
        read_times(calendar.to_ical().decode(), 7, STUDIO)


def test_a_time_of_an_hour_that_comes_twice_is_written_as_the_instant_it_is() -> None:
    """31 October 2027, 01:00 UTC: clocks in Europe/London go back (tz database); 01:15 comes twice."""
    zone = job().zone
    first = datetime(2027, 10, 31, 0, 15, tzinfo=UTC)
    for instant in (first, first + timedelta(hours=1)):
        local = instant.astimezone(zone)
        entry = Entry(
            task="place:strike:1",
            starts_at=local.isoformat(),
            ends_at=(instant + timedelta(minutes=30)).astimezone(zone).isoformat(),
            summary="Strike",
            location="venue",
            description="",
        )
        kept = KeptEntry(entry=entry, sequence=0, stamped_at=STAMP, cancelled=False)
        words = write_calendar("Night", 7, STUDIO, job(), [kept]).decode()
        (read,) = parsed(words).walk("VEVENT")
        assert read["dtstart"].dt == instant
        assert read_times(words, 7, STUDIO)["place:strike:1"] == instant


def test_a_task_that_is_called_off_is_said_to_be_and_moves_nothing() -> None:
    words = write_calendar("Slipway lunch", 7, STUDIO, job(), told(day(), 4, cancelled=True)).decode()
    entries = parsed(words).walk("VEVENT")
    assert {str(each["status"]) for each in entries} == {"CANCELLED"}
    assert not any(each.walk("VALARM") for each in entries)
    with pytest.raises(InvalidMeasure, match="None of its entries"):
        read_times(words, 7, STUDIO)


def test_the_calendar_of_one_person_has_entries_of_its_own_that_are_read_back_too() -> None:
    words = text(person="Wren of Rope Street")
    entries = parsed(words).walk("VEVENT")
    assert all(".wren-of-rope-street@" in str(each["uid"]) for each in entries)
    assert read_times(words, 7, STUDIO).keys() == {each.task.key for each in day().timed}


def test_a_calendar_with_nothing_in_it_yet_is_one_all_the_same() -> None:
    words = write_calendar("Slipway lunch", 7, STUDIO, job(), []).decode()
    (note,) = parsed(words).walk("VJOURNAL")
    assert "when the water goes in" in str(note["summary"])


def test_a_calendar_of_another_studio_is_refused_and_one_of_an_earlier_version_is_read() -> None:
    other = write_calendar("Slipway lunch", 7, "f" * 32, job(), told(day())).decode()
    with pytest.raises(InvalidMeasure, match="None of its entries"):
        read_times(other, 7, STUDIO)
    calendar = parsed(text())
    entry = calendar.walk("VEVENT")[0]
    entry["uid"] = "7.flower-1@jolly-trellis"
    assert "1:flower:1" in read_times(calendar.to_ical().decode(), 7, STUDIO)
