"""Typed loaders of the catalogue's CSV files."""

from importlib.resources import files
from typing import Any

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
    return tuple(thing for _, thing in _things("variety", "varieties.csv"))


def nettings() -> tuple[Netting, ...]:
    """Every netting of the catalogue, in file order."""
    return tuple(thing for _, thing in _things("netting", "netting.csv"))


def frogs() -> tuple[Frog, ...]:
    """Every frog of the catalogue, in file order."""
    return tuple(thing for _, thing in _things("frog", "frogs.csv"))


def supplies() -> tuple[Supply, ...]:
    """Every supply of the catalogue, in file order."""
    return tuple(thing for _, thing in _things("supply", "supplies.csv"))


def stands() -> tuple[Stand, ...]:
    """Every stand of the catalogue, in file order."""
    return tuple(thing for _, thing in _things("stand", "stands.csv"))


def vessels() -> tuple[tuple[str, Vessel], ...]:
    """(key, vessel) for every vessel of the catalogue, in file order."""
    return tuple(_things("vessel", "vessels.csv"))


def _things(kind: StoreKind, name: str) -> list[tuple[str, Any]]:
    """Every row of a catalogue file. Raises ValueError: a row that cannot be read; the catalogue is ours to mend."""
    text = (files("jolly_trellis.catalog") / name).read_text(encoding="utf-8")
    found = []
    for line, thing, refused in rows_of(kind, text):
        if refused is not None:
            raise ValueError(f"{name}, line {line}, {refused.column}: {refused.why}")
        found.append(thing)
    return found
