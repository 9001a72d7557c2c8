"""Opening the database: pragmas, one transaction helper, and numbered migrations."""

import errno
import sqlite3
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager
from importlib.resources import files
from pathlib import Path

from jolly_trellis.store import migrating, rewriting

PATIENCE_S = 4.0  # another program may hold the data so long; a write then says so, within five seconds
MOST_IDLE = 8


class StoreError(Exception):
    """The data cannot be used as it is; the message says why, and what to do."""


def open_database(path: Path) -> sqlite3.Connection:
    """Open one connection, never shared between threads at the same time; rows answer to column names."""
    conn = sqlite3.connect(path, check_same_thread=False, isolation_level=None, timeout=PATIENCE_S)
    conn.row_factory = sqlite3.Row
    conn.execute("PRAGMA foreign_keys = ON")
    # what was told to be saved is there after a power cut too: half a millisecond an edit
    conn.execute("PRAGMA synchronous = FULL")
    return conn


class Connections:
    """Connections to one database that are lent to one user at a time and kept open between them."""

    def __init__(self, path: Path) -> None:
        self._path = path
        self._idle: list[sqlite3.Connection] = []
        self._lock = threading.Lock()
        self.opened = 0

    def take(self) -> sqlite3.Connection:
        """One for the one who asks, until it is given back; opens one where none is idle."""
        with self._lock:
            if self._idle:
                return self._idle.pop()
            self.opened += 1
        return open_database(self._path)

    def give_back(self, conn: sqlite3.Connection) -> None:
        """Take one back, with nothing half done on it; those beyond what is kept are closed."""
        if conn.in_transaction:
            conn.rollback()
        with self._lock:
            if len(self._idle) < MOST_IDLE:
                self._idle.append(conn)
                return
        conn.close()

    @contextmanager
    def lent(self) -> Iterator[sqlite3.Connection]:
        """One for a while."""
        conn = self.take()
        try:
            yield conn
        finally:
            self.give_back(conn)

    def close(self) -> None:
        """Close what is idle."""
        with self._lock:
            while self._idle:
                self._idle.pop().close()


@contextmanager
def transaction(conn: sqlite3.Connection) -> Iterator[None]:
    """All or nothing: takes the write lock at once, commits at the end, rolls back on any exception.

    Inside another one it is part of that.
    """
    if conn.in_transaction:
        yield
        return
    conn.execute("BEGIN IMMEDIATE")
    try:
        yield
    except BaseException:
        if conn.in_transaction:  # a full disk has ended it by itself
            conn.execute("ROLLBACK")
        raise
    conn.execute("COMMIT")


def migrate(conn: sqlite3.Connection) -> int:
    """Bring the schema of a database that `check` has passed up to date, each migration with its record.

    Returns: how many migrations ran.
    """
    conn.execute("PRAGMA journal_mode = WAL")
    migrating.provide(conn)
    known = _migrations()
    version = int(conn.execute("PRAGMA user_version").fetchone()[0])
    for number, sql in known[version:]:
        with transaction(conn):
            for statement in _statements(sql):
                conn.execute(statement)
            if number in rewriting.AFTER:
                rewriting.AFTER[number](conn)
            conn.execute(f"PRAGMA user_version = {number:d}")
    return len(known) - version


def check(conn: sqlite3.Connection) -> None:
    """Look whether a database is a studio's, whole, and of a version that is known; an empty one is.

    Raises: StoreError: it is not.
    """
    known = len(_migrations())
    try:
        version = int(conn.execute("PRAGMA user_version").fetchone()[0])
        tables = {row[0] for row in conn.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        whole = conn.execute("PRAGMA quick_check(1)").fetchone()[0] == "ok"
    except sqlite3.OperationalError:
        raise
    except sqlite3.DatabaseError:
        raise StoreError("is damaged, or no data of Jolly Trellis at all") from None
    if tables and not {"event", "vessel", "stock_revision"} <= tables:
        raise StoreError("holds the data of another program")
    if version > known:
        raise StoreError(f"was written by a newer Jolly Trellis (data version {version}; this one knows {known})")
    if not whole:
        raise StoreError("is damaged")


def outdated(conn: sqlite3.Connection) -> int | None:
    """The version of a database that is to be brought up to date; None for a new one and for one that is."""
    version = int(conn.execute("PRAGMA user_version").fetchone()[0])
    return version if 0 < version < len(_migrations()) else None


def copy_to(conn: sqlite3.Connection, target: Path) -> None:
    """Copy a database as it stands into a new file, look it through, and only then give it its name.

    Raises: StoreError: it is damaged; sqlite3.Error, OSError: it cannot be read, or the file not be written.
    """
    half = target.with_name(target.name + ".part")
    half.unlink(missing_ok=True)
    try:
        with closing(sqlite3.connect(half)) as copy:
            conn.backup(copy)
            if copy.execute("PRAGMA integrity_check(1)").fetchone()[0] != "ok":
                raise StoreError("is damaged")
            copy.execute("PRAGMA journal_mode = DELETE")
        half.replace(target)
    finally:
        half.unlink(missing_ok=True)


def in_words(problem: sqlite3.Error | OSError) -> str:
    """What keeps the data from being read or written, as the end of a sentence that begins with it."""
    said = str(problem)
    if isinstance(problem, PermissionError) or "readonly" in said or "unable to open" in said:
        return "cannot be written: the folder is read-only or not yours"
    if "locked" in said or "busy" in said:
        return "is held by another program"
    if "full" in said or getattr(problem, "errno", None) == errno.ENOSPC:
        return "cannot be written: the disk is full"
    if isinstance(problem, OSError):
        return f"cannot be used: {problem.strerror or said}"
    if isinstance(problem, sqlite3.OperationalError):
        return f"cannot be used: {said}"
    return "is damaged, or no data of Jolly Trellis at all"


def _migrations() -> list[tuple[int, str]]:
    folder = files("jolly_trellis.store") / "migrations"
    names = sorted(each.name for each in folder.iterdir() if each.name.endswith(".sql"))
    return [(int(name[:4]), (folder / name).read_text(encoding="utf-8")) for name in names]


def _statements(sql: str) -> Iterator[str]:
    """Split a script at complete statements, so that each runs inside the migration's transaction."""
    pending = ""
    for line in sql.splitlines(keepends=True):
        pending += line
        if sqlite3.complete_statement(pending):
            yield pending
            pending = ""
