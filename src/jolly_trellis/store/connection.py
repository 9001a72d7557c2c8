"""Opening the database: pragmas, one transaction helper, and numbered migrations."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from importlib.resources import files
from pathlib import Path


class StoreError(Exception):
    """The database cannot be used as it is; the message says what to do."""


def open_database(path: Path) -> sqlite3.Connection:
    """Open one connection, never shared between threads at the same time; rows answer to column names."""
    conn = sqlite3.connect(path, check_same_thread=False, isolation_level=None, timeout=10.0)
    conn.row_factory = sqlite3.Row
    conn.execute("PRAGMA foreign_keys = ON")
    conn.execute("PRAGMA synchronous = NORMAL")
    return conn


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
        conn.execute("ROLLBACK")
        raise
    conn.execute("COMMIT")


def migrate(conn: sqlite3.Connection) -> int:
    """Bring the schema up to date, each migration in one transaction with its record.

    Returns: how many migrations ran.
    Raises: StoreError: the database was written by a newer version of the program.
    """
    conn.execute("PRAGMA journal_mode = WAL")
    known = _migrations()
    version = int(conn.execute("PRAGMA user_version").fetchone()[0])
    if version > len(known):
        raise StoreError(
            f"This data was written by a newer Jolly Trellis (data version {version}; this one knows "
            f"{len(known)}). Nothing was changed: start the newer version, or point --data at another folder."
        )
    for number, sql in known[version:]:
        with transaction(conn):
            for statement in _statements(sql):
                conn.execute(statement)
            conn.execute(f"PRAGMA user_version = {number:d}")
    return len(known) - version


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
