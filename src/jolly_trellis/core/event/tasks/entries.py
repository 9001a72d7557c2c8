"""A task as calendars are told it, and what they were told last."""

from dataclasses import dataclass
from datetime import datetime


@dataclass(frozen=True, slots=True, kw_only=True)
class Entry:
    """A task as a calendar is told it: ISO times with their offset, its name, where, and what is said of it."""

    task: str
    starts_at: str
    ends_at: str
    summary: str
    location: str
    description: str


@dataclass(frozen=True, slots=True, kw_only=True)
class KeptEntry:
    """An entry as it was told last: how often it has changed, when it did, and whether it is called off."""

    entry: Entry
    sequence: int
    stamped_at: datetime
    cancelled: bool
