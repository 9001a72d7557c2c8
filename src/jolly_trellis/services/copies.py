"""Copies of everything a studio has: saved, made each day, put back; what a copy replaces is kept."""

import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from jolly_trellis.services.opening import COPIES, DATABASE_NAME
from jolly_trellis.store.connection import (
    StoreError,
    check,
    copy_to,
    in_words,
    migrate,
    open_database,
    transaction,
)

KEPT_DAYS = 7
_REPLACED = "replaced-"


@dataclass(frozen=True, slots=True, kw_only=True)
class Copy:
    """A copy in the studio's folder: file name, when it was made (local), size; `replaced` is what a copy replaced."""

    name: str
    made_at: datetime
    size_bytes: int
    replaced: bool


def save(folder: Path, target: Path) -> None:
    """Save everything a studio has into one file, looked through before it takes its name.

    Raises: StoreError: there is a file of that name, nothing to save, or it cannot be written.
    """
    if target.exists():
        raise StoreError(f"{target} is there already. Give a name that is free.")
    if not (folder / DATABASE_NAME).is_file():
        raise StoreError(f"There is no data in {folder}. Point --data at the folder that has it.")
    try:
        with _in_words(str(folder / DATABASE_NAME)), closing(_read_only(folder / DATABASE_NAME)) as conn:
            check(conn)
    except StoreError as problem:
        raise StoreError(f"{problem}. Nothing was saved.") from None
    try:
        with _in_words(str(target)), closing(_read_only(folder / DATABASE_NAME)) as conn:
            copy_to(conn, target)
    except StoreError as problem:
        raise StoreError(f"{problem}. Nothing was saved: choose another place.") from None


def restore(folder: Path, source: Path) -> Path | None:
    """Put a copy back in place of everything a studio has, all of it or nothing.

    Whoever still works on what was replaced is told that it is no longer the newest: every revision goes up.

    Returns: the copy of what was replaced, None where there was nothing.
    Raises: StoreError: the file is no copy, damaged or newer, or nothing can be written; nothing was changed.
    """
    if not source.is_file():
        raise StoreError(f"There is no file {source}. Give one that was saved with `./trellis backup`.")
    path = folder / DATABASE_NAME
    try:
        with _in_words(source.name), closing(_read_only(source)) as conn:
            check(conn)
            if not conn.execute("SELECT EXISTS (SELECT 1 FROM sqlite_master)").fetchone()[0]:
                raise StoreError("is empty")
        with _in_words(str(path)), tempfile.TemporaryDirectory(dir=_made(folder)) as place:
            fresh = Path(place) / "fresh.sqlite"
            with closing(_read_only(source)) as conn:
                copy_to(conn, fresh)
            with closing(open_database(fresh)) as conn:
                migrate(conn)
                conn.execute("PRAGMA journal_mode = DELETE")
            return _put_in_place(path, fresh)
    except StoreError as problem:
        raise StoreError(f"{problem}. Nothing was changed.") from None


def daily(folder: Path, today: datetime) -> None:
    """Make the copy of a day, where there is none of it yet; the seven newest stay. Raises StoreError."""
    target = _made(folder / COPIES) / f"{today:%Y-%m-%d}.sqlite"
    if not target.exists():
        save(folder, target)
    days = sorted(each for each in (folder / COPIES).glob("????-??-??.sqlite"))
    for each in days[:-KEPT_DAYS]:
        each.unlink(missing_ok=True)


def kept(folder: Path) -> tuple[Copy, ...]:
    """Every copy in the studio's folder, the newest first."""
    found = []
    for path in (folder / COPIES).glob("*.sqlite"):
        about = path.stat()
        found.append(
            Copy(
                name=path.name,
                made_at=datetime.fromtimestamp(about.st_mtime).astimezone(),
                size_bytes=about.st_size,
                replaced=path.name.startswith(_REPLACED),
            )
        )
    return tuple(sorted(found, key=lambda each: each.made_at, reverse=True))


