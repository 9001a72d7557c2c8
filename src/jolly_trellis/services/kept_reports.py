"""Reports kept by the hash of what they came from, in memory and beside the studio's data, so that opening is cheap.

What is kept follows from the plan, the stores, the figures and the program's own text; all of that is in the key, but
not what a part is called, nor how many of it there are, of which no report tells. Pictures are drawn again from what
is kept. The file may be deleted at any time; it is no part of what is saved and put back.
"""

import hashlib
import sqlite3
import threading
import zlib
from collections import OrderedDict
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass, replace
from functools import cache
from importlib.resources import files
from importlib.resources.abc import Traversable
from pathlib import Path

from pydantic import TypeAdapter, ValidationError

from jolly_trellis.core import ranges
from jolly_trellis.core.event.parts import Part, hangs, in_vessels
from jolly_trellis.core.judging.pictures import picture_of
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.rigging.assess import RigReport
from jolly_trellis.core.rigging.drops import as_made
from jolly_trellis.core.rigging.resting import drawn
from jolly_trellis.services.conditions import mark_of, path_of
from jolly_trellis.store import codec
from jolly_trellis.store.plan import MOST_PARTS

FILE_NAME = "kept-reports.sqlite"
_MADE = "CREATE TABLE IF NOT EXISTS report (key TEXT PRIMARY KEY, used INTEGER NOT NULL, body BLOB NOT NULL) STRICT"
_PIECE, _RIG = TypeAdapter(Report), TypeAdapter(RigReport)
_LEVEL = 6


@dataclass(frozen=True, slots=True, kw_only=True)
class Kept:
    """A report, and the same as JSON, as it goes over the wire."""

    report: Report | RigReport
    written: bytes


_memory: OrderedDict[str, Kept] = OrderedDict()
_lock = threading.Lock()


class KeptReports:
    """What is kept of one studio under one set of conditions; to be had from `of`."""

    def __init__(self, conditions: Conditions, mark: str | None, file: sqlite3.Connection | None) -> None:
        self._conditions = conditions
        self._mark = mark
        self._file = file
        self._new: dict[str, Kept] = {}

    def find(self, part: Part) -> Kept | None:
        """The report of a part, or None where it was not judged before under these conditions."""
        if self._mark is None or next(ranges.outside(part), None) is not None:
            return None  # what is out of its range has none, whatever it is called
        key = self._key(part)
        with _lock:
            found = _memory.get(key)
            if found is not None:
                _memory.move_to_end(key)
                return found
        body = self._read(key)
        if body is None:
            return None
        try:
            report = (_RIG if hangs(part) else _PIECE).validate_json(body)
        except ValidationError:
            return None
        found = _kept(self._with_picture(part, report))
        _remember(key, found)
        return found

    def keep(self, part: Part, report: Report | RigReport) -> Kept:
        """Keep the report of a part under these conditions."""
        made = _kept(report)
        if self._mark is not None:
            key = self._key(part)
            _remember(key, made)
            self._new[key] = made
        return made

    def write(self) -> None:
        """Write what is new into the file; the oldest beyond what an event takes go."""
        if self._file is None or not self._new:
            return
        rows = [(key, zlib.compress(_without_picture(each.report), _LEVEL)) for key, each in self._new.items()]
        with suppress(sqlite3.Error), self._file:
            self._file.execute("BEGIN IMMEDIATE")
            newest = self._file.execute("SELECT coalesce(max(used), 0) FROM report").fetchone()[0]
            self._file.executemany(
                "INSERT OR REPLACE INTO report VALUES (?, ?, ?)",
                [(key, newest + 1, body) for key, body in rows],
            )
            self._file.execute(
                "DELETE FROM report WHERE key NOT IN (SELECT key FROM report ORDER BY used DESC LIMIT ?)",
                (MOST_PARTS,),
            )

    def _key(self, part: Part) -> str:
        same = replace(part, name="", quantity=1) if in_vessels(part) else replace(part, name="")
        return hashlib.sha256(f"{_program()}|{self._mark}|{codec.dumps(same)}".encode()).hexdigest()

    def _with_picture(self, part: Part, report: Report | RigReport) -> Report | RigReport:
        """A report as it was kept, with its picture drawn again."""
        with self._conditions.figures.open():
            if isinstance(report, Report) and in_vessels(part):
                return replace(report, picture=picture_of(part, report, self._conditions.varieties))
            if isinstance(report, RigReport) and hangs(part):
                return replace(report, rest=drawn(as_made(part), report.rest, self._conditions))
        raise TypeError(f"{report!r} is no report of {part!r}")

    def _read(self, key: str) -> bytes | None:
        if self._file is None:
            return None
        try:
            row = self._file.execute("SELECT body FROM report WHERE key = ?", (key,)).fetchone()
            return None if row is None else zlib.decompress(row[0])
        except (sqlite3.Error, zlib.error):
            return None


@contextmanager
def of(conn: sqlite3.Connection, conditions: Conditions) -> Iterator[KeptReports]:
    """What is kept of the studio that a connection is open on, under these conditions.

    A file that cannot be read or written is done without.
    """
    mark, path = mark_of(conditions), path_of(conn)
    if mark is None or not path:
        yield KeptReports(conditions, mark, None)
        return
    file = _opened(Path(path).parent / FILE_NAME)
    kept = KeptReports(conditions, mark, file)
    try:
        yield kept
        kept.write()
    finally:
        if file is not None:
            file.close()


def _opened(path: Path) -> sqlite3.Connection | None:
    """The file of a studio; one that is no database any more is begun anew. None where there can be none."""
    for _ in range(2):
        try:
            file = sqlite3.connect(path, timeout=1.0, isolation_level=None)
        except sqlite3.Error:
            return None
        try:
            file.execute("PRAGMA journal_mode = WAL")
            file.execute("PRAGMA synchronous = OFF")
            file.execute(_MADE)
        except sqlite3.OperationalError:
            file.close()
            return None
        except sqlite3.DatabaseError:
            file.close()
            path.unlink(missing_ok=True)
        else:
            return file
    return None


def forget() -> None:
    """Forget what is in memory, as a restart does."""
    with _lock:
        _memory.clear()


def _kept(report: Report | RigReport) -> Kept:
    written = _RIG.dump_json(report) if isinstance(report, RigReport) else _PIECE.dump_json(report)
    return Kept(report=report, written=written)


def _without_picture(report: Report | RigReport) -> bytes:
    """A report as it goes into the file."""
    if isinstance(report, RigReport):
        return _RIG.dump_json(report, exclude={"rest": {"picture"}})
    return _PIECE.dump_json(report, exclude={"picture"})


def _remember(key: str, kept: Kept) -> None:
    with _lock:
        _memory[key] = kept
        while len(_memory) > MOST_PARTS:
            _memory.popitem(last=False)


@cache
def _program() -> str:
    """What tells this program from another that may judge otherwise: the text of its core."""
    mark = hashlib.sha256()
    for text in sorted(_texts(files("jolly_trellis.core")), key=lambda each: each.name):
        mark.update(text.read_bytes())
    return mark.hexdigest()


def _texts(folder: Traversable) -> Iterator[Traversable]:
    for each in folder.iterdir():
        if each.is_dir():
            yield from _texts(each)
        elif each.name.endswith(".py"):
            yield each
