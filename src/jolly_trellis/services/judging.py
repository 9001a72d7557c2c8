"""Evaluating pieces under the conditions of their event, with the studio's own figures."""

import sqlite3
from collections import OrderedDict
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime, time, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from jolly_trellis.catalog.columns import HeldKind
from jolly_trellis.core import ranges
from jolly_trellis.core.books.figures import open_book
from jolly_trellis.core.choose import Option, choose
from jolly_trellis.core.errors import CoreError, InvalidMeasure
from jolly_trellis.core.evaluate import evaluate
from jolly_trellis.core.event.job import FIRST_YEAR, LAST_YEAR, Hours, Job
from jolly_trellis.core.frogs import Frog
from jolly_trellis.core.netting import Netting
from jolly_trellis.core.piece import Conditions, Piece
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.report import Report
from jolly_trellis.core.report import with_seats as seats_kept
from jolly_trellis.core.stems import Variety
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import stock
from jolly_trellis.store.plan import Brief


@dataclass(frozen=True, slots=True, kw_only=True)
class Stock:
    """What pieces are made of, by key, as it stood at a revision of the stores."""

    revision: int
    varieties: Mapping[str, Variety]
    nettings: Mapping[str, Netting]
    frogs: Mapping[str, Frog]
    on_hand: frozenset[str]
    retired: frozenset[str]


_MADE_OF: tuple[HeldKind, ...] = ("netting", "frog", "mechanic")


@dataclass(frozen=True, slots=True, kw_only=True)
class Judged:
    """A piece's report, or the problem that prevents one: one of the two."""

    report: Report | None = None
    problem: CoreError | None = None


_kept_stock: dict[str, Stock] = {}
_MOST_KEPT = 400
_kept_reports: OrderedDict[tuple[object, ...], tuple[Mapping[str, Variety], Report]] = OrderedDict()


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
    their order, a workshop that closes before it opens.
    """
    times = {field: _at(brief, field) for field, _ in _ORDER}
    _in_order(times, brief, before)
    hours = Hours(opens=time.fromisoformat(brief.opens), closes=time.fromisoformat(brief.closes))
    if hours.closes <= hours.opens:
        raise InvalidMeasure(
            path="closes",
            message=phrase("The workshop closes before it opens."),
            limit=phrase(f"Give a time after {brief.opens}."),
        )
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
    )


def _in_order(times: Mapping[str, datetime | None], brief: Brief, before: Brief | None) -> None:
    known = [(field, words, at) for field, words in _ORDER if (at := times[field]) is not None]
    for (first, first_words, early), (second, second_words, late) in pairwise(known):
        if late.timestamp() >= early.timestamp() + (60 if second == "ends_at" else 0):
            continue
        typed_first = before is not None and getattr(before, second) == getattr(brief, second)
        raise InvalidMeasure(
            path=first if typed_first else second,
            message=phrase(f"Here {second_words} before {first_words}."),
            limit=phrase(
                f"Give a time before {late.strftime('%d %b, %H:%M')}."
                if typed_first
                else f"Give a time after {early.strftime('%d %b, %H:%M')}."
            ),
        )


def check_brief(brief: Brief, before: Brief | None = None) -> None:
    """Raises InvalidMeasure: the brief cannot be; see `job_of`."""
    ranges.check(brief)
    job_of(brief, before)
    for lock in brief.locks:
        moment(brief, lock.starts_at, path=f"locks.{lock.task}")


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
    """
    if arrives_at is None:
        return None, None
    zone, at = _zone(brief), time.fromisoformat(brief.closes)
    loaded = (arrives_at.astimezone(UTC) - timedelta(hours=brief.travel_h or 0.0)).astimezone(zone)
    closings = (datetime.combine(loaded.date() - timedelta(days=back), at, tzinfo=zone) for back in (0, 1))
    return next(each for each in closings if each.timestamp() < loaded.timestamp()), loaded


def apply_fix(piece: Piece, conditions: Conditions, *, verb: str, key: str) -> tuple[Piece, str]:
    """The piece after a fix that its report offers now, and the fix in words. Raises NotFound."""
    for verdict in evaluate(piece, conditions).verdicts:
        for fix in verdict.fixes:
            if verdict.verb == verb and fix.key == key:
                return fix.piece, f"{verb.capitalize()}: {fix.key.replace('-', ' ')}"
    raise NotFound(f"fix {verb}/{key}")


