"""Judging what an event is made of, under its conditions and in its place; what was judged before is kept."""

import sqlite3
import threading
from collections.abc import Iterable
from dataclasses import dataclass

from jolly_trellis.core import ranges
from jolly_trellis.core.checks.verdicts import Verdict
from jolly_trellis.core.errors import CoreError, InvalidMeasure, Unfinished
from jolly_trellis.core.event.parts import Part, hangs, in_vessels
from jolly_trellis.core.judging.choose import Option, choose
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.judging.report import with_seats as seats_kept
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.core.quantities import phrase
from jolly_trellis.core.rigging import lines
from jolly_trellis.core.rigging.assess import RigReport, assess
from jolly_trellis.core.rigging.lines import LineSpec
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.services import kept_reports, rigging
from jolly_trellis.services.conditions import conditions_of, path_of, stock_of
from jolly_trellis.services.kept_reports import KeptReports
from jolly_trellis.services.planning import NotFound
from jolly_trellis.services.rigging import Where
from jolly_trellis.store.plan import Brief, Planned


@dataclass(frozen=True, slots=True, kw_only=True)
class Judged:
    """A part's report, or the problem that prevents one: one of the two. `written` is the report as JSON."""

    report: Report | RigReport | None = None
    problem: CoreError | None = None
    written: bytes = b"null"

    @property
    def verdicts(self) -> tuple[Verdict, ...]:
        """The verdicts of the report; none where there is none."""
        match self.report:
            case Report():
                return self.report.verdicts
            case RigReport():
                return (self.report.verdict,)
            case None:
                return ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Progress:
    """How many parts of an event have been judged, of how many."""

    done: int
    of: int


_progress: dict[tuple[str, int], Progress] = {}
_judging = tuple(threading.Lock() for _ in range(64))
_lock = threading.Lock()


def progress_of(conn: sqlite3.Connection, event_id: int) -> Progress | None:
    """How far the judging of an event has come; None where none is going on."""
    with _lock:
        return _progress.get((path_of(conn), event_id))


def judge_all(
    conn: sqlite3.Connection,
    event_id: int,
    brief: Brief,
    parts: Iterable[Planned[Part]],
    conditions: Conditions,
) -> dict[int, Judged]:
    """Parts of an event as they are kept, judged, by number; what was judged before is not worked out again."""
    parts = tuple(parts)
    place = (path_of(conn), event_id)
    found: dict[int, Judged] = {}
    alone = _judging[hash(place) % len(_judging)]
    try:
        # Two who ask for the same event at once would work everything out twice: the second waits, and finds it kept.
        with alone, kept_reports.of(conn, conditions) as kept:
            for done, each in enumerate(parts):
                with _lock:
                    _progress[place] = Progress(done=done, of=len(parts))
                found[each.id] = _judged_or_problem(
                    conn, Where(event=event_id, brief=brief, part=each.id), each.part, conditions, kept
                )
    finally:
        with _lock:
            _progress.pop(place, None)
    return found


def judged(
    conn: sqlite3.Connection, where: Where, part: Part, conditions: Conditions, *, before: Part | None
) -> Judged:
    """Judge a part that is to be kept.

    A kept plan that cannot be worked out, as one saved before a range was made narrower, may be kept in another state
    that cannot be either, so that it can be mended one measure after the other; nothing new may be out of range. One
    that is only unfinished may be kept.

    Args:
        before: the part as it stands in the plan; None for a new one.
    Raises: CoreError: the part cannot be, and the one that is kept could; or a line newly made off with what does not
    hold.
    """
    _refuse_new_misfits(part, before)
    with kept_reports.of(conn, conditions) as kept:
        try:
            return _judged(conn, where, part, conditions, kept)
        except Unfinished as problem:
            return Judged(problem=problem)
        except CoreError as problem:
            if before is None or not _as_bad_before(conn, where, part, before, conditions, kept):
                raise
            return Judged(problem=problem)


def report_of(conn: sqlite3.Connection, where: Where, piece: Piece, conditions: Conditions) -> Report:
    """The report of a piece that is kept. Raises: CoreError: it cannot be worked out."""
    with kept_reports.of(conn, conditions) as kept:
        report = _judged(conn, where, piece, conditions, kept).report
    if not isinstance(report, Report):
        raise TypeError(f"{report!r} is no report of a piece")
    return report


def rig_report_of(conn: sqlite3.Connection, where: Where, rig: Rig, conditions: Conditions) -> RigReport:
    """The report of a rig in its place. Raises: CoreError: it cannot be worked out."""
    with kept_reports.of(conn, conditions) as kept:
        report = _judged(conn, where, rig, conditions, kept).report
    if not isinstance(report, RigReport):
        raise TypeError(f"{report!r} is no report of a rig")
    return report


def with_seats(part: Part, judged: Judged) -> Part:
    """A piece with the seats its stems have taken, so that they stay; any part as it is where it has none."""
    if in_vessels(part) and isinstance(judged.report, Report):
        return seats_kept(part, judged.report)
    return part


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


def _judged_or_problem(
    conn: sqlite3.Connection, where: Where, part: Part, conditions: Conditions, kept: KeptReports
) -> Judged:
    try:
        return _judged(conn, where, part, conditions, kept)
    except CoreError as problem:
        return Judged(problem=problem)


def _judged(conn: sqlite3.Connection, where: Where, part: Part, conditions: Conditions, kept: KeptReports) -> Judged:
    there = rigging.in_place(conn, where, part) if hangs(part) else part
    found = kept.find(there)
    if found is None:
        report = _worked_out(there, conditions)
        found = kept.keep(there, report)
    return Judged(report=found.report, written=found.written)


def _worked_out(there: Part, conditions: Conditions) -> Report | RigReport:
    if hangs(there):
        return assess(there, conditions)
    if in_vessels(there):
        return evaluate(there, conditions, with_fixes=False)
    raise TypeError(f"nothing judges a {there.kind}")


def _as_bad_before(
    conn: sqlite3.Connection, where: Where, part: Part, before: Part, conditions: Conditions, kept: KeptReports
) -> bool:
    try:
        _judged(conn, where, before, conditions, kept)
    except Unfinished:
        return False
    except CoreError:
        return not ranges.new_outside(part, before)
    return False


def _refuse_new_misfits(part: Part, before: Part | None) -> None:
    known = tuple(spec for _, spec in _specs(before))
    for path, spec in _specs(part):
        if spec.kind in lines.LINES and not spec.fits and spec not in known:
            raise InvalidMeasure(
                path=f"{path}.fitting",
                message=phrase("A {fitting} does not hold in {spec}.", fitting=spec.fitting or "", spec=spec.kind),
                limit=phrase("Choose {remedy_words}.", remedy_words=lines.remedy_words(spec)),
            )


def _specs(part: Part | None) -> tuple[tuple[str, LineSpec], ...]:
    """Every line of a part, with where it stands."""
    if part is None or not hangs(part):
        return ()
    found = [(f"lines.{index}.spec", line.spec) for index, line in enumerate(part.lines)]
    found += [] if part.bond is None else [("bond.spec", part.bond.spec)]
    found += [] if part.armature.carrier is None else [("armature.carrier", part.armature.carrier)]
    return tuple(found)
