"""The conditions of an event: its brief read as times and means, with what the stores have and the figures it uses."""

import hashlib
import sqlite3
import threading
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, time, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from jolly_trellis.catalog.rows import HeldKind
from jolly_trellis.core import ranges
from jolly_trellis.core.books.figures import open_book
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.job import FIRST_YEAR, LAST_YEAR, Hours, Job
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.quantities import phrase
from jolly_trellis.store import codec, stock
from jolly_trellis.store.plan import Brief


@dataclass(frozen=True, slots=True, kw_only=True)
class Stock:
    """What pieces are made of, by key, as it stood at a revision of the stores; `mark` tells it from others."""

    revision: int
    mark: str
    varieties: Mapping[str, Variety]
    nettings: Mapping[str, Netting]
    frogs: Mapping[str, Frog]
    on_hand: frozenset[str]
    retired: frozenset[str]


_MADE_OF: tuple[HeldKind, ...] = ("netting", "frog", "mechanic")
_kept_stock: dict[str, Stock] = {}
_lock = threading.Lock()
_ORDER = (
    ("access_at", "the place opens to the crew"),
    ("filled_at", "the water goes in"),
    ("starts_at", "the guests come"),
    ("ends_at", "the event ends"),
    ("clear_by", "all must be gone"),
)


def job_of(brief: Brief, before: Brief | None = None) -> Job:
    """The times and means of an event.

    Args:
        before: the brief as it was kept, so that of two times out of order the one that was typed is named.
    Raises: InvalidMeasure: a time zone that does not exist, a time that is none or that the clocks skip, times out of
    their order, a workshop or a supplier that closes before it opens, a shift of no length, a hire that ends before it
    begins.
    """
    times = {field: _at(brief, field) for field, _ in _ORDER}
    _in_order(times, brief, before)
    hours = Hours(opens=time.fromisoformat(brief.opens), closes=time.fromisoformat(brief.closes))
    if hours.closes <= hours.opens:
        raise InvalidMeasure(
            path="closes",
            message=phrase("The workshop closes before it opens."),
            limit=phrase("Give a time after {opens}.", opens=brief.opens),
        )
    _check_people_and_suppliers(brief)
    _check_hires(brief)
    builds_from, builds_to = _at(brief, "builds_from"), _at(brief, "builds_to")
    _check_build(builds_from, builds_to, times["access_at"] or times["filled_at"])
    return Job(
        zone=_zone(brief),
        **times,
        travel_h=brief.travel_h,
        crew=brief.crew,
        hours=hours,
        air=brief.air,
        workshop=brief.workshop,
        topped_up_by=brief.topped_up_by,
        costing=brief.costing,
        locks=brief.locks,
        suppliers=brief.suppliers,
        builds_from=builds_from,
        builds_to=builds_to,
        seats=brief.seats,
        greens_sooner=brief.greens_sooner,
        buckets=brief.buckets,
        cool_buckets=brief.cool_buckets,
        hires=brief.hires,
        reused=brief.reused,
        quote=brief.quote,
        answers=brief.answers,
    )


def _check_people_and_suppliers(brief: Brief) -> None:
    """Raises InvalidMeasure: a shift of no length, a supplier that closes before it opens."""
    for index, member in enumerate(brief.crew):
        if member.comes is not None and member.comes == member.goes:
            raise InvalidMeasure(
                path=f"crew.{index}.goes",
                message=phrase("{name} goes when they come.", name=member.name),
                limit=phrase("Give another time than {at}.", at=member.comes),
            )
    for index, supplier in enumerate(brief.suppliers):
        if supplier.closes <= supplier.opens:
            raise InvalidMeasure(
                path=f"suppliers.{index}.closes",
                message=phrase("{name} closes before it opens.", name=supplier.name),
                limit=phrase("Give a time after {opens}.", opens=supplier.opens),
            )


def _check_hires(brief: Brief) -> None:
    """Raises InvalidMeasure: a day that is none, or something hired that goes back before it comes."""
    for index, hire in enumerate(brief.hires):
        comes = _day(hire.comes, path=f"hires.{index}.comes")
        if _day(hire.goes_back, path=f"hires.{index}.goes_back") < comes:
            raise InvalidMeasure(
                path=f"hires.{index}.goes_back",
                message=phrase("{name} goes back before it comes.", name=hire.name),
                limit=phrase("Give {day} or a later day.", day=f"{comes:%d %b %Y}"),
            )


