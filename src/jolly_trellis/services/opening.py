"""Opening the studio's data: folder, database, migrations, and the catalogue on first use."""

import sqlite3
from pathlib import Path

from jolly_trellis.catalog import loaders
from jolly_trellis.store import stock
from jolly_trellis.store.connection import (
    StoreError,
    check,
    copy_to,
    in_words,
    migrate,
    open_database,
    outdated,
    transaction,
)

DATABASE_NAME = "jolly-trellis.sqlite"
COPIES = "copies"
_HELD_NAME = "in-use.sqlite"


def open_studio(folder: Path) -> sqlite3.Connection:
    """Open, or begin, a studio's data in a folder.

    Raises: StoreError: it cannot be: damaged, another program's, newer, read-only, locked. Nothing was changed.
    """
    path = folder / DATABASE_NAME
    try:
        folder.mkdir(parents=True, exist_ok=True)
        return _opened(path)
    except StoreError as problem:
        raise StoreError(f"{path} {problem}. {_way_out(folder, str(problem))}") from None
    except (sqlite3.Error, OSError) as problem:
        why = in_words(problem)
        raise StoreError(f"{path} {why}. {_way_out(folder, why)}") from None


def hold(folder: Path) -> sqlite3.Connection:
    """Take a folder for this process until the connection is closed or the process ends, however it ends.

    Raises: StoreError: another one has it, or nothing can be written there.
    """
    try:
        folder.mkdir(parents=True, exist_ok=True)
        conn = sqlite3.connect(folder / _HELD_NAME, timeout=0.0, isolation_level=None, check_same_thread=False)
        conn.execute("BEGIN EXCLUSIVE")
    except sqlite3.OperationalError as problem:
        if "locked" not in str(problem):
            raise StoreError(f"{folder} {in_words(problem)}. {_way_out(folder, in_words(problem))}") from None
        raise StoreError(
            f"Jolly Trellis is running on {folder} already. Use that one, or stop it first, "
            "or point --data at another folder."
        ) from None
    except (sqlite3.Error, OSError) as problem:
        raise StoreError(f"{folder} {in_words(problem)}. {_way_out(folder, in_words(problem))}") from None
    return conn


def _opened(path: Path) -> sqlite3.Connection:
    conn = open_database(path)
    try:
        check(conn)
        if (version := outdated(conn)) is not None:
            _keep_a_copy(conn, path.parent / COPIES / f"before-update-{version}.sqlite")
        migrate(conn)
        with transaction(conn):
            stock.fill_if_empty(conn, loaders.catalogue)
    except BaseException:
        conn.close()
        raise
    return conn


def _keep_a_copy(conn: sqlite3.Connection, target: Path) -> None:
    try:
        target.parent.mkdir(exist_ok=True)
        copy_to(conn, target)
    except (sqlite3.Error, OSError) as problem:
        raise StoreError(f"is copied before it is brought up to date, and {target} {in_words(problem)}") from None


def _way_out(folder: Path, why: str) -> str:
    if "newer" in why:
        return "Nothing was changed: start the newer version, or point --data at another folder."
    if "another program" in why and "held" not in why:
        return "Nothing was changed: point --data at another folder."
    if "held" in why:
        return "Nothing was changed: end the other program and start again."
    if "damaged" in why:
        return (
            "Nothing was changed: put a copy back with `./trellis restore FILE`; "
            f"those of the last days are in {folder / COPIES}."
        )
    return "Nothing was changed: mend that, or point --data at another folder."
