"""Proven recipes: those the studio keeps by name, those the program begins with, scaled for a size."""

import sqlite3
from datetime import UTC, datetime

from jolly_trellis.core import ranges
from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.event.recipes.proven import Proven, stems_for
from jolly_trellis.core.plan.recipe import RecipeLine
from jolly_trellis.core.quantities import phrase
from jolly_trellis.services.planning import NotFound
from jolly_trellis.store import proven as store
from jolly_trellis.store.connection import transaction


def keep(conn: sqlite3.Connection, recipe: Proven) -> int:
    """Keep a recipe under its name; with its number.

    Raises: InvalidMeasure: it has no name, no stems or no size, or another one has its name.
    """
    ranges.check(recipe)
    with transaction(conn):
        if store.named(conn, recipe.name) is not None:
            raise InvalidMeasure(
                path="name",
                message=phrase("A recipe called {name} is kept already.", name=recipe.name),
                limit=phrase("Give it another name, or delete that one first."),
            )
        return store.add(conn, recipe)


def scaled_for(conn: sqlite3.Connection, number: int, size: float) -> tuple[RecipeLine, ...]:
    """A kept recipe for a size. Raises: NotFound; InvalidMeasure: see `stems_for`."""
    for each in store.recipes(conn):
        if each.id == number:
            return stems_for(each.proven, size)
    raise NotFound(f"recipe {number}")


def delete(conn: sqlite3.Connection, number: int) -> None:
    """Delete a recipe; it can be brought back. Raises NotFound."""
    with transaction(conn):
        if not store.mark_deleted(conn, number, datetime.now(UTC).isoformat()):
            raise NotFound(f"recipe {number}")


def bring_back(conn: sqlite3.Connection, number: int) -> None:
    """Bring a deleted recipe back. Raises: NotFound; InvalidMeasure: another one has taken its name."""
    with transaction(conn):
        lost = next((each for each in store.recipes(conn, deleted=True) if each.id == number), None)
        if lost is None:
            raise NotFound(f"recipe {number}")
        if store.named(conn, lost.proven.name) is not None:
            raise InvalidMeasure(
                path="name",
                message=phrase("Another recipe is called {name} by now.", name=lost.proven.name),
                limit=phrase("Delete that one first."),
            )
        store.mark_deleted(conn, number, None)