def _day(text: str, *, path: str) -> date:
    """Raises InvalidMeasure: it is no day."""
    try:
        return date.fromisoformat(text)
    except ValueError:
        raise InvalidMeasure(
            path=path,
            message=phrase("“{text}” is no day.", text=text),
            limit=phrase("Give one such as 2027-05-15."),
        ) from None


def _check_build(begins: datetime | None, ends: datetime | None, opens: datetime | None) -> None:
    """Raises InvalidMeasure: building before the day ends before it begins, or begins when the day does."""
    if begins is not None and ends is not None and ends.timestamp() <= begins.timestamp():
        raise InvalidMeasure(
            path="builds_to",
            message=phrase("Building before the day ends before it begins."),
            limit=phrase("Give a time after {at}.", at=begins.strftime("%d %b, %H:%M")),
        )
    last = ends or begins
    if last is not None and opens is not None and last.timestamp() > opens.timestamp():
        raise InvalidMeasure(
            path="builds_to" if ends is not None else "builds_from",
            message=phrase("Building before the day goes on after the place opens for the day."),
            limit=phrase("Give a time before {at}.", at=opens.strftime("%d %b, %H:%M")),
        )


def _in_order(times: Mapping[str, datetime | None], brief: Brief, before: Brief | None) -> None:
    known = [(field, words, at) for field, words in _ORDER if (at := times[field]) is not None]
    for (first, first_words, early), (second, second_words, late) in pairwise(known):
        if late.timestamp() >= early.timestamp() + (60 if second == "ends_at" else 0):
            continue
        typed_first = before is not None and getattr(before, second) == getattr(brief, second)
        raise InvalidMeasure(
            path=first if typed_first else second,
            message=phrase(
                "Here {second_words} before {first_words}.", second_words=second_words, first_words=first_words
            ),
            limit=phrase(
                "Give a time before {at}." if typed_first else "Give a time after {at}.",
                at=(late if typed_first else early).strftime("%d %b, %H:%M"),
            ),
        )


def check_brief(brief: Brief, before: Brief | None = None) -> None:
    """Raises InvalidMeasure: the brief cannot be; see `job_of`."""
    ranges.check(brief)
    job_of(brief, before)
    for lock in brief.locks:
        moment(brief, lock.starts_at, path=f"locks.{lock.task}")


def check_sold(conn: sqlite3.Connection, brief: Brief, before: Brief | None = None) -> None:
    """Raises InvalidMeasure: a supplier is asked for what the stores do not know, and was not before."""
    known = stock_of(conn).varieties
    kept = {key for each in (before.suppliers if before is not None else ()) for key in each.sells}
    for index, supplier in enumerate(brief.suppliers):
        unknown = next((key for key in supplier.sells if key not in known and key not in kept), None)
        if unknown is not None:
            raise InvalidMeasure(
                path=f"suppliers.{index}.sells",
                message=phrase("“{name}” is no variety of the stores.", name=unknown),
                limit=phrase("Write names as the stores have them, with commas between."),
            )


def conditions_of(conn: sqlite3.Connection, brief: Brief) -> Conditions:
    """The conditions that a brief and the stores make, with the book of figures that is open.

    Raises: InvalidMeasure: a time zone that does not exist, or an event that ends before it is filled.
    """
    filled_at, ends_at, access_at = (_at(brief, field) for field in ("filled_at", "ends_at", "access_at"))
    kept = stock_of(conn)
    finished_at, loaded_at = waits_in(brief, access_at or filled_at)
    return Conditions(
        finished_at=finished_at,
        loaded_at=loaded_at,
        workshop=brief.workshop,
        van=brief.van,
        filled_at=filled_at,
        ends_at=ends_at,
        air=brief.air,
        topped_up_by=brief.topped_up_by,
        varieties=kept.varieties,
        nettings=kept.nettings,
        frogs=kept.frogs,
        practice=brief.practice,
        figures=open_book(),
    )


def waits_in(brief: Brief, arrives_at: datetime | None) -> tuple[datetime | None, datetime | None]:
    """When pieces that travel are finished, at the workshop's last closing before, and when they are loaded.

    Args:
        arrives_at: when the van is at the place; None where that is not known.
    Returns: both None where that, or how long the drive takes, is not known.
    """
    if arrives_at is None or brief.travel_h is None:
        return None, None
    zone, at = _zone(brief), time.fromisoformat(brief.closes)
    loaded = (arrives_at.astimezone(UTC) - timedelta(hours=brief.travel_h)).astimezone(zone)
    closings = (datetime.combine(loaded.date() - timedelta(days=back), at, tzinfo=zone) for back in (0, 1))
    return next(each for each in closings if each.timestamp() < loaded.timestamp()), loaded


