"""The run sheet as iCalendar (RFC 5545), written with its time zone, and changed times read back."""

from collections.abc import Iterable
from datetime import UTC, datetime, timedelta

from icalendar import Alarm, Calendar, Event, Journal

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.job import FIRST_YEAR, LAST_YEAR, CrewMember, Job
from jolly_trellis.core.event.tasks.entries import KeptEntry
from jolly_trellis.core.event.tasks.old_keys import key_now
from jolly_trellis.core.quantities import phrase

UID_END = "jolly-trellis"
MOST_EVENTS = 2000
ALARM_BEFORE = timedelta(minutes=15)


def write_calendar(
    name: str,
    event_id: int,
    installation: str,
    job: Job,
    entries: Iterable[KeptEntry],
    person: CrewMember | None = None,
) -> bytes:
    """Tasks as entries of a calendar, in the zone of the place, each with an alarm; what is called off is said to be.

    An entry keeps its UID for life. A time of an hour that comes twice is written in UTC, so that it is one instant.

    Args:
        installation: what tells this studio's entries from those of others. person: whose calendar it is, None all's.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Jolly Trellis//run sheet//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", f"{name}, {person.name}" if person else name)
    whose = f".{person.id}" if person else ""
    told = list(entries)
    for kept in told:
        entry = Event()
        entry.add("uid", f"{event_id}.{kept.entry.task}{whose}@{installation}.{UID_END}")
        entry.add("dtstamp", kept.stamped_at)
        entry.add("sequence", kept.sequence)
        entry.add("dtstart", _told_at(kept.entry.starts_at, job))
        entry.add("dtend", _told_at(kept.entry.ends_at, job))
        entry.add("summary", kept.entry.summary)
        entry.add("location", kept.entry.location)
        entry.add("description", kept.entry.description)
        if kept.cancelled:
            entry.add("status", "CANCELLED")
        else:
            alarm = Alarm()
            alarm.add("action", "DISPLAY")
            alarm.add("description", kept.entry.summary)
            alarm.add("trigger", -ALARM_BEFORE)
            entry.add_component(alarm)
        calendar.add_component(entry)
    if not told:
        calendar.add_component(_nothing_yet(name, event_id, installation))
    calendar.add_missing_timezones()
    return bytes(calendar.to_ical())


def _told_at(text: str, job: Job) -> datetime:
    """An instant as it is written: local, or in UTC where that local time comes twice."""
    at = datetime.fromisoformat(text).astimezone(job.zone)
    twice = at.replace(fold=0).utcoffset() != at.replace(fold=1).utcoffset()
    return at.astimezone(UTC) if twice else at


def _nothing_yet(name: str, event_id: int, installation: str) -> Journal:
    """A calendar must hold something: a note of what is said first, before there is a run sheet."""
    note = Journal()
    note.add("uid", f"{event_id}.brief@{installation}.{UID_END}")
    note.add("dtstamp", datetime.now(UTC).replace(microsecond=0))
    note.add("summary", f"{name}: say in the brief when the water goes in; there is no run sheet before that")
    return note


def read_times(text: str, event_id: int, installation: str) -> dict[str, datetime]:
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
        key = _task_of(str(entry.get("uid", "")), event_id, installation)
        if key is None or str(entry.get("status", "")).upper() == "CANCELLED":
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


def _task_of(uid: str, event_id: int, installation: str) -> str | None:
    """The task of an entry of this event and studio, of a file of earlier versions too; None of anything else."""
    said, _, where = uid.rpartition("@")
    own, _, rest = said.partition(".")
    if own != str(event_id) or not rest or where not in (f"{installation}.{UID_END}", UID_END):
        return None
    return key_now(rest.split(".")[0])


def _refused(message: str, limit: str, **names: str | int) -> InvalidMeasure:
    return InvalidMeasure(path="text", message=phrase(message, **names), limit=phrase(limit, **names))
