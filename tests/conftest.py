"""Fixtures shared by all tests: the catalogue, and ordinary work."""

import shutil
import sqlite3
from collections import defaultdict
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

import pytest
from hypothesis import settings

from jolly_trellis.core.event.day.day import day_of
from jolly_trellis.core.event.sheet.schedule import EFFORT
from jolly_trellis.core.method import PROGRAM
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.piece import Piece
from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services import event_work, long_work
from jolly_trellis.services.opening import open_studio
from tests import ordinary
from tests.generated import LONG

settings.load_profile("long" if LONG else "daily")


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


@pytest.fixture(scope="session", autouse=True)
def short_days() -> None:
    """A day is looked for a fifth as long as a person's is, except where the search itself is what is tested."""
    given = day_of.__kwdefaults__
    assert given is not None
    given["effort"] = EFFORT / 5


@pytest.fixture(scope="session")
def laid_out(tmp_path_factory: pytest.TempPathFactory) -> dict[bool, Path]:
    """A studio's folder as it is at first, with the demo and all its reports, and without: to be copied, not used."""
    folders = {demo: tmp_path_factory.mktemp("demo" if demo else "empty") for demo in (True, False)}
    for demo, folder in folders.items():
        with closing(open_studio(folder)) as conn, PROGRAM.open():
            if demo:
                load_demo(conn)
                event_work.work_of(conn, 1)
    return folders


@pytest.fixture
def demo_folder(laid_out: dict[bool, Path], tmp_path: Path) -> Path:
    """A folder of its own with the demo event as event 1."""
    shutil.copytree(laid_out[True], tmp_path, dirs_exist_ok=True)
    return tmp_path


@pytest.fixture
def nothing_goes_on() -> Iterator[None]:
    """What a test has begun in the background ends with it."""
    yield
    long_work.stop_all(wait_s=0.0)


@pytest.fixture
def studio(laid_out: dict[bool, Path], tmp_path: Path) -> Iterator[sqlite3.Connection]:
    """A fresh studio's database."""
    shutil.copytree(laid_out[False], tmp_path, dirs_exist_ok=True)
    conn = open_studio(tmp_path)
    yield conn
    conn.close()


_LONG_S, _SHOWN = 20.0, 10


def pytest_terminal_summary(terminalreporter: pytest.TerminalReporter) -> None:
    """Where the time went: by folder, the ten slowest tests, and all over twenty seconds; none of it fails."""
    by_test: dict[str, float] = defaultdict(float)
    for reports in terminalreporter.stats.values():
        for each in reports:
            if isinstance(each, pytest.TestReport):
                by_test[each.nodeid] += each.duration
    if len(by_test) < _SHOWN:
        return
    by_folder: dict[str, float] = defaultdict(float)
    for name, seconds in by_test.items():
        by_folder["/".join(name.split("/")[:2])] += seconds
    terminalreporter.section("where the time went")
    for folder, seconds in _most(by_folder):
        number = sum(name.startswith(f"{folder}/") for name in by_test)
        terminalreporter.line(f"{seconds:8.1f} s  {folder}: {number} tests")
    for at, (name, seconds) in enumerate(_most(by_test)):
        if at < _SHOWN or seconds > _LONG_S:
            terminalreporter.line(f"{seconds:8.1f} s  {name}")


def _most(seconds: dict[str, float]) -> list[tuple[str, float]]:
    return sorted(seconds.items(), key=lambda each: -each[1])