def stock_of(conn: sqlite3.Connection) -> Stock:
    """Varieties, nettings and frogs, kept in memory per database until they change."""
    path = path_of(conn)
    revision = stock.revision(conn)
    with _lock:
        before = kept = _kept_stock.get(path)
    if kept is None or kept.revision != revision:
        held = stock.holdings(conn)
        varieties, nettings, frogs = stock.varieties(conn), stock.nettings(conn), stock.frogs(conn)
        known = "".join(codec.dumps(each) for each in (varieties, nettings, frogs))
        kept = Stock(
            revision=revision,
            mark=hashlib.sha256(known.encode()).hexdigest(),
            varieties=varieties,
            nettings=nettings,
            frogs=frogs,
            on_hand=frozenset(key for kind in _MADE_OF for key, each in held[kind].items() if each.on_hand > 0),
            retired=frozenset(key for kind in _MADE_OF for key, each in held[kind].items() if each.retired),
        )
        if before is not None and before.mark == kept.mark:  # what pieces are made of is the same: so are its things
            kept = replace(kept, varieties=before.varieties, nettings=before.nettings, frogs=before.frogs)
        if conn.in_transaction:  # it may be rolled back, and its revision be another state's
            return kept
        with _lock:
            _kept_stock[path] = kept
    return kept


def path_of(conn: sqlite3.Connection) -> str:
    """The file a connection is open on."""
    return str(conn.execute("PRAGMA database_list").fetchone()["file"])


def mark_of(conditions: Conditions) -> str | None:
    """What tells these conditions from others; None for those that are not of the stores as they stand."""
    with _lock:
        kept = next((each for each in _kept_stock.values() if each.varieties is conditions.varieties), None)
    if kept is None:
        return None
    rest = (
        conditions.finished_at,
        conditions.loaded_at,
        conditions.filled_at,
        conditions.ends_at,
        conditions.workshop,
        conditions.van,
        conditions.air,
        conditions.topped_up_by,
        conditions.practice,
        conditions.figures.edition,
    )
    return hashlib.sha256(f"{kept.mark}|{rest!r}".encode()).hexdigest()


def _zone(brief: Brief) -> ZoneInfo:
    try:
        return ZoneInfo(brief.time_zone)
    except (ZoneInfoNotFoundError, ValueError, OSError):
        raise InvalidMeasure(
            path="time_zone",
            message=phrase("There is no time zone called “{time_zone}”.", time_zone=brief.time_zone),
            limit=phrase("Give one such as Europe/Lisbon."),
        ) from None


def _at(brief: Brief, field: str) -> datetime | None:
    text: str | None = getattr(brief, field)
    return moment(brief, text, path=field) if text else None


def moment(brief: Brief, text: str, *, path: str) -> datetime:
    """A local time of the brief's zone, aware; a time that comes twice is the first of the two.

    Raises: InvalidMeasure: it is no time, or the clocks skip it.
    """
    zone = _zone(brief)
    try:
        at = datetime.strptime(text[:16], "%Y-%m-%dT%H:%M").replace(tzinfo=zone)
    except ValueError:
        raise InvalidMeasure(
            path=path,
            message=phrase("“{text}” is no date and time.", text=text),
            limit=phrase("Give one such as 2027-05-15T16:30."),
        ) from None
    if not FIRST_YEAR <= at.year <= LAST_YEAR:
        raise InvalidMeasure(
            path=path,
            message=phrase("“{text}” lies outside the years that can be planned.", text=text),
            limit=phrase("Give a date from {first_year} to {last_year}.", first_year=FIRST_YEAR, last_year=LAST_YEAR),
        )
    shown = at.astimezone(UTC).astimezone(zone)
    if shown.replace(tzinfo=None) != at.replace(tzinfo=None):
        raise InvalidMeasure(
            path=path,
            message=phrase(
                "There is no {at} on {at2}: the clocks go forward then.", at=f"{at:%H:%M}", at2=f"{at:%d %b %Y}"
            ),
            limit=phrase("Give {shown} or another time.", shown=f"{shown:%H:%M}"),
        )
    return at
