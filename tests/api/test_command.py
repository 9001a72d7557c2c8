"""The command that starts it: serves on this computer only, with the demo, and refuses what it cannot read."""

import json
import os
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path

import httpx2 as httpx
import pytest
from typer.testing import CliRunner

from jolly_trellis.__main__ import app, bound
from jolly_trellis.services.opening import DATABASE_NAME, hold, open_studio
from jolly_trellis.store import connection
from jolly_trellis.store.connection import in_words
from tests.wire import pieces

ROOT = Path(__file__).resolve().parents[2]
PATIENCE_S = 120  # a busy machine starts slowly and judges a whole event at its first answer


def free_port() -> int:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        return int(taken.getsockname()[1])


@contextmanager
def served(folder: Path, *options: str) -> Iterator[str]:
    """The address of an application in a process of its own, ended afterwards."""
    port = free_port()
    command = [sys.executable, "-m", "jolly_trellis", "serve", "--data", str(folder), "--port", str(port), *options]
    running = subprocess.Popen(command, env=os.environ | {"PYTHONPATH": str(ROOT / "src")}, stdout=subprocess.PIPE)
    try:
        address = f"http://127.0.0.1:{port}"
        for _ in range(10 * PATIENCE_S):
            try:
                httpx.get(f"{address}/api/health", timeout=PATIENCE_S)
                break
            except httpx.TransportError:
                assert running.poll() is None, "it ended"
                time.sleep(0.1)
        yield address
    finally:
        running.send_signal(signal.SIGINT)
        said, _ = running.communicate(timeout=PATIENCE_S)
        assert address.encode() in said


def test_it_serves_the_demo_and_keeps_what_was_done_with_it(tmp_path: Path) -> None:
    with served(tmp_path, "--demo") as address:
        event = httpx.get(f"{address}/api/events/1", timeout=PATIENCE_S).json()
        assert len(pieces(event)) >= 5
        first = f"{address}/api/events/1/parts/{pieces(event)[0]['id']}"
        gone = httpx.request("DELETE", first, json={"base_revision": event["revision"]}, timeout=PATIENCE_S)
        assert gone.status_code == 200, gone.text
    with served(tmp_path, "--demo") as address:
        again = httpx.get(f"{address}/api/events/1", timeout=PATIENCE_S).json()
        assert len(pieces(again)) == len(pieces(event)) - 1
        assert again["undo"].startswith("Remove ")
        assert len(httpx.get(f"{address}/api/events", timeout=PATIENCE_S).json()) == 1


def test_it_starts_empty_without_the_demo_and_answers_this_computer_only(tmp_path: Path) -> None:
    with served(tmp_path) as address:
        assert httpx.get(f"{address}/api/events", timeout=PATIENCE_S).json() == []
        others = {info[4][0] for info in socket.getaddrinfo(socket.gethostname(), None, socket.AF_INET)}
        port = int(address.rpartition(":")[2])
        for host in others - {"127.0.0.1", "127.0.1.1"}:
            with pytest.raises(OSError), socket.create_connection((str(host), port), timeout=2):
                pass


def test_what_only_a_search_or_a_drawing_file_needs_is_not_loaded_to_serve() -> None:
    """OR-Tools brings a table library with it; together they are a second of every start, DXF half a one."""
    asked = "import sys, jolly_trellis.api.app; print(*sorted({each.split('.')[0] for each in sys.modules}))"
    done = subprocess.run(
        [sys.executable, "-c", asked],
        env=os.environ | {"PYTHONPATH": str(ROOT / "src")},
        capture_output=True,
        text=True,
        check=True,
    )
    loaded = set(done.stdout.split())
    assert "jolly_trellis" in loaded
    assert not loaded & {"ortools", "pandas", "ezdxf"}


def test_data_of_a_newer_program_is_refused_in_one_sentence(tmp_path: Path) -> None:
    open_studio(tmp_path).close()
    conn = sqlite3.connect(tmp_path / DATABASE_NAME)
    conn.execute("PRAGMA user_version = 99")
    conn.close()
    ended = CliRunner().invoke(app, ["serve", "--data", str(tmp_path)])
    assert ended.exit_code == 1
    assert "newer Jolly Trellis" in ended.output
    assert "Traceback" not in ended.output


def damaged(folder: Path) -> None:
    (folder / DATABASE_NAME).write_bytes(b"rose petals " * 900)


def foreign(folder: Path) -> None:
    with closing(sqlite3.connect(folder / DATABASE_NAME)) as conn:
        conn.execute("CREATE TABLE invoices (id INTEGER)")


def a_folder_in_its_place(folder: Path) -> None:
    (folder / DATABASE_NAME).mkdir()


def held(folder: Path) -> sqlite3.Connection:
    conn = sqlite3.connect(folder / DATABASE_NAME, isolation_level=None)
    conn.execute("BEGIN EXCLUSIVE")
    return conn


def running(folder: Path) -> sqlite3.Connection:
    return hold(folder)