def path_of(folder: Path, name: str) -> Path | None:
    """The file of a copy by its name, or None where there is no such copy."""
    return next((folder / COPIES / each.name for each in kept(folder) if each.name == name), None)


def _put_in_place(path: Path, fresh: Path) -> Path | None:
    aside = _made(path.parent / COPIES) / f"{_REPLACED}{datetime.now():%Y-%m-%d-%H%M%S-%f}.sqlite"
    if not path.exists():
        fresh.replace(path)
        return None
    try:
        conn = open_database(path)
        with closing(conn):
            check(conn)
            migrate(conn)
            _exchange(conn, path, fresh, aside)
    except (StoreError, sqlite3.DatabaseError) as problem:
        if isinstance(problem, sqlite3.OperationalError):
            raise
        for ending in ("-wal", "-shm", ""):
            old = path.with_name(path.name + ending)
            if old.exists():
                old.replace(aside.with_name(aside.name + ending))
        fresh.replace(path)
    return aside


def _exchange(conn: sqlite3.Connection, path: Path, fresh: Path, aside: Path) -> None:
    """Exchange the rows of every table in one transaction, what they replace being saved inside it."""
    conn.execute("PRAGMA foreign_keys = OFF")
    conn.execute("ATTACH :fresh AS fresh", {"fresh": str(fresh)})
    with transaction(conn):
        with closing(_read_only(path)) as reader:
            copy_to(reader, aside)
        conn.execute("CREATE TEMP TABLE before AS SELECT id, revision FROM main.event")
        conn.execute("CREATE TEMP TABLE surveyed AS SELECT place_key, revision FROM main.survey")
        stock = conn.execute("SELECT revision FROM main.stock_revision").fetchone()[0]
        tables = "SELECT name FROM main.sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'"
        for (table,) in conn.execute(tables).fetchall():
            columns = ", ".join(row["name"] for row in conn.execute(f"PRAGMA main.table_info({table})"))
            conn.execute(f"DELETE FROM main.{table}")
            conn.execute(f"INSERT INTO main.{table} ({columns}) SELECT {columns} FROM fresh.{table}")
        _go_beyond(conn, stock)


def _go_beyond(conn: sqlite3.Connection, stock: int) -> None:
    """Every revision above what it was on either side, so that nobody's work is taken for based on it."""
    conn.execute(
        "UPDATE event SET revision = 1 + max(revision, "
        "coalesce((SELECT before.revision FROM before WHERE before.id = event.id), 0))"
    )
    conn.execute("UPDATE event SET brief_revision = revision")
    conn.execute("UPDATE part SET revision = (SELECT revision FROM event WHERE event.id = part.event_id)")
    conn.execute(
        "INSERT INTO change (event_id, id, revision, step, label, changes) SELECT event.id, "
        "(SELECT coalesce(max(id), 0) + 1 FROM change WHERE event_id = event.id), event.revision, NULL, '', '{}' "
        "FROM event"
    )
    conn.execute(
        "UPDATE survey SET revision = 1 + max(revision, "
        "coalesce((SELECT surveyed.revision FROM surveyed WHERE surveyed.place_key = survey.place_key), 0))"
    )
    conn.execute("UPDATE stock_revision SET revision = 1 + max(revision, :stock)", {"stock": stock})


def _read_only(path: Path) -> sqlite3.Connection:
    conn = sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, timeout=10.0)
    conn.row_factory = sqlite3.Row
    return conn


def _made(folder: Path) -> Path:
    folder.mkdir(parents=True, exist_ok=True)
    return folder


@contextmanager
def _in_words(name: str) -> Iterator[None]:
    """Turn what goes wrong with a file into a sentence that begins with its name."""
    try:
        yield
    except StoreError as problem:
        raise StoreError(f"{name} {problem}") from None
    except (sqlite3.Error, OSError) as problem:
        raise StoreError(f"{name} {in_words(problem)}") from None
