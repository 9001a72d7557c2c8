"""Typed loaders of the catalogue's CSV files."""

from importlib.resources import files
from typing import Any

from jolly_trellis.catalog.about import STORES
from jolly_trellis.catalog.columns import rows_of
from jolly_trellis.catalog.rows import StoreKind
from jolly_trellis.core.materials.frogs import Frog
from jolly_trellis.core.materials.netting import Netting
from jolly_trellis.core.materials.stands import Stand
from jolly_trellis.core.materials.stems import Variety
from jolly_trellis.core.materials.supplies import Supply
from jolly_trellis.core.materials.vessels import Vessel


def varieties() -> tuple[Variety, ...]:
    """Every variety of the catalogue, in file order."""
    return tuple(thing for _, thing in catalogue("variety"))


def nettings() -> tuple[Netting, ...]:
    """Every netting of the catalogue, in file order."""
    return tuple(thing for _, thing in catalogue("netting"))


def frogs() -> tuple[Frog, ...]:
    """Every frog of the catalogue, in file order."""
    return tuple(thing for _, thing in catalogue("frog"))


def supplies() -> tuple[Supply, ...]:
    """Every supply of the catalogue, in file order."""
    return tuple(thing for _, thing in catalogue("supply"))


def stands() -> tuple[Stand, ...]:
    """Every stand of the catalogue, in file order."""
    return tuple(thing for _, thing in catalogue("stand"))


def vessels() -> tuple[tuple[str, Vessel], ...]:
    """(key, vessel) for every vessel of the catalogue, in file order."""
    return catalogue("vessel")


def catalogue(kind: StoreKind) -> tuple[tuple[str, Any], ...]:
    """(key, thing) of every row of the catalogue's file of a kind, in its order; none where it has no file.

    Raises: ValueError: a row that cannot be read; the catalogue is ours to mend.
    """
    name = STORES[kind].file
    if not name:
        return ()
    text = (files("jolly_trellis.catalog") / name).read_text(encoding="utf-8")
    found = []
    for line, thing, refused in rows_of(kind, text):
        if refused is not None:
            raise ValueError(f"{name}, line {line}, {refused.column}: {refused.why}")
        found.append(thing)
    return tuple(found)