@pytest.mark.parametrize(
    ("spoil", "words", "way_out"),
    [
        (damaged, "damaged", "trellis restore"),
        (foreign, "another program", "--data"),
        (a_folder_in_its_place, "cannot be written", "--data"),
        (held, "held by another program", "end the other program"),
        (running, "running on", "stop it first"),
    ],
)
def test_data_that_cannot_be_used_is_told_in_one_sentence_with_the_way_out(
    tmp_path: Path,
    spoil: Callable[[Path], sqlite3.Connection | None],
    words: str,
    way_out: str,
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr(connection, "PATIENCE_S", 0.05)
    kept = spoil(tmp_path)
    ended = CliRunner().invoke(app, ["serve", "--data", str(tmp_path), "--port", str(free_port())])
    if kept is not None:
        kept.close()
    assert ended.exit_code == 1
    assert isinstance(ended.exception, SystemExit)
    assert words in ended.output
    assert way_out in ended.output
    assert "is at http" not in ended.output
    assert "Traceback" not in ended.output


@pytest.mark.skipif(os.geteuid() == 0, reason="nothing is read-only to this user")
def test_a_folder_that_is_read_only_is_told_so(tmp_path: Path) -> None:
    tmp_path.chmod(0o500)
    ended = CliRunner().invoke(app, ["serve", "--data", str(tmp_path / "in it"), "--port", str(free_port())])
    tmp_path.chmod(0o700)
    assert ended.exit_code == 1
    assert "read-only" in ended.output


def test_the_words_for_what_keeps_data_from_being_written() -> None:
    assert "read-only" in in_words(sqlite3.OperationalError("attempt to write a readonly database"))
    assert "read-only" in in_words(PermissionError(13, "Permission denied"))
    assert "full" in in_words(OSError(28, "No space left on device"))
    assert "held" in in_words(sqlite3.OperationalError("database is locked"))
    assert "damaged" in in_words(sqlite3.DatabaseError("file is not a database"))


def test_a_port_that_is_taken_is_told_so_and_another_is_named(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = int(taken.getsockname()[1])
        ended = CliRunner().invoke(app, ["serve", "--data", str(tmp_path), "--port", str(port)])
    assert ended.exit_code == 1
    assert f"Port {port} is taken" in ended.output
    assert "--port " in ended.output
    assert "is at http" not in ended.output


def test_a_second_one_on_the_same_folder_is_refused_and_the_first_goes_on(
    tmp_path: Path, laid_out: dict[bool, Path]
) -> None:
    shutil.copytree(laid_out[True], tmp_path, dirs_exist_ok=True)
    with served(tmp_path) as address:
        ended = CliRunner().invoke(app, ["serve", "--data", str(tmp_path), "--port", str(free_port())])
        assert ended.exit_code == 1
        assert "running on" in ended.output
        again = CliRunner().invoke(app, ["restore", str(tmp_path / "x"), "--data", str(tmp_path)])
        assert "stop it first" in again.output
        saved = tmp_path / "saved while it runs.sqlite"
        assert CliRunner().invoke(app, ["backup", str(saved), "--data", str(tmp_path)]).exit_code == 0
        assert httpx.get(f"{address}/api/events", timeout=PATIENCE_S).status_code == 200
    assert len(list((tmp_path / "copies").glob("????-??-??.sqlite"))) == 1
    fresh = tmp_path / "elsewhere"
    done = CliRunner().invoke(app, ["restore", str(saved), "--data", str(fresh)])
    assert done.exit_code == 0, done.output
    assert "is put back" in done.output
    over = CliRunner().invoke(app, ["restore", str(saved), "--data", str(fresh)])
    assert "is kept in" in over.output
    with closing(open_studio(fresh)) as conn:
        assert conn.execute("SELECT count(*) FROM event").fetchone()[0] == 1


def test_a_backup_that_cannot_be_is_told_in_one_sentence(tmp_path: Path) -> None:
    open_studio(tmp_path).close()
    there = tmp_path / "there"
    there.write_text("mine")
    for command, file, words in (
        ("backup", there, "is there already"),
        ("restore", there, "no data of Jolly Trellis"),
        ("restore", tmp_path / "nowhere", "no file"),
    ):
        ended = CliRunner().invoke(app, [command, str(file), "--data", str(tmp_path)])
        assert ended.exit_code == 1
        assert words in ended.output
        assert isinstance(ended.exception, SystemExit)


@pytest.mark.parametrize("port", ["0", "65536", "front door"])
def test_a_port_that_is_none_is_refused(port: str, tmp_path: Path) -> None:
    assert CliRunner().invoke(app, ["serve", "--data", str(tmp_path), "--port", port]).exit_code == 2


def test_the_description_it_writes_is_the_one_kept(tmp_path: Path) -> None:
    written = tmp_path / "openapi.json"
    assert CliRunner().invoke(app, ["openapi", str(written)]).exit_code == 0
    kept = ROOT / "docs" / "openapi.json"
    assert json.loads(written.read_text("utf-8")) == json.loads(kept.read_text("utf-8"))


def test_a_small_answer_is_sent_at_once() -> None:
    with closing(bound(0)) as listening:
        listening.listen(1)
        with socket.create_connection(listening.getsockname()), closing(listening.accept()[0]) as accepted:
            assert accepted.getsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY)
