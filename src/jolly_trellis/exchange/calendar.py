"""The run sheet as iCalendar (RFC 5545), written with its time zone, and changed times read back."""

from datetime import UTC, datetime

from icalendar import Calendar, Event

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.day import Day
from jolly_trellis.core.event.job import FIRST_YEAR, LAST_YEAR, Job
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.units import render

UID_END = "@jolly-trellis"
MOST_EVENTS = 2000
_STAMP = datetime(2020, 1, 1, tzinfo=UTC)


def write_calendar(name: str, event_id: int, revision: int, job: Job, day: Day) -> bytes:
    """Every task of a day as an event of a calendar, in the zone of the place; a task keeps its UID for life.

    Args:
        revision: of the event; as the SEQUENCE of every entry it tells a calendar which of two is the newer.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Jolly Trellis//run sheet//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    crew = [each.name for each in job.crew] or ["you"]
    for timed in day.timed:
        entry = Event()
        entry.add("uid", f"{event_id}.{timed.task.key}{UID_END}")
        entry.add("dtstamp", _STAMP)
        entry.add("sequence", revision)
        entry.add("dtstart", timed.starts_at)
        entry.add("dtend", timed.ends_at)
        gate = timed.task.gate
        entry.add("summary", timed.task.name if gate is None else f"NOT CLEARED: {timed.task.name}")
        entry.add("location", timed.task.where)
        who = [crew[each] if each < len(crew) else "somebody more" for each in timed.crew]
        said = [
            "" if gate is None else render(gate, "metric"),
            f"Who: {', '.join(who)}.",
            f"{timed.task.why[:1].upper()}{timed.task.why[1:]}." if timed.task.why else "",
        ]
        entry.add("description", " ".join(each for each in said if each))
        calendar.add_component(entry)
    calendar.add_missing_timezones()
    return bytes(calendar.to_ical())


def read_times(text: str, event_id: int) -> dict[str, datetime]:
    """Starts of the tasks of an event in a calendar, by task key, aware; entries of anything else are passed over.

    Raises: InvalidMeasure: it is no calendar, holds none of this event's tasks, or a time in it is none.
    """
    try:
        calendar = Calendar.from_ical(text)
    except (ValueError, IndexError, KeyError, TypeError, AttributeError):
        raise _refused(
            "This is no calendar that can be read.", "Choose an .ics file as a calendar saves it."
        ) from None
    found: dict[str, datetime] = {}
    entries = calendar.walk("VEVENT")
    if len(entries) > MOST_EVENTS:
        raise _refused("This calendar has more than {most} entries.", "Save the run sheet alone.", most=MOST_EVENTS)
    for entry in entries:
        own, _, key = str(entry.get("uid", "")).removesuffix(UID_END).partition(".")
        if own != str(event_id) or not key or not str(entry.get("uid", "")).endswith(UID_END):
            continue
        name = str(entry.get("summary", key))[:60]
        try:
            at = getattr(entry.get("dtstart"), "dt", None)
        except (ValueError, ArithmeticError):
            at = None
        if not isinstance(at, datetime) or at.tzinfo is None:
            raise _refused("The start of “{name}” is no time with a zone.", "Mend it.", name=name)
        if not FIRST_YEAR < at.year < LAST_YEAR:
            raise _refused(
                "The start of “{name}” lies outside the years that can be planned.",
                "Give a date from {first} to {last}.",
                name=name,
                first=FIRST_YEAR + 1,
                last=LAST_YEAR - 1,
            )
        found[key] = at
    if not found:
        raise _refused("None of its entries is a task of this event.", "Choose the calendar that was saved from here.")
    return found


def _refused(message: str, limit: str, **names: str | int) -> InvalidMeasure:
    return InvalidMeasure(path="text", message=phrase(message, **names), limit=phrase(limit, **names))