def options_of(conn: sqlite3.Connection, piece: Piece, brief: Brief) -> tuple[Option, ...]:
    """Every mechanic for a piece, ranked; "only what is in the store" asks the stores. Raises CoreError."""
    kept = stock_of(conn)
    on_hand = kept.on_hand if brief.practice.only_in_store else None
    return choose(piece, conditions_of(conn, brief), on_hand=on_hand, retired=kept.retired)


def report_of(piece: Piece, conditions: Conditions, *, with_fixes: bool) -> Report:
    """Evaluate one piece; one that was evaluated before under the same conditions is not worked out again.

    Raises: CoreError: the piece cannot be.
    """
    if with_fixes:
        return evaluate(piece, conditions, with_fixes=True)
    times = (conditions.finished_at, conditions.loaded_at, conditions.filled_at, conditions.ends_at)
    airs = (conditions.workshop, conditions.van, conditions.air)
    key: tuple[object, ...] = (piece, times, airs, conditions.topped_up_by, conditions.practice)
    key = (*key, conditions.figures.edition, id(conditions.varieties))
    found = _kept_reports.get(key)
    if found is None or found[0] is not conditions.varieties:
        found = (conditions.varieties, evaluate(piece, conditions, with_fixes=False))
        _kept_reports[key] = found
        while len(_kept_reports) > _MOST_KEPT:
            _kept_reports.popitem(last=False)
    return found[1]


def judged(piece: Piece, conditions: Conditions, *, kept: Piece | None, with_fixes: bool) -> Judged:
    """Evaluate a piece that is to be kept, or is kept already.

    A kept plan that cannot be worked out, as one saved before a range was made narrower, may be kept in another state
    that cannot be either, so that it can be mended one measure after the other; nothing new may be out of range.

    Args:
        kept: the piece as it stands in the plan; None for a new one.
    Raises: CoreError: the piece cannot be, and the one that is kept could.
    """
    try:
        return Judged(report=report_of(piece, conditions, with_fixes=with_fixes))
    except CoreError as problem:
        if kept is None or not _as_bad_before(piece, kept, conditions):
            raise
        return Judged(problem=problem)


def with_seats(piece: Piece, judged: Judged) -> Piece:
    """The piece with the seats its stems have taken, so that they stay; as it is where it could not be worked out."""
    return piece if judged.report is None else seats_kept(piece, judged.report)


def _as_bad_before(piece: Piece, kept: Piece, conditions: Conditions) -> bool:
    try:
        report_of(kept, conditions, with_fixes=False)
    except CoreError:
        return not ranges.new_outside(piece, kept)
    return False


def stock_of(conn: sqlite3.Connection) -> Stock:
    """Varieties, nettings and frogs, kept in memory per database until they change."""
    path = str(conn.execute("PRAGMA database_list").fetchone()["file"])
    revision = stock.revision(conn)
    kept = _kept_stock.get(path)
    if kept is None or kept.revision != revision:
        held = stock.holdings(conn)
        kept = Stock(
            revision=revision,
            varieties=stock.varieties(conn),
            nettings=stock.nettings(conn),
            frogs=stock.frogs(conn),
            on_hand=frozenset(key for kind in _MADE_OF for key, each in held[kind].items() if each.on_hand > 0),
            retired=frozenset(key for kind in _MADE_OF for key, each in held[kind].items() if each.retired),
        )
        _kept_stock[path] = kept
    return kept


def _zone(brief: Brief) -> ZoneInfo:
    try:
        return ZoneInfo(brief.time_zone)
    except (ZoneInfoNotFoundError, ValueError, OSError):
        raise InvalidMeasure(
            path="time_zone",
            message=phrase(f"There is no time zone called “{brief.time_zone}”."),
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
            message=phrase(f"“{text}” is no date and time."),
            limit=phrase("Give one such as 2027-05-15T16:30."),
        ) from None
    if not FIRST_YEAR <= at.year <= LAST_YEAR:
        raise InvalidMeasure(
            path=path,
            message=phrase(f"“{text}” lies outside the years that can be planned."),
            limit=phrase(f"Give a date from {FIRST_YEAR} to {LAST_YEAR}."),
        )
    shown = at.astimezone(UTC).astimezone(zone)
    if shown.replace(tzinfo=None) != at.replace(tzinfo=None):
        raise InvalidMeasure(
            path=path,
            message=phrase(f"There is no {at:%H:%M} on {at:%d %b %Y}: the clocks go forward then."),
            limit=phrase(f"Give {shown:%H:%M} or another time."),
        )
    return at
