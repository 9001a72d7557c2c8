"""Fixtures shared by all tests: the catalogue, and ordinary work."""

import sqlite3
from collections.abc import Iterator
from pathlib import Path

import pytest
from hypothesis import settings

from jolly_trellis.core.method import PROGRAM
from jolly_trellis.core.plan.piece import Conditions, Piece
from jolly_trellis.services.opening import open_studio
from tests import ordinary

# the same examples on every machine, however slow it is
settings.register_profile("steady", derandomize=True, deadline=None)
settings.load_profile("steady")


@pytest.fixture(autouse=True)
def figures() -> Iterator[None]:
    """The program's own book of figures, open for every formula that a test calls by itself."""
    with PROGRAM.open():
        yield


@pytest.fixture
def conditions() -> Conditions:
    """An ordinary evening: ten hours at 21 °C and 50 %, topped up by somebody."""
    return ordinary.conditions()


@pytest.fixture
def piece() -> Piece:
    """A 20 cm bowl with thirty mixed stems in a two-layer cushion."""
    return ordinary.piece()


@pytest.fixture
def studio(tmp_path: Path) -> Iterator[sqlite3.Connection]:
    """A fresh studio's database."""
    conn = open_studio(tmp_path)
    yield conn
    conn.close()
