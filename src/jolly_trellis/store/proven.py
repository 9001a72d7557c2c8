"""Recipes that a studio has proven and named: SQL text and functions."""

import sqlite3
from dataclasses import dataclass

from jolly_trellis.core.event.recipes.proven import Proven
from jolly_trellis.store import codec

_LIST = "SELECT id, body FROM proven_recipe WHERE deleted_at IS NULL ORDER BY name COLLATE NOCASE, id"
_DELETED = "SELECT id, body FROM proven_recipe WHERE deleted_at IS NOT NULL ORDER BY deleted_at DESC, id DESC"
_ADD = "INSERT INTO proven_recipe (name, body) VALUES (:name, :body)"
_NAMED = "SELECT id FROM proven_recipe WHERE name = :name AND deleted_at IS NULL"
_MARK = "UPDATE proven_recipe SET deleted_at = :at WHERE id = :id"


@dataclass(frozen=True, slots=True, kw_only=True)
class KeptRecipe:
    """A proven recipe by its number."""

    id: int
    proven: Proven


def recipes(conn: sqlite3.Connection, *, deleted: bool = False) -> tuple[KeptRecipe, ...]:
    """Every recipe that is kept, by name; or those that were deleted, the last first."""
    rows = conn.execute(_DELETED if deleted else _LIST)
    return tuple(KeptRecipe(id=row["id"], proven=codec.loads(row["body"], Proven)) for row in rows)


def named(conn: sqlite3.Connection, name: str) -> int | None:
    """The number of the kept recipe of a name; None for none."""
    row = conn.execute(_NAMED, {"name": name}).fetchone()
    return None if row is None else int(row["id"])


def add(conn: sqlite3.Connection, proven: Proven) -> int:
    """Keep a recipe; with its number."""
    found = conn.execute(_ADD, {"name": proven.name, "body": codec.dumps(proven)}).lastrowid
    return int(found or 0)


def mark_deleted(conn: sqlite3.Connection, number: int, at: str | None) -> bool:
    """Delete a recipe, or bring it back (None). Returns: whether there is one of that number."""
    return conn.execute(_MARK, {"id": number, "at": at}).rowcount == 1
